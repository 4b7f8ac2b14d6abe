//! Figures and sentences as they are written everywhere.

/// Stops with their sign and one decimal. A true minus sign, as set in the rest of the interface; "−0.0" must not appear.
pub fn signed(stops: f64) -> String {
    let rounded = (stops * 10.0).round() / 10.0;
    if rounded < 0.0 { format!("−{:.1}", -rounded) } else { format!("+{:.1}", rounded.abs()) }
}

/// With a large letter at its beginning.
pub fn capital(words: &str) -> String {
    let mut signs = words.chars();
    signs.next().map_or_else(String::new, |first| first.to_uppercase().chain(signs).collect())
}
