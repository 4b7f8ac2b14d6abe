//! The brief, movement in time and the floor over HTTP: what is asked is answered, and what cannot be is said at its field.

use crate::common::api::Api;
use reqwest::{Method, StatusCode};
use serde_json::{Value, json};
use std::time::Instant;

async fn posted(api: &Api, path: &str, body: &Value) -> (StatusCode, Value) {
    let answer = api.send(Method::POST, path, None, Some(body)).await;
    (answer.status(), answer.json().await.expect("JSON"))
}

async fn taken(api: &Api, path: &str, body: &Value) -> Value {
    let (status, answer) = posted(api, path, body).await;
    assert_eq!(status, StatusCode::OK, "{path}: {answer}");
    answer
}

#[tokio::test(flavor = "multi_thread")]
async fn activities_have_pictures_that_are_drawn_once() {
    let api = Api::demo();
    let list = api.get("/api/activities").await;
    let list = list.as_array().expect("a list");
    assert!(list.len() >= 40);
    let ids: Vec<&str> = list.iter().map(|one| one["id"].as_str().expect("an id")).collect();
    let picture = async |id: &str| {
        let answer =
            reqwest::get(api.server.url(&format!("/api/activities/picture?activity={id}"))).await.expect("an answer");
        assert_eq!(answer.status(), StatusCode::OK, "{id}");
        answer.bytes().await.expect("a picture").to_vec()
    };
    let mut first = Vec::new();
    for id in &ids[..12] {
        first.push(picture(id).await);
    }
    assert!(first.iter().all(|bytes| bytes.starts_with(b"\x89PNG") && bytes.len() > 1000));
    // No two of them look alike, and the second time they are the same.
    for (index, one) in first.iter().enumerate() {
        assert!(first[..index].iter().all(|other| other != one), "{} looks like another", ids[index]);
    }
    let began = Instant::now();
    for (id, before) in ids.iter().zip(&first) {
        assert_eq!(&picture(id).await, before);
    }
    assert!(began.elapsed().as_secs_f64() < 2.0, "kept ones are not drawn again: {:?}", began.elapsed());
    let unknown = reqwest::get(api.server.url("/api/activities/picture?activity=lunch")).await.expect("an answer");
    assert_eq!(unknown.status(), StatusCode::UNPROCESSABLE_ENTITY);
}

#[tokio::test(flavor = "multi_thread")]
async fn a_brief_is_a_shot_that_can_be_kept_opened_and_given_out() {
    let api = Api::demo();
    let found = taken(&api, "/api/brief", &json!({ "activity": "fencing", "meter": "f/2.8 1/60 ISO 1600" })).await;
    assert_eq!(found["troubles"], 0, "{}", found["lit"]);
    let kept: Value = {
        let answer = api.send(Method::POST, "/api/shots", None, Some(&found["shot"])).await;
        assert_eq!(answer.status(), StatusCode::CREATED);
        answer.json().await.expect("JSON")
    };
    let id = kept["id"].as_str().expect("an id");
    let forecast = taken(&api, "/api/forecast", &kept["shot"]).await;
    let told = |answer: &Value| {
        let parts = answer["forecast"]["parts"].as_array().expect("parts").clone();
        parts.iter().map(|part| part["blur_px"].as_f64().expect("a blur")).collect::<Vec<_>>()
    };
    let said: Vec<f64> = found["parts"]
        .as_array()
        .expect("parts")
        .iter()
        .map(|part| part["blur_px"].as_f64().expect("a blur"))
        .collect();
    for (brief, bench) in said.iter().zip(told(&forecast)) {
        assert!((brief - bench).abs() < 1e-9, "the brief says {brief}, the Bench {bench}");
    }
    // Both ends of a speed are told, and the slow one is never worse.
    for part in forecast["forecast"]["parts"].as_array().expect("parts") {
        if let Some(slow) = part["blur_px_slowest"].as_f64() {
            assert!(slow <= part["blur_px"].as_f64().expect("a blur") + 1e-9, "{part}");
        }
    }
    // As a template it is on its own list; given out and taken in it is the same.
    let mut shot = kept["shot"].clone();
    shot["template"] = json!(true);
    let version = kept["version"].as_i64().expect("a version");
    let put = api.send(Method::PUT, &format!("/api/shots/{id}"), Some(version), Some(&shot)).await;
    assert_eq!(put.status(), StatusCode::OK);
    let templates = api.get("/api/shots?templates=true").await;
    assert_eq!((templates["count"].as_i64(), templates["shots"][0]["title"].as_str()), (Some(1), Some("Fencing")));
    assert_eq!(api.get("/api/shots?most=50").await["shots"].as_array().map(Vec::len), Some(8));
    let file = api.get(&format!("/api/shots/{id}/file")).await;
    assert_eq!((&file["activity"], &file["template"]), (&json!("fencing"), &json!(true)));
    assert_eq!(file["parts"][2]["slowest_m_s"], 8.0);
}

#[tokio::test(flavor = "multi_thread")]
async fn what_is_said_of_speeds_presses_and_moments_is_read_in_the_core() {
    let api = Api::demo();
    let shot = api.first_shot().await["shot"].clone();
    let speed = taken(&api, "/api/speed", &json!({ "text": "120 px at 1/60", "shot": shot })).await;
    // 120 px of 6 µm at the subject, in a sixty-fourth: what the forecast's own magnification makes of it.
    let m = 0.035 / (4.5 - 0.035);
    let by_hand = 120.0 * 6e-6 / m * 64.0;
    assert!((speed["fastest_m_s"].as_f64().expect("a speed") / by_hand - 1.0).abs() < 1e-3, "{speed} {by_hand}");
    for (path, body, words) in [
        ("/api/speed", json!({ "text": "fast" }), "says no speed"),
        ("/api/speed", json!({ "text": "1 m in 1 frame at 50 fps" }), "no time passes"),
        ("/api/reaction", json!({ "presses_s": [0.2] }), "4 presses or more"),
        ("/api/brief", json!({ "activity": "lunch" }), "no activity that this version knows"),
        ("/api/brief", json!({ "activity": "kick", "meter": "bright" }), "is no reading"),
        ("/api/lanes", json!({ "shot": shot, "at_s": 1e9 }), "not between"),
        ("/api/floor", json!({ "shot": shot, "height_m": 99.0 }), "not between"),
        (
            "/api/floor",
            json!({ "shot": shot, "height_m": 1.3, "carried": { "light": 7, "x_m": 0.0, "y_m": 0.0, "z_m": 1.0 } }),
            "one of the 1 lights",
        ),
        ("/api/floor", json!({ "shot": shot, "height_m": 1.3, "in_hand": 5 }), "one of the 1 lights"),
        ("/api/floor", json!({ "shot": shot, "height_m": 1.3, "measure": [[0, 0, 0], [1e9, 0, 0]] }), "not between"),
        (
            "/api/floor",
            json!({ "shot": shot, "height_m": 1.3, "taped": { "light": 0, "to_mark_m": 0.2, "to_camera_m": 0.2, "right": true } }),
            "cannot meet",
        ),
    ] {
        let (status, problem) = posted(&api, path, &body).await;
        assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY, "{path}: {problem}");
        assert!(problem["detail"].as_str().unwrap_or_default().contains(words), "{path}: {problem}");
    }
    let pressed = taken(&api, "/api/reaction", &json!({ "presses_s": [0.2, 0.3, 0.25, 0.25] })).await;
    assert!((pressed["reaction_s"].as_f64().expect("a time") - 0.25).abs() < 1e-12);
}

#[tokio::test(flavor = "multi_thread")]
async fn lanes_say_where_everything_is_at_a_moment() {
    let api = Api::demo();
    let briefed = taken(&api, "/api/brief", &json!({ "activity": "jump", "chances": "few" })).await;
    let mut shot = briefed["shot"].clone();
    shot["parts"][0]["phases"] = json!([{ "is": "rest", "seconds": 0.2 }, { "is": "jump", "height_m": 0.4 }]);
    shot["moment"]["opens_at_s"] = json!(0.3);
    let at = async |at_s: f64| taken(&api, "/api/lanes", &json!({ "shot": shot, "at_s": at_s })).await;
    let (ground, top) = (at(0.1).await, at(0.2 + 0.285_6).await);
    let place = |answer: &Value| answer["lanes"][0]["now"]["place_m"].as_f64().expect("a place");
    assert!(place(&ground).abs() < 1e-12 && (place(&top) - 0.4).abs() < 1e-4, "{} {}", place(&ground), place(&top));
    // Higher in the frame by as much as the camera sees of it.
    let height = |answer: &Value| answer["lanes"][0]["now"]["y_share"].as_f64().expect("it stands in the frame");
    assert!(height(&top) < height(&ground) - 0.05, "{} {}", height(&top), height(&ground));
    assert_eq!(top["lanes"][0]["phases"].as_array().map(Vec::len), Some(2));
    // Few chances are five tries, and the chance of both schools grows with them.
    let tries = top["peak"]["tries"].as_array().expect("tries");
    assert!(tries.iter().any(|row| row["tries"] == 5));
    for school in ["one", "burst"] {
        let chances: Vec<f64> = tries.iter().map(|row| row[school].as_f64().expect("a chance")).collect();
        assert!(chances.windows(2).all(|pair| pair[1] >= pair[0]) && chances[0] > 0.0, "{school}: {chances:?}");
    }
}

#[tokio::test(flavor = "multi_thread")]
async fn a_set_goes_out_as_a_table_and_onto_another_shot() {
    let api = Api::demo();
    let shot = async |id: &str| api.get(&format!("/api/shots/{id}")).await["shot"].clone();
    let (hall, ropes) = (shot("roller-hall").await, shot("double-ropes").await);
    let response = api.send(Method::POST, "/api/floor/table", None, Some(&hall)).await;
    assert_eq!(response.status(), StatusCode::OK);
    assert!(response.headers()["content-disposition"].to_str().is_ok_and(|name| name.contains("set.csv")));
    let text = response.text().await.expect("text");
    let mut table = csv::Reader::from_reader(text.as_bytes());
    let columns = table.headers().expect("a head").clone();
    let rows: Vec<csv::StringRecord> = table.records().map(|row| row.expect("a row")).collect();
    assert_eq!(rows.len(), hall["lights"].as_array().expect("lights").len());
    let cell = |row: &csv::StringRecord, name: &str| {
        row.get(columns.iter().position(|column| column == name).expect("a column")).expect("a cell").to_owned()
    };
    for (row, light) in rows.iter().zip(hall["lights"].as_array().expect("lights")) {
        assert_eq!(cell(row, "unit"), light["unit"]["name"].as_str().expect("a name"));
        let far: f64 = cell(row, "head_to_it_m").parse().expect("a figure");
        assert!((far - light["distance_m"].as_f64().expect("a figure")).abs() < 0.006, "{row:?}");
        // The tapes give the place back: foot, height and chest are one triangle.
        let number = |name: &str| cell(row, name).parse::<f64>().expect("a figure");
        let rise = number("head_height_m") - 1.3;
        let backdrop = light["role"] == "backdrop";
        assert_eq!(cell(row, "measured_to"), if backdrop { "background" } else { "chest" });
        let to_chest = number("foot_to_mark_m").hypot(rise);
        assert!(backdrop || (to_chest - far).abs() < 0.02, "{row:?}");
    }
    // What sits on the camera is on it, and has no foot to be taped.
    let mut on_camera = hall.clone();
    on_camera["lights"][0]["on_camera"] = json!(true);
    let response = api.send(Method::POST, "/api/floor/table", None, Some(&on_camera)).await;
    let text = response.text().await.expect("text");
    let row = csv::Reader::from_reader(text.as_bytes()).records().next().expect("a row").expect("a row");
    assert_eq!(
        (cell(&row, "side_from_camera"), cell(&row, "foot_to_mark_m")),
        ("on the camera".to_owned(), String::new())
    );
    // The hall's six lights over the ropes: they stand there, and the ropes are who they were.
    let answer = taken(&api, "/api/floor/arranged", &json!({ "shot": ropes, "like": hall })).await;
    assert!(answer["says"].is_array(), "{answer}");
    let there = answer["shot"].clone();
    assert_eq!(there["lights"].as_array().map(Vec::len), Some(6));
    assert_eq!((&there["parts"], &there["camera"]), (&ropes["parts"], &ropes["camera"]));
    let (status, _) = posted(&api, "/api/bench", &there).await;
    assert_eq!(status, StatusCode::OK);
    let mut none = hall.clone();
    none["lights"] = json!([]);
    let ways = taken(&api, "/api/floor/even", &ropes).await;
    let names: Vec<&str> =
        ways["ways"].as_array().expect("ways").iter().map(|way| way["name"].as_str().unwrap()).collect();
    assert_eq!(names[0], "As it stands");
    assert!(names.contains(&"Each on its line"), "{ways}");
    let (status, problem) = posted(&api, "/api/floor/even", &json!({ "title": "No shot" })).await;
    assert!(status.is_client_error() && problem["detail"].is_string(), "{problem}");
    let (status, problem) = posted(&api, "/api/floor/arranged", &json!({ "shot": ropes, "like": none })).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY, "{problem}");
}
