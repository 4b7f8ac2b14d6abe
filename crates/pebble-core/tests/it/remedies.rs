//! Remedies are solved, not canned: each is compared with what a photographer would work out by hand.

use crate::common::{applied, plan, shot, through_a_longer_lens};
use pebble_core::findings::{self, Remedy};
use pebble_core::quantity::Seconds;
use pebble_core::quantity::scale::{Grid, ShutterTime};
use pebble_core::shot::{Intent, Reading, Shot};
use pebble_core::shutter::SyncMode;
use pebble_core::{Forecast, forecast, outlook};

/// A dark room, one slow part held still, the key where it should be.
fn calm() -> Shot {
    let mut shot = shot();
    shot.ambient.subject = Reading::Lux { lux: 0.0 };
    shot.ambient.background = Reading::Lux { lux: 0.0 };
    shot.parts.truncate(1);
    shot.parts[0].speed_m_s = 0.3;
    through_a_longer_lens(shot, 3.0)
}

fn told(shot: &Shot) -> Forecast {
    forecast(&plan(shot))
}

fn remedies(shot: &Shot, id: &str) -> Vec<Remedy> {
    let plan = plan(shot);
    let all = findings::judge(&plan, &outlook(&plan));
    let names: Vec<String> = all.iter().map(|finding| finding.id.clone()).collect();
    all.into_iter().find(|finding| finding.id == id).unwrap_or_else(|| panic!("no {id} in {names:?}")).remedies
}

/// The nearest time on a dial of thirds.
fn nearest_third(time_s: f64) -> String {
    let clicks = (-3.0 * time_s.log2()).round() as i32;
    ShutterTime::from_tv6(2 * clicks).label(Grid::Thirds)
}

#[test]
fn a_key_too_dark_gets_the_power_or_the_distance_that_the_stops_ask_for() {
    let mut shot = calm();
    // Two stops under: four times the light by power, or half the spread by distance.
    shot.lights[0].power = 0.05;
    shot.lights[0].distance_m = 3.0;
    let now = told(&shot).flash.placement_stops.unwrap();
    shot.targets.subject_stops = (now + 2.0).round() / 1.0;
    let missing = shot.targets.subject_stops - now;
    let offered = remedies(&shot, "exposure");
    let power = told(&applied(&shot, &offered[0].changes)).lights[0].flash.power;
    assert!((power / (0.05 * missing.exp2())).log2().abs() <= 1.0 / 6.0 + 1e-9, "{}: {power}", offered[0].label);
    assert!(offered[1].label.ends_with("closer"), "{}", offered[1].label);
    // (d+o)² + R² shrinks by the missing stops; octa: o = 0.1 m, R = 0.45 m.
    let spread = (3.1f64 * 3.1 + 0.45 * 0.45) / missing.exp2();
    let distance = (spread - 0.45 * 0.45).sqrt() - 0.1;
    let moved = told(&applied(&shot, &offered[1].changes)).lights[0].flash.distance_m;
    assert!((moved - distance).abs() <= 0.05 + 1e-9, "{moved} m instead of {distance} m");
}

#[test]
fn a_streak_too_short_gets_the_time_that_draws_it() {
    let shot = through_a_longer_lens(shot(), 3.0);
    let ropes = &shot.parts[2];
    let seen = told(&shot);
    let wanted = ropes.streak_share.unwrap() * seen.optics.field_width_m / ropes.speed_m_s;
    let offered = remedies(&shot, "dash-length-Ropes");
    for remedy in &offered {
        let after = told(&applied(&shot, &remedy.changes));
        assert_eq!(after.exposure.shutter_label, nearest_third(wanted), "{}", remedy.label);
    }
    // The first of them holds the steady light as well: the longer time is paid for elsewhere, to the click.
    let held = told(&applied(&shot, &offered[0].changes));
    let drift = held.ambient_subject.placement_stops.unwrap() - seen.ambient_subject.placement_stops.unwrap();
    assert!(drift.abs() < 1.0 / 6.0 + 1e-9, "ambient drifts by {drift}");
    // The time alone would draw the face as well, which was faint; that is no remedy.
    assert!(offered[0].effect.is_empty() && offered.iter().all(|one| one.label.contains("1/30, ")), "{offered:?}");
}

#[test]
fn a_blur_gets_the_longest_pulse_that_is_short_enough() {
    let mut shot = calm();
    shot.lights[0].power = 0.5;
    shot.lights[0].distance_m = 4.9;
    shot.parts[0].speed_m_s = 6.0;
    let seen = told(&shot);
    let limit_s = seen.optics.allowed_px / seen.parts[0].image_speed_px_s;
    for remedy in remedies(&shot, "blur-Face") {
        let after = told(&applied(&shot, &remedy.changes));
        assert!(after.key().pulse.t01_s <= limit_s, "{}", remedy.label);
        // One third of a stop more power would be too long: it is the mildest turn that works.
        let mut bolder = shot.clone();
        bolder.lights[0].power = after.lights[0].flash.power * (1.0f64 / 3.0).exp2();
        assert!(told(&bolder).key().pulse.t01_s > limit_s, "{} goes too far", remedy.label);
        let drift = after.flash.placement_stops.unwrap() - seen.flash.placement_stops.unwrap();
        assert!(drift.abs() <= 0.2, "{} moves the key by {drift}", remedy.label);
    }
}

#[test]
fn a_cut_frame_gets_the_usable_time_and_where_it_can_the_glow() {
    let mut shot = calm();
    shot.camera.shutter = "1/640".to_owned();
    shot.lights[0].power = 0.05;
    shot.lights[0].distance_m = 1.3;
    shot.targets.subject_stops = told(&shot).lights[0].flash.on_set_stops.unwrap();
    let seen = told(&shot);
    let offered = remedies(&shot, "rows-cut");
    assert_eq!(Some(&offered[0].label), seen.key().rows.usable_sync_label.as_ref());
    let glow = offered
        .iter()
        .map(|remedy| told(&applied(&shot, &remedy.changes)))
        .find(|after| after.key().firing.sync == SyncMode::HighSpeed);
    if let Some(glow) = glow {
        // η·t/(Tx+t) of the light, made up by power.
        let t = glow.exposure.shutter_s;
        let loss = (0.7 * t / (glow.moment.travel_s + t)).log2();
        assert!((glow.key().flash.high_speed_stops.unwrap() - loss).abs() < 1e-9);
        assert!((glow.lights[0].flash.power / seen.lights[0].flash.power).log2() + loss < 0.2);
    }
    // A unit and a camera that cannot glow are never told to.
    shot.lights[0].unit.high_speed_sync = false;
    assert!(remedies(&shot, "rows-cut").iter().all(|remedy| !remedy.label.contains("HSS")));
}

#[test]
fn a_group_too_deep_gets_the_aperture_that_holds_it() {
    let mut shot = calm();
    shot.usage = pebble_core::motion::Usage::Print;
    shot.camera.focal_mm = 70.0;
    shot.subject.depth_m = 2.0;
    let offered = remedies(&shot, "depth");
    assert!(!offered.is_empty());
    for remedy in &offered {
        let after = told(&applied(&shot, &remedy.changes));
        let (near, far) = (after.depth.near_m, after.depth.far_m.unwrap_or(f64::INFINITY));
        assert!(near <= 3.5 && far >= 5.5, "{}: {near} to {far}", remedy.label);
        assert!(remedy.effect.contains("more depth"), "{}", remedy.effect);
    }
}

#[test]
fn a_ghost_goes_with_a_faster_shutter_or_with_more_flash_over_the_room() {
    let mut shot = calm();
    shot.camera.shutter = "1/30".to_owned();
    shot.ambient.subject = Reading::Lux { lux: 250.0 };
    shot.ambient.background = Reading::Lux { lux: 250.0 };
    shot.parts[0].speed_m_s = 2.0;
    shot.parts[0].reflectance = 0.7;
    let before = told(&shot);
    for remedy in remedies(&shot, "ghost-Face") {
        let after = told(&applied(&shot, &remedy.changes));
        let gone = after.parts[0].delta_lightness.abs() < 1.0 || !after.parts[0].draws;
        assert!(gone, "{}: ΔL* {}", remedy.label, after.parts[0].delta_lightness);
        // With the room dark there is nothing to be over.
        let dark = after.ambient_subject.placement_stops.is_none();
        assert!(dark || after.flash_over_ambient_stops > before.flash_over_ambient_stops, "{}", remedy.label);
        assert_eq!(after.key().rows.touched_share, 0.0, "{}", remedy.label);
    }
}

#[test]
fn a_streak_too_dim_gets_more_of_the_steady_light_and_keeps_the_key() {
    // Alone: with parts to be held still beside them, more light for the ropes would draw those too, and is not offered.
    let mut shot = shot();
    shot.parts.drain(..2);
    shot.parts[0].streak_share = None;
    shot.parts[0].intent = Intent::Dash;
    shot.parts[0].ambient_offset_stops = 1.0;
    let before = told(&shot);
    let offered = remedies(&shot, "dash-dim-Ropes");
    assert!(!offered.is_empty());
    for remedy in offered {
        let after = told(&applied(&shot, &remedy.changes));
        assert!(after.parts[0].delta_lightness.abs() >= 3.0, "{}", remedy.label);
        assert!(
            after.ambient_subject.exposure_lxs / after.exposure.reference_lxs
                > before.ambient_subject.exposure_lxs / before.exposure.reference_lxs
        );
        let drift = after.flash.placement_stops.unwrap() - before.flash.placement_stops.unwrap();
        assert!(drift.abs() <= 0.2, "{}: {drift}", remedy.label);
    }
    assert_eq!(nearest_third(Seconds::from_millis(16.0).as_secs()), "1/60");
}

#[test]
fn one_press_mends_all_lights_that_share_a_fault() {
    let mut shot = crate::common::examples().remove(6);
    shot.lights.iter_mut().for_each(|light| light.channel += 3);
    let said = |shot: &Shot| findings::judge(&plan(shot), &outlook(&plan(shot)));
    let silent = |shot: &Shot| said(shot).into_iter().find(|one| one.id.starts_with("silent"));
    let one = silent(&shot).expect("nobody hears the trigger");
    assert!(one.title.contains(" and ") && one.title.ends_with("will not fire"), "{}", one.title);
    // Named together, as one would call it across the set.
    assert!(one.remedies[0].label.starts_with("A B C D channel "), "{}", one.remedies[0].label);
    let heard = crate::common::applied(&shot, &one.remedies[0].changes);
    assert!(silent(&heard).is_none(), "{:?}", silent(&heard));
}
