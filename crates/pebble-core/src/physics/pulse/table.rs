//! A measured or published table of durations: piecewise linear in (log power, log time), the nearest end outside.

use super::{Basis, Pulse, PulseAt};
use crate::physics::root::crossing;
use crate::quantity::Seconds;
use std::f64::consts::{LN_2, LN_10};

/// Above this ratio of t0.1 to t0.5 the pair is an uncut exponential, whose own ratio is ln 10 / ln 2 = 3.32.
const EXPONENTIAL_RATIO: f64 = 3.305;
/// From here up the two figures do not fit any pulse of this model, and one of them is doubtful.
const MISFIT_RATIO: f64 = 3.35;

/// One row of a table, both durations known.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct TimedPower {
    /// Power fraction.
    pub power: f64,
    /// t0.5.
    pub t05: Seconds,
    /// t0.1.
    pub t01: Seconds,
    /// Whether one of the two was fitted rather than given.
    pub estimated: bool,
    /// Whether that is t0.1.
    pub t01_fitted: bool,
}

/// A table, brightest row first.
///
/// # Guarantees
/// At least one row, powers strictly falling, `t05 ≤ t01` in each; [`crate::file::gear`] sees to it.
#[derive(Clone, Debug, PartialEq)]
pub struct DurationTable(pub(crate) Vec<TimedPower>);

/// What a table says at a power.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Reading {
    /// The interpolated row.
    pub row: TimedPower,
    /// Whether the power lies outside the table.
    pub outside: bool,
}

impl DurationTable {
    /// The pulse at a power fraction, and what the table knows of it.
    pub fn pulse(&self, power: f64) -> PulseAt {
        let Reading { row, outside } = self.at(power);
        let pulse = pulse_of_pair(row.t05, row.t01);
        PulseAt {
            spans: pulse.spans(),
            pulse,
            times: (row.t05, row.t01),
            outside_table: outside,
            estimated: row.estimated,
            t01_fitted: row.t01_fitted,
            misfit: is_misfit(row.t05, row.t01),
            basis: Basis::Entered,
        }
    }

    /// The durations at a power fraction.
    pub fn at(&self, power: f64) -> Reading {
        let rows = &self.0;
        let brightest = rows[0];
        let dimmest = rows[rows.len() - 1];
        if power >= brightest.power {
            return Reading { row: TimedPower { power, ..brightest }, outside: power > brightest.power };
        }
        if power <= dimmest.power {
            return Reading { row: TimedPower { power, ..dimmest }, outside: power < dimmest.power };
        }
        let below = rows.partition_point(|row| row.power > power);
        let (high, low) = (rows[below - 1], rows[below]);
        let along = (power / low.power).ln() / (high.power / low.power).ln();
        let between =
            |at_low: Seconds, at_high: Seconds| Seconds::from_secs(at_low.as_secs() * (at_high / at_low).powf(along));
        let row = TimedPower {
            power,
            t05: between(low.t05, high.t05),
            t01: between(low.t01, high.t01),
            estimated: low.estimated || high.estimated,
            t01_fitted: low.t01_fitted || high.t01_fitted,
        };
        Reading { row, outside: false }
    }
}

/// A pulse with the two durations. Below the ratio of an exponential: the exponential `τ = t0.5/ln 2` cut at t0.1;
/// from there up: the uncut exponential `τ = t0.1/ln 10`. Precondition: `t05 ≤ t01`.
pub fn pulse_of_pair(t05: Seconds, t01: Seconds) -> Pulse {
    if t01 / t05 < EXPONENTIAL_RATIO {
        Pulse::cut(Seconds::ZERO, t05 / LN_2, t01, Seconds::ZERO)
    } else {
        Pulse::full(Seconds::ZERO, t01 / LN_10)
    }
}

/// Whether two published durations belong to no pulse of this model.
pub fn is_misfit(t05: Seconds, t01: Seconds) -> bool {
    t01 / t05 > MISFIT_RATIO
}

/// t0.5 and t0.1 from one of them and the unit's own shape.
pub fn fit_other(
    known: Seconds,
    read: impl Fn((Seconds, Seconds)) -> Seconds,
    shape: impl Fn(Seconds) -> Pulse,
) -> (Seconds, Seconds) {
    shape(decay_of(known, read, &shape)).times()
}

/// The decay with which `shape` has the known duration, which `read` takes out of the pair.
pub fn decay_of(
    known: Seconds,
    read: impl Fn((Seconds, Seconds)) -> Seconds,
    shape: impl Fn(Seconds) -> Pulse,
) -> Seconds {
    // A duration and its decay differ by less than a factor of a thousand at any power a unit has.
    let miss = |log_decay: f64| (read(shape(Seconds::from_secs(log_decay.exp())).times()) / known).ln();
    let centre = known.as_secs().ln();
    Seconds::from_secs(crossing(centre - 7.0, centre + 7.0, miss).exp())
}
