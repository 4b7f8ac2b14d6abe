//! Where a monotone function crosses zero.

/// Relative width at which a bracket counts as a point. Durations are judged to a per cent; this leaves ten orders.
const CLOSE_ENOUGH: f64 = 1e-13;
/// Halving alone comes this close from any bracket of positive numbers, and no step gains less for long.
const MAX_STEPS: usize = 100;

/// Finds `x` in `[low, high]` with `f(x) = 0` by inverse quadratic interpolation, and by halving where three points are
/// not like a parabola on its side (Chandrupatla, *Advances in Engineering Software* 28, 1997).
///
/// Precondition: `f` is continuous and crosses zero once. When both ends have the same sign, the end with the smaller
/// magnitude is returned, which is the right answer for a root that lies just outside through rounding.
pub fn crossing(low: f64, high: f64, f: impl Fn(f64) -> f64) -> f64 {
    // The root is between `a`, the newest point, and `b`; `c` is the one before.
    let ((mut a, mut fa), (mut b, mut fb)) = ((high, f(high)), (low, f(low)));
    if fa == 0.0 {
        return a;
    }
    if fb == 0.0 {
        return b;
    }
    if fa.signum() == fb.signum() {
        return if fa.abs() < fb.abs() { a } else { b };
    }
    // The first step is the secant.
    let mut share = fa / (fa - fb);
    for _ in 0..MAX_STEPS {
        // No nearer to an end than a point is wide: where that end is as good as the root, such a step closes the bracket.
        let least = (CLOSE_ENOUGH * a.abs().max(b.abs()) / (b - a).abs()).min(0.5);
        let x = a + (b - a) * share.clamp(least, 1.0 - least);
        let fx = f(x);
        let (c, fc) = if fx.signum() == fa.signum() {
            (a, fa)
        } else {
            let before = (b, fb);
            (b, fb) = (a, fa);
            before
        };
        (a, fa) = (x, fx);
        if fa == 0.0 || (b - a).abs() <= 2.0 * CLOSE_ENOUGH * a.abs().max(b.abs()) {
            break;
        }
        let (way, rise) = ((a - b) / (c - b), (fa - fb) / (fc - fb));
        share = if rise * rise < way && (1.0 - rise) * (1.0 - rise) < 1.0 - way {
            fa / (fb - fa) * fc / (fb - fc) + (c - a) / (b - a) * fa / (fc - fa) * fb / (fc - fb)
        } else {
            0.5
        };
    }
    if fa.abs() <= fb.abs() { a } else { b }
}
