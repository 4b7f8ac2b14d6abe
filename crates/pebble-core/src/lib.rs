//! Light, time and movement in one frame.
//!
//! A [`shot::Shot`] goes in at one end; a [`forecast::Forecast`] of plain data comes out at the other, and
//! [`findings::judge`] says what of it will hurt the picture and what to turn.
//!
//! The rooms stand in the order light travels: [`quantity`] → [`exposure`] → [`output`] → [`pulse`] → [`shutter`] →
//! [`motion`] → [`ghost`] → [`forecast`] → [`findings`]. What light is made with stands in [`gear`].
//!
//! # What this crate does not do
//!
//! No files, no clock, no network, no randomness, no rendering, no interface. The same shot gives the same forecast on
//! every machine. Words appear in two places only: error messages and findings.
//!
//! # Signs and scales
//!
//! A *stop* is a factor of two; more light is positive. Filter loss is the one exception: it counts positive. Camera
//! settings sit on a grid of sixths of a stop and their labels are customary roundings ([`quantity::scale`]).

pub mod cautions;
pub mod compare;
pub mod daylight;
pub mod depth;
pub mod drag;
pub mod exposure;
pub mod findings;
pub mod forecast;
pub mod gear;
pub mod ghost;
pub mod groups;
pub mod hold;
pub mod matching;
pub mod metering;
pub mod motion;
pub mod outlook;
pub mod output;
pub mod plan;
pub mod power;
pub mod pulse;
pub mod quantity;
mod root;
pub mod shot;
pub mod shutter;
pub mod strips;
mod wire;

pub use forecast::{Forecast, forecast};
pub use outlook::{Outlook, outlook};
pub use plan::Plan;
pub use quantity::bounds::Invalid;
pub use shot::Shot;
