//! A shot as it is written down: the open file format, with the unit in every name.
//!
//! Everything here is plain data that may be wrong. [`crate::plan::Plan`] is the same shot, checked. Numbers of camera
//! settings are labels where they are labels (`5.6`, `"1/250"`, `640`) and literal values otherwise.

use crate::daylight::Sky;
use crate::gear::{CameraBody, Filter, FlashUnit, Lens, Modifier, Trigger};
use crate::ghost::Visibility;
use crate::hold::Held;
use crate::motion::Usage;
use crate::pulse::School;
use crate::shutter::SyncMode;
use crate::wire::{wire, word};
use serde::{Deserialize, Serialize};

/// Name of the format in the file's `format` field.
pub const FORMAT: &str = "dash-pebble/shot";
/// Version this program writes.
pub const VERSION: u32 = 1;

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
        /// Where and when under the open sky, for a forecast of its light.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub sky: Option<Sky>,
        /// What stays while something else is turned.
        #[serde(default, skip_serializing_if = "Vec::is_empty")]
        pub hold: Vec<Held>,
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
        /// The same read under another sky, kept for when it changes.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub other: Option<Readings>,
    }
}

wire! {
    /// Steady light on both places.
    pub struct Readings {
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
        /// Colour in front of it.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub gel: Option<Filter>,
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
