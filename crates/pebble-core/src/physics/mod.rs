//! The laws: numbers in, numbers out. They know no shot, no unit and no camera.

pub mod depth;
pub mod exposure;
pub mod ghost;
pub mod metering;
pub mod motion;
pub mod output;
pub mod phases;
pub mod power;
pub mod pulse;
pub mod root;
pub mod shutter;
pub mod sky;
pub mod subject;
