//! Recycling, bursts and batteries: how many flashes, how soon, and what happens when it is too soon.

use crate::quantity::{Joules, Seconds, Stops};

/// Relative rounding a store is forgiven before a frame counts as short of energy.
const STORE_TOLERANCE: f64 = 1e-9;

/// What a unit does when it is fired before its store is full enough.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Habit {
    /// Fires with what there is.
    Dim,
    /// Does not fire.
    Missing,
}

/// The store of a unit and what fills it.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Store {
    /// `W`, stored at full power.
    pub full: Joules,
    /// Time to fill an empty store.
    pub recycle: Seconds,
    /// Whether a flash at low power can be taken from a full store (quenched units), or the store itself is held at the
    /// lower charge (charge-voltage and bank units).
    pub borrows: bool,
    /// What it does when fired too soon.
    pub habit: Habit,
}

impl Store {
    /// A burst: one entry a frame with its loss, [`Stops::ZERO`] for a whole flash, [`Stops::DARK`] for a missing one.
    ///
    /// The store starts full, gives `P·W` a frame and gains `W/recycle/fps` between frames, never above its ceiling.
    pub fn burst(&self, power: f64, frames_per_second: f64, frames: usize) -> Vec<Stops> {
        let wanted = self.full.as_joules() * power;
        let ceiling = if self.borrows { self.full.as_joules() } else { wanted };
        let gain = self.full.as_joules() / self.recycle.as_secs() / frames_per_second;
        let mut stored = ceiling;
        let mut fire = || {
            let (taken, loss) = if stored >= wanted * (1.0 - STORE_TOLERANCE) {
                (wanted, Stops::ZERO)
            } else {
                match self.habit {
                    Habit::Dim => (stored, Stops::from_ratio(stored / wanted)),
                    Habit::Missing => (0.0, Stops::DARK),
                }
            };
            stored = ceiling.min(stored - taken + gain);
            loss
        };
        (0..frames).map(|_| fire()).collect()
    }
}

/// Flashes in a battery: usable energy times efficiency over the energy of one, rounded down.
pub fn flashes_on_battery(usable_watt_hours: f64, efficiency: f64, full: Joules, power: f64) -> u64 {
    (usable_watt_hours * 3600.0 * efficiency / (full.as_joules() * power)) as u64
}
