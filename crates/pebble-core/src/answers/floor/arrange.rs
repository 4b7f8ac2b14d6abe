//! The lights of one set put on another: where they stand, what they are, and as bright against the subject.

use super::said::ArrangedAnswer;
use crate::answers::standing::{held, spot_of};
use crate::file::shot::Shot;
use crate::outlook::outlook;
use crate::plan::Plan;
use crate::quantity::Stops;
use crate::quantity::bounds::Invalid;
use crate::quantity::words::signed;
use crate::stage::field::noted_around;
use crate::stage::space::Spot;

/// Less than this is the step of a dial, in stops.
const NOTICED: f64 = 0.2;

/// A shot with the lights of another, fitted to its own camera and room: what stood in a corner of a room stands in that corner
/// of this one, a light that would be seen goes back on its own line until it is not, and each falls against mid-grey where
/// it fell there, as near as its dial has it. With it, what could not stay as it was.
///
/// # Errors
/// [`Invalid`] for a shot that cannot be, or a set that does not go with it.
pub fn arranged(shot: &Shot, of: &Shot) -> Result<ArrangedAnswer, Invalid> {
    let there = Plan::try_from(of)?;
    let fell: Vec<Stops> = outlook(&there).lights.iter().map(|light| light.on_set.placement).collect();
    let mut shot = Shot { lights: of.lights.clone(), channel: of.channel, ..shot.clone() };
    for light in &mut shot.lights {
        // Parts are those of another subject, and so are readings and flags of another place.
        light.misses.clear();
        (light.metered, light.flag) = (None, None);
    }
    let plan = Plan::try_from(&shot)?;
    let mut says = Vec::new();
    for (index, light) in shot.lights.iter_mut().enumerate() {
        let stood = spot_of(&plan, index);
        let (at, why) = fitted(&plan, &there, index, stood);
        if let Some(why) = why {
            let middle = plan.measured_to(index);
            let away = (at - middle).length();
            let label = &plan.lights[index].label;
            says.push(if at == stood {
                format!("{label} {why}.")
            } else {
                let was = (stood - middle).length();
                let say = |metres: f64| plan.lengths.say(metres, 2);
                format!("{label} stands {} away instead of {}: {why}.", say(away), say(was))
            });
        }
        if at != stood {
            (light.bearing_deg, light.height_deg, light.distance_m) = noted_around(plan.measured_to(index), at);
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
    let plan = Plan::try_from(&shot)?;
    for (index, light) in outlook(&plan).lights.iter().enumerate() {
        let off = (light.on_set.placement - fell[index]).as_stops();
        if plan.settings.lights[index].bias.is_none() && off.is_finite() && off.abs() > NOTICED {
            let of = &plan.lights[index];
            let (power, lowest) = (plan.settings.lights[index].power, (-of.unit.lowest).as_ratio());
            // A dial of whole stops may stand between its ends and be off all the same.
            let why = match off < 0.0 {
                true if power > 0.99 => "it has no more power",
                false if power < lowest * 1.01 => "its power goes no lower",
                _ => "its dial has nothing nearer",
            };
            says.push(format!("{} falls {} from where it fell: {why}.", of.label, signed(off)));
        }
    }
    Ok(ArrangedAnswer { shot, says })
}

/// Where a light stands in this set, and why not where it stood.
fn fitted(plan: &Plan, there: &Plan, index: usize, stood: Spot) -> (Spot, Option<&'static str>) {
    let (light, radius) = (&plan.lights[index], plan.lights[index].throw.face.radius.as_metres());
    if light.on_camera {
        return (stood, None);
    }
    let at = match (&plan.room, &there.room) {
        (Some(here), Some(other)) => here.holding(here.as_in(other, stood), radius),
        (Some(here), None) => here.holding(stood, radius),
        _ => stood,
    };
    let moved = (at != stood).then_some("fitted to this room");
    let (lens, middle) = (plan.lens(), plan.measured_to(index));
    let seen = light.bounce.is_none() && lens.shows(at, held(light)).any();
    let away = (at - middle).length();
    let Some(clear) = seen.then(|| lens.nearest(middle, at, held(light))).flatten().filter(|clear| *clear > away)
    else {
        return (at, moved);
    };
    let clear = middle + (at - middle).unit() * clear;
    if plan.room.is_some_and(|room| room.beyond(clear, radius).is_some()) {
        let stays = "stays in the picture, for the room ends behind it";
        let fitted = "fitted to this room, and stays in the picture, for the room ends behind it";
        return (at, Some(moved.map_or(stays, |_| fitted)));
    }
    (clear, Some(moved.map_or("out of the picture", |_| "fitted to this room, and out of the picture")))
}
