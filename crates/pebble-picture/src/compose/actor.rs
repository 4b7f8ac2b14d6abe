//! A figure on the stage, rastered and smeared by every light, and laid over what is behind it.

use super::groups::Group;
use super::layers::{Layer, LightRow, Places};
use super::movement::Motion;
use super::slices::Drawing;
use super::stage::{Set, Stage};
use super::window::Window;
use crate::exposure::RowExposure;
use crate::smear::{Pixel, Sprite, Sprites};
use std::sync::atomic::Ordering;

/// A row with more of its flash than this is drawn as finely as a whole one.
const HARDLY_CUT: f32 = 0.8;

/// A set on the stage, rastered and smeared, with all that a row needs.
pub(super) struct Actor {
    pub(super) motion: Motion,
    /// In steady light.
    pub(super) steady: Option<(Sprite, Layer)>,
    /// By each group of flashes.
    pub(super) flashes: Vec<Flashed>,
}

/// Offsets that bound the stretches of a path, and how much of the light falls on each.
type Stretches<'a> = (&'a [f32], &'a [f32]);

/// A figure as a group of flashes draws it.
pub(super) struct Flashed {
    pub(super) sprite: Sprite,
    pub(super) layer: Layer,
    pub(super) pulse: Drawing,
}

impl Flashed {
    pub(super) fn of(
        stage: &Stage,
        group: &Group,
        motion: &Motion,
        mut sprite: Sprite,
        steady: (Stretches, (f32, f32)),
    ) -> Self {
        let as_it_is = |seen: Pixel| seen;
        let pulse = Drawing::of(&group.exposure, motion, stage.window.pixels_per_metre);
        let layer = match &pulse {
            Drawing::Glow => Layer::of(stage.window, &sprite, steady.0, steady.1, Some(as_it_is)),
            Drawing::Slices(slices) => {
                let whole = slices.smear(&group.exposure.whole_slices());
                let any_whole = group.rows.iter().any(|row| row.whole);
                Layer::of(
                    stage.window,
                    &sprite,
                    (whole.offsets(), whole.weights()),
                    (0.0, 0.0),
                    any_whole.then_some(as_it_is),
                )
            }
        };
        // Only a row that gets a pulse of its own looks at the sums again.
        if group.rows.iter().all(|row| row.whole) {
            sprite.forget();
        }
        Self { sprite, layer, pulse }
    }
}

impl Actor {
    /// Sets some figures up; nothing when none of them shows.
    pub(super) fn of(stage: &Stage, index: usize, set: &Set) -> Option<Self> {
        let motion = set.motion.clone();
        let sprites = stage.rastered(set, set.steady, set.flashed)?;
        let peak = match (motion.dwell, stage.peaks, &sprites.ambient) {
            (None, ..) | (Some(_), None, None) => None,
            (Some(_), Some(peaks), _) => peaks.get(index).copied().flatten(),
            (Some(_), None, Some(ambient)) => Some(ambient.peak_dwell(motion.steady(stage.rows).abs())),
        };
        stage.rastered.fetch_add(sprites.samples(), Ordering::Relaxed);
        let actor = Self::new(stage, motion, sprites, peak);
        stage.rastered.fetch_add(actor.smeared_samples(), Ordering::Relaxed);
        Some(actor)
    }

    /// `peak` is the greatest dwell of the body as it is drawn.
    pub(super) fn new(stage: &Stage, motion: Motion, sprites: Sprites, peak: Option<f32>) -> Self {
        let window = stage.window;
        // The drawn body may be wider or narrower along the movement than the part is said to be: it is held to the
        // part's own dwell.
        let scale = motion.dwell.map_or(1.0, |dwell| {
            let drawn = peak.unwrap_or(0.0);
            if drawn > 0.0 { dwell / drawn } else { 0.0 }
        });
        let held = |seen: Pixel| {
            let cover = (seen[0] * scale).min(1.0);
            let gain = if seen[0] > 0.0 { cover / seen[0] } else { 0.0 };
            [cover, seen[1] * gain, seen[2] * gain, seen[3] * gain]
        };
        let starts = stage.rows.iter().map(|row| motion.path(row).0);
        let shifts = starts.fold((f32::INFINITY, f32::NEG_INFINITY), |(low, high), at| (low.min(at), high.max(at)));
        let (offsets, shares) = motion.stretches(stage.rows);
        let path = (offsets.as_slice(), shares.as_slice());
        let Sprites { flash, ambient } = sprites;
        let flashed = stage.groups.iter().zip(flash);
        let flashes =
            flashed.map(|(group, sprite)| Flashed::of(stage, group, &motion, sprite, (path, shifts))).collect();
        let steady = ambient.map(|mut sprite| {
            let layer = Layer::of(window, &sprite, path, shifts, Some(held));
            sprite.forget();
            (sprite, layer)
        });
        Self { flashes, steady, motion }
    }

    pub(super) fn smeared_samples(&self) -> usize {
        self.steady.iter().map(|(_, layer)| layer.smeared.count()).sum::<usize>()
            + self.flashes.iter().map(|flashed| flashed.layer.smeared.count()).sum::<usize>()
    }

    pub(super) fn expose_ambient(&self, window: &Window, row: usize, record: &RowExposure, light: &mut LightRow) {
        let Some((sprite, layer)) = &self.steady else { return };
        if !layer.rows.contains(&row) {
            return;
        }
        let shift = self.motion.path(record).0;
        let places = Places::along(window, row, sprite);
        layer.visit(&places, shift, |column, seen| {
            let (pixel, keep) = (&mut light.ambient[column], 1.0 - seen[0]);
            *pixel = std::array::from_fn(|lane| pixel[lane] * keep + seen[lane]);
        });
    }

    pub(super) fn expose_flash(
        &self,
        group: usize,
        window: &Window,
        row: usize,
        record: &RowExposure,
        light: &mut [Pixel],
    ) {
        let Some(flashed) = self.flashes.get(group) else { return };
        let (layer, pulse) = (&flashed.layer, &flashed.pulse);
        if !layer.rows.contains(&row) || record.flash <= 0.0 {
            return;
        }
        let shift = if matches!(pulse, Drawing::Glow) { self.motion.path(record).0 } else { 0.0 };
        // A row at the edge of the sync window gets a pulse of its own.
        let cut = match pulse {
            Drawing::Slices(slices) if !record.whole && record.flash > HARDLY_CUT => Some(slices.smear(&record.slices)),
            Drawing::Slices(slices) if !record.whole => Some(slices.cut(&record.slices)),
            _ => None,
        };
        let lay = |column: usize, seen: Pixel| {
            let keep = 1.0 - (seen[0] / record.flash).min(1.0);
            let pixel = &mut light[column];
            *pixel = std::array::from_fn(|lane| pixel[lane] * keep + seen[lane]);
        };
        let places = Places::along(window, row, &flashed.sprite);
        match cut {
            None => layer.visit(&places, shift, lay),
            Some(cut) => layer.visit_cut(&places, &flashed.sprite, &cut, lay),
        }
    }
}
