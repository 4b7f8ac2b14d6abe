//! The recordings that ship as files: good ones in three ways of writing, and two that must not be believed.

use crate::recorder::{Dialect, Recorder};
use pebble_core::pulse::{ChargeVoltage, Control, Pulse, Quenched};
use pebble_core::quantity::Seconds;

/// A recording that ships.
#[derive(Clone, Debug)]
pub struct Sample {
    /// Name of its file, without folder.
    pub file: &'static str,
    /// What was before the recorder.
    pub pulse: Pulse,
    /// The recorder.
    pub recorder: Recorder,
}

const SAMPLES: usize = 4000;

/// All of them.
pub fn samples() -> Vec<Sample> {
    // What its leaflet does not say: this unit goes by charge voltage.
    let dunlin = Control::ChargeVoltage(ChargeVoltage {
        rise: Seconds::from_millis(0.045),
        decay: Seconds::from_millis(0.98),
        gamma: 0.16,
    });
    let brix = Control::Quenched(Quenched {
        rise: Seconds::from_millis(0.04),
        decay: Seconds::from_millis(1.4),
        fall: Seconds::from_millis(0.02),
    });
    let sample = |file, control: &Control, power: f64, change: fn(Recorder) -> Recorder| {
        let pulse = control.at(power).pulse;
        let seed = (power * 1000.0) as u64;
        Sample { file, pulse, recorder: change(Recorder { seed, ..Recorder::set_for(&pulse, SAMPLES) }) }
    };
    vec![
        sample("dunlin-500-full.csv", &dunlin, 1.0, |recorder| recorder),
        sample("dunlin-500-quarter.csv", &dunlin, 0.25, |recorder| Recorder {
            dialect: Dialect::DecimalComma,
            bits: 10,
            ..recorder
        }),
        sample("dunlin-500-sixteenth.csv", &dunlin, 0.0625, |recorder| Recorder {
            dialect: Dialect::Tabbed,
            peak_v: -0.4,
            ..recorder
        }),
        sample("brix-400-eighth.csv", &brix, 0.125, |recorder| recorder),
        sample("brix-400-clipped.csv", &brix, 0.5, |recorder| Recorder { saturates_at: Some(0.7), ..recorder }),
        sample("brix-400-far-away.csv", &brix, 0.25, |recorder| Recorder { noise_share: 0.08, ..recorder }),
    ]
}
