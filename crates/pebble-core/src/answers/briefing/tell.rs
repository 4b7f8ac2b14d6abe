//! What is told of a shot that was found: how it is lit, how its parts fare, and which guess matters most.

use super::Answers;
use super::begin::Begun;
use super::settle::{By, Settled};
use crate::answers::findings::parts::{PartState, state};
use crate::answers::guesses::{self, Stake};
use crate::answers::hold::written_exposure;
use crate::file::movement::Chances;
use crate::file::shot::{Intent, Reading, Shot};
use crate::file::stage::Place;
use crate::outlook::{DrawnBy, outlook};
use crate::physics::exposure::{illuminance_of_ev100, reference_exposure};
use crate::physics::motion::Usage;
use crate::plan::Plan;
use crate::quantity::Stops;
use crate::quantity::scale::{Aperture, Grid, Iso, ShutterTime};
use crate::quantity::words::signed;
use crate::wire::{report, report_word};

report_word! {
    /// What was left to guess.
    pub enum Guessed {
        /// How fast the parts are.
        Speeds,
        /// Where it happens.
        Place,
        /// What the meter says.
        Light,
        /// What the picture is for.
        Usage,
        /// Which camera.
        Camera,
        /// Which lights.
        Lights,
        /// How often it can be tried.
        Chances,
    }

    /// What makes the picture.
    pub enum LitBy {
        /// A set-up of the kit.
        Flash,
        /// The steady light alone.
        Daylight,
        /// The nearest set-up: something has to give.
        Nearest,
        /// Nothing that is at hand.
        Nothing,
    }
}

report! {
    /// One answer, given or guessed.
    pub struct Guess {
        /// Which.
        pub of: Guessed,
        /// Whether it is a guess.
        pub guess: bool,
        /// As said, where it is told in figures or by the name of a thing.
        pub said: Option<String>,
        /// Where it is from.
        pub from: String,
        /// What a real figure would move, where it is a guess that moves anything.
        pub moves: Option<Stake>,
        /// Whether of all guesses this one matters most.
        pub most: bool,
    }

    /// How the shot is lit.
    pub struct Lit {
        /// By what.
        pub by: LitBy,
        /// Units.
        pub title: String,
        /// Power, distance and what is in front.
        pub how: String,
        /// Aperture, time, ISO, filter.
        pub exposure: String,
        /// What it does: freezing time, steady light, charge.
        pub says: String,
        /// What would have to give.
        pub gives: Vec<String>,
        /// Ways in all that the kit has.
        pub ways: u64,
    }

    /// A part of the shot.
    pub struct BriefedPart {
        /// Its name.
        pub name: String,
        /// What it shall look like.
        pub intent: Intent,
        /// The slowest, and the fastest, which is judged by.
        pub slowest_m_s: f64,
        /// The fastest.
        pub fastest_m_s: f64,
        /// Where that is known from.
        pub basis: String,
        /// Whether it is what is usual, and nobody said it.
        pub guess: bool,
        /// Blur in the picture, in pixels of the camera.
        pub blur_px: f64,
        /// Streak as a share of the frame's width.
        pub streak_share: f64,
        /// What draws it.
        pub drawn_by: DrawnBy,
        /// How it fares.
        pub state: PartState,
    }

    /// A shot from a few words.
    pub struct Briefed {
        /// As it would be opened.
        pub shot: Shot,
        /// Where it happens.
        pub place: Place,
        /// What it is for.
        pub usage: Usage,
        /// How often it can be tried.
        pub chances: Chances,
        /// How it is lit.
        pub lit: Lit,
        /// Its parts.
        pub parts: Vec<BriefedPart>,
        /// The answers, given or guessed.
        pub answers: Vec<Guess>,
        /// What the forecast finds in trouble.
        pub troubles: usize,
        /// And worth watching.
        pub watches: usize,
        /// How many cautions come with it.
        pub cautions: usize,
    }
}

pub(super) fn tell(answers: &Answers, begun: &Begun, settled: Settled, plan: &Plan) -> Briefed {
    let seen = outlook(plan);
    let part = |(index, part): (usize, &crate::plan::Part)| {
        let (of, (speed, guess)) = (&seen.parts[index], &begun.speeds[index]);
        BriefedPart {
            name: part.name.clone(),
            intent: part.intent,
            slowest_m_s: speed.slowest_m_s,
            fastest_m_s: speed.fastest_m_s,
            basis: speed.basis.clone(),
            guess: *guess,
            blur_px: plan.pixels(of.blur),
            streak_share: of.streak_share,
            drawn_by: of.drawn_by,
            state: state(plan, part, of),
        }
    };
    let cautions = crate::answers::cautions::cautions(&settled.shot, plan).len();
    Briefed {
        place: begun.place,
        usage: settled.shot.usage,
        chances: begun.chances,
        lit: lit(plan, &settled),
        parts: plan.parts.iter().enumerate().map(part).collect(),
        answers: given(answers, begun, &settled, plan),
        troubles: settled.troubles,
        watches: settled.watches,
        cautions,
        shot: settled.shot,
    }
}

fn lit(plan: &Plan, settled: &Settled) -> Lit {
    let seen = outlook(plan);
    let exposure = written_exposure(plan, &plan.settings);
    let steady = match seen.ambient.placement.as_stops() {
        none if !none.is_finite() => "no steady light".to_owned(),
        stops => format!("steady light {}", signed(stops)),
    };
    let (by, row, gives) = match &settled.by {
        By::Flash(row) => (LitBy::Flash, Some(row), Vec::new()),
        By::Nearest(row, gives) => (LitBy::Nearest, Some(row), gives.clone()),
        By::Daylight => (LitBy::Daylight, None, Vec::new()),
        By::Nothing(why) => (LitBy::Nothing, None, vec![why.clone()]),
    };
    let (title, how, says) = match row {
        Some(row) => (
            row.title.clone(),
            row.how.clone(),
            format!(
                "freezes by {} · exposure {} · {steady}",
                row.freeze,
                signed(seen.subject.read_by(plan.targets.reads).as_stops())
            ),
        ),
        None if by == LitBy::Daylight => ("No flash".to_owned(), "the light that is there does it".to_owned(), steady),
        None => ("No set-up".to_owned(), String::new(), steady),
    };
    Lit { by, title, how, exposure, says, gives, ways: settled.ways }
}

/// A reading as a camera would say it: what exposes a grey card rightly in that light.
fn as_settings(ev: f64) -> String {
    // Positions of the dials: 1/250 at ISO 100, 1/125 at 800, 1/60 at 1600.
    let (tv6, sv6) = if ev >= 11.0 {
        (48, 0)
    } else if ev >= 6.5 {
        (42, 18)
    } else {
        (36, 24)
    };
    let (time, iso) = (ShutterTime::from_tv6(tv6), Iso::from_sv6(sv6));
    // H = E·t is right at the aperture whose reference exposure it is.
    let exposed = illuminance_of_ev100(ev) * time.time();
    let off = |av6: &i32| {
        Stops::placement(exposed, reference_exposure(Aperture::from_av6(*av6), iso, Stops::ZERO)).as_stops().abs()
    };
    let thirds = (-6..=60).step_by(2).min_by(|a, b| off(a).total_cmp(&off(b))).unwrap_or_default();
    let aperture = Aperture::from_av6(thirds);
    format!("f/{} · {} · ISO {}", aperture.label(Grid::Thirds), time.label(Grid::Thirds), iso.label(Grid::Thirds))
}

fn given(answers: &Answers, begun: &Begun, settled: &Settled, plan: &Plan) -> Vec<Guess> {
    let shot = &settled.shot;
    let one = |of: Guessed, guess: bool, said: Option<String>, from: &str, moves: Option<Stake>| Guess {
        of,
        guess,
        said,
        from: from.to_owned(),
        moves: moves.filter(|moves| guess && moves.matters()),
        most: false,
    };
    let light_said = match &shot.ambient.subject {
        Reading::Ev100 { ev } => as_settings(*ev),
        Reading::Lux { lux } => format!("{lux:.0} lx"),
        Reading::Exposure { aperture_f, shutter, iso } => format!("f/{aperture_f} · {shutter} · ISO {iso}"),
        Reading::Black { aperture_f, shutter, iso } => format!("black at f/{aperture_f} · {shutter} · ISO {iso}"),
    };
    let (least, usual, most) = begun.typical.ev100;
    let typical = format!("typical for the place, {} to {} stops", signed(least - usual), signed(most - usual));
    let guessed_speeds = begun.speeds.iter().any(|(_, guess)| *guess);
    let lights = if answers.units.is_empty() { "chosen from the whole kit" } else { "of those you named" };
    let read = answers.meter.as_deref().is_some_and(|text| !text.trim().is_empty());
    let mut all = vec![
        one(Guessed::Place, answers.place.is_none(), None, "usual for it", None),
        one(
            Guessed::Light,
            !read,
            Some(light_said),
            if read { "as you read it" } else { &typical },
            guesses::of_light(plan),
        ),
        one(Guessed::Speeds, guessed_speeds, None, "usual for it, judged at the fastest", of_speeds(plan)),
        one(Guessed::Usage, answers.usage.is_none(), None, "unless you say another", of_usage(plan)),
        one(
            Guessed::Camera,
            answers.camera.is_none(),
            Some(format!("{} · {}", shot.camera.body.name, shot.camera.lens.name)),
            &format!("{:.0} mm, {:.1} m away", shot.camera.focal_mm, shot.subject.distance_m),
            None,
        ),
        one(Guessed::Lights, answers.units.is_empty(), None, lights, None),
        one(Guessed::Chances, answers.chances.is_none(), None, "usual for it", None),
    ];
    let stops = |guess: &Guess| guess.moves.as_ref().map_or(0.0, |moves| moves.stops);
    if let Some(most) = (0..all.len()).max_by(|a, b| stops(&all[*a]).total_cmp(&stops(&all[*b]))) {
        all[most].most = all[most].moves.is_some();
    }
    all
}

/// What moves when every part is as slow as it may be.
fn of_speeds(plan: &Plan) -> Option<Stake> {
    let mut slow = plan.clone();
    let parts = slow.parts.iter().map(|part| {
        let mut part = part.clone();
        part.speed = part.slowest.unwrap_or(part.speed);
        part
    });
    slow.parts = parts.collect();
    let ends = [outlook(&slow), outlook(plan)];
    let mut moved = guesses::most(plan, &ends);
    // A streak that is wanted gets longer with the speed.
    for (index, part) in plan.parts.iter().enumerate().filter(|(_, part)| part.intent == Intent::Dash) {
        let longer = (ends[1].parts[index].streak_share / ends[0].parts[index].streak_share).log2();
        if longer.is_finite() && longer > moved.stops {
            moved = Stake { what: format!("the length of the {}", part.name.to_lowercase()), stops: longer };
        }
    }
    Some(moved)
}

/// What counts as still moves with what a picture is for: where a part is still by one and not by the other.
fn of_usage(plan: &Plan) -> Option<Stake> {
    let seen = outlook(plan);
    let (strict, kind) = (Usage::LargePrint, Usage::Web);
    let allowed = |usage: Usage| usage.allowed_blur(&plan.body.sensor);
    let part = plan.parts.iter().zip(&seen.parts).find(|(part, of)| {
        let limit = |usage| part.intent.blur_limit(allowed(usage));
        limit(strict).is_some_and(|limit| of.blur > limit) && limit(kind).is_some_and(|limit| of.blur <= limit)
    });
    let stops = (allowed(kind) / allowed(strict)).log2();
    part.map(|(part, _)| Stake { what: format!("whether the {} counts as sharp", part.name.to_lowercase()), stops })
}
