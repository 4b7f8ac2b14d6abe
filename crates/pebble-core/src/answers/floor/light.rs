//! One light on the floor: by tape and clock, over the area, in the lens, in a gust.

use super::moves::{Moves, why_not_aimed};
use super::said::{FloorLight, Place3};
use super::{around, clock_words, evenness_said, people, place};
use crate::answers::standing::{flares, shown, whose};
use crate::file::floor::Flag;
use crate::file::shot::{Flash, Role};
use crate::physics::exposure::metered_tenths;
use crate::plan::{Light, Plan};
use crate::quantity::Angle;
use crate::quantity::scale::meter_words;
use crate::quantity::words::signed;
use crate::stage::field::{CHEST, Lamp, edge_of};
use crate::stage::lens::stand_top;
use crate::stage::region::Region;
use crate::stage::shadow::Shadow;
use crate::stage::space::spot;
use crate::stage::tape::{Ballast, MOST_BALLAST_KG, ballast, tape};

/// A flat face drags so much, a stand with a head weighs so much, and its feet stand on a circle of this radius, where
/// nobody says.
const DRAG: f64 = 1.2;
const STAND_KG: f64 = 4.0;
const FEET_M: f64 = 0.55;

pub(super) fn told(
    moves: &Moves,
    (index, lamp): (usize, &Lamp),
    (region, gust): (Option<&Region>, Option<f64>),
    shadow: &Shadow,
) -> FloorLight {
    let Moves { plan, seen, lens, shot, .. } = moves;
    let (light, dial) = (&plan.lights[index], &plan.settings.lights[index]);
    let radius = light.throw.face.radius.as_metres();
    let by_tape = tape(lamp.at, lamp.aim(), spot(0.0, 0.0, 0.0), spot(lens.view.eye.x, lens.view.eye.y, 0.0));
    // Bounced light comes from elsewhere, and what is for the backdrop lights nobody.
    let straight = light.bounce.is_none() && light.role != Role::Backdrop;
    let what = shown(plan, lens, index);
    // What takes a while is worked out for the light in hand.
    let region = region.filter(|_| straight);
    let (stand_kg, feet) = (light.stand_kg.unwrap_or(STAND_KG), light.feet.unwrap_or(FEET_M));
    // Nor does it stand on anything that could fall.
    let hung: Option<Ballast> = gust.filter(|_| !light.on_camera).map(|gust| {
        let area = std::f64::consts::PI * radius * radius;
        ballast(area, DRAG, gust, lamp.at.z, stand_kg, feet)
    });
    let wire = &shot.lights[index];
    FloorLight {
        label: light.label.clone(),
        role: light.role,
        unit: light.name.clone(),
        on: light.on,
        at: place(lamp.at),
        aim: place(people::aim_of(lamp)),
        aimed_at: whose(plan, lamp),
        can_be_aimed: why_not_aimed(wire).is_none() && !light.on_camera,
        turned_says: turned_says(light),
        looks_says: looks_says(lamp),
        stand: place(stand_top(lamp.at, light.boom)),
        boom_says: light.boom.map(|arm| boom_says(plan, wire, arm)),
        radius_m: radius,
        on_camera: light.on_camera,
        half_deg: edge_of(&lamp.beam, 1.0).as_radians().to_degrees(),
        circle_m: lamp.circle(dial.distance, 1.0),
        distance_m: dial.distance.as_metres(),
        to_mark_m: by_tape.to_mark,
        to_camera_m: by_tape.to_camera,
        right: by_tape.right,
        bearing_deg: light.bearing.as_radians().to_degrees(),
        clock: clock_words(light.bearing.as_radians().to_degrees()),
        tilt_down_deg: by_tape.tilt_down,
        reads: metered_tenths(seen.lights[index].on_set.exposure, plan.settings.iso).map(meter_words),
        power_says: match dial.bias {
            Some(bias) => format!("automatic {}", crate::quantity::words::signed(bias.as_stops())),
            None => light.unit.dial.label(dial.power),
        },
        group_says: match light.channels {
            Some(_) => format!("{} · channel {}", light.group, dial.channel),
            None => light.group.clone(),
        },
        front_says: match &wire.gel {
            Some(gel) => format!("{} · {}", wire.modifier.name, gel.name),
            None => wire.modifier.name.clone(),
        },
        evenness: region.map(|region| {
            let lamp = lamp.shining();
            evenness_said(region.evenness(|place| lamp.on(place)))
        }),
        evens: region.filter(|_| light.on).and_then(|region| moves.evening((index, lamp), region)),
        flares: flares(plan, lens, index),
        clears: if what.any() { moves.clearing((index, lamp)) } else { Vec::new() },
        in_picture: what.words(),
        brings_in: region
            .filter(|_| light.on && light.role != Role::InSet)
            .and_then(|_| moves.bringing_in((index, lamp))),
        shadow: around::shadow_says(shadow),
        flag: wire.flag.clone(),
        stand_kg,
        feet_m: feet,
        ballast_kg: hung.map(|hung| hung.ballast),
        take_down: hung.is_some_and(|hung| hung.ballast > MOST_BALLAST_KG),
    }
}

/// How a head is turned away from the mark, and what that costs there.
fn turned_says(light: &Light) -> Option<String> {
    let turned = light.turned?;
    let [by, towards] = [turned.by, turned.towards].map(Angle::as_radians);
    let side = |turned: f64, (up, down): (&str, &str)| {
        let degrees = (by.to_degrees() * turned).round();
        (degrees != 0.0).then(|| format!("{:.0}° {}", degrees.abs(), if degrees > 0.0 { up } else { down }))
    };
    let ways = [side(towards.cos(), ("right", "left")), side(towards.sin(), ("up", "down"))];
    let ways: Vec<String> = ways.into_iter().flatten().collect();
    let lost = light.feathered.as_stops().max(-20.0);
    (!ways.is_empty()).then(|| format!("{}, {} at the mark", ways.join(", "), signed(lost)))
}

/// How far beside the mark a head looks, on the floor.
fn looks_says(lamp: &Lamp) -> Option<String> {
    let (line, axis) = (CHEST - lamp.at, lamp.aim() - lamp.at);
    let left = (line.x * axis.y - line.y * axis.x).atan2(line.x * axis.x + line.y * axis.y).to_degrees().round();
    let side = if left > 0.0 { "left" } else { "right" };
    (left != 0.0).then(|| format!("{:.0}° {side} of the mark", left.abs()))
}

/// What balances a boom, by the lever: half as far behind the stand twice the weight, whatever the arm's own.
fn boom_says(plan: &Plan, wire: &Flash, arm: f64) -> String {
    let half = plan.lengths.say(arm / 2.0, 1);
    let heads = f64::from(wire.heads);
    // A weight that nobody knows is not taken for none.
    let weighs = wire.unit.mass_kg.zip(wire.modifier.mass_kg).map(|(unit, front)| heads * (unit + front));
    match weighs {
        Some(kg) => format!("{kg:.1} kg at its end, about {:.1} kg {half} behind the stand", 2.0 * kg),
        None => format!("twice what hangs at its end, {half} behind the stand; weigh it"),
    }
}

/// Where a flag is.
pub(super) fn flag_at(flag: &Flag) -> Place3 {
    Place3 { x_m: flag.x_m, y_m: flag.y_m, z_m: flag.z_m }
}
