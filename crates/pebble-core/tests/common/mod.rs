//! A shot to start from, and the way in.

#![allow(dead_code, reason = "each test file uses its own half")]

use pebble_core::shot::Shot;
use pebble_core::{Plan, shot};

/// The double-ropes shot that ships as an example.
pub fn shot() -> Shot {
    serde_json::from_str(include_str!("../../../../docs/examples/double-ropes.json")).expect("the example is a shot")
}

pub fn plan(shot: &Shot) -> Plan {
    Plan::try_from(shot).expect("the shot is a plan")
}

/// A shot with one part changed.
pub fn with_part(change: impl FnOnce(&mut shot::Part)) -> Shot {
    let mut shot = shot();
    change(&mut shot.parts[0]);
    shot
}
