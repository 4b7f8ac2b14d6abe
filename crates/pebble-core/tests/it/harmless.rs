//! Every remedy that is offered mends its finding and makes nothing worse, whatever the shot.

use crate::common::{applied, examples, plan, rod_lamp};
use pebble_core::conditions::{self, Condition, Matter};
use pebble_core::findings::{self, Severity};
use pebble_core::motion::Usage;
use pebble_core::outlook::DrawnBy;
use pebble_core::shot::{Flash, Intent, LampStands, Lead, Reading, Role, Shot};
use pebble_core::shutter::SyncMode;
use pebble_core::{Outlook, Plan, outlook};
use proptest::prelude::*;

/// Shots of all kinds; as many as `HARMLESS` says.
fn cases() -> u32 {
    std::env::var("HARMLESS").ok().and_then(|text| text.parse().ok()).unwrap_or(1000)
}

#[derive(Clone, Debug)]
struct Random {
    example: usize,
    lights: Vec<(usize, f64, f64, f64, f64)>,
    tv6: i32,
    lux: f64,
    behind: f64,
    speed: f64,
    intent: usize,
    sync: usize,
    lag_ms: f64,
    leaf: bool,
    daylight: bool,
    targets: (f64, Option<f64>, Option<f64>),
    usage: usize,
    depth_m: f64,
    /// Brightness at a metre, distance, bearing and height of a steady lamp.
    lamp: Option<(f64, f64, f64, f64)>,
}

fn random() -> impl Strategy<Value = Random> {
    let lamp = (6.0..14.0f64, 0.8..6.0f64, -180.0..180.0f64, -10.0..60.0f64);
    let light = (0..5usize, -6.0..0.0f64, 0.8..8.0f64, -180.0..180.0f64, -2.0..0.5f64);
    (
        (0..8usize, prop::collection::vec(light, 1..9), 0..60i32, -3.0..14.0f64, -3.0..14.0f64, 0.0..12.0f64),
        (0..3usize, 0..3usize, 0.0..5.0f64, any::<bool>(), any::<bool>()),
        (
            (-1.0..1.0f64, prop::option::of(-5.0..0.5f64), prop::option::of(-2.0..0.0f64)),
            (0..4usize, 0.0..3.0f64, prop::option::of(lamp)),
        ),
    )
        .prop_map(|((example, lights, tv6, lux, behind, speed), (intent, sync, lag_ms, leaf, daylight), rest)| {
            Random {
                example,
                lights,
                tv6,
                lux: lux.exp2(),
                behind: behind.exp2(),
                speed,
                intent,
                sync,
                lag_ms,
                leaf,
                daylight,
                targets: rest.0,
                usage: rest.1.0,
                depth_m: rest.1.1,
                lamp: rest.1.2,
            }
        })
}

impl Random {
    fn shot(&self) -> Shot {
        let mut shot = examples().swap_remove(self.example);
        let like = shot.lights[0].clone();
        let grid = shot.camera.body.grid;
        shot.camera.shutter = pebble_core::quantity::scale::ShutterTime::from_tv6(self.tv6 / 2 * 2).label(grid);
        shot.ambient.subject = Reading::Lux { lux: self.lux };
        shot.ambient.background = Reading::Lux { lux: self.behind };
        shot.usage = [Usage::Pixel, Usage::LargePrint, Usage::Print, Usage::Screen][self.usage];
        shot.subject.depth_m = self.depth_m;
        if let Some(part) = shot.parts.first_mut() {
            part.speed_m_s = self.speed;
            part.intent = [Intent::Pebble, Intent::Skim, Intent::Dash][self.intent];
        }
        if self.leaf {
            shot.camera.lens.leaf_fastest = Some("1/1000".to_owned());
        }
        let roles = [Role::Key, Role::Fill, Role::Rim, Role::Backdrop, Role::InSet];
        let sync = [SyncMode::Front, SyncMode::Rear, SyncMode::HighSpeed][self.sync];
        let glows = shot.camera.body.high_speed_sync && like.unit.high_speed_sync && !self.leaf;
        shot.lights = self
            .lights
            .iter()
            .enumerate()
            .map(|(index, (role, power, distance_m, bearing_deg, ratio))| Flash {
                role: roles[*role],
                power: power.exp2().max(2f64.powf(-like.unit.lowest_stops.unwrap())),
                distance_m: *distance_m,
                bearing_deg: *bearing_deg,
                sync: if sync == SyncMode::HighSpeed && !glows { SyncMode::Front } else { sync },
                ratio_stops: self.targets.2.filter(|_| index == 1).map(|_| *ratio),
                automatic: None,
                ..like.clone()
            })
            .collect();
        if let Some((lux, distance_m, bearing_deg, height_deg)) = self.lamp {
            let stands = LampStands { bearing_deg, height_deg, in_set: false };
            shot.lamps.push(rod_lamp(lux.exp2(), distance_m, Some(stands)));
        }
        shot.lights[0].trigger.lag_ms += self.lag_ms;
        (shot.targets.subject_stops, shot.targets.ambient_stops) = (self.targets.0, self.targets.1);
        shot.targets.lead = if self.daylight { Lead::Daylight } else { Lead::Flash };
        shot
    }
}

fn find<'a>(all: &'a [Condition], like: &Condition) -> Option<&'a Condition> {
    all.iter().find(|one| one.is_about(like))
}

/// What got worse, by a rule of its own: missed that was not, or missed by more than a tenth of a stop more. Of a part that
/// nothing drew before, what is seen of it now is not.
fn worse(seen: &Outlook, before: &[Condition], after: &[Condition]) -> Option<(Condition, Option<Condition>)> {
    after.iter().filter(|now| now.margin < 0.0).find_map(|now| {
        let then = find(before, now);
        let unseen = now.part.is_some_and(|part| seen.parts[part].drawn_by == DrawnBy::Nothing);
        if unseen && then.is_none() {
            return None;
        }
        let fine = then.is_some_and(|then| then.margin < 0.0 && now.margin >= then.margin - 0.1);
        (!fine).then(|| (*now, then.copied()))
    })
}

/// Lamps by their place in the shot: one that goes out is not counted any more.
fn of_lamps_by_place(plan: &Plan, mut conditions: Vec<Condition>) -> Vec<Condition> {
    for one in &mut conditions {
        one.lamp = one.lamp.map(|lamp| plan.lamps[lamp].place);
    }
    conditions
}

#[test]
fn no_remedy_does_harm() {
    let (mut tried, mut shots) = (0, 0);
    let mut runner =
        proptest::test_runner::TestRunner::new(ProptestConfig { cases: cases(), ..ProptestConfig::default() });
    let counts = std::cell::RefCell::new((&mut tried, &mut shots));
    runner
        .run(&random(), |random| {
            let shot = random.shot();
            let Ok(plan) = Plan::try_from(&shot) else { return Ok(()) };
            let seen = outlook(&plan);
            let before = of_lamps_by_place(&plan, conditions::all(&plan, &seen));
            *counts.borrow_mut().1 += 1;
            for finding in findings::judge(&plan, &seen) {
                prop_assert!(!finding.title.starts_with(char::is_lowercase), "{}: of what?", finding.title);
                prop_assert!(
                    finding.severity == Severity::Fine || finding.remedies.is_empty() == finding.unanswered.is_some(),
                    "{}: it is answered, or it is said why not",
                    finding.id
                );
                for remedy in &finding.remedies {
                    *counts.borrow_mut().0 += 1;
                    let there = applied(&shot, &remedy.changes);
                    let plan = Plan::try_from(&there)
                        .map_err(|error| TestCaseError::fail(format!("{}: {error}", remedy.label)))?;
                    let then = outlook(&plan);
                    let after = of_lamps_by_place(&plan, conditions::all(&plan, &then));
                    if let Some((now, was)) = worse(&seen, &before, &after) {
                        let was = was.map(|was| was.margin);
                        prop_assert!(false, "{} for {}: {:?} from {was:?}", remedy.label, finding.title, now);
                    }
                    // Nothing that was lit goes dark, and lights keep their ratios unless it is about one of them: in the
                    // frame, or, where a shutter that cut them no longer does, on the set.
                    let one_light = ["balance", "rim", "silent", "rows-cut", "automatic"];
                    let about_one = one_light.iter().any(|id| finding.id.starts_with(id));
                    let moves: Vec<f64> = seen
                        .lights
                        .iter()
                        .zip(&then.lights)
                        .filter(|(from, _)| from.in_frame.exposure.as_lux_seconds() > 0.0)
                        .map(|(from, to)| (to.in_frame.placement - from.in_frame.placement).as_stops())
                        .collect();
                    prop_assert!(moves.iter().all(|by| by.is_finite()), "{} blacks out a light", remedy.label);
                    let (low, high) =
                        moves.iter().fold((0.0_f64, 0.0_f64), |(low, high), by| (low.min(*by), high.max(*by)));
                    let apart = |moves: &[f64]| {
                        let ends =
                            moves.iter().fold((f64::MAX, f64::MIN), |(low, high), by| (low.min(*by), high.max(*by)));
                        ends.1 - ends.0
                    };
                    let cut = |seen: &Outlook| seen.firing().any(|(_, light)| light.rows.touched > 0.0);
                    let lit = seen
                        .lights
                        .iter()
                        .zip(&then.lights)
                        .filter(|(from, _)| from.on_set.exposure.as_lux_seconds() > 0.0);
                    let on_set: Vec<f64> =
                        lit.map(|(from, to)| (to.on_set.placement - from.on_set.placement).as_stops()).collect();
                    let uncut = cut(&seen) && !cut(&then) && apart(&on_set) <= 0.1 + 1e-9;
                    prop_assert!(
                        about_one || moves.is_empty() || uncut || apart(&moves) <= 0.1 + 1e-9,
                        "{} for {}: {low} to {high}, on the set by {on_set:?}",
                        remedy.label,
                        finding.title
                    );
                    // The finding itself is gone.
                    let again = findings::judge(&plan, &then);
                    prop_assert!(
                        again.iter().all(|other| other.id != finding.id || other.title != finding.title),
                        "{}",
                        remedy.label
                    );
                }
            }
            Ok(())
        })
        .unwrap_or_else(|error| panic!("{error}"));
    println!("{tried} remedies for {shots} shots");
    assert!(tried > shots / 2, "{tried} remedies for {shots} shots");
}

/// What is contradictory or empty is answered plainly.
#[test]
fn contradictions_and_nothing_at_all_have_findings_and_no_harm() {
    let dark = |shot: &mut Shot| {
        shot.ambient.subject = Reading::Lux { lux: 0.0 };
        shot.ambient.background = Reading::Lux { lux: 0.0 };
    };
    type Change = fn(&mut Shot);
    let cases: [(&str, Change); 5] = [
        ("everything off", |shot| shot.lights.iter_mut().for_each(|light| light.on = false)),
        ("no key", |shot| shot.lights.iter_mut().for_each(|light| light.role = Role::Rim)),
        ("all lights cut black", |shot| shot.lights.iter_mut().for_each(|light| light.trigger.lag_ms = 900.0)),
        ("targets that contradict", |shot| {
            shot.targets.subject_stops = 0.0;
            shot.lights[0].target_stops = Some(1.0);
        }),
        ("one unit three times, owned once", |shot| {
            shot.lights[0].unit.owned = Some(1);
            shot.lights = vec![shot.lights[0].clone(), shot.lights[0].clone(), shot.lights[0].clone()];
        }),
    ];
    for (name, change) in cases {
        for shot in examples() {
            for without_steady_light in [false, true] {
                let mut shot = shot.clone();
                change(&mut shot);
                if without_steady_light {
                    dark(&mut shot);
                }
                let plan = plan(&shot);
                let seen = outlook(&plan);
                let said = findings::judge(&plan, &seen);
                let text = format!("{said:?}");
                assert!(!text.contains("NaN") && !text.contains("inf "), "{name} of {}: {text}", shot.title);
                assert!(said.iter().any(|one| one.severity != Severity::Fine), "{name} of {} is not fine", shot.title);
            }
        }
    }
    let mut thrice = examples().remove(0);
    thrice.lights[0].unit.owned = Some(1);
    thrice.lights = vec![thrice.lights[0].clone(), thrice.lights[0].clone()];
    let all = conditions::all(&plan(&thrice), &outlook(&plan(&thrice)));
    assert!(all.iter().any(|one| one.matter == Matter::Owned && !one.is_met()));
}

/// A lamp that is nearly nothing of too much steady light is no answer to it, though without it a stop becomes a little less.
#[test]
fn what_takes_nothing_away_that_is_seen_is_not_offered() {
    let shot = Random {
        example: 5,
        lights: vec![(0, 0.0, 0.8, 0.0, 0.0)],
        tv6: 22,
        lux: 499.9,
        behind: 1.0,
        speed: 0.0,
        intent: 0,
        sync: 0,
        lag_ms: 0.0,
        leaf: false,
        daylight: false,
        targets: (0.0, Some(-1.4424), None),
        usage: 0,
        depth_m: 0.0,
        lamp: None,
    }
    .shot();
    let plan = Plan::try_from(&shot).unwrap();
    let found = findings::judge(&plan, &outlook(&plan));
    let ambient = found.iter().find(|one| one.id == "ambient").unwrap();
    assert_eq!(ambient.title, "Ambient too bright, 1.0 stop above where it is wanted");
    assert!(ambient.cause.contains("flood −5.2"), "{}", ambient.cause);
    assert!(ambient.remedies.is_empty(), "{:?}", ambient.remedies);
}
