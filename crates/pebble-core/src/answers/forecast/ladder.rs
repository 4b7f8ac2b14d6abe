//! Everything that lights the picture on one scale of stops.

use crate::file::shot::Role;
use crate::outlook::{Burns, Outlook};
use crate::physics::exposure::{black_placement, clip_placement};
use crate::plan::Plan;
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
        /// For trails: difference of L* from the plain background.
        #[serde(skip_serializing_if = "Option::is_none")]
        pub delta_lightness: Option<f64>,
    }
}

pub(super) fn ladder(plan: &Plan, outlook: &Outlook) -> Ladder {
    let rung = |id: &str, label: &str, kind, stops: Stops| Rung {
        id: id.to_owned(),
        label: label.to_owned(),
        kind,
        stops: stops.to_wire(),
        target_stops: None,
        target_pointer: None,
        delta_lightness: None,
    };
    let mut rungs = vec![
        Rung {
            target_stops: Some(plan.key_target.as_stops()),
            target_pointer: Some("/targets/key_stops".to_owned()),
            ..rung("key", "Key flash", RungKind::Flash, outlook.key().lit.placement)
        },
        Rung {
            target_stops: plan.ambient_target.map(Stops::as_stops),
            target_pointer: Some("/targets/ambient_stops".to_owned()),
            ..rung("ambient", "Ambient, subject", RungKind::Ambient, outlook.ambient.placement)
        },
        rung("background", "Ambient, back", RungKind::Ambient, outlook.background.placement),
        rung("spill", "Flash on back", RungKind::Flash, outlook.spill.placement),
    ];
    for (index, (light, seen)) in plan.lights.iter().zip(&outlook.lights).enumerate() {
        // What is off is not looked for on the ladder; the key's place is, and the spill counts a backdrop's light.
        if index != plan.key && seen.fires && light.role != Role::Backdrop {
            let label =
                if seen.grazing > Stops::ZERO { format!("{}, as seen", light.label) } else { light.label.clone() };
            rungs.push(rung(&format!("light-{index}"), &label, RungKind::Flash, seen.seen()));
        }
    }
    for (index, lamp) in outlook.steady.iter().enumerate().filter(|(_, lamp)| lamp.on_subject.placement > Stops::DARK) {
        let name = match lamp.of {
            Burns::Lamp(index) => plan.lamps[index].name.clone(),
            Burns::Modelling(light) => format!("{} modelling", plan.lights[light].label),
        };
        rungs.push(rung(&format!("lamp-{index}"), &name, RungKind::Ambient, lamp.on_subject.placement));
    }
    for (part, seen) in plan.parts.iter().zip(&outlook.parts).filter(|(_, seen)| seen.draws) {
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
