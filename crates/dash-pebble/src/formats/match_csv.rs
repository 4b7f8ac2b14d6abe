//! Set-ups of a search as a table: one row a set-up; where nothing works, the nearest with what would have to give.

use super::as_text;
use pebble_core::matching::{MatchAnswer, MatchRow};

/// Name of the file.
pub const FILE_NAME: &str = "set-ups.csv";

const COLUMNS: [&str; 17] = [
    "rank",
    "shot",
    "units",
    "power_distance_modifier",
    "exposure",
    "sync",
    "freeze",
    "blur_px",
    "weight_kg",
    "ready_s",
    "ways",
    "least_to_spare",
    "room_stops",
    "estimated",
    "other_modifiers",
    "price_stops",
    "gives",
];

/// Writes the table.
///
/// # Errors
/// Of the writer, in words.
pub fn write(title: &str, answer: &MatchAnswer) -> Result<String, String> {
    let mut out = csv::Writer::from_writer(Vec::new());
    let failed = |error: csv::Error| format!("the table was not written: {error}");
    out.write_record(COLUMNS).map_err(failed)?;
    let works = answer.rows.iter().map(|row| (row, String::new(), String::new()));
    let nearest = answer.nearest.iter().map(|near| {
        let gives: Vec<&str> = near.gives.iter().map(|give| give.said.as_str()).collect();
        (&near.row, format!("{:.2}", near.price_stops), gives.join("; "))
    });
    for (index, (row, price, gives)) in works.chain(nearest).enumerate() {
        let cells = record(index + 1, title, row, price, gives).map(|cell| as_text(&cell));
        out.write_record(cells).map_err(failed)?;
    }
    let bytes = out.into_inner().map_err(|error| format!("the table was not written: {error}"))?;
    String::from_utf8(bytes).map_err(|error| format!("the table was not written: {error}"))
}

fn record(rank: usize, title: &str, row: &MatchRow, price: String, gives: String) -> [String; 17] {
    let maybe = |value: Option<f64>| value.map_or_else(String::new, |value| format!("{value:.2}"));
    let tight = row.margins.first();
    [
        rank.to_string(),
        title.to_owned(),
        row.title.clone(),
        row.how.clone(),
        row.exposure.clone(),
        row.sync.clone(),
        row.freeze.clone(),
        maybe(row.blur_px),
        maybe(row.weight_kg),
        maybe(row.ready_s),
        row.ways.to_string(),
        tight.map_or_else(String::new, |tight| format!("{}: {}", tight.label, tight.said)),
        maybe(tight.and_then(|tight| tight.room_stops)),
        if row.estimated { "yes" } else { "no" }.to_owned(),
        row.also.join("; "),
        price,
        gives,
    ]
}
