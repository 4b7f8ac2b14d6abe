//! The shutter and the flash, row by row.
//!
//! Rows `y` run from 0 to 1 in the order the shutter uncovers them. `open(y) = y·Tx`, `close(y) = open(y) + t`, with the
//! travel `Tx` of a focal-plane curtain, 0 for leaf and global shutters (a leaf's opening time and efficiency are
//! ignored), the readout time for a rolling electronic one.

pub mod high_speed;
pub mod rows;
pub mod sync;

pub use rows::RowReport;
pub use sync::{Ignition, SyncMode};

use crate::quantity::Seconds;

/// One release of a shutter.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Run {
    /// `Tx`, first row to last.
    pub travel: Seconds,
    /// `t`, how long each row is open.
    pub time: Seconds,
}

impl Run {
    /// When row `y` is uncovered.
    pub fn open(&self, y: f64) -> Seconds {
        self.travel * y
    }

    /// When row `y` is covered again.
    pub fn close(&self, y: f64) -> Seconds {
        self.open(y) + self.time
    }

    /// When the last row is covered.
    pub fn end(&self) -> Seconds {
        self.close(1.0)
    }
}
