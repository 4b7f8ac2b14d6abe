//! Reading the text of a recording as instruments write it: header lines, settings beside the numbers, comma, semicolon or
//! tab, decimal comma, one channel or several, times or counted samples, one or two bytes a sign.

use super::header::{self, Header, scale_of};
use super::number::number;
use super::{Quality, ReadingNotes, Trace, analyse};
use thiserror::Error;

/// Most samples that are kept: 16 bytes each.
pub const MAX_SAMPLES: usize = 2_000_000;
/// Longest line that is looked at.
const MAX_LINE: usize = 256 * 1024;
/// Lines that are looked at before the numbers have to begin.
const MAX_HEADER: usize = 200;
/// Lines of numbers by which the way of writing is told.
const PROOF: usize = 4;
/// Share of samples without a number beyond which a recording is not trusted.
const MAX_LEFT_OUT: f64 = 0.02;
/// Columns that are kept: times and four channels.
const MAX_COLUMNS: usize = 5;
/// Fewest samples that can hold a pulse.
const MIN_SAMPLES: usize = 16;

/// Why a text is not a recording that can be used.
#[derive(Clone, Debug, PartialEq, Error)]
pub enum TraceError {
    /// Not text.
    #[error("this is not a text file of numbers; export the recording as CSV")]
    Binary,
    /// Levels without times.
    #[error(
        "its samples are counted, and nothing says how far apart they are: say the time from one to the next, or how many there are a second"
    )]
    NoInterval,
    /// There is no such channel.
    #[error("there is no channel {asked}; it has {channels}")]
    NoChannel {
        /// As asked.
        asked: usize,
        /// How many there are.
        channels: usize,
    },
    /// A line without end.
    #[error("line {line} is longer than 256 kB; a recording has a time and a level on each line")]
    LongLine {
        /// Which.
        line: usize,
    },
    /// No numbers.
    #[error("no line with a time and a level was found")]
    NoNumbers,
    /// Time goes back.
    #[error("time goes back at line {line}: {from} is followed by {to}")]
    TimeGoesBack {
        /// Where.
        line: usize,
        /// Before.
        from: f64,
        /// After.
        to: f64,
    },
    /// Many lines without a number.
    #[error(
        "{left_out} of {samples} samples have no number, the first at line {line}; the recording cannot be trusted"
    )]
    ManyHoles {
        /// How many.
        left_out: usize,
        /// Of how many.
        samples: usize,
        /// The first of them.
        line: usize,
    },
    /// Too few.
    #[error("there are only {samples} samples; a pulse needs at least {MIN_SAMPLES}")]
    TooFew {
        /// How many.
        samples: usize,
    },
    /// Too many.
    #[error("there are more than {MAX_SAMPLES} samples; cut the recording down to the pulse")]
    TooMany,
    /// All at one time.
    #[error("all samples are at the same time")]
    NoTime,
}

/// How a file writes its numbers.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
struct Style {
    separator: u8,
    decimal_comma: bool,
}

/// In this order: a comma between numbers is only taken for one when nothing clearer separates them.
const STYLES: [Style; 6] = [
    Style { separator: b';', decimal_comma: false },
    Style { separator: b';', decimal_comma: true },
    Style { separator: b'\t', decimal_comma: false },
    Style { separator: b'\t', decimal_comma: true },
    Style { separator: b',', decimal_comma: false },
    Style { separator: b' ', decimal_comma: false },
];

/// What is known of a recording beside its text.
#[derive(Clone, Copy, Debug, Default, PartialEq)]
pub struct Given {
    /// Time from one sample to the next, where the text does not say.
    pub interval_s: Option<f64>,
    /// The channel that is wanted, counted from 1; the one with the best pulse when not said.
    pub channel: Option<usize>,
}

/// Reads a recording piece by piece.
///
/// Holds the samples, one unfinished line and the header, and nothing else of the text.
#[derive(Debug, Default)]
pub struct Reader {
    given: Given,
    encoding: Option<Encoding>,
    rest: Vec<u8>,
    /// An odd byte of a two-byte text.
    half: Vec<u8>,
    line: usize,
    header: Vec<String>,
    form: Option<Form>,
    columns: Vec<Vec<f64>>,
    notes: ReadingNotes,
    first_hole: Option<usize>,
    /// Line, before and after of the first step back of the first column.
    first_back: Option<(usize, f64, f64)>,
}

/// How text is written as bytes.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
enum Encoding {
    Bytes,
    Utf16 { big: bool },
}

/// How the numbers of a file are laid out.
#[derive(Clone, Debug, PartialEq)]
struct Form {
    style: Style,
    /// Places in a line of those that are used.
    columns: Vec<usize>,
    header: Header,
}

impl Reader {
    /// A reader that has seen nothing.
    pub fn new() -> Self {
        Self::default()
    }

    /// The same with what is known beside the text.
    pub fn given(given: Given) -> Self {
        Self { given, ..Self::default() }
    }

    /// Takes the next piece of the text.
    ///
    /// # Errors
    /// [`TraceError`] as soon as the text cannot become a recording.
    pub fn push(&mut self, piece: &[u8]) -> Result<(), TraceError> {
        if self.encoding.is_none() {
            // The first bytes decide on the encoding; a piece may be shorter than a mark.
            self.half.extend_from_slice(piece);
            if self.half.len() < 4 {
                return Ok(());
            }
            let held = self.begin();
            return self.decoded(&held);
        }
        self.decoded(piece)
    }

    /// Ends the text.
    ///
    /// # Errors
    /// [`TraceError`] when there is no recording in it.
    pub fn finish(mut self) -> Result<Trace, TraceError> {
        if self.encoding.is_none() {
            let held = self.begin();
            self.decoded(&held)?;
        }
        if !self.rest.is_empty() {
            let last = std::mem::take(&mut self.rest);
            self.line(&last)?;
        }
        let samples = self.columns.first().map_or(0, Vec::len);
        let Some(form) = self.form.take().filter(|_| samples > 0) else { return Err(TraceError::NoNumbers) };
        let left_out = self.notes.left_out;
        if let Some(line) = self.first_hole
            && left_out as f64 > (samples + left_out) as f64 * MAX_LEFT_OUT
        {
            return Err(TraceError::ManyHoles { left_out, samples: samples + left_out, line });
        }
        if samples < MIN_SAMPLES {
            return Err(TraceError::TooFew { samples });
        }
        let mut columns = std::mem::take(&mut self.columns);
        let time = self.times(&form, &mut columns)?;
        let skipped = form.columns.len() - columns.len();
        let named = |at: usize| form.header.names.get(at + skipped).cloned();
        self.notes.channels =
            (0..columns.len()).map(|at| named(at).unwrap_or_else(|| format!("channel {}", at + 1))).collect();
        let chosen = match self.given.channel {
            Some(asked) if asked == 0 || asked > columns.len() => {
                return Err(TraceError::NoChannel { asked, channels: columns.len() });
            }
            Some(asked) => asked - 1,
            None => best(&time, &columns),
        };
        self.notes.channel = chosen + 1;
        let mut level = columns.swap_remove(chosen);
        level.shrink_to_fit();
        Ok(Trace { time_s: time, level, notes: self.notes })
    }

    /// The times of the samples: the first column, or counted at an interval. What is a time leaves the columns.
    fn times(&mut self, form: &Form, columns: &mut Vec<Vec<f64>>) -> Result<Vec<f64>, TraceError> {
        let interval = form.header.interval_s.or(self.given.interval_s);
        let several = columns.len() > 1;
        let counted = several && (form.header.counts || form.header.time_unit.is_none() && counts_up(&columns[0]));
        let runs_back = self.first_back.is_some();
        if !several || counted || (runs_back && interval.is_some()) {
            let interval = interval.ok_or(TraceError::NoInterval)?;
            if counted {
                columns.remove(0);
            }
            self.notes.interval_from_header = Some(form.header.interval_s.is_some());
            self.notes.time_unit_given = true;
            return Ok((0..columns[0].len()).map(|k| k as f64 * interval).collect());
        }
        if let Some((line, from, to)) = self.first_back {
            return Err(TraceError::TimeGoesBack { line, from, to });
        }
        let mut time = columns.remove(0);
        let scale = scale_of(&self.notes.time_unit);
        time.iter_mut().for_each(|time| *time *= scale);
        self.settle(&mut time)?;
        Ok(time)
    }

    /// Recorders often write times with too few digits: neighbours then have the same time. Their true spacing is even.
    fn settle(&mut self, time: &mut [f64]) -> Result<(), TraceError> {
        let (first, last) = (time[0], time[time.len() - 1]);
        if last <= first {
            return Err(TraceError::NoTime);
        }
        let even = (last - first) / (time.len() - 1) as f64;
        if time.windows(2).any(|pair| pair[0] == pair[1]) {
            self.notes.respaced = true;
            for (k, time) in time.iter_mut().enumerate() {
                *time = first + even * k as f64;
            }
            return Ok(());
        }
        self.notes.irregular = time.windows(2).any(|pair| ((pair[1] - pair[0]) / even - 1.0).abs() > 0.1);
        Ok(())
    }

    fn begin(&mut self) -> Vec<u8> {
        let mut held = std::mem::take(&mut self.half);
        let (encoding, mark) = match held.as_slice() {
            [0xFF, 0xFE, ..] => (Encoding::Utf16 { big: false }, 2),
            [0xFE, 0xFF, ..] => (Encoding::Utf16 { big: true }, 2),
            [0xEF, 0xBB, 0xBF, ..] => (Encoding::Bytes, 3),
            // Without a mark: plain text in two bytes has a nought in every other one.
            [0, first, 0, second, ..] if *first != 0 && *second != 0 => (Encoding::Utf16 { big: true }, 0),
            [first, 0, second, 0, ..] if *first != 0 && *second != 0 => (Encoding::Utf16 { big: false }, 0),
            _ => (Encoding::Bytes, 0),
        };
        self.encoding = Some(encoding);
        held.drain(..mark);
        held
    }

    /// Takes bytes as they come; two of them are one sign where the text is written so.
    fn decoded(&mut self, piece: &[u8]) -> Result<(), TraceError> {
        let Some(Encoding::Utf16 { big }) = self.encoding else { return self.lines(piece) };
        let mut held = std::mem::take(&mut self.half);
        held.extend_from_slice(piece);
        let pairs = held.chunks_exact(2);
        let odd = pairs.remainder().to_vec();
        let units = pairs.map(|pair| match big {
            true => u16::from_be_bytes([pair[0], pair[1]]),
            false => u16::from_le_bytes([pair[0], pair[1]]),
        });
        // Numbers and their units are of one unit each: what is not stands in names only.
        let text: String = char::decode_utf16(units).map(|sign| sign.unwrap_or(char::REPLACEMENT_CHARACTER)).collect();
        self.half = odd;
        self.lines(text.as_bytes())
    }

    fn lines(&mut self, mut piece: &[u8]) -> Result<(), TraceError> {
        while let Some(end) = memchr::memchr2(b'\n', b'\r', piece) {
            if self.rest.is_empty() {
                self.line(&piece[..end])?;
            } else {
                let mut whole = std::mem::take(&mut self.rest);
                whole.extend_from_slice(&piece[..end]);
                self.line(&whole)?;
                whole.clear();
                self.rest = whole;
            }
            // A carriage return before a line feed leaves an empty line, which is passed over and not counted.
            let pair = piece[end] == b'\r' && piece.get(end + 1) == Some(&b'\n');
            piece = &piece[end + 1 + usize::from(pair)..];
        }
        if self.rest.len() + piece.len() > MAX_LINE {
            return Err(TraceError::LongLine { line: self.line + 1 });
        }
        self.rest.extend_from_slice(piece);
        Ok(())
    }

    fn line(&mut self, line: &[u8]) -> Result<(), TraceError> {
        self.line += 1;
        if line.len() > MAX_LINE {
            return Err(TraceError::LongLine { line: self.line });
        }
        if line.iter().all(u8::is_ascii_whitespace) {
            return Ok(());
        }
        let Some(form) = &self.form else { return self.header_line(line) };
        let mut row = [0.0; MAX_COLUMNS];
        let count = form.columns.len();
        if !form.read(line, &mut row) {
            return self.hole();
        }
        self.sample(&row[..count])
    }

    fn hole(&mut self) -> Result<(), TraceError> {
        self.notes.left_out += 1;
        self.first_hole.get_or_insert(self.line);
        let (left_out, there) = (self.notes.left_out, self.columns[0].len());
        // Many holes need not be counted to the end of a huge file.
        if left_out > 10_000 + there {
            let line = self.first_hole.unwrap_or(1);
            return Err(TraceError::ManyHoles { left_out, samples: left_out + there, line });
        }
        Ok(())
    }

    /// A line before the numbers have begun: kept until some lines in a row are numbers in one style.
    fn header_line(&mut self, line: &[u8]) -> Result<(), TraceError> {
        if line.contains(&0) {
            return Err(TraceError::Binary);
        }
        let odd = line.iter().filter(|byte| byte.is_ascii_control() && **byte != b'\t').count();
        if odd * 10 > line.len() {
            return Err(TraceError::Binary);
        }
        self.header.push(text(line));
        for (proof, least) in [(PROOF, 2), (MIN_SAMPLES, 1)] {
            let Some(from) = self.header.len().checked_sub(proof) else { continue };
            let last = &self.header[from..];
            let found = STYLES.into_iter().find_map(|style| {
                let columns = numbers_in(last, style);
                (columns.len() >= least).then_some((style, columns))
            });
            if let Some((style, columns)) = found {
                return self.numbers_begin(style, columns, from);
            }
        }
        if self.header.len() > MAX_HEADER {
            return Err(TraceError::NoNumbers);
        }
        Ok(())
    }

    fn numbers_begin(&mut self, style: Style, columns: Vec<usize>, from: usize) -> Result<(), TraceError> {
        // A header may be cut otherwise than its numbers, which need not be cut at all.
        let cut = |line: &String| {
            // Something said with a colon is one thing, whatever stands between its words.
            if style.separator == b' ' && line.contains([':', '=']) {
                return vec![line.clone()];
            }
            let has = |separator: &u8| line.as_bytes().contains(separator);
            let separator = [style.separator, b';', b'\t', b','].into_iter().find(has).unwrap_or(style.separator);
            Style { separator, ..style }.fields(line.as_bytes()).map(text).collect::<Vec<String>>()
        };
        let lines: Vec<Vec<String>> = self.header.iter().map(cut).collect();
        let header = header::read(&lines, &columns);
        let proof = self.header.split_off(from);
        self.notes.header_lines = self.header.len();
        self.notes.columns = lines[from].iter().filter(|field| !field.trim().is_empty()).count();
        self.notes.time_unit_given = header.time_unit.is_some();
        self.notes.time_unit = header.time_unit.unwrap_or("s").to_owned();
        self.notes.level_unit = header.level_unit.map(str::to_owned);
        self.columns = vec![Vec::new(); columns.len()];
        let form = Form { style, columns, header };
        let count = form.columns.len();
        let rows: Vec<[f64; MAX_COLUMNS]> = { proof.iter() }
            .map(|line| {
                let mut row = [0.0; MAX_COLUMNS];
                form.read(line.as_bytes(), &mut row);
                row
            })
            .collect();
        self.form = Some(form);
        let now = self.line;
        for (at, row) in rows.iter().enumerate() {
            self.line = now + 1 + at - rows.len();
            self.sample(&row[..count])?;
        }
        self.line = now;
        self.header.clear();
        Ok(())
    }

    fn sample(&mut self, row: &[f64]) -> Result<(), TraceError> {
        if self.columns[0].len() * self.columns.len().max(2) >= 2 * MAX_SAMPLES {
            return Err(TraceError::TooMany);
        }
        if let Some(before) = self.columns[0].last().copied()
            && row[0] < before
            && self.first_back.is_none()
        {
            self.first_back = Some((self.line, before, row[0]));
        }
        for (column, value) in self.columns.iter_mut().zip(row) {
            column.push(*value);
        }
        Ok(())
    }
}

/// Whether a column is the number of its sample and no time: each is the one before and one.
fn counts_up(column: &[f64]) -> bool {
    column[0].fract() == 0.0 && column.windows(2).all(|pair| pair[1] - pair[0] == 1.0)
}

/// The channel that holds the pulse: the one that reads best.
fn best(time: &[f64], channels: &[Vec<f64>]) -> usize {
    if channels.len() == 1 {
        return 0;
    }
    let score = |channel: &Vec<f64>| {
        let trace = Trace { time_s: time.to_vec(), level: channel.clone(), notes: ReadingNotes::default() };
        let reading = analyse(trace);
        let rank = match reading.quality {
            Quality::Good => 0.0,
            Quality::Fair => 1.0,
            Quality::Unusable => 2.0,
        };
        rank + reading.noise_share.clamp(0.0, 0.99)
    };
    let scores: Vec<f64> = channels.iter().map(score).collect();
    (0..scores.len()).min_by(|a, b| scores[*a].total_cmp(&scores[*b])).unwrap_or(0)
}

/// The places at which all of some lines have numbers. Where a block of settings stands beside them, behind it.
fn numbers_in(lines: &[String], style: Style) -> Vec<usize> {
    let mut shared: Option<Vec<usize>> = None;
    let mut behind = 0;
    for line in lines {
        let fields: Vec<&[u8]> = style.fields(line.as_bytes()).collect();
        let is_number = |at: &usize| number(fields[*at], style.decimal_comma).is_some();
        let here: Vec<usize> = (0..fields.len()).filter(is_number).collect();
        // A word, its value, and a gap: settings, with the numbers behind the gap.
        let empty = |at: usize| fields.get(at).is_some_and(|field| field.trim_ascii().is_empty());
        let word = !fields.is_empty() && !empty(0) && !is_number(&0);
        let gap = (1..fields.len()).find(|at| empty(*at));
        if let (true, Some(gap)) = (word || empty(0), gap) {
            behind = behind.max(if empty(0) { 0 } else { gap });
        }
        shared = Some(match shared {
            None => here,
            Some(before) => before.into_iter().filter(|at| here.contains(at)).collect(),
        });
    }
    shared.unwrap_or_default().into_iter().filter(|at| *at >= behind).take(MAX_COLUMNS).collect()
}

impl Style {
    /// The fields of a line.
    fn fields(self, line: &[u8]) -> impl Iterator<Item = &[u8]> {
        let spaced = self.separator == b' ';
        line.split(move |byte| if spaced { byte.is_ascii_whitespace() } else { *byte == self.separator })
            .filter(move |field| !spaced || !field.is_empty())
    }
}

impl Form {
    /// Reads the numbers of a line; whether all of them are there.
    fn read(&self, line: &[u8], row: &mut [f64; MAX_COLUMNS]) -> bool {
        let mut fields = self.style.fields(line);
        let mut at = 0;
        for (slot, column) in row.iter_mut().zip(&self.columns) {
            let Some(value) = fields.nth(column - at).and_then(|field| number(field, self.style.decimal_comma)) else {
                return false;
            };
            at = column + 1;
            *slot = value;
        }
        true
    }
}

/// Text of a header line; a lone 0xB5 is the micro sign of older exports.
fn text(line: &[u8]) -> String {
    match std::str::from_utf8(line) {
        Ok(text) => text.to_owned(),
        Err(_) => line.iter().map(|byte| char::from(*byte)).collect(),
    }
}
