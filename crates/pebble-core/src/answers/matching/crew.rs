//! A whole shot: which unit takes which place, none twice, so that all lights work at the same camera settings.
//!
//! Every light keeps where it falls against the key, what is in front of it and its own kind of sync. For each level of camera
//! settings and each time the cheapest power and place of every unit at every light is known by itself; what remains is to
//! hand out the units, by going through the lights and turning back where it can only get dearer.

use super::aim::{Aim, Priority};
use super::brief::{Brief, EDGE, weight};
use super::seek::{Going, Reach, Seek};
use super::setup::{SetLight, Setup};
use super::stock::Stock;
use super::tables::{Cam, Tables};
use crate::outlook::DRAWS_FROM;
use crate::physics::shutter::SyncMode;
use crate::quantity::scale::ShutterTime;
use crate::quantity::{Seconds, Stops};
use rayon::prelude::*;
use std::collections::HashMap;

/// Another unit at a light than the one that is there, against a stop of what counts first.
const ANOTHER: f64 = 0.03;

/// A light of the shot that wants a unit.
pub(super) struct Place {
    /// Its place in the shot's list.
    pub light: usize,
    /// Where it shall fall.
    wanted: f64,
    /// Allowed freezing time, in seconds.
    freeze_s: f64,
    reach: Reach,
    sync: SyncMode,
}

/// One unit at one light.
#[derive(Clone, Copy, Debug)]
struct Taken {
    unit: usize,
    heads: u32,
    cost: f64,
    power: f64,
    place: usize,
}

/// A unit at each light, at the same camera settings.
#[derive(Clone, Debug)]
pub struct Crew {
    /// What was minimised.
    pub cost: f64,
    /// As a set-up.
    pub setup: Setup,
    /// Which unit of the stock is at each of the set-up's lights, and how many of it.
    pub units: Vec<(usize, u32)>,
}

/// The lights of a shot and all that is known about handing out units to them.
pub(super) struct Crewing<'a> {
    brief: &'a Brief<'a>,
    stock: &'a Stock,
    tables: Tables,
    pub places: Vec<Place>,
    /// For every light what units can do there.
    options: Vec<Vec<Offer>>,
}

/// A unit, so many heads, at one light. By level: the cheapest for each set of times that it is good for, as bits.
struct Offer(Vec<Vec<(u128, Taken)>>);

/// The best ways to hand out the units, best first; `None` when it was stopped.
pub fn whole_shot(brief: &Brief, stock: &Stock, priority: Priority, going: &Going) -> Option<Vec<Crew>> {
    let crewing = Crewing::new(brief, stock, priority, going)?;
    let mut best: HashMap<Vec<(u8, i64, usize, u32)>, Crew> = HashMap::new();
    let cells: Vec<(usize, usize)> = crewing.open().collect();
    let crews: Vec<Crew> = cells
        .into_par_iter()
        .filter_map(|cell| if going.is_stopped() { None } else { crewing.hand_out(cell) })
        .collect();
    if going.is_stopped() {
        return None;
    }
    for crew in crews {
        // Two rims that trade their units are the same crew.
        let mut name: Vec<(u8, i64, usize, u32)> = crewing
            .places
            .iter()
            .zip(&crew.units)
            .map(|(place, (unit, heads))| {
                let role = brief.plan.lights[place.light].role as u8;
                (role, (place.wanted * 100.0).round() as i64, *unit, *heads)
            })
            .collect();
        name.sort_unstable();
        match best.get_mut(&name) {
            Some(known) if known.cost <= crew.cost => {}
            Some(known) => *known = crew,
            None => {
                best.insert(name, crew);
            }
        }
    }
    let mut crews: Vec<Crew> = best.into_values().collect();
    crews.sort_by(|a, b| a.cost.total_cmp(&b.cost).then_with(|| a.units.cmp(&b.units)));
    Some(crews)
}

impl<'a> Crewing<'a> {
    pub fn new(brief: &'a Brief<'a>, stock: &'a Stock, priority: Priority, going: &Going) -> Option<Self> {
        let aim = Aim::best(priority);
        let tables = Tables::of(brief, stock, &aim);
        let places = places(brief, &aim);
        let jobs: Vec<(usize, usize)> =
            (0..places.len()).flat_map(|place| (0..stock.units.len()).map(move |unit| (place, unit))).collect();
        going.expect(jobs.len());
        let offers: Vec<(usize, Vec<Offer>)> = jobs
            .into_par_iter()
            .map(|(place, unit)| {
                let offers = if going.is_stopped() {
                    Vec::new()
                } else {
                    offers(brief, stock, &aim, &tables, &places[place], unit)
                };
                going.step();
                (place, offers)
            })
            .collect();
        if going.is_stopped() {
            return None;
        }
        let mut options: Vec<Vec<Offer>> = places.iter().map(|_| Vec::new()).collect();
        for (place, offer) in offers {
            options[place].extend(offer);
        }
        Some(Self { brief, stock, tables, places, options })
    }

    /// Levels and times that are open with the flash that falls on the background now.
    pub fn open(&self) -> impl Iterator<Item = (usize, usize)> + '_ {
        let key = &self.brief.seen.lights[self.brief.plan.key];
        let lifted = self.brief.other_spill + key.background_in_a_whole_row().as_ratio();
        (0..self.tables.levels.len()).flat_map(move |level| {
            let row = self.tables.row(level).iter().enumerate();
            row.filter(move |(_, cell)| cell.is_open() && lifted >= cell.spill.0 && lifted < cell.spill.1)
                .map(move |(time, _)| (level, time))
        })
    }

    /// Units that do at a light, at a level and a time, each with the fewest heads first.
    fn taken(&self, place: usize, (level, time): (usize, usize)) -> Vec<Taken> {
        let fits = |offer: &Offer| {
            let good = offer.0[level].iter().filter(|(times, _)| times & (1 << time) != 0).map(|(_, taken)| *taken);
            good.min_by(|a, b| a.cost.total_cmp(&b.cost))
        };
        self.options[place].iter().filter_map(fits).collect()
    }

    /// For each light the units that do, with the fewest heads each takes.
    pub fn fewest(&self, cell: (usize, usize)) -> Vec<Vec<(usize, u32)>> {
        let of = |place: usize| {
            let mut fewest: Vec<(usize, u32)> = Vec::new();
            for taken in self.taken(place, cell) {
                match fewest.iter_mut().find(|(unit, _)| *unit == taken.unit) {
                    Some((_, heads)) => *heads = taken.heads.min(*heads),
                    None => fewest.push((taken.unit, taken.heads)),
                }
            }
            fewest.sort_unstable();
            fewest
        };
        (0..self.places.len()).map(of).collect()
    }

    fn hand_out(&self, (level, time): (usize, usize)) -> Option<Crew> {
        let mut of: Vec<(usize, Vec<Taken>)> =
            (0..self.places.len()).map(|place| (place, self.taken(place, (level, time)))).collect();
        for (_, taken) in &mut of {
            taken.sort_by(|a, b| a.cost.total_cmp(&b.cost));
        }
        // The light with the least choice first; what the rest costs at least is known beforehand.
        of.sort_by_key(|(_, taken)| taken.len());
        let least: Vec<f64> = of.iter().map(|(_, taken)| taken.first().map_or(f64::INFINITY, |one| one.cost)).collect();
        let mut rest = vec![0.0; of.len() + 1];
        for index in (0..of.len()).rev() {
            rest[index] = rest[index + 1] + least[index];
        }
        if !rest[0].is_finite() {
            return None;
        }
        let bounds = &self.brief.bounds;
        let mut hands = Hands {
            crewing: self,
            of: &of,
            rest: &rest,
            left: self.stock.units.iter().map(|unit| self.brief.at_hand(unit)).collect(),
            stands: bounds.stands,
            weight_kg: bounds.weight_kg,
            now: Vec::new(),
            best: (f64::INFINITY, Vec::new()),
        };
        hands.go(0.0);
        let (cost, chosen) = hands.best;
        if chosen.is_empty() {
            return None;
        }
        let mut by_place: Vec<(usize, Taken)> = of.iter().map(|(place, _)| *place).zip(chosen).collect();
        by_place.sort_by_key(|(place, _)| *place);
        let cell = &self.tables.row(level)[time];
        let cam = self.tables.levels[level].cams[0];
        Some(Crew {
            cost: cost + cam.cost + cell.cost,
            setup: self.setup(&cam, self.tables.times[time], &by_place),
            units: by_place.iter().map(|(_, taken)| (taken.unit, taken.heads)).collect(),
        })
    }

    fn setup(&self, cam: &Cam, time: ShutterTime, by_place: &[(usize, Taken)]) -> Setup {
        let lights = by_place.iter().map(|(place, taken)| {
            let place = &self.places[*place];
            SetLight {
                light: place.light,
                unit: self.stock.units[taken.unit].wire.id.clone(),
                modifier: self.brief.shot.lights[place.light].modifier.id.clone(),
                heads: taken.heads,
                power: taken.power,
                distance_m: place.reach.places[taken.place].as_metres(),
                sync: place.sync,
            }
        });
        super::setup::of(self.brief, (cam.aperture, time, cam.iso, cam.filter), lights.collect())
    }

    /// What a light that no unit does would take, at times that the camera is rated to sync at; nothing when every light has
    /// some unit.
    pub fn lacking(&self) -> Option<Lacking> {
        let rated = self.brief.plan.body.rated_sync.time();
        let cells: Vec<(usize, usize)> = self.open().collect();
        let (light, place) = self
            .places
            .iter()
            .enumerate()
            .find(|(index, _)| cells.iter().all(|cell| self.taken(*index, *cell).is_empty()))
            .map(|(_, place)| (place.light, place))?;
        let syncs = cells.iter().filter(|(_, time)| self.tables.times[*time].time() >= rated);
        let levels = syncs.map(|(level, _)| self.tables.levels[*level].log_reference);
        let lowest = levels.fold(f64::INFINITY, f64::min);
        let near = place.reach.log_light.first().copied().unwrap_or(f64::NEG_INFINITY);
        let guide = ((lowest + place.wanted - near).exp2() * 100.0 / crate::physics::exposure::INCIDENT_C).sqrt();
        Some(Lacking { light, guide_m: guide.is_finite().then_some(guide), freeze_s: place.freeze_s })
    }
}

/// What a light would take that no unit does.
pub(super) struct Lacking {
    /// Its place in the shot's list.
    pub light: usize,
    /// Guide number of one head with the reference reflector; none where no time that syncs is open.
    pub guide_m: Option<f64>,
    /// Freezing time, in seconds, endless where nothing limits it.
    pub freeze_s: f64,
}

/// Handing out, light after light.
struct Hands<'c> {
    crewing: &'c Crewing<'c>,
    of: &'c [(usize, Vec<Taken>)],
    rest: &'c [f64],
    left: Vec<u32>,
    stands: u32,
    weight_kg: f64,
    now: Vec<Taken>,
    best: (f64, Vec<Taken>),
}

impl Hands<'_> {
    fn go(&mut self, cost: f64) {
        let at = self.now.len();
        if at == self.of.len() {
            if cost < self.best.0 {
                self.best = (cost, self.now.clone());
            }
            return;
        }
        let (place, options) = &self.of[at];
        let crewing = self.crewing;
        let modifier = &crewing.brief.shot.lights[crewing.places[*place].light].modifier;
        for taken in options {
            if cost + taken.cost + self.rest[at + 1] >= self.best.0 {
                break;
            }
            // What nobody has weighed may not be counted on where weight matters.
            let kg = weight(&crewing.stock.units[taken.unit], modifier, taken.heads).unwrap_or(f64::INFINITY);
            let too_heavy = self.weight_kg.is_finite() && kg > self.weight_kg + EDGE;
            if self.left[taken.unit] < taken.heads || self.stands < taken.heads || too_heavy {
                continue;
            }
            self.left[taken.unit] -= taken.heads;
            self.stands -= taken.heads;
            let weighed = if self.weight_kg.is_finite() { kg } else { 0.0 };
            self.weight_kg -= weighed;
            self.now.push(*taken);
            self.go(cost + taken.cost);
            self.now.pop();
            self.weight_kg += weighed;
            self.stands += taken.heads;
            self.left[taken.unit] += taken.heads;
        }
    }
}

fn places(brief: &Brief, aim: &Aim) -> Vec<Place> {
    let (plan, seen) = (brief.plan, &brief.seen);
    let key = seen.key().in_a_whole_row();
    let wanted = |light: usize| {
        (brief.key_wanted + ((seen.lights[light].in_a_whole_row() - seen.lights[light].grazing) - key)).as_stops()
    };
    let looks = |light: usize| wanted(light) + seen.lights[light].grazing.as_stops();
    let firing: Vec<usize> =
        seen.firing().filter(|(_, light)| light.on_set.placement > Stops::DARK).map(|(light, _)| light).collect();
    let draws = |light: usize, part: usize| {
        let others = firing.iter().filter(|other| plan.lights[**other].reaches(part));
        let all: f64 = others.map(|other| looks(*other).exp2()).sum();
        plan.lights[light].reaches(part) && looks(light).exp2() >= all * DRAWS_FROM
    };
    let place = |light: &usize| {
        let limits =
            brief.needs.iter().enumerate().filter(|(part, _)| draws(*light, *part)).filter_map(|(part, need)| {
                let limit = brief.bounds.blur[part]?;
                Some(limit.as_metres() / need.speed.as_metres_per_second())
            });
        let now = plan.settings.lights[*light].sync;
        Place {
            light: *light,
            wanted: wanted(*light),
            freeze_s: limits.chain(brief.lasts_at_most(*light).map(Seconds::as_secs)).fold(f64::INFINITY, f64::min),
            reach: Reach::of(brief, aim, *light, &plan.lights[*light]),
            sync: if now == SyncMode::HighSpeed && !brief.bounds.high_speed { SyncMode::Front } else { now },
        }
    };
    firing.iter().map(place).collect()
}

fn offers(brief: &Brief, stock: &Stock, aim: &Aim, tables: &Tables, place: &Place, unit: usize) -> Vec<Offer> {
    let offered = &stock.units[unit];
    let light = &brief.plan.lights[place.light];
    let seek = Seek::bare(brief, stock, aim, tables);
    let glow = (place.sync == SyncMode::HighSpeed).then(|| tables.glow(brief, offered.unit.efficiency));
    if glow.is_some() && !offered.unit.high_speed {
        return Vec::new();
    }
    let rows = match &glow {
        None => seek.rows_for(offered, (place.light, light), place.sync, Some(place.freeze_s)),
        Some(_) => seek.glow_rows(offered, place.light),
    };
    let mut offers = Vec::new();
    let most = brief.bounds.heads.min(brief.bounds.stands).min(brief.at_hand(offered));
    let front = &brief.shot.lights[place.light].modifier;
    let output = brief.output(place.light, offered, front);
    for heads in 1..=most {
        let log_output = (output.as_lux_seconds_square_metres() * f64::from(heads)).log2();
        let fixed = aim.weight(brief, weight(offered, front, heads))
            + aim.others(offered.wire.id != brief.shot.lights[place.light].unit.id, false)
            + if brief.shot.lights[place.light].unit.id == offered.wire.id { 0.0 } else { ANOTHER }
            + ANOTHER * f64::from(heads - 1);
        let by_level: Vec<Vec<(u128, Taken)>> = tables
            .levels
            .iter()
            .enumerate()
            .map(|(index, level)| {
                let mut taken: Vec<(u128, Taken)> = Vec::new();
                for row in &rows {
                    match &glow {
                        None => {
                            let base = log_output + row.power.log2();
                            if let Some((cost, at)) = cheapest(brief, aim, place, level.log_reference - base) {
                                let one =
                                    Taken { unit, heads, cost: fixed + row.cost + cost, power: row.power, place: at };
                                let slow = (1 << row.slow_enough) - 1;
                                keep(&mut taken, (row.these.unwrap_or(slow), one));
                            }
                        }
                        Some(gains) => {
                            for (time, gain) in gains.iter().enumerate() {
                                let frozen = tables.times[time].time().as_secs() <= place.freeze_s * (1.0 + EDGE);
                                if !frozen || !tables.row(index)[time].is_open() {
                                    continue;
                                }
                                let base = log_output + row.power.log2() + gain;
                                if let Some((cost, at)) = cheapest(brief, aim, place, level.log_reference - base) {
                                    let one = Taken {
                                        unit,
                                        heads,
                                        cost: fixed + row.cost + cost,
                                        power: row.power,
                                        place: at,
                                    };
                                    keep(&mut taken, (1 << time, one));
                                }
                            }
                        }
                    }
                }
                taken
            })
            .collect();
        if by_level.iter().any(|level| !level.is_empty()) {
            offers.push(Offer(by_level));
        }
    }
    offers
}

/// Keeps the cheapest for each set of times.
fn keep(taken: &mut Vec<(u128, Taken)>, one: (u128, Taken)) {
    match taken.iter_mut().find(|(times, _)| *times == one.0) {
        Some(known) if known.1.cost <= one.1.cost => {}
        Some(known) => *known = one,
        None => taken.push(one),
    }
}

/// The cheapest place where a light falls as wanted; `needed` is its light there against an output of one, but for where it
/// shall fall.
fn cheapest(brief: &Brief, aim: &Aim, place: &Place, needed: f64) -> Option<(f64, usize)> {
    let within = brief.bounds.key_within.as_stops();
    let needed = needed + place.wanted;
    let log_light = &place.reach.log_light;
    let from = log_light.partition_point(|light| *light > needed + within + EDGE);
    let to = log_light.partition_point(|light| *light >= needed - within - EDGE);
    (from..to)
        .map(|at| (place.reach.cost[at] + aim.miss((log_light[at] - needed).abs(), within), at))
        .min_by(|a, b| a.0.total_cmp(&b.0))
}
