//! Light, time and movement in one frame.
//!
//! A [`shot::Shot`] goes in at one end; a [`forecast::Forecast`] of plain data comes out at the other, and
//! [`findings::judge`] says what of it will hurt the picture and what to turn.
//!
//! The rooms stand in the order of what they may know: [`quantity`] (units, scales, limits) ← [`physics`] (laws) ←
//! [`file`] (what is written down) ← [`stage`] and [`activities`] (what can stand there, and what it does) ← [`plan`] (a file, checked) ← [`outlook`](mod@outlook) (one shot put together) ←
//! [`answers`] (forecast, findings, hold, matching and the rest). A test keeps the arrows from running back.
//!
//! # What this crate does not do
//!
//! No files, no clock, no network, no randomness, no rendering, no interface. The same shot gives the same answers on
//! every machine. Sentences are made in two places: errors name field, value and range, and [`answers`] say what they
//! found; every other word is a label of a quantity.
//!
//! # Signs and scales
//!
//! A *stop* is a factor of two; more light is positive. Filter loss is the one exception: it counts positive. Camera
//! settings sit on a grid of sixths of a stop and their labels are customary roundings ([`quantity::scale`]).

pub mod activities;
pub mod answers;
pub mod file;
pub mod outlook;
pub mod physics;
pub mod plan;
pub mod quantity;
pub mod stage;
mod wire;

// What most callers need stands at the door.
pub use answers::{
    balance, briefing, cautions, compare, conditions, daylight, drag, findings, fit, floor, forecast, groups, guesses,
    guides, hold, lanes, matching, metering, meters, sheet, speeds, staging, strips, trace, typed,
};
pub use file::{gear, preferences, shot};
pub use physics::{depth, exposure, ghost, motion, output, power, pulse, shutter};

pub use answers::forecast::{Forecast, forecast};
pub use file::shot::Shot;
pub use outlook::{Outlook, outlook};
pub use plan::{Meter, Plan};
pub use quantity::bounds::Invalid;
