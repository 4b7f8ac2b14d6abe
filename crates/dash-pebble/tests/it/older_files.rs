//! Data files of earlier versions open, and nothing in them is lost.

use crate::common::example;
use dash_pebble::store::{self, kit, shots};
use pebble_core::Shot;
use pebble_core::gear::Item;
use sqlx::sqlite::SqliteConnectOptions;
use sqlx::{ConnectOptions, Connection};
use tempfile::TempDir;

/// A shot as version 1 wrote it: one flash in the place of a list of lights.
fn of_version_one(mut shot: serde_json::Value) -> serde_json::Value {
    let mut flash = shot["lights"][0].take();
    for later in ["role", "group", "channel", "heads", "bearing_deg", "height_deg"] {
        flash.as_object_mut().unwrap().remove(later);
    }
    let whole = shot.as_object_mut().unwrap();
    whole.remove("lights");
    whole.remove("channel");
    whole.insert("flash".to_owned(), flash);
    whole.insert("version".to_owned(), 1.into());
    whole["camera"].as_object_mut().unwrap().remove("white_balance_k");
    shot["ambient"].as_object_mut().unwrap().remove("kelvin");
    let key = shot["targets"]["subject_stops"].take();
    shot["targets"] = serde_json::json!({ "key_stops": key });
    shot
}

#[tokio::test]
async fn shots_of_the_first_version_keep_their_history_and_get_a_kit_beside_them() {
    let folder = TempDir::new().unwrap();
    let path = folder.path().join("season.sqlite");
    // A file as the first version left it: its tables, its mark, one shot with two revisions, one removed.
    let first_only = TempDir::new().unwrap();
    let scripts = format!("{}/migrations", env!("CARGO_MANIFEST_DIR"));
    let first = std::fs::read_dir(&scripts).unwrap().map(|entry| entry.unwrap().path()).min().unwrap();
    std::fs::copy(&first, first_only.path().join(first.file_name().unwrap())).unwrap();
    let options = SqliteConnectOptions::new()
        .filename(&path)
        .create_if_missing(true)
        .foreign_keys(true)
        .pragma("application_id", 0x4450_626C_u32.to_string());
    let mut connection = options.connect().await.unwrap();
    sqlx::migrate::Migrator::new(first_only.path()).await.unwrap().run(&mut connection).await.unwrap();
    let body = of_version_one(example("double-ropes")).to_string();
    let mut earlier = of_version_one(example("double-ropes"));
    earlier["title"] = "Earlier".into();
    sqlx::query(
        "BEGIN;
         INSERT INTO shot (id, version, head, place_in_list, removed_at, changed_at) VALUES
             ('kept', 4, 2, 1, NULL, '2026-09-01T10:00:00.000Z'), ('gone', 2, 3, 2, '2026-09-02', '2026-09-02');
         INSERT INTO revision (id, shot_id, parent, body, made_at) VALUES
             (1, 'kept', NULL, ?1, '2026-09-01'), (2, 'kept', 1, ?2, '2026-09-01'), (3, 'gone', NULL, ?2, '2026-09-02');
         COMMIT",
    )
    .bind(earlier.to_string())
    .bind(&body)
    .execute(&mut connection)
    .await
    .unwrap();
    connection.close().await.unwrap();

    let store = store::open(&path).await.unwrap();
    let kept = shots::one::<Shot>(&store, "kept").await.unwrap();
    assert_eq!((kept.version, kept.can_undo, kept.moved.len()), (4, true, 1));
    assert!(kept.moved[0].sentence.starts_with("the target of the key alone is now"), "{:?}", kept.moved);
    let mut now: Shot = serde_json::from_value(example("double-ropes")).unwrap();
    // What version 1 did not know is as a camera comes, and a light as high as was usual.
    (now.camera.white_balance_k, now.ambient.kelvin) = (5500.0, 5500.0);
    now.lights[0].height_deg = 30.0;
    assert_eq!(kept.thing, now);
    let undone = shots::step::<Shot>(&store, "kept", 4, store::documents::Step::Undo).await.unwrap();
    assert_eq!((undone.thing.title.as_str(), undone.version), ("Earlier", 5));
    assert_eq!(shots::all::<Shot>(&store).await.unwrap().len(), 1, "what was removed stays away");
    assert!(shots::restore::<Shot>(&store, "gone").await.is_ok(), "and can still be brought back");
    // The kit begins empty: shots carry what they need.
    assert!(kit::all::<Item>(&store).await.unwrap().is_empty());
    let items = dash_pebble::demo::KIT.clone().into_items().unwrap();
    let taken = kit::import(&store, &items).await.unwrap();
    assert_eq!(taken.added, items.len());
    assert!(!kit::uses(&store, "heron-v2").await.unwrap().is_empty(), "and the old shots are seen to use it");
}

#[tokio::test]
async fn a_thing_that_other_hands_spoiled_is_said_and_shots_go_on_with_their_copy() {
    let folder = TempDir::new().unwrap();
    let store = store::open(&folder.path().join("season.sqlite")).await.unwrap();
    let mut change = store.change().await.unwrap();
    dash_pebble::demo::fill(&mut change).await.unwrap();
    change.commit().await.unwrap();
    let before = shots::all::<Shot>(&store).await.unwrap();
    let mut change = store.change().await.unwrap();
    sqlx::query("UPDATE revision SET body = json_set(body, '$.item.lag_ms', -3) WHERE document_id = 'brix-400'")
        .execute(&mut *change)
        .await
        .unwrap();
    change.commit().await.unwrap();
    let all = kit::all::<Item>(&store).await.unwrap();
    let spoiled: Vec<String> = all.iter().filter_map(|one| one.as_ref().err()).map(ToString::to_string).collect();
    assert!(matches!(&spoiled[..], [said] if said.contains("brix-400") && said.contains("lag_ms")), "{spoiled:?}");
    assert!(kit::export(&store).await.is_err(), "half a kit is not given out as a whole one");
    let after = shots::all::<Shot>(&store).await.unwrap();
    for (before, after) in before.iter().zip(&after) {
        // How many there are only the kit knows.
        let known = |shot: &Shot| {
            let mut shot = shot.clone();
            shot.lights.iter_mut().for_each(|light| light.unit.owned = None);
            shot
        };
        assert_eq!(known(&before.as_ref().unwrap().thing), known(&after.as_ref().unwrap().thing));
    }
}
