//! Where a monotone function crosses zero.

/// Relative width at which a bracket counts as a point. Durations are judged to a per cent; this leaves ten orders.
const CLOSE_ENOUGH: f64 = 1e-13;
/// The Illinois method gains at least one bit in two steps on the functions used here, so this never decides.
const MAX_STEPS: usize = 100;

/// Finds `x` in `[low, high]` with `f(x) = 0` by regula falsi with the Illinois correction (Dowell & Jarratt,
/// *BIT* 11, 1971).
///
/// Precondition: `f` is continuous and crosses zero once. When both ends have the same sign, the end with the smaller
/// magnitude is returned, which is the right answer for a root that lies just outside through rounding.
pub fn crossing(low: f64, high: f64, f: impl Fn(f64) -> f64) -> f64 {
    let (mut a, mut b) = (low, high);
    let (mut fa, mut fb) = (f(a), f(b));
    if fa == 0.0 {
        return a;
    }
    if fb == 0.0 {
        return b;
    }
    if fa.signum() == fb.signum() {
        return if fa.abs() <= fb.abs() { a } else { b };
    }
    let mut last_side = 0_i8;
    for step in 0..MAX_STEPS {
        // Every fourth step halves, so that a flat tail cannot make the secant crawl.
        let x = if step % 4 == 3 { 0.5 * (a + b) } else { (fa * b - fb * a) / (fa - fb) };
        // One end is soon as good as the root, the other still far: a step just past the root brings it near.
        let least = CLOSE_ENOUGH * b.abs().max(a.abs()) * 0.9;
        let x = if (x - a).abs() < least {
            a + least.copysign(b - a)
        } else if (x - b).abs() < least {
            b + least.copysign(a - b)
        } else {
            x
        };
        let fx = f(x);
        if fx == 0.0 {
            return x;
        }
        if fx.signum() == fa.signum() {
            (a, fa) = (x, fx);
            if last_side == -1 {
                fb *= 0.5;
            }
            last_side = -1;
        } else {
            (b, fb) = (x, fx);
            if last_side == 1 {
                fa *= 0.5;
            }
            last_side = 1;
        }
        if (b - a).abs() <= CLOSE_ENOUGH * b.abs().max(a.abs()) {
            break;
        }
    }
    0.5 * (a + b)
}
