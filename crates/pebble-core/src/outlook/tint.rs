//! The colour in which each light draws, against the white balance: linear red, green, blue of luminance 1.

use super::{Burns, Outlook, SteadyOutlook};
use crate::physics::output::colour::{mixed, seen_as};
use crate::plan::Plan;
use crate::quantity::LuxSeconds;

impl Outlook {
    /// A flash.
    pub fn flash_tint(&self, plan: &Plan, light: usize) -> [f64; 3] {
        seen_as(plan.lights[light].kelvin(self.lights[light].power), plan.white_balance)
    }

    /// All steady light on a part, or on the subject where no part is meant.
    pub fn ambient_tint(&self, plan: &Plan, part: Option<usize>) -> [f64; 3] {
        let offset = part.map_or(1.0, |part| plan.parts[part].ambient_offset.as_ratio());
        let reaches = |lamp: &&SteadyOutlook| {
            part.is_none_or(|part| match lamp.of {
                Burns::Lamp(index) => plan.lamps[index].reaches(part),
                Burns::Modelling(light) => plan.lights[light].reaches(part),
            })
        };
        let lamps = self.steady.iter().filter(reaches).map(|lamp| (lamp.kelvin, lamp.on_subject.exposure));
        tint(plan, self.room.exposure * offset, lamps)
    }

    /// All steady light on the background.
    pub fn background_tint(&self, plan: &Plan) -> [f64; 3] {
        let read = plan.background_light * self.run.time;
        tint(plan, read, self.steady.iter().map(|lamp| (lamp.kelvin, lamp.on_background.exposure)))
    }
}

fn tint(plan: &Plan, read: LuxSeconds, lamps: impl Iterator<Item = (f64, LuxSeconds)>) -> [f64; 3] {
    let lights = std::iter::once((plan.ambient_kelvin, read)).chain(lamps);
    mixed(lights.map(|(kelvin, light)| (seen_as(kelvin, plan.white_balance), light.as_lux_seconds())))
}
