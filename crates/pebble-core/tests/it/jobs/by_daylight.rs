//! Jobs under the sky, where daylight leads and flash fills.

use super::{found, ids, job, light, of_the_kit, offers, part, pressed, pressed_through};
use pebble_core::findings::Severity;
use pebble_core::shot::{Flash, Intent, Lead, Movement, Reading, Role, Shot};
use pebble_core::shutter::SyncMode;

/// Noon at 1/1000 and f/5.6, ISO 100, with a fill wanted a stop and a half under it.
fn noon(title: &str) -> Shot {
    let mut shot = job(title);
    shot.ambient.subject = Reading::Ev100 { ev: 14.7 };
    shot.ambient.background = Reading::Ev100 { ev: 14.0 };
    shot.targets.lead = Lead::Daylight;
    (shot.camera.iso, shot.camera.aperture_f, shot.camera.shutter) = (100.0, 5.6, "1/1000".to_owned());
    shot.lights.push(fill(3.5, 1.0));
    shot.parts.push(part("Runner", Intent::Pebble, 7.0));
    shot
}

fn fill(distance: f64, power: f64) -> Flash {
    Flash { ratio_stops: Some(-1.5), ..light(Role::Fill, ("brix-400", "octa-90"), (30.0, 20.0, distance), power) }
}

/// What daylight draws too long is one thing, said once: not frozen by the pulse, not a trail beside itself.
#[test]
fn a_runner_that_daylight_draws_is_blurred_and_has_no_trail_of_its_own() {
    let shot = noon("Runner at noon");
    assert_eq!(ids(&shot), ["rows-cut", "blur-Runner", "balance"]);
    let blur = found(&shot, "blur-Runner");
    assert!(blur.title.contains("19.7 px blur"), "{}", blur.title);
    assert!(blur.cause.starts_with("Steady light makes 86 % of its picture, and draws for 1/1000"), "{}", blur.cause);
    // Nothing that was checked is called good that is not.
    let plan = crate::common::plan(&shot);
    let all = pebble_core::findings::judge(&plan, &pebble_core::outlook(&plan));
    assert!(!all.iter().any(|one| one.id == "no-ghost" || one.id == "frozen"), "{all:?}");
}

/// In high-speed sync the shutter freezes: shorter, and ISO or aperture keep daylight and fill where they are.
#[test]
fn in_high_speed_sync_a_shorter_time_is_paid_for_by_the_camera() {
    let mut shot = noon("Runner at noon, high-speed sync");
    shot.lights[0].sync = SyncMode::HighSpeed;
    assert_eq!(ids(&shot), ["blur-Runner", "balance"]);
    let said = found(&shot, "blur-Runner");
    assert_eq!(said.severity, Severity::Trouble);
    assert!(said.cause.starts_with("In high-speed sync the shutter freezes, 1/1000"), "{}", said.cause);
    assert_eq!(offers(&shot, "blur-Runner"), ["1/5000, ISO 500, power 1/2 +0.7", "1/5000, f/2.5, power 1/2 +0.7"]);
    let then = pressed(&shot, "blur-Runner");
    let (before, after) = (at(&shot), at(&then));
    assert!((before.0 - after.0).abs() < 0.05, "daylight stays: {before:?} {after:?}");
    assert!((before.1 - after.1).abs() < 0.2, "the fill stays: {before:?} {after:?}");
    let (_, left) = pressed_through(&shot);
    assert!(left.is_empty(), "{left:?}");
}

/// Daylight and the first flash, in the frame.
fn at(shot: &Shot) -> (f64, f64) {
    let seen = pebble_core::outlook(&crate::common::plan(shot));
    (seen.ambient.placement.as_stops(), seen.lights[0].in_frame.placement.as_stops())
}

/// A fill that is off its ratio is said against daylight, and one light is turned for it.
#[test]
fn a_fill_stands_to_daylight_at_its_ratio() {
    let mut shot = noon("Standing at noon");
    shot.parts[0].speed_m_s = 0.1;
    (shot.camera.shutter, shot.camera.aperture_f) = ("1/200".to_owned(), 13.0);
    shot.lights[0] = fill(4.5, 1.0 / 4.0);
    assert_eq!(ids(&shot), ["balance"]);
    let off = found(&shot, "balance");
    assert!(off.title.starts_with("A fill: too dark by"), "{}", off.title);
    assert!(off.cause.contains("−1.5 against daylight"), "{}", off.cause);
    let there = pressed(&shot, "balance");
    let (daylight, flash) = at(&there);
    assert!((flash - daylight + 1.5).abs() < 0.34, "{flash} beside {daylight}");
    assert_eq!((there.camera.aperture_f, &there.camera.shutter), (13.0, &shot.camera.shutter), "the sky stays");
}

/// Panned along, who is followed is still and the world streaks, as wanted; without a pan it is the other way round.
#[test]
fn a_rider_who_is_followed_is_still_before_a_world_that_streaks() {
    let mut shot = noon("Rider, followed");
    (shot.camera.shutter, shot.camera.aperture_f) = ("1/30".to_owned(), 16.0);
    shot.ambient.subject = Reading::Ev100 { ev: 13.0 };
    shot.ambient.background = Reading::Ev100 { ev: 13.0 };
    shot.background.reflectance = 0.3;
    shot.lights[0] = Flash { ratio_stops: None, ..fill(3.0, 1.0 / 8.0) };
    shot.parts = vec![part("Rider", Intent::Pebble, 9.0)];
    assert!(ids(&shot).contains(&"blur-Rider".to_owned()), "{:?}", ids(&shot));
    let follows = Some("Rider".to_owned());
    shot.camera.movement = Some(Movement { pan_m_s: 9.0, follows, wanted: Some(true), ..Movement::default() });
    assert!(ids(&shot).is_empty(), "{:?}", ids(&shot));
    // Not wanted, the same streak is something to watch, and no dial is offered for what the hands do.
    shot.camera.movement.as_mut().unwrap().wanted = Some(false);
    let world = found(&shot, "world");
    assert!(world.remedies.is_empty() && world.unanswered.unwrap().contains("in your hands"));
}

/// A leaf shutter cuts all rows alike: the frame is dark, and is made brighter, never darker, whatever a meter reads.
#[test]
fn a_slow_pack_behind_a_leaf_shutter_is_dark_in_the_frame() {
    let mut shot = noon("Sprinter, leaf shutter");
    shot.targets.lead = Lead::Flash;
    shot.ambient.subject = Reading::Lux { lux: 2.0 };
    shot.ambient.background = Reading::Lux { lux: 2.0 };
    shot.camera.body = of_the_kit("cameras", "plover-645");
    shot.camera.lens = of_the_kit("lenses", "plover-80-leaf");
    (shot.camera.focal_mm, shot.camera.aperture_f) = (80.0, 8.0);
    shot.lights[0] = light(Role::Key, ("lark-1200", "octa-90"), (-40.0, 35.0, 2.5), 0.5);
    shot.parts = vec![part("Sprinter", Intent::Pebble, 6.0)];
    let seen = pebble_core::outlook(&crate::common::plan(&shot));
    let (set, frame) = (seen.lights[0].on_set.placement.as_stops(), seen.lights[0].in_frame.placement.as_stops());
    assert!(set > 1.5 && frame < -2.5, "a meter reads {set}, the sensor gets {frame}");
    let dark = found(&shot, "exposure");
    assert!(dark.title.starts_with("Subject too dark, 3.0 stops"), "{}", dark.title);
    assert_eq!(offers(&shot, "exposure"), ["ISO 800", "f/2.8"]);
    assert!(found(&shot, "rows-cut").title.starts_with("The shutter cuts the flash: −5.1"));
    pressed(&shot, "exposure");
}

/// Hand-held in a dim hall: what the hand draws is its own finding, and one shutter time answers it and the trail.
#[test]
fn a_fifteenth_from_the_hand_is_answered_by_the_shutter() {
    let mut shot = job("Hand-held at 1/15");
    super::steady(&mut shot, 80.0, 60.0);
    (shot.camera.shutter, shot.camera.iso, shot.camera.aperture_f) = ("1/15".to_owned(), 800.0, 4.0);
    shot.camera.movement = Some(Movement { shake_deg_s: 2.0, ..Movement::default() });
    shot.lights.push(super::key(("brix-400", "octa-90"), 3.0, 1.0 / 64.0));
    shot.parts.push(part("Face", Intent::Pebble, 0.2));
    let said = ids(&shot);
    assert!(said.contains(&"shaken".to_owned()) && said.contains(&"ghost-Face".to_owned()), "{said:?}");
    assert!(!said.contains(&"blur-Face".to_owned()), "the trail says it: {said:?}");
    let hand = found(&shot, "shaken");
    assert!(hand.cause.contains("2.0° a second while 1/15 is open"), "{}", hand.cause);
    assert!(hand.remedies.iter().any(|remedy| remedy.label.starts_with("1/")), "{:?}", hand.remedies);
    let (_, left) = pressed_through(&shot);
    assert!(!left.iter().any(|id| id == "shaken" || id.starts_with("ghost") || id.starts_with("blur")), "{left:?}");
}
