//! A pulse seen through a window of time: how long it lasts for a row that opens late or closes early.

use super::{Pulse, School};
use crate::quantity::Seconds;

/// Starts among which the shortest interval that holds 90 % of what a window sees is looked for.
const STARTS: u32 = 48;

/// A pulse that is looked at through many windows: what is the same for all of them is found once.
#[derive(Clone, Copy, Debug)]
pub struct Windows {
    pulse: Pulse,
    /// The fraction of the highest intensity between whose moments a school counts, with the first rise and the last fall of
    /// one pulse through it; none for the school that counts light.
    counts: Option<(f64, (f64, f64))>,
    /// When nothing is left of it.
    over: Seconds,
    /// First rise and last fall through a tenth of its peak.
    pub tenth: (Seconds, Seconds),
}

impl Windows {
    /// Gets ready for a pulse and a school.
    pub fn of(pulse: &Pulse, school: School) -> Self {
        let tenth = pulse.interval_above(0.1);
        let one = |(first, last): (Seconds, Seconds)| (first.as_secs(), last.as_secs() - pulse.spread_s());
        let counts = match school {
            School::T05 => Some((0.5, one(pulse.interval_above(0.5)))),
            School::T01 => Some((0.1, one(tenth))),
            School::T90 => None,
        };
        Self { pulse: *pulse, counts, over: pulse.time_of_share(1.0 - 1e-9), tenth }
    }

    /// The share that falls between two moments.
    pub fn share(&self, from: Seconds, to: Seconds) -> f64 {
        (self.pulse.share(to) - self.pulse.share(from)).max(0.0)
    }

    /// How long the light lasts that falls between two moments, counted as a school counts a whole pulse: from the first to
    /// the last moment at half or a tenth of the highest intensity in the window, or the shortest interval that holds 90 %
    /// of its light. Never longer than the window; nothing where it sees nothing.
    pub fn lasts(&self, from: Seconds, to: Seconds) -> Seconds {
        let (from, to) = (from.max(Seconds::ZERO), to.min(self.over));
        if to <= from {
            return Seconds::ZERO;
        }
        match self.counts {
            Some(counts) => self.above(from, to, counts),
            None => self.ninety(from, to),
        }
    }

    fn above(&self, from: Seconds, to: Seconds, (fraction, whole): (f64, (f64, f64))) -> Seconds {
        let (one, _) = self.pulse.parts();
        // What the window sees of each pulse, counted from where it begins, in seconds.
        let seen = || {
            self.pulse.parts().1.filter_map(|start| {
                let (from, to) = ((from - start).max(Seconds::ZERO), to - start);
                (to > from).then(|| (start.as_secs(), from.as_secs(), to.as_secs()))
            })
        };
        let height = |t: f64| one.height_of_one(t);
        let highest = |from: f64, to: f64| one.peak_s().clamp(from, to);
        let level = fraction * seen().map(|(_, from, to)| height(highest(from, to))).fold(0.0, f64::max);
        // Where a crest is seen, each goes through the level where it does as a whole.
        let crest = seen().any(|(_, from, to)| (from..=to).contains(&one.peak_s()));
        let (mut first, mut last) = (f64::INFINITY, 0.0_f64);
        for (start, from, to) in seen() {
            let peak = highest(from, to);
            if level > 0.0 && height(peak) >= level {
                let rises = || if crest { whole.0 } else { one.rises_through(level, peak) };
                let falls = || if crest { whole.1 } else { one.falls_through(level, peak) };
                first = first.min(start + if height(from) >= level { from } else { rises().clamp(from, peak) });
                last = last.max(start + if height(to) >= level { to } else { falls().clamp(peak, to) });
            }
        }
        Seconds::from_secs((last - first).max(0.0))
    }

    fn ninety(&self, from: Seconds, to: Seconds) -> Seconds {
        let pulse = &self.pulse;
        let (before, light) = (pulse.share(from), pulse.share(to) - pulse.share(from));
        if light <= 0.0 {
            return Seconds::ZERO;
        }
        let holds = |start: f64| {
            pulse.time_of_share(before + (start + 0.9) * light) - pulse.time_of_share(before + start * light)
        };
        (0..=STARTS).map(|k| holds(0.1 * f64::from(k) / f64::from(STARTS))).fold(to - from, Seconds::min)
    }
}
