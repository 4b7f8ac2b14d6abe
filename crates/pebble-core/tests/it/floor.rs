//! The set in space: worked cases, and what the floor says of a shot.

use crate::common::{examples, plan, shot};
use pebble_core::file::floor::{Area, BackSheet, Flag};
use pebble_core::findings::{self, Severity};
use pebble_core::floor::{CarriedTo, FloorAnswer, FloorAsk, LightOf, floor};
use pebble_core::outlook;
use pebble_core::output::{Beam, Face};
use pebble_core::quantity::{Angle, Metres};
use pebble_core::shot::{Flash, Role, Shot};
use pebble_core::stage::field::{CHEST, Lamp, clock, edge_of, placed, set_so};
use pebble_core::stage::region::Region;
use pebble_core::stage::space::{Spot, spot};
use pebble_core::stage::tape::{ballast, tape, taped};
use proptest::prelude::*;

#[track_caller]
fn near(a: f64, b: f64, within: f64) {
    assert!((a - b).abs() <= within, "{a} is not {b}");
}

fn bare(strength: f64, at: Spot, half_deg: f64) -> Lamp {
    let beam = Beam::new(Some(Angle::from_degrees(half_deg)), None);
    Lamp { strength, face: Face::default(), beam, at, turned: None }
}

/// A soft key at a few places, turned to it and by the camera's dome: computed apart from this, in stops.
#[test]
fn a_soft_key_at_a_few_places() {
    let lamp = Lamp {
        strength: 900.0 * 0.25 * 2f64.powf(-1.5),
        face: Face { radius: Metres::from_metres(0.45), offset: Metres::from_metres(0.1) },
        beam: Beam::new(Some(Angle::from_degrees(55.0)), None),
        at: spot(-1.6, -1.4, 2.2),
        turned: None,
    };
    let camera = spot(0.0, -5.0, 1.4);
    let places = [spot(0.0, 0.0, 1.3), spot(0.8, 0.3, 1.6), spot(-0.5, 1.0, 0.2)];
    let turned = places.map(|place| lamp.on(place).log2());
    let dome = places.map(|place| lamp.on_dome(place, camera).log2());
    for (index, (far, angle)) in [(2.30868, 0.0), (3.00167, 12.7128), (3.3121, 25.1794)].into_iter().enumerate() {
        near((places[index] - lamp.at).length(), far, 1e-3);
        near(lamp.off_axis(places[index]).as_radians().to_degrees(), angle, 0.03);
    }
    // −2.03773, −2.79254, −3.19757 turned to it; −2.34702, −3.05147, −3.35024 by the dome.
    near(turned[1] - turned[0], -2.79254 + 2.03773, 0.03);
    near(turned[2] - turned[0], -3.19757 + 2.03773, 0.03);
    near(dome[0] - turned[0], -2.34702 + 2.03773, 0.03);
    near(dome[1] - turned[0], -3.05147 + 2.03773, 0.03);
    near(dome[2] - turned[0], -3.35024 + 2.03773, 0.03);
}

#[test]
fn the_circle_that_a_bare_reflector_lights() {
    let beam = Beam::new(Some(Angle::from_degrees(32.0)), None);
    near(edge_of(&beam, 1.0).as_radians().to_degrees(), 32.0, 0.01);
    near(edge_of(&beam, 3.0).as_radians().to_degrees(), 52.4175, 0.2);
    let lamp = bare(900.0, spot(0.0, -2.4, 1.3), 32.0);
    near(lamp.circle(Metres::from_metres((CHEST - lamp.at).length()), 1.0), 1.49969, 0.01);
    near(lamp.circle(Metres::from_metres((CHEST - lamp.at).length()), 3.0), 3.11843, 0.02);
}

#[test]
fn one_bare_light_close_is_uneven() {
    let region = Region::between((-1.5, 1.5), (-0.5, 0.5), (1.3, 1.3));
    let lamp = bare(900.0, spot(-2.0, -2.0, 2.3), 45.0);
    let each = region.evenness(|place| lamp.on(place));
    near(each.spread, 2.22977, 0.03);
    near(each.within_third, 0.420833, 0.03);
    near(each.within_half, 0.581944, 0.03);
    let camera = spot(0.0, -5.0, 1.4);
    let all = region.evenness(|place| lamp.on_dome(place, camera));
    near(all.spread, 2.14928, 0.03);
    near(all.within_third, 0.412778, 0.03);
    near(all.within_half, 0.579722, 0.03);
}

#[test]
fn a_hard_rim_shines_into_the_lens() {
    let rim = bare(900.0, spot(1.8, 1.6, 2.3), 35.0);
    let lens = spot(0.0, -5.0, 1.4);
    near(rim.off_axis(lens).as_radians().to_degrees(), 35.2159, 0.05);
    assert!(rim.shines_at(lens));
}

#[test]
fn a_key_by_tape_and_back() {
    let told = tape(spot(-1.7, -2.1, 2.3), CHEST, Spot::default(), spot(0.0, -5.0, 0.0));
    near(told.to_mark, 2.70185, 1e-4);
    near(told.to_camera, 3.36155, 1e-4);
    near(told.height, 2.3, 1e-9);
    near(told.bearing, -38.991, 1e-2);
    near(told.tilt_down, 20.3103, 1e-2);
    assert!(!told.right);
    assert!(taped(1.0, 1.0, true, Spot::default(), spot(0.0, -5.0, 0.0)).is_none(), "these two do not meet");
}

#[test]
fn a_face_in_a_gust() {
    let found = ballast(0.81, 1.2, 9.0, 2.2, 7.5, 0.55);
    near(found.force, 47.2392, 0.01);
    near(found.moment, 103.926, 0.05);
    near(found.holds, 20.2331, 0.01);
    near(found.ballast, 50.285, 0.05);
}

proptest! {
    #[test]
    fn places_are_the_same_set_either_way(bearing in -179.0..179.0_f64, height in -20.0..80.0_f64, away in 0.3..8.0_f64) {
        let at = placed(Angle::from_degrees(bearing), Angle::from_degrees(height), Metres::from_metres(away));
        let (b, h, d) = set_so(at);
        prop_assert!((b - bearing).abs() < 1e-6 && (h - height).abs() < 1e-6 && (d - away).abs() < 1e-9);
        let camera = spot(0.4, -5.0, 0.0);
        let told = tape(at, CHEST, Spot::default(), camera);
        let (x, y) = taped(told.to_mark, told.to_camera, told.right, Spot::default(), camera).expect("it was measured");
        prop_assert!((x - at.x).abs() < 1e-5 && (y - at.y).abs() < 1e-5, "{x} {y} {at:?}");
        prop_assert!((0.0..12.0).contains(&clock(bearing)));
    }
}

#[test]
fn a_clock_has_the_camera_at_six() {
    near(clock(0.0), 6.0, 1e-12);
    near(clock(90.0), 3.0, 1e-12);
    near(clock(-90.0), 9.0, 1e-12);
    near(clock(180.0), 0.0, 1e-12);
    let at = placed(Angle::from_degrees(90.0), Angle::from_degrees(0.0), Metres::from_metres(2.0));
    near(at.x, 2.0, 1e-9);
    near(at.y, 0.0, 1e-9);
}

const ASK: FloorAsk =
    FloorAsk { lamp: None, of: LightOf::All, in_hand: 0, height_m: 1.3, gust_m_s: None, measure: None, taped: None };

fn set(shot: &Shot) -> FloorAnswer {
    floor(shot, None, ASK).expect("a set")
}

#[test]
fn a_light_that_is_carried_is_where_the_bench_has_it() {
    let to = CarriedTo { light: 0, x_m: -2.0, y_m: -1.5, z_m: 2.4, power: None, flag: None, aim_m: None };
    let carried = floor(&shot(), Some(&to), ASK).expect("a place");
    let light = &carried.shot.lights[0];
    // √(2² + 1.5² + 1.1²), and atan2(−2, 1.5).
    near(light.distance_m, 2.73, 0.006);
    near(light.bearing_deg, -53.1, 0.06);
    near(light.height_deg, 23.7, 0.06);
    near(carried.lights[0].at.x_m, -2.0, 0.02);
    near(carried.lights[0].at.z_m, 2.4, 0.02);
    // And the light on the subject is that of the forecast at that distance.
    let seen = outlook(&plan(&carried.shot));
    assert!(seen.lights[0].on_set.placement.as_stops().is_finite());
    let beyond = CarriedTo { light: 3, ..to.clone() };
    assert!(floor(&shot(), Some(&beyond), ASK).is_err());
    assert!(floor(&shot(), Some(&CarriedTo { x_m: f64::NAN, ..to }), ASK).is_err());
}

#[test]
fn the_value_at_the_mark_is_the_benchs_own() {
    let shot = shot();
    let found = set(&shot);
    let read = found.lights[0].reads.clone().expect("it is lit");
    let told = pebble_core::forecast(&plan(&shot));
    assert_eq!(told.lights[0].flash.meter.as_deref(), Some(read.as_str()));
    // Contours of the key pass the mark at none.
    let zero = found.contours.iter().find(|contour| contour.stops == 0.0).expect("that of the mark");
    assert!(!zero.stretches.is_empty());
}

#[test]
fn what_the_lens_must_not_see_is_told_with_the_move_that_clears_it() {
    let mut shot = shot();
    // A rim inside the left edge, two metres behind the mark.
    let mut rim = shot.lights[0].clone();
    (rim.role, rim.group, rim.bearing_deg, rim.height_deg, rim.distance_m) =
        (Role::Rim, "B".to_owned(), -150.0, 20.0, 2.2);
    rim.boom_m = None;
    shot.lights.push(rim);
    let found = set(&shot);
    let light = &found.lights[1];
    assert!(light.in_picture.contains(&"stand".to_owned()), "{light:?}");
    let note = found.notes.iter().find(|note| note.light == Some(1)).expect("it is told");
    assert!(!note.clears.is_empty());
    for clear in &note.clears {
        let to = CarriedTo {
            light: 1,
            x_m: clear.to.x_m,
            y_m: clear.to.y_m,
            z_m: clear.to.z_m,
            power: clear.power,
            flag: clear.flag.clone(),
            aim_m: None,
        };
        let after = floor(&shot, Some(&to), ASK).expect("a place");
        assert!(after.lights[1].in_picture.is_empty(), "{} does not clear it", clear.says);
    }
}

#[test]
fn a_sheet_that_is_too_small_says_by_how_much() {
    let mut shot = shot();
    shot.background.behind_m = 2.5;
    shot.sheet = Some(BackSheet { width_m: 1.5, height_m: 1.5 });
    let small = set(&shot);
    let told = small.sheet.expect("a sheet");
    assert!(!told.covers && told.missing_width_m > 0.0 && told.missing_height_m > 0.0, "{told:?}");
    shot.sheet =
        Some(BackSheet { width_m: 1.5 + told.missing_width_m + 1e-6, height_m: 1.5 + told.missing_height_m + 1e-6 });
    assert!(set(&shot).sheet.expect("a sheet").covers);
    assert!(small.notes.iter().any(|note| note.title.contains("does not fill")));
}

/// A 50 mm lens at 1.4 m, five metres off, that looks at 1.2 m over the mark.
fn from_five_metres() -> Shot {
    let mut shot = shot();
    shot.camera.focal_mm = 50.0;
    shot.subject.distance_m = 25.04_f64.sqrt();
    let mut composition = plan(&shot).stage.composition.clone();
    (composition.camera_height_m, composition.aim_height_m, composition.upright) = (1.4, 1.2, None);
    shot.stage = Some(composition);
    shot
}

/// Computed apart from this: back 0.37 m, left 0.40 m or right 3.4 m clear it; what is said is the tenth that is enough.
#[test]
fn a_soft_key_just_inside_the_left_edge() {
    let mut shot = from_five_metres();
    let (x_m, y_m, z_m) = (-1.5, -0.4, 2.0);
    (shot.lights[0].modifier.face_radius_m, shot.lights[0].boom_m) = (0.45, None);
    let found = floor(&shot, Some(&CarriedTo { light: 0, x_m, y_m, z_m, power: None, flag: None, aim_m: None }), ASK)
        .expect("a place");
    assert_eq!(found.lights[0].in_picture, ["face", "stand"]);
    let note = found.notes.iter().find(|note| note.title.contains("in the picture")).expect("it is told");
    let says: Vec<&str> = note.clears.iter().map(|clear| clear.says.as_str()).collect();
    let ways: Vec<&str> = says.iter().map(|says| says.split(',').next().unwrap_or_default()).collect();
    assert_eq!(ways.len(), 3, "{says:?}");
    assert!(["0.4 m back", "0.4 m left", "3.4 m right"].iter().all(|way| ways.contains(way)), "{says:?}");
}

#[test]
fn a_sheet_on_its_roll_leaves_the_floor_to_be_seen() {
    let mut shot = from_five_metres();
    shot.background.behind_m = 2.5;
    shot.sheet = Some(BackSheet { width_m: 2.72, height_m: 2.5 });
    let told = set(&shot).sheet.expect("a sheet");
    assert!(!told.covers && told.floor_shows);
    near(told.missing_width_m, 2.57995, 0.01);
    near(told.missing_height_m, 0.368062, 0.01);
    // Too narrow for 70 mm, even on the mark for 50: nothing is promised that the set does not have.
    assert!(!told.says.contains("fills it where"), "{}", told.says);
    // A wider one is taken at its word: what it says fills the frame, a step more does not.
    shot.sheet = Some(BackSheet { width_m: 4.4, height_m: 2.8 });
    let says = set(&shot).sheet.expect("a sheet").says;
    assert!(says.contains("It fills it where it hangs "), "{says}");
    let figure = |before: &str| -> f64 {
        let rest = says.split_once(before).expect(before).1;
        rest.split_whitespace().next().and_then(|word| word.parse().ok()).expect("a figure")
    };
    let filled = |behind_m: f64, focal_mm: f64| {
        let mut shot = shot.clone();
        (shot.background.behind_m, shot.camera.focal_mm) = (behind_m, focal_mm);
        set(&shot).sheet.expect("a sheet").covers
    };
    let (at, mm) = (figure("hangs "), figure("seen at "));
    assert!(filled(at, 50.0) && !filled(at + 0.1, 50.0), "{says}");
    assert!(filled(2.5, mm) && !filled(2.5, mm - 1.0), "{says}");
}

#[test]
fn an_area_that_is_none_is_refused() {
    let refused = |change: &dyn Fn(&mut Area)| {
        let mut shot = shot();
        let mut area =
            Area { left_m: -1.0, right_m: 1.0, near_m: -0.5, far_m: 0.5, low_m: 0.5, high_m: 1.8, corners: Vec::new() };
        change(&mut area);
        shot.area = Some(area);
        floor(&shot, None, ASK).expect_err("it is no area").to_string()
    };
    assert!(refused(&|area| area.left_m = 2.0).contains("area.left_m"));
    assert!(refused(&|area| area.low_m = 3.0).contains("area.low_m"));
    assert!(refused(&|area| area.near_m = f64::INFINITY).contains("area.near_m"));
    let ask = FloorAsk { height_m: -3.0, ..ASK };
    assert!(floor(&shot(), None, ask).is_err());
    let nobody = FloorAsk { of: LightOf::One(7), ..ASK };
    assert!(floor(&shot(), None, nobody).expect_err("no such light").to_string().contains("one of the 1 lights"));
    // In the chest of who stands there no light can be, and it is put nowhere else.
    let chest = CarriedTo { light: 0, x_m: 0.0, y_m: 0.0, z_m: CHEST.z, power: None, flag: None, aim_m: None };
    assert!(floor(&shot(), Some(&chest), ASK).expect_err("no place").to_string().contains("distance_m"));
}

/// Findings in trouble and worth watching, by what they are about: faults that lights share are one finding, which has the
/// number of the first of them, so numbers are left out; what is drawn of a part is told as its trail or as its blur, whichever it
/// is more. Doubts of figures are no harm to a frame.
fn judged(shot: &Shot) -> Vec<(String, Severity)> {
    const DOUBTS: [&str; 4] = ["duration-doubtful", "output-estimated", "school", "unit-not-known"];
    let plan = plan(shot);
    let list = findings::judge(&plan, &outlook(&plan)).into_iter();
    let counts = |one: &findings::Finding| {
        one.severity != Severity::Fine && !DOUBTS.iter().any(|doubt| one.id.starts_with(doubt))
    };
    let about = |id: &str| id.split("-light").next().unwrap_or_default().replace("ghost-", "blur-");
    list.filter(counts).map(|one| (about(&one.id), one.severity)).collect()
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 30, ..ProptestConfig::default() })]
    /// Whatever stands in the picture, and however uneven it is: what is offered harms nothing, and does what it says.
    #[test]
    fn what_is_offered_on_the_floor_harms_nothing(
        which in 0..8_usize, light in 0..6_usize, bearing in -180.0..180.0_f64, height in 0.0..60.0_f64, away in 0.8..6.0_f64,
        power in 0..10_i32,
    ) {
        let mut shot = examples().swap_remove(which % examples().len());
        let light = light % shot.lights.len();
        let of = &mut shot.lights[light];
        (of.bearing_deg, of.height_deg, of.distance_m) = (bearing.round(), height.round(), away);
        of.power = 0.5_f64.powi(power);
        let ask = FloorAsk { in_hand: light, ..ASK };
        let Ok(found) = floor(&shot, None, ask) else { return Ok(()) };
        let before = judged(&found.shot);
        let placed = |answer: &FloorAnswer, light: usize| outlook(&plan(&answer.shot)).lights[light].on_set.placement.as_stops();
        for (index, of) in found.lights.iter().enumerate() {
            let clears = of.clears.iter().filter(|clear| clear.spoils.is_none()).map(|clear| (&clear.to, clear.power, clear.says.as_str()));
            for (to, power, says) in clears.chain(of.evens.iter().map(|evens| (&evens.to, Some(evens.power), evens.says.as_str()))) {
                let to = CarriedTo { light: index, x_m: to.x_m, y_m: to.y_m, z_m: to.z_m, power, flag: None, aim_m: None };
                let after = floor(&shot, Some(&to), ASK).expect("it was offered");
                prop_assert!(after.lights[index].in_picture.is_empty());
                prop_assert!(!after.lights[index].flares || of.flares);
                let moved = (placed(&after, index) - placed(&found, index)).abs();
                // As bright where it is measured to, or it says by how much it is not.
                let told = says.contains("at the mark") || says.contains("at the background");
                prop_assert!(!moved.is_finite() || moved < 0.25 || told, "{moved}: {says}");
                for (id, severity) in judged(&after.shot) {
                    let known = before.iter().any(|(was, as_bad)| *was == id && *as_bad <= severity);
                    prop_assert!(known, "{id} is {severity:?}, was {before:?}; {says}");
                }
            }
        }
    }
}

#[test]
fn evening_it_out_keeps_the_mark_and_narrows_the_spread() {
    let mut shot = shot();
    // Close and weak: there is room to go back.
    (shot.lights[0].distance_m, shot.lights[0].power) = (1.6, 1.0 / 32.0);
    let found = set(&shot);
    let (light, evens) = (&found.lights[0], found.lights[0].evens.clone().expect("it can be evened"));
    assert!(evens.to_stops < evens.from_stops - 0.1, "{evens:?}");
    let to = CarriedTo {
        light: 0,
        x_m: evens.to.x_m,
        y_m: evens.to.y_m,
        z_m: evens.to.z_m,
        power: Some(evens.power),
        flag: None,
        aim_m: None,
    };
    let after = floor(&shot, Some(&to), ASK).expect("a place");
    let spread = after.lights[0].evenness.as_ref().expect("it is lit").spread_stops;
    near(spread, evens.to_stops, 0.05);
    // As bright at the mark as it was, and by the grid no place of the dial does better.
    let placed = |answer: &FloorAnswer| outlook(&plan(&answer.shot)).lights[0].on_set.placement.as_stops();
    near(placed(&after), placed(&found), 0.05);
    assert!(
        after.lights[0].evens.as_ref().is_none_or(|more| more.to_stops > spread - 0.12),
        "{:?}",
        after.lights[0].evens
    );
    assert!(light.distance_m < after.lights[0].distance_m);
}

/// Two tapes and a third: what is planned is found again, and what is not says what it costs.
#[test]
fn tapes_are_read_back_and_their_misfit_is_told() {
    use pebble_core::floor::TapedStand;
    let found = set(&shot());
    let light = &found.lights[0];
    let as_planned = TapedStand {
        light: 0,
        to_mark_m: light.to_mark_m,
        to_camera_m: light.to_camera_m,
        right: light.right,
        to_chest_m: Some(light.distance_m),
    };
    let told =
        |stand| floor(&shot(), None, FloorAsk { taped: Some(stand), ..ASK }).map(|found| found.taped.expect("told"));
    let same = told(as_planned).expect("they meet");
    assert!(same.off_m < 1e-6 && same.off_stops.abs() < 1e-9 && same.says.contains("as planned"), "{same:?}");
    assert!(same.misfit_m.expect("a third").abs() < 0.006 && same.says.contains("agrees"));
    // Half a metre nearer to the mark than planned, and a third tape that does not know of it.
    let nearer = told(TapedStand { to_mark_m: light.to_mark_m - 0.5, ..as_planned }).expect("they meet");
    assert!(nearer.off_m > 0.4 && nearer.off_stops > 0.2 && nearer.says.contains("one of them"), "{nearer:?}");
    let never = told(TapedStand { to_mark_m: 0.5, to_camera_m: 0.5, ..as_planned }).expect_err("they cannot meet");
    assert!(never.to_string().contains("cannot meet"), "{never}");
    assert!(told(TapedStand { light: 9, ..as_planned }).is_err());
    assert!(told(TapedStand { to_mark_m: f64::NAN, ..as_planned }).is_err());
    let ask = FloorAsk { measure: Some([[0.0, 0.0, 0.0], [3.0, 4.0, 0.0]]), ..ASK };
    assert_eq!(floor(&shot(), None, ask).expect("a set").measured.expect("measured"), "5.00 m");
    let far = FloorAsk { measure: Some([[0.0, 0.0, 0.0], [1e9, 4.0, 0.0]]), ..ASK };
    assert!(floor(&shot(), None, far).is_err());
}

/// Brought in until just out of the frame: nothing is seen there, a tenth nearer something is.
#[test]
fn a_light_is_brought_in_until_just_out_of_the_frame() {
    let mut shot = shot();
    (shot.lights[0].bearing_deg, shot.lights[0].distance_m, shot.lights[0].boom_m) = (-50.0, 4.0, None);
    let found = set(&shot);
    let to = found.lights[0].brings_in.clone().expect("there is room");
    let carry = |share: f64| {
        let chest = CHEST.z;
        let to = CarriedTo {
            light: 0,
            x_m: to.to.x_m * share,
            y_m: to.to.y_m * share,
            z_m: chest + (to.to.z_m - chest) * share,
            power: to.power,
            flag: None,
            aim_m: None,
        };
        floor(&shot, Some(&to), ASK).expect("a place")
    };
    assert!(carry(1.0).lights[0].in_picture.is_empty());
    assert!(!carry(0.95).lights[0].in_picture.is_empty());
    let placed = |answer: &FloorAnswer| outlook(&plan(&answer.shot)).lights[0].on_set.placement.as_stops();
    near(placed(&carry(1.0)), placed(&found), 0.25);
}

/// A room has walls, a way a light along it, and the sun a place: each is told, and what cannot be is refused by name.
#[test]
fn rooms_ways_and_the_sun_are_told() {
    use pebble_core::daylight::Sky;
    use pebble_core::file::floor::{Room, WayAlong};
    let mut shot = shot();
    let room = Room { left_m: -4.0, right_m: 4.0, near_m: -6.0, far_m: 8.0, ceiling_m: 2.6 };
    shot.room = Some(room.clone());
    let told = set(&shot);
    assert!(
        told.notes.iter().any(|note| note.title.contains("does not fit") && note.says.contains("ceiling")),
        "{:?}",
        told.notes
    );
    shot.room = Some(Room { left_m: 1.0, ..room.clone() });
    assert!(floor(&shot, None, ASK).expect_err("the mark is outside").to_string().contains("room.left_m"));
    shot.room = None;
    shot.way = Some(WayAlong { from_m: [-4.0, 0.5], to_m: [4.0, -0.5], speed_m_s: 3.0, camera_goes_along: false });
    let along = set(&shot).along.expect("along it");
    let press = along.press_m.expect("somewhere");
    near(along.press_s.expect("for a while"), (press[1] - press[0]) / 3.0, 1e-9);
    assert!(along.says.contains("press between") && along.says.contains("automatic"), "{}", along.says);
    shot.way = Some(WayAlong { from_m: [1.0, 1.0], to_m: [1.0, 1.0], speed_m_s: 3.0, camera_goes_along: false });
    assert!(floor(&shot, None, ASK).expect_err("a point").to_string().contains("way.to_m"));
    shot.way = None;
    // North of the tropics at noon, summer time, looking south: the sun is behind the subject and to its left by 22°.
    let sky = |looks: Option<f64>, time: &str| Sky {
        latitude_deg: 54.2,
        longitude_deg: 0.0,
        date: "2026-06-21".to_owned(),
        time: time.to_owned(),
        utc_offset_min: 0,
        cloud_stops: 0.0,
        camera_looks_deg: looks,
    };
    shot.sky = Some(sky(Some(180.0), "12:00"));
    let sun = set(&shot).sun.expect("it is known where it stands");
    near(sun.bearing_deg.abs(), 180.0, 2.0);
    near(sun.height_deg, 90.0 - 54.2 + 23.44, 0.3);
    // Looking south, north is where the camera stands; looking east, to the camera's left.
    near(sun.north_deg, 0.0, 1e-9);
    shot.sky = Some(sky(Some(90.0), "12:00"));
    near(set(&shot).sun.expect("to the right").north_deg, -90.0, 1e-9);
    assert!(sun.says.iter().any(|says| says.contains("Behind the subject")), "{:?}", sun.says);
    shot.sky = Some(sky(Some(0.0), "12:00"));
    near(set(&shot).sun.expect("behind the camera").bearing_deg, 0.0, 2.0);
    shot.sky = Some(sky(None, "12:00"));
    assert!(set(&shot).sun.is_none());
    shot.sky = Some(sky(Some(400.0), "12:00"));
    assert!(floor(&shot, None, ASK).expect_err("no such bearing").to_string().contains("camera_looks_deg"));
}

/// Any set goes on any shot: its lights stand as they stood or farther out, none in the picture that can be out of it, and
/// each falls where it fell, as near as its dial goes.
#[test]
fn an_arrangement_goes_on_any_shot() {
    use pebble_core::floor::arranged;
    let (mut whole, mut near_enough) = (0, 0);
    for like in examples() {
        for on in examples() {
            let answer = arranged(&on, &like).expect("they go together");
            let there = answer.shot;
            assert_eq!((&there.parts, &there.camera), (&on.parts, &on.camera));
            let (was, is) = (outlook(&plan(&like)), outlook(&plan(&there)));
            for (index, (old, new)) in like.lights.iter().zip(&there.lights).enumerate() {
                assert!(new.distance_m >= old.distance_m - 0.02, "{} on {}", like.title, on.title);
                let off = (is.lights[index].on_set.placement - was.lights[index].on_set.placement).as_stops().abs();
                whole += 1;
                near_enough += usize::from(off < 0.2 || !off.is_finite());
                // Only the ends of a dial keep it from there, and that is said.
                let ends = new.power > 0.99 || new.power < 0.04 || new.automatic.is_some();
                let said = |words: &str| {
                    let label = &plan(&there).lights[index].label;
                    answer.says.iter().any(|says| says.starts_with(label.as_str()) && says.contains(words))
                };
                if off.is_finite() && off > 0.2 && new.automatic.is_none() {
                    assert!(said("from where it fell"), "{:?}", answer.says);
                    // And why: no more of it at full power, no less at its lowest, and else no step that is nearer.
                    assert_eq!(said("no more power"), new.power > 0.99, "{:?}", answer.says);
                }
                assert_eq!(said("stands"), (new.distance_m - old.distance_m).abs() > 0.011, "{:?}", answer.says);
                assert!(
                    off < 0.2 || ends || !off.is_finite(),
                    "{} on {}: {off} at {}",
                    like.title,
                    on.title,
                    new.power
                );
            }
        }
    }
    assert!(near_enough * 10 > whole * 7, "{near_enough} of {whole}");
}

/// Corner lights of one hall stand in the corners of another; what does not fit between its walls is put between them, and
/// where the walls leave no place out of the picture, that is said.
#[test]
fn an_arrangement_fits_the_room() {
    use pebble_core::file::floor::Room;
    use pebble_core::floor::arranged;
    let room = |half: f64, near: f64, far: f64, ceiling: f64| {
        Some(Room { left_m: -half, right_m: half, near_m: near, far_m: far, ceiling_m: ceiling })
    };
    let at = |shot: &Shot, light: usize| set(shot).lights[light].at.clone();
    let mut like = shot();
    // In a near corner of a hall of 12 by 16 m, a fifth of the half away from either wall.
    like.room = room(6.0, -8.0, 8.0, 6.0);
    let to = CarriedTo { light: 0, x_m: -4.8, y_m: -6.4, z_m: 3.0, power: None, flag: None, aim_m: None };
    like = floor(&like, Some(&to), ASK).expect("it goes there").shot;
    let mut on = shot();
    on.room = room(4.0, -7.0, 5.0, 6.0);
    let answer = arranged(&on, &like).expect("they go together");
    let there = at(&answer.shot, 0);
    assert!((there.x_m + 3.2).abs() < 0.05 && (there.y_m + 5.6).abs() < 0.05 && (there.z_m - 3.0).abs() < 0.05);
    assert!(answer.says.iter().any(|says| says.contains("fitted to this room")), "{:?}", answer.says);
    // A low ceiling takes it down, and nothing of it is beyond a wall.
    on.room = room(1.5, -7.0, 5.0, 2.4);
    let low = arranged(&on, &like).expect("they go together").shot;
    assert!(set(&low).notes.iter().all(|note| !note.title.contains("does not fit")), "{:?}", set(&low).notes);
    // Behind the subject, in sight, with a wall just behind it: there is no place, and it is said.
    let behind = CarriedTo { light: 0, x_m: 0.3, y_m: 2.0, z_m: 1.3, power: None, flag: None, aim_m: None };
    let rim = floor(&shot(), Some(&behind), ASK).expect("it goes there").shot;
    on.room = room(4.0, -7.0, 2.5, 6.0);
    let stays = arranged(&on, &rim).expect("they go together");
    assert!(stays.says.iter().any(|says| says.contains("stays in the picture")), "{:?}", stays.says);
}

/// What cannot be on a set is named, and nothing else of the answer is lost.
#[test]
fn what_cannot_be_on_a_set_is_named() {
    let told = |change: &dyn Fn(&mut Shot)| {
        let mut shot = shot();
        change(&mut shot);
        let found = set(&shot);
        assert_eq!(found.lights.len(), shot.lights.len());
        assert!(!found.camera_says.is_empty() && found.contours.len() == 11);
        found.notes.into_iter().map(|note| note.title).collect::<Vec<String>>()
    };
    let among = |titles: &[String], words: &str| titles.iter().any(|title| title.contains(words));
    let twice = told(&|shot| {
        let other = shot.lights[0].clone();
        shot.lights.push(Flash { role: Role::Fill, group: "B".to_owned(), ..other });
    });
    assert!(among(&twice, "stand in one place"), "{twice:?}");
    let inside = told(&|shot| shot.lights[0].distance_m = 0.3);
    assert!(among(&inside, "stands in the subject"), "{inside:?}");
    let under = told(&|shot| (shot.lights[0].height_deg, shot.lights[0].distance_m) = (-60.0, 3.0));
    assert!(among(&under, "under the floor"), "{under:?}");
    let beyond = told(&|shot| {
        shot.background.behind_m = 1.0;
        (shot.lights[0].bearing_deg, shot.lights[0].height_deg, shot.lights[0].distance_m) = (170.0, 10.0, 3.0);
    });
    assert!(among(&beyond, "behind the background"), "{beyond:?}");
    // A camera that looks at the ceiling, and one that lies on the floor, have a set like any other.
    for (camera, aim) in [(0.1, 4.0), (3.5, 0.0), (0.02, 0.0)] {
        let mut shot = shot();
        let mut composition = plan(&shot).stage.composition.clone();
        (composition.camera_height_m, composition.aim_height_m) = (camera, aim);
        shot.stage = Some(composition);
        let found = set(&shot);
        assert!(found.field.iter().flatten().all(|at| at.is_finite()), "{:?}", found.field);
        assert!(found.behind.is_none_or(|behind| behind.dark_lightness.is_finite()));
    }
}

/// A flag that was taken keeps the light out of the lens; a light that is moved away from it shines in again.
#[test]
fn a_flag_counts_where_it_hangs() {
    let mut shot = shot();
    let mut rim = shot.lights[0].clone();
    (rim.role, rim.group, rim.boom_m) = (Role::Rim, "B".to_owned(), None);
    (rim.bearing_deg, rim.height_deg, rim.distance_m, rim.modifier.face_radius_m) = (-110.0, 30.0, 5.0, 0.1);
    shot.lights.push(rim);
    let found = set(&shot);
    assert!(found.lights[1].flares);
    let note = found.notes.iter().find(|note| note.title.contains("shines into the lens")).expect("it is told");
    let flag = note.clears[0].flag.clone().expect("a flag fits");
    shot.lights[1].flag = Some(flag.clone());
    let after = set(&shot);
    assert!(!after.lights[1].flares && after.lights[1].flag.is_some());
    assert!(!after.notes.iter().any(|note| note.title.contains("shades the subject")), "{:?}", after.notes);
    shot.lights[1].bearing_deg = -122.0;
    assert!(set(&shot).lights[1].flares, "the flag hangs where the light no longer is");
    // Hung before the face toward the subject it is told what it does.
    let light = &found.lights[1].at;
    let to_chest =
        |share: f64| (light.x_m * (1.0 - share), light.y_m * (1.0 - share), light.z_m + (CHEST.z - light.z_m) * share);
    let (x_m, y_m, z_m) = to_chest(0.1);
    (shot.lights[1].bearing_deg, shot.lights[1].flag) =
        (-110.0, Some(Flag { x_m, y_m, z_m, width_m: 1.5, height_m: 1.5 }));
    assert!(set(&shot).notes.iter().any(|note| note.title.contains("shades the subject")));
    shot.lights[1].flag = Some(Flag { width_m: -1.0, ..flag });
    let why = floor(&shot, None, ASK).expect_err("no such flag").to_string();
    assert!(why.contains("lights[1].flag.width_m"), "{why}");
}
