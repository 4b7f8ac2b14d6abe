//! An aerialist in two silks, in a black box.

use super::paint::{band, lines, scaled, smooth};
use super::{Figure, Paint, Row, Scene};
use crate::body::{Body, Point, Tint, blob, flat, limb};
use pebble_core::shot::DrawnAs;

const SKIN: Tint = Tint::of(1.0, 0.58, 0.4);
const HAIR: Tint = Tint::of(0.32, 0.2, 0.16);
const SUIT: Tint = Tint::of(0.16, 0.28, 0.42);
const TRIM: Tint = Tint::of(1.0, 0.8, 0.45);
const SILK: Tint = Tint::of(1.0, 0.94, 0.9);

/// Where the floor of the box begins.
const FLOOR: f32 = -1.42;

pub(super) fn scene() -> Scene {
    Scene {
        backdrop,
        farthest: 4.0,
        figures: vec![
            Figure::of(DrawnAs::Silks, 0.5, tails()),
            Figure::of(DrawnAs::Feet, 0.34, legs()),
            Figure::of(DrawnAs::Body, 0.2, trunk()),
            Figure::of(DrawnAs::Face, 0.36, head()),
            // The cloth the hand holds stays where the hand is.
            Figure { bodies: held(), reflectance: 0.5, ..Figure::default() },
        ],
    }
}

fn backdrop(row: &Row, out: &mut [Paint]) {
    if row.y > FLOOR {
        // Black cloth, with the seams that a light always finds.
        let high = 0.8 + 0.25 * smooth(-0.5, 1.6, row.y);
        row.paint(out, |x| {
            let seam = 1.0 + 0.9 * lines(x * row.farther + 0.3, 1.4, 0.012, row.pixel * row.farther);
            let tone = [0.95 * seam, 0.97 * seam, 1.1 * seam];
            Paint { ambient: scaled(tone, high), flash: tone }
        });
    } else {
        let depth = FLOOR / row.y;
        let mat = band(depth, 0.93, 0.06, 0.01);
        row.paint(out, |x| {
            let inside = mat * band(x, 0.0, 1.5, 0.03);
            let tone = [1.6 + 1.4 * inside, 1.55 + 1.9 * inside, 1.7 + 2.6 * inside];
            Paint { ambient: tone, flash: scaled(tone, 2.4 / (1.0 + x * x / 2.0)) }
        });
    }
}

/// A ribbon through some places.
fn ribbon(places: &[Point], widths: &[f32], tone: f32) -> Vec<Body> {
    let pairs = places.windows(2).zip(widths.windows(2));
    pairs.map(|(at, wide)| limb(at[0], at[1], wide[0], wide[1], SILK, tone)).collect()
}

/// What hangs from the wraps and swings.
fn tails() -> Vec<Body> {
    let mut bodies = ribbon(
        &[[-0.06, -0.3], [-0.16, -0.62], [-0.08, -0.95], [-0.22, -1.28], [-0.12, -1.6]],
        &[0.03, 0.06, 0.085, 0.1, 0.11],
        0.9,
    );
    bodies.extend(ribbon(
        &[[-0.02, -0.3], [0.12, -0.6], [0.24, -0.92], [0.2, -1.26], [0.36, -1.6]],
        &[0.03, 0.055, 0.08, 0.1, 0.12],
        1.0,
    ));
    bodies
}

fn held() -> Vec<Body> {
    let mut bodies = ribbon(&[[0.02, 2.4], [0.04, 1.5], [0.11, 0.98]], &[0.05, 0.036, 0.022], 0.95);
    bodies.extend(ribbon(&[[0.14, 2.4], [0.13, 1.5], [0.12, 0.98]], &[0.05, 0.036, 0.022], 1.0));
    // The wrap over the hips.
    bodies.push(limb([-0.17, 0.05], [0.16, -0.07], 0.038, 0.038, SILK, 1.0));
    bodies.push(limb([-0.15, -0.07], [0.15, 0.06], 0.034, 0.034, SILK, 0.92));
    bodies
}

fn legs() -> Vec<Body> {
    vec![
        // Down along the cloth.
        limb([0.0, -0.05], [-0.06, -0.48], 0.1, 0.07, SUIT, 0.5),
        limb([-0.06, -0.48], [-0.02, -0.9], 0.066, 0.04, SKIN, 1.0),
        limb([-0.02, -0.92], [0.03, -1.06], 0.034, 0.016, SKIN, 1.0),
        // Stretched behind.
        limb([-0.06, 0.0], [-0.5, 0.14], 0.1, 0.07, SUIT, 0.5),
        limb([-0.5, 0.14], [-0.92, 0.34], 0.066, 0.04, SKIN, 1.0),
        limb([-0.94, 0.35], [-1.09, 0.43], 0.034, 0.015, SKIN, 1.0),
    ]
}

fn trunk() -> Vec<Body> {
    vec![
        limb([0.0, -0.02], [0.17, 0.34], 0.112, 0.128, SUIT, 1.0),
        limb([0.08, 0.17], [0.2, 0.13], 0.012, 0.012, TRIM, 2.6),
        limb([0.16, 0.42], [0.3, 0.36], 0.075, 0.07, SUIT, 1.0),
        // The hand that holds.
        limb([0.13, 0.44], [0.04, 0.72], 0.05, 0.042, SKIN, 1.8),
        limb([0.04, 0.72], [0.11, 0.98], 0.04, 0.03, SKIN, 1.8),
        blob([0.115, 1.0], [0.036, 0.045], 0.0, SKIN, 1.8),
        // The arm that is shown.
        limb([0.32, 0.4], [0.64, 0.46], 0.05, 0.042, SKIN, 1.8),
        limb([0.64, 0.46], [0.96, 0.58], 0.04, 0.026, SKIN, 1.8),
        limb([0.97, 0.585], [1.06, 0.63], 0.024, 0.01, SKIN, 1.8),
    ]
}

fn head() -> Vec<Body> {
    vec![
        limb([0.25, 0.44], [0.3, 0.54], 0.05, 0.048, SKIN, 0.85),
        blob([0.345, 0.645], [0.094, 0.122], -12.0, SKIN, 1.0),
        blob([0.31, 0.69], [0.112, 0.1], -12.0, HAIR, 0.35),
        blob([0.235, 0.76], [0.05, 0.048], 0.0, HAIR, 0.32),
        flat(blob([0.332, 0.655], [0.011, 0.013], 0.0, HAIR, 0.12)),
        flat(blob([0.388, 0.645], [0.011, 0.013], 0.0, HAIR, 0.12)),
        blob([0.37, 0.625], [0.014, 0.02], 0.0, SKIN, 1.0),
        flat(blob([0.362, 0.585], [0.026, 0.008], -8.0, Tint::of(0.9, 0.2, 0.2), 0.4)),
    ]
}
