//! The document of the interface, walked: every operation is asked well and badly, and what it answers is what the document
//! says it can.

use crate::common::api::Api;
use crate::common::{example_path, run};
use jsonschema::Validator;
use reqwest::{Method, Response};
use serde_json::{Map, Value, json};
use std::collections::{BTreeMap, BTreeSet};
use std::sync::{Arc, Mutex};

struct Contract {
    document: Value,
    /// Checks that were made before: most answers are one of a few kinds, and a check takes longer to make than to use.
    checks: Mutex<BTreeMap<String, Arc<Validator>>>,
}

/// One operation of the document.
struct Operation {
    method: Method,
    path: String,
    said: Value,
}

impl Contract {
    fn operations(&self) -> Vec<Operation> {
        let paths = self.document["paths"].as_object().expect("paths");
        let of = |(path, methods): (&String, &Value)| {
            let methods = methods.as_object().expect("methods").clone();
            let path = path.clone();
            methods.into_iter().map(move |(method, said)| Operation {
                method: method.to_uppercase().parse().expect("a method"),
                path: path.clone(),
                said,
            })
        };
        paths.iter().flat_map(of).collect()
    }

    /// A check of what an operation answers with a status and a kind of content.
    fn schema(&self, schema: &Value) -> Arc<Validator> {
        let made = |schema: &Value| {
            let mut whole = schema.as_object().cloned().unwrap_or_default();
            whole.insert("components".to_owned(), self.document["components"].clone());
            Arc::new(jsonschema::validator_for(&Value::Object(whole)).expect("the schema is one"))
        };
        let mut checks = self.checks.lock().unwrap();
        Arc::clone(checks.entry(schema.to_string()).or_insert_with(|| made(schema)))
    }

    /// The answer is one that the document announces, in status, kind and shape.
    async fn fits(&self, operation: &Operation, what: &str, response: Response) -> u16 {
        let status = response.status().as_u16();
        let name = format!("{} {} {what}", operation.method, operation.path);
        let announced = &operation.said["responses"][status.to_string()];
        let kind = response.headers().get("content-type").map(|kind| kind.to_str().unwrap().to_owned());
        let bytes = response.bytes().await.expect("a body");
        let text = String::from_utf8_lossy(&bytes);
        assert!(!announced.is_null(), "{name}: {status} is not announced: {text:.300}");
        let Some(content) = announced.get("content") else {
            assert!(bytes.is_empty() || status == 304, "{name}: {status} has a body that is not announced");
            return status;
        };
        let kind = kind.unwrap_or_default().split(';').next().unwrap_or_default().to_owned();
        assert!(content.get(&kind).is_some() || status == 200, "{name}: {status} answers {kind}");
        if kind.ends_with("json") || kind.ends_with("ndjson") {
            let schema = self.schema(&content[&kind]["schema"]);
            let lines: Vec<&str> = if kind.ends_with("ndjson") { text.lines().collect() } else { vec![&text] };
            for line in lines {
                let body: Value =
                    serde_json::from_str(line).unwrap_or_else(|error| panic!("{name}: {error}: {line:.200}"));
                let wrong: Vec<String> = schema
                    .iter_errors(&body)
                    .take(3)
                    .map(|error| format!("{error} at {}", error.instance_path()))
                    .collect();
                assert!(wrong.is_empty(), "{name}: {status} does not fit: {wrong:?}");
            }
        }
        status
    }
}

/// What an operation is asked with, from the examples of the document.
struct Question {
    path: String,
    version: Option<i64>,
    body: Option<(String, Value)>,
}

fn good(contract: &Contract, operation: &Operation, version: Option<i64>) -> Question {
    let mut path = operation.path.clone();
    let mut query = Vec::new();
    let mut has_version = false;
    for parameter in operation.said["parameters"].as_array().into_iter().flatten() {
        let name = parameter["name"].as_str().unwrap();
        let example = match &parameter["example"] {
            Value::String(text) => text.clone(),
            Value::Null => match name {
                "kind" => "unit".to_owned(),
                _ => continue,
            },
            other => other.to_string(),
        };
        match parameter["in"].as_str().unwrap() {
            "path" => path = path.replace(&format!("{{{name}}}"), &example),
            "query" => query.push(format!("{name}={example}")),
            _ => has_version = true,
        }
    }
    if !query.is_empty() {
        path = format!("{path}?{}", query.join("&"));
    }
    let content = operation.said["requestBody"]["content"].as_object().and_then(|all| all.iter().next());
    let body = content.map(|(kind, content)| {
        let shared = content["examples"]["good"]["$ref"].as_str().map(|place| place.trim_start_matches('#'));
        let shared = shared.and_then(|place| contract.document.pointer(place)).map(|example| example["value"].clone());
        (kind.clone(), shared.unwrap_or_else(|| content["example"].clone()))
    });
    Question { path, version: has_version.then_some(version.unwrap_or(1)), body }
}

async fn ask(api: &Api, method: &Method, question: &Question) -> Response {
    let mut request = api.client.request(method.clone(), api.server.url(&question.path));
    if let Some(version) = question.version {
        request = request.header("if-match", format!("\"{version}\""));
    }
    if let Some((kind, body)) = &question.body {
        let body = match body {
            Value::String(text) => text.clone(),
            other => other.to_string(),
        };
        request = request.header("content-type", kind).body(body);
    }
    request.send().await.expect("an answer")
}

fn written() -> Contract {
    let document = serde_json::from_slice(&run(&["openapi"]).stdout).expect("the document is JSON");
    Contract { document, checks: Mutex::default() }
}

/// What the examples of the document cannot say by themselves.
async fn prepared(api: &Api, operation: &Operation, contract: &Contract) -> Question {
    let shot = "double-ropes";
    let now = |answer: Value| answer["version"].as_i64();
    let version = match operation.path.as_str() {
        path if path.starts_with("/api/shots/{id}") => now(api.get(&format!("/api/shots/{shot}")).await),
        path if path.starts_with("/api/kit/items/{id}") => now(api.get("/api/kit/items/brix-400").await),
        _ => None,
    };
    let mut question = good(contract, operation, version);
    match (operation.method.as_str(), operation.path.as_str()) {
        ("POST", "/api/match/apply" | "/api/match/explain") => {
            let shot = body_of(contract, "Shot");
            let asked = json!({ "shot": shot });
            let told = api.send(Method::POST, "/api/match", None, Some(&asked)).await.text().await.unwrap();
            let last: Value = serde_json::from_str(told.lines().last().unwrap()).unwrap();
            let setup = last["answer"]["rows"][0]["setup"].clone();
            question.body = Some(("application/json".to_owned(), json!({ "shot": shot, "setup": setup })));
        }
        ("PUT", "/api/kit/items/{id}") => {
            let thing = api.get("/api/kit/items/brix-400").await["thing"].clone();
            question.body = Some(("application/json".to_owned(), thing));
        }
        ("DELETE", "/api/kit/items/{id}") => {
            let made = api.send(Method::POST, "/api/kit/items", None, Some(&body_of(contract, "Item"))).await;
            let made: Value = made.json().await.unwrap();
            question.path = format!("/api/kit/items/{}", made["id"].as_str().unwrap());
            question.version = made["version"].as_i64();
        }
        (
            "POST",
            "/api/shots/{id}/undo" | "/api/kit/items/{id}/undo" | "/api/shots/{id}/redo" | "/api/kit/items/{id}/redo",
        ) => {
            let of = operation
                .path
                .rsplit_once('/')
                .unwrap()
                .0
                .replace("{id}", if operation.path.contains("kit") { "brix-400" } else { shot });
            let kept = api.get(&of).await;
            let field = if operation.path.contains("kit") { "thing" } else { "shot" };
            let mut body = kept[field].clone();
            if field == "shot" {
                body["title"] = json!("another")
            } else {
                body["item"]["name"] = json!("another")
            }
            let saved = api.send(Method::PUT, &of, kept["version"].as_i64(), Some(&body)).await;
            let mut version = saved.json::<Value>().await.unwrap()["version"].as_i64();
            if operation.path.ends_with("redo") {
                let back = api.send(Method::POST, &format!("{of}/undo"), version, None).await;
                version = back.json::<Value>().await.unwrap()["version"].as_i64();
            }
            question.version = version;
        }
        ("POST", "/api/copies/brought") => question.body = None,
        ("GET", "/api/copies/{id}") | ("POST", "/api/copies/{id}/bring-back") => {
            let made: Value = api.send(Method::POST, "/api/copies", None, None).await.json().await.unwrap();
            question.path = question.path.replace("{id}", made["name"].as_str().unwrap());
        }
        ("POST", "/api/traces") => {
            let trace = example_path("traces/dunlin-500-full").replace(".json", ".csv");
            question.body = Some(("text/csv".to_owned(), json!(std::fs::read_to_string(trace).unwrap())));
        }
        _ => {}
    }
    question
}

/// A good body by the name of its schema.
fn body_of(contract: &Contract, schema: &str) -> Value {
    contract.document["components"]["examples"][schema]["value"].clone()
}

#[tokio::test]
async fn every_operation_answers_as_the_document_says() {
    let contract = written();
    let mut seen: BTreeMap<String, BTreeSet<u16>> = BTreeMap::new();
    let api = Api::demo();
    let mut operations = contract.operations();
    // What takes things away comes last.
    operations.sort_by_key(|operation| operation.method == Method::DELETE);
    for operation in &operations {
        let question = prepared(&api, operation, &contract).await;
        let mut statuses = BTreeSet::new();
        let answer = if operation.path == "/api/copies/brought" {
            let copy = api.client.get(api.server.url("/api/copy")).send().await.unwrap().bytes().await.unwrap();
            api.client.post(api.server.url("/api/copies/brought")).body(copy).send().await.unwrap()
        } else if operation.path == "/api/stage/pictures" {
            let drawn = api.client.get(api.server.url("/api/shots/silks/picture?width=64")).send().await.unwrap();
            let drawn = drawn.bytes().await.unwrap();
            api.client.post(api.server.url("/api/stage/pictures")).body(drawn).send().await.unwrap()
        } else {
            ask(&api, &operation.method, &question).await
        };
        let status = contract.fits(operation, "asked well", answer).await;
        assert!((200..300).contains(&status), "{} {}: {status}", operation.method, question.path);
        statuses.insert(status);
        // Asked badly in every way that its form allows.
        let mut bad: Vec<(&str, Question)> = Vec::new();
        let again =
            |path: &str| Question { path: path.to_owned(), version: question.version, body: question.body.clone() };
        if operation.path.contains("{id}") {
            bad.push(("of nothing", again(&operation.path.replace("{id}", "nothing").replace("{revision}", "1"))));
        }
        if operation.path.contains("{revision}") {
            bad.push(("no number", again(&operation.path.replace("{id}", "double-ropes").replace("{revision}", "x"))));
        }
        if question.version.is_some() {
            bad.push(("without a version", Question { version: None, ..again(&question.path) }));
            bad.push(("at another version", Question { version: Some(9999), ..again(&question.path) }));
        }
        if let Some((kind, body)) = &question.body {
            for (what, wrong) in [("not a body", json!("{")), ("nothing", json!("")), ("another thing", json!([1, 2]))]
            {
                bad.push((what, Question { body: Some((kind.clone(), wrong)), ..again(&question.path) }));
            }
            if let Value::Object(fields) = body {
                let mut more: Map<String, Value> = fields.clone();
                more.insert("no_such_field".to_owned(), json!(1));
                bad.push((
                    "a field too many",
                    Question { body: Some((kind.clone(), more.into())), ..again(&question.path) },
                ));
            }
        }
        if question.path.contains('?') {
            let (path, query) = question.path.split_once('?').unwrap();
            for pair in query.split('&') {
                let name = pair.split('=').next().unwrap();
                bad.push(("no such query", again(&format!("{path}?{name}=%ff"))));
                bad.push(("far out", again(&format!("{path}?{name}=-1e99"))));
            }
        }
        for (what, question) in bad {
            let answer = ask(&api, &operation.method, &question).await;
            let status = contract.fits(operation, what, answer).await;
            assert!(status < 500, "{} {} {what}: {status}", operation.method, operation.path);
            statuses.insert(status);
        }
        // As a page of another site.
        let request = api.client.request(operation.method.clone(), api.server.url(&question.path));
        let stranger = request.header("host", "elsewhere.example").send().await.unwrap();
        assert_eq!(contract.fits(operation, "by a stranger", stranger).await, 403);
        seen.entry(format!("{} {}", operation.method, operation.path)).or_default().extend(statuses);
    }
    let count: usize = seen.values().map(BTreeSet::len).sum();
    println!("{} operations, {count} answers of different status", seen.len());
    assert!(seen.len() > 55 && count > 130, "{} operations, {count} statuses", seen.len());
}

/// Every figure with limits in an example: where it is, and the limits.
fn limited(contract: &Contract, schema: &Value, value: &Value, at: &str, all: &mut Vec<(String, f64, f64)>) {
    let name = schema["$ref"].as_str().and_then(|name| name.strip_prefix("#/components/schemas/"));
    if let Some(name) = name {
        return limited(contract, &contract.document["components"]["schemas"][name], value, at, all);
    }
    for form in ["oneOf", "anyOf", "allOf"].iter().filter_map(|form| schema[*form].as_array()).flatten() {
        limited(contract, form, value, at, all);
    }
    match value {
        Value::Object(fields) => {
            for (key, inside) in fields {
                limited(contract, &schema["properties"][key], inside, &format!("{at}/{key}"), all);
            }
        }
        Value::Array(items) => {
            for (index, inside) in items.iter().enumerate().take(2) {
                limited(contract, &schema["items"], inside, &format!("{at}/{index}"), all);
            }
        }
        Value::Number(_) => {
            if let (Some(min), Some(max)) = (schema["minimum"].as_f64(), schema["maximum"].as_f64()) {
                all.push((at.to_owned(), min, max));
            }
        }
        _ => {}
    }
}

#[tokio::test]
async fn limits_of_the_document_are_those_that_are_kept() {
    let (contract, api) = (written(), Api::demo());
    let kept = Api::demo();
    let mut tried = 0;
    let shots = ["double-ropes", "lantern-slalom", "slipway-spin", "roller-hall", "silks"].map(crate::common::example);
    let jobs = shots.map(|shot| ("/api/forecast", "Shot", shot)).into_iter().chain([
        ("/api/kit/import", "Kit", crate::common::example("kit")),
        ("/api/sky", "Sky", body_of(&contract, "Sky")),
        ("/api/streak", "StreakReading", body_of(&contract, "StreakReading")),
        ("/api/metering", "MeteringRequest", body_of(&contract, "MeteringRequest")),
    ]);
    for (path, schema, body) in jobs {
        let mut all = Vec::new();
        limited(&contract, &json!({ "$ref": format!("#/components/schemas/{schema}") }), &body, "", &mut all);
        if schema == "Kit" {
            all.truncate(120);
        }
        for (pointer, min, max) in all {
            for beyond in [max + max.abs().max(1.0), min - min.abs().max(1.0)] {
                let mut wrong = body.clone();
                let whole = wrong.pointer(&pointer).unwrap().is_i64();
                if whole && beyond < 0.0 {
                    continue;
                }
                *wrong.pointer_mut(&pointer).unwrap() = if whole { json!(beyond as i64) } else { json!(beyond) };
                let answer =
                    if schema == "Kit" { &kept } else { &api }.send(Method::POST, path, None, Some(&wrong)).await;
                let (status, text) = (answer.status(), answer.text().await.unwrap());
                assert_eq!(status, 422, "{path} {pointer} {beyond}: {text:.200}");
                tried += 1;
            }
        }
    }
    println!("{tried} figures beyond their limits");
    assert!(tried > 400, "{tried}");
}

/// Names of all properties anywhere in a schema.
fn properties(schema: &Value, found: &mut std::collections::BTreeSet<String>) {
    match schema {
        Value::Object(parts) => {
            if let Some(Value::Object(named)) = parts.get("properties") {
                found.extend(named.keys().cloned());
            }
            parts.values().for_each(|part| properties(part, found));
        }
        Value::Array(parts) => parts.iter().for_each(|part| properties(part, found)),
        _ => {}
    }
}

#[test]
fn every_figure_that_can_be_entered_is_a_field_of_the_contract() {
    let document: Value = serde_json::from_str(include_str!("../../../../docs/openapi.json")).expect("JSON");
    let mut known = std::collections::BTreeSet::new();
    properties(&document["components"]["schemas"], &mut known);
    let mut seen = 0;
    for entry in [include_str!("../../../../web/src/kit/fields.ts"), include_str!("../../../../web/src/kit/control.ts")]
    {
        for quoted in entry.split('\'').skip(1).step_by(2).filter(|text| !text.contains(['\n', ' ', '.'])) {
            let fields = match quoted.strip_prefix('/') {
                Some(pointer) => pointer.split('/').collect::<Vec<_>>(),
                None => continue,
            };
            for field in fields {
                assert!(known.contains(field), "{quoted}: nothing has a {field}");
                seen += 1;
            }
        }
        for named in entry.split("at('").skip(1).filter_map(|rest| rest.split('\'').next()) {
            for field in named.split('/') {
                assert!(known.contains(field), "{named}: nothing has a {field}");
                seen += 1;
            }
        }
    }
    assert!(seen > 50, "the figures were found: {seen}");
}
