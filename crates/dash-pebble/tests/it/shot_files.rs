//! Shots given out and taken in as open files, with their JSON Schemas; the list searched and sorted.

use crate::common::api::{Api, problem};
use crate::common::browser::Browser;
use crate::common::{Server, example, run};
use reqwest::{Method, StatusCode};
use serde_json::{Value, json};

const SCHEMAS: [(&str, &str); 3] = [
    ("shot", include_str!("../../../../docs/formats/shot.schema.json")),
    ("shots", include_str!("../../../../docs/formats/shots.schema.json")),
    ("kit", include_str!("../../../../docs/formats/kit.schema.json")),
];

fn schema(of: &str) -> jsonschema::Validator {
    let text = SCHEMAS.iter().find(|(name, _)| *name == of).expect("it ships").1;
    jsonschema::validator_for(&serde_json::from_str(text).expect("JSON")).expect("a schema")
}

#[test]
fn schemas_are_what_the_program_reads_and_examples_fit_them() {
    for (name, shipped) in SCHEMAS {
        let said: Value = serde_json::from_slice(&run(&["schema", name]).stdout).expect("JSON");
        assert_eq!(said, serde_json::from_str::<Value>(shipped).unwrap(), "{name}: run make contract");
    }
    let shots = schema("shot");
    for (_, text) in dash_pebble::demo::EXAMPLES {
        let shot: Value = serde_json::from_str(text).unwrap();
        let wrong: Vec<String> = shots.iter_errors(&shot).map(|error| error.to_string()).collect();
        assert!(wrong.is_empty(), "{}: {wrong:?}", shot["title"]);
    }
    assert!(schema("kit").is_valid(&serde_json::to_value(&*dash_pebble::demo::KIT).unwrap()));
    // What the program refuses the schema refuses too.
    let mut strange = example("double-ropes");
    strange["lights"][0]["colour"] = json!("blue");
    assert!(!shots.is_valid(&strange));
}

#[tokio::test]
async fn shots_go_out_in_one_file_and_come_in_all_or_none() {
    let api = Api::demo();
    let one = api.get("/api/shots/double-ropes/file").await;
    assert!(schema("shot").is_valid(&one));
    let some = api.get("/api/shots.json?ids=double-ropes,silks").await;
    assert_eq!(some["shots"].as_array().map(Vec::len), Some(2));
    let all = api.get("/api/shots.json").await;
    assert!(schema("shots").is_valid(&all) && all["shots"].as_array().unwrap().len() == 7);
    let take = async |body: &Value| api.send(Method::POST, "/api/shots/import", None, Some(body)).await;
    let taken: Value = take(&all).await.json().await.unwrap();
    assert_eq!(taken["ids"].as_array().unwrap().len(), 7);
    let taken: Value = take(&one).await.json().await.unwrap();
    let again = api.get(&format!("/api/shots/{}", taken["ids"][0].as_str().unwrap())).await;
    assert_eq!(again["shot"], one);
    assert_eq!(api.get("/api/shots").await["count"], 15);
    // One that cannot be keeps all of them out, and says what it is.
    let mut spoiled = all.clone();
    spoiled["shots"][3]["camera"]["iso"] = json!(-1);
    let (status, told) = problem(take(&spoiled).await).await;
    assert_eq!((status, &told["field"]), (StatusCode::UNPROCESSABLE_ENTITY, &json!("camera.iso")), "{told}");
    for (file, words) in [
        (json!({ "format": "other/shots", "version": 1, "shots": [] }), "no file of shots"),
        (json!({ "title": "nothing" }), "cannot be read"),
        (json!([]), "cannot be read"),
    ] {
        let (_, told) = problem(take(&file).await).await;
        assert!(told["detail"].as_str().unwrap().contains(words), "{told}");
    }
    assert_eq!(api.get("/api/shots").await["count"], 15);
}

/// A shot that is handed over has all that it needs: the picture of its place goes along, and is kept where it arrives.
#[tokio::test]
async fn the_picture_of_a_place_goes_with_its_shot() {
    let (here, there) = (Api::demo(), Api::demo());
    let drawn = here.client.get(here.server.url("/api/shots/slipway-spin/picture?width=300")).send().await.unwrap();
    let place = drawn.bytes().await.unwrap();
    let url = here.server.url("/api/stage/pictures");
    let kept: Value = here.client.post(url).body(place).send().await.unwrap().json().await.unwrap();
    let mut shot = here.get("/api/shots/silks").await["shot"].clone();
    let staged: Value = here.send(Method::POST, "/api/stage", None, Some(&shot)).await.json().await.unwrap();
    shot["stage"] = staged["composition"].clone();
    shot["stage"]["picture"] = json!({ "id": kept["id"], "horizon_share": 0.4 });
    assert_eq!(here.send(Method::PUT, "/api/shots/silks", Some(1), Some(&shot)).await.status(), StatusCode::OK);
    let file = here.get("/api/shots/silks/file").await;
    assert!(schema("shot").is_valid(&file));

    let take = async |file: &Value| there.send(Method::POST, "/api/shots/import", None, Some(file)).await;
    let picture = async |of: &Api, shot: &Value| {
        let asked = of.client.post(of.server.url("/api/picture?width=200")).json(shot).send().await.unwrap();
        asked.error_for_status().unwrap().bytes().await.unwrap()
    };
    let with = picture(&here, &shot).await;
    assert!(picture(&there, &shot).await != with, "nobody there has the picture yet");
    let taken: Value = take(&file).await.json().await.unwrap();
    let arrived = there.get(&format!("/api/shots/{}", taken["ids"][0].as_str().unwrap())).await;
    assert_eq!(arrived["shot"], shot, "the shot itself does not carry it");
    assert!(picture(&there, &shot).await == with);
    // Several in one file bring theirs too, and a file that is saved as a new shot does.
    let several = here.get("/api/shots.json?ids=silks,double-ropes,silks").await;
    assert_eq!(several["shots"][0]["stage"]["picture"], file["stage"]["picture"]);
    assert_eq!(several["shots"][2]["stage"]["picture"], shot["stage"]["picture"], "one picture is in it once");
    assert_eq!(take(&several).await.status(), StatusCode::OK);
    let third = Api::demo();
    let added = third.send(Method::POST, "/api/shots", None, Some(&file)).await;
    assert_eq!(added.status(), StatusCode::CREATED);
    assert!(picture(&third, &shot).await == with);

    // What is not the picture that the shot names, or none at all, keeps the file out.
    for (jpeg, words) in [("no text of that kind!", "no Base64"), ("QUJD", "not the one that the shot names")] {
        let mut spoiled = file.clone();
        spoiled["stage"]["picture"]["jpeg_base64"] = json!(jpeg);
        let (status, told) = problem(take(&spoiled).await).await;
        assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY);
        assert!(told["detail"].as_str().unwrap().contains(words), "{told}");
    }
    let mut no_picture = file.clone();
    // The SHA-256 of three letters, and these.
    let letters = "b5d4045c3f466fa91fe2cc6abe79232a1a57cdf104f7a26e716e0a1e2789df78";
    no_picture["stage"]["picture"] = json!({ "id": letters, "horizon_share": 0.4, "jpeg_base64": "QUJD" });
    let (status, told) = problem(take(&no_picture).await).await;
    assert_eq!((status, &told["type"]), (StatusCode::UNPROCESSABLE_ENTITY, &json!("/problems/not-a-picture")));
    assert_eq!(there.get("/api/shots").await["count"], 11);
}

#[tokio::test]
async fn the_list_is_searched_and_sorted() {
    let api = Api::demo();
    let titles = async |query: &str| -> Vec<String> {
        let list = api.get(&format!("/api/shots?{query}")).await;
        let shots = list["shots"]
            .as_array()
            .unwrap()
            .iter()
            .map(|card| card["title"].as_str().unwrap().to_owned())
            .collect::<Vec<_>>();
        assert!(list["count"].as_u64().unwrap() as usize >= shots.len());
        shots
    };
    assert_eq!(titles("find=hall%20ropes").await, ["Double ropes, both feet up"]);
    assert_eq!(titles("find=no%20such%20thing").await, Vec::<String>::new());
    let by_title = titles("sort=title").await;
    assert!(by_title.windows(2).all(|pair| pair[0].to_lowercase() <= pair[1].to_lowercase()), "{by_title:?}");
    assert_eq!(titles("sort=title&skip=2&most=2").await, by_title[2..4]);
    let before = api.get("/api/shots/silks").await;
    let mut shot = before["shot"].clone();
    shot["title"] = json!("Silks, once more");
    assert_eq!(api.send(Method::PUT, "/api/shots/silks", Some(1), Some(&shot)).await.status(), StatusCode::OK);
    assert_eq!(titles("sort=changed&most=1").await, ["Silks, once more"]);
    assert_eq!(titles("sort=place").await.len(), 7);
    assert_eq!(api.send(Method::GET, "/api/shots?sort=luck", None, None).await.status(), StatusCode::BAD_REQUEST);
}

#[tokio::test(flavor = "multi_thread")]
async fn shots_are_found_and_renamed_on_the_list() {
    let server = Server::demo();
    let browser = Browser::open().await;
    browser.size(1280, 800).await;
    browser.driver.goto(server.url("/")).await.unwrap();
    browser.until("document.querySelectorAll('[data-shot]').length === 7").await;
    browser.fill("[aria-label='Find a shot']", "ropes").await;
    browser.until("document.querySelectorAll('[data-shot]').length === 1").await;
    browser.click("[aria-label='More for Double ropes, both feet up']").await;
    browser.click("[data-do='rename']").await;
    browser.fill("[aria-label='New title']", "Double ropes, one foot up").await;
    browser.keys(thirtyfour::Key::Enter + "").await;
    browser.until("document.querySelector('[data-shot=\"Double ropes, one foot up\"]')").await;
    browser.fill("[aria-label='Find a shot']", "nothing like it").await;
    browser.until("document.body.innerText.includes('No shot has these words')").await;
    // Some of them are chosen and given out as one file.
    browser.fill("[aria-label='Find a shot']", "sabre").await;
    browser.until("document.querySelectorAll('[data-shot]').length === 1").await;
    browser.click("[data-do=choose]").await;
    browser.until("document.body.innerText.includes('Tick what is given out')").await;
    browser.click("[aria-label='Give out Sabre reach']").await;
    let href = browser.find("header a[download]").await.attr("href").await.unwrap().unwrap();
    assert!(href.contains("ids="), "{href}");
    let some: serde_json::Value = reqwest::get(server.url(&href)).await.unwrap().json().await.unwrap();
    assert_eq!(some["shots"].as_array().unwrap().len(), 1);
    assert_eq!(some["shots"][0]["title"], "Sabre reach");
    // What is given out comes in again.
    let folder = tempfile::TempDir::new().unwrap();
    let file = folder.path().join("shots.json");
    let all = reqwest::get(server.url("/api/shots.json")).await.unwrap().bytes().await.unwrap();
    std::fs::write(&file, all).unwrap();
    browser.fill("[aria-label='Find a shot']", " ").await;
    let input = browser.find("input[type=file]").await;
    input.send_keys(file.to_str().unwrap()).await.unwrap();
    browser.until("document.querySelectorAll('[data-shot]').length === 14").await;
    browser.until("document.querySelector('[role=status]')?.innerText.includes('7 shots were taken in')").await;
}
