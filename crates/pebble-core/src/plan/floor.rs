//! The area and the sheet, checked.

use crate::file::floor::{Area, BackSheet};
use crate::plan::check::At;
use crate::quantity::bounds::{self, Invalid, Limits};

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
