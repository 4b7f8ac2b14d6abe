//! Reading the text of a recording: header lines, comma, semicolon or tab, decimal comma, units, byte-order mark.

use super::Trace;
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
/// Fewest samples that can hold a pulse.
const MIN_SAMPLES: usize = 16;

/// Why a text is not a recording that can be used.
#[derive(Clone, Debug, PartialEq, Error)]
pub enum TraceError {
    /// Not text.
    #[error("this is not a text file of numbers; export the recording as CSV")]
    Binary,
    /// UTF-16.
    #[error("this text is written in UTF-16; export it as plain or UTF-8 text")]
    Utf16,
    /// A line without end.
    #[error("line {line} is longer than 256 kB; a recording has a time and a level on each line")]
    LongLine {
        /// Which.
        line: usize,
    },
    /// No numbers.
    #[error("no line with a time and a level was found{}", of_one_column(*one_column))]
    NoNumbers {
        /// Whether lines with a single number were.
        one_column: bool,
    },
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

fn of_one_column(found: bool) -> &'static str {
    if found { "; a single column was, and both time and level are needed" } else { "" }
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

/// Reads a recording piece by piece.
///
/// Holds the samples, one unfinished line and the header, and nothing else of the text.
#[derive(Debug, Default)]
pub struct Reader {
    begun: bool,
    rest: Vec<u8>,
    line: usize,
    header: Vec<String>,
    single_numbers: usize,
    style: Option<Style>,
    scale: f64,
    trace: Trace,
    first_hole: Option<usize>,
    first_standing: Option<usize>,
}

impl Reader {
    /// A reader that has seen nothing.
    pub fn new() -> Self {
        Self::default()
    }

    /// Takes the next piece of the text.
    ///
    /// # Errors
    /// [`TraceError`] as soon as the text cannot become a recording.
    pub fn push(&mut self, piece: &[u8]) -> Result<(), TraceError> {
        let mut piece = piece;
        if !self.begun {
            // The first bytes decide on the encoding; a piece may be shorter than a mark.
            self.rest.extend_from_slice(piece);
            if self.rest.len() < 4 {
                return Ok(());
            }
            self.begin()?;
            piece = &[];
            let held = std::mem::take(&mut self.rest);
            return self.lines(&held).and_then(|()| self.lines(piece));
        }
        self.lines(piece)
    }

    /// Ends the text.
    ///
    /// # Errors
    /// [`TraceError`] when there is no recording in it.
    pub fn finish(mut self) -> Result<Trace, TraceError> {
        if !self.begun {
            self.begin()?;
            let held = std::mem::take(&mut self.rest);
            self.lines(&held)?;
        }
        if !self.rest.is_empty() {
            let last = std::mem::take(&mut self.rest);
            self.line(&last)?;
        }
        let samples = self.trace.time_s.len();
        if samples == 0 {
            return Err(TraceError::NoNumbers { one_column: self.single_numbers >= PROOF });
        }
        let left_out = self.trace.notes.left_out;
        if let Some(line) = self.first_hole
            && left_out as f64 > (samples + left_out) as f64 * MAX_LEFT_OUT
        {
            return Err(TraceError::ManyHoles { left_out, samples: samples + left_out, line });
        }
        if samples < MIN_SAMPLES {
            return Err(TraceError::TooFew { samples });
        }
        self.settle_time()?;
        self.trace.time_s.shrink_to_fit();
        self.trace.level.shrink_to_fit();
        Ok(self.trace)
    }

    fn begin(&mut self) -> Result<(), TraceError> {
        self.begun = true;
        if self.rest.starts_with(&[0xFF, 0xFE]) || self.rest.starts_with(&[0xFE, 0xFF]) {
            return Err(TraceError::Utf16);
        }
        if self.rest.starts_with(&[0xEF, 0xBB, 0xBF]) {
            self.rest.drain(..3);
        }
        Ok(())
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
        let Some(style) = self.style else { return self.header_line(line) };
        match pair(line, style) {
            Some((time, level)) => self.sample(time, level),
            None => {
                self.trace.notes.left_out += 1;
                self.first_hole.get_or_insert(self.line);
                // Many holes need not be counted to the end of a huge file.
                if self.trace.notes.left_out > 10_000 + self.trace.time_s.len() {
                    let samples = self.trace.notes.left_out + self.trace.time_s.len();
                    let left_out = self.trace.notes.left_out;
                    return Err(TraceError::ManyHoles { left_out, samples, line: self.first_hole.unwrap_or(1) });
                }
                Ok(())
            }
        }
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
        let proof = PROOF.min(self.header.len());
        let lines: Vec<&str> = self.header[self.header.len() - proof..].iter().map(String::as_str).collect();
        if proof == PROOF {
            let fits = |style: &Style| lines.iter().all(|line| pair(line.as_bytes(), *style).is_some());
            if let Some(style) = STYLES.into_iter().find(fits) {
                self.numbers_begin(style);
                return Ok(());
            }
        }
        let single = lines.last().is_some_and(|line| number(line.trim().as_bytes(), line.contains(',')).is_some());
        self.single_numbers += usize::from(single);
        if self.header.len() > MAX_HEADER {
            return Err(TraceError::NoNumbers { one_column: self.single_numbers >= PROOF });
        }
        Ok(())
    }

    fn numbers_begin(&mut self, style: Style) {
        self.style = Some(style);
        let proof: Vec<String> = self.header.split_off(self.header.len() - PROOF);
        self.trace.notes.header_lines = self.header.len();
        self.trace.notes.columns =
            proof[0].split(char::from(style.separator)).filter(|field| !field.is_empty()).count();
        let (time_unit, level_unit) = units(&self.header, style);
        self.trace.notes.time_unit_given = time_unit.is_some();
        self.trace.notes.time_unit = time_unit.unwrap_or("s").to_owned();
        self.trace.notes.level_unit = level_unit.map(str::to_owned);
        self.scale = scale_of(&self.trace.notes.time_unit);
        for line in &proof {
            if let Some((time, level)) = pair(line.as_bytes(), style) {
                self.trace.time_s.push(time * self.scale);
                self.trace.level.push(level);
            }
        }
        self.header.clear();
    }

    fn sample(&mut self, time: f64, level: f64) -> Result<(), TraceError> {
        let trace = &mut self.trace;
        if trace.time_s.len() == MAX_SAMPLES {
            return Err(TraceError::TooMany);
        }
        let time = time * self.scale;
        if let Some(before) = trace.time_s.last().copied() {
            if time < before {
                return Err(TraceError::TimeGoesBack { line: self.line, from: before, to: time });
            }
            if time == before {
                self.first_standing.get_or_insert(self.line);
            }
        }
        trace.time_s.push(time);
        trace.level.push(level);
        Ok(())
    }

    /// Recorders often write times with too few digits: neighbours then have the same time. Their true spacing is even.
    fn settle_time(&mut self) -> Result<(), TraceError> {
        let trace = &mut self.trace;
        // The proof lines were not compared with each other while they were read.
        if let Some(at) = trace.time_s.windows(2).take(PROOF).position(|pair| pair[1] < pair[0]) {
            let (from, to) = (trace.time_s[at], trace.time_s[at + 1]);
            return Err(TraceError::TimeGoesBack { line: trace.notes.header_lines + at + 2, from, to });
        }
        let (first, last) = (trace.time_s[0], trace.time_s[trace.time_s.len() - 1]);
        if last <= first {
            return Err(TraceError::NoTime);
        }
        let steps = (trace.time_s.len() - 1) as f64;
        let even = (last - first) / steps;
        if self.first_standing.is_some() || trace.time_s.windows(2).take(PROOF).any(|pair| pair[0] == pair[1]) {
            trace.notes.respaced = true;
            for (k, time) in trace.time_s.iter_mut().enumerate() {
                *time = first + even * k as f64;
            }
            return Ok(());
        }
        trace.notes.irregular = trace.time_s.windows(2).any(|pair| ((pair[1] - pair[0]) / even - 1.0).abs() > 0.1);
        Ok(())
    }
}

/// Text of a header line; a lone 0xB5 is the micro sign of older exports.
fn text(line: &[u8]) -> String {
    match std::str::from_utf8(line) {
        Ok(text) => text.to_owned(),
        Err(_) => line.iter().map(|byte| char::from(*byte)).collect(),
    }
}

/// The first two numbers of a line.
fn pair(line: &[u8], style: Style) -> Option<(f64, f64)> {
    if style.separator == b' ' {
        let mut fields = line.split(u8::is_ascii_whitespace).filter(|field| !field.is_empty());
        return Some((number(fields.next()?, false)?, number(fields.next()?, false)?));
    }
    let end = memchr::memchr(style.separator, line)?;
    let after = &line[end + 1..];
    let second = &after[..memchr::memchr(style.separator, after).unwrap_or(after.len())];
    Some((number(&line[..end], style.decimal_comma)?, number(second, style.decimal_comma)?))
}

/// A finite number, perhaps in quotes.
fn number(field: &[u8], decimal_comma: bool) -> Option<f64> {
    let field = field.trim_ascii();
    let field = field.strip_prefix(b"\"").and_then(|rest| rest.strip_suffix(b"\"")).unwrap_or(field);
    let mark = if decimal_comma { b',' } else { b'.' };
    if let Some(value) = plain_number(field, mark) {
        return Some(value);
    }
    if decimal_comma && field.contains(&b'.') {
        return None;
    }
    let text = std::str::from_utf8(field).ok()?;
    let value: f64 = if decimal_comma { text.replacen(',', ".", 1).parse() } else { text.parse() }.ok()?;
    value.is_finite().then_some(value)
}

/// Digits with at most one decimal mark, the way recorders write nearly all of their numbers; a million of them shall not
/// be waited for. Exact: the digits fit a double's mantissa and so does the power of ten, and one division rounds once.
fn plain_number(field: &[u8], mark: u8) -> Option<f64> {
    const TENS: [f64; 16] = [1e0, 1e1, 1e2, 1e3, 1e4, 1e5, 1e6, 1e7, 1e8, 1e9, 1e10, 1e11, 1e12, 1e13, 1e14, 1e15];
    let (negative, digits) = match field.split_first()? {
        (b'-', rest) => (true, rest),
        (b'+', rest) => (false, rest),
        _ => (false, field),
    };
    if digits.len() > 16 {
        return None;
    }
    let (mut whole, mut after, mut seen) = (0_u64, None::<usize>, 0);
    for byte in digits {
        if byte.is_ascii_digit() {
            whole = whole * 10 + u64::from(byte - b'0');
            seen += 1;
            after = after.map(|count| count + 1);
        } else if *byte == mark && after.is_none() {
            after = Some(0);
        } else {
            return None;
        }
    }
    if seen == 0 || seen > 15 {
        return None;
    }
    let value = whole as f64 / TENS[after.unwrap_or(0)];
    Some(if negative { -value } else { value })
}

const TIME_UNITS: [(&str, f64); 4] = [("s", 1.0), ("ms", 1e-3), ("µs", 1e-6), ("ns", 1e-9)];

fn scale_of(unit: &str) -> f64 {
    TIME_UNITS.iter().find(|(name, _)| *name == unit).map_or(1.0, |(_, scale)| *scale)
}

/// Units of time and level out of the header: in brackets, after a slash, or alone in a field.
fn units(header: &[String], style: Style) -> (Option<&'static str>, Option<&'static str>) {
    let mut found = (None, None);
    // The line nearest to the numbers knows best.
    for line in header.iter().rev() {
        let mut fields = line.split(char::from(style.separator));
        let unit_of = |field: Option<&str>, known: &dyn Fn(&str) -> Option<&'static str>| {
            field.and_then(|field| {
                field.split(|c: char| "()[]/ \"".contains(c)).rev().find_map(|word| known(word.trim()))
            })
        };
        found.0 = found.0.or_else(|| unit_of(fields.next(), &time_unit));
        found.1 = found.1.or_else(|| unit_of(fields.next(), &level_unit));
    }
    found
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
