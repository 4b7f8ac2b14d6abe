//! What is answered about a plan. Each answer may use those before it, never those after:
//! strips, conditions · typed, hold · drag, groups, compare · findings · forecast, daylight · matching · briefing.

pub mod balance;
pub mod briefing;
pub mod cautions;
pub mod compare;
pub mod conditions;
pub mod daylight;
pub mod drag;
pub mod findings;
pub mod fit;
pub mod floor;
pub mod forecast;
pub mod groups;
pub mod guesses;
pub mod guides;
pub mod hold;
pub mod lanes;
pub mod matching;
pub mod metering;
pub mod meters;
pub mod sheet;
pub mod speeds;
pub mod staging;
pub(crate) mod standing;
pub mod strips;
pub mod trace;
pub mod typed;
