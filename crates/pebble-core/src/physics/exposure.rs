//! The meter equation, placement, and the one tone scale.
//!
//! Incident light: `H_ref = C·N²/S · 2^F` is the luminous exposure at the subject that gives the metered tone
//! (ISO 2720, with the constant `C` of a dome receptor). Everything the product says about tone is relative to it.

use crate::quantity::scale::{Aperture, Iso, ShutterTime};
use crate::quantity::{Luminance, Lux, LuxSeconds, Stops};

/// `C`, incident-light constant of a dome receptor in lx·s (ISO 2720 allows 320 to 540).
pub const INCIDENT_C: f64 = 340.0;
/// `K`, reflected-light constant in cd·s/m² (meters use 10.6 to 13.4).
pub const REFLECTED_K: f64 = 12.5;
/// Reflectance of the metered tone.
pub const MID_GREY: f64 = 0.18;
/// Level at which white clips: a perfect white at the metered placement.
pub const CLIP_LEVEL: f64 = 1.0 / MID_GREY;
/// CIE L* under which a tone reads as black.
pub const BLACK_LIGHTNESS: f64 = 3.0;

/// `H_ref`: the exposure at the subject that gives the metered tone with these settings and this filter loss.
pub fn reference_exposure(aperture: Aperture, iso: Iso, filter_loss: Stops) -> LuxSeconds {
    let number = aperture.number();
    LuxSeconds::from_lux_seconds(INCIDENT_C * number * number / iso.number() * filter_loss.as_ratio())
}

/// Illuminance from an incident reading: `E = C·N²/(S·t)`.
pub fn illuminance_of_reading(aperture: Aperture, time: ShutterTime, iso: Iso) -> Lux {
    reference_exposure(aperture, iso, Stops::ZERO) / time.time()
}

/// Illuminance from an incident EV at ISO 100: `E = C·2^EV/100`.
pub fn illuminance_of_ev100(ev: f64) -> Lux {
    Lux::from_lux(INCIDENT_C * ev.exp2() / 100.0)
}

/// Tone on the incident scale: 1 is mid-grey, [`CLIP_LEVEL`] is white. Linear in light, so levels of several
/// sources on one surface add.
#[derive(Clone, Copy, Debug, PartialEq, PartialOrd)]
pub struct Level(f64);

impl Level {
    /// No light.
    pub const BLACK: Self = Self(0.0);

    /// A surface of a reflectance under light at a placement: `(ρ/0.18)·2^p`.
    pub fn of_surface(reflectance: f64, placement: Stops) -> Self {
        Self(reflectance / MID_GREY * placement.as_ratio())
    }

    /// Something that shines: `π·L·t/(0.18·H_ref)`. Not multiplied by a reflectance again.
    pub fn of_luminance(luminance: Luminance, time: ShutterTime, reference: LuxSeconds) -> Self {
        let exposure = std::f64::consts::PI * luminance.as_candelas_per_square_metre() * time.time().as_secs();
        Self(exposure / (MID_GREY * reference.as_lux_seconds()))
    }

    /// The number; mid-grey is 1.
    pub fn value(self) -> f64 {
        self.0
    }

    /// Where it stands on the ladder.
    pub fn placement(self) -> Stops {
        Stops::from_ratio(self.0)
    }

    /// The same by light: `(ρ/0.18)·H/H_ref`.
    pub fn of_light(reflectance: f64, exposure: LuxSeconds, reference: LuxSeconds) -> Self {
        Self(reflectance / MID_GREY * (exposure / reference))
    }

    /// Whether it reads as black.
    pub fn reads_as_black(self) -> bool {
        self.0 < BLACK_LEVEL
    }

    /// CIE 1976 lightness L* of `min(1, 0.18·level)`, 0 to 100.
    pub fn lightness(self) -> f64 {
        let y = (MID_GREY * self.0).min(1.0);
        // CIE 15:2018, 8.2.1: the straight piece near black has slope (29/3)³ and meets the cube root at (6/29)³.
        if y > (6.0f64 / 29.0).powi(3) { 116.0 * y.cbrt() - 16.0 } else { (29.0f64 / 3.0).powi(3) * y }
    }

    /// Both together on one surface.
    pub fn plus(self, other: Self) -> Self {
        Self(self.0 + other.0)
    }

    /// A share of it.
    pub fn times(self, share: f64) -> Self {
        Self(self.0 * share)
    }

    /// Whether it is beyond white.
    pub fn clips(self) -> bool {
        self.0 > CLIP_LEVEL
    }
}

/// Below it a tone reads as black: L* is straight down there, so this is exact.
const BLACK_LEVEL: f64 = BLACK_LIGHTNESS * 27.0 / (29.0 * 29.0 * 29.0) / MID_GREY;

/// Placement at which a mid-grey surface reads as black (about −5.8 stops).
pub fn black_placement() -> Stops {
    Stops::from_ratio(BLACK_LEVEL)
}

/// Placement at which a mid-grey surface clips (+2.47 stops).
pub fn clip_placement() -> Stops {
    Stops::from_ratio(CLIP_LEVEL)
}

/// The exposure that a meter has read as an aperture value in stops: `H = C·2^Av/S`.
pub fn exposure_of_reading(av_stops: f64, iso: Iso) -> LuxSeconds {
    LuxSeconds::from_lux_seconds(INCIDENT_C * av_stops.exp2() / iso.number())
}

/// What a flash meter shows for an exposure: `N = √(H·S/C)` at the camera's ISO, with no filter in it, as an aperture value
/// in whole stops, rounded to tenths. `None` for no light.
pub fn metered_tenths(exposure: LuxSeconds, iso: Iso) -> Option<i32> {
    let square = exposure.as_lux_seconds() * iso.number() / INCIDENT_C;
    (square > 0.0).then(|| (square.log2() * 10.0).round() as i32)
}
