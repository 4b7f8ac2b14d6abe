//! Two versions side by side: what was turned and what follows is listed, nothing else.

use crate::common::{examples, plan, shot};
use pebble_core::compare::{DifferenceKind, compare};
use pebble_core::shot::{Reading, Shot};
use proptest::prelude::*;

/// What differs, as `what: before → after`.
fn between(before: &Shot, after: &Shot) -> Vec<String> {
    let found = compare((before, &plan(before)), (after, &plan(after)));
    found.into_iter().map(|one| format!("{}: {} → {}", one.what, one.before, one.after)).collect()
}

fn changed(change: impl FnOnce(&mut Shot)) -> Vec<String> {
    let mut other = shot();
    change(&mut other);
    between(&shot(), &other)
}

#[test]
fn the_same_twice_differs_in_nothing() {
    for shot in examples() {
        assert_eq!(between(&shot, &shot), Vec::<String>::new(), "{}", shot.title);
    }
}

#[test]
fn what_was_turned_comes_first_and_its_numbers_after() {
    // The shutter moves the steady light and the streaks; the flash, its pulse and its blur stay.
    let found = changed(|shot| shot.camera.shutter = "1/30".to_owned());
    assert_eq!(found[0], "Shutter: 1/60 → 1/30");
    assert!(found.contains(&"Ambient on the subject: −6.0 → −5.0".to_owned()), "{found:?}");
    assert!(found.iter().any(|line| line.starts_with("Streak of Ropes")), "{found:?}");
    assert!(!found.iter().any(|line| line.starts_with("Key") || line.starts_with("Pulse") || line.starts_with("Blur")));
    // Power moves the flash and its pulse; the steady light stays.
    let found = changed(|shot| shot.lights[0].power = 1.0);
    assert!(found[0].starts_with("Power: ") && found.iter().any(|line| line.starts_with("Pulse, t0.1: ")), "{found:?}");
    assert!(!found.iter().any(|line| line.starts_with("Ambient")), "{found:?}");
    // Gear and parts are named.
    let found = changed(|shot| {
        shot.lights[0].on = false;
        shot.parts[0].name = "Head".to_owned();
    });
    assert!(found.contains(&"Flash: Brix 400 → off".to_owned()), "{found:?}");
    assert!(found.iter().any(|line| line.starts_with("Part Face: ") && line.ends_with("→ gone")), "{found:?}");
    assert!(found.iter().any(|line| line.starts_with("Part Head: not there")), "{found:?}");
    assert!(found.contains(&"Key: 0.0 → no light".to_owned()), "{found:?}");
    let found = changed(|shot| shot.ambient.subject = Reading::Lux { lux: 0.0 });
    assert!(found.contains(&"Ambient on the subject: −6.0 → no light".to_owned()), "{found:?}");
}

#[test]
fn with_several_lights_each_line_says_whose_it_is() {
    let hall = examples().remove(7);
    let mut other = hall.clone();
    other.lights[2].power /= 2.0;
    other.lights[1].channel = 5;
    other.lights[4].heads = 2;
    let found = between(&hall, &other);
    for line in ["C rim: power: ", "B fill: channel: 1 → 5", "E backdrop 1: heads: 1 → 2", "C rim: −", "B fill: −"]
    {
        assert!(found.iter().any(|one| one.starts_with(line)), "{line} in {found:?}");
    }
    assert!(found.iter().any(|one| one.starts_with("B fill: ") && one.ends_with("no light")), "a deaf light is dark");
    assert!(!found.iter().any(|one| one.starts_with("A key") || one.starts_with("D rim")), "{found:?}");
    let mut lamps = examples().remove(5);
    let before = lamps.clone();
    lamps.lamps[0].on = false;
    let found = between(&before, &lamps);
    assert!(found.iter().any(|one| one.starts_with("Lamp Ember 650 flood: 90 % at 6.0 m → off")), "{found:?}");
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 48, ..ProptestConfig::default() })]

    #[test]
    fn there_and_back_tells_the_same_things_the_other_way_round(left in 0usize..4, right in 0usize..4, stops in 0u32..5) {
        let (mut before, after) = (examples().remove(left), examples().remove(right));
        before.lights[0].power = (-f64::from(stops)).exp2();
        let there = compare((&before, &plan(&before)), (&after, &plan(&after)));
        let back = compare((&after, &plan(&after)), (&before, &plan(&before)));
        prop_assert_eq!(there.len(), back.len());
        for one in &there {
            prop_assert!(one.before != one.after);
            let other = back.iter().find(|other| other.what == one.what).unwrap();
            let turned = (one.before.as_str(), one.after.as_str());
            let same = (other.after.as_str(), other.before.as_str());
            // A part that one side does not have is gone one way and not there the other.
            prop_assert!(turned == same || turned.1 == "gone" || turned.0 == "not there");
        }
        let settings = there.iter().take_while(|one| one.kind == DifferenceKind::Setting).count();
        prop_assert!(there[settings..].iter().all(|one| one.kind == DifferenceKind::Number));
    }
}
