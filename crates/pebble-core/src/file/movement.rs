//! Movement in time, as a file says it.

use crate::wire::{wire, word};
use serde::{Deserialize, Serialize};

/// One phase of a part's movement, along its direction.
#[derive(Clone, Copy, Debug, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(tag = "is", rename_all = "snake_case", deny_unknown_fields)]
pub enum Phase {
    /// Stands still.
    Rest {
        /// For how long.
        seconds: f64,
    },
    /// Straight on, evenly faster or slower; over a time or over a way.
    Line {
        /// Speed at its beginning; against the direction where negative.
        from_m_s: f64,
        /// Speed at its end.
        to_m_s: f64,
        /// For how long.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        seconds: Option<f64>,
        /// How far.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        metres: Option<f64>,
    },
    /// Round an arc, evenly.
    Arc {
        /// Its radius.
        radius_m: f64,
        /// From this angle.
        from_deg: f64,
        /// To this one.
        to_deg: f64,
        /// In this time.
        seconds: f64,
    },
    /// Falls from rest.
    Fall {
        /// From this height.
        height_m: f64,
    },
    /// Up and down again.
    Jump {
        /// To this height.
        height_m: f64,
    },
    /// To both sides and back.
    ToAndFro {
        /// How far to each side.
        amplitude_m: f64,
        /// How often a second.
        rate_hz: f64,
        /// For how long.
        seconds: f64,
    },
}

word! {
    /// How often something can be tried.
    pub enum Chances {
        /// Once.
        One,
        /// A few times.
        Few,
        /// As often as is liked.
        Many,
    }
}

wire! {
    /// When the frame is taken, against what happens.
    #[derive(Default)]
    pub struct WhenTaken {
        /// When the shutter opens, from the beginning of the movement.
        #[serde(default)]
        pub opens_at_s: f64,
        /// How far who presses is off, as a standard deviation; 0.05 s where nobody has measured it.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub spread_s: Option<f64>,
        /// How long who presses takes to react; 0.25 s where nobody has measured it.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub reaction_s: Option<f64>,
        /// How long an action lasts that shall be in the frame from its start to its end.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub action_s: Option<f64>,
        /// How long after its start the next movement begins.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub next_s: Option<f64>,
        /// How high the jump is whose top is waited for.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub jump_m: Option<f64>,
        /// How often it can be tried.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub tries: Option<u32>,
    }
}

wire! {
    /// Steady light that nobody has read: what is typical for the place.
    pub struct TypicalLight {
        /// The place's usual exposure value at ISO 100. It counts as a guess while the reading is this one.
        pub ev: f64,
        /// The least that is usual.
        pub least_ev: f64,
        /// The most.
        pub most_ev: f64,
    }
}
