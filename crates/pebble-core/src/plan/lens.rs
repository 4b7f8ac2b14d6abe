//! What is before the lens: what stays there, and the grey filters that are at hand.

use super::check::At;
use super::front::dye_of;
use crate::file::gear::{Filter, FilterUse};
use crate::file::shot::Camera;
use crate::physics::output::colour::{CLEAR, Dye, stacked};
use crate::quantity::Stops;
use crate::quantity::bounds::{self, Invalid};
use std::sync::Arc;

/// More than anybody screws before one lens.
const MOST_ON_THE_LENS: usize = 6;
/// More grey filters than a pouch holds.
const MOST_AT_HAND: usize = 12;
/// So many of them are stacked at most.
const MOST_STACKED: u32 = 3;
/// Two sums of filters closer than this are one.
const SAME_LOSS: f64 = 0.1;

/// What is before the lens, checked.
#[derive(Clone, Debug, PartialEq)]
pub struct BeforeLens {
    /// Loss of what stays there, positive. The grey that is turned comes on top.
    pub loss: Stops,
    /// Its shift of colour.
    pub mired: f64,
    /// What its dyes leave.
    pub dye: Dye,
    /// Names of what stays there.
    names: Vec<String>,
    /// Grey filters at hand.
    greys: Arc<[(String, f64)]>,
}

impl BeforeLens {
    pub(super) fn of(camera: &Camera, grey: Stops) -> Result<Self, Invalid> {
        let at = At::new("camera");
        let many = |list: &str, count: usize, most: usize| {
            let given = format!("a list of {count}");
            (count > most).then(|| at.not_allowed(list, &given, &format!("at most {most} of them")))
        };
        if let Some(refused) = many("filters", camera.filters.len(), MOST_ON_THE_LENS)
            .or_else(|| many("greys", camera.greys.len(), MOST_AT_HAND))
        {
            return Err(refused);
        }
        let mut all = Self {
            loss: Stops::ZERO,
            mired: 0.0,
            dye: CLEAR,
            names: Vec::new(),
            greys: camera.greys.iter().map(|grey| (grey.name.clone(), grey.loss_stops)).collect(),
        };
        for (index, grey) in camera.greys.iter().enumerate() {
            grey.check(&at.row("greys", index))?;
        }
        for (index, filter) in camera.filters.iter().enumerate() {
            let here = at.row("filters", index);
            let loss = filter.check(&here)?;
            if filter.used_as == FilterUse::Gel {
                return Err(here.not_allowed("used_as", "gel", "what goes before a lens; gels go before lights"));
            }
            all.loss = all.loss + loss;
            all.mired += filter.mired;
            all.dye = stacked(all.dye, dye_of(filter.hue.as_ref()));
            all.names.push(filter.name.clone());
        }
        let total = (all.loss + grey).as_stops();
        if total > bounds::FILTER.max {
            let reason = format!("all that is before the lens takes {} stops at most", bounds::FILTER.max);
            return Err(at.contradiction("filters", format!("{total:.1} stops"), reason));
        }
        Ok(all)
    }

    /// Grey that can be put before the lens, none first: what the filters at hand add up to; nothing where none are known.
    pub fn greys(&self) -> Option<Vec<Stops>> {
        (!self.greys.is_empty()).then(|| sums(self.greys.iter().map(|(_, loss)| *loss)))
    }

    /// All that is on the lens with so much grey, by name; nothing where it is bare.
    pub fn said(&self, grey: Stops) -> Option<String> {
        let mut names = self.names.clone();
        match self.stack(grey) {
            _ if grey.as_stops() < SAME_LOSS => {}
            Some(stack) => names.extend(stack),
            None => names.push(format!("{:.1} stops of grey", grey.as_stops())),
        }
        (!names.is_empty()).then(|| names.join(" + "))
    }

    /// The fewest filters at hand that make so much grey.
    fn stack(&self, grey: Stops) -> Option<Vec<String>> {
        let chosen = |set: &u32| (0..self.greys.len()).filter(|at| set & (1 << at) != 0).collect::<Vec<_>>();
        (1u32..1 << self.greys.len())
            .filter(|set| set.count_ones() <= MOST_STACKED)
            .map(|set| chosen(&set))
            .filter(|set| {
                let sum: f64 = set.iter().map(|at| self.greys[*at].1).sum();
                (sum - grey.as_stops()).abs() < SAME_LOSS
            })
            .min_by_key(Vec::len)
            .map(|set| set.into_iter().map(|at| self.greys[at].0.clone()).collect())
    }
}

/// What so many grey filters add up to, none first, not more than three at once.
pub(crate) fn sums(losses: impl Iterator<Item = f64>) -> Vec<Stops> {
    let mut sums = vec![(0.0, 0)];
    for loss in losses.take(MOST_AT_HAND) {
        let with: Vec<(f64, u32)> = sums
            .iter()
            .filter(|(_, count)| *count < MOST_STACKED)
            .map(|(sum, count)| (sum + loss, count + 1))
            .filter(|(sum, _)| *sum <= bounds::FILTER.max)
            .collect();
        sums.extend(with);
    }
    sums.sort_by(|a, b| a.0.total_cmp(&b.0));
    sums.dedup_by(|a, b| (a.0 - b.0).abs() < SAME_LOSS);
    sums.into_iter().map(|(sum, _)| Stops::from_stops(sum)).collect()
}

/// The grey filters of a list.
pub(crate) fn greys_of(filters: &[Filter]) -> impl Iterator<Item = &Filter> {
    filters.iter().filter(|filter| filter.used_as == FilterUse::Nd)
}
