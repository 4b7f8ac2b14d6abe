//! The conditions of a frame: everything that can be wrong with a picture, each measured in one place.
//!
//! [`frame`] goes through all of them. Findings are the ones that are not met, a remedy is what meets one and breaks no
//! other, matching compares set-ups by the same margins, and a look that is held may not lose rows it had. How bad a miss
//! is, and in what words, is for who asks.

mod in_view;
mod supply;

pub(crate) use in_view::InView;
pub use supply::{BurstOf, burst_of};

use crate::answers::standing::falls_elsewhere;
use crate::file::shot::{Intent, Lead, Role};
use crate::outlook::{DrawnBy, LightOutlook, Outlook, PartOutlook};
use crate::physics::depth::Depth;
use crate::physics::exposure::CLIP_LEVEL;
use crate::physics::ghost::{NOTICED_FROM, SEEN_FROM, STRONG_FROM};
use crate::physics::motion::SOFT_LIMIT;
use crate::plan::{Part, Plan, STREAK_FACTOR, Target};
use crate::quantity::{Metres, MetresPerSecond, Seconds, Stops};
use in_view::InLens;

/// A third of a stop is a click, with a hair for the roundings of labels; a placement that is off by less is where it was
/// wanted.
pub const CLICK: f64 = 0.34;
/// What is beyond white by less is white.
pub const WHITE_WITHIN: f64 = 0.1;
/// Shares of rows closer than this are the same.
const ROUNDING: f64 = 1e-9;
/// A part that no flash reaches is not missed while it is no more than three stops under the subject.
const UNLIT_BELOW: Stops = Stops::from_stops(-3.0);
/// Reported as missing altogether, so that ranking and words stay finite.
pub const NO_LIGHT: f64 = -12.0;
/// Below this a surface swallows more than half of the light.
pub const DARK_SURFACE: f64 = 0.5;
/// Higher than this the way there and back takes more than it is worth.
pub const HIGH_SURFACE_M: f64 = 4.0;

/// Beyond this a miss of exposure is another picture: a stop.
const ANOTHER_PICTURE: f64 = 1.0;
/// A blur half as long again as its limit, in stops.
const HALF_AS_LONG_AGAIN: f64 = -0.584_962_500_721_156_2;
/// Rows that lose less than this are hard to see in a picture.
const HARD_TO_SEE: f64 = -0.3;
/// With less of a wanted depth than this, what is not sharp is looked at.
const MOST_OF_THE_DEPTH: f64 = 0.6;
/// What was bad may move by this much, in stops, before it counts as worse.
const WORSE_BY: f64 = 0.1;

/// What a condition asks.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Hash)]
pub enum Matter {
    /// All rows get all of a flash. Share of rows that lack some; the margin is the worst row's loss.
    Rows,
    /// Rear sync comes last.
    Rear,
    /// A part is as still in the picture as its intent asks. Blur on the sensor in metres.
    Still,
    /// A part that shall streak is seen to. Difference of L*.
    Shows,
    /// Its streak is as long as wanted. Factor off.
    Streak,
    /// Somebody said how long it shall be.
    AsksLength,
    /// The shutter holds a whole action and nothing of what comes after it. Its time in seconds.
    Action,
    /// What the camera draws of everything that stands is as wanted. Its length on the sensor in metres.
    World,
    /// A part that shall not streak leaves no trail. Difference of L*.
    NoTrail,
    /// The subject is exposed as wanted, by all light together. Stops off.
    Exposure,
    /// A light falls where it was wanted: by itself, or against the light that leads. Stops off.
    Balance,
    /// Steady light on the subject falls on its target. Stops off.
    Ambient,
    /// Steady light on the background falls on its target. Stops off.
    Background,
    /// A part is not burnt out. Stops against white.
    White,
    /// The wanted depth is sharp. Share of it on the worse side.
    Depth,
    /// No more than the wanted depth is sharp. Share of what is wanted at most.
    Shallow,
    /// A light that is on fires.
    Fires,
    /// A part that flash shall hold still is reached by one.
    Reached,
    /// A rim does not outshine the key. Stops above it.
    Rim,
    /// Face and stand of a light are out of the picture. How far within its edge they are seen, in metres.
    OutOfFrame,
    /// The same of a steady lamp that does not belong to the picture.
    LampOutOfFrame,
    /// No light shines into the lens.
    Flare,
    /// The key is as even over the area as was asked. The difference over it in stops.
    Even,
    /// The sheet behind fills the frame. What it lacks on the worse side, in metres.
    Sheet,
    /// An automatic has the power it needs. Stops short.
    Automatic,
    /// An automatic does not shine at the meter it goes by.
    MetersItself,
    /// A surface gives back what is sent to it. Its reflectance.
    Surface,
    /// The lights that draw a part fire together. How far apart its images are, in metres on the sensor.
    Together,
    /// An unsteady hand draws nothing. Its travel against the allowed blur.
    Hand,
    /// No more of a unit are used than are owned. How many are used.
    Owned,
    /// A trigger reaches its light. Metres to it.
    InRange,
    /// A trigger has as many groups as are used. How many are used.
    Groups,
    /// A unit gives whole flashes for the whole burst. How many it gives.
    Burst,
}

/// How bad it is when a condition is not met.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord)]
pub enum Grade {
    /// It is met.
    Met,
    /// Worth knowing.
    Watch,
    /// Somebody would take the picture again.
    Trouble,
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
    /// Index of the steady lamp it is about.
    pub lamp: Option<usize>,
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

    /// How bad it is: the one place where it is decided what is trouble.
    pub fn grade(&self) -> Grade {
        if self.is_met() {
            return Grade::Met;
        }
        let trouble = match self.matter {
            Matter::Rows => self.margin < HARD_TO_SEE,
            Matter::Still | Matter::Together => self.margin < HALF_AS_LONG_AGAIN,
            Matter::Shows
            | Matter::Fires
            | Matter::OutOfFrame
            | Matter::LampOutOfFrame
            | Matter::Reached
            | Matter::Action => true,
            Matter::Streak => self.measure > 2.0,
            Matter::NoTrail => self.measure > STRONG_FROM,
            Matter::Exposure | Matter::Ambient | Matter::Background | Matter::Automatic => {
                self.measure.abs() > ANOTHER_PICTURE
            }
            Matter::Even => self.margin < -ANOTHER_PICTURE,
            Matter::Depth => self.measure < MOST_OF_THE_DEPTH,
            Matter::Owned | Matter::InRange | Matter::Groups | Matter::Sheet => true,
            Matter::Burst => self.measure < 2.0 || self.margin < -1.0,
            Matter::Balance
            | Matter::World
            | Matter::Rear
            | Matter::AsksLength
            | Matter::White
            | Matter::Shallow
            | Matter::Rim
            | Matter::MetersItself
            | Matter::Flare
            | Matter::Surface
            | Matter::Hand => false,
        };
        if trouble { Grade::Trouble } else { Grade::Watch }
    }

    /// Whether it is about the same as another.
    pub fn is_about(&self, other: &Self) -> bool {
        (self.matter, self.part, self.light, self.lamp) == (other.matter, other.part, other.light, other.lamp)
    }

    /// Whether a frame that was so before is worse now: by a grade, or, where it was bad already, by more than a hair.
    pub fn is_worse_than(&self, before: Option<&Self>) -> bool {
        let Some(before) = before.filter(|_| !self.is_met()) else { return !self.is_met() };
        self.grade() > before.grade()
            || before.is_met()
            || self.margin < before.margin - WORSE_BY
            || (self.matter == Matter::Rows && self.measure > before.measure + ROUNDING)
    }

    /// What it costs to make this one self.
    pub fn cost(&self, plan: &Plan) -> String {
        let part = || self.part.map_or("a part", |part| plan.parts[part].name.as_str());
        let light = || self.light.map_or("a light", |light| plan.lights[light].label.as_str());
        match self.matter {
            Matter::Rows => "cuts rows of the flash".to_owned(),
            Matter::Rear => "leaves no room for rear sync".to_owned(),
            Matter::Still => format!("blurs {}", part()),
            Matter::Shows | Matter::Streak | Matter::AsksLength => format!("spoils the streak of {}", part()),
            Matter::Action => "misses some of the action".to_owned(),
            Matter::World => "draws the background otherwise than wanted".to_owned(),
            Matter::NoTrail => format!("draws a trail of {}", part()),
            Matter::Exposure => "moves the exposure from its target".to_owned(),
            Matter::Balance | Matter::Rim => format!("puts {} off its place", light()),
            Matter::Ambient => "moves the ambient from its target".to_owned(),
            Matter::Background => "moves the background from its target".to_owned(),
            Matter::White => format!("burns out {}", part()),
            Matter::Depth => "costs depth that is wanted".to_owned(),
            Matter::Shallow => "makes more sharp than is wanted".to_owned(),
            Matter::Fires => format!("keeps {} from firing", light()),
            Matter::Reached => format!("leaves {} without flash", part()),
            Matter::OutOfFrame => format!("brings {} into the picture", light()),
            Matter::LampOutOfFrame => {
                let lamp = self.lamp.map_or("a lamp", |lamp| plan.lamps[lamp].name.as_str());
                format!("brings {lamp} into the picture")
            }
            Matter::Flare => format!("lets {} shine into the lens", light()),
            Matter::Even => "lights the area less evenly".to_owned(),
            Matter::Sheet => "lets the frame see past the sheet".to_owned(),
            Matter::Automatic => format!("takes the automatic of {} to its end", light()),
            Matter::MetersItself => format!("lets the automatic of {} meter itself", light()),
            Matter::Surface => "asks too much of the surface".to_owned(),
            Matter::Together => format!("draws {} twice", part()),
            Matter::Hand => "lets the hand draw".to_owned(),
            Matter::Owned | Matter::InRange | Matter::Groups => "asks more of the kit than it has".to_owned(),
            Matter::Burst => format!("is too much in a row for {}", light()),
        }
    }

    const fn of_shot(matter: Matter, measure: f64, limit: f64, margin: f64) -> Self {
        Self { matter, part: None, light: None, lamp: None, measure, limit, margin }
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

/// All of them as a list.
pub fn all(plan: &Plan, seen: &Outlook) -> Vec<Condition> {
    let mut list = Vec::with_capacity(48);
    frame(plan, seen, &mut |condition| list.push(condition));
    list
}

/// What gets worse from one frame to another, of what counts: the first of it.
pub fn worse(before: &[Condition], plan: &Plan, seen: &Outlook, counts: impl Fn(Matter) -> bool) -> Option<Condition> {
    let mut found = None;
    frame(plan, seen, &mut |now| {
        if found.is_none() && counts(now.matter) && now.is_worse_than(before.iter().find(|then| then.is_about(&now))) {
            found = Some(now);
        }
    });
    found
}

/// Goes through everything that can be wrong with a frame: shutter, movement, steady light, exposure, depth, lights.
pub fn frame(plan: &Plan, seen: &Outlook, each: &mut impl FnMut(Condition)) {
    frame_in_view(plan, seen, &InView::of(plan), each);
}

/// The same with what the lens sees of the set worked out before.
pub(crate) fn frame_in_view(plan: &Plan, seen: &Outlook, view: &InView, each: &mut impl FnMut(Condition)) {
    for (index, light) in seen.firing() {
        each(Condition::of_light(Matter::Rows, index, light.rows.touched, 0.0, rows(light)));
        each(Condition::yes(Matter::Rear, index, !light.ignition.rear_acts_as_front));
    }
    let parts = || plan.parts.iter().zip(&seen.parts).enumerate();
    for (index, (part, of_part)) in parts() {
        // What nothing draws has no edge.
        if let Some(limit) = part.intent.blur_limit(seen.allowed).filter(|_| of_part.drawn_by != DrawnBy::Nothing) {
            let blur = of_part.blur;
            each(Condition::of_part(Matter::Still, index, blur.as_metres(), limit.as_metres(), still(blur, limit)));
        }
    }
    for (index, (part, of_part)) in parts() {
        steady(plan, index, part, of_part, each);
    }
    exposure(plan, seen, each);
    if let Some(window) = plan.timing.window() {
        let (time, room) = (seen.run.time, |long: Seconds, short: Seconds| (long / short).log2());
        let margin = room(time, window.shortest).min(room(window.longest, time));
        each(Condition::of_shot(Matter::Action, time.as_secs(), window.shortest.as_secs(), margin + ROUNDING));
    }
    if let Some(wanted) = plan.movement.wanted {
        let drawn = seen.camera.background_travel + seen.camera.zoom_travel;
        // Nobody sees a streak of what is black, and a short one is an edge.
        let seen_from = seen.allowed * SOFT_LIMIT;
        let black = seen.background_lightness(plan) < NOTICED_FROM;
        let margin = match (wanted, black) {
            (false, true) => f64::INFINITY,
            (true, true) => f64::NEG_INFINITY,
            (false, false) => (seen_from / drawn).log2(),
            (true, false) => (drawn / seen_from).log2(),
        };
        each(Condition::of_shot(Matter::World, drawn.as_metres(), seen_from.as_metres(), margin));
    }
    let share = depth(&seen.depth, plan.subject_distance, plan.subject_depth);
    each(Condition::of_shot(Matter::Depth, share, 1.0, share.log2()));
    if let Some(most) = plan.depth_at_most {
        let sharp = seen.depth.far.map_or(f64::INFINITY, |far| (far - seen.depth.near) / most);
        each(Condition::of_shot(Matter::Shallow, sharp, 1.0, -sharp.log2()));
    }
    lights(plan, seen, view, each);
    supply::conditions(plan, seen, each);
}

fn steady(plan: &Plan, index: usize, part: &Part, seen: &PartOutlook, each: &mut impl FnMut(Condition)) {
    if part.intent == Intent::Dash {
        let delta = if seen.draws { seen.ghost.delta_lightness.abs() } else { 0.0 };
        each(Condition::of_part(Matter::Shows, index, delta, SEEN_FROM, shows(delta)));
        match plan.wanted_streak(part) {
            None => each(Condition::of_part(Matter::AsksLength, index, seen.streak_share, 0.0, f64::NEG_INFINITY)),
            // What is not seen has no length.
            Some(wanted) if shows(delta) >= 0.0 => {
                let margin = streak(seen.streak_share, wanted);
                let factor = (STREAK_FACTOR.log2() - margin).exp2();
                each(Condition::of_part(Matter::Streak, index, factor, STREAK_FACTOR, margin));
            }
            Some(_) => {}
        }
    } else {
        let delta = if seen.draws { seen.ghost.noticed() } else { 0.0 };
        each(Condition::of_part(Matter::NoTrail, index, delta, NOTICED_FROM, trail(delta, NOTICED_FROM)));
    }
}

/// How far a placement is from where it was wanted; no light at all is a number too.
fn off(placement: Stops, target: Stops) -> f64 {
    (placement - target).as_stops().clamp(NO_LIGHT, -NO_LIGHT)
}

/// Stops between the light that leads and the zero of the ladder.
pub fn leads(plan: &Plan, seen: &Outlook) -> Stops {
    match plan.targets.lead {
        Lead::Flash => seen.key().in_frame.placement,
        Lead::Daylight => seen.ambient.placement,
    }
}

/// Where a light falls in the frame: at the mark, or on whom it is turned to.
pub fn falls(plan: &Plan, seen: &Outlook, light: usize) -> Stops {
    falls_elsewhere(plan, seen, light).map_or(seen.lights[light].in_frame.placement, |(_, there)| there)
}

/// Where a light shall fall, if anybody said so.
pub fn wanted_of(plan: &Plan, seen: &Outlook, light: usize) -> Option<Stops> {
    match plan.lights[light].target? {
        Target::Alone(stops) => Some(stops),
        // The key has no ratio to itself.
        Target::Ratio(_) if light == plan.key && plan.targets.lead == Lead::Flash => None,
        Target::Ratio(stops) => Some(leads(plan, seen) + stops),
    }
}

fn exposure(plan: &Plan, seen: &Outlook, each: &mut impl FnMut(Condition)) {
    let targets = &plan.targets;
    if targets.lead == Lead::Flash {
        let miss = off(seen.subject.read_by(targets.reads), targets.subject);
        each(Condition::of_shot(Matter::Exposure, miss, CLICK, CLICK - miss.abs()));
    }
    for (index, _) in seen.firing() {
        if let Some(wanted) = wanted_of(plan, seen, index) {
            let miss = off(falls(plan, seen, index), wanted);
            // Where neither is lit there is no ratio.
            let miss = if miss.is_nan() { NO_LIGHT } else { miss };
            each(Condition::of_light(Matter::Balance, index, miss, CLICK, CLICK - miss.abs()));
        }
    }
    let steady = [
        (Matter::Ambient, targets.ambient, seen.ambient.placement),
        (Matter::Background, targets.background, seen.background.placement),
    ];
    for (matter, target, placement) in steady {
        if let Some(target) = target {
            let miss = off(placement, target);
            each(Condition::of_shot(matter, miss, CLICK, CLICK - miss.abs()));
        }
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

fn lights(plan: &Plan, seen: &Outlook, view: &InView, each: &mut impl FnMut(Condition)) {
    if let Some(missing) = view.sheet_lacks {
        each(Condition::of_shot(Matter::Sheet, missing, 0.0, -missing));
    }
    for (lamp, inside) in &view.lamps_inside {
        let seen = Condition::of_shot(Matter::LampOutOfFrame, *inside, 0.0, -inside - ROUNDING);
        each(Condition { lamp: Some(*lamp), ..seen });
    }
    let uneven = view.uneven(plan).filter(|_| seen.key().fires);
    if let Some((most, uneven)) = plan.even.zip(uneven) {
        let most = most.as_stops();
        each(Condition::of_light(Matter::Even, plan.key, uneven, most, most - uneven));
    }
    for (index, (light, of_light)) in plan.lights.iter().zip(&seen.lights).enumerate() {
        if light.on {
            each(Condition::yes(Matter::Fires, index, of_light.fires));
        }
        if !of_light.fires {
            continue;
        }
        let over = (of_light.seen() - seen.key().in_frame.placement).as_stops();
        if light.role == Role::Rim && light.target.is_none() && over.is_finite() {
            each(Condition::of_light(Matter::Rim, index, over, CLICK, CLICK - over));
        }
        let InLens { shown, flares } = view.of_light(plan, index);
        if shown.any() {
            each(Condition::of_light(Matter::OutOfFrame, index, shown.inside, 0.0, -shown.inside - ROUNDING));
        }
        if flares {
            each(Condition::yes(Matter::Flare, index, false));
        }
        if plan.settings.lights[index].bias.is_some() {
            let short = of_light.automatic_short.as_stops();
            each(Condition::of_light(Matter::Automatic, index, short, CLICK, CLICK - short.abs()));
            // Where the lens looks into it, so does the meter.
            let shines_at_the_lens = light.is_behind() && light.role != Role::Backdrop && flares;
            each(Condition::yes(Matter::MetersItself, index, !shines_at_the_lens));
        }
        if let Some(surface) = light.bounce {
            let near = surface.away.as_metres() <= HIGH_SURFACE_M && !surface.coloured;
            let bright = (surface.reflectance / DARK_SURFACE).log2();
            let margin = if near { bright } else { f64::NEG_INFINITY };
            each(Condition::of_light(Matter::Surface, index, surface.reflectance, DARK_SURFACE, margin));
        }
    }
    let shapes = || seen.firing().filter(|(light, _)| plan.lights[*light].is_frontal());
    for (index, (part, of_part)) in plan.parts.iter().zip(&seen.parts).enumerate() {
        let Some(limit) = part.intent.blur_limit(seen.allowed) else { continue };
        let (apart, margin) = (of_part.apart.as_metres(), still(of_part.apart, limit));
        each(Condition::of_part(Matter::Together, index, apart, limit.as_metres(), margin));
        // Where flash makes the picture, a part that none of it reaches is a hole in it.
        if plan.targets.lead == Lead::Flash && part.luminance.is_none() && shapes().next().is_some() {
            let reached = shapes().any(|(light, _)| plan.lights[light].reaches(index));
            let lit = reached || of_part.ghost.through.placement() > plan.targets.subject + UNLIT_BELOW;
            let margin = if lit { f64::INFINITY } else { f64::NEG_INFINITY };
            each(Condition::of_part(Matter::Reached, index, f64::from(u8::from(reached)), 1.0, margin));
        }
    }
    // What the steady light hardly draws, a hand cannot smear.
    let draws = (4.0 * (seen.subject.steady_share - 0.25)).clamp(0.0, 1.0);
    if seen.ambient.placement > Stops::DARK && seen.camera.shake > MetresPerSecond::ZERO {
        let travel = seen.camera.shake * seen.run.time / seen.allowed * draws;
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
