//! What to see to on the set.

use super::light::flag_at;
use super::moves::Moves;
use super::said::{FloorLamp, FloorLight, FloorNote, NoteSeverity, Place3, SheetSaid};
use crate::file::shot::Role;
use crate::plan::Plan;
use crate::stage::field::CHEST;
use crate::stage::space::spot;

/// Two things closer than this are in one place, in metres.
const SAME_PLACE_M: f64 = 0.3;
/// Nearer to the chest than this a light stands in who is lit.
const IN_SUBJECT_M: f64 = 0.35;

pub(super) fn notes(
    plan: &Plan,
    moves: &Moves,
    (lights, lamps): (&[FloorLight], &[FloorLamp]),
    sheet: Option<&SheetSaid>,
) -> Vec<FloorNote> {
    let mut notes = Vec::new();
    let near = |at: &Place3, other: &Place3| {
        let [at, other] = [at, other].map(|place| spot(place.x_m, place.y_m, place.z_m));
        (other - at).length() < SAME_PLACE_M
    };
    let in_one_place = |one: &str, other: &str| {
        let says = "Two stands need room: side by side, or one over the other on the same stand.";
        whole(&format!("{one} and {other} stand in one place"), says.to_owned())
    };
    for (index, light) in lights.iter().enumerate().filter(|(_, light)| light.on) {
        of_light(plan, moves, (index, light), &mut notes);
        let with = lights[index + 1..].iter().find(|other| other.on && near(&light.at, &other.at));
        if let Some(other) = with {
            notes.push(FloorNote { light: Some(index), ..in_one_place(&light.label, &other.label) });
        }
    }
    for (index, lamp) in lamps.iter().enumerate() {
        of_lamp(plan, moves, (index, lamp), &mut notes);
        // What belongs to the picture may well have a flash in it.
        let Some(at) = on_a_stand(lamp) else { continue };
        let light = lights.iter().find(|light| light.on && near(at, &light.at)).map(|light| &light.label);
        let other = || lamps[index + 1..].iter().find(|other| on_a_stand(other).is_some_and(|other| near(at, other)));
        if let Some(with) = light.or_else(|| other().map(|lamp| &lamp.name)) {
            notes.push(FloorNote { lamp: Some(index), ..in_one_place(&lamp.name, with) });
        }
    }
    if let Some(sheet) = sheet.filter(|sheet| !sheet.covers) {
        notes.push(FloorNote {
            title: "The sheet does not fill the frame".to_owned(),
            says: sheet.says.clone(),
            severity: NoteSeverity::Trouble,
            light: None,
            lamp: None,
            clears: Vec::new(),
        });
    }
    if let Some(room) = plan.room {
        let eye = moves.lens.view.eye;
        if let Some(wall) = room.beyond(eye, 0.0) {
            notes.push(whole("The camera stands outside the room", format!("It is beyond {wall}.")));
        }
        if moves.lens.behind > room.y.1 {
            notes.push(whole(
                "The background is outside the room",
                format!("The wall is {} behind the mark.", plan.lengths.say(room.y.1, 1)),
            ));
        }
    }
    notes
}

fn of_light(plan: &Plan, moves: &Moves, (index, light): (usize, &FloorLight), notes: &mut Vec<FloorNote>) {
    let label = &light.label;
    if !light.in_picture.is_empty() && light.role != Role::InSet {
        notes.push(FloorNote {
            title: format!("{label}: {} in the picture", light.in_picture.join(" and ")),
            says: "The smallest moves that clear it by a hand's breadth, as bright at the mark.".to_owned(),
            severity: NoteSeverity::Trouble,
            light: Some(index),
            lamp: None,
            clears: light.clears.clone(),
        });
    }
    if light.flares {
        let flag = moves.flag(index);
        let says = match &flag {
            Some(_) => {
                "The lens stands in its beam: a flag between them keeps the subject's light, or a grid, or turn it away."
            }
            None => "The lens stands in its beam, and no flag fits between them: a grid, or turn it away.",
        };
        notes.push(FloorNote {
            title: format!("{label} shines into the lens"),
            says: says.to_owned(),
            severity: NoteSeverity::Watch,
            light: Some(index),
            lamp: None,
            clears: flag.into_iter().collect(),
        });
    }
    if let Some(flag) = &light.flag {
        let at = flag_at(flag);
        let takes = moves.flag_takes(index);
        if takes {
            notes.push(bare(
                format!("{label}: its flag shades the subject"),
                &format!("It hangs {} up: raise it, or take it down.", plan.lengths.say(at.z_m, 1)),
                index,
            ));
        }
    }
    let to_chest = (spot(light.at.x_m, light.at.y_m, light.at.z_m) - CHEST).length();
    if to_chest < IN_SUBJECT_M + light.radius_m.min(0.2) {
        notes.push(bare(
            format!("{label} stands in the subject"),
            &format!("It is {} from the chest.", plan.lengths.say(to_chest, 2)),
            index,
        ));
    }
    if light.at.z_m < 0.0 {
        notes.push(bare(format!("{label} is under the floor"), "Nothing stands there.", index));
    }
    if light.at.y_m - light.radius_m > moves.lens.behind {
        notes.push(bare(format!("{label} is behind the background"), "It lights the back of it.", index));
    }
    if let Some(room) = plan.room {
        let place = spot(light.at.x_m, light.at.y_m, light.at.z_m);
        if let Some(wall) = room.beyond(place, light.radius_m) {
            notes.push(bare(
                format!("{label} does not fit into the room"),
                &format!("Its face is beyond {wall}."),
                index,
            ));
        }
    }
    if light.take_down {
        notes.push(bare(
            format!("{label}: take it down in that gust"),
            &format!(
                "An estimate: {:.0} kg of ballast would be needed. The stand's manual, the venue's wind limit and whoever rigs decide.",
                light.ballast_kg.unwrap_or_default()
            ),
            index,
        ));
    }
}

/// Where a lamp that burns was set up.
fn on_a_stand(lamp: &FloorLamp) -> Option<&Place3> {
    lamp.stands.as_ref().filter(|stands| lamp.on && !stands.in_set).map(|stands| &stands.at)
}

/// A steady lamp that stands somewhere.
fn of_lamp(plan: &Plan, moves: &Moves, (index, lamp): (usize, &FloorLamp), notes: &mut Vec<FloorNote>) {
    let Some(stands) = lamp.stands.as_ref().filter(|_| lamp.on) else { return };
    let mut note = |title: String, says: String, clears| {
        notes.push(FloorNote { lamp: Some(index), clears, ..whole(&title, says) });
    };
    let name = &lamp.name;
    if !stands.in_picture.is_empty() {
        let what = stands.in_picture.join(" and ");
        let says = "The smallest moves that clear it by a hand's breadth, as bright at the mark.";
        note(format!("{name}: {what} in the picture"), says.to_owned(), stands.clears.clone());
    }
    if lamp.distance_m < IN_SUBJECT_M {
        let says = format!("It is {} from the chest.", plan.lengths.say(lamp.distance_m, 2));
        note(format!("{name} stands in the subject"), says, Vec::new());
    }
    if stands.at.z_m < 0.0 {
        note(format!("{name} is under the floor"), "Nothing stands there.".to_owned(), Vec::new());
    }
    if stands.at.y_m > moves.lens.behind {
        note(format!("{name} is behind the background"), "It lights the back of it.".to_owned(), Vec::new());
    }
    let at = spot(stands.at.x_m, stands.at.y_m, stands.at.z_m);
    if let Some(wall) = plan.room.and_then(|room| room.beyond(at, 0.0)) {
        note(format!("{name} does not fit into the room"), format!("It is beyond {wall}."), Vec::new());
    }
}

fn bare(title: String, says: &str, light: usize) -> FloorNote {
    FloorNote { light: Some(light), ..whole(&title, says.to_owned()) }
}

fn whole(title: &str, says: String) -> FloorNote {
    FloorNote {
        title: title.to_owned(),
        says,
        severity: NoteSeverity::Trouble,
        light: None,
        lamp: None,
        clears: Vec::new(),
    }
}
