//! Places under the sky.

use super::paint::{band, chance, lines, mix, scaled, smooth};
use super::{Paint, Row};

/// When it is.
#[derive(Clone, Copy, PartialEq, Eq)]
pub(super) enum Hour {
    Day,
    Dusk,
    Night,
}

/// Heights of a line of trees or roofs, without end.
fn skyline(x: f32, spacing: f32, seed: i32) -> f32 {
    let place = x / spacing;
    let left = place.floor();
    let t = place - left;
    let (a, b) = (chance(left as i32 + seed), chance(left as i32 + 1 + seed));
    a + (b - a) * t * t * (3.0 - 2.0 * t)
}

/// Grain of sand, asphalt or grass: how much of its own tone a spot has. Finer than the picture's pixels it is even.
fn grain(row: &Row, x: f32, fine: f32, seed: i32) -> f32 {
    let seen = (1.5 - fine * row.step.max(row.deep.abs())).clamp(0.0, 1.0);
    // From one row of spots to the next without a step, so that a hair's breadth changes nothing.
    let (across, deep) = ((x * fine).floor() as i32, row.at * fine);
    let spot = |line: i32| chance(across.wrapping_mul(131) ^ line.wrapping_mul(7919) ^ seed);
    let line = deep.floor();
    let spot = spot(line as i32) + (spot(line as i32 + 1) - spot(line as i32)) * (deep - line);
    (spot - 0.5) * seen
}

/// Mown grass with a white line.
pub(super) fn grass(row: &Row, out: &mut [[f32; 3]]) {
    let mown = if (row.at / 2.4).floor() as i32 & 1 == 0 { 1.0 } else { 0.82 };
    let deep = row.deep.abs();
    let line = band(row.at, 2.2, 0.06, deep.max(0.01));
    row.each(out, |x| {
        let blade = 1.0 + 0.28 * grain(row, x, 34.0, 1);
        mix(scaled([0.085, 0.165, 0.045], mown * blade), [0.7, 0.7, 0.68], 0.9 * line)
    });
}

/// A pitch: a fence, trees or stands, and the sky of the hour.
pub(super) fn pitch(row: &Row, out: &mut [Paint], hour: Hour) {
    let size = (row.wall / 30.0).clamp(0.35, 3.0);
    let z = row.at / size;
    let (low, high) = match hour {
        Hour::Day => ([4.0, 4.4, 4.9], [1.9, 2.7, 4.2]),
        Hour::Dusk => ([3.6, 1.9, 1.1], [0.42, 0.55, 1.05]),
        Hour::Night => ([0.16, 0.18, 0.24], [0.06, 0.07, 0.11]),
    };
    let sky = mix(low, high, smooth(2.0, 16.0, z));
    row.each(out, |x| {
        let across = x / size;
        let top = 3.0 + 2.6 * skyline(across, 1.7, 40) + 1.2 * skyline(across, 0.5, 900);
        let edge = smooth(top - 0.2, top + 0.2, z);
        let leaf = 0.7 + 0.6 * chance((across * 9.0) as i32 * 37 + (z * 9.0) as i32 * 91);
        let trees = scaled([0.5, 0.85, 0.36], leaf * (0.5 + 0.12 * z));
        let board = 1.0 - smooth(0.88, 0.92, z);
        let painted = if (across / 3.0).floor() as i32 & 1 == 0 { [1.6, 1.6, 1.55] } else { [0.5, 0.8, 1.5] };
        let ground = mix(trees, painted, board);
        let mut glow = scaled(sky, edge);
        if hour == Hour::Night {
            // Masts with their lamps.
            let mast = (across / 11.0).round() * 11.0;
            let (dx, dz) = (across - mast, z - 8.6);
            let lamps = band(dx, 0.0, 0.75, 0.08)
                * band(dz, 0.0, 0.4, 0.08)
                * lines(dx, 0.3, 0.1, 0.03)
                * lines(dz, 0.3, 0.1, 0.03);
            let pole = band(dx, 0.0, 0.06, row.step / size) * smooth(3.0, 3.2, z) * (1.0 - smooth(8.2, 8.4, z));
            let halo = 0.9 / (1.0 + 0.8 * (dx * dx + dz * dz));
            glow = std::array::from_fn(|k| (glow[k] + [1.0, 0.98, 0.9][k] * (26.0 * lamps + halo)) * (1.0 - pole));
        }
        let share = match hour {
            Hour::Day => 1.0,
            Hour::Dusk => 0.35,
            Hour::Night => 0.6,
        };
        Paint::lit(scaled(ground, 1.0 - edge), share, glow)
    });
}

/// Lanes of a track that run across the picture.
pub(super) fn lanes(row: &Row, out: &mut [[f32; 3]]) {
    let deep = row.deep.abs();
    let line = lines(row.at + 0.61, 1.22, 0.025, deep.max(0.006));
    let infield = smooth(6.0, 6.06, row.at);
    row.each(out, |x| {
        let grain = 1.0 + 0.2 * grain(row, x, 52.0, 2);
        let rubber = scaled([0.34, 0.115, 0.075], grain);
        mix(mix(rubber, [0.72, 0.71, 0.69], 0.9 * line), [0.09, 0.17, 0.05], infield)
    });
}

/// Stands full of people, under the sky.
pub(super) fn stands(row: &Row, out: &mut [Paint]) {
    let size = (row.wall / 30.0).clamp(0.3, 3.0);
    let z = row.at / size;
    let sky = mix([4.0, 4.4, 4.9], [2.0, 2.8, 4.2], smooth(5.0, 18.0, z));
    let roof = band(z, 7.6, 0.35, 0.06);
    let open = smooth(7.2, 7.3, z);
    row.each(out, |x| {
        let across = x / size;
        let (seat, rank) = ((across / 0.42).floor() as i32, (z / 0.42).floor() as i32);
        let someone = chance(seat * 151 + rank * 67);
        let colour = [[1.3, 0.5, 0.4], [0.4, 0.7, 1.4], [1.5, 1.4, 1.2], [0.5, 0.5, 0.55], [1.4, 1.1, 0.4]]
            [(someone * 5.0) as usize % 5];
        let dot = (1.0
            - smooth(
                0.12,
                0.2,
                ((across / 0.42 - seat as f32 - 0.5).abs() + (z / 0.42 - rank as f32 - 0.5).abs()) * 0.42,
            ))
        .max(0.0);
        let crowd = mix([0.34, 0.36, 0.4], colour, 0.75 * dot);
        let wall = 1.0 - smooth(1.05, 1.1, z);
        let tone = mix(crowd, [1.2, 1.25, 1.35], wall);
        let tone = mix(tone, [0.9, 0.92, 0.95], roof);
        Paint::lit(
            scaled(tone, 1.0 - open + roof * open),
            0.85 - 0.4 * smooth(4.0, 7.0, z) * (1.0 - wall),
            scaled(sky, open * (1.0 - roof)),
        )
    });
}

/// Sand, wet sand, and the sea out to the horizon.
pub(super) fn shore(row: &Row, out: &mut [[f32; 3]]) {
    let y = row.at;
    // Waves finer than the rows of the picture are even.
    let waves = 0.4 * (1.4 - 4.0 * row.deep.abs()).clamp(0.0, 1.0);
    row.each(out, |x| {
        let edge = 5.2 + 0.5 * (x * 0.7).sin() + 0.2 * (x * 2.1).sin();
        let wet = smooth(edge - 2.0, edge - 0.4, y);
        let water = smooth(edge - 0.1, edge + 0.1, y);
        let grain = 1.0 + 0.14 * grain(row, x, 50.0, 3);
        let sand = mix(scaled([0.46, 0.37, 0.26], grain), [0.2, 0.16, 0.12], wet);
        let ripple = ((y.max(0.0) * 1.9).sqrt() * 9.0 + (x * 0.8).sin() * 2.0).sin();
        let sea = mix([0.05, 0.15, 0.2], [0.18, 0.34, 0.4], 0.5 + waves * ripple * (1.0 - smooth(8.0, 50.0, y)));
        let foam = band(y, edge + 0.25 + 0.15 * (x * 3.0).sin(), 0.16, 0.1 + row.deep.abs());
        mix(mix(sand, sea, water), [0.8, 0.82, 0.82], 0.9 * foam)
    });
}

/// The sky over the sea, with a far shore.
pub(super) fn sea(row: &Row, out: &mut [Paint]) {
    let size = (row.wall / 60.0).clamp(0.3, 4.0);
    let z = row.at / size;
    let sky = mix([3.6, 4.1, 4.5], [1.3, 2.2, 3.9], smooth(1.0, 24.0, z));
    row.each(out, |x| {
        let across = x / size;
        let hill = 2.2 + 2.2 * skyline(across, 9.0, 7) + 0.5 * skyline(across, 1.6, 70);
        let edge = smooth(hill - 0.12, hill + 0.12, z);
        let cloud = smooth(
            0.55,
            0.9,
            0.6 * skyline(across + z * 1.3, 7.0, 300) + 0.5 * skyline(z * 2.0 + across * 0.15, 2.0, 500),
        );
        let sky = mix(sky, [4.6, 4.7, 4.8], 0.6 * cloud * smooth(5.0, 9.0, z));
        let land = mix([0.72, 0.95, 0.85], [0.9, 1.15, 1.3], 0.5);
        Paint::lit(scaled(land, 1.0 - edge), 1.0, scaled(sky, edge))
    });
}

/// Stones of a quay, then dark water with the lights of the other side in it.
pub(super) fn stones(row: &Row, out: &mut [[f32; 3]]) {
    const STONE: f32 = 0.34;
    let line = (row.at / STONE).floor();
    let deep = row.deep.abs().max(0.006);
    let joint = lines(row.at, STONE, 0.012, deep);
    let water = smooth(6.0, 6.05, row.at);
    let kerb = band(row.at, 5.8, 0.2, 0.02 + deep);
    row.each(out, |x| {
        let at = x + if line as i32 & 1 == 0 { 0.0 } else { STONE * 0.8 };
        let stone = (at / (STONE * 1.6)).floor();
        let tone = 0.75 + 0.5 * chance(stone as i32 * 77 + line as i32 * 13);
        let gap = 1.0 - 0.5 * joint.max(lines(at, STONE * 1.6, 0.012, row.step));
        let dry = scaled([0.17, 0.16, 0.165], tone * gap);
        let ripple = (row.at * 7.0 + (x * 2.0).sin()).sin() * (1.4 - 4.0 * deep).clamp(0.0, 1.0);
        mix(mix(dry, [0.36, 0.35, 0.33], kerb), scaled([0.05, 0.07, 0.1], 1.0 + 0.4 * ripple), water)
    });
}

/// The other side of a harbour at dusk.
pub(super) fn harbour(row: &Row, out: &mut [Paint]) {
    let size = (row.wall / 25.0).clamp(0.35, 4.0);
    let z = row.at / size;
    let sky = mix([4.2, 1.9, 1.0], [0.5, 0.75, 1.7], smooth(1.2, 11.0, z));
    row.each(out, |x| {
        let across = x / size;
        let house = (across / 1.5).floor();
        let roof = 1.6 + 2.4 * chance(house as i32 + 11);
        let gable = roof + 0.5 * (1.0 - ((across / 1.5 - house) * 2.0 - 1.0).abs());
        let edge = smooth(gable - 0.04, gable + 0.04, z);
        let pane =
            |value: f32, spacing: f32, half: f32| band(value - (value / spacing).round() * spacing, 0.0, half, 0.02);
        let number = (across / 0.5).round() as i32 * 17 + (z / 0.6).round() as i32 * 5;
        let lit = if chance(number) > 0.55 { 1.0 } else { 0.0 };
        let window = pane(across, 0.5, 0.1) * pane(z, 0.6, 0.14) * (1.0 - edge) * lit * smooth(0.5, 0.6, z);
        // Lanterns along the water.
        let post = (across / 2.7).round() * 2.7;
        let (dx, dz) = (across - post, z - 1.15);
        let lamp = 1.0 - smooth(0.05, 0.08 + row.step / size, (dx * dx + dz * dz).sqrt());
        let halo = 0.6 / (1.0 + 14.0 * (dx * dx + dz * dz));
        let glow = std::array::from_fn(|k| sky[k] * edge + [1.0, 0.66, 0.3][k] * (5.0 * window + 34.0 * lamp + halo));
        Paint::lit(scaled([0.52, 0.44, 0.5], 1.0 - edge), 0.7, glow)
    });
}

/// Asphalt with a kerb and a painted line, wet in places.
pub(super) fn asphalt(row: &Row, out: &mut [[f32; 3]]) {
    let deep = row.deep.abs();
    let line = band(row.at, 2.6, 0.07, deep.max(0.01));
    let kerb = band(row.at, 5.2, 0.14, deep.max(0.02));
    row.each(out, |x| {
        let grain = 1.0 + 0.3 * grain(row, x, 60.0, 4);
        let dash = band((x / 2.4 - (x / 2.4).round()) * 2.4, 0.0, 0.7, row.step);
        mix(mix(scaled([0.075, 0.076, 0.082], grain), [0.6, 0.58, 0.5], 0.8 * line * dash), [0.3, 0.29, 0.28], kerb)
    });
}

/// Houses of a street at night: shops below, windows above, lamps.
pub(super) fn street(row: &Row, out: &mut [Paint]) {
    let size = (row.wall / 12.0).clamp(0.35, 4.0);
    let z = row.at / size;
    row.each(out, |x| {
        let across = x / size;
        let house = (across / 4.2).floor() as i32;
        let top = 6.4 + 3.0 * chance(house + 31);
        let edge = smooth(top - 0.05, top + 0.05, z);
        let off = |value: f32, spacing: f32| value - (value / spacing).round() * spacing;
        let number = (across / 1.05).round() as i32 * 29 + (z / 1.5).round() as i32 * 7;
        let someone = if chance(number) > 0.62 { 1.0 } else { 0.06 };
        let window = band(off(across, 1.05), 0.0, 0.27, 0.02)
            * band(off(z, 1.5), 0.0, 0.42, 0.02)
            * smooth(2.4, 2.5, z)
            * (1.0 - edge);
        let shop = band(z, 1.15, 0.85, 0.03) * band(off(across + 2.1, 4.2), 0.0, 1.5, 0.03);
        let warm = [1.0, 0.74, 0.42];
        let sign = [[0.2, 1.2, 1.3], [1.5, 0.25, 0.7], [1.3, 0.8, 0.2]][house.rem_euclid(3) as usize];
        let board = band(z, 2.22, 0.13, 0.02) * band(off(across + 2.1, 4.2), 0.0, 1.2, 0.02);
        let (dx, dz) = (off(across, 6.3), z - 4.4);
        let lamp = 1.0 - smooth(0.1, 0.14 + row.step / size, (dx * dx + 2.0 * dz * dz).sqrt());
        let halo = 0.8 / (1.0 + 5.0 * (dx * dx + dz * dz));
        let wall = scaled([[0.9, 0.8, 0.75], [0.75, 0.85, 0.95], [0.95, 0.9, 0.8]][house.rem_euclid(3) as usize], 0.9);
        let glow = std::array::from_fn(|k| {
            warm[k] * (3.4 * window * someone + 3.0 * shop + 22.0 * lamp + halo)
                + 3.6 * sign[k] * board
                + edge * [0.05, 0.06, 0.1][k]
        });
        Paint::lit(scaled(wall, 1.0 - edge), 0.7, glow)
    });
}
