//! A shot as it is written down: the open file format, with the unit in every name.
//!
//! Everything here is plain data that may be wrong. [`crate::plan::Plan`] is the same shot, checked. Numbers of camera
//! settings are labels where they are labels (`5.6`, `"1/250"`, `640`) and literal values otherwise.

use crate::file::around::Around;
use crate::file::floor::{Area, BackSheet, Flag, Room, WayAlong};
use crate::file::gear::{CameraBody, Filter, FlashUnit, Lamp, Lens, Modifier, Trigger};
use crate::file::group::GroupShape;
use crate::file::look::Held;
use crate::file::movement::{Phase, TypicalLight, WhenTaken};
use crate::file::preferences::Lengths;
use crate::file::sky::Sky;
use crate::file::stage::Composition;
use crate::file::wish::Wish;
use crate::physics::motion::Usage;
use crate::physics::pulse::School;
use crate::physics::shutter::SyncMode;
use crate::wire::{wire, word};
use serde::{Deserialize, Serialize};

mod earlier;

/// Name of the format in the file's `format` field.
pub const FORMAT: &str = "dash-pebble/shot";
/// Version this program writes. It reads 1 as well, which knew a single flash, and 2, whose target stood on the key alone.
pub const VERSION: u32 = 3;
/// Channel of radios that nobody has set.
const FIRST_CHANNEL: u32 = 1;

wire! {
    /// One planned picture.
    pub struct Shot {
        /// Always `dash-pebble/shot`.
        pub format: String,
        /// Version of the format, 3.
        #[serde(deserialize_with = "earlier::version")]
        pub version: u32,
        /// What the photographer calls it.
        pub title: String,
        /// Where.
        pub place: String,
        /// The drawn scene that stands in for the real one, where no stage is said.
        pub scene: Scene,
        /// What stands in the frame; the scene's own composition where none is said.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub stage: Option<Composition>,
        /// What the picture is for.
        pub usage: Usage,
        /// Which duration counts as freezing time.
        pub school: School,
        /// Constant of the meter that lux and lux-seconds are counted by; 340 where none is said.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub meter_c: Option<f64>,
        /// How lengths are written.
        #[serde(default, skip_serializing_if = "is_metric")]
        pub lengths: Lengths,
        /// Where things shall fall.
        #[serde(deserialize_with = "earlier::targets")]
        pub targets: Targets,
        /// Camera, lens and their settings.
        pub camera: Camera,
        /// The subject as a whole.
        pub subject: Subject,
        /// The steady light, read on the subject and on the background.
        pub ambient: Ambient,
        /// What is behind the subject.
        pub background: Background,
        /// Channel of the trigger on the camera.
        #[serde(default = "first_channel")]
        pub channel: u32,
        /// The flashes, each with its settings. The first one in the role of the key leads.
        #[serde(alias = "flash", deserialize_with = "earlier::lights")]
        pub lights: Vec<Flash>,
        /// Tones in the frame, as automatic flash will meter them.
        #[serde(default, skip_serializing_if = "Vec::is_empty")]
        pub tones: Vec<Tone>,
        /// Lamps that were set up, beyond the light that was read.
        #[serde(default, skip_serializing_if = "Vec::is_empty")]
        pub lamps: Vec<SetLamp>,
        /// The parts that move, or must not.
        pub parts: Vec<Part>,
        /// Where and when under the open sky, for a forecast of its light.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub sky: Option<Sky>,
        /// Groups of people that will stand there, each with its own settings to be found.
        #[serde(default, skip_serializing_if = "Vec::is_empty")]
        pub groups: Vec<GroupShape>,
        /// What is around that calls for care.
        #[serde(default, skip_serializing_if = "Vec::is_empty")]
        pub around: Vec<Around>,
        /// Cautions that were seen and acknowledged, by their identity.
        #[serde(default, skip_serializing_if = "Vec::is_empty")]
        pub acknowledged: Vec<String>,
        /// Frames in a row that are meant.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub burst: Option<ShotBurst>,
        /// What stays while something else is turned.
        #[serde(default, skip_serializing_if = "Vec::is_empty")]
        pub hold: Vec<Held>,
        /// Where the subject may be.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub area: Option<Area>,
        /// The sheet behind it, where there is one and not a whole wall.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub sheet: Option<BackSheet>,
        /// The way that somebody comes along.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub way: Option<WayAlong>,
        /// The room that all of it stands in.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub room: Option<Room>,
        /// Whether new shots are begun from it.
        #[serde(default, skip_serializing_if = "std::ops::Not::not")]
        pub template: bool,
        /// What happens, by its name among the activities.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub activity: Option<String>,
        /// When the frame is taken, against what happens.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub moment: Option<WhenTaken>,
        /// What units and settings are looked for under, where it is not what the shot itself says.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub wish: Option<Wish>,
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
        /// A fencer's lunge in a dark hall.
        SabreReach,
        /// An aerialist in two silks, in a black box.
        Silks,
        /// Finishers with their medals before a printed wall.
        FinishersWall,
        /// A roller skater's turn in a hall whose lamps are kept.
        RollerHall,
        /// An even wall and one flat card, for measuring.
        PlainStage,
    }
}

word! {
    /// Which light makes the picture.
    #[derive(Default)]
    pub enum Lead {
        /// Flash: the exposure stands on flash and steady light together.
        #[default]
        Flash,
        /// Daylight, or whatever burns: the exposure stands on it, and flash fills at a ratio to it.
        Daylight,
    }
}

word! {
    /// How the subject is read, and so what the exposure stands on.
    #[derive(Default)]
    pub enum Reads {
        /// On the surface that keys and fills light most, with the meter turned to it.
        #[default]
        LitSide,
        /// With the dome turned to the camera.
        Dome,
    }
}

wire! {
    /// Where things shall fall, in stops against the metered tone.
    pub struct Targets {
        /// Which light leads.
        #[serde(default, skip_serializing_if = "is_usual")]
        pub lead: Lead,
        /// How the subject is read.
        #[serde(default, skip_serializing_if = "is_usual")]
        pub reads: Reads,
        /// Exposure of the subject: of all light together where flash leads, of the steady light where daylight does.
        pub subject_stops: f64,
        /// Steady light on the subject, where it matters.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub ambient_stops: Option<f64>,
        /// Steady light on the background, where it matters.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub background_stops: Option<f64>,
    }
}

fn is_usual<T: Default + PartialEq>(value: &T) -> bool {
    *value == T::default()
}

wire! {
    /// Frames in a row.
    pub struct ShotBurst {
        /// How many.
        pub frames: u32,
        /// Frames a second.
        pub per_second: f64,
        /// How long the action lasts that they shall cover.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub action_s: Option<f64>,
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
        /// Grey before the lens, in stops, positive.
        pub filter_stops: f64,
        /// Grey filters at hand, as the kit has them; any grey where none is named.
        #[serde(default, skip_serializing_if = "Vec::is_empty")]
        pub greys: Vec<Filter>,
        /// What else is before the lens: polariser, colour, bellows. What it takes comes on top.
        #[serde(default, skip_serializing_if = "Vec::is_empty")]
        pub filters: Vec<Filter>,
        /// White balance, in kelvin.
        #[serde(default = "daylight_balance")]
        pub white_balance_k: f64,
        /// How the camera itself moves while the shutter is open.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub movement: Option<Movement>,
    }
}

fn daylight_balance() -> f64 {
    5500.0
}

wire! {
    /// How the camera moves while the shutter is open. Speeds of parts count against its aim.
    #[derive(Default)]
    pub struct Movement {
        /// Speed of the aim at the subject's distance: panning.
        pub pan_m_s: f64,
        /// Direction of it in the frame: 0 to the right, 90 up.
        pub direction_deg: f64,
        /// Unsteadiness of the hand, in degrees a second.
        pub shake_deg_s: f64,
        /// Growth of the picture while the shutter is open, as a share: zooming in.
        pub zoom_share: f64,
        /// Turning of the camera on purpose, in degrees a second, in the same direction: everything streaks against it.
        #[serde(default)]
        pub swing_deg_s: f64,
        /// The part that it follows, by its name: that part rests in the frame, and the world and all other parts move
        /// against it, whose speeds are then those on the set. Without, speeds are against the aim.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub follows: Option<String>,
        /// Whether the streak of everything that stands is wanted; nothing is said of it where nobody says.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub wanted: Option<bool>,
    }
}

wire! {
    /// The subject as a whole.
    pub struct Subject {
        /// Camera to subject.
        pub distance_m: f64,
        /// How deep the group or the movement is, centred on that distance.
        pub depth_m: f64,
        /// The most that shall be sharp, from the nearest to the farthest.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub depth_at_most_m: Option<f64>,
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
    /// As black: a frame without flash at these settings showed nothing. The light is at most so much.
    Black {
        /// f-number.
        aperture_f: f64,
        /// Time.
        shutter: String,
        /// ISO.
        iso: f64,
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
        /// Its colour, in kelvin.
        #[serde(default = "daylight_balance")]
        pub kelvin: f64,
        /// Where nobody has read it: what is typical for the place.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub typical: Option<TypicalLight>,
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

word! {
    /// What a flash is there for.
    #[derive(Default)]
    pub enum Role {
        /// Lights the subject and sets the exposure.
        #[default]
        Key,
        /// Lightens the shadows of the key.
        Fill,
        /// Comes from behind and draws the edge.
        Rim,
        /// Lights what is behind the subject and nothing else.
        Backdrop,
        /// Stands in the picture and lights what is around it.
        InSet,
    }
}

impl Role {
    /// As said.
    pub const fn word(self) -> &'static str {
        match self {
            Self::Key => "key",
            Self::Fill => "fill",
            Self::Rim => "rim",
            Self::Backdrop => "backdrop",
            Self::InSet => "in the set",
        }
    }
}

word! {
    /// What the modelling lamp of a flash does while the picture is taken.
    pub enum ModellingMode {
        /// Burns fully.
        Full,
        /// Follows the power of the flash.
        Proportional,
    }
}

wire! {
    /// A modelling lamp that burns.
    pub struct Modelling {
        /// The lamp.
        pub lamp: Lamp,
        /// How bright.
        pub mode: ModellingMode,
    }
}

wire! {
    /// Power left to the automatic of camera and unit, which aims at a middle grey.
    pub struct Automatic {
        /// What is dialled in against it, in stops.
        pub bias_stops: f64,
    }
}

wire! {
    /// A tone of the scene.
    pub struct Tone {
        /// What it is: clothes, backdrop, floor.
        pub name: String,
        /// Share of the frame.
        pub share: f64,
        /// Reflectance, 0 to 1.
        pub reflectance: f64,
        /// Distance from the flash, against the subject's.
        pub relative_distance: f64,
    }
}

wire! {
    /// A surface that a flash is bounced off.
    pub struct BouncedOff {
        /// From the flash straight up to a ceiling, or straight to a wall.
        pub surface_m: f64,
        /// How far the head is turned towards it: 90 is straight at it, less comes to the subject's side.
        pub tilt_deg: f64,
        /// Its reflectance, 0 to 1.
        pub reflectance: f64,
        /// Whether it has a colour, which the light would take on.
        #[serde(default, skip_serializing_if = "std::ops::Not::not")]
        pub coloured: bool,
    }
}

wire! {
    /// A lamp that burns while the picture is taken.
    pub struct SetLamp {
        /// Whether it burns.
        pub on: bool,
        /// The lamp.
        pub lamp: Lamp,
        /// Colour in front of it.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub gel: Option<Filter>,
        /// How far it is turned up, as a share of full.
        pub level_share: f64,
        /// Distance to the subject.
        pub distance_m: f64,
        /// From where it shines, where somebody said so; somewhere in front of the subject without.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub stands: Option<LampStands>,
        /// Whether it reaches what is behind the subject too.
        pub lights_background: bool,
        /// Parts of the subject that it does not reach.
        #[serde(default, skip_serializing_if = "Vec::is_empty")]
        pub misses: Vec<String>,
    }
}

wire! {
    /// Where a lamp stands, seen from the subject, as a flash has it.
    #[derive(Copy)]
    pub struct LampStands {
        /// Around the subject: 0 is the camera's side, positive to its right.
        pub bearing_deg: f64,
        /// Above the horizon.
        pub height_deg: f64,
        /// Whether it belongs to the picture, and may be seen in it.
        #[serde(default, skip_serializing_if = "std::ops::Not::not")]
        pub in_set: bool,
    }
}

wire! {
    /// A flash and its settings.
    pub struct Flash {
        /// Whether it fires; off is muted.
        pub on: bool,
        /// What it is there for.
        #[serde(default)]
        pub role: Role,
        /// Letter of its group.
        #[serde(default = "first_group")]
        pub group: String,
        /// Channel its receiver is set to.
        #[serde(default = "first_channel")]
        pub channel: u32,
        /// Equal heads side by side, set alike.
        #[serde(default = "one_head")]
        pub heads: u32,
        /// The unit.
        pub unit: FlashUnit,
        /// What is in front of it.
        pub modifier: Modifier,
        /// Colour in front of it.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub gel: Option<Filter>,
        /// What a meter has read of it against what is computed. It counts while the same unit stands behind the same thing.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub metered: Option<Metered>,
        /// The trigger.
        pub trigger: Trigger,
        /// Power fraction, 1 is full.
        pub power: f64,
        /// Distance to the subject, from the lit face; of a backdrop's light, to the backdrop.
        pub distance_m: f64,
        /// Front, rear or high-speed sync.
        pub sync: SyncMode,
        /// Where it stands around the subject: 0 at the camera, 90 to its right, ±180 behind.
        #[serde(default = "key_bearing")]
        pub bearing_deg: f64,
        /// How high it stands, as an angle at the subject.
        #[serde(default = "key_height")]
        pub height_deg: f64,
        /// How far its axis is turned away from the subject.
        #[serde(default, skip_serializing_if = "is_zero")]
        pub off_axis_deg: f64,
        /// To which side, as whoever stands behind it sees it: 0 to the right, 90 up. Nobody knows while it is not there.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub off_axis_towards_deg: Option<f64>,
        /// By way of a surface.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub bounce: Option<BouncedOff>,
        /// For a rim: how much brighter its edge looks than it was metered, where that was seen.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub grazing_stops: Option<f64>,
        /// Where it shall fall by itself, in the frame.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub target_stops: Option<f64>,
        /// Where it shall fall against the light that leads: the key, or daylight.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub ratio_stops: Option<f64>,
        /// Power left to the automatic; `power` then waits.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub automatic: Option<Automatic>,
        /// Its modelling lamp, when it burns.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub modelling: Option<Modelling>,
        /// Parts of the subject that it does not reach.
        #[serde(default, skip_serializing_if = "Vec::is_empty")]
        pub misses: Vec<String>,
        /// It sits on the camera: it stands where that stands and goes where that goes, whatever distance, bearing and height
        /// say.
        #[serde(default, skip_serializing_if = "std::ops::Not::not")]
        pub on_camera: bool,
        /// On a boom: how far back from its head its stand is.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub boom_m: Option<f64>,
        /// What its stand weighs with all that is on it.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub stand_kg: Option<f64>,
        /// How far its feet stand from the column, on the floor.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub feet_m: Option<f64>,
        /// What keeps it out of the lens.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub flag: Option<Flag>,
    }
}

wire! {
    /// How far a light was off when it was metered.
    pub struct Metered {
        /// Read against computed, in stops.
        pub stops: f64,
        /// Identity of the unit.
        pub unit: String,
        /// Identity of what was in front of it.
        pub modifier: String,
        /// What was read and how.
        pub read: String,
        /// The day, `2026-11-25`, where it is known.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub on: Option<String>,
        /// Why it was so far off, where it was.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub because: Option<String>,
    }
}

fn first_channel() -> u32 {
    FIRST_CHANNEL
}

fn first_group() -> String {
    "A".to_owned()
}

fn one_head() -> u32 {
    1
}

#[allow(clippy::trivially_copy_pass_by_ref, reason = "serde hands over references")]
fn is_metric(lengths: &Lengths) -> bool {
    *lengths == Lengths::Metric
}

fn is_zero(value: &f64) -> bool {
    *value == 0.0
}

/// To the left of the camera, a little above the eyes.
fn key_bearing() -> f64 {
    -32.0
}

fn key_height() -> f64 {
    30.0
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

impl Intent {
    /// As said.
    pub const fn word(self) -> &'static str {
        match self {
            Self::Pebble => "pebble",
            Self::Skim => "skim",
            Self::Dash => "dash",
        }
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
        /// The blade.
        Blade,
        /// The hanging cloth.
        Silks,
        /// The medals.
        Medal,
        /// The scarf that flies behind.
        Scarf,
        /// A hand and its arm.
        Hand,
        /// A flat card of the part's own size.
        Card,
        /// Hair.
        Hair,
        /// Cloth that hangs or flies.
        Cloth,
        /// A ball.
        Ball,
        /// What is held: a racket, a bat, a bar.
        Held,
        /// Wheels, a board, skates.
        Wheels,
        /// Water, drops, powder.
        Spray,
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
        /// Speed against the aim of the camera: the fastest that it may be, which is judged by.
        pub speed_m_s: f64,
        /// The slowest that it may be, where that is another.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub slowest_m_s: Option<f64>,
        /// Where its speed is known from.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub speed_from: Option<String>,
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
        /// How far it stands from the middle of the frame, as a share of its width: zooming draws it as far as this grows.
        /// Without, it stands in the middle, and its own half grows.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub from_middle_share: Option<f64>,
        /// For a dash: wanted length as a share of the frame's width.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub streak_share: Option<f64>,
        /// For a dash: wanted length in metres of the scene.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub streak_m: Option<f64>,
        /// For a dash: as long as its whole movement.
        #[serde(default, skip_serializing_if = "std::ops::Not::not")]
        pub streak_whole: bool,
        /// Its movement in time, one phase after the other; without, one line at its speed that never ends.
        #[serde(default, skip_serializing_if = "Vec::is_empty")]
        pub phases: Vec<Phase>,
    }
}
