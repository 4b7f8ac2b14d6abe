//! What tells a flash to fire, what feeds it, and the lamps that burn steadily.

use crate::wire::{wire, word};

wire! {
    /// The trigger.
    pub struct Trigger {
        /// Identity in the kit.
        pub id: String,
        /// What it is.
        pub name: String,
        /// Its delay.
        pub lag_ms: f64,
        /// How far it reaches, as the maker says.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub range_m: Option<f64>,
        /// Channels to choose from.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub channels: Option<u32>,
        /// Groups it can tell apart.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub groups: Option<u32>,
    }
}

wire! {
    /// A battery.
    pub struct Battery {
        /// Identity in the kit.
        pub id: String,
        /// What it is.
        pub name: String,
        /// Energy that can be taken from it.
        pub usable_wh: f64,
        /// Share of that which reaches the flash's store.
        pub efficiency: f64,
        /// What the unit draws while it waits.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub idle_w: Option<f64>,
        /// Weight.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub mass_kg: Option<f64>,
    }
}

word! {
    /// How steady a lamp is within one picture.
    pub enum Flicker {
        /// As the sun.
        None,
        /// Twice in every mains cycle, a little.
        Some,
        /// Twice in every mains cycle, nearly to dark.
        Strong,
    }
}

wire! {
    /// A lamp that burns while the picture is taken.
    pub struct Lamp {
        /// Identity in the kit.
        pub id: String,
        /// What it is.
        pub name: String,
        /// Illuminance on axis at one metre.
        pub lux_at_1m: f64,
        /// Colour temperature; of a coloured one, of its white.
        pub colour_k: f64,
        /// Its hue, where it makes a colour.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub hue: Option<super::Hue>,
        /// Half-power half-angle of its beam, where known.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub half_angle_deg: Option<f64>,
        /// Whether it is the modelling lamp of a flash.
        #[serde(default)]
        pub modelling: bool,
        /// How steady it is.
        pub flicker: Flicker,
        /// What it draws.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub watts: Option<f64>,
    }
}
