//! A recorded pulse: from the text of an oscilloscope or a photodiode to durations that can be filed.
//!
//! [`read`] takes the text piece by piece, so that a file need not be held; [`analyse`] finds the pulse and its durations
//! and says how good the recording is.

mod analyse;
mod edges;
mod header;
mod number;
pub mod read;

pub use analyse::{Quality, Reading, Remark, analyse};
pub use header::interval_of;
pub use read::{Given, Reader, TraceError};

use serde::Serialize;

/// Samples of a recording: times in seconds, never falling, and levels in the recorder's own unit.
#[derive(Clone, Debug, PartialEq, Default)]
pub struct Trace {
    /// Times, in seconds.
    pub time_s: Vec<f64>,
    /// Levels.
    pub level: Vec<f64>,
    /// What was noticed while reading.
    pub notes: ReadingNotes,
}

/// What was noticed while a recording was read.
#[derive(Clone, Debug, PartialEq, Default, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct ReadingNotes {
    /// Unit of the times as found, `s` when the file does not say.
    pub time_unit: String,
    /// Whether the file says so.
    pub time_unit_given: bool,
    /// Unit of the levels as found.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub level_unit: Option<String>,
    /// Columns of numbers in the file.
    pub columns: usize,
    /// The channels among them, as they are called.
    pub channels: Vec<String>,
    /// The one that is read, counted from 1.
    pub channel: usize,
    /// Where samples are counted: whether the header says how far apart they are, and not who brought them.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub interval_from_header: Option<bool>,
    /// Lines before the first number.
    pub header_lines: usize,
    /// Samples without a number, left out.
    pub left_out: usize,
    /// Samples whose time stood still because it was rounded; they were spread evenly.
    pub respaced: bool,
    /// Whether the steps of time differ by more than a tenth.
    pub irregular: bool,
}
