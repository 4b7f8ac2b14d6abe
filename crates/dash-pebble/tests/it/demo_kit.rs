//! The demo kit: every figure in it works, and the figures agree with each other.

use crate::common::example;
use dash_pebble::demo::{EXAMPLES, KIT, blank};
use pebble_core::fit::fit;
use pebble_core::gear::{FlashUnit, Kind};
use pebble_core::sheet::{output, sheet};
use pebble_core::shot::Shot;
use pebble_core::{Plan, forecast, strips};

fn with_unit(unit: &FlashUnit) -> Shot {
    let mut shot: Shot = serde_json::from_value(example("double-ropes")).unwrap();
    shot.lights[0].unit = unit.clone();
    shot.lights[0].power = 1.0;
    shot
}

fn unit(id: &str) -> &'static FlashUnit {
    KIT.units.iter().find(|unit| unit.id == id).unwrap()
}

#[test]
fn every_unit_works_at_every_power_through_every_modifier() {
    for unit in &KIT.units {
        let mut shot = with_unit(unit);
        let powers: Vec<f64> = strips::powers(Plan::try_from(&shot).unwrap().key_light()).collect();
        assert!(powers.len() > 4, "{}", unit.name);
        for modifier in &KIT.modifiers {
            shot.lights[0].modifier = modifier.clone();
            for power in &powers {
                shot.lights[0].power = *power;
                let seen = forecast(&Plan::try_from(&shot).unwrap());
                let pulse = &seen.key().pulse;
                assert!(
                    pulse.t05_s > 5e-6 && pulse.t05_s <= pulse.t01_s && pulse.t01_s < 0.025,
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
                shot.lights[0].sync = pebble_core::shutter::SyncMode::Front;
                shot.camera.body = body.clone();
                shot.camera.lens = lens.clone();
                shot.camera.focal_mm = focal_mm;
                shot.camera.aperture_f = lens.widest_f;
                shot.camera.iso = iso;
                shot.camera.shutter = shutter.clone();
                // A leaf shutter in the lens ends sooner than the curtains of the camera.
                let (shot, moved) = fit(&shot).unwrap();
                assert!(
                    moved.iter().all(|one| one.field == "camera.shutter" && lens.leaf_fastest.is_some()),
                    "{moved:?}"
                );
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
        shot.lights[0].modifier = KIT.modifiers.iter().find(|modifier| modifier.id == "octa-90").unwrap().clone();
        forecast(&Plan::try_from(&shot).unwrap()).flash.exposure_lxs
    };
    // One head each: a pair shares its energy.
    let mut order: Vec<&FlashUnit> = KIT.units.iter().filter(|unit| unit.heads.is_none()).collect();
    order.sort_by(|a, b| a.energy_j.unwrap().total_cmp(&b.energy_j.unwrap()));
    for pair in order.windows(2).filter(|pair| pair[0].energy_j < pair[1].energy_j) {
        assert!(reach(&pair[0].id) < reach(&pair[1].id), "{} does not out-throw {}", pair[1].name, pair[0].name);
    }
}

#[test]
fn the_awkward_ones_are_awkward() {
    let t01 = |id: &str, power: f64| {
        let mut shot = with_unit(unit(id));
        shot.lights[0].power = power;
        forecast(&Plan::try_from(&shot).unwrap()).key().pulse.t01_s
    };
    assert!(t01("mallow-600", 1.0) < t01("mallow-600", 0.125), "shortest at full power");
    let kiln = |power| t01("kiln-2400", power);
    assert!(kiln(0.25) < kiln(1.0) && kiln(0.25) < kiln(0.05), "best at mid power");
    assert!(forecast(&Plan::try_from(&with_unit(unit("pip-30"))).unwrap()).key().flash.output_estimated);
    assert!(t01("lark-1200", 1.0) > 1.0 / 120.0, "slower than 1/120 s");
    let tired = output(unit("tern-76-old")).unwrap().against_leaflet_stops.unwrap();
    assert!((tired + 0.6).abs() < 0.02, "{tired} stops against its leaflet");
    // Its leaflet reads like a unit with a switch; its recordings say otherwise.
    let dunlin = unit("dunlin-500");
    let entered = FlashUnit { ignore_recordings: true, ..dunlin.clone() };
    let shortest = |unit: &FlashUnit| sheet(unit, 1.0).map(|sheet| sheet.powers[sheet.shortest].power).unwrap();
    assert!(shortest(&entered) < 0.02 && shortest(dunlin) > 0.9, "{} {}", shortest(&entered), shortest(dunlin));
}

#[test]
fn there_is_enough_of_everything_and_each_thing_can_be() {
    let items = KIT.clone().into_items().unwrap();
    let count = |kind: Kind| items.iter().filter(|(item, _)| item.kind() == kind).count();
    for (kind, least) in [
        (Kind::Unit, 10),
        (Kind::Camera, 6),
        (Kind::Lens, 6),
        (Kind::Modifier, 12),
        (Kind::Filter, 8),
        (Kind::Trigger, 4),
        (Kind::Battery, 3),
        (Kind::Lamp, 6),
    ] {
        assert!(count(kind) >= least, "{kind:?}");
    }
    for unit in &KIT.units {
        assert!(
            sheet(unit, 8.0).unwrap().remarks.iter().all(|remark| !remark.contains("may be wrong")),
            "{}",
            unit.name
        );
        if let Some(battery) = &unit.battery {
            assert!(KIT.batteries.contains(battery), "{}", unit.name);
        }
    }
}

#[test]
fn every_shot_takes_its_things_from_the_kit() {
    let shots = EXAMPLES.map(|(_, text)| serde_json::from_str::<Shot>(text).unwrap());
    // A shot carries recordings without their curves.
    let units: Vec<FlashUnit> = KIT.units.iter().map(FlashUnit::to_carry).collect();
    for shot in shots.iter().chain([&blank()]) {
        let title = &shot.title;
        assert!(KIT.cameras.contains(&shot.camera.body) && KIT.lenses.contains(&shot.camera.lens), "{title}");
        for light in &shot.lights {
            assert!(units.contains(&light.unit), "{title}: {}", light.unit.name);
            assert!(KIT.modifiers.contains(&light.modifier) && KIT.triggers.contains(&light.trigger), "{title}");
            assert!(light.gel.iter().all(|gel| KIT.filters.contains(gel)), "{title}");
        }
        for lamp in &shot.lamps {
            assert!(KIT.lamps.contains(&lamp.lamp), "{title}: {}", lamp.lamp.name);
            assert!(lamp.gel.iter().all(|gel| KIT.filters.contains(gel)), "{title}");
        }
    }
}

#[test]
fn a_shot_survives_being_written_and_read() {
    for (_, text) in EXAMPLES {
        let shot: Shot = serde_json::from_str(text).unwrap();
        let again: Shot = serde_json::from_str(&serde_json::to_string(&shot).unwrap()).unwrap();
        assert_eq!(shot, again);
        assert_eq!(forecast(&Plan::try_from(&shot).unwrap()), forecast(&Plan::try_from(&again).unwrap()));
    }
}
