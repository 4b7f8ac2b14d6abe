//! Everything that does not depend on the light, laid out once: camera settings by the light they ask for, exposure times by
//! what the steady light does in them, and what each end of every scale costs.
//!
//! A flash knows of the camera only through the exposure that gives the metered tone, `log2(C·N²/S·2^F)`. All camera
//! settings with the same one are a [`Level`]; on a grid of thirds there are a few dozen of them instead of thousands of
//! settings. What the exposure time does is a [`Cell`] of level and time.

use super::aim::Aim;
use super::brief::{Brief, Demand, EDGE};
use super::stock::Stock;
use crate::answers::{conditions, strips};
use crate::file::shot::Intent;
use crate::physics::ghost::SEEN_FROM;
use crate::physics::shutter::{Run, high_speed};
use crate::quantity::Stops;
use crate::quantity::scale::{Aperture, Iso, ShutterTime};

/// Camera settings closer than this in their reference exposure are of one level, in stops.
const SAME_LEVEL: f64 = 1e-7;
/// Flash on the background beyond which nothing is told apart: far over white.
const BEYOND_WHITE: f64 = 64.0;
/// Halvings in the search for how much flash hides a trail: to 2⁻⁵⁰ of the range.
const HALVINGS: usize = 50;

/// Settings of a camera but for the time.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(super) struct Cam {
    pub aperture: Aperture,
    pub iso: Iso,
    pub filter: Stops,
    /// What it costs by the aim of the search.
    pub cost: f64,
}

/// All camera settings that ask for the same light, cheapest first.
pub(super) struct Level {
    /// log2 of the reference exposure in lx·s.
    pub log_reference: f64,
    pub cams: Vec<Cam>,
    /// For the first so many times, slow to fast: how many of them are open, and the cheapest of these with its cost.
    pub open_among: Vec<(u32, f64, usize)>,
    /// Some time of it asks for more or less flash on the background.
    pub minds_spill: bool,
}

/// What an exposure time does at a level.
#[derive(Clone, Copy)]
pub(super) struct Cell {
    /// Its cost; infinite where it is not open.
    pub cost: f64,
    /// The flash on the background that it takes, against the metered tone.
    pub spill: (f64, f64),
}

impl Cell {
    const SHUT: Self = Self { cost: f64::INFINITY, spill: (0.0, f64::INFINITY) };

    pub fn is_open(&self) -> bool {
        self.cost < f64::INFINITY
    }
}

/// The tables of one search.
pub(super) struct Tables {
    pub levels: Vec<Level>,
    /// Slow to fast.
    pub times: Vec<ShutterTime>,
    cells: Vec<Cell>,
}

impl Tables {
    pub fn of(brief: &Brief, stock: &Stock, aim: &Aim) -> Self {
        let body = &brief.plan.body;
        let times: Vec<ShutterTime> =
            strips::shutters(body).filter(|time| aim.open(Demand::Shutter, None, brief.shutter_room(*time))).collect();
        let mut cams = cams(brief, stock, aim);
        cams.sort_by(|a, b| a.0.total_cmp(&b.0).then(order(&a.1, &b.1)));
        let mut levels: Vec<Level> = Vec::new();
        for (log_reference, cam) in cams {
            match levels.last_mut().filter(|level| (log_reference - level.log_reference).abs() < SAME_LEVEL) {
                Some(level) => level.cams.push(cam),
                None => {
                    levels.push(Level { log_reference, cams: vec![cam], open_among: Vec::new(), minds_spill: false })
                }
            }
        }
        for level in &mut levels {
            level.cams.sort_by(order);
        }
        let mut cells = Vec::with_capacity(levels.len() * times.len());
        // What a streak does is the same at every level.
        let time_costs: Vec<f64> = times.iter().map(|time| time_cost(brief, aim, *time)).collect();
        for level in &mut levels {
            let row: Vec<Cell> = times
                .iter()
                .zip(&time_costs)
                .map(|(time, cost)| cell(brief, aim, level.log_reference, *time, *cost))
                .collect();
            let mut among = (0, f64::INFINITY, 0);
            level.open_among.push(among);
            for (index, cell) in row.iter().enumerate() {
                among.0 += u32::from(cell.is_open());
                if cell.cost < among.1 {
                    (among.1, among.2) = (cell.cost, index);
                }
                level.open_among.push(among);
            }
            level.minds_spill = row.iter().any(|cell| cell.is_open() && cell.spill != (0.0, f64::INFINITY));
            cells.extend(row);
        }
        let open: Vec<bool> =
            levels.iter().map(|level| level.open_among.last().is_some_and(|among| among.0 > 0)).collect();
        let width = times.len();
        let kept = |index: usize| open[index];
        let cells = cells
            .chunks(width.max(1))
            .enumerate()
            .filter(|(index, _)| kept(*index))
            .flat_map(|(_, row)| row.to_vec())
            .collect();
        let mut index = 0;
        levels.retain(|_| {
            index += 1;
            open[index - 1]
        });
        Self { levels, times, cells }
    }

    /// The cells of a level, one a time.
    pub fn row(&self, level: usize) -> &[Cell] {
        &self.cells[level * self.times.len()..(level + 1) * self.times.len()]
    }

    /// Change of light by a glow instead of a pulse, for each time; none where curtains do not travel.
    pub fn glow(&self, brief: &Brief, efficiency: f64) -> Vec<f64> {
        let travel = brief.plan.body.travel;
        self.times
            .iter()
            .map(|time| high_speed::loss(Run { travel, time: time.time() }, efficiency).as_stops())
            .collect()
    }
}

/// Cheapest first, then the lowest ISO, the least filter, the widest aperture.
fn order(a: &Cam, b: &Cam) -> std::cmp::Ordering {
    a.cost
        .total_cmp(&b.cost)
        .then(a.iso.number().total_cmp(&b.iso.number()))
        .then(a.filter.as_stops().total_cmp(&b.filter.as_stops()))
        .then(a.aperture.number().total_cmp(&b.aperture.number()))
}

fn cams(brief: &Brief, stock: &Stock, aim: &Aim) -> Vec<(f64, Cam)> {
    let body = &brief.plan.body;
    let mut filters = stock.filters.clone();
    // What is before the lens now is at hand.
    let now = brief.plan.settings.filter;
    if !filters.iter().any(|one| (one.as_stops() - now.as_stops()).abs() < 1e-6) {
        filters.push(now);
    }
    let filters: Vec<(Stops, f64)> = filters
        .into_iter()
        .filter(|filter| brief.filter_open(*filter))
        .map(|filter| (filter, (brief.bounds.filter_max - filter).as_stops()))
        .filter(|(_, room)| aim.open(Demand::Filter, None, *room))
        .collect();
    let isos: Vec<(Iso, f64)> = strips::isos(body)
        .map(|iso| (iso, brief.iso_room(iso)))
        .filter(|(_, room)| aim.open(Demand::Iso, None, *room))
        .collect();
    let mut all = Vec::new();
    for aperture in strips::apertures(body) {
        let (depth, opening) = (brief.depth_room(aperture), brief.aperture_room(aperture));
        if !aim.open(Demand::Depth, None, depth) || !aim.open(Demand::Aperture, None, opening) {
            continue;
        }
        for (iso, noise) in &isos {
            for (filter, grey) in &filters {
                let cost = aim.camera(brief, (aperture, *iso, *filter), (depth, *noise))
                    + aim.price(Demand::Depth, None, depth)
                    + aim.price(Demand::Aperture, None, opening)
                    + aim.price(Demand::Iso, None, *noise)
                    + aim.price(Demand::Filter, None, *grey);
                let reference = brief.plan.reference(aperture, *iso, *filter).as_lux_seconds().log2();
                all.push((reference, Cam { aperture, iso: *iso, filter: *filter, cost }));
            }
        }
    }
    all
}

/// What a time costs at any level; infinite where it is out of the question.
fn time_cost(brief: &Brief, aim: &Aim, time: ShutterTime) -> f64 {
    let room = brief.shutter_room(time);
    let mut cost = aim.time(brief, time) + aim.price(Demand::Shutter, None, room);
    for (index, need) in brief.needs.iter().enumerate() {
        let room = brief.streak_room(need, time);
        if !aim.open(Demand::Streak, Some(index), room) {
            return f64::INFINITY;
        }
        cost += aim.price(Demand::Streak, Some(index), room);
    }
    cost
}

fn cell(brief: &Brief, aim: &Aim, log_reference: f64, time: ShutterTime, cost: f64) -> Cell {
    if cost == f64::INFINITY {
        return Cell::SHUT;
    }
    let steady = brief.steady_change(time, log_reference);
    let ambient = Brief::within(brief.seen.ambient.placement.as_stops() + steady, brief.ambient());
    let background = Brief::within(brief.seen.background.placement.as_stops() + steady, brief.bounds.background);
    if !aim.open(Demand::Ambient, None, ambient) || !aim.open(Demand::Background, None, background) {
        return Cell::SHUT;
    }
    let mut cost = cost + aim.price(Demand::Ambient, None, ambient) + aim.price(Demand::Background, None, background);
    for (index, need) in brief.needs.iter().enumerate() {
        let room = brief.drawn_room(need, time, steady);
        if !aim.open(Demand::Drawn, Some(index), room) {
            return Cell::SHUT;
        }
        cost += aim.price(Demand::Drawn, Some(index), room);
    }
    let mut spill = (0.0, f64::INFINITY);
    for need in &brief.needs {
        // Flash on the background hides a trail: the difference only falls.
        let trail = |lifted: f64| brief.trail(need, time, steady, lifted);
        let bare = trail(0.0);
        if need.intent == Intent::Dash {
            if conditions::shows(bare) < -EDGE {
                return Cell::SHUT;
            }
            if conditions::shows(trail(BEYOND_WHITE)) < -EDGE {
                spill.1 = f64::min(spill.1, hides_from(trail, SEEN_FROM));
            }
        } else if conditions::trail(bare, brief.trail_limit(need)) < -EDGE {
            if conditions::trail(trail(BEYOND_WHITE), brief.trail_limit(need)) < -EDGE {
                return Cell::SHUT;
            }
            spill.0 = f64::max(spill.0, hides_from(trail, brief.trail_limit(need)));
        }
    }
    if spill.0 > spill.1 { Cell::SHUT } else { Cell { cost, spill } }
}

/// The flash on the background from which a trail is not seen, by halving.
fn hides_from(trail: impl Fn(f64) -> f64, limit: f64) -> f64 {
    let (mut seen, mut hidden) = (0.0, BEYOND_WHITE);
    for _ in 0..HALVINGS {
        let middle = 0.5 * (seen + hidden);
        if trail(middle) >= limit { seen = middle } else { hidden = middle }
    }
    hidden
}
