//! People in rows, checked.

use crate::file::group::GroupShape;
use crate::quantity::bounds::{self, Invalid};

/// Groups of one shot at most.
const MOST_GROUPS: usize = 12;

/// Whether groups can be.
pub(crate) fn check(shapes: &[GroupShape]) -> Result<(), Invalid> {
    if shapes.len() > MOST_GROUPS {
        return Err(Invalid::NotAllowed {
            field: "groups".to_owned(),
            given: format!("a list of {}", shapes.len()),
            allowed: "a list of at most 12 groups".to_owned(),
        });
    }
    shapes.iter().enumerate().try_for_each(|(index, shape)| check_one(index, shape))
}

fn check_one(index: usize, shape: &GroupShape) -> Result<(), Invalid> {
    let field = |name: &str| format!("groups[{index}].{name}");
    bounds::PEOPLE.check(&field("people"), f64::from(shape.people))?;
    bounds::ROWS.check(&field("rows"), f64::from(shape.rows))?;
    bounds::ROW_GAP.check(&field("row_gap_m"), shape.row_gap_m)?;
    bounds::CURVE.check(&field("curve_m"), shape.curve_m)?;
    if shape.rows > shape.people {
        return Err(Invalid::Contradiction {
            field: field("rows"),
            given: shape.rows.to_string(),
            reason: format!("there are only {} people", shape.people),
        });
    }
    Ok(())
}
