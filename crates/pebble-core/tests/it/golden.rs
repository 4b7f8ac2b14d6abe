//! The answers to every example that ships, byte for byte as they were.
//!
//! Moving code must not move a number. Where an answer changes for a reason, `GOLDEN=write cargo test -p pebble-core golden`
//! writes the files anew, and the change is read in the diff: one line an answer.

use super::common::{examples, plan};
use pebble_core::Shot;
use pebble_core::cautions::cautions;
use pebble_core::daylight::ways;
use pebble_core::findings::judge;
use pebble_core::gear::Kit;
use pebble_core::groups::{GroupShape, groups};
use pebble_core::hold::{equivalents, hold};
use pebble_core::matching::{Brief, Going, Priority, Stock, find, marks, nearest, nearest_rows, rows};
use pebble_core::quantity::scale::ShutterTime;
use pebble_core::{guides, sheet};
use pebble_core::{outlook, strips};
use serde_json::{Value, json};
use std::path::Path;

fn kit() -> Kit {
    serde_json::from_str(include_str!("../../../../docs/examples/kit.json")).expect("the kit is a kit")
}

/// What is answered about a shot, each under its name.
fn answers(shot: &Shot, stock: &Stock) -> Vec<(&'static str, Value)> {
    let plan = plan(shot);
    let outlook = outlook(&plan);
    let mut settings = plan.settings;
    let wider = strips::apertures(&plan.body)
        .rfind(|one| one.number() < settings.aperture.number())
        .unwrap_or(settings.aperture);
    settings.aperture = wider;
    let held = hold(&plan, &plan.with(settings), &shot.hold, None);
    let mut brief = Brief::new(shot, &plan).expect("the examples ask what can be asked");
    let going = Going::default();
    let light = find(&brief, stock, Priority::LeastToCarry, &going).expect("nobody stopped it");
    let margin = find(&brief, stock, Priority::Balanced, &going).expect("nobody stopped it");
    let near = if margin.is_empty() { nearest(&mut brief, stock, &going) } else { None }.unwrap_or_default();
    let rows_of_three = GroupShape { people: 9, rows: 3, row_gap_m: 0.6, curve_m: 0.3 };
    vec![
        ("forecast", json!(pebble_core::forecast(&plan))),
        ("findings", json!(judge(&plan, &outlook))),
        ("cautions", json!(cautions(shot, &plan))),
        ("strips", json!(strips::strips(&plan))),
        ("hold", json!({ "followed": held.followed, "gave": held.gave, "wider": wider.number() })),
        ("equivalents", json!(equivalents(&plan, &shot.hold))),
        ("ways", json!(ways(&plan))),
        ("guides", json!(guides::guides(&plan))),
        ("groups", json!(groups(&plan, &[rows_of_three]).ok())),
        ("marks", json!(marks(&brief, stock))),
        ("match, balanced", json!(rows(&brief, stock, &margin))),
        ("match, lightest", json!(rows(&brief, stock, &light).into_iter().take(3).collect::<Vec<_>>())),
        ("nearest", json!(nearest_rows(&brief, stock, &near))),
    ]
}

/// Findings of the shot with something wrong, each with its remedies.
fn troubles(shot: &Shot) -> Vec<(String, Value)> {
    let now = plan(shot);
    let told = |name: &str, troubled: Shot| {
        let plan = plan(&troubled);
        (format!("findings, {name}"), json!(judge(&plan, &outlook(&plan))))
    };
    let fastest: ShutterTime = now.body.times.1;
    let with = |change: &dyn Fn(&mut Shot)| {
        let mut troubled = shot.clone();
        change(&mut troubled);
        troubled
    };
    vec![
        told("fastest time", with(&|shot| shot.camera.shutter = fastest.label(now.body.grid))),
        told("full power", with(&|shot| shot.lights[0].power = 1.0)),
        told("half a metre", with(&|shot| shot.lights[0].distance_m = 0.5)),
        told("wide open", with(&|shot| shot.camera.aperture_f = now.body.apertures.0.number())),
        told("four times the speed", with(&|shot| shot.parts.iter_mut().for_each(|part| part.speed_m_s *= 4.0))),
        told("on another channel", with(&|shot| shot.channel = 9)),
    ]
}

/// Where two answers differ. A number may differ in its last digits: the mathematics library of another system rounds
/// otherwise.
fn differs(now: &Value, then: &Value, at: &str) -> Option<String> {
    match (now, then) {
        (Value::Object(now), Value::Object(then)) if now.keys().eq(then.keys()) => {
            now.iter().zip(then.values()).find_map(|((key, a), b)| differs(a, b, &format!("{at}/{key}")))
        }
        (Value::Array(now), Value::Array(then)) if now.len() == then.len() => {
            now.iter().zip(then).enumerate().find_map(|(index, (a, b))| differs(a, b, &format!("{at}/{index}")))
        }
        (Value::Number(a), Value::Number(b)) => {
            let (a, b) = (a.as_f64()?, b.as_f64()?);
            ((a - b).abs() > 1e-9 * b.abs().max(1e-6)).then(|| format!("{at}: {a} now, {b} then"))
        }
        _ => (now != then).then(|| format!("{at}: {now:.300} now, {then:.300} then")),
    }
}

fn compare(name: &str, answers: impl IntoIterator<Item = (String, Value)>) {
    let told: String = answers.into_iter().map(|(name, answer)| format!("{name}: {answer}\n")).collect();
    let file = Path::new(env!("CARGO_MANIFEST_DIR")).join("tests/golden").join(format!("{name}.txt"));
    if std::env::var_os("GOLDEN").is_some() {
        std::fs::write(&file, told).expect("it can be written");
        return;
    }
    let kept = std::fs::read_to_string(&file).expect("it was written once");
    assert_eq!(told.lines().count(), kept.lines().count(), "{name}");
    for (now, then) in told.lines().zip(kept.lines()).filter(|(now, then)| now != then) {
        let read = |line: &str| -> Value {
            let (_, answer) = line.split_once(": ").expect("a line begins with its name");
            serde_json::from_str(answer).expect("an answer is JSON")
        };
        let what = now.split(": ").next().unwrap_or_default();
        if let Some(where_) = differs(&read(now), &read(then), "") {
            panic!("{name}, {what}: {where_}");
        }
    }
}

#[test]
fn every_example_is_answered_as_it_was() {
    let stock = Stock::of_kit(&kit()).expect("the kit can be taken along");
    for shot in examples() {
        let name = shot.title.to_lowercase().replace(|letter: char| !letter.is_ascii_alphanumeric(), "-");
        let all = answers(&shot, &stock).into_iter().map(|(name, answer)| (name.to_owned(), answer));
        compare(&name, all.chain(troubles(&shot)));
    }
}

#[test]
fn every_unit_of_the_kit_has_the_sheet_it_had() {
    let sheets =
        kit().units.into_iter().map(|unit| (unit.id.clone(), json!(sheet::sheet(&unit, 8.0).expect("a unit"))));
    compare("kit", sheets);
}
