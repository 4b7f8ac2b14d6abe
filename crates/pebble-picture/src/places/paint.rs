//! Brushes for backdrops.

use crate::space::hash;

/// 0 below one edge, 1 above the other, smooth between.
#[inline]
pub(super) fn smooth(from: f32, to: f32, value: f32) -> f32 {
    let t = ((value - from) / (to - from)).clamp(0.0, 1.0);
    t * t * (3.0 - 2.0 * t)
}

/// 1 within `half` of a centre, falling to 0 over `soft`.
#[inline]
pub(super) fn band(value: f32, centre: f32, half: f32, soft: f32) -> f32 {
    1.0 - smooth(half - soft, half + soft, (value - centre).abs())
}

/// Lines of a width at a spacing: 1 on a line. Lines finer than a pixel fade instead of flickering.
#[inline]
pub(super) fn lines(value: f32, spacing: f32, half: f32, soft: f32) -> f32 {
    let off = value - (value / spacing).round() * spacing;
    let fade = (half / soft).min(1.0);
    fade * band(off, 0.0, half, soft.max(half * 0.2))
}

/// A number between 0 and 1 that belongs to a whole number.
#[inline]
pub(super) fn chance(n: i32) -> f32 {
    hash(n as u32 as usize)
}

#[inline]
pub(super) fn mix(a: [f32; 3], b: [f32; 3], t: f32) -> [f32; 3] {
    std::array::from_fn(|c| a[c] + (b[c] - a[c]) * t)
}

#[inline]
pub(super) fn scaled(a: [f32; 3], by: f32) -> [f32; 3] {
    a.map(|channel| channel * by)
}
