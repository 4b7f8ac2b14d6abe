//! Judgement: what of a forecast will hurt the picture, why, and what to turn.
//!
//! A [`Flaw`] is found cheaply; its words and its remedies are made only for the shot in hand. A remedy is a change of
//! settings that was *tried*: its own outlook is free of the flaw and has no more trouble than before.

mod clicks;
mod depth;
mod doubt;
mod exposure;
mod freeze;
mod ideas;
mod lights;
mod moment;
pub mod parts;
mod remedy;
mod set;
mod steady;
mod supply;
mod sync;
mod turn;
mod uncut;

pub use parts::PartState;

use crate::answers::conditions::{self, Condition, Grade, Matter};
use crate::answers::strips::Value;
use crate::outlook::{Outlook, Pulses};
use crate::plan::Plan;
use crate::quantity::Stops;
use crate::quantity::words::signed;
use ideas::Ideas;
use remedy::Trials;
use serde::Serialize;

/// How much a finding matters.
#[derive(Clone, Copy, Debug, PartialEq, Eq, PartialOrd, Ord, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Severity {
    /// The picture misses its intent.
    Trouble,
    /// Worth knowing before the release.
    Watch,
    /// Checked and good.
    Fine,
}

/// One sentence with a number, a cause and what to do.
#[derive(Clone, Debug, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Finding {
    /// Stable identity, such as `blur-Shoes`.
    pub id: String,
    /// How much it matters.
    pub severity: Severity,
    /// The number.
    pub title: String,
    /// Why.
    pub cause: String,
    /// What to turn, best first.
    pub remedies: Vec<Remedy>,
    /// Why nothing is offered, where nothing is.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub unanswered: Option<String>,
}

/// A change that was tried and mends the finding, or most of it.
#[derive(Clone, Debug, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Remedy {
    /// In the words of the controls.
    pub label: String,
    /// What else changes with it; empty when nothing a user would see.
    pub effect: String,
    /// Whether something is left: what is to watch of what was trouble, or the same of other lights.
    #[serde(skip_serializing_if = "std::ops::Not::not")]
    pub partly: bool,
    /// Values to put into the shot.
    pub changes: Vec<Change>,
}

/// One value in the shot.
#[derive(Clone, Debug, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Change {
    /// JSON pointer (RFC 6901).
    pub pointer: String,
    /// The new value.
    pub value: Value,
}

/// What can be wrong: a condition that is not met, or a doubt about a figure.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
enum Kind {
    Unmet(Matter),
    EstimatedOutput,
    DoubtfulDuration,
    UnitNotKnown,
    SchoolFlatters,
    TravelAssumed,
    LightGuessed,
}

/// A flaw of one outlook.
#[derive(Clone, Copy, Debug, PartialEq)]
struct Flaw {
    kind: Kind,
    /// Index of the part it is about.
    part: Option<usize>,
    /// Index of the light it is about.
    light: Option<usize>,
    /// Index of the steady lamp it is about.
    lamp: Option<usize>,
    severity: Severity,
    /// What was measured, where it is a condition.
    measure: f64,
    /// Rank among its severity, roughly in stops.
    hurt: f64,
}

impl Flaw {
    const fn doubt(kind: Kind, hurt: f64) -> Self {
        Self { kind, part: None, light: None, lamp: None, severity: Severity::Watch, measure: 0.0, hurt }
    }

    /// What a condition that is not met means for the picture.
    fn of(condition: &Condition) -> Self {
        let &Condition { matter, part, light, lamp, measure, margin, .. } = condition;
        let severity = if condition.grade() == Grade::Trouble { Severity::Trouble } else { Severity::Watch };
        let missing = -margin.clamp(conditions::NO_LIGHT, 0.0);
        // Ranked by what who looks at the picture sees first: is there a picture, is it as bright, is it sharp, what else.
        let hurt = match matter {
            Matter::Fires => 9.0,
            Matter::Rows => 10.0 * measure + missing,
            Matter::Owned | Matter::InRange | Matter::Groups => 7.0,
            Matter::OutOfFrame | Matter::LampOutOfFrame => 6.0,
            Matter::Sheet => 5.0,
            Matter::Even => missing,
            Matter::Exposure => 1.0 + measure.abs(),
            Matter::Ambient | Matter::Background | Matter::Balance | Matter::Automatic => measure.abs(),
            Matter::Still | Matter::Together => 1.0 + missing,
            Matter::NoTrail => measure / 5.0,
            Matter::Reached | Matter::Shows | Matter::Burst | Matter::Action => 2.0,
            Matter::White | Matter::Rim => measure,
            Matter::Rear | Matter::MetersItself | Matter::Flare => 1.0,
            Matter::AsksLength | Matter::Surface => 0.8,
            Matter::World => 0.6,
            Matter::Streak | Matter::Depth | Matter::Shallow | Matter::Hand => missing,
        };
        Self { kind: Kind::Unmet(matter), part, light, lamp, severity, measure, hurt }
    }

    /// The part it is about; the first where it is about none.
    fn part(&self) -> usize {
        self.part.unwrap_or_default()
    }

    /// The light it is about; the key where it is about none.
    fn light(&self, plan: &Plan) -> usize {
        self.light.unwrap_or(plan.key)
    }
}

/// The plan and its outlook, together as every check needs them.
#[derive(Clone, Copy)]
struct Case<'a> {
    plan: &'a Plan,
    seen: &'a Outlook,
}

/// Title and cause of a finding.
#[derive(Default)]
struct Words {
    title: String,
    cause: String,
}

/// All findings of a shot, worst first; what was checked and is good comes last.
pub fn judge(plan: &Plan, outlook: &Outlook) -> Vec<Finding> {
    judge_with(plan, outlook, &mut Pulses::kept())
}

/// The same with the pulses of earlier settings of the same shot, and for later ones.
pub fn judge_with(plan: &Plan, outlook: &Outlook, pulses: &mut Pulses) -> Vec<Finding> {
    let case = Case { plan, seen: outlook };
    let before = conditions::all(plan, outlook);
    let mut flaws = flaws(case, &before);
    flaws.sort_by(|a, b| a.severity.cmp(&b.severity).then(b.hurt.total_cmp(&a.hurt)));
    let mut trials = Trials::of(case, &before, pulses);
    let mut findings: Vec<Finding> = { grouped(case, &flaws).into_iter() }
        .map(|Group { flaw, words, lights }| {
            let ideas = candidates(case, &flaw, &lights, trials.pulses);
            let (mut remedies, mut none) = trials.tried(&flaw, (&lights, false), ideas);
            // Where all of them cannot be mended at once, one of them is better than none.
            if lights.len() > 1 && remedies.is_empty() {
                let ideas = candidates(case, &flaw, &lights[..1], trials.pulses);
                (remedies, none) = trials.tried(&flaw, (&lights[..1], true), ideas);
            }
            Finding {
                id: identity(plan, &flaw),
                severity: flaw.severity,
                title: format!("{}{}", names(plan, &lights, &words.title), words.title),
                cause: words.cause,
                remedies,
                unanswered: none,
            }
        })
        .collect();
    findings.extend(good(case, &before));
    findings
}

/// A flaw, its words, and the lights that have it: those with the same fault are named together, the first for all.
struct Group {
    flaw: Flaw,
    words: Words,
    lights: Vec<usize>,
}

fn grouped(case: Case, flaws: &[Flaw]) -> Vec<Group> {
    let mut groups: Vec<Group> = Vec::with_capacity(flaws.len() + 4);
    for flaw in flaws {
        let words = words(case, flaw);
        let same = |group: &&mut Group| {
            (group.flaw.kind, group.flaw.severity, &group.words.title) == (flaw.kind, flaw.severity, &words.title)
        };
        match flaw.light {
            Some(light) => match groups.iter_mut().filter(|group| !group.lights.is_empty()).find(same) {
                Some(group) => group.lights.push(light),
                None => groups.push(Group { flaw: *flaw, words, lights: vec![light] }),
            },
            None => groups.push(Group { flaw: *flaw, words, lights: Vec::new() }),
        }
    }
    groups
}

/// Begins a title with the lights it is about, where there are several on the set; the only one is named where the title says
/// what it is or does, and nothing of its own.
fn names(plan: &Plan, lights: &[usize], title: &str) -> String {
    let label = |light: &usize| plan.lights[*light].label.clone();
    match lights {
        _ if plan.lights.len() == 1 && !title.starts_with(char::is_lowercase) => String::new(),
        [one] => format!("{}: ", label(one)),
        [some @ .., last] => {
            let some: Vec<String> = some.iter().map(label).collect();
            format!("{} and {}: ", some.join(", "), label(last))
        }
        [] => String::new(),
    }
}

/// How many findings of each severity a shot has, without their remedies: for cards and lists.
pub fn count(plan: &Plan, outlook: &Outlook) -> (usize, usize) {
    let case = Case { plan, seen: outlook };
    let groups = grouped(case, &flaws(case, &conditions::all(plan, outlook)));
    let of = |severity| groups.iter().filter(|group| group.flaw.severity == severity).count();
    (of(Severity::Trouble), of(Severity::Watch))
}

fn flaws(case: Case, conditions: &[Condition]) -> Vec<Flaw> {
    let mut found: Vec<Flaw> = conditions.iter().filter(|one| !one.is_met()).map(Flaw::of).collect();
    steady::drawn_once(case, &mut found);
    sync::doubts(case, &mut found);
    freeze::doubts(case, &mut found);
    doubt::find(case, &mut found);
    found
}

fn words(case: Case, flaw: &Flaw) -> Words {
    let matter = match flaw.kind {
        Kind::Unmet(matter) => matter,
        Kind::EstimatedOutput => return doubt::estimated_output(case, flaw),
        Kind::DoubtfulDuration => return doubt::doubtful_duration(case, flaw),
        Kind::UnitNotKnown => return doubt::unit_not_known(case, flaw),
        Kind::SchoolFlatters => return freeze::school_flatters(case, flaw),
        Kind::TravelAssumed => return sync::travel_assumed(case),
        Kind::LightGuessed => return doubt::light_guessed(case),
    };
    match matter {
        Matter::Rows => sync::rows_cut(case, flaw),
        Matter::Rear => sync::rear_acts_as_front(case, flaw),
        Matter::Still => freeze::blurred(case, flaw),
        Matter::NoTrail => steady::ghost(case, flaw),
        Matter::Streak => steady::dash_length(case, flaw),
        Matter::Shows => steady::dash_dim(case, flaw),
        Matter::AsksLength => steady::dash_asks(case, flaw),
        Matter::Action => moment::missed(case),
        Matter::World => moment::world(case),
        Matter::Exposure => exposure::off(case),
        Matter::Balance => exposure::balance(case, flaw),
        Matter::Ambient => exposure::ambient_off(case),
        Matter::Background => exposure::background_off(case),
        Matter::White => exposure::clips(case, flaw),
        Matter::Depth => depth::words(case),
        Matter::Shallow => depth::too_deep(case),
        Matter::Fires => lights::silent(case, flaw),
        Matter::Reached => lights::unreached(case, flaw),
        Matter::Together => lights::apart(case, flaw),
        Matter::Rim => lights::rim_outshines(case, flaw),
        Matter::OutOfFrame => set::in_frame(case, flaw),
        Matter::LampOutOfFrame => set::lamp_in_frame(case, flaw),
        Matter::Flare => set::flares(case, flaw),
        Matter::Sheet => set::sheet_too_small(case),
        Matter::Even => set::uneven(case, flaw),
        Matter::Automatic => lights::automatic_short(case, flaw),
        Matter::MetersItself => lights::meters_itself(case, flaw),
        Matter::Surface => lights::bad_surface(case, flaw),
        Matter::Hand => lights::shaken(case),
        Matter::Owned => supply::owned(case, flaw),
        Matter::InRange => supply::out_of_range(case, flaw),
        Matter::Groups => supply::groups(case, flaw),
        Matter::Burst => supply::burst(case, flaw),
    }
}

/// Turns that may mend a flaw of some lights, likeliest first, or why there are none. None of them is offered untried.
fn candidates<'a>(case: Case<'a>, flaw: &Flaw, lights: &[usize], pulses: &mut Pulses) -> Ideas<'a> {
    let Kind::Unmet(matter) = flaw.kind else {
        return Ideas::none("A measurement settles it, nothing on the set does.");
    };
    match matter {
        Matter::Rows | Matter::Rear => sync::candidates(case, lights, matter, pulses),
        Matter::Still => freeze::candidates(case, flaw, pulses),
        Matter::NoTrail | Matter::Streak | Matter::Shows => steady::candidates(case, flaw, matter, pulses),
        Matter::Exposure => exposure::candidates(case, pulses),
        Matter::Balance => exposure::balanced(case, lights),
        Matter::Ambient | Matter::Background => exposure::steady_candidates(case, matter),
        Matter::Depth | Matter::Shallow => depth::candidates(case, matter),
        Matter::Fires | Matter::Rim | Matter::Automatic | Matter::MetersItself | Matter::Hand => {
            lights::candidates(case, lights, matter)
        }
        Matter::OutOfFrame | Matter::LampOutOfFrame | Matter::Flare | Matter::Sheet => {
            set::candidates(case, flaw, lights, matter)
        }
        Matter::Even => set::more_even(case),
        Matter::Burst => supply::candidates(case, flaw),
        Matter::Action => moment::candidates(case, pulses),
        Matter::World => {
            Ideas::none("How the camera goes along is in your hands: faster or slower, or say that it is wanted so.")
        }
        Matter::AsksLength => Ideas::none("Only you know how long it shall be: give the part a length."),
        Matter::White => Ideas::none("At the wanted exposure this tone is beyond white: less exposure, or let it be."),
        Matter::Reached => {
            Ideas::none("Nothing on the dials reaches it: turn or add a light, or say that it may stay dark.")
        }
        Matter::Together => Ideas::none("The delays are those of the triggers: give these lights the same one."),
        Matter::Surface => Ideas::none("No dial makes up for it: bring a white panel, or light straight."),
        Matter::Owned => Ideas::none("Another unit, fewer heads, or one more of these."),
        Matter::InRange => Ideas::none("Nearer to the camera, a longer cord, or another trigger."),
        Matter::Groups => Ideas::none("Put lights that are set alike into one group."),
    }
}

/// What was checked and is good, so that silence is not mistaken for ignorance.
fn good(case: Case, conditions: &[Condition]) -> Vec<Finding> {
    let free_of = |matter| conditions.iter().all(|one| one.matter != matter || one.is_met());
    let mut fine = Vec::new();
    let mut say = |id: &str, words: Option<Words>| {
        if let Some(Words { title, cause }) = words {
            fine.push(Finding {
                id: id.to_owned(),
                severity: Severity::Fine,
                title,
                cause,
                remedies: Vec::new(),
                unanswered: None,
            });
        }
    };
    if free_of(Matter::Rows) {
        say("sync-clear", sync::good(case));
    }
    if free_of(Matter::Still) {
        say("frozen", freeze::good(case));
    }
    if free_of(Matter::NoTrail) {
        say("no-ghost", steady::good(case));
    }
    if free_of(Matter::Depth) {
        say("depth-holds", depth::good(case));
    }
    fine
}

fn identity(plan: &Plan, flaw: &Flaw) -> String {
    let kind = match flaw.kind {
        Kind::EstimatedOutput => "output-estimated",
        Kind::DoubtfulDuration => "duration-doubtful",
        Kind::UnitNotKnown => "unit-not-known",
        Kind::SchoolFlatters => "school",
        Kind::TravelAssumed => "travel-assumed",
        Kind::LightGuessed => "light-guessed",
        Kind::Unmet(Matter::Rows) => "rows-cut",
        Kind::Unmet(Matter::Rear) => "rear-as-front",
        Kind::Unmet(Matter::Still) => "blur",
        Kind::Unmet(Matter::NoTrail) => "ghost",
        Kind::Unmet(Matter::Streak) => "dash-length",
        Kind::Unmet(Matter::Shows) => "dash-dim",
        Kind::Unmet(Matter::AsksLength) => "dash-asks",
        Kind::Unmet(Matter::Action) => "action",
        Kind::Unmet(Matter::World) => "world",
        Kind::Unmet(Matter::Exposure) => "exposure",
        Kind::Unmet(Matter::Balance) => "balance",
        Kind::Unmet(Matter::Ambient) => "ambient",
        Kind::Unmet(Matter::Background) => "background",
        Kind::Unmet(Matter::White) => "clips",
        Kind::Unmet(Matter::Depth) => "depth",
        Kind::Unmet(Matter::Shallow) => "too-deep",
        Kind::Unmet(Matter::Fires) => "silent",
        Kind::Unmet(Matter::Reached) => "unreached",
        Kind::Unmet(Matter::Together) => "apart",
        Kind::Unmet(Matter::Rim) => "rim",
        Kind::Unmet(Matter::OutOfFrame) => "in-frame",
        Kind::Unmet(Matter::LampOutOfFrame) => "lamp-in-frame",
        Kind::Unmet(Matter::Flare) => "flare",
        Kind::Unmet(Matter::Sheet) => "sheet",
        Kind::Unmet(Matter::Even) => "uneven",
        Kind::Unmet(Matter::Automatic) => "automatic",
        Kind::Unmet(Matter::MetersItself) => "meters-itself",
        Kind::Unmet(Matter::Surface) => "surface",
        Kind::Unmet(Matter::Hand) => "shaken",
        Kind::Unmet(Matter::Owned) => "owned",
        Kind::Unmet(Matter::InRange) => "range",
        Kind::Unmet(Matter::Groups) => "groups",
        Kind::Unmet(Matter::Burst) => "burst",
    };
    match (flaw.part, flaw.light) {
        (Some(index), _) => format!("{kind}-{}", plan.parts[index].name),
        (None, Some(light)) if light != plan.key => format!("{kind}-light-{light}"),
        (None, None) if flaw.lamp.is_some_and(|lamp| lamp > 0) => {
            format!("{kind}-{}", flaw.lamp.unwrap_or_default())
        }
        _ => kind.to_owned(),
    }
}

/// Where light stands on the ladder; none at all has no number.
fn placed(stops: Stops) -> String {
    if stops > Stops::DARK { signed(stops.as_stops()) } else { "no light".to_owned() }
}

/// A number of stops with its noun.
fn stops(value: f64) -> String {
    let rounded = (value.abs() * 10.0).round() / 10.0;
    format!("{rounded:.1} stop{}", if (rounded - 1.0).abs() < 0.05 { "" } else { "s" })
}

/// A share in per cent.
fn percent(share: f64) -> String {
    let value = share * 100.0;
    if value >= 10.0 { format!("{value:.0} %") } else { format!("{value:.1} %") }
}

/// Pixels, with a decimal only where it says something.
fn px(value: f64) -> String {
    if value >= 20.0 { format!("{value:.0} px") } else { format!("{value:.1} px") }
}
