//! The area and the sheet, checked.

use crate::file::floor::{Area, BackSheet, Flag, Room, WayAlong};
use crate::plan::check::At;
use crate::quantity::bounds::{self, Invalid, Limits};
use crate::stage::CHEST_M;
use crate::stage::flag;
use crate::stage::path::Path;
use crate::stage::space::spot;

/// Across, away and up, each from one end to the other.
pub(super) fn area(wire: &Area) -> Result<[(f64, f64); 3], Invalid> {
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
    Ok([
        side(("left_m", wire.left_m), ("right_m", wire.right_m), &bounds::STANDS, false)?,
        side(("near_m", wire.near_m), ("far_m", wire.far_m), &bounds::STANDS, false)?,
        side(("low_m", wire.low_m), ("high_m", wire.high_m), &bounds::LIFTED, true)?,
    ])
}

/// Width and height.
pub(super) fn sheet(wire: &BackSheet) -> Result<(f64, f64), Invalid> {
    let at = At::new("sheet");
    let side = |name: &str, value| bounds::SHEET.check(&at.of(name), value);
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
        let each = |value| bounds::STANDS.check(&at.of(name), value);
        Ok(spot(each(x)?, each(y)?, CHEST_M))
    };
    let (from, to) = (end("from_m", wire.from_m)?, end("to_m", wire.to_m)?);
    if (to - from).length() < SHORTEST_WAY_M {
        let reason = "it begins there: a way has a length".to_owned();
        return Err(at.contradiction("to_m", format!("[{}, {}] m", wire.to_m[0], wire.to_m[1]), reason));
    }
    Ok(Path { from, to, speed: bounds::ALONG.check(&at.of("speed_m_s"), wire.speed_m_s)? })
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
        ceiling: bounds::CEILING.check(&at.of("ceiling_m"), wire.ceiling_m)?,
    })
}
