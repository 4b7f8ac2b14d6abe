//! Light in space: what one light puts on any place of the set, its lit circle, and how even an area is lit.
//!
//! model.md §12. A light's distance on the Bench is the one to the chest of who stands on the mark: one truth.

use super::CHEST_M;
use super::space::{Spot, spot};
use crate::physics::output::{Beam, Face};
use crate::physics::subject::direction;
use crate::quantity::{Angle, Metres, Stops};

/// The chest of who stands on the mark.
pub const CHEST: Spot = spot(0.0, 0.0, CHEST_M);

/// A light in the set.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Lamp {
    /// `H1·2^M·P`: lx·s at a metre on its axis.
    pub strength: f64,
    /// Its face.
    pub face: Face,
    /// Its beam.
    pub beam: Beam,
    /// Where its face is.
    pub at: Spot,
    /// How its axis is turned away from the chest of who stands on the mark, where it is and somebody said which way.
    pub turned: Option<Turned>,
}

/// A light of which the axis is known: what it puts on many places.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Shining {
    strength: f64,
    face: Face,
    beam: Beam,
    /// Where its face is.
    pub at: Spot,
    axis: Spot,
}

impl Shining {
    /// The same standing elsewhere, turned as it is.
    #[must_use]
    pub fn moved(self, by: Spot) -> Self {
        Self { at: self.at + by, ..self }
    }

    /// What a receiver turned to it gets at a place, in lx·s; nothing behind its face.
    pub fn on(&self, place: Spot) -> f64 {
        let way = place - self.at;
        let distance = way.length();
        let cosine = if distance > 0.0 { (self.axis.dot(way) / distance).min(1.0) } else { 1.0 };
        self.strength * self.beam.share(cosine) / self.face.spread(Metres::from_metres(distance)).max(1e-6)
    }

    /// What a dome gets there that is turned to the camera.
    pub fn on_dome(&self, place: Spot, camera: Spot) -> f64 {
        let (to_light, to_camera) = (self.at - place, camera - place);
        let lengths = to_light.length() * to_camera.length();
        let cosine = if lengths > 0.0 { to_light.dot(to_camera) / lengths } else { 1.0 };
        self.on(place) * (1.0 + cosine) / 2.0
    }

    /// What a flat surface gets that faces somewhere: `H·max(0, cos)`.
    pub fn on_flat(&self, place: Spot, facing: Spot) -> f64 {
        let way = self.at - place;
        let length = way.length();
        let cosine = if length > 0.0 { way.dot(facing) / length } else { 1.0 };
        if cosine > 0.0 { self.on(place) * cosine } else { 0.0 }
    }
}

/// How an axis is turned away from the line to the chest: it stays turned so when the light is carried on that line.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Turned {
    /// How far.
    pub by: Angle,
    /// To which side, as whoever stands behind the light sees it: 0 to the right, a quarter turn on is up.
    pub towards: Angle,
}

/// Right and up, as whoever stands behind a light sees them that looks along a line.
fn sides(along: Spot) -> (Spot, Spot) {
    let level = along.x.hypot(along.y);
    // Straight down, the camera's right is as good as any.
    let right = if level > 1e-9 { spot(along.y / level, -along.x / level, 0.0) } else { spot(1.0, 0.0, 0.0) };
    (right, right.cross(along))
}

impl Turned {
    /// How a light at a place is turned that is aimed at another; not at all where that is the chest.
    pub fn at(from: Spot, aim: Spot) -> Option<Self> {
        let (line, axis) = ((CHEST - from).unit(), (aim - from).unit());
        let (right, up) = sides(line);
        let by = line.dot(axis).clamp(-1.0, 1.0).acos();
        let towards = axis.dot(up).atan2(axis.dot(right));
        (by > 1e-6).then(|| Self { by: Angle::from_radians(by), towards: Angle::from_radians(towards) })
    }

    /// What is on its axis at a place, as far off as the chest.
    fn aim(self, from: Spot) -> Spot {
        let (line, far) = ((CHEST - from).unit(), (CHEST - from).length());
        let (right, up) = sides(line);
        let ((sine, cosine), (over, across)) = (self.by.as_radians().sin_cos(), self.towards.as_radians().sin_cos());
        from + (line * cosine + (right * across + up * over) * sine) * far
    }
}

/// A place from how it is set on the Bench: bearing, height over the horizon, distance to the chest.
pub fn placed(bearing: Angle, height: Angle, distance: Metres) -> Spot {
    placed_around(CHEST, bearing, height, distance)
}

/// The same around another place than the chest.
pub fn placed_around(middle: Spot, bearing: Angle, height: Angle, distance: Metres) -> Spot {
    let [right, near, up] = direction(bearing, height);
    middle + spot(right, -near, up) * distance.as_metres()
}

/// The other way round: bearing and height in degrees, and the distance in metres.
pub fn set_so(at: Spot) -> (f64, f64, f64) {
    set_around(CHEST, at)
}

fn set_around(middle: Spot, at: Spot) -> (f64, f64, f64) {
    let way = at - middle;
    let distance = way.length();
    let bearing = way.x.atan2(-way.y).to_degrees();
    let height = if distance > 0.0 { (way.z / distance).clamp(-1.0, 1.0).asin().to_degrees() } else { 0.0 };
    (bearing, height, distance)
}

/// The same as a shot file has it: tenths of a degree, whole centimetres.
pub fn noted(at: Spot) -> (f64, f64, f64) {
    noted_around(CHEST, at)
}

/// The same around another place than the chest.
pub fn noted_around(middle: Spot, at: Spot) -> (f64, f64, f64) {
    let (bearing, height, distance) = set_around(middle, at);
    let tenth = |value: f64| (value * 10.0).round() / 10.0;
    (tenth(bearing), tenth(height), (distance * 100.0).round() / 100.0)
}

/// The place that a shot file has for a place.
pub fn as_noted(at: Spot) -> Spot {
    let (bearing, height, distance) = noted(at);
    placed(Angle::from_degrees(bearing), Angle::from_degrees(height), Metres::from_metres(distance))
}

/// A bearing as a clock on the floor, seen from above with the camera at 6: hours from 0 up to 12.
pub fn clock(bearing_deg: f64) -> f64 {
    (6.0 - bearing_deg / 30.0).rem_euclid(12.0)
}

impl Lamp {
    /// What it is aimed at: the chest, or what is as far off on its axis.
    pub fn aim(&self) -> Spot {
        self.turned.map_or(CHEST, |turned| turned.aim(self.at))
    }

    /// What a receiver turned to it gets at a place to which it is turned itself.
    pub fn aimed_at(&self, place: Spot) -> f64 {
        self.strength / self.face.spread(Metres::from_metres((place - self.at).length())).max(1e-6)
    }

    /// The same with its axis worked out, for many places.
    pub fn shining(&self) -> Shining {
        let Self { strength, face, beam, at, .. } = *self;
        let axis = self.aim() - at;
        let length = axis.length();
        Shining { strength, face, beam, at, axis: if length > 0.0 { axis * (1.0 / length) } else { Spot::UP } }
    }

    /// What a receiver turned to it gets at a place, in lx·s; nothing behind its face.
    pub fn on(&self, place: Spot) -> f64 {
        self.shining().on(place)
    }

    /// What a dome gets there that is turned to the camera.
    pub fn on_dome(&self, place: Spot, camera: Spot) -> f64 {
        self.shining().on_dome(place, camera)
    }

    /// How far a place is off its axis.
    pub fn off_axis(&self, place: Spot) -> Angle {
        let (axis, way) = (self.aim() - self.at, place - self.at);
        let lengths = axis.length() * way.length();
        Angle::from_radians(if lengths > 0.0 { (axis.dot(way) / lengths).clamp(-1.0, 1.0).acos() } else { 0.0 })
    }

    /// Radius of the circle around its axis in which it loses no more than some stops, so far off.
    pub fn circle(&self, distance: Metres, stops: f64) -> f64 {
        distance.as_metres() * edge_of(&self.beam, stops).as_radians().tan()
    }

    /// Whether a lens looks into it: it lies inside the beam, to where three stops are lost.
    pub fn shines_at(&self, lens: Spot) -> bool {
        self.beam.at(self.off_axis(lens)) > Stops::from_stops(-3.0)
    }
}

/// The angle off the axis at which a beam has lost some stops.
pub fn edge_of(beam: &Beam, stops: f64) -> Angle {
    let (mut inside, mut outside) = (0.0, std::f64::consts::FRAC_PI_2);
    for _ in 0..50 {
        let middle = 0.5 * (inside + outside);
        if beam.at(Angle::from_radians(middle)) >= Stops::from_stops(-stops) {
            inside = middle
        } else {
            outside = middle
        }
    }
    Angle::from_radians(inside)
}
