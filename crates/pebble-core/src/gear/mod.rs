//! The kit: units, cameras and everything in front of them.
//!
//! One file per kind of thing, each with its plain data and its checks. [`Item`] is any one of them, [`Kit`] the open
//! file of them all. [`sheet`] says what a unit does at each power, [`fit`] puts a shot on other gear.

mod camera;
pub(crate) mod check;
pub mod fit;
mod flash;
mod front;
pub mod guides;
pub mod sheet;
mod source;
mod supply;
mod unit;

pub use camera::{Camera, CameraBody, FirstRow, Glass, Lens, ShutterKind};
pub use flash::Unit;
pub(crate) use flash::{END_TOLERANCE, leaflet};
pub use front::{Filter, FilterUse, Front, Modifier};
pub use source::{Origin, Source};
pub use supply::{Battery, Flicker, Lamp, Trigger};
pub use unit::{
    Control, Discharge, FlashUnit, Heat, LowBattery, Output, RecordedCurve, Recording, TableRow, UnitKind, WhenEarly,
    WhenHot,
};

use crate::quantity::bounds::Invalid;
use crate::quantity::scale::Grid;
use crate::wire::{wire, word};
use check::At;
use serde::{Deserialize, Serialize};

/// Name of the format in a kit file's `format` field.
pub const FORMAT: &str = "dash-pebble/kit";
/// Version this program writes.
pub const VERSION: u32 = 1;
/// Things in one kit file.
const MAX_ITEMS: usize = 20_000;
/// Longest identity.
const MAX_ID: usize = 64;

word! {
    /// Kinds of things in a kit.
    pub enum Kind {
        /// A flash unit.
        Unit,
        /// A camera body.
        Camera,
        /// A lens.
        Lens,
        /// Something in front of a light.
        Modifier,
        /// A gel or a filter.
        Filter,
        /// A trigger.
        Trigger,
        /// A battery.
        Battery,
        /// A steady lamp.
        Lamp,
    }
}

impl Kind {
    /// Its name in files and addresses.
    pub const fn word(self) -> &'static str {
        match self {
            Self::Unit => "unit",
            Self::Camera => "camera",
            Self::Lens => "lens",
            Self::Modifier => "modifier",
            Self::Filter => "filter",
            Self::Trigger => "trigger",
            Self::Battery => "battery",
            Self::Lamp => "lamp",
        }
    }
}

/// One thing of a kit.
#[derive(Clone, Debug, PartialEq, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(tag = "what", content = "item", rename_all = "snake_case", deny_unknown_fields)]
pub enum Item {
    /// A flash unit.
    Unit(Box<FlashUnit>),
    /// A camera body.
    Camera(CameraBody),
    /// A lens.
    Lens(Lens),
    /// Something in front of a light.
    Modifier(Modifier),
    /// A gel or a filter.
    Filter(Filter),
    /// A trigger.
    Trigger(Trigger),
    /// A battery.
    Battery(Battery),
    /// A steady lamp.
    Lamp(Lamp),
}

macro_rules! of_every_kind {
    ($item:expr, $thing:ident => $result:expr) => {
        match $item {
            Item::Unit($thing) => $result,
            Item::Camera($thing) => $result,
            Item::Lens($thing) => $result,
            Item::Modifier($thing) => $result,
            Item::Filter($thing) => $result,
            Item::Trigger($thing) => $result,
            Item::Battery($thing) => $result,
            Item::Lamp($thing) => $result,
        }
    };
}

impl Item {
    /// Its kind.
    pub const fn kind(&self) -> Kind {
        match self {
            Self::Unit(_) => Kind::Unit,
            Self::Camera(_) => Kind::Camera,
            Self::Lens(_) => Kind::Lens,
            Self::Modifier(_) => Kind::Modifier,
            Self::Filter(_) => Kind::Filter,
            Self::Trigger(_) => Kind::Trigger,
            Self::Battery(_) => Kind::Battery,
            Self::Lamp(_) => Kind::Lamp,
        }
    }

    /// Its identity in the kit.
    pub fn id(&self) -> &str {
        of_every_kind!(self, thing => &thing.id)
    }

    /// Maker and model.
    pub fn name(&self) -> &str {
        of_every_kind!(self, thing => &thing.name)
    }

    /// The same thing under another identity.
    #[must_use]
    pub fn with_id(mut self, id: &str) -> Self {
        of_every_kind!(&mut self, thing => id.clone_into(&mut thing.id));
        self
    }

    /// Gives it another name.
    pub fn rename(&mut self, name: &str) {
        of_every_kind!(self, thing => name.clone_into(&mut thing.name));
    }

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

wire! {
    /// A whole kit, the open file.
    pub struct Kit {
        /// Always `dash-pebble/kit`.
        pub format: String,
        /// Version of the format, 1.
        pub version: u32,
        /// Flash units.
        #[serde(default)]
        pub units: Vec<FlashUnit>,
        /// Camera bodies.
        #[serde(default)]
        pub cameras: Vec<CameraBody>,
        /// Lenses.
        #[serde(default)]
        pub lenses: Vec<Lens>,
        /// What goes in front of lights.
        #[serde(default)]
        pub modifiers: Vec<Modifier>,
        /// Gels and filters.
        #[serde(default)]
        pub filters: Vec<Filter>,
        /// Triggers.
        #[serde(default)]
        pub triggers: Vec<Trigger>,
        /// Batteries.
        #[serde(default)]
        pub batteries: Vec<Battery>,
        /// Steady lamps.
        #[serde(default)]
        pub lamps: Vec<Lamp>,
        /// Identities of the things that are no longer taken along.
        #[serde(default, skip_serializing_if = "Vec::is_empty")]
        pub retired: Vec<String>,
    }
}

impl Kit {
    /// A kit of things, each kind in the order given.
    pub fn of(items: impl IntoIterator<Item = Item>, retired: Vec<String>) -> Self {
        let mut kit = Self {
            format: FORMAT.to_owned(),
            version: VERSION,
            units: Vec::new(),
            cameras: Vec::new(),
            lenses: Vec::new(),
            modifiers: Vec::new(),
            filters: Vec::new(),
            triggers: Vec::new(),
            batteries: Vec::new(),
            lamps: Vec::new(),
            retired,
        };
        for item in items {
            match item {
                Item::Unit(thing) => kit.units.push(*thing),
                Item::Camera(thing) => kit.cameras.push(thing),
                Item::Lens(thing) => kit.lenses.push(thing),
                Item::Modifier(thing) => kit.modifiers.push(thing),
                Item::Filter(thing) => kit.filters.push(thing),
                Item::Trigger(thing) => kit.triggers.push(thing),
                Item::Battery(thing) => kit.batteries.push(thing),
                Item::Lamp(thing) => kit.lamps.push(thing),
            }
        }
        kit
    }

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
