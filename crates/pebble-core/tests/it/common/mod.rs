//! A shot to start from, and the way in.

#![allow(dead_code, reason = "each test file uses its own half")]

use pebble_core::shot::Shot;
use pebble_core::{Plan, shot};

/// The double-ropes shot that ships as an example.
pub fn shot() -> Shot {
    serde_json::from_str(include_str!("../../../../../docs/examples/double-ropes.json")).expect("the example is a shot")
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

/// Every example that ships.
pub fn examples() -> Vec<Shot> {
    [
        include_str!("../../../../../docs/examples/double-ropes.json"),
        include_str!("../../../../../docs/examples/lantern-slalom.json"),
        include_str!("../../../../../docs/examples/slipway-spin.json"),
        include_str!("../../../../../docs/examples/card-on-a-wall.json"),
        include_str!("../../../../../docs/examples/sabre-reach.json"),
        include_str!("../../../../../docs/examples/silks.json"),
        include_str!("../../../../../docs/examples/finishers-wall.json"),
        include_str!("../../../../../docs/examples/roller-hall.json"),
    ]
    .map(|text| serde_json::from_str(text).expect("the example is a shot"))
    .into()
}

/// The shot with a remedy's changes put into its file form, as a user's press does.
pub fn applied(shot: &Shot, changes: &[pebble_core::findings::Change]) -> Shot {
    let mut file = serde_json::to_value(shot).unwrap();
    for change in changes {
        *file.pointer_mut(&change.pointer).expect("a change points into the shot") =
            serde_json::to_value(&change.value).unwrap();
    }
    serde_json::from_value(file).expect("a changed shot is a shot")
}
