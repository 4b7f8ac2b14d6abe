//! Flash under the sun: how bright the sky may be over a day, and the three ways to keep it down.

pub mod day;
pub mod ways;

pub use crate::file::sky::Sky;
pub use crate::physics::sky::clear_sky;
pub use day::{SkyDay, day};
pub use ways::{Road, Way, ways};
