//! A flag: a dark rectangle that keeps a light out of the lens and leaves it on the subject.
//!
//! model.md §12: it stands near the light and shades the lens from every point of the face, and none of the area.

use super::field::Lamp;
use super::lens::Lens;
use super::space::{AROUND, Spot, spot};

/// More than it needs, on each side, in metres: nobody hangs it to the centimetre.
const SPARE_M: f64 = 0.05;
/// As near to a light as a flag is hung.
const NEAREST_M: f64 = 0.2;
/// Farther along the line to the lens it is nobody's flag any more.
const FARTHEST_SHARE: f64 = 0.7;
/// Places along the line that are tried, and points around a face.
const ALONG: usize = 60;

/// A flag in the set.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Flag {
    /// Its middle.
    pub at: Spot,
    /// How wide, in metres.
    pub wide: f64,
    /// How high, in metres.
    pub high: f64,
}

impl Flag {
    /// Whether it stands between two places. It hangs upright and is turned to the light's line, as is given.
    fn stops(&self, toward: Spot, from: Spot, to: Spot) -> bool {
        let (side, up) = sides(toward);
        let way = to - from;
        let across = way.dot(toward);
        if across.abs() < 1e-9 {
            return false;
        }
        let share = (self.at - from).dot(toward) / across;
        if !(0.0..=1.0).contains(&share) {
            return false;
        }
        let meets = from + way * share - self.at;
        meets.dot(side).abs() <= self.wide / 2.0 && meets.dot(up).abs() <= self.high / 2.0
    }

    /// Whether it keeps a light with a face of a radius out of a lens: every point of the face.
    pub fn shades(&self, lamp: &Lamp, radius: f64, lens: Spot) -> bool {
        let toward = (lens - lamp.at).unit();
        rim(lamp, radius).chain([lamp.at]).all(|point| self.stops(toward, point, lens))
    }

    /// Whether it takes light from a place: from any point of the face.
    pub fn takes_from(&self, lamp: &Lamp, radius: f64, lens: Spot, place: Spot) -> bool {
        let toward = (lens - lamp.at).unit();
        rim(lamp, radius).chain([lamp.at]).any(|point| self.stops(toward, point, place))
    }
}

/// Two directions square to a line: level, and upwards.
fn sides(toward: Spot) -> (Spot, Spot) {
    let flat = toward.x.hypot(toward.y);
    let side = if flat > 1e-9 { spot(-toward.y / flat, toward.x / flat, 0.0) } else { spot(1.0, 0.0, 0.0) };
    (side, side.cross(toward).unit())
}

/// The edge of a face that is turned to its aim.
fn rim(lamp: &Lamp, radius: f64) -> impl Iterator<Item = Spot> {
    let (side, up) = sides((lamp.aim() - lamp.at).unit());
    let at = lamp.at;
    AROUND.iter().map(move |(sine, cosine)| at + side * (radius * cosine) + up * (radius * sine))
}

/// The flag that keeps a light out of the lens, as near to the light as none of the places that shall be lit loses light to
/// it and the lens does not see it; nothing where there is none.
pub fn flag_for(lens: &Lens, lamp: &Lamp, radius: f64, lit: &[Spot]) -> Option<Flag> {
    let eye = lens.view.eye;
    let (way, length) = (eye - lamp.at, (eye - lamp.at).length());
    let toward = way.unit();
    let (side, up) = sides(toward);
    (0..=ALONG)
        .map(|k| NEAREST_M / length + (FARTHEST_SHARE - NEAREST_M / length) * k as f64 / ALONG as f64)
        .filter(|share| (0.0..1.0).contains(share))
        .find_map(|share| {
            // As it is written down.
            let cm = |value: f64| (value * 100.0).round() / 100.0;
            let at = lamp.at + way * share;
            let at = spot(cm(at.x), cm(at.y), cm(at.z));
            // The shade of every point of the face runs together in the lens.
            let reach = |axis: Spot| {
                let cone = rim(lamp, radius).map(|point| {
                    let to = eye - point;
                    let met = point + to * ((at - point).dot(toward) / to.dot(toward)) - at;
                    met.dot(axis).abs()
                });
                2.0 * (cone.fold(0.0, f64::max) + SPARE_M)
            };
            // To the next five centimetres, as flags are cut.
            let cut = |size: f64| (size * 20.0).ceil() / 20.0;
            let flag = Flag { at, wide: cut(reach(side)), high: cut(reach(up)) };
            let corners = [(-0.5, -0.5), (0.5, -0.5), (-0.5, 0.5), (0.5, 0.5)]
                .map(|(across, over)| at + side * (flag.wide * across) + up * (flag.high * over));
            let unseen = || corners.iter().all(|corner| lens.beyond(*corner) > 0.0 || lens.hides(*corner));
            let harmless = || !lit.iter().any(|place| flag.takes_from(lamp, radius, eye, *place));
            (unseen() && harmless() && flag.shades(lamp, radius, eye)).then_some(flag)
        })
}
