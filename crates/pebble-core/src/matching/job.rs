//! A whole job: the smallest set of units with which every shot of the day can be done, and what to hire for those that
//! cannot.
//!
//! For each shot the sets of units that do it are worked out, none of which holds another. One of them is chosen for each
//! shot so that all together take the fewest units, and of these the lightest: by going through the shots, the ones with
//! the least choice first, and turning back where it can only take more.

use super::aim::Priority;
use super::crew::Crewing;
use super::problem::Problem;
use super::seek::Going;
use super::stock::Stock;
use super::wish::Borrowed;
use crate::plan::Plan;
use crate::quantity::Seconds;
use crate::quantity::bounds::Invalid;
use crate::quantity::scale::duration_label;
use crate::shot::Shot;
use crate::wire::report;
use std::collections::HashSet;

/// Sets of one shot that are kept; more are only of use to somebody with a warehouse.
const MOST_SETS: usize = 4000;
/// Combinations that are gone through before the best so far is taken.
const MOST_TRIES: usize = 2_000_000;
/// More of a unit that might be hired.
const MOST_HIRED: u32 = 4;

/// What nobody has weighed is not taken for light, in kg.
const NOT_WEIGHED: f64 = 50.0;

/// How many of each unit of the stock.
type Counts = Vec<u8>;

report! {
    /// A unit that is taken along, or hired.
    pub struct Taken {
        /// Its identity.
        pub unit: String,
        /// Maker and model.
        pub name: String,
        /// How many.
        pub count: u32,
        /// All of them, where weighed.
        pub mass_kg: Option<f64>,
    }

    /// One shot of a job.
    pub struct JobShot {
        /// What it is called.
        pub title: String,
        /// Its lights can be done with the kit.
        pub can: bool,
        /// With which units.
        pub with: Vec<Taken>,
        /// What to hire for it, where that helps.
        pub hire: Vec<Taken>,
        /// What is the matter, or what else would help, in a sentence.
        #[serde(skip_serializing_if = "Option::is_none")]
        pub note: Option<String>,
    }

    /// What to take along for a job.
    pub struct JobAnswer {
        /// The smallest set of units with which all shots that can be done are done.
        pub take: Vec<Taken>,
        /// How many units that is.
        pub units: u32,
        /// What they weigh without their modifiers, where all of them were weighed.
        pub mass_kg: Option<f64>,
        /// What has to be hired beyond, for the other shots.
        pub hire: Vec<Taken>,
        /// The shots in the order given.
        pub shots: Vec<JobShot>,
        /// Whether it is known that no smaller set does.
        pub proven: bool,
    }
}

/// What to take along for some shots; `None` when it was stopped.
///
/// # Errors
/// [`Invalid`] for a shot or a wish that cannot be.
pub fn whole_job(shots: &[Shot], stock: &Stock, going: &Going) -> Result<Option<JobAnswer>, Invalid> {
    let mut all = Vec::with_capacity(shots.len());
    for shot in shots {
        let plan = Plan::try_from(shot)?;
        let mut problem = Problem::new(shot, &plan)?;
        let Some(own) = sets(&problem, stock, going) else { return Ok(None) };
        let hired = if own.sets.is_empty() {
            // As if four more of everything were there.
            for offered in &stock.units {
                problem.bounds.borrowed.push(Borrowed { unit: offered.wire.id.clone(), count: MOST_HIRED });
            }
            let Some(hired) = sets(&problem, stock, going) else { return Ok(None) };
            Some(hired)
        } else {
            None
        };
        all.push((own, hired));
    }
    let masses: Vec<f64> = stock.units.iter().map(|unit| unit.mass_kg().unwrap_or(NOT_WEIGHED)).collect();
    let choices: Vec<&[Counts]> = all.iter().map(|(own, _)| own.sets.as_slice()).collect();
    let (take, proven) = smallest(&choices, &masses, stock.units.len());
    let owned: Counts = stock.units.iter().map(|unit| unit.owned.min(255) as u8).collect();
    let mut hire_all: Counts = vec![0; stock.units.len()];
    let mut answers = Vec::with_capacity(shots.len());
    for (shot, (own, hired)) in shots.iter().zip(&all) {
        let with = own.sets.iter().find(|set| set.iter().zip(&take).all(|(one, all)| one <= all));
        let extra = hired.as_ref().and_then(|hired| {
            let beyond = |set: &Counts| -> Counts {
                set.iter().zip(&owned).map(|(set, own)| set.saturating_sub(*own)).collect()
            };
            hired.sets.iter().map(beyond).min_by_key(|extra| (total(extra), grams(extra, &masses)))
        });
        if let Some(extra) = &extra {
            hire_all = union(&hire_all, extra);
        }
        let note = match (with, &extra, hired) {
            (Some(_), ..) => None,
            (None, Some(_), _) => Some("There are not enough of them at hand.".to_owned()),
            (None, None, hired) => Some(hired.as_ref().map_or_else(String::new, |hired| hired.why.clone())),
        };
        answers.push(JobShot {
            title: shot.title.clone(),
            can: with.is_some(),
            with: with.map(|set| written(set, stock)).unwrap_or_default(),
            hire: extra.map(|extra| written(&extra, stock)).unwrap_or_default(),
            note,
        });
    }
    let proven = proven && all.iter().all(|(own, _)| own.whole);
    let mass = stock.units.iter().zip(&take).filter(|(_, count)| **count > 0);
    Ok(Some(JobAnswer {
        units: total(&take),
        mass_kg: mass.map(|(unit, count)| Some(unit.mass_kg()? * f64::from(*count))).sum(),
        take: written(&take, stock),
        hire: written(&hire_all, stock),
        shots: answers,
        proven,
    }))
}

/// Why a shot cannot be done, with what to hire; nothing where it can.
pub fn why_not(shot: &JobShot) -> Option<String> {
    if shot.can {
        return None;
    }
    let list: Vec<String> = shot.hire.iter().map(|one| format!("{} × {}", one.count, one.name)).collect();
    let note = shot.note.clone().unwrap_or_default();
    Some(if list.is_empty() { note } else { format!("{note} It could be done with {} more.", list.join(", ")) })
}

/// The sets of units that do one shot.
struct Sets {
    sets: Vec<Counts>,
    /// Whether these are all of them.
    whole: bool,
    /// Why there is none.
    why: String,
}

fn sets(problem: &Problem, stock: &Stock, going: &Going) -> Option<Sets> {
    let crewing = Crewing::new(problem, stock, Priority::Balanced, going)?;
    let cells: Vec<(usize, usize)> = crewing.open().collect();
    let mut boards: HashSet<Vec<Vec<(usize, u32)>>> = cells.iter().map(|cell| crewing.fewest(*cell)).collect();
    boards.retain(|board| board.iter().all(|options| !options.is_empty()));
    let at_hand: Counts = stock.units.iter().map(|unit| problem.at_hand(unit).min(255) as u8).collect();
    let (mut found, mut whole) = (HashSet::new(), true);
    for board in &boards {
        let mut partial: HashSet<Counts> = HashSet::from([vec![0; stock.units.len()]]);
        for options in board {
            let mut next = HashSet::new();
            for set in &partial {
                for (unit, heads) in options {
                    let mut with = set.clone();
                    with[*unit] = with[*unit].saturating_add(*heads as u8);
                    if with[*unit] <= at_hand[*unit] && u32::from(with.iter().sum::<u8>()) <= problem.bounds.stands {
                        next.insert(with);
                    }
                }
            }
            whole &= next.len() <= MOST_SETS;
            partial = next.into_iter().take(MOST_SETS).collect();
        }
        found.extend(partial);
    }
    let mut sets: Vec<Counts> = found.into_iter().collect();
    sets.sort_by_key(|set| (total(set), set.clone()));
    let mut minimal: Vec<Counts> = Vec::new();
    for set in sets {
        if !minimal.iter().any(|known| known.iter().zip(&set).all(|(known, set)| known <= set)) {
            minimal.push(set);
        }
    }
    Some(Sets { sets: minimal, whole, why: why(problem, &crewing, cells.is_empty()) })
}

/// Why no set of units does a shot.
fn why(problem: &Problem, crewing: &Crewing, shut: bool) -> String {
    if shut {
        return "No setting of the camera holds steady light, depth and trails as wanted, whatever the flash."
            .to_owned();
    }
    let Some(lacking) = crewing.lacking() else {
        return "Each light has a unit that does, but no setting of the camera suits all of them at once.".to_owned();
    };
    let who = &problem.plan.lights[lacking.light].label;
    let Some(guide) = lacking.guide_m else {
        return format!(
            "{who}: no time that syncs holds the steady light as wanted. Allow high-speed sync, or other light."
        );
    };
    let freeze = if lacking.freeze_s.is_finite() {
        let freeze = duration_label(Seconds::from_secs(lacking.freeze_s));
        format!(" whose {} at that output is {freeze} or shorter", problem.plan.school.label())
    } else {
        String::new()
    };
    format!("No unit of the kit does for {who}: hire one with a guide number of {guide:.0} m or more{freeze}.")
}

fn total(set: &Counts) -> u32 {
    set.iter().map(|count| u32::from(*count)).sum()
}

fn grams(set: &Counts, masses: &[f64]) -> u64 {
    set.iter().zip(masses).map(|(count, kg)| (f64::from(*count) * kg * 1000.0).round() as u64).sum()
}

fn union(a: &Counts, b: &Counts) -> Counts {
    a.iter().zip(b).map(|(a, b)| *a.max(b)).collect()
}

fn written(set: &Counts, stock: &Stock) -> Vec<Taken> {
    let taken = set.iter().zip(&stock.units).filter(|(count, _)| **count > 0);
    taken
        .map(|(count, unit)| Taken {
            unit: unit.wire.id.clone(),
            name: unit.wire.name.clone(),
            count: u32::from(*count),
            mass_kg: unit.mass_kg().map(|kg| kg * f64::from(*count)),
        })
        .collect()
}

/// The smallest union of one set of each; shots without any are passed over. And whether that is known for sure.
fn smallest(choices: &[&[Counts]], masses: &[f64], units: usize) -> (Counts, bool) {
    let mut choices: Vec<&[Counts]> = choices.iter().copied().filter(|sets| !sets.is_empty()).collect();
    choices.sort_by_key(|sets| sets.len());
    let mut search = Smallest {
        choices: &choices,
        masses,
        best: ((u32::MAX, u64::MAX), vec![0; units]),
        tries: 0,
        seen: HashSet::new(),
    };
    search.go(0, &vec![0; units]);
    (search.best.1, search.tries < MOST_TRIES)
}

struct Smallest<'s> {
    choices: &'s [&'s [Counts]],
    masses: &'s [f64],
    best: ((u32, u64), Counts),
    tries: usize,
    seen: HashSet<(usize, Counts)>,
}

impl Smallest<'_> {
    fn cost(&self, set: &Counts) -> (u32, u64) {
        (total(set), grams(set, self.masses))
    }

    fn go(&mut self, at: usize, now: &Counts) {
        self.tries += 1;
        if self.tries >= MOST_TRIES || self.cost(now) >= self.best.0 || !self.seen.insert((at, now.clone())) {
            return;
        }
        let Some(sets) = self.choices.get(at) else {
            self.best = (self.cost(now), now.clone());
            return;
        };
        let mut next: Vec<((u32, u64), Counts)> = sets
            .iter()
            .map(|set| {
                let with = union(now, set);
                (self.cost(&with), with)
            })
            .collect();
        next.sort();
        next.dedup();
        for (_, with) in next {
            self.go(at + 1, &with);
        }
    }
}
