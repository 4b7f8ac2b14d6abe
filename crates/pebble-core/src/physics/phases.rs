//! Movement in time: rest, line, arc, fall, jump, to and fro, one after the other, as a way along one direction.
//!
//! model.md §13. Every phase is even acceleration or a sine, so that places, speeds, ways and the time spent between two
//! places are exact: no stepping. Before the first phase and after the last the part rests.

use crate::quantity::{Metres, Seconds};
use std::f64::consts::{FRAC_PI_2, PI, TAU};

/// `g`, standard gravity (ISO 80000-3) in m/s².
pub(crate) const GRAVITY: f64 = 9.806_65;
/// More phases than a movement has.
pub const MOST_PHASES: usize = 8;

/// One phase, from its own beginning.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Phase {
    kind: Kind,
    seconds: f64,
}

#[derive(Clone, Copy, Debug, PartialEq)]
enum Kind {
    /// `v₀·t + a·t²/2`.
    Even { speed: f64, acceleration: f64 },
    /// `A·sin(ω·t)`.
    Sine { amplitude: f64, omega: f64 },
}

const REST: Phase = Phase { kind: Kind::Even { speed: 0.0, acceleration: 0.0 }, seconds: 0.0 };

impl Phase {
    /// Stands still.
    pub const fn rest(time: Seconds) -> Self {
        Self { seconds: time.as_secs(), ..REST }
    }

    /// Straight on, from one speed to another in m/s; against the direction where negative.
    pub fn line(from: f64, to: f64, time: Seconds) -> Self {
        let acceleration = (to - from) / time.as_secs();
        Self { kind: Kind::Even { speed: from, acceleration }, seconds: time.as_secs() }
    }

    /// Round an arc of some radians, evenly; the way is counted along it.
    pub fn arc(radius: Metres, radians: f64, time: Seconds) -> Self {
        let speed = radius.as_metres() * radians / time.as_secs();
        Self { kind: Kind::Even { speed, acceleration: 0.0 }, seconds: time.as_secs() }
    }

    /// Falls from rest: `√(2h/g)` long.
    pub fn fall(height: Metres) -> Self {
        let seconds = (2.0 * height.as_metres() / GRAVITY).sqrt();
        Self { kind: Kind::Even { speed: 0.0, acceleration: GRAVITY }, seconds }
    }

    /// Up to a height and down again: `2·√(2h/g)` long.
    pub fn jump(height: Metres) -> Self {
        let speed = (2.0 * GRAVITY * height.as_metres()).sqrt();
        Self { kind: Kind::Even { speed, acceleration: -GRAVITY }, seconds: 2.0 * speed / GRAVITY }
    }

    /// To both sides by so much, so often a second, beginning in the middle.
    pub fn to_and_fro(amplitude: Metres, rate_hz: f64, time: Seconds) -> Self {
        let kind = Kind::Sine { amplitude: amplitude.as_metres(), omega: TAU * rate_hz };
        Self { kind, seconds: time.as_secs() }
    }

    fn rests(&self) -> bool {
        self.kind == REST.kind
    }

    fn place(&self, t: f64) -> f64 {
        match self.kind {
            Kind::Even { speed, acceleration } => (speed + 0.5 * acceleration * t) * t,
            Kind::Sine { amplitude, omega } => amplitude * (omega * t).sin(),
        }
    }

    fn speed(&self, t: f64) -> f64 {
        match self.kind {
            Kind::Even { speed, acceleration } => speed + acceleration * t,
            Kind::Sine { amplitude, omega } => amplitude * omega * (omega * t).cos(),
        }
    }

    /// When it passes a place between two times in which it goes one way only.
    fn passes(&self, place: f64, (from, to): (f64, f64)) -> f64 {
        let at = match self.kind {
            Kind::Even { speed, acceleration: 0.0 } => place / speed,
            Kind::Even { speed, acceleration } => {
                let forward = self.speed(0.5 * (from + to)).signum();
                let then = (speed * speed + 2.0 * acceleration * place).max(0.0).sqrt();
                (forward * then - speed) / acceleration
            }
            Kind::Sine { amplitude, omega } => {
                let turn = (omega * 0.5 * (from + to) / PI).round();
                let angle = (place / amplitude).clamp(-1.0, 1.0).asin();
                (turn * PI + if turn.rem_euclid(2.0) < 0.5 { angle } else { -angle }) / omega
            }
        };
        at.clamp(from, to)
    }

    /// The stretches between two times in which it goes one way only, whole turns of a sine apart from the rest.
    fn one_way(&self, (from, to): (f64, f64), each: &mut impl FnMut((f64, f64))) {
        match self.kind {
            Kind::Even { speed, acceleration } => {
                let turns = if acceleration == 0.0 { f64::NAN } else { -speed / acceleration };
                if turns > from && turns < to {
                    each((from, turns));
                    each((turns, to));
                } else {
                    each((from, to));
                }
            }
            Kind::Sine { omega, .. } => {
                let mut at = from;
                while at < to {
                    let next = (((omega * at + FRAC_PI_2) / PI + 1e-9).floor() * PI + FRAC_PI_2) / omega;
                    each((at, next.min(to)));
                    at = next.max(at + 1e-12);
                }
            }
        }
    }

    /// Whole turns to and fro between two times, and what is left after them.
    fn turns(&self, (from, to): (f64, f64)) -> (f64, (f64, f64)) {
        match self.kind {
            Kind::Sine { omega, .. } => {
                let period = TAU / omega;
                let whole = ((to - from) / period).floor();
                (whole, (from + whole * period, to))
            }
            Kind::Even { .. } => (0.0, (from, to)),
        }
    }

    /// Time between two places.
    fn between(&self, span: (f64, f64), (low, high): (f64, f64)) -> f64 {
        if self.rests() {
            return if low <= 0.0 && high >= 0.0 { span.1 - span.0 } else { 0.0 };
        }
        let (turns, left) = self.turns(span);
        let mut time = match self.kind {
            Kind::Sine { amplitude, omega } if turns > 0.0 => {
                let angle = |place: f64| (place / amplitude).clamp(-1.0, 1.0).asin();
                turns * 2.0 * (angle(high) - angle(low)).abs() / omega
            }
            _ => 0.0,
        };
        self.one_way(left, &mut |(from, to)| {
            let (a, b) = (self.place(from), self.place(to));
            let (near, far) = (a.min(b).max(low), a.max(b).min(high));
            if near < far {
                time += (self.passes(far, (from, to)) - self.passes(near, (from, to))).abs();
            }
        });
        time
    }
}

/// A movement: its phases with when and where each begins.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Phases {
    phases: [Phase; MOST_PHASES],
    count: usize,
    /// When each begins, and where; one more for the end.
    begins: [(f64, f64); MOST_PHASES + 1],
}

/// A pause inside an exposure.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Pauses {
    /// Share of the exposure that is over before anything moves.
    pub at_start: f64,
    /// Share that is left when everything has come to rest.
    pub at_end: f64,
    /// Share of the longest pause in between.
    pub between: f64,
    /// All together.
    pub whole: f64,
}

impl Phases {
    /// Of up to [`MOST_PHASES`]; nothing of none, or of more.
    pub fn of(list: &[Phase]) -> Option<Self> {
        if list.is_empty() || list.len() > MOST_PHASES {
            return None;
        }
        let mut phases = [REST; MOST_PHASES];
        phases[..list.len()].copy_from_slice(list);
        let mut begins = [(0.0, 0.0); MOST_PHASES + 1];
        for (index, phase) in list.iter().enumerate() {
            let (time, place) = begins[index];
            begins[index + 1] = (time + phase.seconds, place + phase.place(phase.seconds));
        }
        Some(Self { phases, count: list.len(), begins })
    }

    /// How long it lasts.
    pub fn lasts(&self) -> Seconds {
        Seconds::from_secs(self.begins[self.count].0)
    }

    /// When each phase begins, and when the last one ends.
    pub fn begins(&self) -> impl Iterator<Item = Seconds> {
        self.begins[..=self.count].iter().map(|(time, _)| Seconds::from_secs(*time))
    }

    fn at(&self, time: f64) -> (usize, f64) {
        let index = (0..self.count).rev().find(|index| self.begins[*index].0 <= time).unwrap_or(0);
        (index, (time - self.begins[index].0).clamp(0.0, self.phases[index].seconds))
    }

    /// Where it is, in metres from where it began.
    pub fn place(&self, time: Seconds) -> f64 {
        let (index, t) = self.at(time.as_secs());
        self.begins[index].1 + self.phases[index].place(t)
    }

    /// How fast it is, in m/s; against the direction where negative.
    pub fn speed(&self, time: Seconds) -> f64 {
        let at = time.as_secs();
        if at < 0.0 || at >= self.begins[self.count].0 {
            return 0.0;
        }
        let (index, t) = self.at(at);
        self.phases[index].speed(t)
    }

    /// The phases between two times: each with its place and the part of it that lies between.
    fn within(&self, (from, to): (f64, f64)) -> impl Iterator<Item = (Phase, f64, (f64, f64))> + '_ {
        (0..self.count).filter_map(move |index| {
            let (begin, place) = self.begins[index];
            let (a, b) = ((from - begin).max(0.0), (to - begin).min(self.phases[index].seconds));
            (b > a).then_some((self.phases[index], place, (a, b)))
        })
    }

    /// Rest before and after the movement between two times, in seconds.
    fn outside(&self, (from, to): (f64, f64)) -> (f64, f64) {
        let end = self.begins[self.count].0;
        ((to.min(0.0) - from).max(0.0), (to - from.max(end)).max(0.0))
    }

    /// The least and the greatest place between two times.
    pub fn reach(&self, opens: Seconds, closes: Seconds) -> (f64, f64) {
        let span = (opens.as_secs(), closes.as_secs());
        let (first, last) = (self.place(opens), self.place(closes));
        let mut reach = (first.min(last), first.max(last));
        for (phase, place, span) in self.within(span) {
            let mut meet = |at: f64| reach = (reach.0.min(place + at), reach.1.max(place + at));
            let (turns, left) = phase.turns(span);
            if let (Kind::Sine { amplitude, .. }, true) = (phase.kind, turns > 0.0) {
                meet(-amplitude);
                meet(amplitude);
            }
            phase.one_way(left, &mut |(from, to)| {
                meet(phase.place(from));
                meet(phase.place(to));
            });
        }
        reach
    }

    /// The way covered between two times, there and back counted twice.
    pub fn way(&self, opens: Seconds, closes: Seconds) -> Metres {
        let mut way = 0.0;
        for (phase, _, span) in self.within((opens.as_secs(), closes.as_secs())) {
            let (turns, left) = phase.turns(span);
            if let Kind::Sine { amplitude, .. } = phase.kind {
                way += turns * 4.0 * amplitude;
            }
            phase.one_way(left, &mut |(from, to)| way += (phase.place(to) - phase.place(from)).abs());
        }
        Metres::from_metres(way)
    }

    /// `κ`: the share of an exposure in which a part of some width covers a place.
    pub fn dwell(&self, (opens, closes): (Seconds, Seconds), width: Metres, place: f64) -> f64 {
        let span = (opens.as_secs(), closes.as_secs());
        if span.1 <= span.0 {
            return 0.0;
        }
        let (low, high) = (place - 0.5 * width.as_metres(), place + 0.5 * width.as_metres());
        let (before, after) = self.outside(span);
        let rests = |at: f64, time: f64| if low <= at && at <= high { time } else { 0.0 };
        let mut time = rests(0.0, before) + rests(self.begins[self.count].1, after);
        for (phase, at, span) in self.within(span) {
            time += phase.between(span, (low - at, high - at));
        }
        time / (span.1 - span.0)
    }

    /// What of an exposure is rest.
    pub fn pauses(&self, opens: Seconds, closes: Seconds) -> Pauses {
        let span = (opens.as_secs(), closes.as_secs());
        let whole = (span.1 - span.0).max(f64::MIN_POSITIVE);
        let (before, after) = self.outside(span);
        let (mut start, mut end, mut longest, mut all) = (before, 0.0, 0.0_f64, before + after);
        let mut moved = false;
        for (phase, _, (from, to)) in self.within(span) {
            if phase.rests() {
                end += to - from;
                all += to - from;
            } else {
                if moved {
                    longest = longest.max(end)
                } else {
                    start += end
                }
                (moved, end) = (true, 0.0);
            }
        }
        if !moved {
            return Pauses { at_start: 1.0, at_end: 0.0, between: 0.0, whole: 1.0 };
        }
        end += after;
        Pauses { at_start: start / whole, at_end: end / whole, between: longest / whole, whole: all / whole }
    }

    /// The strongest ghost of an exposure beside what a flash froze at some place: a pause, a turn, or the even streak
    /// `(1 − r)·min(1, w/ℓ)`.
    pub fn strongest(&self, (opens, closes): (Seconds, Seconds), width: Metres, frozen: Option<f64>) -> f64 {
        let (low, high) = self.reach(opens, closes);
        let (long, wide) = (high - low, width.as_metres());
        let rest = self.pauses(opens, closes).whole;
        let even = if long > 0.0 { (1.0 - rest) * (wide / long).min(1.0) } else { 1.0 };
        let beside = |place: f64| frozen.is_none_or(|frozen| (place - frozen).abs() >= wide);
        let mut strongest = even;
        let mut look = |place: f64| {
            if beside(place) {
                strongest = strongest.max(self.dwell((opens, closes), width, place));
            }
        };
        let (first, last) = (self.place(opens), self.place(closes));
        // Where it rests, and a half width inside of where it turns.
        for place in [first, last, low + 0.5 * wide, high - 0.5 * wide] {
            look(place);
        }
        for (phase, place, _) in self.within((opens.as_secs(), closes.as_secs())) {
            if phase.rests() {
                look(place);
            }
        }
        strongest
    }
}

/// What a shutter has to do so that a whole action is in the frame.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct ActionWindow {
    /// The shortest that holds it, pressed one spread early.
    pub shortest: Seconds,
    /// The longest before what comes next is in it too.
    pub longest: Seconds,
}

impl ActionWindow {
    /// Of an action that lasts so long, with the next movement so long after its start.
    pub fn of(action: Seconds, next: Seconds, spread: Seconds) -> Self {
        Self { shortest: action + spread * 2.0, longest: next }
    }

    /// Whether there is a time that does.
    pub fn is_possible(&self) -> bool {
        self.shortest <= self.longest
    }

    /// Whether a time does.
    pub fn fits(&self, time: Seconds) -> bool {
        time >= self.shortest && time <= self.longest
    }
}

/// How long after the end of an action a flash comes that goes off so long after opening, pressed one spread early.
pub fn flash_after_end(flash: Seconds, action: Seconds, spread: Seconds) -> Seconds {
    flash - spread - action
}

/// Chances to get the top of a jump.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Peak {
    /// From leaving the ground to landing.
    pub air: Seconds,
    /// How long it is slow enough.
    pub window: Seconds,
    /// Chance of one frame that is timed by hand.
    pub one: f64,
    /// Chance of a burst that lasts the window and two spreads.
    pub burst: f64,
}

impl Peak {
    /// Of a jump of some height, a speed that is slow enough, who presses, and frames a second.
    pub fn of(height: Metres, limit_m_s: f64, spread: Seconds, rate: f64) -> Self {
        let air = 2.0 * (2.0 * height.as_metres() / GRAVITY).sqrt();
        let window = (2.0 * limit_m_s.max(0.0) / GRAVITY).min(air);
        let spread = spread.as_secs();
        let one = if spread > 0.0 { erf(window / (2.0 * std::f64::consts::SQRT_2 * spread)) } else { 1.0 };
        Self { air: Seconds::from_secs(air), window: Seconds::from_secs(window), one, burst: (window * rate).min(1.0) }
    }
}

/// `1 − (1 − p)ⁿ`: at least one of so many tries.
pub fn at_least_once(chance: f64, tries: u32) -> f64 {
    1.0 - (1.0 - chance).powf(f64::from(tries))
}

/// The error function, by the series and the continued fraction of Abramowitz and Stegun 7.1.5 and 7.1.14; good to 1e-12.
pub fn erf(x: f64) -> f64 {
    let z = x.abs();
    let value = if z < 2.5 {
        let (mut term, mut sum) = (z, z);
        for n in 1..80 {
            let n = f64::from(n);
            term *= -z * z / n;
            sum += term / (2.0 * n + 1.0);
        }
        sum * 2.0 / PI.sqrt()
    } else {
        let tail = (1..60).rev().fold(z, |below, n| z + 0.5 * f64::from(n) / below);
        1.0 - (-z * z).exp() / (PI.sqrt() * tail)
    };
    value.copysign(x)
}
