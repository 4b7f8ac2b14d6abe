//! Laws that hold for every input, not only for the cases somebody thought of.

use pebble_core::exposure::{Level, reference_exposure};
use pebble_core::gear::Output;
use pebble_core::output::{Face, Throw};
use pebble_core::pulse::{ChargeVoltage, Pulse, PulseTrain, Quenched, SwitchedBanks};
use pebble_core::quantity::scale::{Aperture, Grid, Iso, ShutterTime};
use pebble_core::quantity::{FlashOutput, Metres, Seconds, Stops, sum_of_sources};
use pebble_core::shot::{Intent, Reading, Shot};
use pebble_core::shutter::rows::{TOUCHED_SHARE, report, row_share};
use pebble_core::shutter::sync::{Timing, leaves_no_row_dark, usable_sync};
use pebble_core::shutter::{Run, SyncMode};
use pebble_core::{Plan, findings, forecast, outlook};
use proptest::prelude::*;

fn quenched() -> impl Strategy<Value = (Quenched, f64)> {
    (0.2e-3..4e-3, 0.02..0.4, 0.005..0.1, -9.0..0.0f64).prop_map(|(decay, rise, fall, power)| {
        let s = Seconds::from_secs;
        (Quenched { rise: s(decay * rise), decay: s(decay), fall: s(decay * fall) }, power.exp2())
    })
}

/// A train whose pulses are over before the next begins.
fn any_train() -> impl Strategy<Value = Pulse> {
    let s = Seconds::from_secs;
    (0.02e-3..0.5e-3, 1.0..12.0f64, 2u32..16, -6.0..0.0f64).prop_map(move |(decay, apart, pulses, power)| {
        let each = Quenched { rise: s(decay * 0.05), decay: s(decay), fall: s(decay * 0.1) };
        let period = each.pulse(1.0).interval_above(0.01).1 * apart;
        PulseTrain { each, period, pulses }.pulse(power.exp2())
    })
}

fn any_pulse() -> impl Strategy<Value = Pulse> {
    let s = Seconds::from_secs;
    prop_oneof![
        quenched().prop_map(|(unit, power)| unit.pulse(power)),
        (0.2e-3..4e-3, 0.0..0.3, -6.0..0.0f64).prop_map(move |(decay, gamma, power)| {
            ChargeVoltage { rise: s(decay * 0.05), decay: s(decay), gamma }.pulse(power.exp2())
        }),
        (0.2e-3..4e-3, 1u32..8, -6.0..0.0f64).prop_map(move |(decay, banks, power)| {
            SwitchedBanks { rise: s(decay * 0.02), decay: s(decay), gamma: 0.2, banks }.pulse(power.exp2())
        }),
        any_train(),
        (0.05e-3..3e-3, 1.0..3.6)
            .prop_map(move |(t05, ratio)| pebble_core::pulse::table::pulse_of_pair(s(t05), s(t05 * ratio))),
    ]
}

proptest! {
    #[test]
    fn a_quenched_pulse_holds_its_share_of_the_energy((unit, power) in quenched()) {
        let share = unit.pulse(power).share_of_full();
        prop_assert!((share - power).abs() <= 1e-9 + 1e-9 * power, "{share} instead of {power}");
    }

    #[test]
    fn a_quenched_unit_is_never_longer_at_lower_power((unit, power) in quenched(), less in 0.3..1.0f64) {
        let long = unit.pulse(power).durations();
        let short = unit.pulse(power * less).durations();
        prop_assert!(short.t90.as_secs() <= long.t90.as_secs() * (1.0 + 1e-6));
    }

    #[test]
    fn the_running_share_rises_from_nothing_to_all_and_its_inverse_leads_back(pulse in any_pulse(), share in 0.001..0.999f64) {
        let at = pulse.time_of_share(share);
        prop_assert!((pulse.share(at) - share).abs() < 1e-6, "share {} at {:?}", pulse.share(at), at);
        prop_assert!(pulse.share(at * 0.9) <= pulse.share(at));
        prop_assert_eq!(pulse.share(Seconds::ZERO), 0.0);
        prop_assert!(pulse.share(Seconds::from_secs(10.0)) > 0.999_999);
    }

    #[test]
    fn a_train_lasts_from_its_first_rise_to_its_last_fall_and_no_shorter_stretch_holds_nine_tenths(train in any_train()) {
        let (one, starts) = train.parts();
        let starts: Vec<Seconds> = starts.collect();
        let spread = *starts.last().unwrap();
        prop_assert_eq!(starts.len(), train.peaks() as usize);
        let (long, short) = (train.durations(), one.durations());
        prop_assert!((long.t01 - (short.t01 + spread)).as_secs().abs() < 1e-9);
        prop_assert!((long.t05 - (short.t05 + spread)).as_secs().abs() < 1e-9);
        // Its light is the mean of its pulses', each as much as the other.
        for (index, start) in starts.iter().enumerate().skip(1) {
            prop_assert!((train.share(*start) - index as f64 / starts.len() as f64).abs() < 2e-3);
        }
        let whole = train.time_of_share(0.99).as_secs();
        for k in 0..400 {
            let from = Seconds::from_secs(whole * f64::from(k) / 400.0);
            let to = Seconds::from_secs(from.as_secs() + long.t90.as_secs() * 0.99);
            prop_assert!(train.share(to) - train.share(from) < 0.905, "90 % in less than {:?}, from {from:?}", long.t90);
        }
    }

    #[test]
    fn durations_are_ordered(pulse in any_pulse()) {
        let durations = pulse.durations();
        prop_assert!(durations.t05 <= durations.t01);
        prop_assert!(durations.t90.as_secs() > 0.0 && durations.t90 <= pulse.time_of_share(0.95) );
    }

    #[test]
    fn rows_get_between_nothing_and_all_and_the_report_agrees_with_looking(
        pulse in any_pulse(), travel in 0.0..12e-3f64, time in 30e-6..30e-3f64, lag in 0.0..20e-3f64,
    ) {
        const LOOKS: usize = 2000;
        let run = Run { travel: Seconds::from_secs(travel), time: Seconds::from_secs(time) };
        let at = Seconds::from_secs(travel + lag);
        let seen: Vec<f64> = (0..LOOKS).map(|k| row_share(run, &pulse, at, (k as f64 + 0.5) / LOOKS as f64)).collect();
        prop_assert!(seen.iter().all(|share| (0.0..=1.0).contains(share)));
        let told = report(run, &pulse, at);
        let looked = seen.iter().filter(|share| **share < TOUCHED_SHARE).count() as f64 / LOOKS as f64;
        // Looking is as exact as its rows are fine.
        prop_assert!((told.touched - looked).abs() < 3.0 / LOOKS as f64, "touched {} seen {looked}", told.touched);
        let black = seen.iter().filter(|share| **share < 1e-9).count() as f64 / LOOKS as f64;
        prop_assert!((told.black - black).abs() < 3.0 / LOOKS as f64, "black {} seen {black}", told.black);
    }

    #[test]
    fn usable_sync_is_what_trying_every_time_finds(pulse in any_pulse(), travel in 0.0..8e-3f64, lag in 0.0..3e-3f64, rear in any::<bool>()) {
        let timing = Timing { lag: Seconds::from_secs(lag), guard: Seconds::from_millis(0.5), length: pulse.time_of_share(0.99) };
        let mode = if rear { SyncMode::Rear } else { SyncMode::Front };
        let travel = Seconds::from_secs(travel);
        let tried = (-15..=39).rev().map(|click| ShutterTime::from_tv6(click * 2)).find(|time| {
            leaves_no_row_dark(Run { travel, time: time.time() }, mode, timing, &pulse)
        });
        let range = (ShutterTime::from_tv6(-30), ShutterTime::from_tv6(78));
        prop_assert_eq!(usable_sync(travel, mode, timing, &pulse, Grid::Thirds, range), tried);
    }

    #[test]
    fn light_falls_with_distance_and_distance_is_its_inverse(
        radius in 0.0..1.0f64, offset in 0.0..0.5f64, modifier in -4.0..1.0f64, power in 0.004..1.0f64, distance in 0.1..30.0f64,
    ) {
        let throw = Throw {
            output: FlashOutput::from_lux_seconds_square_metres(9000.0),
            modifier: Stops::from_stops(modifier),
            face: Face { radius: Metres::from_metres(radius), offset: Metres::from_metres(offset) },
        };
        let near = throw.exposure(power, Metres::from_metres(distance));
        prop_assert!(throw.exposure(power, Metres::from_metres(distance * 1.01)) < near);
        let back = throw.distance_for(power, near).expect("it was made from a distance");
        prop_assert!((back.as_metres() - distance).abs() < 1e-6 * distance.max(1.0));
        prop_assert!((throw.power_for(Metres::from_metres(distance), near) - power).abs() < 1e-9);
    }

    #[test]
    fn a_click_here_and_a_click_back_there_is_the_same_exposure(av6 in 0..60i32, tv6 in -30..78i32, sv6 in -6..48i32, click in 1..12i32) {
        // Reciprocity: ambient stays when aperture and shutter, or ISO and shutter, are turned against each other.
        let placed = |av6: i32, tv6: i32, sv6: i32| {
            let reference = reference_exposure(Aperture::from_av6(av6), Iso::from_sv6(sv6), Stops::ZERO);
            ShutterTime::from_tv6(tv6).time().as_secs() / reference.as_lux_seconds()
        };
        let here = placed(av6, tv6, sv6);
        prop_assert!((placed(av6 + click, tv6 - click, sv6) / here - 1.0).abs() < 1e-9);
        prop_assert!((placed(av6, tv6 + click, sv6 + click) / here - 1.0).abs() < 1e-9);
        // Flash stays when aperture and ISO are.
        let reference = |av6, sv6| reference_exposure(Aperture::from_av6(av6), Iso::from_sv6(sv6), Stops::ZERO);
        prop_assert!((reference(av6 + click, sv6 + click) / reference(av6, sv6) - 1.0).abs() < 1e-9);
    }

    #[test]
    fn sources_together_are_brighter_than_the_brightest_and_at_most_their_number(a in -12.0..6.0f64, b in -12.0..6.0f64) {
        let sum = sum_of_sources([Stops::from_stops(a), Stops::from_stops(b)]).as_stops();
        prop_assert!(sum > a.max(b) && sum <= a.max(b) + 1.0 + 1e-12);
    }

    #[test]
    fn lightness_rises_with_light(low in 0.0..6.0f64, more in 0.0001..2.0f64) {
        let lightness = |level: f64| Level::of_surface(0.18 * level, Stops::ZERO).lightness();
        prop_assert!(lightness(low) <= lightness(low + more));
        prop_assert!((0.0..=100.0).contains(&lightness(low)));
    }

    /// Whatever is set, nothing that leaves the core is NaN, and every remedy that is offered has mended its finding when
    /// the changed shot is read anew.
    #[test]
    fn a_remedy_applied_to_the_file_mends_its_finding(
        example in 0..8usize, power in 0.01..1.0f64, tv6 in -12..78i32, sv6 in 0..36i32, av6 in 18..54i32, lux in 0.0..4000.0f64,
        speed in 0.0..25.0f64, intent in 0..3usize, distance in 0.5..8.0f64,
    ) {
        let mut shot = crate::common::examples().swap_remove(example);
        shot.camera.shutter = ShutterTime::from_tv6(tv6 / 2 * 2).label(Grid::Thirds);
        shot.camera.iso = Iso::from_sv6(sv6 / 2 * 2).label(Grid::Thirds).parse().unwrap();
        shot.camera.aperture_f = Aperture::from_av6((av6 / 2 * 2).clamp(18, 48)).label(Grid::Thirds).parse().unwrap();
        shot.lights[0].power = power;
        shot.lights[0].distance_m = distance;
        shot.ambient.subject = Reading::Lux { lux };
        shot.parts[0].speed_m_s = speed;
        shot.parts[0].intent = [Intent::Pebble, Intent::Skim, Intent::Dash][intent];
        let Ok(plan) = Plan::try_from(&shot) else { return Ok(()) };
        let outlook = outlook(&plan);
        let told = serde_json::to_string(&forecast::written(&plan, &outlook)).unwrap();
        // The wire has no NaN; a null may only stand where it is documented to.
        let nulls = ["placement_stops\":null", "in_frame_stops\":null", "on_set_stops\":null", "read_stops\":null",
            "lit_side_stops\":null", "dome_stops\":null", "left_cheek_stops\":null", "right_cheek_stops\":null", "level_stops\":null",
            "freeze_s\":null", "flash_blur_px\":null", "total_m\":null", "whole_frames\":null", "until_hot\":null", "on_a_charge\":null", "far_m\":null", "total_stops\":null", "flash_over_ambient_stops\":null",
            "worst_stops\":null", "edge_stops\":null", "background_stops\":null", "beside_stops\":null", "through_stops\":null", "usable_sync_s\":null", "\"stops\":null"];
        let rest = nulls.iter().fold(told.clone(), |text, known| text.replace(known, ""));
        prop_assert!(!rest.contains("null"), "{rest}");

        for finding in findings::judge(&plan, &outlook) {
            for remedy in &finding.remedies {
                let changed = crate::common::applied(&shot, &remedy.changes);
                let plan = Plan::try_from(&changed).map_err(|error| TestCaseError::fail(format!("{}: {error}", remedy.label)))?;
                let after = findings::judge(&plan, &pebble_core::outlook(&plan));
                // Gone, or, where it says so, less of it.
                let mended =
                    |other: &findings::Finding| other.id != finding.id || (remedy.partly && other.title != finding.title);
                prop_assert!(after.iter().all(mended), "{} left by {}", finding.title, remedy.label);
            }
        }
    }
}

#[test]
fn a_light_known_by_joules_only_says_so_wherever_it_is_used() {
    let mut shot: Shot = crate::common::shot();
    shot.lights[0].unit.output = Output::Energy { joules: 400.0, half_angle_deg: None };
    let plan = crate::common::plan(&shot);
    let seen = forecast(&plan);
    assert_eq!((seen.key().flash.output_low_stops, seen.key().flash.output_high_stops), (Some(-1.4), Some(2.0)));
    let told = findings::judge(&plan, &outlook(&plan));
    assert!(told.iter().any(|finding| finding.id == "output-estimated" && finding.cause.contains("+2.0")));
}
