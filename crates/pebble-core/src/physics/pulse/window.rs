//! A pulse seen through a window of time: how long it lasts for a row that opens late or closes early.

use super::{Pulse, School};
use crate::physics::root::crossing;
use crate::quantity::Seconds;

/// Starts among which the shortest interval that holds 90 % of what a window sees is looked for.
const STARTS: u32 = 48;

/// A pulse that is looked at through many windows: what is the same for all of them is found once.
#[derive(Clone, Copy, Debug)]
pub struct Windows {
    pulse: Pulse,
    /// One pulse of it.
    one: Pulse,
    school: School,
    /// When it is over.
    over: Seconds,
    /// First rise and last fall of one pulse through the school's fraction of its peak.
    whole: (f64, f64),
}

impl Windows {
    /// Gets ready for a pulse and a school.
    pub fn of(pulse: &Pulse, school: School) -> Self {
        let (one, _) = pulse.parts();
        let whole = fraction(school).map_or((0.0, 0.0), |fraction| {
            let (first, last) = one.interval_above(fraction);
            (first.as_secs(), last.as_secs())
        });
        Self { pulse: *pulse, one, school, over: pulse.time_of_share(1.0 - 1e-9), whole }
    }

    /// How long the light lasts that falls between two moments, counted as a school counts a whole pulse: from the first to
    /// the last moment at half or a tenth of the highest intensity in the window, or the shortest interval that holds 90 %
    /// of its light. Never longer than the window; nothing where it sees nothing.
    pub fn lasts(&self, from: Seconds, to: Seconds) -> Seconds {
        let (from, to) = (from.max(Seconds::ZERO), to.min(self.over));
        if to <= from {
            return Seconds::ZERO;
        }
        match fraction(self.school) {
            Some(fraction) => self.above(from, to, fraction),
            None => self.ninety(from, to),
        }
    }

    fn above(&self, from: Seconds, to: Seconds, fraction: f64) -> Seconds {
        // What the window sees of each pulse, counted from where it begins, in seconds.
        let seen = || {
            self.pulse.parts().1.filter_map(|start| {
                let (from, to) = ((from - start).max(Seconds::ZERO), to - start);
                (to > from).then(|| (start.as_secs(), from.as_secs(), to.as_secs()))
            })
        };
        let crest = self.one.peak().as_secs();
        let height = |t: f64| self.one.intensity(Seconds::from_secs(t));
        let level = fraction * seen().map(|(_, from, to)| height(crest.clamp(from, to))).fold(0.0, f64::max);
        // Where a crest is seen, the pulse goes through the level where it does as a whole.
        let whole = seen().any(|(_, from, to)| (from..=to).contains(&crest)).then_some(self.whole);
        let (mut first, mut last) = (f64::INFINITY, 0.0_f64);
        for (start, from, to) in seen() {
            let (peak, off) = (crest.clamp(from, to), |t: f64| height(t) - level);
            if level > 0.0 && off(peak) >= 0.0 {
                let rises = || whole.map_or_else(|| crossing(from, peak, off), |(rises, _)| rises.clamp(from, peak));
                let falls = || whole.map_or_else(|| crossing(peak, to, off), |(_, falls)| falls.clamp(peak, to));
                first = first.min(start + if off(from) >= 0.0 { from } else { rises() });
                last = last.max(start + if off(to) >= 0.0 { to } else { falls() });
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

/// Of the peak, through which a school counts; none for the one that counts light.
const fn fraction(school: School) -> Option<f64> {
    match school {
        School::T05 => Some(0.5),
        School::T01 => Some(0.1),
        School::T90 => None,
    }
}
