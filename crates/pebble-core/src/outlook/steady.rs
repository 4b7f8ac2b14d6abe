//! What burns while the shutter is open, and what it gives anywhere in the set.

use super::light::LightOutlook;
use super::{Incident, Outlook};
use crate::physics::output::colour::Dye;
use crate::plan::{Lamp, Plan};
use crate::quantity::{Lux, LuxSeconds, Metres, Seconds};
use crate::stage::field::{self, CHEST};
use crate::stage::space::Spot;

/// A lamp that burns while the shutter is open.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct SteadyOutlook {
    /// Which lamp or which flash's modelling lamp.
    pub of: Burns,
    /// On the subject.
    pub on_subject: Incident,
    /// On the background.
    pub on_background: Incident,
    /// Its colour, in kelvin.
    pub kelvin: f64,
    /// What hues leave of red, green and blue.
    pub dye: Dye,
}

/// What burns.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Burns {
    /// A lamp of the plan.
    Lamp(usize),
    /// The modelling lamp of a flash.
    Modelling(usize),
}

impl Burns {
    /// Whether it is known where it stands: of a lamp where somebody said so; a modelling lamp stands where its flash does.
    pub fn stands(self, plan: &Plan) -> bool {
        match self {
            Self::Lamp(index) => plan.lamps[index].stands.is_some(),
            // By way of a surface it comes from all over that; on a backdrop it lights nothing else.
            Self::Modelling(index) => {
                plan.lights[index].bounce.is_none() && plan.lights[index].role != crate::file::shot::Role::Backdrop
            }
        }
    }

    /// Whether it reaches a part.
    pub fn reaches(self, plan: &Plan, part: usize) -> bool {
        match self {
            Self::Lamp(index) => plan.lamps[index].reaches(part),
            Self::Modelling(index) => plan.lights[index].reaches(part),
        }
    }
}

/// Steady light in space. What comes from nowhere in particular, as a room's, is taken as even.
#[derive(Clone, Debug, PartialEq)]
pub struct SteadyField {
    /// What is even, in lx·s.
    even: f64,
    /// Lamps that stand somewhere, and how much of their light there is.
    lamps: Vec<(field::Shining, f64)>,
    /// What domes are turned to.
    eye: Spot,
}

impl SteadyField {
    /// What a dome gets at a place that is turned to the camera, in lx·s; at the mark what the forecast has there.
    pub fn on_dome(&self, place: Spot) -> f64 {
        self.lamps.iter().fold(self.even, |sum, (lamp, share)| sum + share * lamp.on_dome(place, self.eye))
    }

    /// Whether any of it comes from a place.
    pub fn has_lamps(&self) -> bool {
        !self.lamps.is_empty()
    }
}

impl Outlook {
    /// What burns in space, where it is known to stand: what it gives while the shutter is open, in lx·s.
    pub fn standing(&self, plan: &Plan, of: Burns) -> Option<field::Lamp> {
        if !of.stands(plan) {
            return None;
        }
        let open = self.run.time.as_secs();
        match of {
            Burns::Lamp(index) => {
                let stands = plan.lamps[index].stands?;
                Some(field::Lamp { strength: stands.strength * plan.settings.lamps.as_ratio() * open, ..stands })
            }
            Burns::Modelling(index) => {
                let (light, flash) = (&plan.lights[index], self.lamp(plan, index));
                let glow = light.modelling?.at(self.lights[index].power) * open;
                let at_mark = glow / light.throw.face.spread(plan.settings.lights[index].distance);
                // The flash's own beam and axis, at the level that the forecast has at the mark.
                let share = at_mark / flash.on(CHEST);
                Some(field::Lamp { strength: if share.is_finite() { flash.strength * share } else { glow }, ..flash })
            }
        }
    }

    /// The steady light over the set, to a camera at a place.
    pub fn steady_field(&self, plan: &Plan, eye: Spot) -> SteadyField {
        let mut field = SteadyField { even: self.room.exposure.as_lux_seconds(), lamps: Vec::new(), eye };
        for source in &self.steady {
            let gives = source.on_subject.exposure.as_lux_seconds();
            // As much as the forecast has at the mark: one number. What gives nothing there gives what it gives elsewhere.
            let at_mark = |lamp: &field::Lamp| lamp.on_dome(CHEST, eye);
            match (self.standing(plan, source.of), source.of) {
                (Some(lamp), _) if at_mark(&lamp) > 0.0 => field.lamps.push((lamp.shining(), gives / at_mark(&lamp))),
                (Some(lamp), Burns::Lamp(_)) => field.lamps.push((lamp.shining(), 1.0)),
                _ => field.even += gives,
            }
        }
        field
    }
}

pub(super) fn steady(plan: &Plan, lights: &[LightOutlook], time: Seconds, reference: LuxSeconds) -> Vec<SteadyOutlook> {
    let source = |light: Lux| Incident::of(light * time, reference);
    let turned = plan.settings.lamps.as_ratio();
    let lamps = plan.lamps.iter().enumerate().map(|(index, lamp): (usize, &Lamp)| SteadyOutlook {
        of: Burns::Lamp(index),
        on_subject: source(lamp.on_subject * turned),
        on_background: source(lamp.on_background * turned),
        kelvin: lamp.kelvin,
        dye: lamp.dye,
    });
    let modelling = plan.lights.iter().zip(lights).enumerate().filter_map(|(index, (light, seen))| {
        let glow = light.modelling.filter(|_| light.on)?;
        let distance = plan.settings.lights[index].distance;
        let strength = glow.at(seen.power);
        let at = |distance: Metres| Lux::from_lux(strength / light.throw.face.spread(distance));
        let frontal = light.is_frontal() || light.role == crate::file::shot::Role::Rim;
        let behind = if light.is_behind() {
            Lux::ZERO
        } else if frontal {
            at(distance + plan.background_behind) * plan.spill.as_ratio()
        } else {
            at(distance)
        };
        Some(SteadyOutlook {
            of: Burns::Modelling(index),
            on_subject: source(if light.is_frontal() { at(distance) } else { Lux::ZERO }),
            on_background: source(behind),
            kelvin: glow.kelvin,
            dye: glow.dye,
        })
    });
    lamps.chain(modelling).collect()
}
