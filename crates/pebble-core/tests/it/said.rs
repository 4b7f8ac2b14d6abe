//! Figures as they are typed: each is read as anyone would read it, or refused with a sentence that helps.

use crate::common::{examples, plan};
use pebble_core::quantity::said::{FigureKind, Unclear, dial_time, read};
use pebble_core::{strips, typed};
use proptest::prelude::*;

/// Typed, and what it is.
const READ: &[(FigureKind, &str, f64)] = &[
    // Exposures and durations.
    (FigureKind::Time, "1/125", 1.0 / 125.0),
    (FigureKind::Time, "1/220", 1.0 / 220.0),
    (FigureKind::Time, "1/1900", 1.0 / 1900.0),
    (FigureKind::Time, "1/1900 s", 1.0 / 1900.0),
    (FigureKind::Time, "1/1900s", 1.0 / 1900.0),
    (FigureKind::Time, "1⁄60", 1.0 / 60.0),
    (FigureKind::Time, "0.4s", 0.4),
    (FigureKind::Time, "0.4", 0.4),
    (FigureKind::Time, ".4", 0.4),
    (FigureKind::Time, "0,4 s", 0.4),
    (FigureKind::Time, "0.5\"", 0.5),
    (FigureKind::Time, "2\"", 2.0),
    (FigureKind::Time, "2″", 2.0),
    (FigureKind::Time, "2 s", 2.0),
    (FigureKind::Time, "2 sec", 2.0),
    (FigureKind::Time, "1", 1.0),
    (FigureKind::Time, "30 seconds", 30.0),
    (FigureKind::Time, "1.3", 1.3),
    (FigureKind::Time, "8 ms", 8e-3),
    (FigureKind::Time, "8,5ms", 8.5e-3),
    (FigureKind::Time, "400 µs", 4e-4),
    (FigureKind::Time, "400 us", 4e-4),
    (FigureKind::Time, "2 min", 120.0),
    (FigureKind::Time, "１／２５０", 1.0 / 250.0),
    (FigureKind::Time, "١/١٢٥", 1.0 / 125.0),
    (FigureKind::Time, "\u{202b}1/60\u{202c}", 1.0 / 60.0),
    (FigureKind::Time, "  1/60  ", 1.0 / 60.0),
    // Apertures.
    (FigureKind::Aperture, "2.8", 2.8),
    (FigureKind::Aperture, "2,8", 2.8),
    (FigureKind::Aperture, "f2.8", 2.8),
    (FigureKind::Aperture, "f/2.8", 2.8),
    (FigureKind::Aperture, "F/11", 11.0),
    (FigureKind::Aperture, "f 4", 4.0),
    (FigureKind::Aperture, "16", 16.0),
    // ISO.
    (FigureKind::Iso, "400", 400.0),
    (FigureKind::Iso, "ISO 400", 400.0),
    (FigureKind::Iso, "iso1600", 1600.0),
    (FigureKind::Iso, "12800", 12800.0),
    // Powers.
    (FigureKind::Power, "1/16", 1.0 / 16.0),
    (FigureKind::Power, "1/1", 1.0),
    (FigureKind::Power, "full", 1.0),
    (FigureKind::Power, "Full", 1.0),
    (FigureKind::Power, "1", 1.0),
    (FigureKind::Power, "0.25", 0.25),
    (FigureKind::Power, "25%", 0.25),
    (FigureKind::Power, "12,5 %", 0.125),
    (FigureKind::Power, "1/16 +0.3", 0.076_946_526),
    (FigureKind::Power, "1/16+1/3", 0.078_745_1),
    (FigureKind::Power, "1/4 -1/3", 0.198_425_1),
    (FigureKind::Power, "1/8 −0.7", 0.076_946_526),
    (FigureKind::Power, "1/2 +1 stop", 1.0),
    // Stops.
    (FigureKind::Stops, "+1", 1.0),
    (FigureKind::Stops, "1", 1.0),
    (FigureKind::Stops, "-2", -2.0),
    (FigureKind::Stops, "−1 1/3", -4.0 / 3.0),
    (FigureKind::Stops, "-1 1/3", -4.0 / 3.0),
    (FigureKind::Stops, "1⅓", 4.0 / 3.0),
    (FigureKind::Stops, "⅔", 2.0 / 3.0),
    (FigureKind::Stops, "1/3", 1.0 / 3.0),
    (FigureKind::Stops, "+0,7", 0.7),
    (FigureKind::Stops, "−½", -0.5),
    (FigureKind::Stops, "2 stops", 2.0),
    (FigureKind::Stops, "1 EV", 1.0),
    (FigureKind::Stops, "0", 0.0),
    // Filters.
    (FigureKind::Filter, "none", 0.0),
    (FigureKind::Filter, "off", 0.0),
    (FigureKind::Filter, "0", 0.0),
    (FigureKind::Filter, "ND 0.9", 2.989_735),
    (FigureKind::Filter, "nd0.3", 0.996_578),
    (FigureKind::Filter, "ND 1.8", 5.979_47),
    (FigureKind::Filter, "ND8", 3.0),
    (FigureKind::Filter, "ND 64", 6.0),
    (FigureKind::Filter, "3 stops", 3.0),
    (FigureKind::Filter, "ND 3 stops", 3.0),
    (FigureKind::Filter, "1.5 stops", 1.5),
    (FigureKind::Filter, "25 %", 2.0),
    (FigureKind::Filter, "50% through", 1.0),
    (FigureKind::Filter, "100 %", 0.0),
    // Distances.
    (FigureKind::Length, "1.2", 1.2),
    (FigureKind::Length, "1.2 m", 1.2),
    (FigureKind::Length, "1,2m", 1.2),
    (FigureKind::Length, "2,5 m", 2.5),
    (FigureKind::Length, "120 cm", 1.2),
    (FigureKind::Length, "1200mm", 1.2),
    (FigureKind::Length, "6 ft", 1.8288),
    (FigureKind::Length, "6 ft 6", 1.9812),
    (FigureKind::Length, "6 ft 6 in", 1.9812),
    (FigureKind::Length, "6'6\"", 1.9812),
    (FigureKind::Length, "6′ 6″", 1.9812),
    (FigureKind::Length, "5 feet", 1.524),
    (FigureKind::Length, "40 in", 1.016),
    (FigureKind::Length, "40\"", 1.016),
    (FigureKind::Length, "6 1/2 ft", 1.9812),
    (FigureKind::Length, "7", 7.0),
    (FigureKind::Length, "1.200 m", 1.2),
    (FigureKind::Length, "0,125", 0.125),
    (FigureKind::Length, "1200,5 mm", 1.2005),
    // Lenses.
    (FigureKind::Focal, "85", 85.0),
    (FigureKind::Focal, "85 mm", 85.0),
    (FigureKind::Focal, "85MM", 85.0),
    // Speeds.
    (FigureKind::Speed, "4", 4.0),
    (FigureKind::Speed, "4 m/s", 4.0),
    (FigureKind::Speed, "40 km/h", 11.111_111),
    (FigureKind::Speed, "36kmh", 10.0),
    (FigureKind::Speed, "25 mph", 11.176),
    (FigureKind::Speed, "10 ft/s", 3.048),
    (FigureKind::Speed, "5:00 /km", 3.333_333),
    (FigureKind::Speed, "5:30 min/km", 3.030_303),
    (FigureKind::Speed, "8:00/mi", 3.3528),
    (FigureKind::Speed, "320 rpm @ 0.3 m", 10.053_096),
    (FigureKind::Speed, "90rpm@50cm", 4.712_389),
    (FigureKind::Speed, "0", 0.0),
    // Angles, shares, colours, light.
    (FigureKind::Angle, "45", 45.0),
    (FigureKind::Angle, "-30°", -30.0),
    (FigureKind::Angle, "90 deg", 90.0),
    (FigureKind::Share, "25 %", 0.25),
    (FigureKind::Share, "0.25", 0.25),
    (FigureKind::Share, "1/4", 0.25),
    (FigureKind::Share, "1", 1.0),
    (FigureKind::Kelvin, "5500", 5500.0),
    (FigureKind::Kelvin, "3200 K", 3200.0),
    (FigureKind::Lux, "60", 60.0),
    (FigureKind::Lux, "60 lx", 60.0),
    (FigureKind::Lux, "1.2 klx", 1200.0),
];

/// Typed, and what the refusal says.
const REFUSED: &[(FigureKind, &str, &str)] = &[
    // What can be two things is said to be.
    (FigureKind::Time, "125", "could be 1/125 s or 125 s"),
    (FigureKind::Time, "60", "could be 1/60 s or 60 s"),
    (FigureKind::Power, "16", "could be 1/16 or 16 %"),
    (FigureKind::Power, "5.0.1", "is no figure for a power"),
    (FigureKind::Filter, "0.9", "ND 0.9 by density or 0.9 stops"),
    (FigureKind::Filter, "3", "ND 3 by density or 3 stops"),
    (FigureKind::Filter, "ND 2", "ND 2.0 by density or 1.0 stops by its factor"),
    (FigureKind::Share, "25", "could be 25 % or 1/25"),
    (FigureKind::Length, "1,200", "could be 1200 or 1.200"),
    (FigureKind::Lux, "12,500 lx", "could be 12500 lx or 12.500 lx"),
    (FigureKind::Length, "1/2", "is no figure for a distance"),
    // What is another thing is called by its name.
    (FigureKind::Time, "f5.6", "is an aperture, and this is a time"),
    (FigureKind::Time, "f/5.6", "is an aperture, and this is a time"),
    (FigureKind::Time, "ISO 400", "is an ISO, and this is a time"),
    (FigureKind::Time, "3 m", "is a distance, and this is a time"),
    (FigureKind::Aperture, "1/125 s", "is a time, and this is an aperture"),
    (FigureKind::Aperture, "1/2", "is no figure for an aperture"),
    (FigureKind::Length, "40 km/h", "is a speed, and this is a distance"),
    (FigureKind::Length, "ND 0.9", "is a filter, and this is a distance"),
    (FigureKind::Speed, "5 m", "is a distance, and this is a speed"),
    (FigureKind::Iso, "5500 K", "is a colour temperature, and this is an ISO"),
    (FigureKind::Stops, "25 %", "is a share, and this is a number of stops"),
    // What is nothing.
    (FigureKind::Time, "", "Nothing stands there. 1/125"),
    (FigureKind::Time, "   ", "Nothing stands there"),
    (FigureKind::Time, "\u{200f}", "Nothing stands there"),
    (FigureKind::Time, "abc", "“abc” is no figure for a time"),
    (FigureKind::Time, "1/0", "is no figure"),
    (FigureKind::Time, "1/", "is no figure"),
    (FigureKind::Time, "0", "is not a time that can be"),
    (FigureKind::Time, "-1/60", "is not a time that can be"),
    (FigureKind::Time, "1e400", "is no figure"),
    (FigureKind::Time, "NaN", "is no figure"),
    (FigureKind::Time, "inf", "is no figure"),
    (FigureKind::Time, "1/60 1/30", "is no figure"),
    (FigureKind::Speed, "fast", "“fast” is no figure for a speed"),
    (FigureKind::Speed, "5:75 /km", "is no figure"),
    (FigureKind::Speed, "320 rpm", "is no figure"),
    (FigureKind::Speed, "320 rpm @ fast", "is no figure"),
    (FigureKind::Length, "6 ft 14", "is no figure"),
    (FigureKind::Length, "6 ft -1", "is no figure"),
    (FigureKind::Length, "6.5 ft 6", "is no figure"),
    (FigureKind::Length, "-2 m", "is not a distance that can be"),
    (FigureKind::Power, "-1", "is no figure for a power"),
    (FigureKind::Power, "0", "is not a power that can be"),
    (FigureKind::Aperture, "0", "is not an aperture that can be"),
    (FigureKind::Kelvin, "warm", "is no figure"),
    (FigureKind::Time, "1/1234567890123456789012345678901234567890", "has 42 signs"),
];

#[test]
fn figures_are_read_as_they_are_said() {
    for (kind, text, wanted) in READ {
        let found = read(*kind, text).unwrap_or_else(|why| panic!("{kind:?} “{text}”: {why}"));
        assert!((found - wanted).abs() <= 1e-6 * wanted.abs().max(1e-3), "{kind:?} “{text}”: {found}, not {wanted}");
    }
    for (kind, text, words) in REFUSED {
        let why = read(*kind, text).map(|value| panic!("{kind:?} “{text}” was read as {value}")).unwrap_err();
        assert!(why.to_string().contains(words), "{kind:?} “{text}”: {why}");
    }
    assert!(READ.len() + REFUSED.len() >= 120);
    // Far too much is refused before it is gone through.
    let much = "9".repeat(10_000);
    assert_eq!(read(FigureKind::Iso, &much), Err(Unclear::TooLong { kind: FigureKind::Iso, signs: 10_000 }));
}

#[test]
fn what_a_dial_shows_reads_back_as_itself() {
    for shot in examples() {
        let plan = plan(&shot);
        for strip in strips::strips(&plan) {
            for (index, notch) in strip.notches.iter().enumerate() {
                let found = typed::typed(&plan, &strip.id, strip.light, &notch.label);
                let found = found.unwrap_or_else(|why| panic!("{} “{}”: {why}", strip.id, notch.label));
                assert_eq!((found.index, &found.value), (index, &notch.value), "{} “{}”", strip.id, notch.label);
            }
        }
    }
}

/// What is kept in words is kept as a dial writes it, and reads back as the time that was said.
#[test]
fn a_time_is_written_as_on_a_dial() {
    use pebble_core::quantity::scale::{Grid, ShutterTime};
    for (said, dial) in [
        ("1/125", "1/125"),
        (" 1/1234 s", "1/1234"),
        ("8 ms", "1/125"),
        ("0,4s", "0.4\""),
        ("0.5", "0.5\""),
        ("2\"", "2\""),
        ("2 s", "2\""),
        ("1/2", "0.5\""),
        ("１／６０", "1/60"),
        ("17 ms", "0.017\""),
    ] {
        assert_eq!(dial_time(said).unwrap(), dial, "{said}");
        let meant = read(FigureKind::Time, said).unwrap();
        let kept = ShutterTime::read("time", dial, Grid::Thirds).unwrap().time().as_secs();
        assert!((kept / meant).log2().abs() < 0.11, "{said}: {kept} s");
    }
    for said in ["125", "60", "f/8", "", "soon", "1/0"] {
        assert!(dial_time(said).is_err(), "{said}");
    }
    assert!(dial_time("250").unwrap_err().to_string().contains("could be 1/250 s or 250 s"));
}

#[test]
fn a_figure_between_two_notches_takes_the_nearest_and_one_beyond_is_refused() {
    let plan = plan(&examples().remove(0));
    let label =
        |strip: &str, text: &str| typed::typed(&plan, strip, Some(0), text).map(|found| (found.label, found.exact));
    let taken = |strip: &str, text: &str, wanted: &str, exact: bool| {
        assert_eq!(label(strip, text), Ok((wanted.to_owned(), exact)), "{strip} “{text}”");
    };
    taken("subject_distance", "1.23", "1.2 m", false);
    taken("subject_distance", "4 ft", "1.2 m", false);
    taken("shutter", "1/220", "1/200", false);
    taken("shutter", "1/125", "1/125", true);
    taken("aperture", "f/2.9", "2.8", false);
    taken("power", "1/17", "1/16", false);
    taken("filter", "ND8", "ND 0.9", true);
    taken("sync", "rear", "rear", true);
    let refused = |strip: &str, text: &str, words: &str| {
        let why = label(strip, text).expect_err(text).to_string();
        assert!(why.contains(words), "{strip} “{text}”: {why}");
    };
    refused("aperture", "0.7", "is beyond this dial");
    refused("power", "1/2000", "is beyond this dial");
    refused("shutter", "125", "could be 1/125 s or 125 s");
    refused("subject_distance", "500 m", "is beyond this dial: 0.3 m to 100 m");
    refused("sync", "sideways", "is none of front, rear");
    refused("sync", "", "is none of");
    refused("nothing", "1", "is no control");
}

proptest! {
    /// Whatever is typed: a figure that can be, or a sentence.
    #[test]
    fn anything_is_a_figure_or_a_sentence(text in "\\PC{0,45}", which in 0..FigureKind::ALL.len()) {
        match read(FigureKind::ALL[which], &text) {
            Ok(value) => prop_assert!(value.is_finite()),
            Err(why) => prop_assert!(why.to_string().ends_with('.')),
        }
    }

    /// Spaces, decimal signs, digits of other scripts and marks of direction change nothing.
    #[test]
    fn the_way_it_is_written_changes_nothing(tenths in 1_u32..2000, spaces in 0_usize..3) {
        let plain = format!("{}.{} m", tenths / 10, tenths % 10);
        let wanted = read(FigureKind::Length, &plain).unwrap();
        let wide: String = plain.chars().map(|sign| match sign {
            '0'..='9' => char::from_u32(0xff10 + sign.to_digit(10).unwrap()).unwrap(),
            sign => sign,
        }).collect();
        for text in [
            plain.replace('.', ","),
            plain.replace(' ', &"\u{a0}".repeat(spaces)),
            format!("{}{plain}\u{200f}", " ".repeat(spaces)),
            wide,
            plain.to_uppercase(),
        ] {
            prop_assert_eq!(read(FigureKind::Length, &text), Ok(wanted), "{}", text);
        }
    }
}
