//! Faults that several lights have, and frames that the shutter keeps all of them out of: what one press does of it, and what
//! it says that it does not.

use super::{found, ids, job, key, light, open, part, pressed};
use crate::common::{applied, example, examples, plan};
use pebble_core::findings::{Finding, Severity};
use pebble_core::shot::{Flash, Intent, Role, Shot};
use pebble_core::{Plan, outlook};

const HEAD: (&str, &str) = ("brix-400", "octa-90");

/// The examples, each as it is and as somebody leaves it who was in a hurry.
fn in_a_hurry() -> Vec<Shot> {
    type Turned = fn(&mut Shot);
    let turns: [(&str, Turned); 6] = [
        ("as it is", |_| ()),
        ("fastest time", |shot| shot.camera.shutter = "1/8000".to_owned()),
        ("slow", |shot| shot.camera.shutter = "1/15".to_owned()),
        ("full power", |shot| shot.lights.iter_mut().for_each(|light| light.power = 1.0)),
        ("half a metre nearer", |shot| shot.lights.iter_mut().for_each(|light| light.distance_m -= 0.5)),
        ("other channels", |shot| shot.lights.iter_mut().for_each(|light| light.channel = 7)),
    ];
    let turned = |shot: Shot| {
        turns.iter().map(move |(name, turn)| {
            let mut turned = shot.clone();
            turned.title = format!("{}, {name}", shot.title);
            turn(&mut turned);
            turned
        })
    };
    examples().into_iter().flat_map(turned).filter(|shot| Plan::try_from(shot).is_ok()).collect()
}

/// What a finding is about, without the light or part that its name ends with.
fn kind(finding: &Finding) -> &str {
    finding.id.split("-light-").next().unwrap_or(&finding.id)
}

#[test]
fn what_is_not_all_of_it_says_so_and_what_does_not_say_so_is() {
    let (mut all, mut partly) = (0, 0);
    for shot in in_a_hurry() {
        for finding in open(&shot) {
            for remedy in &finding.remedies {
                let left = open(&applied(&shot, &remedy.changes));
                let said = format!("{}: {}: {}", shot.title, finding.title, remedy.label);
                if remedy.partly {
                    partly += 1;
                    assert!(remedy.effect.starts_with("not all of it"), "{said}: {}", remedy.effect);
                    let same = left.iter().find(|one| kind(one) == kind(&finding));
                    assert!(same.is_some_and(|one| one.title != finding.title), "{said}: {same:?}");
                } else {
                    all += 1;
                    assert!(!left.iter().any(|one| one.title == finding.title), "{said}");
                }
            }
        }
    }
    assert!(all > 60 && partly > 4, "{all} and {partly}");
}

#[test]
fn nobody_is_told_of_something_without_being_told_of_what() {
    for shot in in_a_hurry() {
        for finding in open(&shot) {
            let first = finding.title.chars().next();
            assert!(first.is_some_and(|first| !first.is_lowercase()), "{}: {}", shot.title, finding.title);
            assert!(finding.cause.ends_with(['.', '!']), "{}: {}", finding.title, finding.cause);
        }
    }
}

#[test]
fn lights_into_the_lens_are_flagged_one_press_after_the_other() {
    let mut shot = example("roller-hall");
    let titles = ["A key, C rim and D rim: light into the lens", "C rim and D rim: light into the lens"];
    for (title, flagged) in titles.iter().zip([0, 2]) {
        let flare = open(&shot).into_iter().find(|one| one.title == *title).unwrap_or_else(|| panic!("{title}"));
        let remedy = flare.remedies.first().unwrap_or_else(|| panic!("{:?}", flare.unanswered));
        assert!(remedy.partly && remedy.label.contains("flag of"), "{}", remedy.label);
        shot = applied(&shot, &remedy.changes);
        assert!(shot.lights[flagged].flag.is_some());
    }
    let last = open(&shot).into_iter().find(|one| one.title == "D rim: light into the lens").unwrap();
    assert!(!last.remedies[0].partly, "{}", last.remedies[0].label);
    shot = applied(&shot, &last.remedies[0].changes);
    assert!(open(&shot).iter().all(|one| !one.title.ends_with("light into the lens")));
}

#[test]
fn no_shutter_is_offered_that_lets_a_black_frame_in_by_halves() {
    let mut black = 0;
    for shot in in_a_hurry() {
        let seen = outlook(&plan(&shot));
        let gets_in = seen.lights.iter().any(|light| light.share > 0.0);
        if gets_in || !ids(&shot).contains(&"rows-cut".to_owned()) {
            continue;
        }
        black += 1;
        for finding in open(&shot) {
            let shutters = finding.remedies.iter().filter(|remedy| remedy.label.starts_with("1/"));
            for remedy in shutters {
                let then = applied(&shot, &remedy.changes);
                let said = format!("{}: {}: {}", shot.title, finding.title, remedy.label);
                assert!(!ids(&then).contains(&"rows-cut".to_owned()), "{said}");
                assert!(outlook(&plan(&then)).lights.iter().any(|light| light.share > 0.9), "{said}");
            }
        }
    }
    assert!(black > 2, "{black}");
}

/// A face under a key and so many more, all of one kind: of three that are owned.
fn heads(more: usize, power: f64) -> Shot {
    let mut shot = job("Some heads");
    shot.lights.push(key(HEAD, 2.2, power));
    for nth in 0..more {
        let fill = light(Role::Fill, HEAD, (35.0 + 4.0 * nth as f64, 30.0, 3.4), power / 4.0);
        shot.lights.push(Flash { group: ["B", "C"][nth].to_owned(), ..fill });
    }
    shot.parts.push(part("Face", Intent::Pebble, 0.5));
    shot
}

#[test]
fn lights_that_do_not_hear_are_one_finding_and_one_press() {
    for more in 1..=2 {
        let mut shot = heads(more, 1.0 / 16.0);
        shot.lights.iter_mut().skip(1).for_each(|fill| fill.channel = 4);
        let deaf: Vec<Finding> = open(&shot).into_iter().filter(|one| kind(one) == "silent").collect();
        assert_eq!(deaf.len(), 1, "{deaf:?}");
        assert_eq!(deaf[0].severity, Severity::Trouble);
        assert!(deaf[0].title.ends_with("will not fire"), "{}", deaf[0].title);
        let named = ["B fill", "C fill"].iter().take(more).all(|name| deaf[0].title.contains(name));
        assert!(named, "{}", deaf[0].title);
        let then = pressed(&shot, &deaf[0].id);
        assert!(then.lights.iter().all(|light| light.channel == then.channel), "{}", deaf[0].title);
    }
}

#[test]
fn heads_that_are_too_bright_together_go_down_together() {
    for more in 1..=2 {
        let shot = heads(more, 1.0 / 4.0);
        let bright = found(&shot, "exposure");
        assert!(bright.title.starts_with("Subject too bright"), "{}", bright.title);
        let then = pressed(&shot, "exposure");
        let turned: Vec<f64> =
            shot.lights.iter().zip(&then.lights).map(|(was, is)| (is.power / was.power).log2()).collect();
        let apart = |stops: &[f64]| {
            stops.iter().fold(f64::MIN, |a, b| a.max(*b)) - stops.iter().fold(f64::MAX, |a, b| a.min(*b))
        };
        assert!(apart(&turned) < 0.1 + 1e-9, "{more} more: {turned:?}");
    }
}

#[test]
fn more_heads_than_are_owned_are_not_switched_on_by_a_press() {
    let mut shot = heads(2, 1.0 / 16.0);
    shot.lights.push(Flash { group: "D".to_owned(), ..shot.lights[2].clone() });
    shot.lights.iter_mut().skip(1).for_each(|fill| fill.channel = 4);
    let deaf = found(&shot, "silent-light-1");
    assert_eq!(deaf.title, "B fill, C fill and D fill: will not fire");
    // All of them would be one head too many: one is better than none, and it is said that it is not all.
    let labels: Vec<(&str, bool)> = deaf.remedies.iter().map(|one| (one.label.as_str(), one.partly)).collect();
    assert_eq!(labels, [("B fill channel 1", true)]);
    let then = applied(&shot, &deaf.remedies[0].changes);
    assert!(!ids(&then).iter().any(|id| id.starts_with("owned")), "{:?}", ids(&then));
}
