//! Demo data: an invented kit and an invented week of wheels and air.

use crate::store::shots::{self, ShotError};
use pebble_core::Shot;
use pebble_core::shot::{CameraBody, FlashUnit, Lens, Modifier, Trigger};
use serde::{Deserialize, Serialize};
use sqlx::SqlitePool;
use std::sync::LazyLock;

/// Everything that can be chosen for a shot.
#[derive(Clone, Debug, Serialize, Deserialize, utoipa::ToSchema)]
pub struct Kit {
    /// Camera bodies.
    pub cameras: Vec<CameraBody>,
    /// Lenses.
    pub lenses: Vec<Lens>,
    /// Flash units.
    pub units: Vec<FlashUnit>,
    /// What goes in front of them.
    pub modifiers: Vec<Modifier>,
    /// Triggers.
    pub triggers: Vec<Trigger>,
}

/// The demo shots, as they also ship as example files.
pub const EXAMPLES: [&str; 3] = [
    include_str!("../../../docs/examples/double-ropes.json"),
    include_str!("../../../docs/examples/lantern-slalom.json"),
    include_str!("../../../docs/examples/slipway-spin.json"),
];
const BLANK: &str = include_str!("../../../docs/examples/card-on-a-wall.json");

/// The demo kit.
pub static KIT: LazyLock<Kit> = LazyLock::new(|| shipped(include_str!("../demo/kit.json")));

/// What a new shot starts from.
pub fn blank() -> Shot {
    Shot { title: "New shot".to_owned(), ..shipped(BLANK) }
}

/// Puts the demo shots into a file that has none yet.
///
/// # Errors
/// Those of the store.
pub async fn fill(pool: &SqlitePool) -> Result<(), ShotError> {
    if shots::all(pool).await?.is_empty() {
        for example in EXAMPLES {
            shots::add(pool, &shipped(example)).await?;
        }
    }
    Ok(())
}

fn shipped<T: for<'a> Deserialize<'a>>(json: &str) -> T {
    serde_json::from_str(json).expect("data compiled into the program is tested to be readable")
}
