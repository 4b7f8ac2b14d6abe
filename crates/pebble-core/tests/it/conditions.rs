//! One list of what can be wrong with a frame: everybody judges by it.

use super::common::{examples, plan};
use pebble_core::conditions::{Condition, Matter, frame};
use pebble_core::findings::{Severity, judge};
use pebble_core::{Plan, outlook};

fn all(plan: &Plan) -> Vec<Condition> {
    let mut all = Vec::new();
    frame(plan, &outlook(plan), &mut |condition| all.push(condition));
    all
}

fn words(matter: Matter) -> &'static str {
    match matter {
        Matter::Rows => "rows-cut",
        Matter::Rear => "rear-as-front",
        Matter::Still => "blur-",
        Matter::Shows => "dash-dim",
        Matter::Streak => "dash-length",
        Matter::AsksLength => "dash-asks",
        Matter::NoTrail => "ghost-",
        Matter::Exposure => "exposure",
        Matter::Balance => "balance",
        Matter::Ambient => "ambient",
        Matter::Background => "background",
        Matter::White => "clips-",
        Matter::Depth => "depth",
        Matter::Shallow => "too-deep",
        Matter::Fires => "silent",
        Matter::Reached => "unreached-",
        Matter::Rim => "rim",
        Matter::OutOfFrame => "in-frame",
        Matter::LampOutOfFrame => "lamp-in-frame",
        Matter::Flare => "flare",
        Matter::Sheet => "sheet",
        Matter::Even => "uneven",
        Matter::Automatic => "automatic",
        Matter::MetersItself => "meters-itself",
        Matter::Surface => "surface",
        Matter::Together => "apart-",
        Matter::Hand => "shaken",
        Matter::Owned => "owned",
        Matter::InRange => "range",
        Matter::Groups => "groups",
        Matter::Burst => "burst",
        Matter::Action => "action",
        Matter::World => "world",
    }
}

#[test]
fn findings_are_the_conditions_that_are_not_met_and_nothing_else() {
    const DOUBTS: [&str; 4] = ["output-estimated", "duration-doubtful", "school", "travel-assumed"];
    for mut shot in examples() {
        for speed in [1.0, 6.0] {
            for time in ["1/30", "1/250", "1/1000"] {
                shot.camera.shutter = time.to_owned();
                shot.parts.iter_mut().for_each(|part| part.speed_m_s *= speed);
                let Ok(plan) = Plan::try_from(&shot) else { continue };
                let findings = judge(&plan, &outlook(&plan));
                let said = |matter| {
                    let begins = words(matter);
                    findings
                        .iter()
                        .filter(|one| one.severity != Severity::Fine && one.id.starts_with(begins))
                        .filter(|one| matter != Matter::Depth || one.id == "depth")
                        .count()
                };
                let mut flaws = 0;
                for matter in [
                    Matter::Rows,
                    Matter::Rear,
                    Matter::Still,
                    Matter::Shows,
                    Matter::Streak,
                    Matter::AsksLength,
                    Matter::NoTrail,
                    Matter::Exposure,
                    Matter::Balance,
                    Matter::Ambient,
                    Matter::Background,
                    Matter::White,
                    Matter::Depth,
                    Matter::Shallow,
                    Matter::Fires,
                    Matter::Reached,
                    Matter::Rim,
                    Matter::OutOfFrame,
                    Matter::Flare,
                    Matter::Sheet,
                    Matter::Automatic,
                    Matter::Surface,
                    Matter::Together,
                    Matter::Hand,
                    Matter::Owned,
                    Matter::InRange,
                    Matter::Groups,
                    Matter::Burst,
                    Matter::Action,
                    Matter::World,
                ] {
                    let unmet = all(&plan).iter().filter(|one| one.matter == matter && !one.is_met()).count();
                    // Lights with the same fault are named together.
                    let told = said(matter);
                    assert!(told <= unmet, "{matter:?} of {} at {time}: {told} of {unmet}", shot.title);
                    assert_eq!(told == 0, unmet == 0, "{matter:?} of {} at {time}", shot.title);
                    flaws += told;
                }
                let doubts = findings.iter().filter(|one| DOUBTS.iter().any(|doubt| one.id.starts_with(doubt))).count();
                let told = findings.iter().filter(|one| one.severity != Severity::Fine).count();
                assert_eq!(told, flaws + doubts, "{}", shot.title);
            }
        }
    }
}

#[test]
fn a_margin_is_the_stops_between_a_measure_and_its_limit() {
    let shot = examples().remove(0);
    let now = all(&plan(&shot));
    let still =
        |all: &[Condition]| *all.iter().find(|one| one.matter == Matter::Still).expect("a part that shall be still");
    let was = still(&now);
    assert!((was.margin - (was.limit / was.measure).log2()).abs() < 1e-9);
    // Twice as fast is one stop less to spare.
    let mut faster = shot;
    faster.parts.iter_mut().for_each(|part| part.speed_m_s *= 2.0);
    assert!((was.margin - still(&all(&plan(&faster))).margin - 1.0).abs() < 1e-6);
}
