//! Trains: a flash of many short pulses, all alike. Less light is fewer of them, so the train gets shorter and each pulse
//! stays what it is; between two counts all of them are cut alike.

use super::{Pulse, Quenched};
use crate::quantity::Seconds;

/// Guards a count against a power fraction that is a rounding above it.
const COUNT_TOLERANCE: f64 = 1e-9;

/// Time constants of a unit that gives a train of pulses.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct PulseTrain {
    /// Each of its pulses at its strongest.
    pub each: Quenched,
    /// From the start of one to the start of the next.
    pub period: Seconds,
    /// Pulses at full power.
    pub pulses: u32,
}

impl PulseTrain {
    /// Pulses at a power fraction.
    pub fn in_use(&self, power: f64) -> u32 {
        ((power * f64::from(self.pulses) - COUNT_TOLERANCE).ceil() as u32).max(1)
    }

    /// The train at a power fraction.
    pub fn pulse(&self, power: f64) -> Pulse {
        let count = self.in_use(power);
        let of_each = (power * f64::from(self.pulses) / f64::from(count)).min(1.0);
        self.each.pulse(of_each).repeated(count, self.period)
    }

    /// Powers, in stops below full, under which a pulse is left out.
    pub fn counts(&self) -> Vec<f64> {
        (1..self.pulses).map(|count| -(f64::from(count) / f64::from(self.pulses)).log2()).collect()
    }
}
