//! Matching by its rules: what the shot asks where nothing is said, worked examples by hand, and what must hold for any wish.

use crate::common::{examples, plan, shot};
use pebble_core::gear::{Filter, FilterUse, FlashUnit, Kit};
use pebble_core::matching::{
    Between, Bounds, Brief, Demand, Found, GiveSaid, Going, Priority, Stock, Wish, find, nearest, nearest_rows, rows,
};
use pebble_core::quantity::Stops;
use pebble_core::shot::{Intent, Shot};
use pebble_core::shutter::SyncMode;
use pebble_core::{outlook, strips};
use proptest::prelude::*;

fn kit() -> Kit {
    serde_json::from_str(include_str!("../../../../docs/examples/kit.json")).expect("the kit is a kit")
}

fn stock() -> Stock {
    Stock::of_kit(&kit()).expect("the kit can be")
}

fn named(words: &str) -> Shot {
    examples().into_iter().find(|shot| shot.title.contains(words)).expect("an example")
}

fn wished(shot: &Shot, wish: Wish) -> Shot {
    Shot { wish: Some(wish), ..shot.clone() }
}

fn bounds(shot: &Shot) -> Bounds {
    let plan = plan(shot);
    Brief::new(shot, &plan).expect("the wish can be").bounds
}

fn ambient(shot: &Shot) -> (Stops, Stops) {
    bounds(shot).ambient.expect("a shot and its light always say it")
}

fn found(shot: &Shot, stock: &Stock) -> Vec<Found> {
    let plan = plan(shot);
    let brief = Brief::new(shot, &plan).expect("the wish can be");
    find(&brief, stock, Priority::Balanced, &Going::default()).expect("nobody stopped it")
}

fn ways(shot: &Shot, stock: &Stock) -> u64 {
    found(shot, stock).iter().map(|one| one.ways).sum()
}

// --- what the shot asks where nothing is said -------------------------------------------------------------------

#[test]
fn steady_light_is_asked_for_by_what_the_shot_wants_of_it() {
    let close = |a: Stops, b: f64| (a.as_stops() - b).abs() < 1e-9;
    // A target: a click around it.
    let slipway = ambient(&named("Slipway"));
    assert!(close(slipway.0, -1.34) && close(slipway.1, -0.66));
    // A streak to be drawn: as bright as it is.
    let ropes = shot();
    let now = outlook(&plan(&ropes)).ambient.placement.as_stops();
    let asked = ambient(&ropes);
    assert!(close(asked.0, now - 0.34) && close(asked.1, now + 0.34));
    // Neither: no brighter than it is.
    let sabre = ambient(&named("Sabre"));
    assert_eq!(sabre.0, Stops::DARK);
    assert!(sabre.1.as_stops().is_finite());
    // Its own word counts above all.
    let between = Some(Between { low_stops: Some(-3.0), high_stops: None });
    let own = ambient(&wished(&ropes, Wish { ambient: between, ..Wish::default() }));
    assert!(close(own.0, -3.0) && own.1.as_stops().is_infinite());
}

#[test]
fn parts_are_as_still_as_their_intent_and_the_use_of_the_picture_ask() {
    for shot in examples() {
        let plan = plan(&shot);
        let seen = outlook(&plan);
        for (part, limit) in plan.parts.iter().zip(bounds(&shot).blur) {
            let times = match part.intent {
                Intent::Pebble => Some(1.0),
                Intent::Skim => Some(3.0),
                Intent::Dash => None,
            };
            assert_eq!(limit, times.map(|times| seen.allowed * times), "{}: {}", shot.title, part.name);
        }
    }
}

#[test]
fn everything_said_back_is_the_same_question() {
    for shot in examples() {
        let plan = plan(&shot);
        let first = bounds(&shot);
        let again = bounds(&wished(&shot, first.said(&plan)));
        // A blur said in pixels is the same but for rounding; the rest is the same.
        for (a, b) in first.blur.iter().zip(&again.blur) {
            assert!(a.zip(*b).is_none_or(|(a, b)| (a / b - 1.0).abs() < 1e-12), "{}", shot.title);
        }
        assert_eq!(Bounds { blur: Vec::new(), ..again }, Bounds { blur: Vec::new(), ..first }, "{}", shot.title);
    }
}

// --- worked by hand ---------------------------------------------------------------------------------------------

/// One light bare in the dark, straight from the side: everything can be counted on fingers.
fn by_hand() -> Shot {
    let mut shot = named("Card on a wall");
    let light = &mut shot.lights[0];
    light.modifier.stops = 0.0;
    (light.modifier.face_radius_m, light.modifier.source_offset_m) = (0.0, 0.0);
    (light.bearing_deg, light.height_deg, light.distance_m) = (-50.0, 0.0, 2.0);
    light.unit.output = pebble_core::gear::Output::GuideNumber { metres: 32.0 };
    light.unit.high_speed_sync = false;
    shot.parts.clear();
    for reading in [&mut shot.ambient.subject, &mut shot.ambient.background] {
        *reading = pebble_core::shot::Reading::Lux { lux: 0.0 };
    }
    (shot.camera.body.iso_min, shot.camera.body.iso_max, shot.camera.iso) = (100.0, 100.0, 100.0);
    (shot.camera.lens.widest_f, shot.camera.lens.narrowest_f, shot.camera.aperture_f) = (8.0, 8.0, 8.0);
    (shot.camera.body.slowest, shot.camera.body.fastest) = ("1/100".into(), "1/100".into());
    shot.camera.shutter = "1/100".into();
    shot.subject.depth_m = 0.0;
    shot
}

fn its_unit(shot: &Shot) -> Stock {
    Stock::of(&[shot.lights[0].unit.clone()], &[shot.lights[0].modifier.clone()], &[]).unwrap()
}

#[test]
fn a_guide_number_over_the_aperture_is_the_distance() {
    // GN 32 at f/8 is right at 4 m with full power, at 2.8 m with half, at 2 m with a quarter.
    let shot = wished(&by_hand(), Wish { nearest_m: Some(0.3), key_within_stops: Some(0.02), ..Wish::default() });
    let shot = Shot { wish: Some(Wish { heads: Some(1), ..shot.wish.clone().unwrap() }), ..shot };
    let (plan, stock) = (plan(&shot), its_unit(&shot));
    let brief = Brief::new(&shot, &plan).unwrap();
    let mut expected = 0;
    for power in stock.units[0].unit.powers() {
        let right = 32.0 / 8.0 * power.sqrt();
        // Within 0.02 stops, on the tape; f/8 is exactly 8, the guide number exact.
        expected += strips::distances(pebble_core::preferences::Lengths::Metric)
            .map(|place| place.as_metres())
            .filter(|place| *place <= 8.0 && (2.0 * (place / right).log2()).abs() <= 0.02 + 1e-9)
            .count() as u64;
    }
    assert!(expected >= 3, "{expected}");
    let best = find(&brief, &stock, Priority::Balanced, &Going::default()).unwrap();
    assert_eq!(best[0].ways, expected);
    // The light that stands at 2 m stays there: a quarter of the power.
    let best = best[0].candidate(&brief, &stock);
    assert_eq!((best.power, best.distance.as_metres()), (0.25, 2.0));
}

#[test]
fn two_heads_are_a_stop_and_a_second_is_what_is_missing() {
    // f/8 at 5.6 m asks for a stop more than GN 32 has: two heads side by side, or nothing.
    let mut shot = by_hand();
    shot.lights[0].distance_m = 5.6;
    let wish = Wish { nearest_m: Some(5.6), farthest_m: Some(5.6), ..Wish::default() };
    let at = |owned: u32, heads: u32| {
        let mut unit = shot.lights[0].unit.clone();
        unit.owned = Some(owned);
        let stock = Stock::of(&[unit], &[shot.lights[0].modifier.clone()], &[]).unwrap();
        let shot = wished(&shot, Wish { heads: Some(heads), ..wish.clone() });
        let plan = plan(&shot);
        let mut brief = Brief::new(&shot, &plan).unwrap();
        let found = find(&brief, &stock, Priority::Balanced, &Going::default()).unwrap();
        let near = if found.is_empty() { nearest(&mut brief, &stock, &Going::default()).unwrap() } else { Vec::new() };
        (found, nearest_rows(&brief, &stock, &near))
    };
    let (two, _) = at(2, 3);
    assert_eq!((two.len(), two[0].heads, two[0].power), (1, 2, 1.0));
    let (none, near) = at(1, 3);
    assert!(none.is_empty());
    let of = |condition: Demand| -> &GiveSaid {
        let single = near.iter().filter(|row| row.gives.len() == 1).map(|row| &row.gives[0]);
        single
            .into_iter()
            .find(|give| give.condition == condition)
            .unwrap_or_else(|| panic!("{condition:?} of {near:?}"))
    };
    // A second one is a stop; so is the key a stop under, but for the sixth that was allowed; so is the distance.
    assert_eq!((of(Demand::Owned).stops, of(Demand::Owned).said.as_str()), (1.0, "a second Tern 76"));
    let short = 2.0 * (5.6_f64 / 4.0).log2();
    assert!((of(Demand::Key).stops - (short - 1.0 / 6.0)).abs() < 1e-6, "{:?}", of(Demand::Key));
    // On the tape, 4.2 m is the first place that is right to a sixth of a stop.
    let nearer = 2.0 * (5.6_f64 / 4.2).log2();
    assert!((of(Demand::Near).stops - nearer).abs() < 1e-6, "{:?}", of(Demand::Near));
    assert_eq!(of(Demand::Near).said, "1.4 m closer: 4.2 m");
    // With one head allowed a second is no use, and that is another condition.
    let (_, near) = at(2, 1);
    let heads = near.iter().flat_map(|row| &row.gives).find(|give| give.condition == Demand::Heads).unwrap();
    assert_eq!((heads.stops, heads.said.as_str()), (1.0, "2 heads side by side instead of 1"));
}

#[test]
fn a_light_is_no_nearer_than_keeps_it_out_of_the_frame() {
    // 36 mm wide at 36 mm focal length: half the frame is half the distance less the focal length's hair.
    let mut shot = by_hand();
    (shot.camera.body.sensor_width_mm, shot.camera.body.sensor_height_mm) = (36.0, 24.0);
    (shot.camera.lens.focal_min_mm, shot.camera.lens.focal_max_mm, shot.camera.focal_mm) = (20.0, 50.0, 36.0);
    shot.subject.distance_m = 4.036;
    shot.lights[0].boom_m = None;
    let half = 4.0 / 2.0;
    let edge = |bearing: f64, height: f64, radius: f64| {
        let mut shot = shot.clone();
        let light = &mut shot.lights[0];
        (light.bearing_deg, light.height_deg, light.modifier.face_radius_m) = (bearing, height, radius);
        let plan = plan(&shot);
        let brief = Brief::new(&shot, &plan).unwrap();
        let stock = its_unit(&shot);
        let candidate = |place: f64| pebble_core::matching::Candidate {
            unit: &stock.units[0],
            modifier: &stock.modifiers[0],
            heads: 1,
            power: 1.0,
            distance: pebble_core::quantity::Metres::from_metres(place),
            glow: false,
            aperture: plan.settings.aperture,
            shutter: plan.settings.shutter,
            iso: plan.settings.iso,
            filter: plan.settings.filter,
        };
        let room = |place: f64| {
            let fares = brief.judge(&candidate(place)).unwrap();
            fares.iter().find(|one| one.condition == Demand::Near).unwrap().room
        };
        // The room is twice the logarithm over the edge.
        1.0 / (room(1.0) / 2.0).exp2()
    };
    // Straight to the side: half the frame, a little more at the foot of its stand, which the lens looks down on.
    let within = |edge: f64, least: f64| (0.95 * least..1.15 * least).contains(&edge);
    assert!(within(edge(90.0, 0.0, 0.0), half), "{}", edge(90.0, 0.0, 0.0));
    // Its face is turned to the chest: the lens sees no more of it than its stand.
    assert!(within(edge(-90.0, 0.0, 0.5), half), "{}", edge(-90.0, 0.0, 0.5));
    // A face reaches towards the middle.
    assert!(edge(-20.0, 0.0, 0.5) > edge(-20.0, 0.0, 0.0));
    // Towards the camera the frame narrows, away from it it widens; on the axis it leaves the frame at the camera.
    assert!(edge(45.0, 0.0, 0.0) < edge(90.0, 0.0, 0.0) * 2.0_f64.sqrt());
    assert!(edge(120.0, 0.0, 0.0) > half);
    assert!((edge(0.0, 0.0, 0.0) - 4.036).abs() < 0.6);
}

#[test]
fn too_much_daylight_is_a_time_to_wait_for() {
    // One flash that is a stop short of drowning the sky. The sky is known: how long until it has fallen by that much.
    let mut shot = wished(&shot(), Wish { nearest_m: Some(2.7), ..Wish::default() });
    let mut kit = kit();
    kit.units.iter_mut().for_each(|unit| unit.owned = None);
    let stock = Stock::of_kit(&kit).unwrap();
    let darker = |shot: &Shot| {
        let plan = plan(shot);
        let mut brief = Brief::new(shot, &plan).unwrap();
        let near = nearest(&mut brief, &stock, &Going::default()).unwrap();
        let rows = nearest_rows(&brief, &stock, &near);
        let row = rows.into_iter().find(|row| row.gives[0].condition == Demand::Darker).expect("darker would do");
        (row.gives[0].said.clone(), row.wish)
    };
    let (said, wish) = darker(&shot);
    assert_eq!(said, "1.0 stops less steady light");
    assert_eq!(wish.darker_stops, Some(1.0));
    let sky = pebble_core::daylight::Sky {
        latitude_deg: 54.2,
        longitude_deg: -2.9,
        date: "2026-06-21".to_owned(),
        time: "20:30".to_owned(),
        utc_offset_min: 60,
        cloud_stops: 0.0,
        camera_looks_deg: None,
    };
    let day = pebble_core::daylight::day(&sky).unwrap();
    let fallen = day.drops.iter().find(|drop| drop.stops == 1).unwrap();
    shot.sky = Some(sky);
    let (minutes, at) = (fallen.minutes.unwrap(), &fallen.at.as_ref().unwrap().time);
    assert_eq!(darker(&shot).0, format!("wait {minutes} minutes, until {at}: 1.0 stops less of daylight"));
}

#[test]
fn a_glow_is_frozen_by_the_shutter_and_loses_what_the_slit_takes() {
    let shot = wished(&named("Slipway"), Wish { high_speed: Some(true), any_modifier: Some(true), ..Wish::default() });
    let (plan, stock) = (plan(&shot), stock());
    let brief = Brief::new(&shot, &plan).unwrap();
    let all = find(&brief, &stock, Priority::Balanced, &Going::default()).unwrap();
    let glowing: Vec<_> = all.iter().filter(|one| one.glow).map(|one| one.candidate(&brief, &stock)).collect();
    assert!(!glowing.is_empty() && glowing.iter().all(|one| one.unit.wire.high_speed_sync));
    for one in glowing {
        let (time, travel) = (one.shutter.time(), plan.body.travel);
        let share = one.unit.unit.efficiency * (time / (travel + time));
        let light =
            one.unit.unit.entry.output().as_lux_seconds_square_metres() * one.power * f64::from(one.heads) * share;
        let front = one.modifier.stops.exp2();
        let spread =
            (one.distance.as_metres() + one.modifier.source_offset_m).powi(2) + one.modifier.face_radius_m.powi(2);
        let wanted = 340.0 * one.aperture.number().powi(2) / one.iso.number() * one.filter.as_ratio();
        let layers = f64::from(one.modifier.diffusion_layers.unwrap_or(0)) * one.modifier.layer_stops.unwrap_or(0.0);
        let off = (light * front * layers.exp2() / spread / wanted).log2() - brief.key_wanted.as_stops();
        assert!(off.abs() <= 1.0 / 6.0 + 1e-6, "{one:?} is off by {off}");
        for (part, limit) in plan.parts.iter().zip(&brief.bounds.blur) {
            let speed = part.speed.as_metres_per_second() * outlook(&plan).magnification;
            assert!(limit.is_none_or(|limit| speed * time.as_secs() <= limit.as_metres() * (1.0 + 1e-9)));
        }
    }
}

#[test]
fn rear_sync_stays_rear_and_reaches_every_row() {
    let slalom = named("slalom");
    let (plan, stock) = (plan(&slalom), stock());
    let brief = Brief::new(&slalom, &plan).unwrap();
    let all = find(&brief, &stock, Priority::ShortestPulse, &Going::default()).unwrap();
    assert!(!all.is_empty());
    for one in &all {
        let setup = one.candidate(&brief, &stock).setup(&brief);
        assert_eq!(setup.lights[0].sync, SyncMode::Rear);
        let there = pebble_core::matching::applied(&slalom, &stock, &setup).unwrap();
        let plan_then = crate::common::plan(&there);
        let seen = outlook(&plan_then);
        let run = (seen.key().ignition, seen.key().rows.touched);
        assert!(!run.0.rear_acts_as_front && run.1 == 0.0, "{setup:?}");
    }
}

#[test]
fn what_fails_first_at_a_power_is_said_with_its_figures() {
    let busy = Wish { frames: Some(40), frames_per_second: Some(10.0), heads: Some(1), ..Wish::default() };
    let sabre = wished(&named("Sabre"), busy);
    let plan = plan(&sabre);
    let map = pebble_core::matching::marks(&Brief::new(&sabre, &plan).unwrap(), &stock());
    let said: Vec<&str> =
        map.trails.iter().flat_map(|trail| &trail.marks).filter_map(|mark| mark.fails.as_deref()).collect();
    for words in ["blurs", "frames at 10 a second, 40 wanted", "stops too weak even at"] {
        assert!(said.iter().any(|one| one.contains(words)), "nobody says {words:?}: {:?}", &said[..5]);
    }
    assert!(said.iter().all(|one| !one.contains("NaN") && !one.contains("inf")), "{said:?}");
    // Along a quenched unit's trail the pulse only grows with the power, so blur fails from some power on.
    let brix = map.trails.iter().find(|trail| trail.unit == "brix-400").unwrap();
    let blurs = |mark: &pebble_core::matching::Mark| mark.fails.as_deref().is_some_and(|why| why.contains("blurs"));
    let first = brix.marks.iter().position(blurs).expect("full power blurs");
    assert!(brix.marks[first..].iter().all(blurs) && first > 0);
}

#[test]
fn filters_are_stacked_in_every_way_and_gels_are_not() {
    let grey = |id: &str, loss: f64| Filter {
        id: id.into(),
        name: id.into(),
        used_as: FilterUse::Nd,
        loss_stops: loss,
        mired: 0.0,
        hue: None,
    };
    let gel = Filter { used_as: FilterUse::Gel, ..grey("gel", 2.0) };
    let stock = Stock::of(&[], &[], &[grey("a", 1.0), grey("b", 3.0), gel, grey("c", 3.0)]).unwrap();
    let sums: Vec<f64> = stock.filters.iter().map(|one| one.as_stops()).collect();
    assert_eq!(sums, [0.0, 1.0, 3.0, 4.0, 6.0, 7.0]);
}

#[test]
fn bursts_and_charges_are_counted_as_the_store_gives_them() {
    // The sabre's siskin: what whole flashes it holds decides which powers are left.
    let sabre = named("Sabre");
    let stock = stock();
    let alone = |wish: Wish| {
        let shot = wished(&sabre, Wish { heads: Some(1), ..wish });
        let plan = plan(&shot);
        let brief = Brief::new(&shot, &plan).unwrap();
        let found = find(&brief, &stock, Priority::LongestBattery, &Going::default()).unwrap();
        let units = found.iter().map(|one| one.candidate(&brief, &stock));
        units.map(|one| (one.unit.wire.id.clone(), one.unit.unit.readiness.store, one.power)).collect::<Vec<_>>()
    };
    let burst = alone(Wish { frames: Some(30), frames_per_second: Some(8.0), ..Wish::default() });
    assert!(!burst.is_empty());
    for (id, store, power) in &burst {
        let whole = store.expect("a unit that nobody knows holds no burst").whole_flashes(*power, 8.0);
        assert!(whole.is_none_or(|whole| whole >= 30), "{id} at {power}: {whole:?}");
    }
    // More is asked of fewer.
    let charge = alone(Wish { flashes: Some(4000), ..Wish::default() });
    assert!(charge.len() < alone(Wish::default()).len() && !charge.is_empty());
    assert!(charge.iter().all(|(id, ..)| id != "pip-30"), "what has no battery written down promises no flashes");
}

// --- what holds for any wish ------------------------------------------------------------------------------------

fn any_wish() -> impl Strategy<Value = Wish> {
    let iso = prop::sample::select(vec![400.0, 800.0, 1600.0, 6400.0]);
    (iso, 2.5..9.0_f64, 1..4_u32, any::<(bool, bool)>(), prop::option::of(1.5..12.0_f64), 1..30_u32, 0..900_u32)
        .prop_map(|(iso_max, farthest, heads, (any_modifier, high_speed), weight_kg, frames, flashes)| Wish {
            iso_max: Some(iso_max),
            farthest_m: Some(farthest),
            heads: Some(heads),
            any_modifier: Some(any_modifier),
            high_speed: Some(high_speed),
            weight_kg,
            frames: Some(frames),
            frames_per_second: Some(4.0),
            flashes: Some(flashes),
            ..Wish::default()
        })
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 24, ..ProptestConfig::default() })]

    #[test]
    fn asking_for_less_never_loses_a_way(which in 0..8_usize, wish in any_wish()) {
        let (shot, stock) = (examples()[which].clone(), stock());
        let Ok(plan) = pebble_core::Plan::try_from(&wished(&shot, wish.clone())) else { return Ok(()) };
        prop_assume!(Brief::new(&wished(&shot, wish.clone()), &plan).is_ok());
        let now = ways(&wished(&shot, wish.clone()), &stock);
        let looser = [
            Wish { iso_max: Some(12_800.0), ..wish.clone() },
            Wish { farthest_m: Some(12.0), ..wish.clone() },
            Wish { heads: Some(4), ..wish.clone() },
            Wish { any_modifier: Some(true), ..wish.clone() },
            Wish { high_speed: Some(true), ..wish.clone() },
            Wish { weight_kg: None, ..wish.clone() },
            Wish { frames: Some(1), ..wish.clone() },
            Wish { flashes: Some(0), ..wish.clone() },
            Wish { key_within_stops: Some(0.5), ..wish.clone() },
            Wish { trail: Some(8.0), ..wish.clone() },
        ];
        for loose in looser {
            let more = ways(&wished(&shot, loose.clone()), &stock);
            prop_assert!(more >= now, "{}: {now} ways, {more} with {loose:?}", shot.title);
        }
    }

    #[test]
    fn a_unit_more_takes_nothing_away_and_the_order_of_the_kit_does_not_matter(
        which in 0..8_usize,
        wish in any_wish(),
        left_out in 0..12_usize,
        turned in 1..12_usize,
    ) {
        let shot = wished(&examples()[which], wish);
        let Ok(plan) = pebble_core::Plan::try_from(&shot) else { return Ok(()) };
        prop_assume!(Brief::new(&shot, &plan).is_ok());
        let (mut own, kit) = (kit().units, kit());
        let all = |units: &[FlashUnit]| {
            let stock = Stock::of(units, &kit.modifiers, &kit.filters).unwrap();
            let brief = Brief::new(&shot, &plan).unwrap();
            let found = find(&brief, &stock, Priority::Balanced, &Going::default()).unwrap();
            let titles = rows(&brief, &stock, &found).into_iter().map(|row| (row.title, row.how, row.exposure));
            let mut titles: Vec<_> = titles.collect();
            titles.sort();
            titles
        };
        let with = all(&own);
        own.rotate_left(turned);
        prop_assert_eq!(&all(&own), &with);
        own.remove(left_out);
        let without = all(&own);
        prop_assert!(without.iter().all(|row| with.contains(row)), "{}", shot.title);
    }

    #[test]
    fn every_margin_of_what_is_found_is_met_and_said(which in 0..8_usize, wish in any_wish()) {
        let (shot, stock) = (wished(&examples()[which], wish), stock());
        let Ok(plan) = pebble_core::Plan::try_from(&shot) else { return Ok(()) };
        let brief = Brief::new(&shot, &plan);
        prop_assume!(brief.is_ok());
        let brief = brief.unwrap();
        let found = find(&brief, &stock, Priority::Balanced, &Going::default()).unwrap();
        for row in rows(&brief, &stock, &found) {
            prop_assert!(row.ways > 0 && !row.margins.is_empty());
            for pair in row.margins.windows(2) {
                prop_assert!(pair[0].used >= pair[1].used, "what has least to spare stands first");
            }
            for margin in &row.margins {
                prop_assert!(margin.used <= 1.0 + 1e-6, "{}: {} uses {}", row.title, margin.label, margin.used);
                prop_assert!(margin.room_stops.is_none_or(|room| room >= -1e-9), "{margin:?}");
                prop_assert!(!margin.label.is_empty() && !margin.said.is_empty() && !margin.said.contains("NaN"), "{margin:?}");
            }
            let glows = row.setup.lights.iter().any(|light| light.sync == SyncMode::HighSpeed);
            prop_assert!(!glows || brief.bounds.high_speed);
        }
    }
}
