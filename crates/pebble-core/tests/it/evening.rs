//! Several lights together over an area: the least uneven way is that of going through all of them, and what is offered is
//! what it says.

use crate::common::examples;
use pebble_core::file::floor::{Area, Flag, Room};
use pebble_core::floor::{EvenWay, FloorAsk, evened, floor};
use pebble_core::hold::Held;
use pebble_core::matching::Wish;
use pebble_core::output::{Beam, Face};
use pebble_core::quantity::{Angle, Metres};
use pebble_core::shot::{Role, Shot};
use pebble_core::stage::evening::{Wanted, Way, least_uneven};
use pebble_core::stage::field::{CHEST, Lamp};
use pebble_core::stage::region::Region;
use pebble_core::stage::space::{Spot, spot};
use pebble_core::{Plan, findings, outlook};
use proptest::prelude::*;

fn lamp(strength: f64, at: Spot, half_deg: f64) -> Lamp {
    let face = Face { radius: Metres::from_metres(0.3), ..Face::default() };
    Lamp { strength, face, beam: Beam::new(Some(Angle::from_degrees(half_deg)), None), at, turned: None }
}

const CAMERA: Spot = spot(0.0, -5.0, 1.4);

/// Every way there is, gone through.
fn by_hand(region: &Region, standing: &[Lamp], choices: &[Vec<Lamp>], at_mark: (f64, f64)) -> Vec<(Vec<usize>, f64)> {
    let mut ways = vec![Vec::new()];
    for choice in choices {
        let more = |way: &Vec<usize>| (0..choice.len()).map(|at| [&way[..], &[at]].concat()).collect::<Vec<_>>();
        ways = ways.iter().flat_map(more).collect();
    }
    let mut all: Vec<(Vec<usize>, f64)> = Vec::new();
    for way in ways {
        let lamps: Vec<&Lamp> = standing.iter().chain(way.iter().zip(choices).map(|(at, of)| &of[*at])).collect();
        let light = |place: Spot| lamps.iter().map(|lamp| lamp.on_dome(place, CAMERA)).sum::<f64>();
        if (at_mark.0..=at_mark.1).contains(&light(CHEST)) {
            all.push((way, region.spread(light)));
        }
    }
    all.sort_by(|a, b| a.1.total_cmp(&b.1));
    all
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 24, ..ProptestConfig::default() })]

    #[test]
    fn the_least_uneven_of_all_ways_is_found(
        seed in proptest::collection::vec((0.5f64..6.0, -70.0f64..70.0, 1.5f64..3.0), 2..=3),
        standing in 0.0f64..80.0,
        (wide, deep) in (0.5f64..3.0, 0.5f64..2.0),
        within in 0.05f64..0.6,
    ) {
        let region = Region::between((-wide, wide), (-deep, deep), (0.6, 1.9));
        let choices: Vec<Vec<Lamp>> = seed
            .iter()
            .map(|(away, bearing, high)| {
                let (sine, cosine) = bearing.to_radians().sin_cos();
                let place = |share: f64| spot(away * share * sine, -away * share * cosine, *high);
                let of = |share: f64| [40.0, 60.0, 95.0].map(|strength| lamp(strength * away * away, place(share), 50.0));
                [0.8, 1.0, 1.4].into_iter().flat_map(of).collect()
            })
            .collect();
        let fixed = [lamp(standing, spot(1.0, -4.0, 2.0), 60.0)];
        let middle: f64 = choices.iter().map(|of| of[4].on_dome(CHEST, CAMERA)).sum::<f64>() + fixed[0].on_dome(CHEST, CAMERA);
        let at_mark = (middle * (-within).exp2(), middle * within.exp2());
        let wanted = Wanted { camera: CAMERA, at_mark, most: 4 };
        let found: Vec<Way> = least_uneven(&region, &fixed, &choices, wanted);
        let all = by_hand(&region, &fixed, &choices, at_mark);
        prop_assert_eq!(found.len(), all.len().min(4));
        for (found, (_, spread)) in found.iter().zip(&all) {
            // Equal ones may stand in either order.
            prop_assert!((found.spread - spread).abs() < 1e-4, "{} against {spread}", found.spread);
            let own = &all.iter().find(|(way, _)| *way == found.chosen).expect("it is one of them").1;
            prop_assert!((own - found.spread).abs() < 1e-4);
        }
    }
}

fn named<'a>(ways: &'a [EvenWay], name: &str) -> Option<&'a EvenWay> {
    ways.iter().find(|way| way.name == name)
}

#[test]
fn a_way_that_is_offered_keeps_the_mark_harms_nothing_and_is_as_even_as_it_says() {
    let mut offered = 0;
    for shot in examples() {
        let before = judged(&shot);
        for way in evened(&shot).expect("a set").ways {
            let Some(then) = &way.shot else {
                assert_eq!(way.name, "As it stands");
                continue;
            };
            let again = evened(then).expect("what is offered can be set").ways;
            assert!((again[0].spread_stops - way.spread_stops).abs() < 1e-9, "{}: {}", shot.title, way.name);
            if way.name.starts_with("Each on its line") {
                let now = evened(&shot).unwrap().ways[0].spread_stops;
                assert!(way.spread_stops < now - 0.09, "{}: {} against {now}", shot.title, way.spread_stops);
                assert!(way.at_mark_says.starts_with("as bright at the mark"), "{}", shot.title);
                // Another ratio of the lights is never slipped in.
                let told = way.at_mark_says.contains("ratio");
                assert!(!told || way.name.ends_with("other ratios"), "{}: {}", shot.title, way.at_mark_says);
            }
            if way.spoils.is_none() {
                offered += 1;
                assert!(judged(then) <= before, "{}: {}", shot.title, way.name);
            }
        }
    }
    assert!(offered >= 2, "{offered} ways");
}

/// Findings in trouble.
fn judged(shot: &Shot) -> usize {
    let plan = Plan::try_from(shot).expect("a plan");
    findings::count(&plan, &outlook(&plan)).0
}

/// A hall with four equal lights, close to the middle.
fn hall() -> Shot {
    let mut shot = examples().into_iter().find(|shot| shot.title.starts_with("Roller hall")).expect("it ships");
    let mut one = shot.lights.iter().find(|light| light.role == Role::Key).expect("a key").clone();
    one.bounce = None;
    one.misses.clear();
    shot.lights.clear();
    for (bearing, role) in [(-40.0, Role::Key), (40.0, Role::Fill), (-130.0, Role::Fill), (130.0, Role::Fill)] {
        let mut light = one.clone();
        (light.role, light.bearing_deg, light.distance_m, light.power) = (role, bearing, 2.5, 1.0 / 8.0);
        light.group = ["A", "B", "C", "D"][shot.lights.len()].to_owned();
        shot.lights.push(light);
    }
    shot.area = Some(Area {
        left_m: -2.5,
        right_m: 2.5,
        near_m: -2.0,
        far_m: 2.0,
        low_m: 0.6,
        high_m: 1.9,
        corners: Vec::new(),
    });
    shot.room = Some(Room { left_m: -9.0, right_m: 9.0, near_m: -9.0, far_m: 9.0, ceiling_m: 6.0 });
    shot
}

#[test]
fn far_corners_are_more_even_than_one_light_in_the_middle() {
    let ways = evened(&hall()).expect("a set").ways;
    let (now, corners, middle) =
        (&ways[0], named(&ways, "In the corners").unwrap(), named(&ways, "One in the middle").unwrap());
    assert!(corners.spread_stops < middle.spread_stops, "{ways:?}");
    assert!(corners.spread_stops < now.spread_stops - 1.0, "{ways:?}");
    assert!(corners.says.matches(" at ").count() == 4 && middle.says.ends_with("off"), "{ways:?}");
    let line = named(&ways, "Each on its line").unwrap();
    assert!(line.spread_stops < now.spread_stops - 0.1, "{ways:?}");
    // A flag that was made for where a light stood goes, and that is said.
    let mut flagged = hall();
    flagged.lights[0].flag = Some(Flag { x_m: -1.2, y_m: -2.4, z_m: 2.0, width_m: 0.4, height_m: 0.4 });
    let corners = evened(&flagged).unwrap().ways.into_iter().find(|way| way.name == "In the corners").unwrap();
    assert!(corners.says.contains(", its flag off"), "{}", corners.says);
    assert!(corners.shot.unwrap().lights[0].flag.is_none());
}

#[test]
fn what_is_locked_stays_and_what_cannot_be_is_said() {
    let on_line = |shot: &Shot| {
        let answer = evened(shot).unwrap();
        (answer.ways.iter().find(|way| way.name.starts_with("Each on its line")).cloned(), answer.says)
    };
    let mut shot = hall();
    shot.hold = vec![Held::FlashDistance, Held::Power];
    let (none, why) = on_line(&shot);
    assert!(none.is_none() && why.is_some_and(|why| why.contains("locked")), "nothing may move");
    // One side brighter than the other: powers alone can mend that.
    (shot.hold, shot.lights[0].power) = (vec![Held::FlashDistance], 1.0 / 2.0);
    let then = on_line(&shot).0.expect("fainter on one side").shot.unwrap();
    assert!(shot.lights.iter().zip(&then.lights).all(|(before, after)| before.distance_m == after.distance_m));
    assert!(shot.lights.iter().zip(&then.lights).any(|(before, after)| before.power != after.power));
    // The key is carried wherever it stands in the list.
    let mut many = hall();
    let more = many.lights[1].clone();
    many.lights = [vec![more; 4], vec![many.lights[0].clone()]].concat();
    assert!(named(&evened(&many).unwrap().ways, "One in the middle").is_some_and(|way| way.says.contains("key")));
    // A light alone has no corners to stand in; automatics stay, and nothing lit has no way at all.
    shot = hall();
    shot.lights.truncate(1);
    assert!(named(&evened(&shot).unwrap().ways, "In the corners").is_none());
    shot.lights[0].role = Role::Rim;
    assert!(on_line(&shot).1.is_some_and(|why| why.contains("rims")));
    shot.lights[0].on = false;
    let dark = evened(&shot).unwrap();
    assert!(dark.ways.is_empty() && dark.says.is_some_and(|why| why.contains("No light")));
}

#[test]
fn a_stand_of_a_boom_stays_within_the_walls() {
    let mut shot = hall();
    shot.lights[0].boom_m = Some(2.0);
    let ways = evened(&shot).unwrap().ways;
    let then = named(&ways, "In the corners").unwrap().shot.clone().unwrap();
    let set = floor(&then, None, FloorAsk::default()).unwrap();
    for light in &set.lights {
        assert!(light.stand.x_m.abs() < 8.6 && light.stand.y_m.abs() < 8.6, "{}: {:?}", light.label, light.stand);
    }
    // What nobody weighed is not taken for nothing.
    shot.lights[0].unit.mass_kg = Some(2.0);
    shot.lights[0].modifier.mass_kg = None;
    let says = |shot: &Shot| floor(shot, None, FloorAsk::default()).unwrap().lights[0].boom_says.clone().unwrap();
    assert!(says(&shot).contains("weigh it"), "{}", says(&shot));
    (shot.lights[0].heads, shot.lights[0].modifier.mass_kg) = (1, Some(0.5));
    assert_eq!(says(&shot), "2.5 kg at its end, about 5.0 kg 1.0 m behind the stand");
}

#[test]
fn a_key_that_is_less_even_than_asked_is_a_finding_and_going_back_mends_it() {
    let mut shot = examples().into_iter().find(|shot| shot.title.starts_with("Silks")).expect("it ships");
    let found = |shot: &Shot| {
        let plan = Plan::try_from(shot).expect("a plan");
        findings::judge(&plan, &outlook(&plan)).into_iter().find(|one| one.id == "uneven")
    };
    let asked = |most: f64| Some(Wish { even_within_stops: Some(most), ..Wish::default() });
    shot.wish = asked(1.6);
    shot.area = Some(Area {
        left_m: -1.0,
        right_m: 1.0,
        near_m: -0.5,
        far_m: 0.5,
        low_m: 0.6,
        high_m: 1.9,
        corners: Vec::new(),
    });
    let uneven = found(&shot).expect("2.0 stops are more");
    assert!(uneven.title.ends_with("stops over the area, 1.6 wanted"), "{}", uneven.title);
    let remedy = uneven.remedies.first().unwrap_or_else(|| panic!("{uneven:?}"));
    assert!(remedy.label.contains("back"), "{}", remedy.label);
    let mut then = serde_json::to_value(&shot).unwrap();
    for change in &remedy.changes {
        *then.pointer_mut(&change.pointer).expect("it is in the file") = serde_json::to_value(&change.value).unwrap();
    }
    let then: Shot = serde_json::from_value(then).unwrap();
    assert!(found(&then).is_none(), "{}", remedy.label);
    assert!(then.lights[0].distance_m > shot.lights[0].distance_m);
    shot.wish = asked(2.5);
    assert!(found(&shot).is_none());
}
