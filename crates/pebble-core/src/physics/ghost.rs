//! The ghost: what the steady light draws of a part while the shutter is open.

use crate::physics::exposure::Level;
use crate::quantity::Metres;
use serde::{Deserialize, Serialize};

/// Difference of L* below which nobody sees a trail: one just noticeable step (CIE 1976).
pub const NOTICED_FROM: f64 = 1.0;
/// Difference of L* from which it is seen by who looks at the picture.
pub const SEEN_FROM: f64 = 3.0;
/// Difference of L* beyond which it is strong.
pub const STRONG_FROM: f64 = 10.0;

/// How visible a trail is, by its difference of L* from the plain background.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Visibility {
    /// Below 1: nobody sees it.
    Not,
    /// Below 3.
    Faint,
    /// Up to 10.
    Visible,
    /// Beyond 10.
    Strong,
}

impl Visibility {
    /// Of a difference of lightness; the sign does not matter.
    pub fn of(delta: f64) -> Self {
        match delta.abs() {
            d if d < NOTICED_FROM => Self::Not,
            d if d < SEEN_FROM => Self::Faint,
            d if d <= STRONG_FROM => Self::Visible,
            _ => Self::Strong,
        }
    }

    /// The word in a sentence.
    pub const fn word(self) -> &'static str {
        match self {
            Self::Not => "not visible",
            Self::Faint => "faint",
            Self::Visible => "visible",
            Self::Strong => "strong",
        }
    }
}

/// The light on a part and on what is behind it.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Tones {
    /// Part in steady light, had it stood still.
    pub part_ambient: Level,
    /// Part in flash.
    pub part_flash: Level,
    /// Background in steady light.
    pub background_ambient: Level,
    /// Background in flash (spill).
    pub background_flash: Level,
}

/// What the sensor records of a moving part.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Ghost {
    /// `κ`, the share of the exposure that a place on the path is covered by the part.
    pub dwell: f64,
    /// Background where the part never was.
    pub plain: Level,
    /// On the path, beside the frozen part.
    pub beside: Level,
    /// On the frozen part itself.
    pub through: Level,
    /// What is seen of it: L* of beside minus L* of plain, of a short path only as much as [`ramp`] says.
    pub delta_lightness: f64,
    /// Whether beside and plain both read as black, so that nobody sees either.
    pub too_dark: bool,
}

impl Ghost {
    /// How visible it is.
    pub fn visibility(&self) -> Visibility {
        Visibility::of(self.delta_lightness)
    }

    /// What may disturb: nothing of a trail between two blacks.
    pub fn noticed(&self) -> f64 {
        if self.too_dark { 0.0 } else { self.delta_lightness.abs() }
    }
}

/// `κ = min(1, w/ℓ)`: the part's width along the movement over the length of its path, both on the sensor. A part
/// without width has no dwell; a path without length has all.
pub fn dwell(width: Metres, path: Metres) -> f64 {
    if width <= Metres::ZERO {
        0.0
    } else if path <= Metres::ZERO {
        1.0
    } else {
        (width / path).min(1.0)
    }
}

/// How much of a trail shows that is hardly longer than the allowed blur `b`, which shows only as an edge:
/// `min(1, max(0, ℓ/b − 1)/2)`, nothing up to `b` and all of it from `3b`.
pub fn ramp(path: Metres, allowed: Metres) -> f64 {
    ((path / allowed - 1.0) / 2.0).clamp(0.0, 1.0)
}

/// The three levels around a moving part. Spill on the background is added whole: at the flash's instant the part is
/// elsewhere on its path.
pub fn ghost(dwell: f64, ramp: f64, tones: Tones) -> Ghost {
    let drawn = tones.part_ambient.times(dwell).plus(tones.background_ambient.times(1.0 - dwell));
    let plain = tones.background_ambient.plus(tones.background_flash);
    let beside = drawn.plus(tones.background_flash);
    Ghost {
        dwell,
        plain,
        beside,
        through: tones.part_flash.plus(drawn),
        // Nearly all that is looked at while dials are tried is short, or is looked at for something else.
        delta_lightness: if ramp > 0.0 { (beside.lightness() - plain.lightness()) * ramp } else { 0.0 },
        too_dark: beside.reads_as_black() && plain.reads_as_black(),
    }
}
