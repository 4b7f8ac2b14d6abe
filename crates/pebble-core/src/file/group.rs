//! People who stand in rows.

use crate::wire::wire;

wire! {
    /// How a group stands.
    pub struct GroupShape {
        /// How many.
        pub people: u32,
        /// In how many rows.
        pub rows: u32,
        /// From row to row.
        pub row_gap_m: f64,
        /// How far the ends of a row come forward, towards the camera.
        pub curve_m: f64,
    }
}
