//! Three finishers with their medals in front of a printed wall.

use super::paint::{band, chance, mix};
use super::{Figure, Paint, Row, Scene};
use crate::body::{Body, Tint, blob, flat, limb, ring};
use pebble_core::shot::DrawnAs;

const SKINS: [Tint; 3] = [Tint::of(1.0, 0.56, 0.38), Tint::of(1.0, 0.64, 0.48), Tint::of(0.9, 0.5, 0.34)];
const SHIRTS: [Tint; 3] = [Tint::of(0.2, 0.55, 0.6), Tint::of(0.95, 0.42, 0.16), Tint::of(0.3, 0.35, 0.75)];
const HAIRS: [Tint; 3] = [Tint::of(0.3, 0.2, 0.14), Tint::of(0.85, 0.6, 0.3), Tint::of(0.12, 0.1, 0.1)];
const RIBBON: Tint = Tint::of(0.62, 0.5, 1.0);
const MEDAL: Tint = Tint::of(1.0, 0.78, 0.34);
/// Where each stands, and how tall against the middle one.
const PLACES: [(f32, f32); 3] = [(-0.72, -0.06), (0.02, 0.0), (0.74, -0.1)];

pub(super) fn scene() -> Scene {
    let each = |draw: fn(usize) -> Vec<Body>| (0..3).flat_map(draw).collect();
    Scene {
        backdrop,
        farthest: 4.0,
        figures: vec![
            Figure::of(DrawnAs::Body, 0.3, each(trunk)),
            Figure::of(DrawnAs::Face, 0.36, each(head)),
            Figure::of(DrawnAs::Medal, 0.6, each(medal)),
        ],
    }
}

/// A wall of cloth, printed with pebbles and their streaks.
fn backdrop(row: &Row, out: &mut [Paint]) {
    let far = row.farther;
    let high = row.y * far;
    let line = (high / 0.34).floor();
    let within = high - (line + 0.5) * 0.34;
    let soft = row.pixel * far;
    row.paint(out, |x| {
        let wide = x * far + if line as i32 % 2 == 0 { 0.0 } else { 0.36 };
        let column = (wide / 0.72).floor();
        let at = wide - (column + 0.5) * 0.72;
        let stone = 1.0 - ((at - 0.12) * (at - 0.12) / 0.0075 + within * within / 0.0034);
        let streak = band(within, 0.0, 0.012, soft) * band(at, -0.1, 0.13, 0.02);
        let warm = chance(line as i32 * 37 + column as i32) > 0.5;
        let ink = if warm { [2.6, 1.6, 0.7] } else { [0.7, 1.5, 1.75] };
        let cover = (stone / soft.max(0.02) * 0.5).clamp(0.0, 1.0).max(0.8 * streak);
        let tone = mix([0.72, 0.82, 0.95], ink, cover);
        Paint { ambient: tone, flash: tone }
    });
}

fn trunk(index: usize) -> Vec<Body> {
    let ((x, drop), shirt, skin) = (PLACES[index], SHIRTS[index], SKINS[index]);
    let at = |dx: f32, y: f32| [x + dx, y + drop];
    vec![
        limb(at(-0.24, 0.16), at(-0.32, -0.25), 0.075, 0.06, shirt, 0.95),
        limb(at(-0.32, -0.25), at(-0.29, -0.62), 0.05, 0.04, skin, 1.2),
        limb(at(0.24, 0.16), at(0.32, -0.25), 0.075, 0.06, shirt, 0.95),
        limb(at(0.32, -0.25), at(0.29, -0.62), 0.05, 0.04, skin, 1.2),
        blob(at(-0.19, 0.13), [0.105, 0.1], 0.0, shirt, 1.0),
        blob(at(0.19, 0.13), [0.105, 0.1], 0.0, shirt, 1.0),
        limb(at(0.0, -0.7), at(0.0, -1.4), 0.175, 0.19, Tint::of(0.3, 0.34, 0.42), 0.35),
        limb(at(0.0, 0.02), at(0.0, -0.62), 0.205, 0.18, shirt, 1.0),
    ]
}

fn head(index: usize) -> Vec<Body> {
    let ((x, drop), skin, hair) = (PLACES[index], SKINS[index], HAIRS[index]);
    let at = |dx: f32, y: f32| [x + dx, y + drop];
    vec![
        limb(at(0.0, 0.2), at(0.0, 0.3), 0.06, 0.056, skin, 0.85),
        blob(at(0.0, 0.535), [0.118, 0.112], 0.0, hair, 0.4),
        blob(at(0.0, 0.46), [0.1, 0.134], 0.0, skin, 1.0),
        blob(at(0.0, 0.575), [0.104, 0.052], 0.0, hair, 0.4),
        flat(blob(at(-0.038, 0.475), [0.013, 0.014], 0.0, hair, 0.1)),
        flat(blob(at(0.038, 0.475), [0.013, 0.014], 0.0, hair, 0.1)),
        blob(at(0.0, 0.445), [0.017, 0.026], 0.0, skin, 1.0),
        flat(blob(at(0.0, 0.395), [0.038, 0.012], 0.0, Tint::of(0.9, 0.3, 0.26), 0.5)),
    ]
}

fn medal(index: usize) -> Vec<Body> {
    let (x, drop) = PLACES[index];
    let at = |dx: f32, y: f32| [x + dx, y + drop];
    vec![
        limb(at(-0.1, 0.22), at(0.0, -0.1), 0.016, 0.016, RIBBON, 0.5),
        limb(at(0.1, 0.22), at(0.0, -0.1), 0.016, 0.016, RIBBON, 0.5),
        blob(at(0.0, -0.15), [0.058, 0.058], 0.0, MEDAL, 1.0),
        ring(at(0.0, -0.15), 0.05, 0.006, MEDAL, 0.7),
    ]
}
