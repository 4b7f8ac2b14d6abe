//! The window on the scene: which pixel shows which place, and which strip of it is drawn.

use crate::exposure::{Exposure, RowExposure};
use crate::smear::Point;
use crate::{Crop, Layers, Request};
use pebble_core::file::stage::Grip;
use pebble_core::{Outlook, Plan};
use std::ops::Range;

/// Width of the picture in which a figure's dwell is found out for all strips.
const COARSE: u32 = 640;
/// Widest picture that is drawn, in pixels; a request for more gets this.
const WIDEST: u32 = 2400;

/// The window on the scene.
#[derive(Clone, Copy)]
pub(crate) struct Window {
    pub width: usize,
    pub height: usize,
    pub left: f32,
    pub top: f32,
    pub pixels_per_metre: f32,
    pub(super) rows_from_top: (f64, f64),
}

impl Window {
    pub(super) fn of(plan: &Plan, outlook: &Outlook, request: &Request) -> Self {
        let (field_width, field_height) = outlook.field(plan);
        let (field_width, field_height) = (field_width.as_metres(), field_height.as_metres());
        let (mut width, mut crop) = (f64::from(request.width.clamp(16, WIDEST)), request.crop);
        // Asked for as the photographer sees it; drawn as the sensor lies.
        if let Some(grip) = plan.stage.upright() {
            width = (width * field_width / field_height).round().clamp(16.0, f64::from(WIDEST));
            (crop.left, crop.top) = match grip {
                Grip::Up => (1.0 - crop.top - crop.size, crop.left),
                Grip::Down => (crop.top, 1.0 - crop.left - crop.size),
            };
        }
        let height = (width * field_height / field_width).round().max(1.0);
        Self {
            width: width as usize,
            height: height as usize,
            left: ((crop.left - 0.5) * field_width) as f32,
            top: ((0.5 - crop.top) * field_height) as f32,
            pixels_per_metre: (width / (field_width * crop.size)) as f32,
            rows_from_top: (crop.top, crop.size / height),
        }
    }

    pub fn x(&self, column: usize) -> f32 {
        self.left + (column as f32 + 0.5) / self.pixels_per_metre
    }

    /// Between pixels too.
    pub fn x_at(&self, column: f32) -> f32 {
        self.left + (column + 0.5) / self.pixels_per_metre
    }

    pub fn y_at(&self, row: f32) -> f32 {
        self.top - (row + 0.5) / self.pixels_per_metre
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

    /// All of the frame, in a small picture.
    pub(super) fn coarse(plan: &Plan, outlook: &Outlook) -> Self {
        Self::of(plan, outlook, &Request { width: COARSE, layers: Layers::Both, crop: Crop::WHOLE })
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
