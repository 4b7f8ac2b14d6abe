//! The positions of every control that may move, with what each does to the light.

use super::{CONTROLS, Held, Look, nearness};
use crate::depth::depth;
use crate::outlook::outlook;
use crate::plan::{Plan, Settings};
use crate::pulse::School;
use crate::quantity::scale::{Aperture, Iso, ShutterTime};
use crate::quantity::{Metres, Stops};
use crate::shutter::{Run, SyncMode, high_speed};
use crate::strips;

/// One position of a control: its value, and stops of light against what is set.
#[derive(Clone, Copy, Debug)]
pub(super) struct Place<T> {
    pub value: T,
    pub stops: f64,
}

/// An aperture, with the depth it gives.
#[derive(Clone, Copy, Debug)]
pub(super) struct AperturePlace {
    pub value: Aperture,
    pub stops: f64,
    pub depth_off: f64,
}

/// A power, with how much longer its pulse is than what is held; in stops, never below zero.
#[derive(Clone, Copy, Debug)]
pub(super) struct PowerPlace {
    pub value: f64,
    pub stops: f64,
    pub longer: f64,
}

/// A shutter time; in high-speed sync it changes the flash and its blur too.
#[derive(Clone, Copy, Debug)]
pub(super) struct ShutterPlace {
    pub value: ShutterTime,
    pub stops: f64,
    pub flash_stops: f64,
    pub longer: f64,
}

/// Everything that may be turned, and where the light stands before it is.
#[derive(Clone, Debug)]
pub(super) struct Board {
    pub now: Settings,
    pub apertures: Vec<AperturePlace>,
    pub shutters: Vec<ShutterPlace>,
    pub isos: Vec<Place<Iso>>,
    pub filters: Vec<Place<Stops>>,
    pub powers: Vec<PowerPlace>,
    /// Light at a distance against what is set; `None` when the distance may not move.
    pub distances: Option<Distances>,
    /// How far key, ambient and background are from what is held; `None` where it is not, or is dark.
    pub key_off: Option<f64>,
    pub ambient_off: Option<f64>,
    pub background_off: Option<f64>,
    fixed: Vec<Held>,
}

/// The way of the flash to the subject.
#[derive(Clone, Copy, Debug)]
pub(super) struct Distances {
    throw: crate::output::Throw,
    set: Metres,
}

impl Distances {
    const NEAREST: f64 = 0.3;
    const FARTHEST: f64 = 30.0;

    /// The distance that gives so many stops more, to the centimetre, and what it gives.
    pub fn with(&self, stops: f64) -> (Metres, f64) {
        let light = |distance: Metres| self.throw.exposure(1.0, distance);
        let here = light(self.set);
        let wanted = self.throw.distance_for(1.0, here * Stops::from_stops(stops).as_ratio());
        let metres = wanted.map_or(Self::NEAREST, |distance| distance.as_metres()).clamp(Self::NEAREST, Self::FARTHEST);
        let found = Metres::from_metres((metres * 100.0).round() / 100.0);
        (found, Stops::from_ratio(light(found) / here).as_stops())
    }
}

impl Board {
    /// Lays out what may move.
    pub fn of(plan: &Plan, look: &Look, fixed: &[Held]) -> Self {
        let (now, seen) = (plan.settings, outlook(plan));
        let may = |control: Held| !fixed.contains(&control);
        let glow = now.sync == SyncMode::HighSpeed;
        let stays = |stops: f64| stops.abs() < 1e-9;

        let confusion = plan.usage.allowed_blur(&plan.body.sensor);
        let aperture = |value: Aperture| AperturePlace {
            value,
            stops: -2.0 * (value.number() / now.aperture.number()).log2(),
            depth_off: look.depth.map_or(0.0, |was| {
                (was / nearness(&depth(plan.body.focal, value, plan.subject_distance, confusion))).log2()
            }),
        };
        let shutter = |value: ShutterTime| {
            let run = Run { time: value.time(), ..seen.run };
            let change = high_speed::loss(run, plan.light.unit.efficiency)
                - high_speed::loss(seen.run, plan.light.unit.efficiency);
            ShutterPlace {
                value,
                stops: (value.time() / now.shutter.time()).log2(),
                flash_stops: if glow { change.as_stops() } else { 0.0 },
                longer: look.freeze.filter(|_| glow).map_or(0.0, |was| (value.time().as_secs() / was).log2().max(0.0)),
            }
        };
        let power = |value: f64| PowerPlace {
            value,
            stops: (value / now.power).log2(),
            longer: look.freeze.filter(|_| !glow).map_or(0.0, |was| {
                let time = match plan.school {
                    School::T01 => plan.light.unit.control.times(value).1,
                    School::T05 => plan.light.unit.control.times(value).0,
                    School::T90 => plan.light.unit.control.at(value).durations.t90,
                };
                (time.as_secs() / was).log2().max(0.0)
            }),
        };

        // What is set stands first, on the dial or between two of its positions.
        let mut apertures = vec![aperture(now.aperture)];
        if may(Held::Aperture) {
            apertures.extend(strips::apertures(&plan.body).map(aperture).filter(|place| !stays(place.stops)));
        }
        let mut shutters = vec![shutter(now.shutter)];
        if may(Held::Shutter) {
            shutters.extend(strips::shutters(&plan.body).map(shutter).filter(|place| !stays(place.stops)));
        }
        let mut isos = vec![Place { value: now.iso, stops: 0.0 }];
        if may(Held::Iso) {
            let place = |value: Iso| Place { value, stops: (value.number() / now.iso.number()).log2() };
            isos.extend(strips::isos(&plan.body).map(place).filter(|place| !stays(place.stops)));
        }
        let mut filters = vec![Place { value: now.filter, stops: 0.0 }];
        if may(Held::Filter) {
            let place = |value: Stops| Place { value, stops: (now.filter - value).as_stops() };
            filters.extend(strips::filters().map(place).filter(|place| !stays(place.stops)));
        }
        let mut powers = vec![power(now.power)];
        if may(Held::Power) {
            powers.extend(strips::powers(&plan.light).map(power).filter(|place| !stays(place.stops)));
        }
        let distances = may(Held::FlashDistance)
            .then_some(Distances { throw: plan.light.throw, set: now.flash_distance })
            .filter(|_| plan.light.on);
        let away = |was: Option<Stops>, is: Stops| {
            was.filter(|was| was.as_stops().is_finite() && is.as_stops().is_finite()).map(|was| (is - was).as_stops())
        };
        Self {
            now,
            apertures,
            shutters,
            isos,
            filters,
            powers,
            distances,
            key_off: away(look.key, seen.flash.placement),
            ambient_off: away(look.ambient, seen.ambient.placement),
            background_off: away(look.background, seen.background.placement),
            fixed: fixed.to_vec(),
        }
    }

    /// Controls that may move and stand at an end of their range, as said.
    pub fn at_their_ends(&self, to: &Settings) -> Vec<&'static str> {
        let at_end = |values: &mut dyn Iterator<Item = f64>, set: f64| {
            let (low, high) = values.fold((f64::MAX, f64::MIN), |(low, high), value| (low.min(value), high.max(value)));
            set <= low * (1.0 + 1e-9) || set >= high * (1.0 - 1e-9)
        };
        CONTROLS
            .into_iter()
            .filter(|control| !self.fixed.contains(control))
            .filter(|control| match control {
                Held::Aperture => at_end(&mut self.apertures.iter().map(|p| p.value.number()), to.aperture.number()),
                Held::Shutter => {
                    at_end(&mut self.shutters.iter().map(|p| p.value.time().as_secs()), to.shutter.time().as_secs())
                }
                Held::Iso => at_end(&mut self.isos.iter().map(|p| p.value.number()), to.iso.number()),
                Held::Power => at_end(&mut self.powers.iter().map(|p| p.value), to.power),
                _ => false,
            })
            .map(Held::words)
            .collect()
    }
}
