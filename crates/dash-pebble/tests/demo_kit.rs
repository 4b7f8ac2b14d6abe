//! The demo kit: every figure in it works, and the figures agree with each other.

mod common;

use common::example;
use dash_pebble::demo::{EXAMPLES, KIT, blank};
use pebble_core::shot::{FlashUnit, Shot};
use pebble_core::{Plan, forecast, strips};
use std::collections::HashSet;

fn with_unit(unit: &FlashUnit) -> Shot {
    let mut shot: Shot = serde_json::from_value(example("double-ropes")).unwrap();
    shot.flash.unit = unit.clone();
    shot.flash.power = 1.0;
    shot
}

fn unit(id: &str) -> &'static FlashUnit {
    KIT.units.iter().find(|unit| unit.id == id).unwrap()
}

#[test]
fn every_unit_works_at_every_power_through_every_modifier() {
    for unit in &KIT.units {
        let mut shot = with_unit(unit);
        let powers: Vec<f64> = strips::powers(&Plan::try_from(&shot).unwrap().light).collect();
        assert!(powers.len() > 4, "{}", unit.name);
        for modifier in &KIT.modifiers {
            shot.flash.modifier = modifier.clone();
            for power in &powers {
                shot.flash.power = *power;
                let seen = forecast(&Plan::try_from(&shot).unwrap());
                let pulse = seen.pulse;
                assert!(
                    pulse.t05_s > 5e-6 && pulse.t05_s <= pulse.t01_s && pulse.t01_s < 0.02,
                    "{} at {power}",
                    unit.name
                );
                assert!(seen.flash.placement_stops.is_some_and(f64::is_finite), "{} at {power}", unit.name);
            }
        }
    }
}

#[test]
fn every_camera_takes_every_lens_at_its_own_ends() {
    for body in &KIT.cameras {
        for lens in &KIT.lenses {
            for (focal_mm, iso, shutter) in
                [(lens.focal_min_mm, body.iso_min, &body.slowest), (lens.focal_max_mm, body.iso_max, &body.fastest)]
            {
                let mut shot = with_unit(unit("tern-76"));
                shot.flash.sync = pebble_core::shutter::SyncMode::Front;
                shot.camera.body = body.clone();
                shot.camera.lens = lens.clone();
                shot.camera.focal_mm = focal_mm;
                shot.camera.aperture_f = lens.widest_f;
                shot.camera.iso = iso;
                shot.camera.shutter = shutter.clone();
                let plan =
                    Plan::try_from(&shot).unwrap_or_else(|error| panic!("{} with {}: {error}", body.name, lens.name));
                assert!(strips::strips(&plan).iter().all(|strip| !strip.notches.is_empty()), "{}", body.name);
            }
        }
    }
}

#[test]
fn more_energy_throws_farther_through_the_same_modifier() {
    let reach = |id: &str| {
        let mut shot = with_unit(unit(id));
        shot.flash.modifier = KIT.modifiers.iter().find(|modifier| modifier.id == "octa-90").unwrap().clone();
        forecast(&Plan::try_from(&shot).unwrap()).flash.exposure_lxs
    };
    let order = ["pip-30", "tern-76", "siskin-200", "brix-400", "mallow-600", "kiln-2400"];
    for pair in order.windows(2) {
        assert!(reach(pair[0]) < reach(pair[1]), "{} does not out-throw {}", pair[0], pair[1]);
    }
}

#[test]
fn the_awkward_ones_are_awkward() {
    let t01 = |id: &str, power: f64| {
        let mut shot = with_unit(unit(id));
        shot.flash.power = power;
        forecast(&Plan::try_from(&shot).unwrap()).pulse.t01_s
    };
    assert!(t01("mallow-600", 1.0) < t01("mallow-600", 0.125), "shortest at full power");
    let kiln = |power| t01("kiln-2400", power);
    assert!(kiln(0.25) < kiln(1.0) && kiln(0.25) < kiln(0.05), "best at mid power");
    assert!(forecast(&Plan::try_from(&with_unit(unit("pip-30"))).unwrap()).flash.output_estimated);
}

#[test]
fn nothing_is_named_twice_and_every_shot_takes_its_things_from_the_kit() {
    let ids: Vec<&str> = KIT
        .units
        .iter()
        .map(|unit| unit.id.as_str())
        .chain(KIT.cameras.iter().map(|camera| camera.id.as_str()))
        .chain(KIT.lenses.iter().map(|lens| lens.id.as_str()))
        .chain(KIT.modifiers.iter().map(|modifier| modifier.id.as_str()))
        .chain(KIT.triggers.iter().map(|trigger| trigger.id.as_str()))
        .collect();
    assert_eq!(ids.iter().collect::<HashSet<_>>().len(), ids.len());
    let shots = EXAMPLES.map(|text| serde_json::from_str::<Shot>(text).unwrap());
    for shot in shots.iter().chain([&blank()]) {
        assert!(KIT.units.contains(&shot.flash.unit), "{}", shot.title);
        assert!(KIT.cameras.contains(&shot.camera.body) && KIT.lenses.contains(&shot.camera.lens), "{}", shot.title);
        assert!(
            KIT.modifiers.contains(&shot.flash.modifier) && KIT.triggers.contains(&shot.flash.trigger),
            "{}",
            shot.title
        );
    }
}

#[test]
fn a_shot_survives_being_written_and_read() {
    for text in EXAMPLES {
        let shot: Shot = serde_json::from_str(text).unwrap();
        let again: Shot = serde_json::from_str(&serde_json::to_string(&shot).unwrap()).unwrap();
        assert_eq!(shot, again);
        assert_eq!(forecast(&Plan::try_from(&shot).unwrap()), forecast(&Plan::try_from(&again).unwrap()));
    }
}
