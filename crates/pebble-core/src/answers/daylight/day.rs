//! Light over a day from place and date: a forecast that asks for a reading.
//!
//! The sun's altitude is by Grena (*Solar Energy* 86, 2012; to 0.01°), the light by [`clear_sky`] less what the
//! clouds take. The clock is the one that was given for the day, and does not change within it.

use crate::file::sky::Sky;
use crate::physics::sky::clear_sky;
use crate::plan::check::At;
use crate::plan::sky::{Clock, sun_at};
use crate::quantity::bounds::Invalid;
use crate::quantity::{Angle, Stops};
use serde::Serialize;

/// Minutes between two points of the drawn day.
const STEP: u32 = 10;
const DAY: u32 = 24 * 60;
/// Where its centre truly stands, in degrees, when the air has lifted the upper rim of the sun to the horizon: 34′ of
/// refraction and 16′ of its own half.
const RISING: f64 = -0.833;
/// Drops that are looked for.
const DROPS: std::ops::RangeInclusive<u32> = 1..=6;

/// The light at one time of the day.
#[derive(Clone, Debug, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct SkyAt {
    /// Minutes since midnight there.
    pub minute: u32,
    /// As written, `18:30`.
    pub time: String,
    /// True altitude of the sun, before the air lifts it.
    pub altitude_deg: f64,
    /// Illuminance of a level surface.
    pub lux: f64,
}

/// When the light has dropped by so much.
#[derive(Clone, Debug, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Drop {
    /// Stops less than now.
    pub stops: u32,
    /// The time; `null` when not on this day.
    pub at: Option<SkyAt>,
    /// Minutes from now.
    pub minutes: Option<u32>,
}

/// The light of a day.
#[derive(Clone, Debug, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct SkyDay {
    /// Now.
    pub now: SkyAt,
    /// From midnight to midnight, evenly.
    pub points: Vec<SkyAt>,
    /// When the sun rises, where it does.
    pub rises: Option<String>,
    /// When it sets.
    pub sets: Option<String>,
    /// How long until it is darker.
    pub drops: Vec<Drop>,
    /// What one should know, in sentences.
    pub notes: Vec<String>,
}

impl Sky {
    /// How many minutes until the light has fallen by so many stops (positive), and when that is; nothing where it does not
    /// on this day.
    pub(crate) fn falls_by(&self, stops: Stops) -> Result<Option<(u32, String)>, Invalid> {
        let clock = self.clock(&At::default())?;
        let enough = sky_at(self, &clock, clock.minute).lux * (-stops).as_ratio();
        let found = (clock.minute..=DAY).map(|minute| sky_at(self, &clock, minute)).find(|one| one.lux <= enough);
        Ok(found.map(|found| (found.minute - clock.minute, found.time)))
    }
}

/// The light of a day.
///
/// # Errors
/// [`Invalid`] with the field that cannot be.
pub fn day(sky: &Sky) -> Result<SkyDay, Invalid> {
    let clock = sky.clock(&At::default())?;
    let at = |minute: u32| sky_at(sky, &clock, minute);
    let now = at(clock.minute);
    let each: Vec<SkyAt> = (0..=DAY).map(at).collect();
    let crossing = |rising: bool| {
        let up = |one: &SkyAt| one.altitude_deg > RISING;
        let found = each.windows(2).find(|pair| up(&pair[0]) != rising && up(&pair[1]) == rising);
        found.map(|pair| pair[1].time.clone())
    };
    let (rises, sets) = (crossing(true), crossing(false));
    let drops = DROPS
        .map(|stops| {
            let enough = now.lux * Stops::from_stops(-f64::from(stops)).as_ratio();
            let found = each[clock.minute as usize..].iter().find(|one| one.lux <= enough).cloned();
            Drop { stops, minutes: found.as_ref().map(|found| found.minute - clock.minute), at: found }
        })
        .collect();
    let notes = notes(&now, &each, rises.is_none() && sets.is_none());
    let points = each.into_iter().step_by(STEP as usize).collect();
    Ok(SkyDay { now, points, rises, sets, drops, notes })
}

fn notes(now: &SkyAt, each: &[SkyAt], neither: bool) -> Vec<String> {
    let mut said =
        vec!["A forecast from an open sky, true to a stop or two: take a reading before the frame.".to_owned()];
    if neither && each[0].altitude_deg > RISING {
        said.push("The sun does not set on this day.".to_owned());
    } else if neither {
        said.push("The sun does not rise on this day.".to_owned());
    }
    if now.altitude_deg > 0.0 && now.altitude_deg < 20.0 {
        said.push(
            "The sun is low: who faces it gets several stops more than level ground, who turns away, less.".to_owned(),
        );
    } else if now.altitude_deg <= RISING {
        said.push("The sun is down: lamps of the place may be more than the sky.".to_owned());
    }
    said
}

fn sky_at(sky: &Sky, clock: &Clock, minute: u32) -> SkyAt {
    // The light goes by where the sun is, not by what the air lifts it to, which ends in a step at the horizon.
    let altitude = sun_at(sky, clock, minute).true_deg;
    let clear = clear_sky(Angle::from_degrees(altitude));
    SkyAt {
        minute,
        time: format!("{:02}:{:02}", minute / 60 % 24, minute % 60),
        altitude_deg: altitude,
        lux: clear.as_lux() * Stops::from_stops(-sky.cloud_stops).as_ratio(),
    }
}
