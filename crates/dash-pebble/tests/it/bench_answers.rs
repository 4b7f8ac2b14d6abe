//! What the Bench asks besides the forecast, over HTTP: drags, streaks, groups, tones, cautions, and lights that follow the kit.

use crate::common::api::{Api, problem};
use crate::common::{Server, example};
use reqwest::{Method, StatusCode};
use serde_json::{Value, json};

async fn asked(api: &Api, path: &str, body: Value) -> Value {
    let answer = api.send(Method::POST, path, None, Some(&body)).await;
    assert_eq!(answer.status(), StatusCode::OK, "{path}");
    answer.json().await.expect("JSON")
}

async fn refused(api: &Api, path: &str, body: Value) -> (StatusCode, Value) {
    problem(api.send(Method::POST, path, None, Some(&body)).await).await
}

#[tokio::test]
async fn a_drag_is_answered_by_three_roads_or_refused_by_name() {
    let api = Api::demo();
    let shot = example("silks");
    let wish = |part: i64, share: f64, stops: f64| json!({ "part": part, "share": share, "ambient_stops": stops });
    let answer = asked(&api, "/api/drag", json!({ "shot": shot, "wish": wish(2, 0.3, -2.5) })).await;
    let roads = answer["roads"].as_array().unwrap();
    assert_eq!(
        roads.iter().map(|road| road["by"].as_str().unwrap()).collect::<Vec<_>>(),
        ["filter", "aperture", "iso"]
    );
    // Twice the length takes twice the time, and the light has to go down by a stop for it.
    assert_eq!(answer["streak_label"], "1\"");
    assert!((answer["light_change_stops"].as_f64().unwrap() + 1.0).abs() < 0.05, "{answer}");
    assert!(roads.iter().any(|road| road.get("not").is_none() && road["said"].as_str().unwrap().contains("lights")));
    for (wish, field, word) in [
        (wish(2, 0.0, -2.5), "share", "not between"),
        (wish(2, 3.0, -2.5), "share", "not between"),
        (wish(2, 0.3, 99.0), "ambient_stops", "not between"),
        (wish(7, 0.3, -2.5), "part", "a part of this shot"),
    ] {
        let (status, told) = refused(&api, "/api/drag", json!({ "shot": shot, "wish": wish })).await;
        assert_eq!((status, &told["field"]), (StatusCode::UNPROCESSABLE_ENTITY, &json!(field)), "{told}");
        assert!(told["detail"].as_str().unwrap().contains(word), "{told}");
    }
    let (status, told) = refused(&api, "/api/drag", json!({ "shot": shot, "wish": {} })).await;
    assert_eq!(status, StatusCode::BAD_REQUEST, "{told}");
    let mut wrong = shot.clone();
    wrong["lamps"][0]["distance_m"] = json!(0);
    let (status, told) = refused(&api, "/api/drag", json!({ "shot": wrong, "wish": wish(2, 0.3, -2.5) })).await;
    assert_eq!((status, &told["field"]), (StatusCode::UNPROCESSABLE_ENTITY, &json!("lamps[0].distance_m")));
}

#[tokio::test]
async fn streaks_groups_and_tones_are_answered_and_their_figures_checked() {
    let api = Api::demo();
    let streak = |speed: f64| json!({ "aperture_f": 5.6, "iso": 400, "filter_stops": 0, "speed_m_s": speed, "size_m": 0.08, "streak_stops": 1 });
    let (slow, fast) = (asked(&api, "/api/streak", streak(2.0)).await, asked(&api, "/api/streak", streak(4.0)).await);
    let of = |answer: &Value| answer["luminance_cd_m2"].as_f64().unwrap();
    assert!((of(&fast) / of(&slow) - 2.0).abs() < 1e-9, "as bright at twice the speed: twice the lamp");
    let (status, told) = refused(&api, "/api/streak", streak(0.0)).await;
    assert_eq!((status, &told["field"]), (StatusCode::UNPROCESSABLE_ENTITY, &json!("speed_m_s")));

    let mut shot = example("finishers-wall");
    let groups = asked(&api, "/api/groups", shot.clone()).await;
    assert_eq!(groups.as_array().unwrap().len(), 3);
    assert!(groups[0]["depth_m"].as_f64().unwrap() < groups[2]["depth_m"].as_f64().unwrap());
    for (change, field) in [
        (json!({ "people": 0, "rows": 1, "row_gap_m": 0.8, "curve_m": 0 }), "groups[0].people"),
        (json!({ "people": 2, "rows": 3, "row_gap_m": 0.8, "curve_m": 0 }), "groups[0].rows"),
        (json!({ "people": 2, "rows": 1, "row_gap_m": 90, "curve_m": 0 }), "groups[0].row_gap_m"),
    ] {
        shot["groups"] = json!([change]);
        let (status, told) = refused(&api, "/api/groups", shot.clone()).await;
        assert_eq!((status, &told["field"]), (StatusCode::UNPROCESSABLE_ENTITY, &json!(field)), "{told}");
    }

    let tone =
        |reflectance: f64| json!({ "name": "all", "share": 1, "reflectance": reflectance, "relative_distance": 1 });
    let answer = asked(&api, "/api/metering", json!({ "tones": [tone(0.18)], "next": [tone(0.72)] })).await;
    assert!(answer["bias_stops"].as_f64().unwrap().abs() < 1e-9);
    assert!((answer["change_stops"].as_f64().unwrap() - 2.0).abs() < 1e-9);
    let answer = asked(&api, "/api/metering", json!({ "tones": [tone(0.36)], "next": [] })).await;
    assert_eq!((answer["bias_stops"].as_f64().map(f64::round), answer.get("change_stops")), (Some(1.0), None));
    let (status, told) = refused(&api, "/api/metering", json!({ "tones": [tone(2.0)], "next": [] })).await;
    assert_eq!((status, &told["field"]), (StatusCode::UNPROCESSABLE_ENTITY, &json!("tones[0].reflectance")));
}

#[tokio::test]
async fn cautions_come_with_the_bench_and_are_kept_in_the_record() {
    let api = Api::demo();
    let mut shot = example("silks");
    let seen = asked(&api, "/api/bench", shot.clone()).await;
    let ids = |seen: &Value| -> Vec<String> {
        seen["cautions"].as_array().unwrap().iter().map(|one| one["id"].as_str().unwrap().to_owned()).collect()
    };
    assert!(ids(&seen).contains(&"height".to_owned()) && ids(&seen).contains(&"hot".to_owned()), "{:?}", ids(&seen));
    shot["acknowledged"] = json!(["height"]);
    let seen = asked(&api, "/api/bench", shot.clone()).await;
    let last = seen["cautions"].as_array().unwrap().last().unwrap();
    assert_eq!((&last["id"], &last["acknowledged"]), (&json!("height"), &json!(true)), "what was seen to comes last");
    let added: Value = api.send(Method::POST, "/api/shots", None, Some(&shot)).await.json().await.unwrap();
    let again = api.get(&format!("/api/shots/{}", added["id"].as_str().unwrap())).await;
    assert_eq!(again["shot"]["acknowledged"], json!(["height"]));
    shot["around"] = json!(["quicksand"]);
    let (status, told) = refused(&api, "/api/bench", shot).await;
    assert_eq!((status, &told["field"]), (StatusCode::BAD_REQUEST, &json!("around[0]")));
}

#[tokio::test]
async fn every_light_and_lamp_of_a_shot_follows_the_kit() {
    let api = Api::demo();
    let list = api.get("/api/shots").await;
    let id = |title: &str| {
        let card = list["shots"].as_array().unwrap().iter().find(|card| card["title"] == title).unwrap();
        card["id"].as_str().unwrap().to_owned()
    };
    // Its dial now ends at 1/16: three lights of the hall carry it at less, and it is said of each.
    let unit = api.get("/api/kit/items/brix-400").await;
    let mut changed = unit["thing"].clone();
    changed["item"]["lowest_stops"] = json!(4.0);
    let put = api.send(Method::PUT, "/api/kit/items/brix-400", Some(1), Some(&changed)).await;
    assert_eq!(put.status(), StatusCode::OK);
    let hall = api.get(&format!("/api/shots/{}", id("Roller hall, evening"))).await;
    let fields: Vec<&str> =
        hall["moved"].as_array().unwrap().iter().map(|moved| moved["field"].as_str().unwrap()).collect();
    assert_eq!(fields, ["lights[0].power", "lights[2].power", "lights[3].power"]);
    assert_eq!(hall["shot"]["lights"][2]["power"], json!(0.0625));
    // A lamp and a gel are used where they stand in a shot, and cannot be deleted from under it.
    for (thing, title) in [
        ("ember-650", "Silks in the black box"),
        ("red-deep", "Silks in the black box"),
        ("amber-half", "Roller hall, evening"),
    ] {
        let path = format!("/api/kit/items/{thing}");
        let (status, told) = problem(api.send(Method::DELETE, &path, Some(1), None).await).await;
        assert_eq!(status, StatusCode::CONFLICT, "{thing}");
        assert!(told["detail"].as_str().unwrap().contains(title), "{told}");
    }
    let lamp = api.get("/api/kit/items/ember-650").await;
    let mut brighter = lamp["thing"].clone();
    brighter["item"]["lux_at_1m"] = json!(16000.0);
    api.send(Method::PUT, "/api/kit/items/ember-650", Some(1), Some(&brighter)).await;
    let silks = api.get(&format!("/api/shots/{}", id("Silks in the black box"))).await;
    assert_eq!(silks["shot"]["lamps"][0]["lamp"]["lux_at_1m"], json!(16000.0));
}

#[tokio::test]
async fn a_held_look_keeps_every_light_and_leaves_the_one_that_was_turned() {
    let api = Api::demo();
    let base = example("roller-hall");
    let mut shot = base.clone();
    shot["hold"] = json!(["ratios", "aperture", "shutter", "filter", "flash_distance"]);
    // The fill is turned up by a stop and stays: the others keep their ratio to it.
    shot["lights"][1]["power"] = json!(base["lights"][1]["power"].as_f64().unwrap() * 2.0);
    let body = json!({ "base": base, "shot": shot, "turned": "power", "light": 1 });
    let answer = asked(&api, "/api/hold", body).await;
    let pointers: Vec<&str> =
        answer["followed"].as_array().unwrap().iter().map(|one| one["pointer"].as_str().unwrap()).collect();
    assert!(!pointers.contains(&"/lights/1/power"), "what was turned stays: {pointers:?}");
    let moved = |pointer: &str| pointers.contains(&pointer);
    let gave = answer["gave"].as_array().unwrap();
    assert!(moved("/lights/0/power") && moved("/lights/2/power") && gave.is_empty(), "{answer}");
    // A light that is not there is no light that was turned.
    let body = json!({ "base": base, "shot": shot, "turned": "power", "light": 40 });
    assert_eq!(api.send(Method::POST, "/api/hold", None, Some(&body)).await.status(), StatusCode::OK);
    // The base has fewer lights than the shot: what was not there is held to nothing.
    let mut fewer = base.clone();
    fewer["lights"].as_array_mut().unwrap().truncate(2);
    let answer = asked(&api, "/api/hold", json!({ "base": fewer, "shot": shot, "turned": null })).await;
    assert!(answer["gave"].as_array().unwrap().iter().all(|one| !one["sentence"].as_str().unwrap().starts_with("F ")));
}

/// How long a forecast takes over HTTP, printed by `make bench`: one client that waits for each answer before it asks again.
#[test]
#[ignore = "a measurement; run by `make bench`"]
fn speeds_of_the_forecast() {
    use std::io::{Read, Write};
    use std::time::Instant;
    // Of another version of the program: as its own examples are.
    let examples =
        std::env::var("EXAMPLES").unwrap_or_else(|_| format!("{}/../../docs/examples", env!("CARGO_MANIFEST_DIR")));
    let server = Server::demo();
    let address = server.address.trim_start_matches("http://").trim_end_matches('/').to_owned();
    for name in ["card-on-a-wall", "double-ropes", "roller-hall"] {
        let shot = std::fs::read_to_string(format!("{examples}/{name}.json")).expect("the example is there");
        let mut line = std::net::TcpStream::connect(&address).expect("it listens");
        line.set_nodelay(true).expect("a socket");
        let length = shot.len();
        let head = format!("POST /api/forecast HTTP/1.1\r\nhost: {address}\r\ncontent-type: application/json\r\n");
        let request = format!("{head}content-length: {length}\r\n\r\n{shot}").into_bytes();
        let mut answer = vec![0; 1 << 20];
        let mut ask = || {
            let started = Instant::now();
            line.write_all(&request).expect("it is sent");
            let (mut read, mut whole) = (0, usize::MAX);
            while read < whole {
                read += line.read(&mut answer[read..]).expect("it answers");
                if whole == usize::MAX
                    && let Some(end) = answer[..read].windows(4).position(|four| four == b"\r\n\r\n")
                {
                    let head = String::from_utf8_lossy(&answer[..end]).to_lowercase();
                    assert!(head.starts_with("http/1.1 200"), "{head}");
                    let length = head.split("content-length: ").nth(1).and_then(|rest| rest.lines().next());
                    whole = end + 4 + length.expect("a length").parse::<usize>().expect("a number");
                }
            }
            started.elapsed()
        };
        (0..200).for_each(|_| {
            ask();
        });
        let mut times: Vec<_> = (0..3000).map(|_| ask()).collect();
        times.sort();
        println!("forecast of {name} over HTTP: {} µs", times[times.len() / 2].as_micros());
    }
}
