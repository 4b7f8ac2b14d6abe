//! Pulses recorded on the very unit: between them the recorded durations, beyond them the way the unit goes, carried on
//! from the nearest recording.

use super::fit::{self, Fitted, Sample, Way};
use super::table::TimedPower;
use super::{Basis, Control, DurationTable, PulseAt};
use crate::quantity::Seconds;
use std::sync::OnceLock;

/// Different powers from which on the way of a unit is fitted through its recordings.
pub const ENOUGH_POWERS: usize = 3;
/// Powers that differ by less count as one.
const SAME_POWER: f64 = 1.001;

/// A way whose misfit is below this gives the shape of the pulses too; two durations alone leave the tail open.
const FITS: f64 = 0.1;

/// Recorded pulses of one unit.
///
/// Between them the durations are those of the table, and cost nothing. What needs a fit (the shape of the pulse, powers
/// beyond the recordings) has it made once, when it is first asked for.
#[derive(Clone, Debug)]
pub struct Recordings {
    table: DurationTable,
    entered: Control,
    samples: Vec<Sample>,
    followed: OnceLock<Followed>,
}

/// The way a unit goes, as far as its recordings tell.
#[derive(Clone, Debug)]
struct Followed {
    control: Control,
    /// Whether it agrees with what was recorded.
    fits: bool,
}

impl PartialEq for Recordings {
    fn eq(&self, other: &Self) -> bool {
        // The fit follows from the rest.
        self.entered == other.entered && self.samples == other.samples
    }
}

/// What the recordings of a unit say of the way it goes.
#[derive(Clone, Debug, PartialEq)]
pub struct Verdict {
    /// The way fitted through them; `None` with fewer than three powers.
    pub own: Option<Fitted>,
    /// `ln(measured / as entered)` as root mean square, before anything was fitted.
    pub against_entered: f64,
    /// The way that would fit best of all, from three powers on.
    pub best: Option<(Way, Fitted)>,
}

impl Recordings {
    /// Through samples of a unit whose entered way is `entered`. At least one sample; recordings at one power count by
    /// their mean.
    pub fn new(entered: Control, samples: &[Sample]) -> Self {
        Self { table: DurationTable(rows(samples)), entered, samples: samples.to_vec(), followed: OnceLock::new() }
    }

    fn followed(&self) -> &Followed {
        self.followed.get_or_init(|| {
            let (entered, samples) = (&self.entered, &self.samples);
            let control = match verdict(entered, samples, false).own {
                None => fit::scaled(entered, samples),
                Some(own) if own.misfit <= FITS => own.control,
                // It does not go the way it was said to go. Banks would take five fits more; few units have them unsaid.
                Some(own) => {
                    [Way::Quenched, Way::ChargeVoltage]
                        .map(|way| fit::fit(way, samples))
                        .into_iter()
                        .fold(own, |best, other| if other.misfit < best.misfit { other } else { best })
                        .control
                }
            };
            Followed { fits: fit::misfit(&control, samples) <= FITS, control }
        })
    }

    /// The powers recorded, highest and lowest.
    pub fn span(&self) -> (f64, f64) {
        let rows = &self.table.0;
        (rows[0].power, rows[rows.len() - 1].power)
    }

    /// Powers recorded, in stops below full.
    pub(super) fn turns(&self) -> Vec<f64> {
        self.table.0.iter().map(|row| -row.power.log2()).collect()
    }

    /// Whether a power lies between recordings.
    fn covers(&self, power: f64) -> bool {
        let (high, low) = self.span();
        power <= high * SAME_POWER && power >= low / SAME_POWER
    }

    /// t0.5 and t0.1 alone.
    pub(super) fn times(&self, power: f64) -> (Seconds, Seconds) {
        if self.covers(power) {
            let row = self.table.at(power).row;
            return (row.t05, row.t01);
        }
        self.pulse(power).times
    }

    /// Both ends of what was recorded, and the jumps of the way beyond them, in stops below full.
    pub(super) fn jumps(&self) -> Vec<f64> {
        let rows = &self.table.0;
        let ends = [-rows[0].power.log2(), -rows[rows.len() - 1].power.log2()];
        let beyond = self.followed().control.jumps().into_iter().filter(|stops| *stops < ends[0] || *stops > ends[1]);
        beyond.chain(ends).collect()
    }

    /// The recorded durations, and a pulse that has them.
    fn between(&self, power: f64) -> PulseAt {
        let Followed { control, fits } = self.followed();
        if !fits {
            return self.table.pulse(power);
        }
        let row = self.table.at(power).row;
        let shape = control.at(power);
        let scale = ((row.t05 / shape.times.0) * (row.t01 / shape.times.1)).sqrt();
        let shape = shape.stretched(scale);
        PulseAt { times: (row.t05, row.t01), misfit: false, ..shape }
    }

    /// The pulse at a power fraction.
    pub fn pulse(&self, power: f64) -> PulseAt {
        if self.covers(power) {
            return PulseAt { outside_table: false, basis: Basis::Recorded, ..self.between(power) };
        }
        let rows = &self.table.0;
        let end = if power > rows[0].power { rows[0] } else { rows[rows.len() - 1] };
        let beyond = &self.followed().control;
        let (t05, t01) = beyond.at(end.power).times;
        // One factor cannot meet both durations; their mean ratio leaves the smallest step in either.
        let carried = (end.t01 / t01) * (end.t05 / t05);
        PulseAt { estimated: true, basis: Basis::Beyond, ..beyond.at(power).stretched(carried.sqrt()) }
    }
}

/// What samples say of the way a unit goes; `thorough` looks for the best of all ways too, which takes ten times as long.
/// Of a unit that is only known by a table the best way is its own.
pub fn verdict(entered: &Control, samples: &[Sample], thorough: bool) -> Verdict {
    let enough = fit::powers(samples) >= ENOUGH_POWERS;
    let best = (enough && thorough).then(|| fit::fit_best(samples));
    let own = entered.fitted_way().filter(|_| enough).map(|way| fit::fit(way, samples));
    Verdict {
        own: own.or_else(|| best.as_ref().map(|(_, fitted)| fitted.clone())),
        against_entered: fit::misfit(entered, samples),
        best,
    }
}

/// One row a power, brightest first; several recordings at one power count by their geometric mean.
fn rows(samples: &[Sample]) -> Vec<TimedPower> {
    let mut sorted = samples.to_vec();
    sorted.sort_by(|a, b| b.power.total_cmp(&a.power));
    sorted
        .chunk_by(|a, b| a.power <= b.power * SAME_POWER)
        .map(|same| {
            let mean = |of: fn(&Sample) -> f64| {
                let logs: f64 = same.iter().map(|sample| of(sample).ln()).sum();
                Seconds::from_secs((logs / same.len() as f64).exp())
            };
            TimedPower {
                power: same[0].power,
                t05: mean(|sample| sample.t05.as_secs()),
                t01: mean(|sample| sample.t01.as_secs()),
                estimated: false,
                t01_fitted: false,
            }
        })
        .collect()
}
