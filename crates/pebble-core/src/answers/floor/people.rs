//! Who stands on the floor: what light falls on each, and which light is theirs.

use super::moves::Moves;
use super::place;
use super::said::{Clearing, PersonOnFloor};
use crate::answers::standing::{chests, spot_of, whose};
use crate::quantity::Stops;
use crate::quantity::words::signed;
use crate::stage::CHEST_M;
use crate::stage::field::{CHEST, Lamp};
use crate::stage::lens::FARTHEST_M;
use crate::stage::space::Spot;

/// Less than this is as bright, in stops.
const AS_BRIGHT: f64 = 1.0 / 6.0;
/// What is said of a place that a light hardly reaches.
const HARDLY: f64 = -6.0;
const NAMES: [&str; 12] = [
    "Subject", "Second", "Third", "Fourth", "Fifth", "Sixth", "Seventh", "Eighth", "Ninth", "Tenth", "Eleventh",
    "Twelfth",
];

/// What is on the axis of a light: where it passes the height of a chest, else as far off as the mark.
pub(super) fn aim_of(lamp: &Lamp) -> Spot {
    let way = lamp.aim() - lamp.at;
    let share = (CHEST_M - lamp.at.z) / way.z;
    let met = lamp.at + way * share;
    let near = share.is_finite() && share > 0.0 && (met - lamp.at).length() <= FARTHEST_M;
    if near { met } else { lamp.aim() }
}

/// Each of them, where there is more than one.
pub(super) fn told(moves: &Moves, lamps: &[Lamp]) -> Vec<PersonOnFloor> {
    let (plan, seen) = (moves.plan, moves.seen);
    let eye = moves.lens.view.eye;
    // What of it the shutter lets through.
    let in_frame = |light: usize| seen.lights[light].share;
    let counts: Vec<usize> = super::meant_for_it(plan, seen);
    let reference = seen.reference.as_lux_seconds();
    let placed = |light: f64| Stops::from_ratio(light / reference).as_stops();
    let steady = seen.ambient.exposure.as_lux_seconds();
    let dome = |light: usize, chest: Spot| lamps[light].on_dome(chest, eye) * in_frame(light);
    let all = |chest: Spot| steady + counts.iter().map(|light| dome(*light, chest)).sum::<f64>();
    let told = |(person, chest): (usize, Spot)| {
        let each = counts.iter().map(|light| {
            let stops = placed(lamps[*light].on(chest) * in_frame(*light));
            let label = &plan.lights[*light].label;
            if stops < HARDLY { format!("{label} hardly") } else { format!("{label} {}", signed(stops)) }
        });
        let each: Vec<String> = each.collect();
        let (here, there) = (all(chest), all(CHEST));
        let stops = placed(here);
        let apart = (here / there).log2();
        let against = match person {
            0 => String::new(),
            _ if apart.abs() <= AS_BRIGHT => ", as bright as the subject".to_owned(),
            _ => format!(", {} against the subject", signed(apart.clamp(-20.0, 20.0))),
        };
        // Their own light makes up for it, where one is theirs alone.
        let own = (person > 0 && apart.abs() > AS_BRIGHT)
            .then(|| counts.iter().copied().find(|light| whose(plan, &lamps[*light]) == Some(person)))
            .flatten();
        let matches = own.and_then(|light| {
            let rest = here - dome(light, chest);
            matched(moves, light, (there - dome(light, CHEST) - rest, dome(light, chest) - dome(light, CHEST)))
        });
        PersonOnFloor {
            name: NAMES.get(person).copied().unwrap_or("One more").to_owned(),
            chest_m: [chest.x, chest.y, chest.z],
            stops: stops.is_finite().then_some(stops),
            says: match each.as_slice() {
                [] => format!(
                    "{} by what burns there{against}",
                    if stops.is_finite() { signed(stops) } else { "no light".to_owned() }
                ),
                _ => format!("{} in all{against} · {}", signed(stops.max(-20.0)), each.join(" · ")),
            },
            light: matches.as_ref().and(own),
            matches,
        }
    };
    let chests: Vec<Spot> = chests(plan).collect();
    if chests.len() < 2 { Vec::new() } else { chests.into_iter().enumerate().map(told).collect() }
}

/// A light at the power with which what it gives more there than at the mark is what is lacking there.
fn matched(moves: &Moves, index: usize, (lacks, gives): (f64, f64)) -> Option<Clearing> {
    let (light, dial) = (&moves.plan.lights[index], &moves.plan.settings.lights[index]);
    if dial.bias.is_some() || gives <= 0.0 || lacks <= 0.0 {
        return None;
    }
    let power = light.unit.nearest_power((dial.power * lacks / gives).clamp(1e-9, 1e9));
    if power == dial.power {
        return None;
    }
    let at = spot_of(moves.plan, index);
    let off = (power / dial.power * gives / lacks).log2();
    let left = if off.abs() <= AS_BRIGHT { String::new() } else { format!(", {} from it", signed(off)) };
    Some(Clearing {
        says: format!("{} at {}{left}", light.label, light.unit.dial.label(power)),
        to: place(at),
        power: Some(power),
        flag: None,
        spoils: moves.spoils(index, at, Some(power)),
    })
}
