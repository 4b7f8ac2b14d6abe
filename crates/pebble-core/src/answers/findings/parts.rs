//! How a part fares against its intent.

use crate::file::shot::Intent;
use crate::outlook::PartOutlook;
use crate::physics::ghost::Visibility;
use crate::physics::motion::Sharpness;
use crate::plan::{Part, STREAK_FACTOR};
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
pub fn state(part: &Part, seen: &PartOutlook) -> PartState {
    match part.intent {
        Intent::Pebble => match seen.sharpness {
            Sharpness::Crisp => PartState::Met,
            Sharpness::Soft => PartState::Near,
            Sharpness::Blurred => PartState::Missed,
        },
        Intent::Skim if seen.sharpness == Sharpness::Blurred => PartState::Missed,
        Intent::Skim => PartState::Met,
        Intent::Dash => dash_state(part, seen),
    }
}

fn dash_state(part: &Part, seen: &PartOutlook) -> PartState {
    if !seen.draws || seen.ghost.visibility() <= Visibility::Faint {
        return PartState::Missed;
    }
    match streak_miss(part, seen) {
        miss if miss <= STREAK_FACTOR => PartState::Met,
        miss if miss <= STREAK_NEAR => PartState::Near,
        _ => PartState::Missed,
    }
}

/// Factor between the streak and the wanted one, 1 or more; 1 where none is wanted.
pub(super) fn streak_miss(part: &Part, seen: &PartOutlook) -> f64 {
    part.streak_share.map_or(1.0, |wanted| {
        let ratio = seen.streak_share / wanted;
        ratio.max(1.0 / ratio)
    })
}

/// Whether the length of a streak is off by more than an eye forgives.
pub(super) fn streak_is_off(part: &Part, seen: &PartOutlook) -> bool {
    streak_miss(part, seen) > STREAK_FACTOR
}
