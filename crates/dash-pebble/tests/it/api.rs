//! The HTTP interface over a real server and a real file.

use crate::common::api::{Api, problem};
use crate::common::example;
use reqwest::{Method, StatusCode};
use serde_json::{Value, json};

#[tokio::test]
async fn a_shot_is_read_changed_undone_and_redone_over_restarts() {
    let mut api = Api::demo();
    let shot = api.first_shot().await;
    let path = format!("/api/shots/{}", shot["id"].as_str().unwrap());
    assert_eq!((&shot["version"], &shot["can_undo"]), (&json!(1), &json!(false)));

    let mut changed = shot["shot"].clone();
    changed["camera"]["shutter"] = json!("1/30");
    let answer = api.send(Method::PUT, &path, Some(1), Some(&changed)).await;
    assert_eq!(answer.headers()["etag"], "\"2\"");
    let same = api.send(Method::PUT, &path, Some(2), Some(&changed)).await;
    assert_eq!(same.headers()["etag"], "\"2\"", "the same again is no revision");

    api.server = api.server.killed_and_started_again();
    let kept = api.get(&path).await;
    assert_eq!(kept["shot"], changed, "what was saved is there after a kill");
    let undone: Value = api.send(Method::POST, &format!("{path}/undo"), Some(2), None).await.json().await.unwrap();
    assert_eq!((&undone["shot"], &undone["can_redo"]), (&shot["shot"], &json!(true)));
    api.server = api.server.killed_and_started_again();
    let redone: Value = api.send(Method::POST, &format!("{path}/redo"), Some(3), None).await.json().await.unwrap();
    assert_eq!(redone["shot"], changed);
    let (status, nothing) = problem(api.send(Method::POST, &format!("{path}/redo"), Some(4), None).await).await;
    assert_eq!((status, &nothing["type"]), (StatusCode::CONFLICT, &json!("/problems/no-step")));
}

#[tokio::test]
async fn two_writers_are_told_of_each_other() {
    let api = Api::demo();
    let shot = api.first_shot().await;
    let path = format!("/api/shots/{}", shot["id"].as_str().unwrap());
    let (mut mine, mut theirs) = (shot["shot"].clone(), shot["shot"].clone());
    mine["camera"]["iso"] = json!(800.0);
    theirs["camera"]["iso"] = json!(1600.0);
    assert!(api.send(Method::PUT, &path, Some(1), Some(&theirs)).await.status().is_success());
    let (status, told) = problem(api.send(Method::PUT, &path, Some(1), Some(&mine)).await).await;
    assert_eq!(status, StatusCode::CONFLICT);
    assert_eq!((&told["current"]["shot"], &told["current"]["version"]), (&theirs, &json!(2)));
    let (status, _) = problem(api.send(Method::PUT, &path, None, Some(&mine)).await).await;
    assert_eq!(status, StatusCode::PRECONDITION_REQUIRED);
    assert!(api.send(Method::PUT, &path, Some(2), Some(&mine)).await.status().is_success());
}

#[tokio::test]
async fn a_shot_is_added_removed_and_brought_back() {
    let api = Api::demo();
    let blank = api.get("/api/blank").await;
    let added = api.send(Method::POST, "/api/shots", None, Some(&blank)).await;
    assert_eq!(added.status(), StatusCode::CREATED);
    let added: Value = added.json().await.unwrap();
    let path = format!("/api/shots/{}", added["id"].as_str().unwrap());
    assert_eq!(api.get("/api/shots").await["shots"].as_array().unwrap().len(), 8);
    assert_eq!(api.send(Method::DELETE, &path, Some(1), None).await.status(), StatusCode::NO_CONTENT);
    let (status, _) = problem(api.send(Method::GET, &path, None, None).await).await;
    assert_eq!(status, StatusCode::NOT_FOUND);
    assert!(api.send(Method::POST, &format!("{path}/restore"), None, None).await.status().is_success());
    let mut back = api.get(&path).await["shot"].clone();
    assert_eq!((&blank["usage"], back["lights"][0]["unit"]["owned"].take()), (&json!("print"), json!(4)));
    back["lights"][0]["unit"].as_object_mut().unwrap().remove("owned");
    // So are the grey filters that are at hand.
    let greys = back["camera"].as_object_mut().unwrap().remove("greys").unwrap();
    let losses: Vec<f64> = greys.as_array().unwrap().iter().filter_map(|grey| grey["loss_stops"].as_f64()).collect();
    assert!(!losses.is_empty() && losses.is_sorted());
    assert_eq!(back, blank);
}

#[tokio::test]
async fn wrong_values_are_named_and_change_nothing() {
    let api = Api::demo();
    let shot = api.first_shot().await;
    let path = format!("/api/shots/{}", shot["id"].as_str().unwrap());
    let wrong = |pointer: &str, value: Value| {
        let mut body = shot["shot"].clone();
        *body.pointer_mut(pointer).expect("the pointer points") = value;
        body
    };
    let cases = [
        ("/camera/aperture_f", json!(-4), StatusCode::UNPROCESSABLE_ENTITY, "camera.aperture_f"),
        ("/camera/shutter", json!("NaN"), StatusCode::UNPROCESSABLE_ENTITY, "camera.shutter"),
        ("/lights/0/power", json!(0), StatusCode::UNPROCESSABLE_ENTITY, "lights[0].power"),
        ("/lights/0/distance_m", json!(1e9), StatusCode::UNPROCESSABLE_ENTITY, "lights[0].distance_m"),
        ("/subject/distance_m", json!(0.01), StatusCode::UNPROCESSABLE_ENTITY, "subject.distance_m"),
        ("/parts/1/speed_m_s", json!(-1), StatusCode::UNPROCESSABLE_ENTITY, "parts[1].speed_m_s"),
        ("/version", json!(7), StatusCode::UNPROCESSABLE_ENTITY, "version"),
        ("/camera/iso", json!("fast"), StatusCode::BAD_REQUEST, "camera.iso"),
        ("/parts/0/intent", json!("frozen"), StatusCode::BAD_REQUEST, "parts[0].intent"),
        ("/camera", json!({ "body": 1 }), StatusCode::BAD_REQUEST, "camera.body"),
    ];
    for (pointer, value, status, field) in cases {
        let body = wrong(pointer, value);
        for (method, path, version) in [
            (Method::PUT, path.as_str(), Some(1)),
            (Method::POST, "/api/shots", None),
            (Method::POST, "/api/bench", None),
        ] {
            let (got, told) = problem(api.send(method, path, version, Some(&body)).await).await;
            assert_eq!((got, told["field"].as_str()), (status, Some(field)), "{pointer} at {path}: {told}");
            assert!(told["detail"].as_str().unwrap().ends_with("Nothing was changed."), "{told}");
        }
    }
    // A light with no unit, and forty of them.
    let mut bare = shot["shot"].clone();
    let second = bare["lights"][0].clone();
    bare["lights"].as_array_mut().unwrap().push(second.clone());
    bare["lights"][1].as_object_mut().unwrap().remove("unit");
    let (status, told) = problem(api.send(Method::PUT, &path, Some(1), Some(&bare)).await).await;
    assert_eq!(status, StatusCode::BAD_REQUEST);
    assert!(told["detail"].as_str().unwrap().contains("unit"), "{told}");
    bare["lights"] = json!(vec![second; 40]);
    let (status, told) = problem(api.send(Method::PUT, &path, Some(1), Some(&bare)).await).await;
    assert_eq!((status, &told["field"]), (StatusCode::UNPROCESSABLE_ENTITY, &json!("lights")));
    // What nobody would send: each is named, and the shot is as it was.
    for (pointer, wrong, word) in [
        ("/lights/0/heads", json!(1.5), "heads"),
        ("/lights/0/heads", json!(0), "heads"),
        ("/lights/0/bearing_deg", json!(720), "bearing"),
        ("/lights/0/role", json!("hero"), "hero"),
        ("/lights/0/group", json!(""), "group"),
        ("/lights/0/channel", json!(-1), "channel"),
        ("/lights/0/automatic", json!({ "bias_stops": 1e9 }), "bias_stops"),
        ("/lights/0/bounce", json!({ "surface_m": 2, "tilt_deg": 0, "reflectance": 0.8 }), "tilt"),
        ("/lights", json!("all of them"), "lights"),
        ("/lights", json!([]), "a list of 0"),
        ("/version", json!(4), "version"),
    ] {
        let mut odd = shot["shot"].clone();
        let (parent, field) = pointer.rsplit_once('/').unwrap();
        odd.pointer_mut(parent).unwrap()[field] = wrong;
        let (status, told) = problem(api.send(Method::PUT, &path, Some(1), Some(&odd)).await).await;
        assert!(status == StatusCode::BAD_REQUEST || status == StatusCode::UNPROCESSABLE_ENTITY, "{pointer}: {status}");
        assert!(told["detail"].as_str().unwrap().contains(word), "{pointer}: {told}");
        assert_eq!(api.get(&path).await, shot, "{pointer}: nothing was changed");
    }
    let mut unknown = shot["shot"].clone();
    unknown["camera"]["flair"] = json!(1);
    let (status, told) = problem(api.send(Method::PUT, &path, Some(1), Some(&unknown)).await).await;
    assert_eq!(status, StatusCode::BAD_REQUEST);
    assert!(told["detail"].as_str().unwrap().contains("flair"));
    assert_eq!(api.get(&path).await, shot, "nothing was changed");
    assert_eq!(api.get("/api/shots").await["shots"].as_array().unwrap().len(), 7);
}

#[tokio::test]
async fn junk_is_refused_in_bounded_memory() {
    let api = Api::demo();
    for (junk, status) in [
        (vec![0u8; 50 * 1024 * 1024], StatusCode::PAYLOAD_TOO_LARGE),
        (b"\xff\xfe not json".to_vec(), StatusCode::BAD_REQUEST),
        (b"[".repeat(200_000), StatusCode::BAD_REQUEST),
        (Vec::new(), StatusCode::BAD_REQUEST),
    ] {
        let length = junk.len();
        let sent = api.client.post(api.server.url("/api/shots")).body(junk).send().await;
        // A server that has seen enough may close while the rest is still being sent.
        if let Ok(response) = sent {
            assert_eq!(response.status(), status, "{length} bytes of junk");
        } else {
            assert!(length > 1_000_000, "only a body over the limit may be cut off");
        }
    }
    assert_eq!(api.get("/api/shots").await["shots"].as_array().unwrap().len(), 7, "and the server goes on");
}

#[tokio::test]
async fn pictures_are_drawn_for_saved_and_unsaved_shots() {
    let api = Api::demo();
    let body = example("lantern-slalom");
    let raw = api.send(Method::POST, "/api/picture?width=480&layers=ambient", None, Some(&body)).await;
    assert_eq!(
        (&raw.headers()["picture-width"], &raw.headers()["picture-height"]),
        (&"480".parse().unwrap(), &"320".parse().unwrap())
    );
    assert_eq!(raw.bytes().await.unwrap().len(), 480 * 320 * 4);
    let shot = api.first_shot().await;
    let path = format!("/api/shots/{}/picture?width=240", shot["id"].as_str().unwrap());
    let png = api.send(Method::GET, &path, None, None).await;
    let tag = png.headers()["etag"].clone();
    assert_eq!(png.headers()["content-type"], "image/png");
    assert_eq!(&png.bytes().await.unwrap()[1..4], b"PNG");
    let again = api.client.get(api.server.url(&path)).header("if-none-match", tag).send().await.unwrap();
    assert_eq!(again.status(), StatusCode::NOT_MODIFIED);
    for wrong in ["width=0", "width=1e9", "size=0", "left=7"] {
        let (status, told) =
            problem(api.send(Method::POST, &format!("/api/picture?{wrong}"), None, Some(&body)).await).await;
        assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY, "{wrong}: {told}");
    }
}

#[tokio::test]
async fn addresses_and_methods_that_cannot_be_are_problems_too() {
    let api = Api::demo();
    let body = example("double-ropes");
    let cases = [
        (Method::POST, "/api/picture?width=wide", StatusCode::BAD_REQUEST, "bad-address"),
        (Method::POST, "/api/picture?layers=xray", StatusCode::BAD_REQUEST, "bad-address"),
        (Method::GET, "/api/shots/%00%ff", StatusCode::BAD_REQUEST, "bad-address"),
        (Method::PATCH, "/api/shots", StatusCode::METHOD_NOT_ALLOWED, "wrong-method"),
    ];
    for (method, path, status, kind) in cases {
        let (got, told) = problem(api.send(method, path, None, Some(&body)).await).await;
        assert_eq!(
            (got, told["type"].as_str()),
            (status, Some(format!("/problems/{kind}").as_str())),
            "{path}: {told}"
        );
    }
    // A shot with something after it would lose that something in silence.
    let twice = format!("{body} {body}");
    let answer = api.client.post(api.server.url("/api/shots")).body(twice).send().await.unwrap();
    let (status, told) = problem(answer).await;
    assert_eq!(status, StatusCode::BAD_REQUEST, "{told}");
}

#[tokio::test]
async fn the_bench_answer_holds_numbers_judgement_and_notches() {
    let api = Api::demo();
    let answer: Value =
        api.send(Method::POST, "/api/bench", None, Some(&example("slipway-spin"))).await.json().await.unwrap();
    // By hand: EV 15 is 340·2^15/100 = 111 411 lx, for 1/256 s; f/16 at ISO 100 wants 340·256/100 = 870.4 lx·s.
    let ambient = &answer["forecast"]["ambient_subject"];
    assert!((ambient["illuminance_lx"].as_f64().unwrap() - 111_411.2).abs() < 1.0, "{ambient}");
    assert!((ambient["placement_stops"].as_f64().unwrap() + 1.0).abs() < 0.001, "{ambient}");
    assert!(answer["findings"].as_array().unwrap().iter().any(|finding| finding["id"] == "rows-cut"));
    assert!(
        answer["strips"]
            .as_array()
            .unwrap()
            .iter()
            .all(|strip| strip["notches"].as_array().is_some_and(|n| !n.is_empty()))
    );
}

#[tokio::test]
async fn strangers_and_other_sites_are_turned_away() {
    let api = Api::demo();
    let url = api.server.url("/api/shots");
    let rebound = api.client.get(&url).header("host", "elsewhere.example").send().await.unwrap();
    assert_eq!(rebound.status(), StatusCode::FORBIDDEN);
    let other = api
        .client
        .post(&url)
        .header("origin", "http://example.com")
        .json(&example("double-ropes"))
        .send()
        .await
        .unwrap();
    assert_eq!(other.status(), StatusCode::FORBIDDEN);
    let own = api.client.get(&url).send().await.unwrap();
    assert!(own.headers()["content-security-policy"].to_str().unwrap().starts_with("default-src 'none'"));
    let (status, _) = problem(api.send(Method::GET, "/api/elsewhere", None, None).await).await;
    assert_eq!(status, StatusCode::NOT_FOUND);
}

#[tokio::test]
async fn the_web_application_is_served_packed_and_unpacked() {
    let api = Api::demo();
    let page =
        api.client.get(api.server.url("/shots/anything")).header("accept-encoding", "gzip").send().await.unwrap();
    assert_eq!(page.headers()["content-encoding"], "gzip");
    let plain = api.client.get(api.server.url("/")).send().await.unwrap();
    assert!(plain.headers().get("content-encoding").is_none());
    let text = plain.text().await.unwrap();
    assert!(text.contains("<div id=\"root\">"), "{text}");
    // What the first look takes, as a browser of today asks for it.
    let mut first = 0;
    for part in text.split('"').filter(|part| part.starts_with("/assets/")) {
        let asked = api.client.get(api.server.url(part)).header("accept-encoding", "gzip, deflate, br, zstd");
        let answer = asked.send().await.unwrap();
        assert_eq!(answer.headers()["content-encoding"], "br", "{part}");
        assert_eq!(answer.headers()["vary"], "accept-encoding");
        first += answer.bytes().await.unwrap().len();
    }
    assert!((100_000..250_000).contains(&first), "{first} bytes");
    // Who refuses an encoding does not get it.
    let refused = api.client.get(api.server.url("/")).header("accept-encoding", "br;q=0, gzip;q=0.5");
    assert_eq!(refused.send().await.unwrap().headers()["content-encoding"], "gzip");
    let script = text.split('"').find(|part| part.starts_with("/assets/") && part.ends_with(".js")).expect("a script");
    let script = api.client.get(api.server.url(script)).send().await.unwrap();
    assert!(script.headers()["cache-control"].to_str().unwrap().contains("immutable"));
    let (status, _) = problem(api.send(Method::GET, "/assets/none.js", None, None).await).await;
    assert_eq!(status, StatusCode::NOT_FOUND);
}

#[tokio::test]
async fn a_look_is_held_over_http_and_contradictions_have_plain_answers() {
    let api = Api::demo();
    let base = api.first_shot().await["shot"].clone();
    let ask = |shot: &Value, turned: Value| {
        let body = json!({ "base": base, "shot": shot, "turned": turned });
        let api = &api;
        async move { api.send(Method::POST, "/api/hold", None, Some(&body)).await }
    };
    let mut shot = base.clone();
    shot["hold"] = json!(["key", "ambient"]);
    shot["camera"]["aperture_f"] = json!(11);
    let answer: Value = ask(&shot, json!("aperture")).await.json().await.unwrap();
    assert_eq!(
        answer["followed"],
        json!([
            { "pointer": "/camera/shutter", "value": "1/30", "words": "1/30, −3 clicks" },
            { "pointer": "/lights/0/power", "value": 0.396_850_262_992_049_9, "words": "power 1/4 +0.7, +3 clicks" }
        ])
    );
    assert_eq!(answer["gave"], json!([]));
    // Everything is locked: what gives is named, with how much.
    shot["hold"] = json!(["key", "aperture", "shutter", "iso", "filter", "power", "flash_distance"]);
    let answer: Value = ask(&shot, Value::Null).await.json().await.unwrap();
    assert_eq!((&answer["followed"], &answer["gave"][0]["held"]), (&json!([]), &json!("key")));
    assert_eq!(answer["gave"][0]["sentence"], "Key is off by −1.0 stop: nothing else may move.");
    // Nothing is held, twice the same, no flash, no light: nothing to say.
    for hold in [json!([]), json!(["key", "key"]), json!(["blur"])] {
        let mut dark = shot.clone();
        dark["hold"] = hold;
        dark["lights"][0]["on"] = json!(false);
        dark["ambient"]["subject"] = json!({ "as": "lux", "lux": 0 });
        assert_eq!(ask(&dark, Value::Null).await.status(), StatusCode::OK);
    }
    let mut wrong = shot.clone();
    wrong["hold"] = json!(["mood"]);
    let (status, told) = problem(ask(&wrong, Value::Null).await).await;
    assert_eq!((status, &told["field"]), (StatusCode::BAD_REQUEST, &json!("shot.hold[0]")));
    wrong["hold"] = json!([]);
    wrong["camera"]["iso"] = json!(-1);
    let (status, told) = problem(ask(&wrong, Value::Null).await).await;
    assert_eq!((status, &told["field"]), (StatusCode::UNPROCESSABLE_ENTITY, &json!("camera.iso")));
    let ways: Value = api.send(Method::POST, "/api/equivalents", None, Some(&base)).await.json().await.unwrap();
    let ways = ways.as_array().unwrap();
    assert!(ways.len() > 4 && ways.iter().filter(|way| way["changes"] == json!([])).count() == 1, "{ways:?}");
}

#[tokio::test]
async fn a_second_sky_is_kept_and_checked_and_the_ways_under_it_are_told() {
    let api = Api::demo();
    let list = api.get("/api/shots").await;
    let card = list["shots"].as_array().unwrap().iter().find(|card| card["title"] == "Slipway spin, noon").unwrap();
    let path = format!("/api/shots/{}", card["id"].as_str().unwrap());
    let mut shot = api.get(&path).await["shot"].clone();
    let reading = |ev: f64| json!({ "as": "ev100", "ev": ev });
    shot["ambient"]["other"] = json!({ "subject": reading(12.0), "background": reading(200.0) });
    let (status, told) = problem(api.send(Method::PUT, &path, Some(1), Some(&shot)).await).await;
    assert_eq!((status, &told["field"]), (StatusCode::UNPROCESSABLE_ENTITY, &json!("ambient.other.background.ev")));
    shot["ambient"]["other"]["background"] = reading(12.0);
    assert_eq!(api.send(Method::PUT, &path, Some(1), Some(&shot)).await.status(), StatusCode::OK);
    assert_eq!(api.get(&path).await["shot"]["ambient"]["other"]["subject"]["ev"], 12.0);
    let ways: Value = api.send(Method::POST, "/api/daylight", None, Some(&shot)).await.json().await.unwrap();
    let roads: Vec<&Value> = ways.as_array().unwrap().iter().map(|way| &way["road"]).collect();
    assert_eq!(roads, ["sync_speed", "high_speed", "filter"]);
    // The other sky changes nothing while it is only kept.
    shot["ambient"].as_object_mut().unwrap().remove("other");
    let same: Value = api.send(Method::POST, "/api/daylight", None, Some(&shot)).await.json().await.unwrap();
    assert_eq!(same, ways);
}
