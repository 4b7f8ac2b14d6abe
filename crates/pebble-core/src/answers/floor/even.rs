//! Ways to light an area more evenly by all lights together, side by side: as it stands, each light carried on its own line,
//! in the corners, and one in the middle. Each is as bright at the mark as the dials have it, and judged by everything of the
//! frame.

use super::clock_words;
use super::moves::Moves;
use super::said::{EvenAnswer, EvenWay};
use crate::answers::standing::held;
use crate::answers::strips;
use crate::file::look::Held;
use crate::file::shot::{Role, Shot};
use crate::outlook::outlook;
use crate::plan::Plan;
use crate::quantity::bounds::{self, Invalid};
use crate::quantity::words::{signed, times};
use crate::quantity::{Metres, Stops};
use crate::stage::evening::{Wanted, least_uneven};
use crate::stage::field::{CHEST, Lamp, noted};
use crate::stage::lens::FARTHEST_M;
use crate::stage::region::{Evenness, Region};
use crate::stage::space::{Spot, spot};

/// More lights than this are not carried at once: the rest shines as it stands.
pub const MOST_CARRIED: usize = 4;
/// Of how far a light stands now, where it is tried on its own line.
const SHARES: [f64; 8] = [0.6, 0.75, 0.87, 1.15, 1.32, 1.52, 1.75, 2.0];
/// Thirds of a stop by which each is tried brighter and fainter at the mark than it is.
const THIRDS: i32 = 3;
/// All together stay as bright at the mark within half a click, in stops.
const AS_BRIGHT: f64 = 1.0 / 6.0;
/// A power this far from the one that is asked for is another, in stops.
const OTHER_POWER: f64 = 0.2;
/// So many of the least uneven ways are judged until one harms nothing.
const JUDGED: usize = 200;
/// A lighting ratio that changes by less is the same, in stops.
const SAME_RATIO: f64 = 1.0 / 3.0;
/// Less than this is not worth the walk, in stops.
const WORTH_STOPS: f64 = 0.1;
/// A stand in a corner keeps this off the walls, and this under the ceiling, in metres.
const OFF_WALL_M: f64 = 0.5;
const UNDER_CEILING_M: f64 = 0.2;
/// In no room, a corner light stands this far outside the area, and goes no farther than this to be out of the picture.
const OUTSIDE_M: f64 = 1.0;
const FARTHEST_CORNER_M: f64 = 12.0;
/// A step of a tape.
const STEP_M: f64 = 0.1;

/// A light somewhere, at a power.
#[derive(Clone, Copy, Debug)]
struct Put {
    light: usize,
    at: Spot,
    power: f64,
}

/// What may become of the lights against each other.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
enum Ratios {
    /// Each stays as bright at the mark as its dial has it.
    Kept,
    /// Each may be brighter or fainter, as long as all together are as bright.
    Others,
}

/// The set as far as evenness goes.
struct Set<'a> {
    moves: Moves<'a>,
    region: Region,
    lamps: Vec<Lamp>,
    /// Lights that shine on the area.
    meant: Vec<usize>,
    /// Of these the ones that are carried.
    carried: Vec<usize>,
    at_mark: f64,
}

/// The ways, the first as it stands, and why there are no more.
pub(super) fn ways(moves: Moves<'_>, region: Region, meant: Vec<usize>) -> EvenAnswer {
    let (plan, seen) = (moves.plan, moves.seen);
    let lamps: Vec<Lamp> = (0..plan.lights.len()).map(|index| seen.lamp(plan, index)).collect();
    let carries = |index: &usize| {
        plan.lights[*index].walks()
            && matches!(plan.lights[*index].role, Role::Key | Role::Fill)
            && plan.settings.lights[*index].bias.is_none()
    };
    let mut carried: Vec<usize> = meant.iter().copied().filter(carries).collect();
    // The key is among them, wherever it stands in the list.
    carried.sort_by_key(|index| *index != plan.key);
    carried.truncate(MOST_CARRIED);
    let eye = moves.lens.view.eye;
    let at_mark = meant.iter().map(|index| lamps[*index].on_dome(CHEST, eye)).sum();
    let set = Set { moves, region, lamps, meant, carried, at_mark };
    let mut ways: Vec<EvenWay> = set.as_it_stands().into_iter().collect();
    let now = ways.first().map_or(0.0, |way| way.spread_stops);
    // Where nothing is had for free, what it would cost is told.
    let on_lines = |ratios: Ratios, than: f64| {
        set.each_on_its_line(ratios, true, than).or_else(|| set.each_on_its_line(ratios, false, than))
    };
    let kept = on_lines(Ratios::Kept, now);
    // A light alone has no ratio.
    let others = (set.carried.len() > 1)
        .then(|| on_lines(Ratios::Others, kept.as_ref().map_or(now, |way| way.spread_stops)))
        .flatten();
    let says = if kept.is_some() || others.is_some() { None } else { Some(set.why_not()) };
    ways.extend(kept);
    ways.extend(others);
    ways.extend(set.in_the_corners());
    ways.extend(set.one_in_the_middle());
    EvenAnswer { ways, says }
}

impl Set<'_> {
    /// Why no light on its own line makes it more even.
    fn why_not(&self) -> String {
        let locked = |control: Held| self.moves.shot.hold.contains(&control);
        let why = if self.meant.is_empty() {
            "No light is meant for the area."
        } else if self.carried.is_empty() {
            "Only a key and fills that are set by hand are carried: rims, lights in the set, automatics and what sits on the camera stay."
        } else if locked(Held::FlashDistance) {
            "The distance is locked on the Bench, and no powers alone are more even by a tenth of a stop."
        } else {
            "No place on their own lines is more even by a tenth of a stop."
        };
        why.to_owned()
    }

    fn as_it_stands(&self) -> Option<EvenWay> {
        let shot = self.moves.shot;
        self.told("As it stands", String::new(), (shot, self.moves.plan)).map(|way| EvenWay { shot: None, ..way })
    }

    /// What a shot makes of the area.
    fn told(&self, name: &str, says: String, (shot, plan): (&Shot, &Plan)) -> Option<EvenWay> {
        let seen = outlook(plan);
        let eye = self.moves.lens.view.eye;
        let lamps: Vec<Lamp> =
            { self.meant.iter().filter(|index| plan.lights[**index].on) }.map(|at| seen.lamp(plan, *at)).collect();
        let together = |place: Spot| lamps.iter().map(|lamp| lamp.on_dome(place, eye)).sum::<f64>();
        if together(CHEST) <= 0.0 {
            return None;
        }
        let Evenness { spread, within_third, .. } = self.region.evenness(together);
        Some(EvenWay {
            name: name.to_owned(),
            says,
            spread_stops: spread.clamp(0.0, 20.0),
            within_third,
            at_mark_says: self.at_mark_words((together(CHEST) / self.at_mark).log2(), seen.subject.ratio()),
            spoils: None,
            shot: Some(shot.clone()),
        })
    }

    /// The shot with some lights put elsewhere, and others off.
    fn put(&self, puts: &[Put], off: &[usize]) -> Result<(Shot, Plan), Invalid> {
        let mut shot = self.moves.shot.clone();
        for put in puts {
            let light = &mut shot.lights[put.light];
            (light.bearing_deg, light.height_deg, light.distance_m) = noted(put.at);
            light.power = put.power;
            if self.flag_goes(put) {
                light.flag = None;
            }
        }
        off.iter().for_each(|light| shot.lights[*light].on = false);
        let plan = Plan::try_from(&shot)?;
        Ok((shot, plan))
    }

    /// A way that was put together, and what it spoils.
    fn judged(&self, name: &str, says: String, puts: &[Put], off: &[usize]) -> Option<EvenWay> {
        let (shot, plan) = self.put(puts, off).ok()?;
        let way = self.told(name, says, (&shot, &plan))?;
        Some(EvenWay { spoils: self.moves.worse(&plan), ..way })
    }

    fn shown(&self, light: usize, at: Spot) -> bool {
        self.moves.lens.shows(at, held(&self.moves.plan.lights[light])).any()
    }

    /// Each light on its own line, nearer or farther: the least uneven that harms nothing and is worth more than what is known.
    fn each_on_its_line(&self, ratios: Ratios, harmless: bool, than: f64) -> Option<EvenWay> {
        let plan = self.moves.plan;
        let choices: Vec<Vec<Put>> = self.carried.iter().map(|light| self.choices(*light, ratios, harmless)).collect();
        let lamp_of = |put: &Put| self.lamp_at(put);
        let lamps: Vec<Vec<Lamp>> = choices.iter().map(|of| of.iter().map(lamp_of).collect()).collect();
        let standing: Vec<Lamp> = { self.meant.iter().filter(|light| !self.carried.contains(light)) }
            .map(|light| self.lamps[*light])
            .collect();
        let by = AS_BRIGHT.exp2();
        let at_mark = (self.at_mark / by, self.at_mark * by);
        let wanted = Wanted { camera: self.moves.lens.view.eye, at_mark, most: JUDGED };
        let name = match ratios {
            Ratios::Kept => "Each on its line",
            Ratios::Others => "Each on its line, other ratios",
        };
        let mut spoiled = None;
        for way in least_uneven(&self.region, &standing, &lamps, wanted) {
            let puts: Vec<Put> = choices.iter().zip(&way.chosen).map(|(of, at)| of[*at]).collect();
            let moved: Vec<Put> = puts.into_iter().filter(|put| self.differs(put)).collect();
            let says: Vec<String> = moved.iter().map(|put| self.carried_words(plan, put)).collect();
            let Ok((shot, then)) = self.put(&moved, &[]) else { continue };
            if than - way.spread < WORTH_STOPS {
                break;
            }
            let spoils = self.moves.worse(&then);
            if spoils.is_none() || spoiled.is_none() {
                let way = self.told(name, says.join(" · "), (&shot, &then))?;
                if spoils.is_none() {
                    return Some(way);
                }
                spoiled = Some(EvenWay { spoils, ..way });
            }
        }
        spoiled
    }

    fn moves(&self, put: &Put) -> bool {
        (put.at - self.lamps[put.light].at).length() > 0.01
    }

    /// A flag was made for where its light stood.
    fn flag_goes(&self, put: &Put) -> bool {
        self.moves.shot.lights[put.light].flag.is_some() && self.moves(put)
    }

    fn flag_words(&self, put: &Put) -> &'static str {
        if self.flag_goes(put) { ", its flag off" } else { "" }
    }

    fn differs(&self, put: &Put) -> bool {
        self.moves(put) || put.power != self.moves.plan.settings.lights[put.light].power
    }

    fn lamp_at(&self, put: &Put) -> Lamp {
        let (from, now) = (self.lamps[put.light], self.moves.plan.settings.lights[put.light].power);
        Lamp { at: put.at, strength: from.strength * put.power / now, ..from }
    }

    /// Where a light may be put on its own line, and how bright: what is locked on the Bench stays, and, where that is asked,
    /// what does harm by itself is left out.
    fn choices(&self, light: usize, ratios: Ratios, harmless: bool) -> Vec<Put> {
        let (plan, shot) = (self.moves.plan, self.moves.shot);
        let (of, dial, lamp) = (&plan.lights[light], &plan.settings.lights[light], self.lamps[light]);
        let locked = |control: Held| shot.hold.contains(&control);
        let way = lamp.at - CHEST;
        let now = Put { light, at: lamp.at, power: dial.power };
        let mut places = vec![lamp.at];
        if !locked(Held::FlashDistance) {
            let there = SHARES.map(|share| strips::nearest_distance(plan.lengths, dial.distance * share).as_metres());
            let there = there.into_iter().filter(|there| *there <= FARTHEST_M.max(way.length()));
            let there = there.filter(|there| bounds::FLASH_DISTANCE.check("distance_m", *there).is_ok());
            let free = there.map(|there| CHEST + way.unit() * there).filter(|at| !self.shown(light, *at));
            places.extend(free);
        }
        let mut all = vec![now];
        for at in places {
            let as_bright = dial.power * lamp.on(CHEST) / Lamp { at, ..lamp }.on(CHEST);
            let thirds = if ratios == Ratios::Kept { 0 } else { THIRDS };
            for third in -thirds..=thirds {
                let asked = as_bright * Stops::from_stops(f64::from(third) / 3.0).as_ratio();
                let power = if locked(Held::Power) { dial.power } else { of.unit.nearest_power(asked) };
                let put = Put { light, at, power };
                let known = all.iter().any(|other: &Put| other.at == at && other.power == power);
                let there = (power / asked).log2().abs() <= OTHER_POWER;
                if !known && there && !(harmless && self.moves.harms_alone(light, at, power)) {
                    all.push(put);
                }
            }
        }
        all
    }

    fn carried_words(&self, plan: &Plan, put: &Put) -> String {
        let (of, dial) = (&plan.lights[put.light], &plan.settings.lights[put.light]);
        let back = noted(put.at).2 - dial.distance.as_metres();
        let way = if back >= 0.0 { "back" } else { "closer" };
        let moved =
            if back.abs() < 0.05 { String::new() } else { format!(" {} {way},", plan.lengths.say(back.abs(), 1)) };
        format!("{}{moved} {}{}", of.label, of.unit.dial.label(put.power), self.flag_words(put))
    }

    /// Where a light stands and shines, in words.
    fn placed_words(&self, put: &Put) -> String {
        let plan = self.moves.plan;
        let (bearing, _, distance) = noted(put.at);
        let far = strips::distance_label(plan.lengths, Metres::from_metres(distance));
        let of = &plan.lights[put.light];
        let dial = of.unit.dial.label(put.power);
        format!("{} {far} at {}, {dial}{}", of.label, clock_words(bearing), self.flag_words(put))
    }

    /// The power of its dial with which a light gives so much at the mark's chest from a place.
    fn powered(&self, light: usize, at: Spot, wanted: f64) -> Put {
        let dial = &self.moves.plan.settings.lights[light];
        let gives = Lamp { at, ..self.lamps[light] }.on_dome(CHEST, self.moves.lens.view.eye);
        let power = self.moves.plan.lights[light].unit.nearest_power((dial.power * wanted / gives).clamp(1e-9, 1e9));
        Put { light, at, power }
    }

    /// Two of them in the corners before the subject, four in all corners, each giving as much at the mark.
    fn in_the_corners(&self) -> Option<EvenWay> {
        let count = match self.carried.len() {
            0 | 1 => return None,
            2 | 3 => 2,
            _ => 4,
        };
        let mut lights = self.carried[..count].to_vec();
        let at = |light: &usize| self.lamps[*light].at;
        // The nearest to the camera stay before the subject, and each on its side.
        lights.sort_by(|a, b| at(a).y.total_cmp(&at(b).y));
        for pair in lights.chunks_mut(2) {
            pair.sort_by(|a, b| at(a).x.total_cmp(&at(b).x));
        }
        let eye = self.moves.lens.view.eye;
        let share = lights.iter().map(|light| self.lamps[*light].on_dome(CHEST, eye)).sum::<f64>() / count as f64;
        let puts: Option<Vec<Put>> = { lights.iter().zip([(-1.0, -1.0), (1.0, -1.0), (-1.0, 1.0), (1.0, 1.0)]) }
            .map(|(light, corner)| Some(self.powered(*light, self.corner(*light, corner)?, share)))
            .collect();
        let puts = puts?;
        let says: Vec<String> = puts.iter().map(|put| self.placed_words(put)).collect();
        self.judged("In the corners", says.join(" · "), &puts, &[])
    }

    /// A corner of the room; where there is none, outside a corner of the area, as far as the lens does not see it.
    fn corner(&self, light: usize, (right, far): (f64, f64)) -> Option<Spot> {
        let high = self.lamps[light].at.z;
        if let Some(room) = &self.moves.shot.room {
            let x = if right < 0.0 { room.left_m + OFF_WALL_M } else { room.right_m - OFF_WALL_M };
            let y = if far < 0.0 { room.near_m + OFF_WALL_M } else { room.far_m - OFF_WALL_M };
            // On a boom it is the stand that is in the corner.
            let arm = self.moves.plan.lights[light].boom.unwrap_or(0.0);
            let flat = x.hypot(y).max(1e-9);
            let in_by = ((flat - arm) / flat).max(0.0);
            return Some(spot(x * in_by, y * in_by, high.min(room.ceiling_m - UNDER_CEILING_M)));
        }
        let edge = |(low, top): (f64, f64), side: f64| if side < 0.0 { low } else { top };
        let (x, y) = (edge(self.region.x, right), edge(self.region.y, far));
        let flat = x.hypot(y).max(1e-9);
        let steps = (FARTHEST_CORNER_M / STEP_M) as usize;
        (0..=steps)
            .map(|step| flat + OUTSIDE_M + step as f64 * STEP_M)
            .take_while(|away| *away <= FARTHEST_CORNER_M)
            .map(|away| spot(x / flat * away, y / flat * away, high))
            .find(|at| !self.shown(light, *at))
    }

    /// The key alone, over the camera's own line, the others off.
    fn one_in_the_middle(&self) -> Option<EvenWay> {
        let plan = self.moves.plan;
        let (key, rest): (Vec<usize>, Vec<usize>) = self.carried.iter().partition(|light| **light == plan.key);
        let (key, lens) = (*key.first()?, &self.moves.lens);
        if rest.is_empty() {
            return None;
        }
        let from = self.lamps[key].at;
        let far = from.x.hypot(from.y);
        let most = lens.view.distance + FARTHEST_M;
        let steps = ((most - far).max(0.0) / STEP_M) as usize;
        let over = |step: usize| spot(0.0, -(far + step as f64 * STEP_M), from.z.max(lens.view.eye.z + OUTSIDE_M));
        let at = (0..=steps).map(over).find(|at| !self.shown(key, *at))?;
        let wanted = self.carried.iter().map(|light| self.lamps[*light].on_dome(CHEST, lens.view.eye)).sum();
        let put = self.powered(key, at, wanted);
        let off: Vec<&str> = rest.iter().map(|light| plan.lights[*light].label.as_str()).collect();
        let says = format!("{} · {} off", self.placed_words(&put), off.join(", "));
        self.judged("One in the middle", says, &[put], &rest)
    }

    /// How it is at the mark against now, and how the lighting ratio changes.
    fn at_mark_words(&self, stops: f64, ratio: Stops) -> String {
        let mark = if stops.abs() <= AS_BRIGHT {
            "as bright at the mark".to_owned()
        } else {
            format!("{} at the mark", signed(stops))
        };
        let now = self.moves.seen.subject.ratio();
        let apart = (ratio - now).as_stops().abs();
        // Two that are endless are the same.
        if apart.is_nan() || apart < SAME_RATIO {
            mark
        } else {
            format!("{mark}, ratio {} → {}", times(now), times(ratio))
        }
    }
}
