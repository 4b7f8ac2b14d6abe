//! Pulses recorded on the very unit: between them the recorded durations, beyond them the way the unit goes, carried on
//! from the nearest recording.

use super::fit::{self, Fitted, Sample, Way};
use super::table::Row;
use super::{Basis, Control, DurationTable, Durations, PulseAt};

/// Powers that differ by less count as one.
const SAME_POWER: f64 = 1.001;

/// A way whose misfit is below this gives the shape of the pulses too; two durations alone leave the tail open.
const FITS: f64 = 0.1;

/// Recorded pulses of one unit.
#[derive(Clone, Debug, PartialEq)]
pub struct Recordings {
    table: DurationTable,
    beyond: Control,
    /// Whether `beyond` agrees with what was recorded.
    fits: bool,
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
        let own = verdict(&entered, samples, false).own;
        let beyond = match own {
            None => fit::scaled(&entered, samples),
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
        let fits = fit::misfit(&beyond, samples) <= FITS;
        Self { table: DurationTable(rows(samples)), beyond, fits }
    }

    /// Both ends of what was recorded, and the jumps of the way beyond them, in stops below full.
    pub(super) fn jumps(&self) -> Vec<f64> {
        let rows = &self.table.0;
        let ends = [-rows[0].power.log2(), -rows[rows.len() - 1].power.log2()];
        let beyond = self.beyond.jumps().into_iter().filter(|stops| *stops < ends[0] || *stops > ends[1]);
        beyond.chain(ends).collect()
    }

    /// The recorded durations, and a pulse that has them.
    fn between(&self, power: f64) -> PulseAt {
        if !self.fits {
            return self.table.pulse(power);
        }
        let row = self.table.at(power).row;
        let shape = self.beyond.at(power);
        let scale = ((row.t05 / shape.durations.t05) * (row.t01 / shape.durations.t01)).sqrt();
        let shape = shape.stretched(scale);
        PulseAt { durations: Durations { t05: row.t05, t01: row.t01, ..shape.durations }, misfit: false, ..shape }
    }

    /// The pulse at a power fraction.
    pub fn pulse(&self, power: f64) -> PulseAt {
        let rows = &self.table.0;
        let (high, low) = (rows[0].power, rows[rows.len() - 1].power);
        if power <= high * SAME_POWER && power >= low / SAME_POWER {
            return PulseAt { outside_table: false, basis: Basis::Recorded, ..self.between(power) };
        }
        let end = if power > high { rows[0] } else { rows[rows.len() - 1] };
        let by_model = self.beyond.at(end.power).durations;
        // One factor cannot meet both durations; their mean ratio leaves the smallest step in either.
        let carried = (end.t01 / by_model.t01) * (end.t05 / by_model.t05);
        PulseAt { estimated: true, basis: Basis::Beyond, ..self.beyond.at(power).stretched(carried.sqrt()) }
    }
}

/// What samples say of the way a unit goes; `thorough` looks for the best of all ways too, which takes ten times as long.
/// Of a unit that is only known by a table the best way is its own.
pub fn verdict(entered: &Control, samples: &[Sample], thorough: bool) -> Verdict {
    let enough = fit::powers(samples) >= 3;
    let best = (enough && thorough).then(|| fit::fit_best(samples));
    let own = way_of(entered).filter(|_| enough).map(|way| fit::fit(way, samples));
    Verdict {
        own: own.or_else(|| best.as_ref().map(|(_, fitted)| fitted.clone())),
        against_entered: fit::misfit(entered, samples),
        best,
    }
}

/// The way a control goes; a table says nothing of it.
fn way_of(control: &Control) -> Option<Way> {
    match control {
        Control::Quenched(_) => Some(Way::Quenched),
        Control::ChargeVoltage(_) => Some(Way::ChargeVoltage),
        Control::SwitchedBanks(unit) => Some(Way::SwitchedBanks(unit.banks)),
        Control::Stretched(inner, _) => way_of(inner),
        Control::Table(_) | Control::Recorded(_) => None,
    }
}

/// One row a power, brightest first; several recordings at one power count by their geometric mean.
fn rows(samples: &[Sample]) -> Vec<Row> {
    let mut sorted = samples.to_vec();
    sorted.sort_by(|a, b| b.power.total_cmp(&a.power));
    sorted
        .chunk_by(|a, b| a.power <= b.power * SAME_POWER)
        .map(|same| {
            let mean = |of: fn(&Sample) -> f64| {
                let logs: f64 = same.iter().map(|sample| of(sample).ln()).sum();
                crate::quantity::Seconds::from_secs((logs / same.len() as f64).exp())
            };
            Row {
                power: same[0].power,
                t05: mean(|sample| sample.t05.as_secs()),
                t01: mean(|sample| sample.t01.as_secs()),
                estimated: false,
            }
        })
        .collect()
}
