//! What nobody has read or measured yet, and how much a figure could move the picture.
//!
//! Nothing here is a rule of thumb: the shot is put together again at both ends of what the figure may be, and what moves most
//! of all that counts is said.

use crate::file::shot::Intent;
use crate::outlook::{Outlook, outlook};
use crate::plan::Plan;
use crate::quantity::{Lux, Stops};
use crate::wire::report;

/// What moves by less than this is not worth a reading, in stops.
const WORTH: f64 = 0.34;

report! {
    /// What a figure would move that is a guess.
    pub struct Stake {
        /// What of the picture moves most: "the streak of the ropes".
        pub what: String,
        /// How far it could be moved, from one end of the guess to the other, in stops.
        pub stops: f64,
    }
}

/// The plan with other steady light everywhere.
pub(crate) fn in_other_light(plan: &Plan, stops: f64) -> Plan {
    let by = Stops::from_stops(stops).as_ratio();
    let turned = |light: Lux| Lux::from_lux(light.as_lux() * by);
    Plan { subject_light: turned(plan.subject_light), background_light: turned(plan.background_light), ..plan.clone() }
}

/// What moves most when the steady light is as dark, or as bright, as it may be in such a place; nothing where it was read.
pub fn of_light(plan: &Plan) -> Option<Stake> {
    let (darker, brighter) = plan.guessed_light?;
    let ends = [darker, brighter].map(|stops| outlook(&in_other_light(plan, stops)));
    Some(most(plan, &ends))
}

/// What moves most between two outlooks of the same parts, in stops.
pub(crate) fn most(plan: &Plan, [one, other]: &[Outlook; 2]) -> Stake {
    let exposure = (one.subject.read_by(plan.targets.reads) - other.subject.read_by(plan.targets.reads)).as_stops();
    let mut found = vec![("the exposure".to_owned(), exposure.abs())];
    for (index, part) in plan.parts.iter().enumerate() {
        let (a, b) = (&one.parts[index], &other.parts[index]);
        let name = part.name.to_lowercase();
        // A trail that nobody sees at either end moves nothing.
        let shows = |of: &crate::outlook::PartOutlook| of.draws && of.ghost.noticed() >= 1.0;
        if shows(a) || shows(b) {
            let streak = (a.tones.part_ambient.placement() - b.tones.part_ambient.placement()).as_stops().abs();
            let what = if part.intent == Intent::Dash { "the streak of the" } else { "the trail of the" };
            found.push((format!("{what} {name}"), streak));
        }
        let (short, long) = (a.blur.min(b.blur), a.blur.max(b.blur));
        // Blur that stays within what is allowed moves nothing that is seen.
        if part.intent.blur_limit(one.allowed).is_some_and(|limit| long > limit) {
            let grows = long / short.max(one.allowed);
            found.push((format!("the blur of the {name}"), grows.log2().max(0.0)));
        }
    }
    // Of equals the first that was asked about.
    let (what, stops) =
        found.into_iter().reduce(|best, next| if next.1 > best.1 + 1e-9 { next } else { best }).unwrap_or_default();
    Stake { what, stops: if stops.is_finite() { stops } else { 12.0 } }
}

impl Stake {
    /// Whether it is worth a reading.
    pub fn matters(&self) -> bool {
        self.stops >= WORTH
    }
}
