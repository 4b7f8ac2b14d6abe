//! One tone curve for everything: linear light, clipped at white, encoded as sRGB (IEC 61966-2-1).

use std::sync::LazyLock;

/// Steps of the table. The curve is steepest near black; at this size neighbours there differ by less than one code.
const STEPS: usize = 8192;

static CURVE: LazyLock<Vec<u8>> = LazyLock::new(|| {
    let encode =
        |linear: f32| if linear <= 0.003_130_8 { 12.92 * linear } else { 1.055 * linear.powf(1.0 / 2.4) - 0.055 };
    (0..=STEPS).map(|k| (encode(k as f32 / STEPS as f32) * 255.0).round() as u8).collect()
});

/// The curve, to be fetched once per picture.
pub(crate) fn curve() -> &'static [u8] {
    &CURVE
}

/// Code value of a linear value; 1 is white.
#[inline]
pub(crate) fn encoded(curve: &[u8], linear: f32) -> u8 {
    // The comparison also sends NaN to black, so that no arithmetic slip can index outside.
    let clipped = if linear > 0.0 { linear.min(1.0) } else { 0.0 };
    curve[(clipped * STEPS as f32 + 0.5) as usize]
}
