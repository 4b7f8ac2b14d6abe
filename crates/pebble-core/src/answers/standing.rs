//! Lights where they stand in the set: as lamps in space, what of them the lens sees, and what another place does to the
//! subject.

use crate::file::shot::Role;
use crate::outlook::Outlook;
use crate::plan::{Light, Plan, Settings};
use crate::quantity::{Angle, LuxSeconds, Metres, Stops};
use crate::stage::CHEST_M;
use crate::stage::field::{CHEST, Lamp, as_noted, noted_around, placed, placed_around};
use crate::stage::flag::Flag;
use crate::stage::lens::{Held, Lens, Shown};
use crate::stage::region::Region;
use crate::stage::sheet::Sheet;
use crate::stage::space::{Spot, spot};

/// Where a light's face is.
pub(crate) fn spot_of(plan: &Plan, index: usize) -> Spot {
    let light = &plan.lights[index];
    placed_around(plan.measured_to(index), light.bearing, light.height, plan.settings.lights[index].distance)
}

/// A light is somebody's when its axis passes their chest no farther than this, in metres.
const AIMED_M: f64 = 0.3;

/// The chests of the people, the subject's first.
pub(crate) fn chests(plan: &Plan) -> impl Iterator<Item = Spot> + '_ {
    plan.stage.composition.people.iter().map(|person| spot(person.right_m, person.away_m, CHEST_M))
}

/// Who a light is aimed at, by place in the list of people.
pub(crate) fn whose(plan: &Plan, lamp: &Lamp) -> Option<usize> {
    let axis = (lamp.aim() - lamp.at).unit();
    let beside = |chest: Spot| {
        let way = chest - lamp.at;
        if way.dot(axis) > 0.0 { (way - axis * way.dot(axis)).length() } else { f64::INFINITY }
    };
    let nearest = chests(plan).map(beside).enumerate().min_by(|a, b| a.1.total_cmp(&b.1));
    nearest.filter(|(_, beside)| *beside <= AIMED_M).map(|(person, _)| person)
}

/// Where a light falls in the frame that is turned to somebody who stands elsewhere than at the mark: who, and there.
pub(crate) fn falls_elsewhere(plan: &Plan, seen: &Outlook, light: usize) -> Option<(usize, Stops)> {
    plan.lights[light].turned?;
    let lamp = seen.lamp(plan, light);
    let person = whose(plan, &lamp).filter(|person| *person > 0)?;
    let of = &seen.lights[light];
    let gets = if of.fires { lamp.on(chests(plan).nth(person)?) * of.share } else { 0.0 };
    Some((person, Stops::placement(LuxSeconds::from_lux_seconds(gets), seen.reference)))
}

/// What of a light can be seen.
pub(crate) fn held(light: &Light) -> Held {
    Held { radius: light.throw.face.radius.as_metres(), boom: light.boom }
}

/// The same plan with a light standing somewhere else, as a file has its place, at another power where one goes with it.
pub(crate) fn stood(plan: &Plan, index: usize, at: Spot, power: Option<f64>) -> Plan {
    let (bearing, height, distance) = noted_around(plan.measured_to(index), at);
    let mut lights = plan.lights.to_vec();
    (lights[index].bearing, lights[index].height) = (Angle::from_degrees(bearing), Angle::from_degrees(height));
    let dials = plan.settings.lights.with(index, |dial| {
        dial.distance = Metres::from_metres(distance);
        dial.power = power.unwrap_or(dial.power);
    });
    Plan { lights: lights.into(), ..plan.with(Settings { lights: dials, ..plan.settings }) }
}

/// The same plan with a flag before a light.
pub(crate) fn flagged(plan: &Plan, index: usize, flag: Flag) -> Plan {
    let mut lights = plan.lights.to_vec();
    lights[index].flag = Some(flag);
    Plan { lights: lights.into(), ..plan.clone() }
}

/// What of a light the lens sees that it shall not see: nothing of one that is meant to be in the set, that sits on the camera,
/// or that is sent by way of a surface, from which its light comes.
pub(crate) fn shown(plan: &Plan, lens: &Lens, index: usize) -> Shown {
    let light = &plan.lights[index];
    if light.role == Role::InSet || !light.walks() {
        return Shown::default();
    }
    lens.shows(spot_of(plan, index), held(light))
}

/// What of a lamp the lens sees that it shall not see: nothing of one that stands nowhere, or belongs to the picture.
pub(crate) fn lamp_shown(plan: &Plan, lens: &Lens, index: usize) -> Shown {
    let lamp = &plan.lamps[index];
    lamp.stands.filter(|_| !lamp.in_set).map_or_else(Shown::default, |stands| lens.shows(stands.at, Held::default()))
}

/// The same plan with a lamp standing somewhere else, as a file has its place, turned up so far.
pub(crate) fn lamp_stood(plan: &Plan, index: usize, at: Spot, level: f64) -> Plan {
    let mut lamps = plan.lamps.to_vec();
    lamps[index] = lamps[index].stood(as_noted(at), level, plan.background_behind.as_metres());
    Plan { lamps: lamps.into(), ..plan.clone() }
}

/// How far a lamp is turned up that is as bright at the mark from somewhere else, as a file has it; as far as it goes where
/// that is not enough.
pub(crate) fn lamp_as_bright(plan: &Plan, index: usize, to: Spot) -> f64 {
    let lamp = &plan.lamps[index];
    let there = lamp.stood(as_noted(to), lamp.level, plan.background_behind.as_metres());
    let times = lamp.on_subject.as_lux() / there.on_subject.as_lux();
    if times.is_finite() { (lamp.level * times * 1000.0).round().clamp(0.0, 1000.0) / 1000.0 } else { lamp.level }
}

/// The power of its dial that comes nearest to what a light gives at the mark now, from another place, where that is another
/// one. An automatic sees to it by itself.
pub(crate) fn as_bright(plan: &Plan, from: &Lamp, index: usize, to: Spot) -> Option<f64> {
    let (light, dial) = (&plan.lights[index], &plan.settings.lights[index]);
    if dial.bias.is_some() {
        return None;
    }
    let (there, measured) = (Lamp { at: to, turned: plan.turned(index, to), ..*from }, plan.measured_to(index));
    let times = from.on(measured) / there.on(measured);
    // One that gives nothing gives nothing from there.
    if !times.is_finite() || times <= 0.0 {
        return None;
    }
    let power = light.unit.nearest_power(dial.power * times);
    (power != dial.power).then_some(power)
}

/// Whether a light shines into the lens: the lens stands in its beam, nothing is between them, and no flag is.
pub(crate) fn flares(plan: &Plan, lens: &Lens, index: usize) -> bool {
    let light = &plan.lights[index];
    if light.role == Role::InSet || !light.walks() || !light.on {
        return false;
    }
    let at = spot_of(plan, index);
    // Its strength is nothing to where it shines.
    let lamp = Lamp { strength: 1.0, face: light.throw.face, beam: light.beam(), at, turned: plan.turned(index, at) };
    let radius = light.throw.face.radius.as_metres();
    lens.looks_into(&lamp) && !light.flag.is_some_and(|flag| flag.shades(&lamp, radius, lens.view.eye))
}

/// A spread that is told for an area part of which gets no light, in stops.
const AS_UNEVEN_AS_CAN_BE: f64 = 20.0;

/// How uneven a light is over an area from a place on its own line, in stops; nothing of one that comes by way of a surface,
/// from all over it.
pub(crate) fn uneven(light: &Light, distance: Metres, area: Region) -> Option<f64> {
    if light.bounce.is_some() {
        return None;
    }
    let at = placed(light.bearing, light.height, distance);
    let lamp = Lamp { strength: 1.0, face: light.throw.face, beam: light.beam(), at, turned: light.turned };
    // Where it does not reach at all it is as uneven as can be.
    let lamp = lamp.shining();
    Some(area.spread(|place| lamp.on(place)).min(AS_UNEVEN_AS_CAN_BE))
}

/// What a sheet lacks, and what else would make it large enough, in sentences. Nothing that the set does not have.
pub(crate) fn sheet_says(plan: &Plan, lens: &Lens, sheet: &Sheet) -> String {
    let lacks = sheet.lacks(lens);
    let say = |metres: f64| plan.lengths.say(metres, 1);
    let mut missing = Vec::new();
    if lacks.width > 0.0 {
        missing.push(format!("{} wider", say(lacks.width)));
    }
    if lacks.height > 0.0 {
        missing.push(format!("{} higher", say(lacks.height)));
    }
    let needs = match missing.as_slice() {
        [] => "It is large enough".to_owned(),
        _ => format!("It has to be {}", missing.join(" and ")),
    };
    let below = if lacks.floor_shows { "; the floor shows below it" } else { "" };
    let mut ways = Vec::new();
    if !lacks.nothing() {
        ways.extend(sheet.fills_from(lens).map(|behind| format!("hangs {} behind the mark", say(behind))));
        ways.extend(sheet.fills_at(lens).map(|mm| format!("is seen at {mm} mm")));
    }
    let ways = if ways.is_empty() { String::new() } else { format!(" It fills it where it {}.", ways.join(", or ")) };
    format!("{needs}{below}.{ways}")
}

/// Places that shall keep their light: the chest, and the corners of the area where one is said.
pub(crate) fn lit_places(plan: &Plan) -> Vec<Spot> {
    let mut places = vec![CHEST];
    if let Some(area) = plan.area {
        let at = |(x, y): (f64, f64)| [area.z.0, area.z.1].map(|z| spot(x, y, z));
        places.extend(area.corners().into_iter().flat_map(at));
    }
    places
}
