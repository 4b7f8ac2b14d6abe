//! What the lines before the numbers say: units, names of columns, and the time from one sample to the next.

use super::number::number;
use crate::quantity::said::{self, FigureKind};

/// Seconds in each unit of time.
const TIME_UNITS: [(&str, f64); 4] = [("s", 1.0), ("ms", 1e-3), ("µs", 1e-6), ("ns", 1e-9)];
/// What the time from sample to sample is called, letters only.
const INTERVAL: [&str; 15] = [
    "xincrement",
    "xincr",
    "increment",
    "incr",
    "sampleinterval",
    "samplinginterval",
    "sampletime",
    "samplingperiod",
    "sampleperiod",
    "dt",
    "deltat",
    "timestep",
    "interval",
    "timeincrement",
    "timeinterval",
];
/// What its inverse is called.
const RATE: [&str; 10] = [
    "samplerate",
    "samplingrate",
    "samplingfrequency",
    "samplefrequency",
    "rate",
    "fs",
    "samplespersecond",
    "samplespersec",
    "sps",
    "sampleratehz",
];
/// What a column of counted samples is called.
const INDEX: [&str; 12] =
    ["index", "sample", "samples", "sequence", "point", "points", "no", "n", "nr", "count", "samplenumber", "row"];

/// What a header says.
#[derive(Clone, Debug, Default, PartialEq)]
pub(super) struct Header {
    /// Time from one sample to the next, in seconds.
    pub interval_s: Option<f64>,
    /// Name of each column, as far as there are names.
    pub names: Vec<String>,
    /// Unit of the times.
    pub time_unit: Option<&'static str>,
    /// Unit of the levels.
    pub level_unit: Option<&'static str>,
    /// Whether the first of the columns that are used counts samples.
    pub counts: bool,
}

/// Reads a header whose lines are cut into fields; `columns` are those that hold the numbers.
pub(super) fn read(lines: &[Vec<String>], columns: &[usize]) -> Header {
    let mut header = Header { interval_s: lines.iter().find_map(|line| stated(line)), ..Header::default() };
    // A name above its figure: `Increment` over `1.0E-06`.
    for (names, values) in lines.iter().zip(lines.iter().skip(1)) {
        for (name, value) in names.iter().zip(values) {
            header.interval_s = header.interval_s.or_else(|| named(name, value, None));
        }
    }
    let (first, second) = (columns.first().copied(), columns.get(1).copied());
    // The line nearest to the numbers knows best.
    for line in lines.iter().rev() {
        let field = |column: Option<usize>| column.and_then(|column| line.get(column)).map(String::as_str);
        header.time_unit = header.time_unit.or_else(|| unit_in(field(first), &time_unit));
        header.level_unit = header.level_unit.or_else(|| unit_in(field(second), &level_unit));
        header.counts |= field(first).is_some_and(|name| INDEX.contains(&letters(name).as_str()));
        let words = |column: &&usize| line.get(**column).is_some_and(|name| name.chars().any(char::is_alphabetic));
        if header.names.is_empty() && columns.iter().filter(words).count() == columns.len() {
            header.names = columns.iter().map(|column| line[*column].trim_matches(['"', ' ']).to_owned()).collect();
        }
    }
    header
}

/// `Sample Interval,1.0E-06,s` in one line, or `Rate: 48 kHz` in one field.
fn stated(line: &[String]) -> Option<f64> {
    let field = |at: usize| line.get(at).map(String::as_str);
    let whole = line.first()?;
    if let Some((name, value)) = whole.split_once([':', '=']) {
        let value = if value.trim().is_empty() { field(1).unwrap_or_default() } else { value };
        return named(name, value, None);
    }
    named(whole, field(1)?, field(2))
}

/// The interval that a name and its value give, in seconds.
fn named(name: &str, value: &str, unit: Option<&str>) -> Option<f64> {
    // The unit may stand in the name, behind the value, or beside it.
    let (plain, in_name) = match name.split_once(['(', '[']) {
        Some((plain, unit)) => (plain, Some(unit.trim_end_matches([')', ']', ' ']))),
        None => (name, None),
    };
    let letters = letters(plain);
    let value = value.trim().trim_matches('"');
    let end = value.find(|sign: char| !(sign.is_ascii_digit() || "+-.,eE".contains(sign))).unwrap_or(value.len());
    // The e of a number and that of no unit look alike only at its end.
    let (figure, behind) = value.split_at(end);
    let comma = figure.contains(',') && !figure.contains('.');
    let figure = number(figure.trim().as_bytes(), comma).filter(|figure| *figure > 0.0)?;
    let unit = [Some(behind.trim()), in_name, unit].into_iter().flatten().find(|unit| !unit.is_empty());
    if INTERVAL.contains(&letters.as_str()) {
        return match unit {
            None => Some(figure),
            Some(unit) => time_unit(unit).map(|unit| figure * scale_of(unit)),
        };
    }
    RATE.contains(&letters.as_str())
        .then(|| figure * per_second(unit.unwrap_or("hz")))
        .filter(|rate| *rate > 0.0)
        .map(|rate| 1.0 / rate)
}

/// Hertz and samples a second, by their prefix; nothing for what is neither.
fn per_second(unit: &str) -> f64 {
    let small = unit.to_lowercase();
    let base = ["hz", "s/s", "sa/s", "sps", "samples/s"].iter().find_map(|base| small.strip_suffix(base));
    match base.map(str::trim) {
        Some("") => 1.0,
        Some("k") => 1e3,
        Some("m") => 1e6,
        Some("g") => 1e9,
        _ => 0.0,
    }
}

/// An interval or a rate as somebody types it: `1 µs`, `0.5 ms`, `48 kHz`, `1e6 Hz`.
pub fn interval_of(typed: &str) -> Option<f64> {
    let positive = |value: &f64| *value > 0.0 && value.is_finite();
    let time = said::named(FigureKind::Time, typed).filter(positive);
    let rate = || said::named(FigureKind::Rate, typed).filter(positive).map(f64::recip);
    time.or_else(rate).or_else(|| as_instruments_write(typed))
}

/// With the exponents and prefixes that only instruments use.
fn as_instruments_write(typed: &str) -> Option<f64> {
    let plain = typed.trim();
    let unit = plain.trim_start_matches(|sign: char| sign.is_ascii_digit() || "+-.,eE ".contains(sign));
    if unit.is_empty() {
        return None;
    }
    let name = if time_unit(unit).is_some() { "interval" } else { "rate" };
    named(name, plain, None)
}

fn letters(name: &str) -> String {
    name.chars().filter(|sign| sign.is_alphabetic()).flat_map(char::to_lowercase).collect()
}

pub(super) fn scale_of(unit: &str) -> f64 {
    TIME_UNITS.iter().find(|(name, _)| *name == unit).map_or(1.0, |(_, scale)| *scale)
}

/// A unit in a field: in brackets, after a stroke, or alone.
fn unit_in(field: Option<&str>, known: &dyn Fn(&str) -> Option<&'static str>) -> Option<&'static str> {
    field?.split(|sign: char| "()[]/ \"".contains(sign)).rev().find_map(|word| known(word.trim()))
}

fn time_unit(word: &str) -> Option<&'static str> {
    match word.to_lowercase().as_str() {
        "s" | "sec" | "second" | "seconds" => Some("s"),
        "ms" | "msec" | "milliseconds" => Some("ms"),
        // Micro sign, Greek mu, and the letter that stands in for them.
        "µs" | "μs" | "us" | "usec" | "microseconds" => Some("µs"),
        "ns" | "nsec" | "nanoseconds" => Some("ns"),
        _ => None,
    }
}

fn level_unit(word: &str) -> Option<&'static str> {
    match word.to_lowercase().as_str() {
        "v" | "volt" | "volts" => Some("V"),
        "mv" => Some("mV"),
        "a" => Some("A"),
        "ma" => Some("mA"),
        "lx" | "lux" => Some("lx"),
        _ => None,
    }
}
