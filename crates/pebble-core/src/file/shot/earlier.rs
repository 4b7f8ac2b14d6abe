//! Reading files of version 1, which had one flash in the place of a list of lights.

use super::{Flash, VERSION};
use serde::de::value::{MapAccessDeserializer, SeqAccessDeserializer};
use serde::de::{MapAccess, SeqAccess, Visitor};
use serde::{Deserialize, Deserializer};
use std::fmt;

/// Whatever version was written, what was read is of this one. Later ones stay what they are, to be refused.
pub(super) fn version<'de, D: Deserializer<'de>>(reader: D) -> Result<u32, D::Error> {
    u32::deserialize(reader).map(|written| if written == 1 { VERSION } else { written })
}

/// A list of lights, or the one flash that version 1 had.
pub(super) fn lights<'de, D: Deserializer<'de>>(reader: D) -> Result<Vec<Flash>, D::Error> {
    struct Either;
    impl<'de> Visitor<'de> for Either {
        type Value = Vec<Flash>;
        fn expecting(&self, f: &mut fmt::Formatter<'_>) -> fmt::Result {
            f.write_str("a list of lights")
        }
        fn visit_seq<A: SeqAccess<'de>>(self, list: A) -> Result<Vec<Flash>, A::Error> {
            Vec::deserialize(SeqAccessDeserializer::new(list))
        }
        fn visit_map<A: MapAccess<'de>>(self, flash: A) -> Result<Vec<Flash>, A::Error> {
            Flash::deserialize(MapAccessDeserializer::new(flash)).map(|flash| vec![flash])
        }
    }
    reader.deserialize_any(Either)
}
