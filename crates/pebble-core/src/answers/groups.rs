//! People in rows: how deep and wide they stand, and what depth of field for them costs on each light.

use crate::answers::conditions::{self, Matter};
use crate::answers::hold::{Followed, Held, hold, written_depth, written_moves};
use crate::answers::strips;
use crate::outlook::{Outlook, outlook};
use crate::physics::depth::depth;
use crate::plan::{Plan, Settings, group};
use crate::quantity::bounds::{self, Invalid};
use crate::quantity::scale::Aperture;
use crate::quantity::{Metres, Stops};
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
        /// How far the camera steps back for it; nothing when it stays.
        #[serde(skip_serializing_if = "Option::is_none")]
        pub back_m: Option<f64>,
        /// The widest aperture that holds all of them, as written; `null` when none on the lens does.
        pub aperture: Option<String>,
        /// From where to where it is then sharp.
        pub sharp: String,
        /// What has to be turned, on the camera and on each light; flash and steady light stay where they fall.
        pub changes: Vec<Followed>,
        /// What then becomes of each light and of the steady light, a sentence each.
        pub becomes: Vec<String>,
        /// What else of the picture it makes worse, in words; nothing when it harms nothing.
        pub spoils: Option<String>,
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

/// Lights may be off by this much, half a third of a stop, before a group cannot be lit.
const SHORT: f64 = 0.17;
/// Steps back are paced out.
const PACE_M: f64 = 0.1;

fn answer(plan: &Plan, shape: &GroupShape) -> GroupAnswer {
    let (deep, wide) = (shape.depth_m(), shape.width_m());
    let before = outlook(plan);
    let (field, _) = before.field(plan);
    let here = plan.subject_distance.as_metres();
    let (fits, fits_from) = (wide <= field.as_metres(), here * wide / field.as_metres());
    // Who does not fit is looked at from farther away; the lights stay with the group.
    let from = if fits { here } else { (fits_from / PACE_M).ceil() * PACE_M };
    let back = bounds::SUBJECT_DISTANCE.check("", from).is_ok() && !fits;
    let stands = plan.seen_from(Metres::from_metres(if back { from } else { here }));
    let seen = outlook(&stands);
    let holds = |aperture: &Aperture| {
        let zone = depth(stands.body.focal, *aperture, stands.subject_distance, seen.allowed);
        let half = Metres::from_metres(deep / 2.0);
        stands.subject_distance - half >= zone.near && zone.far.is_none_or(|far| far >= stands.subject_distance + half)
    };
    // The lights pay for it, the shutter for the sky; what they do not have the ISO gives.
    let kept = [Held::Key, Held::Ratios, Held::Ambient, Held::Aperture, Held::Filter, Held::FlashDistance, Held::Lamps];
    let paid = |aperture: Aperture| {
        let held = hold(&stands, &stands.with(Settings { aperture, ..plan.settings }), &kept, None);
        let short = held.gave.iter().filter_map(|gave| gave.by_stops).map(f64::abs).fold(0.0, f64::max);
        (aperture, held, short)
    };
    // The widest that holds all of them and that the lights can follow; else the widest that holds them.
    let mut deep_enough = strips::apertures(&plan.body).filter(holds).peekable();
    let found = deep_enough.peek().copied();
    let followed = deep_enough.map(paid).find(|(.., short)| *short <= SHORT);
    let narrowest = strips::apertures(&plan.body).last().unwrap_or(plan.settings.aperture);
    let (aperture, held, short) = followed.unwrap_or_else(|| paid(found.unwrap_or(narrowest)));
    let found = found.map(|_| aperture);
    let then = stands.with(held.settings);
    let after = outlook(&then);
    // The depth is what it is all about; whatever else of the picture it spoils is said before it is taken.
    let spoils = conditions::worse(&conditions::all(plan, &before), &then, &after, |matter| matter != Matter::Depth)
        .map(|worse| format!("This {}.", worse.cost(plan)));
    let zone = depth(plan.body.focal, aperture, stands.subject_distance, seen.allowed);
    let not = if found.is_none() {
        Some("No aperture of this lens holds all of them: fewer rows, more distance, or a shorter lens.".to_owned())
    } else if short > SHORT {
        let first =
            held.gave.iter().max_by(|a, b| a.by_stops.unwrap_or(9.0).abs().total_cmp(&b.by_stops.unwrap_or(9.0).abs()));
        Some(first.map_or_else(String::new, |gave| gave.sentence.clone()))
    } else {
        None
    };
    let mut changes = written_moves(plan, &held.settings);
    if back {
        let words = format!("camera {} back", plan.lengths.say(from - here, 1));
        changes.push(Followed { pointer: "/subject/distance_m".to_owned(), value: strips::Value::Number(from), words });
    }
    GroupAnswer {
        depth_m: deep,
        width_m: wide,
        fits,
        fits_from_m: fits_from,
        back_m: back.then_some(from - here),
        aperture: found.map(|aperture| aperture.label(plan.body.grid)),
        sharp: written_depth(plan.lengths, &zone),
        said: changes.iter().map(|change| change.words.as_str()).collect::<Vec<_>>().join(", "),
        becomes: becomes(plan, &before, &after, &held.settings),
        spoils,
        changes,
        not,
    }
}

/// What becomes of each light, and of the steady light.
fn becomes(plan: &Plan, was: &Outlook, is: &Outlook, to: &Settings) -> Vec<String> {
    let placed = |stops: Stops| match stops.to_wire() {
        None => "no light".to_owned(),
        Some(stops) => format!("{}{:.1}", if stops < -0.05 { '−' } else { '+' }, stops.abs()),
    };
    let fate = |was: Stops, is: Stops| match (is - was).to_wire() {
        Some(by) if by.abs() <= 0.15 => format!("stays at {}", placed(is)),
        _ => format!("goes from {} to {}", placed(was), placed(is)),
    };
    let power = |light: usize, value: f64| plan.lights[light].unit.dial.label(value);
    let lights = was.firing().map(|(light, of)| {
        let (before, after) = (plan.settings.lights[light].power, to.lights[light].power);
        let turned = if before == after {
            String::new()
        } else {
            format!(", {} → {}", power(light, before), power(light, after))
        };
        let is = &is.lights[light];
        format!("{} {}{turned}", plan.lights[light].label, fate(of.in_frame.placement, is.in_frame.placement))
    });
    let steady = format!("Ambient {}", fate(was.ambient.placement, is.ambient.placement));
    lights.chain((was.ambient.placement > Stops::DARK).then_some(steady)).collect()
}
