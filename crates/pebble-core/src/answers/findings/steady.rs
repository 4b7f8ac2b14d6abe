//! What the steady light draws: ghosts where nothing may streak, streaks that are too short, too long or too dim.

use super::remedy::{Candidates, aperture_with_power, clicks_of, filter_with_power, iso_with_power, shutter_by};
use super::{Case, Condition, Flaw, Kind, Severity, Words, percent, px, signed, stops};
use crate::answers::drag::{drag, time_of_streak};
use crate::answers::strips;
use crate::file::shot::Intent;
use crate::physics::ghost::Visibility;
use crate::plan::Settings;
use crate::quantity::Stops;
use crate::quantity::scale::ShutterTime;

/// Clicks tried per idea: four stops in thirds.
const MOST_CLICKS: i32 = 12;

pub(super) fn dim_flaw(condition: &Condition) -> Option<Flaw> {
    Some(Flaw::of_part(Kind::DashDim, condition.part?, Severity::Trouble, 2.0))
}

pub(super) fn length_flaw(condition: &Condition) -> Option<Flaw> {
    let miss = condition.measure.log2();
    let severity = if miss > 1.0 { Severity::Trouble } else { Severity::Watch };
    Some(Flaw::of_part(Kind::DashLength, condition.part?, severity, miss))
}

pub(super) fn ghost_flaw(condition: &Condition) -> Option<Flaw> {
    let strong = Visibility::of(condition.measure) == Visibility::Strong;
    let severity = if strong { Severity::Trouble } else { Severity::Watch };
    Some(Flaw::of_part(Kind::Ghost, condition.part?, severity, condition.measure / 5.0))
}

pub(super) fn dash_dim(Case { plan, seen }: Case, flaw: &Flaw) -> Words {
    let index = flaw.part.unwrap_or_default();
    let (part, of_part) = (&plan.parts[index], &seen.parts[index]);
    let delta = format!("ΔL* {:.1}", of_part.ghost.delta_lightness.abs());
    let shutter = plan.settings.shutter.label(plan.body.grid);
    Words {
        title: format!("{}: hardly a streak, {delta}", part.name),
        cause: format!(
            "Each place on the path sees it for {} of {shutter}, with ambient at {}.",
            percent(of_part.ghost.dwell),
            placement(seen.ambient.placement)
        ),
    }
}

pub(super) fn dash_length(Case { plan, seen }: Case, flaw: &Flaw) -> Words {
    let index = flaw.part.unwrap_or_default();
    let (part, of_part) = (&plan.parts[index], &seen.parts[index]);
    let shutter = plan.settings.shutter.label(plan.body.grid);
    let moves = px(plan.pixels(of_part.travel));
    Words {
        title: format!(
            "{}: streak {} of the frame, {} wanted",
            part.name,
            percent(of_part.streak_share),
            percent(part.streak_share.unwrap_or_default())
        ),
        cause: format!("At {:.1} m/s, {shutter} draws {moves}.", part.speed.as_metres_per_second()),
    }
}

pub(super) fn ghost(Case { plan, seen }: Case, flaw: &Flaw) -> Words {
    let index = flaw.part.unwrap_or_default();
    let (part, of_part) = (&plan.parts[index], &seen.parts[index]);
    let delta = format!("ΔL* {:.1}", of_part.ghost.delta_lightness.abs());
    let shutter = plan.settings.shutter.label(plan.body.grid);
    let moves = px(plan.pixels(of_part.travel));
    let lead = (seen.flash.placement - seen.ambient.placement).as_stops();
    let lead = if lead.is_finite() {
        format!("Flash leads ambient by {}", stops(lead))
    } else {
        "Steady light is alone".to_owned()
    };
    Words {
        title: format!("{}: {} trail, {delta}", part.name, of_part.ghost.visibility().word()),
        cause: format!("{lead}; {shutter} draws {moves}."),
    }
}

fn placement(stops: Stops) -> String {
    if stops.as_stops().is_finite() { signed(stops.as_stops()) } else { "no light".to_owned() }
}

pub(super) fn candidates(case @ Case { plan, .. }: Case, flaw: &Flaw) -> Vec<Candidates> {
    let set = plan.settings;
    match flaw.kind {
        Kind::Ghost => vec![
            Candidates::keeping_key(
                (1..=MOST_CLICKS).map(|clicks| shutter_by(plan, clicks).map(|shutter| Settings { shutter, ..set })),
            ),
            Candidates::keeping_key((1..=MOST_CLICKS).map(|clicks| iso_with_power(plan, -clicks))),
            Candidates::keeping_key((1..=MOST_CLICKS).map(|clicks| aperture_with_power(plan, clicks))),
            Candidates::keeping_key((1..=6).map(|n| filter_with_power(plan, f64::from(n)))),
        ],
        Kind::DashDim => vec![
            Candidates::keeping_key((1..=MOST_CLICKS).map(|clicks| iso_with_power(plan, clicks))),
            Candidates::keeping_key((1..=MOST_CLICKS).map(|clicks| aperture_with_power(plan, -clicks))),
            Candidates::keeping_key(
                (1..=MOST_CLICKS).map(|clicks| shutter_by(plan, -clicks).map(|shutter| Settings { shutter, ..set })),
            ),
        ],
        _ => streak_candidates(case, flaw.part.unwrap_or_default()),
    }
}

/// The shutter for the wanted length, once with ambient and key held by another control, once alone.
fn streak_candidates(Case { plan, seen }: Case, index: usize) -> Vec<Candidates> {
    let set = plan.settings;
    let Some(share) = plan.parts[index].streak_share else { return Vec::new() };
    let wanted = time_of_streak(share, plan.body.sensor.width, seen.parts[index].image_speed);
    let off = |time: &ShutterTime| (time.time() / wanted).ln().abs();
    let Some(shutter) = strips::shutters(&plan.body).min_by(|a, b| off(a).total_cmp(&off(b))) else {
        return Vec::new();
    };
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
    vec![
        Candidates::keeping_key([
            hold(iso_with_power(plan, clicks)),
            hold(aperture_with_power(plan, -clicks)),
            hold(both),
            hold(filter),
        ]),
        Candidates::keeping_key([Some(alone)]),
    ]
}

pub(super) fn good(Case { plan, seen }: Case) -> Option<Words> {
    let still = plan.parts.iter().zip(&seen.parts).filter(|(part, _)| part.intent != Intent::Dash);
    let (part, worst) =
        still.max_by(|a, b| a.1.ghost.delta_lightness.abs().total_cmp(&b.1.ghost.delta_lightness.abs()))?;
    seen.firing().next()?;
    let lead = (seen.flash.placement - seen.ambient.placement).as_stops();
    let lead =
        if lead.is_finite() { format!("flash leads ambient by {}", stops(lead)) } else { "no steady light".to_owned() };
    Some(Words {
        title: "No trail on still parts".to_owned(),
        cause: format!("Most on {}, ΔL* {:.1}; {lead}.", part.name, worst.ghost.delta_lightness.abs()),
    })
}
