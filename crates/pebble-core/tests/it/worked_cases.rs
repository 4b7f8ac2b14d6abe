//! The model against numbers computed apart from it, by a time-stepping simulation and by hand. Tolerances are those of
//! the simulation: 1 % on durations, 0.01 stop on light.

use pebble_core::daylight::clear_sky;
use pebble_core::depth::depth;
use pebble_core::drag::{drag, time_of_streak};
use pebble_core::exposure::{Level, illuminance_of_reading, reference_exposure};
use pebble_core::ghost::{Tones, Visibility, dwell, ghost};
use pebble_core::metering::{Patch, compensation};
use pebble_core::motion::{
    ImageMotion, Sensor, Sharpness, Usage, growth, image_speed, magnification, speed_limit, window_of_jump,
};
use pebble_core::output::{Entry, Face, Throw, fall_off};
use pebble_core::power::{Habit, Store, flashes_on_battery};
use pebble_core::pulse::table::TimedPower;
use pebble_core::pulse::{ChargeVoltage, DurationTable, Pulse, Quenched, SwitchedBanks};
use pebble_core::quantity::scale::{Aperture, Grid, Iso, ShutterTime};
use pebble_core::quantity::*;
use pebble_core::shutter::sync::{Timing, usable_sync};
use pebble_core::shutter::{Run, SyncMode, high_speed, rows};

/// Passes if `|got − want| ≤ abs + rel·|want|`; infinities must be the same.
#[track_caller]
fn close(name: &str, got: f64, want: f64, rel: f64, abs: f64) {
    let fits = if want.is_infinite() { got == want } else { (got - want).abs() <= abs + rel * want.abs() };
    assert!(fits, "{name}: got {got}, wanted {want}");
}

fn s(value: f64) -> Seconds {
    Seconds::from_secs(value)
}

fn m(value: f64) -> Metres {
    Metres::from_metres(value)
}

const TOP_UNIT: Quenched = Quenched { rise: s_const(30e-6), decay: s_const(0.0011), fall: s_const(12e-6) };
const SLOW_HEAD: Quenched = Quenched { rise: s_const(40e-6), decay: s_const(0.0016), fall: s_const(25e-6) };

const fn s_const(value: f64) -> Seconds {
    Seconds::from_secs(value)
}

#[test]
fn a_hall_read_at_one_exposure_is_placed_at_another() {
    let light = illuminance_of_reading(Aperture::from_av6(18), ShutterTime::from_tv6(36), Iso::from_sv6(24));
    close("E", light.as_lux(), 108.8, 0.0, 0.01);
    let reference = reference_exposure(Aperture::from_av6(24), Iso::from_sv6(12), Stops::ZERO);
    let placed = Stops::placement(light * ShutterTime::from_tv6(48).time(), reference);
    close("placement", placed.as_stops(), -5.0, 0.0, 0.01);
}

#[test]
fn sources_add_as_light_and_a_dark_one_adds_nothing() {
    let total = sum_of_sources([0.0, -1.7, -5.0].map(Stops::from_stops).into_iter().chain([Stops::DARK]));
    close("total", total.as_stops(), 0.421_194_9, 0.0, 0.01);
    assert_eq!(sum_of_sources([Stops::DARK, Stops::DARK]), Stops::DARK);
    assert_eq!(sum_of_sources([]), Stops::DARK);
}

#[test]
fn a_small_unit_through_a_face_close_by_gives_what_was_simulated() {
    let throw = Throw {
        output: Entry::GuideNumber(m(36.0)).output(),
        modifier: Stops::from_stops(-1.6),
        face: Face { radius: m(0.45), offset: m(0.0) },
    };
    let exposure = throw.exposure(0.25, m(1.1));
    close("H", exposure.as_lux_seconds(), 257.269, 0.0, 0.01);
    let reference = reference_exposure(Aperture::from_av6(30), Iso::from_sv6(6), Stops::ZERO);
    close("placement", Stops::placement(exposure, reference).as_stops(), 2.241_599, 0.0, 0.01);
    close("inverse", throw.distance_for(0.25, exposure).unwrap().as_metres(), 1.1, 1e-9, 0.0);
    close("power back", throw.power_for(m(1.1), exposure), 0.25, 1e-9, 0.0);
    // Brighter than the face itself at no distance: the ceiling is H1·2^M·P/R².
    let ceiling = throw.exposure(0.25, m(0.0));
    assert_eq!(throw.distance_for(0.25, ceiling * 1.01), None);
}

#[test]
fn a_large_face_close_by_falls_off_far_less_than_two_stops() {
    let face = Face { radius: m(0.75), offset: m(0.0) };
    close("0.5 to 1 m", fall_off(face, m(0.5), m(1.0)).as_stops(), -0.943_416_5, 0.0, 0.01);
    close("far away", fall_off(face, m(50.0), m(100.0)).as_stops(), -2.0, 0.0, 0.01);
}

#[test]
fn every_way_of_entering_an_output_tells_of_the_same_unit() {
    // A unit of guide number 60: f/8 at 7.5 m would be read at ISO 100 from 340·64 = 21 760 lx·s at one metre each.
    let face = Face { radius: m(0.4), offset: m(0.1) };
    let by_number = Entry::GuideNumber(m(60.0)).output();
    let exposure = by_number.as_lux_seconds_square_metres() / 9.0;
    let by_exposure = Entry::Exposure { exposure: LuxSeconds::from_lux_seconds(exposure), distance: m(3.0) }.output();
    close("exposure", by_exposure / by_number, 1.0, 1e-12, 0.0);
    // The same unit read through a modifier of −2 stops at half power, 2 m away: the f-number that a meter would show.
    let throw = Throw { output: by_number, modifier: Stops::from_stops(-2.0), face };
    let aperture = (throw.exposure(0.5, m(2.0)).as_lux_seconds() * 200.0 / 340.0).sqrt();
    let by_reading = Entry::Reading {
        aperture: Aperture::read("f", aperture, Grid::Thirds).unwrap(),
        iso: Iso::read("s", 200.0, Grid::Thirds).unwrap(),
        power: 0.5,
        distance: m(2.0),
        face,
        modifier: Stops::from_stops(-2.0),
    };
    close("reading", by_reading.output() / by_number, 1.0, 1e-9, 0.0);
    let joules = |half_angle| Entry::Energy { energy: Joules::from_joules(400.0), half_angle };
    close("joules", joules(None).output().as_lux_seconds_square_metres(), 12_000.0, 1e-12, 0.0);
    // A beam of half-angle 30°: n = ln ½/ln cos 30° = 4.8188, so 35·400·5.8188/2π.
    close(
        "joules, beam",
        joules(Some(Angle::from_degrees(30.0))).output().as_lux_seconds_square_metres(),
        12_965.3,
        1e-4,
        0.0,
    );
    assert!(joules(None).is_estimate() && !Entry::GuideNumber(m(60.0)).is_estimate());
}

#[test]
fn a_quenched_unit_lasts_as_simulated_at_every_power() {
    let cases = [
        (1.0, 0.000_883_093_5, 0.002_668_529, 0.002_560_93),
        (0.5, 0.000_763_483_5, 0.000_797_850_2, 0.000_677_074_8),
        (0.25, 0.000_322_337_1, 0.000_356_703_7, 0.000_293_399_2),
        (0.0625, 7.830_123e-5, 0.000_112_467, 8.538_772e-5),
        (0.0078125, 1.734_741e-5, 4.225_051e-5, 3.593_926e-5),
    ];
    for (power, t05, t01, t90) in cases {
        let durations = TOP_UNIT.pulse(power).durations();
        close(&format!("t0.5 at {power}"), durations.t05.as_secs(), t05, 0.01, 1e-9);
        close(&format!("t0.1 at {power}"), durations.t01.as_secs(), t01, 0.01, 1e-9);
        close(&format!("t90 at {power}"), durations.t90.as_secs(), t90, 0.01, 1e-9);
    }
}

#[test]
fn a_charge_voltage_unit_is_longer_at_low_power() {
    let unit = ChargeVoltage { rise: s(50e-6), decay: s(0.00085), gamma: 0.18 };
    let low = unit.pulse(1.0 / 32.0).durations();
    close("t0.5", low.t05.as_secs(), 0.001_410_397, 0.01, 1e-9);
    close("t0.1", low.t01.as_secs(), 0.004_004_816, 0.01, 1e-9);
    close("t90", low.t90.as_secs(), 0.003_738_359, 0.01, 1e-9);
    assert!(low.t01 > unit.pulse(1.0).durations().t01);
}

#[test]
fn switched_banks_are_shortest_at_the_last_switch_point() {
    let unit = SwitchedBanks { rise: s(20e-6), decay: s(0.0012), gamma: 0.2, banks: 4 };
    let t01 = |power| unit.pulse(power).durations().t01;
    // By hand: at P = 1/4 one bank, τd = 0.3 ms, uncharged stretch 1; at 1/8 the same bank at half charge, × 2^0.2.
    close("in use", f64::from(unit.in_use(0.25)), 1.0, 0.0, 0.0);
    close("half charge stretches all", t01(0.125) / t01(0.25), 2f64.powf(0.2), 1e-9, 0.0);
    assert!(t01(0.25) < t01(0.5) && t01(0.5) < t01(1.0), "shortens down the switch points");
    assert!(t01(0.251) > t01(0.25), "jumps up just above a switch point");
    assert!(t01(1.0 / 32.0) > t01(0.25), "grows again below the last");
}

#[test]
fn a_table_is_read_between_its_rows_on_a_power_law() {
    let row = |power, t05, t01| TimedPower { power, t05: s(t05), t01: s(t01), estimated: false, t01_fitted: false };
    // Rows as a file gives them, through the only door there is.
    let rows = [row(1.0, 0.0016, 0.0032), row(0.25, 0.0004, 0.0008), row(0.0625, 0.0001, 0.0002)];
    let table = table_of(&rows);
    let middle = table.at(0.125);
    close("t0.5", middle.row.t05.as_secs(), 0.0002, 0.01, 1e-9);
    close("t0.1", middle.row.t01.as_secs(), 0.0004, 0.01, 1e-9);
    assert!(!middle.outside && table.at(0.01).outside);
    close("nearest end", table.at(0.01).row.t01.as_secs(), 0.0002, 1e-12, 0.0);
}

fn table_of(rows: &[TimedPower]) -> DurationTable {
    use pebble_core::gear;
    let mut shot = crate::common::shot();
    let wire = |row: &TimedPower| gear::TableRow {
        power: row.power,
        t05_ms: Some(row.t05.as_millis()),
        t01_ms: Some(row.t01.as_millis()),
    };
    shot.lights[0].unit.control = gear::Control::Table { rows: rows.iter().rev().map(wire).collect(), discharge: None };
    match crate::common::plan(&shot).key_light().unit.control.clone() {
        pebble_core::pulse::Control::Table(table) => table,
        other => panic!("not a table: {other:?}"),
    }
}

#[test]
fn rows_lose_light_as_simulated() {
    struct Case(&'static str, Quenched, f64, f64, [f64; 6]);
    let run = Run { travel: s(0.003406), time: s(0.00390625) };
    let cases = [
        Case(
            "full power at the rated speed through a slow radio",
            SLOW_HEAD,
            1.0,
            0.00025,
            [-3.018_013, 1.0, 0.0, 0.123_449, 0.697_625_4, 0.895_697_9],
        ),
        Case("lag beyond the window", TOP_UNIT, 0.25, 0.012, [f64::NEG_INFINITY, 1.0, 1.0, 0.0, 0.0, 0.0]),
    ];
    for Case(name, unit, power, lag, [worst, touched, black, first, middle, last]) in cases {
        let report = rows::report(run, &unit.pulse(power), run.travel + s(lag));
        close(name, report.worst.as_stops(), worst, 0.01, 0.006);
        for (got, want) in [
            (report.touched, touched),
            (report.black, black),
            (report.first, first),
            (report.middle, middle),
            (report.last, last),
        ] {
            close(name, got, want, 0.01, 0.006);
        }
    }
}

#[test]
fn usable_sync_is_the_fastest_time_that_leaves_no_row_dark() {
    let pulse = SLOW_HEAD.pulse(1.0);
    let timing = Timing { lag: s(0.00025), guard: s(0.0005), length: pulse.time_of_share(0.99) };
    let range = (ShutterTime::from_tv6(-30), ShutterTime::from_tv6(78));
    let usable = usable_sync(s(0.003406), SyncMode::Front, timing, &pulse, Grid::Thirds, range).unwrap();
    assert_eq!(usable.tv6(), Some(40));
    close("t", usable.time().as_secs(), 0.009_843_133, 0.005, 1e-9);
}

#[test]
fn high_speed_sync_costs_light_and_leans() {
    let run = Run { travel: s(0.003406), time: s(0.00048828125) };
    let loss = high_speed::loss(run, 0.7);
    close("loss", loss.as_stops(), -3.510_146, 0.003, 1e-9);
    close("H", 210.0 * loss.as_ratio(), 18.431_47, 0.003, 1e-9);
    let u = MetresPerSecond::from_metres_per_second(12.0 * 0.018);
    close("lean", high_speed::lean(run, u).as_metres(), 0.000_735_696, 0.003, 1e-9);
}

const SENSOR: Sensor = Sensor { width: Metres::from_metres(0.036), height: Metres::from_metres(0.024), pixels: 6000.0 };

#[test]
fn a_lunge_blurs_part_by_part() {
    let allowed = Usage::Screen.allowed_blur(&SENSOR);
    close("allowed", allowed / SENSOR.pitch(), 2.929_687, 0.005, 1e-9);
    let magnified = magnification(m(0.085), m(6.0));
    let cases = [
        ("torso", 2.0, 0.0, 2.155_537, 37.422_51, Sharpness::Crisp, 0.0),
        ("hand", 7.0, 10.0, 7.429_763, 128.988_9, Sharpness::Soft, 0.001_582_731),
        ("tip", 18.0, 40.0, 14.861_13, 258.005_8, Sharpness::Blurred, 0.015_065_33),
    ];
    for (name, speed, angle, flash_px, ambient_px, class, grows) in cases {
        let (speed, angle) = (MetresPerSecond::from_metres_per_second(speed), Angle::from_degrees(angle));
        let u = image_speed(speed, angle, magnified);
        close(name, (u * s(0.00045)) / SENSOR.pitch(), flash_px, 0.005, 1e-9);
        close(name, (u * s(0.0078125)) / SENSOR.pitch(), ambient_px, 0.005, 1e-9);
        assert_eq!(Sharpness::of(u * s(0.00045), allowed), class, "{name}");
        close(name, growth(speed, angle, s(0.0078125), m(6.0)), grows, 0.005, 1e-9);
    }
}

#[test]
fn a_jump_hangs_long_enough_around_its_top() {
    let limit = speed_limit(SENSOR.pitch() * 1.5, s(0.0011), magnification(m(0.05), m(4.5)));
    close("v_max", limit.as_metres_per_second(), 0.728_181_8, 0.005, 1e-9);
    let still = MetresPerSecond::ZERO;
    close("window", window_of_jump(limit, still).unwrap().as_secs(), 0.148_507_8, 0.005, 1e-9);
    assert_eq!(window_of_jump(limit, limit), None, "a sideways speed as large as the limit leaves no window");
}

#[test]
fn a_pale_sleeve_over_a_black_wall_draws_a_visible_trail() {
    let magnified = magnification(m(0.085), m(5.0));
    let path = image_speed(MetresPerSecond::from_metres_per_second(4.0), Angle::ZERO, magnified) * s(0.015625);
    let tones = Tones {
        part_ambient: Level::of_surface(0.7, Stops::from_stops(-4.0)),
        part_flash: Level::of_surface(0.7, Stops::ZERO),
        background_ambient: Level::of_surface(0.05, Stops::from_stops(-5.0)),
        background_flash: Level::BLACK,
    };
    let seen = ghost(dwell(m(0.012) * magnified, path), 1.0, tones);
    close("dwell", seen.dwell, 0.192, 0.01, 0.02);
    close("trail", seen.beside.value(), 0.053_680_56, 0.01, 0.0);
    close("through", seen.through.value(), 3.942_569, 0.01, 0.0);
    close("plain", seen.plain.value(), 0.008_680_556, 0.01, 0.0);
    close("ΔL*", seen.delta_lightness, 7.295_665, 0.01, 0.02);
    assert_eq!(seen.visibility(), Visibility::Visible);
    for (delta, word) in [
        (0.99, Visibility::Not),
        (1.0, Visibility::Faint),
        (-3.0, Visibility::Visible),
        (10.0, Visibility::Visible),
        (-10.1, Visibility::Strong),
    ] {
        assert_eq!(Visibility::of(delta), word, "ΔL* {delta}");
    }
}

#[test]
fn a_lantern_skater_needs_two_times_at_once() {
    let u = image_speed(MetresPerSecond::from_metres_per_second(4.5), Angle::ZERO, magnification(m(0.035), m(6.0)));
    let motion = ImageMotion::of((u, Angle::ZERO), (MetresPerSecond::ZERO, Angle::ZERO));
    let streak = time_of_streak(0.33, SENSOR.width, &motion);
    let reference = reference_exposure(Aperture::from_av6(30), Iso::from_sv6(12), Stops::ZERO);
    let both = drag(streak, Stops::from_stops(-1.5), reference, Lux::from_lux(38.0));
    close("streak", both.streak.as_secs(), 0.449_931_4, 0.005, 1e-9);
    close("ambient", both.ambient.as_secs(), 0.253_069_8, 0.005, 1e-9);
    close("light", both.light_change.as_stops(), -0.830_169_8, 0.005, 1e-9);
    close("flash", both.flash_change().as_stops(), 0.830_169_8, 0.005, 1e-9);
}

#[test]
fn a_burst_holds_until_the_store_runs_down() {
    let unit = Store { full: Joules::from_joules(62.0), recycle: s(1.7), borrows: true, habit: Habit::Dim };
    let frames = unit.burst(0.125, 10.0, 14);
    assert!(frames.iter().all(|loss| *loss == Stops::ZERO), "{frames:?}");
    // By hand: 31 J a frame against 3.6 J between them: 62, 34.6, then 7.3 of 31 J, which is −2.09 stops.
    let half = unit.burst(0.5, 10.0, 3);
    assert_eq!(half[..2], [Stops::ZERO, Stops::ZERO]);
    close("third frame", half[2].as_stops(), (2.0 * 62.0 / 17.0f64 / 31.0).log2(), 1e-9, 0.0);
    let held = Store { borrows: false, habit: Habit::Missing, ..unit }.burst(0.5, 10.0, 3);
    assert_eq!(held, [Stops::ZERO, Stops::DARK, Stops::DARK]);
    assert_eq!(flashes_on_battery(48.0, 0.72, Joules::from_joules(400.0), 0.25), 1244);
}

#[test]
fn depth_is_sharp_between_its_limits() {
    let zone = depth(m(0.085), Aperture::from_av6(18), m(3.0), m(2.88e-5));
    close("near", zone.near.as_metres(), 2.904_541, 0.005, 1e-9);
    close("far", zone.far.unwrap().as_metres(), 3.101_947, 0.005, 1e-9);
    close("hyperfocal", zone.hyperfocal.as_metres(), 88.780_25, 0.005, 1e-9);
    assert_eq!(depth(m(0.016), Aperture::from_av6(36), m(3.0), m(2.88e-5)).far, None);
}

#[test]
fn dark_clothes_before_a_dark_wall_fool_automatic_flash() {
    let patch = |area, reflectance| Patch { area, reflectance, relative_distance: 1.0 };
    let dark = [patch(0.55, 0.04), patch(0.38, 0.06), patch(0.07, 0.4)];
    close("compensation", compensation(&dark).as_stops(), -1.305_987, 0.0, 0.01);
}

#[test]
fn a_clear_sky_follows_the_sun() {
    let cases = [
        (90.0, 128_825.0),
        (62.0, 105_676.1),
        (20.0, 27_375.76),
        (12.0, 14_312.99),
        (5.0, 4538.316),
        (2.0, 1920.785),
        (0.0, 758.5776),
        (-0.8, 462.3819),
        (-3.0, 79.068_27),
        (-5.0, 10.444_28),
        (-6.0, 3.411_592),
        (-9.0, 0.116_393_8),
        (-12.0, 0.008_056_477),
        (-15.0, 0.002_023_321),
        (-30.0, 0.000_64),
    ];
    for (altitude, lux) in cases {
        close(&format!("sun at {altitude}°"), clear_sky(Angle::from_degrees(altitude)).as_lux(), lux, 0.015, 1e-9);
    }
}

/// A second route to the durations: time-stepping the shape's own intensity.
#[test]
fn durations_agree_with_stepping_through_the_pulse() {
    const STEPS: usize = 400_000;
    let banks = SwitchedBanks { rise: s(20e-6), decay: s(0.0012), gamma: 0.2, banks: 4 };
    let cases: [(&str, Pulse); 5] = [
        ("quenched, full", SLOW_HEAD.pulse(1.0)),
        ("quenched, 1/3", SLOW_HEAD.pulse(1.0 / 3.0)),
        ("quenched, cut in the rise", SLOW_HEAD.pulse(1.0 / 512.0)),
        ("banks", banks.pulse(0.3)),
        ("pair of a table", pebble_core::pulse::table::pulse_of_pair(s(0.001), s(0.0015))),
    ];
    for (name, pulse) in cases {
        let end = pulse.time_of_share(0.999_999).as_secs();
        let dt = end / STEPS as f64;
        let levels: Vec<f64> = (0..STEPS).map(|k| pulse.intensity(s((k as f64 + 0.5) * dt))).collect();
        let peak = levels.iter().copied().fold(0.0, f64::max);
        let span = |share: f64| {
            let above = |level: &&f64| **level >= share * peak;
            let first = levels.iter().position(|level| above(&level)).unwrap();
            let last = levels.iter().rposition(|level| above(&level)).unwrap();
            (last - first + 1) as f64 * dt
        };
        // Shortest window with 90 % of the light, by two fingers over the running sum.
        let mut running = vec![0.0];
        for level in &levels {
            running.push(running[running.len() - 1] + level * dt);
        }
        let mut shortest = usize::MAX;
        let mut to = 0;
        for from in 0..STEPS {
            while to < STEPS && running[to] - running[from] < 0.9 {
                to += 1;
            }
            if running[to] - running[from] >= 0.9 {
                shortest = shortest.min(to - from);
            }
        }
        let durations = pulse.durations();
        close(&format!("{name}: area"), running[STEPS], 1.0, 1e-3, 0.0);
        close(&format!("{name}: t0.5"), durations.t05.as_secs(), span(0.5), 2e-3, 2.0 * dt);
        close(&format!("{name}: t0.1"), durations.t01.as_secs(), span(0.1), 2e-3, 2.0 * dt);
        close(&format!("{name}: t90"), durations.t90.as_secs(), shortest as f64 * dt, 2e-3, 2.0 * dt);
    }
}
