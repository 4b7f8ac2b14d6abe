//! What stands about on the set: lights that do not hear, outshine, are seen or are not there.

use super::{found, ids, job, key, light, offers, part, pressed};
use pebble_core::findings::Severity;
use pebble_core::shot::{Intent, Role, Shot};

const HEAD: (&str, &str) = ("brix-400", "octa-90");

/// A face under one good key.
fn face(title: &str) -> Shot {
    let mut shot = job(title);
    shot.lights.push(key(HEAD, 2.2, 1.0 / 8.0));
    shot.parts.push(part("Face", Intent::Pebble, 0.5));
    assert!(ids(&shot).is_empty(), "{:?}", ids(&shot));
    shot
}

#[test]
fn a_light_on_another_channel_is_found_before_the_frame() {
    let mut shot = face("A light on another channel");
    shot.lights.push(light(Role::Fill, HEAD, (45.0, 25.0, 3.2), 1.0 / 64.0));
    assert!(ids(&shot).is_empty(), "{:?}", ids(&shot));
    shot.lights[1].channel = 4;
    assert_eq!(ids(&shot), ["silent-light-1"]);
    let silent = found(&shot, "silent-light-1");
    assert_eq!(silent.severity, Severity::Trouble);
    assert_eq!(silent.cause, "It listens on channel 4; the trigger on the camera sends on 1.");
    assert_eq!(offers(&shot, "silent-light-1"), ["A fill channel 1"]);
    assert_eq!(pressed(&shot, "silent-light-1").lights[1].channel, 1);
    // Switched off on purpose it is not missed.
    shot.lights[1].on = false;
    assert!(ids(&shot).is_empty(), "{:?}", ids(&shot));
}

#[test]
fn a_rim_over_the_key_is_turned_down_alone() {
    let mut shot = face("Rim over the key");
    shot.lights.push(light(Role::Rim, ("brix-400", "strip-120"), (120.0, 35.0, 3.0), 0.5));
    let said = ids(&shot);
    assert!(said.contains(&"rim-light-1".to_owned()), "{said:?}");
    let rim = found(&shot, "rim-light-1");
    assert!(rim.cause.contains("grazing light looks brighter"), "{}", rim.cause);
    let then = pressed(&shot, "rim-light-1");
    assert_eq!(then.lights[0].power, shot.lights[0].power, "the key stays");
    assert!(then.lights[1].power < shot.lights[1].power);
}

#[test]
fn a_rim_that_stands_in_the_picture_is_carried_out_of_it_as_bright_as_it_was() {
    let mut shot = face("Rim in the picture");
    shot.lights.push(light(Role::Rim, ("brix-400", "strip-120"), (150.0, 25.0, 2.5), 1.0 / 8.0));
    let seen = found(&shot, "in-frame-light-1");
    assert!(seen.cause.starts_with("Its face and stand are seen"), "{}", seen.cause);
    let remedy = &seen.remedies[0];
    assert!(remedy.label.starts_with("A rim ") && remedy.label.contains("m left"), "{}", remedy.label);
    let placement =
        |shot: &Shot| pebble_core::outlook(&crate::common::plan(shot)).lights[1].in_frame.placement.as_stops();
    let then = pressed(&shot, "in-frame-light-1");
    assert!((placement(&then) - placement(&shot)).abs() < 0.2, "{} and {}", placement(&then), placement(&shot));
}

#[test]
fn more_units_than_are_owned_are_counted_with_what_would_help() {
    let mut shot = face("Three of two");
    shot.lights.clear();
    for bearing in [-50.0, -20.0, 20.0] {
        shot.lights.push(light(Role::Key, ("dunlin-500", "octa-90"), (bearing, 30.0, 4.0), 1.0 / 16.0));
    }
    let owned = found(&shot, "owned");
    assert_eq!(owned.severity, Severity::Trouble);
    assert!(owned.title.contains("3 × Dunlin 500 are used, 2 owned"), "{}", owned.title);
    assert_eq!(owned.unanswered.unwrap(), "Another unit, fewer heads, or one more of these.");
    shot.lights.pop();
    assert!(!ids(&shot).contains(&"owned".to_owned()), "{:?}", ids(&shot));
}

/// Where a dial ends, the camera goes on with both of its own: nothing is called hopeless that two dials do.
#[test]
fn far_too_much_light_is_taken_by_iso_and_aperture_together() {
    let mut shot = face("Nearer and stronger than planned");
    shot.camera.iso = 800.0;
    shot.camera.aperture_f = 8.0;
    shot.lights[0].power = 0.25;
    shot.lights[0].distance_m = 1.6;
    // Its own dial would do; that of a head with two stops ends before.
    shot.lights[0].unit.lowest_stops = Some(2.0);
    shot.camera.body.iso_min = 200.0;
    let bright = found(&shot, "exposure");
    assert!(bright.title.starts_with("Subject too bright"), "{}", bright.title);
    assert!(!bright.remedies.is_empty(), "{:?}", bright.unanswered);
    let both = bright.remedies.iter().find(|remedy| remedy.label.contains("ISO") && remedy.label.contains("f/"));
    assert!(both.is_some(), "{:?}", bright.remedies);
    pressed(&shot, "exposure");
}
