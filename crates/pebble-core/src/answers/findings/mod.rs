//! Judgement: what of a forecast will hurt the picture, why, and what to turn.
//!
//! A [`Flaw`] is found cheaply; its words and its remedies are made only for the shot in hand. A remedy is a change of
//! settings that was *tried*: its own outlook is free of the flaw and has no more trouble than before.

mod depth;
mod doubt;
mod exposure;
mod freeze;
mod lights;
pub mod parts;
mod remedy;
mod steady;
mod sync;

pub use parts::PartState;

use crate::answers::conditions::{self, Condition, Matter};
use crate::answers::strips::Value;
use crate::outlook::{LightOutlook, Outlook};
use crate::plan::Plan;
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
}

/// A change that was tried and mends the finding.
#[derive(Clone, Debug, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Remedy {
    /// In the words of the controls.
    pub label: String,
    /// What else changes with it; empty when nothing a user would see.
    pub effect: String,
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

/// Half as long again as its limit, a blur is trouble: `−log2(1.5)` stops.
const TROUBLE: f64 = -0.584_962_500_721_156_2;

/// What can be wrong.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
enum Kind {
    RowsCut,
    RearActsAsFront,
    PartBlurred,
    Ghost,
    DashLength,
    DashDim,
    KeyOff,
    AmbientOff,
    Clips,
    DepthShort,
    EstimatedOutput,
    DoubtfulDuration,
    SchoolFlatters,
    TravelAssumed,
    Silent,
    ImagesApart,
    RimOutshines,
    AutomaticShort,
    BadSurface,
    Shaken,
}

/// A flaw of one outlook.
#[derive(Clone, Copy, Debug, PartialEq)]
struct Flaw {
    kind: Kind,
    /// Index of the part it is about.
    part: Option<usize>,
    /// Index of the light it is about.
    light: Option<usize>,
    severity: Severity,
    /// Rank among its severity, roughly in stops.
    hurt: f64,
}

impl Flaw {
    const fn of_shot(kind: Kind, severity: Severity, hurt: f64) -> Self {
        Self { kind, part: None, light: None, severity, hurt }
    }

    const fn of_part(kind: Kind, part: usize, severity: Severity, hurt: f64) -> Self {
        Self { part: Some(part), ..Self::of_shot(kind, severity, hurt) }
    }

    const fn of_light(kind: Kind, light: usize, severity: Severity, hurt: f64) -> Self {
        Self { light: Some(light), ..Self::of_shot(kind, severity, hurt) }
    }

    fn same_as(&self, other: &Self) -> bool {
        self.kind == other.kind && self.part == other.part && self.light == other.light
    }

    /// The light it is about; the key where it is about none.
    fn light_in<'a>(&self, seen: &'a Outlook) -> &'a LightOutlook {
        self.light.map_or_else(|| seen.key(), |light| &seen.lights[light])
    }

    /// Begins a title with the light it is about, where there are several.
    fn whose(&self, plan: &Plan) -> String {
        match self.light {
            Some(light) if plan.lights.len() > 1 => format!("{}: ", plan.lights[light].label),
            _ => String::new(),
        }
    }
}

/// The plan and its outlook, together as every check needs them.
#[derive(Clone, Copy)]
struct Case<'a> {
    plan: &'a Plan,
    seen: &'a Outlook,
}

/// Title and cause of a finding.
struct Words {
    title: String,
    cause: String,
}

/// All findings of a shot, worst first; what was checked and is good comes last.
pub fn judge(plan: &Plan, outlook: &Outlook) -> Vec<Finding> {
    let case = Case { plan, seen: outlook };
    let mut flaws = flaws(case);
    flaws.sort_by(|a, b| a.severity.cmp(&b.severity).then(b.hurt.total_cmp(&a.hurt)));
    let mut findings: Vec<Finding> = flaws
        .iter()
        .map(|flaw| {
            let words = words(case, flaw);
            Finding {
                id: identity(plan, flaw),
                severity: flaw.severity,
                title: words.title,
                cause: words.cause,
                remedies: remedy::tried(case, flaw, &flaws, candidates(case, flaw)),
            }
        })
        .collect();
    findings.extend(good(case, &flaws));
    findings
}

/// How many findings of each severity a shot has, without their words: for cards and lists.
pub fn count(plan: &Plan, outlook: &Outlook) -> (usize, usize) {
    let flaws = flaws(Case { plan, seen: outlook });
    let of = |severity| flaws.iter().filter(|flaw| flaw.severity == severity).count();
    (of(Severity::Trouble), of(Severity::Watch))
}

fn flaws(case: Case) -> Vec<Flaw> {
    let mut found = Vec::new();
    conditions::frame(case.plan, case.seen, &mut |condition| {
        if !condition.is_met() {
            found.extend(flaw(&condition));
        }
    });
    sync::doubts(case, &mut found);
    freeze::doubts(case, &mut found);
    doubt::find(case, &mut found);
    found
}

/// What a condition that is not met means for the picture.
fn flaw(condition: &Condition) -> Option<Flaw> {
    match condition.matter {
        Matter::Rows => sync::rows_flaw(condition),
        Matter::Rear => sync::rear_flaw(condition),
        Matter::Still => freeze::flaw(condition),
        Matter::Shows => steady::dim_flaw(condition),
        Matter::Streak => steady::length_flaw(condition),
        Matter::NoTrail => steady::ghost_flaw(condition),
        Matter::Key => Some(exposure::off_flaw(Kind::KeyOff, condition)),
        Matter::Ambient => Some(exposure::off_flaw(Kind::AmbientOff, condition)),
        Matter::White => exposure::clip_flaw(condition),
        Matter::Depth => Some(depth::flaw(condition)),
        Matter::Fires => lights::silent_flaw(condition),
        Matter::Rim => lights::rim_flaw(condition),
        Matter::Automatic => lights::automatic_flaw(condition),
        Matter::Surface => lights::surface_flaw(condition),
        Matter::Together => lights::apart_flaw(condition),
        Matter::Hand => Some(lights::shaken_flaw(condition)),
    }
}

fn words(case: Case, flaw: &Flaw) -> Words {
    match flaw.kind {
        Kind::RowsCut => sync::rows_cut(case, flaw),
        Kind::RearActsAsFront => sync::rear_acts_as_front(case, flaw),
        Kind::TravelAssumed => sync::travel_assumed(case),
        Kind::PartBlurred => freeze::blurred(case, flaw),
        Kind::SchoolFlatters => freeze::school_flatters(case, flaw),
        Kind::Ghost => steady::ghost(case, flaw),
        Kind::DashLength => steady::dash_length(case, flaw),
        Kind::DashDim => steady::dash_dim(case, flaw),
        Kind::KeyOff => exposure::key_off(case),
        Kind::AmbientOff => exposure::ambient_off(case),
        Kind::Clips => exposure::clips(case, flaw),
        Kind::DepthShort => depth::words(case),
        Kind::EstimatedOutput => doubt::estimated_output(case, flaw),
        Kind::DoubtfulDuration => doubt::doubtful_duration(case, flaw),
        Kind::Silent => lights::silent(case, flaw),
        Kind::ImagesApart => lights::apart(case, flaw),
        Kind::RimOutshines => lights::rim_outshines(case, flaw),
        Kind::AutomaticShort => lights::automatic_short(case, flaw),
        Kind::BadSurface => lights::bad_surface(case, flaw),
        Kind::Shaken => lights::shaken(case),
    }
}

/// Settings that may mend a flaw, likeliest first. None of them is offered untried.
fn candidates(case: Case, flaw: &Flaw) -> Vec<remedy::Candidates> {
    match flaw.kind {
        Kind::RowsCut | Kind::RearActsAsFront => sync::candidates(case, flaw),
        Kind::PartBlurred => freeze::candidates(case, flaw),
        Kind::Ghost | Kind::DashLength | Kind::DashDim => steady::candidates(case, flaw),
        Kind::KeyOff | Kind::AmbientOff => exposure::candidates(case, flaw),
        Kind::DepthShort => depth::candidates(case),
        Kind::Silent
        | Kind::ImagesApart
        | Kind::RimOutshines
        | Kind::AutomaticShort
        | Kind::BadSurface
        | Kind::Shaken => lights::candidates(case, flaw),
        // A burnt part at the wanted key, or a doubt about a figure, is the photographer's to weigh.
        Kind::Clips | Kind::EstimatedOutput | Kind::DoubtfulDuration | Kind::SchoolFlatters | Kind::TravelAssumed => {
            Vec::new()
        }
    }
}

/// What was checked and is good, so that silence is not mistaken for ignorance.
fn good(case: Case, flaws: &[Flaw]) -> Vec<Finding> {
    let free_of = |kinds: &[Kind]| !flaws.iter().any(|flaw| kinds.contains(&flaw.kind));
    let mut fine = Vec::new();
    let mut say = |id: &str, words: Option<Words>| {
        if let Some(Words { title, cause }) = words {
            fine.push(Finding { id: id.to_owned(), severity: Severity::Fine, title, cause, remedies: Vec::new() });
        }
    };
    if free_of(&[Kind::RowsCut]) {
        say("sync-clear", sync::good(case));
    }
    if free_of(&[Kind::PartBlurred]) {
        say("frozen", freeze::good(case));
    }
    if free_of(&[Kind::Ghost]) {
        say("no-ghost", steady::good(case));
    }
    if free_of(&[Kind::DepthShort]) {
        say("depth-holds", depth::good(case));
    }
    fine
}

fn identity(plan: &Plan, flaw: &Flaw) -> String {
    let kind = match flaw.kind {
        Kind::RowsCut => "rows-cut",
        Kind::RearActsAsFront => "rear-as-front",
        Kind::PartBlurred => "blur",
        Kind::Ghost => "ghost",
        Kind::DashLength => "dash-length",
        Kind::DashDim => "dash-dim",
        Kind::KeyOff => "key",
        Kind::AmbientOff => "ambient",
        Kind::Clips => "clips",
        Kind::DepthShort => "depth",
        Kind::EstimatedOutput => "output-estimated",
        Kind::DoubtfulDuration => "duration-doubtful",
        Kind::SchoolFlatters => "school",
        Kind::TravelAssumed => "travel-assumed",
        Kind::Silent => "silent",
        Kind::ImagesApart => "apart",
        Kind::RimOutshines => "rim",
        Kind::AutomaticShort => "automatic",
        Kind::BadSurface => "surface",
        Kind::Shaken => "shaken",
    };
    match (flaw.part, flaw.light) {
        (Some(index), _) => format!("{kind}-{}", plan.parts[index].name),
        (None, Some(light)) if light != plan.key => format!("{kind}-light-{light}"),
        _ => kind.to_owned(),
    }
}

/// Stops as said: one decimal, with sign.
fn signed(stops: f64) -> String {
    // A true minus sign, as set in the rest of the interface; "-0.0" must not appear.
    let rounded = (stops * 10.0).round() / 10.0;
    if rounded < 0.0 { format!("−{:.1}", -rounded) } else { format!("+{:.1}", rounded.abs()) }
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
