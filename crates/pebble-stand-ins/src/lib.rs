//! Simulated devices: they take the place of real ones in rehearsals, examples and tests.
//!
//! Everything here is deterministic: what a real device leaves to chance is drawn from a seed.

mod chance;
pub mod recorder;
pub mod samples;

pub use recorder::Recorder;
