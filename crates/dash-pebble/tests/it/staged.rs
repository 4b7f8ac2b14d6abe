//! Composing a frame: who stands in it, where, and how the camera is held; and an own picture behind it.

use crate::common::Server;
use crate::common::api::{Api, problem};
use crate::common::bench::{open_shot, saved};
use crate::common::browser::Browser;
use axum::http::StatusCode;
use reqwest::Method;
use serde_json::{Value, json};
use thirtyfour::prelude::*;

/// What of the frame is bright, as a sum over its pixels.
const LIGHT: &str = "return (() => {
    const frame = document.querySelector('#frame');
    const { data } = frame.getContext('2d').getImageData(0, 0, frame.width, frame.height);
    let sum = 0;
    for (let at = 0; at < data.length; at += 16) sum += data[at] + data[at + 1] + data[at + 2];
    return [sum, frame.width, frame.height];
})()";

/// The newest picture is on the screen, fine.
const DRAWN: &str = "document.querySelector('#frame').getAttribute('aria-busy') === 'false'";

async fn light(browser: &Browser) -> (f64, f64, f64) {
    browser.until(DRAWN).await;
    let seen = browser.run(LIGHT, vec![]).await;
    let number = |index: usize| seen[index].as_f64().unwrap_or_default();
    (number(0), number(1), number(2))
}

#[tokio::test(flavor = "multi_thread")]
async fn a_frame_is_composed_from_pictures_and_stays_so() {
    let server = Server::demo();
    let browser = Browser::open().await;
    open_shot(&browser, &server, "Sabre reach").await;
    let (first, wide, high) = light(&browser).await;
    assert!(wide > high);
    browser.keys("e").await;
    browser
        .until("document.querySelector('[data-testid=choose-pose] [aria-pressed=true]')?.innerText === 'Fences'")
        .await;
    // Every picture to choose from is drawn.
    browser.until("[...document.querySelectorAll('[data-testid=choose-pose] img')].slice(0, 12).every((one) => one.complete && one.naturalWidth > 100)").await;
    let choose = |of: &'static str, word: &'static str| {
        let path = format!("//*[@data-testid='choose-{of}']//button[normalize-space()='{word}']");
        let browser = &browser;
        async move { browser.press(&path).await }
    };
    choose("pose", "Jumps up").await;
    browser
        .until("document.querySelector('[data-testid=choose-pose] [aria-pressed=true]').innerText === 'Jumps up'")
        .await;
    saved(&browser).await;
    let (jumping, ..) = light(&browser).await;
    assert!((jumping - first).abs() > 0.002 * first, "{first} fencing, {jumping} jumping");
    // Who is pressed on is in hand, and is dragged.
    browser.until("document.querySelector('[data-testid=in-hand]')").await;
    let left = "document.querySelector('[data-testid=in-hand]').getBoundingClientRect().left";
    let before = browser.run(&format!("return {left}"), vec![]).await.as_f64().unwrap();
    let frame = browser.find("#frame").await;
    let at = browser
        .run("const { left, top, width, height } = document.querySelector('[data-testid=in-hand]').getBoundingClientRect(); const f = document.querySelector('#frame').getBoundingClientRect(); return [Math.round(left + width / 2 - f.left - f.width / 2), Math.round(top + height / 2 - f.top - f.height / 2)]", vec![])
        .await;
    let (x, y) = (at[0].as_i64().unwrap(), at[1].as_i64().unwrap());
    browser
        .driver
        .action_chain()
        .move_to_element_with_offset(&frame, x, y)
        .click_and_hold()
        .move_by_offset(90, 0)
        .release()
        .perform()
        .await
        .unwrap();
    browser.until(&format!("Math.abs({left} - {before} - 90) < 8")).await;
    saved(&browser).await;
    // Another place, and the camera upright.
    browser.press("//label[.//text()='Place']").await;
    choose("place", "Track").await;
    browser
        .until("document.querySelector('[data-testid=choose-place] [aria-pressed=true]')?.innerText === 'Track'")
        .await;
    browser.press("//label[.//text()='Camera']").await;
    // From where it looks is chosen by what it then sees of this very shot: each height another picture.
    let small = "[...document.querySelectorAll('[aria-label=\"Height of the camera\"] canvas')]";
    browser.until(&format!("{small}.length === 6 && {small}.every((one) => one.width === 184)")).await;
    let pictures = format!("return new Set({small}.map((one) => one.toDataURL())).size");
    assert_eq!(browser.run(&pictures, vec![]).await.as_u64(), Some(6));
    browser.press("//button[contains(., 'On a ladder')]").await;
    let chosen = "document.querySelector('[aria-label=\"Height of the camera\"] [aria-pressed=true]')?.innerText";
    browser.until(&format!("{chosen}?.includes('On a ladder')")).await;
    browser.press("//button[.//text()='Upright, grip down']").await;
    browser.until("document.querySelector('#frame').height > document.querySelector('#frame').width").await;
    // What cannot be is said at its field, and the picture stays.
    let height = browser.labelled("Height of the lens").await;
    browser.type_over(&height, "99 m").await;
    browser.until("document.querySelector('[role=dialog]').innerText.includes('not between 0.02 and 30')").await;
    browser.type_over(&height, "0.4 m").await;
    saved(&browser).await;
    // It is there again when the shot is opened again.
    browser.driver.refresh().await.unwrap();
    browser.until("document.querySelector('#frame[data-ready]')").await;
    let (_, wide, high) = light(&browser).await;
    assert!(high > wide);
    browser.keys("e").await;
    browser
        .until("document.querySelector('[data-testid=choose-pose] [aria-pressed=true]')?.innerText === 'Jumps up'")
        .await;
    // Undone, it is as it was.
    browser.keys(Key::Escape + "").await;
    browser.until("!document.querySelector('[role=dialog]')").await;
}

#[tokio::test(flavor = "multi_thread")]
async fn one_light_alone_shows_its_part_of_the_picture() {
    let server = Server::demo();
    let browser = Browser::open().await;
    open_shot(&browser, &server, "Sabre reach").await;
    browser.keys("2").await;
    let (all, ..) = light(&browser).await;
    let mut sum = 0.0;
    for _ in 0..4 {
        browser.keys("q").await;
        browser.until("document.querySelector('[data-testid=alone]')").await;
        let (alone, ..) = light(&browser).await;
        assert!(alone < all, "{alone} of {all}");
        sum += alone;
        browser.keys("q").await;
        browser.until("!document.querySelector('[data-testid=alone]')").await;
        browser.keys(".").await;
    }
    // Code values are not light, but each light has its share of them.
    assert!(sum > all, "{sum} by each of them, {all} together");
}

#[tokio::test]
async fn an_own_picture_is_kept_and_stands_behind_the_subject() {
    let api = Api::demo();
    let url = api.server.url("/api/stage/pictures");
    let drawn = api.client.get(api.server.url("/api/shots/slipway-spin/picture?width=300")).send().await.unwrap();
    let bytes = drawn.bytes().await.unwrap();
    let kept: Value = api.client.post(&url).body(bytes.clone()).send().await.unwrap().json().await.unwrap();
    let again: Value = api.client.post(&url).body(bytes.clone()).send().await.unwrap().json().await.unwrap();
    assert_eq!(kept, again, "the same picture is kept once");
    let mut shot = api.first_shot().await["shot"].clone();
    let staged: Value = api.send(Method::POST, "/api/stage", None, Some(&shot)).await.json().await.unwrap();
    assert_eq!(staged["own"], json!(false));
    let picture = |shot: &Value| {
        let asked = api.client.post(api.server.url("/api/picture?width=200")).json(shot);
        async move { asked.send().await.unwrap().error_for_status().unwrap().bytes().await.unwrap() }
    };
    let plain = picture(&shot).await;
    shot["stage"] = staged["composition"].clone();
    assert!(picture(&shot).await == plain, "the scene's own composition is the scene");
    shot["stage"]["picture"] = json!({ "id": kept["id"], "horizon_share": 0.4 });
    let with = picture(&shot).await;
    assert!(with != plain);
    // One that is not here leaves the drawn place.
    shot["stage"]["picture"]["id"] = json!("0".repeat(64));
    assert!(picture(&shot).await == plain);
    // What is no picture is said so, whatever it is called.
    for body in [b"GIF89a".to_vec(), Vec::new(), bytes[..bytes.len() / 2].to_vec(), vec![0xff; 4000]] {
        let (status, told) = problem(api.client.post(&url).body(body).send().await.unwrap()).await;
        assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
        assert!(told["detail"].as_str().unwrap().contains("Nothing was changed"), "{told}");
    }
    // A composition that cannot be is refused at its field; a pose that nobody knows by its name.
    shot["stage"] = staged["composition"].clone();
    shot["stage"]["people"][0]["away_m"] = json!(-4.49);
    let (status, told) = problem(api.send(Method::POST, "/api/bench", None, Some(&shot)).await).await;
    assert_eq!((status, &told["field"]), (StatusCode::UNPROCESSABLE_ENTITY, &json!("stage.people[0].away_m")));
    shot["stage"]["people"][0]["pose"] = json!("moon_walk");
    let (_, told) = problem(api.send(Method::POST, "/api/bench", None, Some(&shot)).await).await;
    assert!(told["detail"].as_str().unwrap().contains("moon_walk"), "{told}");
}

#[tokio::test]
async fn a_new_shot_shows_somebody_and_is_in_no_trouble() {
    let api = Api::demo();
    let blank = api.get("/api/blank").await;
    let bench: Value = api.send(Method::POST, "/api/bench", None, Some(&blank)).await.json().await.unwrap();
    let open = |finding: &&Value| finding["severity"] != "fine";
    let findings = bench["findings"].as_array().unwrap();
    assert!(findings.iter().find(open).is_none(), "{findings:?}");
    let staged: Value = api.send(Method::POST, "/api/stage", None, Some(&blank)).await.json().await.unwrap();
    let face = &staged["parts"][0]["at"];
    let inside = |edge: &str| (0.0..1.0).contains(&face[edge].as_f64().unwrap());
    assert!(["left", "top", "right", "bottom"].into_iter().all(inside), "{face}");
}

/// The loupe goes where the frame is pressed, and the part that is there is shown among the parts until it is over.
#[tokio::test(flavor = "multi_thread")]
async fn a_part_that_is_pressed_on_is_looked_at() {
    let api = Api::demo();
    let shot = api.get("/api/shots/double-ropes").await["shot"].clone();
    let staged: Value = api.send(Method::POST, "/api/stage", None, Some(&shot)).await.json().await.unwrap();
    let name =
        |part: &Value| shot["parts"][part["part"].as_u64().unwrap() as usize]["name"].as_str().unwrap().to_owned();
    let face = staged["parts"].as_array().unwrap().iter().find(|part| name(part) == "Face").expect("a face").clone();
    let middle = |from: &str, to: &str| (face["at"][from].as_f64().unwrap() + face["at"][to].as_f64().unwrap()) / 2.0;
    let (x, y) = (middle("left", "right"), middle("top", "bottom"));

    let browser = Browser::open().await;
    open_shot(&browser, &api.server, "Double ropes, both feet up").await;
    browser.until(DRAWN).await;
    let looked = "document.querySelector('[data-looked]')";
    assert_eq!(browser.run(&format!("return {looked} === null"), vec![]).await, true);
    let size = browser
        .run("const f = document.querySelector('#frame').getBoundingClientRect(); return [f.width, f.height]", vec![])
        .await;
    let off = |share: f64, side: usize| ((share - 0.5) * size[side].as_f64().unwrap()).round() as i64;
    let frame = browser.find("#frame").await;
    let chain = browser.driver.action_chain().move_to_element_with_offset(&frame, off(x, 0), off(y, 1));
    chain.click().perform().await.unwrap();
    browser.until("document.querySelector('#frame').dataset.loupe").await;
    browser.until(&format!("{looked}?.dataset.part === 'Face'")).await;
    browser.keys("l").await;
    browser.until(&format!("!document.querySelector('#frame').dataset.loupe && !{looked}")).await;
}

/// Somebody new is seen at once, narrower; then as coarse as anything while a hand is busy; and fine when it rests.
#[tokio::test(flavor = "multi_thread")]
async fn who_was_never_seen_there_is_seen_at_once_and_then_better() {
    let server = Server::demo();
    let browser = Browser::open().await;
    open_shot(&browser, &server, "Sabre reach").await;
    let (_, wide, _) = light(&browser).await;
    browser.run("performance.clearResourceTimings()", vec![]).await;
    browser.keys("e").await;
    browser.until("document.querySelector('[data-testid=choose-pose]')").await;
    browser.press("//*[@data-testid='choose-pose']//button[normalize-space()='Jumps up']").await;
    let asked = "performance.getEntriesByType('resource').map(({ name }) => name).filter((name) => name.includes('/api/picture?'))";
    browser.until(&format!("{asked}.length >= 3")).await;
    let (_, after, _) = light(&browser).await;
    assert_eq!(after, wide, "the last of them has all its pixels");
    let all = browser.run(&format!("return {asked}"), vec![]).await;
    let all: Vec<&str> = all.as_array().expect("a list").iter().filter_map(Value::as_str).collect();
    let half = format!("width={}&soon=", (wide / 2.0).round());
    let at = |of: &str| all.iter().position(|name| name.contains(of));
    let (first, better, fine) =
        (at(&format!("{half}true")), at(&format!("{half}false")), at(&format!("width={wide}&soon=false")));
    assert!(first.is_some() && first < better && better < fine, "{all:?}");
    // A control that changes nobody asks for no second one.
    browser.keys(Key::Escape + "").await;
    light(&browser).await;
    browser.run("performance.clearResourceTimings()", vec![]).await;
    browser.keys("i").await;
    browser.keys(Key::Right + "").await;
    browser.until(&format!("{asked}.length >= 2")).await;
    light(&browser).await;
    let all = browser.run(&format!("return {asked}"), vec![]).await;
    assert!(
        all.as_array().expect("a list").iter().all(|name| !name.as_str().unwrap().contains(&format!("{half}false")))
    );
}
