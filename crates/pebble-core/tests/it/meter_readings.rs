//! What a meter reads goes in as it is said, moves the forecast by just that, and stays with the light and its unit.

use crate::common::{examples, plan, shot};
use pebble_core::gear::Kit;
use pebble_core::matching::{Brief, Going, Priority, Stock, find};
use pebble_core::meters::{FarBecause, MeterAt, MeterReading, MeterTaken, NotMetered, ReadAs, metered, reread};
use pebble_core::quantity::said;
use pebble_core::quantity::scale::meter_words;
use pebble_core::shot::{Automatic, Shot};
use pebble_core::{forecast, outlook};
use proptest::prelude::*;

fn reading(at: MeterAt, light: Option<usize>, read: &str) -> MeterReading {
    MeterReading { at, light, read: read.to_owned(), iso: None, time: None, on: None, because: None }
}

fn of_light(shot: &Shot, light: usize, read: &str) -> Result<MeterTaken, NotMetered> {
    metered(shot, &reading(MeterAt::Light, Some(light), read))
}

fn on_set(shot: &Shot, light: usize) -> f64 {
    outlook(&plan(shot)).lights[light].on_set.exposure.as_lux_seconds()
}

/// What a meter would show of a light, so many stops beside what is computed.
fn shown(shot: &Shot, light: usize, beside: f64) -> String {
    let square = on_set(shot, light) * shot.camera.iso / 340.0;
    format!("Av {}", square.log2() + beside)
}

#[test]
fn a_meter_is_read_as_it_is_said() {
    for (text, av) in [
        ("5.6", 5.0),
        ("f/5.6", 5.0),
        ("f5.6 and 3 tenths", 5.3),
        ("5.6 and 3", 5.3),
        ("5.6 3", 5.3),
        ("5,6 3", 5.3),
        ("f/5.6 +0.3", 5.3),
        ("f/8 .5", 6.5),
        ("8 and 1 tenth", 6.1),
        ("6.3", 16.0 / 3.0),
        ("Av 5.3", 5.3),
        ("5.97", 2.0 * 5.97_f64.log2()),
    ] {
        assert!((said::meter(text).unwrap() - av).abs() < 1e-9, "“{text}”: {:?}", said::meter(text));
    }
    for text in ["", "5.6 33", "1/2", "-5.6", "f/", "5.6 and a half", "0.01", "5.6 m", "ISO 5.6", &"9".repeat(10_000)] {
        assert!(said::meter(text).is_err(), "“{text}”");
    }
}

#[test]
fn a_reading_of_one_light_moves_the_forecast_by_just_that() {
    let before = shot();
    for beside in [-1.2, 0.4, 1.3] {
        let taken = of_light(&before, 0, &shown(&before, 0, beside)).unwrap();
        assert!((taken.stops.unwrap() - beside).abs() < 1e-6);
        let moved = (on_set(&taken.shot, 0) / on_set(&before, 0)).log2();
        assert!((moved - beside).abs() < 1e-3, "{moved} for {beside}");
        // The second reading stands in place of the first, not on top of it.
        let again = of_light(&taken.shot, 0, &shown(&before, 0, 0.5)).unwrap();
        assert!((again.stops.unwrap() - 0.5).abs() < 1e-3);
        // It stays through another power and place: it is the light's.
        let mut turned = taken.shot.clone();
        turned.lights[0].power /= 2.0;
        let mut plain = before.clone();
        plain.lights[0].power /= 2.0;
        assert!(((on_set(&turned, 0) / on_set(&plain, 0)).log2() - beside).abs() < 1e-3);
        // And it is the unit's behind what it was read through, nobody else's.
        let kit: Kit = serde_json::from_str(include_str!("../../../../docs/examples/kit.json")).unwrap();
        let mut other = taken.shot.clone();
        other.lights[0].modifier =
            kit.modifiers.iter().find(|one| one.id != before.lights[0].modifier.id).unwrap().clone();
        let mut bare = other.clone();
        bare.lights[0].metered = None;
        assert_eq!(on_set(&other, 0), on_set(&bare, 0));
    }
}

#[test]
fn a_reading_kept_with_a_unit_counts_behind_the_same_modifier_everywhere() {
    let before = shot();
    let asked = MeterReading {
        on: Some("2026-11-26".to_owned()),
        ..reading(MeterAt::Light, Some(0), &shown(&before, 0, -0.6))
    };
    let taken = metered(&before, &asked).unwrap();
    let kept = &taken.of_units[0];
    assert_eq!((kept.unit.as_str(), kept.reading.counts), (before.lights[0].unit.id.as_str(), true));
    let mut next = before.clone();
    let own = kept.reading.clone();
    next.lights[0].unit.readings = vec![pebble_core::gear::UnitReading { on: "2026-11-26".to_owned(), ..own }];
    assert!(((on_set(&next, 0) / on_set(&before, 0)).log2() + 0.6).abs() < 1e-3);
    let told = serde_json::to_value(forecast(&plan(&next))).unwrap();
    assert!((told["lights"][0]["flash"]["metered_stops"].as_f64().unwrap() + 0.6).abs() < 1e-3);
    next.lights[0].unit.readings[0].counts = false;
    assert_eq!(on_set(&next, 0), on_set(&before, 0));
    next.lights[0].unit.readings[0].on = "yesterday".to_owned();
    assert_eq!(pebble_core::Plan::try_from(&next).unwrap_err().field(), "lights[0].unit.readings[0].on");
}

#[test]
fn matching_counts_what_was_metered() {
    let kit: Kit = serde_json::from_str(include_str!("../../../../docs/examples/kit.json")).unwrap();
    let stock = Stock::of_kit(&kit).unwrap();
    let mut counted = 0;
    for before in examples() {
        let light = plan(&before).key;
        let Ok(dim) = of_light(&before, light, &shown(&before, light, -0.4)).map(|taken| taken.shot) else { continue };
        let powers = |shot: &Shot| -> Vec<(usize, f64, f64)> {
            let plan = plan(shot);
            let brief = Brief::new(shot, &plan).unwrap();
            let found = find(&brief, &stock, Priority::ShortestPulse, &Going::default()).unwrap();
            for one in &found {
                // The search and the definition agree, the reading in both.
                let fares = brief.judge(&one.candidate(&brief, &stock)).unwrap();
                assert!(fares.iter().all(|one| one.room >= -1e-6), "{fares:?}");
            }
            found.into_iter().map(|one| (one.unit, one.power, one.distance.as_metres())).collect()
        };
        let (was, is) = (powers(&before), powers(&dim));
        counted += usize::from(!was.is_empty() && was != is);
    }
    assert!(counted > 0, "a reading that changes no set-up counts nowhere");
}

#[test]
fn all_together_and_steady_light_are_read_too() {
    let hall = examples().remove(7);
    let dome = |shot: &Shot| {
        let told = serde_json::to_value(forecast(&plan(shot))).unwrap();
        told["subject"]["meter"].as_str().unwrap().to_owned()
    };
    let av = said::meter(&dome(&hall)).unwrap();
    let taken = metered(&hall, &reading(MeterAt::All, None, &format!("Av {}", av - 0.5))).unwrap();
    assert!((taken.stops.unwrap() + 0.5).abs() < 0.051, "{:?}", taken.stops);
    for index in 0..hall.lights.len() {
        let moved = (on_set(&taken.shot, index) / on_set(&hall, index)).log2();
        assert!((moved - taken.stops.unwrap()).abs() < 2e-3, "light {index} moved by {moved}");
    }
    assert!(taken.of_units.is_empty(), "which of them was off is not known");
    let room =
        metered(&hall, &MeterReading { time: Some("1/60".to_owned()), ..reading(MeterAt::Subject, None, "2.8 and 2") });
    let room = room.unwrap().shot;
    let lux = plan(&room).subject_light.as_lux();
    let wanted = 340.0 * (3.2_f64).exp2() / (hall.camera.iso / 64.0);
    assert!((lux / wanted - 1.0).abs() < 1e-3, "{lux}, not {wanted}");
}

#[test]
fn another_way_of_reading_is_the_same_light() {
    for shot in examples() {
        for background in [false, true] {
            let lux = |shot: &Shot| {
                let plan = plan(shot);
                if background { plan.background_light } else { plan.subject_light }.as_lux()
            };
            for form in [ReadAs::Lux, ReadAs::Ev100, ReadAs::Exposure] {
                let mut other = shot.clone();
                let read = reread(&shot, background, form).unwrap();
                let read_f = if let pebble_core::shot::Reading::Exposure { aperture_f, .. } = &read {
                    Some(*aperture_f)
                } else {
                    None
                };
                *(if background { &mut other.ambient.background } else { &mut other.ambient.subject }) = read;
                // An f-number has a smallest.
                if !matches!(&read_f, Some(f) if *f <= 0.5) || form != ReadAs::Exposure {
                    assert!((lux(&other) / lux(&shot).max(1e-9)).log2().abs() < 0.01, "{}: {form:?}", shot.title);
                }
            }
        }
    }
    let mut dark = shot();
    dark.ambient.subject = pebble_core::shot::Reading::Lux { lux: 0.0 };
    for form in [ReadAs::Ev100, ReadAs::Exposure, ReadAs::Black] {
        let mut other = dark.clone();
        other.ambient.subject = reread(&dark, false, form).unwrap();
        assert!(pebble_core::Plan::try_from(&other).is_ok(), "{form:?}");
    }
}

#[test]
fn readings_that_cannot_be_are_refused_with_a_reason() {
    let before = shot();
    let words = |result: Result<MeterTaken, NotMetered>| result.unwrap_err().to_string();
    assert!(words(of_light(&before, 0, &shown(&before, 0, 2.3))).contains("+2.3 stops from what is computed"));
    let mut known = reading(MeterAt::Light, Some(0), &shown(&before, 0, 2.3));
    known.because = Some(FarBecause::Itself);
    assert!(metered(&before, &known).is_ok());
    assert!(words(of_light(&before, 0, &shown(&before, 0, -8.0))).contains("Nothing was kept"));
    assert!(words(of_light(&before, 9, "5.6")).contains("no such light"));
    assert!(words(of_light(&before, 0, "dark")).contains("no figure"));
    let today = MeterReading { on: Some("today".to_owned()), ..reading(MeterAt::Light, Some(0), "8") };
    assert!(words(metered(&before, &today)).contains("2026-11-25"), "what cannot be kept is not taken");
    let mut off = before.clone();
    off.lights[0].on = false;
    assert!(words(of_light(&off, 0, "5.6")).contains("does not fire"));
    assert!(
        words(metered(&off, &reading(MeterAt::All, None, "5.6"))).contains("does not fire") || off.lights.len() > 1
    );
    let mut automatic = before.clone();
    automatic.lights[0].automatic = Some(Automatic { bias_stops: 0.0 });
    assert!(words(of_light(&automatic, 0, "5.6")).contains("automatic"));
    // A long time of the meter lets the room in, and a bright room is all there is.
    let mut bright = before.clone();
    bright.ambient.subject = pebble_core::shot::Reading::Lux { lux: 90_000.0 };
    let long = MeterReading { time: Some("1/2".to_owned()), ..reading(MeterAt::Light, Some(0), "5.6") };
    assert!(words(metered(&bright, &long)).contains("no flash in this reading"));
}

proptest! {
    /// What a meter says is read back as itself.
    #[test]
    fn the_words_of_a_meter_read_back(tenths in 0..110_i32) {
        prop_assert!((said::meter(&meter_words(tenths)).unwrap() - f64::from(tenths) / 10.0).abs() < 1e-9);
    }

    #[test]
    fn anything_a_meter_shows_is_read_or_refused(text in "\\PC{0,45}") {
        match said::meter(&text) {
            Ok(av) => prop_assert!(av.is_finite()),
            Err(why) => prop_assert!(why.to_string().ends_with('.')),
        }
    }
}
