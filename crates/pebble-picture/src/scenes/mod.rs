//! Drawn scenes: a backdrop painted by a function of the place, and figures of simple bodies, back to front.

mod double_ropes;
mod finishers_wall;
mod lantern_slalom;
mod paint;
mod plain_stage;
mod roller_hall;
mod sabre_reach;
mod silks;
mod slipway_spin;

use crate::body::Body;
use pebble_core::shot::{self, DrawnAs};
use std::sync::LazyLock;

/// A scene, ready to draw.
pub(crate) struct Scene {
    /// Tone and colour of the backdrop; 1 is the background's own reflectance in its own light.
    /// Painted a row at a time: most of it depends on the height alone.
    pub backdrop: fn(&Row, &mut [Paint]),
    /// Backdrops are painted for at most this ratio of distances; beyond it they would be a line of pixels.
    pub farthest: f32,
    pub figures: Vec<Figure>,
}

/// A row of the picture, as a backdrop sees it.
pub(crate) struct Row {
    /// Height in the scene.
    pub y: f32,
    /// First pixel's place to the right.
    pub left: f32,
    /// Distance of the background over distance of the subject.
    pub farther: f32,
    /// One pixel in metres, so that edges are neither jagged nor soft.
    pub pixel: f32,
}

impl Row {
    /// Paints each pixel by its place to the right.
    #[inline]
    fn paint(&self, out: &mut [Paint], brush: impl Fn(f32) -> Paint) {
        for (column, paint) in out.iter_mut().enumerate() {
            *paint = brush(self.left + column as f32 * self.pixel);
        }
    }
}

/// The backdrop at one place, against the background's level, under each light.
#[derive(Clone, Copy, Default)]
pub(crate) struct Paint {
    pub ambient: [f32; 3],
    pub flash: [f32; 3],
}

/// Bodies that move together.
#[derive(Clone)]
pub(crate) struct Figure {
    /// The part of the subject that it stands for.
    pub part: Option<DrawnAs>,
    pub bodies: Vec<Body>,
    /// Reflectance while no part says otherwise.
    pub reflectance: f32,
    /// Flash on it while no part says otherwise, against the subject's.
    pub flash_gain: f32,
    /// Goes the other way: the second of two ropes.
    pub reverse: bool,
    /// Turns about an axis between two points across its movement.
    pub swing: Option<[f32; 2]>,
    /// Shines in its own colour.
    pub own_light: bool,
}

impl Default for Figure {
    fn default() -> Self {
        Self {
            part: None,
            bodies: Vec::new(),
            reflectance: 0.3,
            flash_gain: 1.0,
            reverse: false,
            swing: None,
            own_light: false,
        }
    }
}

impl Figure {
    /// A figure that stands for a part.
    fn of(part: DrawnAs, reflectance: f32, bodies: Vec<Body>) -> Self {
        Self { part: Some(part), reflectance, bodies, ..Self::default() }
    }
}

static DOUBLE_ROPES: LazyLock<Scene> = LazyLock::new(double_ropes::scene);
static LANTERN_SLALOM: LazyLock<Scene> = LazyLock::new(lantern_slalom::scene);
static SLIPWAY_SPIN: LazyLock<Scene> = LazyLock::new(slipway_spin::scene);
static SABRE_REACH: LazyLock<Scene> = LazyLock::new(sabre_reach::scene);
static SILKS: LazyLock<Scene> = LazyLock::new(silks::scene);
static FINISHERS_WALL: LazyLock<Scene> = LazyLock::new(finishers_wall::scene);
static ROLLER_HALL: LazyLock<Scene> = LazyLock::new(roller_hall::scene);
static PLAIN_STAGE: LazyLock<Scene> = LazyLock::new(plain_stage::scene);

/// The scene of a shot.
pub(crate) fn of(scene: shot::Scene) -> &'static Scene {
    match scene {
        shot::Scene::DoubleRopes => &DOUBLE_ROPES,
        shot::Scene::LanternSlalom => &LANTERN_SLALOM,
        shot::Scene::SlipwaySpin => &SLIPWAY_SPIN,
        shot::Scene::SabreReach => &SABRE_REACH,
        shot::Scene::Silks => &SILKS,
        shot::Scene::FinishersWall => &FINISHERS_WALL,
        shot::Scene::RollerHall => &ROLLER_HALL,
        shot::Scene::PlainStage => &PLAIN_STAGE,
    }
}
