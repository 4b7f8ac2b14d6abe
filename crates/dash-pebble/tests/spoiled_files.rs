//! Shot files that somebody edited: whatever is in them, the answer is a forecast or a sentence.

mod common;

use common::example;
use dash_pebble::api::body::read;
use dash_pebble::api::forecast::Answer;
use pebble_core::{Plan, Shot};
use proptest::prelude::*;
use serde_json::{Value, json};

/// Pointers of everything in a file.
fn pointers(value: &Value, here: &str, all: &mut Vec<String>) {
    match value {
        Value::Object(fields) => {
            for (name, inside) in fields {
                let pointer = format!("{here}/{name}");
                all.push(pointer.clone());
                pointers(inside, &pointer, all);
            }
        }
        Value::Array(items) => {
            for (index, inside) in items.iter().enumerate() {
                let pointer = format!("{here}/{index}");
                all.push(pointer.clone());
                pointers(inside, &pointer, all);
            }
        }
        _ => {}
    }
}

fn odd_value() -> impl Strategy<Value = Value> {
    prop_oneof![
        Just(Value::Null),
        Just(json!([])),
        Just(json!({})),
        Just(json!(true)),
        any::<f64>().prop_map(|number| json!(number)),
        (-3.0..3.0f64).prop_map(|exponent| json!(10f64.powf(exponent))),
        (-400i64..400).prop_map(|number| json!(number)),
        "[ -~]{0,12}".prop_map(|text| json!(text)),
        Just(json!("1/250")),
        Just(json!("front")),
        Just(json!(f64::MAX)),
        Just(json!(5e-324)),
    ]
}

fn spoiled(name: &str, spoils: &[(usize, Option<Value>)]) -> Value {
    let mut file = example(name);
    for (place, value) in spoils {
        let mut all = Vec::new();
        pointers(&file, "", &mut all);
        let pointer = &all[place % all.len()];
        let (parent, key) = pointer.rsplit_once('/').expect("a pointer has a slash");
        match (file.pointer_mut(parent), value) {
            (Some(Value::Object(fields)), None) => drop(fields.remove(key)),
            (Some(Value::Array(items)), None) => drop(items.remove(key.parse().expect("an index"))),
            (Some(_), Some(value)) => *file.pointer_mut(pointer).expect("it is there") = value.clone(),
            (other, None) => panic!("{pointer} has no parent: {other:?}"),
            (None, _) => panic!("{pointer} has no parent"),
        }
    }
    file
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 2000, ..ProptestConfig::default() })]

    #[test]
    fn a_spoiled_file_gets_a_forecast_or_a_sentence(
        which in 0..4usize,
        spoils in prop::collection::vec((any::<usize>(), prop::option::weighted(0.8, odd_value())), 1..4),
    ) {
        let name = ["double-ropes", "lantern-slalom", "slipway-spin", "card-on-a-wall"][which];
        let file = spoiled(name, &spoils);
        let Ok(shot) = read::<Shot>(file.to_string().as_bytes()) else { return Ok(()) };
        match Plan::try_from(&shot) {
            Err(error) => {
                prop_assert!(!error.field().is_empty() && !error.allowed().is_empty(), "{error}");
                prop_assert!(error.to_string().len() < 600, "{error}");
            }
            Ok(plan) => {
                // Whatever can be planned can be computed, written and read again without a number that is none.
                let told = serde_json::to_string(&Answer::of(&plan)).expect("it is plain data");
                let _: Value = serde_json::from_str(&told).expect("it is JSON");
                prop_assert!(!told.contains("NaN") && !told.replace("infinity", "").contains("inf"), "{told}");
            }
        }
    }
}
