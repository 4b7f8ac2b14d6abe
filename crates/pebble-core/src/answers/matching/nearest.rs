//! When nothing works: what comes nearest, and what would have to give for it.
//!
//! A relaxation of one condition is the least by which it must give when everything else holds; of a pair, the least sum.
//! Each is a search of its own with these conditions at a price, so that it is exact.

use super::aim::{Aim, Priority};
use super::brief::{Brief, Demand, EDGE, Need};
use super::seek::{Found, Going, Seek};
use super::stock::Stock;
use super::tables::Tables;
use crate::file::wish::{BlurLimit, Borrowed, Wish};
use crate::quantity::Stops;
use crate::quantity::scale::{Iso, ShutterTime};
use rayon::prelude::*;

/// Steady light is thought darker in thirds of a stop, trails are let show in sixths; so many of them.
const MOST_PARTS: u32 = 18;
/// With so many single relaxations nobody reads pairs.
const ENOUGH_SINGLES: usize = 3;
/// Further than this no condition is relaxed, in stops: then it is another picture.
const MOST_ALONE: f64 = 6.0;
/// Nor two together.
const MOST_TOGETHER: f64 = 4.0;
/// A relaxation is written a hair beyond what it must be, so that reading it back is enough.
const HAIR: f64 = 1e-9;

/// One condition that gives.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Give {
    /// Which.
    pub condition: Demand,
    /// The part it is about.
    pub part: Option<usize>,
    /// By how much, in stops.
    pub stops: f64,
}

/// A set-up that works when something gives.
#[derive(Clone, Debug, PartialEq)]
pub struct Nearest {
    /// The set-up.
    pub found: Found,
    /// What gives, one or two conditions.
    pub gives: Vec<Give>,
}

impl Nearest {
    /// What it costs in stops.
    pub fn price(&self) -> f64 {
        self.gives.iter().map(|give| give.stops).sum()
    }
}

/// The nearest set-ups, single relaxations first, each kind cheapest first; `None` when it was stopped.
pub fn nearest(brief: &mut Brief, stock: &Stock, going: &Going) -> Option<Vec<Nearest>> {
    let can_give = can_give(brief);
    let of = |loose: Vec<Vec<(Demand, Option<usize>)>>, most: f64| {
        let all: Vec<Option<Option<Nearest>>> =
            loose.par_iter().map(|loose| least(brief, stock, (loose, most), going)).collect();
        all.into_iter().collect::<Option<Vec<Option<Nearest>>>>()
    };
    let mut singles = nearest_alone(brief, stock, going)?;
    let mut pairs = Vec::new();
    if singles.len() < ENOUGH_SINGLES {
        let both = can_give
            .iter()
            .enumerate()
            .flat_map(|(at, one)| can_give[at + 1..].iter().map(move |other| vec![*one, *other]));
        let together = of(both.collect(), MOST_TOGETHER)?;
        // A pair of which one alone is enough is not a pair.
        let real = |pair: &Nearest| pair.gives.len() == 2 && pair.price() <= MOST_TOGETHER;
        pairs.extend(together.into_iter().flatten().filter(real));
        by_price(&mut pairs);
    }
    singles.extend(darker(brief, stock, going)?);
    singles.extend(trail(brief, stock, going)?);
    by_price(&mut singles);
    singles.extend(pairs);
    Some(singles)
}

/// What comes nearest when one condition gives and everything else holds, cheapest first; `None` when it was stopped.
pub fn nearest_alone(brief: &Brief, stock: &Stock, going: &Going) -> Option<Vec<Nearest>> {
    let give = |one: &(Demand, Option<usize>)| least(brief, stock, (&[*one], MOST_ALONE), going);
    let all: Vec<Option<Option<Nearest>>> = can_give(brief).par_iter().map(give).collect();
    let mut singles: Vec<Nearest> = all.into_iter().collect::<Option<Vec<_>>>()?.into_iter().flatten().collect();
    by_price(&mut singles);
    Some(singles)
}

fn by_price(list: &mut [Nearest]) {
    // Sorting is stable: where two cost the same the order of the conditions stays.
    list.sort_by(|a, b| a.price().total_cmp(&b.price()));
}

/// Conditions that something is asked by.
fn can_give(brief: &Brief) -> Vec<(Demand, Option<usize>)> {
    let bounds = &brief.bounds;
    let open = |window: (Stops, Stops)| !window.0.as_stops().is_finite() && !window.1.as_stops().is_finite();
    let asked = [
        (Demand::Iso, true),
        (Demand::Aperture, bounds.aperture != brief.plan.body.apertures),
        (Demand::Shutter, true),
        (Demand::Filter, bounds.filter_max.as_stops() < 10.0),
        (Demand::Key, true),
        (Demand::Ambient, !open(brief.ambient())),
        (Demand::Background, !open(bounds.background)),
        (Demand::Near, true),
        (Demand::Far, true),
        (Demand::Place, bounds.places_stay),
        (Demand::Modifier, !bounds.any_modifier),
        (Demand::HighSpeed, !bounds.high_speed),
    ];
    let later = [
        (Demand::Freeze, bounds.freeze.is_some()),
        (Demand::Even, bounds.even.is_some()),
        (Demand::Depth, bounds.depth.as_metres() > 0.0),
        (Demand::Frames, bounds.frames > 1),
        (Demand::Rate, bounds.frames > 1),
        (Demand::Charge, bounds.flashes > 0),
        (Demand::Heads, true),
        (Demand::Owned, true),
        (Demand::Weight, bounds.weight_kg.is_finite()),
    ];
    let parts = |asks: fn(&Need) -> bool| brief.needs.iter().enumerate().filter(move |(_, need)| asks(need));
    let of = |list: &[(Demand, bool)]| {
        list.iter().filter(|(_, asked)| *asked).map(|(condition, _)| (*condition, None)).collect::<Vec<_>>()
    };
    let blur = parts(|need| need.limit.is_some()).map(|(index, _)| (Demand::Blur, Some(index)));
    let drawn = parts(|need| need.steady_limit.is_some()).map(|(index, _)| (Demand::Drawn, Some(index)));
    of(&asked).into_iter().chain(blur).chain(drawn).chain(of(&later)).collect()
}

/// The least by which some conditions must give together.
fn least(
    brief: &Brief,
    stock: &Stock,
    (loose, most): (&[(Demand, Option<usize>)], f64),
    going: &Going,
) -> Option<Option<Nearest>> {
    let aim = Aim::nearest(loose, most);
    let tables = Tables::of(brief, stock, &aim);
    let all = Seek::new(brief, stock, &aim, &tables).all(going)?;
    let best = all.into_iter().min_by(|a, b| a.cost.total_cmp(&b.cost));
    Some(best.map(|found| {
        let fares = found.candidate(brief, stock);
        let room = |condition: Demand, part: Option<usize>| match condition {
            Demand::Rate => fares.unit.rate_room(fares.power, brief.bounds.frames, brief.bounds.rate),
            _ => brief
                .judge(&fares)
                .unwrap_or_default()
                .into_iter()
                .find(|one| one.condition == condition && one.part == part)
                .map_or(0.0, |one| one.room),
        };
        let gives = loose
            .iter()
            .map(|(condition, part)| Give { condition: *condition, part: *part, stops: -room(*condition, *part) })
            .filter(|give| give.stops > EDGE)
            .collect();
        Nearest { found, gives }
    }))
}

/// How much darker the steady light would have to be.
fn darker(brief: &mut Brief, stock: &Stock, going: &Going) -> Option<Option<Nearest>> {
    let now = brief.bounds.darker;
    let set = |brief: &mut Brief, stops: f64| brief.bounds.darker = now - Stops::from_stops(stops);
    first_that_works(brief, stock, going, (Demand::Darker, 3.0), set)
}

/// How much more a trail would have to show.
fn trail(brief: &mut Brief, stock: &Stock, going: &Going) -> Option<Option<Nearest>> {
    let now = brief.bounds.trail;
    let set = |brief: &mut Brief, stops: f64| brief.bounds.trail = now * stops.exp2();
    first_that_works(brief, stock, going, (Demand::Ghost, 6.0), set)
}

/// Goes up in even parts of a stop until something works: for what changes all tables at once.
fn first_that_works(
    brief: &mut Brief,
    stock: &Stock,
    going: &Going,
    (condition, parts): (Demand, f64),
    set: impl Fn(&mut Brief, f64),
) -> Option<Option<Nearest>> {
    let mut answer = Some(None);
    for part in 1..=MOST_PARTS {
        let stops = f64::from(part) / parts;
        set(brief, stops);
        let aim = Aim::best(Priority::Balanced);
        let tables = Tables::of(brief, stock, &aim);
        let Some(all) = Seek::new(brief, stock, &aim, &tables).all(going) else {
            answer = None;
            break;
        };
        if let Some(found) = all.into_iter().min_by(|a, b| a.cost.total_cmp(&b.cost)) {
            answer = Some(Some(Nearest { found, gives: vec![Give { condition, part: None, stops }] }));
            break;
        }
    }
    set(brief, 0.0);
    answer
}

impl Brief<'_> {
    /// The wish of the shot with one condition given way by so many stops.
    pub fn relaxed(&self, wish: Option<&Wish>, give: &Give, found: &Found, stock: &Stock) -> Wish {
        let mut wish = wish.cloned().unwrap_or_default();
        let (bounds, candidate) = (&self.bounds, found.candidate(self, stock));
        let (more, less) = ((give.stops + HAIR).exp2(), (-give.stops - HAIR).exp2());
        let within = (give.stops + HAIR) + bounds.key_within.as_stops();
        let grid = self.plan.body.grid;
        let between = |(low, high): (Stops, Stops), placement: f64| {
            let by = Stops::from_stops(give.stops + HAIR);
            let (low, high) = if placement < low.as_stops() { (low - by, high) } else { (low, high + by) };
            Some(crate::file::wish::Between { low_stops: low.to_wire(), high_stops: high.to_wire() })
        };
        let reference = self.plan.reference(candidate.aperture, candidate.iso, candidate.filter);
        let steady = self.steady_change(candidate.shutter, reference.as_lux_seconds().log2());
        let number = |iso: Iso| iso.label(grid).parse().ok().unwrap_or(iso.number());
        match give.condition {
            Demand::Iso if candidate.iso < bounds.iso.0 => {
                wish.iso_min = Some(number(Iso::near(bounds.iso.0.number() * less)));
            }
            Demand::Iso => wish.iso_max = Some(number(Iso::near(bounds.iso.1.number() * more))),
            Demand::Aperture => {
                // The end that the candidate lies beyond is moved to where it is.
                let exact = candidate.aperture.label(grid).parse().unwrap_or(candidate.aperture.number());
                if candidate.aperture < bounds.aperture.0 {
                    wish.aperture_min_f = Some(exact);
                } else {
                    wish.aperture_max_f = Some(exact);
                }
            }
            Demand::Place => wish.places_stay = Some(false),
            Demand::Freeze => {
                wish.freeze_at_most_ms = bounds.freeze.map(|most| most.as_millis() * more);
            }
            Demand::Even => {
                wish.even_within_stops = bounds.even.map(|most| most.as_stops() + give.stops + HAIR);
            }
            Demand::Shutter if candidate.shutter.time() > bounds.shutter.0.time() => {
                wish.slowest = Some(ShutterTime::near(bounds.shutter.0.time() * more).label(grid));
            }
            Demand::Shutter => wish.fastest = Some(ShutterTime::near(bounds.shutter.1.time() * less).label(grid)),
            Demand::Filter => wish.filter_max_stops = Some(bounds.filter_max.as_stops() + give.stops + HAIR),
            Demand::Key => wish.key_within_stops = Some(within),
            Demand::Ambient => {
                wish.ambient = between(self.ambient(), self.seen.ambient.placement.as_stops() + steady);
            }
            Demand::Background => {
                wish.background = between(bounds.background, self.seen.background.placement.as_stops() + steady);
            }
            Demand::Darker => wish.darker_stops = Some(-bounds.darker.as_stops() + give.stops),
            Demand::Near => {
                let light = self.light(candidate.unit, candidate.modifier);
                let nearest = light.map_or(candidate.distance, |light| self.nearest(&light));
                wish.nearest_m = Some(nearest.as_metres() * less.sqrt());
            }
            Demand::Far => wish.farthest_m = Some(bounds.farthest.as_metres() * more.sqrt()),
            Demand::Modifier => wish.any_modifier = Some(true),
            Demand::HighSpeed => wish.high_speed = Some(true),
            Demand::Blur | Demand::Drawn => {
                let Some((part, limit)) = give.part.and_then(|part| Some((part, self.bounds.blur[part]?))) else {
                    return wish;
                };
                let name = &self.plan.parts[part].name;
                let px = limit / self.plan.body.sensor.pitch() * more;
                // One limit for both: the wider holds where flash and steady light both give.
                if wish.blur.iter().any(|limit| limit.part == *name && limit.px >= px) {
                    return wish;
                }
                wish.blur.retain(|limit| limit.part != *name);
                wish.blur.push(BlurLimit { part: name.clone(), px });
            }
            Demand::Ghost => wish.trail = Some(bounds.trail * more),
            Demand::Depth => wish.depth_m = Some(bounds.depth.as_metres() * less),
            Demand::Frames => wish.frames = Some((f64::from(bounds.frames) * less + 1e-6).floor().max(1.0) as u32),
            Demand::Rate => wish.frames_per_second = Some(bounds.rate * less),
            Demand::Charge => wish.flashes = Some((f64::from(bounds.flashes) * less + 1e-6).floor() as u32),
            Demand::Heads => {
                let heads = (f64::from(bounds.heads.min(bounds.stands)) * more).round() as u32;
                wish.heads = Some(heads.max(bounds.heads));
                if bounds.stands < heads {
                    wish.stands = Some(heads);
                }
            }
            Demand::Owned => {
                let have = f64::from(self.left_for_key(candidate.unit));
                let count = (have * more).round() as u32 - have as u32;
                let id = &candidate.unit.wire.id;
                match wish.borrowed.iter_mut().find(|borrowed| borrowed.unit == *id) {
                    Some(borrowed) => borrowed.count += count,
                    None => wish.borrowed.push(Borrowed { unit: id.clone(), count }),
                }
            }
            Demand::Weight => wish.weight_kg = Some(bounds.weight_kg * more),
            // Never the price of anything.
            Demand::Sync | Demand::Streak | Demand::Trail => {}
        }
        wish
    }
}
