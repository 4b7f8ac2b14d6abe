//! A disk that fills up while shots are being saved.

use crate::common::example;
use dash_pebble::api::App;
use dash_pebble::store::{self, shots};
use pebble_core::Shot;
use reqwest::{Client, StatusCode};
use serde_json::{Value, json};
use tempfile::TempDir;
use tokio::net::TcpListener;

#[tokio::test]
async fn a_change_that_finds_no_room_is_said_and_what_was_saved_stays() {
    let folder = TempDir::new().unwrap();
    let path = folder.path().join("season.sqlite");
    let store = store::open(&path).await.unwrap();
    let shot = serde_json::from_value(example("double-ropes")).unwrap();
    let kept = shots::add(&store, &shot).await.unwrap();
    // SQLite's own limit on pages stands in for the disk's: it meets the same error.
    let mut change = store.change().await.unwrap();
    let pages: i64 = sqlx::query_scalar("PRAGMA page_count").fetch_one(&mut *change).await.unwrap();
    let limit = format!("PRAGMA max_page_count = {}", pages + 2);
    sqlx::query(sqlx::AssertSqlSafe(limit)).execute(&mut *change).await.unwrap();
    change.commit().await.unwrap();

    let listener = TcpListener::bind("127.0.0.1:0").await.unwrap();
    let address = format!("http://{}/api/shots/{}", listener.local_addr().unwrap(), kept.id);
    let (stop, stopped) = tokio::sync::oneshot::channel::<()>();
    let server = tokio::spawn(dash_pebble::launch(App::new(store.clone()), listener, async {
        stopped.await.unwrap_or_default()
    }));
    let client = Client::new();
    let mut version = 1;
    let mut body = example("double-ropes");
    let refused = loop {
        body["title"] = json!(format!("Double ropes, take {version}"));
        let answer =
            client.put(&address).header("if-match", format!("\"{version}\"")).json(&body).send().await.unwrap();
        if !answer.status().is_success() {
            break answer;
        }
        version += 1;
        assert!(version < 100, "the limit is never met");
    };
    assert_eq!(refused.status(), StatusCode::INSUFFICIENT_STORAGE);
    let told: Value = refused.json().await.unwrap();
    assert!(told["detail"].as_str().unwrap().contains("what was saved before is safe"), "{told}");
    let now: Value = client.get(&address).send().await.unwrap().json().await.unwrap();
    assert_eq!(now["version"], version, "the refused change left no half of itself");
    stop.send(()).unwrap();
    server.await.unwrap().unwrap();

    // Started again with room, the same file holds the last saved state and takes changes.
    let store = store::open(&path).await.unwrap();
    let kept = shots::one::<Shot>(&store, &kept.id).await.unwrap();
    assert_eq!(kept.version, version);
    shots::replace(&store, &kept.id, version, &shot).await.unwrap();
}

#[tokio::test]
async fn a_shot_that_other_hands_spoiled_is_said_and_the_others_are_shown() {
    let folder = TempDir::new().unwrap();
    let store = store::open(&folder.path().join("season.sqlite")).await.unwrap();
    let shot = serde_json::from_value(example("double-ropes")).unwrap();
    let spoiled = shots::add(&store, &shot).await.unwrap();
    let good = shots::add(&store, &shot).await.unwrap();
    let mut change = store.change().await.unwrap();
    sqlx::query("UPDATE revision SET body = json_set(body, '$.lights[0].power', -3) WHERE document_id = ?")
        .bind(&spoiled.id)
        .execute(&mut *change)
        .await
        .unwrap();
    change.commit().await.unwrap();
    let all = shots::all::<Shot>(&store).await.unwrap();
    assert!(all[0].as_ref().is_err_and(|error| error.to_string().contains("lights[0].power")), "{:?}", all[0]);
    assert!(all[1].as_ref().is_ok_and(|kept| kept.id == good.id));
}
