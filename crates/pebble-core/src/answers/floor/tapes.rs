//! The tape measure: between two places, and what was taped against what is planned.

use super::moves::no_such_light;
use super::place;
use super::said::{TapedSaid, TapedStand};
use crate::file::shot::Role;
use crate::plan::Plan;
use crate::plan::check::At;
use crate::quantity::bounds::{self, Invalid};
use crate::quantity::words::signed;
use crate::stage::field::Lamp;
use crate::stage::lens::Lens;
use crate::stage::space::{Spot, spot};
use crate::stage::tape;

/// A tape read to the centimetre, pulled by hand: less than this is no misfit, in metres.
const PULLED_M: f64 = 0.03;

/// How far it is between two places.
pub(super) fn measured(plan: &Plan, ends: [[f64; 3]; 2]) -> Result<String, Invalid> {
    let at = At::new("measure");
    let end = |[x, y, z]: [f64; 3]| {
        let floor = |value| at.figure("x_m", value, &bounds::STANDS);
        Ok(spot(floor(x)?, floor(y)?, at.figure("z_m", z, &bounds::LIFTED)?))
    };
    let (from, to) = (end(ends[0])?, end(ends[1])?);
    let flat = (to.x - from.x).hypot(to.y - from.y);
    let rise = to.z - from.z;
    let say = |metres: f64| plan.lengths.say(metres, 2);
    Ok(if rise.abs() < 0.005 {
        say(flat)
    } else {
        format!("{}, {} along the floor", say((to - from).length()), say(flat))
    })
}

/// Where a stand is by its tapes, and what that costs.
pub(super) fn taped(plan: &Plan, lens: &Lens, lamps: &[Lamp], stand: TapedStand) -> Result<TapedSaid, Invalid> {
    let at = At::new("taped");
    let lamp = lamps.get(stand.light).ok_or_else(|| no_such_light("taped.light", stand.light, lamps.len()))?;
    if plan.lights[stand.light].on_camera {
        let given = plan.lights[stand.light].label.clone();
        return Err(at.contradiction("light", given, "it sits on the camera, and has no stand to tape"));
    }
    let to_mark = at.figure("to_mark_m", stand.to_mark_m, &bounds::TAPE)?;
    let to_camera = at.figure("to_camera_m", stand.to_camera_m, &bounds::TAPE)?;
    let eye = lens.view.eye;
    let foot = spot(eye.x, eye.y, 0.0);
    let found = tape::taped(to_mark, to_camera, stand.right, Spot::default(), foot).ok_or_else(|| {
        let between = plan.lengths.say(eye.y.abs(), 2);
        let reason = format!(
            "with {} to the mark the two tapes cannot meet: mark and camera are {between} apart",
            plan.lengths.say(to_mark, 2)
        );
        at.contradiction("to_camera_m", plan.lengths.say(to_camera, 2), reason)
    })?;
    let to = spot(found.0, found.1, lamp.at.z);
    let off = (to.x - lamp.at.x).hypot(to.y - lamp.at.y);
    let middle = plan.measured_to(stand.light);
    let there = Lamp { at: to, turned: plan.turned(stand.light, to), ..*lamp };
    let stops = (there.on(middle) / lamp.on(middle)).log2();
    let misfit = (stand.to_chest_m)
        .map(|measured| {
            at.figure("to_chest_m", measured, &bounds::TAPE).map(|to_chest| to_chest - (to - middle).length())
        })
        .transpose()?;
    let fits = match misfit {
        Some(by) if by.abs() > PULLED_M => {
            format!(
                " The third tape is {} off the first two: one of them, or the height, is not as said.",
                plan.lengths.say(by.abs(), 2)
            )
        }
        Some(_) => " The third tape agrees.".to_owned(),
        None => String::new(),
    };
    let whom = if plan.lights[stand.light].role == Role::Backdrop { "the background" } else { "the mark" };
    let moved = if off <= PULLED_M {
        "It stands as planned.".to_owned()
    } else {
        format!("It stands {} from the plan: {} at {}.", plan.lengths.say(off, 2), signed(stops), whom)
    };
    Ok(TapedSaid { to: place(to), off_m: off, off_stops: stops, misfit_m: misfit, says: format!("{moved}{fits}") })
}
