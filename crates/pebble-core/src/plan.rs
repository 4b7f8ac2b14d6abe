//! A shot, checked: every number has a unit and a range, every contradiction is refused.

use crate::exposure::{illuminance_of_ev100, illuminance_of_reading};
use crate::motion::{Sensor, Usage};
use crate::output::{Entry, Face, Throw};
use crate::pulse::table::{Row, fit_other};
use crate::pulse::{self, DurationTable, Durations, School};
use crate::quantity::bounds::{self, Invalid, Limits};
use crate::quantity::scale::{Aperture, Grid, Iso, ShutterTime};
use crate::quantity::{
    Angle, FlashOutput, Joules, Luminance, Lux, LuxSeconds, Metres, MetresPerSecond, Seconds, Stops,
};
use crate::shot::{self, Intent, Reading, Shot, ShutterKind};
use crate::shutter::{SyncMode, high_speed, sync};

/// Where curtain travel is not known it is taken to be the rated sync time less this.
const UNKNOWN_TRAVEL_MARGIN: Seconds = Seconds::from_millis(0.5);
/// More parts than a subject has.
const MAX_PARTS: usize = 24;
/// Longest name or note, in characters.
const MAX_TEXT: usize = 200;
/// Rows of a duration table.
const MAX_TABLE_ROWS: usize = 200;
/// A setting may lie this much outside the camera's own range and still be its end, for labels are roundings.
const END_TOLERANCE: f64 = 1.005;

/// What a user turns: everything that a remedy may change.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Settings {
    /// f-number.
    pub aperture: Aperture,
    /// Exposure time.
    pub shutter: ShutterTime,
    /// Sensitivity.
    pub iso: Iso,
    /// Loss in front of the sensor, positive.
    pub filter: Stops,
    /// Power fraction.
    pub power: f64,
    /// Flash to subject.
    pub flash_distance: Metres,
    /// How the flash is tied to the shutter.
    pub sync: SyncMode,
}

/// A camera as far as the forecast needs it.
#[derive(Clone, Debug, PartialEq)]
pub struct Body {
    /// Kind of shutter.
    pub kind: ShutterKind,
    /// `Tx`.
    pub travel: Seconds,
    /// Whether `Tx` was assumed from the sync speed.
    pub travel_assumed: bool,
    /// Rated sync time.
    pub rated_sync: ShutterTime,
    /// `guard`.
    pub guard: Seconds,
    /// Whether it can do high-speed sync.
    pub high_speed: bool,
    /// Where its first row is.
    pub first_row: shot::FirstRow,
    /// Slowest and fastest time.
    pub times: (ShutterTime, ShutterTime),
    /// Lowest and highest ISO.
    pub isos: (Iso, Iso),
    /// Dial cut.
    pub grid: Grid,
    /// Sensor.
    pub sensor: Sensor,
    /// Widest and narrowest aperture of the lens on it.
    pub apertures: (Aperture, Aperture),
    /// Shortest and longest focal length of the lens.
    pub focal_range: (Metres, Metres),
    /// Focal length set.
    pub focal: Metres,
}

/// A flash unit with its modifier and trigger.
#[derive(Clone, Debug, PartialEq)]
pub struct Light {
    /// Name of the unit, for sentences.
    pub name: String,
    /// Output as it was entered.
    pub entry: Entry,
    /// The way to the subject.
    pub throw: Throw,
    /// How it makes less light.
    pub control: pulse::Control,
    /// One step of the dial.
    pub step: Stops,
    /// Lowest power, as stops below full.
    pub lowest: Stops,
    /// Trigger and unit together.
    pub lag: Seconds,
    /// Whether it can glow.
    pub high_speed: bool,
    /// `η`.
    pub efficiency: f64,
    /// Where the durations come from.
    pub origin: shot::Origin,
    /// Whether it fires.
    pub on: bool,
}

/// A part of the subject.
#[derive(Clone, Debug, PartialEq)]
pub struct Part {
    /// Its name.
    pub name: String,
    /// What it shall look like.
    pub intent: Intent,
    /// What it is drawn as.
    pub drawn_as: shot::DrawnAs,
    /// `v`.
    pub speed: MetresPerSecond,
    /// Direction in the frame.
    pub direction: Angle,
    /// `ψ`.
    pub out_of_plane: Angle,
    /// Size along the movement.
    pub size: Metres,
    /// Round path.
    pub path: Option<Metres>,
    /// `ρ`.
    pub reflectance: f64,
    /// Own light.
    pub luminance: Option<Luminance>,
    /// Flash against the subject's.
    pub flash_offset: Stops,
    /// Steady light against the subject's.
    pub ambient_offset: Stops,
    /// Wanted streak.
    pub streak_share: Option<f64>,
}

/// A checked shot.
///
/// # Guarantees
/// All numbers finite and in range, the subject beyond the focal length, camera settings within the camera, power within
/// the unit, flash distance and face not all zero.
#[derive(Clone, Debug, PartialEq)]
pub struct Plan {
    /// The drawn scene.
    pub scene: shot::Scene,
    /// What the picture is for.
    pub usage: Usage,
    /// Freezing time by.
    pub school: School,
    /// Where the key shall fall.
    pub key_target: Stops,
    /// Where steady light shall fall.
    pub ambient_target: Option<Stops>,
    /// The camera.
    pub body: Body,
    /// What is set.
    pub settings: Settings,
    /// Camera to subject.
    pub subject_distance: Metres,
    /// Depth of subject.
    pub subject_depth: Metres,
    /// Steady light on the subject.
    pub subject_light: Lux,
    /// Steady light on the background.
    pub background_light: Lux,
    /// Reflectance of the background.
    pub background_reflectance: f64,
    /// Background behind the subject.
    pub background_behind: Metres,
    /// Change of spill.
    pub spill: Stops,
    /// The flash.
    pub light: Light,
    /// The parts.
    pub parts: Vec<Part>,
}

impl Plan {
    /// The same shot with other settings. They must come from the plan's own grid and ranges.
    pub fn with(&self, settings: Settings) -> Self {
        Self { settings, ..self.clone() }
    }
}

impl TryFrom<&Shot> for Plan {
    type Error = Invalid;

    fn try_from(shot: &Shot) -> Result<Self, Invalid> {
        if shot.format != shot::FORMAT {
            return Err(not_allowed("format", &shot.format, &format!("\"{}\"", shot::FORMAT)));
        }
        if shot.version != shot::VERSION {
            let known = format!("a version this program knows ({})", shot::VERSION);
            return Err(not_allowed("version", &shot.version.to_string(), &known));
        }
        text("title", &shot.title)?;
        if shot.title.trim().is_empty() {
            return Err(not_allowed("title", "", "a title of at least one letter"));
        }
        text("place", &shot.place)?;
        if shot.parts.len() > MAX_PARTS {
            return Err(not_allowed("parts", &format!("a list of {}", shot.parts.len()), "a list of at most 24 parts"));
        }
        let body = body(&shot.camera)?;
        let light = light(&shot.flash)?;
        let settings = settings(shot, &body, &light)?;
        let subject_distance = metres("subject.distance_m", shot.subject.distance_m, &bounds::SUBJECT_DISTANCE)?;
        if subject_distance <= body.focal {
            return Err(Invalid::Contradiction {
                field: "subject.distance_m".to_owned(),
                given: format!("{} m", shot.subject.distance_m),
                reason: format!("nothing nearer than the focal length ({} mm) can be focused", shot.camera.focal_mm),
            });
        }
        let parts =
            shot.parts.iter().enumerate().map(|(index, wire)| part(index, wire)).collect::<Result<Vec<_>, _>>()?;
        for (index, this) in parts.iter().enumerate() {
            if parts[..index].iter().any(|other| other.name == this.name) {
                let field = format!("parts[{index}].name");
                return Err(not_allowed(&field, &this.name, "a name that no other part has"));
            }
        }
        Ok(Self {
            scene: shot.scene,
            usage: shot.usage,
            school: shot.school,
            key_target: stops("targets.key_stops", shot.targets.key_stops, &bounds::OFFSET)?,
            ambient_target: shot
                .targets
                .ambient_stops
                .map(|value| stops("targets.ambient_stops", value, &bounds::OFFSET))
                .transpose()?,
            settings,
            subject_distance,
            subject_depth: metres("subject.depth_m", shot.subject.depth_m, &bounds::SUBJECT_DEPTH)?,
            subject_light: reading("ambient.subject", &shot.ambient.subject, body.grid)?,
            background_light: reading("ambient.background", &shot.ambient.background, body.grid)?,
            background_reflectance: bounds::REFLECTANCE.check("background.reflectance", shot.background.reflectance)?,
            background_behind: metres("background.behind_m", shot.background.behind_m, &bounds::BEHIND)?,
            spill: stops("background.spill_stops", shot.background.spill_stops, &bounds::OFFSET)?,
            body,
            light,
            parts,
        })
    }
}

fn not_allowed(field: &str, given: &str, allowed: &str) -> Invalid {
    Invalid::NotAllowed {
        field: field.to_owned(),
        given: given.chars().take(40).collect(),
        allowed: allowed.to_owned(),
    }
}

fn text(field: &str, value: &str) -> Result<(), Invalid> {
    if value.chars().count() > MAX_TEXT || value.chars().any(char::is_control) {
        return Err(not_allowed(field, value, "one line of at most 200 characters"));
    }
    Ok(())
}

fn metres(field: &str, value: f64, limits: &Limits) -> Result<Metres, Invalid> {
    limits.check(field, value).map(Metres::from_metres)
}

fn stops(field: &str, value: f64, limits: &Limits) -> Result<Stops, Invalid> {
    limits.check(field, value).map(Stops::from_stops)
}

fn millis(field: &str, value: f64, limits: &Limits) -> Result<Seconds, Invalid> {
    limits.check(field, value).map(Seconds::from_millis)
}

fn reading(field: &str, wire: &Reading, grid: Grid) -> Result<Lux, Invalid> {
    let at = |name: &str| format!("{field}.{name}");
    match wire {
        Reading::Exposure { aperture_f, shutter, iso } => Ok(illuminance_of_reading(
            Aperture::read(&at("aperture_f"), *aperture_f, grid)?,
            ShutterTime::read(&at("shutter"), shutter, grid)?,
            Iso::read(&at("iso"), *iso, grid)?,
        )),
        Reading::Ev100 { ev } => bounds::EV.check(&at("ev"), *ev).map(illuminance_of_ev100),
        Reading::Lux { lux } => bounds::ILLUMINANCE.check(&at("lux"), *lux).map(Lux::from_lux),
    }
}

fn body(camera: &shot::Camera) -> Result<Body, Invalid> {
    let wire = &camera.body;
    let grid = wire.grid;
    text("camera.body.name", &wire.name)?;
    text("camera.lens.name", &camera.lens.name)?;
    let rated_sync = ShutterTime::read("camera.body.sync", &wire.sync, grid)?;
    let travel = match (wire.shutter_kind, wire.travel_ms) {
        (ShutterKind::Leaf | ShutterKind::Global, _) => Seconds::ZERO,
        (_, Some(known)) => millis("camera.body.travel_ms", known, &bounds::TRAVEL)?,
        (ShutterKind::FocalPlane, None) => (rated_sync.time() - UNKNOWN_TRAVEL_MARGIN).max(Seconds::ZERO),
        (ShutterKind::Rolling, None) => {
            return Err(not_allowed("camera.body.travel_ms", "missing", "the readout time of a rolling shutter"));
        }
    };
    let sensor_side =
        |name: &str, value| bounds::SENSOR.check(&format!("camera.body.{name}"), value).map(Metres::from_millimetres);
    let range = |name: &str, from: f64, to: f64, in_order: bool| {
        if in_order {
            Ok(())
        } else {
            Err(Invalid::Contradiction {
                field: name.to_owned(),
                given: from.to_string(),
                reason: format!("the other end of the range is {to}"),
            })
        }
    };
    let times = (
        ShutterTime::read("camera.body.slowest", &wire.slowest, grid)?,
        ShutterTime::read("camera.body.fastest", &wire.fastest, grid)?,
    );
    range("camera.body.slowest", times.0.time().as_secs(), times.1.time().as_secs(), times.0 >= times.1)?;
    let isos =
        (Iso::read("camera.body.iso_min", wire.iso_min, grid)?, Iso::read("camera.body.iso_max", wire.iso_max, grid)?);
    range("camera.body.iso_min", wire.iso_min, wire.iso_max, isos.0 <= isos.1)?;
    let lens = &camera.lens;
    let apertures = (
        Aperture::read("camera.lens.widest_f", lens.widest_f, grid)?,
        Aperture::read("camera.lens.narrowest_f", lens.narrowest_f, grid)?,
    );
    range("camera.lens.widest_f", lens.widest_f, lens.narrowest_f, apertures.0 <= apertures.1)?;
    bounds::FOCAL.check("camera.lens.focal_min_mm", lens.focal_min_mm)?;
    bounds::FOCAL.check("camera.lens.focal_max_mm", lens.focal_max_mm)?;
    range("camera.lens.focal_min_mm", lens.focal_min_mm, lens.focal_max_mm, lens.focal_min_mm <= lens.focal_max_mm)?;
    let focal = bounds::FOCAL.within(lens.focal_min_mm, lens.focal_max_mm).check("camera.focal_mm", camera.focal_mm)?;
    Ok(Body {
        kind: wire.shutter_kind,
        travel,
        travel_assumed: wire.shutter_kind == ShutterKind::FocalPlane && wire.travel_ms.is_none(),
        rated_sync,
        guard: wire
            .guard_ms
            .map_or(Ok(sync::DEFAULT_GUARD), |value| millis("camera.body.guard_ms", value, &bounds::GUARD))?,
        high_speed: wire.high_speed_sync,
        first_row: wire.first_row,
        times,
        isos,
        grid,
        sensor: Sensor {
            width: sensor_side("sensor_width_mm", wire.sensor_width_mm)?,
            height: sensor_side("sensor_height_mm", wire.sensor_height_mm)?,
            pixels: bounds::PIXELS.check("camera.body.pixels_wide", f64::from(wire.pixels_wide))?,
        },
        apertures,
        focal_range: (Metres::from_millimetres(lens.focal_min_mm), Metres::from_millimetres(lens.focal_max_mm)),
        focal: Metres::from_millimetres(focal),
    })
}

/// Refuses a setting outside the camera's own ends, which are labels and so a little rounded.
fn held(field: &str, value: f64, ends: (f64, f64), limits: &Limits) -> Result<(), Invalid> {
    let (low, high) = (ends.0.min(ends.1), ends.0.max(ends.1));
    if value >= low / END_TOLERANCE && value <= high * END_TOLERANCE {
        Ok(())
    } else {
        Err(limits.within(low, high).refuse(field, value))
    }
}

fn settings(shot: &Shot, body: &Body, light: &Light) -> Result<Settings, Invalid> {
    let camera = &shot.camera;
    let aperture = Aperture::read("camera.aperture_f", camera.aperture_f, body.grid)?;
    held(
        "camera.aperture_f",
        aperture.number(),
        (body.apertures.0.number(), body.apertures.1.number()),
        &bounds::APERTURE,
    )?;
    let shutter = ShutterTime::read("camera.shutter", &camera.shutter, body.grid)?;
    let ends = (body.times.0.time().as_secs(), body.times.1.time().as_secs());
    held("camera.shutter", shutter.time().as_secs(), ends, &bounds::SHUTTER)?;
    let iso = Iso::read("camera.iso", camera.iso, body.grid)?;
    held("camera.iso", iso.number(), (body.isos.0.number(), body.isos.1.number()), &bounds::ISO)?;
    let power = bounds::POWER.check("flash.power", shot.flash.power)?;
    held("flash.power", power, ((-light.lowest).as_ratio(), 1.0), &bounds::POWER)?;
    let sync = shot.flash.sync;
    if sync == SyncMode::HighSpeed && (!body.high_speed || !light.high_speed || body.travel <= Seconds::ZERO) {
        let who = if light.high_speed { &camera.body.name } else { &shot.flash.unit.name };
        return Err(Invalid::Contradiction {
            field: "flash.sync".to_owned(),
            given: "high_speed".to_owned(),
            reason: format!("{who} does not do high-speed sync"),
        });
    }
    let flash_distance = metres("flash.distance_m", shot.flash.distance_m, &bounds::FLASH_DISTANCE)?;
    let filter = stops("camera.filter_stops", camera.filter_stops, &bounds::FILTER)?;
    Ok(Settings { aperture, shutter, iso, filter, power, flash_distance, sync })
}

fn face(field: &str, modifier: &shot::Modifier) -> Result<(Stops, Face), Invalid> {
    text(&format!("{field}.name"), &modifier.name)?;
    Ok((
        stops(&format!("{field}.stops"), modifier.stops, &bounds::MODIFIER)?,
        Face {
            radius: metres(&format!("{field}.face_radius_m"), modifier.face_radius_m, &bounds::FACE)?,
            offset: metres(&format!("{field}.source_offset_m"), modifier.source_offset_m, &bounds::SOURCE_OFFSET)?,
        },
    ))
}

fn entry(field: &str, wire: &shot::Output) -> Result<Entry, Invalid> {
    let at = |name: &str| format!("{field}.{name}");
    Ok(match wire {
        shot::Output::GuideNumber { metres: number } => {
            Entry::GuideNumber(metres(&at("metres"), *number, &bounds::GUIDE_NUMBER)?)
        }
        shot::Output::Reading { aperture_f, iso, power, distance_m, modifier } => {
            let (change, face) = face(&at("modifier"), modifier)?;
            Entry::Reading {
                aperture: Aperture::read(&at("aperture_f"), *aperture_f, Grid::Thirds)?,
                iso: Iso::read(&at("iso"), *iso, Grid::Thirds)?,
                power: bounds::POWER.check(&at("power"), *power)?,
                distance: metres(&at("distance_m"), *distance_m, &bounds::FLASH_DISTANCE)?,
                face,
                modifier: change,
            }
        }
        shot::Output::Exposure { exposure_lxs, distance_m } => Entry::Exposure {
            exposure: LuxSeconds::from_lux_seconds(bounds::FLASH_EXPOSURE.check(&at("exposure_lxs"), *exposure_lxs)?),
            distance: metres(&at("distance_m"), *distance_m, &bounds::FLASH_DISTANCE)?,
        },
        shot::Output::Energy { joules, half_angle_deg } => Entry::Energy {
            energy: Joules::from_joules(bounds::ENERGY.check(&at("joules"), *joules)?),
            half_angle: half_angle_deg
                .map(|angle| bounds::BEAM.check(&at("half_angle_deg"), angle).map(Angle::from_degrees))
                .transpose()?,
        },
    })
}

fn control(field: &str, wire: &shot::Control) -> Result<pulse::Control, Invalid> {
    let at = |name: &str| format!("{field}.{name}");
    let time = |name: &str, value: f64| millis(&at(name), value, &bounds::PULSE_TIME);
    let shorter = |name: &str, value: Option<f64>, default: Seconds, decay: Seconds| {
        let Some(given) = value else { return Ok(default.min(decay * 0.5)) };
        let constant = time(name, given)?;
        if constant < decay {
            Ok(constant)
        } else {
            Err(Invalid::Contradiction {
                field: at(name),
                given: format!("{given} ms"),
                reason: "it must be shorter than decay_ms".to_owned(),
            })
        }
    };
    let gamma = |value: f64| bounds::GAMMA.check(&at("gamma"), value);
    Ok(match wire {
        shot::Control::Quenched { decay_ms, rise_ms, fall_ms } => {
            let decay = time("decay_ms", *decay_ms)?;
            pulse::Control::Quenched(pulse::Quenched {
                rise: shorter("rise_ms", *rise_ms, pulse::DEFAULT_RISE, decay)?,
                fall: shorter("fall_ms", *fall_ms, pulse::DEFAULT_FALL, decay)?,
                decay,
            })
        }
        shot::Control::ChargeVoltage { decay_ms, rise_ms, gamma: exponent } => {
            let decay = time("decay_ms", *decay_ms)?;
            let rise = shorter("rise_ms", *rise_ms, pulse::DEFAULT_RISE, decay)?;
            pulse::Control::ChargeVoltage(pulse::ChargeVoltage { rise, decay, gamma: gamma(*exponent)? })
        }
        shot::Control::SwitchedBanks { decay_ms, rise_ms, gamma: exponent, banks } => {
            let decay = time("decay_ms", *decay_ms)?;
            bounds::BANKS.check(&at("banks"), f64::from(*banks))?;
            let rise = shorter("rise_ms", *rise_ms, pulse::DEFAULT_RISE, decay / f64::from(*banks))?;
            pulse::Control::SwitchedBanks(pulse::SwitchedBanks { rise, decay, gamma: gamma(*exponent)?, banks: *banks })
        }
        shot::Control::Table { rows } => pulse::Control::Table(table(&at("rows"), rows)?),
    })
}

fn table(field: &str, wire: &[shot::TableRow]) -> Result<DurationTable, Invalid> {
    if wire.is_empty() || wire.len() > MAX_TABLE_ROWS {
        return Err(not_allowed(field, &format!("a table of {} rows", wire.len()), "a table of 1 to 200 rows"));
    }
    let mut rows = Vec::with_capacity(wire.len());
    for (index, given) in wire.iter().enumerate() {
        let at = |name: &str| format!("{field}[{index}].{name}");
        let power = bounds::POWER.check(&at("power"), given.power)?;
        let time = |name: &str, value: Option<f64>| {
            value.map(|value| millis(&at(name), value, &bounds::PULSE_TIME)).transpose()
        };
        // Where a leaflet gives one of the two, the unit's own shape gives the other.
        let shape = |decay: Seconds| {
            let short = |constant: Seconds| constant.min(decay * 0.5);
            pulse::Quenched { rise: short(pulse::DEFAULT_RISE), decay, fall: short(pulse::DEFAULT_FALL) }.pulse(power)
        };
        let (t05, t01, estimated) = match (time("t05_ms", given.t05_ms)?, time("t01_ms", given.t01_ms)?) {
            (Some(t05), Some(t01)) => (t05, t01, false),
            (Some(t05), None) => (t05, fit_other(t05, |d: &Durations| d.t05, shape).t01, true),
            (None, Some(t01)) => (fit_other(t01, |d: &Durations| d.t01, shape).t05, t01, true),
            (None, None) => return Err(not_allowed(&at("t01_ms"), "missing", "given, or t05_ms is")),
        };
        if t01 < t05 {
            return Err(Invalid::Contradiction {
                field: at("t01_ms"),
                given: format!("{} ms", t01.as_millis()),
                reason: format!("it cannot be shorter than t0.5 ({} ms)", t05.as_millis()),
            });
        }
        rows.push(Row { power, t05, t01, estimated });
    }
    rows.sort_by(|a, b| b.power.total_cmp(&a.power));
    if let Some(twice) = rows.windows(2).find(|pair| pair[0].power == pair[1].power) {
        return Err(not_allowed(field, &format!("two rows for power {}", twice[0].power), "one row for each power"));
    }
    Ok(DurationTable(rows))
}

fn light(flash: &shot::Flash) -> Result<Light, Invalid> {
    let unit = &flash.unit;
    text("flash.unit.name", &unit.name)?;
    text("flash.trigger.name", &flash.trigger.name)?;
    let entry = entry("flash.unit.output", &unit.output)?;
    let (modifier, face) = face("flash.modifier", &flash.modifier)?;
    let output: FlashOutput = entry.output();
    let dial = Limits { what: "power step", unit: "stops", min: 0.05, max: 2.0 };
    let span = Limits { what: "lowest power", unit: "stops below full", min: 0.0, max: 12.0 };
    Ok(Light {
        name: unit.name.clone(),
        entry,
        throw: Throw { output, modifier, face },
        control: control("flash.unit.control", &unit.control)?,
        step: stops("flash.unit.step_stops", unit.step_stops, &dial)?,
        lowest: stops("flash.unit.lowest_stops", unit.lowest_stops, &span)?,
        lag: millis("flash.unit.lag_ms", unit.lag_ms, &bounds::LAG)?
            + millis("flash.trigger.lag_ms", flash.trigger.lag_ms, &bounds::LAG)?,
        high_speed: unit.high_speed_sync,
        efficiency: unit.high_speed_efficiency.map_or(Ok(high_speed::DEFAULT_EFFICIENCY), |value| {
            bounds::EFFICIENCY.check("flash.unit.high_speed_efficiency", value)
        })?,
        origin: unit.durations_from,
        on: flash.on,
    })
}

fn part(index: usize, wire: &shot::Part) -> Result<Part, Invalid> {
    let at = |name: &str| format!("parts[{index}].{name}");
    text(&at("name"), &wire.name)?;
    if wire.name.trim().is_empty() {
        return Err(not_allowed(&at("name"), "", "a name of at least one letter"));
    }
    let degrees = |name: &str, value: f64, limits: &Limits| limits.check(&at(name), value).map(Angle::from_degrees);
    Ok(Part {
        name: wire.name.clone(),
        intent: wire.intent,
        drawn_as: wire.drawn_as,
        speed: MetresPerSecond::from_metres_per_second(bounds::SPEED.check(&at("speed_m_s"), wire.speed_m_s)?),
        direction: degrees("direction_deg", wire.direction_deg, &bounds::DIRECTION)?,
        out_of_plane: degrees("out_of_plane_deg", wire.out_of_plane_deg, &bounds::OUT_OF_PLANE)?,
        size: metres(&at("size_m"), wire.size_m, &bounds::PART_SIZE)?,
        path: wire.path_m.map(|value| metres(&at("path_m"), value, &bounds::PATH)).transpose()?,
        reflectance: bounds::REFLECTANCE.check(&at("reflectance"), wire.reflectance)?,
        luminance: wire
            .luminance_cd_m2
            .map(|value| {
                bounds::LUMINANCE.check(&at("luminance_cd_m2"), value).map(Luminance::from_candelas_per_square_metre)
            })
            .transpose()?,
        flash_offset: stops(&at("flash_offset_stops"), wire.flash_offset_stops, &bounds::OFFSET)?,
        ambient_offset: stops(&at("ambient_offset_stops"), wire.ambient_offset_stops, &bounds::OFFSET)?,
        streak_share: wire.streak_share.map(|value| bounds::STREAK.check(&at("streak_share"), value)).transpose()?,
    })
}
