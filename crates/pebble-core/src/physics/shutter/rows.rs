//! How much of the pulse each row gets: `s(y) = Φ(close(y) − t_f) − Φ(open(y) − t_f)`.

use super::Run;
use crate::physics::pulse::{Pulse, Windows};
use crate::physics::root::crossing;
use crate::quantity::{Seconds, Stops};
use serde::{Deserialize, Serialize};

/// A row is touched when it lacks a tenth of a stop or more: `2^−0.1`.
pub const TOUCHED_SHARE: f64 = 0.933_032_991_536_807_4;
/// Below this share a row has no flash at all.
pub const BLACK_SHARE: f64 = 1e-9;

/// A row with less of a flash than this draws nothing that is told from the rest.
pub const DRAWN_SHARE: f64 = 0.01;
/// Rows at which a cut pulse is looked at for how long it lasts.
const LOOKED_AT: u32 = 8;

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
    // With its share; no rows are counted where the worst gets enough.
    let best = (worst < TOUCHED_SHARE).then(|| best_row(run, pulse, at)).map(|best| (best, share(best)));
    let below = |threshold: f64| {
        let Some((best, most)) = best.filter(|_| worst < threshold) else { return 0.0 };
        if most < threshold {
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

/// `s̄`: the mean share of the rows from `rows.0` to `rows.1`. Rows open and close one after the other at an even pace, so that
/// it is a difference of [`Pulse::share_until`] at four moments; what is less than [`BLACK_SHARE`] is none.
pub fn mean_share(run: Run, pulse: &Pulse, at: Seconds, rows: (f64, f64)) -> f64 {
    if run.travel <= Seconds::ZERO || rows.1 <= rows.0 {
        return row_share(run, pulse, at, rows.0);
    }
    let until = |time: Seconds| pulse.share_until(time - at).as_secs();
    let over = |moment: fn(&Run, f64) -> Seconds| until(moment(&run, rows.1)) - until(moment(&run, rows.0));
    let share = (over(Run::close) - over(Run::open)) / (run.travel.as_secs() * (rows.1 - rows.0));
    if share < BLACK_SHARE { 0.0 } else { share.min(1.0) }
}

/// The longest that the flash lasts for any row from `rows.0` to `rows.1` that gets [`DRAWN_SHARE`] of it, each cut to the
/// time it is open; `None` where no row does. `whole` is what the whole pulse lasts, which a row that sees all of it takes.
pub fn freezing(run: Run, seen: &Windows, at: Seconds, rows: (f64, f64), whole: Seconds) -> Option<Seconds> {
    let (first, last) = (at + seen.tenth.0, at + seen.tenth.1);
    let steps = if run.travel <= Seconds::ZERO || rows.1 <= rows.0 { 0 } else { LOOKED_AT };
    let mut longest = None;
    for k in 0..=steps {
        let y = rows.0 + (rows.1 - rows.0) * f64::from(k) / f64::from(steps.max(1));
        let (open, close) = (run.open(y), run.close(y));
        if seen.share(open - at, close - at) < DRAWN_SHARE {
            continue;
        }
        if open <= first && close >= last {
            return Some(whole.min(run.time));
        }
        let lasts = seen.lasts(open - at, close - at).min(run.time);
        longest = Some(longest.map_or(lasts, |longer: Seconds| longer.max(lasts)));
    }
    longest
}
