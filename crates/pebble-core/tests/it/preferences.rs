//! How figures are written and read: feet and inches wherever metres would stand.

use crate::common::{examples, plan};
use pebble_core::findings::judge;
use pebble_core::gear::Kit;
use pebble_core::matching::{Brief, Going, Priority, Stock, find};
use pebble_core::preferences::{Lengths, Preferences};
use pebble_core::shot::Shot;
use pebble_core::typed::typed;
use pebble_core::{outlook, strips};

fn in_feet(shot: Shot) -> Shot {
    Shot { lengths: Lengths::Imperial, ..shot }
}

#[test]
fn strips_are_in_feet_and_inches_and_what_is_typed_without_a_unit_is_in_feet() {
    for shot in examples().into_iter().map(in_feet) {
        let plan = plan(&shot);
        let all = strips::strips(&plan);
        for strip in all.iter().filter(|strip| ["subject_distance", "flash_distance"].contains(&strip.id.as_str())) {
            let metres: Vec<f64> = strip
                .notches
                .iter()
                .map(|notch| serde_json::to_value(&notch.value).unwrap().as_f64().unwrap())
                .collect();
            assert!(metres.is_sorted() && metres[0] < 0.31 && metres.last().unwrap() > &95.0);
            for (index, notch) in strip.notches.iter().enumerate() {
                assert!(notch.label.contains('\''), "{}", notch.label);
                let read = typed(&plan, &strip.id, strip.light, &notch.label).unwrap();
                assert_eq!(read.index, index, "{} reads back as itself", notch.label);
            }
            for (text, label) in [
                ("6", "6'"),
                ("6.25", "6'3\""),
                ("6 ft 3", "6'3\""),
                ("6′3″", "6'3\""),
                ("2 m", "6'6\""),
                ("90 in", "7'6\""),
            ] {
                let read = typed(&plan, &strip.id, strip.light, text).unwrap();
                assert_eq!(strip.notches[read.index].label, label, "{text}");
            }
            for text in ["−4", "0", "-2 m", "6\"", "1/2", "ft"] {
                assert!(typed(&plan, &strip.id, strip.light, text).is_err(), "{text}");
            }
        }
    }
}

#[test]
fn no_sentence_is_in_metres_where_feet_are_preferred() {
    let metric = |text: &str| {
        let words: Vec<&str> = text.split([' ', '\u{a0}']).collect();
        words.windows(2).any(|pair| {
            pair[0].ends_with(|sign: char| sign.is_ascii_digit())
                && pair[1].trim_end_matches(['.', ',', ':', ';', ')']) == "m"
        })
    };
    assert!(metric("stands 4.6 m away."));
    let mut feet = 0;
    for shot in examples().into_iter().map(in_feet) {
        let mut spoiled = shot.clone();
        (spoiled.subject.depth_m, spoiled.subject.distance_m) = (4.0, shot.subject.distance_m * 0.7);
        for shot in [shot, spoiled] {
            let plan = plan(&shot);
            for finding in judge(&plan, &outlook(&plan)) {
                let remedies = finding.remedies.iter().map(|remedy| remedy.label.as_str());
                for text in [finding.title.as_str(), finding.cause.as_str()].into_iter().chain(remedies) {
                    assert!(!metric(text), "{text}");
                    feet += usize::from(text.contains(" ft"));
                }
            }
        }
    }
    assert!(feet > 10, "only {feet} sentences had a length at all");
}

#[test]
fn matching_puts_lights_on_marks_of_the_tape_in_hand() {
    let kit: Kit = serde_json::from_str(include_str!("../../../../docs/examples/kit.json")).unwrap();
    let stock = Stock::of_kit(&kit).unwrap();
    let shot = in_feet(examples().swap_remove(0));
    let plan = plan(&shot);
    let brief = Brief::new(&shot, &plan).unwrap();
    let found = find(&brief, &stock, Priority::Balanced, &Going::default()).unwrap();
    let marks: Vec<f64> = strips::distances(Lengths::Imperial).map(|mark| mark.as_metres()).collect();
    assert!(!found.is_empty());
    for one in &found {
        let at = one.candidate(&brief, &stock).distance.as_metres();
        assert!(marks.iter().any(|mark| (mark - at).abs() < 1e-9), "{at}");
    }
}

#[test]
fn a_clock_that_no_place_has_is_refused() {
    let at = |utc_offset_min| Preferences { utc_offset_min, ..Preferences::default() }.check();
    assert!(at(None).is_ok() && at(Some(345)).is_ok() && at(Some(-720)).is_ok());
    assert!(at(Some(5000)).unwrap_err().to_string().contains("840"));
}

#[test]
fn a_meter_of_another_constant_moves_what_is_said_in_lux_and_nothing_else() {
    use pebble_core::shot::Reading;
    for shot in examples() {
        let mut read = shot.clone();
        let reading = Reading::Exposure { aperture_f: 2.8, shutter: "1/60".to_owned(), iso: 800.0 };
        (read.ambient.subject, read.ambient.background) = (reading.clone(), reading);
        read.lamps.clear();
        for light in &mut read.lights {
            light.modelling = None;
        }
        for part in &mut read.parts {
            part.luminance_cd_m2 = None;
        }
        let by = |shot: &Shot, c: f64| {
            let plan = plan(&Shot { meter_c: Some(c), ..shot.clone() });
            pebble_core::forecast(&plan)
        };
        let (dome, flat) = (by(&read, 340.0), by(&read, 250.0));
        // Guide numbers and f-numbers need no constant; lux are so many more or less.
        for (dome, flat) in dome.lights.iter().zip(&flat.lights) {
            assert!(dome.flash.in_frame_stops.zip(flat.flash.in_frame_stops).is_none_or(|(a, b)| (a - b).abs() < 1e-9));
            assert_eq!(dome.flash.meter, flat.flash.meter);
        }
        assert_eq!(dome.ambient_subject.placement_stops, flat.ambient_subject.placement_stops);
        let lux = |seen: &pebble_core::Forecast| seen.ambient_subject.illuminance_lx.unwrap();
        assert!((lux(&flat) / lux(&dome) - 250.0 / 340.0).abs() < 1e-9);
        assert!((flat.exposure.reference_lxs / dome.exposure.reference_lxs - 250.0 / 340.0).abs() < 1e-9);
        // Entered in lux, it stands higher by the ratio.
        let mut lit = read.clone();
        lit.ambient.subject = Reading::Lux { lux: 100.0 };
        let (dome, flat) = (by(&lit, 340.0), by(&lit, 250.0));
        let up = flat.ambient_subject.placement_stops.unwrap() - dome.ambient_subject.placement_stops.unwrap();
        assert!((up - (340.0f64 / 250.0).log2()).abs() < 1e-9, "{up}");
        assert!((lux(&flat) - 100.0).abs() < 1e-9 && (lux(&dome) - 100.0).abs() < 1e-9);
    }
    assert!(pebble_core::Meter::of(Some(50.0)).unwrap_err().to_string().contains("200"));
}
