//! Match over HTTP and on the command line: told line by line, stopped when nobody listens, the same everywhere.

use crate::common::api::{Api, problem};
use crate::common::{example, example_path, run};
use reqwest::{Method, StatusCode};
use serde_json::{Value, json};
use std::time::{Duration, Instant};

/// The lines that a question is answered with.
async fn told(api: &Api, shot: &Value) -> Vec<Value> {
    let asked = json!({ "shot": shot });
    let response = api.send(Method::POST, "/api/match", None, Some(&asked)).await;
    assert_eq!(
        (response.status(), &response.headers()["content-type"]),
        (StatusCode::OK, &"application/x-ndjson".parse().unwrap())
    );
    let text = response.text().await.expect("lines");
    text.lines().map(|line| serde_json::from_str(line).expect("a line of JSON")).collect()
}

async fn answer(api: &Api, shot: &Value) -> Value {
    let lines = told(api, shot).await;
    assert_eq!(lines[0]["is"], "asked");
    let last = lines.last().expect("a last line");
    assert_eq!(last["is"], "found");
    last["answer"].clone()
}

async fn posted(api: &Api, path: &str, body: Value) -> Value {
    let response = api.send(Method::POST, path, None, Some(&body)).await;
    let (status, text) = (response.status(), response.text().await.expect("an answer"));
    assert_eq!(status, StatusCode::OK, "{path}: {text}");
    serde_json::from_str(&text).expect("JSON")
}

#[tokio::test]
async fn the_command_line_gives_the_list_of_the_interface() {
    let api = Api::demo();
    let kit = example_path("kit");
    for name in ["sabre-reach", "slipway-spin", "double-ropes"] {
        let output = run(&["match", &example_path(name), "--kit", &kit]);
        assert!(output.status.success(), "{name}: {}", String::from_utf8_lossy(&output.stderr));
        let written: Value = serde_json::from_slice(&output.stdout).expect("JSON");
        assert_eq!((&written["format"], &written["version"]), (&"dash-pebble/match".into(), &1.into()));
        let shown = answer(&api, &example(name)).await;
        assert_eq!(written["rows"], shown["rows"], "{name}");
        assert_eq!(written["nearest"], shown["nearest"], "{name}");
        let some = |list: &str| written[list].as_array().is_some_and(|list| !list.is_empty());
        assert_ne!(some("rows"), some("nearest"), "{name}: either something works or something would have to give");
    }
    // Of a data file, too; and another priority is another order.
    let data = api.server.data.to_str().unwrap().to_owned();
    drop(api);
    let folder = tempfile::TempDir::new().unwrap();
    let copy = folder.path().join("copy.sqlite");
    let server = crate::common::Server::on(&copy, &["--demo"]);
    drop(server);
    assert!(!data.is_empty());
    let copy = copy.to_str().unwrap();
    let of = |priority: &str| {
        let output = run(&["match", &example_path("sabre-reach"), "--data", copy, "--priority", priority]);
        assert!(output.status.success(), "{}", String::from_utf8_lossy(&output.stderr));
        serde_json::from_slice::<Value>(&output.stdout).expect("JSON")
    };
    let (carried, quick) = (of("least-to-carry"), of("shortest-pulse"));
    let weights: Vec<f64> =
        carried["rows"].as_array().unwrap().iter().filter_map(|row| row["weight_kg"].as_f64()).collect();
    assert!(weights.len() > 3 && weights.windows(2).all(|pair| pair[0] <= pair[1] + 0.2), "{weights:?}");
    assert_ne!(carried["rows"][0]["title"], quick["rows"][0]["title"]);
}

#[test]
fn what_cannot_be_matched_on_the_command_line_is_said() {
    let shot = example_path("sabre-reach");
    for (arguments, words) in [
        (vec!["match", &shot, "--data", "/nowhere/at-all.sqlite"], "is not there"),
        (vec!["match", &shot, "--kit", &shot], "is not a kit"),
        (vec!["match", &shot, "--kit", "/nowhere.json"], "cannot be read"),
    ] {
        let output = run(&arguments);
        let told = String::from_utf8_lossy(&output.stderr).into_owned();
        assert!(!output.status.success() && told.contains(words) && !told.contains("panicked"), "{told}");
    }
}

#[tokio::test]
async fn a_set_up_is_put_into_the_shot_and_holds_there() {
    let api = Api::demo();
    for name in ["sabre-reach", "lantern-slalom", "roller-hall"] {
        let shot = example(name);
        let found = answer(&api, &shot).await;
        let setup = &found["rows"][0]["setup"];
        let there = posted(&api, "/api/match/apply", json!({ "shot": shot, "setup": setup })).await;
        let key = setup["lights"][0]["light"].as_u64().unwrap() as usize;
        assert_eq!(there["lights"][key]["unit"]["id"], setup["lights"][0]["unit"]);
        assert_eq!((&there["camera"]["shutter"], &there["camera"]["iso"]), (&setup["shutter"], &setup["iso"]));
        let forecast = posted(&api, "/api/forecast", there.clone()).await;
        let findings = forecast["findings"].as_array().unwrap();
        for trouble in findings.iter().filter(|finding| finding["severity"] == "trouble") {
            let id = trouble["id"].as_str().unwrap();
            assert!(!["rows-cut", "key", "depth"].contains(&id), "{name}: {trouble}");
        }
        // The steps end where the forecast does.
        let chains = posted(&api, "/api/match/explain", json!({ "shot": shot, "setup": setup })).await;
        let steps = chains[0]["steps"].as_array().unwrap();
        assert!(chains.as_array().unwrap().len() == 1 && steps.len() >= 7, "{name}: {chains}");
        // The whole shot can be set as well.
        let whole = posted(&api, "/api/match/whole", json!({ "shot": shot })).await;
        let crew = &whole["rows"][0]["setup"];
        posted(&api, "/api/match/apply", json!({ "shot": shot, "setup": crew })).await;
    }
    let table =
        api.send(Method::POST, "/api/match/table", None, Some(&json!({ "shot": example("sabre-reach") }))).await;
    let text = table.text().await.unwrap();
    let shown = answer(&api, &example("sabre-reach")).await;
    assert!(text.starts_with("rank,shot,units"));
    assert_eq!(text.lines().count(), 1 + shown["rows"].as_array().unwrap().len());
}

#[tokio::test]
async fn a_wish_is_kept_with_its_shot_and_undone_with_it() {
    let api = Api::demo();
    let first = api.first_shot().await;
    let path = format!("/api/shots/{}", first["id"].as_str().unwrap());
    let mut shot = first["shot"].clone();
    let wish = json!({ "iso_max": 800.0, "any_modifier": true, "blur": [{ "part": "Shoes", "px": 2.5 }] });
    shot["wish"] = wish.clone();
    let saved = api.send(Method::PUT, &path, first["version"].as_i64(), Some(&shot)).await;
    assert!(saved.status().is_success(), "{}", saved.text().await.unwrap());
    let kept = api.get(&path).await;
    assert_eq!(kept["shot"]["wish"], wish);
    // It is what is asked now, beside what the shot says itself.
    let found = answer(&api, &kept["shot"]).await;
    assert_eq!((&found["wish"]["iso_max"], &found["wish"]["any_modifier"]), (&800.0.into(), &true.into()));
    let shoes = found["wish"]["blur"].as_array().unwrap().iter().find(|limit| limit["part"] == "Shoes").unwrap();
    assert!((shoes["px"].as_f64().unwrap() - 2.5).abs() < 1e-9);
    assert!(found["wish"]["depth_m"].is_number() && found["wish"]["slowest"].is_string());
    let undone = api.send(Method::POST, &format!("{path}/undo"), kept["version"].as_i64(), None).await;
    assert!(undone.status().is_success());
    assert!(api.get(&path).await["shot"].get("wish").is_none());
    // A file with a wish goes through the command line as it goes through here.
    let folder = tempfile::TempDir::new().unwrap();
    let file = folder.path().join("shot.json");
    std::fs::write(&file, kept["shot"].to_string()).unwrap();
    let output = run(&["match", file.to_str().unwrap(), "--kit", &example_path("kit")]);
    let written: Value = serde_json::from_slice(&output.stdout).expect("JSON");
    assert_eq!((&written["wish"], &written["rows"]), (&found["wish"], &found["rows"]));
    let misspelt = kept["shot"].to_string().replace("iso_max\":800", "iso_most\":800");
    std::fs::write(&file, misspelt).unwrap();
    let output = run(&["match", file.to_str().unwrap(), "--kit", &example_path("kit")]);
    assert!(!output.status.success() && String::from_utf8_lossy(&output.stderr).contains("iso_most"));
}

#[tokio::test]
async fn a_whole_job_names_what_to_take() {
    let api = Api::demo();
    let told = api.send(Method::POST, "/api/match/job", None, Some(&json!({ "shots": [] }))).await;
    let told = told.text().await.expect("an answer");
    let last: Value = serde_json::from_str(told.lines().last().expect("a line")).expect("JSON");
    assert_eq!(last["is"], "found");
    let job = &last["answer"];
    assert_eq!(job["shots"].as_array().unwrap().len(), 7);
    assert!(job["shots"].as_array().unwrap().iter().filter(|shot| shot["can"] == true).count() >= 5);
    let counts = job["take"].as_array().unwrap().iter().map(|one| one["count"].as_u64().unwrap());
    assert_eq!(counts.sum::<u64>(), job["units"].as_u64().unwrap());
    // A job too long is refused, not cut short.
    let id = api.first_shot().await["id"].clone();
    let long = json!({ "shots": vec![id; 201] });
    let (status, refusal) = problem(api.send(Method::POST, "/api/match/job", None, Some(&long)).await).await;
    assert_eq!((status, &refusal["field"]), (StatusCode::UNPROCESSABLE_ENTITY, &"shots".into()));
    let (status, refusal) =
        problem(api.send(Method::POST, "/api/match/job", None, Some(&json!({ "shots": ["nowhere"] }))).await).await;
    assert_eq!(status, StatusCode::NOT_FOUND, "{refusal}");
}

#[tokio::test]
async fn wrong_questions_are_refused_by_name_and_an_empty_kit_answers() {
    let api = Api::demo();
    for (wish, field) in [
        (json!({ "iso_min": 800, "iso_max": 100 }), "wish.iso_min"),
        (json!({ "nearest_m": 0 }), "wish.nearest_m"),
        (json!({ "frames": 0 }), "wish.frames"),
        (json!({ "slowest": "never" }), "wish.slowest"),
    ] {
        let mut shot = example("sabre-reach");
        shot["wish"] = wish;
        let response = api.send(Method::POST, "/api/match", None, Some(&json!({ "shot": shot }))).await;
        let (status, refusal) = problem(response).await;
        assert_eq!((status, &refusal["field"]), (StatusCode::UNPROCESSABLE_ENTITY, &field.into()));
    }
    let mut shot = example("sabre-reach");
    let found = answer(&api, &shot).await;
    let mut setup = found["rows"][0]["setup"].clone();
    setup["lights"][0]["unit"] = "moon-1".into();
    let wrong = json!({ "shot": shot, "setup": setup });
    let (status, refusal) = problem(api.send(Method::POST, "/api/match/apply", None, Some(&wrong)).await).await;
    assert_eq!((status, &refusal["field"]), (StatusCode::UNPROCESSABLE_ENTITY, &"setup.lights[0].unit".into()));
    let (status, _) = problem(api.send(Method::POST, "/api/match", None, Some(&json!({ "shot": 7 }))).await).await;
    assert_eq!(status, StatusCode::BAD_REQUEST);

    // All units put away: a plain answer.
    for unit in example("kit")["units"].as_array().unwrap() {
        let path = format!("/api/kit/items/{}", unit["id"].as_str().unwrap());
        let kept = api.get(&path).await;
        let version = kept["version"].as_i64();
        let gone = api.send(Method::POST, &format!("{path}/retire"), version, None).await;
        assert!(gone.status().is_success(), "{}", gone.text().await.unwrap());
    }
    let lines = told(&api, &shot).await;
    assert_eq!(lines[0]["map"]["trails"], json!([]));
    let empty = lines.last().unwrap()["answer"].clone();
    assert_eq!((&empty["rows"], &empty["nearest"]), (&json!([]), &json!([])));
    shot["wish"] = json!({ "heads": 2 });
    let whole = posted(&api, "/api/match/whole", json!({ "shot": shot })).await;
    assert!(whole["rows"] == json!([]) && whole["why"].is_string(), "{whole}");
}

/// How far it is must not be heard after the answer: whoever listens would wait for another one.
#[tokio::test]
async fn the_answer_is_the_last_line_however_busy_the_machine_is() {
    let api = Api::demo();
    let job = json!({ "shots": ["double-ropes", "sabre-reach"] });
    for _ in 0..3 {
        let mut asked = tokio::task::JoinSet::new();
        for _ in 0..16 {
            asked.spawn(api.client.post(api.server.url("/api/match/job")).json(&job).send());
        }
        while let Some(response) = asked.join_next().await {
            let text = response.expect("no slip").expect("a response").text().await.expect("lines");
            let last: Value = serde_json::from_str(text.lines().last().expect("a last line")).expect("JSON");
            assert_eq!(last["is"], "found", "{text}");
        }
    }
}

/// A kit of thousands: told while it is searched, never in the way of the rest, and ended by hanging up.
#[tokio::test]
async fn a_long_search_goes_on_beside_the_rest_and_ends_when_nobody_listens() {
    let api = Api::demo();
    let mut kit = example("kit");
    let first = kit["units"][0].clone();
    let many = (0..3000).map(|number| {
        let mut unit = first.clone();
        unit["id"] = format!("brix-{number}").into();
        // None the same: nothing can be folded.
        unit["output"]["metres"] = (40.0 + f64::from(number) / 60.0).into();
        unit
    });
    kit["units"] = many.collect();
    let taken_in = api.send(Method::POST, "/api/kit/import", None, Some(&kit)).await;
    assert!(taken_in.status().is_success(), "{}", taken_in.text().await.unwrap());

    let mut shot = example("lantern-slalom");
    shot["wish"] = json!({ "any_modifier": true });
    let body = json!({ "shot": shot });
    let mut response = api.send(Method::POST, "/api/match", None, Some(&body)).await;
    let mut heard = String::new();
    while !heard.contains("\"progress\"") {
        let piece =
            response.chunk().await.expect("it goes on").expect("it does not end before it has said how far it is");
        heard.push_str(&String::from_utf8_lossy(&piece));
    }
    // Meanwhile the Bench answers.
    let started = Instant::now();
    posted(&api, "/api/bench", example("lantern-slalom")).await;
    assert!(started.elapsed() < Duration::from_secs(6), "the Bench waited {:?}", started.elapsed());
    // Hanging up ends it: the program rests again.
    drop(response);
    let busy = || {
        let stat = std::fs::read_to_string(format!("/proc/{}/stat", api.server.id())).expect("it runs");
        let fields: Vec<&str> = stat.rsplit(')').next().unwrap().split_whitespace().collect();
        fields[11].parse::<u64>().unwrap() + fields[12].parse::<u64>().unwrap()
    };
    let started = Instant::now();
    loop {
        let before = busy();
        tokio::time::sleep(Duration::from_millis(200)).await;
        if busy() - before <= 2 {
            break;
        }
        assert!(started.elapsed() < Duration::from_secs(20), "it went on although nobody listened");
    }
}

#[tokio::test]
async fn a_wish_is_checked_where_a_shot_is_and_a_bad_one_of_old_is_set_aside() {
    let api = Api::demo();
    let kept = api.first_shot().await;
    let path = format!("/api/shots/{}", kept["id"].as_str().unwrap());
    for (wish, field) in [
        (json!({ "frames": 0 }), "wish.frames"),
        (json!({ "iso_min": 6400.0, "iso_max": 100.0 }), "wish.iso_min"),
        (json!({ "slowest": "soon" }), "wish.slowest"),
    ] {
        let mut shot = kept["shot"].clone();
        shot["wish"] = wish;
        let (status, told) = problem(api.send(Method::PUT, &path, Some(1), Some(&shot)).await).await;
        assert_eq!((status, &told["field"]), (StatusCode::UNPROCESSABLE_ENTITY, &json!(field)), "{told}");
        let (status, _) = problem(api.send(Method::POST, "/api/shots", None, Some(&shot)).await).await;
        assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    }
    // An earlier version took it: the shot opens, and says what was set aside and why.
    let folder = tempfile::TempDir::new().unwrap();
    let store = dash_pebble::store::open(&folder.path().join("season.sqlite")).await.unwrap();
    let mut shot: pebble_core::Shot = serde_json::from_value(kept["shot"].clone()).unwrap();
    shot.wish = serde_json::from_value(json!({ "frames": 0 })).unwrap();
    let added = dash_pebble::store::shots::add(&store, &shot).await.unwrap();
    assert_eq!(added.thing.wish, None);
    assert!(
        matches!(&added.moved[..], [one] if one.field == "wish" && one.sentence.contains("wish.frames")),
        "{:?}",
        added.moved
    );
}
