//! The set on the floor, as a file says it, beyond where lights and camera stand.

use crate::wire::wire;

wire! {
    /// Where the subject may be: a rectangle on the floor or an outline inside it, between two heights. Metres from the mark.
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
        /// Corners of an outline inside it, in order around it: shares of its width from the left edge and of its depth from
        /// the near one. The whole rectangle where there are none.
        #[serde(default, skip_serializing_if = "Vec::is_empty")]
        pub corners: Vec<[f64; 2]>,
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

wire! {
    /// A flag: a dark rectangle that hangs upright and keeps a light out of the lens. Metres from the mark.
    pub struct Flag {
        /// Its middle, to the right.
        pub x_m: f64,
        /// Away from the camera.
        pub y_m: f64,
        /// Over the floor.
        pub z_m: f64,
        /// How wide.
        pub width_m: f64,
        /// How high.
        pub height_m: f64,
    }
}

wire! {
    /// A way on the floor that somebody comes along, from the mark in metres: to the right, away from the camera.
    pub struct WayAlong {
        /// Where it begins.
        pub from_m: [f64; 2],
        /// Where it ends.
        pub to_m: [f64; 2],
        /// How fast.
        pub speed_m_s: f64,
        /// The camera goes along, as far from whoever comes as it is from the mark.
        #[serde(default, skip_serializing_if = "std::ops::Not::not")]
        pub camera_goes_along: bool,
    }
}

wire! {
    /// The walls and the ceiling of a room, in metres from the mark.
    pub struct Room {
        /// The wall to the left, as the camera sees it.
        pub left_m: f64,
        /// To the right.
        pub right_m: f64,
        /// Behind the camera.
        pub near_m: f64,
        /// Behind the subject.
        pub far_m: f64,
        /// The ceiling over the floor.
        pub ceiling_m: f64,
    }
}
