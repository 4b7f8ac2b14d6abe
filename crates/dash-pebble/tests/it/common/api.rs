//! The HTTP interface as a program asks it.

use super::Server;
use reqwest::{Client, Method, Response, StatusCode};
use serde_json::Value;

/// A server and somebody who asks it.
pub struct Api {
    pub server: Server,
    pub client: Client,
}

impl Api {
    /// On a file of one's choice.
    pub fn on(server: Server) -> Self {
        Self { server, client: Client::new() }
    }

    pub fn demo() -> Self {
        Self { server: Server::demo(), client: Client::new() }
    }

    pub async fn send(&self, method: Method, path: &str, version: Option<i64>, body: Option<&Value>) -> Response {
        let mut request = self.client.request(method, self.server.url(path));
        if let Some(version) = version {
            request = request.header("if-match", format!("\"{version}\""));
        }
        if let Some(body) = body {
            request = request.json(body);
        }
        request.send().await.expect("the server answers")
    }

    pub async fn get(&self, path: &str) -> Value {
        self.send(Method::GET, path, None, None).await.json().await.expect("JSON")
    }

    pub async fn first_shot(&self) -> Value {
        let list = self.get("/api/shots").await;
        let id = list["shots"][0]["id"].as_str().expect("a shot");
        self.get(&format!("/api/shots/{id}")).await
    }
}

pub async fn problem(response: Response) -> (StatusCode, Value) {
    let status = response.status();
    assert_eq!(response.headers()["content-type"], "application/problem+json");
    let body: Value = response.json().await.expect("JSON");
    assert_eq!(body["status"], status.as_u16());
    (status, body)
}
