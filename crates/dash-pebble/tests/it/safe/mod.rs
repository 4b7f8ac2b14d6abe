//! What was answered as saved is there, and nothing else is: after every way a disk, a file or a program can end.

mod copies;
mod damage;
mod killed;
mod refused;
mod taken_away;

use crate::common::{Server, example};
use reqwest::{Client, StatusCode};
use serde_json::{Value, json};

/// Somebody who saves one shot again and again and remembers what was answered.
pub struct Saver {
    client: Client,
    id: String,
    version: i64,
    body: Value,
    count: usize,
    /// The title that was last answered as saved.
    pub saved: String,
}

impl Saver {
    pub async fn on(server: &Server) -> Self {
        let (client, body) = (Client::new(), example("double-ropes"));
        let answer = client.post(server.url("/api/shots")).json(&body).send().await.unwrap();
        assert_eq!(answer.status(), StatusCode::CREATED);
        let made: Value = answer.json().await.unwrap();
        let saved = body["title"].as_str().unwrap().to_owned();
        Self { client, id: made["id"].as_str().unwrap().to_owned(), version: 1, body, count: 0, saved }
    }

    /// Saves it under another title.
    pub async fn save(&mut self, server: &Server) -> StatusCode {
        self.try_save(server).await.expect("it is answered")
    }

    /// The same; `None` when no answer came.
    pub async fn try_save(&mut self, server: &Server) -> Option<StatusCode> {
        self.count += 1;
        let title = format!("Double ropes, take {}", self.count);
        self.body["title"] = json!(title);
        let url = server.url(&format!("/api/shots/{}", self.id));
        let asked = self.client.put(url).header("if-match", format!("\"{}\"", self.version)).json(&self.body);
        let answer = asked.send().await.ok()?;
        let status = answer.status();
        let body: Value = answer.json().await.ok()?;
        if status == StatusCode::OK {
            self.version = body["version"].as_i64().unwrap();
            self.saved = title;
        } else {
            println!("refused: {}", body["detail"]);
        }
        Some(status)
    }

    /// The title that is there now.
    pub async fn title(&mut self, server: &Server) -> String {
        let answer = self.client.get(server.url(&format!("/api/shots/{}", self.id))).send().await.unwrap();
        let shot: Value = answer.error_for_status().unwrap().json().await.unwrap();
        self.version = shot["version"].as_i64().unwrap();
        shot["shot"]["title"].as_str().unwrap().to_owned()
    }
}
