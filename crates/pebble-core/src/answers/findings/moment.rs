//! A whole action in one frame: from its start to its end, and nothing of what comes after.

use super::ideas::Ideas;
use super::steady::another_time;
use super::{Case, Words};
use crate::outlook::Pulses;
use crate::quantity::Seconds;
use crate::quantity::words::told;

pub(super) fn missed(Case { plan, seen }: Case) -> Words {
    let (action, next) = plan.timing.action.unwrap_or((Seconds::ZERO, None));
    let (time, spread) = (seen.run.time, plan.timing.spread);
    let needs = plan.timing.window().map_or(action, |window| window.shortest);
    let set = plan.settings.shutter.label(plan.body.grid);
    let title = match next.filter(|next| time > *next) {
        Some(_) => format!("{set} catches what comes after the action"),
        None => format!("{set} misses the end of the action"),
    };
    let most = next.map_or_else(String::new, |next| format!(" What comes next begins after {}.", told(next)));
    Words {
        title,
        cause: format!(
            "The action lasts {}; pressed {} early or late it needs {}.{most}",
            told(action),
            told(spread),
            told(needs)
        ),
    }
}

pub(super) fn candidates<'a>(case @ Case { plan, .. }: Case<'a>, pulses: &mut Pulses) -> Ideas<'a> {
    let Some(window) = plan.timing.window() else { return Ideas::of(Vec::new()) };
    if !window.is_possible() {
        return Ideas::none(
            "No time holds it all and stops before what comes next: a steadier press, or a longer pause after it.",
        );
    }
    // Between both ends, so that the nearest time of the dial is within them; a little more where nothing follows.
    let between = (window.shortest.as_secs() * window.longest.as_secs()).sqrt();
    let time = if between.is_finite() { Seconds::from_secs(between) } else { window.shortest * 1.12 };
    Ideas::of(another_time(case, time, pulses))
}

/// What the camera draws of everything that stands, against whether that is wanted.
pub(super) fn world(Case { plan, seen }: Case) -> Words {
    let share = seen.camera.background_travel / plan.frame().0 * 100.0;
    let follows = plan.movement.follows.map(|part| format!(" with {}", plan.parts[part].name)).unwrap_or_default();
    let set = plan.settings.shutter.label(plan.body.grid);
    if plan.movement.wanted == Some(true) {
        Words {
            title: format!("The background draws {share:.1} % of the frame, too little to show"),
            cause: format!("{set} and the camera's way{follows} are too short for a streak that is seen."),
        }
    } else {
        Words {
            title: format!("The background streaks over {share:.1} % of the frame"),
            cause: format!("In {set} the camera goes along{follows}, and that is not wanted."),
        }
    }
}
