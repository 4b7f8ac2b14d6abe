//! What of the set the lens must not see: faces and stands, a light that shines into it, what is beside the sheet.

use super::ideas::{Idea, Ideas};
use super::turn::{LampStands, Stands, Turn};
use super::{Case, Flaw, Words};
use crate::answers::conditions::Matter;
use crate::answers::{standing, strips};
use crate::plan::Plan;
use crate::quantity::Stops;
use crate::stage::field::CHEST;
use crate::stage::flag::flag_for;
use crate::stage::lens::{FARTHEST_M, Held, Move, Way};
use crate::stage::sheet::Sheet;
use crate::stage::space::Spot;

pub(super) fn in_frame(Case { plan, .. }: Case, flaw: &Flaw) -> Words {
    let index = flaw.light(plan);
    let shown = standing::shown(plan, &plan.lens(), index).words().join(" and ");
    Words {
        title: format!("{shown} in the picture"),
        cause: seen_within(plan, &shown, flaw.measure, standing::spot_of(plan, index)),
    }
}

fn seen_within(plan: &Plan, what: &str, inside: f64, at: Spot) -> String {
    let is = if what.contains(" and ") { "are" } else { "is" };
    let side = if at.x < 0.0 { "left" } else { "right" };
    let inside = plan.lengths.say(inside, 1);
    format!("Its {what} {is} seen {inside} within the edge of the frame, on the camera's {side}.")
}

pub(super) fn lamp_in_frame(Case { plan, .. }: Case, flaw: &Flaw) -> Words {
    let Some((lamp, at)) = standing_lamp(plan, flaw) else { return Words::default() };
    let shown = standing::lamp_shown(plan, &plan.lens(), lamp).words().join(" and ");
    Words {
        title: format!("{} in the picture", plan.lamps[lamp].name),
        cause: seen_within(plan, &shown, flaw.measure, at),
    }
}

/// The lamp that a flaw is about, and where it stands.
fn standing_lamp(plan: &Plan, flaw: &Flaw) -> Option<(usize, Spot)> {
    let lamp = flaw.lamp?;
    Some((lamp, plan.lamps[lamp].stands?.at))
}

pub(super) fn flares(Case { plan, .. }: Case, flaw: &Flaw) -> Words {
    let index = flaw.light(plan);
    let had = plan.lights[index].flag.is_some();
    let flag = if had { " Its flag does not reach between them." } else { "" };
    Words {
        title: "light into the lens".to_owned(),
        cause: format!(
            "The lens stands in its beam, to where three stops are lost: haze and spots over the frame.{flag}"
        ),
    }
}

pub(super) fn sheet_too_small(Case { plan, .. }: Case) -> Words {
    let lens = plan.lens();
    let (wide, high) = plan.sheet.unwrap_or_default();
    let sheet = Sheet { behind: lens.behind, wide, high };
    Words { title: "The sheet does not fill the frame".to_owned(), cause: standing::sheet_says(plan, &lens, &sheet) }
}

pub(super) fn uneven(Case { plan, .. }: Case, flaw: &Flaw) -> Words {
    let most = plan.even.map_or(0.0, Stops::as_stops);
    Words {
        title: format!("{:.1} stops over the area, {most:.1} wanted", flaw.measure),
        cause: "From the brightest to the darkest place of the area, its edges and both heights counted.".to_owned(),
    }
}

/// Farther back on its own line, as bright at the mark: the nearest such place first.
pub(super) fn more_even<'a>(Case { plan, seen }: Case<'a>) -> Ideas<'a> {
    let (index, light, dial) = (plan.key, plan.key_light(), plan.settings.key());
    let lamp = seen.lamp(plan, index);
    let way = lamp.at - CHEST;
    let wanted = seen.lights[index].on_set.exposure;
    let farther = move |power: f64| {
        let distance = light.distance_for(power, dial.heads, wanted)?.as_metres();
        let by = distance - way.length();
        let to = CHEST + way.unit() * distance;
        let way = Move { way: Way::Back, by, to };
        (by > 0.0 && distance <= FARTHEST_M).then_some(Turn::Stands(Stands { light: index, way, power: Some(power) }))
    };
    if dial.bias.is_some() {
        return Ideas::none("Farther back it is more even, as far as the automatic has the power for it.");
    }
    Ideas::of(vec![Idea::turns(strips::powers(light).filter_map(farther))])
}

pub(super) fn candidates<'a>(
    Case { plan, seen }: Case<'a>,
    flaw: &Flaw,
    lights: &[usize],
    matter: Matter,
) -> Ideas<'a> {
    let lens = plan.lens();
    let index = lights.first().copied().unwrap_or(plan.key);
    let radius = plan.lights[index].throw.face.radius.as_metres();
    Ideas::of(match matter {
        // The smallest moves that clear it, each by itself, as bright at the mark.
        Matter::OutOfFrame => {
            let lamp = seen.lamp(plan, index);
            { lens.moves(lamp.at, standing::held(&plan.lights[index])).into_iter() }
                .map(|way| {
                    let power = standing::as_bright(plan, &lamp, index, way.to);
                    Idea::one(Turn::Stands(Stands { light: index, way, power }))
                })
                .collect()
        }
        Matter::LampOutOfFrame => {
            let Some((index, at)) = standing_lamp(plan, flaw) else { return Ideas::of(Vec::new()) };
            { lens.moves(at, Held::default()).into_iter() }
                .map(|way| {
                    let level = standing::lamp_as_bright(plan, index, way.to);
                    Idea::one(Turn::LampStands(LampStands { lamp: index, way, level }))
                })
                .collect()
        }
        Matter::Flare => {
            let lamp = seen.lamp(plan, index);
            { flag_for(&lens, &lamp, radius, &standing::lit_places(plan)).into_iter() }
                .map(|flag| Idea::one(Turn::Flagged(index, flag)))
                .collect()
        }
        _ => {
            let (wide, high) = plan.sheet.unwrap_or_default();
            let nearer = Sheet { behind: lens.behind, wide, high }.fills_from(&lens);
            nearer.into_iter().map(|behind| Idea::one(Turn::Behind(behind))).collect()
        }
    })
}
