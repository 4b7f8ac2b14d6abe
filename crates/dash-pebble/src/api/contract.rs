//! The OpenAPI document: what the handlers say of themselves, and what is true of all of them.
//!
//! Which refusals can come follows from what an operation takes, so it is said here once. Examples make the document usable
//! by whoever tries things out: each is answered with a success by a program that was started with demo data.

use super::ranges::RANGES;
use crate::demo;
use axum::http::header;
use axum::response::IntoResponse;
use pebble_core::gear::Item;
use serde_json::{Map, Value, json};
use std::collections::BTreeSet;
use std::sync::OnceLock;

/// A shot of the demo data, by its identity.
const SHOT: &str = "double-ropes";
/// A thing of the demo data that a shot carries, and its first version.
const THING: &str = "brix-400";

/// The document as it is asked for over HTTP; put together once.
pub async fn read() -> impl IntoResponse {
    static DOCUMENT: OnceLock<String> = OnceLock::new();
    let document =
        tokio::task::spawn_blocking(|| DOCUMENT.get_or_init(|| super::contract().to_string()).as_str()).await;
    ([(header::CONTENT_TYPE, "application/json")], document.expect("the contract is put together"))
}

/// The document with everything that is true of all operations.
pub fn completed(document: &utoipa::openapi::OpenApi) -> Value {
    let mut document = serde_json::to_value(document).unwrap_or_default();
    let bodies = bodies();
    if let Some(paths) = document["paths"].as_object_mut() {
        for (path, operations) in paths {
            for (method, operation) in operations.as_object_mut().into_iter().flatten() {
                complete(path, method, operation, &bodies);
            }
        }
    }
    for (name, example) in &bodies {
        document["components"]["examples"][name] = json!({ "value": example });
    }
    ranges(&mut document);
    for schema in ["Shot", "Kit"] {
        for constant in ["format", "version"] {
            document["components"]["schemas"][schema]["properties"][constant]["const"] =
                bodies[schema][constant].clone();
        }
    }
    document
}

fn complete(path: &str, method: &str, operation: &mut Value, bodies: &Map<String, Value>) {
    let names: Vec<String> = operation["parameters"]
        .as_array()
        .map_or_else(Vec::new, |all| all.iter().filter_map(|one| one["name"].as_str().map(str::to_owned)).collect());
    let has = |name: &str| names.iter().any(|one| one == name);
    let body = operation.get("requestBody").is_some();
    let writes = method != "get"
        && (path.starts_with("/api/shots") || path.starts_with("/api/kit") || path.starts_with("/api/cop"));
    let draws = path.ends_with("/picture");
    let mut refusals = vec![("403", "Asked by a page of another site"), ("500", "Something failed here")];
    if !names.is_empty() || body {
        refusals.push(("400", "It cannot be read"));
    }
    if path.contains('{') || path.ends_with("units.csv") || path.ends_with("/job") {
        refusals.push(("404", "There is none"));
    }
    if body {
        refusals.extend([("408", "It did not arrive"), ("413", "It is too large"), ("422", "A value cannot be")]);
    }
    if draws || path == "/api/units/sheet" || path.starts_with("/api/stand-ins") {
        refusals.push(("422", "A value cannot be"));
    }
    if has("If-Match") {
        refusals.extend([("409", "It is at another version"), ("428", "No version was named")]);
    }
    if writes {
        refusals.extend([("409", "It is taken, or in use"), ("507", "The disk is full")]);
    }
    if writes || draws || path.starts_with("/api/cop") {
        refusals.push(("503", "Too busy; ask again in a second"));
    }
    for (status, words) in refusals {
        let response = &mut operation["responses"][status];
        if response.is_null() {
            *response = json!({ "description": words });
        }
    }
    for (status, response) in operation["responses"].as_object_mut().into_iter().flatten() {
        if status.as_str() >= "400" {
            let description = response["description"].as_str().unwrap_or_default().to_owned();
            *response = json!({
                "description": description,
                "content": { "application/problem+json": { "schema": { "$ref": "#/components/schemas/Problem" } } },
            });
        }
    }
    for parameter in operation["parameters"].as_array_mut().into_iter().flatten() {
        let example = match parameter["name"].as_str().unwrap_or_default() {
            "id" if path.starts_with("/api/shots") => json!(SHOT),
            "id" if path.starts_with("/api/kit") => json!(THING),
            "If-Match" => json!("\"1\""),
            "revision" | "beside" => json!(first_shot_revision()),
            "width" => json!(240),
            "power" => json!(0.25),
            _ => continue,
        };
        parameter["example"] = example;
    }
    let content = operation["requestBody"]["content"].as_object_mut();
    for (_, content) in content.into_iter().flatten() {
        let name = content["schema"]["$ref"].as_str().and_then(|name| name.rsplit('/').next()).unwrap_or_default();
        if bodies.contains_key(name) {
            content["examples"] = json!({ "good": { "$ref": format!("#/components/examples/{name}") } });
        } else if path.ends_with("units.csv") {
            content["example"] = json!(crate::formats::units_csv::write(&demo::KIT.units[..1]).unwrap_or_default());
        }
    }
}

/// Things come first into the demo data, then the shots.
fn first_shot_revision() -> usize {
    demo::KIT.clone().into_items().map_or(1, |things| things.len() + 1)
}

/// Example bodies by the name of their schema.
fn bodies() -> Map<String, Value> {
    let shot: Value = serde_json::from_str(demo::EXAMPLES[0].1).unwrap_or_default();
    let unit = Item::Unit(Box::new(demo::KIT.units[0].clone())).with_id("another-unit");
    let mut own = demo::KIT.units[0].clone();
    own.owned = Some(2);
    let all = json!({
        "Shot": shot,
        "IntoStrip": { "shot": shot, "strip": "subject_distance", "text": "6 ft 6" },
        "Words": { "kind": "time", "text": "1/1900 s" },
        "MeterRequest": { "shot": shot, "reading": { "at": "subject", "read": "2.8 and 3" } },
        "Preferences": { "lengths": "imperial", "stops": "thirds", "dial": "numbers", "school": "t01", "utc_offset_min": 60 },
        "RereadRequest": { "shot": shot, "form": "ev100" },
        "UnitReading": {
            "on": "2026-11-26", "modifier": "none", "through": "bare", "read": "f/8 at 2 m", "stops": -0.3, "counts": true,
        },
        "FloorRequest": { "shot": shot, "height_m": 1.3, "gust_m_s": 6.0 },
        "ArrangeRequest": { "shot": shot, "like": shot },
        "Presses": { "presses_s": [0.24, 0.31, 0.22, 0.28, 0.26] },
        "LanesRequest": { "shot": shot, "at_s": 0.0 },
        "HoldRequest": { "base": shot, "shot": shot },
        "BalanceRequest": { "shot": shot, "wish": { "light": 0, "against": 0, "stops": -1.0 } },
        "DragRequest": { "shot": shot, "wish": { "part": 0, "share": 0.2, "ambient_stops": -1.0 } },
        "StreakReading": {
            "aperture_f": 5.6, "iso": 400.0, "filter_stops": 0.0, "speed_m_s": 4.0, "size_m": 0.05, "streak_stops": 1.0,
        },
        "MeteringRequest": { "tones": [{ "name": "wall", "share": 0.6, "reflectance": 0.04, "relative_distance": 2.0 }], "next": [] },
        "Sky": {
            "latitude_deg": 54.2, "longitude_deg": -4.5, "date": "2026-07-18", "time": "12:00", "utc_offset_min": 60,
            "cloud_stops": 1.0,
        },
        "MatchRequest": { "shot": shot },
        "Answers": { "activity": "rope_jump", "place": "dim_hall", "meter": "f/2.8 1/60 ISO 1600", "chances": "many" },
        "SpeedWords": { "text": "100 m in 12 s" },
        "JobRequest": { "shots": [SHOT] },
        "Item": unit,
        "ShotOrShots": shot,
        "FlashUnit": own,
        "Kit": &*demo::KIT,
        "VersionName": { "name": "as approved" },
    });
    match all {
        Value::Object(all) => all,
        _ => Map::new(),
    }
}

/// Writes the table of limits into the schemas.
fn ranges(document: &mut Value) {
    for (schema, property, limits) in RANGES {
        let place = &mut document["components"]["schemas"][*schema];
        // A schema of several forms has the property in each of them.
        let forms: Vec<&mut Value> = match place.get("oneOf") {
            Some(_) => place["oneOf"].as_array_mut().into_iter().flatten().collect(),
            None => vec![place],
        };
        for form in forms {
            if let Some(property) = form.get_mut("properties").and_then(|all| all.get_mut(*property)) {
                property["minimum"] = json!(limits.min);
                property["maximum"] = json!(limits.max);
            }
        }
    }
}

/// One schema of a document with all that it refers to, as JSON Schema 2020-12.
pub(super) fn json_schema(document: &Value, of: &str) -> Value {
    let schemas = &document["components"]["schemas"];
    let mut needed = BTreeSet::new();
    let mut open = vec![of.to_owned()];
    while let Some(name) = open.pop() {
        if needed.insert(name.clone()) {
            referred(&schemas[&name], &mut open);
        }
    }
    let text = |name: &str| schemas[name].to_string().replace("#/components/schemas/", "#/$defs/");
    let read = |name: &str| serde_json::from_str::<Value>(&text(name)).unwrap_or_default();
    let definitions: Map<String, Value> =
        needed.iter().filter(|name| *name != of).map(|name| (name.clone(), read(name))).collect();
    let mut whole = read(of);
    whole["$schema"] = json!("https://json-schema.org/draft/2020-12/schema");
    whole["$defs"] = Value::Object(definitions);
    whole
}

/// Names of the schemas that a value refers to.
fn referred(value: &Value, names: &mut Vec<String>) {
    match value {
        Value::Object(fields) => {
            let own = fields.get("$ref").and_then(Value::as_str).and_then(|path| path.rsplit('/').next());
            names.extend(own.map(str::to_owned));
            fields.values().for_each(|inner| referred(inner, names));
        }
        Value::Array(items) => items.iter().for_each(|inner| referred(inner, names)),
        _ => {}
    }
}
