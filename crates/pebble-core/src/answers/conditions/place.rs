//! Where a light stands in the picture, as far as bearing, height and distance say.

use crate::file::shot::Role;
use crate::plan::Plan;
use crate::stage::CHEST_M;
use crate::stage::framing::shown;
use crate::stage::space::spot;

/// Half the width of a figure that hides what stands behind it.
const FIGURE_M: f64 = 0.3;

/// How far from the middle of the frame a light's head or stand is seen, in half frames, when it is seen at all: 0 in the
/// middle, 1 at the edge. What stands on the camera's side, lights the background or is meant to be in the set is not.
pub(super) fn in_frame(plan: &Plan, index: usize) -> Option<f64> {
    let light = &plan.lights[index];
    if !light.is_behind() || matches!(light.role, Role::Backdrop | Role::InSet) || light.bounce.is_some() {
        return None;
    }
    let distance = plan.settings.lights[index].distance.as_metres();
    let (bearing, height) = (light.bearing.as_radians(), light.height.as_radians());
    let (aside, behind) = (distance * height.cos() * bearing.sin(), -distance * height.cos() * bearing.cos());
    let up = distance * height.sin();
    // The frame is as much larger behind the subject as it is farther from the lens; it looks where the stage says.
    let head = spot(aside, behind, CHEST_M + up);
    let seen = plan.stage.view(plan.subject_distance).seen(head)?;
    let magnification = crate::physics::motion::magnification(plan.body.focal, plan.subject_distance);
    let (wide, high) = plan.frame();
    let half = |side: crate::quantity::Metres| side.as_metres() / magnification / 2.0;
    let (right, over) = shown(plan.stage.upright(), seen.along, seen.across);
    let (across, upward) = (right.abs() / half(wide), over / half(high));
    let farther = seen.depth / plan.subject_distance.as_metres();
    let hidden = aside.abs() < FIGURE_M * farther && up < CHEST_M;
    // Its stand goes down to the floor: it is seen where the head is in the picture, or above it.
    let seen = across < 1.0 && upward > -1.0 && !hidden;
    seen.then_some(across)
}
