//! Figures typed as they are said, over the wire and into a control on the screen.

use crate::common::bench::{open_shot, saved};
use crate::common::browser::Browser;
use crate::common::{Server, example};
use reqwest::{Client, StatusCode};
use serde_json::{Value, json};
use thirtyfour::prelude::*;

async fn asked(server: &Server, path: &str, body: &Value) -> (StatusCode, Value) {
    let answer = Client::new().post(server.url(path)).json(body).send().await.expect("an answer");
    (answer.status(), answer.json().await.expect("it is JSON"))
}

async fn got(server: &Server, path: &str) -> (StatusCode, Value) {
    let answer = Client::new().get(server.url(path)).send().await.expect("an answer");
    (answer.status(), answer.json().await.expect("it is JSON"))
}

#[tokio::test]
async fn a_figure_is_understood_or_refused_with_a_sentence() {
    let server = Server::demo();
    let into =
        |strip: &str, text: &str| json!({ "shot": example("double-ropes"), "strip": strip, "light": 0, "text": text });
    for (strip, text, label) in [
        ("subject_distance", "4 ft", "1.2 m"),
        ("shutter", "0.4s", "0.4\""),
        ("flash_distance", "120 cm", "1.2 m"),
        ("power", "1/16", "1/16"),
        ("filter", "ND8", "ND 0.9"),
    ] {
        let (status, taken) = asked(&server, "/api/strip", &into(strip, text)).await;
        assert_eq!((status, &taken["label"]), (StatusCode::OK, &json!(label)), "{strip} “{text}”: {taken}");
    }
    let much = "1".repeat(10_000);
    for (strip, text, words) in [
        ("shutter", "125", "could be 1/125 s or 125 s"),
        ("shutter", "f5.6", "is an aperture"),
        ("aperture", "0.1", "beyond this dial"),
        ("subject_distance", "1/2", "is no figure for a distance"),
        ("subject_distance", "", "Nothing stands there"),
        ("subject_distance", much.as_str(), "has 10000 signs"),
        ("tilt", "1", "is no control"),
    ] {
        let (status, told) = asked(&server, "/api/strip", &into(strip, text)).await;
        assert_eq!((status, &told["field"]), (StatusCode::UNPROCESSABLE_ENTITY, &json!("text")), "{told}");
        assert!(told["detail"].as_str().unwrap().contains(words), "{told}");
        assert!(told["value"].as_str().unwrap().chars().count() <= 40, "what was typed is not sent back at length");
    }
    let (_, taken) = asked(&server, "/api/said", &json!({ "kind": "speed", "text": "40 km/h" })).await;
    assert!((taken["value"].as_f64().unwrap() - 11.111).abs() < 1e-3);
    let (status, told) = asked(&server, "/api/said", &json!({ "kind": "speed", "text": "fast" })).await;
    assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
    assert_eq!(
        told["detail"],
        "“fast” is no figure for a speed. 4 m/s, 40 km/h, 5:30 /km or 320 rpm @ 0.3 m would do."
    );
}

#[tokio::test(flavor = "multi_thread")]
async fn a_control_takes_what_is_typed_and_digits_never_change_the_view() {
    let server = Server::demo();
    let browser = Browser::open().await;
    browser.size(1280, 800).await;
    open_shot(&browser, &server, "Double ropes, both feet up").await;
    let stands = |strip: &str, value: &str| {
        format!("document.querySelector('#strip-{strip}').getAttribute('aria-valuetext') === {value:?}")
    };
    // From five metres to one and a fifth in six keys.
    browser.keys("d1.2").await;
    browser.until("document.querySelector('#typed-understood')?.innerText.startsWith('1.2 m')").await;
    browser.keys(Key::Enter + "").await;
    browser.until(&stands("flash_distance", "1.2 m")).await;
    // Feet and inches, in the words of whoever has a tape of them.
    browser.keys("g16 ft 6").await;
    browser.until("document.querySelector('#typed-understood')?.innerText.startsWith('5.0 m')").await;
    browser.keys(Key::Enter + "").await;
    browser.until(&stands("subject_distance", "5.0 m")).await;
    // What could be two things is refused where it stands, and taken by no Enter.
    browser.keys("s125").await;
    browser.until("document.querySelector('#typed-understood[data-wrong]')?.innerText.includes('could be')").await;
    browser.keys(Key::Enter + "").await;
    browser.until("document.querySelector('[data-typed]').getAttribute('aria-invalid') === 'true'").await;
    browser.keys(Key::Escape + "").await;
    browser.until("!document.querySelector('[data-typed]') && document.activeElement.id === 'strip-shutter'").await;
    browser.until(&stands("shutter", "1/60")).await;
    // Spelled with the letter of their own key, and no letter of it turns anything else.
    let distance = browser.run("return document.querySelector('#strip-flash_distance').ariaValueText", vec![]).await;
    for (key, text, strip, label) in
        [("n", "ND 0.9", "filter", "ND 0.9"), ("i", "ISO 400", "iso", "400"), ("n", "none", "filter", "none")]
    {
        browser.keys(key).await;
        browser.until(&format!("document.activeElement.id === 'strip-{strip}'")).await;
        browser.keys(text).await;
        browser.keys(Key::Enter + "").await;
        browser.until(&stands(strip, label)).await;
    }
    assert_eq!(
        browser.run("return document.querySelector('#strip-flash_distance').ariaValueText", vec![]).await,
        distance
    );
    browser.until("!document.querySelector('[data-lock][aria-pressed=true]')").await;
    browser.keys("s").await;
    browser.until("document.activeElement.id === 'strip-shutter'").await;
    browser.keys("1/200").await;
    browser.keys(Key::Enter + "").await;
    browser.until(&stands("shutter", "1/200")).await;
    // A speed in what people know it by, kept when the field is left at once.
    browser.click("[data-part='Shoes']").await;
    let speed = browser.labelled("Speed").await;
    browser.type_over(&speed, "40 km/h").await;
    browser.keys(Key::Tab + "").await;
    browser
        .until("[...document.querySelectorAll('[role=dialog] input')].some((one) => one.value === '11.1 m/s')")
        .await;
    // What is no speed is said at its place, and neither it nor its beginning is kept.
    for (text, words) in [("9 km", "is no figure"), ("300 mps", "is no figure"), ("fast", "says no speed")] {
        browser.type_over(&speed, text).await;
        let said = format!("document.querySelector('[role=dialog]').innerText.includes('“{text}” {words}')");
        browser.until(&said).await;
    }
    browser.keys(Key::Escape + "").await;
    browser.until("!document.querySelector('[role=dialog]')").await;
    saved(&browser).await;
    let (_, shots) = got(&server, "/api/shots?most=50").await;
    let ropes =
        { shots["shots"].as_array().unwrap().iter() }.find(|shot| shot["title"] == "Double ropes, both feet up");
    let (_, kept) = got(&server, &format!("/api/shots/{}", ropes.unwrap()["id"].as_str().unwrap())).await;
    let shoes = { kept["shot"]["parts"].as_array().unwrap().iter() }.find(|part| part["name"] == "Shoes");
    let speed = shoes.unwrap()["speed_m_s"].as_f64().unwrap();
    assert!((speed - 40.0 / 3.6).abs() < 1e-3, "{speed}");
    // The frame still shows both layers: a digit in a control is a figure.
    browser.until("document.querySelector('[aria-label=\"Light shown\"] input:checked').value === 'both'").await;
    saved(&browser).await;
}

/// Times that are kept in words, wherever they are typed: what a dial writes is kept, and 125 is asked back.
#[tokio::test(flavor = "multi_thread")]
async fn a_time_is_kept_as_a_dial_writes_it_and_never_guessed() {
    let (server, browser) = (Server::demo(), Browser::open().await);
    browser.size(1280, 800).await;
    open_shot(&browser, &server, "Double ropes, both feet up").await;
    browser.keys("c").await;
    browser.until("document.querySelector('[aria-label=Slowest]')?.value").await;
    let slowest = browser.find("[aria-label=Slowest]").await;
    let asked = "document.querySelector('[aria-label=\"What is asked\"]').innerText";
    browser.type_over(&slowest, "125").await;
    browser.until(&format!("{asked}.includes('could be 1/125 s or 125 s')")).await;
    browser.until("!document.querySelector('[aria-label=\"Shutter: as the shot says\"]')").await;
    browser.type_over(&slowest, "20 ms").await;
    browser.until(&format!("{asked}.includes('= 1/50')")).await;
    browser.keys(Key::Tab + "").await;
    browser.until("document.querySelector('[aria-label=Slowest]').value === '1/50'").await;
    browser.until("document.querySelector('[aria-label=\"Shutter: as the shot says\"]')").await;
    // A camera of one's own: no sync speed of four minutes.
    browser.driver.goto(server.url("/kit/camera")).await.unwrap();
    browser.until("document.querySelector('[data-thing]')").await;
    browser.keys("n").await;
    browser.until("document.activeElement.closest('[aria-label=Figures]')").await;
    let sync = browser.labelled("Sync speed").await;
    sync.click().await.unwrap();
    browser.keys("250").await;
    let figures = "document.querySelector('[aria-label=Figures]').innerText";
    browser.until(&format!("{figures}.includes('could be 1/250 s or 250 s')")).await;
    browser.type_over(&sync, "1/250 s").await;
    browser.until(&format!("{figures}.includes('= 1/250')")).await;
}

#[tokio::test]
async fn a_meter_reading_goes_into_the_shot_and_to_its_unit_and_a_far_one_is_asked_about() {
    let server = Server::demo();
    let shot = example("double-ropes");
    let (_, told) = asked(&server, "/api/forecast", &shot).await;
    assert_eq!(told["forecast"]["lights"][0]["flash"]["meter"], "f/8");
    let read = |read: &str, because: Option<&str>| {
        let mut reading = json!({ "at": "light", "light": 0, "read": read, "on": "2026-11-26" });
        if let Some(because) = because {
            reading["because"] = json!(because);
        }
        json!({ "shot": shot, "reading": reading })
    };
    let (status, taken) = asked(&server, "/api/meter", &read("f/5.6 and 5", None)).await;
    assert_eq!(status, StatusCode::OK, "{taken}");
    assert!((taken["stops"].as_f64().unwrap() + 0.5).abs() < 0.06, "{taken}");
    let (_, after) = asked(&server, "/api/forecast", &taken["shot"]).await;
    assert_eq!(after["forecast"]["lights"][0]["flash"]["meter"], "f/5.6 and 5 tenths");
    // It is kept with the unit, after those before it, and shows in every shot that carries it.
    let unit = taken["of_units"][0]["unit"].as_str().unwrap();
    let path = format!("/api/kit/items/{unit}/readings");
    for _ in 0..2 {
        let (status, kept) = asked(&server, &path, &taken["of_units"][0]["reading"]).await;
        assert_eq!(status, StatusCode::OK, "{kept}");
    }
    let (_, kept) = got(&server, &format!("/api/kit/items/{unit}")).await;
    let readings = kept["thing"]["item"]["readings"].as_array().unwrap();
    assert_eq!(readings.iter().map(|one| one["counts"].as_bool()).collect::<Vec<_>>(), [Some(false), Some(true)]);
    let (_, stored) = got(&server, "/api/shots/double-ropes").await;
    let carried = stored["shot"]["lights"][0]["unit"]["readings"].as_array().unwrap().len();
    assert_eq!(carried, 1, "a shot carries what counts");
    // Far off is asked about; impossible is refused; nothing of either is kept.
    let (status, told) = asked(&server, "/api/meter", &read("22", None)).await;
    assert_eq!((status, &told["type"]), (StatusCode::UNPROCESSABLE_ENTITY, &json!("/problems/far-reading")), "{told}");
    assert_eq!(asked(&server, "/api/meter", &read("22", Some("itself"))).await.0, StatusCode::OK);
    for nonsense in ["", "bright", "f/0.5", &"8".repeat(10_000)] {
        let (status, told) = asked(&server, "/api/meter", &read(nonsense, None)).await;
        assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY, "{told}");
    }
    let (status, _) = asked(&server, "/api/kit/items/heron-v2/readings", &taken["of_units"][0]["reading"]).await;
    assert_eq!(status, StatusCode::NOT_FOUND, "a camera is not metered");
}

#[tokio::test]
async fn a_recording_of_counted_samples_is_read_once_their_interval_is_known() {
    let server = Server::demo();
    let level = |k: i32| if k < 500 { 0.0 } else { (-f64::from(k - 500) / 400.0).exp() };
    let text: String = (0..4000).map(|k| format!("{k},{:.5},{}\n", level(k), k % 3)).collect();
    let sent = async |query: &str| {
        let answer =
            Client::new().post(server.url(&format!("/api/traces{query}"))).body(text.clone()).send().await.unwrap();
        (answer.status(), answer.json::<Value>().await.unwrap())
    };
    let (status, told) = sent("").await;
    assert_eq!((status, &told["field"]), (StatusCode::UNPROCESSABLE_ENTITY, &json!("interval")), "{told}");
    let (status, told) = sent("?interval=soon").await;
    assert_eq!((status, &told["field"]), (StatusCode::UNPROCESSABLE_ENTITY, &json!("text")), "{told}");
    let (status, read) = sent("?interval=500%20kHz").await;
    assert_eq!((status, &read["reading"]["notes"]["channel"]), (StatusCode::OK, &json!(1)), "{read}");
    // exp(−t/0.8 ms) is at half after 0.55 ms.
    assert!((read["reading"]["t05_s"].as_f64().unwrap() / 5.545e-4 - 1.0).abs() < 0.05, "{}", read["reading"]["t05_s"]);
    let (_, other) = sent("?interval=500%20kHz&channel=2").await;
    assert_eq!(other["reading"]["quality"], "unusable");
    assert_eq!(sent("?interval=500%20kHz&channel=9").await.0, StatusCode::UNPROCESSABLE_ENTITY);
}
