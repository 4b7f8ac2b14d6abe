//! Charge-voltage units: less charge, the whole discharge. *Longer* at lower power: all times are multiplied by `P^(−γ)`.

use super::Pulse;
use crate::quantity::Seconds;

/// Time constants of a charge-voltage unit.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct ChargeVoltage {
    /// `τr` at full power.
    pub rise: Seconds,
    /// `τd` at full power.
    pub decay: Seconds,
    /// `γ`, 0 to 0.3.
    pub gamma: f64,
}

impl ChargeVoltage {
    /// The pulse at a power fraction.
    pub fn pulse(&self, power: f64) -> Pulse {
        Pulse::full(self.rise, self.decay).stretched(power.powf(-self.gamma))
    }
}
