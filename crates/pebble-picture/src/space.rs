//! Directions and places of the set in single precision, as pictures need them.

use pebble_core::stage::space::Spot;

/// Right, away from the camera, up; in metres.
pub(crate) type V3 = [f32; 3];

pub(crate) fn v3(spot: Spot) -> V3 {
    [spot.x as f32, spot.y as f32, spot.z as f32]
}

#[inline]
pub(crate) fn add(a: V3, b: V3) -> V3 {
    [a[0] + b[0], a[1] + b[1], a[2] + b[2]]
}

#[inline]
pub(crate) fn sub(a: V3, b: V3) -> V3 {
    [a[0] - b[0], a[1] - b[1], a[2] - b[2]]
}

#[inline]
pub(crate) fn times(a: V3, by: f32) -> V3 {
    [a[0] * by, a[1] * by, a[2] * by]
}

#[inline]
pub(crate) fn dot(a: V3, b: V3) -> f32 {
    a[0] * b[0] + a[1] * b[1] + a[2] * b[2]
}

#[inline]
pub(crate) fn cross(a: V3, b: V3) -> V3 {
    [a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]]
}

#[inline]
pub(crate) fn length(a: V3) -> f32 {
    dot(a, a).sqrt()
}

/// One metre long; up where there is no direction.
#[inline]
pub(crate) fn unit(a: V3) -> V3 {
    let long = dot(a, a);
    if long > 1e-14 { times(a, 1.0 / long.sqrt()) } else { [0.0, 0.0, 1.0] }
}

#[inline]
pub(crate) fn toward(a: V3, b: V3, share: f32) -> V3 {
    add(a, times(sub(b, a), share))
}

/// What of a direction is at right angles to another.
pub(crate) fn aside(a: V3, of: V3) -> V3 {
    let of = unit(of);
    let rest = sub(a, times(of, dot(a, of)));
    if dot(rest, rest) > 1e-8 {
        return unit(rest);
    }
    // Along it: any other will do.
    let other = if of[2].abs() < 0.9 { [0.0, 0.0, 1.0] } else { [1.0, 0.0, 0.0] };
    unit(sub(other, times(of, dot(other, of))))
}

/// A smooth curve through values at knots, flat beyond its ends.
pub(crate) fn through<const N: usize>(knots: &[(f32, [f32; N])], at: f32) -> [f32; N] {
    let next = knots.iter().position(|(t, _)| *t > at).unwrap_or(knots.len());
    if next == 0 {
        return knots[0].1;
    }
    if next == knots.len() {
        return knots[knots.len() - 1].1;
    }
    let ((t0, a), (t1, b)) = (knots[next - 1], knots[next]);
    let before = knots[next.saturating_sub(2)];
    let after = knots[(next + 1).min(knots.len() - 1)];
    let (span, share) = (t1 - t0, (at - t0) / (t1 - t0).max(1e-6));
    // Slopes of the chords on both sides (Catmull–Rom), which never leaves a corner.
    std::array::from_fn(|k| {
        let slope = |from: (f32, [f32; N]), to: (f32, [f32; N])| (to.1[k] - from.1[k]) / (to.0 - from.0).max(1e-6);
        let (m0, m1) = (slope(before, (t1, b)) * span, slope((t0, a), after) * span);
        let (s2, s3) = (share * share, share * share * share);
        (2.0 * s3 - 3.0 * s2 + 1.0) * a[k]
            + (s3 - 2.0 * s2 + share) * m0
            + (3.0 * s2 - 2.0 * s3) * b[k]
            + (s3 - s2) * m1
    })
}

/// A number between 0 and 1 that belongs to a whole number.
#[inline]
pub(crate) fn hash(n: usize) -> f32 {
    // Integer hash of the finaliser kind; any would do, it only must not look ordered.
    let mut h = (n as u32).wrapping_mul(0x9E37_79B9) ^ 0x5bd1_e995;
    h ^= h >> 15;
    h = h.wrapping_mul(0x2C1B_3C6D);
    h ^= h >> 12;
    (h & 0xffff) as f32 / 65_535.0
}
