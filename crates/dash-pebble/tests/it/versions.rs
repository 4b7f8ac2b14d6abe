//! Earlier versions of a shot over HTTP: listed, named, compared, brought back, and kept.

use crate::common::api::{Api, problem};
use reqwest::{Method, Response, StatusCode};
use serde_json::{Value, json};

struct Season {
    api: Api,
    id: String,
}

impl Season {
    /// A shot with three versions: 1/60, 1/30, 1/15.
    async fn begun() -> Self {
        let api = Api::demo();
        let first = api.first_shot().await;
        let season = Self { id: first["id"].as_str().unwrap().to_owned(), api };
        for (version, shutter) in [(1, "1/30"), (2, "1/15")] {
            let mut shot = first["shot"].clone();
            shot["camera"]["shutter"] = json!(shutter);
            let answer = season.api.send(Method::PUT, &season.path(""), Some(version), Some(&shot)).await;
            assert_eq!(answer.status(), StatusCode::OK);
        }
        season
    }

    fn path(&self, more: &str) -> String {
        format!("/api/shots/{}{more}", self.id)
    }

    async fn list(&self) -> Vec<Value> {
        self.api.get(&self.path("/versions")).await.as_array().unwrap().clone()
    }

    async fn call(&self, revision: &Value, name: Value) -> Response {
        let path = self.path(&format!("/versions/{revision}/name"));
        self.api.send(Method::PUT, &path, None, Some(&json!({ "name": name }))).await
    }
}

#[tokio::test]
async fn every_change_is_a_version_and_names_last_over_restarts() {
    let mut season = Season::begun().await;
    let list = season.list().await;
    assert_eq!(list.iter().map(|one| one["is_now"].as_bool().unwrap()).collect::<Vec<_>>(), [true, false, false]);
    let first = list[2]["revision"].clone();
    assert_eq!(season.call(&first, json!("  As planned ")).await.status(), StatusCode::NO_CONTENT);
    season.api.server = season.api.server.killed_and_started_again();
    assert_eq!(season.list().await[2]["name"], "As planned");
    assert_eq!(season.call(&first, json!("")).await.status(), StatusCode::NO_CONTENT);
    assert_eq!(season.list().await[2]["name"], Value::Null);
    let (status, told) = problem(season.call(&first, json!("x".repeat(81))).await).await;
    assert_eq!((status, &told["field"]), (StatusCode::UNPROCESSABLE_ENTITY, &json!("name")));
}

#[tokio::test]
async fn two_versions_are_laid_side_by_side_and_an_earlier_one_is_brought_back_on_top() {
    let season = Season::begun().await;
    let list = season.list().await;
    let first = list[2]["revision"].as_i64().unwrap();
    let seen = season.api.get(&season.path(&format!("/versions/{first}"))).await;
    assert_eq!(seen["shot"]["camera"]["shutter"], "1/60");
    let differences = seen["differences"].as_array().unwrap();
    assert_eq!(differences[0], json!({ "what": "Shutter", "kind": "setting", "before": "1/60", "after": "1/15" }));
    assert!(differences[1..].iter().all(|one| one["kind"] == "number"), "{differences:?}");

    // Any two of them, not only against the one that counts.
    let second = list[1]["revision"].as_i64().unwrap();
    let both = season.api.get(&season.path(&format!("/versions/{first}?beside={second}"))).await;
    assert_eq!(both["beside"]["camera"]["shutter"], "1/30");
    assert_eq!(both["differences"][0]["after"], "1/30");
    for wrong in ["999999", "soon"] {
        let path = season.path(&format!("/versions/{first}?beside={wrong}"));
        let (status, _) = problem(season.api.send(Method::GET, &path, None, None).await).await;
        assert!(
            status == StatusCode::NOT_FOUND
                || status == StatusCode::BAD_REQUEST
                || status == StatusCode::UNPROCESSABLE_ENTITY,
            "{status}"
        );
    }

    let back = season.path(&format!("/versions/{first}/back"));
    let (status, told) = problem(season.api.send(Method::POST, &back, Some(1), None).await).await;
    assert_eq!(
        (status, &told["current"]["version"]),
        (StatusCode::CONFLICT, &json!(3)),
        "only at the version that was seen"
    );
    let answer: Value = season.api.send(Method::POST, &back, Some(3), None).await.json().await.unwrap();
    assert_eq!((&answer["shot"]["camera"]["shutter"], &answer["version"]), (&json!("1/60"), &json!(4)));
    // On top, and nothing between is lost: one undo leads back.
    assert_eq!(season.list().await.len(), 4);
    let undone = season.api.send(Method::POST, &season.path("/undo"), Some(4), None).await;
    assert_eq!(undone.json::<Value>().await.unwrap()["shot"]["camera"]["shutter"], "1/15");
}

#[tokio::test]
async fn versions_that_are_not_there_or_of_another_shot_are_said() {
    let season = Season::begun().await;
    let other = season.api.get("/api/shots").await["shots"][1]["id"].as_str().unwrap().to_owned();
    let foreign = season.api.get(&format!("/api/shots/{other}/versions")).await[0]["revision"].clone();
    for path in [season.path("/versions/999999"), season.path(&format!("/versions/{foreign}"))] {
        let (status, told) = problem(season.api.send(Method::GET, &path, None, None).await).await;
        assert_eq!(status, StatusCode::NOT_FOUND, "{told}");
    }
    let (status, _) = problem(season.call(&foreign, json!("Mine")).await).await;
    assert_eq!(status, StatusCode::NOT_FOUND);
    let (status, _) = problem(season.api.send(Method::GET, &season.path("/versions/first"), None, None).await).await;
    assert_eq!(status, StatusCode::BAD_REQUEST);
    let (status, _) = problem(season.api.send(Method::GET, "/api/shots/nobody/versions", None, None).await).await;
    assert_eq!(status, StatusCode::NOT_FOUND);
    let back = season.path(&format!("/versions/{foreign}/back"));
    let (status, _) = problem(season.api.send(Method::POST, &back, Some(3), None).await).await;
    assert_eq!(status, StatusCode::NOT_FOUND);
    assert_eq!(season.list().await.len(), 3, "nothing was changed");
}
