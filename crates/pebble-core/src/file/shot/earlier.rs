//! Reading files of version 1, which had one flash in the place of a list of lights, and of version 2, whose target stood on
//! the key alone.

use super::{Flash, Lead, Reads, Targets, VERSION};
use serde::de::value::{MapAccessDeserializer, SeqAccessDeserializer};
use serde::de::{MapAccess, SeqAccess, Visitor};
use serde::{Deserialize, Deserializer};
use std::fmt;

/// Whatever version was written, what was read is of this one. Later ones stay what they are, to be refused.
pub(super) fn version<'de, D: Deserializer<'de>>(reader: D) -> Result<u32, D::Error> {
    u32::deserialize(reader).map(|written| if (1..VERSION).contains(&written) { VERSION } else { written })
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

/// Targets as they are, or those of version 2: the key alone on one figure, which is carried over to what it and the wanted
/// steady light are together.
pub(super) fn targets<'de, D: Deserializer<'de>>(reader: D) -> Result<Targets, D::Error> {
    #[derive(Deserialize)]
    #[serde(deny_unknown_fields)]
    struct Either {
        key_stops: Option<f64>,
        subject_stops: Option<f64>,
        ambient_stops: Option<f64>,
        background_stops: Option<f64>,
        #[serde(default)]
        lead: Lead,
        #[serde(default)]
        reads: Reads,
    }
    let Either { key_stops, subject_stops, ambient_stops, background_stops, lead, reads } =
        Either::deserialize(reader)?;
    let subject_stops = match (subject_stops, key_stops) {
        (Some(_), Some(_)) => return Err(serde::de::Error::duplicate_field("subject_stops")),
        (Some(stops), None) => stops,
        (None, Some(key)) => ambient_stops.map_or(key, |ambient| tenth((key.exp2() + ambient.exp2()).log2())),
        (None, None) => return Err(serde::de::Error::missing_field("subject_stops")),
    };
    Ok(Targets { lead, reads, subject_stops, ambient_stops, background_stops })
}

/// As fine as a target is set.
fn tenth(stops: f64) -> f64 {
    (stops * 10.0).round() / 10.0
}
