//! The real program on a file of its own and a free port.

#![allow(dead_code, reason = "each test file uses its own half")]

pub mod api;
pub mod bench;
pub mod browser;

use serde_json::Value;
use std::io::{BufRead, BufReader};
use std::path::{Path, PathBuf};
use std::process::{Child, Command, Output, Stdio};
use tempfile::TempDir;

/// The program under test; a measurement names an optimised one.
pub fn program() -> Command {
    Command::new(std::env::var_os("DASH_PEBBLE_PROGRAM").unwrap_or_else(|| env!("CARGO_BIN_EXE_dash-pebble").into()))
}

pub fn run(arguments: &[&str]) -> Output {
    program().args(arguments).output().expect("the program runs")
}

pub fn example_path(name: &str) -> String {
    format!("{}/../../docs/examples/{name}.json", env!("CARGO_MANIFEST_DIR"))
}

pub fn example(name: &str) -> Value {
    serde_json::from_str(&std::fs::read_to_string(example_path(name)).expect("the example is there"))
        .expect("it is JSON")
}

/// Sends a signal to a process.
pub fn signal(name: &str, process: u32) {
    let sent = Command::new("kill").args([format!("-{name}"), process.to_string()]).status().expect("kill is there");
    assert!(sent.success(), "{name} to {process}");
}

/// A running server; it and its file are gone with the guard.
pub struct Server {
    child: Child,
    pub address: String,
    pub data: PathBuf,
    folder: Option<TempDir>,
}

impl Server {
    /// With demo data in a new file.
    pub fn demo() -> Self {
        let folder = TempDir::new().expect("a temporary folder");
        let data = folder.path().join("demo.sqlite");
        let mut server = Self::on(&data, &["--demo"]);
        server.folder = Some(folder);
        server
    }

    /// With a kit of one's own, and ten shots.
    pub async fn with_kit(kit: &Value) -> Self {
        let server = Self::demo();
        let client = reqwest::Client::new();
        let taken = client.post(server.url("/api/kit/import")).json(kit).send().await.expect("an answer");
        assert!(taken.status().is_success(), "{}", taken.text().await.unwrap_or_default());
        for shot in ["silks", "sabre-reach", "double-ropes"] {
            let made = client.post(server.url("/api/shots")).json(&example(shot)).send().await.expect("an answer");
            assert!(made.status().is_success());
        }
        server
    }

    /// On a file that is there or not, at any free port.
    pub fn on(data: &Path, more: &[&str]) -> Self {
        Self::at("127.0.0.1:0", data, more)
    }

    /// At an address of one's choice.
    pub fn at(listen: &str, data: &Path, more: &[&str]) -> Self {
        Self::of(program(), listen, data, more)
    }

    /// With a command of one's own, which has what the program shall find around it.
    pub fn of(mut command: Command, listen: &str, data: &Path, more: &[&str]) -> Self {
        let mut child = command
            .args(["serve", "--listen", listen, "--data"])
            .arg(data)
            .args(more)
            .stdout(Stdio::piped())
            .spawn()
            .expect("the program starts");
        let stdout = child.stdout.take().expect("its output is piped");
        let mut line = String::new();
        BufReader::new(stdout).read_line(&mut line).expect("it says where it is");
        let address = line.split_whitespace().find(|word| word.starts_with("http://")).expect("an address").to_owned();
        Self { child, address, data: data.to_owned(), folder: None }
    }

    /// Ends the program without warning and starts it again on the same file.
    pub fn killed_and_started_again(mut self) -> Self {
        let folder = self.folder.take();
        self.child.kill().expect("it can be killed");
        self.child.wait().expect("it ends");
        let mut server = Self::on(&self.data, &["--demo"]);
        server.folder = folder;
        server
    }

    /// Ends the program without warning; what is returned starts it again at the same address on the same file.
    pub fn killed(mut self) -> impl FnOnce() -> Self {
        let folder = self.folder.take();
        self.child.kill().expect("it can be killed");
        self.child.wait().expect("it ends");
        let (listen, data) = (self.address.trim_start_matches("http://").to_owned(), self.data.clone());
        move || {
            let mut server = Self::at(&listen, &data, &[]);
            server.folder = folder;
            server
        }
    }

    /// Asks the program to end, waits for it, and returns how it ended.
    pub fn ended(mut self) -> std::process::ExitStatus {
        signal("TERM", self.id());
        self.child.wait().expect("it ends")
    }

    /// Waits for it to end and returns how it did.
    pub fn ended_by_itself(mut self) -> std::process::ExitStatus {
        self.child.wait().expect("it ends")
    }

    /// Ends the program without warning.
    pub fn kill(mut self) {
        self.child.kill().expect("it can be killed");
        self.child.wait().expect("it ends");
    }

    /// Its process.
    pub fn id(&self) -> u32 {
        self.child.id()
    }

    pub fn url(&self, path: &str) -> String {
        format!("{}{path}", self.address)
    }
}

impl Drop for Server {
    fn drop(&mut self) {
        let _ = self.child.kill();
        let _ = self.child.wait();
    }
}
