//! Flashes that draw alike are drawn together.

use super::window::Window;
use crate::exposure::{Exposure, RowExposure, instant};
use pebble_core::{Outlook, Plan};

/// Two ropes that are turned against each other part twice as fast as one moves.
const REVERSE: f32 = 2.0;

/// Flashes that draw alike: same pulse at the same moment, or all of them too short and too close to be told apart.
pub(super) struct Group {
    pub(super) lights: Vec<usize>,
    pub(super) exposure: Exposure,
    pub(super) rows: Vec<RowExposure>,
}

impl Group {
    pub(super) fn all(plan: &Plan, outlook: &Outlook, window: &Window) -> Vec<Self> {
        // What moves fastest in the picture, in its pixels.
        let fastest =
            outlook.parts.iter().map(|part| part.motion.speed.as_metres_per_second().abs()).fold(0.0, f64::max);
        let speed = (fastest / outlook.magnification) as f32 * window.pixels_per_metre * REVERSE;
        let instant = instant(outlook);
        let mut groups: Vec<(Self, bool)> = Vec::new();
        for (light, _) in outlook.firing() {
            let exposure = Exposure::new(plan, outlook, Some(light), instant);
            let rows = window.rows(&exposure);
            let at_once = exposure.is_instant(&rows, speed);
            let like =
                groups.iter_mut().find(|(group, other)| (at_once && *other) || group.exposure.same_as(&exposure));
            match like {
                Some((group, _)) => group.lights.push(light),
                None => groups.push((Self { lights: vec![light], exposure, rows }, at_once)),
            }
        }
        groups.into_iter().map(|(group, _)| group).collect()
    }
}
