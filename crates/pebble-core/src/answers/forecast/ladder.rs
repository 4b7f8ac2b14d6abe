//! Everything that lights the picture on one scale of stops.

use crate::answers::conditions::{falls, leads, wanted_of};
use crate::file::shot::{Intent, Lead, Reads, Role};
use crate::outlook::{Burns, Outlook, PartOutlook};
use crate::physics::exposure::{black_placement, clip_placement};
use crate::physics::ghost::Visibility;
use crate::plan::{Part, Plan, Target};
use crate::quantity::Stops;
use crate::wire::report;
use serde::Serialize;

/// The ladder's ends, in stops.
const LADDER: (f64, f64) = (3.0, -9.0);

report! {
    /// Everything on one scale of stops.
    pub struct Ladder {
        /// Upper end.
        pub top_stops: f64,
        /// Lower end.
        pub bottom_stops: f64,
        /// Where white clips.
        pub clip_stops: f64,
        /// Where a tone reads as black.
        pub black_stops: f64,
        /// The rungs, brightest first.
        pub rungs: Vec<Rung>,
    }
}

/// What kind of light a rung stands for.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum RungKind {
    /// All light on the subject.
    Subject,
    /// Flash on the subject.
    Flash,
    /// Steady light.
    Ambient,
    /// A trail.
    Movement,
}

report! {
    /// One rung of the ladder.
    pub struct Rung {
        /// Stable identity.
        pub id: String,
        /// What it is.
        pub label: String,
        /// Kind of light.
        pub kind: RungKind,
        /// Where it stands; `null` is no light.
        pub stops: Option<f64>,
        /// Where it is wanted, if a target is set.
        #[serde(skip_serializing_if = "Option::is_none")]
        pub target_stops: Option<f64>,
        /// JSON pointer into the shot of the target that dragging this rung sets.
        #[serde(skip_serializing_if = "Option::is_none")]
        pub target_pointer: Option<String>,
        /// What a dragged target is counted from, where it is a ratio.
        #[serde(skip_serializing_if = "Option::is_none")]
        pub target_from_stops: Option<f64>,
        /// What it looks like there, in a word.
        #[serde(skip_serializing_if = "Option::is_none")]
        pub note: Option<String>,
        /// For trails: difference of L* from the plain background.
        #[serde(skip_serializing_if = "Option::is_none")]
        pub delta_lightness: Option<f64>,
    }
}

fn rung(id: &str, label: &str, kind: RungKind, stops: Stops) -> Rung {
    Rung {
        id: id.to_owned(),
        label: label.to_owned(),
        kind,
        stops: stops.to_wire(),
        target_stops: None,
        target_pointer: None,
        target_from_stops: None,
        note: None,
        delta_lightness: None,
    }
}

/// The subject under all light, as it is read; the other ways of reading it beside that.
fn subject(plan: &Plan, outlook: &Outlook, rungs: &mut Vec<Rung>) {
    let (targets, of) = (&plan.targets, &outlook.subject);
    // Without flash in the frame it is the steady light alone, which has a rung.
    if of.dome <= outlook.ambient.placement {
        if targets.lead == Lead::Flash {
            rungs.push(aimed(plan, rung("subject", "Subject, no flash in it", RungKind::Subject, of.lit_side)));
        }
        return;
    }
    let readings = [(Reads::LitSide, "Subject, lit side", of.lit_side), (Reads::Dome, "Subject, by dome", of.dome)];
    for (reads, label, stops) in readings {
        let id = if reads == targets.reads { "subject" } else { "subject-other" };
        let one = rung(id, label, RungKind::Subject, stops);
        rungs.push(if reads == targets.reads && targets.lead == Lead::Flash { aimed(plan, one) } else { one });
    }
    let (left, right) = of.cheeks;
    rungs.push(rung("cheek-left", "Left cheek", RungKind::Subject, left));
    rungs.push(rung("cheek-right", "Right cheek", RungKind::Subject, right));
}

/// With the target of the whole.
fn aimed(plan: &Plan, rung: Rung) -> Rung {
    Rung {
        target_stops: Some(plan.targets.subject.as_stops()),
        target_pointer: Some("/targets/subject_stops".to_owned()),
        ..rung
    }
}

fn steady(plan: &Plan, outlook: &Outlook, rungs: &mut Vec<Rung>) {
    let targets = &plan.targets;
    let ambient = rung("ambient", "Ambient, subject", RungKind::Ambient, outlook.ambient.placement);
    rungs.push(match targets.lead {
        Lead::Daylight => aimed(plan, Rung { label: "Daylight, subject".to_owned(), ..ambient }),
        Lead::Flash => Rung {
            target_stops: targets.ambient.map(Stops::as_stops),
            target_pointer: Some("/targets/ambient_stops".to_owned()),
            ..ambient
        },
    });
    let tone = super::background(plan, outlook);
    rungs.push(Rung {
        target_stops: targets.background.map(Stops::as_stops),
        target_pointer: Some("/targets/background_stops".to_owned()),
        ..rung("background", "Ambient, back", RungKind::Ambient, outlook.background.placement)
    });
    rungs.push(Rung {
        stops: tone.level_stops,
        note: Some(tone.word),
        ..rung("background-tone", "Back", RungKind::Ambient, Stops::DARK)
    });
}

/// Each flash that fires, as it looks, and where it is wanted.
fn flashes(plan: &Plan, outlook: &Outlook, rungs: &mut Vec<Rung>) {
    rungs.push(rung("spill", "Flash on back", RungKind::Flash, outlook.spill.placement));
    for (index, (light, seen)) in plan.lights.iter().zip(&outlook.lights).enumerate() {
        // What is off is not looked for on the ladder; the spill counts a backdrop's light.
        if !seen.fires || light.role == Role::Backdrop {
            continue;
        }
        let label = match index == plan.key {
            true => format!("{} flash", if light.role == Role::Key { "Key" } else { light.label.as_str() }),
            false if seen.grazing > Stops::ZERO => format!("{}, as seen", light.label),
            false => light.label.clone(),
        };
        let id = if index == plan.key { "key".to_owned() } else { format!("light-{index}") };
        let ratio = matches!(light.target, Some(Target::Ratio(_)));
        // The rung is where it falls at the mark; of one that is turned to somebody else the target goes along.
        let apart = seen.in_frame.placement - falls(plan, outlook, index);
        let here = if apart.as_stops().is_finite() { seen.grazing + apart } else { seen.grazing };
        rungs.push(Rung {
            target_stops: wanted_of(plan, outlook, index).and_then(|wanted| (wanted + here).to_wire()),
            target_pointer: Some(format!("/lights/{index}/{}", if ratio { "ratio_stops" } else { "target_stops" })),
            target_from_stops: if ratio {
                (leads(plan, outlook) + here).to_wire()
            } else {
                (here != Stops::ZERO).then(|| here.as_stops())
            },
            ..rung(&id, &label, RungKind::Flash, seen.seen())
        });
    }
}

pub(super) fn ladder(plan: &Plan, outlook: &Outlook) -> Ladder {
    let mut rungs = Vec::with_capacity(8 + plan.lights.len() + outlook.steady.len() + plan.parts.len());
    subject(plan, outlook, &mut rungs);
    steady(plan, outlook, &mut rungs);
    flashes(plan, outlook, &mut rungs);
    for (index, lamp) in outlook.steady.iter().enumerate().filter(|(_, lamp)| lamp.on_subject.placement > Stops::DARK) {
        let name = match lamp.of {
            Burns::Lamp(index) => plan.lamps[index].name.clone(),
            Burns::Modelling(light) => format!("{} modelling", plan.lights[light].label),
        };
        rungs.push(rung(&format!("lamp-{index}"), &name, RungKind::Ambient, lamp.on_subject.placement));
    }
    // A trail that nobody sees is not looked for, unless it was wanted.
    let seen_or_wanted = |(part, seen): &(&Part, &PartOutlook)| {
        seen.draws && (part.intent == Intent::Dash || seen.ghost.visibility() > Visibility::Not)
    };
    for (part, seen) in plan.parts.iter().zip(&outlook.parts).filter(seen_or_wanted) {
        rungs.push(Rung {
            delta_lightness: Some(seen.ghost.delta_lightness),
            ..rung(
                &format!("trail-{}", part.name),
                &format!("{} trail", part.name),
                RungKind::Movement,
                seen.ghost.beside.placement(),
            )
        });
    }
    let height = |rung: &Rung| rung.stops.unwrap_or(f64::NEG_INFINITY);
    rungs.sort_by(|a, b| height(b).total_cmp(&height(a)));
    Ladder {
        top_stops: LADDER.0,
        bottom_stops: LADDER.1,
        clip_stops: clip_placement().as_stops(),
        black_stops: black_placement().as_stops(),
        rungs,
    }
}
