//! Camera scales: aperture, shutter time and ISO, their grid and their customary labels.
//!
//! The exact value of a grid position is a power of two (`N = 2^(Av/2)`, `t = 2^(−Tv)`, `S = 100·2^Sv`), counted in
//! sixths of a stop so that thirds and halves are both whole numbers. The label is a customary rounding of it. A
//! figure that is a label is read as the exact value (f/5.6 is 5.657, 1/250 is 1/256); any other is taken literally.

use super::bounds::{APERTURE, ISO, Invalid, SHUTTER};
use super::{Seconds, Stops};
use serde::{Deserialize, Serialize};

/// How finely a camera's dials are cut.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Grid {
    /// Thirds of a stop.
    #[default]
    Thirds,
    /// Halves of a stop.
    Halves,
}

impl Grid {
    /// One click, in sixths of a stop.
    pub const fn step(self) -> i32 {
        match self {
            Self::Thirds => 2,
            Self::Halves => 3,
        }
    }

    const fn other(self) -> Self {
        match self {
            Self::Thirds => Self::Halves,
            Self::Halves => Self::Thirds,
        }
    }
}

/// Labels of one scale cut one way: the position of the first, in sixths, and the labels upwards from it.
struct Labels {
    first: i32,
    step: i32,
    labels: &'static [&'static str],
}

impl Labels {
    fn label(&self, sixths: i32) -> Option<&'static str> {
        let offset = sixths - self.first;
        (offset >= 0 && offset % self.step == 0)
            .then(|| self.labels.get((offset / self.step) as usize).copied())
            .flatten()
    }

    fn position(&self, label: &str) -> Option<i32> {
        let index = self.labels.iter().position(|known| *known == label)?;
        Some(self.first + self.step * index as i32)
    }
}

#[rustfmt::skip]
const APERTURE_THIRDS: Labels = Labels { first: -6, step: 2, labels: &[
    "0.7", "0.8", "0.9", "1", "1.1", "1.2", "1.4", "1.6", "1.8", "2", "2.2", "2.5", "2.8", "3.2", "3.5", "4", "4.5", "5",
    "5.6", "6.3", "7.1", "8", "9", "10", "11", "13", "14", "16", "18", "20", "22", "25", "29", "32", "36", "40", "45",
    "51", "57", "64", "72", "81", "90",
] };
#[rustfmt::skip]
const APERTURE_HALVES: Labels = Labels { first: -6, step: 3, labels: &[
    "0.7", "0.8", "1", "1.2", "1.4", "1.7", "2", "2.4", "2.8", "3.3", "4", "4.8", "5.6", "6.7", "8", "9.5", "11", "13",
    "16", "19", "22", "27", "32", "38", "45", "54", "64", "76", "90",
] };
// Shutter labels are written as on the dial: a fraction, or seconds with the inch mark. Upwards means shorter.
#[rustfmt::skip]
const SHUTTER_THIRDS: Labels = Labels { first: -36, step: 2, labels: &[
    "60\"", "50\"", "40\"", "30\"", "25\"", "20\"", "15\"", "13\"", "10\"", "8\"", "6\"", "5\"", "4\"", "3.2\"", "2.5\"",
    "2\"", "1.6\"", "1.3\"", "1\"", "0.8\"", "0.6\"", "0.5\"", "0.4\"", "0.3\"", "1/4", "1/5", "1/6", "1/8", "1/10",
    "1/13", "1/15", "1/20", "1/25", "1/30", "1/40", "1/50", "1/60", "1/80", "1/100", "1/125", "1/160", "1/200", "1/250",
    "1/320", "1/400", "1/500", "1/640", "1/800", "1/1000", "1/1250", "1/1600", "1/2000", "1/2500", "1/3200", "1/4000",
    "1/5000", "1/6400", "1/8000", "1/10000", "1/12800", "1/16000", "1/20000", "1/25600", "1/32000",
] };
#[rustfmt::skip]
const SHUTTER_HALVES: Labels = Labels { first: -36, step: 3, labels: &[
    "60\"", "45\"", "30\"", "20\"", "15\"", "11\"", "8\"", "6\"", "4\"", "3\"", "2\"", "1.5\"", "1\"", "0.7\"", "0.5\"",
    "0.3\"", "1/4", "1/6", "1/8", "1/11", "1/15", "1/20", "1/30", "1/45", "1/60", "1/90", "1/125", "1/180", "1/250",
    "1/350", "1/500", "1/750", "1/1000", "1/1500", "1/2000", "1/3000", "1/4000", "1/6000", "1/8000", "1/12000",
    "1/16000", "1/24000", "1/32000",
] };
#[rustfmt::skip]
const ISO_THIRDS: Labels = Labels { first: -24, step: 2, labels: &[
    "6", "8", "10", "12", "16", "20", "25", "32", "40", "50", "64", "80", "100", "125", "160", "200", "250", "320",
    "400", "500", "640", "800", "1000", "1250", "1600", "2000", "2500", "3200", "4000", "5000", "6400", "8000", "10000",
    "12800", "16000", "20000", "25600", "32000", "40000", "51200", "64000", "80000", "102400", "128000", "160000",
    "204800", "256000", "320000", "409600",
] };
#[rustfmt::skip]
const ISO_HALVES: Labels = Labels { first: -24, step: 3, labels: &[
    "6", "9", "12", "18", "25", "35", "50", "70", "100", "140", "200", "280", "400", "560", "800", "1100", "1600", "2200",
    "3200", "4500", "6400", "9000", "12800", "18000", "25600", "36000", "51200", "72000", "102400", "144000", "204800",
    "288000", "409600",
] };

/// Two values closer than this are the same position: far below a click, far above rounding.
const SAME_POSITION_SIXTHS: f64 = 1e-6;

fn nearest(position: f64) -> i32 {
    position.round() as i32
}

fn on_grid(position: f64) -> Option<i32> {
    let whole = position.round();
    ((position - whole).abs() < SAME_POSITION_SIXTHS).then_some(whole as i32)
}

/// Labels of `grid` first: where thirds and halves disagree (1.2, 13, 1/20), the camera's own cut decides.
fn find(label: &str, grid: Grid, thirds: &Labels, halves: &Labels) -> Option<i32> {
    let tables = [(Grid::Thirds, thirds), (Grid::Halves, halves)];
    [grid, grid.other()].into_iter().find_map(|wanted| tables.iter().find(|(cut, _)| *cut == wanted)?.1.position(label))
}

/// A label is a rounding of its position by less than this, in sixths.
const ROUNDED_BY: i32 = 2;
/// A figure that is this close to one on a label is that one.
const SAME_FIGURE: f64 = 5e-7;

/// The same for a figure that stands at about a position: only the labels around it are read.
fn find_figure(figure: f64, position: f64, grid: Grid, [thirds, halves]: [&Labels; 2]) -> Option<i32> {
    let about = nearest(position);
    let tables = if grid == Grid::Thirds { [thirds, halves] } else { [halves, thirds] };
    let is = |label: &str| label.parse::<f64>().is_ok_and(|known| (known - figure).abs() < SAME_FIGURE);
    tables
        .into_iter()
        .find_map(|table| (about - ROUNDED_BY..=about + ROUNDED_BY).find(|sixths| table.label(*sixths).is_some_and(is)))
}

fn write(sixths: i32, thirds: &Labels, halves: &Labels, grid: Grid) -> Option<&'static str> {
    match grid {
        Grid::Thirds => thirds.label(sixths).or_else(|| halves.label(sixths)),
        Grid::Halves => halves.label(sixths).or_else(|| thirds.label(sixths)),
    }
}

/// Beyond this not every whole number is one of doubles.
const WHOLE_TO: f64 = 9e15;

/// A plain number with no more digits than it needs, at most `decimals`.
fn trimmed(value: f64, decimals: usize) -> String {
    // Most are whole, and as such written ten times as fast.
    if value.fract() == 0.0 && (0.0..WHOLE_TO).contains(&value) {
        return (value as u64).to_string();
    }
    let text = format!("{value:.decimals$}");
    if text.contains('.') { text.trim_end_matches('0').trim_end_matches('.').to_owned() } else { text }
}

macro_rules! scale {
    ($(#[$doc:meta])* $name:ident, $sixths:ident) => {
        $(#[$doc])*
        ///
        /// # Guarantees
        /// Finite, positive and inside its row of [`super::bounds`].
        #[derive(Clone, Copy, Debug, PartialEq, PartialOrd)]
        pub struct $name(f64);

        impl $name {
            /// Position on the grid in sixths of a stop, `None` between positions.
            pub fn $sixths(self) -> Option<i32> {
                on_grid(self.position())
            }

            /// The grid position at or nearest to the value.
            pub fn nearest_sixth(self) -> i32 {
                nearest(self.position())
            }
        }
    };
}

scale!(/// f-number `N`. Upwards is a smaller opening.
    Aperture, av6);
scale!(/// Exposure time `t` in seconds. Upwards is shorter.
    ShutterTime, tv6);
scale!(/// Sensitivity `S`. Upwards is more sensitive.
    Iso, sv6);

impl Aperture {
    /// The exact value at a position: `2^(av6/12)`.
    pub fn from_av6(av6: i32) -> Self {
        Self((f64::from(av6) / 12.0).exp2())
    }

    /// From a figure as a photographer writes it.
    ///
    /// # Errors
    /// [`Invalid::OutOfRange`] unless 0.5 ≤ `number` ≤ 128.
    pub fn read(field: &str, number: f64, grid: Grid) -> Result<Self, Invalid> {
        let literal = APERTURE.check(field, number)?;
        let known = find_figure(number, Self(literal).position(), grid, [&APERTURE_THIRDS, &APERTURE_HALVES]);
        Ok(known.map_or(Self(literal), Self::from_av6))
    }

    /// The f-number.
    pub fn number(self) -> f64 {
        self.0
    }

    /// The customary label, without "f/".
    pub fn label(self, grid: Grid) -> String {
        self.av6()
            .and_then(|av6| write(av6, &APERTURE_THIRDS, &APERTURE_HALVES, grid))
            .map_or_else(|| trimmed(self.0, 1), str::to_owned)
    }

    fn position(self) -> f64 {
        12.0 * self.0.log2()
    }
}

impl ShutterTime {
    /// The exact value at a position: `2^(−tv6/6)` seconds.
    pub fn from_tv6(tv6: i32) -> Self {
        Self((-f64::from(tv6) / 6.0).exp2())
    }

    /// The position of the grid of sixths nearest to a time.
    pub fn near(time: Seconds) -> Self {
        Self::from_tv6(nearest(Self::position_of(time)))
    }

    /// Where a time stands on the grid, in sixths of a stop.
    pub fn position_of(time: Seconds) -> f64 {
        -6.0 * time.as_secs().log2()
    }

    /// From text as on the dial: `1/250`, `0.5`, `0.5"`, `2 s`.
    ///
    /// # Errors
    /// [`Invalid::NotAllowed`] for text that is no time, [`Invalid::OutOfRange`] outside 1 µs to 1 h.
    pub fn read(field: &str, text: &str, grid: Grid) -> Result<Self, Invalid> {
        let bare = text.trim().trim_end_matches(['"', 's', '″']).trim();
        let refuse = || Invalid::NotAllowed {
            field: field.to_owned(),
            given: text.chars().take(40).collect(),
            allowed: "a time such as 1/250, 0.5 or 2\"".to_owned(),
        };
        let seconds = match bare.split_once('/') {
            Some((over, under)) => {
                let (over, under): (f64, f64) =
                    (over.trim().parse().map_err(|_| refuse())?, under.trim().parse().map_err(|_| refuse())?);
                over / under
            }
            None => bare.parse().map_err(|_| refuse())?,
        };
        // "1/0" and "inf" are read as figures, and are none on any dial.
        if !seconds.is_finite() {
            return Err(refuse());
        }
        let literal = SHUTTER.check(field, seconds)?;
        let label = if bare.contains('/') { bare.replace(' ', "") } else { format!("{}\"", trimmed(seconds, 6)) };
        let known = find(&label, grid, &SHUTTER_THIRDS, &SHUTTER_HALVES);
        Ok(known.map_or(Self(literal), Self::from_tv6))
    }

    /// Taken literally, for times that were computed.
    ///
    /// # Errors
    /// [`Invalid::OutOfRange`] outside 1 µs to 1 h.
    pub fn from_time(field: &str, time: Seconds) -> Result<Self, Invalid> {
        SHUTTER.check(field, time.as_secs()).map(Self)
    }

    /// The time.
    pub fn time(self) -> Seconds {
        Seconds::from_secs(self.0)
    }

    /// The customary label: `1/250` or `2"`.
    pub fn label(self, grid: Grid) -> String {
        self.tv6()
            .and_then(|tv6| write(tv6, &SHUTTER_THIRDS, &SHUTTER_HALVES, grid))
            .map_or_else(|| duration_label(self.time()), str::to_owned)
    }

    fn position(self) -> f64 {
        -6.0 * self.0.log2()
    }
}

impl Iso {
    /// The position of the grid of sixths nearest to a sensitivity.
    pub fn near(number: f64) -> Self {
        Self::from_sv6(nearest(6.0 * (number / 100.0).log2()))
    }

    /// The exact value at a position: `100·2^(sv6/6)`.
    pub fn from_sv6(sv6: i32) -> Self {
        Self(100.0 * (f64::from(sv6) / 6.0).exp2())
    }

    /// From a figure as a photographer writes it.
    ///
    /// # Errors
    /// [`Invalid::OutOfRange`] unless 1 ≤ `number` ≤ 6 553 600.
    pub fn read(field: &str, number: f64, grid: Grid) -> Result<Self, Invalid> {
        let literal = ISO.check(field, number)?;
        let known = find_figure(number, Self(literal).position(), grid, [&ISO_THIRDS, &ISO_HALVES]);
        Ok(known.map_or(Self(literal), Self::from_sv6))
    }

    /// The sensitivity.
    pub fn number(self) -> f64 {
        self.0
    }

    /// The customary label.
    pub fn label(self, grid: Grid) -> String {
        self.sv6()
            .and_then(|sv6| write(sv6, &ISO_THIRDS, &ISO_HALVES, grid))
            .map_or_else(|| trimmed(self.0, 0), str::to_owned)
    }

    fn position(self) -> f64 {
        6.0 * (self.0 / 100.0).log2()
    }
}

/// A duration as photographers write it: `1/1900` below a third of a second, else seconds. Two significant digits
/// of the reciprocal are what anyone can use.
pub fn duration_label(time: Seconds) -> String {
    let seconds = time.as_secs();
    if seconds <= 0.0 || !seconds.is_finite() {
        return "none".to_owned();
    }
    if seconds >= 0.3 {
        return format!("{}\"", trimmed(seconds, 1));
    }
    let reciprocal = 1.0 / seconds;
    let unit = 10f64.powf(reciprocal.log10().floor() - 1.0);
    format!("1/{}", trimmed((reciprocal / unit).round() * unit, 0))
}

/// A power fraction as photographers write it: `1/8`, or `1/8 +0.3` between whole stops.
pub fn power_label(below_full: Stops) -> String {
    // No power at all is endlessly far below full, and less than none is no power.
    if !below_full.as_stops().is_finite() {
        return "no power".to_owned();
    }
    let whole = (below_full.as_stops() - 1e-6).ceil().max(0.0);
    let above = whole - below_full.as_stops();
    let base = if whole == 0.0 { "1/1".to_owned() } else { format!("1/{}", trimmed(whole.exp2(), 0)) };
    if above < 0.04 { base } else { format!("{base} +{above:.1}") }
}

/// An aperture value in tenths of a stop as meters say it: the whole stop and the tenths beyond it.
pub fn meter_words(tenths: i32) -> String {
    let (whole, rest) = (tenths.div_euclid(10), tenths.rem_euclid(10));
    let stop = Aperture::from_av6(6 * whole).label(Grid::Thirds);
    match rest {
        0 => format!("f/{stop}"),
        1 => format!("f/{stop} and 1 tenth"),
        _ => format!("f/{stop} and {rest} tenths"),
    }
}
