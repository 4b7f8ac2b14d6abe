//! What is closed about a pulse against what is counted step by step, and what of it is told.

use crate::common::{examples, plan};
use pebble_core::physics::root::crossing;
use pebble_core::pulse::{Control, Pulse, Quenched, School, Windows};
use pebble_core::quantity::Seconds;
use pebble_core::shutter::Run;
use pebble_core::shutter::rows::{BLACK_SHARE, mean_share, report, row_share};
use pebble_core::{forecast, outlook};
use proptest::prelude::*;
use std::cell::Cell;

fn s(seconds: f64) -> Seconds {
    Seconds::from_secs(seconds)
}

/// Whole, cut softly, cut clean, without a rise, and a train.
fn shapes() -> Vec<(&'static str, Pulse)> {
    let (rise, decay) = (s(45e-6), s(1.3e-3));
    vec![
        ("whole", Pulse::full(rise, decay)),
        ("cut", Pulse::cut(rise, decay, s(0.4e-3), s(20e-6))),
        ("cut in its rise", Pulse::cut(rise, decay, s(30e-6), s(12e-6))),
        ("cut clean", Pulse::cut(Seconds::ZERO, decay, s(0.7e-3), Seconds::ZERO)),
        ("all there at once", Pulse::full(Seconds::ZERO, decay)),
        ("train", Pulse::cut(rise, decay, s(0.2e-3), s(20e-6)).repeated(5, s(0.9e-3))),
    ]
}

#[test]
fn the_sum_of_shares_is_what_counting_them_gives() {
    const STEPS: u32 = 40_000;
    for (name, pulse) in shapes() {
        for until in [10e-6, 0.25e-3, 0.9e-3, 4e-3, 30e-3] {
            let step = until / f64::from(STEPS);
            let counted: f64 = (0..STEPS).map(|k| pulse.share(s((f64::from(k) + 0.5) * step)) * step).sum();
            let closed = pulse.share_until(s(until)).as_secs();
            assert!(
                (closed - counted).abs() <= 1e-8 * until + 1e-6 * counted,
                "{name} to {until}: {closed}, {counted}"
            );
        }
        assert_eq!(pulse.share_until(s(-1.0)), Seconds::ZERO, "{name}");
        // Once it is over it grows by a second a second, however long a shutter is open.
        let (short, long) = (pulse.share_until(s(0.5)).as_secs(), pulse.share_until(s(30.5)).as_secs());
        assert!((long - short - 30.0).abs() < 1e-9, "{name}: {short} to {long}");
    }
}

#[test]
fn rises_and_falls_are_where_the_intensity_is_that_fraction() {
    for (name, pulse) in shapes() {
        let (one, _) = pulse.parts();
        for fraction in [0.9, 0.5, 0.1, 0.02] {
            let (first, last) = one.interval_above(fraction);
            assert!(first <= one.peak() && last >= one.peak(), "{name} at {fraction}: {first:?} to {last:?}");
            // A clean edge has no such moment: just inside there is more, just outside nothing.
            let inside = |t: Seconds, to: f64| one.relative_intensity(s(t.as_secs() + (one.peak() - t).as_secs() * to));
            assert!(inside(first, 1e-6) >= fraction * (1.0 - 1e-4), "{name} rises at {fraction}");
            assert!(inside(last, 1e-6) >= fraction * (1.0 - 1e-4), "{name} falls at {fraction}");
            assert!(inside(last, -1e-4) <= fraction * (1.0 + 1e-9), "{name} is over at {fraction}");
        }
    }
}

#[test]
fn the_time_until_a_share_is_the_inverse_of_the_share_at_both_ends() {
    for (name, pulse) in shapes() {
        for share in [1e-12, 1e-6, 0.01, 0.1, 0.5, 0.9, 0.99, 1.0 - 1e-9, 1.0 - 1e-12] {
            let back = pulse.share(pulse.time_of_share(share));
            assert!((back - share).abs() <= 1e-9 * share.max(1e-3), "{name}: {share} comes back as {back}");
        }
        assert_eq!(pulse.time_of_share(0.0), Seconds::ZERO, "{name}");
    }
}

/// A root costs few looks: thousands are looked for while a key is held down.
#[test]
fn a_root_is_found_in_few_looks_on_what_pulses_are_made_of() {
    type Case = (&'static str, (f64, f64), fn(f64) -> f64, f64);
    let cases: [Case; 6] = [
        ("the tail of a discharge", (0.0, 40.0), |t| (-t).exp() - 0.1, std::f64::consts::LN_10),
        ("a rise", (0.0, 1.0), |t| -(-t / 0.03).exp_m1() - 0.5, 0.03 * std::f64::consts::LN_2),
        ("nearly all of the light", (0.0, 40.0), |t| -(-t).exp_m1() - (1.0 - 1e-9), 9.0 * std::f64::consts::LN_10),
        ("a cube", (-1.0, 4.0), |x| x * x * x - 2.0, 1.259_921_049_894_873_2),
        ("a step that is hardly bent", (0.0, 1.0), |x| x - 0.3 + 1e-3 * (x * 50.0).sin(), f64::NAN),
        ("a root at the far end", (0.0, 2.0), |x| x - 2.0 + 1e-15, 2.0),
    ];
    for (name, (low, high), f, want) in cases {
        let looks = Cell::new(0);
        let found = crossing(low, high, |x| {
            looks.set(looks.get() + 1);
            f(x)
        });
        assert!(looks.get() <= 24, "{name}: {} looks", looks.get());
        assert!(f(found).abs() < 1e-11, "{name}: {} is left at {found}", f(found));
        assert!(
            want.is_nan() || (found - want).abs() < 1e-11 * want.abs().max(1.0) * 1e3,
            "{name}: {found}, not {want}"
        );
    }
    // Both ends on one side: the nearer one, which is right for a root just outside.
    assert_eq!(crossing(1.0, 2.0, |x| x), 1.0);
    assert_eq!(crossing(-2.0, -1.0, |x| x), -1.0);
}

/// Rows before, across and after a flash, and of a shutter without curtains.
#[test]
fn the_mean_share_is_exact_where_it_can_be_told() {
    let pulse = Pulse::full(s(30e-6), s(0.4e-3));
    let curtain = Run { travel: s(3e-3), time: s(4e-3) };
    assert!((mean_share(curtain, &pulse, s(3.01e-3), (0.0, 1.0)) - 1.0).abs() < 0.1, "nearly all rows see all of it");
    assert_eq!(
        mean_share(curtain, &pulse, s(0.5), (0.0, 1.0)),
        0.0,
        "long after it nobody sees any, not even rounding"
    );
    let black = Run { travel: s(8e-3), time: s(0.1e-3) };
    assert_eq!(mean_share(black, &pulse, s(8e-3), (0.0, 0.1)), 0.0, "rows that are closed by then");
    let leaf = Run { travel: Seconds::ZERO, time: s(0.2e-3) };
    let share = row_share(leaf, &pulse, s(10e-6), 0.0);
    assert_eq!(mean_share(leaf, &pulse, s(10e-6), (0.0, 1.0)), share, "a leaf has one row");
    assert!(share > 0.2 && share < 0.6, "{share}");
    // What stands in some rows only gets their mean: the parts of the frame make up the whole.
    let cut = Run { travel: s(3e-3), time: s(1.5e-3) };
    let of = |rows| mean_share(cut, &pulse, s(2e-3), rows);
    let parts = (of((0.0, 0.25)) + of((0.25, 0.5)) + of((0.5, 0.75)) + of((0.75, 1.0))) / 4.0;
    assert!((parts - of((0.0, 1.0))).abs() < 1e-12, "{parts}");
    let told = report(cut, &pulse, s(2e-3));
    assert!(told.touched > 0.3 && told.black < told.touched && told.worst.as_stops() < -1.0, "{told:?}");
    assert!(told.first < BLACK_SHARE.max(0.5) && told.middle > told.first.min(told.last), "{told:?}");
}

/// What the strip draws is the pulse: as many moments as levels, evenly apart, to a thousandth of its peak.
#[test]
fn the_curve_that_is_sent_is_the_pulse() {
    let mut drawn = 0;
    for shot in examples() {
        let plan = plan(&shot);
        let (seen, told) = (outlook(&plan), forecast(&plan));
        for (light, of) in told.lights.iter().zip(&seen.lights) {
            let (levels, end, pulse) = (&light.pulse.curve_level, light.pulse.curve_end_s, &of.pulse.pulse);
            let last = levels.len() - 1;
            for (k, level) in levels.iter().enumerate().take(last) {
                let moment = s(end * k as f64 / last as f64);
                let is = pulse.relative_intensity(moment);
                assert!((level - is).abs() <= 0.5e-3 + 1e-9, "{} at {moment:?}: {level}, not {is}", shot.title);
                assert_eq!(*level, (level * 1000.0).round() / 1000.0, "written with three digits");
            }
            assert!(
                levels[last] <= 0.021 && end >= light.pulse.t01_span_s[1] * (1.0 - 1e-9),
                "{}: it is seen to end",
                shot.title
            );
            let [first, over] = light.pulse.t05_span_s;
            assert!(light.pulse.t01_span_s[0] <= first && over <= light.pulse.t01_span_s[1], "{}", shot.title);
            drawn += 1;
        }
    }
    assert!(drawn > 15, "{drawn} pulses");
}

/// Two heads on one pack make everything longer by one factor: durations, spans and the curve.
#[test]
fn a_stretched_pulse_is_longer_by_its_factor_in_all_that_is_known_of_it() {
    let one = Control::Quenched(Quenched { rise: s(40e-6), decay: s(1.4e-3), fall: s(20e-6) });
    let two = Control::Stretched(Box::new(one.clone()), 1.3);
    for power in [1.0, 0.3, 1.0 / 64.0] {
        let (one, two) = (one.at(power), two.at(power));
        let ratio = |a: Seconds, b: Seconds| b.as_secs() / a.as_secs();
        assert!((ratio(one.times.1, two.times.1) - 1.3).abs() < 1e-9);
        for (one, two) in one.spans.iter().zip(&two.spans) {
            assert!((ratio(one.1 - one.0, two.1 - two.0) - 1.3).abs() < 1e-9);
        }
        let [t05, t01] = two.spans.map(|(from, to)| to - from);
        assert!((ratio(t05, two.times.0) - 1.0).abs() < 1e-9 && (ratio(t01, two.times.1) - 1.0).abs() < 1e-9);
        assert!((two.pulse.share_of_full() - one.pulse.share_of_full()).abs() < 1e-9, "no light is lost by it");
    }
}

proptest! {
    /// A window never lasts longer than it is open, nor longer than the pulse, and more of it lasts no shorter from the
    /// crest on.
    #[test]
    fn a_window_lasts_no_longer_than_itself_and_than_the_pulse(
        decay in 0.1e-3..6e-3f64, cut in 0.02..3.0f64, from in 0.0..1.0f64, long in 0.01..1.5f64,
    ) {
        let pulse = Pulse::cut(s(decay * 0.03), s(decay), s(decay * cut), s(decay * 0.02));
        let over = pulse.time_of_share(1.0 - 1e-9);
        for school in [School::T05, School::T01, School::T90] {
            let windows = Windows::of(&pulse, school);
            let (from, to) = (over * from, over * (from + long));
            let lasts = windows.lasts(from, to);
            prop_assert!(lasts >= Seconds::ZERO && lasts.as_secs() <= (to - from).as_secs() * (1.0 + 1e-9));
            let whole = pulse.durations().by(school);
            let wide = windows.lasts(Seconds::ZERO, s(1.0));
            prop_assert!((wide.as_secs() / whole.as_secs() - 1.0).abs() < 2e-2, "{school:?}: {wide:?}, {whole:?}");
        }
    }
}
