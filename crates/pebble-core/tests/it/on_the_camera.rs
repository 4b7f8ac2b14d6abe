//! A light that sits on the camera stands where that stands, goes where it goes, and is carried nowhere else.

use crate::common::{examples, plan, shot};
use pebble_core::file::floor::WayAlong;
use pebble_core::floor::{CarriedTo, FloorAnswer, FloorAsk, floor};
use pebble_core::groups::groups;
use pebble_core::hold::{self, Held};
use pebble_core::outlook;
use pebble_core::shot::{Role, Shot};
use pebble_core::strips::strips;
use pebble_core::{Plan, findings};
use proptest::prelude::*;

/// The shot with its key on the camera, so far away.
fn on_camera(distance_m: f64) -> Shot {
    let mut shot = shot();
    shot.subject.distance_m = distance_m;
    shot.background.behind_m = 2.0;
    (shot.lights[0].on_camera, shot.lights[0].boom_m) = (true, None);
    shot
}

fn set(shot: &Shot) -> FloorAnswer {
    floor(shot, None, FloorAsk::default()).expect("a set")
}

#[test]
fn it_stands_where_the_camera_stands() {
    let near = on_camera(2.0);
    let told = set(&near);
    let (light, camera) = (&told.lights[0], &told.camera);
    assert!(light.on_camera && light.flag.is_none() && light.ballast_kg.is_none());
    assert!((light.at.x_m - camera.x_m).abs() < 1e-9 && (light.at.y_m - camera.y_m).abs() < 1e-9);
    assert!((light.at.z_m - camera.z_m - 0.15).abs() < 1e-9, "over the lens");
    // Whatever the file says of its place.
    let mut other = near.clone();
    (other.lights[0].distance_m, other.lights[0].bearing_deg, other.lights[0].height_deg) = (9.0, 120.0, 60.0);
    assert_eq!(outlook(&plan(&other)), outlook(&plan(&near)));
    // Twice as far away the inverse square takes two stops of a bare face; a large one a little less.
    let (was, is) = (outlook(&plan(&near)), outlook(&plan(&on_camera(4.0))));
    let lost = (was.lights[0].on_set.placement - is.lights[0].on_set.placement).as_stops();
    assert!((1.6..=2.0).contains(&lost), "{lost}");
    // A strip that could not be turned is not there.
    let has = |shot: &Shot| strips(&plan(shot)).iter().any(|one| one.id == "flash_distance" && one.light == Some(0));
    assert!(!has(&near) && has(&shot()));
}

#[test]
fn nothing_carries_it_away() {
    let near = on_camera(3.0);
    let to = CarriedTo { light: 0, x_m: 1.0, y_m: 1.0, z_m: 2.0, power: None, flag: None, aim_m: None };
    let refused = floor(&near, Some(&to), FloorAsk::default()).expect_err("it is held");
    assert!(refused.to_string().contains("sits on the camera"), "{refused}");
    let told = set(&near);
    assert!(
        told.lights[0].evens.is_none() && told.lights[0].brings_in.is_none() && told.lights[0].in_picture.is_empty()
    );
    // A boom and a camera do not hold the same light, and what lights the backdrop is not on the camera.
    for change in
        [|shot: &mut Shot| shot.lights[0].boom_m = Some(1.0), |shot: &mut Shot| shot.lights[0].role = Role::Backdrop]
    {
        let mut shot = near.clone();
        change(&mut shot);
        let error = Plan::try_from(&shot).expect_err("held twice");
        assert_eq!(error.field(), "lights[0].on_camera");
    }
    // From farther than any flash is set for it is refused in a sentence.
    let error = Plan::try_from(&on_camera(450.0)).expect_err("too far");
    assert!(error.to_string().contains("450"), "{error}");
}

#[test]
fn a_group_that_is_seen_from_farther_back_is_lit_from_there() {
    let mut near = on_camera(2.0);
    near.groups = vec![pebble_core::file::group::GroupShape { people: 12, rows: 1, row_gap_m: 0.8, curve_m: 0.0 }];
    let told = groups(&plan(&near), &near.groups).expect("a group");
    let back = told[0].back_m.expect("twelve in a row do not fit from two metres");
    let mut there = near.clone();
    there.subject.distance_m += back;
    let lost = outlook(&plan(&near)).lights[0].on_set.placement - outlook(&plan(&there)).lights[0].on_set.placement;
    assert!(lost.as_stops() > 0.5, "{lost:?}");
    let camera_back = told[0].changes.iter().any(|one| one.pointer == "/subject/distance_m");
    assert!(camera_back && told[0].changes.iter().all(|one| one.pointer != "/lights/0/distance_m"), "{told:?}");
}

#[test]
fn along_a_way_it_stays_or_comes_along() {
    let mut shot = on_camera(6.0);
    shot.lights.truncate(1);
    let way =
        |camera_goes_along| Some(WayAlong { from_m: [0.0, 8.0], to_m: [0.0, -4.0], speed_m_s: 4.0, camera_goes_along });
    shot.way = way(false);
    let stays = set(&shot).along.expect("a way");
    assert!(stays.change_stops > 3.0, "fourteen metres and two: {}", stays.change_stops);
    assert!(stays.says.contains("If the camera goes along, all of the way is within a third."), "{}", stays.says);
    shot.way = way(true);
    let along = set(&shot).along.expect("a way");
    assert!(along.change_stops.abs() < 1e-9 && along.press_m == Some([0.0, 12.0]), "{along:?}");
    assert!(along.says.contains("If the camera stays, "), "{}", along.says);
    // Lights on stands do not ask which.
    shot.lights[0].on_camera = false;
    assert!(!set(&shot).along.expect("a way").says.contains("If the camera"));
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 48, ..ProptestConfig::default() })]

    /// Whatever is offered or held for any shot, what sits on the camera is asked for light and never for a walk.
    #[test]
    fn it_is_never_asked_to_walk(of in 0..7_usize, distance in 1.0..20.0f64, power in -5.0..0.0f64, held in 0..4_usize) {
        let mut shot = examples().swap_remove(of);
        shot.subject.distance_m = (distance * 10.0).round() / 10.0;
        let Some(first) = shot.lights.iter().position(|light| matches!(light.role, Role::Key | Role::Fill)) else {
            return Ok(());
        };
        (shot.lights[first].on_camera, shot.lights[first].boom_m, shot.lights[first].flag) = (true, None, None);
        let Ok(base) = Plan::try_from(&shot) else { return Ok(()) };
        let walks = format!("/lights/{first}/distance_m");
        for finding in findings::judge(&base, &outlook(&base)) {
            for remedy in finding.remedies {
                prop_assert!(remedy.changes.iter().all(|change| change.pointer != walks), "{remedy:?}");
            }
        }
        let mut turned = shot.clone();
        turned.lights[first].power = base.lights[first].unit.nearest_power(power.exp2());
        let now = plan(&turned);
        let held = [Held::Key, Held::Ambient, Held::Ratios, Held::Blur][held];
        let answer = hold::hold(&base, &now, &[held], None);
        prop_assert!(answer.followed.iter().all(|one| one.pointer != walks), "{:?}", answer.followed);
    }
}
