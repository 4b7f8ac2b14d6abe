//! What goes in front of a light or a lens, checked.

use super::check::At;
use crate::file::gear::{Filter, Hue, Modifier};
use crate::physics::output::colour::{self, CLEAR, Dye};
use crate::physics::output::{Beam, Face};
use crate::quantity::Stops;
use crate::quantity::bounds::{self, Invalid};

/// A checked modifier.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Front {
    /// `M`, all layers.
    pub change: Stops,
    /// The lit face.
    pub face: Face,
    /// Its beam, where known.
    pub beam: Option<Beam>,
}

impl Modifier {
    pub(crate) fn check(&self, at: &At) -> Result<Front, Invalid> {
        at.name("name", &self.name, "a name")?;
        let layers = at.figure("diffusion_layers", f64::from(self.diffusion_layers.unwrap_or(0)), &bounds::LAYERS)?;
        let each = at.stops("layer_stops", self.layer_stops.unwrap_or(0.0), &bounds::LAYER)?;
        let angle = self.half_angle_deg.map(|value| at.degrees("half_angle_deg", value, &bounds::BEAM)).transpose()?;
        let grid = self.grid_deg.map(|value| at.degrees("grid_deg", value, &bounds::BEAM)).transpose()?;
        at.maybe("mass_kg", self.mass_kg, &bounds::MASS)?;
        Ok(Front {
            change: at.stops("stops", self.stops, &bounds::MODIFIER)? + Stops::from_stops(each.as_stops() * layers),
            face: Face {
                radius: at.metres("face_radius_m", self.face_radius_m, &bounds::FACE)?,
                offset: at.metres("source_offset_m", self.source_offset_m, &bounds::SOURCE_OFFSET)?,
            },
            beam: (angle.is_some() || grid.is_some()).then(|| Beam::new(angle, grid)),
        })
    }
}

/// What a hue leaves of red, green and blue; all of it where there is none.
pub(crate) fn dye_of(hue: Option<&Hue>) -> Dye {
    hue.map_or(CLEAR, |hue| colour::dye(hue.hue_deg, hue.saturation))
}

/// What a gel does to light: its shift in mired, and its dye.
pub(crate) fn tinted_by(gel: Option<&Filter>) -> (f64, Dye) {
    gel.map_or((0.0, CLEAR), |gel| (gel.mired, dye_of(gel.hue.as_ref())))
}

impl Hue {
    pub(crate) fn check(&self, at: &At) -> Result<(), Invalid> {
        at.figure("hue_deg", self.hue_deg, &bounds::HUE)?;
        at.figure("saturation", self.saturation, &bounds::SATURATION).map(|_| ())
    }
}

impl Filter {
    pub(crate) fn check(&self, at: &At) -> Result<Stops, Invalid> {
        at.name("name", &self.name, "a name")?;
        at.figure("mired", self.mired, &bounds::MIRED)?;
        self.hue.as_ref().map_or(Ok(()), |hue| hue.check(&at.inside("hue")))?;
        at.stops("loss_stops", self.loss_stops, &bounds::FILTER)
    }
}
