//! The forecast written down: plain data with the unit in every name.
//!
//! `null` for a value in stops is no light at all; `null` for a far limit is infinity.

use crate::exposure::{black_placement, clip_placement};
use crate::gear::Origin;
use crate::ghost::Visibility;
use crate::motion::Sharpness;
use crate::outlook::{Outlook, PartOutlook, Source, outlook};
use crate::output::ESTIMATE_SPAN;
use crate::plan::{Part, Plan};
use crate::pulse::{Basis, School};
use crate::quantity::scale::{duration_label, power_label};
use crate::quantity::{Metres, Seconds, Stops};
use crate::shot::Intent;
use crate::shutter::rows::{Edge, row_share};
use crate::shutter::{SyncMode, high_speed};
use crate::wire::report;
use serde::Serialize;

/// Points on the drawn pulse.
const CURVE_POINTS: usize = 48;
/// Rows in the profile of the frame.
const PROFILE_ROWS: usize = 33;
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
        /// Flash on the subject.
        pub flash: FlashLight,
        /// Flash on the background.
        pub spill: Light,
        /// Steady light and flash together on the subject.
        pub total_stops: Option<f64>,
        /// Flash minus steady light on the subject.
        pub flash_over_ambient_stops: Option<f64>,
        /// The pulse.
        pub pulse: Pulse,
        /// Shutter and flash in time.
        pub moment: Moment,
        /// What the rows get.
        pub rows: Rows,
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
    /// The flash on the subject.
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
        /// Power fraction.
        pub power: f64,
        /// As written.
        pub power_label: String,
        /// Distance.
        pub distance_m: f64,
        /// Change by the modifier.
        pub modifier_stops: f64,
        /// Loss of the gel, where there is one.
        #[serde(skip_serializing_if = "Option::is_none")]
        pub gel_stops: Option<f64>,
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
    /// Shutter and flash in time, since the first row opened.
    pub struct Moment {
        /// First row to last.
        pub travel_s: f64,
        /// The travel was assumed from the sync speed.
        pub travel_assumed: bool,
        /// How long a row is open.
        pub shutter_s: f64,
        /// When the last row closes.
        pub end_s: f64,
        /// How the flash is tied to the shutter.
        pub sync: SyncMode,
        /// When the flash ignites.
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
        ambient_subject: steady(outlook.ambient, plan.subject_light.as_lux()),
        ambient_background: steady(outlook.background, plan.background_light.as_lux()),
        flash: flash(plan, outlook),
        spill: Light {
            illuminance_lx: None,
            exposure_lxs: outlook.spill.exposure.as_lux_seconds(),
            placement_stops: outlook.spill.placement.to_wire(),
        },
        total_stops: outlook.total.to_wire(),
        flash_over_ambient_stops: (outlook.flash.placement - outlook.ambient.placement).to_wire(),
        pulse: pulse(plan, outlook),
        moment: moment(plan, outlook),
        rows: rows(plan, outlook),
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

fn steady(source: Source, illuminance_lx: f64) -> Light {
    Light {
        illuminance_lx: Some(illuminance_lx),
        exposure_lxs: source.exposure.as_lux_seconds(),
        placement_stops: source.placement.to_wire(),
    }
}

fn flash(plan: &Plan, outlook: &Outlook) -> FlashLight {
    let by_joules = plan.light.unit.entry.is_estimate();
    FlashLight {
        output_lxs_m2: plan.light.throw.output.as_lux_seconds_square_metres(),
        output_estimated: plan.light.unit.output_estimated,
        output_low_stops: by_joules.then_some(ESTIMATE_SPAN.0),
        output_high_stops: by_joules.then_some(ESTIMATE_SPAN.1),
        power: plan.settings.power,
        power_label: power_label(-Stops::from_ratio(plan.settings.power)),
        distance_m: plan.settings.flash_distance.as_metres(),
        modifier_stops: (plan.light.throw.modifier + plan.light.gel).as_stops(),
        gel_stops: (plan.light.gel > Stops::ZERO).then(|| plan.light.gel.as_stops()),
        high_speed_stops: outlook.high_speed.map(Stops::as_stops),
        exposure_lxs: outlook.flash.exposure.as_lux_seconds(),
        placement_stops: outlook.flash.placement.to_wire(),
    }
}

fn pulse(plan: &Plan, outlook: &Outlook) -> Pulse {
    let at = &outlook.pulse;
    let span = |(from, to): (Seconds, Seconds)| [from.as_secs(), to.as_secs()];
    let (t05, t01, t90) = (at.durations.t05, at.durations.t01, at.durations.t90);
    // A little past the last fall through 10 %, so that the curve is seen to end.
    let end = at.pulse.interval_above(0.02).1.as_secs();
    let curve_s: Vec<f64> = (0..CURVE_POINTS).map(|k| end * k as f64 / (CURVE_POINTS - 1) as f64).collect();
    Pulse {
        t05_s: t05.as_secs(),
        t01_s: t01.as_secs(),
        t90_s: t90.as_secs(),
        t05_label: duration_label(t05),
        t01_label: duration_label(t01),
        t90_label: duration_label(t90),
        school: plan.school,
        freeze_s: outlook.freeze.as_secs(),
        freeze_label: duration_label(outlook.freeze),
        length_s: outlook.length.as_secs(),
        origin: plan.light.unit.origin_of(at),
        beyond_recordings: at.basis == Basis::Beyond,
        outside_table: at.outside_table,
        estimated: at.estimated,
        misfit: at.misfit,
        curve_level: curve_s.iter().map(|t| at.pulse.relative_intensity(Seconds::from_secs(*t))).collect(),
        curve_s,
        t05_span_s: span(at.pulse.interval_above(0.5)),
        t01_span_s: span(at.pulse.interval_above(0.1)),
    }
}

fn moment(plan: &Plan, outlook: &Outlook) -> Moment {
    Moment {
        travel_s: outlook.run.travel.as_secs(),
        travel_assumed: plan.body.travel_assumed,
        shutter_s: outlook.run.time.as_secs(),
        end_s: outlook.run.end().as_secs(),
        sync: plan.settings.sync,
        ignition_s: outlook.ignition.at.as_secs(),
        lag_s: plan.light.lag.as_secs(),
        rear_acts_as_front: outlook.ignition.rear_acts_as_front,
    }
}

fn rows(plan: &Plan, outlook: &Outlook) -> Rows {
    let report = &outlook.rows;
    let share = |k: usize| match outlook.high_speed {
        Some(_) => 1.0,
        None => {
            let y = k as f64 / (PROFILE_ROWS - 1) as f64;
            row_share(outlook.run, &outlook.pulse.pulse, outlook.ignition.at, y)
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
        usable_sync_s: outlook.usable_sync.map(|time| time.time().as_secs()),
        usable_sync_label: outlook.usable_sync.map(|time| time.label(plan.body.grid)),
        rated_sync_s: plan.body.rated_sync.time().as_secs(),
    }
}

fn part_forecast(plan: &Plan, outlook: &Outlook, part: &Part, seen: &PartOutlook) -> PartForecast {
    let px = |length| pixels(plan, length);
    let ghost = &seen.ghost;
    PartForecast {
        name: part.name.clone(),
        intent: part.intent,
        image_speed_m_s: seen.image_speed.as_metres_per_second(),
        image_speed_px_s: px(seen.image_speed * Seconds::from_secs(1.0)),
        flash_blur_px: px(seen.flash_blur),
        flash_travel_m: (part.speed * outlook.freeze).as_metres(),
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
            ..rung("key", "Key flash", RungKind::Flash, outlook.flash.placement)
        },
        Rung {
            target_stops: plan.ambient_target.map(Stops::as_stops),
            target_pointer: Some("/targets/ambient_stops".to_owned()),
            ..rung("ambient", "Ambient, subject", RungKind::Ambient, outlook.ambient.placement)
        },
        rung("background", "Ambient, back", RungKind::Ambient, outlook.background.placement),
        rung("spill", "Flash on back", RungKind::Flash, outlook.spill.placement),
    ];
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
