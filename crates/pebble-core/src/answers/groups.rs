//! People in rows: how deep and wide they stand, and what depth of field for them costs on each light.

use crate::answers::hold::{Followed, Held, TOLERANCE, hold, written_depth, written_moves};
use crate::answers::strips;
use crate::outlook::outlook;
use crate::physics::depth::depth;
use crate::plan::{Plan, Settings, group};
use crate::quantity::Metres;
use crate::quantity::bounds::Invalid;
use crate::quantity::scale::Aperture;
use crate::wire::report;

pub use crate::file::group::GroupShape;

/// Shoulder to shoulder.
const PERSON_WIDTH_M: f64 = 0.55;
/// Nose to back of the head, and feet that do not stand on a line.
const PERSON_DEPTH_M: f64 = 0.3;
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
    group::check(shapes)?;
    Ok(shapes.iter().map(|shape| answer(plan, shape)).collect())
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
