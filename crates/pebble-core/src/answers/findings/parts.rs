//! How a part fares against its intent.

use crate::answers::conditions;
use crate::file::shot::Intent;
use crate::outlook::PartOutlook;
use crate::physics::ghost::Visibility;
use crate::physics::motion::Sharpness;
use crate::plan::{Part, Plan, STREAK_FACTOR};
use serde::Serialize;

/// Within this factor it is near.
const STREAK_NEAR: f64 = 1.6;

/// How a part fares against its intent.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum PartState {
    /// As intended.
    Met,
    /// Near.
    Near,
    /// Missed.
    Missed,
}

/// The state of one part, in a word for its chip.
pub fn state(plan: &Plan, part: &Part, seen: &PartOutlook) -> PartState {
    match part.intent {
        Intent::Pebble => match seen.sharpness {
            Sharpness::Crisp => PartState::Met,
            Sharpness::Soft => PartState::Near,
            Sharpness::Blurred => PartState::Missed,
        },
        Intent::Skim if seen.sharpness == Sharpness::Blurred => PartState::Missed,
        Intent::Skim => PartState::Met,
        Intent::Dash => dash_state(plan, part, seen),
    }
}

fn dash_state(plan: &Plan, part: &Part, seen: &PartOutlook) -> PartState {
    if !seen.draws || seen.ghost.visibility() <= Visibility::Faint {
        return PartState::Missed;
    }
    let wanted = plan.wanted_streak(part);
    let margin = wanted.map_or(f64::INFINITY, |wanted| conditions::streak(seen.streak_share, wanted));
    match margin {
        good if good >= 0.0 => PartState::Met,
        near if near >= (STREAK_FACTOR / STREAK_NEAR).log2() => PartState::Near,
        _ => PartState::Missed,
    }
}
