//! A shot, checked: every number has a unit and a range, every contradiction is refused.

use crate::exposure::{illuminance_of_ev100, illuminance_of_reading};
use crate::gear::check::At;
use crate::gear::{END_TOLERANCE, FirstRow, ShutterKind, Unit};
use crate::motion::{Sensor, Usage};
use crate::output::Throw;
use crate::pulse::School;
use crate::quantity::bounds::{self, Invalid, Limits};
use crate::quantity::scale::{Aperture, Grid, Iso, ShutterTime};
use crate::quantity::{Angle, FlashOutput, Luminance, Lux, Metres, MetresPerSecond, Seconds, Stops};
use crate::shot::{self, Intent, Reading, Shot};
use crate::shutter::SyncMode;

/// More parts than a subject has.
const MAX_PARTS: usize = 24;
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
    pub first_row: FirstRow,
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
    /// The unit.
    pub unit: Unit,
    /// The way to the subject, modifier and gel in it.
    pub throw: Throw,
    /// Loss of the gel.
    pub gel: Stops,
    /// Trigger and unit together.
    pub lag: Seconds,
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
        let root = At::default();
        if shot.format != shot::FORMAT {
            return Err(root.not_allowed("format", &shot.format, &format!("\"{}\"", shot::FORMAT)));
        }
        if shot.version != shot::VERSION {
            let known = format!("a version this program knows ({})", shot::VERSION);
            return Err(root.not_allowed("version", &shot.version.to_string(), &known));
        }
        root.name("title", &shot.title, "a title of at least one letter")?;
        root.text("place", &shot.place)?;
        if shot.parts.len() > MAX_PARTS {
            let given = format!("a list of {}", shot.parts.len());
            return Err(root.not_allowed("parts", &given, "a list of at most 24 parts"));
        }
        let body = body(&shot.camera)?;
        let light = light(&shot.flash)?;
        let settings = settings(shot, &body, &light)?;
        let subject = root.inside("subject");
        let subject_distance = subject.metres("distance_m", shot.subject.distance_m, &bounds::SUBJECT_DISTANCE)?;
        if subject_distance <= body.focal {
            let reason = format!("nothing nearer than the focal length ({} mm) can be focused", shot.camera.focal_mm);
            return Err(subject.contradiction("distance_m", format!("{} m", shot.subject.distance_m), reason));
        }
        let parts =
            shot.parts.iter().enumerate().map(|(index, wire)| part(index, wire)).collect::<Result<Vec<_>, _>>()?;
        for (index, this) in parts.iter().enumerate() {
            if parts[..index].iter().any(|other| other.name == this.name) {
                return Err(root.row("parts", index).not_allowed("name", &this.name, "a name that no other part has"));
            }
        }
        if let Some(sky) = &shot.sky {
            sky.check(&root.inside("sky"))?;
        }
        if let Some(other) = &shot.ambient.other {
            // Kept for later, and no worse than the one that counts.
            reading("ambient.other.subject", &other.subject, body.grid)?;
            reading("ambient.other.background", &other.background, body.grid)?;
        }
        let (targets, background) = (root.inside("targets"), root.inside("background"));
        Ok(Self {
            scene: shot.scene,
            usage: shot.usage,
            school: shot.school,
            key_target: targets.stops("key_stops", shot.targets.key_stops, &bounds::OFFSET)?,
            ambient_target: targets
                .maybe("ambient_stops", shot.targets.ambient_stops, &bounds::OFFSET)?
                .map(Stops::from_stops),
            settings,
            subject_distance,
            subject_depth: subject.metres("depth_m", shot.subject.depth_m, &bounds::SUBJECT_DEPTH)?,
            subject_light: reading("ambient.subject", &shot.ambient.subject, body.grid)?,
            background_light: reading("ambient.background", &shot.ambient.background, body.grid)?,
            background_reflectance: bounds::REFLECTANCE
                .check(&background.of("reflectance"), shot.background.reflectance)?,
            background_behind: background.metres("behind_m", shot.background.behind_m, &bounds::BEHIND)?,
            spill: background.stops("spill_stops", shot.background.spill_stops, &bounds::OFFSET)?,
            body,
            light,
            parts,
        })
    }
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
    let grid = camera.body.grid;
    let of_camera = camera.body.check(&At::new("camera.body"))?;
    let glass = camera.lens.check(&At::new("camera.lens"), grid)?;
    let lens = &camera.lens;
    let focal = bounds::FOCAL.within(lens.focal_min_mm, lens.focal_max_mm).check("camera.focal_mm", camera.focal_mm)?;
    let body = Body {
        kind: of_camera.kind,
        travel: of_camera.travel,
        travel_assumed: of_camera.travel_assumed,
        rated_sync: of_camera.rated_sync,
        guard: of_camera.guard,
        high_speed: camera.body.high_speed_sync,
        first_row: camera.body.first_row,
        times: of_camera.times,
        isos: of_camera.isos,
        grid,
        sensor: of_camera.sensor,
        apertures: glass.apertures,
        focal_range: glass.focal_range,
        focal: Metres::from_millimetres(focal),
    };
    // A leaf shutter in the lens does the work of the one in the body, down to its own fastest time.
    Ok(match glass.leaf {
        None => body,
        Some(fastest) => Body {
            kind: ShutterKind::Leaf,
            travel: Seconds::ZERO,
            travel_assumed: false,
            rated_sync: fastest,
            high_speed: false,
            times: (body.times.0, fastest),
            ..body
        },
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
    held("flash.power", power, ((-light.unit.lowest).as_ratio(), 1.0), &bounds::POWER)?;
    let sync = shot.flash.sync;
    if sync == SyncMode::HighSpeed && (!body.high_speed || !light.unit.high_speed || body.travel <= Seconds::ZERO) {
        let who = if light.unit.high_speed { &camera.body.name } else { &shot.flash.unit.name };
        return Err(Invalid::Contradiction {
            field: "flash.sync".to_owned(),
            given: "high_speed".to_owned(),
            reason: format!("{who} does not do high-speed sync"),
        });
    }
    let flash_distance = At::new("flash").metres("distance_m", shot.flash.distance_m, &bounds::FLASH_DISTANCE)?;
    let filter = At::new("camera").stops("filter_stops", camera.filter_stops, &bounds::FILTER)?;
    Ok(Settings { aperture, shutter, iso, filter, power, flash_distance, sync })
}

fn light(flash: &shot::Flash) -> Result<Light, Invalid> {
    let at = At::new("flash");
    let unit = flash.unit.check(&at.inside("unit"))?;
    let front = flash.modifier.check(&at.inside("modifier"))?;
    let gel = flash.gel.as_ref().map_or(Ok(Stops::ZERO), |gel| gel.check(&at.inside("gel")))?;
    let trigger = flash.trigger.check(&at.inside("trigger"))?;
    let output: FlashOutput = unit.entry.output() * unit.share;
    Ok(Light {
        name: flash.unit.name.clone(),
        throw: Throw { output, modifier: front.change - gel, face: front.face },
        gel,
        lag: unit.lag + trigger,
        on: flash.on,
        unit,
    })
}

fn part(index: usize, wire: &shot::Part) -> Result<Part, Invalid> {
    let at = At::default().row("parts", index);
    at.name("name", &wire.name, "a name of at least one letter")?;
    let maybe = |name: &str, value, limits: &Limits| at.maybe(name, value, limits);
    Ok(Part {
        name: wire.name.clone(),
        intent: wire.intent,
        drawn_as: wire.drawn_as,
        speed: MetresPerSecond::from_metres_per_second(bounds::SPEED.check(&at.of("speed_m_s"), wire.speed_m_s)?),
        direction: at.degrees("direction_deg", wire.direction_deg, &bounds::DIRECTION)?,
        out_of_plane: at.degrees("out_of_plane_deg", wire.out_of_plane_deg, &bounds::OUT_OF_PLANE)?,
        size: at.metres("size_m", wire.size_m, &bounds::PART_SIZE)?,
        path: maybe("path_m", wire.path_m, &bounds::PATH)?.map(Metres::from_metres),
        reflectance: bounds::REFLECTANCE.check(&at.of("reflectance"), wire.reflectance)?,
        luminance: maybe("luminance_cd_m2", wire.luminance_cd_m2, &bounds::LUMINANCE)?
            .map(Luminance::from_candelas_per_square_metre),
        flash_offset: at.stops("flash_offset_stops", wire.flash_offset_stops, &bounds::OFFSET)?,
        ambient_offset: at.stops("ambient_offset_stops", wire.ambient_offset_stops, &bounds::OFFSET)?,
        streak_share: maybe("streak_share", wire.streak_share, &bounds::STREAK)?,
    })
}
