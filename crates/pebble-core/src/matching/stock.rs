//! What there is to choose from: units, what goes in front of them, and filters for the lens.

use crate::gear::check::At;
use crate::gear::{Filter, FilterUse, FlashUnit, Kit, Modifier, Unit};
use crate::power::{HeatStore, flashes_on_battery};
use crate::pulse::{Durations, Pulse};
use crate::quantity::bounds::Invalid;
use crate::quantity::{Joules, Seconds, Stops};
use crate::shutter::sync::OVER_SHARE;
use std::sync::OnceLock;

/// Filters of a kit that are stacked in every way; more than these are passed over.
const MOST_STACKED: usize = 8;
/// A rate is not brought further down than by this factor.
const MOST_SLOWER: f64 = 64.0;
/// Halvings in the search for a rate.
const HALVINGS: usize = 40;
/// Two sums of filters closer than this are one.
const SAME_LOSS: f64 = 1e-6;

/// A unit that can be chosen.
#[derive(Clone, Debug)]
pub struct Offered {
    /// As it is written down, ready to be carried by a shot.
    pub wire: FlashUnit,
    /// The same, checked.
    pub unit: Unit,
    /// How many there are.
    pub owned: u32,
    heat: Option<HeatStore>,
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
                AtPower { power, durations: at.durations, pulse: at.pulse, length: at.pulse.time_of_share(OVER_SHARE) }
            };
            self.unit.powers().map(at).collect()
        })
    }

    /// Whole flashes in a row at a rate; `None` when there is no end, or when nothing is known of its store and a single
    /// one is asked for.
    pub(super) fn in_a_row(&self, power: f64, rate: f64) -> InARow {
        let Some(store) = self.unit.store else { return InARow::NotKnown };
        if self.unit.min_interval.as_secs() * rate > 1.0 + 1e-9 {
            return InARow::Whole(1.0);
        }
        let whole = store.whole_flashes(power, rate).map_or(f64::INFINITY, f64::from);
        let energy = store.energy(power);
        let cool = self.heat.and_then(|heat| heat.flashes(energy, rate)).map_or(f64::INFINITY, |count| count as f64);
        InARow::Whole(whole.min(cool))
    }

    /// Stops between a rate and the fastest at which so many flashes in a row are whole; negative is a slower one.
    pub(super) fn rate_room(&self, power: f64, frames: u32, rate: f64) -> f64 {
        let holds = |rate: f64| self.in_a_row(power, rate).room(frames) >= -1e-9;
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

    /// Flashes on one charge; endless on the mains.
    pub(super) fn on_one_charge(&self, power: f64) -> InARow {
        match (&self.wire.battery, self.wire.energy_j) {
            (None, _)
                if matches!(self.wire.kind, crate::gear::UnitKind::MainsHead | crate::gear::UnitKind::Generator) =>
            {
                InARow::Whole(f64::INFINITY)
            }
            (Some(battery), Some(joules)) => InARow::Whole(flashes_on_battery(
                battery.usable_wh,
                battery.efficiency,
                Joules::from_joules(joules),
                power,
            ) as f64),
            _ => InARow::NotKnown,
        }
    }

    /// Seconds until it is ready again after a flash, where known.
    pub(super) fn ready_s(&self, power: f64) -> Option<f64> {
        self.unit.store.map(|store| store.recycle(power).max(self.unit.min_interval).as_secs())
    }
}

/// A number of flashes.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(super) enum InARow {
    /// So many, or without end.
    Whole(f64),
    /// Nobody wrote down what it takes to tell.
    NotKnown,
}

impl InARow {
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

impl Stock {
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
                heat: wire
                    .heat
                    .as_ref()
                    .map(|heat| HeatStore { capacity: Joules::from_joules(heat.capacity_j), drain_w: heat.drain_w }),
                wire: wire.to_carry(),
                pulses: OnceLock::new(),
            })
        };
        for (index, modifier) in modifiers.iter().enumerate() {
            modifier.check(&root.row("modifiers", index))?;
        }
        let grey: Vec<&Filter> = filters.iter().filter(|filter| filter.used_as == FilterUse::Nd).collect();
        let mut sums = vec![0.0];
        for filter in grey.iter().take(MOST_STACKED) {
            let with: Vec<f64> = sums.iter().map(|sum| sum + filter.loss_stops).collect();
            sums.extend(with);
        }
        sums.sort_by(f64::total_cmp);
        sums.dedup_by(|a, b| (*a - *b).abs() < SAME_LOSS);
        Ok(Self {
            units: units.iter().enumerate().map(offered).collect::<Result<_, Invalid>>()?,
            modifiers: modifiers.to_vec(),
            filters: sums.into_iter().map(Stops::from_stops).collect(),
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
