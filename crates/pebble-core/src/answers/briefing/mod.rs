//! From a few words to a shot: what happens, where, what shall be still, what it is for, with what, and what the meter says.
//!
//! Every answer may be left out. What is left out is taken from what is usual and said to be a guess; the set-up is found by
//! matching, so that a shot begins out of trouble, or with what would have to give.

mod begin;
mod settle;
mod tell;

pub use tell::{Briefed, BriefedPart, Guess, Guessed, Lit, LitBy};

use crate::answers::matching::{Going, Stock};
use crate::answers::speeds::NoSpeed;
use crate::file::gear::Kit;
use crate::file::movement::Chances;
use crate::file::shot::{Intent, Shot};
use crate::file::stage::Place;
use crate::physics::motion::Usage;
use crate::plan::Plan;
use crate::quantity::bounds::Invalid;
use crate::wire::wire;

wire! {
    /// What is said of a part.
    pub struct AnsweredPart {
        /// Its name, as the activity has it.
        pub name: String,
        /// What it shall look like.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub intent: Option<Intent>,
        /// How fast it is, in words.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub speed: Option<String>,
    }
}

wire! {
    /// What is known of a shot before there is one.
    pub struct Answers {
        /// What happens, by its name among the activities.
        pub activity: String,
        /// Where.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub place: Option<Place>,
        /// What shall be still and what may streak, where it is not as usual.
        #[serde(default, skip_serializing_if = "Vec::is_empty")]
        pub parts: Vec<AnsweredPart>,
        /// What the picture is for.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub usage: Option<Usage>,
        /// Which camera of the kit.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub camera: Option<String>,
        /// Which units of the kit may be used; all where none is named.
        #[serde(default, skip_serializing_if = "Vec::is_empty")]
        pub units: Vec<String>,
        /// What the meter says of the steady light, in words.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub meter: Option<String>,
        /// How often it can be tried.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub chances: Option<Chances>,
    }
}

/// Why there is no shot.
#[derive(Clone, Debug, PartialEq, thiserror::Error)]
pub enum NoShot {
    /// It is in no list of ours.
    #[error(
        "“{activity}” is no activity that this version knows. Choose one from the list; everything else that was said stays."
    )]
    UnknownActivity {
        /// As asked for.
        activity: String,
    },
    /// A part that the activity has not.
    #[error("{activity} has no part “{part}”: it has {parts}.")]
    UnknownPart {
        /// What happens.
        activity: String,
        /// As asked for.
        part: String,
        /// Those that there are.
        parts: String,
    },
    /// What was said of a speed is none.
    #[error("{part}: {why}")]
    Speed {
        /// Of which part.
        part: String,
        /// Why.
        why: NoSpeed,
    },
    /// What was said of the light is no reading.
    #[error("“{text}” is no reading. Like this: f/2.8 1/60 ISO 1600, EV 7, 200 lx, or black at f/8 1/200 ISO 200.")]
    Meter {
        /// As typed.
        text: String,
    },
    /// A figure cannot be.
    #[error(transparent)]
    Invalid(#[from] Invalid),
}

impl NoShot {
    /// Which answer it is about.
    pub fn field(&self) -> &str {
        match self {
            Self::UnknownActivity { .. } => "activity",
            Self::UnknownPart { .. } | Self::Speed { .. } => "parts",
            Self::Meter { .. } => "meter",
            Self::Invalid(invalid) => invalid.field(),
        }
    }
}

/// The shot that follows from some answers, with a kit; `None` when it was stopped. `basis` lends what the kit has not.
///
/// # Errors
/// [`NoShot`], a sentence for the answer that it is about.
pub fn briefed(
    answers: &Answers,
    (kit, stock): (&Kit, &Stock),
    basis: &Shot,
    going: &Going,
) -> Result<Option<Briefed>, NoShot> {
    let begun = begin::begin(answers, kit, basis)?;
    let stock = settle::allowed(stock, &answers.units)?;
    let Some(settled) = settle::settle(&begun, &stock, going)? else { return Ok(None) };
    let plan = Plan::try_from(&settled.shot)?;
    Ok(Some(tell::tell(answers, &begun, settled, &plan)))
}
