//! Depth of field against the depth of the group or the movement.

use super::remedy::{Idea, Ideas, aperture_by, aperture_with_power, iso_by};
use super::{Case, Words};
use crate::answers::conditions::{self, Matter};
use crate::plan::Settings;
use crate::quantity::Metres;

/// What of the wanted depth is sharp, 0 to 1 on the worse side.
fn held(Case { plan, seen }: Case) -> f64 {
    conditions::depth(&seen.depth, plan.subject_distance, plan.subject_depth).min(1.0)
}

fn zone(Case { seen, .. }: Case) -> String {
    let far = seen.depth.far.map_or_else(|| "infinity".to_owned(), |far| format!("{:.2} m", far.as_metres()));
    format!("Sharp from {:.2} m to {far}", seen.depth.near.as_metres())
}

pub(super) fn words(case @ Case { plan, .. }: Case) -> Words {
    Words {
        title: format!(
            "Depth covers {:.0} % of the subject's {:.1} m",
            held(case) * 100.0,
            plan.subject_depth.as_metres()
        ),
        cause: format!("{}, focus at {:.1} m.", zone(case), plan.subject_distance.as_metres()),
    }
}

pub(super) fn too_deep(case @ Case { plan, seen }: Case) -> Words {
    let most = plan.depth_at_most.unwrap_or(Metres::ZERO).as_metres();
    let sharp = seen
        .depth
        .far
        .map_or_else(|| "Everything behind".to_owned(), |far| format!("{:.2} m", (far - seen.depth.near).as_metres()));
    Words { title: format!("{sharp} is sharp, {most:.2} m at most wanted"), cause: format!("{}.", zone(case)) }
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
        title: format!("Depth holds {:.1} m", plan.subject_depth.as_metres()),
        cause: format!("{}.", zone(case)),
    })
}
