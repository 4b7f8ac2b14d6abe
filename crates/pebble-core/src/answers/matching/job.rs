//! A whole job: the smallest set of units with which every shot of the day can be done, and what to hire for those that
//! cannot.
//!
//! For each shot the sets of units that do it are worked out, none of which holds another. One of them is chosen for each
//! shot so that all together take the fewest units, and of these the lightest: by going through the shots, the ones with
//! the least choice first, and turning back where it can only take more.

use super::aim::Priority;
use super::brief::Brief;
use super::crew::{Crewing, whole_shot};
use super::pack::{Packed, Taken, pack};
use super::report::{CrewRow, crew_rows};
use super::seek::Going;
use super::stock::{Offered, Stock};
use crate::file::gear::FlashUnit;
use crate::file::shot::Shot;
use crate::file::wish::Borrowed;
use crate::plan::Plan;
use crate::quantity::Seconds;
use crate::quantity::bounds::Invalid;
use crate::quantity::scale::duration_label;
use crate::wire::report;
use rayon::prelude::*;
use std::collections::{HashMap, HashSet};
use std::sync::atomic::{AtomicBool, Ordering};

/// Sets of one shot that are kept; more are only of use to somebody with a warehouse.
const MOST_SETS: usize = 2000;
/// Sets of units for the lights of a shot that are gone through; where there may be more, the units of most use in the whole
/// job are tried.
const MOST_TRIED: f64 = 15_000.0;
/// As many as are gone through then, for each choice that a setting of the camera leaves.
const MOST_USEFUL: f64 = 2_000.0;
/// Combinations that are gone through before the best so far is taken.
const MOST_TRIES: usize = 2_000_000;
/// More of a unit that might be hired.
const MOST_HIRED: u32 = 4;

/// What nobody has weighed is not taken for light, in kg.
const NOT_WEIGHED: f64 = 50.0;

/// How many of which kind of unit, by place in the stock; none are left out.
type Counts = Vec<(u16, u8)>;

report! {
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
        /// The shot set so that these units do it.
        #[serde(skip_serializing_if = "Option::is_none")]
        pub set: Option<CrewRow>,
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
        /// Everything that goes into the cases for the shots that can be done.
        pub pack: Vec<Packed>,
        /// What all of it weighs that was weighed.
        pub pack_kg: f64,
        /// How many things of it were never weighed.
        pub unweighed: u32,
    }
}

/// What to take along for some shots; `None` when it was stopped.
///
/// # Errors
/// [`Invalid`] for a shot or a wish that cannot be.
pub fn whole_job(shots: &[Shot], stock: &Stock, going: &Going) -> Result<Option<JobAnswer>, Invalid> {
    let plans = shots.iter().map(Plan::try_from).collect::<Result<Vec<_>, _>>()?;
    let kinds = Kinds::of(stock);
    let mut problems = Vec::with_capacity(shots.len());
    for (shot, plan) in shots.iter().zip(&plans) {
        let mut brief = Brief::new(shot, plan)?;
        kinds.rename(&mut brief.bounds.borrowed);
        problems.push(brief);
    }
    let own: Option<Vec<Boards>> = problems.iter().map(|brief| Boards::of(brief, &kinds.stock, going)).collect();
    let Some(own) = own else { return Ok(None) };
    let masses: Vec<f64> = kinds.stock.units.iter().map(|unit| unit.mass_kg().unwrap_or(NOT_WEIGHED)).collect();
    let uses = uses(&own, masses.len());
    let order = Order { masses: &masses, uses: &uses };
    let mut all = Vec::with_capacity(shots.len());
    for (((shot, plan), brief), boards) in shots.iter().zip(&plans).zip(&problems).zip(&own) {
        let sets = boards.sets(brief, &kinds.stock, &order, going);
        let hired = if sets.sets.is_empty() {
            // As if four more of everything were there.
            let mut more = Brief::new(shot, plan)?;
            let hired = |offered: &Offered| Borrowed { unit: offered.wire.id.clone(), count: MOST_HIRED };
            more.bounds.borrowed.clone_from(&brief.bounds.borrowed);
            more.bounds.borrowed.extend(kinds.stock.units.iter().map(hired));
            let Some(boards) = Boards::of(&more, &kinds.stock, going) else { return Ok(None) };
            Some(boards.sets(&more, &kinds.stock, &order, going))
        } else {
            None
        };
        all.push((sets, hired));
    }
    if going.is_stopped() {
        return Ok(None);
    }
    let choices: Vec<&[Counts]> = all.iter().map(|(own, _)| own.sets.as_slice()).collect();
    let (take, proven) = smallest(&choices, &masses);
    let owned: Counts =
        kinds.stock.units.iter().enumerate().map(|(kind, unit)| (kind as u16, unit.owned.min(255) as u8)).collect();
    let mut hire_all: Counts = Vec::new();
    let mut answers = Vec::with_capacity(shots.len());
    for ((shot, plan), (own, hired)) in shots.iter().zip(&plans).zip(&all) {
        let with = own.sets.iter().find(|set| within(set, &take));
        let extra = hired.as_ref().and_then(|hired| {
            let beyond = hired.sets.iter().map(|set| beyond(set, &owned));
            beyond.min_by_key(|extra| (total(extra), grams(extra, &masses)))
        });
        if let Some(extra) = &extra {
            hire_all = union(&hire_all, extra);
        }
        let note = match (with, &extra, hired) {
            (Some(_), ..) => None,
            (None, Some(_), _) => Some("There are not enough of them at hand.".to_owned()),
            (None, None, hired) => Some(hired.as_ref().map_or_else(String::new, |hired| hired.why.clone())),
        };
        let with = with.map(|set| kinds.written(set));
        let set = with.as_ref().map(|units| set_with(shot, plan, stock, units, going)).transpose()?.flatten();
        answers.push(JobShot {
            title: shot.title.clone(),
            can: with.is_some(),
            set,
            with: with.unwrap_or_default(),
            hire: extra.map(|extra| kinds.written(&extra)).unwrap_or_default(),
            note,
        });
    }
    let proven = proven && all.iter().all(|(own, _)| own.whole);
    let taken = kinds.written(&take);
    let done: Vec<Shot> = shots.iter().zip(&answers).filter(|(_, of)| of.can).map(|(shot, _)| shot.clone()).collect();
    let pack = pack(&done, &taken, stock);
    Ok(Some(JobAnswer {
        units: total(&take),
        mass_kg: taken.iter().map(|one| one.mass_kg).sum(),
        take: taken,
        hire: kinds.written(&hire_all),
        shots: answers,
        proven,
        pack_kg: pack.iter().filter_map(|line| line.mass_kg).sum(),
        unweighed: pack.iter().filter(|line| line.mass_kg.is_none()).map(|line| line.count).sum(),
        pack,
    }))
}

/// The best that some units do for a shot, and nothing beside them.
fn set_with(
    shot: &Shot,
    plan: &Plan,
    stock: &Stock,
    units: &[Taken],
    going: &Going,
) -> Result<Option<CrewRow>, Invalid> {
    let at_hand = stock.only(|unit| units.iter().find(|one| one.unit == unit).map_or(0, |one| one.count));
    let mut brief = Brief::new(shot, plan)?;
    // What is borrowed is among them.
    brief.bounds.borrowed.clear();
    let crews = whole_shot(&brief, &at_hand, Priority::Balanced, going).unwrap_or_default();
    Ok(crew_rows(&brief, &at_hand, &crews[..crews.len().min(1)]).pop())
}

/// The stock with units that are equal in all but their names as one: any of them will do.
struct Kinds<'s> {
    whole: &'s Stock,
    stock: Stock,
    /// Which units of the whole stock are of each kind.
    members: Vec<Vec<usize>>,
}

impl<'s> Kinds<'s> {
    fn of(whole: &'s Stock) -> Self {
        let mut known: HashMap<String, usize> = HashMap::new();
        let (mut units, mut members) = (Vec::new(), Vec::<Vec<usize>>::new());
        for (index, offered) in whole.units.iter().enumerate() {
            let nameless = FlashUnit { id: String::new(), name: String::new(), owned: None, ..offered.wire.clone() };
            let kind = *known.entry(format!("{nameless:?}")).or_insert_with(|| {
                let mut one = offered.clone();
                one.owned = 0;
                units.push(one);
                members.push(Vec::new());
                units.len() - 1
            });
            units[kind].owned += offered.owned;
            members[kind].push(index);
        }
        Self {
            whole,
            stock: Stock { units, modifiers: whole.modifiers.clone(), filters: whole.filters.clone() },
            members,
        }
    }

    /// What is borrowed goes by the name of its kind.
    fn rename(&self, borrowed: &mut [Borrowed]) {
        for one in borrowed {
            let of = |members: &&Vec<usize>| members.iter().any(|unit| self.whole.units[*unit].wire.id == one.unit);
            if let Some(members) = self.members.iter().find(of) {
                one.unit.clone_from(&self.whole.units[members[0]].wire.id);
            }
        }
    }

    /// By the names of the units themselves, as many of each as there are; what is borrowed or hired goes by the first.
    fn written(&self, set: &Counts) -> Vec<Taken> {
        let mut taken = Vec::new();
        for (kind, count) in set {
            let mut left = u32::from(*count);
            let units: Vec<&Offered> =
                self.members[usize::from(*kind)].iter().map(|unit| &self.whole.units[*unit]).collect();
            let owned: u32 = units.iter().map(|unit| unit.owned).sum();
            for (index, unit) in units.iter().enumerate() {
                let beyond = if index == 0 { left.saturating_sub(owned) } else { 0 };
                let count = left.min(unit.owned + beyond);
                if count > 0 {
                    taken.push(Taken {
                        unit: unit.wire.id.clone(),
                        name: unit.wire.name.clone(),
                        count,
                        mass_kg: unit.mass_kg().map(|kg| kg * f64::from(count)),
                    });
                }
                left -= count;
            }
        }
        taken
    }
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

/// What is tried first where not everything can be tried.
struct Order<'o> {
    masses: &'o [f64],
    /// At how many lights of the whole job each kind does.
    uses: &'o [usize],
}

/// At how many lights of the whole job each kind does at some setting.
fn uses(all: &[Boards], kinds: usize) -> Vec<usize> {
    let mut uses = vec![0; kinds];
    for boards in all {
        for place in 0..boards.crewing.places.len() {
            let does: HashSet<usize> =
                boards.boards.iter().flat_map(|board| board[place].iter().map(|(kind, _)| *kind)).collect();
            for kind in does {
                uses[kind] += 1;
            }
        }
    }
    uses
}

/// For each light of a shot what does there, with the fewest heads: one board for each different choice that some setting
/// of the camera leaves.
struct Boards<'a> {
    crewing: Crewing<'a>,
    boards: Vec<Vec<Vec<(usize, u32)>>>,
    /// No setting of the camera is open at all.
    shut: bool,
}

/// The sets of units that do one shot.
struct Sets {
    sets: Vec<Counts>,
    /// Whether these are all of them.
    whole: bool,
    /// Why there is none.
    why: String,
}

impl<'a> Boards<'a> {
    fn of(brief: &'a Brief<'a>, stock: &'a Stock, going: &Going) -> Option<Boards<'a>> {
        let crewing = Crewing::new(brief, stock, Priority::Balanced, going)?;
        let cells: Vec<(usize, usize)> = crewing.open().collect();
        let boards: HashSet<Vec<Vec<(usize, u32)>>> = cells.par_iter().map(|cell| crewing.fewest(*cell)).collect();
        let mut boards: Vec<_> =
            boards.into_iter().filter(|board| board.iter().all(|options| !options.is_empty())).collect();
        boards.sort_unstable();
        (!going.is_stopped()).then_some(Self { crewing, boards, shut: cells.is_empty() })
    }

    fn sets(&self, brief: &Brief, stock: &Stock, order: &Order, going: &Going) -> Sets {
        let at_hand: Vec<u32> = stock.units.iter().map(|unit| brief.at_hand(unit)).collect();
        let whole = AtomicBool::new(true);
        let of = |board: &Vec<Vec<(usize, u32)>>| {
            let (board, all) = tried(board, order);
            if !all {
                whole.store(false, Ordering::Relaxed);
            }
            if going.is_stopped() { HashSet::new() } else { handed_out(&board, &at_hand, brief.bounds.stands, &whole) }
        };
        let found: HashSet<Counts> = self.boards.par_iter().map(of).reduce(HashSet::new, |mut all, more| {
            all.extend(more);
            all
        });
        let mut sets: Vec<Counts> = found.into_iter().collect();
        sets.sort_by_cached_key(|set| (total(set), grams(set, order.masses), set.clone()));
        let mut minimal: Vec<Counts> = Vec::new();
        for set in sets {
            if minimal.len() == MOST_SETS {
                whole.store(false, Ordering::Relaxed);
                break;
            }
            if !minimal.iter().any(|known| within(known, &set)) {
                minimal.push(set);
            }
        }
        Sets { sets: minimal, whole: whole.into_inner(), why: why(brief, &self.crewing, self.shut) }
    }
}

/// A board on which everything can be tried: all of it, or of each light the units of most use. And whether that is all.
fn tried(board: &[Vec<(usize, u32)>], order: &Order) -> (Vec<Vec<(usize, u32)>>, bool) {
    let kinds: HashSet<usize> = board.iter().flatten().map(|(kind, _)| *kind).collect();
    let lights = board.len();
    // Sets of so many out of so many kinds, where a kind may come several times: C(kinds + lights − 1, lights).
    let sets = |kinds: usize| (0..lights).map(|k| (kinds + k) as f64 / (k + 1) as f64).product::<f64>();
    if sets(kinds.len()) <= MOST_TRIED {
        return (board.to_vec(), true);
    }
    let most = (lights..kinds.len()).take_while(|kinds| sets(*kinds) <= MOST_USEFUL).last().unwrap_or(lights);
    let best = |options: &Vec<(usize, u32)>| {
        let mut options = options.clone();
        options.sort_by(|a, b| {
            let of = |(kind, heads): &(usize, u32)| (std::cmp::Reverse(order.uses[*kind]), *heads);
            of(a).cmp(&of(b)).then(order.masses[a.0].total_cmp(&order.masses[b.0])).then(a.0.cmp(&b.0))
        });
        options.truncate(most);
        options
    };
    (board.iter().map(best).collect(), false)
}

/// All sets of units that a board can be played with.
fn handed_out(board: &[Vec<(usize, u32)>], at_hand: &[u32], stands: u32, whole: &AtomicBool) -> HashSet<Counts> {
    let mut partial: HashSet<Counts> = HashSet::from([Vec::new()]);
    for options in board {
        let mut next = HashSet::with_capacity(partial.len());
        for set in &partial {
            for (kind, heads) in options {
                let with = added(set, *kind as u16, (*heads).min(255) as u8);
                let of_kind = with.iter().find(|(one, _)| usize::from(*one) == *kind).map_or(0, |(_, count)| *count);
                if u32::from(of_kind) <= at_hand[*kind] && total(&with) <= stands {
                    next.insert(with);
                }
            }
        }
        if next.len() as f64 > MOST_TRIED {
            whole.store(false, Ordering::Relaxed);
            let mut fewest: Vec<Counts> = next.into_iter().collect();
            fewest.sort_unstable_by(|a, b| (total(a), a).cmp(&(total(b), b)));
            fewest.truncate(MOST_TRIED as usize);
            next = fewest.into_iter().collect();
        }
        partial = next;
    }
    partial
}

/// Why no set of units does a shot.
fn why(brief: &Brief, crewing: &Crewing, shut: bool) -> String {
    if shut {
        return "No setting of the camera holds steady light, depth and trails as wanted, whatever the flash."
            .to_owned();
    }
    let Some(lacking) = crewing.lacking() else {
        return "Each light has a unit that does, but no setting of the camera suits all of them at once.".to_owned();
    };
    let who = &brief.plan.lights[lacking.light].label;
    let Some(guide) = lacking.guide_m else {
        return format!(
            "{who}: no time that syncs holds the steady light as wanted. Allow high-speed sync, or other light."
        );
    };
    let freeze = if lacking.freeze_s.is_finite() {
        let freeze = duration_label(Seconds::from_secs(lacking.freeze_s));
        format!(" whose {} at that output is {freeze} or shorter", brief.plan.school.label())
    } else {
        String::new()
    };
    format!("No unit of the kit does for {who}: hire one with a guide number of {guide:.0} m or more{freeze}.")
}

fn total(set: &Counts) -> u32 {
    set.iter().map(|(_, count)| u32::from(*count)).sum()
}

fn grams(set: &Counts, masses: &[f64]) -> u64 {
    set.iter().map(|(kind, count)| (f64::from(*count) * masses[usize::from(*kind)] * 1000.0).round() as u64).sum()
}

/// So many more of a kind.
fn added(set: &Counts, kind: u16, heads: u8) -> Counts {
    let mut with = set.clone();
    match with.binary_search_by_key(&kind, |(one, _)| *one) {
        Ok(at) => with[at].1 = with[at].1.saturating_add(heads),
        Err(at) => with.insert(at, (kind, heads)),
    }
    with
}

/// How many of a kind.
fn count(set: &Counts, kind: u16) -> u8 {
    set.binary_search_by_key(&kind, |(one, _)| *one).map_or(0, |at| set[at].1)
}

/// Whether one set is part of another.
fn within(set: &Counts, of: &Counts) -> bool {
    set.iter().all(|(kind, wanted)| count(of, *kind) >= *wanted)
}

/// What of a set is not in another.
fn beyond(set: &Counts, owned: &Counts) -> Counts {
    let more = set.iter().map(|(kind, wanted)| (*kind, wanted.saturating_sub(count(owned, *kind))));
    more.filter(|(_, more)| *more > 0).collect()
}

fn union(a: &Counts, b: &Counts) -> Counts {
    let mut all = a.clone();
    for (kind, wanted) in b {
        match all.binary_search_by_key(kind, |(one, _)| *one) {
            Ok(at) => all[at].1 = all[at].1.max(*wanted),
            Err(at) => all.insert(at, (*kind, *wanted)),
        }
    }
    all
}

/// The smallest union of one set of each; shots without any are passed over. And whether that is known for sure.
fn smallest(choices: &[&[Counts]], masses: &[f64]) -> (Counts, bool) {
    let mut choices: Vec<&[Counts]> = choices.iter().copied().filter(|sets| !sets.is_empty()).collect();
    choices.sort_by_key(|sets| sets.len());
    let mut search = Smallest {
        choices: &choices,
        masses,
        best: ((u32::MAX, u64::MAX), Vec::new()),
        tries: 0,
        seen: HashSet::new(),
    };
    search.go(0, &Vec::new());
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
