//! Pulses whose durations are known, recorded with all the faults of recorders, and found again.

use pebble_core::pulse::{ChargeVoltage, Pulse, Quenched, SwitchedBanks};
use pebble_core::quantity::Seconds;
use pebble_core::trace::{Given, Quality, Reader, Reading, Trace, TraceError, analyse, interval_of};
use pebble_stand_ins::Recorder;
use pebble_stand_ins::recorder::Dialect;
use proptest::prelude::*;

fn ms(value: f64) -> Seconds {
    Seconds::from_millis(value)
}

fn text_of(recorder: &Recorder, pulse: &Pulse) -> Vec<u8> {
    let mut text = Vec::new();
    recorder.record(pulse, &mut text).unwrap();
    text
}

fn read(text: &[u8]) -> Result<Trace, TraceError> {
    let mut reader = Reader::new();
    reader.push(text)?;
    reader.finish()
}

fn reading(recorder: &Recorder, pulse: &Pulse) -> Reading {
    analyse(read(&text_of(recorder, pulse)).unwrap())
}

fn pulses() -> Vec<(&'static str, Pulse)> {
    let quenched = Quenched { rise: ms(0.04), decay: ms(1.4), fall: ms(0.02) };
    let voltage = ChargeVoltage { rise: ms(0.05), decay: ms(0.85), gamma: 0.18 };
    let banks = SwitchedBanks { rise: ms(0.03), decay: ms(1.2), gamma: 0.2, banks: 4 };
    vec![
        ("quenched, full", quenched.pulse(1.0)),
        ("quenched, 1/4", quenched.pulse(0.25)),
        ("quenched, 1/64", quenched.pulse(1.0 / 64.0)),
        ("charge voltage, full", voltage.pulse(1.0)),
        ("charge voltage, 1/16", voltage.pulse(1.0 / 16.0)),
        ("a rise without length", Pulse::full(Seconds::ZERO, ms(1.1))),
        ("banks, full", banks.pulse(1.0)),
        ("banks, 1/4", banks.pulse(0.25)),
        ("long burn", ChargeVoltage { rise: ms(0.25), decay: ms(4.4), gamma: 0.1 }.pulse(1.0)),
    ]
}

/// How far two durations of a reading are from those of the pulse.
fn off(reading: &Reading, pulse: &Pulse) -> [f64; 3] {
    let truth = pulse.durations();
    [(reading.t05_s, truth.t05), (reading.t01_s, truth.t01), (reading.t90_s, truth.t90)]
        .map(|(seen, truth)| seen.map_or(f64::INFINITY, |seen| seen / truth.as_secs() - 1.0))
}

#[test]
fn durations_are_found_within_two_per_cent_under_one_per_cent_of_noise() {
    for (name, pulse) in pulses() {
        for dialect in [Dialect::Plain, Dialect::DecimalComma, Dialect::Tabbed] {
            for (samples, seed) in [(12_000, 1), (12_000, 2), (40_000, 3), (200_000, 4)] {
                let recorder = Recorder { dialect, seed, ..Recorder::set_for(&pulse, samples) };
                let reading = reading(&recorder, &pulse);
                let [t05, t01, t90] = off(&reading, &pulse);
                let case = format!("{name}, {dialect:?}, {samples} samples, seed {seed}");
                assert!(t05.abs() < 0.02 && t01.abs() < 0.02, "{case}: t0.5 {t05:+.3}, t0.1 {t01:+.3}");
                assert!(t90.abs() < 0.03, "{case}: t90 {t90:+.3}");
                assert_eq!(reading.quality, Quality::Good, "{case}: {:?}", reading.remarks);
                assert!((reading.noise_share - 0.01).abs() < 0.003, "{case}: noise {}", reading.noise_share);
            }
        }
    }
}

#[test]
fn a_converter_of_eight_bits_an_offset_and_a_level_that_counts_downwards_do_no_harm() {
    for (name, pulse) in pulses() {
        let recorder = Recorder { bits: 8, offset_v: -0.4, peak_v: -1.1, seed: 5, ..Recorder::set_for(&pulse, 20_000) };
        let reading = reading(&recorder, &pulse);
        let [t05, t01, _] = off(&reading, &pulse);
        assert!(t05.abs() < 0.025 && t01.abs() < 0.025, "{name}: {t05:+.3} {t01:+.3}");
        assert!(reading.peak < 0.0 && says(&reading, "downwards"), "{name}: {:?}", reading.remarks);
    }
}

fn says(reading: &Reading, words: &str) -> bool {
    reading.remarks.iter().any(|remark| remark.sentence.contains(words))
}

#[test]
fn what_is_wrong_with_a_recording_is_said_and_a_bad_one_cannot_be_filed() {
    let pulse = Quenched { rise: ms(0.04), decay: ms(1.4), fall: ms(0.02) }.pulse(0.25);
    let long = ChargeVoltage { rise: ms(0.05), decay: ms(0.85), gamma: 0.1 }.pulse(1.0);
    let set = Recorder::set_for(&pulse, 8000);
    let whole = Recorder::set_for(&long, 8000);
    let cases: Vec<(&str, Recorder, &Pulse, &str, bool)> = vec![
        ("clipped", Recorder { saturates_at: Some(0.7), ..set.clone() }, &pulse, "top", true),
        ("noisy", Recorder { noise_share: 0.07, ..set.clone() }, &pulse, "Noise is", true),
        ("a little noisy", Recorder { noise_share: 0.025, ..set.clone() }, &pulse, "Noise is", false),
        ("coarse", Recorder { noise_share: 0.002, ..Recorder::set_for(&pulse, 32) }, &pulse, "samples", false),
        (
            "too coarse",
            Recorder { noise_share: 0.002, step: set.step * 800.0, samples: 40, ..set.clone() },
            &pulse,
            "samples",
            true,
        ),
        ("cut short", Recorder { samples: 2600, ..whole.clone() }, &long, "record ends", true),
        (
            "two pulses",
            Recorder { echoes: vec![(ms(0.9), 0.5)], samples: 16_000, ..set.clone() },
            &pulse,
            "There are 2 pulses",
            false,
        ),
        ("no pulse", Recorder { peak_v: 0.0, ..set.clone() }, &pulse, "No pulse", true),
        ("nothing before", Recorder { pre_trigger: ms(0.0), ..set.clone() }, &pulse, "nothing before the pulse", false),
    ];
    for (name, recorder, pulse, words, forbids) in cases {
        let reading = reading(&recorder, pulse);
        assert!(says(&reading, words), "{name}: {:?}", reading.remarks);
        assert_eq!(reading.quality == Quality::Unusable, forbids, "{name}: {:?}", reading.remarks);
        assert_eq!(reading.recording(0.25).is_none(), forbids, "{name}");
    }
}

#[test]
fn the_strongest_of_several_pulses_is_measured_alone() {
    let pulse = Quenched { rise: ms(0.04), decay: ms(1.4), fall: ms(0.02) }.pulse(0.25);
    let alone = Recorder::set_for(&pulse, 20_000);
    let with_echoes = Recorder { echoes: vec![(ms(0.9), 0.6), (ms(1.8), 0.4)], samples: 60_000, ..alone.clone() };
    let [t05, t01, _] = off(&reading(&with_echoes, &pulse), &pulse);
    assert!(t05.abs() < 0.02 && t01.abs() < 0.02, "{t05:+.3} {t01:+.3}");
}

#[test]
fn what_is_filed_holds_the_durations_and_a_curve_to_look_at() {
    for (name, pulse) in pulses() {
        let reading = reading(&Recorder::set_for(&pulse, 20_000), &pulse);
        let filed = reading.recording(0.5).unwrap();
        assert!((filed.t01_ms / 1e3 / reading.t01_s.unwrap() - 1.0).abs() < 1e-3, "{name}");
        assert_eq!((filed.power, filed.t90_ms.is_some()), (0.5, true));
        let curve = filed.curve.unwrap();
        let highest = curve.level.iter().copied().fold(0.0, f64::max);
        assert!((highest - 1.0).abs() < 0.05 && curve.level.len() <= 400, "{name}: {highest}");
        // The curve lasts as long as the pulse above a tenth of it.
        let above = curve.level.iter().filter(|level| **level > 0.1).count() as f64 * curve.step_us / 1e3;
        assert!((above / filed.t01_ms - 1.0).abs() < 0.08, "{name}: {above} of {} ms", filed.t01_ms);
    }
}

/// A clean little pulse written by hand, as lines of time and level.
fn by_hand(line: impl Fn(f64, f64) -> String) -> String {
    (-20..180).map(|k| line(f64::from(k) * 1e-5, if (0..60).contains(&k) { 1.0 } else { 0.0 })).collect()
}

#[test]
fn many_ways_of_writing_the_same_are_read_the_same() {
    let comma = |value: f64, digits: usize| format!("{value:.digits$}").replace('.', ",");
    let cases: Vec<(&str, String)> = vec![
        ("bare seconds", by_hand(|t, v| format!("{t:e},{v}\n"))),
        ("with heading", format!("Time (s),Level (V)\n{}", by_hand(|t, v| format!("{t:.6},{v:.3}\n")))),
        (
            "milliseconds, semicolons, decimal commas",
            format!(
                "Zeit;A\n(ms);(mV)\n\n{}",
                by_hand(|t, v| format!("{};{}\n", comma(t * 1e3, 4), comma(v * 1e3, 1)))
            ),
        ),
        ("microseconds, tabs", format!("time\tch1\nus\tV\n{}", by_hand(|t, v| format!("{:.1}\t{v}\n", t * 1e6)))),
        (
            "microseconds with a proper sign",
            format!("time (µs);level (V)\n{}", by_hand(|t, v| format!("{:.1};{v}\n", t * 1e6))),
        ),
        (
            "a byte-order mark and other line ends",
            format!("\u{feff}s,V\r\n{}", by_hand(|t, v| format!("{t:.6},{v}\r\n"))),
        ),
        (
            "many header lines",
            format!(
                "{}Time (s),Level (V)\n{}",
                "Model,stand-in\nDate,2026-11-25\n".repeat(12),
                by_hand(|t, v| format!("{t:.6},{v}\n"))
            ),
        ),
        ("a third column", format!("s,V,V\n{}", by_hand(|t, v| format!("{t:.6},{v},{}\n", 1.0 - v)))),
        ("thousands of columns", format!("s,V\n{}", by_hand(|t, v| format!("{t:.6},{v}{}\n", ",0".repeat(4000))))),
        ("a trailing separator", format!("s,V\n{}", by_hand(|t, v| format!("{t:.6},{v},\n")))),
        ("a few holes", format!("s,V\n{}0.0018,\n0.00181,nan\n", by_hand(|t, v| format!("{t:.6},{v}\n")))),
        ("no last line end", by_hand(|t, v| format!("{t:e},{v}\n")).trim_end().to_owned()),
    ];
    for (name, text) in cases {
        let trace = read(text.as_bytes()).unwrap_or_else(|error| panic!("{name}: {error}"));
        let reading = analyse(trace);
        let t05 = reading.t05_s.unwrap_or_else(|| panic!("{name}: {:?}", reading.remarks));
        assert!((t05 / 6e-4 - 1.0).abs() < 0.03, "{name}: t0.5 {t05}");
        let given = !matches!(name, "bare seconds" | "no last line end");
        assert_eq!(reading.notes.time_unit_given, given, "{name}");
    }
}

#[test]
fn what_is_no_recording_is_refused_with_the_reason_and_the_line() {
    let backwards = "s,V\n".to_owned() + &by_hand(|t, v| format!("{t:.6},{v}\n")) + "-0.5,0\n";
    let one_column = (0..200).map(|k| format!("{k}\n")).collect::<String>();
    let holes = "s,V\n".to_owned()
        + &by_hand(|t, v| format!("{t:.6},{}\n", if v > 0.0 { "nan".to_owned() } else { v.to_string() }));
    let still = (0..200).map(|k| format!("1,{k}\n")).collect::<String>();
    let cases: Vec<(&str, Vec<u8>, &str)> = vec![
        ("empty", Vec::new(), "no line with a time and a level"),
        ("a letter", b"Dear lab, the recording follows on Monday.\n".to_vec(), "no line with a time and a level"),
        ("binary", (0..4096u32).map(|k| (k.wrapping_mul(2_654_435_761) >> 24) as u8).collect(), "not a text file"),
        ("a picture", b"\x89PNG\r\n\x1a\n\0\0\0\rIHDR".to_vec(), "not a text file"),
        ("one column", one_column.into_bytes(), "how far apart they are"),
        ("time goes back", backwards.into_bytes(), "time goes back at line 202"),
        ("many holes", holes.into_bytes(), "have no number, the first at line 22"),
        ("all at one time", still.into_bytes(), "at the same time"),
        ("eight samples", b"0,0\n1,1\n2,0\n3,0\n4,0\n5,0\n6,0\n7,0\n".to_vec(), "only 8 samples"),
        ("one endless line", vec![b'7'; 2_000_000], "longer than 256 kB"),
        ("not a number at all", b"inf,inf\nnan,nan\n".repeat(50), "no line with a time and a level"),
    ];
    for (name, text, words) in cases {
        let refused = read(&text).expect_err(name).to_string();
        assert!(refused.contains(words), "{name}: {refused}");
    }
}

/// Samples of a pulse of 0.67 ms at half its height, two microseconds apart: as an instrument would hold it.
fn samples() -> Vec<f64> {
    (0..4000)
        .map(|k| {
            let since = f64::from(k) * 2e-6 - 1e-3;
            let noise = f64::from((k * 7919) % 13 - 6) * 4e-4;
            noise + if since < 0.0 { 0.0 } else { (1.0 - (-since / 3e-5).exp()) * (-since / 8.1e-4).exp() }
        })
        .collect()
}

fn lines(line: impl Fn(usize, f64) -> String) -> String {
    samples().into_iter().enumerate().map(|(k, level)| line(k, level)).collect()
}

#[test]
fn recordings_are_read_as_instruments_write_them() {
    let two_bytes = |text: String, big: bool| -> Vec<u8> {
        let units = text.encode_utf16().flat_map(|unit| if big { unit.to_be_bytes() } else { unit.to_le_bytes() });
        let mark: [u8; 2] = if big { [0xFE, 0xFF] } else { [0xFF, 0xFE] };
        mark.into_iter().chain(units).collect()
    };
    let plain = || format!("Time,Level\n(s),(V)\n{}", lines(|k, v| format!("{:.6},{v:.5}\n", k as f64 * 2e-6)));
    let beside = lines(|k, v| {
        let setting = ["Record Length,4000,,", "Sample Interval,2e-6,,", "Trigger Point,500,,", "Source,CH1,,"];
        format!("{}{:.6},{v:.5}\n", setting.get(k).unwrap_or(&",,,"), k as f64 * 2e-6)
    });
    let cases: Vec<(&str, Vec<u8>)> = vec![
        ("a unit row in brackets", plain().into_bytes()),
        ("two bytes, small end first", two_bytes(plain(), false)),
        ("two bytes, large end first", two_bytes(plain(), true)),
        (
            "an index, start and increment in the header",
            format!("X,CH1,Start,Increment\nSequence,Volt,-1e-3,2.0E-06\n{}", lines(|k, v| format!("{k},{v:.5},,\n")))
                .into_bytes(),
        ),
        (
            "an index and a rate",
            format!("Sample Rate: 500 kHz\nIndex;Value\n{}", lines(|k, v| format!("{k};{v:.5}\n"))).into_bytes(),
        ),
        (
            "an interval with its unit in the next field",
            format!("Sampling Period,2,us\nCH1\n{}", lines(|_, v| format!("{v:.5}\n"))).into_bytes(),
        ),
        (
            "an interval with its unit in brackets",
            format!("dt (µs);2\n{}", lines(|_, v| format!("{v:.5}\n"))).into_bytes(),
        ),
        ("settings beside the numbers", beside.into_bytes()),
        (
            "two channels of a sound card",
            format!(
                "# rate = 500000 Hz\n{}",
                lines(|k, v| format!("{:.5} {v:.5}\n", f64::from((k as i32 * 31) % 17) * 1e-3))
            )
            .into_bytes(),
        ),
        (
            "four channels, the pulse on the third",
            format!(
                "t/ms\tA\tB\tC\tD\n{}",
                lines(|k, v| format!("{:.4}\t{}\t0.01\t{v:.5}\t{}\n", k as f64 * 2e-3, k % 2, i32::from(k > 700)))
            )
            .into_bytes(),
        ),
    ];
    for (name, text) in cases {
        let reading = analyse(read(&text).unwrap_or_else(|error| panic!("{name}: {error}")));
        let t05 = reading.t05_s.unwrap_or_else(|| panic!("{name}: {:?}", reading.remarks));
        assert!((t05 / 6.74e-4 - 1.0).abs() < 0.05, "{name}: t0.5 {t05}");
        assert_eq!(reading.quality, Quality::Good, "{name}: {:?}", reading.remarks);
    }
}

#[test]
fn samples_that_are_only_counted_are_asked_about_and_never_taken_for_seconds() {
    let counted = lines(|k, v| format!("{k},{v:.5}\n"));
    assert_eq!(read(counted.as_bytes()), Err(TraceError::NoInterval));
    let with = |given: Given, text: &str| {
        let mut reader = Reader::given(given);
        reader.push(text.as_bytes()).unwrap();
        reader.finish()
    };
    for typed in ["2 µs", "２ µs", "0,5 MHz", "0.002 ms", "500 kHz", "500000 Hz", "2e-6 s"] {
        let interval_s = interval_of(typed);
        let reading = analyse(with(Given { interval_s, channel: None }, &counted).unwrap());
        assert!((reading.t05_s.unwrap() / 6.74e-4 - 1.0).abs() < 0.05, "{typed}: {:?}", reading.t05_s);
        assert_eq!(reading.notes.interval_from_header, Some(false));
    }
    for typed in ["", "2", "fast", "-2 µs", "0 Hz", "2 m"] {
        assert_eq!(interval_of(typed), None, "“{typed}”");
    }
    // Times that are said to be seconds are seconds, whole ones too: and no flash lasts so long.
    let seconds = format!("Time (s),V\n{counted}");
    let long = analyse(read(seconds.as_bytes()).unwrap());
    assert_eq!(long.quality, Quality::Unusable);
    assert!(long.remarks.iter().any(|one| one.sentence.contains("no flash does")), "{:?}", long.remarks);
    // Another channel than the one that was proposed.
    let two = format!("t/ms,near,far\n{}", lines(|k, v| format!("{:.4},{v:.5},{:.5}\n", k as f64 * 2e-3, v * 0.5)));
    let near = with(Given::default(), &two).unwrap();
    assert_eq!(
        (near.notes.channels.as_slice(), near.notes.channel),
        (["near".to_owned(), "far".to_owned()].as_slice(), 1)
    );
    let far = with(Given { channel: Some(2), interval_s: None }, &two).unwrap();
    assert!(far.level.iter().copied().fold(0.0, f64::max) < 0.51);
    let none = with(Given { channel: Some(3), interval_s: None }, &two);
    assert_eq!(none, Err(TraceError::NoChannel { asked: 3, channels: 2 }));
}

#[test]
fn a_file_without_end_is_refused_before_it_is_held() {
    // Every piece is a megabyte; a reader that kept them would be seen on any machine.
    let piece = "1e-6,0.5\n".repeat(116_000);
    let mut reader = Reader::new();
    let pieces = (0..10_000).find(|_| reader.push(piece.as_bytes()).is_err()).expect("it never ends");
    assert!(pieces < 20, "refused after {pieces} MB");
    let endless = vec![b'x'; 1 << 20];
    let mut reader = Reader::new();
    assert!((0..4).any(|_| reader.push(&endless).is_err()), "a line without end is refused at once");
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 48, ..ProptestConfig::default() })]

    #[test]
    fn it_does_not_matter_in_which_pieces_a_file_arrives(cuts in prop::collection::vec(1usize..4000, 1..40), seed in 0u64..8) {
        let pulse = Quenched { rise: ms(0.04), decay: ms(1.4), fall: ms(0.02) }.pulse(0.5);
        let dialect = [Dialect::Plain, Dialect::DecimalComma, Dialect::Tabbed][(seed % 3) as usize];
        let text = text_of(&Recorder { dialect, seed, ..Recorder::set_for(&pulse, 1500) }, &pulse);
        let mut reader = Reader::new();
        let (mut rest, mut cut) = (&text[..], cuts.iter().cycle());
        while !rest.is_empty() {
            let (piece, more) = rest.split_at((*cut.next().unwrap()).min(rest.len()));
            reader.push(piece).unwrap();
            rest = more;
        }
        prop_assert_eq!(reader.finish().unwrap(), read(&text).unwrap());
    }

    #[test]
    fn no_text_makes_it_fall(lines in prop::collection::vec("[-0-9eE.,;\t a-zµ]{0,24}", 0..60)) {
        if let Ok(trace) = read(lines.join("\n").as_bytes()) {
            let reading = analyse(trace);
            prop_assert!(reading.t05_s.is_none_or(|t05| t05.is_finite() && t05 >= 0.0));
            prop_assert!(reading.curve_s.iter().chain(&reading.curve_low).all(|value| value.is_finite()));
        }
    }
}
