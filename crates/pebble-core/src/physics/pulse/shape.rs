//! One pulse: the intensity of a flash over time from ignition.
//!
//! Every way of making less light ends in the same shape: a rise, an exponential decay and, for some, a cut.
//! `f(t) = (1−e^(−t/τr))·e^(−t/τd)` up to the cut `T`, then `f(T)·e^(−(t−T)/τf)`. Integral, inverse and durations
//! are closed or one bracketed root away, so that nothing here steps through time.
//!
//! A flash may also be a train of such pulses, all alike, from start to start a fixed time apart; its intensity is their
//! mean. What follows from there being one peak is said where it is used: [`Pulse::interval_of_ninety`] looks for a train's
//! step by step.

use crate::physics::root::crossing;
use crate::quantity::Seconds;

/// Points of a drawn pulse: as many as a curve of a hundred pixels shows.
const DRAWN_POINTS: usize = 48;
/// Points of a drawn train, whose pulses are narrow.
const DRAWN_OF_A_TRAIN: usize = 240;
/// Fraction of the peak to which it is drawn.
const DRAWN_TO: f64 = 0.02;

/// Starts in each pulse of a train among which the shortest interval of 90 % is looked for.
const TRAIN_STEPS: u32 = 24;

/// How long a pulse lasts, in the three ways people count it.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Durations {
    /// First rise to last fall through 50 % of the peak (ISO 2827).
    pub t05: Seconds,
    /// First rise to last fall through 10 % of the peak (ISO 2827).
    pub t01: Seconds,
    /// Shortest interval that holds 90 % of the light.
    pub t90: Seconds,
}

/// Which of the three a photographer judges by.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Default, serde::Serialize, serde::Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum School {
    /// As leaflets print; flatters.
    T05,
    /// As pictures behave.
    #[default]
    T01,
    /// Nine tenths of the light.
    T90,
}

impl School {
    /// The name as written beside a figure.
    pub const fn label(self) -> &'static str {
        match self {
            Self::T05 => "t0.5",
            Self::T01 => "t0.1",
            Self::T90 => "t90",
        }
    }
}

impl Durations {
    /// The freezing time by one school.
    pub const fn by(&self, school: School) -> Seconds {
        match school {
            School::T05 => self.t05,
            School::T01 => self.t01,
            School::T90 => self.t90,
        }
    }
}

/// A pulse of unit light, or a train of equal pulses.
///
/// # Guarantees
/// Intensity is never negative and integrates to 1. It rises to one peak and falls, as many times as [`Pulse::peaks`] says.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Pulse {
    rise_s: f64,
    decay_s: f64,
    cut: Option<Cut>,
    area: f64,
    train: Option<Train>,
}

/// Equal pulses one after the other.
#[derive(Clone, Copy, Debug, PartialEq)]
struct Train {
    count: u32,
    period_s: f64,
}

#[derive(Clone, Copy, Debug, PartialEq)]
struct Cut {
    at_s: f64,
    fall_s: f64,
    height: f64,
}

impl Pulse {
    /// The whole discharge, uncut. `rise < decay`; a rise of zero starts at the peak.
    pub fn full(rise: Seconds, decay: Seconds) -> Self {
        let mut pulse = Self { rise_s: rise.as_secs(), decay_s: decay.as_secs(), cut: None, area: 1.0, train: None };
        pulse.area = pulse.decay_s - pulse.knee();
        pulse
    }

    /// The discharge cut at `at` with an exponential fall after it; a fall of zero is a clean cut.
    pub fn cut(rise: Seconds, decay: Seconds, at: Seconds, fall: Seconds) -> Self {
        let mut pulse = Self::full(rise, decay);
        let height = pulse.discharge(at.as_secs());
        pulse.cut = Some(Cut { at_s: at.as_secs(), fall_s: fall.as_secs(), height });
        pulse.area = pulse.discharged(at.as_secs()) + height * fall.as_secs();
        pulse
    }

    /// The same pulse so many times, from start to start a time apart in which one is over. One is the pulse itself.
    pub fn repeated(self, count: u32, period: Seconds) -> Self {
        let train = (count > 1).then(|| Train { count, period_s: period.as_secs() });
        Self { train, ..self }
    }

    /// How often it rises and falls.
    pub fn peaks(&self) -> u32 {
        self.train.map_or(1, |train| train.count)
    }

    /// One pulse of it, and when each begins.
    pub fn parts(&self) -> (Self, impl Iterator<Item = Seconds> + use<>) {
        let period = self.train.map_or(0.0, |train| train.period_s);
        let starts = (0..self.peaks()).map(move |index| Seconds::from_secs(f64::from(index) * period));
        (Self { train: None, ..*self }, starts)
    }

    /// From the first pulse of a train to the last.
    pub(super) fn spread_s(&self) -> f64 {
        self.train.map_or(0.0, |train| f64::from(train.count - 1) * train.period_s)
    }

    /// The same pulse with all times multiplied.
    pub fn stretched(self, factor: f64) -> Self {
        Self {
            train: self.train.map(|train| Train { period_s: train.period_s * factor, ..train }),
            rise_s: self.rise_s * factor,
            decay_s: self.decay_s * factor,
            cut: self.cut.map(|cut| Cut { at_s: cut.at_s * factor, fall_s: cut.fall_s * factor, ..cut }),
            area: self.area * factor,
        }
    }

    /// Light of the pulse against that of the uncut discharge, 0 to 1.
    pub fn share_of_full(&self) -> f64 {
        self.area / (self.decay_s - self.knee())
    }

    /// `φ(t)` in 1/s; zero before ignition.
    pub fn intensity(&self, t: Seconds) -> f64 {
        self.height(t.as_secs()) / (self.area * f64::from(self.peaks()))
    }

    /// `φ(t)` against its peak, 0 to 1.
    pub fn relative_intensity(&self, t: Seconds) -> f64 {
        self.height(t.as_secs()) / self.height(self.peak_s())
    }

    /// `Φ(t)`: the share of the light emitted until `t`, 0 to 1.
    pub fn share(&self, t: Seconds) -> f64 {
        let t = t.as_secs();
        match self.train {
            None => self.share_of_one(t),
            Some(Train { count, period_s }) => {
                (0..count).map(|index| self.share_of_one(t - f64::from(index) * period_s)).sum::<f64>()
                    / f64::from(count)
            }
        }
    }

    /// `∫Φ` from ignition to `t`, in seconds: what the mean share of rows that open one after the other follows from. It grows
    /// by a second a second once the pulse is over.
    pub fn share_until(&self, t: Seconds) -> Seconds {
        let t = t.as_secs();
        Seconds::from_secs(match self.train {
            None => self.until_of_one(t),
            Some(Train { count, period_s }) => {
                (0..count).map(|index| self.until_of_one(t - f64::from(index) * period_s)).sum::<f64>()
                    / f64::from(count)
            }
        })
    }

    fn until_of_one(&self, t: f64) -> f64 {
        if t <= 0.0 {
            return 0.0;
        }
        let (decay, knee) = (self.decay_s, self.knee());
        let discharged = |t: f64| {
            let rising = if knee > 0.0 { knee * knee * (-t / knee).exp_m1() } else { 0.0 };
            (decay - knee) * t + decay * decay * (-t / decay).exp_m1() - rising
        };
        let light = match self.cut {
            Some(cut) if t > cut.at_s => {
                let since = t - cut.at_s;
                let falling = cut.fall_s * if cut.fall_s > 0.0 { (-since / cut.fall_s).exp_m1() } else { 0.0 };
                let tail = cut.height * cut.fall_s * (since + falling);
                discharged(cut.at_s) + self.discharged(cut.at_s) * since + tail
            }
            _ => discharged(t),
        };
        light / self.area
    }

    fn share_of_one(&self, t: f64) -> f64 {
        if t <= 0.0 {
            return 0.0;
        }
        let light = match self.cut {
            Some(cut) if t > cut.at_s => {
                let tail = if cut.fall_s > 0.0 {
                    -cut.height * cut.fall_s * (-(t - cut.at_s) / cut.fall_s).exp_m1()
                } else {
                    0.0
                };
                self.discharged(cut.at_s) + tail
            }
            _ => self.discharged(t),
        };
        (light / self.area).min(1.0)
    }

    /// The time until which a share of the light is emitted: the inverse of [`Pulse::share`], `0 < share < 1`.
    pub fn time_of_share(&self, share: f64) -> Seconds {
        if share <= 0.0 {
            return Seconds::ZERO;
        }
        if let Some(Train { count, period_s }) = self.train {
            // All pulses before this one are as good as over.
            let before = (share * f64::from(count)).floor().min(f64::from(count - 1));
            let (one, _) = self.parts();
            let end = before * period_s + one.time_of_share(1.0 - 1e-12).as_secs();
            let time = crossing((before - 1.0).max(0.0) * period_s, end, |t| self.share(Seconds::from_secs(t)) - share);
            return Seconds::from_secs(time);
        }
        if let Some(cut) = self.cut {
            let before = self.discharged(cut.at_s);
            let beyond = share * self.area - before;
            if beyond >= 0.0 {
                let rest = 1.0 - beyond / (cut.height * cut.fall_s);
                let tail = if cut.fall_s > 0.0 { -cut.fall_s * rest.max(f64::MIN_POSITIVE).ln() } else { 0.0 };
                return Seconds::from_secs(cut.at_s + tail);
            }
        }
        // What is left of the light of a discharge is `d·e^(−t/d) − k·e^(−t/k)` with `k < d`: between the first alone and
        // `(d − k)` in its place.
        let (decay, knee) = (self.decay_s, self.knee());
        let left = decay - knee - share * self.area;
        let bound = |most: f64| if left > 0.0 { (decay * (most / left).ln()).max(0.0) } else { self.far() };
        let last = self.cut.map_or(f64::INFINITY, |cut| cut.at_s).min(bound(decay));
        let first = bound(decay - knee).min(last);
        Seconds::from_secs(crossing(first, last, |t| self.discharged(t) / self.area - share))
    }

    /// The curve as it is drawn, from ignition to a little past the last fall through 10 %, so that it is seen to end: times
    /// and intensities against the peak.
    pub fn drawn(&self) -> impl Iterator<Item = (Seconds, f64)> + use<> {
        let (pulse, end, peak) = (*self, self.interval_above(DRAWN_TO).1, self.height(self.peak_s()));
        let points = if pulse.peaks() > 1 { DRAWN_OF_A_TRAIN } else { DRAWN_POINTS };
        (0..points).map(move |k| {
            let t = end * k as f64 / (points - 1) as f64;
            // A clean cut ends at its foot, whichever way its time is rounded.
            let at_a_clean_cut = k + 1 == points
                && pulse.cut.is_some_and(|cut| {
                    cut.fall_s <= 0.0 && t.as_secs() >= (cut.at_s + pulse.spread_s()) * (1.0 - 1e-9)
                });
            (t, if at_a_clean_cut { 0.0 } else { pulse.height(t.as_secs()) / peak })
        })
    }

    /// When the intensity is highest.
    pub fn peak(&self) -> Seconds {
        Seconds::from_secs(self.peak_s())
    }

    /// First rise and last fall through a fraction of the peak, `0 < fraction < 1`: of a train, from its first pulse to its
    /// last.
    pub fn interval_above(&self, fraction: f64) -> (Seconds, Seconds) {
        let peak = self.peak_s();
        let level = fraction * self.height_of_one(peak);
        let (first, last) = (self.rises_through(level, peak), self.falls_through(level, peak));
        (Seconds::from_secs(first), Seconds::from_secs(last + self.spread_s()))
    }

    /// When one pulse rises through a height that it has at `before` at the latest, which is no later than its peak.
    pub(super) fn rises_through(&self, level: f64, before: f64) -> f64 {
        if self.rise_s <= 0.0 {
            return 0.0;
        }
        // It rises as if it did not decay, or as if it had decayed all the while as far as at the latest.
        let risen = |to: f64| if to < 1.0 { -self.rise_s * (-to).ln_1p() } else { before };
        let last = risen(level * (before / self.decay_s).exp()).min(before);
        crossing(risen(level).min(last), last, |t| self.discharge(t) - level)
    }

    /// When one pulse falls through a height that it has at `after` at the earliest, which is no earlier than its peak.
    pub(super) fn falls_through(&self, level: f64, after: f64) -> f64 {
        if let Some(cut) = self.cut.filter(|cut| cut.height >= level) {
            return cut.at_s + cut.fall_s * (cut.height / level).ln();
        }
        // It falls under what is left of a discharge that was all there at once.
        let end = self.cut.map_or(f64::INFINITY, |cut| cut.at_s).min(-self.decay_s * level.ln());
        crossing(after, end.max(after), |t| self.discharge(t) - level)
    }

    /// The shortest interval that holds 90 % of the light.
    ///
    /// At its ends the intensity is equal, or the interval starts at ignition, or it ends at a clean cut. The start lies
    /// before a tenth of the light has passed, and the difference of the two intensities grows with the start. A train's has
    /// many such places; the shortest is looked for among starts a small part of a pulse apart.
    pub fn interval_of_ninety(&self) -> (Seconds, Seconds) {
        let end_of = |start: Seconds| self.time_of_share((self.share(start) + 0.9).min(1.0 - 1e-12));
        let latest = self.time_of_share(0.1).as_secs();
        if self.train.is_some() {
            let (one, starts) = self.parts();
            let step = one.interval_above(0.1).1 / f64::from(TRAIN_STEPS);
            let starts = starts.flat_map(|start| (0..=TRAIN_STEPS).map(move |k| start + step * f64::from(k)));
            let intervals = starts.filter(|start| start.as_secs() <= latest).map(|start| (start, end_of(start)));
            let length = |(from, to): &(Seconds, Seconds)| (*to - *from).as_secs();
            let shortest = intervals.min_by(|a, b| length(a).total_cmp(&length(b)));
            return shortest.unwrap_or((Seconds::ZERO, end_of(Seconds::ZERO)));
        }
        let difference = |start: f64| {
            let start = Seconds::from_secs(start);
            self.intensity(start) - self.intensity(end_of(start))
        };
        let start = if difference(0.0) >= 0.0 {
            0.0
        } else if difference(latest) <= 0.0 {
            latest
        } else {
            crossing(0.0, latest, difference)
        };
        let start = Seconds::from_secs(start);
        (start, end_of(start))
    }

    /// All three durations.
    pub fn durations(&self) -> Durations {
        let (t05, t01) = self.times();
        let (from, to) = self.interval_of_ninety();
        Durations { t05, t01, t90: to - from }
    }

    /// From its first rise to its last fall through a half and through a tenth of its peak.
    pub(crate) fn spans(&self) -> [(Seconds, Seconds); 2] {
        [0.5, 0.1].map(|fraction| self.interval_above(fraction))
    }

    /// t0.5 and t0.1.
    pub(crate) fn times(&self) -> (Seconds, Seconds) {
        let [t05, t01] = self.spans().map(|(from, to)| to - from);
        (t05, t01)
    }

    /// `1/(1/τr + 1/τd)`, the time constant of the rising part in the integral.
    fn knee(&self) -> f64 {
        self.rise_s * self.decay_s / (self.rise_s + self.decay_s)
    }

    /// Where an uncut discharge has nothing left that a double could hold against its peak.
    fn far(&self) -> f64 {
        40.0 * self.decay_s
    }

    pub(super) fn peak_s(&self) -> f64 {
        let free = if self.rise_s > 0.0 { self.rise_s * (self.decay_s / self.rise_s).ln_1p() } else { 0.0 };
        self.cut.map_or(free, |cut| free.min(cut.at_s))
    }

    fn discharge(&self, t: f64) -> f64 {
        let risen = if self.rise_s > 0.0 { -(-t / self.rise_s).exp_m1() } else { 1.0 };
        risen * (-t / self.decay_s).exp()
    }

    fn discharged(&self, t: f64) -> f64 {
        let knee = self.knee();
        let rising = if knee > 0.0 { -knee * (-t / knee).exp_m1() } else { 0.0 };
        -self.decay_s * (-t / self.decay_s).exp_m1() - rising
    }

    /// Against the discharge; of a train the sum of its pulses.
    fn height(&self, t: f64) -> f64 {
        match self.train {
            None => self.height_of_one(t),
            Some(Train { count, period_s }) => {
                (0..count).map(|index| self.height_of_one(t - f64::from(index) * period_s)).sum()
            }
        }
    }

    pub(super) fn height_of_one(&self, t: f64) -> f64 {
        match self.cut {
            _ if t < 0.0 => 0.0,
            Some(cut) if t > cut.at_s => {
                if cut.fall_s > 0.0 {
                    cut.height * (-(t - cut.at_s) / cut.fall_s).exp()
                } else {
                    0.0
                }
            }
            _ => self.discharge(t),
        }
    }
}
