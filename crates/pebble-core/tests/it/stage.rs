//! Figures, poses and framing: bones keep their lengths, mirrors mirror, and points stand in the frame where the lens puts
//! them.

use crate::common::example;
use pebble_core::file::stage::{Build, Composition, Grip, Person, Place, Pose, Prop, Thing};
use pebble_core::quantity::{Metres, Seconds};
use pebble_core::shot::{DrawnAs, Scene};
use pebble_core::stage::Stage;
use pebble_core::stage::body::{Chain, Skeleton};
use pebble_core::stage::framing::{View, held, shown};
use pebble_core::stage::poses::posture;
use pebble_core::stage::space::{Spot, spot};
use pebble_core::staging::staging;
use pebble_core::{Plan, Shot, outlook};
use proptest::prelude::*;

fn composed(shot: &Shot, compose: impl FnOnce(&mut Composition)) -> Shot {
    let mut stage = shot.stage.clone().unwrap_or_else(|| Stage::of_scene(shot.scene));
    compose(&mut stage);
    Shot { stage: Some(stage), ..shot.clone() }
}

fn lengths(body: &Skeleton) -> Vec<f64> {
    let limb =
        |limb: &Chain| [limb.joint - limb.root, limb.end - limb.joint, limb.tip - limb.end].map(|bone| bone.length());
    let limbs = body.arms.iter().chain(&body.legs).flat_map(limb);
    limbs.chain([(body.waist - body.pelvis).length(), (body.collar - body.waist).length()]).collect()
}

fn any_person() -> impl Strategy<Value = Person> {
    let poses = prop::sample::select(Pose::ALL);
    let builds = prop::sample::select(Build::ALL);
    (poses, builds, 1.0..2.1, -3.0..3.0, -3.0..3.0, -180.0..180.0).prop_map(
        |(pose, build, height_m, right_m, away_m, turned_deg)| Person {
            build,
            height_m,
            right_m,
            away_m,
            turned_deg,
            ..Person::new(pose)
        },
    )
}

proptest! {
    #[test]
    fn a_pose_turns_bones_and_stretches_none(person in any_person()) {
        let standing = Person { pose: Pose::Stand, ..person.clone() };
        let (a, b) = (lengths(&Skeleton::of(&person, &posture(person.pose))), lengths(&Skeleton::of(&standing, &posture(Pose::Stand))));
        for (a, b) in a.into_iter().zip(b) {
            prop_assert!((a - b).abs() < 1e-9, "{a} and {b}");
        }
    }

    #[test]
    fn a_mirrored_pose_is_its_picture_in_a_mirror(person in any_person()) {
        let person = Person { right_m: 0.0, ..person };
        let turned = Person { mirrored: true, turned_deg: -person.turned_deg, ..person.clone() };
        let (own, other) = (Skeleton::of(&person, &posture(person.pose)), Skeleton::of(&turned, &posture(person.pose)));
        let flip = |at: Spot| spot(-at.x, at.y, at.z);
        for (a, b) in [(own.head, other.head), (own.pelvis, other.pelvis), (own.arms[0].tip, other.arms[0].tip), (own.legs[1].tip, other.legs[1].tip)] {
            prop_assert!((flip(a) - b).length() < 1e-9, "{a:?} and {b:?}");
        }
    }

    #[test]
    fn nobody_stands_under_the_floor(person in any_person()) {
        let body = Skeleton::of(&person, &posture(person.pose));
        let lowest = body.arms.iter().chain(&body.legs).flat_map(|limb| [limb.joint, limb.end, limb.tip]).chain([body.pelvis, body.head]);
        for at in lowest {
            prop_assert!(at.z > -0.03, "{:?} at {at:?}", person.pose);
        }
    }

    #[test]
    fn what_is_held_upright_is_shown_upright(right in -2.0..2.0, up in -2.0..2.0) {
        for grip in [None, Some(Grip::Up), Some(Grip::Down)] {
            let (along, across) = held(grip, right, up);
            let back = shown(grip, along, across);
            prop_assert!((back.0 - right).abs() < 1e-12 && (back.1 - up).abs() < 1e-12);
        }
    }
}

/// Points through the lens, worked out by an independent simulation: share of the picture to the right and up, and the row of
/// the curtains.
#[test]
fn points_stand_in_the_frame_where_the_lens_puts_them() {
    // 50 mm on 36 × 24 mm, 5.004 m from the aim, which is 0.2 m lower than the lens.
    let distance = (25.0_f64 + 0.04).sqrt();
    let view = View::of(Metres::from_metres(distance), Metres::from_metres(1.4), Metres::from_metres(1.2), None);
    let wide = 0.036 * (distance - 0.05) / 0.05;
    let high = 0.024 * (distance - 0.05) / 0.05;
    for (place, across, up) in [
        ([0.0, 0.0, 1.2], 0.0, 0.0),
        ([1.5, 0.0, 1.9], 0.4229, 0.295_794),
        ([-1.9, 0.0, 1.0], -0.531_829, -0.083_905_9),
        ([0.3, 2.0, 0.05], 0.059_712, -0.319_204),
        ([1.2, 1.5, 2.4], 0.260_81, 0.410_448),
    ] {
        let seen = view.seen(spot(place[0], place[1], place[2])).expect("it is before the lens");
        assert!((seen.along / wide - across).abs() < 0.003, "{place:?}: {} to the right", seen.along / wide);
        assert!((seen.across / high - up).abs() < 0.003, "{place:?}: {} up", seen.across / high);
    }
    assert!(view.seen(spot(0.0, -6.0, 1.4)).is_none(), "behind the lens");
}

#[test]
fn old_files_open_with_the_nearest_composition_and_new_ones_with_their_own() {
    for name in
        ["double-ropes", "lantern-slalom", "slipway-spin", "sabre-reach", "silks", "finishers-wall", "roller-hall"]
    {
        let shot = example(name);
        let plan = Plan::try_from(&shot).expect("the example is a plan");
        let staged = staging(&plan, false);
        assert!(!staged.people.is_empty() && staged.people.iter().all(Option::is_some), "{name}");
        // Every part of the demo shots has a body, which stands at least partly in the frame.
        for (index, part) in shot.parts.iter().enumerate() {
            let of: Vec<_> = staged.parts.iter().filter(|staged| staged.part == index).collect();
            assert!(!of.is_empty(), "{name}: {} has no body", part.name);
            assert!(
                of.iter()
                    .any(|part| part.at.right > 0.0 && part.at.left < 1.0 && part.at.bottom > 0.0 && part.at.top < 1.0),
                "{name}: {}",
                part.name
            );
        }
    }
    // However near it is taken, and whatever is right behind.
    for (distance_m, behind_m) in [(0.4, 0.0), (4.5, 0.1), (400.0, 0.0), (0.4, 300.0)] {
        let mut shot = example("double-ropes");
        (shot.subject.distance_m, shot.background.behind_m) = (distance_m, behind_m);
        assert!(Plan::try_from(&shot).is_ok(), "{distance_m} m, {behind_m} m behind");
    }
    let own = composed(&example("silks"), |stage| stage.people[0].pose = Pose::Leap);
    let back: Shot = serde_json::from_str(&serde_json::to_string(&own).unwrap()).expect("it reads back");
    assert_eq!(own, back);
    assert_eq!(Plan::try_from(&own).unwrap().stage.composition.people[0].pose, Pose::Leap);
}

#[test]
fn what_cannot_stand_is_refused_at_its_field() {
    let shot = example("double-ropes");
    let thing = |away_m: f64| Thing { what: Prop::Ball, right_m: 0.0, away_m, up_m: 0.0, size: 1.0, turned_deg: 0.0 };
    type Compose = Box<dyn Fn(&mut Composition)>;
    let cases: Vec<(&str, Compose)> = vec![
        ("stage.camera_height_m", Box::new(|stage| stage.camera_height_m = -1.0)),
        ("stage.aim_height_m", Box::new(|stage| stage.aim_height_m = f64::NAN)),
        ("stage.people[0].away_m", Box::new(|stage| stage.people[0].away_m = -4.4)),
        ("stage.people[1].away_m", Box::new(|stage| stage.people[1].away_m = 7.5)),
        ("stage.people[0].skin", Box::new(|stage| stage.people[0].skin = 1.4)),
        ("stage.people[0].height_m", Box::new(|stage| stage.people[0].height_m = 0.0)),
        ("stage.people", Box::new(|stage| stage.people = vec![Person::new(Pose::Stand); 13])),
        ("stage.things[0].away_m", Box::new(move |stage| stage.things = vec![thing(40.0)])),
        ("stage.people[0].with", Box::new(|stage| stage.people[0].with = vec![Prop::Ball; 7])),
    ];
    for (field, compose) in cases {
        let why = Plan::try_from(&composed(&shot, compose)).expect_err(field).to_string();
        assert!(why.contains(field), "{field}: {why}");
    }
    // A pose that a newer program knows is named, and the file stays as it is.
    let text = serde_json::to_string(&composed(&shot, |_| ())).unwrap().replace("\"rope_jump\"", "\"moon_walk\"");
    let why = serde_json::from_str::<Shot>(&text).expect_err("nobody knows it").to_string();
    assert!(why.contains("moon_walk"), "{why}");
}

#[test]
fn twelve_people_stand_in_rows_and_the_frame_says_where() {
    let shot = composed(&example("finishers-wall"), |stage| {
        let runner = stage.people[0].clone();
        stage.people = (0..12)
            .map(|k| Person {
                right_m: f64::from(k % 4) * 0.7 - 1.05,
                away_m: f64::from(k / 4) * 0.4,
                ..runner.clone()
            })
            .collect();
    });
    let plan = Plan::try_from(&shot).expect("there is room");
    let staged = staging(&plan, true);
    assert_eq!(staged.people.len(), 12);
    let place = |index: usize| staged.people[index].as_ref().expect("in front of the lens");
    // Farther away is smaller, and the frame is wider there.
    assert!(place(8).frame_width_m > place(0).frame_width_m * 1.05);
    let height = |index: usize| place(index).at.bottom - place(index).at.top;
    assert!(height(8) < height(0));
    // Over the floor the frame is deeper there, and what it says is what moving somebody shows.
    assert!(place(8).frame_deep_m > place(0).frame_deep_m);
    let moved = composed(&shot, |stage| stage.people[0].away_m += 0.1);
    let moved = staging(&Plan::try_from(&moved).expect("there is room"), true);
    let up = place(0).at.bottom - moved.people[0].as_ref().expect("it is seen").at.bottom;
    assert!((up * place(0).frame_deep_m - 0.1).abs() < 0.04, "{up} of the frame for 0.1 m");
    // To the right by the metres that it was moved.
    let apart = (place(1).at.left - place(0).at.left) * place(0).frame_width_m;
    assert!((apart - 0.7).abs() < 0.05, "{apart}");
    let faces = staged.parts.iter().filter(|part| shot.parts[part.part].drawn_as == DrawnAs::Face).count();
    assert_eq!(faces, 12, "all of them are the subject");
}

#[test]
fn upright_the_frame_is_as_wide_as_the_sensor_is_high() {
    let level = example("roller-hall");
    let upright = composed(&level, |stage| stage.upright = Some(Grip::Down));
    let [level, upright] = [level, upright].map(|shot| Plan::try_from(&shot).expect("a plan"));
    let (width, height) = (level.body.sensor.width, level.body.sensor.height);
    assert_eq!(level.frame(), (width, height));
    assert_eq!(upright.frame(), (height, width));
    // The same streak is a larger share of it.
    let share = |plan: &Plan| outlook(plan).parts[3].streak_share;
    let (over, ratio) = (share(&upright) / share(&level), width / height);
    assert!((over - ratio).abs() < 1e-9, "{over} for {ratio}");
    // And a body that fills half of the level frame's height takes less of the upright one's.
    let tall = |plan: &Plan| {
        let staged = staging(plan, true);
        let at = &staged.people[0].as_ref().expect("it is seen").at;
        at.bottom - at.top
    };
    assert!((tall(&level) / tall(&upright) - ratio).abs() < 1e-6);
}

#[test]
fn places_say_whether_there_is_a_sky_over_them() {
    let shot = example("double-ropes");
    for place in Place::ALL {
        let plan = Plan::try_from(&composed(&shot, |stage| stage.place = *place)).expect("any place will do");
        assert_eq!(plan.outdoors, place.is_outdoors(), "{place:?}");
    }
    assert!(Plan::try_from(&Shot { scene: Scene::SlipwaySpin, stage: None, ..shot }).unwrap().outdoors);
}

#[test]
fn a_part_is_frozen_by_what_its_own_rows_see_of_a_flash() {
    let mut shot = example("double-ropes");
    for light in &mut shot.lights {
        (light.sync, light.power) = (pebble_core::shutter::SyncMode::Front, 1.0);
    }
    let mut told_apart = false;
    for time in ["1/320", "1/400", "1/500", "1/640", "1/800"] {
        shot.camera.shutter = time.to_owned();
        let plan = Plan::try_from(&shot).expect("a plan");
        let seen = outlook(&plan);
        for (part, rows) in seen.parts.iter().zip(plan.part_rows.iter()) {
            let Some((light, freeze)) = part.slowest.zip(part.freeze) else { continue };
            let light = &seen.lights[light];
            // Row by row, moment by moment: from the first to the last that has a tenth of the most that the row sees.
            let mut longest = 0.0_f64;
            for row in 0..=60 {
                let y = rows.0 + (rows.1 - rows.0) * f64::from(row) / 60.0;
                let (open, close) = (seen.run.open(y).as_secs(), seen.run.close(y).as_secs());
                let step = (close - open) / 2000.0;
                let moments = (0..=2000).map(|at| open + f64::from(at) * step);
                let bright = |at: f64| light.pulse.pulse.intensity(Seconds::from_secs(at) - light.ignition.at);
                let most = moments.clone().map(bright).fold(0.0, f64::max);
                let sum = moments.clone().map(bright).sum::<f64>() * step;
                let mut lit = moments.filter(|at| bright(*at) >= 0.1 * most);
                if let Some(first) = lit.next().filter(|_| sum >= 0.01) {
                    longest = longest.max(lit.next_back().unwrap_or(first) - first);
                }
            }
            let apart = (freeze.as_secs() / longest).log2();
            assert!(apart.abs() < 0.08, "{time}: {freeze:?} against {longest} s in rows {rows:?}");
            told_apart |= light.freeze.is_some_and(|whole| whole.as_secs() > 1.2 * freeze.as_secs());
        }
    }
    assert!(told_apart, "some part sees less of the flash than others");
}

#[test]
fn a_part_gets_the_flash_of_the_rows_that_it_stands_in() {
    let mut shot = example("double-ropes");
    // Too short for the curtains: the rows that open last get no flash.
    shot.camera.shutter = "1/500".to_owned();
    for light in &mut shot.lights {
        light.sync = pebble_core::shutter::SyncMode::Front;
    }
    let seen = |shot: &Shot| {
        let plan = Plan::try_from(shot).expect("a plan");
        let seen = outlook(&plan);
        assert!(seen.touched() > 0.2 && seen.touched() < 0.9, "{} of the rows lack some", seen.touched());
        let level = |part: usize| seen.parts[part].tones.part_flash.value() / plan.parts[part].reflectance;
        ([level(0), level(1)], plan.part_rows.to_vec())
    };
    let (low_first, rows) = seen(&shot);
    // The face stands higher than the shoes; row 0 is at the bottom or at the top, as the body has it.
    assert!(rows.iter().all(|(first, last)| 0.0 <= *first && first < last && *last <= 1.0), "{rows:?}");
    let apart = (low_first[0] / low_first[1]).log2().abs();
    assert!(apart > 1.0, "face and shoes are {apart:.2} stops apart");
    shot.camera.body.first_row = match shot.camera.body.first_row {
        pebble_core::gear::FirstRow::Top => pebble_core::gear::FirstRow::Bottom,
        pebble_core::gear::FirstRow::Bottom => pebble_core::gear::FirstRow::Top,
    };
    let (other, turned) = seen(&shot);
    assert!((other[0] > other[1]) != (low_first[0] > low_first[1]), "the other end is cut: {low_first:?}, {other:?}");
    assert!((turned[0].0 - (1.0 - rows[0].1)).abs() < 1e-9);
    // A part with no body on the stage has the whole frame.
    shot.parts[0].drawn_as = DrawnAs::Card;
    assert_eq!(seen(&shot).1[0], (0.0, 1.0));
}
