//! Matching: the same set-ups as going through the whole grid finds, relaxations that do what they say, and what is found
//! holds in the forecast.

mod common;
#[path = "matching/grid.rs"]
mod grid;

use common::{examples, plan, shot};
use pebble_core::gear::{Filter, FlashUnit, Kit, Modifier};
use pebble_core::matching::{Between, Found, Going, Nearest, Priority, Problem, Setup, Stock, Wish, applied, find, nearest};
use pebble_core::shot::{Shot, Targets};
use pebble_core::shutter::SyncMode;
use pebble_core::{findings, outlook};
use proptest::prelude::*;

const PRIORITIES: [Priority; 6] = [
    Priority::Balanced,
    Priority::ShortestPulse,
    Priority::LowestIso,
    Priority::LongestBattery,
    Priority::LeastToCarry,
    Priority::FastestBurst,
];

fn kit() -> Kit {
    serde_json::from_str(include_str!("../../../docs/examples/kit.json")).expect("the kit is a kit")
}

fn stock() -> Stock {
    Stock::of_kit(&kit()).expect("the kit can be")
}

fn wished(shot: &Shot, wish: Wish) -> Shot {
    Shot { wish: Some(wish), ..shot.clone() }
}

fn all(shot: &Shot, stock: &Stock, priority: Priority) -> Vec<Found> {
    let plan = plan(shot);
    let problem = Problem::new(shot, &plan).expect("the wish can be");
    find(&problem, stock, priority, &Going::default()).expect("nobody stopped it")
}

// --- the same as brute force ------------------------------------------------------------------------------------

/// A camera with few positions, so that every one of its settings can be gone through.
fn small(mut shot: Shot, (aperture, iso): (f64, f64), rear: bool, grid: pebble_core::quantity::scale::Grid) -> Shot {
    let camera = &mut shot.camera;
    camera.body.grid = grid;
    (camera.lens.widest_f, camera.lens.narrowest_f, camera.aperture_f) = (5.6, 6.7, aperture);
    (camera.body.iso_min, camera.body.iso_max, camera.iso) = (100.0, 200.0, iso);
    camera.body.slowest = "1/80".to_owned();
    camera.body.fastest = "1/320".to_owned();
    camera.shutter = "1/125".to_owned();
    camera.filter_stops = 0.0;
    shot.lights.truncate(1);
    shot.lights[0].sync = if rear { SyncMode::Rear } else { SyncMode::Front };
    shot.lights[0].power = 1.0;
    shot
}

fn small_unit(mut unit: FlashUnit, step: f64, lowest: f64) -> FlashUnit {
    unit.recordings.clear();
    (unit.step_stops, unit.lowest_stops) = (step, lowest);
    if let pebble_core::gear::Control::Table { rows, .. } = &mut unit.control {
        rows.retain(|row| row.power > 0.3 || row.power >= (-lowest).exp2());
    }
    unit
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 10, ..ProptestConfig::default() })]

    #[test]
    fn the_search_finds_what_going_through_the_grid_finds(
        which in prop::sample::subsequence((0..11_usize).collect::<Vec<_>>(), 2),
        fronts in prop::sample::subsequence((0..8_usize).collect::<Vec<_>>(), 2),
        (example, step, lowest) in (0..3_usize, prop::sample::select(vec![1.0, 1.3]), 4.0..5.0_f64),
        (ambient_ev, spill) in (-2.0..6.0_f64, -6.0..0.0_f64),
        (speed, key) in (0.1..1.0_f64, -1.0..1.0_f64),
        (rear, halves, any_modifier, high_speed) in any::<(bool, bool, bool, bool)>(),
        (frames, rate, flashes) in (1..6_u32, 0.5..4.0_f64, 0..200_u32),
        (weight_kg, near_m) in (prop::option::of(1.0..6.0_f64), prop::option::weighted(0.8, 0.8..1.4_f64)),
    ) {
        let grid = if halves { pebble_core::quantity::scale::Grid::Halves } else { pebble_core::quantity::scale::Grid::Thirds };
        let mut shot = small(examples()[[1, 3, 6][example]].clone(), (5.6, 100.0), rear, grid);
        shot.ambient.subject = pebble_core::shot::Reading::Ev100 { ev: ambient_ev };
        shot.ambient.background = pebble_core::shot::Reading::Ev100 { ev: ambient_ev - 1.0 };
        shot.background.spill_stops = spill;
        shot.usage = pebble_core::motion::Usage::Screen;
        shot.parts.truncate(2);
        shot.parts.iter_mut().for_each(|part| part.speed_m_s = speed);
        shot.targets = Targets { key_stops: key, ambient_stops: None };
        let kit = kit();
        let units: Vec<FlashUnit> = which.iter().map(|index| small_unit(kit.units[*index].clone(), step, lowest)).collect();
        shot.lights[0].unit = units[0].to_carry();
        let modifiers: Vec<Modifier> = fronts.iter().map(|index| kit.modifiers[*index].clone()).collect();
        shot.lights[0].modifier = modifiers[0].clone();
        let filters: Vec<Filter> = kit.filters.iter().filter(|filter| filter.id == "nd-1").cloned().collect();
        let shot = wished(&shot, Wish {
            frames: Some(frames),
            frames_per_second: Some(rate),
            flashes: Some(flashes),
            weight_kg,
            heads: Some(2),
            farthest_m: Some(2.4),
            nearest_m: near_m,
            ambient: Some(Between { low_stops: None, high_stops: Some(-1.0) }),
            trail: Some(6.0),
            any_modifier: Some(any_modifier),
            high_speed: Some(high_speed),
            ..Wish::default()
        });
        let stock = Stock::of(&units, &modifiers, &filters).expect("a small kit");
        let plan = plan(&shot);
        let problem = Problem::new(&shot, &plan).expect("the wish can be");
        let slow = grid::every_way(&problem, &stock, 2);
        eprintln!("classes {} ways {}", slow.len(), slow.values().map(|t| t.ways).sum::<u64>());
        for priority in PRIORITIES {
            let quick = find(&problem, &stock, priority, &Going::default()).expect("nobody stopped it");
            prop_assert_eq!(quick.len(), slow.len());
            for found in &quick {
                let tally = slow[&(found.unit, found.modifier, found.heads, found.glow)];
                prop_assert_eq!(found.ways, tally.ways, "{:?}", found);
                let candidate = found.candidate(&problem, &stock);
                prop_assert!(problem.judge(&candidate).unwrap().iter().all(|one| one.room >= -1e-9));
                match priority {
                    Priority::LowestIso => prop_assert_eq!(candidate.iso.number(), tally.lowest_iso),
                    Priority::LongestBattery if candidate.unit.wire.battery.is_some() => {
                        prop_assert_eq!(candidate.power, tally.lowest_power);
                    }
                    _ => {}
                }
            }
        }
    }
}
