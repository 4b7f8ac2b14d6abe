//! What is asked of the kit beyond what the shot itself says.

use crate::wire::wire;

wire! {
    /// A range of placements, in stops; an end that is not said is open.
    pub struct Between {
        /// Not darker than this.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub low_stops: Option<f64>,
        /// Not brighter than this.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub high_stops: Option<f64>,
    }
}

wire! {
    /// How much a part may blur.
    pub struct BlurLimit {
        /// Its name.
        pub part: String,
        /// In pixels of the camera.
        pub px: f64,
    }
}

wire! {
    /// Units that could be had beyond those that are owned.
    pub struct Borrowed {
        /// Identity of the unit in the kit.
        pub unit: String,
        /// How many more.
        pub count: u32,
    }
}

wire! {
    /// What a set-up has to meet, where it is not what the shot itself says.
    #[derive(Default)]
    pub struct Wish {
        /// How far the key may be from its target.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub key_within_stops: Option<f64>,
        /// Where steady light may fall on the subject.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub ambient: Option<Between>,
        /// Where it may fall on the background.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub background: Option<Between>,
        /// Steady light that is expected to be gone by then, in stops, positive: dusk, or lamps turned down.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub darker_stops: Option<f64>,
        /// Lowest ISO.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub iso_min: Option<f64>,
        /// Highest ISO: the ceiling of noise.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub iso_max: Option<f64>,
        /// No wider open than this f-number.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub aperture_min_f: Option<f64>,
        /// No smaller than this one.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub aperture_max_f: Option<f64>,
        /// Slowest time.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub slowest: Option<String>,
        /// Fastest time.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub fastest: Option<String>,
        /// Most grey in front of the lens.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub filter_max_stops: Option<f64>,
        /// No nearer than this; where not said, no nearer than keeps the light out of the frame.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub nearest_m: Option<f64>,
        /// No farther than this.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub farthest_m: Option<f64>,
        /// Whether lights stay where they stand; where not said, they do when their distance is locked.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub places_stay: Option<bool>,
        /// Whether a light may glow for high-speed sync.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub high_speed: Option<bool>,
        /// Whether something else may be put in front of the light.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub any_modifier: Option<bool>,
        /// Longest freezing time of a flash, by the school of the shot.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub freeze_at_most_ms: Option<f64>,
        /// The most that the key's light differs over the area, from its brightest place to its darkest.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub even_within_stops: Option<f64>,
        /// How much parts may blur, where it is not what their intent and the use of the picture allow.
        #[serde(default, skip_serializing_if = "Vec::is_empty")]
        pub blur: Vec<BlurLimit>,
        /// How visible the trail of a part that shall be still may be: a difference of L*, 3 where not said.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub trail: Option<f64>,
        /// Depth that has to be sharp.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub depth_m: Option<f64>,
        /// Frames in a row that must all be whole.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub frames: Option<u32>,
        /// At this rate.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub frames_per_second: Option<f64>,
        /// Flashes on one charge.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub flashes: Option<u32>,
        /// Equal heads side by side at most.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub heads: Option<u32>,
        /// Stands on the whole set at most.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub stands: Option<u32>,
        /// Weight of units and modifiers at most.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub weight_kg: Option<f64>,
        /// Units that could be had beyond those that are owned.
        #[serde(default, skip_serializing_if = "Vec::is_empty")]
        pub borrowed: Vec<Borrowed>,
    }
}
