//! The set in space, as geometry: shadows, ways, flags, sheets, what the lens sees. Figures that were computed apart.

use crate::common::{examples, plan, shot};
use pebble_core::output::{Beam, Face};
use pebble_core::quantity::{Angle, Metres};
use pebble_core::shot::Role;
use pebble_core::stage::field::{CHEST, Lamp};
use pebble_core::stage::flag::flag_for;
use pebble_core::stage::framing::View;
use pebble_core::stage::lens::{Held, Lens};
use pebble_core::stage::path::{Path, WITHIN};
use pebble_core::stage::region::Region;
use pebble_core::stage::shadow::{Capsule, shadows};
use pebble_core::stage::sheet::{Sheet, lit};
use pebble_core::stage::space::{Spot, spot};
use proptest::prelude::*;

#[track_caller]
fn near(a: f64, b: f64, within: f64) {
    assert!((a - b).abs() <= within, "{a} is not {b}");
}

fn bare(strength: f64, at: Spot, half_deg: f64) -> Lamp {
    let beam = Beam::new(Some(Angle::from_degrees(half_deg)), None);
    Lamp { strength, face: Face::default(), beam, at, turned: None }
}

/// 50 mm on 36 × 24 mm, 1.4 m up, five metres off, looking at 1.2 m over the mark.
fn lens(behind: f64) -> Lens {
    let distance = 25.04_f64.sqrt();
    let view = View::of(Metres::from_metres(distance), Metres::from_metres(1.4), Metres::from_metres(1.2), None);
    let per_metre = (distance - 0.05) / 0.05;
    Lens { view, half: (0.018 * per_metre, 0.012 * per_metre), focal: (0.05, 0.2), behind, figure: true }
}

#[test]
fn a_hard_light_from_high_left_throws_a_shadow_on_wall_and_floor() {
    let shines = |strength, x, y, z| bare(strength, spot(x, y, z), 60.0).shining();
    let lamps = [(shines(900.0, -2.0, -2.0, 2.4), 1.0), (shines(200.0, 0.5, -5.0, 1.8), 1.0)];
    let steady = 80.0 / 16.0;
    let found = shadows(&lens(1.0), Capsule { high: 1.8, wide: 0.5 }, &lamps, steady);
    let (wall, floor) = (found[0].behind.expect("on the wall"), found[0].floor.expect("on the floor"));
    near(wall.of_frame, 0.12287, 0.01);
    near(floor.of_frame, 0.0176852, 0.01);
    // Steady light and the other lamp are left there.
    assert!((0.05..0.4).contains(&wall.left) && (0.05..0.4).contains(&floor.left), "{found:?}");
    // With nothing else it is black.
    let alone = shadows(&lens(1.0), Capsule { high: 1.8, wide: 0.5 }, &lamps[..1], 0.0);
    near(alone[0].behind.expect("on the wall").left, 0.0, 1e-12);
}

#[test]
fn a_light_at_the_lens_hides_its_own_shadow() {
    let at = lens(1.0).view.eye;
    let found = shadows(&lens(1.0), Capsule { high: 1.8, wide: 0.5 }, &[(bare(900.0, at, 60.0).shining(), 1.0)], 1.0);
    assert!(found[0].behind.is_none() && found[0].floor.is_none(), "{found:?}");
}

#[test]
fn a_runner_past_a_light_at_three_metres_a_second() {
    let lamp = bare(900.0, spot(-1.5, -2.5, 2.0), 60.0);
    let way = Path { from: spot(-4.0, 0.5, 1.3), to: spot(4.0, -0.5, 1.3), speed: 3.0, camera_goes_along: false };
    let found = way.along(|place| lamp.on(place), 33);
    near(found.change, 2.47618, 0.03);
    near(found.steepest, 1.18538, 0.02);
    let (from, to) = found.press.expect("somewhere");
    near(from, 1.92748, 0.03);
    near(to, 4.72743, 0.05);
    near((to - from) / way.speed, 0.933314, 0.01);
    assert_eq!(found.stops.len(), 33);
}

/// Five metres off, the sheet two behind: half the frame spans 19.8°. Panned by 11.3° to a metre beside the mark, its edge is
/// at 7·tan 31.1° beside the middle.
#[test]
fn a_camera_that_follows_asks_for_a_wider_sheet() {
    let lens = lens(2.0);
    let straight = Sheet { behind: 2.0, wide: 0.0, high: 9.0 }.lacks(&lens).width;
    let sheet = Sheet { behind: 2.0, wide: straight, high: 9.0 };
    assert_eq!(sheet.lacks(&lens).width, 0.0);
    let eye = lens.view.eye;
    let edge = (straight / 2.0 / (2.0 - eye.y)).atan();
    let pan = (1.0 / -eye.y).atan();
    let wants = 2.0 * (2.0 - eye.y) * (pan + edge).tan() - straight;
    let lacks = sheet.lacks_followed(&lens, &[(1.0, 0.0), (0.2, 0.0)]);
    near(lacks, wants, 0.02);
    near(sheet.lacks_followed(&lens, &[(-1.0, 0.0)]), lacks, 1e-9);
    near(sheet.lacks_followed(&lens, &[(0.0, 0.5)]), 0.0, 1e-9);
    // Beside itself the camera sees no sheet.
    assert!(sheet.lacks_followed(&lens, &[(3.0, eye.y)]).is_infinite());
}

proptest! {
    /// The stretch in which to press is one: at its ends, where they are not those of the way, a third of a stop is lost.
    #[test]
    fn where_to_press_is_within_a_third(x in -4.0..4.0_f64, y in -4.0..-0.5_f64, z in 1.0..4.0_f64, turn in 0.0..6.2_f64) {
        let lamp = bare(900.0, spot(x, y, z), 60.0);
        let way = Path { from: spot(-4.0 * turn.cos(), -4.0 * turn.sin(), 1.3), to: spot(4.0 * turn.cos(), 4.0 * turn.sin(), 1.3), speed: 4.0, camera_goes_along: false };
        let stops = |metres: f64| (lamp.on(way.at(metres)) / lamp.on(CHEST)).log2();
        let found = way.along(|place| lamp.on(place), 9);
        // It goes over the mark, where the light is what it is.
        let (from, to) = found.press.expect("at the mark");
        prop_assert!(from < to);
        for k in 0..=20 {
            prop_assert!(stops(from + (to - from) * f64::from(k) / 20.0).abs() <= WITHIN + 1e-6);
        }
        for (end, edge) in [(from, 0.0), (to, way.length())] {
            prop_assert!(end == edge || (stops(end).abs() - WITHIN).abs() < 1e-6, "{end} of {}", way.length());
        }
    }

    /// One far light is even, and turning the whole set about the mark changes nothing of it.
    #[test]
    fn a_far_light_is_even_and_a_turned_set_is_the_same(bearing in 0.0..6.2_f64, turn in 0.0..6.2_f64) {
        let region = Region::between((-0.6, 0.6), (-0.6, 0.6), (1.3, 1.3));
        let at = |way: f64, far: f64| spot(far * way.sin(), -far * way.cos(), 2.0);
        let spread = |far: f64| { let lamp = bare(900.0, at(bearing, far), 60.0); region.evenness(|place| lamp.on(place)).spread };
        prop_assert!(spread(40.0) < 0.15 && spread(400.0) < spread(40.0));
        let (one, other) = (bare(900.0, at(bearing, 3.0), 60.0), bare(900.0, at(bearing + turn, 3.0), 60.0));
        let place = |way: f64| spot(0.7 * way.sin(), -0.7 * way.cos(), 1.1);
        let (a, b) = (one.on(place(0.3)), other.on(place(0.3 + turn)));
        prop_assert!((a / b - 1.0).abs() < 1e-9);
    }

    /// A move that clears a light clears it, and a tenth less does not.
    #[test]
    fn a_clearing_move_is_the_smallest(x in -3.0..3.0_f64, y in -3.5..0.9_f64, z in 0.8..2.6_f64, radius in 0.0..0.5_f64) {
        let (lens, at) = (lens(1.0), spot(x, y, z));
        prop_assume!(lens.shows(at, Held { radius, boom: None }).any());
        for way in lens.moves(at, Held { radius, boom: None }) {
            prop_assert!(!lens.shows(way.to, Held { radius, boom: None }).any(), "{way:?}");
            let toward = way.to - at;
            let less = at + toward * ((way.by - 0.1) / way.by);
            // Within a hand's breadth of the edge, or inside it.
            let out = (0..=20).map(|k| lens.beyond(spot(less.x, less.y, less.z * f64::from(k) / 20.0))).fold(f64::INFINITY, f64::min);
            prop_assert!(out < 0.1 + radius, "{way:?} {out}");
        }
    }

    /// A flag keeps the whole face out of the lens, takes nothing from the subject, and is not seen.
    #[test]
    fn a_flag_shades_the_lens_and_nobody_else(x in -3.0..3.0_f64, y in 0.3..2.5_f64, z in 1.8..3.2_f64, radius in 0.0..0.3_f64) {
        let (lens, lamp) = (lens(4.0), bare(900.0, spot(x, y, z), 60.0));
        if let Some(flag) = flag_for(&lens, &lamp, radius, &[CHEST]) {
            prop_assert!(flag.shades(&lamp, radius, lens.view.eye));
            prop_assert!(!flag.takes_from(&lamp, radius, lens.view.eye, CHEST));
            prop_assert!(lens.beyond(flag.at) > 0.0 || lens.hides(flag.at));
            prop_assert!((flag.at - lamp.at).length() < (lens.view.eye - lamp.at).length());
        }
    }
}

/// High over the frame a stand is seen and a head is not: on a boom nothing is.
#[test]
fn a_boom_takes_the_stand_out_of_the_picture() {
    let (lens, at) = (lens(4.0), spot(-0.8, -0.8, 2.9));
    let on = |boom| lens.shows(at, Held { radius: 0.3, boom });
    assert!(!on(None).face && on(None).stand);
    assert!(!on(Some(3.5)).any(), "{:?}", on(Some(3.5)));
    assert_eq!(lens.shows(spot(-0.8, -0.8, 1.6), Held { radius: 0.3, boom: Some(3.0) }).words(), ["face", "boom"]);
}

#[test]
fn a_rim_from_high_behind_has_its_flag() {
    let (lens, lamp) = (lens(4.0), bare(900.0, spot(2.7, 1.6, 2.6), 50.0));
    assert!(lens.looks_into(&lamp));
    let flag = flag_for(&lens, &lamp, 0.1, &[CHEST]).expect("there is room");
    assert!(flag.wide < 1.0 && flag.high < 1.0, "{flag:?}");
}

#[test]
fn a_sheet_is_the_darker_the_farther_it_hangs() {
    let lamps = [(bare(900.0, spot(-1.5, -1.5, 2.3), 60.0).shining(), 1.0)];
    let at = |behind: f64| lit(&lens(behind), behind, None, &lamps).expect("in the frame");
    let ((near_dark, near_bright), (far_dark, far_bright)) = (at(1.0), at(4.0));
    assert!(near_dark < near_bright && far_dark < near_dark && far_bright < near_bright / 3.0);
    // A sheet no wider than a door is lit like its middle.
    let (low, high) = lit(&lens(2.0), 2.0, Some((0.05, 2.4)), &lamps).expect("in the frame");
    let (all_low, all_high) = at(2.0);
    assert!(low >= all_low - 1e-9 && high <= all_high + 1e-9);
    let sheet = Sheet { behind: 4.0, wide: 6.0, high: 6.0 };
    let fills = sheet.fills_from(&lens(4.0)).expect("nearer");
    assert!(Sheet { behind: fills, ..sheet }.lacks(&lens(fills)).nothing());
    assert!(!Sheet { behind: fills + 0.1, ..sheet }.lacks(&lens(fills + 0.1)).nothing());
}

/// What findings say of a light in the picture is what the set says of it, in every example and with lights carried into it.
#[test]
fn what_stands_in_the_picture_is_a_finding_with_the_move_that_clears_it() {
    use pebble_core::findings::judge;
    use pebble_core::outlook;
    let mut shots = examples();
    let mut inside = shot();
    (inside.lights[0].bearing_deg, inside.lights[0].distance_m) = (-20.0, 2.0);
    shots.push(inside);
    let mut seen = 0;
    for shot in shots {
        let (plan, lens) = (plan(&shot), plan(&shot).lens());
        let findings = judge(&plan, &outlook(&plan));
        let shows = plan.lights.iter().enumerate().any(|(index, light)| {
            let at = outlook(&plan).lamp(&plan, index).at;
            light.on
                && light.role != Role::InSet
                && light.bounce.is_none()
                && lens.shows(at, Held { radius: light.throw.face.radius.as_metres(), boom: light.boom }).any()
        });
        let said = findings.iter().find(|finding| finding.id.starts_with("in-frame"));
        assert_eq!(said.is_some(), shows, "{}", shot.title);
        seen += usize::from(shows);
    }
    assert!(seen > 0);
}

proptest! {
    /// Whatever of a light is seen is found: what stands beside the frame is passed over only where nothing of it can be.
    #[test]
    fn nothing_that_is_seen_is_passed_over(
        x in -6.0..6.0_f64, y in -6.0..3.9_f64, z in 0.0..5.0_f64, boom in prop::option::of(0.3..5.0_f64),
    ) {
        let (lens, at) = (lens(4.0), spot(x, y, z));
        let shown = lens.shows(at, Held { radius: 0.3, boom });
        let back = boom.unwrap_or(0.0) / x.hypot(y).max(1e-9);
        let top = spot(x * (1.0 + back), y * (1.0 + back), z);
        let seen = |place: Spot| lens.beyond(place) < 0.0 && !lens.hides(place);
        if seen(at) {
            prop_assert!(shown.face);
        }
        // The same places along stand and arm as the rule looks at.
        let along = |from: Spot, to: Spot| (0..=16).any(|k| seen(from.toward(to, f64::from(k) / 16.0)));
        if along(spot(top.x, top.y, 0.0), top) {
            prop_assert!(shown.stand, "{shown:?}");
        }
    }
}
