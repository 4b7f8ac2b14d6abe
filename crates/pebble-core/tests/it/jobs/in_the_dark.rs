//! Jobs in dark halls, where flash makes the picture.

use super::{found, ids, job, key, light, of_the_kit, offers, part, pressed, pressed_through, steady};
use pebble_core::findings::Severity;
use pebble_core::shot::{DrawnAs, Intent, Modelling, Role, ShotBurst};

/// A head that is slow at every power is told so, with what the job needs; no dial is blamed.
#[test]
fn a_boxer_before_a_slow_mains_head_needs_another_unit() {
    let mut shot = job("Boxer on the pads");
    shot.lights.push(key(("mallow-600", "octa-90"), 2.0, 1.0 / 16.0));
    shot.parts = vec![part("Glove", Intent::Pebble, 8.0), part("Face", Intent::Pebble, 0.8)];
    assert_eq!(ids(&shot), ["blur-Glove", "blur-Face"]);
    let glove = found(&shot, "blur-Glove");
    assert_eq!(glove.severity, Severity::Trouble);
    assert_eq!(glove.unanswered.unwrap(), "Mallow 600 is never shorter than 1/470; this needs 1/4800 (t0.1).");
    assert!(glove.remedies.is_empty());
    // A head that is quenched does it at the same place and light.
    shot.lights[0] = key(("brix-400", "octa-90"), 2.0, 1.0 / 16.0);
    assert!(!ids(&shot).iter().any(|id| id.starts_with("blur-Face")), "{:?}", ids(&shot));
    let (_, left) = pressed_through(&shot);
    assert!(left.is_empty(), "{left:?}");
}

/// A fast shutter is believed to freeze: it only cuts, and what is dark is dark by that. One press mends both.
#[test]
fn a_fencer_at_a_thousandth_is_cut_and_not_underexposed() {
    let mut shot = job("Fencer at 1/1000");
    shot.camera.shutter = "1/1000".to_owned();
    shot.lights.push(key(("brix-400", "octa-90"), 2.2, 1.0 / 8.0));
    shot.parts.push(part("Blade", Intent::Pebble, 12.0));
    assert_eq!(ids(&shot), ["rows-cut", "exposure", "blur-Blade"]);
    assert_eq!(offers(&shot, "rows-cut"), ["1/250"]);
    // Brighter as it is would be two stops too much once all rows are lit.
    assert_eq!(offers(&shot, "exposure"), ["1/250"]);
    assert!(found(&shot, "exposure").cause.contains("cut by the shutter"));
    let whole = pressed(&shot, "exposure");
    assert_eq!(ids(&whole), ["blur-Blade"]);
    assert!(ids(&pressed(&whole, "blur-Blade")).is_empty());
}

/// Turned down, a quenched unit fits the shutter: nobody is sent to a slower time for it.
#[test]
fn a_trampoline_too_bright_and_cut_a_little_is_turned_down() {
    let mut shot = job("Twelve frames over a trampoline");
    (shot.camera.shutter, shot.camera.iso) = ("1/250".to_owned(), 800.0);
    shot.lights.push(key(("tern-76", "umbrella-110"), 2.5, 0.5));
    shot.burst = Some(ShotBurst { frames: 12, per_second: 12.0, action_s: Some(1.0) });
    shot.parts.push(part("Jumper", Intent::Pebble, 3.0));
    assert_eq!(ids(&shot)[..3], ["exposure", "burst", "rows-cut"]);
    assert_eq!(offers(&shot, "exposure"), ["power 1/8 +0.3"]);
    let burst = found(&shot, "burst");
    assert!(burst.title.starts_with("2 of 12 frames"), "{}", burst.title);
    assert!(burst.cause.contains("Frame 3 is dim"), "{}", burst.cause);
    // Less power holds the burst, and ISO or aperture pay for it, not the flash.
    assert!(burst.remedies.iter().all(|remedy| remedy.label.contains("power 1/16 +0.7")), "{:?}", burst.remedies);
    let down = pressed(&shot, "exposure");
    assert!(!ids(&down).iter().any(|id| id == "rows-cut" || id.starts_with("blur")), "{:?}", ids(&down));
    assert!(ids(&pressed(&down, "burst")).is_empty());
}

/// A streak and a still face in one light: what would still the face costs the streak, and that is said.
#[test]
fn a_scarf_that_shall_streak_keeps_the_house_light_that_ghosts_the_face() {
    let mut shot = job("Scarf under house light");
    steady(&mut shot, 60.0, 20.0);
    shot.camera.shutter = "1/8".to_owned();
    shot.lights.push(key(("brix-400", "octa-90"), 2.2, 1.0 / 8.0));
    let mut scarf = part("Scarf", Intent::Dash, 3.0);
    (scarf.streak_share, scarf.reflectance, scarf.drawn_as) = (Some(0.15), 0.6, DrawnAs::Scarf);
    shot.parts = vec![scarf, part("Face", Intent::Pebble, 0.4)];
    assert_eq!(ids(&shot), ["ghost-Face"]);
    let ghost = found(&shot, "ghost-Face");
    assert_eq!(ghost.unanswered.unwrap(), "What would mend it spoils the streak of Scarf.");
    assert!(ghost.cause.contains("the room −3.9"), "{}", ghost.cause);
    // A streak of which nobody said how long it shall be is asked for, and never counts as met.
    shot.parts[0].streak_share = None;
    assert!(ids(&shot).contains(&"dash-asks-Scarf".to_owned()), "{:?}", ids(&shot));
}

/// The culprit is named, and goes out first; where a little is left, it says that it is not all.
#[test]
fn a_modelling_lamp_left_on_goes_out_before_any_dial_is_turned() {
    let mut shot = job("Tumbler");
    (shot.camera.shutter, shot.camera.iso, shot.camera.aperture_f) = ("1/30".to_owned(), 800.0, 5.6);
    let mut head = key(("mallow-600", "octa-90"), 2.2, 1.0 / 32.0);
    let lamp = of_the_kit("lamps", "mallow-model");
    head.modelling = Some(Modelling { lamp, mode: pebble_core::shot::ModellingMode::Full });
    shot.lights.push(head);
    shot.parts.push(part("Tumbler", Intent::Pebble, 4.0));
    let ghost = found(&shot, "ghost-Tumbler");
    assert_eq!(ghost.severity, Severity::Trouble);
    assert!(ghost.cause.ends_with("modelling lamp of A key −2.0, the room −7.8."), "{}", ghost.cause);
    let remedy = &ghost.remedies[0];
    assert_eq!(remedy.label, "modelling lamp of A key off");
    assert!(remedy.partly && remedy.effect.starts_with("not all of it"), "{}", remedy.effect);
    // In a darker hall it is all.
    steady(&mut shot, 0.2, 0.2);
    let remedy = &found(&shot, "ghost-Tumbler").remedies[0];
    assert_eq!((remedy.label.as_str(), remedy.partly), ("modelling lamp of A key off", false));
}

/// Three rows before a wall at f/2.8: the aperture that holds them, and who pays for it.
#[test]
fn three_rows_need_an_aperture_that_flash_or_iso_pays_for() {
    let mut shot = job("Three rows before a wall");
    (shot.subject.depth_m, shot.subject.distance_m) = (2.4, 7.0);
    (shot.camera.aperture_f, shot.camera.iso) = (2.8, 100.0);
    shot.lights.push(light(Role::Key, ("brix-400", "umbrella-110"), (-35.0, 30.0, 4.5), 1.0 / 8.0));
    shot.parts.push(part("Faces", Intent::Pebble, 0.3));
    assert_eq!(ids(&shot), ["depth"]);
    let depth = found(&shot, "depth");
    assert!(depth.title.contains("42 % of the subject's 2.4 m"), "{}", depth.title);
    assert_eq!(offers(&shot, "depth"), ["f/8, power 1/1", "f/8, ISO 800"]);
    assert!(ids(&pressed(&shot, "depth")).is_empty());
}

/// Two dim heads from one side make one right exposure; both half a stop off go together.
#[test]
fn two_keys_from_one_side_add_up_and_turn_together() {
    let mut shot = job("Two keys from one side");
    for bearing in [-35.0, -30.0] {
        shot.lights.push(light(Role::Key, ("brix-400", "umbrella-110"), (bearing, 30.0, 1.95), 1.0 / 16.0));
    }
    shot.parts.push(part("Face", Intent::Pebble, 0.3));
    assert!(ids(&shot).is_empty(), "each at −1, together at 0: {:?}", ids(&shot));
    shot.lights.iter_mut().for_each(|light| light.distance_m = 3.0);
    assert_eq!(ids(&shot), ["exposure"]);
    assert!(offers(&shot, "exposure")[0].starts_with("all lights +1.3 stops"), "{:?}", offers(&shot, "exposure"));
    let mended = pressed(&shot, "exposure");
    assert_eq!(mended.lights[0].power, mended.lights[1].power);
}

/// A burst of a lamp-lit hall: everything that is offered may be pressed one after the other, and ends.
#[test]
fn whatever_is_pressed_first_leads_to_an_end_and_not_round_in_circles() {
    let jobs: [(&str, &str, f64, f64, f64, f64, &str); 8] = [
        // Unit, what it is through, power, distance, speed, lux, shutter.
        ("brix-400", "octa-90", 1.0, 3.0, 6.0, 5.0, "1/250"),
        ("brix-400", "reflector", 0.25, 5.0, 9.0, 40.0, "1/60"),
        ("tern-76", "umbrella-110", 1.0, 2.0, 3.0, 10.0, "1/125"),
        ("mallow-600", "octa-150", 0.5, 3.5, 1.0, 2.0, "1/200"),
        ("kiln-2400", "dish-55", 0.125, 4.0, 4.0, 2.0, "1/125"),
        ("sedge-250", "octa-90", 0.5, 2.5, 5.0, 60.0, "1/30"),
        ("dunlin-500", "box-60-90", 0.25, 2.5, 2.0, 8.0, "1/500"),
        ("lark-1200", "octa-90", 1.0, 4.0, 0.5, 2.0, "1/1000"),
    ];
    for (unit, through, power, distance, speed, lux, shutter) in jobs {
        let mut shot = job(unit);
        steady(&mut shot, lux, lux / 2.0);
        shot.camera.shutter = shutter.to_owned();
        shot.lights.push(key((unit, through), distance, power));
        shot.parts = vec![part("Player", Intent::Pebble, speed), part("Ball", Intent::Skim, speed * 1.5)];
        let (before, (then, left)) = (ids(&shot), pressed_through(&shot));
        // What is left has nothing to offer, and says why.
        for id in &left {
            let finding = found(&then, id);
            assert!(finding.remedies.is_empty(), "{unit}: {} is offered for {id} for ever", finding.remedies[0].label);
            assert!(finding.severity == Severity::Fine || finding.unanswered.is_some(), "{unit}: {id}");
        }
        assert!(left.iter().all(|id| before.contains(id)), "{unit}: {before:?} became {left:?}");
        assert!(left.len() <= before.len(), "{unit}: {before:?} became {left:?}");
    }
}

/// The same faults of the same lights are one finding with their names, and are mended by one press.
#[test]
fn four_equal_lights_that_are_cut_are_one_finding_with_four_names() {
    let mut shot = job("Four at 1/500");
    shot.camera.shutter = "1/500".to_owned();
    for bearing in [-60.0, -25.0, 25.0, 60.0] {
        shot.lights.push(light(Role::Key, ("brix-400", "octa-90"), (bearing, 35.0, 3.0), 1.0 / 8.0));
    }
    shot.parts.push(part("Dancer", Intent::Skim, 1.0));
    let cut = found(&shot, "rows-cut");
    let names = "A key 1, A key 2, A key 3 and A key 4: ";
    assert!(cut.title.starts_with(names), "{}", cut.title);
    let then = pressed(&shot, "rows-cut");
    assert_eq!(then.camera.shutter, "1/250");
    // All of it would be too much: all lights go down by as much as each other.
    let turned = |light: usize| (then.lights[light].power / shot.lights[light].power).log2();
    assert!((1..4).all(|light| (turned(light) - turned(0)).abs() < 1e-9) && turned(0) < -0.3, "{}", turned(0));
    assert!(!ids(&then).contains(&"exposure".to_owned()), "{:?}", ids(&then));
}

/// With no flash in the frame at all there is nothing to be blurred yet, and a shutter that shows something is no worse.
#[test]
fn a_black_frame_is_answered_even_where_what_comes_to_light_is_not_perfect() {
    let mut shot = job("Fencer at 1/8000");
    shot.camera.shutter = "1/8000".to_owned();
    shot.lights.push(key(("brix-400", "octa-90"), 2.2, 1.0 / 8.0));
    shot.parts.push(part("Blade", Intent::Pebble, 12.0));
    assert_eq!(found(&shot, "rows-cut").title, "No flash in the frame");
    for id in ["rows-cut", "exposure"] {
        let remedy = &found(&shot, id).remedies[0];
        // From nothing it goes up by no number of stops.
        assert_eq!((remedy.label.as_str(), remedy.effect.as_str()), ("1/250", "exposure at +0.2"));
    }
    let (then, left) = pressed_through(&shot);
    assert!(left.is_empty(), "{left:?}");
    assert_eq!(then.camera.shutter, "1/250");
}
