//! A shot, checked: every number has a unit and a range, every contradiction is refused.

mod camera;
pub(crate) mod check;
mod dials;
mod floor;
mod front;
pub(crate) mod group;
mod intent;
mod kit;
mod lens;
mod light;
mod meter;
mod mount;
mod movement;
mod readiness;
pub(crate) mod sky;
mod source;
mod stage;
mod steady;
mod supply;
mod target;
mod unit;
mod wish;

pub use camera::{Camera, Glass};
pub use dials::{Dial, Dials, MAX_LIGHTS};
pub use floor::Walls;
pub(crate) use floor::measured_to;
pub use front::Front;
pub use intent::STREAK_FACTOR;
pub use lens::BeforeLens;
pub(crate) use lens::{greys_of, sums};
pub use light::{Glow, Light, Surface};
pub use meter::Meter;
pub use movement::{Timing, USUAL_REACTION, USUAL_SPREAD};
pub use readiness::{Flashes, Readiness, Supply};
pub use steady::Lamp;
pub use target::{Burst, Target, Targets};
pub use unit::Unit;
pub(crate) use unit::{END_TOLERANCE, leaflet};
pub(crate) use wish::ANYWHERE;
pub use wish::Bounds;

use crate::file::around::Around;
use crate::file::gear::{FirstRow, ShutterKind};
use crate::file::preferences::Lengths;
use crate::file::shot::{self, Intent, Reading, Role, Shot};
use crate::physics::exposure::{black_placement, illuminance_of_ev100, illuminance_of_reading, reference_exposure};
use crate::physics::metering::{self, Patch};
use crate::physics::motion::{Sensor, Usage, magnification};
use crate::physics::phases::Phases;
use crate::physics::pulse::School;
use crate::physics::shutter::SyncMode;
use crate::physics::subject::direction;
use crate::plan::check::At;
use crate::quantity::bounds::{self, Invalid, Limits};
use crate::quantity::scale::{Aperture, Grid, Iso, ShutterTime};
use crate::quantity::{Angle, Luminance, Lux, LuxSeconds, Metres, MetresPerSecond, Seconds, Stops};
use crate::stage::Stage;
use crate::stage::lens::Lens;
use crate::stage::path::Path;
use crate::stage::region::Region;
use std::sync::Arc;

/// More lamps than a set has.
const MAX_LAMPS: usize = 12;
/// More cautions than there are.
const MAX_ACKNOWLEDGED: usize = 40;
/// More tones than anyone estimates.
const MAX_TONES: usize = 12;
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
    /// What is set on the lights.
    pub lights: Dials,
    /// How far the lamps of the set are turned together, against the levels they have.
    pub lamps: Stops,
}

impl Settings {
    /// What is set on the key.
    pub const fn key(&self) -> &Dial {
        self.lights.key()
    }
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
    /// Frames a second, where known.
    pub frames_per_second: Option<f64>,
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

/// A part of the subject.
#[derive(Clone, Debug, PartialEq)]
pub struct Part {
    /// Its name.
    pub name: String,
    /// What it shall look like.
    pub intent: Intent,
    /// What it is drawn as.
    pub drawn_as: shot::DrawnAs,
    /// `v`, the fastest.
    pub speed: MetresPerSecond,
    /// The slowest, where that is another.
    pub slowest: Option<MetresPerSecond>,
    /// In time, where it is said.
    pub phases: Option<Phases>,
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
    /// How far it stands from the middle of the frame, as a share of its width.
    pub from_middle: Option<f64>,
    /// Wanted streak.
    pub streak: Option<Streak>,
}

/// How long a streak shall be.
#[derive(Clone, Copy, Debug, PartialEq)]
pub enum Streak {
    /// As a share of the frame's width.
    Share(f64),
    /// In the scene.
    Long(Metres),
}

/// A checked shot.
///
/// # Guarantees
/// All numbers finite and in range, the subject beyond the focal length, camera settings within the camera, power within
/// the unit, flash distance and face not all zero.
#[derive(Clone, Debug, PartialEq)]
pub struct Plan {
    /// What stands in the frame.
    pub stage: Arc<Stage>,
    /// What the picture is for.
    pub usage: Usage,
    /// Freezing time by.
    pub school: School,
    /// Where things shall fall.
    pub targets: Targets,
    /// Frames in a row that are meant.
    pub burst: Option<Burst>,
    /// The camera.
    pub body: Body,
    /// What is set.
    pub settings: Settings,
    /// Camera to subject.
    pub subject_distance: Metres,
    /// Depth of subject.
    pub subject_depth: Metres,
    /// The most that shall be sharp.
    pub depth_at_most: Option<Metres>,
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
    /// Channel of the trigger on the camera.
    pub channel: u32,
    /// The flashes.
    pub lights: Arc<[Light]>,
    /// Which of them is the key.
    pub key: usize,
    /// Lamps that burn.
    pub lamps: Arc<[Lamp]>,
    /// Colour of the steady light that was read, in kelvin.
    pub ambient_kelvin: f64,
    /// White balance, in kelvin.
    pub white_balance: f64,
    /// What is before the lens.
    pub before_lens: BeforeLens,
    /// How lengths are written.
    pub lengths: Lengths,
    /// How lux are counted.
    pub meter: Meter,
    /// What automatic flash has to be told about the scene.
    pub metered_bias: Stops,
    /// How the camera itself moves.
    pub movement: Movement,
    /// When the frame is taken.
    pub timing: Timing,
    /// Where the subject may be.
    pub area: Option<Region>,
    /// How far the key may differ over it, where somebody said.
    pub even: Option<Stops>,
    /// Width and height of the sheet behind, in metres.
    pub sheet: Option<(f64, f64)>,
    /// The way that somebody comes along.
    pub way: Option<Path>,
    /// The room.
    pub room: Option<Walls>,
    /// How far the steady light may be from what is taken for it, darker and brighter, while nobody has read it.
    pub guessed_light: Option<(f64, f64)>,
    /// Whether it is under the open sky.
    pub outdoors: bool,
    /// The parts.
    pub parts: Arc<[Part]>,
    /// Rows of the curtains that each part stands in, from the first to the last; the whole frame for one that has no place.
    pub part_rows: Arc<[(f64, f64)]>,
}

/// Every row.
pub(crate) const WHOLE_FRAME: (f64, f64) = (0.0, 1.0);

/// How the camera moves while the shutter is open.
#[derive(Clone, Copy, Debug, PartialEq, Default)]
pub struct Movement {
    /// Speed of the aim at the subject's distance.
    pub pan: MetresPerSecond,
    /// Direction of it in the frame.
    pub direction: Angle,
    /// Unsteadiness, in radians a second.
    pub shake: f64,
    /// Growth of the picture while the shutter is open.
    pub zoom: f64,
    /// Turning on purpose, in radians a second.
    pub swing: f64,
    /// The part that it follows.
    pub follows: Option<usize>,
    /// Whether the streak of everything that stands is wanted.
    pub wanted: Option<bool>,
}

impl Plan {
    /// The same shot with other settings. They must come from the plan's own grid and ranges.
    pub fn with(&self, settings: Settings) -> Self {
        Self { settings, ..self.clone() }
    }

    /// Allowed blur on the sensor, also the circle of confusion.
    pub fn allowed_blur(&self) -> Metres {
        self.usage.allowed_blur(&self.body.sensor)
    }

    /// Width and height of the frame on the sensor, as the camera is held.
    pub fn frame(&self) -> (Metres, Metres) {
        let Sensor { width, height, .. } = self.body.sensor;
        if self.stage.upright().is_some() { (height, width) } else { (width, height) }
    }

    /// How long the streak of a part shall be, as a share of the frame's width.
    pub fn wanted_streak(&self, part: &Part) -> Option<f64> {
        match part.streak? {
            Streak::Share(share) => Some(share),
            Streak::Long(length) => Some(length / self.frame_along(part)),
        }
    }

    /// The same as a length in the scene, along the way of the part.
    pub fn wanted_streak_long(&self, part: &Part) -> Option<Metres> {
        Some(match part.streak? {
            Streak::Share(share) => self.frame_along(part) * share,
            Streak::Long(length) => length,
        })
    }

    /// How long a way along that of a part is as wide as the frame.
    fn frame_along(&self, part: &Part) -> Metres {
        let seen = magnification(self.body.focal, self.subject_distance) * part.out_of_plane.as_radians().cos();
        self.frame().0 / seen
    }

    /// The camera in the set.
    pub fn lens(&self) -> Lens {
        let (wide, high) = self.frame();
        let seen = magnification(self.body.focal, self.subject_distance);
        let half = |side: Metres| 0.5 * side.as_metres() / seen;
        Lens {
            view: self.stage.view(self.subject_distance),
            half: (half(wide), half(high)),
            focal: (self.body.focal.as_metres(), self.body.focal_range.1.as_metres()),
            behind: self.background_behind.as_metres(),
            figure: !self.stage.composition.people.is_empty(),
        }
    }

    /// The place of a part in the list.
    pub fn index_of(&self, part: &Part) -> usize {
        self.parts.iter().position(|one| std::ptr::eq(one, part)).unwrap_or_default()
    }

    /// A length on the sensor in pixels.
    pub fn pixels(&self, on_sensor: Metres) -> f64 {
        on_sensor / self.body.sensor.pitch()
    }

    /// The key light.
    pub fn key_light(&self) -> &Light {
        &self.lights[self.key]
    }

    /// `H_ref` with so much grey before the lens, and what stays there.
    pub fn reference(&self, aperture: Aperture, iso: Iso, grey: Stops) -> LuxSeconds {
        reference_exposure(aperture, iso, grey + self.before_lens.loss)
    }

    /// Whether a light fires: it is on, and hears the trigger. A cord or a light cell has no channels to miss.
    pub fn fires(&self, light: usize) -> bool {
        self.lights[light].on && self.hears(light)
    }

    fn hears(&self, light: usize) -> bool {
        let channel = self.settings.lights[light].channel;
        self.lights[light].channels.is_none_or(|channels| channel == self.channel && channel <= channels)
    }

    /// From the trigger on the camera to a light.
    pub fn trigger_distance(&self, light: usize) -> Metres {
        let (of, dial) = (&self.lights[light], &self.settings.lights[light]);
        let [right, near, up] = direction(of.bearing, of.height).map(|value| value * dial.distance.as_metres());
        Metres::from_metres((right * right + (self.subject_distance.as_metres() - near).powi(2) + up * up).sqrt())
    }

    /// The same with one light only, as on a set: the others are switched off.
    #[must_use]
    pub fn solo(&self, light: usize) -> Self {
        let mut lights = self.lights.to_vec();
        for (index, of) in lights.iter_mut().enumerate() {
            of.on &= index == light;
        }
        Self { lights: lights.into(), ..self.clone() }
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
        let subject = root.inside("subject");
        let subject_distance = subject.metres("distance_m", shot.subject.distance_m, &bounds::SUBJECT_DISTANCE)?;
        if subject_distance <= body.focal {
            let reason = format!("nothing nearer than the focal length ({} mm) can be focused", shot.camera.focal_mm);
            return Err(subject.contradiction("distance_m", format!("{} m", shot.subject.distance_m), reason));
        }
        let meter = Meter::of(shot.meter_c)?;
        let timing = Timing::of(shot.moment.as_ref())?;
        if let Some(activity) = &shot.activity {
            root.text("activity", activity)?;
        }
        let parts = shot
            .parts
            .iter()
            .enumerate()
            .map(|(index, wire)| part(index, wire, meter, timing.opens))
            .collect::<Result<Vec<_>, _>>()?;
        for (index, this) in parts.iter().enumerate() {
            if parts[..index].iter().any(|other| other.name == this.name) {
                return Err(root.row("parts", index).not_allowed("name", &this.name, "a name that no other part has"));
            }
        }
        let key = shot.lights.iter().position(|light| light.role == Role::Key).unwrap_or(0);
        let mut lights = lights(shot, &parts, meter)?;
        let mut settings = settings(shot, &body, &lights, key)?;
        group::check(&shot.groups)?;
        if shot.acknowledged.len() > MAX_ACKNOWLEDGED {
            let given = format!("a list of {}", shot.acknowledged.len());
            return Err(root.not_allowed("acknowledged", &given, "a list of at most 40 cautions"));
        }
        for seen in &shot.acknowledged {
            root.text("acknowledged", seen)?;
        }
        if let Some(sky) = &shot.sky {
            sky.check(&root.inside("sky"))?;
        }
        if let Some(other) = &shot.ambient.other {
            // Kept for later, and no worse than the one that counts.
            reading("ambient.other.subject", &other.subject, body.grid, meter)?;
            reading("ambient.other.background", &other.background, body.grid, meter)?;
        }
        let background = root.inside("background");
        let behind = background.metres("behind_m", shot.background.behind_m, &bounds::BEHIND)?;
        let written =
            shot.stage.clone().unwrap_or_else(|| Stage::of_scene(shot.scene).between(subject_distance, behind));
        let stage = Arc::new(Stage::checked(&root.inside("stage"), &written, subject_distance, behind)?);
        let outdoors = stage.is_outdoors();
        mount::set_down(&mut lights, &mut settings.lights, &stage.view(subject_distance))?;
        let plan = Self {
            stage,
            usage: shot.usage,
            lengths: shot.lengths,
            meter,
            school: shot.school,
            targets: Targets::of(&root.inside("targets"), &shot.targets)?,
            burst: shot.burst.as_ref().map(|burst| Burst::of(&root.inside("burst"), burst)).transpose()?,
            settings,
            subject_distance,
            subject_depth: subject.metres("depth_m", shot.subject.depth_m, &bounds::SUBJECT_DEPTH)?,
            depth_at_most: depth_at_most(shot)?,
            subject_light: reading("ambient.subject", &shot.ambient.subject, body.grid, meter)?,
            background_light: reading("ambient.background", &shot.ambient.background, body.grid, meter)?,
            background_reflectance: bounds::REFLECTANCE
                .check(&background.of("reflectance"), shot.background.reflectance)?,
            background_behind: behind,
            spill: background.stops("spill_stops", shot.background.spill_stops, &bounds::OFFSET)?,
            channel: channel("channel", shot.channel)?,
            key,
            lamps: lamps(shot, &parts, behind, meter)?,
            ambient_kelvin: bounds::KELVIN.check("ambient.kelvin", shot.ambient.kelvin)?,
            white_balance: bounds::KELVIN.check("camera.white_balance_k", shot.camera.white_balance_k)?,
            before_lens: BeforeLens::of(&shot.camera, settings.filter)?,
            metered_bias: metered_bias(&shot.tones)?,
            outdoors: outdoors || shot.sky.is_some() || shot.around.contains(&Around::Outdoors),
            movement: camera_moves(shot.camera.movement.as_ref(), &parts)?,
            timing,
            area: shot.area.as_ref().map(floor::area).transpose()?,
            // Checked with the wish, at the end.
            even: shot.wish.as_ref().and_then(|wish| wish.even_within_stops).map(Stops::from_stops),
            sheet: shot.sheet.as_ref().map(floor::sheet).transpose()?,
            way: shot.way.as_ref().map(floor::way).transpose()?,
            room: shot.room.as_ref().map(floor::room).transpose()?,
            guessed_light: movement::guessed(
                &root.inside("ambient").inside("typical"),
                shot.ambient.typical.as_ref(),
                &shot.ambient.subject,
            )?,
            body,
            lights: lights.into(),
            parts: parts.into(),
            part_rows: Arc::default(),
        };
        Bounds::of(shot, &plan)?;
        let part_rows = plan.rows_of_parts();
        Ok(Self { part_rows, ..plan })
    }
}

/// The most that shall be sharp, no less than what has to be.
fn depth_at_most(shot: &Shot) -> Result<Option<Metres>, Invalid> {
    let at = At::new("subject");
    let most = at.maybe("depth_at_most_m", shot.subject.depth_at_most_m, &bounds::DEPTH_AT_MOST)?;
    if let Some(most) = most.filter(|most| *most < shot.subject.depth_m) {
        let reason = format!("{} m have to be sharp, which is more", shot.subject.depth_m);
        return Err(at.contradiction("depth_at_most_m", format!("{most} m"), reason));
    }
    Ok(most.map(Metres::from_metres))
}

fn reading(field: &str, wire: &Reading, grid: Grid, meter: Meter) -> Result<Lux, Invalid> {
    let at = |name: &str| format!("{field}.{name}");
    match wire {
        Reading::Exposure { aperture_f, shutter, iso } => Ok(illuminance_of_reading(
            Aperture::read(&at("aperture_f"), *aperture_f, grid)?,
            ShutterTime::read(&at("shutter"), shutter, grid)?,
            Iso::read(&at("iso"), *iso, grid)?,
        )),
        // A grey card that reads as black: the most it can have been.
        Reading::Black { aperture_f, shutter, iso } => Ok(illuminance_of_reading(
            Aperture::read(&at("aperture_f"), *aperture_f, grid)?,
            ShutterTime::read(&at("shutter"), shutter, grid)?,
            Iso::read(&at("iso"), *iso, grid)?,
        ) * black_placement().as_ratio()),
        Reading::Ev100 { ev } => bounds::EV.check(&at("ev"), *ev).map(illuminance_of_ev100),
        Reading::Lux { lux } => {
            bounds::ILLUMINANCE.check(&at("lux"), *lux).map(|lux| Lux::from_lux(meter.counted(lux)))
        }
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
        frames_per_second: camera.body.frames_per_second,
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

fn settings(shot: &Shot, body: &Body, lights: &[Light], key: usize) -> Result<Settings, Invalid> {
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
    let filter = At::new("camera").stops("filter_stops", camera.filter_stops, &bounds::FILTER)?;
    let dials = shot
        .lights
        .iter()
        .zip(lights)
        .enumerate()
        .map(|(index, (wire, light))| dial(&At::default().row("lights", index), wire, light, (body, &camera.body.name)))
        .collect::<Result<Vec<_>, _>>()?;
    Ok(Settings { aperture, shutter, iso, filter, lights: Dials::new(&dials, key), lamps: Stops::ZERO })
}

fn dial(at: &At, wire: &shot::Flash, light: &Light, (body, camera): (&Body, &str)) -> Result<Dial, Invalid> {
    let power = at.figure("power", wire.power, &bounds::POWER)?;
    held(&at.of("power"), power, ((-light.unit.lowest).as_ratio(), 1.0), &bounds::POWER)?;
    let sync = wire.sync;
    if sync == SyncMode::HighSpeed && (!body.high_speed || !light.unit.high_speed || body.travel <= Seconds::ZERO) {
        let who = if light.unit.high_speed { camera } else { &wire.unit.name };
        return Err(at.contradiction("sync", "high_speed".to_owned(), format!("{who} does not do high-speed sync")));
    }
    let bias =
        |automatic: &shot::Automatic| at.inside("automatic").stops("bias_stops", automatic.bias_stops, &bounds::OFFSET);
    Ok(Dial {
        power,
        bias: wire.automatic.as_ref().map(bias).transpose()?,
        distance: at.metres("distance_m", wire.distance_m, &bounds::FLASH_DISTANCE)?,
        sync,
        heads: at.figure("heads", f64::from(wire.heads), &bounds::ABREAST).map(|_| wire.heads)?,
        channel: channel(&at.of("channel"), wire.channel)?,
    })
}

fn channel(field: &str, number: u32) -> Result<u32, Invalid> {
    bounds::CHANNEL.check(field, f64::from(number)).map(|_| number)
}

fn lights(shot: &Shot, parts: &[Part], meter: Meter) -> Result<Vec<Light>, Invalid> {
    let root = At::default();
    if shot.lights.is_empty() || shot.lights.len() > MAX_LIGHTS {
        let given = format!("a list of {}", shot.lights.len());
        return Err(root.not_allowed("lights", &given, "a list of 1 to 12 lights; one that is off may stay on it"));
    }
    let of = |(index, wire)| Light::of(&root.row("lights", index), wire, parts, meter);
    let mut lights = shot.lights.iter().enumerate().map(of).collect::<Result<Vec<_>, _>>()?;
    light::introduce(&mut lights);
    Ok(lights)
}

fn lamps(shot: &Shot, parts: &[Part], behind: Metres, meter: Meter) -> Result<Arc<[Lamp]>, Invalid> {
    let root = At::default();
    if shot.lamps.len() > MAX_LAMPS {
        let given = format!("a list of {}", shot.lamps.len());
        return Err(root.not_allowed("lamps", &given, "a list of at most 12 lamps"));
    }
    let of = |(index, wire)| Lamp::of(index, wire, parts, (behind.as_metres(), meter)).transpose();
    shot.lamps.iter().enumerate().filter_map(of).collect()
}

pub(crate) fn metered_bias(tones: &[shot::Tone]) -> Result<Stops, Invalid> {
    if tones.is_empty() {
        return Ok(Stops::ZERO);
    }
    let root = At::default();
    if tones.len() > MAX_TONES {
        return Err(root.not_allowed("tones", &format!("a list of {}", tones.len()), "a list of at most 12 tones"));
    }
    let patch = |(index, tone): (usize, &shot::Tone)| {
        let at = root.row("tones", index);
        at.text("name", &tone.name)?;
        Ok(Patch {
            area: at.figure("share", tone.share, &bounds::SHARE)?,
            reflectance: at.figure("reflectance", tone.reflectance, &bounds::REFLECTANCE)?,
            relative_distance: at.figure("relative_distance", tone.relative_distance, &bounds::RELATIVE_DISTANCE)?,
        })
    };
    let patches = tones.iter().enumerate().map(patch).collect::<Result<Vec<_>, Invalid>>()?;
    if patches.iter().map(|patch| patch.area).sum::<f64>() <= 0.0 {
        return Err(root.contradiction("tones[0].share", "0".to_owned(), "no tone has a share of the frame"));
    }
    Ok(metering::compensation(&patches))
}

fn camera_moves(wire: Option<&shot::Movement>, parts: &[Part]) -> Result<Movement, Invalid> {
    let Some(wire) = wire else { return Ok(Movement::default()) };
    let at = At::new("camera.movement");
    let follows = match &wire.follows {
        None => None,
        Some(name) => {
            let part = parts.iter().position(|part| part.name == *name);
            Some(part.ok_or_else(|| at.not_allowed("follows", name, "the name of a part of the shot"))?)
        }
    };
    let pan = MetresPerSecond::from_metres_per_second(at.figure("pan_m_s", wire.pan_m_s, &bounds::PAN)?);
    let direction = at.degrees("direction_deg", wire.direction_deg, &bounds::DIRECTION)?;
    // Who follows something goes as it goes.
    let (pan, direction) = follows.map_or((pan, direction), |part| {
        (parts[part].speed * parts[part].out_of_plane.as_radians().cos(), parts[part].direction)
    });
    Ok(Movement {
        pan,
        direction,
        follows,
        wanted: wire.wanted,
        shake: at.figure("shake_deg_s", wire.shake_deg_s, &bounds::SHAKE)?.to_radians(),
        zoom: at.figure("zoom_share", wire.zoom_share, &bounds::ZOOM)?,
        swing: at.figure("swing_deg_s", wire.swing_deg_s, &bounds::SWING)?.to_radians(),
    })
}

fn part(index: usize, wire: &shot::Part, meter: Meter, opens: Seconds) -> Result<Part, Invalid> {
    let at = At::default().row("parts", index);
    at.name("name", &wire.name, "a name of at least one letter")?;
    let maybe = |name: &str, value, limits: &Limits| at.maybe(name, value, limits);
    let direction = at.degrees("direction_deg", wire.direction_deg, &bounds::DIRECTION)?;
    let phases = movement::phases(&at, wire, direction, opens)?;
    let slowest = maybe("slowest_m_s", wire.slowest_m_s, &bounds::SPEED)?;
    if let Some(slowest) = slowest.filter(|slowest| *slowest > wire.speed_m_s) {
        let reason = format!("it is {} m/s at most", wire.speed_m_s);
        return Err(at.contradiction("slowest_m_s", format!("{slowest} m/s"), reason));
    }
    if let Some(from) = &wire.speed_from {
        at.text("speed_from", from)?;
    }
    Ok(Part {
        name: wire.name.clone(),
        intent: wire.intent,
        drawn_as: wire.drawn_as,
        speed: MetresPerSecond::from_metres_per_second(at.figure("speed_m_s", wire.speed_m_s, &bounds::SPEED)?),
        slowest: slowest.map(MetresPerSecond::from_metres_per_second),
        phases,
        direction,
        out_of_plane: at.degrees("out_of_plane_deg", wire.out_of_plane_deg, &bounds::OUT_OF_PLANE)?,
        size: at.metres("size_m", wire.size_m, &bounds::PART_SIZE)?,
        path: maybe("path_m", wire.path_m, &bounds::PATH)?.map(Metres::from_metres),
        reflectance: at.figure("reflectance", wire.reflectance, &bounds::REFLECTANCE)?,
        luminance: maybe("luminance_cd_m2", wire.luminance_cd_m2, &bounds::LUMINANCE)?
            .map(|luminance| Luminance::from_candelas_per_square_metre(meter.counted(luminance))),
        flash_offset: at.stops("flash_offset_stops", wire.flash_offset_stops, &bounds::OFFSET)?,
        ambient_offset: at.stops("ambient_offset_stops", wire.ambient_offset_stops, &bounds::OFFSET)?,
        from_middle: maybe("from_middle_share", wire.from_middle_share, &bounds::FROM_MIDDLE)?,
        streak: streak(&at, wire, phases.as_ref())?,
    })
}

/// A wanted streak is said in one way.
fn streak(at: &At, wire: &shot::Part, phases: Option<&Phases>) -> Result<Option<Streak>, Invalid> {
    let share = at.maybe("streak_share", wire.streak_share, &bounds::STREAK)?;
    let long = at.maybe("streak_m", wire.streak_m, &bounds::STREAK_LENGTH)?;
    match (share, long, wire.streak_whole) {
        (None, None, false) => Ok(None),
        (Some(share), None, false) => Ok(Some(Streak::Share(share))),
        (None, Some(long), false) => Ok(Some(Streak::Long(Metres::from_metres(long)))),
        (None, None, true) => {
            let Some(phases) = phases else {
                let reason = "its movement has no end: say its phases";
                return Err(at.contradiction("streak_whole", "as long as its movement".to_owned(), reason));
            };
            let (low, high) = phases.reach(Seconds::ZERO, phases.lasts());
            Ok(Some(Streak::Long(Metres::from_metres(high - low))))
        }
        _ => {
            let reason = "a streak is told by a share of the frame, by a length, or by its movement: one of them";
            Err(at.contradiction("streak_share", "told in two ways".to_owned(), reason))
        }
    }
}
