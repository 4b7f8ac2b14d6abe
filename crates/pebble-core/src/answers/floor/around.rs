//! What the lights do around the subject: to its shadow, to what is behind, along a way, and to the ends of the area.

use super::said::{AlongSaid, BehindSaid};
use crate::file::shot::Role;
use crate::outlook::Outlook;
use crate::physics::exposure::{CLIP_LEVEL, Level};
use crate::plan::{Light, Plan};
use crate::quantity::Stops;
use crate::quantity::words::signed;
use crate::stage::field::{CHEST, Lamp, Shining};
use crate::stage::lens::Lens;
use crate::stage::path::Path;
use crate::stage::region::Region;
use crate::stage::shadow::{Capsule, Shadow, shadows as fall};
use crate::stage::sheet::lit;
use crate::stage::space::{Spot, spot};

/// Who stands there is so wide to a light, in metres.
const FIGURE_WIDE_M: f64 = 0.5;
/// And so high where nobody is composed.
const FIGURE_HIGH_M: f64 = 1.8;
/// A shadow that takes less than a third of a stop is not noticed.
const FAINT: f64 = -0.34;
/// Places along a way that are told.
const TOLD: usize = 49;
/// As far behind the mark as a background is carried to be black, in tenths of a metre.
const FARTHEST_BEHIND_TENTHS: u32 = 200;
/// More than this over white comes back from the background into the edges of who stands before it, in stops.
const WHITE_OVER: f64 = 0.7;

/// What the frame gets of each light, in space.
fn in_frame(seen: &Outlook, lamps: &[Lamp]) -> Vec<(Shining, f64)> {
    let share = |index: usize| if seen.lights[index].fires { seen.lights[index].share } else { 0.0 };
    lamps.iter().enumerate().map(|(index, lamp)| (lamp.shining(), share(index))).collect()
}

/// The shadows of who stands on the mark, by each light.
pub(super) fn shadows(plan: &Plan, seen: &Outlook, lens: &Lens, lamps: &[Lamp]) -> Vec<Shadow> {
    let people = &plan.stage.composition.people;
    let high = people.first().map_or(FIGURE_HIGH_M, |subject| subject.height_m);
    let steady = seen.reference.as_lux_seconds() * seen.background.placement.as_ratio();
    let straight: Vec<(Shining, f64)> = { in_frame(seen, lamps).into_iter().zip(plan.lights.iter()) }
        .map(|((lamp, share), light)| (lamp, if light.bounce.is_none() { share } else { 0.0 }))
        .collect();
    fall(lens, Capsule { high, wide: FIGURE_WIDE_M }, &straight, steady)
}

/// In words: where it falls, and how deep.
pub(super) fn shadow_says(shadow: &Shadow) -> Option<String> {
    let one = |place: &str, fallen: Option<crate::stage::shadow::Fallen>| {
        let deep = fallen?.left.log2();
        (deep < FAINT).then(|| format!("{place} {}", signed(deep.max(-12.0))))
    };
    let said: Vec<String> =
        [one("behind", shadow.behind), one("on the floor", shadow.floor)].into_iter().flatten().collect();
    (!said.is_empty()).then(|| said.join(", "))
}

/// Front and back, left and right, head and foot against the mark.
pub(super) fn ends(region: &Region, light: impl Fn(Spot) -> f64) -> String {
    let middle = light(CHEST).log2();
    let at = |(x, y): (f64, f64), z: f64| signed((light(spot(x, y, z)).log2() - middle).clamp(-20.0, 20.0));
    let [front, back] = region.front_and_back().map(|end| at(end, CHEST.z));
    let [left, right] = region.left_and_right().map(|end| at(end, CHEST.z));
    let [head, foot] = [region.z.1, region.z.0].map(|z| at((0.0, 0.0), z));
    format!("front {front}, back {back} · left {left}, right {right} · head {head}, foot {foot}")
}

/// What the lights put on the background, with the steady light there.
pub(super) fn behind(plan: &Plan, seen: &Outlook, lens: &Lens, lamps: &[Lamp]) -> Option<BehindSaid> {
    let lamps = in_frame(seen, lamps);
    let hangs = lens.behind;
    let level = |lens: &Lens| {
        // Lights that are for it go back with it.
        let with_it = |light: &Light| if light.role == Role::Backdrop { lens.behind - hangs } else { 0.0 };
        let moved = lamps.iter().zip(plan.lights.iter());
        let lamps: Vec<(Shining, f64)> =
            moved.map(|((lamp, share), light)| (lamp.moved(spot(0.0, with_it(light), 0.0)), *share)).collect();
        let (dark, bright) = lit(lens, lens.behind, plan.sheet, &lamps)?;
        let steady = seen.background.placement.as_ratio();
        let level = |flash: f64| {
            let all = flash / seen.reference.as_lux_seconds() + steady;
            Level::of_surface(plan.background_reflectance, Stops::from_ratio(all))
        };
        Some((level(dark), level(bright)))
    };
    let (dark, bright) = level(lens)?;
    let placed = |level: Level| (level.value() > 0.0).then(|| level.placement().as_stops());
    let said = |level: Level| placed(level).map_or_else(|| "no light".to_owned(), signed);
    let range = format!(
        "{} to {} in the frame, L* {:.0} to {:.0}",
        said(dark),
        said(bright),
        dark.lightness(),
        bright.lightness()
    );
    let (low, high) = (placed(dark), placed(bright));
    let verdict = if bright.reads_as_black() {
        "reads as black".to_owned()
    } else if dark.value() >= CLIP_LEVEL {
        let over = (bright.value() / CLIP_LEVEL).log2();
        let eats = if over > WHITE_OVER { ", which eats into edges" } else { "" };
        format!("white all over, {} over white at most{eats}", signed(over))
    } else {
        // Carried back as it hangs, until all of it is black: the farther, the darker, so halves are enough.
        let black = |tenths: u32| {
            let farther = Lens { behind: f64::from(tenths) / 10.0, ..*lens };
            level(&farther).is_some_and(|(_, bright)| bright.reads_as_black())
        };
        let (mut not, mut is) = ((10.0 * lens.behind) as u32, FARTHEST_BEHIND_TENTHS);
        let ever = not < is && black(is);
        while ever && is - not > 1 {
            let middle = (not + is) / 2;
            if black(middle) { is = middle } else { not = middle }
        }
        match ever.then_some(is) {
            Some(tenths) => {
                format!("reads as black from {} behind the mark", plan.lengths.say(f64::from(tenths) / 10.0, 1))
            }
            None => "never reads as black: the steady light alone is more".to_owned(),
        }
    };
    Some(BehindSaid {
        dark_stops: low,
        bright_stops: high,
        dark_lightness: dark.lightness(),
        bright_lightness: bright.lightness(),
        says: format!("{range}; {verdict}."),
    })
}

/// The light of all that are meant for the subject along a way, each turned to it. What sits on the camera is turned to whoever
/// comes, and comes along where the camera does.
pub(super) fn along(plan: &Plan, way: &Path, (all, lamps): (&[usize], &[Lamp])) -> AlongSaid {
    let shining: Vec<(usize, Shining)> = all.iter().map(|index| (*index, lamps[*index].shining())).collect();
    let at = |place: Spot, goes_along: bool| {
        let of = |(index, lamp): &(usize, Shining)| match (plan.lights[*index].on_camera, goes_along) {
            (false, _) => lamp.on(place),
            (true, false) => lamps[*index].aimed_at(place),
            (true, true) => lamps[*index].aimed_at(CHEST),
        };
        shining.iter().map(of).sum::<f64>()
    };
    let found = way.along(|place| at(place, way.camera_goes_along), TOLD);
    let length = way.length();
    let seconds = |metres: f64| metres / way.speed;
    let say = |metres: f64| plan.lengths.say(metres, 1);
    let press = match found.press {
        Some((from, to)) => format!(
            "By hand: press between {} and {} of the way, {:.2} s; within a third of the mark.",
            say(from),
            say(to),
            seconds(to - from)
        ),
        None => {
            "By hand: nowhere on it is the light as at the mark; lay it through the light, or set for another place."
                .to_owned()
        }
    };
    let (low, high) = found
        .stops
        .iter()
        .fold((f64::INFINITY, f64::NEG_INFINITY), |ends, stops| (ends.0.min(*stops), ends.1.max(*stops)));
    let automatic = format!(
        " An automatic would have to give {} to {} as they come.",
        signed(-high.clamp(-20.0, 20.0)),
        signed(-low.clamp(-20.0, 20.0))
    );
    // With a light on the camera, whether that goes along is the first thing to choose.
    let otherwise = all.iter().any(|index| plan.lights[*index].on_camera).then(|| {
        let other = way.along(|place| at(place, !way.camera_goes_along), TOLD);
        let then = match other.press {
            Some((from, to)) if to - from > length - 0.01 => "all of the way is".to_owned(),
            Some((from, to)) => format!("{} of the way are", say(to - from)),
            None => "none of the way is".to_owned(),
        };
        let camera = if way.camera_goes_along { "stays" } else { "goes along" };
        format!(" If the camera {camera}, {then} within a third.")
    });
    AlongSaid {
        length_m: length,
        lasts_s: seconds(length),
        from_m: [way.from.x, way.from.y],
        to_m: [way.to.x, way.to.y],
        change_stops: found.change.clamp(0.0, 40.0),
        press_m: found.press.map(|(from, to)| [from, to]),
        press_s: found.press.map(|(from, to)| seconds(to - from)),
        says: format!(
            "{press}{automatic} Steepest {:.1} stops a metre.{}",
            found.steepest.clamp(0.0, 99.0),
            otherwise.unwrap_or_default()
        ),
        stops: found.stops.into_iter().map(|stops| stops.clamp(-20.0, 20.0)).collect(),
    }
}
