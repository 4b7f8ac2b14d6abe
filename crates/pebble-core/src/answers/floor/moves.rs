//! Moving a light about the set: where it is put down, what moves are offered, and what each does to everything else.

use super::place;
use super::said::{CarriedTo, Clearing, Evened};
use crate::answers::conditions::{self, Condition, Matter};
use crate::answers::standing::{as_bright, held, lit_places, stood};
use crate::answers::strips;
use crate::file::floor::Flag;
use crate::file::shot::{Flash, Role, Shot};
use crate::outlook::{Outlook, outlook};
use crate::plan::check::At;
use crate::plan::{Plan, measured_to};
use crate::quantity::bounds::{self, Invalid, Limits};
use crate::quantity::words::signed;
use crate::quantity::{Angle, Metres};
use crate::stage::field::{CHEST, Lamp, Turned, as_noted, noted_around, placed};
use crate::stage::flag::flag_for;
use crate::stage::lens::{FARTHEST_M, Lens};
use crate::stage::region::Region;
use crate::stage::space::{Spot, spot};

/// Less than this is not worth a walk, in stops.
const WORTH_STOPS: f64 = 0.1;
/// Brought in by less than this it is where it was, in metres.
const BRING_M: f64 = 0.15;
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
    if light.on_camera {
        let given = format!("{} {}", light.group, light.role.word());
        return Err(at.contradiction("light", given, "it sits on the camera: carry that, or take the light off it"));
    }
    at.figure("x_m", to.x_m, &bounds::STANDS)?;
    at.figure("y_m", to.y_m, &bounds::STANDS)?;
    at.figure("z_m", to.z_m, &bounds::LIFTED)?;
    let middle = measured_to(light.role, shot.background.behind_m);
    (light.bearing_deg, light.height_deg, light.distance_m) = noted_around(middle, spot(to.x_m, to.y_m, to.z_m));
    if let Some(aim) = to.aim_m {
        if let Some(why) = why_not_aimed(light) {
            return Err(at.contradiction("aim_m", format!("{} {}", light.group, light.role.word()), why));
        }
        let each = |value, limits: &Limits| at.figure("aim_m", value, limits);
        let aim = spot(each(aim[0], &bounds::STANDS)?, each(aim[1], &bounds::STANDS)?, each(aim[2], &bounds::LIFTED)?);
        aimed(light, aim);
    }
    if let Some(flag) = &to.flag {
        light.flag = Some(flag.clone());
    }
    if let Some(power) = to.power {
        light.power = at.figure("power", power, &bounds::POWER)?;
    }
    Ok(shot)
}

/// Why a light has no place that it could be aimed at.
pub(super) fn why_not_aimed(light: &Flash) -> Option<&'static str> {
    match (&light.bounce, light.role) {
        (Some(_), _) => Some("it goes by way of a surface: turn it there on the Bench"),
        (None, Role::Backdrop) => Some("it is for the backdrop, and measured to that"),
        _ => None,
    }
}

/// A light that is aimed at a place from where it is written to stand: as a shot file has angles, to tenths.
fn aimed(light: &mut Flash, aim: Spot) {
    let [bearing, height] = [light.bearing_deg, light.height_deg].map(Angle::from_degrees);
    let turned = Turned::at(placed(bearing, height, Metres::from_metres(light.distance_m)), aim);
    let tenth = |angle: Angle| (angle.as_radians().to_degrees() * 10.0).round() / 10.0;
    let turned = turned.map(|turned| (tenth(turned.by), tenth(turned.towards))).filter(|(by, _)| *by > 0.0);
    light.off_axis_deg = turned.map_or(0.0, |(by, _)| by);
    light.off_axis_towards_deg = turned.map(|(_, towards)| towards);
}

/// Where a light could be carried, judged by everything of the frame.
pub(super) struct Moves<'a> {
    pub shot: &'a Shot,
    pub plan: &'a Plan,
    pub seen: &'a Outlook,
    pub lens: Lens,
    before: Vec<Condition>,
}

impl<'a> Moves<'a> {
    pub fn of(shot: &'a Shot, plan: &'a Plan, seen: &'a Outlook, lens: Lens) -> Self {
        Self { shot, plan, seen, lens, before: conditions::all(plan, seen) }
    }

    /// What another set makes worse, of everything that can be wrong with the frame.
    pub(super) fn worse(&self, then: &Plan) -> Option<String> {
        conditions::worse(&self.before, then, &outlook(then), |_| true).map(|worse| worse.cost(then))
    }

    /// Whether a light that stands elsewhere, or shines otherwise, does harm whatever the others do: its pulse and its place,
    /// not how bright all are together.
    pub(super) fn harms_alone(&self, index: usize, at: Spot, power: f64) -> bool {
        let alone = |matter: Matter| {
            matches!(
                matter,
                Matter::Rows
                    | Matter::Rear
                    | Matter::Still
                    | Matter::Together
                    | Matter::Fires
                    | Matter::Reached
                    | Matter::OutOfFrame
                    | Matter::Flare
                    | Matter::InRange
                    | Matter::Burst
            )
        };
        let then = stood(self.plan, index, at, Some(power));
        conditions::worse(&self.before, &then, &outlook(&then), alone).is_some()
    }

    /// What a light spoils that stands somewhere else.
    pub fn spoils(&self, index: usize, at: Spot, power: Option<f64>) -> Option<String> {
        let (_, _, distance) = noted_around(self.plan.measured_to(index), at);
        match bounds::FLASH_DISTANCE.check("distance_m", distance) {
            Ok(_) => self.worse(&stood(self.plan, index, at, power)),
            Err(why) => Some(why.to_string()),
        }
    }

    /// How far it is then from what it gives at the mark now, in stops: beyond its dial's end no power makes up for it.
    fn off(&self, index: usize, from: &Lamp, to: Spot, power: Option<f64>) -> f64 {
        let dial = &self.plan.settings.lights[index];
        if dial.bias.is_some() {
            return 0.0;
        }
        let (there, measured) =
            (Lamp { at: to, turned: self.plan.turned(index, to), ..*from }, self.plan.measured_to(index));
        (there.on(measured) / from.on(measured) * power.unwrap_or(dial.power) / dial.power).log2()
    }

    /// The smallest moves that clear the picture of a light, those that harm nothing first.
    pub fn clearing(&self, (index, lamp): (usize, &Lamp)) -> Vec<Clearing> {
        let light = &self.plan.lights[index];
        let ways = self.lens.moves(lamp.at, held(light));
        let mut found: Vec<Clearing> = ways
            .into_iter()
            .map(|way| {
                let words = format!("{} {}", self.plan.lengths.say(way.by, 1), way.way.word());
                self.carried_to((index, lamp), way.to, &words)
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
        let shining = lamp.shining();
        let now = region.spread(|place| shining.on(place));
        let wanted = self.seen.lights[index].on_set.exposure;
        let lamp_at = |to: Spot| Lamp { at: to, ..*lamp };
        let at = |power: f64| {
            let distance = light.distance_for(power, dial.heads, wanted).filter(|far| far.as_metres() <= FARTHEST_M)?;
            let way = lamp.at - CHEST;
            // Where it will be written: a centimetre more may be in the picture.
            let to = as_noted(CHEST + way * (distance.as_metres() / way.length()));
            let there = lamp_at(to).shining();
            let least = region.spread_at_least(|place| there.on(place));
            let free = !self.lens.shows(to, held(light)).any();
            (free && now - least >= WORTH_STOPS).then_some(Even { spread: least, exact: false, power, to, distance })
        };
        let mut left: Vec<Even> = strips::powers(light).filter_map(at).collect();
        // The least is looked at first; where it is only known to be no less, it is worked out and put back among the others.
        let Even { spread, power, to, distance, .. } = loop {
            let least = (0..left.len()).min_by(|a, b| left[*a].spread.total_cmp(&left[*b].spread))?;
            let one = left.swap_remove(least);
            if !one.exact {
                let there = lamp_at(one.to).shining();
                let spread = region.spread(|place| there.on(place));
                if now - spread >= WORTH_STOPS {
                    left.push(Even { spread, exact: true, ..one });
                }
            } else if self.spoils(index, one.to, Some(one.power)).is_none() {
                break one;
            }
        };
        let back = (distance - dial.distance).as_metres();
        let way = if back >= 0.0 { "back" } else { "closer" };
        Some(Evened {
            says: format!("{} {way}, {}", self.plan.lengths.say(back.abs(), 1), light.unit.dial.label(power)),
            to: place(to),
            power,
            from_stops: now.clamp(0.0, 20.0),
            to_stops: spread.clamp(0.0, 20.0),
        })
    }

    /// As near as the lens does not see it on its own line, as bright at the mark: larger and softer by as much.
    pub fn bringing_in(&self, (index, lamp): (usize, &Lamp)) -> Option<Clearing> {
        let light = &self.plan.lights[index];
        let nearest = light.walks().then(|| self.lens.nearest(CHEST, lamp.at, held(light)))??;
        // To the next tenth of a metre, and not for less.
        let nearest = (nearest * 10.0 - 1e-9).ceil() / 10.0;
        let way = lamp.at - CHEST;
        if way.length() - nearest < BRING_M {
            return None;
        }
        let at = CHEST + way.unit() * nearest;
        let words = format!("{} from the chest", self.plan.lengths.say(nearest, 1));
        Some(self.carried_to((index, lamp), at, &words))
    }

    /// A light at another place, as bright at the mark as its dial can make it, and what that spoils.
    fn carried_to(&self, (index, lamp): (usize, &Lamp), at: Spot, words: &str) -> Clearing {
        let light = &self.plan.lights[index];
        let power = as_bright(self.plan, lamp, index, at);
        let then = power.map_or_else(String::new, |power| format!(", {}", light.unit.dial.label(power)));
        let off = self.off(index, lamp, at, power);
        let whom = if light.role == Role::Backdrop { "the background" } else { "the mark" };
        let left = if off.abs() <= AS_BRIGHT { String::new() } else { format!(", {} at {whom}", signed(off)) };
        Clearing {
            says: format!("{words}{then}{left}"),
            to: place(at),
            power,
            flag: None,
            spoils: self.spoils(index, at, power),
        }
    }

    /// The flag that keeps a light out of the lens, where one fits.
    pub fn flag(&self, index: usize) -> Option<Clearing> {
        let lamp = self.seen.lamp(self.plan, index);
        let radius = self.plan.lights[index].throw.face.radius.as_metres();
        let flag = flag_for(&self.lens, &lamp, radius, &lit_places(self.plan))?;
        let say = |metres: f64| self.plan.lengths.say(metres, 2);
        let away = self.plan.lengths.say((flag.at - lamp.at).length(), 1);
        let written = Flag { x_m: flag.at.x, y_m: flag.at.y, z_m: flag.at.z, width_m: flag.wide, height_m: flag.high };
        Some(Clearing {
            says: format!("Flag of {} × {}, {away} before it", say(flag.wide), say(flag.high)),
            to: place(lamp.at),
            power: None,
            // It takes light from nothing but the lens.
            spoils: None,
            flag: Some(written),
        })
    }

    /// Whether the flag of a light takes light from who is lit.
    pub fn flag_takes(&self, index: usize) -> bool {
        let lamp = self.seen.lamp(self.plan, index);
        let radius = self.plan.lights[index].throw.face.radius.as_metres();
        let eye = self.lens.view.eye;
        let of = self.plan.lights[index].flag;
        of.is_some_and(|flag| lit_places(self.plan).iter().any(|place| flag.takes_from(&lamp, radius, eye, *place)))
    }
}

/// A place that is as bright at the mark.
#[derive(Clone, Copy)]
struct Even {
    spread: f64,
    /// Whether that is its spread, or no more than it.
    exact: bool,
    power: f64,
    to: Spot,
    distance: Metres,
}
