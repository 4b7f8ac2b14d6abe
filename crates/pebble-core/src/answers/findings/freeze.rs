//! Freezing: parts whose flash image is not as still as wanted.

use super::remedy::{Candidates, power_by_aperture, power_by_distance, power_by_iso, shutter_by};
use super::{Case, Condition, Flaw, Kind, Severity, TROUBLE, Words, px};
use crate::answers::strips;
use crate::outlook::PartOutlook;
use crate::physics::pulse::School;
use crate::plan::{Part, Settings};
use crate::quantity::Stops;
use crate::quantity::scale::{duration_label, power_label};

/// Powers tried per idea: the milder ones come first and a unit has few that differ.
const MOST_POWERS: usize = 8;

/// Parts with a limit, and how many times over it they are.
fn judged<'a>(case: Case<'a>) -> impl Iterator<Item = (usize, &'a Part, &'a PartOutlook, f64)> + use<'a> {
    let parts = case.plan.parts.iter().zip(&case.seen.parts).enumerate();
    // What no flash draws is not frozen by one.
    parts.filter(|(_, (_, seen))| seen.slowest.is_some()).filter_map(move |(index, (part, seen))| {
        let ratio = seen.flash_blur / part.intent.blur_limit(case.seen.allowed)?;
        Some((index, part, seen, ratio))
    })
}

pub(super) fn flaw(condition: &Condition) -> Option<Flaw> {
    let severity = if condition.margin < TROUBLE { Severity::Trouble } else { Severity::Watch };
    Some(Flaw::of_part(Kind::PartBlurred, condition.part?, severity, 1.0 - condition.margin))
}

/// Parts that only t0.5 calls still.
pub(super) fn doubts(case: Case, found: &mut Vec<Flaw>) {
    for (index, _, seen, ratio) in judged(case).filter(|(.., ratio)| *ratio <= 1.0) {
        if flatters(case, seen, ratio) {
            found.push(Flaw::of_part(Kind::SchoolFlatters, index, Severity::Watch, 0.2));
        }
    }
}

/// Whether t0.5 calls a part still that t0.1 would not.
fn flatters(case: Case, of_part: &PartOutlook, ratio: f64) -> bool {
    let light = &case.seen.lights[slowest(case, of_part)];
    let durations = &light.pulse.durations;
    case.plan.school == School::T05 && light.high_speed.is_none() && ratio * (durations.t01 / durations.t05) > 1.0
}

/// The light that draws the blur of a part.
fn slowest(case: Case, of_part: &PartOutlook) -> usize {
    of_part.slowest.unwrap_or(case.plan.key)
}

/// What is judged of a part: its limit in pixels, and the light that draws its blur.
fn judged_by(case @ Case { plan, seen }: Case, flaw: &Flaw) -> (usize, f64, usize) {
    let index = flaw.part.unwrap_or_default();
    let allowed = plan.pixels(plan.parts[index].intent.blur_limit(seen.allowed).unwrap_or(seen.allowed));
    (index, allowed, slowest(case, &seen.parts[index]))
}

pub(super) fn school_flatters(case @ Case { plan, seen }: Case, flaw: &Flaw) -> Words {
    let (part, allowed, light) = judged_by(case, flaw);
    let durations = &seen.lights[light].pulse.durations;
    let blur = plan.pixels(seen.parts[part].image_speed * durations.t01);
    Words {
        title: format!("{}: t0.5 flatters, {} by t0.1", plan.parts[part].name, px(blur)),
        cause: format!(
            "The limit is {}. Pictures behave like t0.1, {} here; t0.5 is {}.",
            px(allowed),
            duration_label(durations.t01),
            duration_label(durations.t05)
        ),
    }
}

pub(super) fn blurred(case @ Case { plan, seen }: Case, flaw: &Flaw) -> Words {
    let (index, allowed, light) = judged_by(case, flaw);
    let (part, of_part) = (&plan.parts[index], &seen.parts[index]);
    let (light, of_light) = (&plan.lights[light], &seen.lights[light]);
    let lasts = match of_light.high_speed {
        Some(_) => format!("In high-speed sync the shutter freezes, {}", plan.settings.shutter.label(plan.body.grid)),
        None => format!(
            "{} at {} lasts {} ({})",
            light.spoken,
            power_label(-Stops::from_ratio(of_light.power)),
            duration_label(of_light.freeze),
            plan.school.label()
        ),
    };
    Words {
        title: format!("{}: {} blur, limit {}", part.name, px(plan.pixels(of_part.flash_blur)), px(allowed)),
        cause: format!(
            "{lasts}; at {:.1} m/s that is {:.1} mm.",
            part.speed.as_metres_per_second(),
            (part.speed * of_light.freeze).as_millimetres()
        ),
    }
}

pub(super) fn candidates(case @ Case { plan, seen }: Case, flaw: &Flaw) -> Vec<Candidates> {
    let index = flaw.part.unwrap_or_default();
    let Some(limit) = plan.parts[index].intent.blur_limit(case.seen.allowed) else { return Vec::new() };
    let set = plan.settings;
    let slow = slowest(case, &seen.parts[index]);
    let (light, of_light) = (&plan.lights[slow], &seen.lights[slow]);
    if of_light.high_speed.is_some() {
        let faster = (1..=18).map(|clicks| {
            let shutter = shutter_by(plan, clicks)?;
            let loss = |time| {
                crate::physics::shutter::high_speed::loss(
                    crate::physics::shutter::Run { time, ..seen.run },
                    light.unit.efficiency,
                )
            };
            let missing = loss(set.shutter.time()) - loss(shutter.time());
            super::remedy::follow(plan, Settings { shutter, ..set }, missing.as_ratio())
        });
        return vec![Candidates::keeping_key(faster)];
    }
    // Powers whose pulse is short enough, nearest to the present one first: on some units that is a higher one.
    let needed = limit.as_metres() / seen.parts[index].image_speed.as_metres_per_second();
    let mut powers: Vec<f64> = strips::powers(light)
        .filter(|p| light.unit.control.at(*p).durations.by(plan.school).as_secs() <= needed)
        .collect();
    let turn = |power: &f64| (power / of_light.power).log2().abs();
    powers.sort_by(|a, b| turn(a).total_cmp(&turn(b)));
    powers.truncate(MOST_POWERS);
    let keep = of_light.lit.exposure;
    vec![
        Candidates::keeping_key(powers.iter().map(|power| power_by_distance(plan, slow, *power, keep))),
        Candidates::keeping_key(powers.iter().map(|power| power_by_iso(plan, slow, *power))),
        Candidates::keeping_key(powers.iter().map(|power| power_by_aperture(plan, slow, *power))),
        Candidates::keeping_key(powers.iter().map(|power| both_halves(case, slow, *power))),
    ]
}

/// Half of the missing light from ISO, the rest from distance: for powers that neither reaches alone.
fn both_halves(Case { plan, seen }: Case, light: usize, power: f64) -> Option<Settings> {
    let half = Stops::from_stops((seen.lights[light].power / power).log2() / 2.0);
    let iso = super::remedy::iso_by(plan, super::remedy::clicks_of(plan, half))?;
    let gained = iso.number() / plan.settings.iso.number();
    let near = power_by_distance(plan, light, power, seen.lights[light].lit.exposure / gained)?;
    // The others have only their power to follow the ISO with.
    let others = super::remedy::follow(plan, Settings { iso, ..plan.settings }, 1.0 / gained);
    if plan.lights.len() == 1 {
        return Some(Settings { iso, ..near });
    }
    others.map(|to| Settings { lights: to.lights.with(light, |dial| *dial = near.lights[light]), ..to })
}

pub(super) fn good(case: Case) -> Option<Words> {
    let (_, part, seen, _) = judged(case).max_by(|a, b| a.3.total_cmp(&b.3))?;
    let allowed = part.intent.blur_limit(case.seen.allowed)?;
    let light = &case.seen.lights[slowest(case, seen)];
    Some(Words {
        title: format!("Still parts hold: {} {}", part.name, px(case.plan.pixels(seen.flash_blur))),
        cause: format!(
            "Limit {}. Frozen by {} ({}).",
            px(case.plan.pixels(allowed)),
            duration_label(light.freeze),
            if light.high_speed.is_some() { "the shutter" } else { case.plan.school.label() }
        ),
    })
}
