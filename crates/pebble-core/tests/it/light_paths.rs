//! Beams, grids, bounced light, colour, bursts and heat, each against a second route: integration or stepping by hand.

use crate::common::{plan, shot};
use pebble_core::fit::fit;
use pebble_core::gear::{Filter, FilterUse, Item, Kit};
use pebble_core::guides::{AskedBy, guides};
use pebble_core::output::{Beam, Bounce, Face, Throw, beam_exponent, colour};
use pebble_core::power::{Habit, HeatStore, Store};
use pebble_core::quantity::{Angle, FlashOutput, Joules, Metres, Seconds, Stops};
use pebble_core::shot::{Intent, Shot};
use pebble_core::{Plan, forecast, outlook};
use proptest::prelude::*;
use std::f64::consts::PI;

fn degrees(value: f64) -> Angle {
    Angle::from_degrees(value)
}

fn throw(lxs_m2: f64) -> Throw {
    Throw { output: FlashOutput::from_lux_seconds_square_metres(lxs_m2), modifier: Stops::ZERO, face: Face::default() }
}

proptest! {
    #[test]
    fn a_beam_has_half_its_light_at_its_half_angle(half in 5.0..85.0f64) {
        let beam = Beam::new(Some(degrees(half)), None);
        prop_assert!((beam.at(degrees(half)).as_stops() + 1.0).abs() < 1e-9);
        prop_assert!(beam.at(degrees(0.0)).as_stops().abs() < 1e-12);
        prop_assert_eq!(beam.at(degrees(90.1)), Stops::DARK);
    }

    #[test]
    fn a_beam_only_falls_off_and_a_grid_only_takes_light_away(
        half in 5.0..85.0f64, grid in 5.0..60.0f64, at in 0.0..89.0f64, more in 0.1..20.0f64
    ) {
        let (open, closed) = (Beam::new(Some(degrees(half)), None), Beam::new(Some(degrees(half)), Some(degrees(grid))));
        prop_assert!(open.at(degrees(at)) >= open.at(degrees(at + more)));
        prop_assert!(closed.at(degrees(at)) <= open.at(degrees(at)));
        prop_assert_eq!(closed.at(degrees(at)), closed.at(degrees(-at)));
        prop_assert_eq!(closed.at(degrees(grid + 0.01)), Stops::DARK);
        prop_assert!(closed.at(degrees(0.0)).as_stops().abs() < 1e-12, "a grid costs nothing on axis");
    }

    #[test]
    fn the_flux_of_a_beam_is_what_the_bounce_sends_on(half in 8.0..80.0f64, lxs in 100.0..50_000.0f64, power in 0.05..1.0f64) {
        let exponent = beam_exponent(degrees(half));
        // All rings of the hemisphere, one after the other.
        let rings = 20_000;
        let step = PI / 2.0 / f64::from(rings);
        let flux: f64 = (0..rings)
            .map(|k| (f64::from(k) + 0.5) * step)
            .map(|angle| lxs * power * angle.cos().powf(exponent) * 2.0 * PI * angle.sin() * step)
            .sum();
        // Far from a small bright spot of a ceiling, straight below it: what the surface gives back of all the flux.
        let bounce = Bounce {
            reflectance: 0.8,
            away: Metres::from_metres(0.05),
            subject: [0.0, 0.0, -60.0],
            axis: [0.0, 0.0, 1.0],
        };
        let exposure = bounce.exposure(&throw(lxs), power, exponent).as_lux_seconds();
        let by_hand = 0.8 * flux / (PI * 60.05 * 60.05);
        // 300 directions hold all but the edge of a very narrow beam.
        prop_assert!((exposure / by_hand).log2().abs() < if half > 20.0 { 0.03 } else { 0.2 }, "{exposure} for {by_hand}");
    }

    #[test]
    fn a_ceiling_darker_or_turned_away_from_gives_less(
        reflectance in 0.1..0.9f64, away in 0.5..3.0f64, distance in 0.5..6.0f64, tilt in 30.0..90.0f64
    ) {
        let of = |reflectance: f64, tilt: f64| {
            let axis = [degrees(tilt).as_radians().cos(), 0.0, degrees(tilt).as_radians().sin()];
            let bounce = Bounce { reflectance, away: Metres::from_metres(away), subject: [distance, 0.0, 0.0], axis };
            bounce.exposure(&throw(1000.0), 1.0, 2.0).as_lux_seconds()
        };
        let here = of(reflectance, tilt);
        prop_assert!(here > 0.0 && of(reflectance / 2.0, tilt) < here);
        // Turned away from the subject's side it gives less than turned to it.
        prop_assert!(of(reflectance, 180.0 - tilt) <= here * (1.0 + 1e-9));
        prop_assert_eq!(of(reflectance, -90.0), 0.0, "a head turned to the floor lights no ceiling");
    }

    #[test]
    fn mired_shifts_add_and_lead_back(kelvin in 1800.0..12_000.0f64, first in -150.0..150.0f64, second in -60.0..60.0f64) {
        let there = colour::shifted(kelvin, first);
        prop_assume!(there < 9e5);
        prop_assert!((colour::shifted(there, -first) / kelvin - 1.0).abs() < 1e-9);
        prop_assert!((colour::shift_between(kelvin, there) - first).abs() < 1e-6);
        let both = colour::shifted(kelvin, first + second);
        if both < 9e5 {
            prop_assert!((colour::shifted(there, second) / both - 1.0).abs() < 1e-9);
        }
        prop_assert_eq!(there < kelvin, first > 0.0, "warmer is positive, and lower in kelvin");
    }

    #[test]
    fn whole_flashes_are_as_many_as_a_burst_fired_one_by_one(
        joules in 20.0..3000.0f64, recycle in 0.2..8.0f64, stops in 0.0..7.0f64, rate in 0.5..20.0f64,
        borrows in any::<bool>(), dim in any::<bool>()
    ) {
        let store = Store {
            full: Joules::from_joules(joules),
            recycle: Seconds::from_secs(recycle),
            borrows,
            habit: if dim { Habit::Dim } else { Habit::Missing },
        };
        let power = (-stops).exp2();
        let fired = store.burst(power, rate, 400);
        let whole = fired.iter().take_while(|loss| **loss == Stops::ZERO).count();
        match store.whole_flashes(power, rate) {
            None => prop_assert_eq!(whole, 400, "endless"),
            Some(count) if count < 400 => prop_assert_eq!(whole, count as usize),
            Some(_) => prop_assert_eq!(whole, 400),
        }
        let expected = store.recycle(power).as_secs();
        prop_assert!((store.energy(power).as_joules() / (joules / recycle) / expected - 1.0).abs() < 1e-9);
    }

    #[test]
    fn flashes_until_hot_are_as_many_as_counted_one_by_one(
        capacity in 1000.0..50_000.0f64, drain in 1.0..300.0f64, each in 5.0..2400.0f64, rate in 0.1..10.0f64
    ) {
        let store = HeatStore { capacity: Joules::from_joules(capacity), drain_w: drain };
        let mut held = 0.0;
        let mut counted = None;
        for flash in 1..5000u64 {
            held = f64::max(0.0, held - if flash > 1 { drain / rate } else { 0.0 }) + each;
            if held > capacity * (1.0 + 1e-12) {
                counted = Some(flash);
                break;
            }
        }
        let said = store.flashes(Joules::from_joules(each), rate);
        match counted {
            // Rounding may put the one that just reaches the capacity on either side.
            Some(flash) => prop_assert!(said.is_some_and(|said| said.abs_diff(flash) <= 1), "{said:?} for {flash}"),
            None => prop_assert!(said.is_none_or(|said| said >= 4999)),
        }
    }
}

#[test]
fn known_beams_have_known_exponents() {
    // cosⁿ θ = ½: 60° is a Lambertian face, 45° its square.
    for (half, exponent) in [(60.0, 1.0), (45.0, 2.0), (30.0, 0.5f64.ln() / (3f64.sqrt() / 2.0).ln())] {
        assert!((beam_exponent(degrees(half)) - exponent).abs() < 1e-9, "{half}°");
    }
}

#[test]
fn a_gel_takes_its_loss_off_the_flash_and_off_nothing_else() {
    let mut gelled = shot();
    gelled.lights[0].gel = Some(Filter {
        id: "amber".to_owned(),
        name: "Amber".to_owned(),
        used_as: FilterUse::Gel,
        loss_stops: 0.7,
        mired: 159.0,
        hue: None,
    });
    let (bare, gelled) = (forecast(&plan(&shot())), forecast(&plan(&gelled)));
    let stops = |forecast: &pebble_core::Forecast| forecast.flash.placement_stops.unwrap();
    assert!((stops(&gelled) - stops(&bare) + 0.7).abs() < 1e-9, "{} against {}", stops(&gelled), stops(&bare));
    assert_eq!(gelled.ambient_subject, bare.ambient_subject);
    assert_eq!(gelled.key().pulse, bare.key().pulse);
}

fn kit() -> Kit {
    serde_json::from_str(include_str!("../../../../docs/examples/kit.json")).unwrap()
}

#[test]
fn any_shot_fits_any_gear_and_what_fits_stays() {
    let kit = kit();
    let mut fitted = 0;
    for start in crate::common::examples() {
        for body in &kit.cameras {
            for lens in &kit.lenses {
                for unit in &kit.units {
                    let mut other = start.clone();
                    other.camera.body = body.clone();
                    other.camera.lens = lens.clone();
                    other.lights[0].unit = unit.clone();
                    let (shot, moved) = fit(&other).unwrap();
                    let case = format!("{} on {} with {} and {}", start.title, body.name, lens.name, unit.name);
                    Plan::try_from(&shot).unwrap_or_else(|error| panic!("{case}: {error}"));
                    assert_eq!(fit(&shot).unwrap(), (shot.clone(), Vec::new()), "{case}: once is enough");
                    // What is not named has not moved.
                    let named = |field: &str| moved.iter().any(|one| one.field == field);
                    let same = |a: f64, b: f64, field: &str| assert!(named(field) || a == b, "{case}: {field}");
                    same(shot.camera.iso, other.camera.iso, "camera.iso");
                    same(shot.camera.aperture_f, other.camera.aperture_f, "camera.aperture_f");
                    same(shot.camera.focal_mm, other.camera.focal_mm, "camera.focal_mm");
                    same(shot.lights[0].power, other.lights[0].power, "lights[0].power");
                    assert!(named("camera.shutter") || shot.camera.shutter == other.camera.shutter, "{case}");
                    assert!(named("lights[0].sync") || shot.lights[0].sync == other.lights[0].sync, "{case}");
                    assert!(moved.iter().all(|one| one.sentence.contains(" is now ")), "{case}: {moved:?}");
                    fitted += 1;
                }
            }
        }
    }
    assert_eq!(fitted, 8 * kit.cameras.len() * kit.lenses.len() * kit.units.len());
}

#[test]
fn a_shot_on_its_own_gear_has_nothing_to_move() {
    for start in crate::common::examples() {
        let (shot, moved) = fit(&start).unwrap();
        assert_eq!(moved, Vec::new(), "{}", start.title);
        assert_eq!(shot, start);
    }
}

#[test]
fn a_pulse_as_long_as_a_guide_blurs_by_what_is_allowed() {
    let of = |start: &Shot| guides(&plan(start));
    for start in crate::common::examples() {
        let seen = outlook(&plan(&start));
        let asked = of(&start);
        assert_eq!(asked[0].asked_by, AskedBy::Sync, "{}", start.title);
        for guide in &asked[1..] {
            let index = start.parts.iter().position(|part| part.name == guide.name).unwrap();
            let part = &seen.parts[index];
            let blur = part.motion.speed.as_metres_per_second().abs() * guide.time_s;
            let allowed = seen.allowed.as_metres();
            match start.parts[index].intent {
                Intent::Pebble => assert!((blur / allowed - 1.0).abs() < 1e-9, "{}: {}", start.title, guide.name),
                Intent::Skim => assert!(blur > allowed, "{}: {}", start.title, guide.name),
                Intent::Dash => panic!("{}: a dash asks for no short pulse", guide.name),
            }
        }
        let still = start.parts.iter().filter(|part| part.intent != Intent::Dash && part.speed_m_s != 0.0).count();
        assert_eq!(asked.len(), 1 + still, "{}", start.title);
    }
    // Twice as fast asks for half the time.
    let mut faster = shot();
    let named = faster.parts.iter().position(|part| part.intent == Intent::Pebble && part.speed_m_s > 0.0).unwrap();
    let name = faster.parts[named].name.clone();
    faster.parts[named].speed_m_s *= 2.0;
    let time =
        |guides: Vec<pebble_core::guides::Guide>| guides.into_iter().find(|guide| guide.name == name).unwrap().time_s;
    assert!((time(of(&shot())) / time(of(&faster)) - 2.0).abs() < 1e-9);
}

#[test]
fn every_thing_of_the_kit_has_a_line_that_tells_it_from_its_neighbours() {
    let items = kit().into_items().unwrap();
    let lines: Vec<(pebble_core::gear::Kind, String)> =
        items.iter().map(|(item, _)| (item.kind(), pebble_core::sheet::line(item).unwrap())).collect();
    assert!(lines.iter().all(|(_, line)| line.len() > 4 && !line.contains("NaN")), "{lines:?}");
    let units: Vec<&String> =
        lines.iter().filter(|(kind, _)| *kind == pebble_core::gear::Kind::Unit).map(|(_, line)| line).collect();
    let different: std::collections::HashSet<_> = units.iter().collect();
    assert_eq!(different.len(), units.len(), "{units:?}");
    let renamed = |mut item: Item| {
        item.rename("Other");
        item.with_id("other")
    };
    assert!(items.into_iter().all(|(item, _)| {
        let other = renamed(item);
        other.name() == "Other" && other.id() == "other" && other.check().is_ok()
    }));
}
