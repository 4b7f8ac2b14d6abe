//! The pulse along a movement: how the flash smears a figure, whole or cut.
//!
//! A pulse need not have one peak: its light is looked up for each slice, however it came to be.

use super::movement::Motion;
use crate::exposure::{Exposure, SLICES};

/// How the flash draws a figure.
pub(super) enum Drawing {
    /// It glows while the slit passes: the figure moves as in steady light.
    Glow,
    /// Its pulse in slices along the movement.
    Slices(Slices),
}

/// The pulse along a movement.
pub(super) struct Slices {
    /// How many of them are drawn as one.
    pub(super) merged: usize,
    /// Offsets between which each slice draws; all zero while the whole smear falls within half a pixel.
    pub(super) offsets: [f32; SLICES + 1],
}

impl Drawing {
    pub(super) fn of(flash: &Exposure, motion: &Motion, pixels_per_metre: f32) -> Self {
        if flash.glows() {
            return Self::Glow;
        }
        let offsets = flash.slice_bounds_s.map(|t| motion.offset(t));
        let smear = (offsets[SLICES] - offsets[0]).abs() * pixels_per_metre;
        if smear <= 0.5 {
            // Where it stands: a flash that fires later finds the figure elsewhere.
            let middle = 0.5 * (offsets[SLICES] + offsets[0]);
            let aside = if middle.abs() * pixels_per_metre <= 0.5 { 0.0 } else { middle };
            return Self::Slices(Slices { merged: SLICES, offsets: [aside; SLICES + 1] });
        }
        // A slice finer than a pixel is not told from its neighbour.
        let merged = [5, 2].into_iter().find(|merged| smear * *merged as f32 / (SLICES as f32) < 1.2).unwrap_or(1);
        Self::Slices(Slices { merged, offsets })
    }
}

impl Slices {
    /// Whether all of it falls within a pixel of where the figure stands.
    pub(super) fn stands(&self) -> bool {
        self.offsets == [0.0; SLICES + 1]
    }

    /// The light of each slice laid along the movement.
    pub(super) fn smear(&self, light: &[f32; SLICES]) -> Smear {
        let merged = self.merged;
        Smear {
            stretches: SLICES / merged,
            offsets: std::array::from_fn(|k| self.offsets[(k * merged).min(SLICES)]),
            weights: std::array::from_fn(|k| light.iter().skip(k * merged).take(merged).sum()),
        }
    }
}

impl Slices {
    /// The light of a row that lost some of it: two stretches, split at half of what is left. A row that is cut is wrong
    /// already; how its smear is shaped inside is not worth the time of drawing it finer.
    pub(super) fn cut(&self, light: &[f32; SLICES]) -> Smear {
        let total: f32 = light.iter().sum();
        let first = light.iter().position(|part| *part > 0.0).unwrap_or(0);
        let last = light.iter().rposition(|part| *part > 0.0).unwrap_or(SLICES - 1);
        let mut before = 0.0;
        let split = (first..last).find(|slice| {
            before += light[*slice];
            before >= 0.5 * total
        });
        let split = split.unwrap_or(last);
        let mut smear = Smear { stretches: 2, offsets: [0.0; SLICES + 1], weights: [0.0; SLICES] };
        smear.offsets[..3].copy_from_slice(&[self.offsets[first], self.offsets[split + 1], self.offsets[last + 1]]);
        smear.weights[..2].copy_from_slice(&[light[..=split].iter().sum(), light[split + 1..].iter().sum()]);
        if split == last {
            smear.stretches = 1;
        }
        smear
    }
}

/// Neighbouring stretches of a path and the light on each.
pub(super) struct Smear {
    pub(super) stretches: usize,
    pub(super) offsets: [f32; SLICES + 1],
    pub(super) weights: [f32; SLICES],
}

impl Smear {
    pub(super) fn offsets(&self) -> &[f32] {
        &self.offsets[..=self.stretches]
    }

    pub(super) fn weights(&self) -> &[f32] {
        &self.weights[..self.stretches]
    }
}
