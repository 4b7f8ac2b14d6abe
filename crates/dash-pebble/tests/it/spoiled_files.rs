//! Shot and kit files that somebody edited: whatever is in them, the answer is an answer or a sentence.

use crate::common::example;
use dash_pebble::api::body::read;
use dash_pebble::api::forecast::Answer;
use dash_pebble::formats::units_csv;
use pebble_core::compare::compare;
use pebble_core::daylight::ways;
use pebble_core::fit::fit;
use pebble_core::gear::{Item, Kit};
use pebble_core::guides::guides;
use pebble_core::hold::{Held, equivalents, hold};
use pebble_core::sheet::{line, sheet};
use pebble_core::trace::{Reader, analyse};
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

/// What is told is plain data: no number in it is none.
fn is_plain(told: &impl serde::Serialize) -> Result<(), TestCaseError> {
    let told = serde_json::to_string(told).expect("it is plain data");
    let _: Value = serde_json::from_str(&told).expect("it is JSON");
    let words = told.replace("infinity", "");
    prop_assert!(!words.contains("NaN") && !words.contains("inf") && !words.contains("-0.0 px"), "{told}");
    Ok(())
}

fn spoiled(name: &str, spoils: &[(usize, Option<Value>)]) -> Value {
    spoiled_value(example(name), spoils)
}

fn spoiled_value(mut file: Value, spoils: &[(usize, Option<Value>)]) -> Value {
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
        let file = spoiled(EXAMPLES[which], &spoils);
        let Ok(shot) = read::<Shot>(file.to_string().as_bytes()) else { return Ok(()) };
        match Plan::try_from(&shot) {
            Err(error) => {
                prop_assert!(!error.field().is_empty() && !error.allowed().is_empty(), "{error}");
                prop_assert!(error.to_string().len() < 600, "{error}");
            }
            Ok(plan) => {
                // Whatever can be planned can be computed, written and read again without a number that is none.
                is_plain(&Answer::of(&plan))?;
            }
        }
    }
}

const EXAMPLES: [&str; 4] = ["double-ropes", "lantern-slalom", "slipway-spin", "card-on-a-wall"];
const ALL: [Held; 5] = [Held::Key, Held::Ambient, Held::Background, Held::Depth, Held::Blur];

proptest! {
    #![proptest_config(ProptestConfig { cases: 300, ..ProptestConfig::default() })]

    #[test]
    fn whatever_can_be_planned_can_be_held_compared_and_kept_under_the_sun(
        which in 0..4usize, base in 0..4usize,
        spoils in prop::collection::vec((any::<usize>(), prop::option::weighted(0.9, odd_value())), 1..3),
    ) {
        let file = spoiled(EXAMPLES[which], &spoils);
        let Ok(shot) = read::<Shot>(file.to_string().as_bytes()) else { return Ok(()) };
        let Ok(plan) = Plan::try_from(&shot) else { return Ok(()) };
        let other: Shot = serde_json::from_value(example(EXAMPLES[base])).expect("the example is a shot");
        let as_it_was = Plan::try_from(&other).expect("the example is a plan");
        let held = hold(&as_it_was, &plan, &ALL, None);
        is_plain(&held.followed)?;
        is_plain(&held.gave)?;
        // What follows can be set: it is on the dials of this very shot.
        prop_assert!(Plan::try_from(&shot).is_ok_and(|plan| plan.with(held.settings).settings == held.settings));
        is_plain(&equivalents(&plan, &[]))?;
        is_plain(&ways(&plan))?;
        is_plain(&guides(&plan))?;
        is_plain(&compare((&other, &as_it_was), (&shot, &plan)))?;
        let (fitted, moved) = fit(&shot).expect("what can be planned has gear that can be");
        prop_assert!(moved.is_empty() && fitted == shot, "{moved:?}");
        // And it comes back from its file as it was.
        let again: Shot = serde_json::from_str(&serde_json::to_string(&shot).expect("plain data")).expect("it is a shot");
        prop_assert_eq!(again, shot);
    }

    #[test]
    fn a_spoiled_kit_is_taken_in_or_refused_with_a_sentence(
        spoils in prop::collection::vec((any::<usize>(), prop::option::weighted(0.8, odd_value())), 1..4),
    ) {
        let file = spoiled_value(example("kit"), &spoils);
        let kit = match read::<Kit>(file.to_string().as_bytes()) {
            Ok(kit) => kit,
            Err(_) => return Ok(()),
        };
        match kit.into_items() {
            Err(error) => prop_assert!(!error.field().is_empty() && error.to_string().len() < 600, "{error}"),
            Ok(items) => {
                for (item, _) in items {
                    let said = line(&item).expect("what was checked has a line");
                    prop_assert!(!said.contains("NaN") && !said.contains("inf"), "{said}");
                }
            }
        }
    }

    #[test]
    fn a_spoiled_unit_has_a_sheet_and_a_table_or_a_sentence(
        which in any::<usize>(), rate in 0.1..60.0f64,
        spoils in prop::collection::vec((any::<usize>(), prop::option::weighted(0.9, odd_value())), 1..4),
    ) {
        let units = example("kit")["units"].as_array().expect("a list").clone();
        let unit = spoiled_value(units[which % units.len()].clone(), &spoils);
        let Ok(item) = serde_json::from_value::<Item>(json!({ "what": "unit", "item": unit })) else { return Ok(()) };
        let Item::Unit(unit) = &item else { return Ok(()) };
        match item.check() {
            Err(error) => prop_assert!(!error.field().is_empty() && !error.allowed().is_empty(), "{error}"),
            Ok(()) => {
                let sheet = sheet(unit, rate).expect("what was checked has a sheet");
                is_plain(&sheet)?;
                prop_assert!(sheet.powers.iter().all(|at| at.t05_s > 0.0 && at.t05_s <= at.t01_s * (1.0 + 1e-9)), "{unit:?}");
                // Its table comes back as it was, or its name was no name for a table.
                let table = units_csv::write(std::slice::from_ref(unit)).expect("it can be written");
                let kit = std::collections::HashMap::from([(unit.id.clone(), (**unit).clone())]);
                if let Ok(read) = units_csv::read(table.as_bytes(), &kit) {
                    prop_assert_eq!(read.len(), 1);
                }
            }
        }
    }

    #[test]
    fn a_spoiled_recording_is_read_or_refused(
        file in 0..3usize, cut in 0.0..1.0f64, bytes in prop::collection::vec((0.0..1.0f64, any::<u8>()), 0..6)
    ) {
        let names = ["dunlin-500-full", "dunlin-500-quarter", "dunlin-500-sixteenth"];
        let path = crate::common::example_path(&format!("traces/{}", names[file])).replace(".json", ".csv");
        let mut text = std::fs::read(path).expect("the recording ships");
        for (at, byte) in bytes {
            let place = (at * text.len() as f64) as usize;
            text[place] = byte;
        }
        text.truncate((cut.max(0.02) * text.len() as f64) as usize);
        let mut reader = Reader::new();
        if reader.push(&text).is_err() {
            return Ok(());
        }
        match reader.finish() {
            Err(error) => prop_assert!(error.to_string().len() < 300, "{error}"),
            Ok(trace) => {
                let reading = analyse(trace);
                is_plain(&reading)?;
                is_plain(&reading.recording(0.5))?;
            }
        }
    }
}
