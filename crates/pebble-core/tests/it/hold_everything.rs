//! Where a way to hold the light exists on the dials, it is found: against a search through all of them.

use crate::common::{examples, plan};
use pebble_core::hold::{Held, TOLERANCE, Turned, hold};
use pebble_core::plan::{Plan, Settings};
use pebble_core::quantity::{Metres, Stops};
use pebble_core::shot::{Reading, SetLamp, Shot};
use pebble_core::strips;
use pebble_core::{Outlook, outlook};
use proptest::prelude::*;

/// Whether key and steady light can be brought back with everything free: any aperture, ISO, filter and shutter that brings
/// back the steady light, and then any power with the light walked to where the key is right, no row dark.
fn exists(base: &Plan, now: &Plan) -> Option<Settings> {
    let (was, is) = (outlook(base), outlook(now));
    let (ambient, key) = ((is.ambient.placement - was.ambient.placement).as_stops(), was.key().in_frame.placement);
    if !ambient.is_finite() {
        return None;
    }
    let light = now.key_light();
    // The fastest time that leaves no row dark, of each power.
    let powers: Vec<(f64, f64)> = strips::powers(light)
        .filter_map(|power| {
            let lights = now.settings.lights.with(now.key, |dial| dial.power = power);
            let seen = outlook(&now.with(Settings { lights, ..now.settings }));
            Some((power, seen.key().usable_sync?.time().as_secs()))
        })
        .collect();
    for aperture in strips::apertures(&now.body) {
        for iso in strips::isos(&now.body) {
            for filter in strips::filters(now) {
                let gain = -2.0 * (aperture.number() / now.settings.aperture.number()).log2()
                    + (iso.number() / now.settings.iso.number()).log2()
                    + (now.settings.filter - filter).as_stops();
                for shutter in strips::shutters(&now.body) {
                    let off = ambient + gain + (shutter.time() / now.settings.shutter.time()).log2();
                    if off.abs() > TOLERANCE - 1e-3 {
                        continue;
                    }
                    for (power, usable) in &powers {
                        if shutter.time().as_secs() < usable * (1.0 - 1e-9) {
                            continue;
                        }
                        let reference = is.reference * Stops::from_stops(-gain).as_ratio();
                        let heads = now.settings.key().heads;
                        let wanted = reference * key.as_ratio();
                        let Some(place) = light.distance_for(*power, heads, wanted) else { continue };
                        if place >= Metres::from_metres(0.3) && place <= Metres::from_metres(30.0) {
                            let lights =
                                now.settings.lights.with(now.key, |dial| (dial.power, dial.distance) = (*power, place));
                            return Some(Settings { aperture, iso, filter, shutter, lights, ..now.settings });
                        }
                    }
                }
            }
        }
    }
    None
}

fn off(was: &Outlook, is: &Outlook) -> (f64, f64) {
    (
        (is.key().in_frame.placement - was.key().in_frame.placement).as_stops(),
        (is.ambient.placement - was.ambient.placement).as_stops(),
    )
}

#[test]
fn the_sun_comes_out_and_key_and_steady_light_stay() {
    let mut base = examples().remove(2);
    base.lights.truncate(1);
    base.camera.aperture_f = 8.0;
    base.camera.shutter = "1/200".to_owned();
    base.camera.iso = 100.0;
    base.camera.filter_stops = 0.0;
    (base.lights[0].power, base.lights[0].distance_m) = (0.125, 2.5);
    base.ambient.subject = Reading::Ev100 { ev: 12.5 };
    base.ambient.background = Reading::Ev100 { ev: 12.5 };
    let mut sun = base.clone();
    sun.ambient.subject = Reading::Ev100 { ev: 14.17 };
    sun.ambient.background = Reading::Ev100 { ev: 14.17 };
    let (was, now) = (plan(&base), plan(&sun));
    let answer = hold(&was, &now, &[Held::Key, Held::Ambient], None);
    assert!(answer.gave.is_empty(), "{:?}", answer.gave);
    let (key, ambient) = off(&outlook(&was), &outlook(&now.with(answer.settings)));
    assert!(key.abs() <= TOLERANCE && ambient.abs() <= TOLERANCE, "{key} {ambient}");
    // The ISO is the last thing that is turned.
    assert_eq!(answer.settings.iso, now.settings.iso, "{:?}", answer.followed);
}

#[test]
fn the_key_alone_is_held_and_a_rim_that_is_turned_turns_nothing_else() {
    let base = examples().remove(4);
    let mut turned = base.clone();
    turned.lights[1].power *= 2.0;
    let (was, now) = (plan(&base), plan(&turned));
    let by = Some(Turned { control: Held::Power, light: 1 });
    let alone = hold(&was, &now, &[Held::Key, Held::Ambient], by);
    assert!(alone.followed.is_empty() && alone.gave.is_empty(), "{alone:?}");
    // With the ratios the others come along by as much.
    let together = hold(&was, &now, &[Held::Ratios], by);
    let (before, after) = (outlook(&was), outlook(&now.with(together.settings)));
    for light in 0..was.lights.len() {
        let moved = (after.lights[light].in_frame.placement - before.lights[light].in_frame.placement).as_stops();
        assert!((moved - 1.0).abs() <= TOLERANCE + 1e-6, "light {light} moved by {moved}: {:?}", together.gave);
    }
}

/// A lamp of the kit under another name.
fn named(name: &str) -> pebble_core::gear::Lamp {
    let kit: serde_json::Value = serde_json::from_str(include_str!("../../../../docs/examples/kit.json")).unwrap();
    let mut lamp = kit["lamps"][0].clone();
    lamp["name"] = name.into();
    serde_json::from_value(lamp).unwrap()
}

/// A stage that two lamps light and nothing else.
fn stage(level_share: f64) -> Shot {
    let mut shot = examples().remove(0);
    (shot.ambient.subject, shot.ambient.background) = (Reading::Lux { lux: 0.0 }, Reading::Lux { lux: 0.0 });
    let lamp = |name: &str| SetLamp {
        lamp: named(name),
        on: true,
        level_share,
        distance_m: 2.0,
        stands: None,
        gel: None,
        misses: Vec::new(),
        lights_background: true,
    };
    shot.lamps = vec![lamp("panel"), lamp("strip")];
    shot
}

#[test]
fn dimmers_follow_where_a_lamp_makes_the_steady_light() {
    let turn = |base: &Shot, shutter: &str, held: &[Held]| {
        let mut turned = base.clone();
        turned.camera.shutter = shutter.to_owned();
        let (was, now) = (plan(base), plan(&turned));
        let answer = hold(&was, &now, held, Some(Turned { control: Held::Shutter, light: now.key }));
        // As it is read again from the file, to a step of the dimmer.
        let changes: Vec<_> = { answer.followed.iter() }
            .map(|one| pebble_core::findings::Change { pointer: one.pointer.clone(), value: one.value.clone() })
            .collect();
        let read = outlook(&plan(&crate::common::applied(&turned, &changes)));
        let kept = outlook(&now.with(answer.settings));
        assert!((read.ambient.placement - kept.ambient.placement).as_stops().abs() < 0.02);
        (off(&outlook(&was), &read), answer)
    };
    let camera = [Held::Aperture, Held::Iso, Held::Filter];
    let all = [&[Held::Key, Held::Ambient][..], &camera].concat();
    // A stop faster, a stop more of both; a stop slower, a stop less.
    let base = stage(0.4);
    for (shutter, says) in [("1/125", "1.0 brighter"), ("1/30", "1.0 dimmer")] {
        let ((key, ambient), answer) = turn(&base, shutter, &all);
        assert!(answer.gave.is_empty() && key.abs() <= TOLERANCE && ambient.abs() <= TOLERANCE + 0.02, "{answer:?}");
        let words: Vec<_> = answer.followed.iter().map(|one| one.words.as_str()).collect();
        assert_eq!(words, [format!("panel {says}"), format!("strip {says}")]);
    }
    // Full is full, and said; and who pins the dimmers has them stay.
    let (_, full) = turn(&stage(0.9), "1/125", &all);
    assert!(full.gave.iter().any(|one| one.held == Held::Ambient), "{full:?}");
    let (_, pinned) = turn(&base, "1/125", &[&all[..], &[Held::Lamps]].concat());
    assert!(pinned.followed.is_empty() && pinned.gave.len() == 1, "{pinned:?}");
    // Where the aperture may move as well, the lamps are nearer at hand than its depth.
    let (_, free) = turn(&base, "1/125", &[Held::Key, Held::Ambient]);
    assert_eq!(free.settings.aperture, plan(&base).settings.aperture, "{:?}", free.followed);
    // No lamp burns: nothing of them is turned.
    let mut dark = base.clone();
    dark.lamps.iter_mut().for_each(|lamp| lamp.on = false);
    dark.ambient.subject = Reading::Lux { lux: 60.0 };
    assert_eq!(turn(&dark, "1/125", &[Held::Key, Held::Ambient]).1.settings.lamps, Stops::ZERO);
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 2000, ..ProptestConfig::default() })]

    #[test]
    fn what_can_be_held_is_held(
        which in 0usize..4, ev in -2.0..15.0f64, change in -3.0..3.0f64, power in 0usize..30, distance in 1.0..6.0f64,
        tv6 in 12..54i32, av in 0usize..7, sv6 in 0..24i32,
    ) {
        let mut start = examples().swap_remove(which);
        start.lights.truncate(1);
        start.lights[0].sync = pebble_core::shutter::SyncMode::Front;
        start.lamps.clear();
        start.lights[0].modelling = None;
        start.lights[0].distance_m = distance;
        start.camera.aperture_f = [2.8, 4.0, 5.6, 8.0, 11.0, 16.0, 16.0][av];
        start.camera.shutter = pebble_core::quantity::scale::ShutterTime::from_tv6(tv6 / 2 * 2).label(start.camera.body.grid);
        start.camera.iso = pebble_core::quantity::scale::Iso::from_sv6(sv6 / 2 * 2).label(start.camera.body.grid).parse().unwrap();
        start.ambient.subject = Reading::Ev100 { ev };
        start.ambient.background = Reading::Ev100 { ev };
        let Ok(first) = Plan::try_from(&start) else { return Ok(()) };
        let powers: Vec<f64> = strips::powers(first.key_light()).collect();
        start.lights[0].power = powers[power % powers.len()];
        let mut later = start.clone();
        let shifted = ev + (change * 3.0).round() / 3.0;
        later.ambient.subject = Reading::Ev100 { ev: shifted };
        later.ambient.background = Reading::Ev100 { ev: shifted };
        let (Ok(base), Ok(now)) = (Plan::try_from(&start), Plan::try_from(&later)) else { return Ok(()) };
        // What is cut already is looked at elsewhere.
        if outlook(&base).key().share < 1.0 - 1e-6 { return Ok(()) }
        let answer = hold(&base, &now, &[Held::Key, Held::Ambient], None);
        let (was, is) = (outlook(&base), outlook(&now.with(answer.settings)));
        prop_assert_eq!(is.key().rows.touched, 0.0, "rows are cut");
        if answer.gave.is_empty() {
            let (key, ambient) = off(&was, &is);
            prop_assert!(key.abs() <= TOLERANCE + 1e-9 && ambient.abs() <= TOLERANCE + 1e-9);
        } else if let Some(way) = exists(&base, &now) {
            prop_assert!(false, "{:?}, but {way:?} does it", answer.gave);
        }
    }
}
