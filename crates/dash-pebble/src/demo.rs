//! Demo data: an invented kit and an invented week of wheels and air.

use crate::store::{Filled, kit, shots};
use pebble_core::Shot;
use pebble_core::gear::Kit;
use pebble_core::motion::Usage;
use sqlx::SqliteConnection;
use std::sync::LazyLock;

/// The demo shots with their identities, as they also ship as example files.
pub const EXAMPLES: [(&str, &str); 7] = [
    ("double-ropes", include_str!("../../../docs/examples/double-ropes.json")),
    ("lantern-slalom", include_str!("../../../docs/examples/lantern-slalom.json")),
    ("slipway-spin", include_str!("../../../docs/examples/slipway-spin.json")),
    ("sabre-reach", include_str!("../../../docs/examples/sabre-reach.json")),
    ("silks", include_str!("../../../docs/examples/silks.json")),
    ("finishers-wall", include_str!("../../../docs/examples/finishers-wall.json")),
    ("roller-hall", include_str!("../../../docs/examples/roller-hall.json")),
];
const BLANK: &str = include_str!("../../../docs/examples/card-on-a-wall.json");

/// The demo kit.
pub static KIT: LazyLock<Kit> = LazyLock::new(|| shipped(include_str!("../../../docs/examples/kit.json")));

/// What a new shot starts from.
pub fn blank() -> Shot {
    Shot { title: "New shot".to_owned(), usage: Usage::Print, ..shipped(BLANK) }
}

/// Puts the demo kit and the demo shots into a file that has none yet, as part of one change.
///
/// # Errors
/// Those of the store.
pub fn fill(connection: &mut SqliteConnection) -> Filled<'_> {
    Box::pin(async move {
        let (shot_count, thing_count): (i64, i64) =
            sqlx::query_as("SELECT count(*) FILTER (WHERE kind = 'shot'), count(*) FILTER (WHERE kind <> 'shot') FROM document WHERE removed_at IS NULL")
                .fetch_one(&mut *connection)
                .await?;
        if thing_count == 0 {
            kit::import_within(&mut *connection, &KIT.clone().into_items()?).await?;
        }
        if shot_count == 0 {
            for (id, example) in EXAMPLES {
                shots::add_as(&mut *connection, id, &shipped(example)).await?;
            }
        }
        Ok(())
    })
}

fn shipped<T: for<'a> serde::Deserialize<'a>>(json: &str) -> T {
    serde_json::from_str(json).expect("data compiled into the program is tested to be readable")
}
