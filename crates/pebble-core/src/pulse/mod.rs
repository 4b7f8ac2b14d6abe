//! The pulse of a flash: how long it lasts at a power, and why.
//!
//! One file per way of making less light; all of them end in a [`Pulse`].

mod banks;
mod charge_voltage;
mod quenched;
mod shape;
pub mod table;

pub use banks::SwitchedBanks;
pub use charge_voltage::ChargeVoltage;
pub use quenched::Quenched;
pub use shape::{Durations, Pulse, School};
pub use table::DurationTable;

use crate::quantity::Seconds;

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
    /// Durations from a table.
    Table(DurationTable),
}

/// A pulse with what is known of its durations.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct PulseAt {
    /// The shape.
    pub pulse: Pulse,
    /// Its durations; a table's own figures win over those of the fitted shape.
    pub durations: Durations,
    /// Whether the power lies outside a table.
    pub outside_table: bool,
    /// Whether a duration was fitted because the table does not give it.
    pub estimated: bool,
    /// Whether the two durations of a table fit no pulse of the model.
    pub misfit: bool,
}

impl Control {
    /// The pulse at a power fraction, `0 < power ≤ 1`.
    pub fn at(&self, power: f64) -> PulseAt {
        let exact = |pulse: Pulse| PulseAt {
            pulse,
            durations: pulse.durations(),
            outside_table: false,
            estimated: false,
            misfit: false,
        };
        match self {
            Self::Quenched(unit) => exact(unit.pulse(power)),
            Self::ChargeVoltage(unit) => exact(unit.pulse(power)),
            Self::SwitchedBanks(unit) => exact(unit.pulse(power)),
            Self::Table(table) => {
                let reading = table.at(power);
                let pulse = table::pulse_of_pair(reading.row.t05, reading.row.t01);
                let (from, to) = pulse.interval_of_ninety();
                PulseAt {
                    pulse,
                    durations: Durations { t05: reading.row.t05, t01: reading.row.t01, t90: to - from },
                    outside_table: reading.outside,
                    estimated: reading.row.estimated,
                    misfit: table::is_misfit(reading.row.t05, reading.row.t01),
                }
            }
        }
    }
}
