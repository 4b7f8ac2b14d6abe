//! Times that a shot asks of a flash: to be drawn across the duration curves of the units one could take.

use crate::outlook::outlook;
use crate::plan::Plan;
use crate::quantity::Seconds;
use crate::quantity::scale::duration_label;
use serde::Serialize;

/// One such time.
#[derive(Clone, Debug, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Guide {
    /// What asks for it.
    pub asked_by: AskedBy,
    /// Name of the part, or the camera.
    pub name: String,
    /// A pulse up to this long does.
    pub time_s: f64,
    /// As written.
    pub time_label: String,
}

/// What asks for a time.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum AskedBy {
    /// The sync speed of the camera: a longer pulse is cut by its curtains.
    Sync,
    /// A part that shall be crisp.
    Crisp,
    /// A part that may be soft.
    Soft,
}

/// The times a plan asks for: its camera's sync speed, and for every part held still or nearly so the time in which its
/// image moves by the allowed blur.
pub fn guides(plan: &Plan) -> Vec<Guide> {
    let seen = outlook(plan);
    let guide = |asked_by, name: &str, time: Seconds| Guide {
        asked_by,
        name: name.to_owned(),
        time_s: time.as_secs(),
        time_label: duration_label(time),
    };
    let rated = plan.body.rated_sync;
    let sync = Guide { time_label: rated.label(plan.body.grid), ..guide(AskedBy::Sync, "sync speed", rated.time()) };
    let parts = plan.parts.iter().zip(&seen.parts).filter_map(|(part, outlook)| {
        let limit = part.intent.blur_limit(seen.allowed)?;
        let asked_by = if limit > seen.allowed { AskedBy::Soft } else { AskedBy::Crisp };
        let speed = outlook.motion.blurs_by(seen.run.time).as_metres_per_second();
        let time = Seconds::from_secs(limit.as_metres() / speed);
        // A part at rest asks for nothing.
        time.as_secs().is_finite().then(|| guide(asked_by, &part.name, time))
    });
    std::iter::once(sync).chain(parts).collect()
}
