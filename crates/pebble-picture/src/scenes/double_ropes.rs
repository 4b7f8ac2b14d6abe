//! A skipper in the air between two turning ropes, in a sports hall at evening.

use super::paint::{band, lines, mix, scaled, smooth};
use super::{Figure, Paint, Row, Scene};
use crate::body::{Body, Tint, blob, flat, limb};
use pebble_core::shot::DrawnAs;

const SKIN: Tint = Tint::of(1.0, 0.56, 0.38);
const HAIR: Tint = Tint::of(0.5, 0.32, 0.24);
const SHIRT: Tint = Tint::of(1.0, 0.93, 0.78);
const STRIPE: Tint = Tint::of(0.95, 0.2, 0.12);
const SHORTS: Tint = Tint::of(0.25, 0.33, 0.75);
const SHOE: Tint = Tint::of(1.0, 0.62, 0.3);
const ROPE: Tint = Tint::of(1.0, 0.86, 0.5);
const DARK_CLOTH: Tint = Tint::of(0.5, 0.62, 0.75);

/// Camera above the floor.
const EYE: f32 = 1.15;
/// How far a lamp's glow is seen on the wall.
const LAMP_REACH: f32 = 0.3;
/// Half the distance of the turners' hands.
const REACH: f32 = 1.42;

pub(super) fn scene() -> Scene {
    let rope = |height: f32, reverse: bool| Figure {
        swing: Some([-REACH, REACH]),
        reverse,
        ..Figure::of(DrawnAs::Ropes, 0.7, arc(height))
    };
    Scene {
        backdrop,
        farthest: 6.0,
        figures: vec![
            rope(1.16, true),
            turner(-1.0),
            turner(1.0),
            Figure::of(DrawnAs::Body, 0.5, trunk()),
            Figure::of(DrawnAs::Feet, 0.5, feet()),
            Figure::of(DrawnAs::Face, 0.36, head()),
            rope(-1.0, false),
        ],
    }
}

fn backdrop(row: &Row, out: &mut [Paint]) {
    if row.y > -EYE / row.farther {
        wall(row, out);
    } else {
        floor(row, out);
    }
}

/// Wall bars up to 2.6 m, a padded strip below them, a painted line above, dim lamps under the ceiling.
fn wall(row: &Row, out: &mut [Paint]) {
    let (y, far) = (row.y, row.farther);
    let up = y * far + EYE;
    let soft = row.pixel * far;
    let plain = scaled([0.85, 1.02, 1.12], 1.25 - 0.1 * up);
    let padded = mix(plain, [0.35, 0.5, 0.85], 0.85 * band(up, 0.42, 0.42, soft));
    let even = mix(padded, [1.9, 0.55, 0.3], 0.75 * band(up, 3.05, 0.09, soft));
    let bars = 0.6 * lines(up, 0.14, 0.022, soft) * band(up, 1.75, 0.85, 2.0 * soft);
    let posts = band(up, 1.75, 0.9, soft);
    let lamp_row = y - 1.33;
    let (framed, lamps) = (bars + posts > 0.0, lamp_row.abs() < LAMP_REACH);
    row.paint(out, |x| {
        let mut tone = even;
        if framed {
            let field = (x * far + 1.6) / 3.2;
            let within = field - field.floor();
            let post = (band(within, 0.36, 0.016, 0.006) + band(within, 0.99, 0.016, 0.006)).min(1.0);
            tone = mix(tone, [1.9, 1.25, 0.7], bars * smooth(0.35, 0.37, within));
            tone = mix(tone, [1.5, 1.0, 0.56], posts * post);
        }
        let flash = scaled(tone, pool(x, y));
        if lamps {
            let off = x - (x / 0.62).round() * 0.62;
            let lamp = (off * off + lamp_row * lamp_row).sqrt();
            let near = 1.0 - (lamp / LAMP_REACH).min(1.0);
            let glow = 30.0 * (1.0 - smooth(0.02, 0.034, lamp)) + 1.1 * near * near * near;
            tone = [tone[0] + glow, tone[1] + glow, tone[2] + 0.86 * glow];
        }
        Paint { ambient: tone, flash }
    });
}

fn floor(row: &Row, out: &mut [Paint]) {
    let y = row.y;
    // Depth of the floor at this height, in distances of the subject.
    let depth = EYE / -y;
    let soft = row.pixel * depth * 1.5;
    let wood = scaled([1.55, 1.0, 0.58], 1.75 / (0.6 + 0.4 * depth));
    let court = 0.7 * band(depth, 1.42, 0.035, soft * 1.4);
    let under = (y + 1.2) * (y + 1.2) / 0.012;
    row.paint(out, |x| {
        let across = x * depth;
        let mut tone = scaled(wood, 1.0 - 0.35 * lines(across, 0.24, 0.006, soft));
        tone = mix(tone, [1.1, 2.2, 2.6], court);
        tone = mix(tone, [2.8, 2.6, 2.2], 0.6 * band(across - 0.25 * depth, 1.75, 0.035, soft));
        // The skipper's own shadow under the jump.
        let tone = scaled(tone, 1.0 - 0.6 * smooth(1.0, 0.0, x * x / 0.2 + under));
        Paint { ambient: scaled(tone, 0.8), flash: scaled(tone, 1.5 * pool(x, y)) }
    });
}

/// The beam falls off around the jump.
fn pool(x: f32, y: f32) -> f32 {
    let away = x * x / 3.2 + (y + 0.3) * (y + 0.3) / 2.6;
    1.0 / (1.0 + away)
}

fn arc(height: f32) -> Vec<Body> {
    const PIECES: i32 = 40;
    let at = |k: i32| {
        let t = k as f32 / PIECES as f32;
        let x = REACH * (2.0 * t - 1.0);
        [x, -0.02 + height * (std::f32::consts::PI * t).sin().max(0.0).powf(0.8)]
    };
    (0..PIECES).map(|k| limb(at(k), at(k + 1), 0.011, 0.011, ROPE, 1.0)).collect()
}

fn head() -> Vec<Body> {
    vec![
        limb([0.1, 0.8], [0.25, 0.93], 0.05, 0.022, HAIR, 0.35),
        limb([0.03, 0.47], [0.03, 0.56], 0.05, 0.05, SKIN, 0.85),
        blob([0.05, 0.72], [0.118, 0.12], 0.0, HAIR, 0.3),
        blob([0.02, 0.655], [0.1, 0.128], 4.0, SKIN, 1.0),
        blob([0.035, 0.755], [0.102, 0.058], -10.0, HAIR, 0.34),
        blob([0.118, 0.66], [0.02, 0.034], 0.0, SKIN, 0.8),
        flat(blob([-0.03, 0.668], [0.011, 0.014], 0.0, HAIR, 0.08)),
        flat(blob([0.045, 0.67], [0.011, 0.014], 0.0, HAIR, 0.08)),
        flat(blob([-0.034, 0.694], [0.02, 0.005], 8.0, HAIR, 0.15)),
        flat(blob([0.047, 0.697], [0.02, 0.005], -6.0, HAIR, 0.15)),
        blob([0.003, 0.638], [0.014, 0.022], 0.0, SKIN, 1.0),
        flat(blob([0.008, 0.592], [0.03, 0.011], 6.0, STRIPE, 0.4)),
        flat(blob([0.008, 0.597], [0.024, 0.006], 6.0, SHIRT, 1.5)),
    ]
}

fn trunk() -> Vec<Body> {
    vec![
        // The far arm, the trunk, the legs down to the knees, the near arm.
        limb([0.2, 0.4], [0.42, 0.28], 0.062, 0.048, SHIRT, 1.0),
        limb([0.41, 0.285], [0.53, 0.52], 0.042, 0.032, SKIN, 0.72),
        blob([0.545, 0.56], [0.038, 0.05], -20.0, SKIN, 0.72),
        limb([0.075, -0.08], [0.25, -0.31], 0.108, 0.078, SHORTS, 0.34),
        limb([-0.075, -0.08], [-0.22, -0.35], 0.108, 0.078, SHORTS, 0.38),
        limb([0.0, 0.34], [0.0, 0.0], 0.165, 0.128, SHIRT, 1.0),
        limb([-0.13, 0.4], [0.15, 0.4], 0.075, 0.075, SHIRT, 1.0),
        limb([0.0, -0.02], [0.0, -0.1], 0.138, 0.14, SHORTS, 0.36),
        limb([-0.142, 0.17], [0.142, 0.17], 0.024, 0.024, STRIPE, 0.55),
        limb([-0.2, 0.39], [-0.4, 0.22], 0.066, 0.05, SHIRT, 1.0),
        limb([-0.4, 0.22], [-0.49, 0.46], 0.044, 0.033, SKIN, 0.75),
        blob([-0.502, 0.505], [0.038, 0.05], 14.0, SKIN, 0.75),
    ]
}

fn feet() -> Vec<Body> {
    vec![
        limb([0.255, -0.33], [0.17, -0.6], 0.066, 0.044, SKIN, 0.5),
        limb([0.17, -0.59], [0.166, -0.64], 0.046, 0.046, SHIRT, 1.1),
        limb([0.15, -0.69], [0.27, -0.735], 0.056, 0.046, SHOE, 1.0),
        limb([0.14, -0.735], [0.285, -0.765], 0.02, 0.02, SHIRT, 1.2),
        limb([-0.225, -0.37], [-0.12, -0.63], 0.066, 0.044, SKIN, 0.55),
        limb([-0.12, -0.62], [-0.115, -0.67], 0.046, 0.046, SHIRT, 1.1),
        limb([-0.1, -0.72], [-0.225, -0.765], 0.058, 0.047, SHOE, 1.0),
        limb([-0.09, -0.765], [-0.24, -0.798], 0.02, 0.02, SHIRT, 1.2),
    ]
}

fn turner(side: f32) -> Figure {
    let at = |x: f32, y: f32| [side * x, y];
    let cloth = |from, to, a, b, tone| limb(from, to, a, b, DARK_CLOTH, tone);
    Figure {
        bodies: vec![
            cloth(at(1.86, -0.3), at(1.9, -0.72), 0.1, 0.07, 0.5),
            cloth(at(1.9, -0.72), at(1.93, -1.2), 0.068, 0.05, 0.5),
            cloth(at(1.76, -0.3), at(1.74, -0.74), 0.1, 0.07, 0.6),
            cloth(at(1.74, -0.74), at(1.72, -1.22), 0.068, 0.05, 0.6),
            limb(at(1.7, -1.25), at(1.6, -1.27), 0.05, 0.04, SHOE, 0.5),
            cloth(at(1.8, 0.28), at(1.81, -0.22), 0.16, 0.14, 1.0),
            cloth(at(1.72, 0.32), at(1.58, 0.08), 0.06, 0.05, 1.1),
            limb(at(1.58, 0.08), at(REACH, -0.01), 0.042, 0.034, SKIN, 1.5),
            limb(at(1.78, 0.44), at(1.78, 0.5), 0.05, 0.05, SKIN, 1.4),
            blob(at(1.8, 0.6), [0.112, 0.13], 0.0, HAIR, 0.5),
            blob(at(1.745, 0.585), [0.075, 0.112], side * 6.0, SKIN, 1.6),
        ],
        reflectance: 0.16,
        flash_gain: 0.4,
        ..Figure::default()
    }
}
