//! Where a light stands in the picture, as far as bearing, height and distance say.

use crate::file::shot::Role;
use crate::plan::Plan;

/// Half the width of a figure that hides what stands behind it.
const FIGURE_M: f64 = 0.3;
/// The subject's chest over the floor, which lights are aimed at and measured to.
const CHEST_M: f64 = 1.3;

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
    // The frame is as much larger behind the subject as it is farther from the lens.
    let subject = plan.subject_distance.as_metres();
    let farther = (subject + behind) / subject;
    let magnification = crate::physics::motion::magnification(plan.body.focal, plan.subject_distance);
    let half = |side: crate::quantity::Metres| side.as_metres() / magnification * farther / 2.0;
    let (across, upward) = (aside.abs() / half(plan.body.sensor.width), half(plan.body.sensor.height));
    let hidden = aside.abs() < FIGURE_M * farther && up < CHEST_M;
    // Its stand goes down to the floor: it is seen where the head is in the picture, or above it.
    let seen = across < 1.0 && up > -upward && !hidden;
    seen.then_some(across)
}
