//! High-speed sync: the flash glows while the slit passes, and every row gets a slice of the glow.

use super::Run;
use crate::quantity::{Metres, MetresPerSecond, Stops};

/// `η`, how much of a full pulse the glow is worth, unless measured.
pub const DEFAULT_EFFICIENCY: f64 = 0.7;

/// Change against the full pulse at the same power: `η·t/(Tx + t)`. Every row gets the same.
pub fn loss(run: Run, efficiency: f64) -> Stops {
    Stops::from_ratio(efficiency * (run.time / (run.travel + run.time)))
}

/// How far a moving part leans over the height of the frame, on the sensor: `u·Tx`.
pub fn lean(run: Run, image_speed: MetresPerSecond) -> Metres {
    image_speed * run.travel
}
