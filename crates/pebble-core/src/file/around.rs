//! What surrounds the set.

use crate::wire::word;

word! {
    /// What is around the set.
    pub enum Around {
        /// Open air.
        Outdoors,
        /// A pool, a quay, rain.
        Water,
        /// People who watch.
        Spectators,
        /// A competition under way.
        Competition,
        /// Smoke, haze, sparklers, powder, open fire.
        SmokeOrFire,
        /// Animals or infants.
        AnimalsOrInfants,
        /// Lasers.
        Lasers,
        /// A wet or polished floor.
        SlipperyFloor,
        /// Ladders, rigs, people at height.
        Height,
    }
}
