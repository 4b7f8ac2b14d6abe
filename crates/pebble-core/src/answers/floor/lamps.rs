//! Steady lamps on the floor: where they stand, what they give, and what of them the lens sees.

use super::moves::Moves;
use super::said::{Clearing, FloorLamp, LampOnFloor, LampTo};
use super::{clock_words, place};
use crate::answers::standing::{lamp_as_bright, lamp_shown, lamp_stood};
use crate::file::shot::{LampStands, SetLamp, Shot};
use crate::outlook::Burns;
use crate::plan::check::At;
use crate::quantity::bounds::{self, Invalid};
use crate::quantity::words::signed;
use crate::quantity::{Angle, Metres, Stops};
use crate::stage::field::{CHEST, noted, placed};
use crate::stage::lens::Held;
use crate::stage::space::{Spot, spot};
use crate::stage::tape::tape;

/// A shot with a lamp carried somewhere: from then on it is known where it stands.
pub(super) fn carried(shot: &Shot, to: &LampTo) -> Result<Shot, Invalid> {
    let at = At::new("lamp");
    let mut shot = shot.clone();
    let count = shot.lamps.len();
    let Some(lamp) = shot.lamps.get_mut(to.lamp) else {
        return Err(at.not_allowed("lamp", &to.lamp.to_string(), &format!("one of the {count} lamps of the shot")));
    };
    at.figure("x_m", to.x_m, &bounds::STANDS)?;
    at.figure("y_m", to.y_m, &bounds::STANDS)?;
    at.figure("z_m", to.z_m, &bounds::LIFTED)?;
    let (bearing_deg, height_deg, distance_m) = noted(spot(to.x_m, to.y_m, to.z_m));
    let in_set = lamp.stands.is_some_and(|stands| stands.in_set);
    lamp.distance_m = at.figure("distance_m", distance_m, &bounds::FLASH_DISTANCE)?;
    lamp.stands = Some(LampStands { bearing_deg, height_deg, in_set });
    if let Some(level) = to.level_share {
        lamp.level_share = at.figure("level_share", level, &bounds::LEVEL)?;
    }
    Ok(shot)
}

/// Every lamp of the shot, those that are off too.
pub(super) fn told(moves: &Moves) -> Vec<FloorLamp> {
    let lamps = moves.shot.lamps.iter().enumerate();
    lamps.map(|(row, wire)| one(moves, row, wire)).collect()
}

fn one(moves: &Moves, row: usize, wire: &SetLamp) -> FloorLamp {
    let Moves { plan, seen, .. } = moves;
    let burns = plan.lamps.iter().position(|lamp| lamp.place == row);
    let gives = burns.and_then(|index| seen.steady.iter().find(|source| source.of == Burns::Lamp(index)));
    FloorLamp {
        name: wire.lamp.name.clone(),
        on: wire.on,
        front_says: wire.gel.as_ref().map(|gel| gel.name.clone()),
        turned_up_says: format!("{:.0} %", wire.level_share * 100.0),
        gives_says: gives.map(|gives| match gives.on_subject.placement {
            placement if placement > Stops::DARK => signed(placement.as_stops()),
            _ => "no light".to_owned(),
        }),
        distance_m: wire.distance_m,
        stands: wire.stands.map(|stands| on_floor(moves, (wire, stands), burns)),
    }
}

fn on_floor(moves: &Moves, (wire, stands): (&SetLamp, LampStands), burns: Option<usize>) -> LampOnFloor {
    let Moves { plan, lens, .. } = moves;
    let [bearing, height] = [stands.bearing_deg, stands.height_deg].map(Angle::from_degrees);
    let at = placed(bearing, height, Metres::from_metres(wire.distance_m));
    let eye = lens.view.eye;
    let by_tape = tape(at, CHEST, spot(0.0, 0.0, 0.0), spot(eye.x, eye.y, 0.0));
    let shown = burns.map(|index| lamp_shown(plan, lens, index)).unwrap_or_default();
    LampOnFloor {
        at: place(at),
        to_mark_m: by_tape.to_mark,
        to_camera_m: by_tape.to_camera,
        right: by_tape.right,
        bearing_deg: stands.bearing_deg,
        clock: clock_words(stands.bearing_deg),
        tilt_down_deg: by_tape.tilt_down,
        in_set: stands.in_set,
        clears: burns.filter(|_| shown.any()).map(|index| clearing(moves, index, at)).unwrap_or_default(),
        in_picture: shown.words(),
    }
}

/// The smallest moves that clear the picture of a lamp, those that harm nothing first.
fn clearing(moves: &Moves, index: usize, from: Spot) -> Vec<Clearing> {
    let plan = moves.plan;
    let ways = moves.lens.moves(from, Held::default());
    let mut found: Vec<Clearing> = ways
        .into_iter()
        .map(|way| {
            let level = lamp_as_bright(plan, index, way.to);
            let power = (level != plan.lamps[index].level).then_some(level);
            let at = power.map_or_else(String::new, |level| format!(", {:.0} %", level * 100.0));
            Clearing {
                says: format!("{} {}{at}", plan.lengths.say(way.by, 1), way.way.word()),
                to: place(way.to),
                power,
                flag: None,
                spoils: moves.worse(&lamp_stood(plan, index, way.to, level)),
            }
        })
        .collect();
    found.sort_by_key(|clearing| clearing.spoils.is_some());
    found
}
