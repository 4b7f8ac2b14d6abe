//! What an intent asks of a part, said once for findings, hold, matching and guides.

use crate::file::shot::Intent;
use crate::physics::motion::SOFT_LIMIT;
use crate::quantity::Metres;

/// A streak within this factor of the wanted length is as wanted; the eye does not measure finer.
pub const STREAK_FACTOR: f64 = 1.25;

impl Intent {
    /// The share of the allowed blur that a part may have: all of it where it shall be still, [`SOFT_LIMIT`] times where a
    /// touch is welcome, no limit where it shall streak.
    pub const fn blur_share(self) -> Option<f64> {
        match self {
            Self::Pebble => Some(1.0),
            Self::Skim => Some(SOFT_LIMIT),
            Self::Dash => None,
        }
    }

    /// The longest blur on the sensor, given the one that the use of the picture allows.
    pub fn blur_limit(self, allowed: Metres) -> Option<Metres> {
        self.blur_share().map(|share| allowed * share)
    }
}
