//! A moving lamp's streak: its length is the shutter's, its brightness that of aperture, ISO and speed. One streak seen in
//! a test frame tells how bright the lamp is, and with that all others.

use crate::file::gear::Filter;
use crate::physics::exposure::{MID_GREY, reference_exposure};
use crate::plan::Meter;
use crate::quantity::bounds::{self, Invalid};
use crate::quantity::scale::{Aperture, Grid, Iso};
use crate::quantity::{Luminance, Stops};
use crate::wire::wire;
use std::f64::consts::PI;

wire! {
    /// A streak as it was seen in a test frame, longer than the lamp itself.
    pub struct StreakReading {
        /// f-number of that frame.
        pub aperture_f: f64,
        /// ISO of that frame.
        pub iso: f64,
        /// Grey before the lens in that frame.
        pub filter_stops: f64,
        /// What else was before it.
        #[serde(default, skip_serializing_if = "Vec::is_empty")]
        pub filters: Vec<Filter>,
        /// How fast the lamp went.
        pub speed_m_s: f64,
        /// Size of the lamp along its movement.
        pub size_m: f64,
        /// How bright the streak stood, in stops against the metered tone.
        pub streak_stops: f64,
    }
}

/// Luminance of the lamp. Each place of the streak saw it for `w/v`, so `2^p = π·L·(w/v)/(0.18·H_ref)`; between two frames
/// that is `Δ = log2[(N₀/N₁)²·(S₁/S₀)·(u₀/u₁)] + F₀ − F₁`.
///
/// # Errors
/// [`Invalid`] for a figure out of range, or a lamp at rest, which draws no streak.
pub fn luminance_of_streak(seen: &StreakReading, meter: Meter) -> Result<Luminance, Invalid> {
    let aperture = Aperture::read("aperture_f", seen.aperture_f, Grid::Thirds)?;
    let iso = Iso::read("iso", seen.iso, Grid::Thirds)?;
    let grey = bounds::FILTER.check("filter_stops", seen.filter_stops)?;
    let more: f64 = seen.filters.iter().map(|filter| filter.loss_stops).sum();
    let filter = bounds::FILTER.check("filters", grey + more).map(Stops::from_stops)?;
    let speed = bounds::SPEED.check("speed_m_s", seen.speed_m_s)?;
    let size = bounds::PART_SIZE.check("size_m", seen.size_m)?;
    let placement = bounds::OFFSET.check("streak_stops", seen.streak_stops).map(Stops::from_stops)?;
    if speed <= 0.0 || size <= 0.0 {
        let (field, what) =
            if speed <= 0.0 { ("speed_m_s", "a lamp at rest") } else { ("size_m", "a lamp without size") };
        return Err(Invalid::Contradiction {
            field: field.to_owned(),
            given: "0".to_owned(),
            reason: format!("{what} draws no streak to go by"),
        });
    }
    let reference = reference_exposure(aperture, iso, filter).as_lux_seconds();
    let luminance = meter.said(placement.as_ratio() * MID_GREY * reference * speed / (PI * size));
    bounds::LUMINANCE.check("streak_stops", luminance).map(Luminance::from_candelas_per_square_metre)
}
