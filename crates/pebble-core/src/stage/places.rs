//! What the places of the field have in common with light: where their own comes from, and how high the lens usually is.

use super::space::{Spot, spot};
use crate::file::stage::Place;

/// How steady light comes.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Comes {
    /// Unit vector to where most of it comes from.
    pub from: Spot,
    /// Apparent size of that, as the sine of half its angle: 0 is a point, 1 a whole sky.
    pub size: f64,
    /// Share that comes from all around.
    pub around: f64,
}

/// What a place does with light.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Surroundings {
    /// Its own light.
    pub comes: Comes,
    /// What walls and floor throw back into the shade, as a share of a flash.
    pub bounces: f64,
    /// Reflectance of the floor.
    pub floor: f64,
}

const fn from(x: f64, y: f64, z: f64, size: f64, around: f64) -> Comes {
    Comes { from: spot(x, y, z), size, around }
}

/// The surroundings of a place.
pub(super) const fn of(place: Place) -> Surroundings {
    let (comes, bounces, floor) = match place {
        // A ceiling above and behind the camera.
        Place::PaperLight => (from(-0.2, -0.5, 0.84, 0.9, 0.5), 0.12, 0.75),
        Place::PaperGrey => (from(-0.2, -0.5, 0.84, 0.9, 0.5), 0.06, 0.3),
        Place::PaperBlack => (from(0.0, -0.35, 0.94, 0.6, 0.35), 0.015, 0.05),
        Place::DimHall => (from(0.1, -0.15, 0.98, 0.5, 0.4), 0.04, 0.22),
        Place::BrightHall => (from(0.0, -0.2, 0.98, 0.8, 0.45), 0.06, 0.3),
        // The sun, and the sky around it.
        Place::FieldDay | Place::Track => (from(0.5, -0.45, 0.74, 0.02, 0.28), 0.07, 0.2),
        Place::Beach => (from(-0.42, -0.3, 0.857, 0.02, 0.32), 0.1, 0.35),
        // A sky that has lost its sun.
        Place::FieldDusk | Place::Quay => (from(0.3, 0.25, 0.92, 1.0, 0.6), 0.03, 0.16),
        Place::FieldFloodlit => (from(-0.55, -0.4, 0.733, 0.08, 0.35), 0.04, 0.2),
        Place::StreetNight => (from(0.35, -0.1, 0.93, 0.2, 0.35), 0.03, 0.12),
        Place::PoolDeck => (from(0.0, -0.3, 0.954, 0.9, 0.5), 0.1, 0.4),
        Place::Tent => (from(-0.3, -0.2, 0.933, 1.0, 0.6), 0.12, 0.3),
        Place::Stage => (from(0.25, -0.45, 0.857, 0.12, 0.2), 0.02, 0.1),
        Place::DanceFloor => (from(-0.2, 0.1, 0.975, 0.3, 0.35), 0.03, 0.14),
        Place::PrintedWall => (from(0.0, -0.5, 0.866, 0.9, 0.5), 0.08, 0.25),
        // Every surface alike.
        Place::EvenWall => (from(0.0, -1.0, 0.0, 1.0, 1.0), 0.05, 0.2),
    };
    Surroundings { comes, bounces, floor }
}
