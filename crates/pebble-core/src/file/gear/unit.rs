//! Flash units as they are written down: what they put out, how they make less light, and their habits.

use super::front::Modifier;
use super::source::{Origin, Source};
use super::supply::Battery;
use crate::quantity::dial::DialStyle;
use crate::wire::{wire, word};
use serde::{Deserialize, Serialize};

word! {
    /// What kind of thing a unit is.
    #[derive(Default)]
    pub enum UnitKind {
        /// Sits on a camera; fed by small cells.
        CameraTop,
        /// A head with a battery of its own.
        #[default]
        BatteryHead,
        /// A head on the mains.
        MainsHead,
        /// A pack with heads on cables.
        Generator,
    }
}

wire! {
    /// A flash unit.
    pub struct FlashUnit {
        /// Identity in the kit.
        pub id: String,
        /// Maker and model.
        pub name: String,
        /// What kind of thing it is.
        #[serde(default)]
        pub kind: UnitKind,
        /// Output at full power, as it was entered.
        pub output: Output,
        /// Where that comes from.
        #[serde(default = "Source::published")]
        pub output_from: Source,
        /// What the leaflet claims, when `output` was measured.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub leaflet_output: Option<Output>,
        /// How it makes less light, and how long its pulse is.
        pub control: Control,
        /// Where the durations come from.
        #[serde(default = "Source::published")]
        pub durations_from: Source,
        /// Pulses recorded on this very unit. They are used in place of `control` where they reach.
        #[serde(default, skip_serializing_if = "Vec::is_empty")]
        pub recordings: Vec<Recording>,
        /// Set to go by `control` although there are recordings.
        #[serde(default, skip_serializing_if = "std::ops::Not::not")]
        pub ignore_recordings: bool,
        /// How its power dial is written; fractions when not said.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub dial: Option<DialStyle>,
        /// One step of its power dial, in stops; whole stops where it is not known.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub step_stops: Option<f64>,
        /// Lowest power, as stops below full; where it is not known, five, or as far as its durations are.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub lowest_stops: Option<f64>,
        /// Delay of its own; none where it is not known.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub lag_ms: Option<f64>,
        /// What makes all its pulses longer or shorter than its durations say.
        #[serde(default, skip_serializing_if = "Vec::is_empty")]
        pub corrections: Vec<Correction>,
        /// Whether it can glow for high-speed sync.
        #[serde(default)]
        pub high_speed_sync: bool,
        /// Efficiency of the glow, where measured.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub high_speed_efficiency: Option<f64>,
        /// Heads that share its energy equally, 1 or 2; one when not said. Output is that of one head with all of it.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub heads: Option<u32>,
        /// With two heads: what all pulse times are multiplied by, where measured.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub two_heads_time: Option<f64>,
        /// Energy stored at full power.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub energy_j: Option<f64>,
        /// Time to be ready again after a full flash.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub recycle_s: Option<f64>,
        /// Shortest time between two flashes, whatever the power.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub min_interval_ms: Option<f64>,
        /// What happens when it is fired before it is ready.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub when_early: Option<WhenEarly>,
        /// What it does about heat.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub heat: Option<Heat>,
        /// What it does on a low battery.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub low_battery: Option<LowBattery>,
        /// The battery that feeds it.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub battery: Option<Battery>,
        /// Colour temperature at full power.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub colour_k: Option<f64>,
        /// Shift of colour at its lowest power; positive is warmer.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub lowest_power_mired: Option<f64>,
        /// Weight with battery.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub mass_kg: Option<f64>,
        /// What meters have read of it, oldest first.
        #[serde(default, skip_serializing_if = "Vec::is_empty")]
        pub readings: Vec<UnitReading>,
        /// How many like this are owned; one when not said. In a shot that nobody's kit has seen it is not known.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub owned: Option<u32>,
    }
}

/// A unit's output at full power.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(tag = "as", rename_all = "snake_case", deny_unknown_fields)]
pub enum Output {
    /// Guide number in metres at ISO 100, reference reflector.
    GuideNumber {
        /// The number.
        metres: f64,
    },
    /// f-number read at a distance through a modifier.
    Reading {
        /// f-number read.
        aperture_f: f64,
        /// ISO of the meter.
        iso: f64,
        /// Power fraction it was fired at.
        power: f64,
        /// Distance of the meter.
        distance_m: f64,
        /// The modifier in place.
        modifier: Modifier,
    },
    /// Exposure at a distance, reference reflector.
    Exposure {
        /// lx·s.
        exposure_lxs: f64,
        /// Distance.
        distance_m: f64,
    },
    /// Stored energy only; an estimate.
    Energy {
        /// Joules.
        joules: f64,
        /// Half-power half-angle, where known.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        half_angle_deg: Option<f64>,
    },
}

/// How a unit makes less light.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(tag = "way", rename_all = "snake_case", deny_unknown_fields)]
pub enum Control {
    /// A switch cuts the discharge.
    Quenched {
        /// `τd`; this, t0.5 or t0.1 of the full flash.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        decay_ms: Option<f64>,
        /// t0.5 of the full flash, in place of its decay.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        t05_ms: Option<f64>,
        /// t0.1 of the full flash, in place of its decay.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        t01_ms: Option<f64>,
        /// `τr`, 0.03 when not known.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        rise_ms: Option<f64>,
        /// `τf`, 0.012 when not known.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        fall_ms: Option<f64>,
    },
    /// Less charge.
    ChargeVoltage {
        /// `τd` at full power; this, t0.5 or t0.1 of the full flash.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        decay_ms: Option<f64>,
        /// t0.5 of the full flash, in place of its decay.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        t05_ms: Option<f64>,
        /// t0.1 of the full flash, in place of its decay.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        t01_ms: Option<f64>,
        /// `τr` at full power, 0.03 when not known.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        rise_ms: Option<f64>,
        /// `γ`, 0 to 0.3.
        gamma: f64,
    },
    /// Fewer banks, then less charge.
    SwitchedBanks {
        /// `τd` with all banks; this, t0.5 or t0.1 of the full flash.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        decay_ms: Option<f64>,
        /// t0.5 of the full flash, in place of its decay.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        t05_ms: Option<f64>,
        /// t0.1 of the full flash, in place of its decay.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        t01_ms: Option<f64>,
        /// `τr`, 0.03 when not known.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        rise_ms: Option<f64>,
        /// `γ`, 0 to 0.3.
        gamma: f64,
        /// Number of banks.
        banks: u32,
    },
    /// Fewer pulses of a train of short ones.
    Train {
        /// `τd` of each pulse.
        decay_ms: f64,
        /// `τr` of each pulse, 0.03 when not known.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        rise_ms: Option<f64>,
        /// From the start of one to the start of the next.
        period_ms: f64,
        /// Pulses at full power.
        pulses: u32,
    },
    /// A table of durations.
    Table {
        /// Rows, powers rising or falling.
        rows: Vec<TableRow>,
        /// How the unit ends its pulse, to fit what a row does not give; cut when not said.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        discharge: Option<Discharge>,
    },
}

word! {
    /// How a pulse ends.
    pub enum Discharge {
        /// A switch cuts it.
        Cut,
        /// The store runs out.
        Whole,
    }
}

wire! {
    /// A row of a duration table; at least one of the two times.
    pub struct TableRow {
        /// Power fraction.
        pub power: f64,
        /// t0.5.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub t05_ms: Option<f64>,
        /// t0.1.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub t01_ms: Option<f64>,
    }
}

wire! {
    /// A pulse recorded on this very unit.
    pub struct Recording {
        /// Power fraction it was fired at.
        pub power: f64,
        /// t0.5.
        pub t05_ms: f64,
        /// t0.1.
        pub t01_ms: f64,
        /// Shortest time with 90 % of the light, where the record was long enough.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub t90_ms: Option<f64>,
        /// The day, `2026-11-25`.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub on: Option<String>,
        /// With what it was recorded.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub with: Option<String>,
        /// The recorded curve in short, to look at; a shot does not carry it.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub curve: Option<RecordedCurve>,
    }
}

wire! {
    /// A recorded pulse in a few points.
    pub struct RecordedCurve {
        /// Time from one point to the next; the first is the first rise through 10 % less one step.
        pub step_us: f64,
        /// Levels against the peak.
        pub level: Vec<f64>,
    }
}

wire! {
    /// What a meter has read of this very unit behind something: how far its figures were off.
    pub struct UnitReading {
        /// The day, `2026-11-25`.
        pub on: String,
        /// Identity of what was in front of it.
        pub modifier: String,
        /// What that was called.
        pub through: String,
        /// What was read and how: `f/6.3, 1/4 at 2 m, ISO 100`.
        pub read: String,
        /// Read against computed, in stops.
        pub stops: f64,
        /// Whether it counts wherever this unit stands behind this.
        #[serde(default)]
        pub counts: bool,
    }
}

word! {
    /// Why pulses are not as the leaflet says.
    pub enum Because {
        /// A long cable between pack and head.
        Cable,
        /// An old tube.
        Age,
        /// A second head on the pack.
        SecondHead,
        /// Anything else.
        Other,
    }
}

wire! {
    /// A change of all pulse times of a unit.
    pub struct Correction {
        /// Why.
        pub because: Because,
        /// Longer by so much of a hundred; negative is shorter.
        pub percent: f64,
        /// Where that comes from.
        pub from: Source,
    }
}

word! {
    /// What a unit does when it is fired before it is ready.
    pub enum WhenEarly {
        /// Fires with what there is.
        Dim,
        /// Does not fire.
        Missing,
    }
}

wire! {
    /// What a unit does about heat.
    pub struct Heat {
        /// Energy that can be fired from cold before it acts.
        pub capacity_j: f64,
        /// What it gives off.
        pub drain_w: f64,
        /// How it acts.
        pub then: WhenHot,
    }
}

word! {
    /// What a unit does when it is hot.
    pub enum WhenHot {
        /// Recycles slowly until it is cooler.
        Waits,
        /// Does not fire until it is cooler.
        Refuses,
    }
}

word! {
    /// What a unit does on a low battery.
    pub enum LowBattery {
        /// Takes longer to be ready.
        Slower,
        /// Fires dimmer, and says it is ready.
        Dim,
        /// Stops.
        Refuses,
    }
}

impl FlashUnit {
    /// How its power is written where it does not say itself: joules only where its energy is known.
    pub fn dial_or(&self, preferred: Option<DialStyle>) -> Option<DialStyle> {
        self.dial.or(preferred.filter(|dial| *dial != DialStyle::Joules || self.energy_j.is_some()))
    }

    /// A unit of which nothing is known but what it is called: what a reader of files fills in.
    pub fn unknown(id: &str) -> Self {
        Self {
            id: id.to_owned(),
            name: id.to_owned(),
            kind: UnitKind::default(),
            output: Output::GuideNumber { metres: 1.0 },
            output_from: Source::published(),
            leaflet_output: None,
            control: Control::Table { rows: Vec::new(), discharge: None },
            durations_from: Source::published(),
            recordings: Vec::new(),
            ignore_recordings: false,
            dial: None,
            step_stops: None,
            lowest_stops: None,
            lag_ms: None,
            corrections: Vec::new(),
            high_speed_sync: false,
            high_speed_efficiency: None,
            heads: None,
            two_heads_time: None,
            energy_j: None,
            recycle_s: None,
            min_interval_ms: None,
            when_early: None,
            heat: None,
            low_battery: None,
            battery: None,
            colour_k: None,
            lowest_power_mired: None,
            mass_kg: None,
            readings: Vec::new(),
            owned: None,
        }
    }

    /// The unit as a shot carries it: all that a forecast needs, without the pictures of its recordings and without how
    /// many there are of it.
    pub fn to_carry(&self) -> Self {
        let recordings = self.recordings.iter().map(|one| Recording { curve: None, ..one.clone() }).collect();
        let readings = self.readings.iter().filter(|one| one.counts).cloned().collect();
        Self { recordings, readings, owned: None, ..self.clone() }
    }

    /// Whether its output is known from joules alone or was entered as a guess.
    pub fn is_estimate(&self) -> bool {
        matches!(self.output, Output::Energy { .. }) || self.output_from.origin == Origin::Estimated
    }
}
