//! What goes in front of a light or a lens: modifiers, gels and filters.

use super::check::At;
use crate::output::{Beam, Face};
use crate::quantity::Stops;
use crate::quantity::bounds::{self, Invalid};
use crate::wire::{wire, word};

wire! {
    /// What is in front of the flash.
    pub struct Modifier {
        /// Identity in the kit.
        pub id: String,
        /// What it is.
        pub name: String,
        /// Its change of light on axis with one layer of its cloth; a loss is negative.
        pub stops: f64,
        /// Radius of the lit face; of a long one, the radius of a disc of the same area.
        pub face_radius_m: f64,
        /// How far behind the face the light seems to come from.
        pub source_offset_m: f64,
        /// Half-power half-angle of its beam, where known.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub half_angle_deg: Option<f64>,
        /// Cut-off half-angle of a honeycomb grid on it.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub grid_deg: Option<f64>,
        /// Further layers of diffusion.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub diffusion_layers: Option<u32>,
        /// Change of light by each of them, negative.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub layer_stops: Option<f64>,
        /// Weight.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub mass_kg: Option<f64>,
    }
}

word! {
    /// Where a filter goes and what for.
    pub enum FilterUse {
        /// Colour in front of a light.
        Gel,
        /// Neutral grey in front of the lens.
        Nd,
        /// Polariser in front of the lens.
        Polariser,
        /// Colour in front of the lens.
        Lens,
    }
}

wire! {
    /// A gel or a filter.
    pub struct Filter {
        /// Identity in the kit.
        pub id: String,
        /// What it is.
        pub name: String,
        /// Where it goes.
        pub used_as: FilterUse,
        /// Its loss, positive.
        pub loss_stops: f64,
        /// Its shift of colour; positive is warmer.
        pub mired: f64,
    }
}

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
