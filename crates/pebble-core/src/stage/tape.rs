//! Rebuilding by tape measure: where a stand's foot is by two distances on the floor, and how a light is turned.

use super::space::Spot;

/// A light by tape, from the subject's mark and the camera's foot.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Tape {
    /// Foot to the mark.
    pub to_mark: f64,
    /// Foot to the camera's foot.
    pub to_camera: f64,
    /// Whether it is on the right as walked from the camera to the mark.
    pub right: bool,
    /// Height of the head.
    pub height: f64,
    /// Direction from what it is aimed at to it, as a bearing in degrees.
    pub bearing: f64,
    /// How far it looks down, in degrees.
    pub tilt_down: f64,
}

/// Of a light at a place, aimed at another; the camera stands on the floor at `(camera.x, camera.y)`.
pub fn tape(at: Spot, aim: Spot, mark: Spot, camera: Spot) -> Tape {
    let flat = |a: Spot, b: Spot| (a.x - b.x).hypot(a.y - b.y);
    let way = at - aim;
    let along = mark - camera;
    Tape {
        to_mark: flat(at, mark),
        to_camera: flat(at, camera),
        // Right of the way from the camera to the mark.
        right: along.x * (at.y - camera.y) - along.y * (at.x - camera.x) < 0.0,
        height: at.z,
        bearing: way.x.atan2(-way.y).to_degrees(),
        tilt_down: way.z.atan2(way.x.hypot(way.y)).to_degrees(),
    }
}

/// A place on the floor by its distances from the mark and from the camera's foot, on one side; `None` where the two
/// circles do not meet.
pub fn taped(to_mark: f64, to_camera: f64, right: bool, mark: Spot, camera: Spot) -> Option<(f64, f64)> {
    let (dx, dy) = (mark.x - camera.x, mark.y - camera.y);
    let between = dx.hypot(dy);
    if between <= 0.0 {
        return None;
    }
    let along = (to_camera * to_camera - to_mark * to_mark + between * between) / (2.0 * between);
    let square = to_camera * to_camera - along * along;
    if square < 0.0 {
        return None;
    }
    let (ux, uy) = (dx / between, dy / between);
    // To the right of the way.
    let aside = if right { square.sqrt() } else { -square.sqrt() };
    Some((camera.x + ux * along + uy * aside, camera.y + uy * along - ux * aside))
}

/// Ballast for a stand in a gust, an estimate beside a caution.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Ballast {
    /// On its face, in newtons.
    pub force: f64,
    /// About its feet, in newton-metres.
    pub moment: f64,
    /// What holds against it without ballast.
    pub holds: f64,
    /// What has to hang on it, in kg, for a safety of 1.5.
    pub ballast: f64,
}

/// More than this is not hung on a stand: it is taken down.
pub const MOST_BALLAST_KG: f64 = 25.0;

/// `F = ½·1.2·Cd·A·v²` at a height, against `9.81·(m + ballast)·r` with `r` half of the foot circle's radius.
pub fn ballast(area: f64, drag: f64, gust: f64, height: f64, mass: f64, foot_radius: f64) -> Ballast {
    const AIR: f64 = 1.2;
    const G: f64 = 9.81;
    const SAFETY: f64 = 1.5;
    let force = 0.5 * AIR * drag * area * gust * gust;
    let moment = force * height;
    let arm = 0.5 * foot_radius;
    Ballast { force, moment, holds: G * mass * arm, ballast: (SAFETY * moment / (G * arm) - mass).max(0.0) }
}
