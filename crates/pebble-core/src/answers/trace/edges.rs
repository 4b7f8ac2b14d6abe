//! Where a noisy curve passes a level, and how high it goes.
//!
//! A single pair of neighbours would put the whole noise of two samples into the answer. Instead a parabola is laid through
//! the samples around the place, over as many as still agree with one; on a slow edge those are hundreds, on a steep one it
//! is the two neighbours again.

use std::ops::Range;

/// Fewest samples a parabola is laid through.
const FEWEST: usize = 7;
/// Around a passage, samples between these shares of its level are looked at.
const NEAR_EDGE: (f64, f64) = (0.65, 1.5);
/// Around the top, samples above this share of it.
const NEAR_TOP: f64 = 0.85;
/// A parabola counts as true while what is left over is at most this many times the noise.
const TRUE: f64 = 1.2;
/// A curve without noise is still written in digits.
const DIGITS: f64 = 2e-4;

/// Samples of a curve with its baseline taken off and its peak near 1.
#[derive(Clone, Copy)]
pub(super) struct Curve<'a> {
    pub(super) time: &'a [f64],
    pub(super) level: &'a [f64],
    /// Standard deviation of a level.
    pub(super) noise: f64,
}

/// `a + b·x + c·x²` with `x` from −1 to 1 over the samples it was laid through.
struct Parabola {
    coefficients: [f64; 3],
    centre: f64,
    half: f64,
    left_over: f64,
    samples: usize,
}

impl Curve<'_> {
    /// Time of the passage through `level` between the samples `at` and `at + 1`, looking no farther than `within`.
    pub(super) fn passage(&self, level: f64, at: usize, within: Range<usize>) -> f64 {
        let slack = 3.0 * self.noise;
        let near = |k: usize| {
            let here = self.level[k];
            here > NEAR_EDGE.0 * level - slack && here < NEAR_EDGE.1 * level + slack
        };
        self.true_parabola(self.around(at, within, near), at)
            .and_then(|parabola| parabola.passage(level, self.time[at]))
            .unwrap_or_else(|| self.between(level, at))
    }

    /// Height of the top around the sample `at`; of a pulse that was cut at its peak, where its two sides meet.
    pub(super) fn top(&self, at: usize, within: Range<usize>) -> f64 {
        let limit = NEAR_TOP * self.level[at] - 2.0 * self.noise;
        let (from, to) = self.around(at, within, |k| self.level[k] > limit);
        let parabola = self.true_parabola((from, to), at);
        // A narrow parabola rides on the highest of the noise.
        if let Some(wide) = parabola.filter(|one| one.samples * 2 > to - from) {
            return wide.highest();
        }
        let side = |range| self.true_parabola(range, at).map(|one| one.at(self.time[at]));
        match (side((from, at)), side((at, to))) {
            (Some(left), Some(right)) => 0.5 * (left + right),
            (Some(one), None) | (None, Some(one)) => one,
            (None, None) => self.level[at],
        }
    }

    fn around(&self, at: usize, within: Range<usize>, near: impl Fn(usize) -> bool) -> (usize, usize) {
        let (mut from, mut to) = (at, at);
        while from > within.start && near(from - 1) {
            from -= 1;
        }
        while to + 1 < within.end && near(to + 1) {
            to += 1;
        }
        (from, to)
    }

    /// The parabola over the widest stretch around `at` that it agrees with.
    fn true_parabola(&self, (mut from, mut to): (usize, usize), at: usize) -> Option<Parabola> {
        while to - from + 1 >= FEWEST {
            let parabola = self.parabola(from, to)?;
            if parabola.left_over <= TRUE * self.noise + DIGITS {
                return Some(parabola);
            }
            // Closer around the place, where a curve is simpler.
            from += (at - from).div_ceil(4);
            to -= (to - at).div_ceil(4);
        }
        None
    }

    fn between(&self, level: f64, at: usize) -> f64 {
        let next = (at + 1).min(self.level.len() - 1);
        let (low, high) = (self.level[at], self.level[next]);
        let along = if high == low { 0.5 } else { ((level - low) / (high - low)).clamp(0.0, 1.0) };
        self.time[at] + along * (self.time[next] - self.time[at])
    }

    /// Least squares, by the normal equations in a variable that keeps them well conditioned.
    fn parabola(&self, from: usize, to: usize) -> Option<Parabola> {
        let centre = 0.5 * (self.time[from] + self.time[to]);
        let half = 0.5 * (self.time[to] - self.time[from]);
        if half <= 0.0 {
            return None;
        }
        let (mut powers, mut sums) = ([0.0; 5], [0.0; 3]);
        for k in from..=to {
            let x = (self.time[k] - centre) / half;
            let mut power = 1.0;
            for (degree, total) in powers.iter_mut().enumerate() {
                *total += power;
                if let Some(sum) = sums.get_mut(degree) {
                    *sum += power * self.level[k];
                }
                power *= x;
            }
        }
        let row = |k: usize| [powers[k], powers[k + 1], powers[k + 2]];
        let matrix = [row(0), row(1), row(2)];
        let whole = determinant(matrix);
        if whole.abs() < 1e-12 {
            return None;
        }
        let coefficients = std::array::from_fn(|k| {
            let mut replaced = matrix;
            for (line, sum) in replaced.iter_mut().zip(sums) {
                line[k] = sum;
            }
            determinant(replaced) / whole
        });
        let mut parabola = Parabola { coefficients, centre, half, left_over: 0.0, samples: to - from + 1 };
        let squares: f64 = (from..=to).map(|k| (self.level[k] - parabola.at(self.time[k])).powi(2)).sum();
        parabola.left_over = (squares / ((to - from + 1) as f64 - 3.0)).sqrt();
        Some(parabola)
    }
}

impl Parabola {
    fn value(&self, x: f64) -> f64 {
        let [a, b, c] = self.coefficients;
        a + x * (b + x * c)
    }

    fn at(&self, time: f64) -> f64 {
        self.value((time - self.centre) / self.half)
    }

    fn highest(&self) -> f64 {
        let [_, b, c] = self.coefficients;
        let vertex = -b / (2.0 * c);
        let ends = self.value(-1.0).max(self.value(1.0));
        if c < 0.0 && vertex.abs() < 1.0 { self.value(vertex) } else { ends }
    }

    /// Where it passes a level, nearest to a time; `None` where it does not within its samples.
    fn passage(&self, level: f64, near: f64) -> Option<f64> {
        let [a, b, c] = self.coefficients;
        let (rest, near) = (a - level, (near - self.centre) / self.half);
        let root = (b * b - 4.0 * c * rest).sqrt();
        if root.is_nan() {
            return None;
        }
        // The stable pair of roots: no difference of numbers that are nearly equal.
        let sum = -0.5 * (b + root.copysign(b));
        [sum / c, rest / sum]
            .into_iter()
            .filter(|x| x.is_finite() && x.abs() <= 1.0)
            .min_by(|x, y| (x - near).abs().total_cmp(&(y - near).abs()))
            .map(|x| self.centre + self.half * x)
    }
}

fn determinant([a, b, c]: [[f64; 3]; 3]) -> f64 {
    a[0] * (b[1] * c[2] - b[2] * c[1]) - a[1] * (b[0] * c[2] - b[2] * c[0]) + a[2] * (b[0] * c[1] - b[1] * c[0])
}
