//! Numbers as recorders write them.

/// A finite number, perhaps in quotes.
pub(super) fn number(field: &[u8], decimal_comma: bool) -> Option<f64> {
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
