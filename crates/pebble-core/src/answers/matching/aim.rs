//! What a search is after: the best by a priority, or the least that would have to give. Both are sums over the scales, so
//! that every scale can be worked out by itself.

use super::brief::{Brief, Demand, EDGE};
use crate::quantity::scale::{Aperture, Iso, ShutterTime};
use crate::quantity::{Metres, Stops};
use crate::wire::word;

word! {
    /// What counts first among set-ups that all work.
    #[derive(Default)]
    pub enum Priority {
        /// Every limit used as little as can be: the smallest sum of the shares used.
        #[default]
        Balanced,
        /// The shortest freezing time.
        ShortestPulse,
        /// The lowest ISO.
        LowestIso,
        /// Most flashes on one charge.
        LongestBattery,
        /// The lightest to carry.
        LeastToCarry,
        /// Ready again first.
        FastestBurst,
        /// As little as can be is set, moved or changed against the shot as it is.
        LeastChange,
    }
}

/// A stop of change of what is set now, against a stop of what counts first.
const CHANGE: f64 = 0.01;
/// What another unit, or another thing in front of one, counts as in stops where little shall change.
const OTHER: f64 = 2.0;
/// What one light may weigh before it counts as much as a limit that is used up, where no limit is said, in kg.
const USUAL_WEIGHT: f64 = 10.0;
/// The same for a light that is moved: a stand is walked to.
const MOVE: f64 = 0.02;
/// A stop of the key off its target.
const MISS: f64 = 0.05;
/// The same while the least relaxation is looked for: only between equals.
const FAINT: f64 = 1e-6;

/// What a search minimises, and what it holds against it.
#[derive(Clone, Debug)]
pub(super) struct Aim {
    priority: Option<Priority>,
    /// Conditions that may give, at the price of the stops they give.
    loose: Vec<(Demand, Option<usize>)>,
    /// By no more than this.
    most_stops: f64,
}

impl Aim {
    pub fn best(priority: Priority) -> Self {
        Self { priority: Some(priority), loose: Vec::new(), most_stops: 0.0 }
    }

    pub fn nearest(loose: &[(Demand, Option<usize>)], most_stops: f64) -> Self {
        Self { priority: None, loose: loose.to_vec(), most_stops }
    }

    pub fn is_loose(&self, condition: Demand, part: Option<usize>) -> bool {
        !self.loose.is_empty() && self.loose.contains(&(condition, part))
    }

    /// Whether something with this much to spare is still looked at.
    pub fn open(&self, condition: Demand, part: Option<usize>, room: f64) -> bool {
        room >= -EDGE || (room >= -self.most_stops && self.is_loose(condition, part))
    }

    /// What lacking room costs.
    pub fn price(&self, condition: Demand, part: Option<usize>, room: f64) -> f64 {
        if room < -EDGE && self.is_loose(condition, part) { -room } else { 0.0 }
    }

    /// How far the key may be off.
    pub fn key_within(&self, brief: &Brief) -> f64 {
        let within = brief.bounds.key_within.as_stops();
        if self.is_loose(Demand::Key, None) { within + self.most_stops } else { within }
    }

    /// What a miss of the key costs.
    pub fn miss(&self, off: f64, within: f64) -> f64 {
        let slight = if self.priority.is_some() { MISS } else { FAINT };
        slight * off + if self.is_loose(Demand::Key, None) { (off - within).max(0.0) } else { 0.0 }
    }

    fn change(&self, weight: f64) -> f64 {
        match self.priority {
            Some(Priority::LeastChange) => 1.0,
            Some(_) => weight,
            None => FAINT,
        }
    }

    /// What camera settings cost; `room` is depth and noise to spare.
    pub fn camera(&self, brief: &Brief, (aperture, iso, filter): (Aperture, Iso, Stops), room: (f64, f64)) -> f64 {
        let now = &brief.plan.settings;
        let turned = 2.0 * (aperture.number() / now.aperture.number()).log2().abs()
            + (iso.number() / now.iso.number()).log2().abs()
            + (filter - now.filter).as_stops().abs();
        let first = match self.priority {
            Some(Priority::LowestIso) => (iso.number() / 100.0).log2(),
            Some(Priority::Balanced) => used(room.0) + used(room.1),
            _ => 0.0,
        };
        first + self.change(CHANGE) * turned
    }

    /// What a time costs.
    pub fn time(&self, brief: &Brief, time: ShutterTime) -> f64 {
        self.change(CHANGE) * (time.time() / brief.plan.settings.shutter.time()).log2().abs()
    }

    /// What a distance costs; the room is to the ends of what is allowed.
    pub fn distance(&self, brief: &Brief, light: usize, distance: Metres, (near, far): (f64, f64)) -> f64 {
        let moved = 2.0 * (distance / brief.plan.settings.lights[light].distance).log2().abs();
        self.change(MOVE) * moved + self.price(Demand::Near, None, near) + self.price(Demand::Far, None, far)
    }

    /// What a power costs: freezing time in seconds, stops to spare of blur, frames and charge, and what a flash takes.
    pub fn power(&self, row: &PowerFigures) -> f64 {
        match self.priority {
            Some(Priority::ShortestPulse) => (row.freeze_s * 1e6).max(1e-9).log2(),
            Some(Priority::Balanced) => used(row.blur_room) + used(row.frames_room) + used(row.charge_room),
            Some(Priority::LongestBattery) => -row.flashes.clamp(1e-3, 1e12).log2(),
            Some(Priority::FastestBurst) => row.ready_s.map_or(20.0, |ready| ready.max(1e-4).log2()),
            _ => 0.0,
        }
    }

    /// Whether the freezing time counts, which is the shutter's while a light glows.
    pub fn counts_freezing(&self) -> bool {
        matches!(self.priority, Some(Priority::ShortestPulse | Priority::Balanced))
    }

    /// What it costs that a light is another, or stands behind something else.
    pub fn others(&self, unit: bool, front: bool) -> f64 {
        let counted = self.priority == Some(Priority::LeastChange);
        if counted { OTHER * f64::from(u8::from(unit) + u8::from(front)) } else { 0.0 }
    }

    /// What a light costs whatever its power.
    pub fn weight(&self, brief: &Brief, weight_kg: Option<f64>) -> f64 {
        match self.priority {
            Some(Priority::LeastToCarry) => weight_kg.map_or(20.0, |kg| kg.max(1e-2).log2()),
            Some(Priority::Balanced) => weight_kg.map_or(0.0, |kg| kg / brief.bounds.weight_kg.min(USUAL_WEIGHT)),
            _ => 0.0,
        }
    }
}

/// What is known of a light at a power.
pub(super) struct PowerFigures {
    pub freeze_s: f64,
    pub blur_room: f64,
    pub frames_room: f64,
    pub charge_room: f64,
    pub flashes: f64,
    pub ready_s: Option<f64>,
}

/// The share of a limit that is used with so many stops to spare: 1 at the limit, ½ with a stop.
fn used(room: f64) -> f64 {
    (-room).exp2()
}
