//! The lights of one set put on another: where they stand, what they are, and as bright against the subject.

use crate::answers::standing::{held, spot_of};
use crate::file::shot::Shot;
use crate::outlook::outlook;
use crate::plan::Plan;
use crate::quantity::Stops;
use crate::quantity::bounds::Invalid;
use crate::stage::field::noted;

/// A shot with the lights of another, fitted to its own camera: a light that would be seen goes back on its own line until it
/// is not, and each falls against mid-grey where it fell there, as near as its dial has it.
///
/// # Errors
/// [`Invalid`] for a shot that cannot be, or a set that does not go with it.
pub fn arranged(shot: &Shot, of: &Shot) -> Result<Shot, Invalid> {
    let there = Plan::try_from(of)?;
    let fell: Vec<Stops> = outlook(&there).lights.iter().map(|light| light.on_set.placement).collect();
    let mut shot = Shot { lights: of.lights.clone(), channel: of.channel, ..shot.clone() };
    for light in &mut shot.lights {
        // Parts are those of another subject, and so are readings and flags of another place.
        light.misses.clear();
        (light.metered, light.flag) = (None, None);
    }
    let plan = Plan::try_from(&shot)?;
    let lens = plan.lens();
    for (index, light) in shot.lights.iter_mut().enumerate() {
        let at = spot_of(&plan, index);
        let seen = light.bounce.is_none() && lens.shows(at, held(&plan.lights[index])).any();
        let clear = seen.then(|| lens.nearest(at, held(&plan.lights[index]))).flatten();
        if let Some(away) = clear.filter(|away| *away > light.distance_m) {
            let chest = crate::stage::field::CHEST;
            (light.bearing_deg, light.height_deg, light.distance_m) = noted(chest + (at - chest).unit() * away);
        }
    }
    let plan = Plan::try_from(&shot)?;
    let falls = outlook(&plan);
    for (index, light) in shot.lights.iter_mut().enumerate() {
        let by = (fell[index] - falls.lights[index].on_set.placement).as_ratio();
        if light.automatic.is_none() && by.is_finite() && by > 0.0 {
            light.power = plan.lights[index].unit.nearest_power(light.power * by);
        }
    }
    Plan::try_from(&shot)?;
    Ok(shot)
}
