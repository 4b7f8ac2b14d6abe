//! An inline skater with a hand lantern on a quay at dusk, coming from the left.

use super::paint::{band, chance, lines, mix, scaled, smooth};
use super::{Figure, Paint, Row, Scene};
use crate::body::{Body, Point, Tint, blob, flat, limb, ring};
use pebble_core::shot::DrawnAs;

const SKIN: Tint = Tint::of(1.0, 0.6, 0.42);
const JACKET: Tint = Tint::of(1.0, 0.58, 0.16);
const TROUSERS: Tint = Tint::of(0.35, 0.45, 0.7);
const BOOT: Tint = Tint::of(0.75, 0.85, 1.0);
const HELMET: Tint = Tint::of(0.25, 0.75, 0.72);
const LAMP: Tint = Tint::of(1.0, 0.66, 0.25);
const CONE: Tint = Tint::of(1.0, 0.3, 0.08);

/// Height of the far water's edge in the frame.
const HORIZON: f32 = 0.12;
/// Edge of the quay.
const KERB: f32 = -0.62;
/// Camera above the pavement at the subject.
const EYE: f32 = 1.34;

pub(super) fn scene() -> Scene {
    Scene {
        backdrop,
        farthest: 5.0,
        figures: vec![
            Figure { bodies: cones(), reflectance: 0.32, flash_gain: 0.55, ..Figure::default() },
            Figure::of(DrawnAs::Feet, 0.2, far_leg()),
            Figure::of(DrawnAs::Body, 0.3, trunk()),
            Figure::of(DrawnAs::Face, 0.36, head()),
            Figure { own_light: true, ..Figure::of(DrawnAs::Lantern, 0.5, lantern()) },
        ],
    }
}

fn backdrop(row: &Row, out: &mut [Paint]) {
    if row.y > HORIZON {
        let up = row.y - HORIZON;
        let sky = sky(up);
        row.paint(out, |x| {
            let (cover, lamps) = town(x, up, row);
            let tone = mix(sky, [0.05, 0.07, 0.12], cover);
            // The air and the far shore are beyond the reach of any flash.
            Paint { ambient: [tone[0] + 7.5 * lamps, tone[1] + 4.6 * lamps, tone[2] + 1.9 * lamps], flash: [0.0; 3] }
        });
    } else if row.y > KERB {
        water(row, out);
    } else {
        quay(row, out);
    }
}

fn quay(row: &Row, out: &mut [Paint]) {
    let y = row.y;
    let depth = EYE / -y;
    let soft = row.pixel * depth * 1.5;
    let course = 0.35 * (depth * 2.0).floor();
    let stone = 0.62 * (1.0 - 0.3 * lines(depth, 0.5, 0.01, soft * 1.3));
    let kerb = 0.8 * band(y, KERB - 0.035, 0.03, row.pixel);
    // A wet sheen that carries the sky's warm edge.
    let sheen = scaled([1.3, 0.8, 0.62], 0.32 * smooth(-1.9, KERB, y));
    let below = (y + 1.2) * (y + 1.2) / 1.2;
    row.paint(out, |x| {
        let tone = stone * (1.0 - 0.3 * lines(x * depth + course, 0.7, 0.012, soft));
        let tone = mix([tone; 3], [1.5, 1.42, 1.25], kerb);
        let away = (x - 0.9) * (x - 0.9) / 3.5 + below;
        Paint { ambient: std::array::from_fn(|c| tone[c] + sheen[c]), flash: scaled(tone, 5.0 / (1.0 + away)) }
    });
}

fn sky(up: f32) -> [f32; 3] {
    let low = mix([3.4, 1.35, 0.52], [1.15, 0.8, 0.95], smooth(0.0, 0.55, up));
    mix(low, [0.2, 0.34, 0.62], smooth(0.25, 1.75, up))
}

fn water(row: &Row, out: &mut [Paint]) {
    let down = HORIZON - row.y;
    let mirrored = scaled(sky(down * 1.6), 0.62);
    // Ripples: flat dashes, longer toward the camera.
    let shift = 9.0 * chance((down.sqrt() * 34.0) as i32);
    row.paint(out, |x| {
        let ripple = lines(x + shift, 0.34 + 0.5 * down, 0.07 + 0.12 * down, 0.06 + row.pixel);
        Paint { ambient: scaled(mirrored, 0.75 + 0.5 * ripple), flash: [0.0; 3] }
    });
}

/// Roofs of the far shore: how much of the sky they cover, and lit windows.
#[inline]
fn town(x: f32, up: f32, row: &Row) -> (f32, f32) {
    let far = row.farther / 5.0;
    if up > far * 0.2 {
        return (0.0, 0.0);
    }
    let house = (x / (0.2 * far)).floor();
    let tall = far * (0.05 + 0.13 * chance(house as i32));
    let cover = 1.0 - smooth(tall - row.pixel, tall + row.pixel, up);
    let cell = [(x / 0.045).floor(), (up / 0.038).floor()];
    let lit = chance(cell[0] as i32 * 57 + cell[1] as i32 * 131) > 0.8 && up < tall - 0.012 && up > 0.01;
    let inside = [(x / 0.045).fract().abs(), (up / 0.038).fract()].iter().all(|part| *part > 0.3 && *part < 0.72);
    (cover, if lit && inside { 1.0 } else { 0.0 })
}

fn cones() -> Vec<Body> {
    [(-2.35, -0.86, 0.6), (-1.0, -0.98, 0.75), (0.25, -1.16, 0.95), (2.15, -1.52, 1.35)]
        .into_iter()
        .flat_map(|(x, y, size)| {
            [
                limb([x - 0.1 * size, y], [x + 0.1 * size, y], 0.02 * size, 0.02 * size, CONE, 0.8),
                limb([x, y + 0.05 * size], [x, y + 0.3 * size], 0.075 * size, 0.02 * size, CONE, 1.0),
                limb(
                    [x - 0.035 * size, y + 0.16 * size],
                    [x + 0.035 * size, y + 0.16 * size],
                    0.02 * size,
                    0.02 * size,
                    Tint::NEUTRAL,
                    2.2,
                ),
            ]
        })
        .collect()
}

fn skate(heel: Point, toe: Point) -> Vec<Body> {
    let between = |t: f32, down: f32| [heel[0] + t * (toe[0] - heel[0]), heel[1] + t * (toe[1] - heel[1]) - down];
    let mut bodies = vec![
        limb(heel, toe, 0.068, 0.05, BOOT, 1.9),
        limb(between(0.0, 0.085), between(1.0, 0.085), 0.014, 0.014, TROUSERS, 0.5),
    ];
    bodies.extend((0..4).map(|k| blob(between(-0.08 + 0.39 * k as f32, 0.125), [0.036, 0.036], 0.0, CONE, 1.6)));
    bodies
}

fn far_leg() -> Vec<Body> {
    let mut bodies = vec![
        limb([0.9, -0.32], [0.62, -0.66], 0.115, 0.08, TROUSERS, 0.7),
        limb([0.62, -0.66], [0.24, -0.98], 0.076, 0.056, TROUSERS, 0.7),
    ];
    bodies.extend(skate([0.2, -1.05], [0.36, -1.12]));
    bodies.extend([
        limb([0.97, -0.34], [1.26, -0.66], 0.12, 0.084, TROUSERS, 1.0),
        limb([1.26, -0.66], [1.1, -1.06], 0.08, 0.058, TROUSERS, 1.0),
    ]);
    bodies.extend(skate([1.07, -1.15], [1.26, -1.165]));
    bodies
}

fn trunk() -> Vec<Body> {
    vec![
        limb([1.02, 0.2], [0.76, 0.02], 0.07, 0.055, JACKET, 0.8),
        limb([0.76, 0.02], [0.58, 0.17], 0.05, 0.038, JACKET, 0.8),
        blob([0.55, 0.2], [0.045, 0.045], 0.0, SKIN, 0.9),
        limb([0.92, -0.28], [1.12, 0.16], 0.142, 0.165, JACKET, 1.0),
        limb([0.86, -0.33], [1.02, -0.34], 0.11, 0.12, TROUSERS, 0.6),
        limb([1.0, -0.1], [1.17, -0.16], 0.012, 0.012, Tint::NEUTRAL, 2.4),
        limb([1.03, 0.02], [1.24, -0.03], 0.012, 0.012, Tint::NEUTRAL, 2.4),
        limb([1.16, 0.2], [1.42, 0.06], 0.074, 0.056, JACKET, 1.0),
        limb([1.42, 0.06], [1.64, 0.24], 0.052, 0.038, JACKET, 1.0),
        blob([1.67, 0.27], [0.044, 0.05], 0.0, SKIN, 1.1),
    ]
}

fn head() -> Vec<Body> {
    vec![
        limb([1.17, 0.28], [1.2, 0.36], 0.058, 0.056, SKIN, 0.8),
        blob([1.225, 0.445], [0.1, 0.128], -8.0, SKIN, 1.0),
        blob([1.205, 0.51], [0.122, 0.092], -8.0, HELMET, 0.75),
        limb([1.26, 0.49], [1.335, 0.47], 0.02, 0.012, HELMET, 0.6),
        limb([1.16, 0.43], [1.2, 0.335], 0.008, 0.008, TROUSERS, 0.2),
        flat(blob([1.272, 0.455], [0.012, 0.015], 0.0, TROUSERS, 0.1)),
        flat(blob([1.212, 0.458], [0.012, 0.015], 0.0, TROUSERS, 0.1)),
        blob([1.262, 0.425], [0.018, 0.022], 0.0, SKIN, 1.0),
        flat(blob([1.245, 0.382], [0.028, 0.008], 6.0, CONE, 0.3)),
    ]
}

fn lantern() -> Vec<Body> {
    vec![
        ring([1.68, 0.2], 0.045, 0.007, TROUSERS, 0.02),
        flat(blob([1.68, 0.07], [0.058, 0.078], 0.0, LAMP, 1.0)),
        flat(limb([1.645, 0.15], [1.715, 0.15], 0.014, 0.014, TROUSERS, 0.015)),
        flat(limb([1.645, -0.01], [1.715, -0.01], 0.014, 0.014, TROUSERS, 0.015)),
    ]
}
