//! The sun on the floor: where it stands over the day, when it stands behind the subject, and where the flash comes from.
//!
//! model.md §12: bearing is the camera's heading + 180° − azimuth; its height is as it is seen, lifted by the air.

use super::clock_words;
use super::said::{SunHour, SunSaid};
use crate::file::sky::Sky;
use crate::plan::Plan;
use crate::plan::check::At;
use crate::plan::sky::{SunAt, sun_at};
use crate::quantity::{Angle, Metres};
use crate::stage::field::placed;
use crate::stage::lens::Lens;

/// Behind the subject, and within this of straight behind it: a rim.
const BEHIND_DEG: f64 = 20.0;
/// Minutes of a day that are looked at.
const DAY: u32 = 24 * 60;
/// As far away as anything on the set is not.
const FAR: Metres = Metres::from_metres(1e6);

/// From −180 to 180.
fn turned(degrees: f64) -> f64 {
    (degrees + 180.0).rem_euclid(360.0) - 180.0
}

pub(super) fn sun(sky: &Sky, lens: &Lens, plan: &Plan) -> Option<SunSaid> {
    let looks = sky.camera_looks_deg?;
    // Checked with the shot.
    let clock = sky.clock(&At::default()).ok()?;
    let bearing = |sun: &SunAt| turned(looks + 180.0 - sun.azimuth_deg);
    let at = |minute: u32| sun_at(sky, &clock, minute);
    let now = at(clock.minute);
    let (around, height) = (bearing(&now), now.seen_deg);
    let spot = placed(Angle::from_degrees(around), Angle::from_degrees(height), FAR);
    // The sky is behind everything that is behind.
    let in_lens = height > 0.0 && lens.beyond(spot) < 0.0;
    let up = |sun: &SunAt| sun.seen_deg > 0.0;
    let time = |minute: u32| format!("{:02}:{:02}", minute / 60 % 24, minute % 60);
    let hours = (0..24)
        .map(|hour| (hour * 60, at(hour * 60)))
        .filter(|(_, sun)| up(sun))
        .map(|(minute, sun)| SunHour { time: time(minute), bearing_deg: bearing(&sun) })
        .collect();
    let mut says = Vec::new();
    if height > 0.0 {
        let shadow =
            plan.stage.composition.people.first().map_or(1.8, |subject| subject.height_m) / height.to_radians().tan();
        let long =
            if shadow < 50.0 { format!("; shadows are {} long", plan.lengths.say(shadow, 1)) } else { String::new() };
        says.push(format!("The sun stands at {} o'clock, {height:.0}° high{long}.", clock_words(around)));
    } else {
        says.push("The sun is down.".to_owned());
    }
    if in_lens {
        says.push("It is in the picture.".to_owned());
    }
    let behind = |sun: &SunAt| up(sun) && (bearing(sun).abs() - 180.0).abs() <= BEHIND_DEG;
    let minutes: Vec<u32> = (0..DAY).filter(|minute| behind(&at(*minute))).collect();
    says.push(match (minutes.first(), minutes.last()) {
        (Some(first), Some(last)) => format!("Behind the subject, as a rim, from {} to {}.", time(*first), time(*last)),
        _ => "On this day it never stands behind the subject: turn the set for a rim.".to_owned(),
    });
    if height > 0.0 {
        let (with, against) = if around < 0.0 { ("left", "right") } else { ("right", "left") };
        says.push(format!(
            "Two schools: the flash from the sun's side (camera's {with}) looks like more sun; from the other ({against}) it \
             fills its shadows and leaves it as a rim."
        ));
    }
    Some(SunSaid {
        bearing_deg: around,
        north_deg: turned(looks + 180.0),
        clock: clock_words(around),
        height_deg: height,
        in_lens,
        hours,
        says,
    })
}
