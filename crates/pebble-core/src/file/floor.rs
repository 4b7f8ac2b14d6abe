//! The set on the floor, as a file says it, beyond where lights and camera stand.

use crate::wire::wire;

wire! {
    /// Where the subject may be: a rectangle on the floor, between two heights. Metres from the mark.
    pub struct Area {
        /// Its left edge, as the camera sees it.
        pub left_m: f64,
        /// Its right edge.
        pub right_m: f64,
        /// Its edge nearer to the camera, negative before the mark.
        pub near_m: f64,
        /// Its edge farther away.
        pub far_m: f64,
        /// The lowest height that counts.
        pub low_m: f64,
        /// The highest.
        pub high_m: f64,
    }
}

wire! {
    /// A sheet behind the subject, standing on the floor, in the middle.
    pub struct BackSheet {
        /// How wide.
        pub width_m: f64,
        /// How high.
        pub height_m: f64,
    }
}
