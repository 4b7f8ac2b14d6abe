//! The pulse of a flash: how long it lasts at a power, and why.
//!
//! One file per way of making less light; all of them end in a [`Pulse`].

mod banks;
mod charge_voltage;
pub mod fit;
mod quenched;
pub mod recordings;
mod shape;
pub mod table;
mod train;
mod window;

pub use banks::SwitchedBanks;
pub use charge_voltage::ChargeVoltage;
pub use fit::Sample;
pub use quenched::Quenched;
pub use recordings::Recordings;
pub use shape::{Durations, Pulse, School};
pub use table::DurationTable;
pub use train::PulseTrain;
pub use window::Windows;

use crate::quantity::Seconds;
use std::f64::consts::{LN_2, LN_10};

/// Rise of a discharge when nothing is known of it.
pub const DEFAULT_RISE: Seconds = Seconds::from_secs(30e-6);
/// Fall of a quenching switch when nothing is known of it.
pub const DEFAULT_FALL: Seconds = Seconds::from_secs(12e-6);

/// How a unit makes less light.
#[derive(Clone, Debug, PartialEq)]
pub enum Control {
    /// A switch cuts the discharge.
    Quenched(Quenched),
    /// Less charge on the whole store.
    ChargeVoltage(ChargeVoltage),
    /// Fewer banks, then less charge.
    SwitchedBanks(SwitchedBanks),
    /// Fewer pulses of a train.
    Train(PulseTrain),
    /// Durations from a table.
    Table(DurationTable),
    /// Another way with all times multiplied, as by a second head.
    Stretched(Box<Control>, f64),
    /// Pulses recorded on the very unit, and the way it goes beyond them.
    Recorded(Box<Recordings>),
}

/// What a pulse at a power rests on.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Basis {
    /// The figures entered for the unit.
    Entered,
    /// Recordings of this very unit on both sides of the power.
    Recorded,
    /// Recordings of this very unit, carried on beyond the last one by the way the unit goes.
    Beyond,
}

/// A pulse with what is known of its durations.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct PulseAt {
    /// The shape.
    pub pulse: Pulse,
    /// From its first rise to its last fall through a half and through a tenth of its peak.
    pub spans: [(Seconds, Seconds); 2],
    /// Its t0.5 and t0.1; a table's own figures win over those of the fitted shape.
    pub times: (Seconds, Seconds),
    /// Whether the power lies outside a table.
    pub outside_table: bool,
    /// Whether a duration was fitted because the table does not give it.
    pub estimated: bool,
    /// Whether that is t0.1, known by t0.5 alone.
    pub t01_fitted: bool,
    /// Whether the two durations of a table fit no pulse of the model.
    pub misfit: bool,
    /// What it rests on.
    pub basis: Basis,
}

impl PulseAt {
    /// Where t0.1 lies when only t0.5 is known: from that of a flat pulse to that of a discharge that runs out.
    pub fn t01_range(&self) -> Option<(Seconds, Seconds)> {
        self.t01_fitted.then(|| (self.times.0, self.times.0 * (LN_10 / LN_2)))
    }

    /// A pulse whose durations are its own.
    fn exact(pulse: Pulse) -> Self {
        let spans = pulse.spans();
        let [t05, t01] = spans.map(|(from, to)| to - from);
        Self {
            pulse,
            spans,
            times: (t05, t01),
            outside_table: false,
            estimated: false,
            t01_fitted: false,
            misfit: false,
            basis: Basis::Entered,
        }
    }

    /// The same with all times multiplied.
    fn stretched(self, factor: f64) -> Self {
        let (t05, t01) = self.times;
        let spans = self.spans.map(|(from, to)| (from * factor, to * factor));
        Self { pulse: self.pulse.stretched(factor), spans, times: (t05 * factor, t01 * factor), ..self }
    }

    /// All three durations. The third is looked for in the shape, which takes as long as all the rest.
    pub fn durations(&self) -> Durations {
        let (from, to) = self.pulse.interval_of_ninety();
        Durations { t05: self.times.0, t01: self.times.1, t90: to - from }
    }

    /// The freezing time by one school.
    pub fn by(&self, school: School) -> Seconds {
        match school {
            School::T05 => self.times.0,
            School::T01 => self.times.1,
            School::T90 => self.durations().t90,
        }
    }
}

impl Control {
    /// Where the durations jump, in stops below full.
    pub fn jumps(&self) -> Vec<f64> {
        match self {
            Self::Quenched(_) | Self::ChargeVoltage(_) | Self::Table(_) => Vec::new(),
            Self::SwitchedBanks(unit) => {
                (1..unit.banks).map(|bank| -(f64::from(bank) / f64::from(unit.banks)).log2()).collect()
            }
            Self::Train(unit) => unit.counts(),
            Self::Stretched(inner, _) => inner.jumps(),
            Self::Recorded(recordings) => recordings.jumps(),
        }
    }

    /// Powers between which durations only rise or only fall, in stops below full; beside the ends of a dial, a shortest
    /// pulse can only be at one of them.
    pub fn turns(&self) -> Vec<f64> {
        match self {
            Self::Quenched(_) | Self::ChargeVoltage(_) => Vec::new(),
            Self::SwitchedBanks(_) | Self::Train(_) => self.jumps(),
            Self::Table(table) => table.0.iter().map(|row| -row.power.log2()).collect(),
            Self::Stretched(inner, _) => inner.turns(),
            Self::Recorded(recordings) => recordings.turns(),
        }
    }

    /// t0.5 and t0.1 alone, for those who ask thousands of times.
    pub(crate) fn times(&self, power: f64) -> (Seconds, Seconds) {
        match self {
            Self::Quenched(unit) => unit.pulse(power).times(),
            Self::ChargeVoltage(unit) => unit.pulse(power).times(),
            Self::SwitchedBanks(unit) => unit.pulse(power).times(),
            Self::Train(unit) => unit.pulse(power).times(),
            Self::Stretched(inner, factor) => {
                let (t05, t01) = inner.times(power);
                (t05 * *factor, t01 * *factor)
            }
            Self::Table(table) => {
                let row = table.at(power).row;
                (row.t05, row.t01)
            }
            Self::Recorded(recordings) => recordings.times(power),
        }
    }

    /// The way that recordings are compared with; a table says nothing of one, and trains are not fitted.
    pub(crate) fn fitted_way(&self) -> Option<fit::Way> {
        match self {
            Self::Quenched(_) => Some(fit::Way::Quenched),
            Self::ChargeVoltage(_) => Some(fit::Way::ChargeVoltage),
            Self::SwitchedBanks(unit) => Some(fit::Way::SwitchedBanks(unit.banks)),
            Self::Stretched(inner, _) => inner.fitted_way(),
            Self::Train(_) | Self::Table(_) | Self::Recorded(_) => None,
        }
    }

    /// The pulse at a power fraction, `0 < power ≤ 1`.
    pub fn at(&self, power: f64) -> PulseAt {
        match self {
            Self::Quenched(unit) => PulseAt::exact(unit.pulse(power)),
            Self::ChargeVoltage(unit) => PulseAt::exact(unit.pulse(power)),
            Self::SwitchedBanks(unit) => PulseAt::exact(unit.pulse(power)),
            Self::Train(unit) => PulseAt::exact(unit.pulse(power)),
            Self::Table(table) => table.pulse(power),
            Self::Stretched(inner, factor) => inner.at(power).stretched(*factor),
            Self::Recorded(recordings) => recordings.pulse(power),
        }
    }
}
