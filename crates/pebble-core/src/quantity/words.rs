//! Figures and sentences as they are written everywhere.

use crate::quantity::scale::duration_label;
use crate::quantity::{Seconds, Stops};

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

/// A time as it is told in a sentence: `1/60` as on a camera, and seconds with two digits from a third of one on.
pub fn told(time: Seconds) -> String {
    if time.as_secs() < 0.3 { duration_label(time) } else { format!("{:.2} s", time.as_secs()) }
}

/// A lighting ratio as said; one cheek in the dark has none.
pub fn times(ratio: Stops) -> String {
    let times = ratio.as_ratio();
    match times {
        much if !much.is_finite() || much >= 1000.0 => "one side dark".to_owned(),
        some if some < 9.95 => format!("{:.1}:1", some).replace(".0:", ":"),
        more => format!("{more:.0}:1"),
    }
}
