//! Switched banks: fewer capacitors, then less charge on them. Shortens down to each switch point `P = b/B`, jumps up
//! just above it, and grows again below the last.

use super::{ChargeVoltage, Pulse};
use crate::quantity::Seconds;

/// Guards the switch points against a power fraction that is a rounding above them.
const SWITCH_TOLERANCE: f64 = 1e-9;

/// Time constants of a unit with switched banks.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct SwitchedBanks {
    /// `τr`.
    pub rise: Seconds,
    /// `τd` with all banks on.
    pub decay: Seconds,
    /// `γ` of the charge on the banks in use.
    pub gamma: f64,
    /// `B`.
    pub banks: u32,
}

impl SwitchedBanks {
    /// Banks in use at a power fraction.
    pub fn in_use(&self, power: f64) -> u32 {
        ((power * f64::from(self.banks) - SWITCH_TOLERANCE).ceil() as u32).max(1)
    }

    /// The pulse at a power fraction.
    pub fn pulse(&self, power: f64) -> Pulse {
        let used = f64::from(self.in_use(power)) / f64::from(self.banks);
        let charge = power / used;
        ChargeVoltage { rise: self.rise, decay: self.decay * used, gamma: self.gamma }.pulse(charge)
    }
}
