//! What files say: plain data that may be wrong, with the unit in every name, and its earlier versions.
//!
//! Nothing is computed here; [`crate::plan`] is the same, checked.

pub mod around;
pub mod floor;
pub mod gear;
pub mod group;
pub mod look;
pub mod movement;
pub mod preferences;
pub mod shot;
pub mod sky;
pub mod stage;
pub mod wish;
