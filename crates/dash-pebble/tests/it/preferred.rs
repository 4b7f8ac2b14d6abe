//! Preferences, what is before the lens, and labels that stand close: set on the screen, kept in the file.

use crate::common::Server;
use crate::common::api::{Api, problem};
use crate::common::bench::{open_shot, saved};
use crate::common::browser::Browser;
use axum::http::StatusCode;
use reqwest::Method;
use serde_json::json;
use thirtyfour::prelude::*;

#[tokio::test]
async fn what_is_preferred_is_kept_and_shots_are_written_so() {
    let api = Api::demo();
    assert_eq!(api.get("/api/preferences").await, json!({ "lengths": "metric", "stops": "tenths" }));
    let wanted = json!({ "lengths": "imperial", "stops": "halves", "dial": "numbers", "school": "t05", "meter_c": 250.0, "utc_offset_min": 345 });
    let kept = api.send(Method::PUT, "/api/preferences", None, Some(&wanted)).await;
    assert!(kept.status().is_success());
    assert_eq!(api.get("/api/preferences").await, wanted);
    // What cannot be is refused at its field, and what was kept stays.
    let never = json!({ "meter_c": 5 });
    let (status, told) = problem(api.send(Method::PUT, "/api/preferences", None, Some(&never)).await).await;
    assert_eq!((status, &told["field"]), (StatusCode::UNPROCESSABLE_ENTITY, &json!("meter_c")));
    let nowhere = json!({ "utc_offset_min": 5000 });
    let (status, told) = problem(api.send(Method::PUT, "/api/preferences", None, Some(&nowhere)).await).await;
    assert_eq!((status, &told["field"]), (StatusCode::UNPROCESSABLE_ENTITY, &json!("utc_offset_min")));
    assert_eq!(api.get("/api/preferences").await, wanted);
    // New shots begin so, shots that exist keep their school and are written in feet.
    let blank = api.get("/api/blank").await;
    assert_eq!((&blank["school"], &blank["lengths"]), (&json!("t05"), &json!("imperial")));
    let shot = api.first_shot().await["shot"].clone();
    assert_eq!((&shot["school"], &shot["lengths"]), (&json!("t01"), &json!("imperial")));
    assert_eq!(shot["lights"][0]["unit"]["dial"], "numbers");
    // A unit that is chosen for a shot is written so at once, and the kit keeps what was entered.
    assert!(api.get("/api/kit").await["units"].as_array().unwrap().iter().all(|unit| unit["dial"] == "numbers"));
    assert!(api.get("/api/kit/items/brix-400").await["thing"]["item"].get("dial").is_none());
    let bench: serde_json::Value = api.send(Method::POST, "/api/bench", None, Some(&shot)).await.json().await.unwrap();
    let label = |id: &str| {
        let strip = bench["strips"].as_array().unwrap().iter().find(|strip| strip["id"] == id).unwrap().clone();
        strip["notches"][strip["index"].as_u64().unwrap() as usize]["label"].as_str().unwrap().to_owned()
    };
    assert!(label("subject_distance").contains('\''), "{}", label("subject_distance"));
    assert!(label("power").parse::<f64>().is_ok_and(|number| (0.0..=10.0).contains(&number)), "{}", label("power"));
}

#[tokio::test]
async fn a_unit_whose_energy_nobody_knows_keeps_its_fractions() {
    let api = Api::demo();
    let mut unit = api.get("/api/kit/items/brix-400").await["thing"].clone();
    unit["item"].as_object_mut().unwrap().remove("energy_j");
    unit["item"].as_object_mut().unwrap().remove("recycle_s");
    unit["item"]["id"] = json!("");
    unit["item"]["name"] = json!("Brix of nobody knows what");
    let added = api.send(Method::POST, "/api/kit/items", None, Some(&unit)).await;
    let status = added.status();
    let added: serde_json::Value = added.json().await.unwrap();
    assert!(status.is_success(), "{added}");
    let joules = json!({ "dial": "joules" });
    assert!(api.send(Method::PUT, "/api/preferences", None, Some(&joules)).await.status().is_success());
    let mut shot = api.first_shot().await["shot"].clone();
    assert_eq!(shot["lights"][0]["unit"]["dial"], "joules");
    shot["lights"][0]["unit"] = added["thing"]["item"].clone();
    let kept = api.send(Method::POST, "/api/shots", None, Some(&shot)).await;
    assert!(kept.status().is_success(), "{}", kept.text().await.unwrap());
    let id = kept.json::<serde_json::Value>().await.unwrap()["id"].as_str().unwrap().to_owned();
    let back = api.get(&format!("/api/shots/{id}")).await;
    assert!(back["shot"]["lights"][0]["unit"].get("dial").is_none(), "{back}");
}

#[tokio::test]
async fn half_a_head_is_refused_at_its_field() {
    let api = Api::demo();
    let mut shot = api.first_shot().await["shot"].clone();
    for (wrong, given) in [(json!(4.5), "4.5"), (json!(-1), "-1")] {
        shot["lights"][0]["heads"] = wrong;
        let (status, told) = problem(api.send(Method::POST, "/api/bench", None, Some(&shot)).await).await;
        assert_eq!((status, &told["field"]), (StatusCode::UNPROCESSABLE_ENTITY, &json!("lights[0].heads")), "{told}");
        let words = told["detail"].as_str().unwrap();
        assert!(words.contains(given) && words.contains("whole number"), "{words}");
    }
}

#[tokio::test(flavor = "multi_thread")]
async fn feet_filters_and_labels_on_the_bench() {
    let server = Server::demo();
    let browser = Browser::open().await;
    browser.size(1280, 800).await;
    // Six and more that stand close share a label, which unfolds.
    open_shot(&browser, &server, "Roller hall, evening").await;
    browser.until("document.querySelector('[data-together]')?.textContent.includes('within')").await;
    let rungs = "document.querySelectorAll('[data-rung]').length";
    let folded = browser.run(&format!("return {rungs}"), vec![]).await.as_u64().unwrap();
    browser.find("[data-together]").await.focus().await.unwrap();
    browser.keys(Key::Enter + "").await;
    browser.until(&format!("{rungs} > {folded} + 2 && !document.querySelector('[data-together]')")).await;
    // A polariser before the lens takes its stops of everything; held, the exposure stays.
    browser.run("document.activeElement.blur()", vec![]).await;
    browser.click("[data-choose=before-lens]").await;
    browser.click("[data-testid=before-lens] label").await;
    browser.until("document.querySelector('[data-testid=exposure]').innerText.includes('−1.5 stops')").await;
    browser
        .until("document.querySelector('[data-testid=before-lens]').innerText.includes('Polariser: −1.5 stops')")
        .await;
    browser.keys(Key::Escape + "").await;
    saved(&browser).await;
    // Feet, typed without their unit; kept over a kill.
    browser.click("a[href='/preferences']").await;
    browser.until("document.querySelector('main h1')?.innerText === 'Preferences'").await;
    browser.click("input[value=imperial] + label").await;
    browser.until("document.querySelector('main').innerText.includes('is in feet')").await;
    let server = server.killed_and_started_again();
    open_shot(&browser, &server, "Roller hall, evening").await;
    browser.until("document.querySelector('[data-choose=before-lens]').innerText === 'Polariser'").await;
    browser.keys("g").await;
    browser.keys("16").await;
    browser.keys(Key::Enter + "").await;
    browser.until("document.querySelector('#strip-subject_distance').getAttribute('aria-valuetext') === \"16'\"").await;
    saved(&browser).await;
}
