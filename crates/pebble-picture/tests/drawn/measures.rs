//! The frame must be the forecast's numbers: blur, band and trail are measured back from the pixels.

use pebble_core::file::movement::{Phase, WhenTaken};
use pebble_core::gear::FirstRow;
use pebble_core::quantity::Seconds;
use pebble_core::shot::{DrawnAs, Intent, Reading, Role, Shot};
use pebble_core::shutter::SyncMode;
use pebble_core::shutter::rows::row_share;
use pebble_core::{Forecast, Outlook, Plan, forecast, outlook};
use pebble_picture::{Crop, Layers, Picture, Request, render};

const WIDTH: u32 = 960;

/// A pale card in front of a dark wall, measured in a dark studio.
fn card() -> Shot {
    serde_json::from_str(include_str!("../../../../docs/examples/card-on-a-wall.json")).expect("the example is a shot")
}

fn example(name: &str) -> Shot {
    let path = format!("{}/../../docs/examples/{name}.json", env!("CARGO_MANIFEST_DIR"));
    serde_json::from_str(&std::fs::read_to_string(path).expect("the example is there")).expect("the example is a shot")
}

struct Seen {
    plan: Plan,
    outlook: Outlook,
    forecast: Forecast,
    picture: Picture,
    /// Camera pixels per picture pixel.
    scale: f64,
}

fn seen(shot: &Shot, layers: Layers, crop: Crop) -> Seen {
    let plan = Plan::try_from(shot).expect("the shot is a plan");
    let outlook = outlook(&plan);
    let picture = render(&plan, &outlook, &Request { width: WIDTH, layers, crop });
    let scale = plan.body.sensor.pixels * crop.size / f64::from(WIDTH);
    Seen { forecast: forecast(&plan), plan, outlook, picture, scale }
}

impl Seen {
    /// Linear light of a pixel (green), undoing the tone curve (IEC 61966-2-1); 0.18 is level 1.
    fn linear(&self, column: u32, row: u32) -> f64 {
        let code = f64::from(self.picture.rgba[((row * self.picture.width + column) * 4 + 1) as usize]) / 255.0;
        if code <= 0.040_45 { code / 12.92 } else { ((code + 0.055) / 1.055).powf(2.4) }
    }

    fn level(&self, column: u32, row: u32) -> f64 {
        self.linear(column, row) / 0.18
    }

    fn middle(&self) -> (u32, u32) {
        (self.picture.width / 2, self.picture.height / 2)
    }

    /// Levels along the middle row.
    fn across(&self) -> Vec<f64> {
        let (_, row) = self.middle();
        (0..self.picture.width).map(|column| self.level(column, row)).collect()
    }
}

/// Distance, in camera pixels, over which an edge goes from a tenth to nine tenths of its step.
fn edge_width(levels: &[f64], scale: f64) -> f64 {
    let top = levels.iter().copied().fold(0.0, f64::max);
    let bottom = levels[0];
    let at = |share: f64| {
        let wanted = bottom + share * (top - bottom);
        let after = levels.iter().position(|level| *level >= wanted).expect("the edge rises");
        let (low, high) = (levels[after - 1], levels[after]);
        after as f64 - 1.0 + (wanted - low) / (high - low)
    };
    (at(0.9) - at(0.1)) * scale
}

#[test]
fn the_blur_of_the_card_edge_is_the_pulse_times_its_image_speed() {
    for (power, speed) in [(0.5, 4.0), (0.25, 12.0), (1.0, 2.0)] {
        let mut shot = card();
        shot.lights[0].power = power;
        shot.lights[0].distance_m = 2.2;
        shot.parts[0].speed_m_s = speed;
        shot.parts[0].size_m = 0.3;
        // Thirty camera pixels around the rising left edge, so that a camera pixel is many of the picture's.
        let whole = seen(&shot, Layers::Flash, Crop::WHOLE);
        let width = whole.forecast.optics.field_width_m;
        let left = 0.5 - 0.15 / width;
        let size = 60.0 / whole.plan.body.sensor.pixels;
        let close = seen(&shot, Layers::Flash, Crop { left: left - size / 2.0, top: 0.5 - size / 2.0, size });
        let measured = edge_width(&close.across(), close.scale);
        // An edge smeared by the pulse rises as the running share of its light: from a tenth to nine tenths of it.
        let pulse = whole.outlook.key().pulse.pulse;
        let expected = (pulse.time_of_share(0.9) - pulse.time_of_share(0.1)) / Seconds::from_secs(1.0)
            * whole.forecast.parts[0].image_speed_px_s;
        let off = (measured / expected - 1.0).abs();
        assert!(off < 0.06, "power {power}, {speed} m/s: {measured:.2} px measured, {expected:.2} px forecast");
        assert!(measured < whole.forecast.parts[0].flash_blur_px.unwrap(), "t0.1 bounds the edge");
    }
}

#[test]
fn the_pulses_of_a_train_draw_the_card_as_often_as_far_apart_as_it_moves_between_them() {
    const PULSES: u32 = 4;
    let mut shot = card();
    shot.lights[0].unit.control =
        pebble_core::gear::Control::Train { decay_ms: 0.02, rise_ms: Some(0.002), period_ms: 2.5, pulses: PULSES };
    (shot.lights[0].power, shot.lights[0].distance_m) = (1.0, 2.2);
    (shot.parts[0].speed_m_s, shot.parts[0].size_m, shot.parts[0].path_m) = (40.0, 0.04, None);
    shot.camera.shutter = "1/60".to_owned();
    shot.background.spill_stops = -9.0;
    let seen = seen(&shot, Layers::Flash, Crop::WHOLE);
    let levels = seen.across();
    let half = levels.iter().copied().fold(0.0, f64::max) / 2.0;
    let rises: Vec<usize> = (1..levels.len()).filter(|x| levels[x - 1] < half && levels[*x] >= half).collect();
    assert_eq!(rises.len(), PULSES as usize, "{rises:?}");
    let step = seen.forecast.parts[0].image_speed_px_s * 2.5e-3 / seen.scale;
    for pair in rises.windows(2) {
        assert!(((pair[1] - pair[0]) as f64 - step).abs() < 1.5, "{rises:?}, {step:.1} px apart as forecast");
    }
}

#[test]
fn a_still_card_has_the_forecast_levels_in_each_light() {
    let mut shot = card();
    shot.parts[0].speed_m_s = 0.0;
    shot.ambient.subject = Reading::Lux { lux: 2500.0 };
    shot.ambient.background = Reading::Lux { lux: 9000.0 };
    shot.background.spill_stops = 1.0;
    for layers in [Layers::Flash, Layers::Ambient, Layers::Both] {
        let seen = seen(&shot, layers, Crop::WHOLE);
        let part = &seen.forecast.parts[0];
        let (flash, ambient) = match layers {
            Layers::Both => (1.0, 1.0),
            Layers::Flash => (1.0, 0.0),
            Layers::Ambient => (0.0, 1.0),
        };
        let (column, row) = seen.middle();
        let on_card = flash * part.flash_level + ambient * part.ambient_level;
        let background = seen.outlook.parts[0].tones;
        let beside = flash * background.background_flash.value() + ambient * background.background_ambient.value();
        for (name, got, want) in [("card", seen.level(column, row), on_card), ("wall", seen.level(8, 8), beside)] {
            assert!((got / want - 1.0).abs() < 0.03, "{name} in {layers:?}: level {got:.4}, forecast {want:.4}");
        }
    }
}

#[test]
fn the_trail_beside_the_card_has_the_forecast_level_and_length() {
    let mut shot = card();
    shot.camera.shutter = "1/15".to_owned();
    shot.ambient.subject = Reading::Lux { lux: 1200.0 };
    shot.ambient.background = Reading::Lux { lux: 300.0 };
    shot.parts[0].speed_m_s = 9.0;
    shot.parts[0].size_m = 0.12;
    let seen = seen(&shot, Layers::Ambient, Crop::WHOLE);
    let part = &seen.forecast.parts[0];
    assert!(part.dwell < 0.3 && part.streak_px < seen.plan.body.sensor.pixels * 0.4);
    let levels = seen.across();
    let plateau = levels.iter().copied().fold(0.0, f64::max);
    let plain = seen.outlook.parts[0].tones.background_ambient.value();
    let drawn = part.dwell * part.ambient_level + (1.0 - part.dwell) * plain;
    assert!((plateau / drawn - 1.0).abs() < 0.03, "plateau {plateau:.4}, forecast {drawn:.4}");
    // Half-height width of a box smeared by a longer one is the longer one: the streak.
    let half = (plateau + plain) / 2.0;
    let first = levels.iter().position(|level| *level > half).unwrap();
    let last = levels.iter().rposition(|level| *level > half).unwrap();
    let length = (last - first + 1) as f64 * seen.scale;
    assert!((length / part.streak_px - 1.0).abs() < 0.02, "{length:.0} px drawn, {:.0} px forecast", part.streak_px);
    assert!((seen.level(4, seen.middle().1) / plain - 1.0).abs() < 0.06, "the wall away from the path is plain");
}

/// A pause of a third, an even dash, and a rest at its end: each stands in the picture with its share of the exposure.
#[test]
fn a_movement_in_time_stands_in_the_picture_as_long_as_it_stood_there() {
    let mut shot = card();
    shot.camera.shutter = "1/4".to_owned();
    shot.ambient.subject = Reading::Lux { lux: 300.0 };
    shot.ambient.background = Reading::Lux { lux: 60.0 };
    shot.parts[0].size_m = 0.12;
    // 1/4 is a quarter of a second: 0.08 s of rest, 0.12 s at 4 m/s, and 0.05 s of rest where it ends.
    let line = Phase::Line { from_m_s: 4.0, to_m_s: 4.0, seconds: Some(0.12), metres: None };
    shot.parts[0].phases = vec![Phase::Rest { seconds: 0.08 }, line];
    // The flash is far away in time: the card stands where it is when the flash fires, at its beginning.
    let seen = seen(&shot, Layers::Ambient, Crop::WHOLE);
    let part = &seen.forecast.parts[0];
    let in_time = part.in_time.as_ref().expect("it has phases");
    assert!((in_time.rest_at_start - 0.32).abs() < 1e-9 && (in_time.rest_at_end - 0.2).abs() < 1e-9, "{in_time:?}");
    let plain = seen.outlook.parts[0].tones.background_ambient.value();
    let share = |level: f64| (level - plain) / (part.ambient_level - plain);
    let levels = seen.across();
    let pixel = |metres: f64| {
        (seen.middle().0 as f64 + metres / seen.forecast.optics.field_width_m * f64::from(WIDTH)).round() as usize
    };
    // At rest it also begins to move through where it stood: half of its width.
    let passes = 0.12 / 4.0 / 0.25;
    for (place, wanted) in [(0.0, 0.32 + passes / 2.0), (0.24, passes), (0.48, 0.2 + passes / 2.0)] {
        let got = share(levels[pixel(place)]);
        assert!((got - wanted).abs() < 0.012, "at {place} m: {got:.3} of the exposure, forecast {wanted:.3}");
    }
    assert!(
        share(levels[pixel(-0.2)]).abs() < 0.01 && share(levels[pixel(0.8)]).abs() < 0.01,
        "nothing beside its way"
    );
}

/// To and fro: longest where it turns, and the flash finds it where its own instant says.
#[test]
fn a_flash_finds_a_swinging_card_where_it_is_just_then() {
    let at = |opens_at_s: f64| {
        let mut shot = card();
        shot.parts[0].size_m = 0.12;
        shot.parts[0].phases = vec![Phase::ToAndFro { amplitude_m: 0.5, rate_hz: 1.0, seconds: 4.0 }];
        shot.moment = Some(WhenTaken { opens_at_s, ..WhenTaken::default() });
        seen(&shot, Layers::Flash, Crop::WHOLE)
    };
    // A quarter of a turn later it stands still: the edge is as sharp as the picture.
    let (passing, turning) = (at(1.0), at(0.25));
    let speed = |seen: &Seen| seen.forecast.parts[0].in_time.as_ref().expect("phases").flashes[0].speed_m_s;
    assert!((speed(&passing) - 2.0 * std::f64::consts::PI * 0.5).abs() < 0.01, "{}", speed(&passing));
    assert!(speed(&turning).abs() < 0.1, "{}", speed(&turning));
    let blur = |seen: &Seen| seen.forecast.parts[0].flash_blur_px.expect("a flash draws it");
    assert!(blur(&turning) < 0.05 * blur(&passing));
}

#[test]
fn rear_sync_puts_the_trail_behind_and_front_sync_ahead() {
    let side = |sync| {
        let mut shot = card();
        shot.camera.shutter = "1/15".to_owned();
        shot.ambient.subject = Reading::Lux { lux: 1200.0 };
        shot.parts[0].speed_m_s = 9.0;
        shot.lights[0].sync = sync;
        let seen = seen(&shot, Layers::Ambient, Crop::WHOLE);
        let levels = seen.across();
        let (left, right) = levels.split_at(levels.len() / 2);
        right.iter().sum::<f64>() - left.iter().sum::<f64>()
    };
    assert!(side(SyncMode::Front) > 1.0, "moving right, the trail of front sync runs ahead");
    assert!(side(SyncMode::Rear) < -1.0, "and that of rear sync behind");
}

#[test]
fn the_dark_band_stands_where_the_rows_say() {
    for (first_row, shutter, lag_ms) in
        [(FirstRow::Bottom, "1/250", 1.6), (FirstRow::Top, "1/250", 1.6), (FirstRow::Bottom, "1/500", 0.2)]
    {
        let mut shot = card();
        shot.parts.clear();
        shot.background.reflectance = 0.3;
        shot.background.spill_stops = 6.0;
        shot.lights[0].power = 0.0625;
        shot.camera.shutter = shutter.to_owned();
        shot.camera.body.first_row = first_row;
        shot.lights[0].trigger.lag_ms = lag_ms;
        let seen = seen(&shot, Layers::Flash, Crop::WHOLE);
        let height = seen.picture.height;
        let full = seen.outlook.key().background_in_a_whole_row().as_ratio() * 0.3 / 0.18;
        let rows: Vec<f64> = (0..height).map(|row| seen.level(40, row)).collect();
        let touched = rows.iter().filter(|level| **level < full * 0.933).count() as f64 / f64::from(height);
        let told = &seen.forecast.key().rows;
        assert!(
            (touched - told.touched_share).abs() < 0.01,
            "{shutter}: {touched:.3} seen, {:.3} told",
            told.touched_share
        );
        assert!((0.05..0.95).contains(&touched), "{shutter}: the case shows a band, {touched:.3}");
        let dark_is_low = rows[rows.len() - 3] < rows[2];
        assert_eq!(dark_is_low, first_row == FirstRow::Bottom, "{first_row:?}");
        // And every row has its own share.
        for row in (0..height).step_by(37) {
            let from_top = (f64::from(row) + 0.5) / f64::from(height);
            let y = if first_row == FirstRow::Top { from_top } else { 1.0 - from_top };
            let share = row_share(seen.outlook.run, &seen.outlook.key().pulse.pulse, seen.outlook.key().ignition.at, y);
            let got = rows[row as usize] / full;
            assert!((got - share).abs() < 0.02, "row {row}: {got:.3} seen, {share:.3} told");
        }
    }
}

#[test]
fn high_speed_sync_leans_a_fast_card_by_its_forecast() {
    let mut shot = card();
    shot.lights[0].sync = SyncMode::HighSpeed;
    shot.camera.shutter = "1/2000".to_owned();
    shot.camera.body.travel_ms = Some(12.0);
    shot.lights[0].power = 1.0;
    shot.lights[0].distance_m = 0.8;
    shot.parts[0].speed_m_s = 14.0;
    shot.parts[0].size_m = 0.2;
    shot.parts[0].path_m = None;
    let seen = seen(&shot, Layers::Flash, Crop::WHOLE);
    let centre = |row: u32| {
        let weights =
            (0..seen.picture.width).map(|column| (f64::from(column), seen.level(column, row) - seen.level(2, row)));
        let (sum, total) = weights.fold((0.0, 0.0), |(s, t), (x, w)| (s + x * w, t + w));
        sum / total
    };
    let (_, middle) = seen.middle();
    let (low, high) = (middle + 50, middle - 50);
    // The picture's rows run down, the shutter's up: the upper part is drawn later and farther right.
    let drawn = (centre(high) - centre(low)) * seen.scale;
    let told = seen.forecast.parts[0].lean_px * 100.0 / f64::from(seen.picture.height);
    assert!((drawn / told - 1.0).abs() < 0.05, "leans {drawn:.1} px, forecast {told:.1} px");
}

#[test]
fn every_scene_is_a_picture_with_light_and_shade() {
    for name in ["double-ropes", "lantern-slalom", "slipway-spin"] {
        let seen = seen(&example(name), Layers::Both, Crop::WHOLE);
        let codes: Vec<u8> = seen.picture.rgba.chunks_exact(4).map(|pixel| pixel[1]).collect();
        let mut histogram = [0usize; 256];
        codes.iter().for_each(|code| histogram[usize::from(*code)] += 1);
        let shades = histogram.iter().filter(|count| **count > 20).count();
        assert!(shades > 90, "{name} has {shades} shades");
        let burnt = histogram[255] as f64 / codes.len() as f64;
        assert!(burnt < 0.02, "{name}: {burnt} of it is burnt out");
        assert!(seen.picture.rgba.chunks_exact(4).all(|pixel| pixel[3] == 255));
    }
}

#[test]
fn a_crop_shows_the_same_place_and_odd_requests_are_drawn() {
    let shot = card();
    let whole = seen(&shot, Layers::Both, Crop::WHOLE);
    let quarter = seen(&shot, Layers::Both, Crop { left: 0.375, top: 0.375, size: 0.25 });
    // A place well inside the card, seen at four times the size.
    let (column, row) = whole.middle();
    assert!((whole.level(column, row) / quarter.level(column, row) - 1.0).abs() < 0.02);
    let plan = Plan::try_from(&shot).unwrap();
    let outlook = outlook(&plan);
    for width in [1, 16, 333, 100_000] {
        let picture = render(&plan, &outlook, &Request { width, layers: Layers::Both, crop: Crop::WHOLE });
        assert_eq!(picture.rgba.len() as u32, picture.width * picture.height * 4);
        assert!((16..=2400).contains(&picture.width));
    }
    let png = whole.picture.to_png().unwrap();
    assert_eq!(&png[1..4], b"PNG");
}

#[test]
fn extreme_plans_are_drawn_without_a_slip() {
    for name in
        ["double-ropes", "lantern-slalom", "sabre-reach", "silks", "finishers-wall", "roller-hall", "card-on-a-wall"]
    {
        let mut shot = example(name);
        shot.camera.shutter = "30".to_owned();
        for part in &mut shot.parts {
            part.speed_m_s = 100.0;
            part.size_m = 0.0;
            part.intent = Intent::Dash;
            part.direction_deg = 33.0;
        }
        // All parts claim the same body: the scene has one, the rest are cards.
        shot.parts.iter_mut().for_each(|part| part.drawn_as = DrawnAs::Face);
        let fast = seen(&shot, Layers::Both, Crop { left: 0.9, top: -0.2, size: 0.002 });
        assert_eq!(fast.picture.width, WIDTH);
        shot.lights.iter_mut().for_each(|light| light.on = false);
        shot.lamps.clear();
        shot.ambient.subject = Reading::Lux { lux: 0.0 };
        shot.ambient.background = Reading::Lux { lux: 0.0 };
        let dark = seen(&shot, Layers::Both, Crop::WHOLE);
        assert!(
            dark.picture
                .rgba
                .chunks_exact(4)
                .all(|pixel| pixel[..3] == [0, 0, 0] || shot.parts.iter().any(|p| p.luminance_cd_m2.is_some()))
        );
    }
}

#[test]
fn flash_and_steady_light_add_up_to_the_whole_picture() {
    for name in ["double-ropes", "lantern-slalom", "slipway-spin"] {
        let shot = example(name);
        let [both, flash, ambient] =
            [Layers::Both, Layers::Flash, Layers::Ambient].map(|layers| seen(&shot, layers, Crop::WHOLE));
        let mut compared = 0;
        for row in (0..both.picture.height).step_by(7) {
            for column in (0..WIDTH).step_by(11) {
                let sum = flash.linear(column, row) + ambient.linear(column, row);
                let whole = both.linear(column, row);
                if whole < 0.95 {
                    // Each of the three was rounded to a code: half a code of each, at the slope of the curve there.
                    let step = 0.006 * whole.max(0.02).powf(0.58) * 2.0;
                    assert!((sum - whole).abs() < step, "{name} at {column}, {row}: {sum} and {whole}");
                    compared += 1;
                }
            }
        }
        assert!(compared > 5000, "{name}: {compared}");
    }
}

#[test]
fn the_same_plan_gives_the_same_picture_however_many_hands_draw_it() {
    for name in ["double-ropes", "slipway-spin"] {
        let first = seen(&example(name), Layers::Both, Crop::WHOLE).picture;
        for _ in 0..3 {
            assert!(seen(&example(name), Layers::Both, Crop::WHOLE).picture == first, "{name}");
        }
    }
}

#[test]
fn faster_parts_draw_longer_and_dimmer() {
    let trail = |speed: f64| {
        let mut shot = card();
        shot.camera.shutter = "1/30".to_owned();
        shot.ambient.subject = Reading::Lux { lux: 1500.0 };
        shot.parts[0].speed_m_s = speed;
        shot.parts[0].size_m = 0.08;
        let seen = seen(&shot, Layers::Ambient, Crop::WHOLE);
        let levels = seen.across();
        let plain = levels[0];
        let length = levels.iter().filter(|level| **level > plain * 1.2).count();
        (length, levels.into_iter().fold(0.0, f64::max))
    };
    let trails: Vec<_> = [3.0, 6.0, 12.0, 20.0].map(trail).into();
    assert!(trails.windows(2).all(|pair| pair[1].0 > pair[0].0 && pair[1].1 < pair[0].1), "{trails:?}");
}

#[test]
fn lights_that_fire_apart_draw_the_card_twice_as_far_apart_as_forecast() {
    let mut shot = card();
    shot.camera.shutter = "1/60".to_owned();
    (shot.parts[0].speed_m_s, shot.parts[0].size_m) = (12.0, 0.6);
    shot.lights[0].power /= 4.0;
    let mut late = shot.lights[0].clone();
    (late.role, late.group) = (Role::Fill, "B".to_owned());
    late.trigger.lag_ms += 6.0;
    shot.lights.push(late);
    let seen = seen(&shot, Layers::Flash, Crop::WHOLE);
    let apart = seen.forecast.parts[0].apart_px;
    assert!(apart > 100.0);
    // One light's level on either side, both between: the outer ones are as wide as the images are apart.
    let levels = seen.across();
    let wall = seen.outlook.parts[0].tones.background_flash.value();
    let one = 0.5 * seen.forecast.parts[0].flash_level;
    let alone = levels.iter().filter(|level| **level > wall + 0.3 * one && **level < 1.5 * one).count() as f64 / 2.0;
    assert!((alone * seen.scale / apart - 1.0).abs() < 0.05, "{} px for {apart}", alone * seen.scale);
    let both = levels.iter().copied().fold(0.0, f64::max);
    assert!((both / (2.0 * one) - 1.0).abs() < 0.05, "lights add up: {both} for {}", 2.0 * one);
}

#[test]
fn one_light_alone_and_the_other_add_up_to_both() {
    for name in ["sabre-reach", "roller-hall"] {
        let shot = example(name);
        let alone = |light: Option<usize>| {
            let mut shot = shot.clone();
            for (index, one) in shot.lights.iter_mut().enumerate() {
                one.on = light.is_none_or(|light| light == index);
                // Steady and dim enough that nothing clips.
                one.power = (one.power / 4.0).max(2f64.powf(-one.unit.lowest_stops.unwrap()));
            }
            seen(&shot, Layers::Flash, Crop::WHOLE)
        };
        let all = alone(None);
        let each: Vec<Seen> = (0..shot.lights.len()).map(|light| alone(Some(light))).collect();
        let mut compared = 0;
        for row in (0..all.picture.height).step_by(11) {
            for column in (0..all.picture.width).step_by(13) {
                let (sum, whole) =
                    (each.iter().map(|one| one.linear(column, row)).sum::<f64>(), all.linear(column, row));
                if whole < 0.8 {
                    // Each is rounded to eight bits, in the dark by a larger share.
                    assert!((sum - whole).abs() < 0.015 + 0.08 * whole, "{name} at {column}, {row}: {sum} for {whole}");
                    compared += 1;
                }
            }
        }
        assert!(compared > 1000);
    }
}

#[test]
fn a_rim_draws_edges_and_a_camera_that_pans_streaks_what_stands_still() {
    // From behind: the middle of the body stays dark, and something at its edge is lit.
    let mut shot = example("sabre-reach");
    shot.lights.truncate(1);
    let front = seen(&shot, Layers::Flash, Crop::WHOLE);
    (shot.lights[0].role, shot.lights[0].bearing_deg, shot.lights[0].height_deg) = (Role::Rim, 112.0, 20.0);
    // Beside the frame: in it, it would be drawn.
    shot.lights[0].distance_m = 5.0;
    shot.lights[0].power *= 4.0;
    let behind = seen(&shot, Layers::Flash, Crop::WHOLE);
    // Over the floor, which a light from behind does reach.
    let lit = |seen: &Seen| {
        let upper = seen.picture.rgba.len() * 6 / 10;
        seen.picture.rgba[..upper].chunks_exact(4).filter(|pixel| pixel[1] > 90).count()
    };
    assert!(lit(&behind) > 200 && lit(&behind) * 3 < lit(&front), "{} of {}", lit(&behind), lit(&front));
    // Panning: lamps of the hall become lines along the movement, as long as forecast.
    let mut shot = example("roller-hall");
    let detail = |seen: &Seen| {
        let row = seen.picture.height * 35 / 100;
        (1..seen.picture.width)
            .map(|column| (seen.linear(column, row) - seen.linear(column - 1, row)).abs())
            .sum::<f64>()
    };
    let panned = seen(&shot, Layers::Ambient, Crop::WHOLE);
    assert!(panned.forecast.camera.background_travel_px > 100.0);
    shot.camera.movement = None;
    let steady = seen(&shot, Layers::Ambient, Crop::WHOLE);
    assert!(detail(&panned) < 0.7 * detail(&steady), "{} for {}", detail(&panned), detail(&steady));
    // Colour: the same lamps are warmer under a cooler balance.
    let warmth = |shot: &Shot| {
        let picture = seen(shot, Layers::Ambient, Crop::WHOLE).picture;
        let sum = |lane: usize| picture.rgba.iter().skip(lane).step_by(4).map(|value| f64::from(*value)).sum::<f64>();
        sum(0) / sum(2)
    };
    let home = warmth(&shot);
    shot.camera.white_balance_k = 2900.0;
    assert!(warmth(&shot) < 0.8 * home, "balanced for the lamps, they are no longer warm");
}

#[test]
fn zooming_draws_the_edges_outwards_and_leaves_the_middle() {
    let mut shot = example("roller-hall");
    shot.camera.movement = None;
    let detail = |seen: &Seen, from: f64, to: f64| {
        let row = seen.picture.height * 28 / 100;
        let at = |share: f64| (share * f64::from(seen.picture.width)) as u32;
        (at(from).max(1)..at(to)).map(|x| (seen.linear(x, row) - seen.linear(x - 1, row)).abs()).sum::<f64>()
    };
    let still = seen(&shot, Layers::Ambient, Crop::WHOLE);
    shot.camera.movement =
        Some(pebble_core::shot::Movement { zoom_share: 0.3, ..pebble_core::shot::Movement::default() });
    let zoomed = seen(&shot, Layers::Ambient, Crop::WHOLE);
    assert!((zoomed.forecast.camera.zoom_px - 0.15 * zoomed.plan.body.sensor.pixels).abs() < 1.0);
    let edge = detail(&zoomed, 0.0, 0.15) / detail(&still, 0.0, 0.15).max(1e-9);
    assert!(edge < 0.8, "the edge is drawn out: {edge}");
    // What the flash draws stands as it stood.
    let flash = |shot: &Shot| seen(shot, Layers::Flash, Crop::WHOLE).picture;
    let with = flash(&shot);
    shot.camera.movement = None;
    assert_eq!(with, flash(&shot));
}

#[test]
fn a_large_picture_that_is_drawn_in_strips_has_no_seams() {
    for name in ["double-ropes", "lantern-slalom", "slipway-spin", "roller-hall", "silks", "finishers-wall"] {
        let plan = Plan::try_from(&example(name)).unwrap();
        let outlook = outlook(&plan);
        let drawn = |width, crop| render(&plan, &outlook, &Request { width, layers: Layers::Both, crop });
        let large = drawn(1920, Crop::WHOLE);
        let (field_width, field_height) = outlook.field(&plan);
        let rows = 1920.0 * field_height.as_metres() / field_width.as_metres();
        // A quarter at the same scale is drawn in one piece; its rows have to fall on rows of the large one, of which
        // there need not be a whole number.
        for (left, top) in [(0, 0), (1, 0), (0, 1), (1, 1)] {
            let crop =
                Crop { left: f64::from(left) * 0.5, top: f64::from(top) * (rows / 2.0).round() / rows, size: 0.5 };
            let quarter = drawn(960, crop);
            for row in 0..quarter.height as usize {
                let level = |pixels: &[u8]| pixels.iter().map(|channel| f64::from(*channel)).sum::<f64>() / 960.0 / 4.0;
                let at = ((top as usize * quarter.height as usize + row) * 1920 + left as usize * 960) * 4;
                let (in_strips, in_one) =
                    (level(&large.rgba[at..at + 3840]), level(&quarter.rgba[row * 3840..][..3840]));
                assert!(
                    (in_strips - in_one).abs() < 0.5,
                    "{name}, {crop:?}, row {row}: {in_strips:.2} and {in_one:.2}"
                );
            }
        }
    }
}

#[test]
fn a_drawing_that_nobody_waits_for_is_put_down_at_once() {
    use std::sync::atomic::{AtomicBool, Ordering};
    use std::time::{Duration, Instant};
    for name in ["slipway-spin", "roller-hall", "finishers-wall"] {
        let plan = Plan::try_from(&example(name)).unwrap();
        let outlook = outlook(&plan);
        let request = Request { width: 2400, layers: Layers::Both, crop: Crop::WHOLE };
        let draw = |wanted: &AtomicBool| {
            let kept = pebble_picture::Kept::default();
            pebble_picture::render_while((&plan, &outlook), &request, (None, &kept), wanted).is_some()
        };
        let began = Instant::now();
        assert!(draw(&AtomicBool::new(true)));
        let whole = began.elapsed();
        let put_down_within = |part: u32| {
            let wanted = AtomicBool::new(true);
            std::thread::scope(|scope| {
                let drawing = scope.spawn(|| (draw(&wanted), Instant::now()));
                std::thread::sleep(whole * part / 8);
                let asked = Instant::now();
                wanted.store(false, Ordering::Relaxed);
                let (drawn, at) = drawing.join().unwrap();
                if drawn { Duration::ZERO } else { at.saturating_duration_since(asked) }
            })
        };
        // 20 ms on a machine that has nothing else to do. One that draws on for longer at some point of the picture
        // does so each time it is asked there; a machine that gave the time to somebody else does not.
        let enough = Duration::from_millis(300);
        for part in 1..6 {
            let tries: Vec<_> = (0..4).map(|_| put_down_within(part)).take_while(|took| *took >= enough).collect();
            assert!(tries.len() < 4, "{name}, {part}/8 of {whole:.1?}: put down only after {tries:?}");
        }
    }
}

#[test]
fn every_scene_draws_every_kind_of_part() {
    use pebble_core::shot::Scene;
    let still = |scene: Scene, drawn_as: DrawnAs, reflectance: f64| {
        let mut shot = card();
        shot.scene = scene;
        // Wide enough for everything that stands in it.
        (shot.camera.focal_mm, shot.subject.distance_m) = (shot.camera.lens.focal_min_mm, 14.0);
        (shot.parts[0].drawn_as, shot.parts[0].speed_m_s, shot.parts[0].reflectance) = (drawn_as, 0.0, reflectance);
        let plan = Plan::try_from(&shot).expect("the shot is a plan");
        let request = Request { width: 240, layers: Layers::Flash, crop: Crop::WHOLE };
        let picture = render(&plan, &outlook(&plan), &request);
        picture.rgba.iter().map(|code| u64::from(*code)).sum::<u64>()
    };
    for scene in Scene::ALL {
        for drawn_as in DrawnAs::ALL {
            let (dark, pale) = (still(*scene, *drawn_as, 0.05), still(*scene, *drawn_as, 0.9));
            assert!(pale > dark, "{drawn_as:?} is not seen in {scene:?}");
        }
    }
}

/// What the forecast says of a cut flash in the frame is what the picture has, by the mean over its rows: the same for a leaf
/// that closes early, curtains that leave a band, and a glow.
#[test]
fn cut_flashes_are_as_bright_in_the_picture_as_in_the_forecast() {
    let mut cut = 0;
    for (shutter, lag_ms, power, leaf, sync) in [
        ("1/1000", 0.2, 1.0, true, SyncMode::Front),
        ("1/500", 0.4, 0.5, true, SyncMode::Front),
        ("1/250", 1.6, 0.0625, false, SyncMode::Front),
        ("1/400", 0.2, 0.5, false, SyncMode::Front),
        ("1/800", 0.2, 0.25, false, SyncMode::Front),
        ("1/320", 0.9, 1.0, false, SyncMode::Rear),
        ("1/2000", 0.2, 1.0, false, SyncMode::HighSpeed),
        ("1/60", 0.2, 0.25, false, SyncMode::Front),
    ] {
        let mut shot = card();
        (shot.camera.shutter, shot.lights[0].power) = (shutter.to_owned(), power);
        (shot.lights[0].trigger.lag_ms, shot.lights[0].sync) = (lag_ms, sync);
        if leaf {
            shot.camera.lens.leaf_fastest = Some("1/1000".to_owned());
        }
        // A card as high as the frame, so that every row has some of it; dim enough that nothing clips.
        shot.parts[0].speed_m_s = 0.0;
        shot.parts[0].size_m = 40.0;
        shot.parts[0].direction_deg = 90.0;
        shot.parts[0].path_m = None;
        shot.lights[0].distance_m = 6.0;
        let seen = seen(&shot, Layers::Flash, Crop::WHOLE);
        let (column, _) = seen.middle();
        let rows = (0..seen.picture.height).map(|row| seen.level(column, row));
        let mean = rows.sum::<f64>() / f64::from(seen.picture.height);
        let told = seen.forecast.parts[0].flash_level;
        assert!(
            (mean / told - 1.0).abs() < 0.03,
            "{shutter}, {lag_ms} ms, {power}: level {mean:.4}, forecast {told:.4}"
        );
        cut += usize::from(seen.forecast.key().flash.share < 0.95);
    }
    assert!(cut >= 5, "{cut} of them are cut");
}

/// A gel of a hue, which takes no light here.
fn gel(hue_deg: f64) -> pebble_core::gear::Filter {
    let used_as = pebble_core::gear::FilterUse::Gel;
    let hue = Some(pebble_core::gear::Hue { hue_deg, saturation: 0.9 });
    pebble_core::gear::Filter { id: "gel".into(), name: "Gel".into(), used_as, loss_stops: 0.0, mired: 0.0, hue }
}

#[test]
fn gels_show_in_the_frame_alone_over_each_other_and_on_coloured_cloth() {
    let linear = |seen: &Seen, column: u32, row: u32| -> [f64; 3] {
        std::array::from_fn(|channel| {
            let code = seen.picture.rgba[((row * seen.picture.width + column) * 4) as usize + channel];
            let code = f64::from(code) / 255.0;
            if code <= 0.040_45 { code / 12.92 } else { ((code + 0.055) / 1.055).powf(2.4) }
        })
    };
    let luminance = |[red, green, blue]: [f64; 3]| 0.2126 * red + 0.7152 * green + 0.0722 * blue;
    let mut still = card();
    for part in &mut still.parts {
        part.speed_m_s = 0.0;
    }
    // Two stops under, so that no channel clips.
    still.lights[0].power /= 4.0;
    let middle = |shot: &Shot| {
        let seen = seen(shot, Layers::Flash, Crop::WHOLE);
        let (column, row) = seen.middle();
        linear(&seen, column, row)
    };
    let white = middle(&still);
    let behind = |hue: f64| {
        let mut shot = still.clone();
        shot.lights[0].gel = Some(gel(hue));
        shot
    };
    for (hue, most) in [(0.0, 0), (120.0, 1), (240.0, 2)] {
        let seen = middle(&behind(hue));
        let others = [0, 1, 2].into_iter().filter(|channel| *channel != most);
        assert!(others.clone().all(|channel| seen[most] > 4.0 * seen[channel]), "{hue}: {seen:?}");
        if hue < 200.0 {
            assert!((luminance(seen) / luminance(white) - 1.0).abs() < 0.03, "{hue}: as bright as without");
        }
    }
    // Red over green is yellow: both are there, blue is not.
    let mut both = behind(0.0);
    let mut other = both.lights[0].clone();
    other.gel = Some(gel(120.0));
    other.role = Role::Fill;
    both.lights.push(other);
    let [red, green, blue] = middle(&both);
    assert!(red > 3.0 * blue && green > 3.0 * blue, "{red} {green} {blue}");
    // A scarf that is red stays bright in red light and goes dark in teal, against the grey beside it.
    let hall = example("roller-hall");
    let coloured = |hue: f64| {
        let mut shot = hall.clone();
        for light in &mut shot.lights {
            light.gel = Some(gel(hue));
        }
        let seen = seen(&shot, Layers::Flash, Crop::WHOLE);
        let all = (0..seen.picture.height).flat_map(|row| (0..seen.picture.width).map(move |column| (column, row)));
        let sum = all
            .map(|(column, row)| linear(&seen, column, row))
            .fold([0.0; 3], |sum, one| std::array::from_fn(|k| sum[k] + one[k]));
        sum[0] / (sum[1] + sum[2])
    };
    assert!(coloured(0.0) > 8.0 * coloured(180.0), "{} {}", coloured(0.0), coloured(180.0));
}
