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

/// The same picture of something so many times smaller: the frame is as much narrower at the subject, and lights have room.
pub fn through_a_longer_lens(mut shot: Shot, times: f64) -> Shot {
    shot.camera.focal_mm *= times;
    shot.camera.lens.focal_max_mm = shot.camera.lens.focal_max_mm.max(shot.camera.focal_mm);
    shot.subject.depth_m /= times * times;
    for part in &mut shot.parts {
        part.speed_m_s /= times;
        part.size_m /= times;
        part.path_m = part.path_m.map(|path| path / times);
    }
    shot
}

/// A shot with one part changed.
pub fn with_part(change: impl FnOnce(&mut shot::Part)) -> Shot {
    let mut shot = shot();
    change(&mut shot.parts[0]);
    shot
}

/// One of the examples, by the name of its file.
pub fn example(name: &str) -> Shot {
    let path = format!("{}/../../docs/examples/{name}.json", env!("CARGO_MANIFEST_DIR"));
    serde_json::from_str(&std::fs::read_to_string(path).expect("the example is there")).expect("the example is a shot")
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
        // What was not there yet is put there.
        let (parent, name) = change.pointer.rsplit_once('/').expect("a pointer");
        match file.pointer_mut(parent).expect("a change points into the shot") {
            serde_json::Value::Object(into) => {
                into.insert(name.to_owned(), serde_json::to_value(&change.value).unwrap());
            }
            _ => *file.pointer_mut(&change.pointer).expect("a place") = serde_json::to_value(&change.value).unwrap(),
        }
    }
    serde_json::from_value(file).expect("a changed shot is a shot")
}

/// A lamp of so many lux at a metre.
pub fn rod_lamp(lux_at_1m: f64, distance_m: f64, stands: Option<shot::LampStands>) -> shot::SetLamp {
    let lamp = serde_json::json!({"id": "rod", "name": "Rod lamp", "lux_at_1m": lux_at_1m, "colour_k": 4000.0, "flicker": "none"});
    shot::SetLamp {
        on: true,
        lamp: serde_json::from_value(lamp).expect("a lamp"),
        gel: None,
        level_share: 1.0,
        distance_m,
        stands,
        lights_background: true,
        misses: Vec::new(),
    }
}
