//! A file that is deleted, moved, replaced or overwritten while it is open; a log that is.

use super::Saver;
use crate::common::Server;
use reqwest::StatusCode;
use serde_json::Value;
use tempfile::TempDir;

/// Waits until the log is folded into the file, as it is after some quiet seconds.
async fn folded(server: &Server) {
    let log = server.data.with_file_name("season.sqlite-wal");
    let begun = std::time::Instant::now();
    while log.metadata().is_ok_and(|log| log.len() > 0) {
        assert!(begun.elapsed() < std::time::Duration::from_secs(20), "the log is never folded in");
        tokio::time::sleep(std::time::Duration::from_millis(20)).await;
    }
}

#[tokio::test]
async fn nothing_is_answered_as_saved_into_a_file_that_is_gone() {
    type Hand = fn(&std::path::Path);
    let hands: [(&str, Hand); 4] = [
        ("deleted", |data| std::fs::remove_file(data).unwrap()),
        ("moved", |data| std::fs::rename(data, data.with_extension("elsewhere")).unwrap()),
        ("replaced", |data| {
            let other = data.with_extension("other");
            std::fs::copy(data, &other).unwrap();
            std::fs::rename(other, data).unwrap();
        }),
        ("overwritten", |data| {
            let bytes = std::fs::read(data).unwrap();
            std::fs::write(data, bytes).unwrap();
        }),
    ];
    for (how, hand) in hands {
        let folder = TempDir::new().unwrap();
        let data = folder.path().join("season.sqlite");
        let server = Server::on(&data, &["--demo"]);
        let mut saver = Saver::on(&server).await;
        saver.save(&server).await;
        folded(&server).await;
        hand(&data);
        for time in 1..=2 {
            assert_eq!(saver.save(&server).await, StatusCode::INTERNAL_SERVER_ERROR, "{how}, time {time}");
        }
        let told = reqwest::Client::new().post(server.url("/api/shots")).json(&crate::common::example("silks"));
        let told: Value = told.send().await.unwrap().json().await.unwrap();
        assert_eq!(told["type"], "/problems/file-gone", "{how}");
        assert!(told["detail"].as_str().unwrap().contains("copy of everything"), "{told}");
        // Everything that was saved can still be taken away as a copy.
        let copy = reqwest::get(server.url("/api/copy")).await.unwrap();
        if how != "overwritten" {
            let saved = folder.path().join("saved.sqlite");
            std::fs::write(&saved, copy.error_for_status().unwrap().bytes().await.unwrap()).unwrap();
            let again = Server::on(&saved, &[]);
            assert_eq!(saver.title(&again).await, saver.saved, "{how}");
        }
        if how == "moved" {
            std::fs::rename(data.with_extension("elsewhere"), &data).unwrap();
            assert_eq!(saver.title(&server).await, saver.saved);
            assert_eq!(saver.save(&server).await, StatusCode::OK, "put back, it goes on");
        }
    }
}

#[tokio::test]
async fn a_log_that_is_deleted_takes_nothing_with_it() {
    let folder = TempDir::new().unwrap();
    let data = folder.path().join("season.sqlite");
    let server = Server::on(&data, &["--demo"]);
    let mut saver = Saver::on(&server).await;
    for round in 0..3 {
        assert_eq!(saver.save(&server).await, StatusCode::OK);
        let log = folder.path().join("season.sqlite-wal");
        std::fs::remove_file(&log).unwrap();
        if round == 1 {
            // Some quiet seconds, in which the log that is gone is folded in, do not make it forgotten.
            tokio::time::sleep(std::time::Duration::from_millis(2500)).await;
        }
        assert_eq!(saver.save(&server).await, StatusCode::OK, "round {round}");
        assert_eq!(saver.title(&server).await, saver.saved, "round {round}");
    }
    server.kill();
    let server = Server::on(&data, &[]);
    assert_eq!(saver.title(&server).await, saver.saved);
}

#[tokio::test]
async fn after_quiet_seconds_and_after_a_clean_stop_the_file_alone_has_everything() {
    let folder = TempDir::new().unwrap();
    let data = folder.path().join("season.sqlite");
    let server = Server::on(&data, &["--demo"]);
    let mut saver = Saver::on(&server).await;
    saver.save(&server).await;
    folded(&server).await;
    let alone = folder.path().join("alone.sqlite");
    std::fs::copy(&data, &alone).unwrap();
    let copied = Server::on(&alone, &[]);
    assert_eq!(saver.title(&copied).await, saver.saved);
    copied.kill();
    saver.title(&server).await;
    saver.save(&server).await;
    assert!(server.ended().success());
    assert!(!folder.path().join("season.sqlite-wal").exists());
    let again = folder.path().join("again.sqlite");
    std::fs::copy(&data, &again).unwrap();
    let copied = Server::on(&again, &[]);
    assert_eq!(saver.title(&copied).await, saver.saved);
}
