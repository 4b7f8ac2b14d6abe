//! The conditions of a frame: everything that can be wrong with a picture, each measured in one place.
//!
//! [`frame`] goes through all of them. Findings are the ones that are not met, a remedy is what meets one and breaks no
//! other, matching compares set-ups by the same margins, and a look that is held may not lose rows it had. How bad a miss
//! is, and in what words, is for who asks.

use crate::file::shot::{Intent, Role};
use crate::outlook::{LightOutlook, Outlook, PartOutlook};
use crate::physics::depth::Depth;
use crate::physics::exposure::CLIP_LEVEL;
use crate::physics::ghost::{NOTICED_FROM, SEEN_FROM};
use crate::plan::{Part, Plan, STREAK_FACTOR};
use crate::quantity::{Metres, Stops};

/// A third of a stop is a click, with a hair for the roundings of labels; a placement that is off by less is where it was
/// wanted.
pub const CLICK: f64 = 0.34;
/// What is beyond white by less is white.
pub const WHITE_WITHIN: f64 = 0.1;
/// Shares of rows closer than this are the same.
const ROUNDING: f64 = 1e-9;
/// Reported as missing altogether, so that ranking and words stay finite.
pub const NO_LIGHT: f64 = -12.0;
/// Below this a surface swallows more than half of the light.
pub const DARK_SURFACE: f64 = 0.5;
/// Higher than this the way there and back takes more than it is worth.
pub const HIGH_SURFACE_M: f64 = 4.0;

/// What a condition asks.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Matter {
    /// All rows get all of a flash. Share of rows that lack some; the margin is the worst row's loss.
    Rows,
    /// Rear sync comes last.
    Rear,
    /// A part is as still as its intent asks. Blur on the sensor in metres.
    Still,
    /// A part that shall streak is seen to. Difference of L*.
    Shows,
    /// Its streak is as long as wanted. Factor off.
    Streak,
    /// A part that shall not streak leaves no trail. Difference of L*.
    NoTrail,
    /// The key falls on its target. Stops off.
    Key,
    /// Steady light falls on its target. Stops off.
    Ambient,
    /// A part is not burnt out. Stops against white.
    White,
    /// The wanted depth is sharp. Share of it on the worse side.
    Depth,
    /// A light that is on fires.
    Fires,
    /// A rim does not outshine the key. Stops above it.
    Rim,
    /// An automatic has the power it needs. Stops short.
    Automatic,
    /// A surface gives back what is sent to it. Its reflectance.
    Surface,
    /// The lights that draw a part fire together. How far apart its images are, in metres on the sensor.
    Together,
    /// An unsteady hand draws nothing. Its travel against the allowed blur.
    Hand,
}

/// How a frame fares under one of them.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Condition {
    /// What is asked.
    pub matter: Matter,
    /// Index of the part it is about.
    pub part: Option<usize>,
    /// Index of the light it is about.
    pub light: Option<usize>,
    /// What was measured, as [`Matter`] says.
    pub measure: f64,
    /// The most, or the least, of it that is good.
    pub limit: f64,
    /// Stops to spare; negative is missing, infinite where there is no end.
    pub margin: f64,
}

impl Condition {
    /// Whether the frame is good in this.
    pub fn is_met(&self) -> bool {
        self.margin >= 0.0
    }

    const fn of_shot(matter: Matter, measure: f64, limit: f64, margin: f64) -> Self {
        Self { matter, part: None, light: None, measure, limit, margin }
    }

    const fn of_part(matter: Matter, part: usize, measure: f64, limit: f64, margin: f64) -> Self {
        Self { part: Some(part), ..Self::of_shot(matter, measure, limit, margin) }
    }

    const fn of_light(matter: Matter, light: usize, measure: f64, limit: f64, margin: f64) -> Self {
        Self { light: Some(light), ..Self::of_shot(matter, measure, limit, margin) }
    }

    /// What either is or is not.
    fn yes(matter: Matter, light: usize, is: bool) -> Self {
        let (measure, margin) = if is { (1.0, f64::INFINITY) } else { (0.0, f64::NEG_INFINITY) };
        Self::of_light(matter, light, measure, 1.0, margin)
    }
}

/// Goes through everything that can be wrong with a frame: shutter, movement, steady light, exposure, depth, lights.
pub fn frame(plan: &Plan, seen: &Outlook, each: &mut impl FnMut(Condition)) {
    for (index, light) in seen.firing() {
        each(Condition::of_light(Matter::Rows, index, light.rows.touched, 0.0, rows(light)));
        each(Condition::yes(Matter::Rear, index, !light.ignition.rear_acts_as_front));
    }
    let parts = || plan.parts.iter().zip(&seen.parts).enumerate();
    for (index, (part, of_part)) in parts() {
        // What no flash draws is not frozen by one.
        if let Some(limit) = part.intent.blur_limit(seen.allowed).filter(|_| of_part.slowest.is_some()) {
            let blur = of_part.flash_blur;
            each(Condition::of_part(Matter::Still, index, blur.as_metres(), limit.as_metres(), still(blur, limit)));
        }
    }
    for (index, (part, of_part)) in parts() {
        steady(index, part, of_part, each);
    }
    exposure(plan, seen, each);
    let share = depth(&seen.depth, plan.subject_distance, plan.subject_depth);
    each(Condition::of_shot(Matter::Depth, share, 1.0, share.log2()));
    lights(plan, seen, each);
}

fn steady(index: usize, part: &Part, seen: &PartOutlook, each: &mut impl FnMut(Condition)) {
    let delta = if seen.draws { seen.ghost.delta_lightness.abs() } else { 0.0 };
    if part.intent == Intent::Dash {
        each(Condition::of_part(Matter::Shows, index, delta, SEEN_FROM, shows(delta)));
        // What is not seen has no length.
        if let Some(wanted) = part.streak_share.filter(|_| shows(delta) >= 0.0) {
            let margin = streak(seen.streak_share, wanted);
            let factor = (STREAK_FACTOR.log2() - margin).exp2();
            each(Condition::of_part(Matter::Streak, index, factor, STREAK_FACTOR, margin));
        }
    } else {
        each(Condition::of_part(Matter::NoTrail, index, delta, NOTICED_FROM, trail(delta, NOTICED_FROM)));
    }
}

fn exposure(plan: &Plan, seen: &Outlook, each: &mut impl FnMut(Condition)) {
    let off = |placement: Stops, target: Stops| (placement - target).as_stops().max(NO_LIGHT);
    if plan.fires(plan.key) {
        let miss = off(seen.key().lit.placement, plan.key_target);
        each(Condition::of_shot(Matter::Key, miss, CLICK, CLICK - miss.abs()));
    }
    if let Some(target) = plan.ambient_target {
        let miss = off(seen.ambient.placement, target);
        each(Condition::of_shot(Matter::Ambient, miss, CLICK, CLICK - miss.abs()));
    }
    for (index, (part, of_part)) in plan.parts.iter().zip(&seen.parts).enumerate() {
        // A lamp in the picture is meant to be beyond white.
        if part.luminance.is_none() {
            let over = (of_part.ghost.through.value() / CLIP_LEVEL).log2();
            // A hair under its limit it is good.
            let margin =
                if over < WHITE_WITHIN { WHITE_WITHIN - over } else { (WHITE_WITHIN - over).min(-f64::EPSILON) };
            each(Condition::of_part(Matter::White, index, over, WHITE_WITHIN, margin));
        }
    }
}

fn lights(plan: &Plan, seen: &Outlook, each: &mut impl FnMut(Condition)) {
    for (index, (light, of_light)) in plan.lights.iter().zip(&seen.lights).enumerate() {
        if light.on {
            each(Condition::yes(Matter::Fires, index, of_light.fires));
        }
        if !of_light.fires {
            continue;
        }
        let over = (of_light.seen() - seen.key().lit.placement).as_stops();
        if light.role == Role::Rim && over.is_finite() {
            each(Condition::of_light(Matter::Rim, index, over, CLICK, CLICK - over));
        }
        if plan.settings.lights[index].bias.is_some() {
            let short = of_light.automatic_short.as_stops();
            each(Condition::of_light(Matter::Automatic, index, short, CLICK, CLICK - short.abs()));
        }
        if let Some(surface) = light.bounce {
            let near = surface.away.as_metres() <= HIGH_SURFACE_M && !surface.coloured;
            let bright = (surface.reflectance / DARK_SURFACE).log2();
            let margin = if near { bright } else { f64::NEG_INFINITY };
            each(Condition::of_light(Matter::Surface, index, surface.reflectance, DARK_SURFACE, margin));
        }
    }
    for (index, (part, of_part)) in plan.parts.iter().zip(&seen.parts).enumerate() {
        let Some(limit) = part.intent.blur_limit(seen.allowed) else { continue };
        let (apart, margin) = (of_part.apart.as_metres(), still(of_part.apart, limit));
        each(Condition::of_part(Matter::Together, index, apart, limit.as_metres(), margin));
    }
    if seen.ambient.placement > Stops::DARK {
        let travel = seen.camera.shake * seen.run.time / seen.allowed;
        each(Condition::of_shot(Matter::Hand, travel, 1.0, -travel.log2()));
    }
}

// --- the margins, in stops --------------------------------------------------------------------------------------

/// Of rows: what the worst lacks, or how much faster the shutter could be.
pub fn rows(light: &LightOutlook) -> f64 {
    let lacks = light.rows.touched > 0.0;
    if lacks { light.rows.worst.as_stops().clamp(NO_LIGHT, -f64::EPSILON) } else { 0.0 }
}

/// Whether a frame lacks flash in no more rows than before.
pub fn keeps_rows(seen: &Outlook, touched_before: f64) -> bool {
    seen.touched() <= touched_before + ROUNDING
}

/// Of a blur under its limit.
pub fn still(blur: Metres, limit: Metres) -> f64 {
    (limit / blur).log2()
}

/// Of a trail under the difference of L* from which it shows too much; exactly there it does.
pub fn trail(delta: f64, limit: f64) -> f64 {
    let room = (limit / delta).log2();
    if delta < limit { room } else { room.min(-1e-8) }
}

/// Of a streak over the difference of L* from which it is seen.
pub fn shows(delta: f64) -> f64 {
    (delta / SEEN_FROM).log2()
}

/// Of a streak's share of the frame within [`STREAK_FACTOR`] of the wanted one.
pub fn streak(share: f64, wanted: f64) -> f64 {
    STREAK_FACTOR.log2() - (share / wanted).log2().abs()
}

/// What of a wanted depth is sharp, on the worse side: 1 is all of it, more is to spare, infinite where none is wanted.
pub fn depth(zone: &Depth, distance: Metres, wanted: Metres) -> f64 {
    let half = wanted.as_metres() / 2.0;
    if half <= 0.0 {
        return f64::INFINITY;
    }
    let front = (distance - zone.near).as_metres() / half;
    let back = zone.far.map_or(f64::INFINITY, |far| (far - distance).as_metres() / half);
    front.min(back)
}
