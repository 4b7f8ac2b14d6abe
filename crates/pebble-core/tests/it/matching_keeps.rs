//! Matching keeps what is locked on the Bench and what is asked of the set: apertures, freezing time, places.

use crate::common::{examples, plan};
use pebble_core::gear::Kit;
use pebble_core::hold::Held;
use pebble_core::matching::{Between, Brief, Going, Priority, Stock, Wish, applied, find, nearest, whole_shot};
use pebble_core::shot::Shot;

fn stock() -> Stock {
    let kit: Kit = serde_json::from_str(include_str!("../../../../docs/examples/kit.json")).unwrap();
    Stock::of_kit(&kit).unwrap()
}

fn wished(shot: &Shot, wish: Wish) -> Shot {
    Shot { wish: Some(wish), ..shot.clone() }
}

#[test]
fn every_lock_of_the_bench_stays() {
    let stock = stock();
    let mut kept = 0;
    for (index, shot) in examples().into_iter().enumerate() {
        for lock in [Held::Aperture, Held::Iso, Held::Shutter, Held::FlashDistance, Held::Filter, Held::Power] {
            let locked = Shot { hold: vec![lock], wish: None, ..shot.clone() };
            let plan = plan(&locked);
            let brief = Brief::new(&locked, &plan).unwrap();
            let now = &plan.settings;
            for found in find(&brief, &stock, Priority::Balanced, &Going::default()).unwrap() {
                let to = found.candidate(&brief, &stock);
                let same = match lock {
                    Held::Aperture => to.aperture == now.aperture,
                    Held::Iso => to.iso == now.iso,
                    Held::Shutter => to.shutter == now.shutter,
                    Held::Filter => to.filter == now.filter,
                    Held::Power => (to.power / now.key().power).log2().abs() < 0.05,
                    _ => to.distance == now.key().distance,
                };
                assert!(same, "{index}: {lock:?} moved to {to:?}");
                kept += 1;
            }
        }
    }
    assert!(kept > 20, "a lock that leaves nothing keeps nothing: {kept}");
}

/// What the Bench holds of the picture is held by every set-up, as the forecast of the shot so set tells it.
#[test]
fn every_look_that_is_held_stays() {
    let stock = stock();
    for look in [Held::Key, Held::Ambient, Held::Background, Held::Depth, Held::Blur] {
        let mut kept = 0;
        for shot in examples() {
            let shot = Shot { hold: vec![look], wish: None, ..shot };
            let now = plan(&shot);
            let (brief, was) = (Brief::new(&shot, &now).unwrap(), pebble_core::outlook(&now));
            for found in find(&brief, &stock, Priority::Balanced, &Going::default()).unwrap().iter().step_by(5) {
                let there = applied(&shot, &stock, &found.candidate(&brief, &stock).setup(&brief)).unwrap();
                let is = pebble_core::outlook(&plan(&there));
                let near = |a: pebble_core::quantity::Stops, b: pebble_core::quantity::Stops| {
                    (a - b).as_stops().abs() <= 0.17 + 1e-6
                };
                let stays = match look {
                    Held::Key => near(is.key().in_frame.placement, was.key().in_frame.placement),
                    Held::Ambient => near(is.ambient.placement, was.ambient.placement),
                    Held::Background => near(is.background.placement, was.background.placement),
                    Held::Depth => is.depth == was.depth,
                    _ => is.key().freeze <= was.key().freeze,
                };
                assert!(stays, "{}: {look:?} with {:?}", shot.title, found.candidate(&brief, &stock));
                kept += 1;
            }
        }
        assert!(kept > 8, "{look:?} leaves nothing: {kept}");
    }
}

/// A lamp's or the sky's place on the background is asked for where it has a target; what the wish says of it counts more.
#[test]
fn a_target_of_the_background_is_kept() {
    let stock = stock();
    let mut shot = examples().remove(1);
    let now = pebble_core::outlook(&plan(&shot)).background.placement.as_stops();
    shot.targets.background_stops = Some(now - 1.0);
    shot.wish = Some(Wish { ambient: Some(Between { low_stops: None, high_stops: None }), ..Wish::default() });
    let asked = plan(&shot);
    let brief = Brief::new(&shot, &asked).unwrap();
    let found = find(&brief, &stock, Priority::Balanced, &Going::default()).unwrap();
    assert!(!found.is_empty(), "there is a way a stop darker");
    for one in &found {
        let there = applied(&shot, &stock, &one.candidate(&brief, &stock).setup(&brief)).unwrap();
        let falls = pebble_core::outlook(&plan(&there)).background.placement.as_stops();
        assert!((falls - (now - 1.0)).abs() <= 0.34 + 1e-6, "it falls at {falls}, wanted {}", now - 1.0);
    }
    let free = || Some(Between { low_stops: None, high_stops: None });
    let open = wished(&shot, Wish { background: free(), ambient: free(), ..Wish::default() });
    let open_brief = Brief::new(&open, &asked).unwrap();
    let more = find(&open_brief, &stock, Priority::Balanced, &Going::default()).unwrap();
    assert!(more.iter().map(|one| one.ways).sum::<u64>() > found.iter().map(|one| one.ways).sum::<u64>());
}

/// No light of a whole set lasts longer than it does now, each by its own measure.
#[test]
fn no_light_of_a_set_blurs_more_than_it_does() {
    let stock = stock();
    let mut seen = 0;
    for shot in examples() {
        let shot = Shot { hold: vec![Held::Blur], wish: None, ..shot };
        let now = plan(&shot);
        let (brief, was) = (Brief::new(&shot, &now).unwrap(), pebble_core::outlook(&now));
        for crew in whole_shot(&brief, &stock, Priority::Balanced, &Going::default()).unwrap() {
            let is = pebble_core::outlook(&plan(&applied(&shot, &stock, &crew.setup).unwrap()));
            for set in &crew.setup.lights {
                let (then, is) = (was.lights[set.light].freeze, is.lights[set.light].freeze);
                assert!(is <= then, "{}: light {} lasts {is:?}, {then:?} before", shot.title, set.light);
                seen += 1;
            }
        }
    }
    assert!(seen > 5, "{seen} lights");
}

#[test]
fn lights_that_stay_stay_in_a_whole_set_too() {
    let hall =
        wished(&examples().remove(7), Wish { places_stay: Some(true), any_modifier: Some(false), ..Wish::default() });
    let plan = plan(&hall);
    let brief = Brief::new(&hall, &plan).unwrap();
    let crews = whole_shot(&brief, &stock(), Priority::Balanced, &Going::default()).unwrap();
    for crew in &crews {
        for light in &crew.setup.lights {
            assert_eq!(light.distance_m, hall.lights[light.light].distance_m, "light {}", light.light);
        }
    }
    let free = wished(&hall, Wish::default());
    let free_brief = Brief::new(&free, &plan).unwrap();
    let all = whole_shot(&free_brief, &stock(), Priority::Balanced, &Going::default()).unwrap();
    assert!(!all.is_empty(), "where lights may walk there is a way");
}

#[test]
fn what_cannot_be_kept_is_named_with_its_price() {
    let stock = stock();
    let mut named = std::collections::BTreeSet::new();
    for shot in examples() {
        for wish in [
            Wish { aperture_min_f: Some(16.0), ..Wish::default() },
            Wish { freeze_at_most_ms: Some(0.02), ..Wish::default() },
            Wish { places_stay: Some(true), ..Wish::default() },
        ] {
            let shot = wished(&shot, wish);
            let plan = plan(&shot);
            let Ok(mut brief) = Brief::new(&shot, &plan) else { continue };
            if !find(&brief, &stock, Priority::Balanced, &Going::default()).unwrap().is_empty() {
                continue;
            }
            for near in nearest(&mut brief, &stock, &Going::default()).unwrap_or_default() {
                // What is said to be enough is enough.
                let wish = near.gives.iter().fold(shot.wish.clone(), |wish, give| {
                    Some(brief.relaxed(wish.as_ref(), give, &near.found, &stock))
                });
                let eased = Shot { wish, ..shot.clone() };
                let eased_brief = Brief::new(&eased, &plan).unwrap();
                let now = find(&eased_brief, &stock, Priority::Balanced, &Going::default()).unwrap();
                assert!(!now.is_empty(), "{}: {:?}", shot.title, near.gives);
                named.extend(near.gives.iter().map(|give| give.condition));
            }
        }
    }
    let of_these = named.iter().filter(|one| {
        format!("{one:?}") == "Aperture" || format!("{one:?}") == "Freeze" || format!("{one:?}") == "Place"
    });
    assert!(of_these.count() >= 1, "{named:?}");
}

#[test]
fn limits_that_leave_nothing_between_them_are_refused_at_their_field() {
    for (wish, field) in [
        (Wish { aperture_min_f: Some(11.0), aperture_max_f: Some(4.0), ..Wish::default() }, "wish.aperture_min_f"),
        (Wish { aperture_min_f: Some(0.1), ..Wish::default() }, "wish.aperture_min_f"),
        (Wish { freeze_at_most_ms: Some(-1.0), ..Wish::default() }, "wish.freeze_at_most_ms"),
    ] {
        let shot = wished(&examples()[0], wish);
        let why = pebble_core::Plan::try_from(&shot).map(|_| ()).unwrap_err();
        assert_eq!(why.field(), field);
    }
}

#[test]
fn where_little_shall_change_what_is_set_comes_first_while_it_works() {
    let stock = stock();
    let mut same = 0;
    for shot in examples() {
        let plan = plan(&shot);
        let brief = Brief::new(&shot, &plan).unwrap();
        let all = find(&brief, &stock, Priority::LeastChange, &Going::default()).unwrap();
        let balanced = find(&brief, &stock, Priority::Balanced, &Going::default()).unwrap();
        let turned = |found: &pebble_core::matching::Found| {
            let (to, now) = (found.candidate(&brief, &stock), &plan.settings);
            let own = &shot.lights[plan.key];
            2.0 * (to.aperture.number() / now.aperture.number()).log2().abs()
                + (to.iso.number() / now.iso.number()).log2().abs()
                + (to.shutter.time() / now.shutter.time()).log2().abs()
                + (to.filter - now.filter).as_stops().abs()
                + 2.0 * (to.distance / now.key().distance).log2().abs()
                + 2.0
                    * f64::from(u8::from(to.unit.wire.id != own.unit.id) + u8::from(to.modifier.id != own.modifier.id))
        };
        let Some((first, best)) = all.first().zip(balanced.first()) else { continue };
        assert!(turned(first) <= turned(best) + 0.2, "{}: {} and {}", shot.title, turned(first), turned(best));
        assert!(all.iter().all(|other| turned(first) <= turned(other) + 0.2), "{}", shot.title);
        same += usize::from(turned(first) < turned(best) - 0.5);
    }
    assert!(same >= 2, "it changed nothing for any shot");
}

#[test]
fn no_more_is_sharp_than_may_be() {
    let stock = stock();
    for most in [0.3, 0.8, 2.0] {
        let mut shot = examples().remove(0);
        (shot.subject.depth_m, shot.subject.depth_at_most_m) = (0.1, Some(most));
        let plan = plan(&shot);
        let brief = Brief::new(&shot, &plan).unwrap();
        for found in find(&brief, &stock, Priority::Balanced, &Going::default()).unwrap() {
            let mut there = plan.settings;
            there.aperture = found.candidate(&brief, &stock).aperture;
            let zone = pebble_core::outlook(&plan.with(there)).depth;
            let total = zone.far.map_or(f64::INFINITY, |far| (far - zone.near).as_metres());
            assert!(total <= most + 1e-9, "{total} of {most}");
        }
    }
}

/// Every set-up is as even over the area as was asked, by the floor's own figure; without an area nobody can ask.
#[test]
fn what_shall_be_even_is_even() {
    use pebble_core::file::floor::Area;
    use pebble_core::floor::{CarriedTo, FloorAsk, floor};
    use pebble_core::matching::Demand;
    use pebble_core::quantity::Angle;
    use pebble_core::stage::field::placed;
    let stock = stock();
    let area =
        Area { left_m: -1.5, right_m: 1.5, near_m: -0.5, far_m: 0.5, low_m: 1.0, high_m: 1.6, corners: Vec::new() };
    let (mut seen, mut eases) = (0, 0);
    for mut shot in examples().into_iter().take(4) {
        shot.area = Some(area.clone());
        for most in [0.8, 1.6] {
            let asked = wished(&shot, Wish { even_within_stops: Some(most), ..shot.wish.clone().unwrap_or_default() });
            let plan = plan(&asked);
            let brief = Brief::new(&asked, &plan).unwrap();
            let found = find(&brief, &stock, Priority::Balanced, &Going::default()).unwrap();
            for one in found.iter().take(6) {
                let to = one.candidate(&brief, &stock);
                let fares = brief.judge(&to).unwrap();
                let even = fares.iter().find(|fares| fares.condition == Demand::Even).expect("it was asked");
                assert!(even.room >= 0.0, "{}: {even:?}", shot.title);
                let mut there = asked.clone();
                there.lights[plan.key].modifier = to.modifier.clone();
                let light = &there.lights[plan.key];
                let (bearing, height) = (Angle::from_degrees(light.bearing_deg), Angle::from_degrees(light.height_deg));
                let at = placed(bearing, height, to.distance);
                let carry = CarriedTo {
                    light: plan.key,
                    x_m: at.x,
                    y_m: at.y,
                    z_m: at.z,
                    power: None,
                    flag: None,
                    aim_m: None,
                };
                let ask = FloorAsk { in_hand: plan.key, ..FloorAsk::default() };
                let told =
                    floor(&there, Some(&carry), ask).unwrap().lights[plan.key].evenness.clone().expect("it is lit");
                assert!(told.spread_stops <= most + 0.02, "{}: {} of {most}", shot.title, told.spread_stops);
                seen += 1;
            }
            // Where nothing is, what would have to give is told, and it may be this.
            let mut brief = Brief::new(&asked, &plan).unwrap();
            if found.is_empty() {
                let near = nearest(&mut brief, &stock, &Going::default()).unwrap_or_default();
                eases += near.iter().flat_map(|one| &one.gives).filter(|give| give.condition == Demand::Even).count();
            }
        }
    }
    assert!(seen > 5 && eases > 0, "only {seen} were looked at, {eases} eased");
    let mut nowhere = wished(&examples()[0], Wish { even_within_stops: Some(1.0), ..Wish::default() });
    nowhere.area = None;
    let why = pebble_core::Plan::try_from(&nowhere).map(|_| ()).unwrap_err();
    assert_eq!(why.field(), "wish.even_within_stops");
}
