//! One tone curve for everything: linear light, clipped at white, encoded as sRGB (IEC 61966-2-1).

use std::sync::LazyLock;

/// Steps of the table. The curve is steepest near black; at this size neighbours there differ by less than one code.
const STEPS: usize = 8192;

/// The curve by steps; filled up to a power of two, so that a masked step is always inside.
pub(crate) type Curve = [u8; 2 * STEPS];

static CURVE: LazyLock<Box<Curve>> = LazyLock::new(|| {
    let encode =
        |linear: f32| if linear <= 0.003_130_8 { 12.92 * linear } else { 1.055 * linear.powf(1.0 / 2.4) - 0.055 };
    Box::new(std::array::from_fn(|k| (encode((k as f32 / STEPS as f32).min(1.0)) * 255.0).round() as u8))
});

/// The curve, to be fetched once per picture.
pub(crate) fn curve() -> &'static Curve {
    &CURVE
}

/// Code values of linear values; 1 is white.
#[inline]
pub(crate) fn encoded(curve: &Curve, linear: [f32; 4]) -> [u8; 4] {
    let steps: [u32; 4] = std::array::from_fn(|lane| {
        // The order of the comparisons sends NaN to black, so that no arithmetic slip can index outside.
        let clipped = if linear[lane] > 0.0 { linear[lane] } else { 0.0 };
        let clipped = if clipped < 1.0 { clipped } else { 1.0 };
        // Adding 2²³ leaves the rounded number in the lowest bits of the mantissa: a conversion that checks nothing.
        (clipped * STEPS as f32 + 8_388_608.0).to_bits()
    });
    steps.map(|step| curve[step as usize & (2 * STEPS - 1)])
}
