//! Numbers as people type them: fractions, mixed numbers, either decimal sign, digits of other scripts.

/// What stood there.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) enum Form {
    /// `125`.
    Whole,
    /// `2.8` or `2,8`.
    Decimal,
    /// `1/125`.
    Fraction,
    /// `1 1/3`.
    Mixed,
}

/// A number at the beginning of a text, and what stands after it.
#[derive(Clone, Copy, Debug)]
pub(super) struct Number<'a> {
    pub value: f64,
    pub form: Form,
    /// Whether it has a sign before it.
    pub signed: bool,
    pub rest: &'a str,
}

/// Why no number was found.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub(super) enum NoNumber {
    /// There is none.
    None,
    /// `1,200`: a thousand and more, or one and a fifth.
    Grouped,
}

/// The text in the signs of a keyboard: one kind of digits, of minus, of stroke and of space, in small letters.
pub(super) fn plain(text: &str) -> String {
    let mut plain = String::with_capacity(text.len());
    for sign in text.trim().chars() {
        match sign {
            // Marks of direction say nothing.
            '\u{200b}'..='\u{200f}' | '\u{202a}'..='\u{202e}' | '\u{2066}'..='\u{2069}' | '\u{feff}' => {}
            '\u{ff01}'..='\u{ff5e}' => plain.push(moved(sign, 0xff01, 0x21)),
            '\u{660}'..='\u{669}' => plain.push(moved(sign, 0x660, 0x30)),
            '\u{6f0}'..='\u{6f9}' => plain.push(moved(sign, 0x6f0, 0x30)),
            '\u{966}'..='\u{96f}' => plain.push(moved(sign, 0x966, 0x30)),
            '−' | '–' | '—' | '‑' => plain.push('-'),
            '∕' | '⁄' | '÷' => plain.push('/'),
            '″' | '”' | '“' => plain.push('"'),
            '′' | '’' | '‘' => plain.push('\''),
            'µ' | 'μ' => plain.push('u'),
            'º' | '˚' => plain.push('°'),
            '٫' => plain.push('.'),
            '½' => plain.push_str(" 1/2"),
            '⅓' => plain.push_str(" 1/3"),
            '⅔' => plain.push_str(" 2/3"),
            '¼' => plain.push_str(" 1/4"),
            '¾' => plain.push_str(" 3/4"),
            '⅛' => plain.push_str(" 1/8"),
            sign if sign.is_whitespace() => plain.push(' '),
            sign => plain.extend(sign.to_lowercase()),
        }
    }
    plain.trim().to_owned()
}

fn moved(sign: char, from: u32, to: u32) -> char {
    char::from_u32(u32::from(sign) - from + to).unwrap_or(sign)
}

/// The number at the beginning of a text of plain signs.
pub(super) fn number(text: &str) -> Result<Number<'_>, NoNumber> {
    let text = text.trim_start();
    let (sign, signed, text) = match text.as_bytes().first() {
        Some(b'-') => (-1.0, true, text[1..].trim_start()),
        Some(b'+') => (1.0, true, text[1..].trim_start()),
        _ => (1.0, false, text),
    };
    let (whole, after) = digits(text);
    // A stroke before anything but a digit belongs to a unit: `8:00/mi`.
    if let Some(after) = after.strip_prefix('/').filter(|after| after.starts_with(|sign: char| sign.is_ascii_digit())) {
        let (below, rest) = digits(after);
        let value = quotient(whole, below).ok_or(NoNumber::None)?;
        return Ok(Number { value: sign * value, form: Form::Fraction, signed, rest });
    }
    if let Some(after) = after.strip_prefix(['.', ',']) {
        let (part, rest) = digits(after);
        // A second sign of the same kind is a date, a place, or thousands of thousands.
        if part.is_empty() || rest.starts_with(['.', ',']) {
            return Err(NoNumber::None);
        }
        let comma = text.as_bytes().get(whole.len()) == Some(&b',');
        if comma && part.len() == 3 && (1..=3).contains(&whole.len()) && whole != "0" {
            return Err(NoNumber::Grouped);
        }
        let value = format!("{}.{part}", if whole.is_empty() { "0" } else { whole });
        return Ok(Number { value: sign * parsed(&value)?, form: Form::Decimal, signed, rest });
    }
    if whole.is_empty() {
        return Err(NoNumber::None);
    }
    // `1 1/3`: a fraction after a space is a part of it.
    if let Some(after) = after.strip_prefix(' ') {
        let (above, after) = digits(after.trim_start());
        if let Some((below, rest)) = after.strip_prefix('/').map(digits)
            && let Some(part) = quotient(above, below).filter(|part| *part < 1.0)
        {
            return Ok(Number { value: sign * (parsed(whole)? + part), form: Form::Mixed, signed, rest });
        }
    }
    Ok(Number { value: sign * parsed(whole)?, form: Form::Whole, signed, rest: after })
}

fn digits(text: &str) -> (&str, &str) {
    text.split_at(text.find(|sign: char| !sign.is_ascii_digit()).unwrap_or(text.len()))
}

fn parsed(digits: &str) -> Result<f64, NoNumber> {
    digits.parse().map_err(|_| NoNumber::None)
}

fn quotient(above: &str, below: &str) -> Option<f64> {
    let (above, below): (f64, f64) = (above.parse().ok()?, below.parse().ok()?);
    (below > 0.0).then_some(above / below)
}
