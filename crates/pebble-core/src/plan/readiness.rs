//! When a unit is ready again and how often it fires: one rule for sheets, matching, ways and cautions.

use crate::physics::power::{HeatStore, Store, flashes_on_battery};
use crate::quantity::{Joules, Seconds};

/// Relative rounding that a rate is forgiven before a flash counts as asked for too soon.
const RATE_TOLERANCE: f64 = 1e-9;
/// Flashes closer than this are a danger to people sensitive to them: three a second, the usual limit for venues and
/// screens.
const STROBES: Seconds = Seconds::from_secs(1.0 / 3.0);
/// Power at which a unit is as quick as it is in earnest.
const QUICK_POWER: f64 = 0.05;

/// What feeds a unit.
#[derive(Clone, Copy, Debug, PartialEq)]
pub enum Supply {
    /// The mains: no end.
    Mains,
    /// A battery.
    Battery {
        /// What can be taken from it, in watt-hours.
        usable_wh: f64,
        /// Share of that which reaches the store.
        efficiency: f64,
    },
    /// Nobody wrote it down.
    NotKnown,
}

/// A number of flashes.
#[derive(Clone, Copy, Debug, PartialEq)]
pub enum Flashes {
    /// So many, or without end.
    Whole(f64),
    /// Nobody wrote down what it takes to tell.
    NotKnown,
}

impl Flashes {
    /// So many; no end where there is none.
    fn of(count: Option<u64>) -> Self {
        Self::Whole(count.map_or(f64::INFINITY, |count| count as f64))
    }

    /// The number, where there is one.
    pub fn count(self) -> Option<u64> {
        match self {
            Self::Whole(count) => count.is_finite().then_some(count as u64),
            Self::NotKnown => None,
        }
    }

    /// Stops to spare over a number; what is not known has nothing to spare.
    pub fn room(self, wanted: u32) -> f64 {
        match self {
            Self::Whole(count) if wanted > 0 => (count / f64::from(wanted)).log2(),
            Self::Whole(_) => f64::INFINITY,
            // One flash, or none in particular, any unit gives.
            Self::NotKnown if wanted <= 1 => f64::INFINITY,
            Self::NotKnown => f64::NEG_INFINITY,
        }
    }
}

/// What decides when a unit fires again.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Readiness {
    /// Its store, where energy and recycle time are known.
    pub store: Option<Store>,
    /// Energy at full power, where known.
    pub full: Option<Joules>,
    /// Shortest time between two flashes.
    pub min_interval: Seconds,
    /// What it takes in heat, where known.
    pub heat: Option<HeatStore>,
    /// What feeds it.
    pub supply: Supply,
}

impl Readiness {
    /// Time from a flash until the next can be whole, where known.
    pub fn ready(&self, power: f64) -> Option<Seconds> {
        self.store.map(|store| store.recycle(power).max(self.min_interval))
    }

    /// Whole flashes in a row at a rate, by the store and the shortest interval: the inner `None` is no end.
    pub fn burst(&self, power: f64, rate: f64) -> Option<Option<u32>> {
        let too_soon = self.min_interval.as_secs() * rate > 1.0 + RATE_TOLERANCE;
        self.store.map(|store| if too_soon { Some(1) } else { store.whole_flashes(power, rate) })
    }

    /// Flashes from cold at a rate until it is hot, where known: the inner `None` is never.
    pub fn until_hot(&self, power: f64, rate: f64) -> Option<Option<u64>> {
        self.heat.zip(self.full).map(|(heat, full)| heat.flashes(full * power, rate))
    }

    /// Whole flashes in a row at a rate, by store, interval and heat.
    pub fn in_a_row(&self, power: f64, rate: f64) -> Flashes {
        let Some(whole) = self.burst(power, rate) else { return Flashes::NotKnown };
        match (Flashes::of(whole.map(u64::from)), self.until_hot(power, rate)) {
            (Flashes::Whole(whole), Some(Some(cool))) => Flashes::Whole(whole.min(cool as f64)),
            (whole, _) => whole,
        }
    }

    /// Flashes on one charge.
    pub fn on_one_charge(&self, power: f64) -> Flashes {
        match (self.supply, self.full) {
            (Supply::Mains, _) => Flashes::of(None),
            (Supply::Battery { usable_wh, efficiency }, Some(full)) => {
                Flashes::of(Some(flashes_on_battery(usable_wh, efficiency, full, power)))
            }
            _ => Flashes::NotKnown,
        }
    }

    /// Whether it can flash more than three times a second.
    pub fn strobes(&self) -> bool {
        self.ready(QUICK_POWER).is_some_and(|ready| ready <= STROBES)
    }
}
