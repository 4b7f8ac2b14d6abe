//! Flash under the sun: how bright the sky may be, and the three ways to keep it down.

mod sky;
pub mod ways;

pub use sky::clear_sky;
pub use ways::{Road, Way, ways};
