//! People in rows: how deep and wide they stand, and what depth of field for them costs on each light.

use crate::depth::depth;
use crate::hold::{Followed, Held, TOLERANCE, hold, written_depth, written_moves};
use crate::outlook::outlook;
use crate::plan::{Plan, Settings};
use crate::quantity::Metres;
use crate::quantity::bounds::{self, Invalid};
use crate::quantity::scale::Aperture;
use crate::strips;
use crate::wire::{report, wire};

/// Shoulder to shoulder.
const PERSON_WIDTH_M: f64 = 0.55;
/// Nose to back of the head, and feet that do not stand on a line.
const PERSON_DEPTH_M: f64 = 0.3;
/// Groups of one shot at most.
const MOST_GROUPS: usize = 12;

wire! {
    /// How a group stands.
    pub struct GroupShape {
        /// How many.
        pub people: u32,
        /// In how many rows.
        pub rows: u32,
        /// From row to row.
        pub row_gap_m: f64,
        /// How far the ends of a row come forward, towards the camera.
        pub curve_m: f64,
    }
}

report! {
    /// What a group takes.
    pub struct GroupAnswer {
        /// Nearest nose to farthest head.
        pub depth_m: f64,
        /// Width of the longest row.
        pub width_m: f64,
        /// Whether that is within the frame at the subject's distance.
        pub fits: bool,
        /// Distance from which it would be, with this lens.
        pub fits_from_m: f64,
        /// The widest aperture that holds all of them, as written; `null` when none on the lens does.
        pub aperture: Option<String>,
        /// From where to where it is then sharp.
        pub sharp: String,
        /// What has to be turned, on the camera and on each light; the flash stays where it falls.
        pub changes: Vec<Followed>,
        /// The same as one says it.
        pub said: String,
        /// Why it cannot be held; nothing when it can.
        #[serde(skip_serializing_if = "Option::is_none")]
        pub not: Option<String>,
    }
}

impl GroupShape {
    /// Depth from the nearest to the farthest. A lens is sharp in a plane, not at a distance: a row that curves towards the
    /// camera adds its curve.
    fn depth_m(&self) -> f64 {
        PERSON_DEPTH_M + f64::from(self.rows - 1) * self.row_gap_m + self.curve_m
    }

    fn width_m(&self) -> f64 {
        f64::from(self.people.div_ceil(self.rows)) * PERSON_WIDTH_M
    }
}

/// What each group takes, in the order given.
///
/// # Errors
/// [`Invalid`] for a figure out of range or too many groups.
pub fn groups(plan: &Plan, shapes: &[GroupShape]) -> Result<Vec<GroupAnswer>, Invalid> {
    check(shapes)?;
    Ok(shapes.iter().map(|shape| answer(plan, shape)).collect())
}

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

fn answer(plan: &Plan, shape: &GroupShape) -> GroupAnswer {
    let (deep, wide) = (shape.depth_m(), shape.width_m());
    let seen = outlook(plan);
    let (field, _) = seen.field(plan);
    let holds = |aperture: &Aperture| {
        let zone = depth(plan.body.focal, *aperture, plan.subject_distance, seen.allowed);
        let half = Metres::from_metres(deep / 2.0);
        plan.subject_distance - half >= zone.near && zone.far.is_none_or(|far| far >= plan.subject_distance + half)
    };
    let found = strips::apertures(&plan.body).find(holds);
    let aperture = found.or_else(|| strips::apertures(&plan.body).last()).unwrap_or(plan.settings.aperture);
    let at = plan.with(Settings { aperture, ..plan.settings });
    // The lights pay for it; what they do not have the ISO gives.
    let kept = [Held::Key, Held::Aperture, Held::Shutter, Held::Filter, Held::FlashDistance];
    let held = hold(plan, &at, &kept, None);
    let short = held.gave.iter().filter_map(|gave| gave.by_stops).map(f64::abs).fold(0.0, f64::max);
    let zone = depth(plan.body.focal, aperture, plan.subject_distance, seen.allowed);
    let not = if found.is_none() {
        Some("No aperture of this lens holds all of them: fewer rows, more distance, or a shorter lens.".to_owned())
    } else if short > TOLERANCE.max(0.17) {
        Some(format!("The lights and the ISO are at their end, {short:.1} stops short."))
    } else {
        None
    };
    GroupAnswer {
        depth_m: deep,
        width_m: wide,
        fits: wide <= field.as_metres(),
        fits_from_m: plan.subject_distance.as_metres() * wide / field.as_metres(),
        aperture: found.map(|aperture| aperture.label(plan.body.grid)),
        sharp: written_depth(&zone),
        changes: written_moves(plan, &held.settings),
        said: strips::said(plan, &held.settings),
        not,
    }
}
