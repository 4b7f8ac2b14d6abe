//! Flash under the sun: how bright the sky may be over a day, and the three ways to keep it down.

pub mod day;
mod sky;
pub mod ways;

pub use day::{Sky, SkyDay, day};
pub use sky::clear_sky;
pub use ways::{Road, Way, ways};
