//! Depth of field against the depth of the group or the movement.

use super::remedy::{Candidates, aperture_by, aperture_with_power, iso_by};
use super::{Case, Flaw, Kind, Severity, Words};
use crate::plan::Settings;
use crate::quantity::Metres;

/// What of the wanted depth is sharp, 0 to 1 on the worse side.
fn held(Case { plan, seen }: Case) -> f64 {
    let half = plan.subject_depth.as_metres() / 2.0;
    if half <= 0.0 {
        return 1.0;
    }
    let distance = plan.subject_distance.as_metres();
    let front = (distance - seen.depth.near.as_metres()) / half;
    let back = seen.depth.far.map_or(f64::INFINITY, |far| (far.as_metres() - distance) / half);
    front.min(back).min(1.0)
}

pub(super) fn find(case: Case, found: &mut Vec<Flaw>) {
    let share = held(case);
    if share < 1.0 {
        let severity = if share < 0.6 { Severity::Trouble } else { Severity::Watch };
        found.push(Flaw::of_shot(Kind::DepthShort, severity, -share.max(0.01).log2()));
    }
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
