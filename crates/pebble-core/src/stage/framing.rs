//! What the camera sees: places in the set to places on the plane that is in focus.
//!
//! model.md §12: a point is projected through the lens; the picture is `w·(D−f)/f` wide at the distance `D`.

use super::space::{Spot, spot};
use crate::file::stage::Grip;
use crate::quantity::Metres;

/// Nearer than this to the lens nothing is drawn.
const NEAREST_M: f64 = 0.05;

/// The camera in the set.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct View {
    /// The lens.
    pub eye: Spot,
    /// Unit vectors as the photographer sees them.
    pub right: Spot,
    /// Up in the picture.
    pub up: Spot,
    /// Into the picture.
    pub forward: Spot,
    /// Lens to the place in the middle of the frame.
    pub distance: f64,
    /// How it is held.
    pub upright: Option<Grip>,
}

/// A place as the sensor has it.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Seen {
    /// From the middle of the frame along the sensor's long side, in metres at the subject's distance.
    pub along: f64,
    /// The same along its short side, upwards when level.
    pub across: f64,
    /// Distance into the picture.
    pub depth: f64,
}

impl View {
    /// From the heights of the lens and of what stands in the middle of the frame. A lens that is farther off that height
    /// than the distance allows looks as steeply as 80°.
    pub fn of(distance: Metres, camera_height: Metres, aim_height: Metres, upright: Option<Grip>) -> Self {
        let distance = distance.as_metres();
        let rise = (aim_height - camera_height).as_metres();
        let (sin, cos) = (rise / distance).clamp(-0.985, 0.985).asin().sin_cos();
        let forward = spot(0.0, cos, sin);
        let aim = spot(0.0, 0.0, aim_height.as_metres());
        Self {
            eye: aim - forward * distance,
            right: spot(1.0, 0.0, 0.0),
            up: spot(0.0, -sin, cos),
            forward,
            distance,
            upright,
        }
    }

    /// The same, turned about the upright through the lens until a place on the floor is in the middle from left to right.
    pub fn panned_to(&self, (x, y): (f64, f64)) -> Self {
        let (sine, cosine) = (x - self.eye.x).atan2(y - self.eye.y).sin_cos();
        let turned = |way: Spot| spot(way.x * cosine + way.y * sine, way.y * cosine - way.x * sine, way.z);
        Self { right: turned(self.right), up: turned(self.up), forward: turned(self.forward), ..*self }
    }

    /// A place; nothing when it is behind the lens, or in it.
    pub fn seen(&self, place: Spot) -> Option<Seen> {
        let from = place - self.eye;
        let depth = from.dot(self.forward);
        if depth < NEAREST_M {
            return None;
        }
        let scale = self.distance / depth;
        let (along, across) = held(self.upright, from.dot(self.right) * scale, from.dot(self.up) * scale);
        Some(Seen { along, across, depth })
    }
}

/// From right and up in the picture to along and across the sensor.
pub fn held(upright: Option<Grip>, right: f64, up: f64) -> (f64, f64) {
    match upright {
        None => (right, up),
        // The first row is the right edge: the sensor's down is the picture's right.
        Some(Grip::Up) => (up, -right),
        Some(Grip::Down) => (-up, right),
    }
}

/// And back.
pub fn shown(upright: Option<Grip>, along: f64, across: f64) -> (f64, f64) {
    match upright {
        None => (along, across),
        Some(Grip::Up) => (-across, along),
        Some(Grip::Down) => (across, -along),
    }
}
