//! One light as bright as another, or so many stops under it: what has to be turned.

use crate::answers::conditions::falls;
use crate::answers::hold::{Followed, written_moves};
use crate::answers::strips;
use crate::outlook::outlook;
use crate::plan::{Plan, Settings};
use crate::quantity::Stops;
use crate::quantity::bounds::{self, Invalid};
use crate::wire::{report, wire};

/// Nearer than this is as good as a dial comes.
const NEAR: f64 = 0.17;

wire! {
    /// Which light shall be as bright as which.
    pub struct BalanceWish {
        /// The light that is turned, by its place in the list.
        pub light: usize,
        /// The light it is held against.
        pub against: usize,
        /// Stops over it; negative is under.
        pub stops: f64,
    }
}

report! {
    /// What has to be turned for it.
    pub struct BalanceAnswer {
        /// On the light that is turned; nothing where it stands there already.
        pub changes: Vec<Followed>,
        /// How far it is from there then.
        pub off_stops: f64,
        /// The same as one says it.
        pub said: String,
    }
}

/// Turns the power of a light, and walks it where its power ends, until it is as bright in the frame as asked.
///
/// # Errors
/// [`Invalid`] for a light that is none, or one that gives no light in the frame.
pub fn balance(plan: &Plan, wish: &BalanceWish) -> Result<BalanceAnswer, Invalid> {
    let count = plan.lights.len();
    for (field, light) in [("light", wish.light), ("against", wish.against)] {
        if light >= count {
            return Err(Invalid::NotAllowed {
                field: field.to_owned(),
                given: light.to_string(),
                allowed: format!("one of the {count} lights of the shot"),
            });
        }
    }
    let over = bounds::OFFSET.check("stops", wish.stops).map(Stops::from_stops)?;
    let seen = outlook(plan);
    let placed = |light: usize| falls(plan, &seen, light);
    for (field, light) in [("light", wish.light), ("against", wish.against)] {
        if placed(light) == Stops::DARK {
            return Err(Invalid::Contradiction {
                field: field.to_owned(),
                given: plan.lights[light].label.clone(),
                reason: "nothing of it is in the frame: switch it on, or see to the shutter".to_owned(),
            });
        }
    }
    let wanted = placed(wish.against) + over;
    let by = |settings: &Settings| {
        let then = plan.with(*settings);
        (falls(&then, &outlook(&then), wish.light) - wanted).as_stops()
    };
    let off = |settings: &Settings| by(settings).abs();
    let (set, of) = (plan.settings, &plan.lights[wish.light]);
    let by_power = strips::powers(of)
        .map(|power| Settings { lights: set.lights.with(wish.light, |dial| dial.power = power), ..set });
    // What is as near as a dial comes stays as it is.
    let best = if off(&set) <= NEAR { set } else { by_power.min_by(|a, b| off(a).total_cmp(&off(b))).unwrap_or(set) };
    let best = if off(&best) <= NEAR {
        best
    } else {
        let walked = strips::distances(plan.lengths)
            .map(|distance| Settings { lights: best.lights.with(wish.light, |dial| dial.distance = distance), ..best });
        walked.min_by(|a, b| off(a).total_cmp(&off(b))).filter(|_| of.walks()).unwrap_or(best)
    };
    Ok(BalanceAnswer { changes: written_moves(plan, &best), off_stops: by(&best), said: strips::said(plan, &best) })
}
