//! A kit and the things in it, checked.

use super::check::At;
use crate::file::gear::{FORMAT, Item, Kit, VERSION};
use crate::quantity::bounds::Invalid;
use crate::quantity::scale::Grid;

/// Things in one kit file.
const MAX_ITEMS: usize = 20_000;
/// Longest identity.
const MAX_ID: usize = 64;

impl Item {
    /// Whether it is a thing that can be.
    ///
    /// # Errors
    /// [`Invalid`] with the path of the field inside the thing.
    pub fn check(&self) -> Result<(), Invalid> {
        self.check_at(&At::default())
    }

    fn check_at(&self, at: &At) -> Result<(), Invalid> {
        identity(at, self.id())?;
        match self {
            Self::Unit(unit) => unit.check(at).map(|_| ()),
            Self::Camera(camera) => camera.check(at).map(|_| ()),
            Self::Lens(lens) => lens.check(at, Grid::Thirds).map(|_| ()),
            Self::Modifier(modifier) => modifier.check(at).map(|_| ()),
            Self::Filter(filter) => filter.check(at).map(|_| ()),
            Self::Trigger(trigger) => trigger.check(at).map(|_| ()),
            Self::Battery(battery) => battery.check(at),
            Self::Lamp(lamp) => lamp.check(at),
        }
    }
}

fn identity(at: &At, id: &str) -> Result<(), Invalid> {
    let fits = !id.is_empty()
        && id.len() <= MAX_ID
        && id.bytes().all(|byte| byte.is_ascii_lowercase() || byte.is_ascii_digit() || byte == b'-');
    if fits { Ok(()) } else { Err(at.not_allowed("id", id, "1 to 64 of a–z, 0–9 and -")) }
}

impl Kit {
    /// All its things, checked, with what is retired among them.
    ///
    /// # Errors
    /// The first thing that cannot be, by its path in the file, or an identity that stands twice.
    pub fn into_items(self) -> Result<Vec<(Item, bool)>, Invalid> {
        let root = At::default();
        if self.format != FORMAT {
            return Err(root.not_allowed("format", &self.format, "\"dash-pebble/kit\""));
        }
        if self.version != VERSION {
            return Err(root.not_allowed("version", &self.version.to_string(), "a version this program knows (1)"));
        }
        fn row<T>(list: &'static str, things: Vec<T>, wrap: fn(T) -> Item) -> impl Iterator<Item = (At, Item)> {
            things.into_iter().enumerate().map(move |(index, thing)| (At::default().row(list, index), wrap(thing)))
        }
        let all = row("units", self.units, |unit| Item::Unit(Box::new(unit)))
            .chain(row("cameras", self.cameras, Item::Camera))
            .chain(row("lenses", self.lenses, Item::Lens))
            .chain(row("modifiers", self.modifiers, Item::Modifier))
            .chain(row("filters", self.filters, Item::Filter))
            .chain(row("triggers", self.triggers, Item::Trigger))
            .chain(row("batteries", self.batteries, Item::Battery))
            .chain(row("lamps", self.lamps, Item::Lamp));
        let retired: std::collections::HashSet<String> = self.retired.into_iter().collect();
        let mut seen = std::collections::HashSet::new();
        let mut items = Vec::new();
        for (at, item) in all {
            item.check_at(&at)?;
            if !seen.insert(item.id().to_owned()) {
                return Err(at.not_allowed("id", item.id(), "an identity that stands once in the file"));
            }
            if items.len() == MAX_ITEMS {
                return Err(root.not_allowed("units", "more than 20000 things", "at most 20000 things in one file"));
            }
            let away = retired.contains(item.id());
            items.push((item, away));
        }
        if let Some(stray) = retired.iter().find(|id| !seen.contains(*id)) {
            return Err(root.not_allowed("retired", stray, "the identity of a thing in the file"));
        }
        Ok(items)
    }
}
