//! Movement against time: where the shutter opens and each flash fires in what happens, the window of a whole action, and
//! the chances at the top of a jump by both schools, one timed frame and a burst.

use crate::file::shot::Intent;
use crate::outlook::{Outlook, outlook};
use crate::physics::phases::{Peak, at_least_once, flash_after_end};
use crate::plan::{Flashes, Plan};
use crate::quantity::bounds::{self, Invalid};
use crate::quantity::words::told;
use crate::quantity::{Metres, Seconds};
use crate::wire::report;

/// Places along a movement that are told.
const TOLD: usize = 64;
/// Frames a second where the camera's own rate is not known.
const USUAL_RATE: f64 = 5.0;
/// A pause that takes less of the exposure than this is not seen.
const SEEN_SHARE: f64 = 0.02;
/// Hard jumps in a row after which somebody rests.
const JUMPS_IN_A_ROW: u32 = 8;

report! {
    /// A phase of a lane.
    pub struct LanePhase {
        /// When it begins.
        pub begins_s: f64,
        /// When it ends.
        pub ends_s: f64,
    }

    /// Where a part is at one moment.
    pub struct LaneNow {
        /// Along its movement.
        pub place_m: f64,
        /// How fast it is, against its direction where negative.
        pub speed_m_s: f64,
        /// Where that is in the frame, as shares from its top left corner; nothing for what the stage does not know.
        pub x_share: Option<f64>,
        /// Its height.
        pub y_share: Option<f64>,
    }

    /// One part against time.
    pub struct Lane {
        /// Its name.
        pub name: String,
        /// What it shall look like.
        pub intent: Intent,
        /// Its phases; none of what moves evenly without an end.
        pub phases: Vec<LanePhase>,
        /// Times at which its place is told.
        pub curve_s: Vec<f64>,
        /// Where it is then, along its movement.
        pub curve_m: Vec<f64>,
        /// At the moment that was asked for.
        pub now: LaneNow,
    }

    /// A flash against time.
    pub struct LaneFlash {
        /// Which.
        pub label: String,
        /// When, on the movement's clock.
        pub at_s: f64,
    }

    /// A shutter that shall hold a whole action.
    pub struct ActionSaid {
        /// The shortest that does, pressed one spread early.
        pub shortest_s: f64,
        /// The longest before what comes next is in it; without, there is no end.
        pub longest_s: Option<f64>,
        /// Whether there is such a time at all.
        pub possible: bool,
        /// Whether the one that is set is such a time.
        pub fits: bool,
        /// How long after the end of the action the last flash of rear sync comes.
        pub rear_after_end_s: Option<f64>,
        /// In a sentence.
        pub says: String,
    }

    /// Chances after so many tries.
    pub struct TriesSaid {
        /// So many.
        pub tries: u32,
        /// With one timed frame each.
        pub one: f64,
        /// With a burst each.
        pub burst: f64,
    }

    /// The top of a jump.
    pub struct PeakSaid {
        /// How high.
        pub height_m: f64,
        /// From leaving the ground to landing.
        pub air_s: f64,
        /// As slow as the strictest part has to be.
        pub limit_m_s: f64,
        /// Which part that is.
        pub strictest: Option<String>,
        /// How long it is as slow.
        pub window_s: f64,
        /// Chance of one timed frame.
        pub one: f64,
        /// Chance of a burst.
        pub burst: f64,
        /// Frames a second of the burst.
        pub rate: f64,
        /// Frames that cover the window and two spreads.
        pub frames: u32,
        /// Frames in a row that the units hold; nothing where nobody knows.
        pub holds: Option<u32>,
        /// How both grow with tries.
        pub tries: Vec<TriesSaid>,
        /// What the units do not hold, and what is usual of rests.
        pub says: Vec<String>,
    }

    /// Everything against time.
    pub struct LanesAnswer {
        /// When the shutter opens, on the movement's clock.
        pub opens_s: f64,
        /// When it closes.
        pub closes_s: f64,
        /// From where to where the clock is shown.
        pub from_s: f64,
        /// To where.
        pub to_s: f64,
        /// The flashes.
        pub flashes: Vec<LaneFlash>,
        /// How long who presses takes.
        pub reaction_s: f64,
        /// How far off, as a standard deviation.
        pub spread_s: f64,
        /// Whether that was measured.
        pub measured: bool,
        /// The parts.
        pub lanes: Vec<Lane>,
        /// The window of the whole action, where one is said.
        pub action: Option<ActionSaid>,
        /// The top of the jump, where one is waited for.
        pub peak: Option<PeakSaid>,
        /// What stands in the picture because of how long it stood there.
        pub says: Vec<String>,
    }
}

report! {
    /// How somebody presses.
    pub struct ReactionSaid {
        /// How long the press takes, the middle of all.
        pub reaction_s: f64,
        /// How far off it is, as a standard deviation.
        pub spread_s: f64,
    }
}

/// The fewest presses that say anything of somebody.
const PRESSES: usize = 4;

/// Mean and standard deviation (of a sample) of some presses after a sight, in seconds.
///
/// # Errors
/// [`Invalid`] for too few of them, and for times in which nobody reacts.
pub fn reaction(presses: &[f64]) -> Result<ReactionSaid, Invalid> {
    if presses.len() < PRESSES || presses.len() > 200 {
        return Err(Invalid::NotAllowed {
            field: "presses_s".to_owned(),
            given: format!("{} presses", presses.len()),
            allowed: format!("{PRESSES} presses or more, up to 200"),
        });
    }
    for (index, press) in presses.iter().enumerate() {
        bounds::REACTION.check(&format!("presses_s[{index}]"), *press)?;
    }
    let count = presses.len() as f64;
    let mean = presses.iter().sum::<f64>() / count;
    let spread = (presses.iter().map(|press| (press - mean).powi(2)).sum::<f64>() / (count - 1.0)).sqrt();
    Ok(ReactionSaid { reaction_s: mean, spread_s: spread.clamp(bounds::SPREAD.min, bounds::SPREAD.max) })
}

/// The lanes of a shot; `at` is the moment that is looked at, on the movement's clock, the first flash where none is said.
///
/// # Errors
/// [`Invalid`] for a moment that is none.
pub fn lanes(plan: &Plan, at: Option<f64>) -> Result<LanesAnswer, Invalid> {
    let seen = outlook(plan);
    let (opens, time) = (plan.timing.opens, seen.run.time);
    let closes = opens + time;
    let flashes: Vec<LaneFlash> = seen
        .firing()
        .map(|(light, of)| LaneFlash {
            label: plan.lights[light].label.clone(),
            at_s: (opens + of.ignition.at).as_secs(),
        })
        .collect();
    let at = match at {
        Some(at) => Seconds::from_secs(bounds::OPENS_AT.check("at_s", at)?),
        None => flashes.first().map_or(opens, |flash| Seconds::from_secs(flash.at_s)),
    };
    let longest =
        plan.parts.iter().filter_map(|part| part.phases).map(|phases| phases.lasts()).fold(closes, Seconds::max);
    let from = opens.min(Seconds::ZERO).min(at);
    let to = longest.max(at);
    let edge = (to - from) * 0.04;
    let (from, to) = (from - edge, to + edge);
    let standing = standing(plan, &seen);
    // The scene draws everything where the first flash finds it.
    let drawn = flashes.first().map_or(opens, |flash| Seconds::from_secs(flash.at_s));
    let lane = |(index, part): (usize, &crate::plan::Part)| {
        let place = |time: Seconds| match part.phases {
            Some(phases) => phases.place(time),
            None => part.speed.as_metres_per_second() * (time - opens).as_secs(),
        };
        let speed = |time: Seconds| part.phases.map_or(part.speed.as_metres_per_second(), |phases| phases.speed(time));
        let curve_s: Vec<f64> = (0..=TOLD).map(|k| (from + (to - from) * (k as f64 / TOLD as f64)).as_secs()).collect();
        let begins: Vec<f64> =
            part.phases.iter().flat_map(|phases| phases.begins().map(Seconds::as_secs).collect::<Vec<_>>()).collect();
        let away = (place(at) - place(drawn)) * part.out_of_plane.as_radians().cos() * seen.magnification;
        let (wide, high) = plan.frame();
        let (sine, cosine) = part.direction.as_radians().sin_cos();
        Lane {
            name: part.name.clone(),
            intent: part.intent,
            phases: begins.windows(2).map(|pair| LanePhase { begins_s: pair[0], ends_s: pair[1] }).collect(),
            curve_m: curve_s.iter().map(|time| place(Seconds::from_secs(*time))).collect(),
            curve_s,
            now: LaneNow {
                place_m: place(at),
                speed_m_s: speed(at),
                x_share: standing[index].map(|(x, _)| x + away * cosine / wide.as_metres()),
                y_share: standing[index].map(|(_, y)| y - away * sine / high.as_metres()),
            },
        }
    };
    Ok(LanesAnswer {
        opens_s: opens.as_secs(),
        closes_s: closes.as_secs(),
        from_s: from.as_secs(),
        to_s: to.as_secs(),
        flashes,
        reaction_s: plan.timing.reaction.as_secs(),
        spread_s: plan.timing.spread.as_secs(),
        measured: plan.timing.measured,
        lanes: plan.parts.iter().enumerate().map(lane).collect(),
        action: action(plan, &seen),
        peak: plan.timing.jump.map(|height| peak(plan, &seen, height)),
        says: pauses(plan, &seen),
    })
}

/// Where the middle of each part stands in the frame.
fn standing(plan: &Plan, seen: &Outlook) -> Vec<Option<(f64, f64)>> {
    let places = plan.stage.part_places(plan.subject_distance, seen.field(plan));
    let of = |part: &crate::plan::Part| {
        let place = places.iter().find(|place| place.part == part.drawn_as)?;
        Some((0.5 * (place.left + place.right), 0.5 * (place.top + place.bottom)))
    };
    plan.parts.iter().map(of).collect()
}

/// Pauses that stand as ghosts.
fn pauses(plan: &Plan, seen: &Outlook) -> Vec<String> {
    let mut says = Vec::new();
    for (part, of) in plan.parts.iter().zip(&seen.parts) {
        let Some(pauses) = of.pauses.filter(|_| of.draws) else { continue };
        let percent = |share: f64| format!("{:.0} %", share * 100.0);
        let mut say = |share: f64, how: &str| {
            if share >= SEEN_SHARE {
                says.push(format!("{} {how} as a ghost of {}", part.name, percent(share)));
            }
        };
        say(pauses.at_start, "starts");
        say(pauses.between, "pauses");
        say(pauses.at_end, "ends");
    }
    says
}

fn action(plan: &Plan, seen: &Outlook) -> Option<ActionSaid> {
    let ((action, next), window) = (plan.timing.action?, plan.timing.window()?);
    let spread = plan.timing.spread;
    let time = seen.run.time;
    let set = told(time);
    let says = if !window.is_possible() {
        format!(
            "No time does: the action takes {} with a press that may be {} early, and what comes next is there after {}.",
            told(window.shortest),
            told(spread),
            told(window.longest)
        )
    } else if time < window.shortest {
        format!("{set} misses its end: {} holds all of it, pressed a little early.", told(window.shortest))
    } else if time > window.longest {
        format!("{set} catches what comes after it: no longer than {}.", told(window.longest))
    } else {
        format!("{set} holds it from its start to its end.")
    };
    let rear = seen.firing().filter(|(light, of)| {
        plan.settings.lights[*light].sync == crate::physics::shutter::SyncMode::Rear && !of.ignition.rear_acts_as_front
    });
    let rear_after_end_s =
        rear.map(|(_, of)| flash_after_end(of.ignition.at, action, spread).as_secs()).reduce(f64::max);
    Some(ActionSaid {
        shortest_s: window.shortest.as_secs(),
        longest_s: next.map(Seconds::as_secs),
        possible: window.is_possible(),
        fits: window.fits(time),
        says: match rear_after_end_s.filter(|late| *late > 0.0) {
            Some(late) => format!("{says} Rear sync draws it sharp {:.0} ms after its end.", late * 1e3),
            None => says,
        },
        rear_after_end_s,
    })
}

fn peak(plan: &Plan, seen: &Outlook, height: Metres) -> PeakSaid {
    // What is slow enough for the strictest part, by the flash that draws it, or by the shutter where none does.
    let limits = plan.parts.iter().zip(&seen.parts).filter_map(|(part, of)| {
        let limit = part.intent.blur_limit(seen.allowed)?;
        let freeze = of.freeze.unwrap_or(seen.run.time);
        Some((limit.as_metres() / freeze.as_secs() / seen.magnification, part.name.clone()))
    });
    let strictest = limits.min_by(|a, b| a.0.total_cmp(&b.0));
    let limit = strictest.as_ref().map_or(f64::INFINITY, |(limit, _)| *limit);
    let rate = plan.burst.map(|burst| burst.rate).or(plan.body.frames_per_second).unwrap_or(USUAL_RATE);
    let spread = plan.timing.spread;
    let found = Peak::of(height, limit.min(1e3), spread, rate);
    let span = found.window + spread * 2.0;
    let frames = (span.as_secs() * rate).ceil().max(1.0) as u32 + 1;
    let whole = |(light, of): (usize, &crate::outlook::LightOutlook)| match plan.lights[light]
        .unit
        .readiness
        .in_a_row(of.power, rate)
    {
        Flashes::Whole(count) if count.is_finite() => Some(count.min(1e6) as u32),
        Flashes::Whole(_) | Flashes::NotKnown => None,
    };
    let holds = seen.firing().filter_map(whole).min();
    // A burst that the units do not hold covers only its beginning.
    let covers = holds.map_or(1.0, |holds| (f64::from(holds) / f64::from(frames)).min(1.0));
    let burst = found.burst * covers;
    let wanted = plan.timing.tries;
    let mut counts = vec![1, 2, 3, 5, 10];
    if !counts.contains(&wanted) {
        counts.push(wanted);
        counts.sort_unstable();
    }
    let tries = counts
        .into_iter()
        .map(|tries| TriesSaid { tries, one: at_least_once(found.one, tries), burst: at_least_once(burst, tries) })
        .collect();
    let mut says = Vec::new();
    if let Some(holds) = holds.filter(|holds| *holds < frames) {
        says.push(format!("The units hold {holds} of these {frames} frames whole: less power, or a slower burst."));
    }
    if wanted > JUMPS_IN_A_ROW {
        let sets = wanted.div_ceil(JUMPS_IN_A_ROW);
        says.push(format!(
            "{wanted} tries are {sets} sets of {JUMPS_IN_A_ROW} with two to three minutes between them. Coach and athlete decide."
        ));
    }
    PeakSaid {
        height_m: height.as_metres(),
        air_s: found.air.as_secs(),
        limit_m_s: limit.min(1e3),
        strictest: strictest.map(|(_, name)| name),
        window_s: found.window.as_secs(),
        one: found.one,
        burst,
        rate,
        frames,
        holds,
        tries,
        says,
    }
}
