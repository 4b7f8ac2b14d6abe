//! Depth of field against the depth of the group or the movement.

use super::remedy::{Candidates, aperture_by, aperture_with_power, iso_by};
use super::{Case, Condition, Flaw, Kind, Severity, Words};
use crate::answers::conditions;
use crate::plan::Settings;
use crate::quantity::Metres;

/// What of the wanted depth is sharp, 0 to 1 on the worse side.
fn held(Case { plan, seen }: Case) -> f64 {
    conditions::depth(&seen.depth, plan.subject_distance, plan.subject_depth).min(1.0)
}

pub(super) fn flaw(condition: &Condition) -> Flaw {
    let severity = if condition.measure < 0.6 { Severity::Trouble } else { Severity::Watch };
    Flaw::of_shot(Kind::DepthShort, severity, -condition.measure.max(0.01).log2())
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

pub(super) fn candidates(Case { plan, .. }: Case) -> Vec<Candidates> {
    let with_iso =
        |clicks| Some(Settings { aperture: aperture_by(plan, clicks)?, iso: iso_by(plan, clicks)?, ..plan.settings });
    vec![
        Candidates::keeping_key((1..=12).map(|clicks| aperture_with_power(plan, clicks))),
        Candidates::keeping_key((1..=12).map(with_iso)),
    ]
}

pub(super) fn good(case @ Case { plan, .. }: Case) -> Option<Words> {
    (plan.subject_depth > Metres::ZERO).then(|| Words {
        title: format!("Depth holds {:.1} m", plan.subject_depth.as_metres()),
        cause: format!("{}.", zone(case)),
    })
}
