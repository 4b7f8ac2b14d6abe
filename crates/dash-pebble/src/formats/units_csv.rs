//! Flash units as a table: one row per unit and power.
//!
//! Comma or semicolon between, point or comma within. What the table has no column for stays as the kit has it, and so do the
//! durations of a unit that goes by a model: for those the table is only to be read.

use super::as_text;
use pebble_core::gear::{Control, FlashUnit, Item, Origin, Output, Source, TableRow, UnitKind};
use pebble_core::quantity::Seconds;
use pebble_core::sheet::{output, whole_stops};
use serde::de::DeserializeOwned;
use serde::{Deserialize, Serialize};
use std::collections::HashMap;

/// Wrong rows that are named at once.
const MAX_PROBLEMS: usize = 20;
/// Rows in one table.
const MAX_ROWS: usize = 50_000;

const COLUMNS: [&str; 15] = [
    "id",
    "name",
    "kind",
    "guide_number_m",
    "energy_j",
    "recycle_s",
    "lag_ms",
    "step_stops",
    "lowest_stops",
    "high_speed_sync",
    "durations_from",
    "way",
    "power",
    "t05_ms",
    "t01_ms",
];

/// A row that cannot be.
#[derive(Clone, Debug, PartialEq, Eq, Serialize, utoipa::ToSchema)]
pub struct WrongRow {
    /// Line of the file, the heading is line 1.
    pub line: u64,
    /// Column, counted from 1.
    pub column: usize,
    /// Its heading.
    pub heading: String,
    /// What is wrong.
    pub sentence: String,
}

/// Writes units, one row per power of their table, or per whole stop of their dial where they go by a model.
///
/// # Errors
/// Of the writer, and [`pebble_core::Invalid`] of a unit that cannot be.
pub fn write(units: &[FlashUnit]) -> anyhow::Result<String> {
    let mut out = csv::Writer::from_writer(Vec::new());
    out.write_record(COLUMNS)?;
    let maybe = |value: Option<f64>| value.map_or_else(String::new, |value| value.to_string());
    for unit in units {
        let guide_number = match unit.output {
            Output::GuideNumber { metres } => metres,
            _ => output(unit)?.guide_number_m,
        };
        let rows: Vec<TableRow> = match &unit.control {
            Control::Table { rows, .. } => rows.clone(),
            _ => {
                let millis = |time: Seconds| Some((time.as_secs() * 1e6).round() / 1e3);
                let rows = whole_stops(unit)?.into_iter();
                rows.map(|(power, t05, t01)| TableRow { power, t05_ms: millis(t05), t01_ms: millis(t01) }).collect()
            }
        };
        for row in rows {
            out.write_record([
                unit.id.clone(),
                as_text(&unit.name),
                word(&unit.kind),
                guide_number.to_string(),
                maybe(unit.energy_j),
                maybe(unit.recycle_s),
                maybe(unit.lag_ms),
                maybe(unit.step_stops),
                maybe(unit.lowest_stops),
                if unit.high_speed_sync { "yes" } else { "no" }.to_owned(),
                word(&unit.durations_from.origin),
                way(&unit.control),
                row.power.to_string(),
                maybe(row.t05_ms),
                maybe(row.t01_ms),
            ])?;
        }
    }
    Ok(String::from_utf8(out.into_inner()?)?)
}

/// A word of the open format.
fn word<T: Serialize>(word: &T) -> String {
    serde_json::to_value(word).ok().and_then(|value| value.as_str().map(str::to_owned)).unwrap_or_default()
}

fn way(control: &Control) -> String {
    #[derive(Deserialize)]
    struct Tag {
        way: String,
    }
    serde_json::to_value(control).and_then(serde_json::from_value).map(|tag: Tag| tag.way).unwrap_or_default()
}

/// Reads units; those the kit has keep what the table says nothing of. All or none.
///
/// # Errors
/// The rows that are wrong, by line and column, at most twenty.
pub fn read(bytes: &[u8], kit: &HashMap<String, FlashUnit>) -> Result<Vec<FlashUnit>, Vec<WrongRow>> {
    let mut reading = Reading { heading: HashMap::new(), wrong: Vec::new() };
    let groups = reading.groups(bytes);
    let mut units = Vec::new();
    for group in groups {
        if let Some(unit) = reading.unit(&group, kit) {
            units.push(unit);
        }
    }
    if !reading.wrong.is_empty() {
        reading.wrong.sort_by_key(|row| (row.line, row.column));
        reading.wrong.truncate(MAX_PROBLEMS);
        return Err(reading.wrong);
    }
    Ok(units)
}

/// Lines as an editor counts them: the reader takes the second sign of a line's end for the beginning of the next.
struct Counted<'a> {
    bytes: &'a [u8],
    at: usize,
    line: u64,
}

impl Counted<'_> {
    /// The line of what stands at a place, or first after it; places come in their order.
    fn line_at(&mut self, place: u64) -> u64 {
        let begins = usize::try_from(place).unwrap_or(usize::MAX).min(self.bytes.len());
        let ends = self.bytes[begins..].iter().take_while(|byte| matches!(byte, b'\r' | b'\n')).count();
        let passed = self.bytes.get(self.at..begins + ends).unwrap_or_default();
        self.line += passed.iter().filter(|byte| **byte == b'\n').count() as u64;
        self.at = self.at.max(begins + ends);
        self.line
    }
}

struct Line {
    number: u64,
    cells: csv::StringRecord,
}

struct Group {
    id: String,
    lines: Vec<Line>,
}

struct Reading {
    heading: HashMap<String, usize>,
    wrong: Vec<WrongRow>,
}

impl Reading {
    fn say(&mut self, line: u64, heading: &str, sentence: impl Into<String>) {
        let column = self.heading.get(heading).map_or(1, |column| column + 1);
        self.wrong.push(WrongRow { line, column, heading: heading.to_owned(), sentence: sentence.into() });
    }

    fn groups(&mut self, bytes: &[u8]) -> Vec<Group> {
        let bytes = bytes.strip_prefix(b"\xEF\xBB\xBF").unwrap_or(bytes);
        let first = bytes.split(|byte| *byte == b'\n').next().unwrap_or_default();
        // A paste from a spreadsheet has tabs between.
        let separator = [b'\t', b';'].into_iter().find(|sign| first.contains(sign)).unwrap_or(b',');
        let mut reader =
            csv::ReaderBuilder::new().delimiter(separator).flexible(true).trim(csv::Trim::All).from_reader(bytes);
        match reader.headers() {
            Ok(heading) => {
                self.heading = heading.iter().enumerate().map(|(column, name)| (name.to_lowercase(), column)).collect();
            }
            Err(error) => {
                self.say(1, "id", format!("the heading cannot be read: {error}"));
                return Vec::new();
            }
        }
        if let Some(stray) = self.heading.keys().find(|name| !COLUMNS.contains(&name.as_str())).cloned() {
            self.say(1, &stray, format!("\"{stray}\" is no column of this table; it has {}", COLUMNS.join(", ")));
        }
        for needed in ["name", "power"] {
            if !self.heading.contains_key(needed) {
                self.say(1, needed, format!("the column {needed} is missing"));
            }
        }
        let mut groups: Vec<Group> = Vec::new();
        let mut place: HashMap<String, usize> = HashMap::new();
        let mut counted = Counted { bytes, at: 0, line: 1 };
        for (count, record) in reader.records().enumerate() {
            if !self.wrong.is_empty() && self.wrong.len() >= MAX_PROBLEMS {
                break;
            }
            let record = match record {
                Ok(record) => record,
                Err(error) => {
                    let line = error.position().map_or(count as u64 + 2, |place| counted.line_at(place.byte()));
                    self.say(line, "id", "the line cannot be read as text");
                    continue;
                }
            };
            let number = record.position().map_or(0, |place| counted.line_at(place.byte()));
            // Spreadsheets leave rows with nothing in them.
            if record.iter().all(str::is_empty) {
                continue;
            }
            if count >= MAX_ROWS {
                self.say(number, "id", format!("more than {MAX_ROWS} rows"));
                break;
            }
            let line = Line { number, cells: record };
            let id = match (self.cell(&line, "id"), self.cell(&line, "name")) {
                (Some(id), _) => id.to_owned(),
                (None, Some(name)) => slug(name),
                (None, None) => {
                    self.say(number, "name", "a row needs the name or the id of its unit");
                    continue;
                }
            };
            let at = *place.entry(id.clone()).or_insert_with(|| {
                groups.push(Group { id, lines: Vec::new() });
                groups.len() - 1
            });
            groups[at].lines.push(line);
        }
        groups
    }

    fn cell<'a>(&self, line: &'a Line, heading: &str) -> Option<&'a str> {
        self.heading.get(heading).and_then(|column| line.cells.get(*column)).filter(|text| !text.is_empty())
    }

    /// A cell of the unit itself: the first row that says it counts, and no later one may say otherwise.
    fn of_unit<'a>(&mut self, group: &'a Group, heading: &str) -> Option<(u64, &'a str)> {
        let mut said = group.lines.iter().filter_map(|line| Some((line.number, self.cell(line, heading)?)));
        let first = said.next()?;
        let other = said.find(|(_, text)| *text != first.1).map(|(line, text)| (line, text.to_owned()));
        if let Some((line, text)) = other {
            self.say(
                line,
                heading,
                format!("\"{text}\" is not what line {} says of this unit: \"{}\"", first.0, first.1),
            );
        }
        Some(first)
    }

    fn number(&mut self, line: u64, heading: &str, text: &str) -> Option<f64> {
        let value = match text.split_once('/') {
            Some((over, under)) if heading == "power" => {
                over.trim().parse::<f64>().ok().zip(under.trim().parse::<f64>().ok()).map(|(over, under)| over / under)
            }
            _ => text.replacen(',', ".", 1).parse::<f64>().ok(),
        };
        let value = value.filter(|value| value.is_finite());
        if value.is_none() {
            self.say(line, heading, format!("\"{text}\" is no number"));
        }
        value
    }

    fn unit_number(&mut self, group: &Group, heading: &str) -> Option<f64> {
        let (line, text) = self.of_unit(group, heading)?;
        self.number(line, heading, text)
    }

    fn unit_word<T: DeserializeOwned>(&mut self, group: &Group, heading: &str, known: &str) -> Option<T> {
        let (line, text) = self.of_unit(group, heading)?;
        let word = serde_json::from_value(serde_json::Value::String(text.to_lowercase())).ok();
        if word.is_none() {
            self.say(line, heading, format!("\"{text}\" is none of {known}"));
        }
        word
    }

    fn unit(&mut self, group: &Group, kit: &HashMap<String, FlashUnit>) -> Option<FlashUnit> {
        let first = group.lines.first()?.number;
        let there = kit.get(&group.id);
        let mut unit = there.cloned().unwrap_or_else(|| FlashUnit::unknown(&group.id));
        if let Some((_, name)) = self.of_unit(group, "name") {
            unit.name = super::from_text(name).to_owned();
        }
        if let Some(kind) = self.unit_word::<UnitKind>(group, "kind", "camera_top, battery_head, mains_head, generator")
        {
            unit.kind = kind;
        }
        let before = self.wrong.len();
        match self.unit_number(group, "guide_number_m") {
            // The same number as the kit derives from another form of entry leaves that entry alone.
            Some(metres) if there.is_some_and(|unit| same_guide_number(unit, metres)) => {}
            Some(metres) => unit.output = Output::GuideNumber { metres },
            None if there.is_none() && self.wrong.len() == before => {
                self.say(first, "guide_number_m", "a new unit needs a guide number");
            }
            None => {}
        }
        unit.energy_j = self.unit_number(group, "energy_j").or(unit.energy_j);
        unit.recycle_s = self.unit_number(group, "recycle_s").or(unit.recycle_s);
        unit.lag_ms = self.unit_number(group, "lag_ms").or(unit.lag_ms);
        unit.step_stops = self.unit_number(group, "step_stops").or(unit.step_stops);
        if let Some((line, text)) = self.of_unit(group, "high_speed_sync") {
            match text.to_lowercase().as_str() {
                "yes" | "true" | "1" => unit.high_speed_sync = true,
                "no" | "false" | "0" => unit.high_speed_sync = false,
                _ => self.say(line, "high_speed_sync", format!("\"{text}\" is neither yes nor no")),
            }
        }
        if let Some(origin) = self.unit_word::<Origin>(group, "durations_from", "published, estimated, measured")
            && unit.durations_from.origin != origin
        {
            unit.durations_from = Source::plain(origin);
        }
        let rows = self.rows(group);
        let lowest = rows.iter().map(|row| row.power).fold(1.0, f64::min);
        unit.lowest_stops = match self.unit_number(group, "lowest_stops") {
            Some(stops) => Some(stops),
            None if there.is_none() => Some((-lowest.log2()).clamp(0.0, 12.0)),
            None => unit.lowest_stops,
        };
        let by_model = there.is_some_and(|unit| !matches!(unit.control, Control::Table { .. }));
        let says_model = self.of_unit(group, "way").is_some_and(|(_, way)| way != "table");
        if !(by_model && says_model) {
            let discharge = match &unit.control {
                Control::Table { discharge, .. } => *discharge,
                _ => None,
            };
            unit.control = Control::Table { rows, discharge };
        }
        if self.wrong.len() == before
            && let Err(error) = Item::Unit(Box::new(unit.clone())).check()
        {
            let (line, heading) = place_of(error.field(), group);
            self.say(line, &heading, error.to_string());
        }
        Some(unit)
    }

    fn rows(&mut self, group: &Group) -> Vec<TableRow> {
        let mut rows = Vec::new();
        for line in &group.lines {
            let number = |reading: &mut Self, heading: &str| {
                let text = reading.cell(line, heading)?;
                reading.number(line.number, heading, text)
            };
            let (t05_ms, t01_ms) = (number(self, "t05_ms"), number(self, "t01_ms"));
            if self.cell(line, "power").is_none() {
                self.say(line.number, "power", "a row needs its power, such as 1/8");
            } else if let Some(power) = number(self, "power") {
                rows.push(TableRow { power, t05_ms, t01_ms });
            }
        }
        rows
    }
}

/// Line and heading of a field of a unit, such as `control.rows[2].t01_ms`.
fn place_of(field: &str, group: &Group) -> (u64, String) {
    let row =
        field.split_once("rows[").and_then(|(_, rest)| rest.split_once(']')).and_then(|(index, _)| index.parse().ok());
    let line = group.lines.get(row.unwrap_or(0_usize)).or(group.lines.first()).map_or(1, |line| line.number);
    let last = field.rsplit('.').next().unwrap_or(field);
    let heading = COLUMNS.iter().find(|column| **column == last).copied();
    (line, heading.unwrap_or(if last == "metres" { "guide_number_m" } else { "power" }).to_owned())
}

fn same_guide_number(unit: &FlashUnit, metres: f64) -> bool {
    output(unit).is_ok_and(|forms| (forms.guide_number_m / metres - 1.0).abs() < 1e-9)
}

/// A name as an identity: its letters and digits, small, with dashes between.
pub fn slug(name: &str) -> String {
    let plain: String = name.to_lowercase().chars().map(|c| if c.is_ascii_alphanumeric() { c } else { '-' }).collect();
    let words: Vec<&str> = plain.split('-').filter(|word| !word.is_empty()).collect();
    words.join("-").chars().take(64).collect()
}
