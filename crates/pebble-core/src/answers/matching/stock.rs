//! What there is to choose from: units, what goes in front of them, and filters for the lens.

use crate::file::gear::{Filter, FlashUnit, Kit, Modifier};
use crate::physics::pulse::{Durations, Pulse};
use crate::physics::shutter::sync::OVER_SHARE;
use crate::plan::Unit;
use crate::plan::check::At;
use crate::plan::{greys_of, sums};
use crate::quantity::bounds::Invalid;
use crate::quantity::{Seconds, Stops};
use std::sync::OnceLock;

/// A rate is not brought further down than by this factor.
const MOST_SLOWER: f64 = 64.0;
/// Halvings in the search for a rate.
const HALVINGS: usize = 40;

/// A unit that can be chosen.
#[derive(Clone, Debug)]
pub struct Offered {
    /// As it is written down, ready to be carried by a shot.
    pub wire: FlashUnit,
    /// The same, checked.
    pub unit: Unit,
    /// How many there are.
    pub owned: u32,
    /// Worked out when it is first asked for: a pulse takes longer than all the rest of a search.
    pulses: OnceLock<Vec<AtPower>>,
}

/// A pulse of a unit at one power of its dial.
#[derive(Clone, Copy, Debug)]
pub(super) struct AtPower {
    pub power: f64,
    pub durations: Durations,
    pub pulse: Pulse,
    /// `L`, ignition to nearly all of the light.
    pub length: Seconds,
}

/// All that can be chosen from.
#[derive(Clone, Debug, Default)]
pub struct Stock {
    /// Units.
    pub units: Vec<Offered>,
    /// What goes in front of them.
    pub modifiers: Vec<Modifier>,
    /// Losses that grey filters add up to, none first.
    pub filters: Vec<Stops>,
}

impl Offered {
    /// Weight, where known.
    pub fn mass_kg(&self) -> Option<f64> {
        self.wire.mass_kg
    }

    /// Its pulses, low power to full.
    pub(super) fn pulses(&self) -> &[AtPower] {
        self.pulses.get_or_init(|| {
            let at = |power: f64| {
                let at = self.unit.control.at(power);
                AtPower {
                    power,
                    durations: at.durations(),
                    pulse: at.pulse,
                    length: at.pulse.time_of_share(OVER_SHARE),
                }
            };
            self.unit.powers().map(at).collect()
        })
    }

    /// Stops between a rate and the fastest at which so many flashes in a row are whole; negative is a slower one.
    pub(super) fn rate_room(&self, power: f64, frames: u32, rate: f64) -> f64 {
        let holds = |rate: f64| self.unit.readiness.in_a_row(power, rate).room(frames) >= -1e-9;
        let (mut slow, mut fast) = (rate / MOST_SLOWER, rate);
        if holds(fast) {
            return 0.0;
        }
        if !holds(slow) {
            return f64::NEG_INFINITY;
        }
        for _ in 0..HALVINGS {
            let middle = (slow * fast).sqrt();
            if holds(middle) { slow = middle } else { fast = middle }
        }
        (slow / rate).log2()
    }
}

impl Stock {
    /// So many of some units and none of the others, with everything that goes in front of them.
    pub(super) fn only(&self, count: impl Fn(&str) -> u32) -> Self {
        let some = |offered: &Offered| {
            let owned = count(&offered.wire.id);
            (owned > 0).then(|| Offered { owned, ..offered.clone() })
        };
        let units = self.units.iter().filter_map(some).collect();
        Self { units, modifiers: self.modifiers.clone(), filters: self.filters.clone() }
    }

    /// Of things as they are written down.
    ///
    /// # Errors
    /// [`Invalid`] for the first thing that cannot be.
    pub fn of(units: &[FlashUnit], modifiers: &[Modifier], filters: &[Filter]) -> Result<Self, Invalid> {
        let root = At::default();
        let offered = |(index, wire): (usize, &FlashUnit)| {
            Ok(Offered {
                unit: wire.check(&root.row("units", index))?,
                owned: wire.owned.unwrap_or(1),
                wire: wire.to_carry(),
                pulses: OnceLock::new(),
            })
        };
        for (index, modifier) in modifiers.iter().enumerate() {
            modifier.check(&root.row("modifiers", index))?;
        }
        Ok(Self {
            units: units.iter().enumerate().map(offered).collect::<Result<_, Invalid>>()?,
            modifiers: modifiers.to_vec(),
            filters: sums(greys_of(filters).map(|filter| filter.loss_stops)),
        })
    }

    /// What is taken along of a whole kit.
    ///
    /// # Errors
    /// As [`Stock::of`].
    pub fn of_kit(kit: &Kit) -> Result<Self, Invalid> {
        let there = |id: &str| !kit.retired.iter().any(|away| away == id);
        let units: Vec<FlashUnit> = kit.units.iter().filter(|unit| there(&unit.id)).cloned().collect();
        let modifiers: Vec<Modifier> = kit.modifiers.iter().filter(|one| there(&one.id)).cloned().collect();
        let filters: Vec<Filter> = kit.filters.iter().filter(|one| there(&one.id)).cloned().collect();
        Self::of(&units, &modifiers, &filters)
    }

    /// The place of a unit by its identity.
    pub fn unit(&self, id: &str) -> Option<usize> {
        self.units.iter().position(|offered| offered.wire.id == id)
    }
}
