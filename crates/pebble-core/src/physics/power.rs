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

impl Store {
    /// `P·W`.
    pub fn energy(&self, power: f64) -> Joules {
        self.full * power
    }

    /// Time until a flash of this power is refilled: what was taken over `Pc = W/recycle`.
    pub fn recycle(&self, power: f64) -> Seconds {
        self.recycle * power
    }

    /// Whole flashes in a row at a rate before one is dim or missing; `None` when there is no end.
    ///
    /// A frame takes `P·W` and gains `g = Pc/fps`. With a store that borrows, `W − k·(P·W − g)` is left after `k`
    /// frames, and a frame is whole while that is at least `P·W`; without, the second frame is short already.
    pub fn whole_flashes(&self, power: f64, frames_per_second: f64) -> Option<u32> {
        let full = self.full.as_joules();
        let wanted = full * power;
        let gain = full / self.recycle.as_secs() / frames_per_second;
        if gain >= wanted * (1.0 - STORE_TOLERANCE) {
            return None;
        }
        let ceiling = if self.borrows { full } else { wanted };
        Some(((ceiling - wanted * (1.0 - STORE_TOLERANCE)) / (wanted - gain)).floor() as u32 + 1)
    }
}

/// What a unit can take in heat.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct HeatStore {
    /// Energy it holds before it acts.
    pub capacity: Joules,
    /// What it gives off, in watts.
    pub drain_w: f64,
}

impl HeatStore {
    /// Flashes from cold at a rate until it is past its capacity; `None` when it never is.
    ///
    /// `h ← max(0, h − drain·Δt) + P·W` a flash; the one that takes it past is the last that is fired freely.
    pub fn flashes(&self, energy: Joules, frames_per_second: f64) -> Option<u64> {
        let (each, capacity) = (energy.as_joules(), self.capacity.as_joules());
        let cooled = self.drain_w / frames_per_second;
        if each > capacity {
            return Some(1);
        }
        // After `k` flashes it holds `each + (k−1)·(each − cooled)`, as long as it heats up at all.
        let gain = each - cooled;
        (gain > 0.0).then(|| ((capacity - each) / gain).floor() as u64 + 2)
    }
}

/// Flashes in a battery: usable energy times efficiency over the energy of one, rounded down.
pub fn flashes_on_battery(usable_watt_hours: f64, efficiency: f64, full: Joules, power: f64) -> u64 {
    (usable_watt_hours * 3600.0 * efficiency / (full.as_joules() * power)) as u64
}
