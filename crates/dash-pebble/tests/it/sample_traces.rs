//! The recordings that ship: made by the stand-in recorder, and read as the demo kit says.

use dash_pebble::demo::KIT;
use pebble_core::trace::{Quality, Reader, Reading, analyse};
use pebble_stand_ins::samples::{Sample, samples};

fn path(file: &str) -> String {
    format!("{}/../../docs/examples/traces/{file}", env!("CARGO_MANIFEST_DIR"))
}

fn text_of(sample: &Sample) -> Vec<u8> {
    let mut text = Vec::new();
    sample.recorder.record(&sample.pulse, &mut text).unwrap();
    text
}

fn reading_of(text: &[u8]) -> Reading {
    let mut reader = Reader::new();
    reader.push(text).unwrap();
    analyse(reader.finish().unwrap())
}

#[test]
fn every_file_is_what_the_recorder_writes_today() {
    for sample in samples() {
        let shipped = std::fs::read(path(sample.file)).unwrap_or_default();
        assert!(shipped == text_of(&sample), "{} differs: cargo test -- --ignored write_the_files", sample.file);
    }
}

#[test]
#[ignore = "writes docs/examples/traces"]
fn write_the_files() {
    for sample in samples() {
        std::fs::write(path(sample.file), text_of(&sample)).unwrap();
    }
}

#[test]
fn good_ones_give_the_pulse_back_and_bad_ones_are_refused() {
    for sample in samples() {
        let reading = reading_of(&text_of(&sample));
        let bad = sample.file.contains("clipped") || sample.file.contains("far-away");
        assert_eq!(reading.quality == Quality::Unusable, bad, "{}: {:?}", sample.file, reading.remarks);
        assert_eq!(reading.recording(0.5).is_none(), bad, "{}", sample.file);
        if !bad {
            let truth = sample.pulse.durations();
            for (name, seen, true_one) in [("t0.5", reading.t05_s, truth.t05), ("t0.1", reading.t01_s, truth.t01)] {
                let off = seen.unwrap() / true_one.as_secs() - 1.0;
                assert!(off.abs() < 0.03, "{} {name} is {:+.1} % off", sample.file, off * 100.0);
            }
        }
    }
}

#[test]
fn the_recordings_of_the_demo_kit_are_those_of_the_files() {
    let unit = KIT.units.iter().find(|unit| unit.id == "dunlin-500").unwrap();
    assert_eq!(unit.recordings.len(), 3);
    let files = ["dunlin-500-full.csv", "dunlin-500-quarter.csv", "dunlin-500-sixteenth.csv"];
    for (filed, file) in unit.recordings.iter().zip(files) {
        let mut read = reading_of(&std::fs::read(path(file)).unwrap()).recording(filed.power).unwrap();
        (read.on, read.with) = (filed.on.clone(), filed.with.clone());
        assert_eq!(*filed, read, "{file}");
    }
}
