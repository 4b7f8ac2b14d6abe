//! Depth of field against the depth of the group or the movement.

use super::clicks::{aperture_by, aperture_with_power, iso_by};
use super::ideas::{Idea, Ideas};
use super::{Case, Words};
use crate::answers::conditions::{self, Matter};
use crate::plan::Settings;
use crate::quantity::Metres;

/// What of the wanted depth is sharp, 0 to 1 on the worse side.
fn held(Case { plan, seen }: Case) -> f64 {
    conditions::depth(&seen.depth, plan.subject_distance, plan.subject_depth).min(1.0)
}

fn zone(Case { plan, seen }: Case) -> String {
    let far = seen.depth.far.map_or_else(|| "infinity".to_owned(), |far| plan.lengths.say(far.as_metres(), 2));
    format!("Sharp from {} to {far}", plan.lengths.say(seen.depth.near.as_metres(), 2))
}

pub(super) fn words(case @ Case { plan, .. }: Case) -> Words {
    Words {
        title: format!(
            "Depth covers {:.0} % of the subject's {}",
            held(case) * 100.0,
            plan.lengths.say(plan.subject_depth.as_metres(), 1)
        ),
        cause: format!("{}, focus at {}.", zone(case), plan.lengths.say(plan.subject_distance.as_metres(), 1)),
    }
}

pub(super) fn too_deep(case @ Case { plan, seen }: Case) -> Words {
    let most = plan.depth_at_most.unwrap_or(Metres::ZERO).as_metres();
    let sharp = seen
        .depth
        .far
        .map_or_else(|| "Everything behind".to_owned(), |far| plan.lengths.say((far - seen.depth.near).as_metres(), 2));
    Words {
        title: format!("{sharp} is sharp, {} at most wanted", plan.lengths.say(most, 2)),
        cause: format!("{}.", zone(case)),
    }
}

pub(super) fn candidates<'a>(Case { plan, .. }: Case<'a>, matter: Matter) -> Ideas<'a> {
    let side = if matter == Matter::Depth { 1 } else { -1 };
    let with_iso =
        |clicks| Some(Settings { aperture: aperture_by(plan, clicks)?, iso: iso_by(plan, clicks)?, ..plan.settings });
    Ideas::of(vec![
        Idea::keeping_flash((1..=12).map(move |clicks| aperture_with_power(plan, side * clicks))),
        Idea::keeping_flash((1..=12).map(move |clicks| with_iso(side * clicks))),
    ])
}

pub(super) fn good(case @ Case { plan, .. }: Case) -> Option<Words> {
    (plan.subject_depth > Metres::ZERO).then(|| Words {
        title: format!("Depth holds {}", plan.lengths.say(plan.subject_depth.as_metres(), 1)),
        cause: format!("{}.", zone(case)),
    })
}
