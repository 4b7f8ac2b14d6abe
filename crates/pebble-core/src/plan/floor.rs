//! The area and the sheet, checked.

use crate::file::floor::{Area, BackSheet, Flag, Room, WayAlong};
use crate::file::shot::Role;
use crate::plan::Plan;
use crate::plan::check::At;
use crate::quantity::bounds::{self, Invalid, Limits};
use crate::stage::CHEST_M;
use crate::stage::field::{CHEST, Turned};
use crate::stage::flag;
use crate::stage::outline::Outline;
use crate::stage::path::Path;
use crate::stage::region::Region;
use crate::stage::space::{Spot, spot};

/// What a light's distance, bearing and height are measured to, and what it is aimed at unless it is turned: the chest of who
/// stands on the mark; of one that is for the backdrop the middle of that, so far behind the mark.
pub(crate) fn measured_to(role: Role, behind_m: f64) -> Spot {
    if role == Role::Backdrop { spot(0.0, behind_m, CHEST_M) } else { CHEST }
}

impl Plan {
    /// What a light's distance, bearing and height are measured to.
    pub fn measured_to(&self, light: usize) -> Spot {
        measured_to(self.lights[light].role, self.background_behind.as_metres())
    }

    /// How a light's axis is turned away from the line to the chest at a place.
    pub fn turned(&self, light: usize, at: Spot) -> Option<Turned> {
        match self.lights[light].role {
            Role::Backdrop => Turned::at(at, self.measured_to(light)),
            _ => self.lights[light].turned,
        }
    }
}

/// Its outline's corners are shares of the rectangle.
pub(super) fn area(wire: &Area) -> Result<Region, Invalid> {
    let at = At::new("area");
    let side = |low: (&str, f64), high: (&str, f64), limits: &Limits, may_be_flat: bool| {
        let from = limits.check(&at.of(low.0), low.1)?;
        let to = limits.check(&at.of(high.0), high.1)?;
        if from > to || (from == to && !may_be_flat) {
            let reason = format!("{} is {to}: it has no room between them", high.0);
            return Err(at.contradiction(low.0, format!("{from} m"), reason));
        }
        Ok((from, to))
    };
    let x = side(("left_m", wire.left_m), ("right_m", wire.right_m), &bounds::STANDS, false)?;
    let y = side(("near_m", wire.near_m), ("far_m", wire.far_m), &bounds::STANDS, false)?;
    let z = side(("low_m", wire.low_m), ("high_m", wire.high_m), &bounds::LIFTED, true)?;
    if wire.corners.is_empty() {
        return Ok(Region::between(x, y, z));
    }
    let mut corners = Vec::with_capacity(wire.corners.len());
    for share in &wire.corners {
        let [across, away] = share.map(|share| at.figure("corners", share, &bounds::SHARE));
        let along = |(from, to): (f64, f64), share: f64| from + (to - from) * share;
        corners.push((along(x, across?), along(y, away?)));
    }
    let outline = Outline::of(&corners);
    let outline =
        outline.map_err(|why| at.contradiction("corners", format!("{} corners", corners.len()), why.to_string()))?;
    Ok(Region::inside(outline, z))
}

/// Width and height.
pub(super) fn sheet(wire: &BackSheet) -> Result<(f64, f64), Invalid> {
    let at = At::new("sheet");
    let side = |name: &str, value| at.figure(name, value, &bounds::SHEET);
    Ok((side("width_m", wire.width_m)?, side("height_m", wire.height_m)?))
}

/// A flag of a light.
pub(super) fn flag(at: &At, wire: &Flag) -> Result<flag::Flag, Invalid> {
    let place = |name: &str, value, limits: &Limits| limits.check(&at.of(name), value);
    Ok(flag::Flag {
        at: spot(
            place("x_m", wire.x_m, &bounds::STANDS)?,
            place("y_m", wire.y_m, &bounds::STANDS)?,
            place("z_m", wire.z_m, &bounds::LIFTED)?,
        ),
        wide: place("width_m", wire.width_m, &bounds::FLAG)?,
        high: place("height_m", wire.height_m, &bounds::FLAG)?,
    })
}

/// A way, at the height of a chest.
pub(super) fn way(wire: &WayAlong) -> Result<Path, Invalid> {
    let at = At::new("way");
    let end = |name: &str, [x, y]: [f64; 2]| {
        let each = |value| at.figure(name, value, &bounds::STANDS);
        Ok(spot(each(x)?, each(y)?, CHEST_M))
    };
    let (from, to) = (end("from_m", wire.from_m)?, end("to_m", wire.to_m)?);
    if (to - from).length() < SHORTEST_WAY_M {
        let reason = "it begins there: a way has a length".to_owned();
        return Err(at.contradiction("to_m", format!("[{}, {}] m", wire.to_m[0], wire.to_m[1]), reason));
    }
    Ok(Path {
        from,
        to,
        camera_goes_along: wire.camera_goes_along,
        speed: at.figure("speed_m_s", wire.speed_m_s, &bounds::ALONG)?,
    })
}

/// Shorter is a place, in metres.
const SHORTEST_WAY_M: f64 = 0.1;

/// A room that was checked: across, away, and up to the ceiling, in metres.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Walls {
    /// From the left wall to the right one.
    pub x: (f64, f64),
    /// From the wall behind the camera to that behind the subject.
    pub y: (f64, f64),
    /// The ceiling.
    pub ceiling: f64,
}

/// What is put into a room keeps this off its walls, in metres.
const OFF_WALLS_M: f64 = 0.1;

impl Walls {
    /// The wall or the ceiling that something of a radius is beyond.
    pub fn beyond(&self, at: Spot, radius: f64) -> Option<&'static str> {
        let walls = [
            (at.z + radius > self.ceiling, "the ceiling"),
            (at.x - radius < self.x.0, "the left wall"),
            (at.x + radius > self.x.1, "the right wall"),
            (at.y - radius < self.y.0, "the wall behind the camera"),
            (at.y + radius > self.y.1, "the wall behind the subject"),
        ];
        walls.into_iter().find(|(is, _)| *is).map(|(_, wall)| wall)
    }

    /// The place that a place of another room is in this one: what stands in a corner there stands in that corner here.
    pub fn as_in(&self, other: &Self, at: Spot) -> Spot {
        let share = |value: f64, there: (f64, f64), here: (f64, f64)| {
            if value < 0.0 { value * here.0 / there.0 } else { value * here.1 / there.1 }
        };
        spot(share(at.x, other.x, self.x), share(at.y, other.y, self.y), at.z)
    }

    /// The nearest place at which something of a radius is between the walls; the middle where it is larger than the room.
    pub fn holding(&self, at: Spot, radius: f64) -> Spot {
        let off = radius + OFF_WALLS_M;
        let between = |value: f64, (low, high): (f64, f64)| {
            let (low, high) = (low + off, high - off);
            if low > high { (low + high) / 2.0 } else { value.clamp(low, high) }
        };
        spot(between(at.x, self.x), between(at.y, self.y), at.z.min(self.ceiling - off))
    }
}

/// The room.
pub(super) fn room(wire: &Room) -> Result<Walls, Invalid> {
    let at = At::new("room");
    let side = |low: (&str, f64), high: (&str, f64)| {
        let from = bounds::STANDS.check(&at.of(low.0), low.1)?;
        let to = bounds::STANDS.check(&at.of(high.0), high.1)?;
        if from >= 0.0 || to <= 0.0 {
            let (name, given) = if from >= 0.0 { (low.0, from) } else { (high.0, to) };
            return Err(at.contradiction(name, format!("{given} m"), "the mark stands within the room".to_owned()));
        }
        Ok((from, to))
    };
    Ok(Walls {
        x: side(("left_m", wire.left_m), ("right_m", wire.right_m))?,
        y: side(("near_m", wire.near_m), ("far_m", wire.far_m))?,
        ceiling: at.figure("ceiling_m", wire.ceiling_m, &bounds::CEILING)?,
    })
}
