//! Moving a light about the set: where it is put down, what moves are offered, and what each does to everything else.

use super::seen::Seen;
use super::{CarriedTo, Clearing, Evened, place};
use crate::answers::conditions::{self, Condition};
use crate::answers::strips;
use crate::file::shot::Shot;
use crate::outlook::{Outlook, outlook};
use crate::plan::Plan;
use crate::plan::check::At;
use crate::quantity::bounds::{self, Invalid};
use crate::quantity::words::signed;
use crate::stage::field::{Lamp, Region, set_so};
use crate::stage::space::{Spot, spot};

/// As far as somebody carries a light for it.
pub(super) const FARTHEST_M: f64 = 8.0;
/// Less than this is not worth a walk, in stops.
const WORTH_STOPS: f64 = 0.1;
/// What is left after another power, up to a fifth of a stop, is as bright.
const AS_BRIGHT: f64 = 0.2;

pub(super) fn no_such_light(field: &str, light: usize, count: usize) -> Invalid {
    At::default().not_allowed(field, &light.to_string(), &format!("one of the {count} lights of the shot"))
}

/// A shot with a light carried somewhere: the same three numbers that the Bench shows.
pub(super) fn carried(shot: &Shot, to: &CarriedTo) -> Result<Shot, Invalid> {
    let at = At::new("carried");
    let count = shot.lights.len();
    let mut shot = shot.clone();
    let light = shot.lights.get_mut(to.light).ok_or_else(|| no_such_light("carried.light", to.light, count))?;
    bounds::STANDS.check(&at.of("x_m"), to.x_m)?;
    bounds::STANDS.check(&at.of("y_m"), to.y_m)?;
    bounds::LIFTED.check(&at.of("z_m"), to.z_m)?;
    let (bearing, height, distance) = set_so(spot(to.x_m, to.y_m, to.z_m));
    let tenth = |value: f64| (value * 10.0).round() / 10.0;
    (light.bearing_deg, light.height_deg) = (tenth(bearing), tenth(height));
    light.distance_m = (distance * 100.0).round() / 100.0;
    if let Some(power) = to.power {
        light.power = bounds::POWER.check(&at.of("power"), power)?;
    }
    Ok(shot)
}

/// Where a light could be carried, judged by everything of the frame.
pub(super) struct Moves<'a> {
    pub shot: &'a Shot,
    pub plan: &'a Plan,
    pub seen: &'a Outlook,
    pub in_frame: &'a Seen,
    before: Vec<Condition>,
}

impl<'a> Moves<'a> {
    pub fn of(shot: &'a Shot, plan: &'a Plan, seen: &'a Outlook, in_frame: &'a Seen) -> Self {
        Self { shot, plan, seen, in_frame, before: conditions::all(plan, seen) }
    }

    /// What a move makes worse, of everything that can be wrong with the frame and of what the lens sees.
    fn spoils(&self, index: usize, from: &Lamp, to: Spot, power: Option<f64>) -> Option<String> {
        let there = Lamp { at: to, ..*from };
        let shines = |lamp: &Lamp| lamp.shines_at(self.in_frame.eye) && self.in_frame.is_free(lamp.at);
        if shines(&there) && !shines(from) {
            return Some("shines into the lens".to_owned());
        }
        let to = CarriedTo { light: index, x_m: to.x, y_m: to.y, z_m: to.z, power };
        let moved = carried(self.shot, &to).and_then(|shot| Plan::try_from(&shot));
        match moved {
            Ok(plan) => conditions::worse(&self.before, &plan, &outlook(&plan), None).map(|worse| worse.cost(&plan)),
            Err(why) => Some(why.to_string()),
        }
    }

    /// The power of its dial that comes nearest to what it gives at the mark now, from another place, where that is another
    /// one. An automatic sees to it by itself.
    fn as_bright(&self, index: usize, from: &Lamp, to: Spot) -> Option<f64> {
        let (light, dial) = (&self.plan.lights[index], &self.plan.settings.lights[index]);
        if dial.bias.is_some() {
            return None;
        }
        let there = Lamp { at: to, ..*from };
        let power = light.unit.nearest_power(dial.power * from.on(from.aim) / there.on(there.aim));
        (power != dial.power).then_some(power)
    }

    /// How far it is then from what it gives at the mark now, in stops: beyond its dial's end no power makes up for it.
    fn off(&self, index: usize, from: &Lamp, to: Spot, power: Option<f64>) -> f64 {
        let dial = &self.plan.settings.lights[index];
        if dial.bias.is_some() {
            return 0.0;
        }
        let there = Lamp { at: to, ..*from };
        (there.on(there.aim) / from.on(from.aim) * power.unwrap_or(dial.power) / dial.power).log2()
    }

    /// The smallest moves that clear the picture of a light, those that harm nothing first.
    pub fn clearing(&self, (index, lamp): (usize, &Lamp)) -> Vec<Clearing> {
        let light = &self.plan.lights[index];
        let ways = self.in_frame.moves(lamp.at, light.throw.face.radius.as_metres());
        let mut found: Vec<Clearing> = ways
            .into_iter()
            .map(|(way, to)| {
                let power = self.as_bright(index, lamp, to);
                let at = power.map_or_else(String::new, |power| format!(", {}", light.unit.dial.label(power)));
                let off = self.off(index, lamp, to, power);
                let then =
                    if off.abs() <= AS_BRIGHT { String::new() } else { format!(", {} at the mark", signed(off)) };
                let says = format!("{way}{at}{then}");
                Clearing { says, to: place(to), power, spoils: self.spoils(index, lamp, to, power) }
            })
            .collect();
        found.sort_by_key(|clearing| clearing.spoils.is_some());
        found
    }

    /// On the same line at the power that is as bright at the mark: of all powers of its dial the place with the least spread
    /// that the lens does not see and that harms nothing.
    pub fn evening(&self, (index, lamp): (usize, &Lamp), region: &Region) -> Option<Evened> {
        let (light, dial) = (&self.plan.lights[index], &self.plan.settings.lights[index]);
        if dial.bias.is_some() {
            return None;
        }
        let now = region.evenness(|place| lamp.on(place)).spread;
        let wanted = self.seen.lights[index].on_set.exposure;
        let radius = light.throw.face.radius.as_metres();
        let at = |power: f64| {
            let distance = light.distance_for(power, dial.heads, wanted).filter(|far| far.as_metres() <= FARTHEST_M)?;
            let way = lamp.at - lamp.aim;
            let to = lamp.aim + way * (distance.as_metres() / way.length());
            let there = Lamp { at: to, ..*lamp };
            let spread = region.evenness(|place| there.on(place)).spread;
            let free = self.in_frame.of_light(to, radius).is_empty();
            (free && now - spread >= WORTH_STOPS).then_some((spread, power, to, distance))
        };
        let mut found: Vec<_> = strips::powers(light).filter_map(at).collect();
        found.sort_by(|a, b| a.0.total_cmp(&b.0));
        let harmless = |(_, power, to, _): &(f64, f64, Spot, _)| self.spoils(index, lamp, *to, Some(*power)).is_none();
        let (spread, power, to, distance) = found.into_iter().find(harmless)?;
        let back = (distance - dial.distance).as_metres();
        let way = if back >= 0.0 { "back" } else { "closer" };
        Some(Evened {
            says: format!("{:.1} m {way}, {}", back.abs(), light.unit.dial.label(power)),
            to: place(to),
            power,
            from_stops: now.clamp(0.0, 20.0),
            to_stops: spread.clamp(0.0, 20.0),
        })
    }
}
