//! One shot put together, in typed quantities: what the picture and the findings work from.
//!
//! The stages follow the light: expose → ignite → freeze → draw. Each flash is worked out by itself in [`light`], each
//! part under all of them in [`part`]. [`crate::answers::forecast`] writes the result down as plain data.

mod light;
mod part;
mod pulses;
mod steady;
mod subject;
mod tint;

pub use light::LightOutlook;
pub(crate) use part::{DRAWS_FROM, counts, flash_in_whole_rows, steady_share};
pub use part::{DrawnBy, PartOutlook, SlowEnd};
pub use pulses::Pulses;
pub(crate) use pulses::{Told, timing};
pub use steady::{Burns, SteadyField, SteadyOutlook};
pub use subject::SubjectOutlook;
pub(crate) use subject::key_wanted;

use crate::physics::depth::{Depth, depth};
use crate::physics::exposure::Level;
use crate::physics::motion::magnification;
use crate::physics::shutter::Run;
use crate::plan::Plan;
use crate::quantity::{LuxSeconds, Metres, MetresPerSecond, Seconds, Stops};
use steady::steady;

/// What will happen in one frame.
#[derive(Clone, Debug, PartialEq)]
pub struct Outlook {
    /// Exposure at the subject that gives the metered tone.
    pub reference: LuxSeconds,
    /// The steady light that was read, on the subject.
    pub room: Incident,
    /// The lamps that burn, those of the plan first and then the modelling lamps.
    pub steady: Vec<SteadyOutlook>,
    /// All steady light on the subject.
    pub ambient: Incident,
    /// All steady light on the background.
    pub background: Incident,
    /// The flashes, in the plan's order.
    pub lights: Vec<LightOutlook>,
    /// What all lights make of the subject, in the frame.
    pub subject: SubjectOutlook,
    /// Flash on the background, in the frame.
    pub spill: Incident,
    /// The shutter's run.
    pub run: Run,
    /// `m`.
    pub magnification: f64,
    /// Allowed blur on the sensor.
    pub allowed: Metres,
    /// Zone of sharpness.
    pub depth: Depth,
    /// What the camera's own movement does.
    pub camera: CameraOutlook,
    /// The parts, in the plan's order.
    pub parts: Vec<PartOutlook>,
    key: usize,
}

/// A source of light on a place.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Incident {
    /// Its exposure there.
    pub exposure: LuxSeconds,
    /// Against the metered tone.
    pub placement: Stops,
}

/// Movement of the image by the camera, on the sensor.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct CameraOutlook {
    /// Speed of everything at rest, by panning.
    pub pan: MetresPerSecond,
    /// Speed of everything, by an unsteady hand; in no known direction.
    pub shake: MetresPerSecond,
    /// Speed of everything, parts too, by a swing on purpose.
    pub swing: MetresPerSecond,
    /// How far the background moves while a row is open.
    pub background_travel: Metres,
    /// How far the edge of the frame moves outwards by zooming.
    pub zoom_travel: Metres,
}

impl Incident {
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

    /// The key.
    pub fn key(&self) -> &LightOutlook {
        &self.lights[self.key]
    }

    /// The flashes that fire, with their place in the plan.
    pub fn firing(&self) -> impl Iterator<Item = (usize, &LightOutlook)> {
        self.lights.iter().enumerate().filter(|(_, light)| light.fires)
    }

    /// L* of the background in steady light: how visible its streaks can be at most.
    pub fn background_lightness(&self, plan: &Plan) -> f64 {
        Level::of_surface(plan.background_reflectance, self.background.placement).lightness()
    }

    /// Share of the rows that lack some of a flash, of the light that is cut most.
    pub fn touched(&self) -> f64 {
        self.firing().map(|(_, light)| light.rows.touched).fold(0.0, f64::max)
    }
}

/// Puts one shot together.
pub fn outlook(plan: &Plan) -> Outlook {
    outlook_with(plan, &mut Pulses::default())
}

/// The same with the pulses of earlier settings of the same shot, and for later ones.
pub fn outlook_with(plan: &Plan, pulses: &mut Pulses) -> Outlook {
    let set = &plan.settings;
    let run = Run { travel: plan.body.travel, time: set.shutter.time() };
    let reference = plan.reference(set.aperture, set.iso, set.filter);

    let lights: Vec<LightOutlook> =
        (0..plan.lights.len()).map(|index| LightOutlook::of(plan, index, run, reference, pulses)).collect();
    let steady = steady(plan, &lights, run.time, reference);
    let sum = |of: &mut dyn Iterator<Item = LuxSeconds>| {
        Incident::of(of.fold(LuxSeconds::ZERO, |sum, one| sum + one), reference)
    };
    let room = Incident::of(plan.subject_light * run.time, reference);
    let ambient = sum(&mut steady.iter().map(|lamp| lamp.on_subject.exposure).chain([room.exposure]));
    let behind = plan.background_light * run.time;
    let background = sum(&mut steady.iter().map(|lamp| lamp.on_background.exposure).chain([behind]));
    let spill = sum(&mut lights.iter().map(LightOutlook::background_in_frame));
    let subject = SubjectOutlook::of(plan, &lights, ambient.exposure, reference);

    let magnification = magnification(plan.body.focal, plan.subject_distance);
    let allowed = plan.allowed_blur();
    let mut seen = Outlook {
        reference,
        room,
        steady,
        ambient,
        background,
        subject,
        spill,
        run,
        magnification,
        allowed,
        depth: depth(plan.body.focal, set.aperture, plan.subject_distance, allowed),
        camera: camera(plan, magnification, run.time),
        parts: Vec::new(),
        lights,
        key: plan.key,
    };
    seen.parts = { plan.parts.iter().enumerate() }.map(|part| PartOutlook::of(plan, &seen, part, pulses)).collect();
    seen
}

/// An aim that follows something at speed `v` turns by `v/d`, and moves the image of everything at rest by `v·m`; a hand
/// or a swing that turns by an angle moves all of it by `angle·d·m`.
fn camera(plan: &Plan, magnification: f64, time: Seconds) -> CameraOutlook {
    let movement = plan.movement;
    let pan = movement.pan * magnification;
    let turned = |angle_a_second: f64| {
        MetresPerSecond::from_metres_per_second(angle_a_second * plan.subject_distance.as_metres() * magnification)
    };
    let (shake, swing) = (turned(movement.shake), turned(movement.swing));
    CameraOutlook {
        pan,
        shake,
        swing,
        background_travel: (pan + swing + shake) * time,
        zoom_travel: plan.body.sensor.width * (0.5 * movement.zoom.abs()),
    }
}
