//! What can be kept as a document, and the things of the kit that some documents carry, as the kit has them today.
//!
//! A shot carries a copy of its camera, lens and lights, so that its file is whole. Where the kit has a thing of the same
//! identity, the kit's figures count: what was measured yesterday shows in every shot today.

use super::preferences;
use pebble_core::fit::{Moved, fit};
use pebble_core::gear::{Battery, Filter, FilterUse, FlashUnit, Item};
use pebble_core::preferences::Preferences;
use pebble_core::{Invalid, Plan, Shot};
use serde::Serialize;
use serde::de::DeserializeOwned;
use sqlx::SqliteConnection;
use std::collections::{BTreeSet, HashMap};

/// What can be kept as a document.
pub trait Document: Clone + PartialEq + Serialize + DeserializeOwned + Send + Sync + 'static {
    /// Whether it is a shot; else a thing of the kit.
    const IS_SHOT: bool;
    /// What to call it in a sentence.
    const NOUN: &'static str;

    /// The word for its kind.
    fn kind(&self) -> &'static str;

    /// Identities of the things of the kit it carries copies of.
    fn carries(&self) -> Vec<&str>;

    /// The same with the kit's own figures in place of its copies, checked. What it was stored with may be older, and the
    /// file may have been touched by other hands.
    ///
    /// # Errors
    /// [`Invalid`] when it cannot be.
    fn brought_up(self, shelf: &Shelf) -> Result<(Self, Vec<Moved>), Invalid>;

    /// What an earlier version wrote and this one reads as something else, to be said once: until it is saved again.
    fn carried_over(_stored: &[u8]) -> Option<Moved> {
        None
    }
}

/// Things of the kit by identity.
#[derive(Debug, Default)]
pub struct Shelf {
    things: HashMap<String, Item>,
    /// Grey filters that are at hand, the weakest first.
    greys: Vec<Filter>,
    preferred: Preferences,
}

impl Shelf {
    /// Loads the things with some identities, and the batteries that the units among them are fed by.
    ///
    /// # Errors
    /// Those of the database. Identities that the kit does not have are passed over, and so is what cannot be read: the
    /// copy that is carried then counts.
    pub async fn load(connection: &mut SqliteConnection, ids: &BTreeSet<&str>) -> Result<Self, sqlx::Error> {
        let mut shelf = Self::default();
        if ids.is_empty() {
            return Ok(shelf);
        }
        shelf.fetch(connection, ids).await?;
        // A shot is shown though a filter or the preferences cannot be read: a broken page hides no other.
        let _ = shelf.fetch_greys(connection).await;
        shelf.preferred = preferences::read(&mut *connection).await.unwrap_or_default();
        let batteries: BTreeSet<String> =
            shelf.things.values().flat_map(Document::carries).map(str::to_owned).collect();
        let batteries: BTreeSet<&str> = batteries.iter().map(String::as_str).collect();
        if !batteries.is_empty() {
            shelf.fetch(connection, &batteries).await?;
        }
        Ok(shelf)
    }

    async fn fetch(&mut self, connection: &mut SqliteConnection, ids: &BTreeSet<&str>) -> Result<(), sqlx::Error> {
        let list = serde_json::to_string(ids).unwrap_or_default();
        let rows = sqlx::query!(
            r#"SELECT CAST(id AS BLOB) AS "id!: Vec<u8>", CAST(body AS BLOB) AS "body!: Vec<u8>" FROM standing
               WHERE NOT is_shot AND id IN (SELECT value FROM json_each(?))"#,
            list
        )
        .fetch_all(connection)
        .await?;
        let read = rows
            .into_iter()
            .filter_map(|row| Some((String::from_utf8(row.id).ok()?, serde_json::from_slice::<Item>(&row.body).ok()?)));
        self.things.extend(read.filter(|(_, item)| item.check().is_ok()));
        Ok(())
    }

    fn battery(&self, carried: Battery) -> Battery {
        match self.things.get(&carried.id) {
            Some(Item::Battery(own)) => own.clone(),
            _ => carried,
        }
    }

    async fn fetch_greys(&mut self, connection: &mut SqliteConnection) -> Result<(), sqlx::Error> {
        let rows: Vec<Vec<u8>> = sqlx::query_scalar(
            "SELECT CAST(body AS BLOB) FROM standing WHERE kind = 'filter' AND NOT retired
             AND CASE WHEN json_valid(body) THEN body ->> '$.item.used_as' = 'nd' END LIMIT 12",
        )
        .fetch_all(connection)
        .await?;
        let grey = |body: Vec<u8>| match serde_json::from_slice::<Item>(&body) {
            Ok(item @ Item::Filter(_)) if item.check().is_err() => None,
            Ok(Item::Filter(filter)) if filter.used_as == FilterUse::Nd => Some(filter),
            _ => None,
        };
        self.greys = rows.into_iter().filter_map(grey).collect();
        self.greys.sort_by(|a, b| a.loss_stops.total_cmp(&b.loss_stops).then_with(|| a.name.cmp(&b.name)));
        Ok(())
    }

    fn unit(&self, carried: FlashUnit) -> FlashUnit {
        let mut unit = match self.things.get(&carried.id) {
            // How many there are is the kit's to say, so that a set that needs more of them can be told.
            Some(Item::Unit(own)) => FlashUnit { owned: Some(own.owned.unwrap_or(1)), ..own.to_carry() },
            _ => carried,
        };
        unit.dial = unit.dial_or(self.preferred.dial);
        unit.battery = unit.battery.map(|battery| self.battery(battery));
        unit
    }
}

impl Document for Shot {
    const IS_SHOT: bool = true;
    const NOUN: &'static str = "shot";

    fn kind(&self) -> &'static str {
        "shot"
    }

    fn carries(&self) -> Vec<&str> {
        let camera = [&self.camera.body.id, &self.camera.lens.id];
        let lights = self.lights.iter().flat_map(|light| {
            let more = light.gel.iter().map(|gel| &gel.id).chain(light.unit.battery.iter().map(|battery| &battery.id));
            let lamp = light.modelling.iter().map(|modelling| &modelling.lamp.id);
            [&light.unit.id, &light.modifier.id, &light.trigger.id].into_iter().chain(more).chain(lamp)
        });
        let lamps =
            self.lamps.iter().flat_map(|lamp| std::iter::once(&lamp.lamp.id).chain(lamp.gel.iter().map(|gel| &gel.id)));
        // Grey filters at hand are the kit's to name: no shot keeps one from being deleted.
        let before_lens = self.camera.filters.iter().map(|filter| &filter.id);
        camera.into_iter().chain(lights).chain(lamps).chain(before_lens).map(String::as_str).collect()
    }

    fn brought_up(mut self, shelf: &Shelf) -> Result<(Self, Vec<Moved>), Invalid> {
        let mut before = self.clone();
        macro_rules! refresh {
            ($carried:expr, $kind:path) => {
                if let Some($kind(own)) = shelf.things.get(&$carried.id) {
                    $carried = own.clone();
                }
            };
        }
        refresh!(self.camera.body, Item::Camera);
        refresh!(self.camera.lens, Item::Lens);
        for filter in &mut self.camera.filters {
            refresh!(*filter, Item::Filter);
        }
        self.camera.greys.clone_from(&shelf.greys);
        (self.lengths, self.meter_c) = (shelf.preferred.lengths, shelf.preferred.meter_c);
        for light in &mut self.lights {
            refresh!(light.modifier, Item::Modifier);
            refresh!(light.trigger, Item::Trigger);
            if let Some(gel) = &mut light.gel {
                refresh!(*gel, Item::Filter);
            }
            if let Some(modelling) = &mut light.modelling {
                refresh!(modelling.lamp, Item::Lamp);
            }
            light.unit = shelf.unit(light.unit.clone());
        }
        for lamp in &mut self.lamps {
            refresh!(lamp.lamp, Item::Lamp);
            if let Some(gel) = &mut lamp.gel {
                refresh!(*gel, Item::Filter);
            }
        }
        before.camera.greys.clone_from(&self.camera.greys);
        let units = |shot: &Self| shot.lights.iter().map(|light| light.unit.clone()).collect::<Vec<_>>();
        if (&before.camera, units(&before)) == (&self.camera, units(&self)) {
            return with_a_good_wish(self, Vec::new());
        }
        let (shot, moved) = fit(&self)?;
        with_a_good_wish(shot, moved)
    }

    fn carried_over(stored: &[u8]) -> Option<Moved> {
        let sentence =
            "the target of the key alone is now that of the subject under all light, with the wanted ambient in it";
        let earlier = std::str::from_utf8(stored).is_ok_and(|text| text.contains("\"key_stops\""));
        earlier.then(|| Moved { field: "targets.subject_stops".to_owned(), sentence: sentence.to_owned() })
    }
}

/// A shot that can be planned. What it asks of the kit is set aside where it cannot be asked: earlier versions took anything
/// there, and other gear can leave nothing between two limits.
fn with_a_good_wish(mut shot: Shot, mut moved: Vec<Moved>) -> Result<(Shot, Vec<Moved>), Invalid> {
    let of_the_wish = |reason: &Invalid| reason.field().split('.').next() == Some("wish");
    if let Err(reason) = Plan::try_from(&shot) {
        if !of_the_wish(&reason) {
            return Err(reason);
        }
        shot.wish = None;
        Plan::try_from(&shot)?;
        let sentence = format!("what was asked of the kit was set aside, for {reason}");
        moved.push(Moved { field: "wish".to_owned(), sentence });
    }
    Ok((shot, moved))
}

impl Document for Item {
    const IS_SHOT: bool = false;
    const NOUN: &'static str = "thing of the kit";

    fn kind(&self) -> &'static str {
        Self::kind(self).word()
    }

    fn carries(&self) -> Vec<&str> {
        match self {
            Self::Unit(unit) => unit.battery.iter().map(|battery| battery.id.as_str()).collect(),
            _ => Vec::new(),
        }
    }

    fn brought_up(self, shelf: &Shelf) -> Result<(Self, Vec<Moved>), Invalid> {
        let now = match self {
            Self::Unit(mut unit) => {
                unit.battery = unit.battery.take().map(|battery| shelf.battery(battery));
                Self::Unit(unit)
            }
            other => other,
        };
        now.check()?;
        Ok((now, Vec::new()))
    }
}
