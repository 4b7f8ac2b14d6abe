//! Matching: the same set-ups as going through the whole grid finds, relaxations that do what they say, and what is found
//! holds in the forecast.

mod grid;

use crate::common::{examples, plan, shot};
use pebble_core::gear::{Filter, FlashUnit, Kit, Modifier, UnitKind};
use pebble_core::matching::{Between, Brief, Found, Going, Nearest, Priority, Stock, Wish, applied, find, nearest};
use pebble_core::shot::{Intent, Shot, Targets};
use pebble_core::shutter::SyncMode;
use pebble_core::{findings, outlook};
use proptest::prelude::*;
use std::sync::atomic::{AtomicU64, Ordering};

const PRIORITIES: [Priority; 7] = [
    Priority::Balanced,
    Priority::ShortestPulse,
    Priority::LowestIso,
    Priority::LongestBattery,
    Priority::LeastToCarry,
    Priority::FastestBurst,
    Priority::LeastChange,
];

fn kit() -> Kit {
    serde_json::from_str(include_str!("../../../../docs/examples/kit.json")).expect("the kit is a kit")
}

fn stock() -> Stock {
    Stock::of_kit(&kit()).expect("the kit can be")
}

fn wished(shot: &Shot, wish: Wish) -> Shot {
    Shot { wish: Some(wish), ..shot.clone() }
}

fn all(shot: &Shot, stock: &Stock, priority: Priority) -> Vec<Found> {
    let plan = plan(shot);
    let brief = Brief::new(shot, &plan).expect("the wish can be");
    find(&brief, stock, priority, &Going::default()).expect("nobody stopped it")
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
    (unit.step_stops, unit.lowest_stops) = (Some(step), Some(lowest));
    if let pebble_core::gear::Control::Table { rows, .. } = &mut unit.control {
        rows.retain(|row| row.power > 0.3 || row.power >= (-lowest).exp2());
    }
    unit
}

/// A comparison of nothing with nothing proves nothing.
static ALL_WAYS: AtomicU64 = AtomicU64::new(0);

#[test]
fn the_search_is_the_whole_grid() {
    // A few cases may by chance have none.
    for _ in 0..6 {
        the_search_finds_what_going_through_the_grid_finds();
        if ALL_WAYS.load(Ordering::Relaxed) > 100 {
            return;
        }
    }
    panic!("too few of the cases have set-ups at all");
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 5, ..ProptestConfig::default() })]

    fn the_search_finds_what_going_through_the_grid_finds(
        which in prop::sample::subsequence((0..11_usize).collect::<Vec<_>>(), 2),
        fronts in prop::sample::subsequence((0..8_usize).collect::<Vec<_>>(), 2),
        (example, step, lowest) in (0..3_usize, prop::sample::select(vec![1.0, 1.3]), 4.0..5.0_f64),
        (ambient_ev, spill) in (-2.0..6.0_f64, -6.0..0.0_f64),
        (speed, key) in (0.1..1.0_f64, -1.0..1.0_f64),
        (rear, halves, any_modifier, high_speed) in any::<(bool, bool, bool, bool)>(),
        (frames, rate, flashes) in (1..6_u32, 0.5..4.0_f64, 0..200_u32),
        (weight_kg, near_m) in (prop::option::of(1.0..6.0_f64), prop::option::weighted(0.8, 0.8..1.4_f64)),
        (widest, freeze_ms, stays) in (
            prop::option::weighted(0.3, prop::sample::select(vec![2.8, 4.0])),
            prop::option::weighted(0.3, 0.3..2.0_f64),
            prop::bool::weighted(0.3),
        ),
    ) {
        let grid = if halves { pebble_core::quantity::scale::Grid::Halves } else { pebble_core::quantity::scale::Grid::Thirds };
        let mut shot = small(examples()[[1, 3, 6][example]].clone(), (5.6, 100.0), rear, grid);
        shot.ambient.subject = pebble_core::shot::Reading::Ev100 { ev: ambient_ev };
        shot.ambient.background = pebble_core::shot::Reading::Ev100 { ev: ambient_ev - 1.0 };
        shot.background.spill_stops = spill;
        shot.usage = pebble_core::motion::Usage::Screen;
        shot.parts.truncate(2);
        shot.parts.iter_mut().for_each(|part| part.speed_m_s = speed);
        shot.targets =
            Targets { subject_stops: key, ambient_stops: None, background_stops: None, ..shot.targets.clone() };
        let kit = kit();
        let units: Vec<FlashUnit> = which.iter().map(|index| small_unit(kit.units[*index].clone(), step, lowest)).collect();
        shot.lights[0].unit = units[0].to_carry();
        let modifiers: Vec<Modifier> = fronts.iter().map(|index| kit.modifiers[*index].clone()).collect();
        shot.lights[0].modifier = modifiers[0].clone();
        // On the tape, where the grid has it too.
        shot.lights[0].distance_m = 1.9;
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
            aperture_min_f: widest,
            freeze_at_most_ms: freeze_ms,
            places_stay: Some(stays),
            any_modifier: Some(any_modifier),
            high_speed: Some(high_speed),
            ..Wish::default()
        });
        let stock = Stock::of(&units, &modifiers, &filters).expect("a small kit");
        let plan = plan(&shot);
        let brief = Brief::new(&shot, &plan).expect("the wish can be");
        let slow = grid::every_way(&brief, &stock, 2);
        ALL_WAYS.fetch_add(slow.values().map(|tally| tally.ways).sum(), Ordering::Relaxed);
        for priority in PRIORITIES {
            let quick = find(&brief, &stock, priority, &Going::default()).expect("nobody stopped it");
            prop_assert_eq!(quick.len(), slow.len());
            for found in &quick {
                let tally = slow[&(found.unit, found.modifier, found.heads, found.glow)];
                prop_assert_eq!(found.ways, tally.ways, "{:?}", found);
                let candidate = found.candidate(&brief, &stock);
                prop_assert!(brief.judge(&candidate).unwrap().iter().all(|one| one.room >= -1e-9));
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

// --- order ------------------------------------------------------------------------------------------------------

#[test]
fn each_priority_puts_its_own_first() {
    for shot in examples() {
        let shot = wished(&shot, Wish { any_modifier: Some(true), ..Wish::default() });
        let (plan, stock) = (plan(&shot), stock());
        let brief = Brief::new(&shot, &plan).unwrap();
        for priority in PRIORITIES {
            let found = all(&shot, &stock, priority);
            let first = |one: &Found| {
                let candidate = one.candidate(&brief, &stock);
                let unit = &candidate.unit.unit;
                let freeze = if candidate.glow {
                    candidate.shutter.time().as_secs()
                } else {
                    unit.control.at(candidate.power).durations().by(plan.school).as_secs()
                };
                match priority {
                    Priority::ShortestPulse => freeze.log2(),
                    Priority::LowestIso => candidate.iso.number().log2(),
                    Priority::LongestBattery => {
                        let battery = candidate.unit.wire.battery.as_ref().zip(candidate.unit.wire.energy_j);
                        let mains = !matches!(candidate.unit.wire.kind, UnitKind::CameraTop | UnitKind::BatteryHead);
                        battery.map_or(if mains { -100.0 } else { 100.0 }, |(battery, joules)| {
                            -(battery.usable_wh * 3600.0 * battery.efficiency / (joules * candidate.power)).log2()
                        })
                    }
                    Priority::LeastToCarry => candidate.unit.wire.mass_kg.map_or(100.0, |kg| {
                        (f64::from(candidate.heads) * (kg + candidate.modifier.mass_kg.unwrap_or(0.0))).log2()
                    }),
                    Priority::FastestBurst => {
                        let (ready, power) = (unit.readiness, candidate.power);
                        ready.store.map_or(100.0, |store| store.recycle(power).max(ready.min_interval).as_secs().log2())
                    }
                    Priority::Balanced | Priority::LeastChange => one.cost,
                }
            };
            // A tenth of a stop is the most that keeping what is set may weigh against it.
            let slack = 0.35;
            for pair in found.windows(2) {
                assert!(first(&pair[0]) <= first(&pair[1]) + slack, "{priority:?}: {pair:?} of {}", shot.title);
            }
        }
    }
}

#[test]
fn what_is_found_holds_in_the_forecast_of_the_shot() {
    let stock = stock();
    for shot in examples() {
        let shot = wished(&shot, Wish { any_modifier: Some(true), high_speed: Some(true), ..Wish::default() });
        let plan_now = plan(&shot);
        let brief = Brief::new(&shot, &plan_now).unwrap();
        for one in all(&shot, &stock, Priority::Balanced).iter().step_by(7) {
            let candidate = one.candidate(&brief, &stock);
            let there = applied(&shot, &stock, &candidate.setup(&brief)).expect("what is found can be set");
            let plan = plan(&there);
            let seen = outlook(&plan);
            let key = seen.key();
            let off = (key.in_frame.placement - brief.key_wanted).as_stops();
            assert!(off.abs() <= brief.bounds.key_within.as_stops() + 1e-6, "{}: key off by {off}", shot.title);
            assert_eq!(key.rows.touched, 0.0, "{}: rows cut", shot.title);
            assert_eq!(plan.settings.key().power, candidate.power);
            for (index, (part, limit)) in seen.parts.iter().zip(&brief.bounds.blur).enumerate() {
                // Other lights keep their own pulses.
                if let Some(limit) = limit.filter(|_| part.slowest.is_none_or(|light| light == plan.key)) {
                    // A key a sixth of a stop off its target moves the share of the steady light by a thirtieth.
                    let hair = part.motion.moved(seen.run.time) * 0.12 + limit * 1e-9;
                    assert!(part.blur <= limit + hair, "{}: part {index} blurs in the picture", shot.title);
                }
            }
            if plan.lights.len() == 1 {
                let (trouble, _) = findings::count(&plan, &seen);
                assert_eq!(trouble, 0, "{}: {candidate:?}", shot.title);
            }
        }
    }
}

/// The same with the room dark: no steady light to weigh a flash against.
#[test]
fn in_a_dark_room_the_flash_alone_is_judged() {
    use pebble_core::shot::Reading;
    let stock = stock();
    let mut judged = 0;
    for mut shot in examples() {
        (shot.ambient.subject, shot.ambient.background) = (Reading::Lux { lux: 0.0 }, Reading::Lux { lux: 0.0 });
        (shot.sky, shot.lamps) = (None, Vec::new());
        shot.parts.iter_mut().filter(|part| part.intent == Intent::Dash).for_each(|part| part.intent = Intent::Skim);
        shot.lights.iter_mut().for_each(|light| light.modelling = None);
        shot = wished(&shot, Wish { any_modifier: Some(true), ..Wish::default() });
        let plan_now = plan(&shot);
        let brief = Brief::new(&shot, &plan_now).unwrap();
        for one in all(&shot, &stock, Priority::Balanced).iter().step_by(5) {
            let there = applied(&shot, &stock, &one.candidate(&brief, &stock).setup(&brief)).unwrap();
            let plan = plan(&there);
            let seen = outlook(&plan);
            for (part, limit) in seen.parts.iter().zip(&brief.bounds.blur) {
                if let Some(limit) = limit.filter(|_| part.slowest == Some(plan.key)) {
                    judged += 1;
                    assert!(part.blur <= limit * (1.0 + 1e-9), "{}: blurs in the picture", shot.title);
                }
            }
        }
    }
    assert!(judged > 50, "{judged} parts");
}

// --- what would have to give ------------------------------------------------------------------------------------

/// Shots that the demo kit cannot do as they stand.
fn hard_shots() -> Vec<Shot> {
    let slipway = examples()[2].clone();
    let busy =
        wished(&shot(), Wish { frames: Some(20), frames_per_second: Some(12.0), heads: Some(1), ..Wish::default() });
    let quiet = wished(&examples()[4], Wish { iso_max: Some(100.0), farthest_m: Some(2.6), ..Wish::default() });
    let light = wished(&examples()[6], Wish { weight_kg: Some(1.0), ..Wish::default() });
    let patient = wished(&examples()[4], Wish { flashes: Some(90_000), ..Wish::default() });
    vec![slipway, busy, quiet, light, patient, shot()]
}

#[test]
fn a_relaxation_is_enough_and_a_tenth_less_is_not() {
    let mut kit = kit();
    kit.units.iter_mut().for_each(|unit| unit.owned = None);
    let stock = Stock::of_kit(&kit).unwrap();
    let (mut tried, mut kinds) = (0, std::collections::HashSet::new());
    for shot in hard_shots() {
        let plan = plan(&shot);
        let mut brief = Brief::new(&shot, &plan).unwrap();
        if !all(&shot, &stock, Priority::Balanced).is_empty() {
            continue;
        }
        let near: Vec<Nearest> = nearest(&mut brief, &stock, &Going::default()).unwrap();
        assert!(!near.is_empty(), "{}: six stops reach nothing", shot.title);
        for one in near {
            let relaxed = |share: f64| {
                let mut wish = shot.wish.clone();
                for give in &one.gives {
                    let give = pebble_core::matching::Give { stops: give.stops * share, ..*give };
                    wish = Some(brief.relaxed(wish.as_ref(), &give, &one.found, &stock));
                }
                wished(&shot, wish.unwrap())
            };
            let fits = |shot: &Shot| !all(shot, &stock, Priority::Balanced).is_empty();
            assert!(fits(&relaxed(1.0)), "{}: {:?} is not enough", shot.title, one.gives);
            // What is on or off, or in whole units, has no tenth.
            let whole = one.gives.iter().any(|give| {
                use pebble_core::matching::Demand as C;
                matches!(give.condition, C::Modifier | C::HighSpeed | C::Owned | C::Heads | C::Darker | C::Ghost)
            });
            if !whole {
                assert!(!fits(&relaxed(0.9)), "{}: {:?} gives more than it must", shot.title, one.gives);
                tried += 1;
            }
            kinds.extend(one.gives.iter().map(|give| give.condition));
        }
    }
    assert!(tried >= 8 && kinds.len() >= 8, "only {tried} relaxations of {kinds:?} were tried");
}

#[test]
fn singles_come_before_pairs_and_each_kind_cheapest_first() {
    let stock = stock();
    for shot in hard_shots() {
        let plan = plan(&shot);
        let mut brief = Brief::new(&shot, &plan).unwrap();
        let near = nearest(&mut brief, &stock, &Going::default()).unwrap();
        let key = |one: &Nearest| (one.gives.len(), one.price());
        assert!(near.windows(2).all(|pair| key(&pair[0]) <= key(&pair[1])), "{}", shot.title);
        assert!(near.iter().all(|one| one.gives.iter().all(|give| give.stops > 0.0)), "{}", shot.title);
    }
}
