//! Place and time under the sky, checked, and where the sun stands then.

use crate::file::sky::Sky;
use crate::plan::check::At;
use crate::quantity::bounds::{self, Invalid};
use solar_positioning::time::JulianDate;
use solar_positioning::{Location, SolarPositions};

const MINUTES_OF_A_DAY: f64 = 24.0 * 60.0;

/// A day and a time that can be.
pub(crate) struct Clock {
    /// Year, month and day.
    pub date: (i32, u32, u32),
    /// Minutes since midnight.
    pub minute: u32,
}

impl Sky {
    pub(crate) fn check(&self, at: &At) -> Result<(), Invalid> {
        self.clock(at).map(|_| ())
    }

    pub(crate) fn clock(&self, at: &At) -> Result<Clock, Invalid> {
        at.figure("latitude_deg", self.latitude_deg, &bounds::LATITUDE)?;
        at.figure("longitude_deg", self.longitude_deg, &bounds::LONGITUDE)?;
        at.figure("utc_offset_min", f64::from(self.utc_offset_min), &bounds::UTC_OFFSET)?;
        at.figure("cloud_stops", self.cloud_stops, &bounds::CLOUD)?;
        at.maybe("camera_looks_deg", self.camera_looks_deg, &bounds::COMPASS)?;
        let day = || at.not_allowed("date", &self.date, "a day such as 2026-06-21, from 2010 to 2100");
        let time = || at.not_allowed("time", &self.time, "a time such as 18:30");
        let date = read_date(&self.date).ok_or_else(day)?;
        let minute = read_time(&self.time).ok_or_else(time)?;
        Ok(Clock { date, minute })
    }
}

/// Whole numbers with signs between them, each of its own length.
fn numbers(text: &str, between: char, lengths: &[usize]) -> Option<Vec<u32>> {
    let fields: Vec<&str> = text.split(between).collect();
    let digits =
        |field: &&str, length: &usize| field.len() == *length && field.bytes().all(|byte| byte.is_ascii_digit());
    let fits = fields.len() == lengths.len() && fields.iter().zip(lengths).all(|(field, length)| digits(field, length));
    fits.then(|| fields.iter().filter_map(|field| field.parse().ok()).collect())
}

fn read_date(text: &str) -> Option<(i32, u32, u32)> {
    let [year, month, day] = numbers(text, '-', &[4, 2, 2])?.try_into().ok()?;
    let leap = year % 4 == 0 && (year % 100 != 0 || year % 400 == 0);
    let last = match month {
        2 => 28 + u32::from(leap),
        4 | 6 | 9 | 11 => 30,
        1..=12 => 31,
        _ => return None,
    };
    ((2010..=2100).contains(&year) && (1..=last).contains(&day)).then_some((year as i32, month, day))
}

fn read_time(text: &str) -> Option<u32> {
    let [hour, minute] = numbers(text, ':', &[2, 2])?.try_into().ok()?;
    (hour < 24 && minute < 60).then_some(hour * 60 + minute)
}

/// Where the sun stands.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(crate) struct SunAt {
    /// From north by east.
    pub azimuth_deg: f64,
    /// Over the horizon, before the air lifts it.
    pub true_deg: f64,
    /// The same as it is seen.
    pub seen_deg: f64,
}

/// The sun at a minute of the day.
pub(crate) fn sun_at(sky: &Sky, clock: &Clock, minute: u32) -> SunAt {
    let (year, month, day) = clock.date;
    let location = Location { latitude: sky.latitude_deg, longitude: sky.longitude_deg };
    JulianDate::from_utc_simple(year, month, day, 0, 0, 0.0)
        .and_then(|midnight| {
            let days = f64::from(minute as i32 - sky.utc_offset_min) / MINUTES_OF_A_DAY;
            JulianDate::new(midnight.julian_date() + days, solar_positioning::delta_t::estimate_from_date(year, month)?)
        })
        .and_then(|time| SolarPositions::grena3().at_from_julian(time, location, 0.0, None))
        .map_or(SunAt { azimuth_deg: 0.0, true_deg: -90.0, seen_deg: -90.0 }, |sun| {
            // Place and date were checked: the sun has a place.
            let true_deg = sun.elevation_angle();
            SunAt { azimuth_deg: sun.azimuth(), true_deg, seen_deg: true_deg + lifted(true_deg) }
        })
}

/// How much the air lifts what stands at a true height, in degrees (Sæmundsson, *Sky & Telescope* 72, 1986; at 10 °C and
/// 1010 hPa); nothing below the horizon by more than a degree.
fn lifted(true_deg: f64) -> f64 {
    if true_deg < -1.0 {
        return 0.0;
    }
    1.02 / 60.0 / (true_deg + 10.3 / (true_deg + 5.11)).to_radians().tan()
}
