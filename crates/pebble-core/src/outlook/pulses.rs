//! Pulses that were solved before. Where a pulse is over, and what a shutter lets through of it, takes longer to find than
//! all the rest of a frame; a power on a dial is tried again and again, whatever else is turned.

use crate::physics::pulse::{Control, Durations, Pulse, PulseAt, School, Windows};
use crate::physics::shutter::sync::{OVER_SHARE, Timing, ignition, usable_sync};
use crate::physics::shutter::{Ignition, RowReport, Run, SyncMode, rows};
use crate::plan::{Dial, Plan, WHOLE_FRAME};
use crate::quantity::Seconds;
use crate::quantity::scale::{Grid, ShutterTime};
use foldhash::HashMap;
use std::hash::Hash;
use std::sync::Arc;

/// When the first and the last row get this much of a flash, all of them get all of it.
const UNCUT: f64 = 1.0 - 1e-6;
/// More than all powers of nine lights at all their kinds of sync; beyond it is begun anew.
const MOST_SOLVED: usize = 4096;
/// Finer than a curve of a hundred pixels shows, and written with few digits.
const CURVE_STEPS: f64 = 1000.0;

/// What decides the ignition of a light, for a pulse of a given length.
pub(crate) fn timing(plan: &Plan, light: usize, length: Seconds) -> Timing {
    Timing { lag: plan.lights[light].lag, guard: plan.body.guard, length }
}

/// Pulses of one camera and its lights, whatever is set on them. An empty memory that keeps nothing costs nothing.
#[derive(Clone, Debug, Default)]
pub struct Pulses {
    whose: Option<Whose>,
    keeps: bool,
    solved: HashMap<Of, Solved>,
    told: HashMap<Of, Told>,
    windows: HashMap<Of, Windows>,
    arrived: HashMap<(Of, u64), Arrival>,
    in_rows: HashMap<(Of, u64, [u64; 2]), RowsOf>,
}

/// A light, its kind of sync and its power.
type Of = (usize, SyncMode, u64);

/// Everything that the pulses of a plan follow from.
#[derive(Clone, Debug, PartialEq)]
struct Whose {
    travel: Seconds,
    guard: Seconds,
    grid: Grid,
    times: (ShutterTime, ShutterTime),
    school: School,
    lights: Vec<(Control, Seconds)>,
}

/// What a light does at a power, whenever the shutter runs.
#[derive(Clone, Copy, Debug)]
pub(super) struct Solved {
    pub pulse: PulseAt,
    pub length: Seconds,
    pub usable_sync: Option<ShutterTime>,
}

/// How long it lasts in all three ways, and its curve.
#[derive(Clone, Debug)]
pub(crate) struct Told {
    pub durations: Durations,
    /// Where its curve ends, which begins at ignition.
    pub end: Seconds,
    /// Intensities against the peak at moments evenly apart.
    pub levels: Arc<[f64]>,
}

impl Told {
    fn of(pulse: &PulseAt) -> Self {
        let drawn = pulse.pulse.drawn();
        let mut end = Seconds::ZERO;
        let to_a_pixel = |level: f64| (level * CURVE_STEPS).round() / CURVE_STEPS;
        let levels = drawn.inspect(|(time, _)| end = *time).map(|(_, level)| to_a_pixel(level)).collect();
        Self { durations: pulse.durations(), end, levels }
    }
}

/// What of it arrives behind a shutter that runs.
#[derive(Clone, Copy, Debug)]
pub(super) struct Arrival {
    pub ignition: Ignition,
    pub rows: RowReport,
    /// As the mean over the rows.
    pub share: f64,
    pub freeze: Option<Seconds>,
}

/// What some of the rows get of it.
#[derive(Clone, Copy, Debug)]
pub(super) struct RowsOf {
    /// As their mean.
    pub share: f64,
    /// How long it lasts for the one that sees most of it; `None` where none gets any.
    pub freeze: Option<Seconds>,
}

impl Whose {
    fn of(plan: &Plan) -> Self {
        let body = &plan.body;
        Self {
            travel: body.travel,
            guard: body.guard,
            grid: body.grid,
            times: body.times,
            school: plan.school,
            lights: plan.lights.iter().map(|light| (light.unit.control.clone(), light.lag)).collect(),
        }
    }

    fn is(&self, plan: &Plan) -> bool {
        let body = &plan.body;
        (self.travel, self.guard, self.grid, self.times, self.school)
            == (body.travel, body.guard, body.grid, body.times, plan.school)
            && self.lights.len() == plan.lights.len()
            && { self.lights.iter() }
                .zip(plan.lights.iter())
                .all(|((control, lag), light)| *lag == light.lag && *control == light.unit.control)
    }
}

impl Pulses {
    /// An empty memory, for who tries many settings of one shot.
    pub fn kept() -> Self {
        Self { keeps: true, ..Self::default() }
    }

    /// The same for who comes back with other shots, and asks first whether the memory [is of](Self::is_of) one.
    pub fn of_plan(plan: &Plan) -> Self {
        Self { whose: Some(Whose::of(plan)), ..Self::kept() }
    }

    /// Whether what is remembered holds for a plan.
    pub fn is_of(&self, plan: &Plan) -> bool {
        self.whose.as_ref().is_some_and(|whose| whose.is(plan))
    }

    /// How long the pulse of a power lasts.
    pub(crate) fn lasts(&mut self, plan: &Plan, light: usize, power: f64) -> Seconds {
        self.of(plan, light, power).pulse.by(plan.school)
    }

    /// The fastest time that leaves no row dark at a power.
    pub(crate) fn usable_sync(&mut self, plan: &Plan, light: usize, power: f64) -> Option<ShutterTime> {
        self.of(plan, light, power).usable_sync
    }

    /// What is told of a pulse and drawn of it, which takes longer to find than the duration that the school asks for.
    pub(crate) fn told(&mut self, plan: &Plan, light: usize, (power, pulse): (f64, &PulseAt)) -> Told {
        let key = (light, plan.settings.lights[light].sync, power.to_bits());
        if let Some(known) = self.told.get(&key) {
            return known.clone();
        }
        let told = Told::of(pulse);
        if self.keeps {
            keep(&mut self.told, key, told.clone());
        }
        told
    }

    pub(super) fn of(&mut self, plan: &Plan, light: usize, power: f64) -> Solved {
        let key = (light, plan.settings.lights[light].sync, power.to_bits());
        if let Some(known) = self.solved.get(&key) {
            return *known;
        }
        let pulse = plan.lights[light].unit.control.at(power);
        let length = pulse.pulse.time_of_share(OVER_SHARE);
        let usable_sync = usable(plan, &plan.settings.lights[light], &pulse.pulse, timing(plan, light, length));
        let solved = Solved { pulse, length, usable_sync };
        if self.keeps {
            keep(&mut self.solved, key, solved);
        }
        solved
    }

    /// What arrives of a pulse that does not glow.
    pub(super) fn arrival(&mut self, plan: &Plan, light: usize, power: f64, of: &Solved, run: Run) -> Arrival {
        let sync = plan.settings.lights[light].sync;
        let key = ((light, sync, power.to_bits()), run.time.as_secs().to_bits());
        if let Some(known) = self.arrived.get(&key) {
            return *known;
        }
        let Solved { pulse, length, .. } = *of;
        let ignition = ignition(run, sync, timing(plan, light, length));
        let rows = rows::report(run, &pulse.pulse, ignition.at);
        let whole = pulse.by(plan.school);
        let (share, freeze) = if rows.first.min(rows.last) > UNCUT {
            (1.0, Some(whole.min(run.time)))
        } else {
            let seen = self.windows(plan, key.0, &pulse.pulse);
            (
                rows::mean_share(run, &pulse.pulse, ignition.at, WHOLE_FRAME),
                rows::freezing(run, &seen, ignition.at, WHOLE_FRAME, whole),
            )
        };
        let arrival = Arrival { ignition, rows, share, freeze };
        if self.keeps {
            keep(&mut self.arrived, key, arrival);
        }
        arrival
    }

    /// A pulse as rows look at it, whenever they open.
    fn windows(&mut self, plan: &Plan, key: Of, pulse: &Pulse) -> Windows {
        if let Some(known) = self.windows.get(&key) {
            return *known;
        }
        let windows = Windows::of(pulse, plan.school);
        if self.keeps {
            keep(&mut self.windows, key, windows);
        }
        windows
    }

    /// What some rows get of a pulse that ignites at a moment.
    pub(super) fn rows_of(
        &mut self,
        plan: &Plan,
        light: usize,
        (power, pulse, at): (f64, &PulseAt, Seconds),
        run: Run,
        of: (f64, f64),
    ) -> RowsOf {
        let whose = (light, plan.settings.lights[light].sync, power.to_bits());
        let key = (whose, run.time.as_secs().to_bits(), [of.0.to_bits(), of.1.to_bits()]);
        if let Some(known) = self.in_rows.get(&key) {
            return *known;
        }
        let seen = self.windows(plan, whose, &pulse.pulse);
        let rows = RowsOf {
            share: rows::mean_share(run, &pulse.pulse, at, of),
            freeze: rows::freezing(run, &seen, at, of, pulse.by(plan.school)),
        };
        if self.keeps {
            keep(&mut self.in_rows, key, rows);
        }
        rows
    }
}

fn keep<K: Eq + Hash, V>(known: &mut HashMap<K, V>, key: K, value: V) {
    if known.len() >= MOST_SOLVED {
        known.clear();
    }
    known.insert(key, value);
}

/// What the flash can do as a pulse is worth knowing even while it glows.
fn usable(plan: &Plan, dial: &Dial, pulse: &Pulse, timing: Timing) -> Option<ShutterTime> {
    let mode = if dial.sync == SyncMode::HighSpeed { SyncMode::Front } else { dial.sync };
    usable_sync(plan.body.travel, mode, timing, pulse, plan.body.grid, plan.body.times)
}
