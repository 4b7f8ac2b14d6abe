//! Whether units, triggers and what feeds them carry the plan.

use super::{Condition, Matter};
use crate::outlook::Outlook;
use crate::plan::{Flashes, Plan};
use crate::quantity::{Seconds, Stops};

/// What a burst asks of one unit, and what it gives.
#[derive(Clone, Debug, PartialEq)]
pub struct BurstOf {
    /// Until the next flash is whole, where known.
    pub ready: Option<Seconds>,
    /// Whole flashes at the burst's rate, by store, interval and heat.
    pub whole: Flashes,
    /// Loss of each frame of the burst; [`Stops::DARK`] is a frame without it. Empty where nobody knows.
    pub frames: Vec<Stops>,
    /// Flashes from cold until it is hot, where known; the inner `None` is never.
    pub until_hot: Option<Option<u64>>,
    /// Flashes on one charge at this power.
    pub on_a_charge: Flashes,
}

/// Frames whose losses are worked out one by one; a longer burst is known by how many are whole.
const LISTED: u32 = 60;

/// What the burst of a shot, or a single frame where none is meant, asks of one light.
pub fn burst_of(plan: &Plan, seen: &Outlook, light: usize) -> BurstOf {
    let (readiness, power) = (&plan.lights[light].unit.readiness, seen.lights[light].power);
    let (frames, rate) = plan.burst.map_or((1, 1.0), |burst| (burst.frames, burst.rate));
    BurstOf {
        ready: readiness.ready(power),
        whole: readiness.in_a_row(power, rate),
        frames: readiness.store.map_or_else(Vec::new, |store| store.burst(power, rate, frames.min(LISTED) as usize)),
        until_hot: readiness.until_hot(power, rate),
        on_a_charge: readiness.on_one_charge(power),
    }
}

pub(super) fn conditions(plan: &Plan, seen: &Outlook, each: &mut impl FnMut(Condition)) {
    for (index, of_light) in seen.firing() {
        let light = &plan.lights[index];
        if let Some(burst) = plan.burst.filter(|burst| burst.frames > 1)
            && let whole @ Flashes::Whole(count) = light.unit.readiness.in_a_row(of_light.power, burst.rate)
        {
            let (frames, room) = (f64::from(burst.frames), whole.room(burst.frames));
            each(Condition::of_light(Matter::Burst, index, count, frames, room));
        }
        if let Some(range) = light.range {
            let away = plan.trigger_distance(index);
            each(Condition::of_light(
                Matter::InRange,
                index,
                away.as_metres(),
                range.as_metres(),
                (range / away).log2(),
            ));
        }
        // Said once a unit, at the first of its lights.
        let alike = || seen.firing().filter(|(other, _)| plan.lights[*other].unit_id == light.unit_id);
        if let Some(owned) = light.owned
            && alike().next().is_some_and(|(first, _)| first == index)
        {
            let used: u32 = alike().map(|(other, _)| plan.settings.lights[other].heads).sum();
            let room = (f64::from(owned) / f64::from(used)).log2();
            each(Condition::of_light(Matter::Owned, index, f64::from(used), f64::from(owned), room));
        }
    }
    // Groups are what one trigger on the camera tells apart.
    let mut letters = 0_u32;
    for (index, _) in seen.firing().filter(|(index, _)| plan.lights[*index].channels.is_some()) {
        letters |= 1 << (plan.lights[index].group.bytes().next().unwrap_or(b'A') - b'A');
    }
    let used = letters.count_ones();
    let fewest = seen.firing().filter_map(|(index, _)| Some((index, plan.lights[index].groups?)));
    if let Some((light, groups)) = fewest.min_by_key(|(_, groups)| *groups) {
        let room = (f64::from(groups) / f64::from(used.max(1))).log2();
        each(Condition::of_light(Matter::Groups, light, f64::from(used), f64::from(groups), room));
    }
}
