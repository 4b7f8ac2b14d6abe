//! Trying changes: each candidate gets its own outlook before anyone sees it.

use super::{Case, Change, Flaw, Kind, Remedy, Severity, flaws, signed};
use crate::answers::strips;
use crate::outlook::{LightOutlook, Outlook, outlook};
use crate::plan::{Plan, Settings};
use crate::quantity::scale::{Aperture, Iso, ShutterTime};
use crate::quantity::{LuxSeconds, Stops};

/// Offered at most, so that a finding stays readable at arm's length.
const MOST_REMEDIES: usize = 2;
/// The key may move this much while something else is mended.
const KEY_TOLERANCE: f64 = 0.2;
/// Changes of light smaller than this are not worth a word.
const WORTH_SAYING: f64 = 0.15;

/// Candidates of one idea, mildest first; the first that works is offered.
pub(super) struct Candidates {
    pub settings: Vec<Settings>,
    /// The idea is to move the key, so it need not be kept.
    pub moves_key: bool,
}

impl Candidates {
    pub fn keeping_key(settings: impl IntoIterator<Item = Option<Settings>>) -> Self {
        Self { settings: settings.into_iter().flatten().collect(), moves_key: false }
    }

    pub fn moving_key(settings: impl IntoIterator<Item = Option<Settings>>) -> Self {
        Self { settings: settings.into_iter().flatten().collect(), moves_key: true }
    }
}

/// Tries the ideas and keeps what mends the flaw without more trouble elsewhere.
pub(super) fn tried(case: Case, flaw: &Flaw, before: &[Flaw], ideas: Vec<Candidates>) -> Vec<Remedy> {
    // A cut frame is never the price of anything; other trouble may stay where it was, but none may come.
    let worse = |now: &Flaw| now.kind == Kind::RowsCut || now.severity == Severity::Trouble;
    let known = |now: &Flaw| before.iter().any(|then| then.same_as(now) && then.severity <= now.severity);
    let mut found: Vec<Remedy> = Vec::new();
    for idea in ideas {
        let works = idea.settings.into_iter().filter(|to| *to != case.plan.settings).find_map(|to| {
            let plan = case.plan.with(to);
            let seen = outlook(&plan);
            if !idea.moves_key && drift(case.seen, &seen) > KEY_TOLERANCE {
                return None;
            }
            let after = flaws(Case { plan: &plan, seen: &seen });
            let gone = !after.iter().any(|other| other.same_as(flaw));
            let nothing_new = after.iter().filter(|now| worse(now)).all(known);
            (gone && nothing_new).then(|| written(case, &to, &seen))
        });
        if let Some(remedy) = works
            && !found.iter().any(|other| other.changes == remedy.changes)
        {
            found.push(remedy);
        }
        if found.len() == MOST_REMEDIES {
            break;
        }
    }
    found
}

/// How far the light moves that moves most.
fn drift(from: &Outlook, to: &Outlook) -> f64 {
    let change = |(from, to): (&LightOutlook, &LightOutlook)| (to.lit.placement - from.lit.placement).as_stops().abs();
    // Two dark flashes have not drifted: their difference is no number, and the greater of two numbers is taken.
    from.lights.iter().zip(&to.lights).map(change).fold(0.0, f64::max)
}

/// How far a light moves; one that was dark or goes dark moves by no number.
fn moved(name: &str, from: Stops, to: Stops) -> Option<String> {
    match (from > Stops::DARK, to > Stops::DARK) {
        (true, true) => {
            let by = (to - from).as_stops();
            (by.abs() > WORTH_SAYING).then(|| format!("{name} {}", signed(by)))
        }
        (false, true) => Some(format!("{name} at {}", signed(to.as_stops()))),
        (true, false) => Some(format!("no {name}")),
        (false, false) => None,
    }
}

fn written(case: Case, to: &Settings, seen: &Outlook) -> Remedy {
    let changes = strips::written_changes(case.plan, to);
    let label = strips::said(case.plan, to);
    let mut effects = Vec::new();
    effects.extend(moved("ambient", case.seen.ambient.placement, seen.ambient.placement));
    effects.extend(moved("key", case.seen.key().lit.placement, seen.key().lit.placement));
    if to.aperture != case.plan.settings.aperture {
        effects.push(if to.aperture < case.plan.settings.aperture {
            "less depth".to_owned()
        } else {
            "more depth".to_owned()
        });
    }
    Remedy {
        label,
        effect: effects.join(", "),
        changes: changes.into_iter().map(|(pointer, value, _)| Change { pointer, value }).collect(),
    }
}

// --- turning controls by clicks ---------------------------------------------------------------------------------

/// The nearest power on a unit's dial, `None` beyond its ends.
pub(super) fn power_near(plan: &Plan, light: usize, power: f64) -> Option<f64> {
    let light = &plan.lights[light];
    let half_step = light.unit.step.as_stops() / 2.0 + 1e-6;
    let off = |candidate: &f64| (candidate / power).log2().abs();
    strips::powers(light).min_by(|a, b| off(a).total_cmp(&off(b))).filter(|best| off(best) <= half_step)
}

/// One light at another power.
pub(super) fn at_power(plan: &Plan, light: usize, power: f64) -> Settings {
    Settings { lights: plan.settings.lights.with(light, |dial| dial.power = power), ..plan.settings }
}

/// Other settings with all lights turned by so many times their power, so that the flash follows the camera. An automatic
/// follows by itself. `None` where a light that fires cannot.
pub(super) fn follow(plan: &Plan, to: Settings, times: f64) -> Option<Settings> {
    let mut lights = to.lights;
    for light in (0..plan.lights.len()).filter(|light| plan.fires(*light) && to.lights[*light].bias.is_none()) {
        lights[light].power = power_near(plan, light, to.lights[light].power * times)?;
    }
    Some(Settings { lights, ..to })
}

/// The aperture some clicks away; positive clicks are smaller openings.
pub(super) fn aperture_by(plan: &Plan, clicks: i32) -> Option<Aperture> {
    let to = plan.settings.aperture.nearest_sixth() + clicks * plan.body.grid.step();
    strips::apertures(&plan.body).find(|aperture| aperture.av6() == Some(to))
}

/// The ISO some clicks away; positive clicks are more sensitive.
pub(super) fn iso_by(plan: &Plan, clicks: i32) -> Option<Iso> {
    let to = plan.settings.iso.nearest_sixth() + clicks * plan.body.grid.step();
    strips::isos(&plan.body).find(|iso| iso.sv6() == Some(to))
}

/// The shutter time some clicks away; positive clicks are shorter.
pub(super) fn shutter_by(plan: &Plan, clicks: i32) -> Option<ShutterTime> {
    let to = plan.settings.shutter.nearest_sixth() + clicks * plan.body.grid.step();
    strips::shutters(&plan.body).find(|time| time.tv6() == Some(to))
}

/// Clicks nearest to a number of stops.
pub(super) fn clicks_of(plan: &Plan, stops: Stops) -> i32 {
    (stops.as_stops() * 6.0 / f64::from(plan.body.grid.step())).round() as i32
}

/// The same settings with another power, and the light kept by coming closer or stepping back.
pub(super) fn power_by_distance(plan: &Plan, light: usize, power: f64, keep: LuxSeconds) -> Option<Settings> {
    let wanted = plan.lights[light].distance_for(power, plan.settings.lights[light].heads, keep)?;
    let off = |distance: &crate::quantity::Metres| (*distance / wanted).ln().abs();
    let distance = strips::distances().min_by(|a, b| off(a).total_cmp(&off(b)))?;
    let lights = plan.settings.lights.with(light, |dial| (dial.power, dial.distance) = (power, distance));
    Some(Settings { lights, ..plan.settings })
}

/// The same settings with another power of one light, and the picture kept by ISO and the other lights.
pub(super) fn power_by_iso(plan: &Plan, light: usize, power: f64) -> Option<Settings> {
    let times = power / plan.settings.lights[light].power;
    let iso = iso_by(plan, clicks_of(plan, -Stops::from_ratio(times)))?;
    follow(plan, Settings { iso, ..plan.settings }, times)
}

/// The same settings with another power of one light, and the picture kept by the aperture and the other lights.
pub(super) fn power_by_aperture(plan: &Plan, light: usize, power: f64) -> Option<Settings> {
    let times = power / plan.settings.lights[light].power;
    let aperture = aperture_by(plan, clicks_of(plan, Stops::from_ratio(times)))?;
    follow(plan, Settings { aperture, ..plan.settings }, times)
}

/// ISO some clicks away with the flash kept by power.
pub(super) fn iso_with_power(plan: &Plan, clicks: i32) -> Option<Settings> {
    let iso = iso_by(plan, clicks)?;
    follow(plan, Settings { iso, ..plan.settings }, plan.settings.iso.number() / iso.number())
}

/// Aperture some clicks away with the flash kept by power.
pub(super) fn aperture_with_power(plan: &Plan, clicks: i32) -> Option<Settings> {
    let aperture = aperture_by(plan, clicks)?;
    let ratio = aperture.number() / plan.settings.aperture.number();
    follow(plan, Settings { aperture, ..plan.settings }, ratio * ratio)
}

/// A filter of more stops with the flash kept by power.
pub(super) fn filter_with_power(plan: &Plan, stops: f64) -> Option<Settings> {
    let filter = Stops::from_stops(plan.settings.filter.as_stops() + stops);
    if filter.as_stops() < 0.0 || filter.as_stops() > 10.0 {
        return None;
    }
    follow(plan, Settings { filter, ..plan.settings }, stops.exp2())
}
