//! Quenched units: a switch cuts the discharge when enough light is out. Shorter at lower power, down to the floor
//! that the fall of the switch sets (`t0.1 ≥ τf·ln 10`).

use super::Pulse;
use crate::physics::root::crossing;
use crate::quantity::Seconds;

/// Time constants of a quenched unit.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Quenched {
    /// `τr`.
    pub rise: Seconds,
    /// `τd`.
    pub decay: Seconds,
    /// `τf` of the switch.
    pub fall: Seconds,
}

impl Quenched {
    /// The pulse at a power fraction. At full power there is no cut.
    ///
    /// The cut `T` solves `∫₀ᵀ f + f(T)·τf = P·∫₀^∞ f`. The left side grows with `T` because `τf < τd`.
    pub fn pulse(&self, power: f64) -> Pulse {
        let full = Pulse::full(self.rise, self.decay);
        if power >= 1.0 {
            return full;
        }
        let too_much =
            |at: f64| Pulse::cut(self.rise, self.decay, Seconds::from_secs(at), self.fall).share_of_full() - power;
        let end = 40.0 * self.decay.as_secs();
        Pulse::cut(self.rise, self.decay, Seconds::from_secs(crossing(0.0, end, too_much)), self.fall)
    }
}
