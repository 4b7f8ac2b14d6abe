//! One tone curve for everything: linear light, clipped at white, encoded as sRGB (IEC 61966-2-1).

use pebble_core::exposure::{Level, MID_GREY};
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

/// A level in linear light: the metered tone is middle grey.
pub(crate) fn linear(level: Level) -> f32 {
    (MID_GREY * level.value()) as f32
}

/// A tint of luminance 1 at a level.
pub(crate) fn coloured(tint: [f64; 3], value: f32) -> [f32; 3] {
    tint.map(|channel| channel as f32 * value)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn the_curve_is_srgb_at_known_values_and_never_falls() {
        // Linear and code values of the standard's own formula, worked out apart.
        for (linear, code) in [(0.0, 0), (0.001, 3), (0.0031, 10), (0.18, 118), (0.5, 188), (1.0, 255)] {
            let [got, ..] = encoded(curve(), [linear; 4]);
            assert!(got.abs_diff(code) <= 1, "{linear}: {got} instead of {code}");
        }
        let codes: Vec<u8> = (0..=1000).map(|k| encoded(curve(), [k as f32 / 1000.0; 4])[0]).collect();
        assert!(codes.windows(2).all(|pair| pair[0] <= pair[1]));
    }

    #[test]
    fn what_is_no_light_is_black_and_what_is_too_much_is_white() {
        let odd = [f32::NAN, -1.0, f32::INFINITY, f32::NEG_INFINITY];
        assert_eq!(encoded(curve(), odd), [0, 0, 255, 0]);
        assert_eq!(encoded(curve(), [1e30, 1.0001, 0.0, -0.0]), [255, 255, 0, 0]);
    }
}
