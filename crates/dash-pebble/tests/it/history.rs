//! Saving, undo and redo against a model that a child could follow: a tree of bodies and a finger on one of them.

use crate::common::example;
use dash_pebble::store;
use dash_pebble::store::documents::{self, DocumentError, Step};
use dash_pebble::store::shelf::Document;
use pebble_core::Shot;
use pebble_core::gear::Item;
use proptest::prelude::*;
use tempfile::TempDir;

#[derive(Clone, Debug)]
enum Move {
    /// Save it under this name.
    Save(u8),
    Undo,
    Redo,
    /// Save from a version that is no longer the present one.
    SaveStale(u8),
    /// Close the file and open it again.
    Reopen,
    /// Take it off the list and bring it back.
    RemoveAndRestore,
    /// No longer offer it, then offer it again.
    RetireAndTakeAlong,
}

fn moves() -> impl Strategy<Value = Vec<Move>> {
    let one = prop_oneof![
        4 => (0u8..5).prop_map(Move::Save),
        3 => Just(Move::Undo),
        3 => Just(Move::Redo),
        1 => (0u8..5).prop_map(Move::SaveStale),
        1 => Just(Move::Reopen),
        1 => Just(Move::RemoveAndRestore),
        1 => Just(Move::RetireAndTakeAlong),
    ];
    prop::collection::vec(one, 1..25)
}

/// The tree: each body with the one it was made from; the finger.
struct Model {
    bodies: Vec<(String, Option<usize>)>,
    at: usize,
}

impl Model {
    fn latest_child(&self) -> Option<usize> {
        self.bodies.iter().rposition(|(_, parent)| *parent == Some(self.at))
    }
}

/// Something with a name on it.
trait Named: Document + std::fmt::Debug {
    fn named(name: &str) -> Self;
    fn name(&self) -> &str;
}

impl Named for Shot {
    fn named(name: &str) -> Self {
        let shot: Self = serde_json::from_value(example("double-ropes")).expect("the example is a shot");
        Self { title: name.to_owned(), ..shot }
    }

    fn name(&self) -> &str {
        &self.title
    }
}

impl Named for Item {
    fn named(name: &str) -> Self {
        let mut item = Item::Unit(Box::new(dash_pebble::demo::KIT.units[0].clone())).with_id("thing");
        item.rename(name);
        item
    }

    fn name(&self) -> &str {
        self.name()
    }
}

async fn follow<T: Named>(moves: Vec<Move>) -> Result<(), TestCaseError> {
    let folder = TempDir::new().expect("a temporary folder");
    let path = folder.path().join("season.sqlite");
    let mut store = store::open(&path).await.expect("a new file opens");
    let mut change = store.change().await.expect("it can be changed");
    documents::insert(&mut change, "thing", &T::named("first")).await.expect("it is added");
    change.commit().await.expect("it is kept");
    let kept = documents::one::<T>(&store, "thing").await.expect("it is there");
    let (id, mut version) = (kept.id, kept.version);
    let mut model = Model { bodies: vec![("first".to_owned(), None)], at: 0 };
    for step in moves {
        match &step {
            Move::Save(title) => {
                let title = format!("take {title}");
                let kept = documents::replace(&store, &id, version, &T::named(&title))
                    .await
                    .expect("it is the present version");
                if model.bodies[model.at].0 == title {
                    prop_assert_eq!(kept.version, version, "the same again is no change");
                } else {
                    model.bodies.push((title, Some(model.at)));
                    model.at = model.bodies.len() - 1;
                }
                version = kept.version;
            }
            Move::Undo | Move::Redo => {
                let (way, to) = match step {
                    Move::Undo => (Step::Undo, model.bodies[model.at].1),
                    _ => (Step::Redo, model.latest_child()),
                };
                match (documents::step::<T>(&store, &id, version, way).await, to) {
                    (Ok(kept), Some(to)) => {
                        prop_assert_eq!(kept.version, version + 1, "every move raises the version");
                        (model.at, version) = (to, kept.version);
                    }
                    (Err(DocumentError::NoStep(_)), None) => {}
                    (other, to) => prop_assert!(false, "{:?} although the model goes to {:?}", other, to),
                }
            }
            Move::SaveStale(title) => {
                let refused = documents::replace(&store, &id, version - 1, &T::named(&format!("stale {title}"))).await;
                let told = matches!(&refused, Err(DocumentError::Conflict(now)) if now.version == version);
                prop_assert!(told, "{:?}", refused);
            }
            Move::Reopen => {
                store.close().await;
                store = store::open(&path).await.expect("it opens again");
            }
            Move::RetireAndTakeAlong => {
                for retired in [true, false] {
                    let kept =
                        documents::retire::<T>(&store, &id, version, retired).await.expect("it is the present one");
                    prop_assert_eq!((kept.retired, kept.version), (retired, version + 1));
                    version = kept.version;
                }
            }
            Move::RemoveAndRestore => {
                documents::remove::<T>(&store, &id, version).await.expect("it is the present version");
                let gone = matches!(documents::one::<T>(&store, &id).await, Err(DocumentError::Missing { .. }));
                prop_assert!(gone);
                documents::restore::<T>(&store, &id).await.expect("it is still in the file");
            }
        }
        let now = documents::one::<T>(&store, &id).await.expect("it is there");
        prop_assert_eq!(now.thing.name(), &model.bodies[model.at].0);
        prop_assert_eq!(now.version, version);
        prop_assert_eq!(now.can_undo, model.bodies[model.at].1.is_some());
        prop_assert_eq!(now.can_redo, model.latest_child().is_some());
    }
    Ok(())
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 32, ..ProptestConfig::default() })]

    #[test]
    fn history_is_a_tree_with_a_finger_on_it(moves in moves(), of_kit in any::<bool>()) {
        let runtime = tokio::runtime::Builder::new_current_thread().enable_all().build().expect("a runtime");
        runtime.block_on(async { if of_kit { follow::<Item>(moves).await } else { follow::<Shot>(moves).await } })?;
    }
}
