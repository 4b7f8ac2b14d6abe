//! How much of the pulse each row gets: `s(y) = Φ(close(y) − t_f) − Φ(open(y) − t_f)`.

use super::Run;
use crate::physics::pulse::Pulse;
use crate::physics::root::crossing;
use crate::quantity::{Seconds, Stops};
use serde::{Deserialize, Serialize};

/// A row is touched when it lacks a tenth of a stop or more: `2^−0.1`.
pub const TOUCHED_SHARE: f64 = 0.933_032_991_536_807_4;
/// Below this share a row has no flash at all.
pub const BLACK_SHARE: f64 = 1e-9;

/// Which edge of the shutter's run is worst.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Edge {
    /// The rows uncovered first.
    First,
    /// The rows uncovered last.
    Last,
}

/// What the rows get of one flash.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct RowReport {
    /// Share of the first row.
    pub first: f64,
    /// Share of the middle row.
    pub middle: f64,
    /// Share of the last row.
    pub last: f64,
    /// Loss of the worst row; [`Stops::DARK`] when it gets nothing.
    pub worst: Stops,
    /// Where the worst row is.
    pub edge: Edge,
    /// Share of the rows that lack a tenth of a stop or more.
    pub touched: f64,
    /// Share of the rows with no flash.
    pub black: f64,
}

/// Share of the pulse that row `y` gets when the flash ignites at `at`.
pub fn row_share(run: Run, pulse: &Pulse, at: Seconds, y: f64) -> f64 {
    (pulse.share(run.close(y) - at) - pulse.share(run.open(y) - at)).max(0.0)
}

/// All rows of one flash. Touched and black shares are exact: the share grows up to one best row and falls after it.
pub fn report(run: Run, pulse: &Pulse, at: Seconds) -> RowReport {
    let share = |y: f64| row_share(run, pulse, at, y);
    let (first, middle, last) = (share(0.0), share(0.5), share(1.0));
    let worst = first.min(last);
    let below = |threshold: f64| {
        if worst >= threshold {
            return 0.0;
        }
        let best = best_row(run, pulse, at);
        if share(best) < threshold {
            return 1.0;
        }
        let from = if first >= threshold { 0.0 } else { crossing(0.0, best, |y| share(y) - threshold) };
        let to = if last >= threshold { 1.0 } else { crossing(best, 1.0, |y| share(y) - threshold) };
        1.0 - (to - from)
    };
    RowReport {
        first,
        middle,
        last,
        worst: if worst < BLACK_SHARE { Stops::DARK } else { Stops::from_ratio(worst) },
        edge: if first <= last { Edge::First } else { Edge::Last },
        touched: below(TOUCHED_SHARE),
        black: below(BLACK_SHARE),
    }
}

/// The row that gets most: a window of length `t` holds most of a one-peaked pulse where the intensities at its ends are
/// equal. With nothing to gain before ignition, the window starts at or after it.
fn best_row(run: Run, pulse: &Pulse, at: Seconds) -> f64 {
    if run.travel <= Seconds::ZERO {
        return 0.0;
    }
    let gain = |start: f64| {
        let start = Seconds::from_secs(start);
        pulse.intensity(start + run.time) - pulse.intensity(start)
    };
    let start = if gain(0.0) <= 0.0 { 0.0 } else { crossing(0.0, pulse.peak().as_secs(), gain) };
    ((at + Seconds::from_secs(start)) / run.travel).clamp(0.0, 1.0)
}
