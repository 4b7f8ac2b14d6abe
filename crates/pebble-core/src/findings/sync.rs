//! Flash and shutter: dark edges, rear sync that is none, assumed travel.

use super::remedy::{Candidates, power_by_iso, power_near, shutter_by};
use super::{Case, Flaw, Kind, Severity, Words, percent, signed};
use crate::gear::FirstRow;
use crate::outlook::timing;
use crate::plan::Settings;
use crate::quantity::Stops;
use crate::quantity::scale::power_label;
use crate::shutter::SyncMode;
use crate::shutter::rows::{Edge, TOUCHED_SHARE};
use crate::shutter::sync::{OVER_SHARE, leaves_no_row_dark};
use crate::strips;

/// Rows that lose less than this are hard to see in a picture.
const HARD_TO_SEE: f64 = -0.3;

pub(super) fn find(Case { plan, seen }: Case, found: &mut Vec<Flaw>) {
    if !plan.light.on {
        return;
    }
    if seen.rows.touched > 0.0 {
        let loss = seen.rows.worst.as_stops().max(-12.0);
        let severity = if loss < HARD_TO_SEE { Severity::Trouble } else { Severity::Watch };
        found.push(Flaw { kind: Kind::RowsCut, part: None, severity, hurt: 10.0 * seen.rows.touched - loss });
    }
    if seen.ignition.rear_acts_as_front {
        found.push(Flaw { kind: Kind::RearActsAsFront, part: None, severity: Severity::Watch, hurt: 1.0 });
    }
    // An assumed travel matters only where the time is close to the edge it decides.
    let near_edge = seen.usable_sync.is_some_and(|usable| plan.settings.shutter.time() / usable.time() < 1.3);
    if plan.body.travel_assumed && near_edge && seen.high_speed.is_none() {
        found.push(Flaw { kind: Kind::TravelAssumed, part: None, severity: Severity::Watch, hurt: 0.1 });
    }
}

pub(super) fn words(case @ Case { plan, seen }: Case, flaw: &Flaw) -> Words {
    let grid = plan.body.grid;
    let shutter = plan.settings.shutter.label(grid);
    match flaw.kind {
        Kind::RearActsAsFront => Words {
            title: format!("Rear sync acts as front at {shutter}"),
            cause: format!(
                "The pulse needs {:.1} ms before the second curtain; {shutter} leaves no room after the first has passed.",
                (seen.length + plan.body.guard).as_millis()
            ),
        },
        Kind::TravelAssumed => Words {
            title: "Curtain travel is assumed".to_owned(),
            cause: format!(
                "{:.1} ms, from the rated sync speed. The edge is near: prove it with a frame of an even wall.",
                plan.body.travel.as_millis()
            ),
        },
        _ => Words { title: edge_title(case), cause: edge_cause(case, &shutter) },
    }
}

fn edge_title(Case { plan, seen }: Case) -> String {
    if seen.rows.black >= 1.0 {
        return "No flash in the frame".to_owned();
    }
    let edge = match (seen.rows.edge, plan.body.first_row) {
        (Edge::First, FirstRow::Bottom) | (Edge::Last, FirstRow::Top) => "Bottom",
        _ => "Top",
    };
    let worst = if seen.rows.worst == Stops::DARK {
        "black".to_owned()
    } else {
        format!("{} stops", signed(seen.rows.worst.as_stops()))
    };
    // A leaf or a global shutter cuts all rows alike.
    if seen.rows.first == seen.rows.last {
        return format!("The shutter cuts the flash: {worst}");
    }
    if seen.rows.touched >= 1.0 {
        format!("Every row loses flash, {} worst: {worst}", edge.to_lowercase())
    } else {
        format!("{edge} {} dark, worst {worst}", percent(seen.rows.touched))
    }
}

fn edge_cause(Case { plan, seen }: Case, shutter: &str) -> String {
    let enough = seen.ignition.at + seen.pulse.pulse.time_of_share(TOUCHED_SHARE);
    let usable = seen.usable_sync.map_or_else(
        || "No time leaves all rows their light.".to_owned(),
        |time| format!("Usable sync here is {}.", time.label(plan.body.grid)),
    );
    format!(
        "{} at {} gives its light by {:.1} ms (trigger and unit wait {:.2} ms); at {shutter} the first rows close at {:.1} ms. {usable}",
        plan.light.name,
        power_label(-Stops::from_ratio(plan.settings.power)),
        enough.as_millis(),
        plan.light.lag.as_millis(),
        seen.run.close(0.0).as_millis(),
    )
}

pub(super) fn candidates(Case { plan, seen }: Case, flaw: &Flaw) -> Vec<Candidates> {
    let set = plan.settings;
    if flaw.kind == Kind::RearActsAsFront {
        let slower = (1..=24).map(|clicks| shutter_by(plan, -clicks).map(|shutter| Settings { shutter, ..set }));
        return vec![Candidates::keeping_key(slower)];
    }
    let slower = seen.usable_sync.map(|shutter| Settings { shutter, ..set });
    // The brightest power whose pulse fits this shutter time, the picture kept by ISO.
    let weaker = strips::powers(&plan.light).rev().filter(|power| *power < set.power).find(|power| {
        let pulse = plan.light.unit.control.at(*power).pulse;
        leaves_no_row_dark(seen.run, set.sync, timing(plan, pulse.time_of_share(OVER_SHARE)), &pulse)
    });
    let glow = strips::syncs(plan).any(|mode| mode == SyncMode::HighSpeed).then(|| {
        let loss = crate::shutter::high_speed::loss(seen.run, plan.light.unit.efficiency);
        power_near(plan, set.power / loss.as_ratio()).map(|power| Settings { sync: SyncMode::HighSpeed, power, ..set })
    });
    vec![
        Candidates::keeping_key([slower]),
        Candidates::keeping_key([weaker.and_then(|power| power_by_iso(plan, power))]),
        Candidates::keeping_key([glow.flatten()]),
    ]
}

pub(super) fn good(Case { plan, seen }: Case) -> Option<Words> {
    if !plan.light.on {
        return None;
    }
    if seen.high_speed.is_some() {
        return Some(Words {
            title: "High-speed sync lights every row".to_owned(),
            cause: format!("Movement is frozen by the shutter, {}.", plan.settings.shutter.label(plan.body.grid)),
        });
    }
    let spare = seen.run.close(0.0) - seen.ignition.at - seen.pulse.pulse.time_of_share(TOUCHED_SHARE);
    let usable = seen.usable_sync.map(|time| format!(", up to {}", time.label(plan.body.grid))).unwrap_or_default();
    Some(Words {
        title: format!("Sync has {:.1} ms to spare", spare.as_millis()),
        cause: format!("All rows get the whole pulse{usable}."),
    })
}
