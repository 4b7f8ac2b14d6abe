//! The forecast written down: plain data with the unit in every name.
//!
//! `null` for a value in stops is no light at all; `null` for a far limit is infinity.

use crate::exposure::{black_placement, clip_placement};
use crate::gear::Origin;
use crate::ghost::Visibility;
use crate::motion::Sharpness;
use crate::outlook::{Burns, LightOutlook, Outlook, PartOutlook, Source, outlook};
use crate::output::{ESTIMATE_SPAN, colour};
use crate::plan::{Part, Plan};
use crate::pulse::{Basis, School};
use crate::quantity::scale::{duration_label, power_label};
use crate::quantity::{Metres, Seconds, Stops};
use crate::shot::{Intent, Role};
use crate::shutter::rows::{Edge, row_share};
use crate::shutter::{SyncMode, high_speed};
use crate::wire::report;
use serde::Serialize;

/// Points on the drawn pulse.
const CURVE_POINTS: usize = 48;
/// Rows in the profile of the frame.
const PROFILE_ROWS: usize = 17;
/// The ladder's ends, in stops.
const LADDER: (f64, f64) = (3.0, -9.0);

report! {
    /// Everything computed for one shot.
    pub struct Forecast {
        /// The working exposure.
        pub exposure: Exposure,
        /// Steady light on the subject.
        pub ambient_subject: Light,
        /// Steady light on the background.
        pub ambient_background: Light,
        /// The flashes, in the order of the shot.
        pub lights: Vec<LightForecast>,
        /// Which of them is the key.
        pub key: usize,
        /// All flashes that count where the subject is metered.
        pub flash: Light,
        /// Lamps that burn, modelling lamps among them.
        pub lamps: Vec<LampForecast>,
        /// The colours against the white balance.
        pub colour: Colours,
        /// Flash on the background.
        pub spill: Light,
        /// Steady light and flash together on the subject.
        pub total_stops: Option<f64>,
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
        pub pulse: Pulse,
        /// When it fires.
        pub firing: Firing,
        /// What the rows get.
        pub rows: Rows,
        /// Its colour through the gel, at this power.
        pub kelvin: f64,
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
        /// As said: `warmer`, `cooler`, `alike`.
        pub trail_word: String,
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
        /// Loss in front of the sensor.
        pub filter_stops: f64,
        /// Exposure at the subject that gives the metered tone.
        pub reference_lxs: f64,
    }
}

report! {
    /// A light on a place.
    pub struct Light {
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
        /// Exposure of a row that gets all of it.
        pub exposure_lxs: f64,
        /// Against the metered tone.
        pub placement_stops: Option<f64>,
    }
}

report! {
    /// The pulse at this power.
    pub struct Pulse {
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
        /// Freezing time of the flash layer; the shutter time in high-speed sync.
        pub freeze_s: f64,
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
        /// Times since ignition.
        pub curve_s: Vec<f64>,
        /// Intensity against the peak, at those times.
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
    pub struct Rows {
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
        /// Blur of the flash layer.
        pub flash_blur_px: f64,
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
        /// L* of beside minus L* of plain.
        pub delta_lightness: f64,
        /// In a word.
        pub visibility: Visibility,
        /// Whether the path is longer than the allowed blur, so that it counts as a trail.
        pub draws: bool,
        /// The intent is met: in a word for the chip.
        pub state: PartState,
    }
}

/// How a part fares against its intent.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum PartState {
    /// As intended.
    Met,
    /// Near.
    Near,
    /// Missed.
    Missed,
}

report! {
    /// Everything on one scale of stops.
    pub struct Ladder {
        /// Upper end.
        pub top_stops: f64,
        /// Lower end.
        pub bottom_stops: f64,
        /// Where white clips.
        pub clip_stops: f64,
        /// Where a tone reads as black.
        pub black_stops: f64,
        /// The rungs, brightest first.
        pub rungs: Vec<Rung>,
    }
}

/// What kind of light a rung stands for.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum RungKind {
    /// Flash on the subject.
    Flash,
    /// Steady light.
    Ambient,
    /// A trail.
    Movement,
}

report! {
    /// One rung of the ladder.
    pub struct Rung {
        /// Stable identity.
        pub id: String,
        /// What it is.
        pub label: String,
        /// Kind of light.
        pub kind: RungKind,
        /// Where it stands; `null` is no light.
        pub stops: Option<f64>,
        /// Where it is wanted, if a target is set.
        #[serde(skip_serializing_if = "Option::is_none")]
        pub target_stops: Option<f64>,
        /// JSON pointer into the shot of the target that dragging this rung sets.
        #[serde(skip_serializing_if = "Option::is_none")]
        pub target_pointer: Option<String>,
        /// For trails: difference of L* from the plain background.
        #[serde(skip_serializing_if = "Option::is_none")]
        pub delta_lightness: Option<f64>,
    }
}

impl Forecast {
    /// The key.
    pub fn key(&self) -> &LightForecast {
        &self.lights[self.key]
    }
}

/// Computes and writes down one shot.
pub fn forecast(plan: &Plan) -> Forecast {
    written(plan, &outlook(plan))
}

/// Writes an outlook down.
pub fn written(plan: &Plan, outlook: &Outlook) -> Forecast {
    let parts: Vec<PartForecast> =
        plan.parts.iter().zip(&outlook.parts).map(|(part, seen)| part_forecast(plan, outlook, part, seen)).collect();
    let (field_width, field_height) = outlook.field(plan);
    Forecast {
        exposure: exposure(plan, outlook),
        ambient_subject: steady(outlook.ambient, outlook.run.time),
        ambient_background: steady(outlook.background, outlook.run.time),
        lights: (0..outlook.lights.len()).map(|index| light(plan, outlook, index)).collect(),
        key: plan.key,
        flash: lit(outlook.flash),
        lamps: lamps(plan, outlook),
        colour: colours(plan, outlook),
        spill: lit(outlook.spill),
        total_stops: outlook.total.to_wire(),
        flash_over_ambient_stops: (outlook.flash.placement - outlook.ambient.placement).to_wire(),
        moment: Moment {
            travel_s: outlook.run.travel.as_secs(),
            travel_assumed: plan.body.travel_assumed,
            shutter_s: outlook.run.time.as_secs(),
            end_s: outlook.run.end().as_secs(),
        },
        camera: CameraForecast {
            background_travel_px: pixels(plan, outlook.camera.background_travel),
            background_share: outlook.camera.background_travel / plan.body.sensor.width,
            shake_px: pixels(plan, outlook.camera.shake * outlook.run.time),
            zoom_px: pixels(plan, outlook.camera.zoom_travel),
        },
        optics: Optics {
            magnification: outlook.magnification,
            pitch_m: plan.body.sensor.pitch().as_metres(),
            allowed_px: pixels(plan, outlook.allowed),
            allowed_m: outlook.allowed.as_metres(),
            field_width_m: field_width.as_metres(),
            field_height_m: field_height.as_metres(),
        },
        depth: Depth {
            near_m: outlook.depth.near.as_metres(),
            far_m: outlook.depth.far.map(Metres::as_metres),
            hyperfocal_m: outlook.depth.hyperfocal.as_metres(),
        },
        ladder: ladder(plan, outlook),
        parts,
    }
}

/// A length on the sensor in pixels.
pub fn pixels(plan: &Plan, on_sensor: Metres) -> f64 {
    on_sensor / plan.body.sensor.pitch()
}

fn exposure(plan: &Plan, outlook: &Outlook) -> Exposure {
    let set = &plan.settings;
    let grid = plan.body.grid;
    Exposure {
        aperture_f: set.aperture.number(),
        aperture_label: set.aperture.label(grid),
        shutter_s: set.shutter.time().as_secs(),
        shutter_label: set.shutter.label(grid),
        iso: set.iso.number(),
        iso_label: set.iso.label(grid),
        filter_stops: set.filter.as_stops(),
        reference_lxs: outlook.reference.as_lux_seconds(),
    }
}

fn lit(source: Source) -> Light {
    Light {
        illuminance_lx: None,
        exposure_lxs: source.exposure.as_lux_seconds(),
        placement_stops: source.placement.to_wire(),
    }
}

fn steady(source: Source, time: Seconds) -> Light {
    Light { illuminance_lx: Some((source.exposure / time).as_lux()), ..lit(source) }
}

fn light(plan: &Plan, outlook: &Outlook, index: usize) -> LightForecast {
    let (of, dial, seen) = (&plan.lights[index], &plan.settings.lights[index], &outlook.lights[index]);
    let kelvin = of.kelvin(seen.power);
    LightForecast {
        label: of.label.clone(),
        spoken: of.spoken.clone(),
        role: of.role,
        fires: seen.fires,
        silent: if !of.on {
            Some("off".to_owned())
        } else if seen.fires {
            None
        } else {
            Some(match of.channels {
                Some(channels) if dial.channel > channels => {
                    format!("set to channel {}, and its trigger has {channels}", dial.channel)
                }
                _ => format!("listens on channel {}, the trigger sends on {}", dial.channel, plan.channel),
            })
        },
        flash: flash(plan, index, seen),
        ratio: (index != plan.key).then(|| ratio(seen.lit.placement - outlook.key().lit.placement)).flatten(),
        grazing_stops: (of.role == Role::Rim).then(|| seen.grazing.as_stops()),
        pulse: pulse(plan, index, seen),
        firing: Firing {
            sync: dial.sync,
            ignition_s: seen.ignition.at.as_secs(),
            lag_s: of.lag.as_secs(),
            rear_acts_as_front: seen.ignition.rear_acts_as_front,
        },
        rows: rows(plan, outlook, seen),
        kelvin,
        mired: colour::shift_between(plan.white_balance, kelvin),
    }
}

/// As said on a set: the weaker of the two is one.
fn ratio(stops: Stops) -> Option<String> {
    let stops = stops.to_wire()?;
    let times = stops.abs().exp2();
    let written = if times < 9.95 { format!("{:.1}", times) } else { format!("{times:.0}") };
    let written = written.strip_suffix(".0").unwrap_or(&written);
    Some(if stops > 0.0 { format!("{written}:1") } else { format!("1:{written}") })
}

fn lamps(plan: &Plan, outlook: &Outlook) -> Vec<LampForecast> {
    let lamp = |seen: &crate::outlook::SteadyOutlook| {
        let (name, reaches): (String, &dyn Fn(usize) -> bool) = match seen.of {
            Burns::Lamp(index) => (plan.lamps[index].name.clone(), &move |part| plan.lamps[index].reaches(part)),
            Burns::Modelling(index) => (format!("modelling lamp of {}", plan.lights[index].label), &move |part| {
                plan.lights[index].reaches(part)
            }),
        };
        let drawn = plan.parts.iter().zip(&outlook.parts).enumerate();
        LampForecast {
            lamp: match seen.of {
                Burns::Lamp(index) => Some(plan.lamps[index].place),
                Burns::Modelling(_) => None,
            },
            name,
            placement_stops: seen.on_subject.placement.to_wire(),
            background_stops: seen.on_background.placement.to_wire(),
            illuminance_lx: (seen.on_subject.exposure / outlook.run.time).as_lux(),
            kelvin: seen.kelvin,
            mired: colour::shift_between(plan.white_balance, seen.kelvin),
            draws_on: drawn
                .filter(|(index, (_, of_part))| reaches(*index) && of_part.draws)
                .map(|(_, (part, _))| part.name.clone())
                .collect(),
        }
    };
    outlook.steady.iter().map(lamp).collect()
}

/// Colours this close are not told apart in a picture, in mired.
const ALIKE: f64 = 12.0;

fn colours(plan: &Plan, outlook: &Outlook) -> Colours {
    let key = plan.key_light().kelvin(outlook.key().power);
    // All steady light on the subject, each by its share; in mired colours mix nearly evenly.
    let burning = outlook.steady.iter().map(|lamp| (lamp.kelvin, lamp.on_subject.exposure.as_lux_seconds()));
    let steady = burning.chain([(plan.ambient_kelvin, outlook.room.exposure.as_lux_seconds())]);
    let (sum, total) =
        steady.fold((0.0, 0.0), |(sum, total), (kelvin, light)| (sum + light * 1e6 / kelvin, total + light));
    let trail = if total > 0.0 { 1e6 * total / sum } else { plan.ambient_kelvin };
    let against = colour::shift_between(key, trail);
    let word = match against {
        a if a.abs() < ALIKE => "alike",
        a if a > 0.0 => "warmer",
        _ => "cooler",
    };
    Colours {
        white_balance_k: plan.white_balance,
        ambient_k: plan.ambient_kelvin,
        ambient_mired: colour::shift_between(plan.white_balance, plan.ambient_kelvin),
        trail_against_key_mired: against,
        trail_word: word.to_owned(),
    }
}

fn flash(plan: &Plan, index: usize, seen: &LightOutlook) -> FlashLight {
    let (of, dial) = (&plan.lights[index], &plan.settings.lights[index]);
    let by_joules = of.unit.entry.is_estimate();
    FlashLight {
        output_lxs_m2: of.throw.output.as_lux_seconds_square_metres(),
        output_estimated: of.unit.output_estimated,
        output_low_stops: by_joules.then_some(ESTIMATE_SPAN.0),
        output_high_stops: by_joules.then_some(ESTIMATE_SPAN.1),
        power: seen.power,
        power_label: power_label(-Stops::from_ratio(seen.power)),
        automatic_short_stops: dial.bias.and(seen.automatic_short.to_wire()),
        heads: dial.heads,
        distance_m: dial.distance.as_metres(),
        modifier_stops: (of.throw.modifier + of.gel - of.feathered).to_wire().unwrap_or(0.0),
        gel_stops: (of.gel > Stops::ZERO).then(|| of.gel.as_stops()),
        feathered_stops: (of.feathered != Stops::ZERO).then(|| of.feathered.to_wire()).flatten(),
        bounce_stops: of.bounce_loss(dial.distance).and_then(Stops::to_wire),
        high_speed_stops: seen.high_speed.map(Stops::as_stops),
        exposure_lxs: seen.lit.exposure.as_lux_seconds(),
        placement_stops: seen.lit.placement.to_wire(),
    }
}

fn pulse(plan: &Plan, index: usize, seen: &LightOutlook) -> Pulse {
    let at = &seen.pulse;
    let span = |(from, to): (Seconds, Seconds)| [from.as_secs(), to.as_secs()];
    let (t05, t01, t90) = (at.durations.t05, at.durations.t01, at.durations.t90);
    // A little past the last fall through 10 %, so that the curve is seen to end.
    let end = at.pulse.interval_above(0.02).1.as_secs();
    let curve_s: Vec<f64> = (0..CURVE_POINTS).map(|k| end * k as f64 / (CURVE_POINTS - 1) as f64).collect();
    let peak = at.pulse.intensity(at.pulse.peak());
    Pulse {
        t05_s: t05.as_secs(),
        t01_s: t01.as_secs(),
        t90_s: t90.as_secs(),
        t05_label: duration_label(t05),
        t01_label: duration_label(t01),
        t90_label: duration_label(t90),
        school: plan.school,
        freeze_s: seen.freeze.as_secs(),
        freeze_label: duration_label(seen.freeze),
        length_s: seen.length.as_secs(),
        origin: plan.lights[index].unit.origin_of(at),
        beyond_recordings: at.basis == Basis::Beyond,
        outside_table: at.outside_table,
        estimated: at.estimated,
        misfit: at.misfit,
        curve_level: curve_s.iter().map(|t| at.pulse.intensity(Seconds::from_secs(*t)) / peak).collect(),
        curve_s,
        t05_span_s: span(at.pulse.interval_above(0.5)),
        t01_span_s: span(at.pulse.interval_above(0.1)),
    }
}

fn rows(plan: &Plan, outlook: &Outlook, seen: &LightOutlook) -> Rows {
    let report = &seen.rows;
    let share = |k: usize| match seen.high_speed {
        Some(_) => 1.0,
        None => {
            let y = k as f64 / (PROFILE_ROWS - 1) as f64;
            row_share(outlook.run, &seen.pulse.pulse, seen.ignition.at, y)
        }
    };
    Rows {
        first_share: report.first,
        middle_share: report.middle,
        last_share: report.last,
        worst_stops: report.worst.to_wire(),
        worst_edge: report.edge,
        touched_share: report.touched,
        black_share: report.black,
        profile_share: (0..PROFILE_ROWS).map(share).collect(),
        usable_sync_s: seen.usable_sync.map(|time| time.time().as_secs()),
        usable_sync_label: seen.usable_sync.map(|time| time.label(plan.body.grid)),
        rated_sync_s: plan.body.rated_sync.time().as_secs(),
    }
}

fn part_forecast(plan: &Plan, outlook: &Outlook, part: &Part, seen: &PartOutlook) -> PartForecast {
    let px = |length| pixels(plan, length);
    let ghost = &seen.ghost;
    let slowest = seen.slowest.map_or(outlook.key(), |light| &outlook.lights[light]);
    PartForecast {
        name: part.name.clone(),
        intent: part.intent,
        image_speed_m_s: seen.image_speed.as_metres_per_second(),
        image_speed_px_s: px(seen.image_speed * Seconds::from_secs(1.0)),
        flash_blur_px: px(seen.flash_blur),
        flash_travel_m: (part.speed * slowest.freeze).as_metres(),
        slowest: seen.slowest.map(|light| plan.lights[light].label.clone()),
        apart_px: px(seen.apart),
        sharpness: seen.sharpness,
        ambient_travel_px: px(seen.travel),
        ambient_travel_m: (part.speed * outlook.run.time).as_metres(),
        streak_px: px(seen.streak),
        streak_share: seen.streak_share,
        lean_px: px(high_speed::lean(outlook.run, seen.image_speed)),
        growth: seen.growth,
        dwell: ghost.dwell,
        ambient_level: seen.tones.part_ambient.value(),
        flash_level: seen.tones.part_flash.value(),
        edge_stops: seen.edge.placement().to_wire(),
        plain_level: ghost.plain.value(),
        beside_level: ghost.beside.value(),
        through_level: ghost.through.value(),
        beside_stops: ghost.beside.placement().to_wire(),
        through_stops: ghost.through.placement().to_wire(),
        delta_lightness: ghost.delta_lightness,
        visibility: ghost.visibility(),
        draws: seen.draws,
        state: crate::findings::parts::state(part, seen),
    }
}

fn ladder(plan: &Plan, outlook: &Outlook) -> Ladder {
    let rung = |id: &str, label: &str, kind, stops: Stops| Rung {
        id: id.to_owned(),
        label: label.to_owned(),
        kind,
        stops: stops.to_wire(),
        target_stops: None,
        target_pointer: None,
        delta_lightness: None,
    };
    let mut rungs = vec![
        Rung {
            target_stops: Some(plan.key_target.as_stops()),
            target_pointer: Some("/targets/key_stops".to_owned()),
            ..rung("key", "Key flash", RungKind::Flash, outlook.key().lit.placement)
        },
        Rung {
            target_stops: plan.ambient_target.map(Stops::as_stops),
            target_pointer: Some("/targets/ambient_stops".to_owned()),
            ..rung("ambient", "Ambient, subject", RungKind::Ambient, outlook.ambient.placement)
        },
        rung("background", "Ambient, back", RungKind::Ambient, outlook.background.placement),
        rung("spill", "Flash on back", RungKind::Flash, outlook.spill.placement),
    ];
    for (index, (light, seen)) in plan.lights.iter().zip(&outlook.lights).enumerate() {
        // What is off is not looked for on the ladder; the key's place is, and the spill counts a backdrop's light.
        if index != plan.key && seen.fires && light.role != Role::Backdrop {
            let label =
                if seen.grazing > Stops::ZERO { format!("{}, as seen", light.label) } else { light.label.clone() };
            rungs.push(rung(&format!("light-{index}"), &label, RungKind::Flash, seen.seen()));
        }
    }
    for (index, lamp) in outlook.steady.iter().enumerate().filter(|(_, lamp)| lamp.on_subject.placement > Stops::DARK) {
        let name = match lamp.of {
            Burns::Lamp(index) => plan.lamps[index].name.clone(),
            Burns::Modelling(light) => format!("{} modelling", plan.lights[light].label),
        };
        rungs.push(rung(&format!("lamp-{index}"), &name, RungKind::Ambient, lamp.on_subject.placement));
    }
    for (part, seen) in plan.parts.iter().zip(&outlook.parts).filter(|(_, seen)| seen.draws) {
        rungs.push(Rung {
            delta_lightness: Some(seen.ghost.delta_lightness),
            ..rung(
                &format!("trail-{}", part.name),
                &format!("{} trail", part.name),
                RungKind::Movement,
                seen.ghost.beside.placement(),
            )
        });
    }
    let height = |rung: &Rung| rung.stops.unwrap_or(f64::NEG_INFINITY);
    rungs.sort_by(|a, b| height(b).total_cmp(&height(a)));
    Ladder {
        top_stops: LADDER.0,
        bottom_stops: LADDER.1,
        clip_stops: clip_placement().as_stops(),
        black_stops: black_placement().as_stops(),
        rungs,
    }
}
