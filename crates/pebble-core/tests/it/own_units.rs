//! Units as their owners know them: their own dial, durations from leaflets, and what nobody has entered.

use crate::common::{plan, shot};
use pebble_core::gear::{Because, Control, Correction, Discharge, FlashUnit, Origin, Output, Source, TableRow};
use pebble_core::quantity::Joules;
use pebble_core::quantity::dial::{DialStyle, PowerDial};
use pebble_core::quantity::said::{FigureKind, read_in};
use pebble_core::sheet::sheet;
use pebble_core::shot::Shot;
use pebble_core::{findings, outlook, strips, typed};
use proptest::prelude::*;

fn near(what: &str, found: f64, wanted: f64, tolerance: f64) {
    assert!((found / wanted - 1.0).abs() <= tolerance, "{what}: {found}, not {wanted}");
}

fn dial(style: DialStyle) -> PowerDial {
    PowerDial { style, full: Some(Joules::from_joules(400.0)) }
}

fn with_unit(change: impl FnOnce(&mut FlashUnit)) -> Shot {
    let mut shot = shot();
    change(&mut shot.lights[0].unit);
    shot
}

#[test]
fn a_power_is_written_and_read_as_on_its_dial() {
    use DialStyle::{Fractions, Numbers, Percent};
    for (style, power, label) in [
        (Fractions, 1.0 / 16.0, "1/16"),
        (Numbers, 1.0, "10.0"),
        (Numbers, 1.0 / 16.0, "6.0"),
        (Numbers, 0.5_f64.powf(3.7), "6.3"),
        (Percent, 0.5, "50 %"),
        (Percent, 1.0 / 16.0, "6.25 %"),
        (DialStyle::Joules, 1.0, "400 J"),
        (DialStyle::Joules, 1.0 / 16.0, "25 J"),
        (DialStyle::Joules, 1.0 / 256.0, "1.56 J"),
    ] {
        assert_eq!(dial(style).label(power), label, "{style:?} {power}");
        let read = dial(style).read(label).unwrap();
        assert!((read / power).log2().abs() < 0.06, "{style:?} “{label}” is {read}");
    }
    for (style, text, power) in [
        (Numbers, "7", 0.125),
        (Numbers, "6,3", 0.076_946),
        (Numbers, "1/8", 0.125),
        (Percent, "25", 0.25),
        (Percent, "1/4", 0.25),
        (DialStyle::Joules, "100", 0.25),
        (Fractions, "100 J", 0.25),
        (Fractions, "full", 1.0),
    ] {
        near(&format!("{style:?} “{text}”"), dial(style).read(text).unwrap(), power, 1e-4);
    }
    // A bare whole number on a dial of fractions is a half of one, or a step of another dial.
    assert!(dial(Fractions).read("16").unwrap_err().to_string().contains("1/16"));
    assert!(dial(Numbers).read("ten").is_err() && dial(Percent).read("0").is_err());
    let unknown = PowerDial { style: DialStyle::Joules, full: None };
    assert_eq!(unknown.label(0.25), "1/4");
    assert!(unknown.read("100 J").is_err());
}

#[test]
fn the_dial_of_a_unit_shows_wherever_its_power_does() {
    let shot = with_unit(|unit| {
        (unit.dial, unit.energy_j, unit.step_stops) = (Some(DialStyle::Numbers), Some(400.0), Some(0.1))
    });
    let plan = plan(&shot);
    let strip = strips::strips(&plan).into_iter().find(|strip| strip.id == "power").unwrap();
    assert_eq!(strip.notches.last().unwrap().label, "10.0");
    for notch in &strip.notches {
        assert_eq!(typed::typed(&plan, "power", Some(0), &notch.label).unwrap().value, notch.value, "{}", notch.label);
    }
    // A tenth that is on the dial is taken as it is; a step that it lacks takes the nearest and says so.
    assert!(typed::typed(&plan, "power", Some(0), "7.3").unwrap().exact);
    let between = typed::typed(&plan, "power", Some(0), "7.34").unwrap();
    assert_eq!((between.label.as_str(), between.exact), ("7.3", false));
    let told = serde_json::to_string(&pebble_core::forecast(&plan)).unwrap();
    let label = plan.lights[0].unit.dial.label(shot.lights[0].power);
    assert!(told.contains(&format!("\"power_label\":\"{label}\"")), "{label}");
    // Joules without an energy are refused where they are chosen.
    let why = pebble_core::Plan::try_from(&with_unit(|unit| {
        (unit.dial, unit.energy_j, unit.recycle_s) = (Some(DialStyle::Joules), None, None);
    }))
    .unwrap_err();
    assert_eq!(why.field(), "lights[0].unit.dial");
}

/// A unit of which only what is asked first was entered.
fn bare(control: Control) -> FlashUnit {
    FlashUnit { output: Output::GuideNumber { metres: 50.0 }, control, ..FlashUnit::unknown("own") }
}

fn quenched(t05_ms: Option<f64>, t01_ms: Option<f64>) -> Control {
    Control::Quenched { decay_ms: None, t05_ms, t01_ms, rise_ms: None, fall_ms: None }
}

#[test]
fn a_full_flash_is_as_long_as_its_leaflet_says() {
    let at_full = |control: Control| {
        let told = sheet(&bare(control), 2.0).unwrap();
        (told.powers[0].t05_s, told.powers[0].t01_s)
    };
    for ms in [0.2, 0.9, 2.5] {
        near("t0.5", at_full(quenched(Some(ms), None)).0, ms / 1e3, 1e-6);
        near("t0.1", at_full(quenched(None, Some(ms))).1, ms / 1e3, 1e-6);
        let voltage =
            Control::ChargeVoltage { decay_ms: None, t05_ms: Some(ms), t01_ms: None, rise_ms: None, gamma: 0.1 };
        near("of a store that runs out", at_full(voltage).0, ms / 1e3, 1e-6);
    }
    for (control, field) in [
        (quenched(None, None), "control.t05_ms"),
        (quenched(Some(0.9), Some(2.7)), "control.t01_ms"),
        (quenched(Some(-1.0), None), "control.t05_ms"),
    ] {
        assert_eq!(sheet(&bare(control), 2.0).unwrap_err().field(), field);
    }
}

#[test]
fn t05_alone_gives_a_range_of_t01_and_the_rule_of_three_is_named() {
    let rows = vec![
        TableRow { power: 1.0, t05_ms: Some(1.0), t01_ms: None },
        TableRow { power: 0.25, t05_ms: Some(0.3), t01_ms: None },
    ];
    let unit = bare(Control::Table { rows, discharge: Some(Discharge::Cut) });
    let told = sheet(&unit, 2.0).unwrap();
    assert_eq!(told.powers[0].t01_range, Some(["1/1000".to_owned(), "1/300".to_owned()]));
    assert!(told.powers[0].t01_s > 0.001 && told.powers[0].t01_s < 0.0034);
    assert!(told.remarks.iter().any(|remark| remark.contains("Three times t0.5")), "{:?}", told.remarks);
    // Both given: there is nothing to say.
    let rows = vec![TableRow { power: 1.0, t05_ms: Some(1.0), t01_ms: Some(2.0) }];
    let sure = sheet(&bare(Control::Table { rows, discharge: None }), 2.0).unwrap();
    assert_eq!(sure.powers[0].t01_range, None);
    // On the Bench the finding says what it costs.
    let mut shot = with_unit(|own| (own.control, own.recordings) = (unit.control.clone(), Vec::new()));
    shot.lights[0].power = 0.25;
    let plan = plan(&shot);
    let found = findings::judge(&plan, &outlook(&plan));
    let doubt = found.iter().find(|one| one.id.starts_with("duration-doubtful")).unwrap();
    assert!(doubt.cause.contains("three times t0.5") && doubt.cause.contains("1/3300"), "{}", doubt.cause);
}

#[test]
fn what_nobody_entered_is_said_where_it_costs_something() {
    let unit = bare(quenched(Some(0.9), None));
    let told = sheet(&unit, 2.0).unwrap();
    assert_eq!(told.powers.last().unwrap().power_label, "1/32");
    for words in ["Its dial is not known", "Its own delay is not known"] {
        assert!(told.remarks.iter().any(|remark| remark.starts_with(words)), "{words}: {:?}", told.remarks);
    }
    // A table goes as far as it is known.
    let rows = vec![
        TableRow { power: 1.0, t05_ms: None, t01_ms: Some(2.0) },
        TableRow { power: 1.0 / 128.0, t05_ms: None, t01_ms: Some(0.1) },
    ];
    let deep = sheet(&bare(Control::Table { rows, discharge: None }), 2.0).unwrap();
    assert_eq!(deep.powers.last().unwrap().power_label, "1/128");
    let mut shot = with_unit(|own| *own = FlashUnit { id: own.id.clone(), ..bare(quenched(Some(0.9), None)) });
    shot.lights[0].power = 0.25;
    let ids = |shot: &Shot| -> Vec<String> {
        let plan = plan(shot);
        findings::judge(&plan, &outlook(&plan)).into_iter().map(|found| found.id).collect()
    };
    assert!(ids(&shot).iter().any(|id| id.starts_with("unit-not-known")), "{:?}", ids(&shot));
    let own = &mut shot.lights[0].unit;
    (own.step_stops, own.lowest_stops, own.lag_ms) = (Some(1.0), Some(6.0), Some(0.1));
    assert!(!ids(&shot).iter().any(|id| id.starts_with("unit-not-known")));
}

#[test]
fn corrections_multiply_and_a_guessed_one_makes_the_times_a_guess() {
    let plain = bare(quenched(Some(0.9), None));
    let long = |percent: f64, origin: Origin| {
        let correction = Correction { because: Because::Cable, percent, from: Source::plain(origin) };
        FlashUnit { corrections: vec![correction], ..plain.clone() }
    };
    let t05 = |unit: &FlashUnit| sheet(unit, 2.0).unwrap().powers[2].t05_s;
    near("10 % longer", t05(&long(10.0, Origin::Measured)), t05(&plain) * 1.1, 1e-9);
    let guessed = sheet(&long(25.0, Origin::Estimated), 2.0).unwrap();
    assert_eq!(guessed.powers[0].origin, Origin::Estimated);
    assert!(
        guessed.remarks.iter().any(|remark| remark == "Long cable: all times 25 % longer."),
        "{:?}",
        guessed.remarks
    );
    assert_eq!(sheet(&long(-100.0, Origin::Measured), 2.0).unwrap_err().field(), "corrections[0].percent");
}

#[test]
fn a_field_reads_in_its_own_unit_and_in_every_other() {
    for (kind, unit, text, value) in [
        (FigureKind::Time, "ms", "2.2", 2.2),
        (FigureKind::Time, "ms", "1/1900", 1000.0 / 1900.0),
        (FigureKind::Time, "ms", "1/220 s", 1000.0 / 220.0),
        (FigureKind::Time, "ms", "450 µs", 0.45),
        (FigureKind::Time, "s", "1 1/2", 1.5),
        (FigureKind::Length, "m", "6 ft 6", 1.9812),
        (FigureKind::Length, "m", "2,5 m", 2.5),
        (FigureKind::Length, "cm", "2 in", 5.08),
        (FigureKind::Stops, "stops", "−1 1/3", -4.0 / 3.0),
        (FigureKind::Speed, "m/s", "40 km/h", 40.0 / 3.6),
        (FigureKind::Mass, "kg", "800 g", 0.8),
        (FigureKind::Energy, "j", "0.4 kJ", 400.0),
        (FigureKind::Charge, "wh", "55 Wh", 55.0),
        (FigureKind::Exposure, "lx·s", "4000 lx·s", 4000.0),
        (FigureKind::Rate, "/s", "8 fps", 8.0),
        (FigureKind::Share, "", "85 %", 0.85),
        (FigureKind::Number, "", "1/2", 0.5),
        (FigureKind::Mired, "mired", "+60", 60.0),
    ] {
        near(&format!("{kind:?} “{text}” in {unit}"), read_in(kind, unit, text).unwrap(), value, 1e-9);
    }
    for (kind, text, value) in [
        (FigureKind::Stops, "f/8 to f/5.6", -1.0),
        (FigureKind::Stops, "5.6 and 3 → 8 and 1", 0.8),
        (FigureKind::Lux, "60 lx at 3 m", 540.0),
        (FigureKind::Lux, "60 at 6 ft", 60.0 * 1.8288 * 1.8288),
        (FigureKind::Lux, "f/2.8 1/60 ISO 800", 340.0 * 8.0 * 64.0 / 800.0),
        (FigureKind::Lux, "f/2.8 1/60 ISO 800 at 2 m", 340.0 * 8.0 * 64.0 / 200.0),
    ] {
        let found = typed::figure(
            kind,
            Some(if kind == FigureKind::Lux { "lx" } else { "stops" }),
            (PowerDial::default(), pebble_core::Meter::default()),
            text,
        );
        near(text, found.unwrap(), value, 1e-3);
    }
    for (kind, unit, text) in [
        (FigureKind::Stops, "stops", "f/8 to nothing"),
        (FigureKind::Lux, "lx", "60 lx at noon"),
        (FigureKind::Length, "m", "1/2"),
        (FigureKind::Length, "m", "f/5.6"),
        (FigureKind::Time, "ms", "2 m"),
        (FigureKind::Mass, "kg", "heavy"),
        (FigureKind::Time, "fortnight", "1/2 fortnight"),
    ] {
        assert!(read_in(kind, unit, text).is_err(), "{kind:?} “{text}”");
    }
}

proptest! {
    /// What a dial shows is read back to within half of its last digit.
    #[test]
    fn every_dial_reads_what_it_writes(style in 0..DialStyle::ALL.len(), below in 0.0..10.0_f64) {
        let dial = dial(DialStyle::ALL[style]);
        let power = (-below).exp2();
        let read = dial.read(&dial.label(power)).unwrap();
        prop_assert!((read / power).log2().abs() < 0.06, "{} is {}", dial.label(power), read);
    }
}
