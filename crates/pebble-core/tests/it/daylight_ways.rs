//! The three ways under the sun: worked by hand, and equal where they must be.

use crate::common::{examples, plan, shot};
use pebble_core::daylight::{Road, Way, ways};
use pebble_core::shot::{Reading, Shot};
use pebble_core::shutter::SyncMode;
use pebble_core::{Plan, outlook};
use proptest::prelude::*;

fn noon() -> Shot {
    examples().into_iter().find(|shot| shot.title.contains("noon")).expect("a shot at noon")
}

fn of(shot: &Shot) -> [Way; 3] {
    ways(&plan(shot)).try_into().expect("three ways")
}

/// The shot with what a way says put into its file.
fn gone(shot: &Shot, way: &Way) -> Plan {
    let mut file = serde_json::to_value(shot).unwrap();
    for change in &way.changes {
        *file.pointer_mut(&change.pointer).unwrap() = serde_json::to_value(&change.value).unwrap();
    }
    plan(&serde_json::from_value(file).unwrap())
}

#[test]
fn noon_by_hand() {
    // 80 000 lx at −1: f/5.6 wanted for the background, ISO 100, sync at 1/250.
    let mut shot = noon();
    shot.ambient.subject = Reading::Lux { lux: 80_000.0 };
    shot.ambient.background = Reading::Lux { lux: 80_000.0 };
    shot.targets.ambient_stops = Some(-1.0);
    shot.targets.subject_stops = 0.0;
    shot.camera.aperture_f = 5.6;
    shot.camera.iso = 400.0;
    shot.camera.filter_stops = 0.0;
    shot.lights[0].sync = SyncMode::Front;
    let [sync, glow, filter] = of(&shot);
    assert_eq!((sync.road, glow.road, filter.road), (Road::SyncSpeed, Road::HighSpeed, Road::Filter));
    // At f/5.6, ISO 100 the metered time is 340·32/(100·80000) = 1/735 s; one stop under is 1/1470: 1/1600 on thirds
    // would be −1.1, 1/1250 −0.8.
    assert!(glow.exposure.starts_with("f/5.6 · 1/1") && glow.exposure.contains("ISO 100"), "{}", glow.exposure);
    // At full power this pulse outlasts 1/160: the curtains want 1/125, 3.5 stops slower than 1/1470. f/5.6 to f/20 is 3.7
    // stops; four stops of filter are half a stop too many, and the shutter gives a third back.
    assert_eq!(sync.exposure, "f/20 · 1/125 · ISO 100");
    assert_eq!(filter.exposure, "f/5.6 · 1/100 · ISO 100 · ND 1.2");
    // All three leave the same sky; what they cost differs.
    for way in [&sync, &glow, &filter] {
        assert_eq!(way.not, None, "{:?}", way.road);
        assert!((way.ambient_stops.unwrap() + 1.0).abs() <= 0.17, "{:?} {:?}", way.road, way.ambient_stops);
    }
    // Through a filter or a smaller aperture the flash loses what the sky loses: the same power. Glowing it loses η·t/(Tx+t).
    assert!(
        (sync.power_needed.expect("some power does") / filter.power_needed.expect("some power does")).log2().abs()
            < 0.4,
        "{} {}",
        sync.power_needed.expect("some power does"),
        filter.power_needed.expect("some power does")
    );
    let time = 1.0 / 1448.0_f64;
    let lost = -(0.7 * time / (0.0032 + time)).log2();
    assert!((glow.lost_stops - lost).abs() < 0.25, "{} for {lost}", glow.lost_stops);
    assert_eq!((sync.lost_stops, filter.lost_stops), (0.0, 0.0));
    assert!(glow.freeze.starts_with("1/1"), "what glows freezes by the shutter: {}", glow.freeze);
}

#[test]
fn a_way_that_cannot_be_gone_says_why() {
    let mut off = noon();
    off.lights[0].on = false;
    assert!(of(&off).iter().all(|way| way.not.as_deref() == Some("The flash is off.")));
    let mut plain = noon();
    plain.lights[0].unit.high_speed_sync = false;
    plain.lights[0].sync = SyncMode::Front;
    assert!(of(&plain)[1].not.as_ref().unwrap().contains("do not do high-speed sync together"));
    // A sky of a million lux, six stops down: no aperture is small enough.
    let mut glare = noon();
    glare.ambient.subject = Reading::Lux { lux: 190_000.0 };
    glare.targets.ambient_stops = Some(-6.0);
    assert!(
        of(&glare)[0].not.as_ref().unwrap().contains("too bright: the aperture is at its end"),
        "{:?}",
        of(&glare)[0]
    );
    // Night: nothing to keep down, and no crash.
    let mut night = noon();
    night.ambient.subject = Reading::Lux { lux: 0.0 };
    night.ambient.background = Reading::Lux { lux: 0.0 };
    night.targets.ambient_stops = None;
    for way in of(&night) {
        assert!(way.power_needed.expect("some power does").is_finite() && way.ambient_stops.is_none(), "{way:?}");
    }
}

#[test]
fn too_little_power_is_counted_in_units() {
    let mut far = noon();
    far.lights[0].distance_m = 9.0;
    let near = of(&noon());
    let many = of(&far);
    for (near, far) in near.iter().zip(&many).filter(|(near, far)| near.not.is_none() && far.not.is_none()) {
        assert!(far.units > near.units, "{:?}: {} and {}", near.road, near.units, far.units);
        assert_eq!(far.units, (far.power_needed.expect("some power does").ceil() as u32).max(1));
    }
    assert!(many.iter().any(|way| way.units > 1));
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 64, ..ProptestConfig::default() })]

    #[test]
    fn the_ways_leave_the_same_sky_and_reach_the_same_key(
        lux in 300.0..120_000.0f64, target in -3.0..0.5f64, key in -1.0..1.0f64, which in 0usize..2, aperture in 0usize..5
    ) {
        let mut start = if which == 0 { noon() } else { shot() };
        start.camera.aperture_f = [2.8, 4.0, 5.6, 8.0, 11.0][aperture];
        start.ambient.subject = Reading::Lux { lux };
        start.ambient.background = Reading::Lux { lux };
        start.targets.ambient_stops = Some(target);
        start.targets.subject_stops = key;
        start.lights[0].sync = SyncMode::Front;
        for way in of(&start).iter().filter(|way| way.not.is_none()) {
            prop_assert!((way.ambient_stops.unwrap() - target).abs() <= 0.17 + 1e-6, "{:?}: {:?}", way.road, way.ambient_stops);
            // What is said is what comes out when it is done.
            let seen = outlook(&gone(&start, way));
            prop_assert!((seen.ambient.placement.as_stops() - way.ambient_stops.unwrap()).abs() < 1e-6);
            // So many units at that power reach the key, to half a step of the dial.
            let reached = seen.subject.lit_side.as_stops();
            let dimmest = seen.subject.lit_side.as_stops() > key && way.units == 1;
            prop_assert!((reached - key).abs() <= 0.17 + 1e-6 || dimmest, "{:?}: {reached} for {key}", way.road);
            // No row is cut.
            prop_assert!(seen.key().rows.touched < 0.02, "{:?} touches {}", way.road, seen.key().rows.touched);
        }
    }
}
