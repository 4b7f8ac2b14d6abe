//! Turning controls by clicks, so that the flash follows: what remedies are put together from.

use crate::answers::strips;
use crate::plan::{Plan, Settings};
use crate::quantity::scale::{Aperture, Iso, ShutterTime};
use crate::quantity::{LuxSeconds, Stops};

/// The same done to each of some lights, one after the other; `None` where one of them cannot.
pub(super) fn each(
    plan: &Plan,
    lights: &[usize],
    turned: impl Fn(&Plan, usize) -> Option<Settings>,
) -> Option<Settings> {
    lights.iter().try_fold(plan.settings, |set, light| turned(&plan.with(set), *light))
}

/// The nearest power on a unit's dial, `None` beyond its ends.
pub(super) fn power_near(plan: &Plan, light: usize, power: f64) -> Option<f64> {
    let light = &plan.lights[light];
    let half_step = light.unit.step.as_stops() / 2.0 + 1e-6;
    Some(light.unit.nearest_power(power)).filter(|best| (best / power).log2().abs() <= half_step)
}

/// One light at another power.
pub(super) fn at_power(plan: &Plan, light: usize, power: f64) -> Settings {
    Settings { lights: plan.settings.lights.with(light, |dial| dial.power = power), ..plan.settings }
}

/// Other settings with all lights that fire turned by so many times their power, so that the flash follows the camera. `None`
/// where one of them cannot.
pub(super) fn follow(plan: &Plan, to: Settings, times: f64) -> Option<Settings> {
    turned(plan, to, times, |light| plan.fires(light))
}

/// The same with all lights that are on, those among them that do not hear the trigger yet.
pub(super) fn follow_all(plan: &Plan, to: Settings, times: f64) -> Option<Settings> {
    turned(plan, to, times, |light| plan.lights[light].on)
}

/// Some lights at so many times their power. An automatic follows by itself.
fn turned(plan: &Plan, to: Settings, times: f64, which: impl Fn(usize) -> bool) -> Option<Settings> {
    let mut lights = to.lights;
    for light in (0..plan.lights.len()).filter(|light| which(*light) && to.lights[*light].bias.is_none()) {
        lights[light].power = power_near(plan, light, to.lights[light].power * times)?;
    }
    Some(Settings { lights, ..to })
}

/// The aperture some clicks away; positive clicks are smaller openings.
pub(super) fn aperture_by(plan: &Plan, clicks: i32) -> Option<Aperture> {
    let to = plan.settings.aperture.nearest_sixth() + clicks * plan.body.grid.step();
    strips::is_aperture(&plan.body, to).then(|| Aperture::from_av6(to))
}

/// The ISO some clicks away; positive clicks are more sensitive.
pub(super) fn iso_by(plan: &Plan, clicks: i32) -> Option<Iso> {
    let to = plan.settings.iso.nearest_sixth() + clicks * plan.body.grid.step();
    strips::is_iso(&plan.body, to).then(|| Iso::from_sv6(to))
}

/// The shutter time some clicks away; positive clicks are shorter.
pub(super) fn shutter_by(plan: &Plan, clicks: i32) -> Option<ShutterTime> {
    let to = plan.settings.shutter.nearest_sixth() + clicks * plan.body.grid.step();
    strips::is_shutter(&plan.body, to).then(|| ShutterTime::from_tv6(to))
}

/// Clicks nearest to a number of stops.
pub(super) fn clicks_of(plan: &Plan, stops: Stops) -> i32 {
    (stops.as_stops() * 6.0 / f64::from(plan.body.grid.step())).round() as i32
}

/// The same settings with another power, and the light kept by coming closer or stepping back.
pub(super) fn power_by_distance(plan: &Plan, light: usize, power: f64, keep: LuxSeconds) -> Option<Settings> {
    let wanted = plan.lights[light].distance_for(power, plan.settings.lights[light].heads, keep)?;
    let distance = strips::nearest_distance(plan.lengths, wanted);
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
    let now = plan.settings.filter.as_stops();
    let off = |filter: &Stops| (filter.as_stops() - now - stops).abs();
    let filter = crate::answers::strips::filters(plan).min_by(|a, b| off(a).total_cmp(&off(b)))?;
    let by = filter.as_stops() - now;
    // The nearest that is at hand, where it is near enough to be the same remedy.
    (off(&filter) < 0.6 && by != 0.0).then(|| follow(plan, Settings { filter, ..plan.settings }, by.exp2()))?
}
