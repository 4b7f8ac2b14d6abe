//! Place and time under the open sky.

use crate::wire::wire;

wire! {
    /// Where and when under the sky.
    pub struct Sky {
        /// Latitude, north positive.
        pub latitude_deg: f64,
        /// Longitude, east positive.
        pub longitude_deg: f64,
        /// The day there, `2026-06-21`.
        pub date: String,
        /// The time there, `18:30`.
        pub time: String,
        /// What the clock there is ahead of universal time.
        pub utc_offset_min: i32,
        /// What the clouds take, in stops, positive.
        pub cloud_stops: f64,
        /// Where the camera looks, by the compass: 0 north, 90 east.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub camera_looks_deg: Option<f64>,
    }
}
