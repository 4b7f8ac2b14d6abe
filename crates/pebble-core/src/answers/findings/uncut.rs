//! Shutter times that are slow enough for all rows to get all of the flash.

use crate::outlook::{LightOutlook, Outlook};
use crate::plan::{Plan, Settings};
use crate::quantity::scale::ShutterTime;

/// The shutter at the time that is slow enough for all of some lights.
pub(super) fn slow_enough(plan: &Plan, seen: &Outlook, lights: impl Iterator<Item = usize>) -> Option<Settings> {
    let usable: Option<Vec<ShutterTime>> = lights.map(|light| seen.lights[light].usable_sync).collect();
    let shutter = usable?.into_iter().reduce(|a, b| if a.time() >= b.time() { a } else { b })?;
    Some(Settings { shutter, ..plan.settings })
}

/// The same for all that some rows see less of than others, or none at all: until then, what they do to the frame is not what
/// they do on the set. Where a leaf cuts all rows alike, the frame is as good as with less power.
pub(super) fn uncut(plan: &Plan, seen: &Outlook) -> Option<Settings> {
    let cut =
        |light: &LightOutlook| light.rows.touched > 0.0 && (light.rows.first != light.rows.last || light.share <= 0.0);
    seen.firing()
        .any(|(_, light)| cut(light))
        .then(|| slow_enough(plan, seen, seen.firing().map(|(light, _)| light)))?
}

/// Whether the shutter keeps all flash out of the frame.
pub(super) fn nothing_gets_in(seen: &Outlook) -> bool {
    seen.firing().next().is_some() && seen.firing().all(|(_, light)| light.rows.touched > 0.0 && light.share <= 0.0)
}
