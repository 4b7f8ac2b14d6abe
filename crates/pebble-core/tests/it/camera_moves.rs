//! A camera that moves on purpose: what a swing and a zoom draw of each part, worked by hand.

use crate::common::{plan, shot};
use pebble_core::drag::{DragWish, roads};
use pebble_core::forecast::forecast;
use pebble_core::quantity::Seconds;
use pebble_core::shot::{Intent, Movement, Shot};
use pebble_core::{conditions, outlook};

const STILL: Movement = Movement {
    pan_m_s: 0.0,
    direction_deg: 0.0,
    shake_deg_s: 0.0,
    zoom_share: 0.0,
    swing_deg_s: 0.0,
    follows: None,
    wanted: None,
};

/// One part that moves to a side, seen by a camera that moves.
fn seen_by(movement: Movement, speed_m_s: f64, direction_deg: f64) -> Shot {
    let mut shot = shot();
    shot.camera.movement = Some(movement);
    shot.parts.truncate(1);
    let part = &mut shot.parts[0];
    (part.speed_m_s, part.direction_deg, part.out_of_plane_deg, part.path_m) = (speed_m_s, direction_deg, 0.0, None);
    part.from_middle_share = None;
    shot
}

#[test]
fn a_swing_streaks_everything_by_angle_times_image_distance() {
    let base = shot();
    let (f, d) = (base.camera.focal_mm * 1e-3, base.subject.distance_m);
    // On the sensor: ω in radians, times f·D/(D − f).
    let swung = |degrees: f64| degrees.to_radians() * f * d / (d - f);
    let own = |metres: f64| metres * f / (d - f);
    // Swing °/s towards its direction, the part's m/s in its direction, what is expected on the sensor in m/s.
    for (swing, towards, speed, direction, wanted) in [
        (10.0, 0.0, 0.0, 0.0, swung(10.0)),
        (10.0, 90.0, 0.0, 0.0, swung(10.0)),
        // Against it both add, across it at a right angle.
        (10.0, 0.0, 2.0, 180.0, swung(10.0) + own(2.0)),
        (10.0, 0.0, 2.0, 90.0, swung(10.0).hypot(own(2.0))),
        // Who is followed rests.
        (8.0, 0.0, 8.0_f64.to_radians() * d, 0.0, 0.0),
        (8.0, 30.0, 2.0 * 8.0_f64.to_radians() * d, 30.0, swung(8.0)),
    ] {
        let shot = seen_by(Movement { swing_deg_s: swing, direction_deg: towards, ..STILL }, speed, direction);
        let told = forecast(&plan(&shot));
        let (part, pitch) = (&told.parts[0], told.optics.pitch_m);
        assert!((part.image_speed_m_s - wanted).abs() < 1e-12, "{swing}°/s, {speed} m/s: {}", part.image_speed_m_s);
        assert!((part.streak_px - wanted * told.moment.shutter_s / pitch).abs() < 1e-6);
        let behind = swung(swing) * told.moment.shutter_s / pitch;
        assert!((told.camera.background_travel_px - behind).abs() < 1e-6, "the world streaks by the swing alone");
    }
}

#[test]
fn a_zoom_draws_outwards_by_the_place_in_the_frame_whatever_the_time() {
    for (share, zoom) in [(0.3, 0.2), (0.3, -0.2), (0.0, 0.5), (0.5, 1.0)] {
        for shutter in ["1/250", "1/8"] {
            let mut shot = seen_by(Movement { zoom_share: zoom, ..STILL }, 0.0, 0.0);
            shot.camera.shutter = shutter.to_owned();
            shot.parts[0].from_middle_share = Some(share);
            let part = &forecast(&plan(&shot)).parts[0];
            assert!((part.streak_share - share * zoom.abs()).abs() < 1e-9, "{share} {zoom}: {}", part.streak_share);
        }
    }
    // Who stands in the middle grows by half of the own size, and moves on beside it.
    let mut shot = seen_by(Movement { zoom_share: 0.4, ..STILL }, 1.5, 0.0);
    let zoomed = forecast(&plan(&shot));
    shot.camera.movement = None;
    let still = forecast(&plan(&shot));
    let grows = 0.5 * shot.parts[0].size_m * zoomed.optics.magnification * 0.4 / zoomed.optics.pitch_m;
    assert!((zoomed.parts[0].streak_px - still.parts[0].streak_px - grows).abs() < 1e-6);
    // The flash sees of it what falls into its time.
    let seen = |movement: Option<Movement>| {
        shot.camera.movement = movement;
        outlook(&plan(&shot)).parts[0]
    };
    let [with, without] = [Some(Movement { zoom_share: 0.4, ..STILL }), None].map(seen);
    let freeze = without.flash_blur / without.motion.speed;
    let more = with.motion.zoom * (freeze / Seconds::from_secs(zoomed.moment.shutter_s));
    assert!((with.flash_blur.as_metres() - without.flash_blur.as_metres() - more.as_metres()).abs() < 1e-12);
}

#[test]
fn who_goes_round_draws_the_path_once_and_the_swing_goes_on() {
    let mut shot = seen_by(Movement { swing_deg_s: 6.0, ..STILL }, 12.0, 0.0);
    (shot.camera.shutter, shot.parts[0].path_m) = ("1".to_owned(), Some(0.5));
    let told = forecast(&plan(&shot));
    let wanted = 0.5 * told.optics.magnification / told.optics.pitch_m + told.camera.background_travel_px;
    assert!((told.parts[0].streak_px - wanted).abs() < 1e-6, "{} for {wanted}", told.parts[0].streak_px);
}

#[test]
fn a_swing_is_wanted_where_a_part_shall_streak_and_a_fault_where_it_shall_not() {
    let missed = |shot: &Shot| {
        let plan = plan(shot);
        let all = conditions::all(&plan, &outlook(&plan));
        all.into_iter().filter(|one| !one.is_met() && one.part == Some(0)).map(|one| one.matter).collect::<Vec<_>>()
    };
    let mut shot = seen_by(Movement { swing_deg_s: 40.0, ..STILL }, 0.0, 0.0);
    shot.camera.shutter = "1/4".to_owned();
    shot.ambient.subject = pebble_core::shot::Reading::Lux { lux: 60.0 };
    (shot.parts[0].reflectance, shot.parts[0].size_m, shot.parts[0].intent) = (0.6, 0.3, Intent::Pebble);
    assert!(missed(&shot).contains(&conditions::Matter::NoTrail), "{:?}", missed(&shot));
    // The same as a streak, asked for in the length that it has.
    let length = forecast(&plan(&shot)).parts[0].streak_share;
    (shot.parts[0].intent, shot.parts[0].streak_share) = (Intent::Dash, Some(length));
    assert_eq!(missed(&shot), []);
    // And the time for another length is found for who stands still.
    let answer = roads(&plan(&shot), &DragWish { part: 0, share: length / 2.0, ambient_stops: -2.0 }).unwrap();
    assert!((answer.streak_s / 0.125 - 1.0).abs() < 0.01, "{}", answer.streak_s);
    // Without the swing nothing could be drawn, and that is said.
    shot.camera.movement = None;
    let refused = roads(&plan(&shot), &DragWish { part: 0, share: 0.1, ambient_stops: -2.0 }).unwrap_err();
    assert!(refused.to_string().contains("stands still"), "{refused}");
}
