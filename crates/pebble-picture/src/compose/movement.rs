//! How a figure moves across the scene while the shutter is open.

use crate::cast::Figure;
use crate::exposure::{Exposure, RowExposure};
use crate::smear::Point;
use pebble_core::file::stage::Grip;
use pebble_core::outlook::PartOutlook;
use pebble_core::plan::Part;
use pebble_core::stage::framing::held;
use pebble_core::{Outlook, Plan};

/// How a figure moves across the frame.
#[derive(Clone)]
pub(super) struct Motion {
    pub(super) direction: Point,
    /// Metres a second at the subject's distance, along `direction`.
    pub(super) speed: f32,
    /// Longest smear, for round paths.
    pub(super) longest: f32,
    /// Share of the exposure that the path's middle is covered, by the forecast.
    pub(super) dwell: Option<f32>,
}

impl Motion {
    /// What stands.
    pub(super) const NONE: Self = Self { direction: [1.0, 0.0], speed: 0.0, longest: f32::INFINITY, dwell: None };

    pub(super) fn of(
        plan: &Plan,
        outlook: &Outlook,
        figure: &Figure,
        moving: Option<(&Part, &PartOutlook)>,
        upright: Option<Grip>,
    ) -> Self {
        // Exactly along an axis where the degrees say so: then no sample falls between two pixels.
        let clean = |value: f64| if value.abs() < 1e-9 { 0.0 } else { value as f32 };
        let direction = |angle: f64| {
            let (along, across) = held(upright, angle.cos(), angle.sin());
            [clean(along), clean(across)]
        };
        let Some((part, seen)) = moving else {
            // What stands still in the world goes against the aim of a camera that follows something.
            let angle = plan.movement.direction.as_radians();
            let speed = -(outlook.camera.pan + outlook.camera.swing + outlook.camera.shake).as_metres_per_second()
                / outlook.magnification;
            return Self { direction: direction(angle), speed: speed as f32, longest: f32::INFINITY, dwell: None };
        };
        let angle = seen.motion.direction.as_radians();
        let speed = seen.motion.speed.as_metres_per_second() / outlook.magnification;
        Self {
            direction: direction(angle),
            speed: if figure.reverse { -speed as f32 } else { speed as f32 },
            longest: part.path.map_or(f32::INFINITY, |path| {
                let swung = seen.motion.swing * outlook.run.time / outlook.magnification;
                (path + swung).as_metres() as f32
            }),
            dwell: seen.draws.then_some(seen.ghost.dwell as f32),
        }
    }

    /// From where to where the figure moves while a row is open.
    #[inline]
    pub(super) fn path(&self, row: &RowExposure) -> (f32, f32) {
        let (from, to) = (self.speed * row.open_s, self.speed * row.close_s);
        if (to - from).abs() <= self.longest { (from, to) } else { (from, from + self.longest.copysign(to - from)) }
    }

    /// How far it moves while the first row is open.
    pub(super) fn steady(&self, rows: &[RowExposure]) -> f32 {
        rows.first().map_or(0.0, |row| {
            let (from, to) = self.path(row);
            to - from
        })
    }

    /// From where to where it moves over all rows.
    pub(super) fn span(&self, rows: &[RowExposure]) -> (f32, f32) {
        let ends = rows.first().into_iter().chain(rows.last()).map(|row| self.path(row));
        ends.fold((f32::INFINITY, f32::NEG_INFINITY), |(low, high), (a, b)| (low.min(a).min(b), high.max(a).max(b)))
    }

    /// Farthest offset from its place under any light.
    pub(super) fn room<'a>(&self, rows: &[RowExposure], flashes: impl Iterator<Item = &'a Exposure>) -> f32 {
        let (low, high) = self.span(rows);
        let bounds = flashes.flat_map(|flash| flash.slice_bounds_s);
        let pulse = bounds.map(|t| (t * self.speed).abs()).fold(0.0, f32::max);
        low.abs().max(high.abs()).max(pulse)
    }
}
