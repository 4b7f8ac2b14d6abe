//! Where a figure comes from, checked.

use super::check::At;
use crate::file::gear::Source;
use crate::quantity::bounds::Invalid;

impl Source {
    pub(crate) fn check(&self, at: &At) -> Result<(), Invalid> {
        if let Some(on) = &self.on {
            date(at, on)?;
        }
        self.with.as_ref().map_or(Ok(()), |with| at.text("with", with))
    }
}

/// A day as `2026-11-25`; whether the month has that day is for a calendar to know.
pub(crate) fn date(at: &At, text: &str) -> Result<(), Invalid> {
    let mut fields = text.split('-').map(|field| (field.len(), field.parse::<u32>().ok()));
    let (year, month, day) = (fields.next(), fields.next(), fields.next());
    let fits = matches!(year, Some((4, Some(_))))
        && matches!(month, Some((2, Some(1..=12))))
        && matches!(day, Some((2, Some(1..=31))))
        && fields.next().is_none();
    if fits { Ok(()) } else { Err(at.not_allowed("on", text, "a day such as 2026-11-25")) }
}
