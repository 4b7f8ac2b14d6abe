//! One shot put together, in typed quantities: what the picture and the findings work from.
//!
//! The stages follow the light: expose → ignite → freeze → draw. [`crate::forecast`] writes the result down as plain
//! data.

use crate::depth::{Depth, depth};
use crate::exposure::{Level, reference_exposure};
use crate::ghost::{Ghost, Tones, dwell, ghost};
use crate::motion::{Sharpness, growth, image_speed, magnification};
use crate::plan::{Part, Plan};
use crate::pulse::PulseAt;
use crate::quantity::scale::ShutterTime;
use crate::quantity::{LuxSeconds, Metres, MetresPerSecond, Seconds, Stops, sum_of_sources};
use crate::shutter::sync::{OVER_SHARE, Timing, ignition, usable_sync};
use crate::shutter::{Ignition, RowReport, Run, SyncMode, high_speed, rows};

/// What will happen in one frame.
#[derive(Clone, Debug, PartialEq)]
pub struct Outlook {
    /// Exposure at the subject that gives the metered tone.
    pub reference: LuxSeconds,
    /// Steady light on the subject.
    pub ambient: Source,
    /// Steady light on the background.
    pub background: Source,
    /// Flash on the subject, a full share of it.
    pub flash: Source,
    /// Flash on the background.
    pub spill: Source,
    /// Steady light and flash together on the subject.
    pub total: Stops,
    /// The pulse at this power.
    pub pulse: PulseAt,
    /// `L`, ignition to 99 % of the light.
    pub length: Seconds,
    /// The shutter's run.
    pub run: Run,
    /// When the flash ignites.
    pub ignition: Ignition,
    /// What the rows get; all of it in high-speed sync.
    pub rows: RowReport,
    /// Change by high-speed sync, `None` when it is not used.
    pub high_speed: Option<Stops>,
    /// Fastest time that leaves no row dark, for this unit, power and trigger.
    pub usable_sync: Option<ShutterTime>,
    /// Freezing time of the flash layer.
    pub freeze: Seconds,
    /// `m`.
    pub magnification: f64,
    /// Allowed blur on the sensor.
    pub allowed: Metres,
    /// Zone of sharpness.
    pub depth: Depth,
    /// The parts, in the plan's order.
    pub parts: Vec<PartOutlook>,
}

/// A source of light on a place.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Source {
    /// Its exposure there.
    pub exposure: LuxSeconds,
    /// Against the metered tone.
    pub placement: Stops,
}

/// What will happen to one part.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct PartOutlook {
    /// `u` on the sensor.
    pub image_speed: MetresPerSecond,
    /// Blur of the flash layer on the sensor.
    pub flash_blur: Metres,
    /// How that looks.
    pub sharpness: Sharpness,
    /// `u·t`, how far its image moves while a row is open.
    pub travel: Metres,
    /// `ℓ`: the same, a round path counted once.
    pub streak: Metres,
    /// Share of the frame's width that the streak covers.
    pub streak_share: f64,
    /// Growth while the shutter is open, as a share.
    pub growth: f64,
    /// The four tones.
    pub tones: Tones,
    /// The ghost.
    pub ghost: Ghost,
    /// Whether the path is long enough to count as a ghost at all.
    pub draws: bool,
}

impl Source {
    fn of(exposure: LuxSeconds, reference: LuxSeconds) -> Self {
        Self { exposure, placement: Stops::placement(exposure, reference) }
    }
}

impl Outlook {
    /// Width and height of what the frame covers at the subject's distance.
    pub fn field(&self, plan: &Plan) -> (Metres, Metres) {
        let sensor = plan.body.sensor;
        (sensor.width / self.magnification, sensor.height / self.magnification)
    }
}

/// What decides the ignition of this plan's flash, for a pulse of a given length.
pub(crate) fn timing(plan: &Plan, length: Seconds) -> Timing {
    Timing { lag: plan.light.lag, guard: plan.body.guard, length }
}

/// Puts one shot together.
pub fn outlook(plan: &Plan) -> Outlook {
    let set = &plan.settings;
    let run = Run { travel: plan.body.travel, time: set.shutter.time() };
    let reference = reference_exposure(set.aperture, set.iso, set.filter);

    let ambient = Source::of(plan.subject_light * run.time, reference);
    let background = Source::of(plan.background_light * run.time, reference);

    let high_speed = (set.sync == SyncMode::HighSpeed).then(|| high_speed::loss(run, plan.light.unit.efficiency));
    let fired = if plan.light.on { high_speed.map_or(1.0, Stops::as_ratio) } else { 0.0 };
    let thrown = |distance| plan.light.throw.exposure(set.power, distance) * fired;
    let flash = Source::of(thrown(set.flash_distance), reference);
    let beyond = thrown(set.flash_distance + plan.background_behind) * plan.spill.as_ratio();
    let spill = Source::of(beyond, reference);

    let pulse = plan.light.unit.control.at(set.power);
    let length = pulse.pulse.time_of_share(OVER_SHARE);
    let timing = timing(plan, length);
    let ignition = ignition(run, set.sync, timing);
    let rows = match high_speed {
        None => rows::report(run, &pulse.pulse, ignition.at),
        Some(_) => whole_rows(),
    };
    // What the flash can do as a pulse is worth knowing even while it glows.
    let pulse_mode = if set.sync == SyncMode::HighSpeed { SyncMode::Front } else { set.sync };
    let usable_sync = usable_sync(run.travel, pulse_mode, timing, &pulse.pulse, plan.body.grid, plan.body.times);

    let freeze = if high_speed.is_some() { run.time } else { pulse.durations.by(plan.school) };
    let magnification = magnification(plan.body.focal, plan.subject_distance);
    let allowed = plan.usage.allowed_blur(&plan.body.sensor);
    let light = Light { reference, ambient, background, flash, spill };
    let optics = Optics { magnification, allowed, freeze };
    Outlook {
        reference,
        ambient,
        background,
        flash,
        spill,
        total: sum_of_sources([ambient.placement, flash.placement]),
        pulse,
        length,
        run,
        ignition,
        rows,
        high_speed,
        usable_sync,
        freeze,
        magnification,
        allowed,
        depth: depth(plan.body.focal, set.aperture, plan.subject_distance, allowed),
        parts: plan.parts.iter().map(|part| part_outlook(plan, part, &light, &optics)).collect(),
    }
}

struct Light {
    reference: LuxSeconds,
    ambient: Source,
    background: Source,
    flash: Source,
    spill: Source,
}

struct Optics {
    magnification: f64,
    allowed: Metres,
    freeze: Seconds,
}

fn part_outlook(plan: &Plan, part: &Part, light: &Light, optics: &Optics) -> PartOutlook {
    let shutter = plan.settings.shutter;
    let image_speed = image_speed(part.speed, part.out_of_plane, optics.magnification);
    let flash_blur = image_speed * optics.freeze;
    let travel = image_speed * shutter.time();
    let streak = part.path.map_or(travel, |path| travel.min(path * optics.magnification));

    let surface = |reflectance, placement| Level::of_surface(reflectance, placement);
    let own = part.luminance.map_or(Level::BLACK, |luminance| Level::of_luminance(luminance, shutter, light.reference));
    let tones = Tones {
        part_ambient: surface(part.reflectance, light.ambient.placement + part.ambient_offset).plus(own),
        part_flash: surface(part.reflectance, light.flash.placement + part.flash_offset),
        background_ambient: surface(plan.background_reflectance, light.background.placement),
        background_flash: surface(plan.background_reflectance, light.spill.placement),
    };
    PartOutlook {
        image_speed,
        flash_blur,
        sharpness: Sharpness::of(flash_blur, optics.allowed),
        travel,
        streak,
        streak_share: streak / plan.body.sensor.width,
        growth: growth(part.speed, part.out_of_plane, shutter.time(), plan.subject_distance),
        tones,
        ghost: ghost(dwell(part.size * optics.magnification, streak), tones),
        draws: streak > optics.allowed,
    }
}

/// In high-speed sync every row gets the same slice.
fn whole_rows() -> RowReport {
    RowReport {
        first: 1.0,
        middle: 1.0,
        last: 1.0,
        worst: Stops::ZERO,
        edge: rows::Edge::First,
        touched: 0.0,
        black: 0.0,
    }
}
