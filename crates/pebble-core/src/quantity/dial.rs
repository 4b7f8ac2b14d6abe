//! The dial of a flash unit: the same power as this unit writes it, and as it is typed on it.

use super::said::{self, FigureKind, Unclear};
use super::scale::power_label;
use super::{Joules, Stops};
use crate::wire::word;

/// What full power is called where the dial counts in stops.
const FULL_NUMBER: f64 = 10.0;

word! {
    /// How a unit writes its power.
    #[derive(Default)]
    pub enum DialStyle {
        /// `1/16 +0.3`.
        #[default]
        Fractions,
        /// Stops, 10 is full: `6.3`.
        Numbers,
        /// `6.3 %` of full.
        Percent,
        /// `25 J`.
        Joules,
    }
}

/// A unit's dial.
#[derive(Clone, Copy, Debug, Default, PartialEq)]
pub struct PowerDial {
    /// How it writes.
    pub style: DialStyle,
    /// Energy at full power, where known.
    pub full: Option<Joules>,
}

impl PowerDial {
    /// A power fraction as this dial shows it.
    pub fn label(&self, power: f64) -> String {
        let fraction = || power_label(-Stops::from_ratio(power));
        if power <= 0.0 || !power.is_finite() {
            return fraction();
        }
        match (self.style, self.full) {
            (DialStyle::Numbers, _) => format!("{:.1}", FULL_NUMBER + power.log2()).replace('-', "−"),
            (DialStyle::Percent, _) => format!("{} %", three_digits(power * 100.0)),
            (DialStyle::Joules, Some(full)) => format!("{} J", three_digits(full.as_joules() * power)),
            (DialStyle::Fractions | DialStyle::Joules, _) => fraction(),
        }
    }

    /// A power typed as on this dial, or as a fraction anywhere.
    ///
    /// # Errors
    /// [`Unclear`] for what is no power.
    pub fn read(&self, typed: &str) -> Result<f64, Unclear> {
        let share = |joules: f64| self.full.map(|full| joules / full.as_joules());
        // Joules are joules on any unit whose energy is known.
        let energy = said::named(FigureKind::Energy, typed).and_then(share);
        let bare = said::bare(typed);
        let power = match (bare, self.style) {
            (Some(number), DialStyle::Numbers) => Some((number - FULL_NUMBER).exp2()),
            (Some(number), DialStyle::Percent) => Some(number / 100.0),
            (Some(number), DialStyle::Joules) if self.full.is_some() => share(number),
            (None, _) => energy,
            _ => None,
        };
        match power {
            Some(power) if power > 0.0 && power.is_finite() => Ok(power),
            Some(_) => Err(Unclear::Impossible { kind: FigureKind::Power, text: typed.trim().to_owned() }),
            None => said::read(FigureKind::Power, typed),
        }
    }
}

/// A figure with three digits that count, and no noughts behind them.
fn three_digits(value: f64) -> String {
    let decimals = (2 - value.abs().log10().floor() as i32).clamp(0, 6) as usize;
    let written = format!("{value:.decimals$}");
    if written.contains('.') { written.trim_end_matches('0').trim_end_matches('.').to_owned() } else { written }
}
