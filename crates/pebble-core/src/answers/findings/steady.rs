//! What the steady light draws: ghosts where nothing may streak, streaks that are too short, too long or too dim.

use super::clicks::{aperture_with_power, clicks_of, filter_with_power, iso_with_power, shutter_by};
use super::ideas::{Idea, Ideas};
use super::turn::Source;
use super::{Case, Flaw, Kind, Words, percent, placed, px, signed};
use crate::answers::conditions::Matter;
use crate::answers::drag::{drag, time_of_streak};
use crate::answers::hold::{self, Held, Turned};
use crate::answers::strips;
use crate::file::shot::Intent;
use crate::outlook::{Burns, DrawnBy, Outlook, Pulses};
use crate::plan::{Plan, Settings};
use crate::quantity::{Seconds, Stops};

/// From this share of its picture on, a part is what the steady light draws.
const MOST: f64 = 0.5;
/// Clicks tried per idea: four stops in thirds.
const MOST_CLICKS: i32 = 12;

pub(super) fn dash_dim(Case { plan, seen }: Case, flaw: &Flaw) -> Words {
    let index = flaw.part();
    let (part, of_part) = (&plan.parts[index], &seen.parts[index]);
    let delta = format!("ΔL* {:.1}", of_part.ghost.delta_lightness.abs());
    let shutter = plan.settings.shutter.label(plan.body.grid);
    Words {
        title: format!("{}: hardly a streak, {delta}", part.name),
        cause: format!(
            "Each place on the path sees it for {} of {shutter}, with ambient at {}.",
            percent(of_part.ghost.dwell),
            placed(seen.ambient.placement)
        ),
    }
}

pub(super) fn dash_length(Case { plan, seen }: Case, flaw: &Flaw) -> Words {
    let index = flaw.part();
    let (part, of_part) = (&plan.parts[index], &seen.parts[index]);
    let shutter = plan.settings.shutter.label(plan.body.grid);
    let moves = px(plan.pixels(of_part.travel));
    Words {
        title: format!(
            "{}: streak {} of the frame, {} wanted",
            part.name,
            percent(of_part.streak_share),
            percent(plan.wanted_streak(part).unwrap_or_default())
        ),
        cause: format!(
            "At {:.1} m/s{}, {shutter} draws {moves}.",
            part.speed.as_metres_per_second(),
            with_the_camera(plan)
        ),
    }
}

/// What the camera adds to a movement on purpose.
pub(super) fn with_the_camera(plan: &Plan) -> String {
    let swing =
        (plan.movement.swing > 0.0).then(|| format!("a swing of {:.0}° a second", plan.movement.swing.to_degrees()));
    let zoom = (plan.movement.zoom != 0.0).then(|| "zooming".to_owned());
    let both: Vec<String> = swing.into_iter().chain(zoom).collect();
    if both.is_empty() { String::new() } else { format!(" with {}", both.join(" and ")) }
}

/// What is drawn of a part while the shutter is open is one fault: its blur, where steady light makes most of its picture or
/// flash glows as long, else a trail beside what flash froze. The one that stays is as bad as both.
pub(super) fn drawn_once(Case { seen, .. }: Case, found: &mut Vec<Flaw>) {
    let at = |found: &[Flaw], matter: Matter, part: usize| {
        found.iter().position(|flaw| (flaw.kind, flaw.part) == (Kind::Unmet(matter), Some(part)))
    };
    for (part, of_part) in seen.parts.iter().enumerate() {
        let glows = of_part.slowest.is_some_and(|light| seen.lights[light].high_speed.is_some());
        let blurs = glows || of_part.steady_share >= MOST;
        if !glows && of_part.drawn_by != DrawnBy::Steady {
            continue;
        }
        let (Some(blur), Some(trail)) = (at(found, Matter::Still, part), at(found, Matter::NoTrail, part)) else {
            continue;
        };
        let (stays, goes) = if blurs { (blur, trail) } else { (trail, blur) };
        found[stays].severity = found[stays].severity.min(found[goes].severity);
        found[stays].hurt = found[stays].hurt.max(found[goes].hurt);
        found.remove(goes);
    }
}

pub(super) fn ghost(Case { plan, seen }: Case, flaw: &Flaw) -> Words {
    let index = flaw.part();
    let (part, of_part) = (&plan.parts[index], &seen.parts[index]);
    let delta = format!("ΔL* {:.1}", of_part.ghost.delta_lightness.abs());
    let shutter = plan.settings.shutter.label(plan.body.grid);
    let moves = px(plan.pixels(of_part.travel));
    Words {
        title: format!("{}: {} trail, {delta}", part.name, of_part.ghost.visibility().word()),
        cause: format!("{shutter} draws {moves}{}. {}", with_the_camera(plan), sources(plan, seen)),
    }
}

/// Where the steady light comes from, the strongest first, in stops against the metered tone.
pub(super) fn sources(plan: &Plan, seen: &Outlook) -> String {
    let room = (seen.room.placement, if plan.outdoors { "daylight" } else { "the room" }.to_owned());
    let lamps = seen.steady.iter().map(|lamp| {
        let name = match lamp.of {
            Burns::Lamp(index) => plan.lamps[index].name.clone(),
            Burns::Modelling(light) => format!("modelling lamp of {}", plan.lights[light].label),
        };
        (lamp.on_subject.placement, name)
    });
    let mut all: Vec<(Stops, String)> = lamps.chain([room]).filter(|(placed, _)| *placed > Stops::DARK).collect();
    all.sort_by(|a, b| b.0.as_stops().total_cmp(&a.0.as_stops()));
    if all.is_empty() {
        return "It has a light of its own.".to_owned();
    }
    let named: Vec<String> = all.iter().map(|(placed, name)| format!("{name} {}", signed(placed.as_stops()))).collect();
    format!("Steady light: {}.", named.join(", "))
}

pub(super) fn dash_asks(Case { plan, seen }: Case, flaw: &Flaw) -> Words {
    let index = flaw.part();
    let shutter = plan.settings.shutter.label(plan.body.grid);
    Words {
        title: format!("{}: how long shall its streak be?", plan.parts[index].name),
        cause: format!("{shutter} draws {} of the frame's width.", percent(seen.parts[index].streak_share)),
    }
}

pub(super) fn candidates<'a>(
    case @ Case { plan, seen }: Case<'a>,
    flaw: &Flaw,
    matter: Matter,
    pulses: &mut Pulses,
) -> Ideas<'a> {
    let set = plan.settings;
    let slower =
        || (1..=MOST_CLICKS).map(move |clicks| shutter_by(plan, -clicks).map(|shutter| Settings { shutter, ..set }));
    let faster =
        || (1..=MOST_CLICKS).map(move |clicks| shutter_by(plan, clicks).map(|shutter| Settings { shutter, ..set }));
    Ideas::of(match matter {
        // What burns needlessly goes out before a shutter is turned.
        Matter::NoTrail => {
            let mut ideas = Source::all(plan, seen);
            ideas.push(Idea::keeping_flash(faster()));
            ideas.push(Idea::keeping_flash((1..=MOST_CLICKS).map(move |clicks| iso_with_power(plan, -clicks))));
            ideas.push(Idea::keeping_flash((1..=MOST_CLICKS).map(move |clicks| aperture_with_power(plan, clicks))));
            ideas.push(Idea::keeping_flash((1..=6).map(move |n| filter_with_power(plan, f64::from(n)))));
            ideas
        }
        Matter::Shows => vec![
            Idea::keeping_flash((1..=MOST_CLICKS).map(move |clicks| iso_with_power(plan, clicks))),
            Idea::keeping_flash((1..=MOST_CLICKS).map(move |clicks| aperture_with_power(plan, -clicks))),
            Idea::keeping_flash(slower()),
        ],
        _ => streak_candidates(case, flaw.part(), pulses),
    })
}

/// The shutter for the wanted length.
fn streak_candidates<'a>(case @ Case { plan, seen }: Case<'a>, index: usize, pulses: &mut Pulses) -> Vec<Idea<'a>> {
    let Some(share) = plan.wanted_streak(&plan.parts[index]) else { return Vec::new() };
    let wanted = time_of_streak(share, plan.frame().0, &seen.parts[index].motion);
    if wanted.as_secs().is_finite() { another_time(case, wanted, pulses) } else { Vec::new() }
}

/// Another time, once with ambient and key held by another control, once alone.
pub(super) fn another_time<'a>(Case { plan, seen }: Case<'a>, wanted: Seconds, pulses: &mut Pulses) -> Vec<Idea<'a>> {
    let set = plan.settings;
    let shutter = strips::shutter_near(&plan.body, wanted);
    let alone = Settings { shutter, ..set };
    // Hold ambient where it is: the light must change by what the time changes (drag, with today's placement as wanted).
    let change = drag(shutter.time(), seen.ambient.placement, seen.reference, seen.ambient.exposure / seen.run.time)
        .light_change;
    let clicks = clicks_of(plan, change);
    let hold = |other: Option<Settings>| other.map(|other| Settings { shutter, ..other });
    let half = clicks / 2;
    let both = aperture_with_power(plan, -half).and_then(|with_aperture| {
        let stopped = plan.with(with_aperture);
        iso_with_power(&stopped, clicks - half)
    });
    let filter = filter_with_power(plan, -change.as_stops().round());
    // As somebody would who holds the look and turns the shutter: nothing gets brighter, darker or longer.
    let kept = [Held::Key, Held::Ratios, Held::Ambient, Held::Blur];
    let turned = Turned { control: Held::Shutter, light: plan.key };
    let held = hold::held_in_full(seen, &plan.with(alone), &kept, Some(turned), pulses);
    vec![
        Idea::keeping_flash([held]),
        Idea::keeping_flash([
            hold(iso_with_power(plan, clicks)),
            hold(aperture_with_power(plan, -clicks)),
            hold(both),
            hold(filter),
        ]),
        Idea::keeping_flash([Some(alone)]),
    ]
}

pub(super) fn good(Case { plan, seen }: Case) -> Option<Words> {
    let still = plan.parts.iter().zip(&seen.parts).filter(|(part, _)| part.intent != Intent::Dash);
    let (part, worst) =
        still.max_by(|a, b| a.1.ghost.delta_lightness.abs().total_cmp(&b.1.ghost.delta_lightness.abs()))?;
    seen.firing().next()?;
    Some(Words {
        title: "No trail on still parts".to_owned(),
        cause: format!("Most on {}, ΔL* {:.1}. {}", part.name, worst.ghost.delta_lightness.abs(), sources(plan, seen)),
    })
}
