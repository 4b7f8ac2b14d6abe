//! A fencer in a lunge on a metal strip, in a dark hall with curtains.

use super::paint::{band, chance, lines, mix, scaled, smooth};
use super::{Figure, Paint, Row, Scene};
use crate::body::{Body, Tint, blob, flat, limb};
use pebble_core::shot::DrawnAs;

const CLOTH: Tint = Tint::of(0.98, 1.0, 1.04);
const MESH: Tint = Tint::of(0.7, 0.85, 1.0);
const GLOVE: Tint = Tint::of(0.9, 0.8, 0.66);
const STEEL: Tint = Tint::of(0.9, 0.98, 1.1);
const SOCK: Tint = Tint::of(0.85, 0.25, 0.2);
const SHOE: Tint = Tint::of(0.3, 0.4, 0.6);

/// Camera above the floor.
const EYE: f32 = 1.15;

pub(super) fn scene() -> Scene {
    Scene {
        backdrop,
        farthest: 5.0,
        figures: vec![
            Figure::of(DrawnAs::Feet, 0.6, legs()),
            Figure::of(DrawnAs::Body, 0.7, trunk()),
            Figure::of(DrawnAs::Face, 0.12, mask()),
            Figure::of(DrawnAs::Blade, 0.6, blade()),
        ],
    }
}

fn backdrop(row: &Row, out: &mut [Paint]) {
    let edge = -EYE / row.farther;
    if row.y > edge {
        // Heavy curtains in folds, a little lighter where the hall's lamps hang.
        let high = 0.5 + 0.9 * smooth(0.2, 1.6, row.y);
        row.paint(out, |x| {
            let fold = x * row.farther * 2.3;
            let shade = 0.62 + 0.38 * (fold.sin() * 0.6 + (fold * 2.7 + 1.0).sin() * 0.4);
            let tone = [0.9 * shade, 0.78 * shade, 1.05 * shade];
            Paint { ambient: scaled(tone, high), flash: tone }
        });
    } else {
        floor(row, out);
    }
}

fn floor(row: &Row, out: &mut [Paint]) {
    let depth = EYE / -row.y;
    let soft = row.pixel * depth * 1.5;
    // The strip lies across the picture, from 0.72 to 1.18 of the subject's distance.
    let strip = smooth(0.7, 0.73, depth) * (1.0 - smooth(1.2, 1.24, depth));
    let near = (row.y + EYE) * (row.y + EYE);
    row.paint(out, |x| {
        let wide = x * depth;
        let board = lines(depth, 0.16, 0.008, soft);
        let wood = mix([0.75, 0.56, 0.4], [0.4, 0.3, 0.22], 0.6 * board);
        let scratch = 0.85 + 0.3 * chance((wide * 31.0).floor() as i32 + (depth * 57.0) as i32 * 911);
        let metal = scaled([1.5, 1.6, 1.75], scratch);
        let mark = band(wide, -1.9, 0.03, soft) + band(wide, 1.9, 0.03, soft) + band(wide, 0.0, 0.02, soft);
        let tone = mix(wood, mix(metal, [2.6, 2.5, 2.3], mark.min(1.0)), strip);
        // Flash pools under the fencer.
        let pool = 7.0 / (1.0 + (x - 0.1) * (x - 0.1) / 2.2 + near * 2.0);
        Paint { ambient: tone, flash: scaled(tone, pool) }
    });
}

fn legs() -> Vec<Body> {
    vec![
        // The leg that pushes.
        limb([-0.12, -0.42], [-0.62, -0.72], 0.105, 0.078, CLOTH, 0.9),
        limb([-0.62, -0.72], [-1.02, -1.04], 0.074, 0.05, SOCK, 0.6),
        limb([-1.1, -1.09], [-0.93, -1.11], 0.042, 0.036, SHOE, 0.5),
        // The leg that reaches.
        limb([-0.06, -0.44], [0.46, -0.62], 0.118, 0.088, CLOTH, 1.0),
        limb([0.46, -0.62], [0.5, -1.03], 0.078, 0.052, SOCK, 0.7),
        limb([0.46, -1.09], [0.68, -1.1], 0.046, 0.036, SHOE, 0.55),
    ]
}

fn trunk() -> Vec<Body> {
    vec![
        // The arm behind, for balance.
        limb([0.04, 0.1], [-0.34, 0.02], 0.066, 0.05, CLOTH, 0.85),
        limb([-0.34, 0.02], [-0.62, 0.16], 0.05, 0.036, CLOTH, 0.85),
        blob([-0.66, 0.19], [0.045, 0.05], 0.0, GLOVE, 0.8),
        limb([-0.1, -0.36], [0.12, 0.08], 0.14, 0.165, CLOTH, 1.0),
        limb([-0.13, -0.4], [-0.02, -0.4], 0.11, 0.12, CLOTH, 0.92),
        limb([-0.02, -0.2], [0.2, 0.02], 0.008, 0.008, MESH, 0.5),
        // The arm that reaches, a cuff and a glove.
        limb([0.18, 0.1], [0.54, 0.1], 0.074, 0.058, CLOTH, 1.0),
        limb([0.54, 0.1], [0.84, 0.14], 0.056, 0.042, CLOTH, 1.0),
        limb([0.76, 0.13], [0.9, 0.145], 0.05, 0.044, GLOVE, 0.8),
    ]
}

fn mask() -> Vec<Body> {
    let mut bodies = vec![
        limb([0.17, 0.22], [0.22, 0.3], 0.075, 0.07, CLOTH, 3.6),
        blob([0.27, 0.42], [0.125, 0.155], -8.0, MESH, 1.0),
        blob([0.235, 0.5], [0.115, 0.1], -8.0, CLOTH, 3.2),
        limb([0.19, 0.27], [0.33, 0.25], 0.05, 0.04, CLOTH, 3.8),
    ];
    // The mesh catches light in lines.
    bodies.extend((0..5).map(|k| {
        let x = 0.3 + 0.022 * k as f32;
        flat(limb([x - 0.02, 0.36], [x, 0.47], 0.0035, 0.0035, STEEL, 2.4))
    }));
    bodies
}

fn blade() -> Vec<Body> {
    vec![
        blob([0.93, 0.15], [0.028, 0.07], -6.0, STEEL, 1.1),
        limb([0.86, 0.09], [0.96, 0.13], 0.012, 0.016, STEEL, 0.8),
        limb([0.95, 0.15], [1.4, 0.195], 0.009, 0.0075, STEEL, 1.2),
        limb([1.4, 0.195], [1.84, 0.2], 0.0075, 0.005, STEEL, 1.2),
    ]
}
