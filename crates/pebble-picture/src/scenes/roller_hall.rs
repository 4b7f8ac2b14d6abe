//! A roller skater in a turn, in an old hall whose lamps are kept.

use super::paint::{band, chance, lines, mix, scaled, smooth};
use super::{Figure, Paint, Row, Scene};
use crate::body::{Body, Point, Tint, blob, flat, limb};
use pebble_core::shot::DrawnAs;

const SKIN: Tint = Tint::of(0.95, 0.54, 0.38);
const HAIR: Tint = Tint::of(0.2, 0.14, 0.12);
const SHIRT: Tint = Tint::of(0.75, 0.16, 0.3);
const SHORTS: Tint = Tint::of(0.2, 0.24, 0.34);
const SOCK: Tint = Tint::of(1.0, 0.95, 0.85);
const BOOT: Tint = Tint::of(1.0, 0.92, 0.8);
const WHEEL: Tint = Tint::of(0.2, 0.8, 0.75);
const SCARF: Tint = Tint::of(1.0, 0.8, 0.3);

/// Camera above the floor.
const EYE: f32 = 1.35;
/// Height of the string of lamps in the frame, and how far it sags between posts.
const STRING: f32 = 1.12;

pub(super) fn scene() -> Scene {
    Scene {
        backdrop,
        farthest: 6.0,
        figures: vec![
            Figure::of(DrawnAs::Scarf, 0.5, scarf()),
            Figure::of(DrawnAs::Feet, 0.4, legs()),
            Figure::of(DrawnAs::Body, 0.3, trunk()),
            Figure::of(DrawnAs::Hand, 0.3, reaching_arm()),
            Figure::of(DrawnAs::Face, 0.34, head()),
        ],
    }
}

fn backdrop(row: &Row, out: &mut [Paint]) {
    if row.y > -EYE / row.farther { wall(row, out) } else { floor(row, out) }
}

/// Tall windows, gone blue, between piers; lamps on a sagging string before them.
fn wall(row: &Row, out: &mut [Paint]) {
    let up = row.y * row.farther + EYE;
    let soft = row.pixel * row.farther;
    let pane = smooth(1.0, 1.05, up) * (1.0 - smooth(4.4, 4.6, up));
    row.paint(out, |x| {
        let wide = x * row.farther;
        let pier = (wide / 2.6).round();
        let off = (wide - pier * 2.6).abs();
        let glass = pane * band(off, 0.0, 0.85, soft);
        let frame = lines(off, 0.42, 0.03, soft) + lines(up, 0.7, 0.03, soft);
        let plaster = scaled([1.35, 1.05, 0.75], 0.9 - 0.06 * up);
        let sky = mix([0.28, 0.42, 0.72], [0.16, 0.22, 0.42], smooth(1.0, 4.5, up));
        let tone = mix(plaster, mix(sky, [0.5, 0.4, 0.3], frame.min(1.0)), glass);
        let (glow, bulb) = lamps(x, row.y);
        let ambient = [tone[0] + glow + bulb, tone[1] + 0.72 * glow + 0.82 * bulb, tone[2] + 0.36 * glow + 0.5 * bulb];
        Paint { ambient, flash: scaled(mix(plaster, [0.05; 3], glass), 0.8) }
    });
}

/// Glow and filament of the nearest lamp.
fn lamps(x: f32, y: f32) -> (f32, f32) {
    let at = (x / 0.52).round() * 0.52;
    let sag = STRING - 0.16 * (1.0 - ((at / 1.6).fract().abs() * 2.0 - 1.0).powi(2));
    let off = ((x - at) * (x - at) + (y - sag) * (y - sag)).sqrt();
    let near = 1.0 - (off / 0.3).min(1.0);
    (1.4 * near * near * near, 26.0 * (1.0 - smooth(0.02, 0.036, off)))
}

fn floor(row: &Row, out: &mut [Paint]) {
    let depth = EYE / -row.y;
    let soft = row.pixel * depth * 1.5;
    // The lamps again, in varnish.
    let sheen = 1.3 * smooth(4.5, 1.0, depth).mul_add(-1.0, 1.0);
    let near = (row.y + EYE) * (row.y + EYE) / 1.6;
    row.paint(out, |x| {
        let wide = x * depth;
        let board = (wide / 0.11).floor();
        let grain = 0.85 + 0.3 * chance(board as i32 * 7 + (depth * 1.7 + chance(board as i32)) as i32 * 131);
        let gap = lines(wide, 0.11, 0.004, soft);
        let wood = scaled([1.25, 0.82, 0.5], grain * (1.0 - 0.5 * gap));
        let track = band((wide * wide / 9.0 + (depth - 1.6) * (depth - 1.6) / 0.5).sqrt(), 1.0, 0.02, 0.02);
        let tone = mix(wood, [2.2, 2.0, 1.7], 0.7 * track);
        let pool = 3.4 / (1.0 + x * x / 5.0 + near);
        let shine = sheen * band((x / 0.52).fract().abs(), 0.5, 0.5, 0.2);
        let ambient = [tone[0] + 0.5 * shine, tone[1] + 0.36 * shine, tone[2] + 0.18 * shine];
        Paint { ambient, flash: scaled(tone, pool) }
    });
}

fn boot(heel: Point, toe: Point) -> Vec<Body> {
    let mut bodies =
        vec![limb([heel[0], heel[1] + 0.1], heel, 0.06, 0.058, BOOT, 1.9), limb(heel, toe, 0.056, 0.046, BOOT, 1.9)];
    bodies.extend(
        [(heel, 0.0), (toe, 0.02)].map(|(at, dx)| blob([at[0] + dx, at[1] - 0.095], [0.045, 0.045], 0.0, WHEEL, 1.2)),
    );
    bodies
}

fn legs() -> Vec<Body> {
    let mut bodies = vec![
        limb([-0.1, -0.28], [-0.56, -0.5], 0.115, 0.082, SHORTS, 0.5),
        limb([-0.56, -0.5], [-0.98, -0.78], 0.074, 0.054, SOCK, 1.5),
    ];
    bodies.extend(boot([-1.04, -0.86], [-0.9, -0.95]));
    bodies.extend([
        limb([0.0, -0.3], [0.34, -0.62], 0.122, 0.088, SHORTS, 0.55),
        limb([0.34, -0.62], [0.2, -1.04], 0.078, 0.056, SOCK, 1.6),
    ]);
    bodies.extend(boot([0.18, -1.16], [0.36, -1.17]));
    bodies
}

fn trunk() -> Vec<Body> {
    vec![
        limb([0.2, 0.16], [-0.12, 0.34], 0.068, 0.052, SHIRT, 0.85),
        limb([-0.12, 0.34], [-0.42, 0.5], 0.046, 0.036, SKIN, 1.1),
        blob([-0.46, 0.53], [0.044, 0.046], 0.0, SKIN, 1.1),
        limb([-0.06, -0.26], [0.22, 0.12], 0.138, 0.16, SHIRT, 1.0),
        limb([-0.02, -0.1], [0.14, -0.18], 0.014, 0.014, Tint::NEUTRAL, 2.2),
    ]
}

fn reaching_arm() -> Vec<Body> {
    vec![
        limb([0.3, 0.14], [0.58, -0.08], 0.07, 0.054, SHIRT, 1.0),
        limb([0.58, -0.08], [0.84, 0.06], 0.046, 0.036, SKIN, 1.1),
        blob([0.88, 0.08], [0.044, 0.046], 0.0, SKIN, 1.1),
    ]
}

fn head() -> Vec<Body> {
    vec![
        limb([0.28, 0.22], [0.33, 0.31], 0.056, 0.054, SKIN, 0.85),
        blob([0.36, 0.46], [0.122, 0.116], -10.0, HAIR, 0.5),
        blob([0.385, 0.405], [0.098, 0.126], -10.0, SKIN, 1.0),
        blob([0.35, 0.485], [0.11, 0.07], -14.0, HAIR, 0.5),
        flat(blob([0.375, 0.42], [0.012, 0.014], 0.0, HAIR, 0.1)),
        flat(blob([0.435, 0.41], [0.012, 0.014], 0.0, HAIR, 0.1)),
        blob([0.42, 0.385], [0.016, 0.022], 0.0, SKIN, 1.0),
        flat(blob([0.408, 0.34], [0.032, 0.01], -8.0, Tint::of(0.9, 0.3, 0.26), 0.5)),
    ]
}

fn scarf() -> Vec<Body> {
    [
        ([0.26, 0.24], [0.0, 0.3], 0.05, 0.045),
        ([0.0, 0.3], [-0.26, 0.22], 0.045, 0.05),
        ([-0.26, 0.22], [-0.52, 0.31], 0.05, 0.04),
    ]
    .into_iter()
    .map(|(from, to, thick, thin)| limb(from, to, thick, thin, SCARF, 1.0))
    .collect()
}
