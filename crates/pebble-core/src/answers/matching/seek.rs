//! The search: every unit behind every modifier, as often as there are of it, against all camera settings at once.
//!
//! For a power and a level of camera settings the places where the key is on its target are an interval of distances, found
//! by walking two marks along the scale; what the camera and the time cost is looked up. Nothing is gone through twice, and
//! nothing is skipped that would count: the number of ways is exact, and so is the best of them.

use super::aim::{Aim, PowerFigures};
use super::brief::{Brief, Demand, EDGE, modifier_price, strongest, weight, weight_room};
use super::stock::{AtPower, Offered, Stock};
use super::tables::{Cam, Cell, Tables};
use super::window;
use crate::file::gear::Modifier;
use crate::outlook::timing;
use crate::physics::shutter::sync::{Timing, ignition, leaves_no_row_dark};
use crate::physics::shutter::{Run, SyncMode};
use crate::plan::Light;
use crate::quantity::scale::ShutterTime;
use crate::quantity::{Metres, Seconds};
use rayon::prelude::*;
use std::ops::Range;
use std::sync::atomic::{AtomicBool, AtomicUsize, Ordering};

/// Nearest place that is tried where the frame's edge may give.
const CLOSEST: Metres = Metres::from_metres(0.3);
/// Farthest place that is tried where the wish may give.
const FARTHEST: Metres = Metres::from_metres(30.0);
/// More heads than this are not put side by side for one light.
pub(super) const MOST_HEADS: u32 = 4;

/// The best of all set-ups with the same unit, number of heads, modifier and kind of sync.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Found {
    /// Which unit of the stock.
    pub unit: usize,
    /// Which modifier: of the stock, or past its end the key's own.
    pub modifier: usize,
    /// Side by side.
    pub heads: u32,
    /// Whether it glows.
    pub glow: bool,
    /// What was minimised.
    pub cost: f64,
    /// How many settings of camera, power and distance work.
    pub ways: u64,
    /// Power of the best.
    pub power: f64,
    /// Distance of the best.
    pub distance: Metres,
    /// Time of the best.
    pub shutter: ShutterTime,
    pub(super) cam: Cam,
}

/// A power of a unit.
pub(super) struct Exposing {
    pub power: f64,
    log_power: f64,
    pub cost: f64,
    /// Pulsing: so many of the times, slow to fast, leave all rows lit.
    pub slow_enough: usize,
    /// Rear sync: which of the times do.
    pub these: Option<u128>,
}

/// What a glow is at one time.
#[derive(Clone, Copy)]
struct Glowing {
    /// Change of light against a pulse, in stops.
    change: f64,
    cost: f64,
}

/// Places for a light behind a modifier, near to far.
pub(super) struct Reach {
    pub places: Vec<Metres>,
    /// log2 of the exposure there by an output of one.
    pub log_light: Vec<f64>,
    /// log2 of the same on the background.
    log_spill: Vec<f64>,
    pub cost: Vec<f64>,
    /// Change of light by what is in front of it, in stops.
    pub change: f64,
}

/// How a long search goes on, and whether it shall.
#[derive(Default)]
pub struct Going {
    stop: AtomicBool,
    done: AtomicUsize,
    all: AtomicUsize,
}

impl Going {
    /// Ends the search soon; what was found until then is dropped.
    pub fn stop(&self) {
        self.stop.store(true, Ordering::Relaxed);
    }

    /// Whether it was stopped.
    pub fn is_stopped(&self) -> bool {
        self.stop.load(Ordering::Relaxed)
    }

    /// Units done and units in all.
    pub fn progress(&self) -> (usize, usize) {
        (self.done.load(Ordering::Relaxed), self.all.load(Ordering::Relaxed))
    }

    pub(super) fn expect(&self, more: usize) {
        self.all.fetch_add(more, Ordering::Relaxed);
    }

    pub(super) fn step(&self) {
        self.done.fetch_add(1, Ordering::Relaxed);
    }
}

/// One search over a stock.
pub(super) struct Seek<'a> {
    pub brief: &'a Brief<'a>,
    pub stock: &'a Stock,
    pub aim: &'a Aim,
    pub tables: &'a Tables,
    pub(super) fronts: Vec<&'a Modifier>,
    pub(super) reaches: Vec<Option<Reach>>,
}

/// All modifiers of a search: those of the stock, then the key's own where the stock lacks it.
pub(super) fn fronts<'a>(brief: &'a Brief, stock: &'a Stock) -> Vec<&'a Modifier> {
    let own = brief.present_modifier();
    let more = (!stock.modifiers.contains(own)).then_some(own);
    stock.modifiers.iter().chain(more).collect()
}

impl<'a> Seek<'a> {
    pub fn new(brief: &'a Brief<'a>, stock: &'a Stock, aim: &'a Aim, tables: &'a Tables) -> Self {
        let fronts = fronts(brief, stock);
        let reaches = fronts.iter().map(|modifier| reach(brief, aim, modifier)).collect();
        Self { brief, stock, aim, tables, fronts, reaches }
    }

    /// The best of every class; `None` when it was stopped.
    pub fn all(&self, going: &Going) -> Option<Vec<Found>> {
        if self.tables.levels.is_empty() {
            return Some(Vec::new());
        }
        going.expect(self.stock.units.len());
        let found: Vec<Vec<Found>> = (0..self.stock.units.len())
            .into_par_iter()
            .map(|unit| {
                let found = if going.is_stopped() { Vec::new() } else { self.of_unit(unit) };
                going.step();
                found
            })
            .collect();
        (!going.is_stopped()).then(|| found.into_iter().flatten().collect())
    }

    fn of_unit(&self, index: usize) -> Vec<Found> {
        let offered = &self.stock.units[index];
        let pulsing = self.rows(offered);
        let glow = self.glows(offered);
        let mut found = Vec::new();
        let owned = self.brief.left_for_key(offered);
        for heads in 1..=MOST_HEADS {
            let room = |limit: u32| (f64::from(limit) / f64::from(heads)).log2();
            let bounds = &self.brief.bounds;
            let heads_room = room(bounds.heads.min(bounds.stands));
            if !self.aim.open(Demand::Heads, None, heads_room) || !self.aim.open(Demand::Owned, None, room(owned)) {
                continue;
            }
            let several = self.aim.price(Demand::Heads, None, heads_room)
                + self.aim.price(Demand::Owned, None, room(owned))
                // Between equals the fewer.
                + 1e-7 * f64::from(heads);
            for (modifier, reach) in self.reaches.iter().enumerate() {
                let Some(reach) = reach else { continue };
                let front = self.fronts[modifier];
                let weight = weight(offered, front, heads);
                let weight_room = weight_room(bounds.weight_kg, weight);
                if !self.aim.open(Demand::Weight, None, weight_room) {
                    continue;
                }
                let cost = several
                    + self.aim.weight(self.brief, weight)
                    + self.aim.others(
                        offered.wire.id != self.brief.shot.lights[self.brief.plan.key].unit.id,
                        front != self.brief.present_modifier(),
                    )
                    + self.aim.price(Demand::Weight, None, weight_room)
                    + self.front_price(front, reach);
                let output = self.brief.output(self.brief.plan.key, offered, front);
                let log_output = (output.as_lux_seconds_square_metres() * f64::from(heads)).log2();
                let mut class = Class::new(self, reach, log_output, cost);
                class.pulsing(&pulsing);
                found.extend(class.found(index, modifier, heads, false));
                if let Some((rows, gains)) = &glow {
                    let mut class = Class::new(self, reach, log_output, cost);
                    class.glowing(rows, gains);
                    found.extend(class.found(index, modifier, heads, true));
                }
            }
        }
        found
    }

    /// Without modifiers of its own, for lights whose modifier stays.
    pub(super) fn bare(brief: &'a Brief<'a>, stock: &'a Stock, aim: &'a Aim, tables: &'a Tables) -> Self {
        Self { brief, stock, aim, tables, fronts: Vec::new(), reaches: Vec::new() }
    }

    /// Whether some camera setting and place are right for a power; `log_at_power` is the output at that power as log2.
    pub(super) fn works(&self, row: &Exposing, log_at_power: f64, reach: &Reach) -> bool {
        let mut class = Class::new(self, reach, log_at_power - row.log_power, 0.0);
        class.levels(row, 0.0, None);
        class.ways > 0
    }

    fn front_price(&self, front: &Modifier, reach: &Reach) -> f64 {
        if self.brief.bounds.any_modifier || front == self.brief.present_modifier() {
            return 0.0;
        }
        let now = self.brief.plan.key_light().throw.modifier.as_stops();
        self.aim.price(Demand::Modifier, None, -modifier_price(reach.change - now))
    }

    /// Powers of a pulsing unit that hold what is asked of them at the key.
    fn rows(&self, offered: &Offered) -> Vec<Exposing> {
        let plan = self.brief.plan;
        self.rows_for(offered, (plan.key, plan.key_light()), self.brief.pulsed(), None)
    }

    /// The same at any light, with the parts judged one by one or by the longest freezing time allowed, in seconds.
    pub(super) fn rows_for(
        &self,
        offered: &Offered,
        (index, light): (usize, &Light),
        mode: SyncMode,
        longest_s: Option<f64>,
    ) -> Vec<Exposing> {
        let brief = self.brief;
        let row = |at: &AtPower| {
            let (power, pulse) = (at.power, at.pulse);
            if !brief.power_open(index, power) {
                return None;
            }
            let freeze = at.durations.by(brief.plan.school);
            let cost = match longest_s {
                None => self.power_cost(offered, power, freeze.as_secs())?,
                Some(longest_s) => self.cost_below(offered, power, freeze.as_secs(), longest_s)?,
            };
            // The trigger stays, the unit's own delay is another.
            let lag = light.lag - light.unit.lag + offered.unit.lag;
            let timing = Timing { lag, ..timing(brief.plan, index, at.length) };
            let lit = |time: &ShutterTime| {
                let run = Run { travel: brief.plan.body.travel, time: time.time() };
                leaves_no_row_dark(run, mode, timing, &pulse) && !ignition(run, mode, timing).rear_acts_as_front
            };
            let times = &self.tables.times;
            // With front sync a longer time only helps.
            let (slow_enough, these) = if mode == SyncMode::Rear {
                let lit = times.iter().enumerate().filter(|(_, time)| lit(time));
                (times.len(), Some(lit.fold(0_u128, |bits, (at, _)| bits | 1 << at)))
            } else {
                (times.partition_point(lit), None)
            };
            (slow_enough > 0 && these != Some(0)).then_some(Exposing {
                power,
                log_power: power.log2(),
                cost,
                slow_enough,
                these,
            })
        };
        offered.pulses().iter().filter_map(row).collect()
    }

    /// What a power costs at a light with one limit of freezing time.
    fn cost_below(&self, offered: &Offered, power: f64, freeze_s: f64, longest_s: f64) -> Option<f64> {
        let blur_room = (longest_s / freeze_s).log2();
        if blur_room < -EDGE {
            return None;
        }
        let (frames_room, charge_room, more) = self.store(offered, power)?;
        let flashes = strongest(offered.unit.readiness.on_one_charge(power));
        let ready_s = offered.unit.readiness.ready(power).map(Seconds::as_secs);
        let figures = PowerFigures { freeze_s, blur_room, frames_room, charge_room, flashes, ready_s };
        Some(self.aim.power(&figures) + more)
    }

    /// Powers of a unit that glows.
    pub(super) fn glow_rows(&self, offered: &Offered, light: usize) -> Vec<Exposing> {
        let times = self.tables.times.len();
        let row = |power: f64| {
            let cost = self.store_cost(offered, power)?;
            Some(Exposing { power, log_power: power.log2(), cost, slow_enough: times, these: None })
        };
        offered.unit.powers().filter(|power| self.brief.power_open(light, *power)).filter_map(row).collect()
    }

    /// Powers of a glowing unit and what the glow takes at each time; nothing where it may not or cannot glow.
    fn glows(&self, offered: &Offered) -> Option<(Vec<Exposing>, Vec<Option<Glowing>>)> {
        let (brief, aim) = (self.brief, self.aim);
        let body = &brief.plan.body;
        let can = body.high_speed && offered.unit.high_speed && body.travel.as_secs() > 0.0;
        if !can || !(brief.bounds.high_speed || aim.is_loose(Demand::HighSpeed, None)) {
            return None;
        }
        let losses = self.tables.glow(brief, offered.unit.efficiency);
        let gains = self.tables.times.iter().zip(losses).map(|(time, loss)| {
            // The shutter freezes.
            let blur = self.blur(time.time().as_secs())?;
            let price = if brief.bounds.high_speed { 0.0 } else { aim.price(Demand::HighSpeed, None, loss) };
            let figures = PowerFigures {
                freeze_s: time.time().as_secs(),
                blur_room: blur.0,
                frames_room: f64::INFINITY,
                charge_room: f64::INFINITY,
                flashes: 1.0,
                ready_s: Some(1.0),
            };
            // What depends on the power is counted with the power.
            let first = if aim.counts_freezing() { aim.power(&figures) } else { 0.0 };
            Some(Glowing { change: loss, cost: blur.1 + price + first })
        });
        let gains: Vec<_> = gains.collect();
        Some((self.glow_rows(offered, brief.plan.key), gains))
    }

    /// Stops of blur to spare on the strictest part, and what is lacking at its price; `None` where it may not lack.
    fn blur(&self, freeze_s: f64) -> Option<(f64, f64)> {
        let freeze = self.brief.freeze_room(freeze_s);
        if !self.aim.open(Demand::Freeze, None, freeze) {
            return None;
        }
        let (mut least, mut price) = (f64::INFINITY, self.aim.price(Demand::Freeze, None, freeze));
        for (index, need) in self.brief.needs.iter().enumerate() {
            let Some(limit) = need.limit else { continue };
            let room = (limit.as_metres() / (need.speed.as_metres_per_second() * freeze_s)).log2();
            if !self.aim.open(Demand::Blur, Some(index), room) {
                return None;
            }
            least = least.min(room);
            price += self.aim.price(Demand::Blur, Some(index), room);
        }
        Some((least, price))
    }

    fn power_cost(&self, offered: &Offered, power: f64, freeze_s: f64) -> Option<f64> {
        let (blur_room, price) = self.blur(freeze_s)?;
        let (frames_room, charge_room, more) = self.store(offered, power)?;
        let flashes = strongest(offered.unit.readiness.on_one_charge(power));
        let ready_s = offered.unit.readiness.ready(power).map(Seconds::as_secs);
        let figures = PowerFigures { freeze_s, blur_room, frames_room, charge_room, flashes, ready_s };
        Some(self.aim.power(&figures) + price + more)
    }

    /// What a power costs while the unit glows: the freezing is counted with the time.
    fn store_cost(&self, offered: &Offered, power: f64) -> Option<f64> {
        self.cost_below(offered, power, 1e-6, f64::INFINITY)
    }

    /// Stops of frames and charge to spare, and what is lacking at its price.
    fn store(&self, offered: &Offered, power: f64) -> Option<(f64, f64, f64)> {
        let (bounds, aim) = (&self.brief.bounds, self.aim);
        let frames = offered.unit.readiness.in_a_row(power, bounds.rate).room(bounds.frames);
        let charge = offered.unit.readiness.on_one_charge(power).room(bounds.flashes);
        let mut price = 0.0;
        if !aim.open(Demand::Frames, None, frames) {
            // Fewer a second may hold where fewer in a row do not count.
            let slower = offered.rate_room(power, bounds.frames, bounds.rate);
            if !aim.is_loose(Demand::Rate, None) || !aim.open(Demand::Rate, None, slower) {
                return None;
            }
            price += aim.price(Demand::Rate, None, slower);
        } else {
            price += aim.price(Demand::Frames, None, frames);
        }
        if !aim.open(Demand::Charge, None, charge) {
            return None;
        }
        Some((frames, charge, price + aim.price(Demand::Charge, None, charge)))
    }
}

fn reach(brief: &Brief, aim: &Aim, modifier: &Modifier) -> Option<Reach> {
    if !brief.bounds.any_modifier && modifier != brief.present_modifier() && !aim.is_loose(Demand::Modifier, None) {
        return None;
    }
    let wire = crate::file::shot::Flash { modifier: modifier.clone(), ..brief.shot.lights[brief.plan.key].clone() };
    let unit = brief.plan.key_light().unit.clone();
    let light =
        Light::with_unit(&crate::plan::check::At::default(), &wire, unit, (&brief.plan.parts, brief.plan.meter))
            .ok()?
            .in_place_of(brief.plan.key_light());
    Some(Reach::of(brief, aim, brief.plan.key, &light))
}

impl Reach {
    /// Of a light of the plan, whatever its unit.
    pub(super) fn of(brief: &Brief, aim: &Aim, index: usize, light: &Light) -> Self {
        let plan = brief.plan;
        let nearest = brief.nearest(light);
        let loose = |condition| aim.is_loose(condition, None);
        let from = if loose(Demand::Near) { CLOSEST.min(nearest) } else { nearest };
        let to = if loose(Demand::Far) { FARTHEST.max(brief.bounds.farthest) } else { brief.bounds.farthest };
        let places: Vec<Metres> = if !light.walks() {
            vec![plan.settings.lights[index].distance]
        } else {
            let there = plan.settings.lights[index].distance;
            let stays = brief.bounds.places_stay && !loose(Demand::Place);
            // A light that stays may stand between two places of the tape.
            let all = window::distances(plan.lengths, from, to).filter(|_| !stays);
            let own = stays.then_some(there).filter(|there| *there >= from && *there <= to);
            all.chain(own).filter(|place| aim.open(Demand::Place, None, brief.place_room(index, *place))).collect()
        };
        // Asked of the key alone; many places, each gone through once.
        let evens = |place: &Metres| if index == plan.key { brief.even_room(light, *place) } else { f64::INFINITY };
        let rooms: Vec<f64> = places.iter().map(evens).collect();
        let even = |room: f64| aim.open(Demand::Even, None, room);
        let places: Vec<Metres> =
            { places.into_iter().zip(&rooms) }.filter(|(_, room)| even(**room)).map(|(place, _)| place).collect();
        let rooms: Vec<f64> = rooms.into_iter().filter(|room| even(*room)).collect();
        let mut one = light.clone();
        one.throw.output = crate::quantity::FlashOutput::from_lux_seconds_square_metres(1.0);
        let log = |distance: Metres| one.exposure(1.0, 1, distance).as_lux_seconds().log2();
        let spill = |distance: Metres| {
            if light.is_behind() {
                f64::NEG_INFINITY
            } else {
                log(distance + plan.background_behind) + plan.spill.as_stops()
            }
        };
        let cost = |distance: Metres| {
            let room = if !light.walks() {
                (0.0, 0.0)
            } else {
                (2.0 * (distance / nearest).log2(), 2.0 * (brief.bounds.farthest / distance).log2())
            };
            aim.distance(brief, index, distance, room)
                + aim.price(Demand::Place, None, brief.place_room(index, distance))
        };
        Self {
            log_light: places.iter().map(|place| log(*place)).collect(),
            log_spill: places.iter().map(|place| spill(*place)).collect(),
            cost: { places.iter().zip(&rooms) }
                .map(|(place, room)| cost(*place) + aim.price(Demand::Even, None, *room))
                .collect(),
            change: light.throw.modifier.as_stops(),
            places,
        }
    }

    /// Places whose light is between two values: walks `marks` along, for ends that only rise.
    fn between(&self, marks: &mut (usize, usize), low: f64, high: f64) -> Range<usize> {
        while marks.0 > 0 && self.log_light[marks.0 - 1] <= high {
            marks.0 -= 1;
        }
        while marks.1 > 0 && self.log_light[marks.1 - 1] < low {
            marks.1 -= 1;
        }
        marks.0..marks.1
    }
}

/// The search within one class.
struct Class<'s, 'a> {
    seek: &'s Seek<'a>,
    reach: &'s Reach,
    log_output: f64,
    cost: f64,
    ways: u64,
    best: Option<Best>,
    limit: f64,
}

#[derive(Clone, Copy)]
struct Best {
    power: f64,
    level: usize,
    time: usize,
    place: usize,
}

impl<'s, 'a> Class<'s, 'a> {
    fn new(seek: &'s Seek<'a>, reach: &'s Reach, log_output: f64, cost: f64) -> Self {
        Self { seek, reach, log_output, cost, ways: 0, best: None, limit: f64::INFINITY }
    }

    fn pulsing(&mut self, rows: &[Exposing]) {
        for row in rows {
            self.levels(row, 0.0, None);
        }
    }

    fn glowing(&mut self, rows: &[Exposing], gains: &[Option<Glowing>]) {
        for (time, gain) in gains.iter().enumerate() {
            let Some(Glowing { change, cost }) = *gain else { continue };
            for row in rows {
                self.levels(row, change, Some((time, cost)));
            }
        }
    }

    /// All levels of camera settings for one power; glowing, for one time.
    fn levels(&mut self, row: &Exposing, gain: f64, glow: Option<(usize, f64)>) {
        let (brief, tables, reach) = (self.seek.brief, self.seek.tables, self.reach);
        let Some((nearest, farthest)) = reach.log_light.first().zip(reach.log_light.last()) else { return };
        let within = self.seek.aim.key_within(brief) + EDGE;
        let base = self.log_output + row.log_power + gain - brief.key_wanted.as_stops();
        let first = tables.levels.partition_point(|level| level.log_reference < base + farthest - within);
        let mut marks = (reach.places.len(), reach.places.len());
        for (at, level) in tables.levels.iter().enumerate().skip(first) {
            if level.log_reference > base + nearest + within {
                break;
            }
            let wanted = level.log_reference - base;
            let places = reach.between(&mut marks, wanted - within, wanted + within);
            if places.is_empty() {
                continue;
            }
            let so_far = self.cost + row.cost + level.cams[0].cost;
            let cams = level.cams.len() as u64;
            match glow {
                None if row.these.is_none() && !level.minds_spill => {
                    let (open, cost, time) = level.open_among[row.slow_enough];
                    self.ways += cams * u64::from(open) * places.len() as u64;
                    self.places(so_far + cost, places, wanted, (row, at, time));
                }
                None => {
                    for (time, cell) in tables.row(at).iter().enumerate().take(row.slow_enough) {
                        if cell.is_open() && row.these.is_none_or(|these| these & (1 << time) != 0) {
                            self.cell(cell, cell.cost + so_far, places.clone(), (row, at, time), gain);
                        }
                    }
                }
                Some((time, cost)) => {
                    let cell = &tables.row(at)[time];
                    if cell.is_open() {
                        self.cell(cell, cell.cost + cost + so_far, places, (row, at, time), gain);
                    }
                }
            }
        }
    }

    /// One time at one level, where flash on the background may count.
    fn cell(&mut self, cell: &Cell, cost: f64, places: Range<usize>, at: (&Exposing, usize, usize), gain: f64) {
        let (brief, level) = (self.seek.brief, &self.seek.tables.levels[at.1]);
        let wanted = level.log_reference - (self.log_output + at.0.log_power + gain - brief.key_wanted.as_stops());
        let fits = |place: usize| {
            if cell.spill == (0.0, f64::INFINITY) {
                return true;
            }
            let own =
                (self.log_output + at.0.log_power + gain + self.reach.log_spill[place] - level.log_reference).exp2();
            let lifted = own + brief.other_spill;
            lifted >= cell.spill.0 && lifted < cell.spill.1
        };
        // Flash on the background falls with the distance, so the places that fit lie together.
        let from = places.clone().find(|place| fits(*place)).unwrap_or(places.end);
        let to = (from..places.end).find(|place| !fits(*place)).unwrap_or(places.end);
        self.ways += level.cams.len() as u64 * (to - from) as u64;
        self.places(cost, from..to, wanted, at);
    }

    fn places(&mut self, cost: f64, places: Range<usize>, wanted: f64, (row, level, time): (&Exposing, usize, usize)) {
        if cost >= self.limit {
            return;
        }
        let (aim, within) = (self.seek.aim, self.seek.brief.bounds.key_within.as_stops());
        for place in places {
            let cost = cost + self.reach.cost[place] + aim.miss((self.reach.log_light[place] - wanted).abs(), within);
            if cost < self.limit {
                self.limit = cost;
                self.best = Some(Best { power: row.power, level, time, place });
            }
        }
    }

    fn found(self, unit: usize, modifier: usize, heads: u32, glow: bool) -> Option<Found> {
        let best = self.best?;
        Some(Found {
            unit,
            modifier,
            heads,
            glow,
            cost: self.limit,
            ways: self.ways,
            power: best.power,
            distance: self.reach.places[best.place],
            shutter: self.seek.tables.times[best.time],
            cam: self.seek.tables.levels[best.level].cams[0],
        })
    }
}
