//! The colour in which each light draws, against the white balance: linear red, green, blue of luminance 1.

use super::{Outlook, SteadyOutlook};
use crate::physics::output::colour::{CLEAR, Dye, dyed, mixed, seen_as, shifted, stacked};
use crate::plan::Plan;
use crate::quantity::LuxSeconds;

impl Outlook {
    /// A flash.
    pub fn flash_tint(&self, plan: &Plan, light: usize) -> [f64; 3] {
        let of = &plan.lights[light];
        seen(plan, of.kelvin(self.lights[light].power), of.dye())
    }

    /// What burns.
    pub fn steady_tint(&self, plan: &Plan, source: &SteadyOutlook) -> [f64; 3] {
        seen(plan, source.kelvin, source.dye)
    }

    /// All steady light on a part, or on the subject where no part is meant.
    pub fn ambient_tint(&self, plan: &Plan, part: Option<usize>) -> [f64; 3] {
        self.ambient_of(plan, part, |_| true).1
    }

    /// The steady light there that comes from nowhere in particular: the room's, and lamps of which it is not known where
    /// they stand. With its colour.
    pub fn ambient_around(&self, plan: &Plan, part: Option<usize>) -> (LuxSeconds, [f64; 3]) {
        self.ambient_of(plan, part, |lamp| !lamp.of.stands(plan))
    }

    fn ambient_of(
        &self,
        plan: &Plan,
        part: Option<usize>,
        counts: impl Fn(&SteadyOutlook) -> bool,
    ) -> (LuxSeconds, [f64; 3]) {
        let offset = part.map_or(1.0, |part| plan.parts[part].ambient_offset.as_ratio());
        let reaches = |lamp: &&SteadyOutlook| part.is_none_or(|part| lamp.of.reaches(plan, part));
        let lamps: Vec<_> = { self.steady.iter().filter(reaches).filter(|lamp| counts(lamp)) }
            .map(|lamp| (lamp, lamp.on_subject.exposure))
            .collect();
        let room = self.room.exposure * offset;
        let all = lamps.iter().fold(room, |sum, (_, light)| sum + *light);
        (all, tint(plan, room, lamps.into_iter()))
    }

    /// All steady light on the background.
    pub fn background_tint(&self, plan: &Plan) -> [f64; 3] {
        let read = plan.background_light * self.run.time;
        tint(plan, read, self.steady.iter().map(|lamp| (lamp, lamp.on_background.exposure)))
    }
}

/// A light as it is seen through what is before the lens.
fn seen(plan: &Plan, kelvin: f64, dye: Dye) -> [f64; 3] {
    let lens = &plan.before_lens;
    dyed(seen_as(shifted(kelvin, lens.mired), plan.white_balance), stacked(dye, lens.dye))
}

fn tint<'a>(plan: &Plan, read: LuxSeconds, lamps: impl Iterator<Item = (&'a SteadyOutlook, LuxSeconds)>) -> [f64; 3] {
    let room = (seen(plan, plan.ambient_kelvin, CLEAR), read.as_lux_seconds());
    let lamps = lamps.map(|(lamp, light)| (seen(plan, lamp.kelvin, lamp.dye), light.as_lux_seconds()));
    mixed(std::iter::once(room).chain(lamps))
}
