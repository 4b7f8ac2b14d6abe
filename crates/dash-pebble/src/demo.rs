//! Demo data: an invented kit and an invented week of wheels and air.

use crate::store::{kit, shots};
use pebble_core::Shot;
use pebble_core::gear::{FlashUnit, Item, Kind, Kit, Origin, Source};
use sqlx::SqlitePool;
use std::sync::LazyLock;

/// The demo shots, as they also ship as example files.
pub const EXAMPLES: [&str; 7] = [
    include_str!("../../../docs/examples/double-ropes.json"),
    include_str!("../../../docs/examples/lantern-slalom.json"),
    include_str!("../../../docs/examples/slipway-spin.json"),
    include_str!("../../../docs/examples/sabre-reach.json"),
    include_str!("../../../docs/examples/silks.json"),
    include_str!("../../../docs/examples/finishers-wall.json"),
    include_str!("../../../docs/examples/roller-hall.json"),
];
const BLANK: &str = include_str!("../../../docs/examples/card-on-a-wall.json");

/// The demo kit.
pub static KIT: LazyLock<Kit> = LazyLock::new(|| shipped(include_str!("../../../docs/examples/kit.json")));

/// What a new shot starts from.
pub fn blank() -> Shot {
    Shot { title: "New shot".to_owned(), ..shipped(BLANK) }
}

/// What a new thing of a kind starts from: figures of the demo kit, marked as the guesses they are for anything else.
pub fn start(kind: Kind) -> Option<Item> {
    let kit = KIT.clone();
    let plain = |mut item: Item, name: &str| {
        item = item.with_id("");
        item.rename(name);
        item
    };
    Some(match kind {
        Kind::Unit => {
            let from = kit.units.into_iter().next()?;
            let guess = Source::plain(Origin::Estimated);
            plain(
                Item::Unit(Box::new(FlashUnit { output_from: guess.clone(), durations_from: guess, ..from })),
                "New unit",
            )
        }
        Kind::Camera => plain(Item::Camera(kit.cameras.into_iter().next()?), "New camera"),
        Kind::Lens => plain(Item::Lens(kit.lenses.into_iter().next()?), "New lens"),
        Kind::Modifier => plain(Item::Modifier(kit.modifiers.into_iter().next()?), "New modifier"),
        Kind::Filter => plain(Item::Filter(kit.filters.into_iter().next()?), "New filter"),
        Kind::Trigger => plain(Item::Trigger(kit.triggers.into_iter().next()?), "New trigger"),
        Kind::Battery => plain(Item::Battery(kit.batteries.into_iter().next()?), "New battery"),
        Kind::Lamp => plain(Item::Lamp(kit.lamps.into_iter().next()?), "New lamp"),
    })
}

/// Puts the demo kit and the demo shots into a file that has none yet.
///
/// # Errors
/// A sentence of the store.
pub async fn fill(pool: &SqlitePool) -> anyhow::Result<()> {
    if kit::all::<Item>(pool).await?.is_empty() {
        kit::import(pool, &KIT.clone().into_items()?).await?;
    }
    if shots::all::<Shot>(pool).await?.is_empty() {
        for example in EXAMPLES {
            shots::add(pool, &shipped(example)).await?;
        }
    }
    Ok(())
}

fn shipped<T: for<'a> serde::Deserialize<'a>>(json: &str) -> T {
    serde_json::from_str(json).expect("data compiled into the program is tested to be readable")
}
