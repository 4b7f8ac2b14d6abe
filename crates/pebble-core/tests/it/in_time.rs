//! Movement in time: exact integrals against stepping, and what the forecast says of phases.

use crate::common::{applied, plan, shot};
use pebble_core::file::movement::{Phase as Wire, WhenTaken};
use pebble_core::findings::judge;
use pebble_core::lanes::{lanes, reaction};
use pebble_core::matching::{Brief, Going, Priority, Stock, find, rows};
use pebble_core::outlook;
use pebble_core::physics::phases::{ActionWindow, Peak, Phase, Phases, at_least_once, erf, flash_after_end};
use pebble_core::quantity::{Metres, Seconds};
use pebble_core::shot::{Intent, Movement, Shot};
use proptest::prelude::*;

/// Seconds.
const fn s(seconds: f64) -> Seconds {
    Seconds::from_secs(seconds)
}

/// Metres.
const fn m(metres: f64) -> Metres {
    Metres::from_metres(metres)
}

fn near(a: f64, b: f64, within: f64) {
    assert!((a - b).abs() <= within, "{a} is not {b}");
}

/// Computed apart from this by stepping: 0.2 s of rest, then 0.4 s at 4 m/s; open from 0.15 s on for 0.2 s.
#[test]
fn a_pause_and_then_an_even_dash() {
    let movement = Phases::of(&[Phase::rest(s(0.2)), Phase::line(4.0, 4.0, s(0.4))]).expect("two phases");
    let (opens, closes) = (s(0.15), s(0.35));
    near(movement.place(opens + s(0.19)), 0.56, 0.006);
    near(movement.speed(opens + s(0.19)), 4.0, 0.006);
    let pauses = movement.pauses(opens, closes);
    near(pauses.at_start, 0.25, 1e-3);
    near(pauses.at_end, 0.0, 1e-9);
    near(movement.way(opens, closes).as_metres(), 0.6, 1e-3);
    for (place, dwell) in [(-0.02, 0.25625), (0.3, 0.0625), (0.5, 0.0625)] {
        near(movement.dwell((opens, closes), m(0.05), place), dwell, 1e-3);
    }
}

/// A turn of 0.45 s before the landing wobbles at 0.8 s; 0.6 s with rear sync and a pulse of 3.1 ms.
#[test]
fn the_window_of_a_whole_action() {
    let window = ActionWindow::of(s(0.45), s(0.8), s(0.05));
    near(window.shortest.as_secs(), 0.55, 1e-9);
    near(window.longest.as_secs(), 0.8, 1e-9);
    assert!(window.is_possible() && window.fits(s(0.6)) && !window.fits(s(0.5)) && !window.fits(s(1.0)));
    near(flash_after_end(s(0.6 - 0.0031), s(0.45), s(0.05)).as_secs(), 0.0968, 1e-3);
    assert!(!ActionWindow::of(s(0.45), s(0.5), s(0.05)).is_possible());
}

/// A jump of 0.5 m, slow enough at 0.6 m/s, pressed within 0.05 s, or at 8 frames a second.
#[test]
fn chances_at_the_top_of_a_jump() {
    let peak = Peak::of(m(0.5), 0.6, s(0.05), 8.0);
    near(peak.air.as_secs(), 0.638_551, 1e-3);
    near(peak.window.as_secs(), 0.122_324, 1e-3);
    near(peak.one, 0.778_765, 3e-3);
    near(peak.burst, 0.979, 3e-3);
    // It is in the air for no longer than it is, however fast is slow enough.
    near(Peak::of(m(0.05), 50.0, s(0.05), 8.0).window.as_secs(), 0.201_927, 1e-4);
}

fn any_phase() -> impl Strategy<Value = Phase> {
    prop_oneof![
        (0.01..0.6_f64).prop_map(|time| Phase::rest(s(time))),
        (-6.0..6.0_f64, -6.0..6.0_f64, 0.02..0.5_f64).prop_map(|(from, to, time)| Phase::line(from, to, s(time))),
        (0.05..1.0_f64, -4.0..4.0_f64, 0.05..0.5_f64).prop_map(|(radius, angle, time)| Phase::arc(
            m(radius),
            angle,
            s(time)
        )),
        (0.05..1.5_f64).prop_map(|height| Phase::fall(m(height))),
        (0.05..0.8_f64).prop_map(|height| Phase::jump(m(height))),
        (0.02..0.4_f64, 0.3..8.0_f64, 0.05..1.5_f64).prop_map(|(to, rate, time)| Phase::to_and_fro(
            m(to),
            rate,
            s(time)
        )),
    ]
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(48))]
    /// Places, ways, reaches and dwells are those of ten thousand small steps.
    #[test]
    fn integrals_are_those_of_stepping(
        list in prop::collection::vec(any_phase(), 1..6),
        opens in -0.2..0.8_f64, time in 0.02..1.5_f64, width in 0.02..0.3_f64, at in 0.0..1.0_f64,
    ) {
        let movement = Phases::of(&list).unwrap();
        let (from, to) = (s(opens), s(opens + time));
        const STEPS: usize = 10_000;
        let place = |step: usize| movement.place(s(opens + time * step as f64 / STEPS as f64));
        let (mut way, mut low, mut high) = (0.0, f64::INFINITY, f64::NEG_INFINITY);
        let mut before = place(0);
        for step in 0..=STEPS {
            let now = place(step);
            (low, high) = (low.min(now), high.max(now));
            way += (now - before).abs();
            before = now;
        }
        let reach = movement.reach(from, to);
        prop_assert!((reach.0 - low).abs() < 2e-3 && (reach.1 - high).abs() < 2e-3, "{:?} {} {}", reach, low, high);
        prop_assert!((movement.way(from, to).as_metres() - way).abs() < 2e-3 * (1.0 + way));
        let ask = low + (high - low) * at;
        let inside = (0..STEPS).filter(|step| (place(*step) - ask).abs() <= 0.5 * width).count();
        let dwell = movement.dwell((from, to), m(width), ask);
        prop_assert!((dwell - inside as f64 / STEPS as f64).abs() < 2e-3, "{} {}", dwell, inside);
        // Speeds are the slope of the places, away from where one phase meets the next.
        let when = opens + time * at;
        let meets = movement.begins().any(|begin| (begin.as_secs() - when).abs() < 1e-4);
        if !meets {
            let slope = (movement.place(s(when + 1e-6)) - movement.place(s(when - 1e-6))) / 2e-6;
            prop_assert!((movement.speed(s(when)) - slope).abs() < 1e-2, "{} {}", movement.speed(s(when)), slope);
        }
        // Nothing is covered for longer than the whole exposure, and the strongest is never less than an even streak.
        let strongest = movement.strongest((from, to), m(width), None);
        prop_assert!(strongest <= 1.0 + 1e-9 && strongest + 1e-9 >= 0.0);
    }

    #[test]
    fn the_error_function_is_the_one_of_the_tables(x in -6.0..6.0_f64) {
        // By Simpson's rule over the density.
        let steps = 2000;
        let f = |t: f64| (-t * t).exp() * 2.0 / std::f64::consts::PI.sqrt();
        let h = x / steps as f64;
        let sum: f64 = (0..steps).map(|k| {
            let t = k as f64 * h;
            (f(t) + 4.0 * f(t + 0.5 * h) + f(t + h)) * h / 6.0
        }).sum();
        prop_assert!((erf(x) - sum).abs() < 1e-9, "{} {}", erf(x), sum);
    }
}

#[test]
fn tries_add_up() {
    near(at_least_once(0.5, 1), 0.5, 1e-12);
    near(at_least_once(0.5, 3), 0.875, 1e-12);
    near(at_least_once(1.0, 7), 1.0, 1e-12);
}

/// The ropes of the demo shot with a movement in time.
fn timed(phases: Vec<Wire>, opens_at_s: f64, shutter: &str) -> Shot {
    let mut shot = shot();
    shot.camera.shutter = shutter.to_owned();
    shot.parts[2].phases = phases;
    shot.moment = Some(WhenTaken { opens_at_s, ..WhenTaken::default() });
    shot
}

fn line(from_m_s: f64, to_m_s: f64, seconds: f64) -> Wire {
    Wire::Line { from_m_s, to_m_s, seconds: Some(seconds), metres: None }
}

#[test]
fn an_endless_line_and_the_same_line_in_time_are_one() {
    let before = outlook(&plan(&shot()));
    let after = outlook(&plan(&timed(vec![line(11.0, 11.0, 2.0)], 0.5, "1/60")));
    let (a, b) = (&before.parts[2], &after.parts[2]);
    near(a.streak.as_metres(), b.streak.as_metres(), 1e-12);
    near(a.flash_blur.as_metres(), b.flash_blur.as_metres(), 1e-12);
    near(a.ghost.dwell, b.ghost.dwell, 1e-9);
    near(a.blur.as_metres(), b.blur.as_metres(), 1e-12);
}

#[test]
fn a_pause_stands_as_a_ghost_of_its_share() {
    // 1/4 is 2^(−12/6) s; the last quarter of it is rest, and the flash fires at its beginning.
    let phases = vec![line(8.0, 8.0, 0.1875)];
    let seen = outlook(&plan(&timed(phases, 0.0, "1/4")));
    let part = &seen.parts[2];
    near(part.pauses.expect("it has phases").at_end, 0.25, 1e-9);
    near(part.ghost.dwell, 0.25, 0.02);
    // Where the flash finds it at rest, that pause is under the frozen picture and no ghost beside it.
    let before = vec![Wire::Rest { seconds: 0.0625 }, line(8.0, 8.0, 1.0)];
    let under = outlook(&plan(&timed(before, 0.0, "1/4")));
    near(under.parts[2].pauses.expect("it has phases").at_start, 0.25, 1e-9);
    assert!(under.parts[2].ghost.dwell < 0.05, "{}", under.parts[2].ghost.dwell);
    let even = outlook(&plan(&timed(vec![line(8.0, 8.0, 1.0)], 0.0, "1/4")));
    assert!(even.parts[2].ghost.dwell < 0.05, "{}", even.parts[2].ghost.dwell);
    assert!(part.ghost.delta_lightness.abs() > even.parts[2].ghost.delta_lightness.abs());
}

#[test]
fn the_flash_sees_the_speed_of_its_own_instant() {
    // At the top of a jump nothing moves; a tenth of a second later it falls with a tenth of g.
    let air = 2.0 * (2.0 * 0.5 / 9.806_65_f64).sqrt();
    let jump = |opens: f64| {
        let mut shot = shot();
        shot.parts[1].direction_deg = 90.0;
        shot.parts[1].phases = vec![Wire::Jump { height_m: 0.5 }];
        shot.moment = Some(WhenTaken { opens_at_s: opens, ..WhenTaken::default() });
        let plan = plan(&shot);
        let seen = outlook(&plan);
        let fires = seen.lights[0].ignition.at.as_secs();
        (seen.parts[1].motion.own.as_metres_per_second() / seen.magnification, fires)
    };
    let (_, fires) = jump(0.1);
    near(jump(0.5 * air - fires).0, 0.0, 1e-6);
    near(jump(0.5 * air - fires + 0.1).0, 0.980_665, 1e-4);
}

#[test]
fn a_streak_can_be_told_in_three_ways() {
    let share = |change: &dyn Fn(&mut Shot)| {
        let mut shot = timed(vec![line(8.0, 8.0, 0.1)], 0.0, "1/4");
        shot.parts[2].streak_share = None;
        change(&mut shot);
        let plan = plan(&shot);
        assert_eq!(plan.parts[2].intent, Intent::Dash);
        (plan.wanted_streak(&plan.parts[2]).expect("a wish"), outlook(&plan).parts[2].streak_share)
    };
    near(share(&|shot| shot.parts[2].streak_share = Some(0.3)).0, 0.3, 1e-12);
    // 0.8 m at 35 mm and 4.5 m on 36 mm: 0.8·0.035/(4.5−0.035)/0.036.
    near(share(&|shot| shot.parts[2].streak_m = Some(0.8)).0, 0.174_194, 1e-5);
    let (whole, drawn) = share(&|shot| shot.parts[2].streak_whole = true);
    near(whole, 0.174_194, 1e-5);
    near(drawn, whole, 1e-9);
}

#[test]
fn contradictions_are_said_at_their_field() {
    let refused = |phases: Vec<Wire>, change: &dyn Fn(&mut Shot)| {
        let mut shot = timed(phases, 0.0, "1/60");
        change(&mut shot);
        pebble_core::Plan::try_from(&shot).expect_err("it cannot be").to_string()
    };
    let none: &dyn Fn(&mut Shot) = &|_| {};
    let opens: &dyn Fn(&mut Shot) = &|shot| shot.moment.as_mut().unwrap().opens_at_s = 3.0;
    let both: &dyn Fn(&mut Shot) = &|shot| shot.parts[2].streak_m = Some(1.0);
    let whole: &dyn Fn(&mut Shot) = &|shot| {
        shot.parts[2].streak_share = None;
        shot.parts[2].streak_whole = true;
        shot.parts[2].phases.clear();
    };
    let next: &dyn Fn(&mut Shot) = &|shot| {
        let moment = shot.moment.as_mut().unwrap();
        (moment.action_s, moment.next_s) = (Some(1.0), Some(0.5));
    };
    for (phases, change, words) in [
        (vec![line(4.0, 4.0, 0.5)], opens, "it is over: open earlier"),
        (vec![Wire::Arc { radius_m: 0.0, from_deg: 0.0, to_deg: 90.0, seconds: 0.2 }], none, "radius of an arc"),
        (vec![Wire::Fall { height_m: 1.0 }], none, "what falls goes down"),
        (vec![line(400.0, 4.0, 0.5)], none, "between -100 and 100"),
        (vec![Wire::Line { from_m_s: -1.0, to_m_s: 1.0, seconds: None, metres: Some(1.0) }], none, "gets nowhere"),
        (vec![Wire::Line { from_m_s: 1.0, to_m_s: 1.0, seconds: None, metres: None }], none, "a time, or a way"),
        (vec![Wire::Rest { seconds: 0.0 }], none, "time of a phase"),
        (vec![line(1.0, 1.0, 0.1); 9], none, "at most 8 phases"),
        (vec![line(1.0, 1.0, 0.1)], both, "one of them"),
        (Vec::new(), whole, "its movement has no end"),
        (vec![line(1.0, 1.0, 0.1)], next, "what comes next begins after it"),
    ] {
        let said = refused(phases, change);
        assert!(said.contains(words), "{said}");
    }
}

#[test]
fn a_shutter_that_misses_an_action_is_told_and_mended() {
    let at = |shutter: &str, action: f64, next: Option<f64>| {
        let mut shot = timed(Vec::new(), 0.0, shutter);
        shot.ambient.subject = pebble_core::shot::Reading::Lux { lux: 0.5 };
        shot.ambient.background = pebble_core::shot::Reading::Lux { lux: 0.5 };
        shot.parts.truncate(1);
        let moment = shot.moment.as_mut().unwrap();
        (moment.action_s, moment.next_s) = (Some(action), next);
        shot
    };
    let finding = |shot: &Shot| {
        let plan = plan(shot);
        judge(&plan, &outlook(&plan)).into_iter().find(|finding| finding.id == "action")
    };
    for (shutter, words) in [("1/4", "misses the end"), ("2", "catches what comes after")] {
        let shot = at(shutter, 0.45, Some(0.8));
        let found = finding(&shot).expect("it does not fit");
        assert!(found.title.contains(words), "{}", found.title);
        let remedy = found.remedies.first().expect("another time does");
        let mended = applied(&shot, &remedy.changes);
        assert!(finding(&mended).is_none(), "{} does not mend it", remedy.label);
        let said = lanes(&plan(&shot), None).expect("lanes").action.expect("an action");
        assert!(!said.fits && said.possible && said.says.contains(words.split(' ').next().unwrap()), "{}", said.says);
    }
    assert!(finding(&at("0.6", 0.45, Some(0.8))).is_none());
    let none = finding(&at("0.6", 0.45, Some(0.5))).expect("nothing fits");
    assert!(none.remedies.is_empty() && none.unanswered.is_some_and(|why| why.contains("a steadier press")));
}

#[test]
fn a_camera_that_follows_a_part_holds_it_and_draws_the_world() {
    let follow = |follows: Option<&str>, wanted: Option<bool>| {
        let mut shot = shot();
        (shot.parts[0].speed_m_s, shot.parts[0].direction_deg) = (5.0, 0.0);
        (shot.parts[1].speed_m_s, shot.parts[1].direction_deg) = (8.0, 0.0);
        shot.ambient.background = pebble_core::shot::Reading::Lux { lux: 900.0 };
        shot.camera.movement = Some(Movement { follows: follows.map(str::to_owned), wanted, ..Movement::default() });
        let plan = plan(&shot);
        (outlook(&plan), judge(&plan, &outlook(&plan)))
    };
    let (still, _) = follow(None, None);
    let (seen, _) = follow(Some("Face"), None);
    near(seen.parts[0].motion.own.as_metres_per_second(), 0.0, 1e-12);
    // 8 − 5 m/s is left of the shoes, and the world goes by at 5.
    let m = seen.magnification;
    near(seen.parts[1].motion.own.as_metres_per_second() / m, 3.0, 1e-9);
    near(seen.camera.pan.as_metres_per_second() / m, 5.0, 1e-9);
    assert!(still.camera.background_travel.as_metres() == 0.0 && seen.camera.background_travel.as_metres() > 0.0);
    let said = |wanted| follow(Some("Face"), wanted).1.iter().any(|finding| finding.id == "world");
    assert!(said(Some(false)) && !said(Some(true)) && !said(None));
    let mut shot = shot();
    shot.camera.movement = Some(Movement { follows: Some("Tail".to_owned()), ..Movement::default() });
    let why = pebble_core::Plan::try_from(&shot).expect_err("nobody has one").to_string();
    assert!(why.contains("the name of a part of the shot"), "{why}");
}

#[test]
fn presses_say_how_somebody_presses() {
    let said = reaction(&[0.2, 0.3, 0.25, 0.25]).expect("four presses");
    near(said.reaction_s, 0.25, 1e-12);
    // √((0.0025 + 0.0025)/3)
    near(said.spread_s, 0.040_825, 1e-6);
    assert!(reaction(&[0.2, 0.2]).is_err() && reaction(&[0.01; 6]).is_err() && reaction(&[f64::NAN; 6]).is_err());
}

/// What matching finds for a shot whose parts move in time holds in the forecast of the whole shot.
#[test]
fn set_ups_for_a_movement_in_time_are_those_that_the_forecast_bears_out() {
    let kit = serde_json::from_str(include_str!("../../../../docs/examples/kit.json")).expect("a kit");
    let stock = Stock::of_kit(&kit).expect("a stock");
    for (phases, opens) in [
        (vec![Wire::Jump { height_m: 0.4 }], 0.25),
        (vec![Wire::Rest { seconds: 0.1 }, line(0.0, 6.0, 0.3), line(6.0, 0.0, 0.3)], 0.2),
        (vec![Wire::ToAndFro { amplitude_m: 0.3, rate_hz: 1.5, seconds: 3.0 }], 0.4),
    ] {
        let mut shot = shot();
        shot.parts.truncate(2);
        shot.parts[1].direction_deg = 90.0;
        shot.parts[1].phases = phases;
        shot.moment = Some(WhenTaken { opens_at_s: opens, ..WhenTaken::default() });
        let plan = plan(&shot);
        let brief = Brief::new(&shot, &plan).expect("a wish");
        let found = find(&brief, &stock, Priority::Balanced, &Going::default()).expect("nobody stopped it");
        assert!(!found.is_empty());
        for row in rows(&brief, &stock, &found[..found.len().min(12)]) {
            let set = pebble_core::matching::applied(&shot, &stock, &row.setup).expect("it can be set");
            let set = pebble_core::Plan::try_from(&set).expect("a plan");
            let blurred = judge(&set, &outlook(&set)).into_iter().filter(|one| one.id.starts_with("blur-")).count();
            assert_eq!(blurred, 0, "{} {}", row.title, row.how);
        }
    }
}

#[test]
fn a_part_in_time_streaks_no_longer_than_it_moves() {
    // However long the shutter is open: the movement is over after 0.2 s and 0.8 m.
    let share = |shutter: &str| outlook(&plan(&timed(vec![line(4.0, 4.0, 0.2)], 0.0, shutter))).parts[2].streak_share;
    let lasting = share("1");
    near(share("2"), lasting, 1e-12);
    assert!(share("1/60") < 0.2 * lasting);
    // And a shutter for a wanted length is found within it, or is none.
    let shot = timed(vec![line(4.0, 4.0, 0.2)], 0.0, "1/60");
    let seen = outlook(&plan(&shot));
    let motion = seen.parts[2].motion;
    let half = motion.time_of(motion.moved(s(0.1)));
    near(half.as_secs(), 0.1, 1e-5);
    assert!(motion.time_of(motion.moved(s(1.0)) * 2.0).as_secs().is_infinite());
}
