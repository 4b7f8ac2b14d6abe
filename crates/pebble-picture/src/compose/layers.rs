//! A figure smeared by a light, and the pixels of each row that it may touch.

use super::slices::Smear;
use super::window::Window;
use crate::smear::{Pixel, Smeared, Sprite};
use std::ops::Range;

/// One row of the two layers, linear: an idle lane, then red to blue, as in a [`Pixel`], so that four numbers are handled
/// as one.
pub(crate) struct LightRow {
    pub ambient: Vec<Pixel>,
    /// The group of flashes at work.
    pub flash: Vec<Pixel>,
    /// All groups that are done.
    pub sum: Vec<Pixel>,
}

/// A smeared sprite and the pixels that it may touch.
pub(super) struct Layer {
    pub(super) smeared: Smeared,
    pub(super) columns: Range<usize>,
    pub(super) rows: Range<usize>,
    /// Positions along each line between which anything shows.
    pub(super) visible: Vec<(f32, f32)>,
    /// For a movement straight up or down: which columns of each row show anything.
    pub(super) upright: Option<Upright>,
}

/// The columns that show, row after row. A turning rope fills a large box with very little.
pub(super) struct Upright {
    /// Where each row's columns begin, and one more.
    pub(super) starts: Vec<usize>,
    pub(super) columns: Vec<u16>,
}

impl Upright {
    /// `None` for any other movement, or when columns do not fall on lines.
    pub(super) fn of(window: &Window, sprite: &Sprite, columns: &Range<usize>, visible: &[(f32, f32)]) -> Option<Self> {
        let (stride, step) = sprite.stride(window.pixels_per_metre);
        let first = sprite.locate([window.x(0), window.y(0)]);
        if stride != 0.0 || step.abs() != 1.0 || (first.1 - first.1.round()).abs() > 1e-2 {
            return None;
        }
        let down = sprite.locate([window.x(0), window.y(1)]).0 - first.0;
        let rows_of = |column: usize| -> Range<usize> {
            let line = first.1.round() as i64 + step as i64 * column as i64;
            let Some((from, to)) = usize::try_from(line).ok().and_then(|line| visible.get(line)) else { return 0..0 };
            let (a, b) = ((from - first.0) / down, (to - first.0) / down);
            let clip = |value: f32| value.clamp(0.0, window.height as f32) as usize;
            if from < to { clip(a.min(b).floor())..clip(a.max(b).ceil() + 1.0) } else { 0..0 }
        };
        let mut starts = vec![0; window.height + 1];
        for row in columns.clone().flat_map(rows_of) {
            starts[row + 1] += 1;
        }
        for row in 0..window.height {
            starts[row + 1] += starts[row];
        }
        let mut next = starts.clone();
        let mut listed = vec![0; starts[window.height]];
        for column in columns.clone() {
            for row in rows_of(column) {
                listed[next[row]] = column as u16;
                next[row] += 1;
            }
        }
        Some(Self { starts, columns: listed })
    }

    pub(super) fn row(&self, row: usize) -> &[u16] {
        &self.columns[self.starts[row]..self.starts[row + 1]]
    }
}

impl Layer {
    /// `offsets` are one row's smear, `shifts` the least and greatest offset of it over all rows.
    pub(super) fn of(
        window: &Window,
        sprite: &Sprite,
        path: (&[f32], &[f32]),
        shifts: (f32, f32),
        held: Option<impl Fn(Pixel) -> Pixel>,
    ) -> Self {
        let offsets = path.0;
        let low = offsets.iter().copied().fold(f32::INFINITY, f32::min) + shifts.0;
        let high = offsets.iter().copied().fold(f32::NEG_INFINITY, f32::max) + shifts.1;
        let reach = sprite.reach(low, high);
        let clip = |value: f32, most: usize| value.clamp(0.0, most as f32) as usize;
        let column = |x: f32| (x - window.left) * window.pixels_per_metre;
        let row = |y: f32| (window.top - y) * window.pixels_per_metre;
        let corners = window.corners().map(|corner| sprite.locate(corner).0);
        let seen = (
            corners.iter().copied().fold(f32::INFINITY, f32::min),
            corners.iter().copied().fold(f32::NEG_INFINITY, f32::max),
        );
        let smeared = sprite.smeared(path, seen, shifts, held);
        let columns =
            clip(column(reach[0]).floor() - 1.0, window.width)..clip(column(reach[2]).ceil() + 2.0, window.width);
        let visible = smeared.visible(shifts);
        Self {
            upright: Upright::of(window, sprite, &columns, &visible),
            columns,
            rows: clip(row(reach[3]).floor() - 1.0, window.height)..clip(row(reach[1]).ceil() + 2.0, window.height),
            visible,
            smeared,
        }
    }

    /// Calls back with what shows at each column of a row.
    #[inline]
    pub(super) fn visit(&self, places: &Places, shift: f32, mut each: impl FnMut(usize, Pixel)) {
        let level = places.stride == (1.0, 0.0);
        if level && self.smeared.along_row(places.first, shift, self.columns.clone(), &mut each) {
            return;
        }
        if let Some(upright) = &self.upright {
            for column in upright.row(places.row) {
                each(usize::from(*column), self.smeared.at(places.at(usize::from(*column)), shift));
            }
            return;
        }
        for column in self.columns.clone() {
            let place = places.at(column);
            if self.shows(place) {
                each(column, self.smeared.at(place, shift));
            }
        }
    }

    /// The same for a row that gets a pulse of its own.
    pub(super) fn visit_cut(&self, places: &Places, sprite: &Sprite, cut: &Smear, mut each: impl FnMut(usize, Pixel)) {
        for column in self.columns.clone() {
            let place = places.at(column);
            if self.shows(place)
                && let Some(seen) = sprite.weighted(place, cut.offsets(), cut.weights())
            {
                each(column, seen);
            }
        }
    }

    #[inline]
    pub(super) fn shows(&self, (along, across): (f32, f32)) -> bool {
        // Half a line before the first its neighbour already shows; the cast takes that to line 0.
        self.visible.get(across.max(0.0) as i32 as usize).is_some_and(|(from, to)| along > *from && along < *to)
    }
}

/// A sprite's coordinates along a row of the picture: one step a pixel.
pub(super) struct Places {
    pub(super) row: usize,
    pub(super) first: (f32, f32),
    pub(super) stride: (f32, f32),
}

impl Places {
    pub(super) fn along(window: &Window, row: usize, sprite: &Sprite) -> Self {
        Self { row, first: sprite.locate([window.x(0), window.y(row)]), stride: sprite.stride(window.pixels_per_metre) }
    }

    #[inline]
    pub(super) fn at(&self, column: usize) -> (f32, f32) {
        let steps = column as f32;
        (self.first.0 + steps * self.stride.0, self.first.1 + steps * self.stride.1)
    }
}
