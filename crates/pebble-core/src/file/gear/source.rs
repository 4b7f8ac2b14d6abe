//! Where a figure comes from, so that nobody takes a guess for a measurement.

use crate::wire::word;
use serde::de::{self, MapAccess, Visitor, value::MapAccessDeserializer};
use serde::{Deserialize, Deserializer, Serialize};
use std::fmt;

word! {
    /// Where a figure comes from.
    pub enum Origin {
        /// The maker's leaflet.
        Published,
        /// A guess from a model.
        Estimated,
        /// Measured on this very unit.
        Measured,
    }
}

/// Where a figure comes from; measured ones may say when and with what. A plain word is read as well.
#[derive(Clone, Debug, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Source {
    /// The kind of source.
    pub origin: Origin,
    /// When it was measured, `2026-11-25`.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub on: Option<String>,
    /// With what.
    #[serde(default, skip_serializing_if = "Option::is_none")]
    pub with: Option<String>,
}

impl Source {
    /// A source of which only the kind is known.
    pub const fn plain(origin: Origin) -> Self {
        Self { origin, on: None, with: None }
    }

    /// From the maker's leaflet.
    pub const fn published() -> Self {
        Self::plain(Origin::Published)
    }
}

impl<'de> Deserialize<'de> for Source {
    fn deserialize<D: Deserializer<'de>>(reader: D) -> Result<Self, D::Error> {
        #[derive(Deserialize)]
        #[serde(deny_unknown_fields)]
        struct Full {
            origin: Origin,
            on: Option<String>,
            with: Option<String>,
        }
        struct Either;
        impl<'de> Visitor<'de> for Either {
            type Value = Source;
            fn expecting(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
                f.write_str("published, estimated, measured, or an object with origin, on and with")
            }
            fn visit_str<E: de::Error>(self, word: &str) -> Result<Source, E> {
                Origin::deserialize(de::value::StrDeserializer::new(word)).map(Source::plain)
            }
            fn visit_map<A: MapAccess<'de>>(self, map: A) -> Result<Source, A::Error> {
                let Full { origin, on, with } = Full::deserialize(MapAccessDeserializer::new(map))?;
                Ok(Source { origin, on, with })
            }
        }
        reader.deserialize_any(Either)
    }
}
