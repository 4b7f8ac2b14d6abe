//! What goes in front of a light or a lens, checked.

use super::check::At;
use crate::file::gear::{Filter, Modifier};
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
        let layers = bounds::LAYERS.check(&at.of("diffusion_layers"), f64::from(self.diffusion_layers.unwrap_or(0)))?;
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

impl Filter {
    pub(crate) fn check(&self, at: &At) -> Result<Stops, Invalid> {
        at.name("name", &self.name, "a name")?;
        bounds::MIRED.check(&at.of("mired"), self.mired)?;
        at.stops("loss_stops", self.loss_stops, &bounds::FILTER)
    }
}
