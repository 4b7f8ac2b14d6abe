//! Scales, limits and the root finder: what everything else is counted with.

use pebble_core::physics::root::crossing;
use pebble_core::quantity::bounds;
use pebble_core::quantity::scale::{Aperture, Grid, Iso, ShutterTime, duration_label, power_label};
use pebble_core::quantity::{Seconds, Stops};

#[test]
fn every_limit_lets_its_ends_in_and_nothing_beyond() {
    for row in bounds::ALL {
        assert!(row.min < row.max, "{}", row.what);
        assert!(row.check("x", row.min).is_ok() && row.check("x", row.max).is_ok(), "{}", row.what);
        for wrong in [
            row.min - 1e-3 - row.min.abs() * 1e-6,
            row.max + 1e-9 + row.max.abs() * 1e-6,
            f64::NAN,
            f64::INFINITY,
            f64::NEG_INFINITY,
        ] {
            let refusal = row.check("some.field", wrong).expect_err(row.what);
            assert_eq!(refusal.field(), "some.field");
            assert!(refusal.to_string().contains(row.what), "{refusal}");
        }
    }
}

#[test]
fn a_label_is_read_as_the_exact_value_and_anything_else_literally() {
    let aperture = |n| Aperture::read("f", n, Grid::Thirds).unwrap().number();
    let time = |text| ShutterTime::read("t", text, Grid::Thirds).unwrap().time().as_secs();
    let iso = |n| Iso::read("s", n, Grid::Thirds).unwrap().number();
    let cases = [
        ("f/5.6", aperture(5.6), 5.656_854_249),
        ("f/22", aperture(22.0), 22.627_417),
        ("f/5.3 is no label", aperture(5.3), 5.3),
        ("1/250", time("1/250"), 1.0 / 256.0),
        ("1/60", time("1/60"), 1.0 / 64.0),
        ("1/30 of an old body", time(" 1/30 s"), 1.0 / 32.0),
        ("1/240 is no label", time("1/240"), 1.0 / 240.0),
        ("0.3 seconds", time("0.3"), 2f64.powf(-10.0 / 6.0)),
        ("two seconds", time("2\""), 2.0),
        ("ISO 640", iso(640.0), 100.0 * 2f64.powf(16.0 / 6.0)),
        ("ISO 777 is no label", iso(777.0), 777.0),
    ];
    for (name, got, want) in cases {
        assert!((got / want - 1.0).abs() < 1e-7, "{name}: {got} instead of {want}");
    }
}

#[test]
fn the_camera_decides_where_thirds_and_halves_share_a_label() {
    let cases = [(1.2, Grid::Thirds, 4), (1.2, Grid::Halves, 3), (13.0, Grid::Thirds, 44), (13.0, Grid::Halves, 45)];
    for (number, grid, av6) in cases {
        assert_eq!(Aperture::read("f", number, grid).unwrap().av6(), Some(av6), "f/{number} in {grid:?}");
    }
    assert_eq!(ShutterTime::read("t", "1/20", Grid::Thirds).unwrap().tv6(), Some(26));
    assert_eq!(ShutterTime::read("t", "1/20", Grid::Halves).unwrap().tv6(), Some(27));
}

#[test]
fn every_label_leads_back_to_its_own_position_and_lies_near_the_exact_value() {
    for grid in [Grid::Thirds, Grid::Halves] {
        let step = grid.step();
        for k in (-6 / step)..=(78 / step) {
            let exact = Aperture::from_av6(k * step);
            let label: f64 = exact.label(grid).parse().unwrap();
            assert_eq!(Aperture::read("f", label, grid).unwrap().av6(), Some(k * step), "f/{label} in {grid:?}");
            assert!((label / exact.number()).log2().abs() < 0.11, "f/{label} for {}", exact.number());
        }
        for k in (-36 / step)..=(90 / step) {
            let exact = ShutterTime::from_tv6(k * step);
            let label = exact.label(grid);
            assert_eq!(ShutterTime::read("t", &label, grid).unwrap().tv6(), Some(k * step), "{label} in {grid:?}");
        }
        for k in (-24 / step)..=(72 / step) {
            let exact = Iso::from_sv6(k * step);
            let label: f64 = exact.label(grid).parse().unwrap();
            assert_eq!(Iso::read("s", label, grid).unwrap().sv6(), Some(k * step), "ISO {label} in {grid:?}");
            assert!((label / exact.number()).log2().abs() < 0.11, "ISO {label} for {}", exact.number());
        }
    }
}

#[test]
fn what_is_no_setting_is_refused() {
    for number in [0.0, -4.0, f64::NAN, f64::INFINITY, 1000.0] {
        assert!(Aperture::read("camera.aperture_f", number, Grid::Thirds).is_err(), "f/{number}");
    }
    for text in ["", "fast", "1/0", "-1/60", "1/", "NaN", "1/60/2", "0", "inf"] {
        let refused = ShutterTime::read("camera.shutter", text, Grid::Thirds).expect_err(text).to_string();
        // It is said of what was written, not of what came of it.
        assert!(!refused.contains("is inf") && !refused.contains("is NaN"), "{text:?}: {refused}");
    }
}

#[test]
fn durations_and_powers_are_written_as_photographers_write_them() {
    let cases = [(1.0 / 1923.0, "1/1900"), (0.000_042, "1/24000"), (0.002_668, "1/370"), (0.5, "0.5\""), (2.0, "2\"")];
    for (seconds, want) in cases {
        assert_eq!(duration_label(Seconds::from_secs(seconds)), want);
    }
    let powers = [
        (0.0, "1/1"),
        (1.0, "1/2"),
        (3.0, "1/8"),
        (2.666_666_7, "1/8 +0.3"),
        (0.333_333_3, "1/2 +0.7"),
        (0.1, "1/2 +0.9"),
    ];
    for (below, want) in powers {
        assert_eq!(power_label(Stops::from_stops(below)), want, "{below} below full");
    }
}

#[test]
fn a_root_is_found_on_steep_flat_and_reversed_functions() {
    type Case = (&'static str, f64, f64, fn(f64) -> f64, f64);
    let cases: [Case; 4] = [
        ("line", 0.0, 3.0, |x| x - 1.25, 1.25),
        ("falling exponential", 0.0, 50.0, |x| (-x).exp() - 0.1, std::f64::consts::LN_10),
        ("tenth power", 0.0, 4.0, |x| x.powi(10) - 2.0, 2f64.powf(0.1)),
        ("root at an end", 1.0, 2.0, |x| x - 1.0, 1.0),
    ];
    for (name, low, high, f, want) in cases {
        let got = crossing(low, high, f);
        assert!((got - want).abs() < 1e-10, "{name}: {got} instead of {want}");
    }
}
