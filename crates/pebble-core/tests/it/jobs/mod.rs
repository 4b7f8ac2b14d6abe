//! Jobs as they come in, each from the brief to what is said of it: what is wrong, what would mend it, and that what is
//! pressed mends it.

mod by_daylight;
mod in_the_dark;
mod on_the_set;
mod several_lights;

use crate::common::{applied, example, plan};
use pebble_core::findings::{self, Finding, Severity};
use pebble_core::gear::{CameraBody, FlashUnit, Lens, Modifier, Trigger};
use pebble_core::outlook;
use pebble_core::shot::{Flash, Intent, Part, Reading, Role, Shot};
use serde::de::DeserializeOwned;

/// A thing of the kit that ships, by its list and its name in it.
fn of_the_kit<T: DeserializeOwned>(list: &str, id: &str) -> T {
    let kit: serde_json::Value =
        serde_json::from_str(include_str!("../../../../../docs/examples/kit.json")).expect("the kit");
    let thing = kit[list].as_array().unwrap().iter().find(|thing| thing["id"] == id);
    serde_json::from_value(thing.unwrap_or_else(|| panic!("no {id} among {list}")).clone()).expect(id)
}

/// A dark hall, a full-frame camera with a lens of 85 mm five metres away, ISO 200, f/8, 1/125, for a print: no lights and
/// no parts yet.
fn job(title: &str) -> Shot {
    let mut shot = example("card-on-a-wall");
    shot.title = title.to_owned();
    shot.usage = pebble_core::motion::Usage::Print;
    shot.camera.body = of_the_kit::<CameraBody>("cameras", "heron-v2");
    shot.camera.lens = of_the_kit::<Lens>("lenses", "halden-85");
    shot.camera.iso = 200.0;
    steady(&mut shot, 2.0, 2.0);
    (shot.lights, shot.parts) = (Vec::new(), Vec::new());
    shot.background.behind_m = 6.0;
    shot
}

/// Steady light in lux, on the subject and behind it.
fn steady(shot: &mut Shot, subject: f64, background: f64) {
    shot.ambient.subject = Reading::Lux { lux: subject };
    shot.ambient.background = Reading::Lux { lux: background };
}

/// A light: a unit through something, where it stands, and its power.
fn light(role: Role, (unit, through): (&str, &str), (bearing, height, distance): (f64, f64, f64), power: f64) -> Flash {
    Flash {
        role,
        unit: of_the_kit::<FlashUnit>("units", unit),
        modifier: of_the_kit::<Modifier>("modifiers", through),
        trigger: of_the_kit::<Trigger>("triggers", "reed"),
        power,
        distance_m: distance,
        bearing_deg: bearing,
        height_deg: height,
        ..example("card-on-a-wall").lights[0].clone()
    }
}

/// A part, at so many metres a second to the right.
fn part(name: &str, intent: Intent, speed_m_s: f64) -> Part {
    Part { name: name.to_owned(), intent, speed_m_s, ..example("card-on-a-wall").parts[0].clone() }
}

/// A key on the left, as most are.
fn key(unit: (&str, &str), distance: f64, power: f64) -> Flash {
    light(Role::Key, unit, (-40.0, 35.0, distance), power)
}

/// What is said of it that is not good.
fn open(shot: &Shot) -> Vec<Finding> {
    let plan = plan(shot);
    let mut all = findings::judge(&plan, &outlook(&plan));
    all.retain(|one| one.severity != Severity::Fine);
    all
}

/// The names of what is not good, worst first.
fn ids(shot: &Shot) -> Vec<String> {
    open(shot).into_iter().map(|one| one.id).collect()
}

/// One of them.
fn found(shot: &Shot, id: &str) -> Finding {
    let said = ids(shot);
    open(shot).into_iter().find(|one| one.id == id).unwrap_or_else(|| panic!("{}: no {id} among {said:?}", shot.title))
}

/// What is offered for it.
fn offers(shot: &Shot, id: &str) -> Vec<String> {
    found(shot, id).remedies.into_iter().map(|remedy| remedy.label).collect()
}

/// The shot after what is offered first for something was pressed. It is gone then, and nothing that was good is not.
fn pressed(shot: &Shot, id: &str) -> Shot {
    let finding = found(shot, id);
    let remedy = finding.remedies.first().unwrap_or_else(|| panic!("{}: {:?}", finding.title, finding.unanswered));
    let then = applied(shot, &remedy.changes);
    let (before, after) = (ids(shot), ids(&then));
    assert!(!after.contains(&id.to_owned()), "{}: {} leaves {id}", shot.title, remedy.label);
    let new: Vec<&String> = after.iter().filter(|one| !before.contains(one)).collect();
    assert!(new.is_empty(), "{}: {} brings {new:?}", shot.title, remedy.label);
    then
}

/// Presses the first remedy of the first finding that has one, until nothing is offered any more; what is open then.
fn pressed_through(shot: &Shot) -> (Shot, Vec<String>) {
    let mut shot = shot.clone();
    for _ in 0..12 {
        let Some(remedy) = open(&shot).into_iter().find_map(|one| one.remedies.into_iter().next()) else { break };
        shot = applied(&shot, &remedy.changes);
    }
    let left = ids(&shot);
    (shot, left)
}
