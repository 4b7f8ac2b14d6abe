//! The lights and lamps of one set put on another: where they stand, what they are, and as bright against the subject.

use super::said::ArrangedAnswer;
use crate::answers::standing::{held, spot_of};
use crate::file::shot::{LampStands, Role, SetLamp, Shot};
use crate::outlook::{Burns, Outlook, outlook};
use crate::plan::Plan;
use crate::quantity::bounds::Invalid;
use crate::quantity::words::signed;
use crate::quantity::{Angle, Metres, Stops};
use crate::stage::field::{CHEST, noted, noted_around, placed};
use crate::stage::lens::Held;
use crate::stage::space::Spot;

/// Less than this is the step of a dial, in stops.
const NOTICED: f64 = 0.2;
/// Room that a lamp takes, in metres.
const LAMP_M: f64 = 0.15;

/// A shot with the lights of another, fitted to its own camera and room: what stood in a corner of a room stands in that corner
/// of this one, what would be seen goes back on its own line until it is not, and each falls against mid-grey where it fell
/// there, as near as its dial has it. Lamps that were set up come along; those of the place stay with it. With it, what could
/// not stay as it was.
///
/// # Errors
/// [`Invalid`] for a shot that cannot be, or a set that does not go with it.
pub fn arranged(shot: &Shot, of: &Shot) -> Result<ArrangedAnswer, Invalid> {
    let there = Plan::try_from(of)?;
    let fell = outlook(&there);
    let mut says = Vec::new();
    let mut shot = Shot { lights: of.lights.clone(), channel: of.channel, ..shot.clone() };
    for light in &mut shot.lights {
        // Parts are those of another subject, and so are readings and flags of another place.
        light.misses.clear();
        (light.metered, light.flag) = (None, None);
    }
    let lamps = with_lamps(&mut shot, of, &mut says);
    stand(&mut shot, &there, &lamps, &mut says)?;
    turn(&mut shot, (&there, &fell), &lamps)?;
    told(&Plan::try_from(&shot)?, (&there, &fell), &lamps, &mut says);
    Ok(ArrangedAnswer { shot, says })
}

/// Rows of a lamp in the shot that it comes to, and in the one that it comes from.
type Rows = (usize, usize);

/// Whether somebody set a lamp up, and knows where: any other is of the place.
fn was_set_up(lamp: &SetLamp) -> bool {
    lamp.stands.is_some_and(|stands| !stands.in_set)
}

/// The lamps that were set up take the place of those that were set up here, where there are any.
fn with_lamps(shot: &mut Shot, of: &Shot, says: &mut Vec<String>) -> Vec<Rows> {
    let coming = || of.lamps.iter().enumerate().filter(|(_, lamp)| was_set_up(lamp));
    if coming().next().is_none() {
        return Vec::new();
    }
    let (went, stay): (Vec<SetLamp>, Vec<SetLamp>) = shot.lamps.drain(..).partition(was_set_up);
    for lamp in went.iter().filter(|went| coming().all(|(_, lamp)| lamp.lamp.name != went.lamp.name)) {
        says.push(format!("{} is gone: lamps that are set up come from there.", lamp.lamp.name));
    }
    let rows = coming().enumerate().map(|(place, (row, _))| (stay.len() + place, row)).collect();
    let coming = coming().map(|(_, lamp)| SetLamp { misses: Vec::new(), ..lamp.clone() });
    shot.lamps = stay.into_iter().chain(coming).collect();
    rows
}

/// Something that is set up, as far as it needs room.
struct Piece {
    /// What its distance is measured to.
    middle: Spot,
    stood: Spot,
    radius: f64,
    /// What of it must not be seen.
    held: Option<Held>,
}

/// Everything where it fits.
fn stand(shot: &mut Shot, there: &Plan, lamps: &[Rows], says: &mut Vec<String>) -> Result<(), Invalid> {
    let plan = Plan::try_from(&*shot)?;
    for (index, wire) in shot.lights.iter_mut().enumerate() {
        let light = &plan.lights[index];
        if light.on_camera {
            continue;
        }
        let (middle, radius) = (plan.measured_to(index), light.throw.face.radius.as_metres());
        // What belongs to the picture may be seen, and so may the surface by way of which one comes.
        let hides = light.walks() && light.role != Role::InSet;
        let piece = Piece { middle, stood: spot_of(&plan, index), radius, held: hides.then(|| held(light)) };
        let at = piece.placed(&plan, there, &light.label, says);
        if at != piece.stood {
            (wire.bearing_deg, wire.height_deg, wire.distance_m) = noted_around(middle, at);
        }
    }
    for (row, _) in lamps.iter().copied() {
        let wire = &mut shot.lamps[row];
        let Some(LampStands { bearing_deg, height_deg, .. }) = wire.stands else { continue };
        let [bearing, height] = [bearing_deg, height_deg].map(Angle::from_degrees);
        let stood = placed(bearing, height, Metres::from_metres(wire.distance_m));
        let piece = Piece { middle: CHEST, stood, radius: LAMP_M, held: Some(Held::default()) };
        let at = piece.placed(&plan, there, &wire.lamp.name, says);
        if at != stood {
            let (bearing_deg, height_deg, distance_m) = noted(at);
            wire.distance_m = distance_m;
            wire.stands = Some(LampStands { bearing_deg, height_deg, in_set: false });
        }
    }
    Ok(())
}

impl Piece {
    /// Where it stands in this set; where that is not where it stood, that is said.
    fn placed(&self, plan: &Plan, there: &Plan, label: &str, says: &mut Vec<String>) -> Spot {
        let (at, why) = self.fitted(plan, there);
        let Some(why) = why else { return at };
        says.push(if at == self.stood {
            format!("{label} {why}.")
        } else {
            let [away, was] = [at, self.stood].map(|at| plan.lengths.say((at - self.middle).length(), 2));
            format!("{label} stands {away} away instead of {was}: {why}.")
        });
        at
    }

    /// Where it fits, and why not where it stood.
    fn fitted(&self, plan: &Plan, there: &Plan) -> (Spot, Option<&'static str>) {
        let Self { middle, stood, radius, held } = *self;
        let at = match (&plan.room, &there.room) {
            (Some(here), Some(other)) => here.holding(here.as_in(other, stood), radius),
            (Some(here), None) => here.holding(stood, radius),
            _ => stood,
        };
        let moved = (at != stood).then_some("fitted to this room");
        let lens = plan.lens();
        let away = (at - middle).length();
        let seen = held.filter(|held| lens.shows(at, *held).any());
        let Some(clear) = seen.and_then(|held| lens.nearest(middle, at, held)).filter(|clear| *clear > away) else {
            return (at, moved);
        };
        let clear = middle + (at - middle).unit() * clear;
        if plan.room.is_some_and(|room| room.beyond(clear, radius).is_some()) {
            let stays = "stays in the picture, for the room ends behind it";
            let fitted = "fitted to this room, and stays in the picture, for the room ends behind it";
            return (at, Some(moved.map_or(stays, |_| fitted)));
        }
        (clear, Some(moved.map_or("out of the picture", |_| "fitted to this room, and out of the picture")))
    }
}

/// Where a lamp falls that burns, by its row in the shot.
fn lamp_falls(plan: &Plan, seen: &Outlook, row: usize) -> Option<Stops> {
    let burns = |of: Burns| matches!(of, Burns::Lamp(index) if plan.lamps[index].place == row);
    seen.steady.iter().find(|source| burns(source.of)).map(|source| source.on_subject.placement)
}

/// Everything as bright as it was, as near as it goes.
fn turn(shot: &mut Shot, (there, fell): (&Plan, &Outlook), lamps: &[Rows]) -> Result<(), Invalid> {
    let plan = Plan::try_from(&*shot)?;
    let falls = outlook(&plan);
    for (index, light) in shot.lights.iter_mut().enumerate() {
        let by = (fell.lights[index].on_set.placement - falls.lights[index].on_set.placement).as_ratio();
        if light.automatic.is_none() && by.is_finite() && by > 0.0 {
            light.power = plan.lights[index].unit.nearest_power(light.power * by);
        }
    }
    for (row, from) in lamps.iter().copied() {
        let both = lamp_falls(there, fell, from).zip(lamp_falls(&plan, &falls, row));
        let by = both.map_or(1.0, |(fell, falls)| (fell - falls).as_ratio());
        let lamp = &mut shot.lamps[row];
        if by.is_finite() && by > 0.0 {
            lamp.level_share = ((lamp.level_share * by * 1000.0).round() / 1000.0).clamp(0.001, 1.0);
        }
    }
    Ok(())
}

/// What falls elsewhere than it did.
fn told(plan: &Plan, (there, fell): (&Plan, &Outlook), lamps: &[Rows], says: &mut Vec<String>) {
    let falls = outlook(plan);
    let noticed = |off: f64| off.is_finite() && off.abs() > NOTICED;
    for (index, of) in plan.lights.iter().enumerate() {
        let off = (falls.lights[index].on_set.placement - fell.lights[index].on_set.placement).as_stops();
        let dial = &plan.settings.lights[index];
        if dial.bias.is_some() || !noticed(off) {
            continue;
        }
        let lowest = (-of.unit.lowest).as_ratio();
        // A dial of whole stops may stand between its ends and be off all the same.
        let why = match off < 0.0 {
            true if dial.power > 0.99 => "it has no more power",
            false if dial.power < lowest * 1.01 => "its power goes no lower",
            _ => "its dial has nothing nearer",
        };
        says.push(format!("{} falls {} from where it fell: {why}.", of.label, signed(off)));
    }
    for (row, from) in lamps.iter().copied() {
        let both = lamp_falls(there, fell, from).zip(lamp_falls(plan, &falls, row));
        let Some(off) = both.map(|(fell, falls)| (falls - fell).as_stops()).filter(|off| noticed(*off)) else {
            continue;
        };
        let name = plan.lamps.iter().find(|lamp| lamp.place == row).map_or("A lamp", |lamp| &lamp.name);
        let why = if off < 0.0 { "it is turned up full" } else { "it goes no lower" };
        says.push(format!("{name} falls {} from where it fell: {why}.", signed(off)));
    }
}
