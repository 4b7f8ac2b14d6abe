//! The kit: units, cameras and everything in front of them.
//!
//! One file per kind of thing, each with its plain data. [`Item`] is any one of them, [`Kit`] the open file of them all.
//! Whether they can be is checked in [`crate::plan`].

mod camera;
mod front;
mod source;
mod supply;
mod unit;

pub use camera::{CameraBody, FirstRow, Lens, ShutterKind};
pub use front::{Filter, FilterUse, Hue, Modifier};
pub use source::{Origin, Source};
pub use supply::{Battery, Flicker, Lamp, Trigger};
pub use unit::{
    Because, Control, Correction, Discharge, FlashUnit, Heat, LowBattery, Output, RecordedCurve, Recording, TableRow,
    UnitKind, UnitReading, WhenEarly, WhenHot,
};

use crate::wire::{wire, word};
use serde::{Deserialize, Serialize};

/// Name of the format in a kit file's `format` field.
pub const FORMAT: &str = "dash-pebble/kit";
/// Version this program writes.
pub const VERSION: u32 = 1;
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
}
