//! Places under a roof.

use super::paint::{band, chance, lines, mix, scaled, smooth};
use super::{Paint, Row};

/// Sprung boards of a sports hall, with the lines of a court.
pub(super) fn court(row: &Row, out: &mut [[f32; 3]]) {
    const BOARD: f32 = 0.13;
    let deep = row.deep.abs();
    let across = band(row.at, 1.5, 0.03, deep.max(0.006)) + band(row.at, -1.2, 0.03, deep.max(0.006));
    row.each(out, |x| {
        let board = (x / BOARD).floor();
        let joint = row.at + chance(board as i32) * 2.4;
        let plank = (joint / 2.4).floor();
        let tone = 0.86 + 0.28 * chance(board as i32 * 57 + plank as i32);
        let gap =
            1.0 - 0.5 * lines(x, BOARD, 0.003, row.step) - 0.3 * band(joint - plank * 2.4, 0.0, 0.004, deep.max(0.004));
        let wood = scaled([0.33, 0.225, 0.135], tone * gap);
        let line = (across + band(x, 2.6, 0.03, row.step.max(0.006))).min(1.0);
        mix(wood, [0.16, 0.3, 0.36], 0.85 * line)
    });
}

/// Boards that run across.
pub(super) fn planks(row: &Row, out: &mut [[f32; 3]], wood: [f32; 3]) {
    let board = (row.at / 0.16).floor();
    let gap = 1.0 - 0.5 * lines(row.at, 0.16, 0.004, row.deep.abs().max(0.004));
    row.each(out, |x| {
        let along = (x + chance(board as i32) * 3.0) / 2.2;
        let tone = 0.82 + 0.34 * chance(board as i32 * 31 + along.floor() as i32);
        scaled(wood, tone * gap)
    });
}

/// A floor of dark and pale squares.
pub(super) fn checks(row: &Row, out: &mut [[f32; 3]]) {
    const SIDE: f32 = 0.6;
    let line = (row.at / SIDE).floor() as i32;
    row.each(out, |x| {
        let dark = ((x / SIDE).floor() as i32 + line) & 1 == 0;
        let gap = 1.0 - 0.4 * lines(x, SIDE, 0.006, row.step);
        scaled(if dark { [0.05, 0.045, 0.05] } else { [0.2, 0.185, 0.17] }, gap)
    });
}

/// Tiles beside a pool, and its water behind them.
pub(super) fn deck(row: &Row, out: &mut [[f32; 3]]) {
    let wet = smooth(0.95, 1.05, row.at);
    let grout = lines(row.at, 0.25, 0.006, row.deep.abs().max(0.006));
    row.each(out, |x| {
        let tile = 0.92 + 0.12 * chance((x / 0.25).floor() as i32 * 91 + (row.at / 0.25).floor() as i32 * 17);
        let dry = scaled([0.5, 0.49, 0.46], tile * (1.0 - 0.3 * (grout + lines(x, 0.25, 0.006, row.step)).min(1.0)));
        let ripple = (x * 2.3 + (row.at * 3.1).sin() * 1.4).sin() * (row.at * 5.0 + (x * 1.7).sin()).sin();
        let lane = lines(x, 2.5, 0.08, row.step.max(0.02));
        let water = mix([0.1, 0.34, 0.42], [0.3, 0.55, 0.6], 0.5 + 0.5 * ripple);
        mix(dry, mix(water, [0.6, 0.2, 0.14], 0.7 * lane), wet)
    });
}

/// A sports hall: boards below, a pale wall, stall bars, and lamps under the roof; windows when it is a bright one.
pub(super) fn hall(row: &Row, out: &mut [Paint], bright: bool) {
    let z = row.at;
    let soft = row.deep.abs().max(0.01);
    let boards = 1.0 - smooth(1.25 - soft, 1.25 + soft, z);
    let rail = band(z, 1.28, 0.04, soft);
    let roof = smooth(5.2, 5.3, z);
    let beam = band(z, 4.9, 0.16, soft);
    let pane = band(z, 3.7, 0.65, soft);
    let dark = 0.45 + 0.75 * smooth(1.0, 4.6, z) - 0.75 * roof;
    row.each(out, |x| {
        let plank = 0.9 + 0.14 * chance((x / 0.32).floor() as i32) - 0.2 * lines(x, 0.32, 0.006, row.step);
        let lower = scaled([0.95, 0.62, 0.36], plank);
        let upper = [1.12, 1.08, 1.0];
        let mut tone = mix(upper, lower, boards);
        tone = mix(tone, [0.36, 0.3, 0.26], rail);
        // Stall bars stand in bays.
        let bay = band((x / 5.2 - (x / 5.2).round()) * 5.2, 0.0, 0.9, row.step);
        let bars = bay * (1.0 - smooth(2.55, 2.6, z)) * lines(z, 0.16, 0.02, soft);
        let post = (1.0 - smooth(2.55, 2.6, z)) * bay * lines(x, 0.9, 0.035, row.step);
        tone = mix(tone, [0.62, 0.42, 0.26], (0.8 * bars + post).min(1.0));
        tone = mix(tone, [0.3, 0.3, 0.32], roof.max(0.8 * beam));
        let column = lines(x + 1.3, 5.2, 0.14, row.step.max(0.01));
        tone = mix(tone, [0.55, 0.53, 0.5], 0.7 * column * (1.0 - roof));
        let off = |value: f32, spacing: f32| value - (value / spacing).round() * spacing;
        let (dx, dz) = (off(x, 2.6), z - 5.02);
        let lamp = 1.0 - smooth(0.13, 0.17 + row.step, (dx * dx + 2.4 * dz * dz).sqrt());
        let halo = 0.5 / (1.0 + 9.0 * (dx * dx + 2.0 * dz * dz));
        let shine = if bright { 16.0 } else { 9.0 };
        let mut glow: [f32; 3] =
            std::array::from_fn(|k| [1.0, 0.86, 0.62][k] * (shine * lamp + halo * smooth(3.6, 5.0, z)));
        if bright {
            let window =
                pane * band(off(x + 1.3, 2.6), 0.0, 1.0, row.step) * (1.0 - 0.9 * lines(x, 0.5, 0.02, row.step));
            for (channel, add) in glow.iter_mut().zip([0.9, 1.1, 1.5]) {
                *channel += add * window;
            }
        }
        Paint::lit(tone, dark.max(0.2), glow)
    });
}

/// The cloth of a tent, with daylight through it, and its poles.
pub(super) fn tent(row: &Row, out: &mut [Paint]) {
    let slope = smooth(2.2, 4.2, row.at);
    row.each(out, |x| {
        let stripe = if (x / 0.9).floor() as i32 & 1 == 0 { [1.12, 1.06, 0.94] } else { [1.0, 0.74, 0.52] };
        let seam = 1.0 - 0.25 * lines(x, 0.9, 0.012, row.step);
        let fold = 0.93 + 0.07 * (x * 3.4 + row.at).sin();
        let pole = lines(x + 0.45, 3.6, 0.05, row.step.max(0.01));
        let tone = mix(scaled(stripe, seam * fold), [0.3, 0.24, 0.18], pole);
        Paint::lit(tone, 0.9 + 1.1 * slope * (1.0 - pole), [0.0; 3])
    });
}

/// A curtain in heavy folds, with what spots leave on it.
pub(super) fn curtain(row: &Row, out: &mut [Paint]) {
    row.each(out, |x| {
        let fold = x * 2.3;
        let shade = 0.62 + 0.38 * (fold.sin() * 0.6 + (fold * 2.7 + 1.0).sin() * 0.4);
        let tone = scaled([1.05, 0.7, 0.82], shade);
        let spot = |at: f32, up: f32, wide: f32| {
            let (dx, dz) = ((x - at) / wide, (row.at - up) / wide);
            1.0 - smooth(0.55, 1.0, (dx * dx + dz * dz).sqrt())
        };
        let (warm, cool) = (spot(-2.4, 2.3, 1.5), spot(2.6, 2.6, 1.6));
        let glow = std::array::from_fn(|k| shade * ([0.9, 0.42, 0.2][k] * warm + [0.2, 0.42, 1.0][k] * cool));
        Paint::lit(tone, 0.7, glow)
    });
}

/// A dark room with coloured light up its walls and strings of small lamps.
pub(super) fn party(row: &Row, out: &mut [Paint]) {
    let fade = 1.0 / (1.0 + 0.5 * row.at * row.at);
    row.each(out, |x| {
        let place = (x / 1.9).round();
        let off = x - place * 1.9;
        let colour = [[1.3, 0.2, 0.8], [0.2, 0.5, 1.6], [1.3, 0.7, 0.15]][(place as i32).rem_euclid(3) as usize];
        let up = fade / (1.0 + 7.0 * off * off);
        // Strings of lamps hang in bows from nail to nail.
        let nail = (x / 2.8).floor();
        let t = (x / 2.8 - nail) * 2.0 - 1.0;
        let high = 3.1 - 0.5 * (1.0 - t * t);
        let bulb = (x / 0.28).round() * 0.28;
        let (dx, dz) = (x - bulb, row.at - high);
        let lamp = 1.0 - smooth(0.028, 0.04 + row.step, (dx * dx + dz * dz).sqrt());
        let glow = std::array::from_fn(|k| 2.2 * colour[k] * up + [1.0, 0.78, 0.45][k] * 14.0 * lamp);
        Paint::lit([0.8, 0.78, 0.85], 0.35, glow)
    });
}

/// The far wall of a pool: tiles below, glass above.
pub(super) fn pool(row: &Row, out: &mut [Paint]) {
    let soft = row.deep.abs().max(0.01);
    let glass = band(row.at, 3.1, 1.3, soft);
    row.each(out, |x| {
        let tile = 1.0 - 0.12 * (lines(x, 0.3, 0.008, row.step) + lines(row.at, 0.3, 0.008, soft)).min(1.0);
        let frame = lines(x, 1.7, 0.05, row.step).max(band(row.at, 3.1, 0.03, soft));
        let tone = scaled([0.95, 1.08, 1.1], tile);
        let sky = glass * (1.0 - 0.9 * frame);
        Paint::lit(mix(tone, [0.5, 0.6, 0.66], glass), 0.9, std::array::from_fn(|k| [2.2, 2.6, 3.0][k] * sky))
    });
}
