//! Cameras and lenses.

use crate::quantity::scale::Grid;
use crate::wire::{wire, word};

word! {
    /// How a shutter exposes its rows.
    pub enum ShutterKind {
        /// Two curtains pass.
        FocalPlane,
        /// Blades in the lens, all rows at once.
        Leaf,
        /// All rows at once, electronically.
        Global,
        /// Row after row, electronically.
        Rolling,
    }
}

word! {
    /// The edge of a landscape picture where the first row is.
    pub enum FirstRow {
        /// Uncovered from the bottom edge of the picture upwards, as most curtains do.
        Bottom,
        /// From the top edge downwards.
        Top,
    }
}

wire! {
    /// A camera body.
    pub struct CameraBody {
        /// Identity in the kit.
        pub id: String,
        /// Maker and model.
        pub name: String,
        /// Kind of shutter.
        pub shutter_kind: ShutterKind,
        /// Rated sync speed, `"1/250"`.
        pub sync: String,
        /// Curtain travel or readout, where known.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub travel_ms: Option<f64>,
        /// What it leaves before the second curtain in rear sync, where measured.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub guard_ms: Option<f64>,
        /// Whether it can tell a flash to glow.
        #[serde(default)]
        pub high_speed_sync: bool,
        /// Where the first row is.
        pub first_row: FirstRow,
        /// Fastest time.
        pub fastest: String,
        /// Slowest time.
        pub slowest: String,
        /// Lowest ISO.
        pub iso_min: f64,
        /// Highest ISO.
        pub iso_max: f64,
        /// How its dials are cut.
        pub grid: Grid,
        /// Sensor width.
        pub sensor_width_mm: f64,
        /// Sensor height.
        pub sensor_height_mm: f64,
        /// Pixels along the width; for film, what a good scan holds.
        pub pixels_wide: u32,
        /// Frames a second, at most.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub frames_per_second: Option<f64>,
        /// Weight with battery.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub mass_kg: Option<f64>,
    }
}

wire! {
    /// A lens.
    pub struct Lens {
        /// Identity in the kit.
        pub id: String,
        /// Maker and model.
        pub name: String,
        /// Shortest focal length.
        pub focal_min_mm: f64,
        /// Longest focal length.
        pub focal_max_mm: f64,
        /// Widest aperture.
        pub widest_f: f64,
        /// Smallest aperture.
        pub narrowest_f: f64,
        /// Fastest time of its own leaf shutter, where it has one; the shot then uses that shutter.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub leaf_fastest: Option<String>,
        /// Weight.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub mass_kg: Option<f64>,
    }
}
