//! Lights that sit on the camera: they stand where it stands, and go where it goes.

use super::{Dials, Light, Plan};
use crate::plan::check::At;
use crate::quantity::bounds::{self, Invalid};
use crate::quantity::{Angle, Metres};
use crate::stage::field::set_so;
use crate::stage::framing::View;
use crate::stage::space::spot;

/// The middle of a flash's face over the lens it sits above.
const OVER_LENS_M: f64 = 0.15;

/// Puts the lights that sit on the camera where it is.
///
/// # Errors
/// [`Invalid`] where it is farther from the subject than any flash is set for.
pub(super) fn set_down(lights: &mut [Light], dials: &mut Dials, view: &View) -> Result<(), Invalid> {
    let (bearing, height, distance) = set_so(view.eye + spot(0.0, 0.0, OVER_LENS_M));
    for (index, light) in lights.iter_mut().enumerate().filter(|(_, light)| light.on_camera) {
        if bounds::FLASH_DISTANCE.check("", distance).is_err() {
            let reason = format!("the camera is {distance:.1} m from the subject: no flash is set for that");
            return Err(At::default().row("lights", index).contradiction("on_camera", "true".to_owned(), reason));
        }
        (light.bearing, light.height) = (Angle::from_degrees(bearing), Angle::from_degrees(height));
        dials[index].distance = Metres::from_metres(distance);
    }
    Ok(())
}

impl Plan {
    /// The same set with the camera nearer or farther, and what sits on it.
    pub(crate) fn seen_from(&self, distance: Metres) -> Self {
        let mut plan = Self { subject_distance: distance, ..self.clone() };
        let mut lights = plan.lights.to_vec();
        // From where no flash is set for, the light stays where the farthest is.
        if set_down(&mut lights, &mut plan.settings.lights, &plan.stage.view(distance)).is_ok() {
            plan.lights = lights.into();
        }
        plan
    }
}
