//! A flatland rider on the back wheel of a small bicycle, on a slipway in the noon sun.

use super::paint::{band, chance, lines, mix, scaled, smooth};
use super::{Figure, Paint, Row, Scene};
use crate::body::{Body, Point, Tint, blob, flat, limb, ring};
use pebble_core::shot::DrawnAs;

const SKIN: Tint = Tint::of(1.0, 0.6, 0.42);
const SHIRT: Tint = Tint::of(0.95, 0.34, 0.24);
const TROUSERS: Tint = Tint::of(0.5, 0.56, 0.66);
const HELMET: Tint = Tint::of(1.0, 0.85, 0.3);
const TYRE: Tint = Tint::of(0.9, 0.92, 1.0);
const FRAME: Tint = Tint::of(0.2, 0.72, 0.85);
const METAL: Tint = Tint::NEUTRAL;

/// Height of the sea's edge in the frame.
const HORIZON: f32 = 0.08;
/// Camera above the ground at the subject.
const EYE: f32 = 0.92;
/// The two axles.
const REAR: Point = [-0.24, -0.66];
const FRONT: Point = [0.4, -0.2];
const WHEEL: f32 = 0.235;

pub(super) fn scene() -> Scene {
    Scene {
        backdrop,
        farthest: 5.0,
        figures: vec![
            Figure::of(DrawnAs::Bicycle, 0.25, bicycle()),
            Figure::of(DrawnAs::Body, 0.3, rider()),
            Figure::of(DrawnAs::Face, 0.36, head()),
        ],
    }
}

fn backdrop(row: &Row, out: &mut [Paint]) {
    if row.y > HORIZON {
        sky(row, out);
        return;
    }
    let y = row.y;
    let sea = Sea::at(y);
    let depth = EYE / -(y - 0.05).min(-0.05);
    let soft = row.pixel * depth * 1.6;
    let slab = scaled([1.06, 1.0, 0.9], 1.2 * (1.0 - 0.4 * lines(depth, 0.42, 0.008, soft * 1.2)));
    let course = (depth * 7.0).floor() as i32;
    let under = ((y + 0.95) / 0.055).powi(2);
    let below = (y + 0.9) * (y + 0.9) / 0.5;
    row.paint(out, |x| {
        // The slip runs down to the water, a little aslant.
        let edge = -0.3 - 0.05 * x;
        if y > edge {
            return Paint { ambient: sea.tone(x, row.pixel), flash: [0.0; 3] };
        }
        let across = x * depth;
        let mut tone = scaled(slab, 0.92 + 0.16 * chance((across * 3.1).floor() as i32 * 31 + course));
        tone = scaled(tone, 1.0 - 0.4 * lines(across + 0.12 * depth, 0.8, 0.012, soft));
        tone = mix(tone, [0.28, 0.5, 0.34], 0.75 * smooth(edge - 0.12, edge, y));
        // A high sun: the shadow lies under the wheel, to the right.
        let shadow = smooth(1.0, 0.55, ((x - 0.02) / 0.62).powi(2) + under);
        let away = x * x / 2.2 + below;
        Paint { ambient: scaled(tone, 1.0 - 0.62 * shadow), flash: scaled(tone, 30.0 / (1.0 + away)) }
    });
}

/// Flat clouds: centre, height, half length, half thickness.
const CLOUDS: [[f32; 4]; 5] = [
    [-1.25, 0.72, 0.7, 0.045],
    [-0.85, 0.78, 0.45, 0.04],
    [0.95, 0.95, 0.75, 0.04],
    [1.35, 0.89, 0.5, 0.035],
    [1.5, 0.5, 0.5, 0.02],
];

/// A headland with a light tower under flat clouds.
fn sky(row: &Row, out: &mut [Paint]) {
    let (up, soft) = (row.y - HORIZON, row.pixel);
    let clear = mix([2.0, 2.15, 2.3], [0.55, 1.05, 2.1], smooth(0.0, 1.3, up));
    let clouds = CLOUDS.map(|[centre, height, long, thick]| (centre, 1.0 / long, ((up - height) / thick).powi(2)));
    let hoops = if (up * 9.0) % 1.0 > 0.5 { [2.4, 2.3, 2.2] } else { [1.5, 0.35, 0.25] };
    let tower_height = 1.0 - smooth(0.4 - soft, 0.4 + soft, up);
    row.paint(out, |x| {
        let mut tone = clear;
        for (centre, per_length, lift) in clouds {
            let along = (x - centre) * per_length;
            if lift + along * along < 1.0 {
                tone = mix(tone, [2.7, 2.7, 2.7], 0.6 * smooth(1.0, 0.1, lift + along * along));
            }
        }
        if x < -0.4 && up < 0.5 {
            let land = 0.06 + 0.05 * smooth(-0.7, -1.9, x) + 0.012 * (7.0 * x).sin();
            tone = mix(tone, [0.42, 0.55, 0.5], smooth(-0.45, -0.6, x) * (1.0 - smooth(land - soft, land + soft, up)));
            tone = mix(tone, hoops, band(x, -1.32, 0.035 - 0.02 * up, soft) * tower_height);
        }
        Paint { ambient: tone, flash: [0.0; 3] }
    });
}

/// The sea at one height.
struct Sea {
    tone: [f32; 3],
    shift: f32,
    spacing: f32,
    half: f32,
}

impl Sea {
    fn at(y: f32) -> Self {
        let down = (HORIZON - y).max(0.0);
        Self {
            tone: mix([0.62, 1.1, 1.35], [0.3, 0.75, 0.8], smooth(0.0, 0.4, down)),
            shift: 7.0 * chance((down.sqrt() * 30.0) as i32),
            spacing: 0.22 + 0.6 * down,
            half: 0.03 + 0.08 * down,
        }
    }

    fn tone(&self, x: f32, pixel: f32) -> [f32; 3] {
        mix(self.tone, [2.2, 2.4, 2.4], 0.55 * lines(x + self.shift, self.spacing, self.half, 0.02 + pixel))
    }
}

fn wheel(axle: Point) -> Vec<Body> {
    let mut bodies: Vec<Body> = (0..9)
        .map(|k| {
            let (sin, cos) = (std::f32::consts::PI * (k as f32 / 9.0 + 0.06)).sin_cos();
            limb(
                [axle[0] - WHEEL * cos, axle[1] - WHEEL * sin],
                [axle[0] + WHEEL * cos, axle[1] + WHEEL * sin],
                0.0035,
                0.0035,
                METAL,
                1.5,
            )
        })
        .collect();
    bodies.extend([
        ring(axle, WHEEL, 0.024, TYRE, 0.22),
        ring(axle, WHEEL - 0.03, 0.009, HELMET, 1.6),
        blob(axle, [0.034, 0.034], 0.0, METAL, 1.2),
    ]);
    bodies
}

fn bicycle() -> Vec<Body> {
    let (crank, seat, head) = ([0.02, -0.5], [-0.12, -0.16], [0.235, 0.0]);
    let tube = |from, to| limb(from, to, 0.02, 0.02, FRAME, 1.7);
    let mut bodies = wheel(REAR);
    bodies.extend(wheel(FRONT));
    bodies.extend([
        tube(REAR, crank),
        tube(REAR, seat),
        tube(crank, seat),
        tube(crank, head),
        tube(seat, head),
        limb(head, FRONT, 0.02, 0.016, METAL, 1.5),
        limb(head, [0.2, 0.17], 0.018, 0.018, METAL, 1.4),
        limb([0.1, 0.22], [0.32, 0.19], 0.016, 0.016, TYRE, 0.4),
        limb([-0.2, -0.11], [-0.04, -0.12], 0.028, 0.02, TYRE, 0.3),
        ring(crank, 0.055, 0.01, METAL, 1.2),
        limb(crank, [0.1, -0.62], 0.012, 0.012, METAL, 1.2),
        limb([0.05, -0.63], [0.16, -0.63], 0.018, 0.018, TYRE, 0.4),
    ]);
    bodies
}

fn rider() -> Vec<Body> {
    vec![
        limb([-0.28, 0.06], [-0.02, -0.12], 0.1, 0.075, TROUSERS, 0.55),
        limb([-0.02, -0.12], [0.08, -0.53], 0.07, 0.05, TROUSERS, 0.55),
        limb([0.05, -0.59], [0.17, -0.61], 0.045, 0.036, SHIRT, 0.5),
        limb([-0.32, 0.05], [-0.42, -0.3], 0.105, 0.078, TROUSERS, 0.75),
        limb([-0.42, -0.3], [-0.3, -0.62], 0.074, 0.052, TROUSERS, 0.75),
        limb([-0.32, -0.66], [-0.2, -0.68], 0.048, 0.038, SHIRT, 0.6),
        limb([0.0, 0.46], [0.2, 0.38], 0.055, 0.045, SHIRT, 0.8),
        limb([0.2, 0.38], [0.3, 0.21], 0.04, 0.032, SKIN, 1.0),
        limb([-0.29, 0.07], [-0.07, 0.43], 0.132, 0.155, SHIRT, 1.0),
        limb([-0.33, 0.03], [-0.23, 0.02], 0.115, 0.115, TROUSERS, 0.7),
        limb([-0.06, 0.46], [0.05, 0.27], 0.068, 0.052, SHIRT, 1.0),
        limb([0.05, 0.27], [0.13, 0.22], 0.045, 0.036, SKIN, 1.2),
    ]
}

fn head() -> Vec<Body> {
    vec![
        limb([-0.01, 0.55], [0.02, 0.61], 0.055, 0.052, SKIN, 0.85),
        blob([0.05, 0.69], [0.098, 0.122], -6.0, SKIN, 1.0),
        blob([0.03, 0.745], [0.122, 0.095], -8.0, HELMET, 1.3),
        limb([0.09, 0.735], [0.165, 0.715], 0.02, 0.012, HELMET, 1.0),
        flat(blob([0.095, 0.7], [0.012, 0.015], 0.0, TYRE, 0.1)),
        flat(blob([0.035, 0.702], [0.012, 0.015], 0.0, TYRE, 0.1)),
        blob([0.085, 0.672], [0.018, 0.022], 0.0, SKIN, 1.0),
        flat(blob([0.07, 0.63], [0.028, 0.008], 6.0, SHIRT, 0.3)),
    ]
}
