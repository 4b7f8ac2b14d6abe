//! Killed at any moment, the birth of the file included.

use super::Saver;
use crate::common::{Server, program};
use serde_json::Value;
use sqlx::{ConnectOptions, Connection};
use std::path::Path;
use std::process::Stdio;
use std::time::Duration;
use tempfile::TempDir;

/// Numbers that look random and are the same every time.
struct Dice(u64);

impl Dice {
    fn below(&mut self, limit: u64) -> u64 {
        self.0 = self.0.wrapping_mul(6_364_136_223_846_793_005).wrapping_add(1_442_695_040_888_963_407);
        (self.0 >> 33) % limit
    }
}

/// So many as say whether anything is lost at all; `make torture` has more.
fn kills() -> usize {
    std::env::var("KILLS").ok().and_then(|text| text.parse().ok()).unwrap_or(16)
}

async fn shots(server: &Server) -> usize {
    let list: Value = reqwest::get(server.url("/api/shots")).await.unwrap().json().await.unwrap();
    assert_eq!(list["unreadable"], serde_json::json!([]));
    list["shots"].as_array().unwrap().len()
}

#[tokio::test]
async fn kills_lose_nothing_that_was_answered_as_saved() {
    let folder = TempDir::new().unwrap();
    let data = folder.path().join("season.sqlite");
    let mut dice = Dice(20_261_126);
    let mut server = Server::on(&data, &["--demo"]);
    let mut saver = Saver::on(&server).await;
    for kill in 0..kills() {
        let limit = Duration::from_millis(dice.below(40));
        // Saves without a pause until the time is over; the last one may be under way.
        let _ = tokio::time::timeout(limit, async { while saver.try_save(&server).await.is_some() {} }).await;
        let under_way = format!("Double ropes, take {}", saver.count);
        server.kill();
        server = Server::on(&data, &["--demo"]);
        let found = saver.title(&server).await;
        assert!(found == saver.saved || found == under_way, "kill {kill}: {found}, saved was {}", saver.saved);
        saver.saved = found;
        assert_eq!(shots(&server).await, 8, "kill {kill}");
    }
    // A busy machine is killed before it has saved now and then.
    assert!(saver.count > kills() / 3, "only {} saves", saver.count);
}

/// Starts the program and kills it after a while, wherever it is.
fn started_and_killed(data: &Path, after: Duration) {
    let mut child = program()
        .args(["serve", "--demo", "--listen", "127.0.0.1:0", "--data"])
        .arg(data)
        .stdout(Stdio::null())
        .spawn()
        .expect("the program starts");
    std::thread::sleep(after);
    child.kill().expect("it can be killed");
    child.wait().expect("it ends");
}

#[tokio::test]
async fn a_file_that_is_being_made_is_whole_or_not_there() {
    let mut dice = Dice(7);
    for kill in 0..kills() / 3 {
        let folder = TempDir::new().unwrap();
        let data = folder.path().join("season.sqlite");
        for _ in 0..=dice.below(2) {
            started_and_killed(&data, Duration::from_micros(2_000 + dice.below(90_000)));
        }
        let server = Server::on(&data, &["--demo"]);
        assert_eq!(shots(&server).await, 7, "kill {kill}");
        let left: Vec<_> = std::fs::read_dir(folder.path()).unwrap().map(|entry| entry.unwrap().file_name()).collect();
        assert!(left.iter().all(|name| !name.to_string_lossy().contains(".new")), "kill {kill}: {left:?}");
    }
}

#[tokio::test]
async fn a_file_that_lost_its_mark_at_birth_is_mended() {
    let folder = TempDir::new().unwrap();
    let data = folder.path().join("season.sqlite");
    let server = Server::on(&data, &["--demo"]);
    let mut saver = Saver::on(&server).await;
    saver.save(&server).await;
    server.kill();
    // As an earlier version left it when it was killed while it signed: everything there, but for the mark.
    let options = sqlx::sqlite::SqliteConnectOptions::new().filename(&data);
    let mut connection = options.connect().await.unwrap();
    sqlx::query("PRAGMA application_id = 0").execute(&mut connection).await.unwrap();
    connection.close().await.unwrap();
    for start in 1..=2 {
        let server = Server::on(&data, &[]);
        assert_eq!(saver.title(&server).await, saver.saved, "start {start}");
        assert_eq!(shots(&server).await, 8);
        server.kill();
    }
    let mut connection = options.connect().await.unwrap();
    let mark: i64 = sqlx::query_scalar("PRAGMA application_id").fetch_one(&mut connection).await.unwrap();
    assert_eq!(mark, 0x4450_626C);
    // A stranger's database without a mark stays a stranger's.
    let strange = folder.path().join("strange.sqlite");
    let mut connection =
        sqlx::sqlite::SqliteConnectOptions::new().filename(&strange).create_if_missing(true).connect().await.unwrap();
    sqlx::query("CREATE TABLE revision (id INTEGER)").execute(&mut connection).await.unwrap();
    connection.close().await.unwrap();
    let before = std::fs::read(&strange).unwrap();
    let refused = crate::common::run(&["serve", "--listen", "127.0.0.1:0", "--data", strange.to_str().unwrap()]);
    assert!(!refused.status.success() && String::from_utf8_lossy(&refused.stderr).contains("is not a Dash Pebble"));
    assert_eq!(std::fs::read(&strange).unwrap(), before);
}

#[tokio::test]
async fn a_log_of_a_file_that_is_no_more_is_not_played_into_a_new_one() {
    let folder = TempDir::new().unwrap();
    let data = folder.path().join("season.sqlite");
    let server = Server::on(&data, &["--demo"]);
    let mut saver = Saver::on(&server).await;
    saver.save(&server).await;
    server.kill();
    std::fs::remove_file(&data).unwrap();
    let server = Server::on(&data, &["--demo"]);
    assert_eq!(shots(&server).await, 7);
    let left = folder.path().join("season.sqlite-wal.left-1");
    assert!(left.metadata().unwrap().len() > 0, "what was in it is kept aside");
}
