//! What follows from how a shot is lit, where its wish is silent.

use crate::answers::conditions::CLICK;
use crate::answers::strips;
use crate::file::preferences::Lengths;
use crate::file::shot::Intent;
use crate::outlook::Outlook;
use crate::plan::Plan;
use crate::quantity::{Metres, Stops};

/// On its target where there is one; where it is to draw a streak, as bright as it is; elsewhere not brighter than it is.
pub(super) fn usual_ambient(plan: &Plan, seen: &Outlook) -> (Stops, Stops) {
    let click = Stops::from_stops(CLICK);
    let now = seen.ambient.placement;
    match plan.targets.ambient {
        Some(target) => (target - click, target + click),
        None if plan.parts.iter().any(|part| part.intent == Intent::Dash) => (now - click, now + click),
        None => (Stops::DARK, now + click),
    }
}

/// Notches of distance between two ends, near to far.
pub(super) fn distances(lengths: Lengths, nearest: Metres, farthest: Metres) -> impl Iterator<Item = Metres> {
    let (near, far) = (nearest.as_metres() - 1e-9, farthest.as_metres() + 1e-9);
    strips::distances(lengths).filter(move |distance| distance.as_metres() >= near && distance.as_metres() <= far)
}
