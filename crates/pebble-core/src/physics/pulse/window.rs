//! A pulse seen through a window of time: how long it lasts for a row that opens late or closes early.

use super::{Pulse, School};
use crate::physics::root::crossing;
use crate::quantity::Seconds;

/// Starts among which the shortest interval that holds 90 % of what a window sees is looked for.
const STARTS: u32 = 48;

impl Pulse {
    /// How long the light lasts that falls between two moments, counted as a school counts a whole pulse: from the first to
    /// the last moment at half or a tenth of the highest intensity in the window, or the shortest interval that holds 90 %
    /// of its light. Never longer than the window; nothing where it sees nothing.
    pub fn lasts_within(&self, from: Seconds, to: Seconds, school: School) -> Seconds {
        let (from, to) = (from.max(Seconds::ZERO), to.min(self.time_of_share(1.0 - 1e-9)));
        if to <= from {
            return Seconds::ZERO;
        }
        match school {
            School::T05 => self.above_within(from, to, 0.5),
            School::T01 => self.above_within(from, to, 0.1),
            School::T90 => self.ninety_within(from, to),
        }
    }

    fn above_within(&self, from: Seconds, to: Seconds, fraction: f64) -> Seconds {
        let (one, _) = self.parts();
        // What the window sees of each pulse, counted from where it begins, in seconds.
        let seen = || {
            self.parts().1.filter_map(|start| {
                let (from, to) = ((from - start).max(Seconds::ZERO), to - start);
                (to > from).then(|| (start.as_secs(), from.as_secs(), to.as_secs()))
            })
        };
        let peak = |from: f64, to: f64| one.peak().as_secs().clamp(from, to);
        let height = |t: f64| one.intensity(Seconds::from_secs(t));
        let level = fraction * seen().map(|(_, from, to)| height(peak(from, to))).fold(0.0, f64::max);
        let (mut first, mut last) = (f64::INFINITY, 0.0_f64);
        for (start, from, to) in seen() {
            let (peak, off) = (peak(from, to), |t: f64| height(t) - level);
            if level > 0.0 && off(peak) >= 0.0 {
                first = first.min(start + if off(from) >= 0.0 { from } else { crossing(from, peak, off) });
                last = last.max(start + if off(to) >= 0.0 { to } else { crossing(peak, to, off) });
            }
        }
        Seconds::from_secs((last - first).max(0.0))
    }

    fn ninety_within(&self, from: Seconds, to: Seconds) -> Seconds {
        let (before, light) = (self.share(from), self.share(to) - self.share(from));
        if light <= 0.0 {
            return Seconds::ZERO;
        }
        let holds = |start: f64| {
            self.time_of_share(before + (start + 0.9) * light) - self.time_of_share(before + start * light)
        };
        (0..=STARTS).map(|k| holds(0.1 * f64::from(k) / f64::from(STARTS))).fold(to - from, Seconds::min)
    }
}
