//! What goes in front of a light or a lens: modifiers, gels and filters.

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
        #[serde(default)]
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
        /// Bellows, a ring or a lens that brings the subject nearer: the light it costs.
        CloseUp,
    }
}

wire! {
    /// A colour by its hue: of a dye, or of a lamp that makes it.
    pub struct Hue {
        /// Round the wheel: 0 is red, 120 green, 240 blue.
        pub hue_deg: f64,
        /// How much of everything else is not there, 0 to 1.
        pub saturation: f64,
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
        #[serde(default)]
        pub mired: f64,
        /// Its hue, of one that does more than warm or cool.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub hue: Option<Hue>,
    }
}
