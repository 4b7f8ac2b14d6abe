//! The light of a day: known suns, known days without one, and dates that cannot be.

use pebble_core::daylight::{Sky, SkyDay, day};
use proptest::prelude::*;

fn sky(latitude_deg: f64, longitude_deg: f64, date: &str, time: &str, utc_offset_min: i32) -> Sky {
    Sky {
        latitude_deg,
        longitude_deg,
        date: date.to_owned(),
        time: time.to_owned(),
        utc_offset_min,
        cloud_stops: 0.0,
        camera_looks_deg: None,
    }
}

fn of(sky: &Sky) -> SkyDay {
    day(sky).unwrap_or_else(|error| panic!("{error}"))
}

fn minutes(clock: &str) -> i32 {
    let (hour, minute) = clock.split_once(':').unwrap();
    hour.parse::<i32>().unwrap() * 60 + minute.parse::<i32>().unwrap()
}

#[test]
fn suns_worked_by_hand() {
    // At an equinox the sun stands at 90° less the latitude at noon, whatever the year; on the tropics overhead in June.
    // Greenwich, by the mean sun: noon is within a quarter of an hour of twelve.
    for (latitude, date, altitude) in [
        (51.5, "2026-03-20", 38.5),
        (51.5, "2026-06-21", 61.9),
        (51.5, "2026-12-21", 15.1),
        (23.44, "2026-06-21", 90.0),
        (-33.9, "2026-12-21", 79.5),
    ] {
        let points = of(&sky(latitude, 0.0, date, "12:00", 0)).points;
        let highest = points.iter().map(|at| at.altitude_deg).fold(f64::MIN, f64::max);
        assert!((highest - altitude).abs() < 0.6, "{latitude}° on {date}: {highest}");
        let noon = points.iter().max_by(|a, b| a.altitude_deg.total_cmp(&b.altitude_deg)).unwrap();
        assert!((noon.minute as i32 - 720).abs() <= 20, "{latitude}° on {date}: {}", noon.time);
    }
    // Days and nights are equal at an equinox, but for refraction and the sun's own size: some ten minutes more day.
    let equinox = of(&sky(0.0, 0.0, "2026-03-20", "12:00", 0));
    let long = minutes(&equinox.sets.unwrap()) - minutes(&equinox.rises.unwrap());
    assert!((long - 727).abs() <= 4, "{long} minutes");
    // The light falls without a step through the sunset: from minute to minute by a quarter of a stop at most.
    let evening: Vec<f64> = (1080..1200)
        .map(|minute| of(&sky(51.5, 0.0, "2026-03-20", &format!("{:02}:{:02}", minute / 60, minute % 60), 0)).now.lux)
        .collect();
    assert!(evening.windows(2).all(|pair| (0.0..0.27).contains(&(pair[0] / pair[1]).log2())), "{evening:?}");
    // Full sun on level ground: a hundred thousand lux, more or less.
    let full = of(&sky(23.44, 0.0, "2026-06-21", "12:00", 0)).now;
    assert!((80_000.0..140_000.0).contains(&full.lux), "{}", full.lux);
}

#[test]
fn a_clock_ahead_moves_the_day_and_a_place_east_moves_it_back() {
    let noon = |longitude: f64, offset: i32| {
        let points = of(&sky(50.0, longitude, "2026-05-10", "12:00", offset)).points;
        points.iter().max_by(|a, b| a.altitude_deg.total_cmp(&b.altitude_deg)).unwrap().minute as i32
    };
    assert!((noon(0.0, 60) - noon(0.0, 0) - 60).abs() <= 10);
    assert!((noon(0.0, 0) - noon(15.0, 0) - 60).abs() <= 10);
    assert!((noon(15.0, 60) - noon(0.0, 0)).abs() <= 10);
}

#[test]
fn days_without_a_rise_or_a_set_are_said() {
    let says = |day: &SkyDay, words: &str| day.notes.iter().any(|note| note.contains(words));
    let summer = of(&sky(78.0, 15.0, "2026-06-21", "23:30", 120));
    assert!((summer.rises.is_none(), summer.sets.is_none()) == (true, true) && says(&summer, "does not set"));
    assert!(summer.now.lux > 1000.0, "the sun at midnight: {}", summer.now.lux);
    let winter = of(&sky(78.0, 15.0, "2026-12-21", "12:00", 60));
    assert!(winter.rises.is_none() && says(&winter, "does not rise") && winter.now.lux < 50.0);
    assert!(winter.points.iter().all(|at| at.lux > 0.0 && at.lux.is_finite()), "there is always a little");
    assert!(winter.drops.iter().all(|drop| drop.at.as_ref().is_none_or(|at| at.lux.is_finite())));
    for pole in [90.0, -90.0] {
        assert_eq!(of(&sky(pole, 0.0, "2026-06-21", "12:00", 0)).points.len(), 145);
    }
}

#[test]
fn waiting_for_dusk() {
    let evening = of(&sky(52.0, 5.0, "2026-06-21", "21:30", 120));
    let mut last = 0;
    for drop in evening.drops.iter().filter(|drop| drop.minutes.is_some()) {
        let at = drop.at.as_ref().unwrap();
        let stops = (evening.now.lux / at.lux).log2();
        // Found to the minute: light falls by up to a third of a stop in one.
        assert!((f64::from(drop.stops)..f64::from(drop.stops) + 0.4).contains(&stops), "{stops} for {}", drop.stops);
        assert!(drop.minutes.unwrap() > last, "each takes longer than the one before");
        last = drop.minutes.unwrap();
    }
    assert!(evening.drops[2].minutes.is_some_and(|minutes| (15..70).contains(&minutes)), "{:?}", evening.drops[2]);
    // In the morning it takes until evening, and late at night there is no more of this day.
    assert!(of(&sky(52.0, 5.0, "2026-06-21", "08:00", 120)).drops[0].minutes.is_some_and(|minutes| minutes > 600));
    assert!(of(&sky(52.0, 5.0, "2026-06-21", "23:55", 120)).drops[5].minutes.is_none());
}

#[test]
fn what_cannot_be_is_refused_by_its_field() {
    let good = sky(52.0, 5.0, "2026-06-21", "12:00", 120);
    let cases: [(&str, Sky); 13] = [
        ("latitude_deg", Sky { latitude_deg: 90.1, ..good.clone() }),
        ("latitude_deg", Sky { latitude_deg: f64::NAN, ..good.clone() }),
        ("longitude_deg", Sky { longitude_deg: -181.0, ..good.clone() }),
        ("utc_offset_min", Sky { utc_offset_min: 900, ..good.clone() }),
        ("cloud_stops", Sky { cloud_stops: -1.0, ..good.clone() }),
        ("date", Sky { date: "2026-02-29".to_owned(), ..good.clone() }),
        ("date", Sky { date: "2026-13-01".to_owned(), ..good.clone() }),
        ("date", Sky { date: "21.06.2026".to_owned(), ..good.clone() }),
        ("date", Sky { date: "1626-06-21".to_owned(), ..good.clone() }),
        ("date", Sky { date: "2026-06-+1".to_owned(), ..good.clone() }),
        ("time", Sky { time: "24:00".to_owned(), ..good.clone() }),
        ("time", Sky { time: "7pm".to_owned(), ..good.clone() }),
        ("time", Sky { time: String::new(), ..good.clone() }),
    ];
    for (field, wrong) in cases {
        assert_eq!(day(&wrong).expect_err(field).field(), field, "{wrong:?}");
    }
    assert!(day(&Sky { date: "2028-02-29".to_owned(), ..good }).is_ok(), "a leap day is a day");
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 48, ..ProptestConfig::default() })]

    #[test]
    fn clouds_take_what_is_said_and_nothing_is_ever_not_a_number(
        latitude in -90.0..90.0f64, longitude in -180.0..180.0f64, month in 1u32..=12, date in 1u32..=28, hour in 0u32..24,
        offset in -12i32..=14, cloud in 0.0..8.0f64
    ) {
        let clear = sky(latitude, longitude, &format!("2026-{month:02}-{date:02}"), &format!("{hour:02}:15"), offset * 60);
        let (open, covered) = (of(&clear), of(&Sky { cloud_stops: cloud, ..clear.clone() }));
        prop_assert!(((open.now.lux / covered.now.lux).log2() - cloud).abs() < 1e-9);
        prop_assert_eq!(open.drops.iter().map(|drop| drop.minutes).collect::<Vec<_>>(),
            covered.drops.iter().map(|drop| drop.minutes).collect::<Vec<_>>(), "clouds that stay change no waiting");
        for at in open.points.iter().chain([&open.now]) {
            prop_assert!(at.lux.is_finite() && at.lux > 0.0 && at.altitude_deg.abs() <= 91.0);
        }
        prop_assert_eq!((open.points.len(), open.points[0].time.as_str()), (145, "00:00"));
    }
}
