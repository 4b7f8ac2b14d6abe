//! Broken bits and pages: what is damaged is named and set aside, everything else works.

use crate::common::{Server, run};
use dash_pebble::store::rescue::rescue;
use dash_pebble::{demo, store};
use pebble_core::Shot;
use pebble_core::gear::Item;
use serde_json::Value;
use std::path::{Path, PathBuf};
use tempfile::TempDir;

async fn demo_file(folder: &TempDir) -> PathBuf {
    let data = folder.path().join("season.sqlite");
    store::open_filled(&data, demo::fill).await.unwrap().close().await;
    data
}

/// Where some bytes stand in a file.
fn found(bytes: &[u8], what: &[u8]) -> usize {
    bytes.windows(what.len()).position(|window| window == what).expect("they are in it")
}

#[tokio::test]
async fn one_flipped_bit_takes_one_shot_off_the_list_and_names_it() {
    let folder = TempDir::new().unwrap();
    let data = demo_file(&folder).await;
    let mut bytes = std::fs::read(&data).unwrap();
    let at = found(&bytes, "\"title\":\"Silks in the black box".as_bytes());
    bytes[at + 12] |= 0x80;
    std::fs::write(&data, &bytes).unwrap();
    let server = Server::on(&data, &[]);
    let list: Value = reqwest::get(server.url("/api/shots")).await.unwrap().json().await.unwrap();
    assert_eq!(list["shots"].as_array().unwrap().len(), 6);
    let named = list["unreadable"][0].as_str().unwrap();
    assert!(named.contains("s in the black box"), "{named}");
    let kit: Value = reqwest::get(server.url("/api/kit/shelf")).await.unwrap().json().await.unwrap();
    assert_eq!(kit["unreadable"], serde_json::json!([]));
    let checked = run(&["check", data.to_str().unwrap()]);
    let said = String::from_utf8_lossy(&checked.stdout).into_owned();
    assert!(checked.status.code() == Some(1) && said.contains("6 shots"), "{said}");

    let new = folder.path().join("new.sqlite");
    let saved = run(&["rescue", data.to_str().unwrap(), new.to_str().unwrap()]);
    let said = String::from_utf8_lossy(&saved.stdout).into_owned();
    assert!(
        saved.status.success() && said.contains("7 shots") && said.contains("letters that could not be read"),
        "{said}"
    );
    let checked = run(&["check", new.to_str().unwrap()]);
    assert!(checked.status.success(), "{}", String::from_utf8_lossy(&checked.stdout));
}

/// What the program shows of a file; `None` when it refuses it.
async fn shown(data: &Path) -> Option<(usize, usize)> {
    let store = match store::open(data).await {
        Ok(store) => store,
        Err(error) => {
            let said = error.to_string();
            assert!(said.contains("damaged") || said.contains("is not a Dash Pebble"), "{said}");
            return None;
        }
    };
    let shots = store::shots::all::<Shot>(&store).await.map_or(0, |all| all.into_iter().flatten().count());
    let items = store::kit::all::<Item>(&store).await.map_or(0, |all| all.into_iter().flatten().count());
    store.close().await;
    Some((shots, items))
}

#[tokio::test]
async fn whatever_page_is_broken_the_rest_is_shown_or_rescued() {
    const PAGE: usize = 4096;
    let folder = TempDir::new().unwrap();
    let data = demo_file(&folder).await;
    let whole = std::fs::read(&data).unwrap();
    let (all_shots, all_items) = shown(&data).await.unwrap();
    let (mut least, mut refused, pages) = (usize::MAX, 0, whole.len() / PAGE);
    // `make torture` breaks each of them.
    let step = if std::env::var_os("KILLS").is_some() { 1 } else { 2 };
    for page in (1..pages).step_by(step) {
        let mut bytes = whole.clone();
        bytes[page * PAGE..(page + 1) * PAGE].iter_mut().enumerate().for_each(|(at, byte)| *byte = (at * 7) as u8);
        let broken = folder.path().join(format!("broken-{page}.sqlite"));
        std::fs::write(&broken, &bytes).unwrap();
        refused += usize::from(shown(&broken).await.is_none());
        std::fs::write(&broken, &bytes).unwrap();
        let new = folder.path().join(format!("new-{page}.sqlite"));
        match rescue(&broken, &new).await {
            Ok(saved) => {
                least = least.min(saved.shots + saved.things);
                assert!(saved.said.len() + saved.shots + saved.things >= all_shots.min(1), "page {page}");
                assert!(shown(&new).await.is_some(), "page {page}: what was rescued is a good file");
            }
            Err(error) => {
                assert!(error.to_string().contains("earlier copies are in"), "page {page}: {error}");
                least = 0;
            }
        }
        let _ = (std::fs::remove_file(&broken), std::fs::remove_file(&new));
    }
    println!(
        "{pages} pages, {} documents: {refused} refused when opened, {least} rescued at the worst",
        all_shots + all_items
    );
    assert!(refused * 5 < pages / step, "{refused} of {pages} broken pages close the file");
}

#[tokio::test]
async fn a_long_history_stays_bounded_and_names_stay() {
    let folder = TempDir::new().unwrap();
    let store = store::open(&folder.path().join("season.sqlite")).await.unwrap();
    let mut shot: Shot = serde_json::from_value(crate::common::example("silks")).unwrap();
    let mut kept = store::shots::add(&store, &shot).await.unwrap();
    let id = kept.id.clone();
    let revisions = |named: bool| {
        let (store, id) = (store.clone(), id.clone());
        async move {
            let all = store::versions::all(&store, &id).await.unwrap();
            all.into_iter()
                .filter(|version| version.name.is_some() == named)
                .map(|version| version.revision)
                .collect::<Vec<_>>()
        }
    };
    let mut first_named = None;
    for take in 1..=450 {
        shot.title = format!("take {take}");
        kept = store::shots::replace(&store, &kept.id, kept.version, &shot).await.unwrap();
        if take == 20 {
            let latest = revisions(false).await[0];
            store::versions::call::<Shot>(&store, &kept.id, latest, Some("as approved")).await.unwrap();
            first_named = Some(latest);
        }
    }
    assert_eq!(revisions(true).await, [first_named.unwrap()]);
    let approved: Shot = store::versions::one(&store, &kept.id, first_named.unwrap()).await.unwrap();
    assert_eq!(approved.title, "take 20");
    let count: i64 = sqlx::query_scalar("SELECT count(*) FROM revision")
        .fetch_one(&mut *store.reader().await.unwrap())
        .await
        .unwrap();
    // Two hundred without a name, the one with, and those that came since it was last looked for old ones.
    assert!((201..209).contains(&count), "{count}");
    // Undo goes all the way back through what is left, to the one with the name.
    let mut steps = 0;
    while let Ok(back) = store::shots::step::<Shot>(&store, &kept.id, kept.version, store::shots::Step::Undo).await {
        kept = back;
        steps += 1;
    }
    assert_eq!((kept.thing.title.as_str(), steps), ("take 20", count - 1));
    let broken: Vec<(String,)> = sqlx::query_as("SELECT \"table\" FROM pragma_foreign_key_check")
        .fetch_all(&mut *store.reader().await.unwrap())
        .await
        .unwrap();
    assert_eq!(broken, []);
}
