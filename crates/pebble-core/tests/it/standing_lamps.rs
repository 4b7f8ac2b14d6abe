//! Steady lamps that stand somewhere: what they give where, what the lens sees of them, and how they are carried.

use crate::common::{applied, example, rod_lamp};
use pebble_core::findings;
use pebble_core::floor::{FloorAnswer, FloorAsk, LampTo, LightOf, floor};
use pebble_core::shot::{LampStands, Reading, Shot};
use pebble_core::stage::space::spot;
use pebble_core::{Outlook, Plan, outlook};
use proptest::prelude::*;

fn from(bearing_deg: f64, height_deg: f64) -> Option<LampStands> {
    Some(LampStands { bearing_deg, height_deg, in_set: false })
}

/// The ropes in a dark hall with one lamp.
fn lit_by(stands: Option<LampStands>, distance_m: f64) -> Shot {
    let mut shot = example("double-ropes");
    shot.ambient.subject = Reading::Lux { lux: 0.0 };
    shot.ambient.background = Reading::Lux { lux: 0.0 };
    for light in &mut shot.lights {
        light.modelling = None;
    }
    shot.lamps = vec![rod_lamp(800.0, distance_m, stands)];
    shot
}

fn seen(shot: &Shot) -> (Plan, Outlook) {
    let plan = Plan::try_from(shot).expect("a plan");
    let seen = outlook(&plan);
    (plan, seen)
}

fn on_the_floor(shot: &Shot) -> FloorAnswer {
    floor(shot, None, FloorAsk { of: LightOf::Ambient, ..FloorAsk::default() }).expect("a set")
}

/// Ambient is read by a dome to the camera: `(1 + cos β)/2` of what is turned to the lamp.
#[test]
fn a_lamp_gives_the_subject_what_a_dome_to_the_camera_reads_of_it() {
    let gives = |stands| {
        let (_, seen) = seen(&lit_by(stands, 2.0));
        seen.ambient.exposure.as_lux_seconds()
    };
    let whole = gives(None);
    let cases =
        [(0.0, 0.0, 1.0), (90.0, 0.0, 0.5), (-90.0, 0.0, 0.5), (180.0, 0.0, 0.0), (60.0, 0.0, 0.75), (0.0, 60.0, 0.75)];
    for (bearing, height, share) in cases {
        let got = gives(from(bearing, height)) / whole;
        assert!((got - share).abs() < 1e-9, "{bearing}° round, {height}° up: {got}, not {share}");
    }
}

/// It shines at the subject: what is behind that gets light of one in front, none of one from behind.
#[test]
fn the_background_is_lit_by_a_lamp_in_front_and_not_by_one_behind() {
    let behind = |stands| seen(&lit_by(stands, 2.0)).1.background.exposure.as_lux_seconds();
    let (anywhere, front) = (behind(None), behind(from(0.0, 0.0)));
    assert!((front / anywhere - 1.0).abs() < 1e-9, "straight from the front it is as without a place");
    assert_eq!(behind(from(180.0, 0.0)), 0.0);
    let mut not = lit_by(from(0.0, 0.0), 2.0);
    not.lamps[0].lights_background = false;
    assert_eq!(seen(&not).1.background.exposure.as_lux_seconds(), 0.0);
}

/// What a remedy of the sheet tries is what the shot then is: a nearer background has more of the lamps on it.
#[test]
fn a_background_that_is_carried_nearer_has_the_lamps_light() {
    let lux = |shot: &Shot| seen(shot).1.background.exposure.as_lux_seconds();
    for stands in [None, from(30.0, 10.0)] {
        let far = lit_by(stands, 2.0);
        let mut near = far.clone();
        near.background.behind_m /= 2.0;
        assert!(lux(&near) > 1.3 * lux(&far), "{stands:?}");
    }
    let mut shot = lit_by(from(30.0, 10.0), 2.0);
    shot.sheet = serde_json::from_value(serde_json::json!({"width_m": 6.0, "height_m": 4.5})).expect("a sheet");
    shot.background.behind_m = 6.0;
    let (plan, at_first) = seen(&shot);
    let found = findings::judge(&plan, &at_first).into_iter().find(|finding| finding.id == "sheet").expect("too small");
    for remedy in &found.remedies {
        let after = applied(&shot, &remedy.changes);
        assert!(after.background.behind_m < shot.background.behind_m && lux(&after) > lux(&shot), "{remedy:?}");
    }
}

/// Twice as far off is two stops less: over the area the steady light is as uneven as its lamps make it.
#[test]
fn steady_light_over_the_area_falls_off_from_its_lamps() {
    let (plan, seen) = seen(&lit_by(from(0.0, 0.0), 2.0));
    let field = seen.steady_field(&plan, spot(0.0, -8.0, 1.3));
    let at = |y: f64| field.on_dome(spot(0.0, y, 1.3)).log2();
    assert!((at(2.0) - at(0.0) + 2.0).abs() < 1e-9, "four metres from it against two");
    assert!((field.on_dome(spot(0.0, 0.0, 1.3)) / seen.ambient.exposure.as_lux_seconds() - 1.0).abs() < 1e-9);

    let told = on_the_floor(&lit_by(from(90.0, 0.0), 2.0));
    assert!(told.ends.as_deref().expect("told").contains("right"), "{:?}", told.ends);
    assert!(told.contours.iter().any(|line| !line.stretches.is_empty()), "lines of equal light");
    // A room's own light is taken as even, and so are lamps of which nobody said where they stand.
    let mut room = lit_by(None, 2.0);
    room.ambient.subject = Reading::Lux { lux: 200.0 };
    let even = on_the_floor(&room);
    assert!(even.contours.is_empty() && even.even_says.contains("as even"), "{}", even.even_says);
    let mut dark = lit_by(None, 2.0);
    dark.lamps.clear();
    assert!(on_the_floor(&dark).even_says.contains("No steady light"));
}

/// What is even takes off what a lamp makes uneven.
#[test]
fn the_more_a_room_gives_the_less_a_lamp_is_seen_over_the_area() {
    let spread = |lux: f64| {
        let mut shot = lit_by(from(60.0, 20.0), 2.5);
        shot.ambient.subject = Reading::Lux { lux };
        let (plan, seen) = seen(&shot);
        let field = seen.steady_field(&plan, spot(0.0, -8.0, 1.3));
        let [near, far] = [1.0, -1.0].map(|x: f64| field.on_dome(spot(x, 0.0, 1.3)));
        (near / far).log2()
    };
    let all = [0.0, 50.0, 500.0, 5000.0].map(spread);
    assert!(all.windows(2).all(|pair| pair[1] < pair[0]) && all[3] < 0.1, "{all:?}");
}

#[test]
fn a_lamp_in_the_picture_is_found_and_carried_out_of_it_as_bright_at_the_mark() {
    let shot = lit_by(from(150.0, 10.0), 2.0);
    let judged = |shot: &Shot| {
        let (plan, seen) = seen(shot);
        findings::judge(&plan, &seen)
    };
    let found =
        judged(&shot).into_iter().find(|finding| finding.id == "lamp-in-frame").expect("it stands in the frame");
    assert!(found.title == "Rod lamp in the picture" && found.cause.contains("camera's right"), "{found:?}");
    let before = seen(&shot).1.ambient.placement;
    let remedy = found.remedies.first().expect("it can be carried out of it");
    let after = applied(&shot, &remedy.changes);
    assert!(judged(&after).iter().all(|finding| finding.id != "lamp-in-frame"), "{remedy:?}");
    let then = seen(&after).1.ambient.placement;
    let full = after.lamps[0].level_share >= 1.0;
    assert!(full || (then - before).as_stops().abs() < 0.02, "{} from {}", then.as_stops(), before.as_stops());
    // One that belongs to the picture, that is off, or of which nobody knows where it is, is no fault.
    let mut meant = shot.clone();
    meant.lamps[0].stands.as_mut().unwrap().in_set = true;
    let mut off = shot.clone();
    off.lamps[0].on = false;
    for shot in [meant, off, lit_by(None, 2.0)] {
        assert!(judged(&shot).iter().all(|finding| finding.id != "lamp-in-frame"));
    }
}

/// Of two that are in the picture each is told, and mended by itself.
#[test]
fn two_lamps_in_the_picture_are_two_findings() {
    let mut shot = lit_by(from(150.0, 10.0), 2.0);
    let mut other = shot.lamps[0].clone();
    (other.lamp.name, other.stands) = ("Slab lamp".to_owned(), from(-160.0, 15.0));
    shot.lamps.push(other);
    let judged = |shot: &Shot| {
        let (plan, seen) = seen(shot);
        let all = findings::judge(&plan, &seen);
        all.into_iter().filter(|finding| finding.id.starts_with("lamp-in-frame")).collect::<Vec<_>>()
    };
    let mut left = judged(&shot);
    assert_eq!(
        left.iter().map(|finding| finding.id.as_str()).collect::<Vec<_>>(),
        ["lamp-in-frame", "lamp-in-frame-1"]
    );
    while let Some(finding) = left.first() {
        let remedy = finding.remedies.first().unwrap_or_else(|| panic!("nothing for {}", finding.title));
        shot = applied(&shot, &remedy.changes);
        let then = judged(&shot);
        assert!(then.len() < left.len(), "{remedy:?}");
        left = then;
    }
}

/// What stands straight behind the subject gives nothing to a dome there, and something beside it.
#[test]
fn a_lamp_from_straight_behind_is_still_a_lamp_over_the_area() {
    let (plan, seen) = seen(&lit_by(from(180.0, 0.0), 2.0));
    assert!(seen.ambient.exposure.as_lux_seconds() < 1e-12);
    let field = seen.steady_field(&plan, spot(0.0, -8.0, 1.3));
    assert!(field.has_lamps() && field.on_dome(spot(1.0, 0.5, 1.3)) > 0.0);
}

#[test]
fn the_floor_tells_where_lamps_stand_and_clears_them() {
    let told = on_the_floor(&lit_by(from(150.0, 10.0), 2.0));
    let stands = told.lamps[0].stands.as_ref().expect("it stands");
    assert_eq!(stands.clock, "1:00");
    assert!(stands.right && !stands.in_picture.is_empty());
    let note = told.notes.iter().find(|note| note.lamp == Some(0)).expect("told");
    assert!(note.title.contains("in the picture") && note.light.is_none());
    for clearing in &note.clears {
        let to = LampTo {
            lamp: 0,
            x_m: clearing.to.x_m,
            y_m: clearing.to.y_m,
            z_m: clearing.to.z_m,
            level_share: clearing.power,
        };
        let after = floor(&told.shot, None, FloorAsk { lamp: Some(to), ..FloorAsk::default() }).expect("carried");
        let stands = after.lamps[0].stands.as_ref().expect("it stands");
        assert!(stands.in_picture.is_empty(), "{} does not clear it", clearing.says);
    }
    let somewhere = on_the_floor(&lit_by(None, 2.0));
    assert!(somewhere.lamps[0].stands.is_none() && somewhere.lamps[0].gives_says.is_some());
    let mut off = lit_by(from(30.0, 10.0), 2.0);
    off.lamps[0].on = false;
    let off = on_the_floor(&off);
    assert!(off.lamps[0].stands.is_some() && off.lamps[0].gives_says.is_none());
}

#[test]
fn a_lamp_is_carried_to_places_only() {
    let shot = lit_by(None, 2.0);
    let to = |lamp, x_m, y_m, z_m| LampTo { lamp, x_m, y_m, z_m, level_share: None };
    let carry = |to| floor(&shot, None, FloorAsk { lamp: Some(to), ..FloorAsk::default() });
    let kept = carry(to(0, 1.5, -1.0, 2.0)).expect("a place").shot.lamps.remove(0);
    let stands = kept.stands.expect("it stands");
    assert!((kept.distance_m - 1.93).abs() < 0.01 && (stands.bearing_deg - 56.3).abs() < 0.1, "{kept:?}");
    let cases = [
        (to(1, 0.0, -1.0, 1.0), "lamp.lamp"),
        (to(0, 1e9, 0.0, 1.0), "lamp.x_m"),
        (to(0, f64::NAN, 0.0, 1.0), "lamp.x_m"),
        (to(0, 0.0, -1.0, -3.0), "lamp.z_m"),
        (to(0, 0.0, 0.0, 1.3), "lamp.distance_m"),
        (LampTo { level_share: Some(7.0), ..to(0, 0.0, -1.0, 1.0) }, "lamp.level_share"),
    ];
    for (to, field) in cases {
        assert_eq!(carry(to).expect_err("no place").field(), field);
    }
    let odd = |stands: LampStands| Plan::try_from(&lit_by(Some(stands), 2.0)).map(|_| ());
    let stands = LampStands { bearing_deg: 0.0, height_deg: 0.0, in_set: false };
    let refused = odd(LampStands { bearing_deg: 400.0, ..stands }).expect_err("no bearing");
    assert_eq!(refused.field(), "lamps[0].stands.bearing_deg");
    assert!(odd(LampStands { height_deg: f64::INFINITY, ..stands }).is_err());
}

proptest! {
    /// Wherever it stands, it gives no more than turned to it, and a remedy of the picture never harms it.
    #[test]
    fn a_lamp_gives_at_most_what_it_has(bearing in -180.0..180.0f64, height in -60.0..80.0f64, distance in 0.5..8.0f64) {
        let shot = lit_by(from(bearing, height), distance);
        let (plan, seen) = seen(&shot);
        let most = 800.0 / distance.powi(2) * seen.run.time.as_secs();
        prop_assert!(seen.ambient.exposure.as_lux_seconds() <= most * (1.0 + 1e-9));
        for finding in findings::judge(&plan, &seen).iter().filter(|finding| finding.id == "lamp-in-frame") {
            for remedy in &finding.remedies {
                let after = applied(&shot, &remedy.changes);
                let (plan, seen) = self::seen(&after);
                prop_assert!(findings::judge(&plan, &seen).iter().all(|finding| finding.id != "lamp-in-frame"), "{remedy:?}");
            }
        }
    }
}

/// Lights as in another shot: its lamps that were set up come along as bright as they were, in place of those that were set
/// up here; lamps of either place stay where they are.
#[test]
fn an_arrangement_brings_its_lamps_and_leaves_those_of_the_place() {
    use pebble_core::floor::arranged;
    let named = |name: &str, stands, level: f64| {
        let mut lamp = rod_lamp(800.0, 3.0, stands);
        (lamp.lamp.name, lamp.level_share) = (name.to_owned(), level);
        lamp
    };
    let of_the_place = || Some(LampStands { bearing_deg: 40.0, height_deg: 10.0, in_set: true });
    let names = |shot: &Shot| shot.lamps.iter().map(|lamp| lamp.lamp.name.clone()).collect::<Vec<_>>();
    let falls = |shot: &Shot, row: usize| {
        let (plan, seen) = seen(shot);
        let burns = plan.lamps.iter().position(|lamp| lamp.place == row).expect("it burns");
        seen.steady[burns].on_subject.placement.as_stops()
    };

    let mut like = example("double-ropes");
    like.lamps = vec![named("Their lantern", of_the_place(), 1.0), named("Rod", from(50.0, 20.0), 0.9)];
    let mut on = example("sabre-reach");
    on.lamps = vec![named("Ceiling", None, 1.0), named("Panel", from(-50.0, 20.0), 1.0)];
    // Twice as bright a setting: the lamp is turned down by as much.
    (on.camera.aperture_f, on.camera.shutter) = (like.camera.aperture_f, like.camera.shutter.clone());
    (on.camera.iso, like.camera.iso) = (800.0, 400.0);
    let answer = arranged(&on, &like).expect("they go together");
    assert_eq!(names(&answer.shot), ["Ceiling", "Rod"]);
    assert!(answer.says.iter().any(|says| says.starts_with("Panel is gone")), "{:?}", answer.says);
    assert!((falls(&answer.shot, 1) - falls(&like, 1)).abs() < 0.05);
    assert!(answer.says.iter().all(|says| !says.starts_with("Rod falls")), "{:?}", answer.says);

    // Where it has no more, that is said; where none was set up, those of the shot stay.
    on.camera.iso = 100.0;
    let dark = arranged(&on, &like).expect("they go together");
    assert!(
        dark.says.iter().any(|says| says.starts_with("Rod falls −") && says.ends_with("it is turned up full.")),
        "{:?}",
        dark.says
    );
    like.lamps.truncate(1);
    assert_eq!(names(&arranged(&on, &like).expect("they go together").shot), ["Ceiling", "Panel"]);
}

/// From where the camera would see it, it goes back on its own line; and back to a place in a smaller room.
#[test]
fn a_lamp_of_an_arrangement_stands_out_of_the_picture_and_in_the_room() {
    use pebble_core::file::floor::Room;
    use pebble_core::floor::arranged;
    let mut like = lit_by(from(110.0, 5.0), 1.2);
    like.room = Some(Room { left_m: -8.0, right_m: 8.0, near_m: -10.0, far_m: 8.0, ceiling_m: 6.0 });
    let mut on = example("double-ropes");
    let free = arranged(&on, &like).expect("they go together");
    let notes = |shot: &Shot| on_the_floor(shot).notes.into_iter().map(|note| note.title).collect::<Vec<_>>();
    assert!(free.says.iter().any(|says| says.contains("out of the picture")), "{:?}", free.says);
    assert!(notes(&free.shot).iter().all(|title| !title.contains("Rod")), "{:?}", notes(&free.shot));
    on.room = Some(Room { left_m: -4.0, right_m: 4.0, near_m: -10.0, far_m: 8.0, ceiling_m: 6.0 });
    let walled = arranged(&on, &like).expect("they go together").shot;
    let found = on_the_floor(&walled);
    let at = &found.lamps[0].stands.as_ref().expect("it stands").at;
    assert!(at.x_m.abs() < 4.0, "{}", at.x_m);
}

/// Two stands need room, whatever is on them; a flash in a lantern of the picture is meant to be there.
#[test]
fn a_lamp_and_a_light_in_one_place_are_told() {
    let mut shot = lit_by(from(30.0, 20.0), 2.5);
    let flash = &mut shot.lights[0];
    (flash.bearing_deg, flash.height_deg, flash.distance_m) = (30.0, 20.0, 2.6);
    let told = |shot: &Shot| {
        let titles = on_the_floor(shot).notes.into_iter().map(|note| note.title);
        titles.filter(|title| title.contains("stand in one place")).count()
    };
    assert_eq!(told(&shot), 1);
    shot.lamps.push(shot.lamps[0].clone());
    shot.lights[0].distance_m = 4.0;
    assert_eq!(told(&shot), 1, "two lamps");
    shot.lamps[1].on = false;
    assert_eq!(told(&shot), 0);
    shot.lights[0].distance_m = 2.6;
    shot.lamps[0].stands.as_mut().expect("it stands").in_set = true;
    assert_eq!(told(&shot), 0);
}
