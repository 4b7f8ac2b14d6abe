//! The window on the scene: which pixel shows which place, and which strip of it is drawn.

use crate::Request;
use crate::body::Point;
use crate::exposure::{Exposure, RowExposure};
use pebble_core::{Outlook, Plan};
use std::ops::Range;

/// Width of the picture in which a figure's dwell is found out for all strips.
const COARSE: usize = 640;
/// Widest picture that is drawn, in pixels; a request for more gets this.
const WIDEST: u32 = 2400;

/// The window on the scene.
#[derive(Clone, Copy)]
pub(crate) struct Window {
    pub width: usize,
    pub(super) height: usize,
    pub(super) left: f32,
    pub(super) top: f32,
    pub pixels_per_metre: f32,
    pub(super) rows_from_top: (f64, f64),
}

impl Window {
    pub(super) fn of(plan: &Plan, outlook: &Outlook, request: &Request) -> Self {
        let (field_width, field_height) = outlook.field(plan);
        let (field_width, field_height) = (field_width.as_metres(), field_height.as_metres());
        let width = request.width.clamp(16, WIDEST);
        let height = (f64::from(width) * field_height / field_width).round().max(1.0);
        let crop = request.crop;
        Self {
            width: width as usize,
            height: height as usize,
            left: ((crop.left - 0.5) * field_width) as f32,
            top: ((0.5 - crop.top) * field_height) as f32,
            pixels_per_metre: (f64::from(width) / (field_width * crop.size)) as f32,
            rows_from_top: (crop.top, crop.size / height),
        }
    }

    pub fn x(&self, column: usize) -> f32 {
        self.left + (column as f32 + 0.5) / self.pixels_per_metre
    }

    pub fn y(&self, row: usize) -> f32 {
        self.top - (row as f32 + 0.5) / self.pixels_per_metre
    }

    pub(super) fn bounds(&self) -> [f32; 4] {
        let (width, height) = (self.width as f32 / self.pixels_per_metre, self.height as f32 / self.pixels_per_metre);
        [self.left, self.top - height, self.left + width, self.top]
    }
}

impl Window {
    /// Some of its rows.
    pub(super) fn strip(&self, rows: &Range<usize>) -> Self {
        let (top, step) = self.rows_from_top;
        Self {
            height: rows.len(),
            top: self.top - rows.start as f32 / self.pixels_per_metre,
            rows_from_top: (top + rows.start as f64 * step, step),
            ..*self
        }
    }

    /// The same scene in a smaller picture.
    pub(super) fn coarse(&self) -> Self {
        let scale = (COARSE as f32 / self.width as f32).min(1.0);
        let height = (self.height as f32 * scale).round().max(1.0) as usize;
        let (top, step) = self.rows_from_top;
        Self {
            width: (self.width as f32 * scale).round() as usize,
            height,
            pixels_per_metre: self.pixels_per_metre * scale,
            rows_from_top: (top, step * self.height as f64 / height as f64),
            ..*self
        }
    }

    pub(super) fn rows(&self, exposure: &Exposure) -> Vec<RowExposure> {
        let (top, step) = self.rows_from_top;
        (0..self.height).map(|row| exposure.row(top + (row as f64 + 0.5) * step)).collect()
    }

    pub(super) fn corners(&self) -> [Point; 4] {
        let [left, bottom, right, top] = self.bounds();
        [[left, bottom], [right, bottom], [left, top], [right, top]]
    }
}
