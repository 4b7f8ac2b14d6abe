//! The numbers of a forecast as they are written, each with its unit in its name.

use super::ladder::Ladder;
use crate::answers::findings::PartState;
use crate::file::gear::Origin;
use crate::file::shot::{Intent, Lead, Reads, Role};
use crate::outlook::DrawnBy;
use crate::physics::ghost::Visibility;
use crate::physics::motion::Sharpness;
use crate::physics::pulse::School;
use crate::physics::shutter::SyncMode;
use crate::physics::shutter::rows::Edge;
use crate::wire::report;

report! {
    /// Everything computed for one shot.
    pub struct Forecast {
        /// The working exposure.
        pub exposure: Exposure,
        /// Steady light on the subject.
        pub ambient_subject: PlacedLight,
        /// Steady light on the background.
        pub ambient_background: PlacedLight,
        /// The flashes, in the order of the shot.
        pub lights: Vec<LightForecast>,
        /// Which of them is the key.
        pub key: usize,
        /// What all lights make of the subject.
        pub subject: SubjectForecast,
        /// Flash on the subject's lit side, in the frame.
        pub flash: PlacedLight,
        /// Lamps that burn, modelling lamps among them.
        pub lamps: Vec<LampForecast>,
        /// The colours against the white balance.
        pub colour: Colours,
        /// Flash on the background.
        pub spill: PlacedLight,
        /// How the background reads.
        pub background: ToneForecast,
        /// Flash minus steady light on the subject.
        pub flash_over_ambient_stops: Option<f64>,
        /// The shutter in time.
        pub moment: Moment,
        /// What the camera's own movement draws.
        pub camera: CameraForecast,
        /// Lens and sensor.
        pub optics: Optics,
        /// Depth of field.
        pub depth: Depth,
        /// The parts.
        pub parts: Vec<PartForecast>,
        /// Everything on one scale of stops.
        pub ladder: Ladder,
    }
}

report! {
    /// What all lights make of the subject, in the frame; `null` is no light.
    pub struct SubjectForecast {
        /// Which light leads.
        pub lead: Lead,
        /// How it is read.
        pub reads: Reads,
        /// On the surface that keys and fills light most.
        pub lit_side_stops: Option<f64>,
        /// With the dome turned to the camera, rims and lights in the set among the rest.
        pub dome_stops: Option<f64>,
        /// The cheek on the camera's left.
        pub left_cheek_stops: Option<f64>,
        /// The cheek on the camera's right.
        pub right_cheek_stops: Option<f64>,
        /// The brighter cheek over the darker, as `2.8:1`; nothing where neither is lit.
        #[serde(skip_serializing_if = "Option::is_none")]
        pub lighting_ratio: Option<String>,
        /// Where it is read.
        pub read_stops: Option<f64>,
        /// Where it is wanted.
        pub wanted_stops: f64,
        /// The aperture at which it would be as wanted, as a meter says it.
        #[serde(skip_serializing_if = "Option::is_none")]
        pub working_aperture: Option<String>,
        /// As a flash meter at the subject says it of all lights together, its dome to the camera.
        #[serde(skip_serializing_if = "Option::is_none")]
        pub meter: Option<String>,
        /// Share of the steady light in it.
        pub steady_share: f64,
    }
}

report! {
    /// A tone in the frame.
    pub struct ToneForecast {
        /// Its level on the ladder, by its own reflectance; `null` is no light.
        pub level_stops: Option<f64>,
        /// In a word.
        pub word: String,
        /// How large a point of it is drawn, in thousandths of the frame's width.
        pub blur_per_mille: f64,
    }
}

report! {
    /// What a unit gives: at once, in a row, on a charge.
    pub struct SupplyForecast {
        /// Until the next whole flash, where known.
        #[serde(skip_serializing_if = "Option::is_none")]
        pub ready_s: Option<f64>,
        /// Whole flashes in a row at the rate of the burst, where known; `null` is no end.
        #[serde(skip_serializing_if = "Option::is_none")]
        pub whole_frames: Option<Option<u64>>,
        /// Loss of each frame of the burst; `null` is a frame without it.
        pub frames_stops: Vec<Option<f64>>,
        /// Flashes from cold until it is hot, where known; `null` is never.
        #[serde(skip_serializing_if = "Option::is_none")]
        pub until_hot: Option<Option<u64>>,
        /// Flashes on one charge at this power, where known; `null` is no end.
        #[serde(skip_serializing_if = "Option::is_none")]
        pub on_a_charge: Option<Option<u64>>,
        /// The same in a line.
        pub said: String,
    }
}

report! {
    /// One flash.
    pub struct LightForecast {
        /// Group and role: `B rim`.
        pub label: String,
        /// The same with the unit.
        pub spoken: String,
        /// What it is there for.
        pub role: Role,
        /// Whether it fires: it is on and listens to the trigger.
        pub fires: bool,
        /// Why it does not, in a word or two.
        #[serde(skip_serializing_if = "Option::is_none")]
        pub silent: Option<String>,
        /// What it puts where it stands.
        pub flash: FlashLight,
        /// Its share of all that it is read against, as `1:4` of the key; nothing for the key itself or without light.
        #[serde(skip_serializing_if = "Option::is_none")]
        pub ratio: Option<String>,
        /// How much brighter than metered its edge looks, of a rim.
        #[serde(skip_serializing_if = "Option::is_none")]
        pub grazing_stops: Option<f64>,
        /// The pulse.
        pub pulse: PulseForecast,
        /// When it fires.
        pub firing: Firing,
        /// What the rows get.
        pub rows: RowsForecast,
        /// What its unit gives.
        pub supply: SupplyForecast,
        /// Its colour through the gel, at this power.
        pub kelvin: f64,
        /// What its colour is called, where it has one.
        #[serde(skip_serializing_if = "Option::is_none")]
        pub hue: Option<&'static str>,
        /// Against the white balance; positive is warmer.
        pub mired: f64,
    }
}

report! {
    /// A lamp that burns while the shutter is open.
    pub struct LampForecast {
        /// Its place in the shot's list of lamps; nothing for a modelling lamp.
        #[serde(skip_serializing_if = "Option::is_none")]
        pub lamp: Option<usize>,
        /// What it is.
        pub name: String,
        /// Where it stands on the subject; `null` is no light.
        pub placement_stops: Option<f64>,
        /// Where it stands on the background.
        pub background_stops: Option<f64>,
        /// Illuminance on the subject.
        pub illuminance_lx: f64,
        /// Its colour.
        pub kelvin: f64,
        /// What its colour is called, where it has one.
        #[serde(skip_serializing_if = "Option::is_none")]
        pub hue: Option<&'static str>,
        /// Against the white balance; positive is warmer.
        pub mired: f64,
        /// Parts whose trail it draws, by name.
        pub draws_on: Vec<String>,
    }
}

report! {
    /// The colours against the white balance, in mired; positive is warmer.
    pub struct Colours {
        /// White balance.
        pub white_balance_k: f64,
        /// The steady light that was read.
        pub ambient_k: f64,
        /// The same against the white balance.
        pub ambient_mired: f64,
        /// Steady light against the key: how a trail is tinted beside what is frozen.
        pub trail_against_key_mired: f64,
        /// As said: `warmer`, `cooler`, `alike`, or the name of a colour.
        pub trail_word: String,
        /// The same in a few words: `120 mired warmer than the key`, `red beside a key in teal`.
        pub trail_said: String,
    }
}

report! {
    /// What the camera's own movement draws.
    pub struct CameraForecast {
        /// How far the background moves while a row is open, by panning and shake.
        pub background_travel_px: f64,
        /// The same as a share of the frame's width.
        pub background_share: f64,
        /// Blur of everything by shake while a row is open.
        pub shake_px: f64,
        /// How far the edge of the frame moves by zooming.
        pub zoom_px: f64,
        /// What an unsteady hand is taken to do until somebody knows better, in degrees a second.
        pub hand_held_deg_s: f64,
    }
}

report! {
    /// The working exposure.
    pub struct Exposure {
        /// Exact f-number.
        pub aperture_f: f64,
        /// Customary label.
        pub aperture_label: String,
        /// Exact time.
        pub shutter_s: f64,
        /// Customary label.
        pub shutter_label: String,
        /// Exact ISO.
        pub iso: f64,
        /// Customary label.
        pub iso_label: String,
        /// Loss in front of the sensor, all of it.
        pub filter_stops: f64,
        /// What is before the lens, by name.
        #[serde(skip_serializing_if = "Option::is_none")]
        pub before_lens: Option<String>,
        /// Exposure at the subject that gives the metered tone.
        pub reference_lxs: f64,
    }
}

report! {
    /// A light on a place.
    pub struct PlacedLight {
        /// Illuminance, for steady light.
        #[serde(skip_serializing_if = "Option::is_none")]
        pub illuminance_lx: Option<f64>,
        /// Exposure.
        pub exposure_lxs: f64,
        /// Against the metered tone.
        pub placement_stops: Option<f64>,
    }
}

report! {
    /// A flash where it is read: on the subject, or on the backdrop.
    pub struct FlashLight {
        /// `H1` at full power with the reference reflector.
        pub output_lxs_m2: f64,
        /// Whether the output is a guess.
        pub output_estimated: bool,
        /// How far it may be off when it comes from joules alone.
        #[serde(skip_serializing_if = "Option::is_none")]
        pub output_low_stops: Option<f64>,
        /// How far it may be off when it comes from joules alone.
        #[serde(skip_serializing_if = "Option::is_none")]
        pub output_high_stops: Option<f64>,
        /// Power fraction it fires with.
        pub power: f64,
        /// As written.
        pub power_label: String,
        /// Found by its automatic; how much it lacks, positive, or has too much.
        #[serde(skip_serializing_if = "Option::is_none")]
        pub automatic_short_stops: Option<f64>,
        /// Equal heads side by side.
        pub heads: u32,
        /// Distance.
        pub distance_m: f64,
        /// Change by the modifier.
        pub modifier_stops: f64,
        /// Loss of the gel, where there is one.
        #[serde(skip_serializing_if = "Option::is_none")]
        pub gel_stops: Option<f64>,
        /// Change by turning its axis away, where it is.
        #[serde(skip_serializing_if = "Option::is_none")]
        pub feathered_stops: Option<f64>,
        /// Change by way of a surface against straight light, where bounced.
        #[serde(skip_serializing_if = "Option::is_none")]
        pub bounce_stops: Option<f64>,
        /// Change by high-speed sync, where used.
        #[serde(skip_serializing_if = "Option::is_none")]
        pub high_speed_stops: Option<f64>,
        /// Exposure on the set, where it is read.
        pub exposure_lxs: f64,
        /// On the set, against the metered tone: what a meter reads, with no shutter in it.
        pub on_set_stops: Option<f64>,
        /// In the frame: what the sensor gets.
        pub in_frame_stops: Option<f64>,
        /// How much of it the sensor gets.
        pub share: f64,
        /// How far it was off when it was metered, where it was: it is in all figures.
        #[serde(skip_serializing_if = "Option::is_none")]
        pub metered_stops: Option<f64>,
        /// As a flash meter at the subject says it, turned to this light alone.
        #[serde(skip_serializing_if = "Option::is_none")]
        pub meter: Option<String>,
        /// Where it is wanted, in the frame.
        #[serde(skip_serializing_if = "Option::is_none")]
        pub wanted_stops: Option<f64>,
    }
}

report! {
    /// The pulse at this power.
    pub struct PulseForecast {
        /// 50 % duration.
        pub t05_s: f64,
        /// 10 % duration.
        pub t01_s: f64,
        /// Shortest time with 90 % of the light.
        pub t90_s: f64,
        /// As written.
        pub t05_label: String,
        /// As written.
        pub t01_label: String,
        /// As written.
        pub t90_label: String,
        /// Which of them is the freezing time.
        pub school: School,
        /// Freezing time of what it draws: as the rows see it, the shutter time in high-speed sync; `null` where no row does.
        pub freeze_s: Option<f64>,
        /// As written.
        pub freeze_label: String,
        /// Ignition to 99 % of the light.
        pub length_s: f64,
        /// Where the durations come from.
        pub origin: Origin,
        /// The power lies outside a table.
        pub outside_table: bool,
        /// A duration was fitted because the table does not give it.
        pub estimated: bool,
        /// The two durations of a table fit no pulse of the model.
        pub misfit: bool,
        /// The power lies beyond the recordings of this unit, which were carried on.
        pub beyond_recordings: bool,
        /// When the curve ends, since ignition.
        pub curve_end_s: f64,
        /// Intensity against the peak, at moments evenly apart from ignition to the end of the curve.
        pub curve_level: Vec<f64>,
        /// From first rise to last fall through 50 %, since ignition.
        pub t05_span_s: [f64; 2],
        /// From first rise to last fall through 10 %, since ignition.
        pub t01_span_s: [f64; 2],
    }
}

report! {
    /// The shutter in time, since the first row opened.
    pub struct Moment {
        /// First row to last.
        pub travel_s: f64,
        /// The travel was assumed from the sync speed.
        pub travel_assumed: bool,
        /// How long a row is open.
        pub shutter_s: f64,
        /// When the last row closes.
        pub end_s: f64,
    }
}

report! {
    /// When a flash fires.
    pub struct Firing {
        /// How it is tied to the shutter.
        pub sync: SyncMode,
        /// When it ignites, since the first row opened.
        pub ignition_s: f64,
        /// Delay of trigger and unit in it.
        pub lag_s: f64,
        /// Rear sync was asked for and acts as front.
        pub rear_acts_as_front: bool,
    }
}

report! {
    /// What the rows get of the flash.
    pub struct RowsForecast {
        /// Share of the first row.
        pub first_share: f64,
        /// Share of the middle row.
        pub middle_share: f64,
        /// Share of the last row.
        pub last_share: f64,
        /// Loss of the worst row; `null` when it gets nothing.
        pub worst_stops: Option<f64>,
        /// Where the worst row is.
        pub worst_edge: Edge,
        /// Share of the rows that lack a tenth of a stop or more.
        pub touched_share: f64,
        /// Share of the rows with no flash.
        pub black_share: f64,
        /// Shares from the first row to the last, evenly spaced.
        pub profile_share: Vec<f64>,
        /// Fastest time with no row touched; `null` for none.
        pub usable_sync_s: Option<f64>,
        /// As written.
        #[serde(skip_serializing_if = "Option::is_none")]
        pub usable_sync_label: Option<String>,
        /// The rating.
        pub rated_sync_s: f64,
    }
}

report! {
    /// Lens and sensor.
    pub struct Optics {
        /// Image size over object size.
        pub magnification: f64,
        /// Pixel to pixel.
        pub pitch_m: f64,
        /// Allowed blur.
        pub allowed_px: f64,
        /// Allowed blur on the sensor.
        pub allowed_m: f64,
        /// Width of what the frame covers at the subject.
        pub field_width_m: f64,
        /// Height of it.
        pub field_height_m: f64,
    }
}

report! {
    /// Depth of field.
    pub struct Depth {
        /// Nearest sharp.
        pub near_m: f64,
        /// Farthest sharp, `null` for infinity.
        pub far_m: Option<f64>,
        /// From the one to the other; `null` for no end.
        pub total_m: Option<f64>,
        /// Hyperfocal distance.
        pub hyperfocal_m: f64,
    }
}

report! {
    /// One part.
    pub struct PartForecast {
        /// Its name.
        pub name: String,
        /// What it shall look like.
        pub intent: Intent,
        /// Speed of its image on the sensor.
        pub image_speed_m_s: f64,
        /// The same in pixels.
        pub image_speed_px_s: f64,
        /// Blur in the picture: of the layer that makes it.
        pub blur_px: f64,
        /// Which layer that is.
        pub drawn_by: DrawnBy,
        /// Share of the steady light in its picture.
        pub steady_share: f64,
        /// How long it stays in focus while it comes nearer or goes; nothing where it does neither.
        #[serde(skip_serializing_if = "Option::is_none")]
        pub in_focus_s: Option<f64>,
        /// Blur of the flash layer; `null` where no flash draws it.
        pub flash_blur_px: Option<f64>,
        /// How far the part itself moves in that time.
        pub flash_travel_m: f64,
        /// Which light draws that blur, where any does.
        #[serde(skip_serializing_if = "Option::is_none")]
        pub slowest: Option<String>,
        /// How far apart the images of lights stand that do not fire together.
        pub apart_px: f64,
        /// How that looks.
        pub sharpness: Sharpness,
        /// How far its image moves while a row is open.
        pub ambient_travel_px: f64,
        /// How far the part itself moves in that time.
        pub ambient_travel_m: f64,
        /// Streak, a round path counted once.
        pub streak_px: f64,
        /// Streak as a share of the frame's width.
        pub streak_share: f64,
        /// Lean over the height of the frame, in high-speed sync and by the curtains.
        pub lean_px: f64,
        /// Growth while the shutter is open, as a share.
        pub growth: f64,
        /// Share of the exposure that a place on the path is covered by the part.
        pub dwell: f64,
        /// Part in steady light, had it stood still; 1 is mid-grey.
        pub ambient_level: f64,
        /// Part in flash.
        pub flash_level: f64,
        /// Its edge under the rims, as bright as it looks; `null` is no rim.
        pub edge_stops: Option<f64>,
        /// Background where the part never was.
        pub plain_level: f64,
        /// On the path beside the frozen part.
        pub beside_level: f64,
        /// On the frozen part itself.
        pub through_level: f64,
        /// The same on the ladder; `null` is black.
        pub beside_stops: Option<f64>,
        /// The level through the part, on the ladder; `null` is black.
        pub through_stops: Option<f64>,
        /// What is seen of the trail: L* of beside minus L* of plain, less for a path hardly longer than the allowed blur.
        pub delta_lightness: f64,
        /// In a word.
        pub visibility: Visibility,
        /// Whether the path is longer than the allowed blur, so that it counts as a trail.
        pub draws: bool,
        /// The intent is met: in a word for the chip.
        pub state: PartState,
        /// How long its streak shall be, as a share of the frame's width.
        #[serde(skip_serializing_if = "Option::is_none")]
        pub wanted_streak_share: Option<f64>,
        /// The same in the scene, along its way.
        #[serde(skip_serializing_if = "Option::is_none")]
        pub wanted_streak_m: Option<f64>,
        /// Blur in the picture at the slowest that its speed may be, where that is another.
        #[serde(skip_serializing_if = "Option::is_none")]
        pub blur_px_slowest: Option<f64>,
        /// Streak at the slowest, as a share of the frame's width.
        #[serde(skip_serializing_if = "Option::is_none")]
        pub streak_share_slowest: Option<f64>,
        /// What the camera draws of it on its own: by swing, zoom and an unsteady hand.
        #[serde(skip_serializing_if = "Option::is_none")]
        pub by_camera_px: Option<f64>,
        /// Of a movement in time: what it does while the shutter is open.
        #[serde(skip_serializing_if = "Option::is_none")]
        pub in_time: Option<PartInTime>,
    }

    /// A movement in time within the exposure. Ways count along the part's direction, from where its movement begins.
    pub struct PartInTime {
        /// How long the movement lasts.
        pub lasts_s: f64,
        /// When each phase begins, and when the last one ends.
        pub begins_s: Vec<f64>,
        /// Where it is when the shutter opens.
        pub from_m: f64,
        /// And when it closes.
        pub to_m: f64,
        /// What it covers in between, there and back counted twice.
        pub way_m: f64,
        /// Share of the exposure before anything moves: it starts as a ghost of so much.
        pub rest_at_start: f64,
        /// Share after everything has come to rest.
        pub rest_at_end: f64,
        /// Share of the longest pause in between.
        pub rest_between: f64,
        /// Where each flash finds it.
        pub flashes: Vec<FlashInTime>,
    }

    /// A part as a flash finds it.
    pub struct FlashInTime {
        /// Which.
        pub light: String,
        /// How long after opening.
        pub at_s: f64,
        /// Where the part is.
        pub place_m: f64,
        /// How fast it is there.
        pub speed_m_s: f64,
    }
}

impl Forecast {
    /// The key.
    pub fn key(&self) -> &LightForecast {
        &self.lights[self.key]
    }
}
