//! Lights that are turned away from the mark: feathered to a known side, or aimed at somebody else.

use crate::common::{applied, example, shot};
use pebble_core::file::stage::Person;
use pebble_core::findings;
use pebble_core::floor::{CarriedTo, FloorAnswer, FloorAsk, LightOf, floor};
use pebble_core::output::{Beam, Face};
use pebble_core::quantity::Angle;
use pebble_core::shot::{Role, Shot};
use pebble_core::stage::Stage;
use pebble_core::stage::field::{CHEST, Lamp, Turned};
use pebble_core::stage::space::{Spot, spot};
use pebble_core::{Plan, outlook};
use proptest::prelude::*;

fn lamp(at: Spot, turned: Option<Turned>) -> Lamp {
    let beam = Beam::new(Some(Angle::from_degrees(30.0)), None);
    Lamp { strength: 900.0, face: Face::default(), beam, at, turned }
}

fn set(shot: &Shot, to: Option<&CarriedTo>) -> FloorAnswer {
    floor(shot, to, FloorAsk::default()).expect("a set")
}

/// The light carried to where it is, and aimed.
fn aimed(seen: &FloorAnswer, light: usize, aim_m: [f64; 3]) -> CarriedTo {
    let at = &seen.lights[light].at;
    CarriedTo { light, x_m: at.x_m, y_m: at.y_m, z_m: at.z_m, power: None, flag: None, aim_m: Some(aim_m) }
}

/// Two metres before the mark at the height of a chest: to the right is to the camera's right, up is up.
#[test]
fn sides_are_those_of_who_stands_behind_the_light() {
    let from = spot(0.0, -2.0, CHEST.z);
    let turned = |by: f64, towards: f64| {
        let [by, towards] = [by, towards].map(Angle::from_degrees);
        lamp(from, Some(Turned { by, towards })).aim()
    };
    let near = |a: Spot, b: Spot| assert!((a - b).length() < 1e-9, "{a:?} is not {b:?}");
    let (side, on) = (2.0 * 30f64.to_radians().sin(), 2.0 * 30f64.to_radians().cos());
    near(turned(30.0, 0.0), spot(side, on - 2.0, CHEST.z));
    near(turned(30.0, 180.0), spot(-side, on - 2.0, CHEST.z));
    near(turned(30.0, 90.0), spot(0.0, on - 2.0, CHEST.z + side));
    near(turned(30.0, -90.0), spot(0.0, on - 2.0, CHEST.z - side));
    // Over the chest it looks straight down: the camera's right is right.
    let down = lamp(spot(0.0, 0.0, 3.3), Some(Turned { by: Angle::from_degrees(45.0), towards: Angle::ZERO })).aim();
    assert!(down.x > 1.3 && down.y.abs() < 1e-9, "{down:?}");
}

/// A beam that loses a stop at 30°: aimed 30° to the side it is a stop down at the mark, and whole where it is aimed.
#[test]
fn who_is_aimed_at_gets_the_light_that_the_mark_loses() {
    let (from, aim) = (spot(0.0, -2.0, CHEST.z), spot(2.0 * 30f64.to_radians().tan(), 0.0, CHEST.z));
    let (straight, away) = (lamp(from, None), lamp(from, Turned::at(from, aim)));
    assert!(((straight.on(CHEST) / away.on(CHEST)).log2() - 1.0).abs() < 1e-6);
    assert!((away.on(aim) / away.aimed_at(aim) - 1.0).abs() < 1e-9);
    // Which lost a stop by the beam before, and is as far off.
    assert!(((away.on(aim) / straight.on(aim)).log2() - 1.0).abs() < 1e-6);
}

/// On the Bench and on the floor it is one light: what a meter reads at the mark is what is lost in space.
#[test]
fn the_bench_reads_what_the_floor_says_is_lost() {
    let shot = shot();
    let before = set(&shot, None);
    let aim = [1.2, 0.6, 1.3];
    let after = set(&shot, Some(&aimed(&before, 0, aim)));
    let light = &after.shot.lights[0];
    assert!(light.off_axis_deg > 5.0 && light.off_axis_towards_deg.is_some());
    assert_eq!((light.bearing_deg, light.distance_m), (shot.lights[0].bearing_deg, shot.lights[0].distance_m));
    let placed = |shot: &Shot| {
        let plan = Plan::try_from(shot).expect("a plan");
        let seen = outlook(&plan);
        let in_space = seen.lamp(&plan, 0).on(CHEST);
        let told = seen.lights[0].on_set.exposure.as_lux_seconds();
        assert!((in_space / told - 1.0).abs() < 1e-9, "{in_space} in space, {told} on the Bench");
        seen.lights[0].on_set.placement.as_stops()
    };
    let lost = placed(&after.shot) - placed(&shot);
    assert!(lost < -0.05, "{lost}");
    let says = after.lights[0].turned_says.as_deref().expect("it is turned");
    assert!(says.contains(&format!("−{:.1} at the mark", -lost)), "{says} for {lost}");
    assert!(after.lights[0].looks_says.as_deref().is_some_and(|says| says.contains("of the mark")));
    assert!(before.lights[0].looks_says.is_none());
    // Where it passes the height of a chest is where it was aimed, to the tenths of a degree that are written.
    let found = &after.lights[0].aim;
    assert!((found.x_m - aim[0]).hypot(found.y_m - aim[1]) < 0.03, "{found:?}");
    // Carried on its own line it stays turned as it is, and loses as much.
    let mut nearer = after.shot.clone();
    nearer.lights[0].distance_m *= 0.7;
    assert!((set(&nearer, None).shot.lights[0].off_axis_deg - light.off_axis_deg).abs() < 1e-9);
    placed(&nearer);
    // Aimed at the mark again nothing of it is left.
    let back = set(&after.shot, Some(&aimed(&after, 0, [0.0, 0.0, 1.3])));
    assert_eq!(serde_json::to_value(&back.shot).unwrap(), serde_json::to_value(&before.shot).unwrap());
}

/// An axis that nobody said a side for loses its light wherever it shines, as it always did.
#[test]
fn a_side_that_nobody_knows_changes_nothing() {
    let mut shot = shot();
    shot.lights[0].off_axis_deg = 20.0;
    let told = set(&shot, None);
    assert!(told.lights[0].turned_says.is_none());
    assert!((told.lights[0].aim.x_m.hypot(told.lights[0].aim.y_m)) < 1e-9);
}

/// A second person, two metres to the side, and a second light that stands nearer to them.
fn two() -> (Shot, usize) {
    let mut shot = example("double-ropes");
    let people = &mut shot.stage.insert(Stage::of_scene(shot.scene)).people;
    let mut second: Person = people[0].clone();
    (second.right_m, second.away_m, second.stands_by) = (2.2, 0.4, true);
    people.truncate(1);
    people.push(second);
    let mut light = shot.lights.iter().find(|light| light.group == "A").expect("a key").clone();
    (light.group, light.role, light.target_stops) = ("D".to_owned(), Role::Fill, None);
    (light.bearing_deg, light.height_deg, light.distance_m) = (70.0, 10.0, 3.4);
    shot.lights.push(light);
    let last = shot.lights.len() - 1;
    (shot, last)
}

#[test]
fn each_of_two_is_told_and_has_a_light_of_their_own() {
    let (shot, light) = two();
    let seen = set(&shot, None);
    let [subject, second] = &seen.people[..] else { panic!("two people") };
    assert_eq!((subject.name.as_str(), second.name.as_str(), second.chest_m), ("Subject", "Second", [2.2, 0.4, 1.3]));
    assert!(second.light.is_none(), "no light is theirs yet");
    assert!(second.says.contains("against the subject"), "{}", second.says);
    let after = set(&shot, Some(&aimed(&seen, light, [2.2, 0.4, 1.3])));
    assert_eq!(after.lights[light].aimed_at, Some(1));
    let stops = |seen: &FloorAnswer, person: usize| seen.people[person].stops.expect("lit");
    assert!(stops(&after, 1) > stops(&seen, 1), "more light on who it is aimed at");
    assert!(stops(&after, 0) < stops(&seen, 0), "and less on the mark");
    // The press makes both as bright, as far as the dial goes.
    let matches = after.people[1].matches.as_ref().expect("its power makes up for it");
    let to = CarriedTo { power: matches.power, aim_m: None, ..aimed(&after, light, [0.0; 3]) };
    let level = set(&after.shot, Some(&to));
    let apart = stops(&level, 1) - stops(&level, 0);
    assert!(apart.abs() < 0.25 || matches.says.contains("from it"), "{apart} after {}", matches.says);
    assert!(apart.abs() < (stops(&after, 1) - stops(&after, 0)).abs());
    // One person needs no list.
    assert!(set(&example("silks"), None).people.len() < 2);
}

/// Where a light shall fall is meant for whom it is turned to: there it is judged, told and put right.
#[test]
fn a_target_stands_where_the_light_is_turned_to() {
    let (mut shot, light) = two();
    shot.lights[light].target_stops = Some(0.0);
    let seen = set(&shot, None);
    let shot = set(&shot, Some(&aimed(&seen, light, [2.2, 0.4, 1.3]))).shot;
    let there = |shot: &Shot| {
        let plan = Plan::try_from(shot).expect("a plan");
        let seen = outlook(&plan);
        let of = &seen.lights[light];
        let gets = |at: Spot| (seen.lamp(&plan, light).on(at) * of.share / seen.reference.as_lux_seconds()).log2();
        let told = findings::judge(&plan, &seen).into_iter().find(|one| one.id.starts_with("balance"));
        (gets(spot(2.2, 0.4, 1.3)), gets(CHEST), told)
    };
    // At the power with which it is right on them it is too little at the mark, and nothing is said of it.
    let mut right = shot.clone();
    right.lights[light].power *= (-there(&shot).0).exp2();
    let (on_them, at_mark, told) = there(&right);
    assert!(on_them.abs() < 1e-6 && at_mark < -0.3, "{on_them} and {at_mark}");
    assert!(told.is_none(), "{told:?}");
    // Too bright on them, it is said so, with the figure there; what mends it leaves it right on them.
    let mut bright = right.clone();
    bright.lights[light].power *= 2.0;
    let (_, _, told) = there(&bright);
    let told = told.expect("it is a stop too bright");
    assert!(told.cause.contains("+1.0 on whom it is turned to"), "{}", told.cause);
    for remedy in &told.remedies {
        let (then, _, left) = there(&applied(&bright, &remedy.changes));
        assert!(then.abs() < 0.35 && left.is_none(), "{}: {then}", remedy.label);
    }
    // The ladder shows what it gives at the mark, and its target as much lower.
    let written = pebble_core::forecast(&Plan::try_from(&right).expect("a plan"));
    let rung = written.ladder.rungs.iter().find(|rung| rung.id == format!("light-{light}")).expect("a rung");
    let (stands, wanted) = (rung.stops.expect("lit"), rung.target_stops.expect("wanted"));
    assert!((stands - wanted).abs() < 0.01 && wanted < -0.3, "{stands} for {wanted}");
}

/// By way of a surface, or for the backdrop, there is nobody to turn it to.
#[test]
fn what_does_not_shine_on_people_is_not_turned_to_them() {
    let (shot, light) = two();
    let seen = set(&shot, None);
    let to = aimed(&seen, light, [2.2, 0.4, 1.3]);
    let mut backdrop = shot.clone();
    backdrop.lights[light].role = Role::Backdrop;
    let why = floor(&backdrop, Some(&to), FloorAsk::default()).expect_err("no aim").to_string();
    assert!(why.contains("carried.aim_m") && why.contains("backdrop"), "{why}");
}

#[test]
fn an_aim_that_cannot_be_is_refused_at_its_field() {
    let shot = shot();
    let seen = set(&shot, None);
    for aim in [[f64::NAN, 0.0, 1.3], [1e9, 0.0, 1.3], [0.0, 0.0, -4.0]] {
        let why = floor(&shot, Some(&aimed(&seen, 0, aim)), FloorAsk::default()).expect_err("no aim").to_string();
        assert!(why.contains("carried.aim_m"), "{why}");
    }
    let mut wrong = shot.clone();
    (wrong.lights[0].off_axis_deg, wrong.lights[0].off_axis_towards_deg) = (10.0, Some(1e6));
    assert!(Plan::try_from(&wrong).expect_err("no side").to_string().contains("off_axis_towards_deg"));
    // Turned right away it lights nothing at the mark, and everything is still told.
    let away = &seen.lights[0].at;
    let behind = [2.0 * away.x_m, 2.0 * away.y_m, 1.3];
    let told = set(&shot, Some(&aimed(&seen, 0, behind)));
    assert!(told.lights[0].turned_says.is_some() && told.reads.is_none_or(|reads| !reads.contains("NaN")));
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(128))]

    /// There and back: a light that is aimed at a place has it on its axis, and keeps it when the set is turned about.
    #[test]
    fn an_aim_is_on_the_axis(
        (x, y, z) in (-6.0..6.0f64, -6.0..6.0f64, 0.2..5.0f64),
        (right, away, up) in (-6.0..6.0f64, -6.0..6.0f64, 0.0..4.0f64),
    ) {
        let (from, aim) = (spot(x, y, z), spot(right, away, up));
        prop_assume!((from - CHEST).length() > 0.3 && (from - aim).length() > 0.3);
        let lamp = lamp(from, Turned::at(from, aim));
        prop_assert!((lamp.aim() - from).unit().dot((aim - from).unit()) > 1.0 - 1e-9);
        prop_assert!(((lamp.aim() - from).length() - (CHEST - from).length()).abs() < 1e-9);
    }
}

/// A light for the backdrop is measured to the backdrop: it stands around that, looks at it, and goes back when it is hung
/// farther back.
#[test]
fn a_light_for_the_backdrop_stands_around_the_backdrop() {
    let wall = example("finishers-wall");
    let index = wall.lights.iter().position(|light| light.role == Role::Backdrop).expect("it has one");
    let of = |shot: &Shot| {
        let plan = Plan::try_from(shot).expect("a plan");
        (outlook(&plan).lamp(&plan, index), plan.measured_to(index))
    };
    let (lamp, middle) = of(&wall);
    let light = &wall.lights[index];
    assert!(((lamp.at - middle).length() - light.distance_m).abs() < 1e-9);
    assert!((middle - spot(0.0, wall.background.behind_m, CHEST.z)).length() < 1e-12);
    assert!(lamp.off_axis(middle).as_radians() < 1e-6, "it looks at the middle of it");
    let mut farther = wall.clone();
    farther.background.behind_m += 0.7;
    assert!((of(&farther).0.at - lamp.at - spot(0.0, 0.7, 0.0)).length() < 1e-9);

    // Carried over the floor, the Bench has the distance to the backdrop.
    let before = set(&wall, None);
    let at = &before.lights[index].at;
    let to =
        CarriedTo { light: index, x_m: at.x_m, y_m: at.y_m - 0.3, z_m: at.z_m, power: None, flag: None, aim_m: None };
    let after = set(&wall, Some(&to));
    let now = spot(after.lights[index].at.x_m, after.lights[index].at.y_m, after.lights[index].at.z_m);
    assert!((now - spot(to.x_m, to.y_m, to.z_m)).length() < 0.02, "{now:?}");
    assert!(((now - middle).length() - after.shot.lights[index].distance_m).abs() < 0.01);
    // Nobody is lit by it, so nothing is told of it over the area, nor is it brought in.
    assert!(after.lights[index].evenness.is_none() && after.lights[index].brings_in.is_none());
}

/// What the floor says of the backdrop is what its own lights put there, as near as the Bench has it at its middle.
#[test]
fn the_backdrop_reads_by_the_lights_that_are_for_it() {
    let mut wall = example("finishers-wall");
    for light in &mut wall.lights {
        light.on = light.role == Role::Backdrop;
        light.height_deg = 0.0;
        // Straight at it there is no cosine between what a meter reads there and what a flat wall gets.
        light.bearing_deg = 0.0;
    }
    let plan = Plan::try_from(&wall).expect("a plan");
    let seen = outlook(&plan);
    let told = set(&wall, None).behind.expect("told");
    let flash = seen.spill.exposure.as_lux_seconds() / seen.reference.as_lux_seconds();
    let level = plan.background_reflectance / 0.18 * (flash + seen.background.placement.as_ratio());
    let bright = told.bright_stops.expect("lit");
    assert!((bright - level.log2()).abs() < 0.1, "{bright} against {}", level.log2());
}

/// A light close to the wall that it lights is not in the subject, and tells nothing of the area where nobody is lit by it.
#[test]
fn a_light_for_the_backdrop_is_judged_by_the_backdrop() {
    let mut wall = example("finishers-wall");
    let index = wall.lights.iter().position(|light| light.role == Role::Backdrop).expect("it has one");
    (wall.lights[index].distance_m, wall.background.behind_m) = (0.3, 4.0);
    let told = floor(&wall, None, FloorAsk { of: LightOf::One(index), in_hand: index, ..FloorAsk::default() });
    let told = told.expect("a set");
    assert!(told.notes.iter().all(|note| !note.title.contains("in the subject")), "{:?}", told.notes);
    assert!(
        told.even.is_none() && told.contours.is_empty() && told.even_says.contains("backdrop"),
        "{}",
        told.even_says
    );
    // Its circle is on what it lights.
    let light = &told.lights[index];
    assert!((light.circle_m / light.distance_m - light.half_deg.to_radians().tan()).abs() < 1e-6);
    // One that goes by way of a surface comes from all over that.
    let mut bounced = example("double-ropes");
    bounced.lights[0].role = Role::Key;
    bounced.lights[0].bounce = example_bounce();
    let told = floor(&bounced, None, FloorAsk { of: LightOf::One(0), ..FloorAsk::default() }).expect("a set");
    assert!(
        told.even.is_none() && told.contours.is_empty() && told.even_says.contains("surface"),
        "{}",
        told.even_says
    );
}

fn example_bounce() -> Option<pebble_core::shot::BouncedOff> {
    serde_json::from_value(serde_json::json!({"surface_m": 2.5, "tilt_deg": 60.0, "reflectance": 0.8}))
        .expect("a surface")
}
