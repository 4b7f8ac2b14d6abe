//! A shot as it is written down: the open file format, with the unit in every name.
//!
//! Everything here is plain data that may be wrong. [`crate::plan::Plan`] is the same shot, checked. Numbers of camera
//! settings are labels where they are labels (`5.6`, `"1/250"`, `640`) and literal values otherwise.

use crate::ghost::Visibility;
use crate::motion::Usage;
use crate::pulse::School;
use crate::quantity::scale::Grid;
use crate::shutter::SyncMode;
use serde::{Deserialize, Serialize};

/// Name of the format in the file's `format` field.
pub const FORMAT: &str = "dash-pebble/shot";
/// Version this program writes.
pub const VERSION: u32 = 1;

macro_rules! wire {
    ($(#[$meta:meta])* pub struct $name:ident { $($body:tt)* }) => {
        $(#[$meta])*
        #[derive(Clone, Debug, PartialEq, Serialize, Deserialize)]
        #[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
        #[serde(deny_unknown_fields)]
        pub struct $name { $($body)* }
    };
}

macro_rules! word {
    ($(#[$meta:meta])* pub enum $name:ident { $($(#[$vmeta:meta])* $variant:ident),* $(,)? }) => {
        $(#[$meta])*
        #[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize)]
        #[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
        #[serde(rename_all = "snake_case")]
        pub enum $name { $($(#[$vmeta])* $variant),* }
    };
}

wire! {
    /// One planned picture.
    pub struct Shot {
        /// Always `dash-pebble/shot`.
        pub format: String,
        /// Version of the format, 1.
        pub version: u32,
        /// What the photographer calls it.
        pub title: String,
        /// Where.
        pub place: String,
        /// The drawn scene that stands in for the real one.
        pub scene: Scene,
        /// What the picture is for.
        pub usage: Usage,
        /// Which duration counts as freezing time.
        pub school: School,
        /// Where things shall fall.
        pub targets: Targets,
        /// Camera, lens and their settings.
        pub camera: Camera,
        /// The subject as a whole.
        pub subject: Subject,
        /// The steady light, read on the subject and on the background.
        pub ambient: Ambient,
        /// What is behind the subject.
        pub background: Background,
        /// The flash and its settings.
        pub flash: Flash,
        /// The parts that move, or must not.
        pub parts: Vec<Part>,
    }
}

word! {
    /// Drawn scenes.
    pub enum Scene {
        /// A skipper in two turning ropes, in a sports hall.
        DoubleRopes,
        /// An inline skater with a hand lantern at dusk.
        LanternSlalom,
        /// A flatland bicycle rider on a slipway in the sun.
        SlipwaySpin,
        /// An even wall and one flat card, for measuring.
        PlainStage,
    }
}

wire! {
    /// Where things shall fall, in stops against the metered tone.
    pub struct Targets {
        /// Flash on the subject.
        pub key_stops: f64,
        /// Steady light on the subject, where it matters.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub ambient_stops: Option<f64>,
    }
}

wire! {
    /// Camera, lens and settings.
    pub struct Camera {
        /// The body.
        pub body: CameraBody,
        /// The lens.
        pub lens: Lens,
        /// Focal length in mm.
        pub focal_mm: f64,
        /// f-number.
        pub aperture_f: f64,
        /// Shutter time, `"1/250"` or `"2"`.
        pub shutter: String,
        /// ISO.
        pub iso: f64,
        /// All loss in front of the sensor, in stops, positive.
        pub filter_stops: f64,
    }
}

word! {
    /// How a shutter exposes its rows.
    pub enum ShutterKind {
        /// Two curtains pass.
        FocalPlane,
        /// Blades in the lens, all rows at once.
        Leaf,
        /// All rows at once, electronically.
        Global,
        /// Row after row, electronically.
        Rolling,
    }
}

word! {
    /// The edge of a landscape picture where the first row is.
    pub enum FirstRow {
        /// Uncovered from the bottom edge of the picture upwards, as most curtains do.
        Bottom,
        /// From the top edge downwards.
        Top,
    }
}

wire! {
    /// A camera body.
    pub struct CameraBody {
        /// Identity in the kit.
        pub id: String,
        /// Maker and model.
        pub name: String,
        /// Kind of shutter.
        pub shutter_kind: ShutterKind,
        /// Rated sync speed, `"1/250"`.
        pub sync: String,
        /// Curtain travel or readout, where known.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub travel_ms: Option<f64>,
        /// What it leaves before the second curtain in rear sync, where measured.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub guard_ms: Option<f64>,
        /// Whether it can tell a flash to glow.
        pub high_speed_sync: bool,
        /// Where the first row is.
        pub first_row: FirstRow,
        /// Fastest time.
        pub fastest: String,
        /// Slowest time.
        pub slowest: String,
        /// Lowest ISO.
        pub iso_min: f64,
        /// Highest ISO.
        pub iso_max: f64,
        /// How its dials are cut.
        pub grid: Grid,
        /// Sensor width.
        pub sensor_width_mm: f64,
        /// Sensor height.
        pub sensor_height_mm: f64,
        /// Pixels along the width.
        pub pixels_wide: u32,
    }
}

wire! {
    /// A lens.
    pub struct Lens {
        /// Identity in the kit.
        pub id: String,
        /// Maker and model.
        pub name: String,
        /// Shortest focal length.
        pub focal_min_mm: f64,
        /// Longest focal length.
        pub focal_max_mm: f64,
        /// Widest aperture.
        pub widest_f: f64,
        /// Smallest aperture.
        pub narrowest_f: f64,
    }
}

wire! {
    /// The subject as a whole.
    pub struct Subject {
        /// Camera to subject.
        pub distance_m: f64,
        /// How deep the group or the movement is, centred on that distance.
        pub depth_m: f64,
    }
}

/// A reading of steady light.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(tag = "as", rename_all = "snake_case", deny_unknown_fields)]
pub enum Reading {
    /// As f-number, time and ISO on an incident meter.
    Exposure {
        /// f-number.
        aperture_f: f64,
        /// Time.
        shutter: String,
        /// ISO.
        iso: f64,
    },
    /// As exposure value at ISO 100.
    Ev100 {
        /// The value.
        ev: f64,
    },
    /// As illuminance.
    Lux {
        /// The value.
        lux: f64,
    },
}

wire! {
    /// The steady light.
    pub struct Ambient {
        /// On the subject.
        pub subject: Reading,
        /// On the background.
        pub background: Reading,
    }
}

wire! {
    /// What is behind the subject.
    pub struct Background {
        /// Its reflectance, 0 to 1.
        pub reflectance: f64,
        /// Distance behind the subject.
        pub behind_m: f64,
        /// What flags, grids and angle take off the flash that reaches it; negative is less.
        pub spill_stops: f64,
    }
}

wire! {
    /// The flash and its settings.
    pub struct Flash {
        /// Whether it fires.
        pub on: bool,
        /// The unit.
        pub unit: FlashUnit,
        /// What is in front of it.
        pub modifier: Modifier,
        /// The trigger.
        pub trigger: Trigger,
        /// Power fraction, 1 is full.
        pub power: f64,
        /// Distance to the subject, from the lit face.
        pub distance_m: f64,
        /// Front, rear or high-speed sync.
        pub sync: SyncMode,
    }
}

wire! {
    /// A flash unit.
    pub struct FlashUnit {
        /// Identity in the kit.
        pub id: String,
        /// Maker and model.
        pub name: String,
        /// Output at full power, as it was entered.
        pub output: Output,
        /// How it makes less light, and how long its pulse is.
        pub control: Control,
        /// One step of its power dial, in stops.
        pub step_stops: f64,
        /// Lowest power, as stops below full.
        pub lowest_stops: f64,
        /// Delay of its own.
        pub lag_ms: f64,
        /// Whether it can glow for high-speed sync.
        pub high_speed_sync: bool,
        /// Efficiency of the glow, where measured.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub high_speed_efficiency: Option<f64>,
        /// Where the durations come from.
        pub durations_from: Origin,
    }
}

word! {
    /// Where a figure comes from.
    pub enum Origin {
        /// The maker's leaflet.
        Published,
        /// A guess from a model.
        Estimated,
        /// Measured on this very unit.
        Measured,
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
        /// `τd`.
        decay_ms: f64,
        /// `τr`, 0.03 when not known.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        rise_ms: Option<f64>,
        /// `τf`, 0.012 when not known.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        fall_ms: Option<f64>,
    },
    /// Less charge.
    ChargeVoltage {
        /// `τd` at full power.
        decay_ms: f64,
        /// `τr` at full power, 0.03 when not known.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        rise_ms: Option<f64>,
        /// `γ`, 0 to 0.3.
        gamma: f64,
    },
    /// Fewer banks, then less charge.
    SwitchedBanks {
        /// `τd` with all banks.
        decay_ms: f64,
        /// `τr`, 0.03 when not known.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        rise_ms: Option<f64>,
        /// `γ`, 0 to 0.3.
        gamma: f64,
        /// Number of banks.
        banks: u32,
    },
    /// A table of durations.
    Table {
        /// Rows, any order.
        rows: Vec<TableRow>,
    },
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
    /// What is in front of the flash.
    pub struct Modifier {
        /// Identity in the kit.
        pub id: String,
        /// What it is.
        pub name: String,
        /// Its change of light on axis; a loss is negative.
        pub stops: f64,
        /// Radius of the lit face.
        pub face_radius_m: f64,
        /// How far behind the face the light seems to come from.
        pub source_offset_m: f64,
    }
}

wire! {
    /// The trigger.
    pub struct Trigger {
        /// Identity in the kit.
        pub id: String,
        /// What it is.
        pub name: String,
        /// Its delay.
        pub lag_ms: f64,
    }
}

word! {
    /// What a part shall look like.
    pub enum Intent {
        /// Held still.
        Pebble,
        /// A touch of softness.
        Skim,
        /// A streak.
        Dash,
    }
}

word! {
    /// The body of the scene that a part is drawn as.
    pub enum DrawnAs {
        /// Head and face.
        Face,
        /// Trunk and arms.
        Body,
        /// Legs and feet.
        Feet,
        /// The turning ropes.
        Ropes,
        /// The lantern in the hand.
        Lantern,
        /// Wheels and frame of the bicycle.
        Bicycle,
        /// A flat card of the part's own size.
        Card,
    }
}

wire! {
    /// A part of the subject, named by the photographer.
    pub struct Part {
        /// Its name.
        pub name: String,
        /// What it shall look like.
        pub intent: Intent,
        /// What stands for it in the frame.
        pub drawn_as: DrawnAs,
        /// Speed against the aim of the camera.
        pub speed_m_s: f64,
        /// Direction in the frame: 0 to the right, 90 up.
        pub direction_deg: f64,
        /// Angle of the movement out of the picture plane; positive comes nearer.
        pub out_of_plane_deg: f64,
        /// Size along the movement.
        pub size_m: f64,
        /// Length of the path when it goes round or to and fro.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub path_m: Option<f64>,
        /// Reflectance, 0 to 1.
        pub reflectance: f64,
        /// Luminance of its own, for lamps in the picture.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub luminance_cd_m2: Option<f64>,
        /// Flash on it against flash on the subject.
        pub flash_offset_stops: f64,
        /// Steady light on it against the reading on the subject.
        pub ambient_offset_stops: f64,
        /// For a dash: wanted length as a share of the frame's width.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub streak_share: Option<f64>,
    }
}

/// Trails of a still part are a flaw from here on.
pub(crate) const GHOST_LIMIT: Visibility = Visibility::Faint;
