//! Demo data: an invented kit and an invented week of wheels and air.

use crate::store::{Filled, kit, shots};
use pebble_core::Shot;
use pebble_core::file::stage::{Composition, Outfit, Person, Place, Pose};
use pebble_core::gear::Kit;
use pebble_core::motion::Usage;
use pebble_core::shot::DrawnAs;
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

/// The set in which poses, places and things are shown to choose from: grey paper, a key, two rims and a fill.
pub static SHOWROOM: LazyLock<Shot> = LazyLock::new(|| {
    let mut shot: Shot = shipped(include_str!("../../../docs/examples/sabre-reach.json"));
    shot.parts.clear();
    shot.wish = None;
    shot.lights.iter_mut().for_each(|light| light.misses.clear());
    (shot.subject.distance_m, shot.camera.focal_mm) = (4.0, 37.0);
    (shot.background.behind_m, shot.background.reflectance, shot.background.spill_stops) = (1.6, 0.2, -1.0);
    shot
});

/// What a new shot starts from: somebody who stands before grey paper, rightly lit, in no trouble.
pub fn blank() -> Shot {
    let mut shot = Shot { title: "New shot".to_owned(), usage: Usage::Print, ..shipped(BLANK) };
    let person = Person { outfit: Outfit::Casual, cloth_hue_deg: Some(205.0), ..Person::new(Pose::Portrait) };
    for face in &mut shot.parts {
        (face.name, face.drawn_as, face.reflectance) = ("Face".to_owned(), DrawnAs::Face, person.skin);
        face.speed_m_s = 0.3;
    }
    // The key stands beside the frame, not in it.
    for key in &mut shot.lights {
        (key.bearing_deg, key.distance_m) = (-55.0, 2.0);
    }
    shot.camera.iso = 160.0;
    (shot.background.reflectance, shot.background.behind_m) = (0.18, 2.5);
    shot.stage = Some(Composition {
        place: Place::PaperGrey,
        camera_height_m: 1.5,
        aim_height_m: 1.35,
        upright: None,
        people: vec![person],
        things: Vec::new(),
        picture: None,
    });
    shot
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
