//! What follows from how a shot is lit, where its wish is silent.

use crate::answers::conditions::CLICK;
use crate::answers::strips;
use crate::file::look::Held;
use crate::file::preferences::Lengths;
use crate::file::shot::{Intent, Shot};
use crate::file::wish::Wish;
use crate::outlook::Outlook;
use crate::plan::{ANYWHERE, Bounds, Plan};
use crate::quantity::{Metres, Stops};

/// What the Bench holds of a look is nearer to where it was than the next click, in stops.
const STAYS: Stops = Stops::from_stops(CLICK / 2.0);

/// Where the steady light has to fall, and how long a flash may last, where the wish is silent: what is held on the Bench
/// stays as it is, what is wanted of the background is asked for, and the rest follows from how the shot is lit. The bounds have
/// the key's own time where blur is held; whether it is comes back, for the other lights then keep theirs.
pub(super) fn fill(bounds: &mut Bounds, shot: &Shot, plan: &Plan, seen: &Outlook) -> bool {
    let silent = Wish::default();
    let wish = shot.wish.as_ref().unwrap_or(&silent);
    let holds = |look: Held| shot.hold.contains(&look);
    let around = |now: Stops| (now - STAYS, now + STAYS);
    // Where there is no steady light none is held: no setting brings any.
    let held = |look: Held, now: Stops| (holds(look) && now > Stops::DARK).then(|| around(now));
    bounds.ambient = bounds
        .ambient
        .or_else(|| held(Held::Ambient, seen.ambient.placement))
        .or_else(|| Some(usual_ambient(plan, seen)));
    if wish.background.is_none() {
        let click = Stops::from_stops(CLICK);
        let wanted = plan.targets.background.map(|target| (target - click, target + click));
        bounds.background = held(Held::Background, seen.background.placement).or(wanted).unwrap_or(ANYWHERE);
    }
    let blur = holds(Held::Blur) && wish.freeze_at_most_ms.is_none();
    if blur {
        bounds.freeze = seen.key().freeze;
    }
    blur
}

/// On its target where there is one; where it is to draw a streak, as bright as it is; elsewhere not brighter than it is.
fn usual_ambient(plan: &Plan, seen: &Outlook) -> (Stops, Stops) {
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
