//! The same answer the slow way: every set-up of the whole grid, one after the other.

use pebble_core::gear::Modifier;
use pebble_core::matching::{Brief, Candidate, Stock};
use pebble_core::preferences::Lengths;
use pebble_core::quantity::{Metres, Stops};
use pebble_core::strips;
use std::collections::BTreeMap;

/// Unit, modifier, heads, glow.
pub type Class = (usize, usize, u32, bool);

/// What is counted of a class: how many ways, and the extremes of those.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Tally {
    pub ways: u64,
    pub lowest_iso: f64,
    pub lowest_power: f64,
    pub shortest: f64,
}

/// All set-ups of the grid that hold what is asked, by their class.
pub fn every_way(brief: &Brief, stock: &Stock, heads: u32) -> BTreeMap<Class, Tally> {
    let mut found: BTreeMap<Class, Tally> = BTreeMap::new();
    let body = &brief.plan.body;
    let own = &brief.shot.lights[brief.plan.key].modifier;
    let more = (!stock.modifiers.contains(own)).then_some(own);
    let fronts: Vec<&Modifier> = stock.modifiers.iter().chain(more).collect();
    for (unit, offered) in stock.units.iter().enumerate() {
        for (front, modifier) in fronts.iter().enumerate() {
            for heads in 1..=heads {
                for power in offered.unit.powers() {
                    for distance in places(brief) {
                        for glow in glows(brief, &offered.unit) {
                            for aperture in strips::apertures(body) {
                                for iso in strips::isos(body) {
                                    for filter in filters(brief, stock) {
                                        for shutter in strips::shutters(body) {
                                            let candidate = Candidate {
                                                unit: offered,
                                                modifier,
                                                heads,
                                                power,
                                                distance,
                                                glow,
                                                aperture,
                                                shutter,
                                                iso,
                                                filter,
                                            };
                                            let fares = brief.judge(&candidate).expect("it can be judged");
                                            if fares.iter().all(|one| one.room >= -1e-9) {
                                                let freeze = if glow {
                                                    shutter.time().as_secs()
                                                } else {
                                                    let times = offered.unit.control.at(power).durations();
                                                    times.by(brief.plan.school).as_secs()
                                                };
                                                let tally = found.entry((unit, front, heads, glow)).or_insert(Tally {
                                                    ways: 0,
                                                    lowest_iso: f64::INFINITY,
                                                    lowest_power: f64::INFINITY,
                                                    shortest: f64::INFINITY,
                                                });
                                                tally.ways += 1;
                                                tally.lowest_iso = tally.lowest_iso.min(iso.number());
                                                tally.lowest_power = tally.lowest_power.min(power);
                                                tally.shortest = tally.shortest.min(freeze);
                                            }
                                        }
                                    }
                                }
                            }
                        }
                    }
                }
            }
        }
    }
    found
}

fn places(brief: &Brief) -> impl Iterator<Item = Metres> {
    let farthest = brief.bounds.farthest.as_metres() + 1e-9;
    strips::distances(Lengths::Metric).filter(move |place| place.as_metres() <= farthest)
}

fn glows(brief: &Brief, unit: &pebble_core::plan::Unit) -> impl Iterator<Item = bool> + use<> {
    let body = &brief.plan.body;
    let can = body.high_speed && unit.high_speed && body.travel.as_secs() > 0.0;
    [false].into_iter().chain(can.then_some(true))
}

fn filters(brief: &Brief, stock: &Stock) -> Vec<Stops> {
    let now = brief.plan.settings.filter;
    let mut all = stock.filters.clone();
    if !all.contains(&now) {
        all.push(now);
    }
    all
}
