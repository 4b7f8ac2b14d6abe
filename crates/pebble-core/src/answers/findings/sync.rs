//! Flash and shutter: dark edges, rear sync that is none, assumed travel.

use super::clicks::{each, power_by_distance, power_by_iso, power_near, shutter_by};
use super::ideas::{Idea, Ideas};
use super::uncut::slow_enough;
use super::{Case, Flaw, Kind, Words, percent, signed};
use crate::answers::conditions::Matter;
use crate::answers::strips;
use crate::file::gear::FirstRow;
use crate::outlook::{LightOutlook, Pulses, timing};
use crate::physics::shutter::rows::{Edge, TOUCHED_SHARE};
use crate::physics::shutter::sync::{OVER_SHARE, leaves_no_row_dark};
use crate::physics::shutter::{Run, SyncMode};
use crate::plan::{Plan, Settings};
use crate::quantity::Stops;

/// What nobody has measured and decides something.
pub(super) fn doubts(Case { plan, seen }: Case, found: &mut Vec<Flaw>) {
    // An assumed travel matters only where the time is close to the edge it decides.
    let near_edge = seen
        .firing()
        .filter(|(_, light)| light.high_speed.is_none())
        .any(|(_, light)| light.usable_sync.is_some_and(|usable| plan.settings.shutter.time() / usable.time() < 1.3));
    if plan.body.travel_assumed && near_edge {
        found.push(Flaw::doubt(Kind::TravelAssumed, 0.1));
    }
}

pub(super) fn rear_acts_as_front(Case { plan, seen }: Case, flaw: &Flaw) -> Words {
    let grid = plan.body.grid;
    let shutter = plan.settings.shutter.label(grid);
    let light = &seen.lights[flaw.light(plan)];
    Words {
        title: format!("Rear sync acts as front at {shutter}"),
        cause: format!(
            "The pulse needs {:.1} ms before the second curtain; {shutter} leaves no room after the first has passed.",
            (light.length + plan.body.guard).as_millis()
        ),
    }
}

pub(super) fn travel_assumed(Case { plan, .. }: Case) -> Words {
    Words {
        title: "Curtain travel is assumed".to_owned(),
        cause: format!(
            "{:.1} ms, from the rated sync speed. The edge is near: prove it with a frame of an even wall.",
            plan.body.travel.as_millis()
        ),
    }
}

pub(super) fn rows_cut(case @ Case { plan, seen }: Case, flaw: &Flaw) -> Words {
    let grid = plan.body.grid;
    let shutter = plan.settings.shutter.label(grid);
    let index = flaw.light(plan);
    Words { title: edge_title(plan, &seen.lights[index]), cause: edge_cause(case, index, &shutter) }
}

fn edge_title(plan: &Plan, seen: &LightOutlook) -> String {
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

fn edge_cause(Case { plan, seen: whole }: Case, light: usize, shutter: &str) -> String {
    let (of, seen) = (&plan.lights[light], &whole.lights[light]);
    let enough = seen.ignition.at + seen.pulse.pulse.time_of_share(TOUCHED_SHARE);
    let usable = seen.usable_sync.map_or_else(
        || "No time leaves all rows their light.".to_owned(),
        |time| format!("Usable sync here is {}.", time.label(plan.body.grid)),
    );
    format!(
        "{} at {} gives its light by {:.1} ms (trigger and unit wait {:.2} ms); at {shutter} the first rows close at {:.1} ms. {usable}",
        of.spoken,
        of.unit.dial.label(seen.power),
        enough.as_millis(),
        of.lag.as_millis(),
        whole.run.close(0.0).as_millis(),
    )
}

pub(super) fn candidates<'a>(
    Case { plan, seen }: Case<'a>,
    lights: &[usize],
    matter: Matter,
    pulses: &mut Pulses,
) -> Ideas<'a> {
    let set = plan.settings;
    if matter == Matter::Rear {
        let slower = (1..=24).map(move |clicks| shutter_by(plan, -clicks).map(|shutter| Settings { shutter, ..set }));
        return Ideas::of(vec![Idea::keeping_flash(slower)]);
    }
    let slower = slow_enough(plan, seen, lights.iter().copied());
    let weaker = |plan: &Plan, light: usize| fitting_power(plan, light, seen.run);
    let nearer = each(plan, lights, |plan, light| {
        power_by_distance(plan, light, weaker(plan, light)?, seen.lights[light].on_set.exposure)
    });
    // The ISO follows one power, not several.
    let by_iso = match lights {
        [light] => weaker(plan, *light).and_then(|power| power_by_iso(plan, *light, power)),
        _ => None,
    };
    let glow = each(plan, lights, |plan, light| {
        strips::syncs(plan, light).find(|mode| *mode == SyncMode::HighSpeed)?;
        let loss = crate::physics::shutter::high_speed::loss(seen.run, plan.lights[light].unit.efficiency);
        let power = power_near(plan, light, plan.settings.lights[light].power / loss.as_ratio())?;
        let lights = plan.settings.lights.with(light, |dial| (dial.power, dial.sync) = (power, SyncMode::HighSpeed));
        Some(Settings { lights, ..plan.settings })
    });
    // What is cut is below where it was set: with all of it in the frame it is as bright as it reads on the set, which may be
    // too bright.
    let alone = Ideas::of([slower, nearer, by_iso, glow].map(|turn| Idea::moving_one([turn])).into());
    match slower.and_then(|slower| super::exposure::under(plan, slower, pulses)) {
        Some(exposed) => alone.or_else(exposed),
        None => alone,
    }
}

/// The brightest lower power of a light whose pulse fits a shutter time.
fn fitting_power(plan: &Plan, light: usize, run: Run) -> Option<f64> {
    let (of, dial) = (&plan.lights[light], plan.settings.lights[light]);
    strips::powers(of).rev().filter(|power| *power < dial.power).find(|power| {
        let pulse = of.unit.control.at(*power).pulse;
        leaves_no_row_dark(run, dial.sync, timing(plan, light, pulse.time_of_share(OVER_SHARE)), &pulse)
    })
}

pub(super) fn good(Case { plan, seen }: Case) -> Option<Words> {
    // The light with the least to spare stands for all.
    let spare =
        |light: &LightOutlook| seen.run.close(0.0) - light.ignition.at - light.pulse.pulse.time_of_share(TOUCHED_SHARE);
    seen.firing().next()?;
    let pulses = seen.firing().map(|(_, light)| light).filter(|light| light.high_speed.is_none());
    let Some(least) = pulses.min_by(|a, b| spare(a).as_secs().total_cmp(&spare(b).as_secs())) else {
        return Some(Words {
            title: "High-speed sync lights every row".to_owned(),
            cause: format!("Movement is frozen by the shutter, {}.", plan.settings.shutter.label(plan.body.grid)),
        });
    };
    let usable = least.usable_sync.map(|time| format!(", up to {}", time.label(plan.body.grid))).unwrap_or_default();
    Some(Words {
        title: format!("Sync has {:.1} ms to spare", spare(least).as_millis()),
        cause: format!("All rows get the whole pulse{usable}."),
    })
}
