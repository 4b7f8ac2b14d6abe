//! Copies of everything: taken, looked into, brought back.

use super::Saver;
use crate::common::api::problem;
use crate::common::{Server, run};
use dash_pebble::store::copies::{self, Why};
use dash_pebble::store::folder_of_copies;
use dash_pebble::{demo, store};
use reqwest::{Client, StatusCode};
use serde_json::Value;
use sqlx::{ConnectOptions, Connection};
use std::path::Path;
use tempfile::TempDir;

async fn get(server: &Server, path: &str) -> Value {
    reqwest::get(server.url(path)).await.unwrap().error_for_status().unwrap().json().await.unwrap()
}

#[tokio::test]
async fn a_copy_made_while_saving_is_whole_and_comes_back_with_what_it_has() {
    let server = Server::demo();
    let mut saver = Saver::on(&server).await;
    for _ in 0..3 {
        saver.save(&server).await;
    }
    let client = Client::new();
    let made = client.post(server.url("/api/copies")).send().await.unwrap();
    assert_eq!(made.status(), StatusCode::CREATED);
    let made: Value = made.json().await.unwrap();
    let then = saver.saved.clone();
    saver.save(&server).await;

    let name = made["name"].as_str().unwrap();
    let inside = get(&server, &format!("/api/copies/{name}")).await;
    assert_eq!((&inside["shot_count"], &inside["damage"]), (&8.into(), &serde_json::json!([])));
    assert_eq!(inside["shots"][7]["title"], then.as_str());

    let url = server.url(&format!("/api/copies/{name}/bring-back"));
    let kept: Value = client.post(&url).send().await.unwrap().error_for_status().unwrap().json().await.unwrap();
    // Who still shows what was there before is told so, and does not write over what came back.
    assert_eq!(saver.save(&server).await, StatusCode::CONFLICT);
    assert_eq!(saver.title(&server).await, then);
    // What was there before can be had again.
    assert_eq!(kept["why"], "return");
    let url = server.url(&format!("/api/copies/{}/bring-back", kept["name"].as_str().unwrap()));
    client.post(&url).send().await.unwrap().error_for_status().unwrap();
    assert_eq!(saver.title(&server).await, saver.saved);
    // And undo still knows the way.
    let id = get(&server, "/api/shots").await["shots"][7]["id"].as_str().unwrap().to_owned();
    let shot = get(&server, &format!("/api/shots/{id}")).await;
    assert_eq!(shot["can_undo"], true);
}

#[tokio::test]
async fn a_copy_can_be_taken_away_and_into_another_file() {
    let (server, other) = (Server::demo(), Server::demo());
    let mut saver = Saver::on(&server).await;
    saver.save(&server).await;
    let copy = reqwest::get(server.url("/api/copy")).await.unwrap().error_for_status().unwrap().bytes().await.unwrap();
    let client = Client::new();
    let brought = client.post(other.url("/api/copies/brought")).body(copy.clone()).send().await.unwrap();
    let brought: Value = brought.error_for_status().unwrap().json().await.unwrap();
    let url = other.url(&format!("/api/copies/{}/bring-back", brought["name"].as_str().unwrap()));
    client.post(&url).send().await.unwrap().error_for_status().unwrap();
    assert_eq!(saver.title(&other).await, saver.saved);

    for (what, body) in [
        ("nothing", Vec::new()),
        ("a note", b"milk, eggs".to_vec()),
        ("half a copy", copy[..copy.len() / 2].to_vec()),
        ("a copy with a page of zeros", [&copy[..8192], &[0; 4096], &copy[12288..]].concat()),
    ] {
        let refused = client.post(other.url("/api/copies/brought")).body(body).send().await.unwrap();
        if refused.status() == StatusCode::CREATED {
            // It can be looked into, and says what is wrong; brought back it cannot be.
            let kept: Value = refused.json().await.unwrap();
            let name = kept["name"].as_str().unwrap().to_owned();
            let url = other.url(&format!("/api/copies/{name}/bring-back"));
            let refused = client.post(&url).send().await.unwrap();
            assert!(!refused.status().is_success(), "{what}");
        } else {
            let (status, told) = problem(refused).await;
            assert_eq!(status, StatusCode::UNPROCESSABLE_ENTITY, "{what}: {told}");
        }
    }
    for name in ["..%2F..%2Fetc%2Fpasswd", "2026-01-01T00-00-00-daily.sqlite", "x"] {
        let answer = reqwest::get(other.url(&format!("/api/copies/{name}"))).await.unwrap();
        assert_eq!(problem(answer).await.0, StatusCode::NOT_FOUND, "{name}");
    }
    assert_eq!(saver.title(&other).await, saver.saved);
}

#[tokio::test]
async fn one_copy_a_day_on_which_something_changed_and_the_last_seven_stay() {
    let folder = TempDir::new().unwrap();
    let data = folder.path().join("season.sqlite");
    let store = store::open_filled(&data, demo::fill).await.unwrap();
    let first = copies::daily(&store).await.unwrap().expect("the first of the day");
    assert_eq!((first.why, copies::daily(&store).await.unwrap()), (Why::Daily, None));
    // Days go by.
    let of = |day: u32| folder_of_copies(&data).join(format!("2026-01-{day:02}T09-00-00-daily.sqlite"));
    std::fs::rename(folder_of_copies(&data).join(&first.name), of(1)).unwrap();
    assert_eq!(copies::daily(&store).await.unwrap(), None, "nothing has changed since");
    for day in 2..=9 {
        let shot = serde_json::from_value(crate::common::example("silks")).unwrap();
        store::shots::add(&store, &shot).await.unwrap();
        let made = copies::daily(&store).await.unwrap().expect("something has changed");
        std::fs::rename(folder_of_copies(&data).join(&made.name), of(day)).unwrap();
    }
    let list = copies::list(&data);
    let days: Vec<&str> = list.iter().map(|copy| &copy.made_at[8..10]).collect();
    assert_eq!(days, ["09", "08", "07", "06", "05", "04", "03"]);
    assert_eq!(copies::look(&of(9)).await.unwrap().shot_count, 15);
}

/// A data file as the first version wrote it.
async fn first_version(data: &Path) {
    let options = sqlx::sqlite::SqliteConnectOptions::new().filename(data).create_if_missing(true);
    let mut connection = options.connect().await.unwrap();
    let migrator = sqlx::migrate!();
    migrator.run_to(1, &mut connection).await.unwrap();
    sqlx::query("PRAGMA application_id = 1146118764").execute(&mut connection).await.unwrap();
    let body = crate::common::example("silks").to_string();
    sqlx::query("PRAGMA foreign_keys = OFF").execute(&mut connection).await.unwrap();
    sqlx::query("INSERT INTO revision (id, shot_id, body, made_at) VALUES (1, 'a', ?, '2026-01-01T00:00:00Z')")
        .bind(body)
        .execute(&mut connection)
        .await
        .unwrap();
    sqlx::query("INSERT INTO shot (id, head, place_in_list, changed_at) VALUES ('a', 1, 1, '2026-01-01T00:00:00Z')")
        .execute(&mut connection)
        .await
        .unwrap();
    connection.close().await.unwrap();
}

#[tokio::test]
async fn before_tables_are_brought_up_to_date_a_copy_is_kept_and_it_comes_back() {
    let folder = TempDir::new().unwrap();
    let data = folder.path().join("season.sqlite");
    first_version(&data).await;
    let store = store::open(&data).await.unwrap();
    let list = copies::list(&data);
    assert_eq!(list.iter().map(|copy| copy.why).collect::<Vec<_>>(), [Why::Update]);
    let copy = folder_of_copies(&data).join(&list[0].name);
    assert_eq!(copies::look(&copy).await.unwrap().shots[0].title, "Silks in the black box");
    let before = std::fs::read(&copy).unwrap();
    copies::bring_back(&store, &copy).await.unwrap();
    assert_eq!(std::fs::read(&copy).unwrap(), before, "a copy is only read");
    store.close().await;
    let store = store::open(&data).await.unwrap();
    assert_eq!(copies::list(&data).iter().filter(|copy| copy.why == Why::Update).count(), 1, "only where it is needed");
    store.close().await;
}

#[tokio::test]
async fn the_command_line_copies_looks_and_brings_back() {
    let server = Server::demo();
    let mut saver = Saver::on(&server).await;
    saver.save(&server).await;
    let folder = TempDir::new().unwrap();
    let copy = folder.path().join("copy.sqlite");
    let (copy, data) = (copy.to_str().unwrap(), server.data.to_str().unwrap().to_owned());
    // Also while the program runs.
    let done = run(&["backup", copy, "--data", &data]);
    let said = String::from_utf8_lossy(&done.stdout).into_owned();
    assert!(done.status.success() && said.contains("8 shots"), "{said} {}", String::from_utf8_lossy(&done.stderr));
    let again = run(&["backup", copy, "--data", &data]);
    assert!(!again.status.success() && String::from_utf8_lossy(&again.stderr).contains("is there already"));
    let nowhere = run(&["backup", "/nowhere/copy.sqlite", "--data", &data]);
    assert!(!nowhere.status.success(), "{}", String::from_utf8_lossy(&nowhere.stdout));

    let other = folder.path().join("other.sqlite");
    let other = other.to_str().unwrap();
    let look = run(&["restore", copy, "--data", other]);
    let said = String::from_utf8_lossy(&look.stdout).into_owned();
    assert!(said.contains(&saver.saved) && said.contains("Nothing was changed"), "{said}");
    assert!(!Path::new(other).exists());
    let done = run(&["restore", copy, "--data", other, "--yes"]);
    assert!(done.status.success(), "{}", String::from_utf8_lossy(&done.stderr));
    let restored = Server::on(Path::new(other), &[]);
    assert_eq!(saver.title(&restored).await, saver.saved);
    let refused = run(&["restore", copy, "--data", other, "--yes"]);
    assert!(
        String::from_utf8_lossy(&refused.stderr).contains("in use by another program"),
        "a running program is safe"
    );
}
