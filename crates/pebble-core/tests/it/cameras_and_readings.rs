//! Kinds of cameras, ways of reading light, uses and schools: what each changes, worked by hand.

use crate::common::{plan, shot};
use pebble_core::findings;
use pebble_core::gear::{Control, FirstRow, ShutterKind};
use pebble_core::motion::Usage;
use pebble_core::pulse::School;
use pebble_core::quantity::scale::Grid;
use pebble_core::shot::{Reading, Shot};
use pebble_core::shutter::SyncMode;
use pebble_core::{Forecast, Plan, forecast, outlook};

fn told(change: impl FnOnce(&mut Shot)) -> Forecast {
    let mut shot = shot();
    change(&mut shot);
    forecast(&plan(&shot))
}

#[track_caller]
fn near(name: &str, got: f64, want: f64, within: f64) {
    assert!((got - want).abs() <= within, "{name}: {got} instead of {want}");
}

#[test]
fn the_same_light_read_three_ways_stands_on_the_same_rung() {
    // 340·2^7/100 = 435.2 lx; an incident meter shows f/4 at 1/8 and ISO 100 for it: 340·16·8/100 = 435.2.
    let readings = [
        Reading::Lux { lux: 435.2 },
        Reading::Ev100 { ev: 7.0 },
        Reading::Exposure { aperture_f: 4.0, shutter: "1/8".to_owned(), iso: 100.0 },
        Reading::Exposure { aperture_f: 8.0, shutter: "1/15".to_owned(), iso: 800.0 },
    ];
    for reading in readings {
        let seen = told(|shot| {
            shot.ambient.subject = reading.clone();
            shot.camera.aperture_f = 8.0;
            shot.camera.shutter = "1/60".to_owned();
            shot.camera.iso = 200.0;
        });
        near(&format!("{reading:?}"), seen.ambient_subject.illuminance_lx.unwrap(), 435.2, 1e-6);
        // 435.2/64 = 6.8 lx·s against 340·64/200 = 108.8 lx·s: a sixteenth.
        near("placement", seen.ambient_subject.placement_stops.unwrap(), -4.0, 1e-9);
    }
}

#[test]
fn a_filter_dims_flash_and_steady_light_alike() {
    let bare = told(|_| ());
    let behind = told(|shot| shot.camera.filter_stops = 3.0);
    for (name, from, to) in [
        ("key", bare.flash.placement_stops, behind.flash.placement_stops),
        ("ambient", bare.ambient_subject.placement_stops, behind.ambient_subject.placement_stops),
        ("background", bare.ambient_background.placement_stops, behind.ambient_background.placement_stops),
        ("spill", bare.spill.placement_stops, behind.spill.placement_stops),
    ] {
        near(name, to.unwrap() - from.unwrap(), -3.0, 1e-9);
    }
    near("lead", behind.flash_over_ambient_stops.unwrap(), bare.flash_over_ambient_stops.unwrap(), 1e-9);
}

#[test]
fn each_setting_moves_what_it_moves_and_nothing_else() {
    type Turn = fn(&mut Shot);
    // Name, the turn of one stop less light, and whether flash and steady light follow.
    let turns: [(&str, Turn, f64, f64); 5] = [
        ("aperture", |s| s.camera.aperture_f = 11.0, -1.0, -1.0),
        ("ISO", |s| s.camera.iso = 100.0, -1.0, -1.0),
        ("shutter", |s| s.camera.shutter = "1/125".to_owned(), 0.0, -1.0),
        ("power", |s| s.lights[0].power /= 2.0, -1.0, 0.0),
        ("filter", |s| s.camera.filter_stops = 1.0, -1.0, -1.0),
    ];
    let before = told(|_| ());
    for (name, turn, flash, ambient) in turns {
        let after = told(turn);
        near(name, after.flash.placement_stops.unwrap() - before.flash.placement_stops.unwrap(), flash, 1e-9);
        near(
            name,
            after.ambient_subject.placement_stops.unwrap() - before.ambient_subject.placement_stops.unwrap(),
            ambient,
            1e-9,
        );
    }
}

#[test]
fn leaf_and_global_shutters_expose_all_rows_at_once() {
    for kind in [ShutterKind::Leaf, ShutterKind::Global] {
        let seen = told(|shot| {
            shot.camera.body.shutter_kind = kind;
            shot.camera.body.travel_ms = Some(9.0);
            shot.camera.shutter = "1/1000".to_owned();
            shot.lights[0].power = 1.0 / 64.0;
            shot.lights[0].trigger.lag_ms = 0.0;
        });
        assert_eq!((seen.moment.travel_s, seen.key().rows.touched_share), (0.0, 0.0), "{kind:?}");
        assert!(seen.key().rows.profile_share.iter().all(|share| *share == seen.key().rows.first_share), "{kind:?}");
        // Cut for all rows alike when the time is too short for lag and pulse.
        let late = told(|shot| {
            shot.camera.body.shutter_kind = kind;
            shot.camera.shutter = "1/4000".to_owned();
            shot.lights[0].trigger.lag_ms = 0.3;
        });
        assert_eq!((late.key().rows.black_share, late.key().rows.worst_stops), (1.0, None), "{kind:?}");
        assert!(
            Plan::try_from(&{
                let mut shot = shot();
                shot.camera.body.shutter_kind = kind;
                shot.lights[0].sync = SyncMode::HighSpeed;
                shot
            })
            .is_err(),
            "no slit, no high-speed sync: {kind:?}"
        );
    }
}

#[test]
fn a_rolling_shutter_needs_a_readout_time_and_takes_it_as_travel() {
    let mut silent = shot();
    silent.camera.body.shutter_kind = ShutterKind::Rolling;
    silent.camera.body.travel_ms = None;
    assert_eq!(Plan::try_from(&silent).unwrap_err().field(), "camera.body.travel_ms");
    silent.camera.body.travel_ms = Some(14.0);
    silent.camera.shutter = "1/60".to_owned();
    let seen = forecast(&plan(&silent));
    near("travel", seen.moment.travel_s, 0.014, 1e-12);
    // 15.6 ms open, 14 ms of readout and 0.3 ms of lag: 1.3 ms are left for the pulse.
    assert_eq!(seen.key().rows.touched_share, 0.0);
    silent.camera.shutter = "1/80".to_owned();
    assert!(forecast(&plan(&silent)).key().rows.touched_share > 0.0);
}

#[test]
fn an_unknown_travel_is_taken_from_the_sync_speed_and_said_where_it_decides() {
    let mut shot = shot();
    shot.camera.body.travel_ms = None;
    shot.camera.body.sync = "1/250".to_owned();
    shot.camera.shutter = "1/200".to_owned();
    let seen = forecast(&plan(&shot));
    near("travel", seen.moment.travel_s, 1.0 / 256.0 - 0.0005, 1e-12);
    assert!(seen.moment.travel_assumed);
    let said = |shot: &Shot| {
        let plan = plan(shot);
        findings::judge(&plan, &outlook(&plan)).iter().any(|finding| finding.id == "travel-assumed")
    };
    assert!(said(&shot), "near the edge it matters");
    shot.camera.shutter = "1/30".to_owned();
    assert!(!said(&shot), "far from it it does not");
    // An old body of 1/30: nine tenths of 31.25 ms, which is less than half a millisecond less.
    shot.camera.body.sync = "1/30".to_owned();
    shot.camera.body.grid = Grid::Halves;
    near("old body", forecast(&plan(&shot)).moment.travel_s, 0.028_125, 1e-12);
}

#[test]
fn the_use_of_the_picture_decides_what_is_blur_and_how_deep_is_sharp() {
    // 36 × 24 mm, 6000 px: pitch 6 µm, diagonal 43.267 mm.
    let cases = [
        (Usage::Pixel, 1.5),
        (Usage::LargePrint, 43.266_615 / 3000.0 / 0.006),
        (Usage::Web, 36.0 / 1200.0 / 0.006),
        (Usage::Print, 43.266_615 / 1500.0 / 0.006),
        (Usage::Screen, 6000.0 / 2048.0),
    ];
    let mut depths = Vec::new();
    for (usage, px) in cases {
        let seen = told(|shot| shot.usage = usage);
        near(&format!("{usage:?}"), seen.optics.allowed_px, px, 1e-4);
        depths.push((seen.optics.allowed_px, seen.depth.far_m.unwrap_or(f64::INFINITY) - seen.depth.near_m));
    }
    depths.sort_by(|a, b| a.0.total_cmp(&b.0));
    assert!(depths.windows(2).all(|pair| pair[0].1 < pair[1].1), "who allows more blur has more depth: {depths:?}");
}

#[test]
fn schools_take_their_own_duration() {
    let full = |school| {
        told(|shot| {
            shot.school = school;
            shot.lights[0].power = 1.0;
        })
    };
    let (t05, t01, t90) = (full(School::T05), full(School::T01), full(School::T90));
    assert_eq!(
        (t05.key().pulse.freeze_s, t01.key().pulse.freeze_s, t90.key().pulse.freeze_s),
        (Some(t01.key().pulse.t05_s), Some(t01.key().pulse.t01_s), Some(t01.key().pulse.t90_s))
    );
    let ratio = t01.parts[1].flash_blur_px.unwrap() / t05.parts[1].flash_blur_px.unwrap();
    near("blur follows", ratio, t01.key().pulse.t01_s / t01.key().pulse.t05_s, 1e-9);
    // A full discharge is nearly exponential: t0.1 over t0.5 near ln 10/ln 2, never "three times" for a quenched one.
    assert!((2.9..3.33).contains(&ratio), "{ratio}");
    let quenched = told(|shot| shot.lights[0].power = 0.125).key().pulse.clone();
    assert!(quenched.t01_s / quenched.t05_s < 1.3, "{}", quenched.t01_s / quenched.t05_s);
}

#[test]
fn ways_of_making_less_light_have_their_signatures() {
    let durations = |control: Control| -> Vec<f64> {
        [1.0, 0.5, 0.25, 0.125, 0.0625]
            .map(|power| {
                told(|shot| {
                    shot.lights[0].unit.control = control.clone();
                    shot.lights[0].power = power;
                })
                .key()
                .pulse
                .clone()
                .t01_s
            })
            .to_vec()
    };
    let falling = |times: &[f64]| times.windows(2).all(|pair| pair[1] < pair[0]);
    let rising = |times: &[f64]| times.windows(2).all(|pair| pair[1] > pair[0]);
    let quenched =
        durations(Control::Quenched { decay_ms: Some(1.2), t05_ms: None, t01_ms: None, rise_ms: None, fall_ms: None });
    assert!(falling(&quenched), "{quenched:?}");
    let voltage = durations(Control::ChargeVoltage {
        decay_ms: Some(1.2),
        t05_ms: None,
        t01_ms: None,
        rise_ms: None,
        gamma: 0.2,
    });
    assert!(rising(&voltage), "{voltage:?}");
    let banks = durations(Control::SwitchedBanks {
        decay_ms: Some(1.2),
        t05_ms: None,
        t01_ms: None,
        rise_ms: None,
        gamma: 0.2,
        banks: 4,
    });
    assert!(falling(&banks[..3]) && rising(&banks[2..]), "shortest at the last switch point: {banks:?}");
    let flat = durations(Control::ChargeVoltage {
        decay_ms: Some(1.2),
        t05_ms: None,
        t01_ms: None,
        rise_ms: None,
        gamma: 0.0,
    });
    assert!(flat.iter().all(|time| (time / flat[0] - 1.0).abs() < 1e-12), "{flat:?}");
}

#[test]
fn the_ladder_holds_every_light_once_and_in_order() {
    let seen = told(|_| ());
    let rungs = &seen.ladder.rungs;
    let heights: Vec<f64> = rungs.iter().filter_map(|rung| rung.stops).collect();
    assert!(heights.windows(2).all(|pair| pair[0] >= pair[1]), "{heights:?}");
    let mut ids: Vec<&str> = rungs.iter().map(|rung| rung.id.as_str()).collect();
    ids.sort_unstable();
    assert_eq!(
        ids,
        [
            "ambient",
            "background",
            "background-tone",
            "cheek-left",
            "cheek-right",
            "key",
            "spill",
            "subject",
            "subject-other",
            "trail-Face",
            "trail-Ropes"
        ]
    );
    near("white clips", seen.ladder.clip_stops, 2.474, 0.001);
    near("reads as black", seen.ladder.black_stops, -5.76, 0.01);
    let off = told(|shot| shot.lights[0].on = false);
    assert!(
        off.ladder.rungs.iter().filter(|rung| rung.id == "key" || rung.id == "spill").all(|rung| rung.stops.is_none())
    );
}

#[test]
fn the_first_row_only_decides_which_edge_is_called_what() {
    let rows = |first_row| {
        let mut shot = shot();
        shot.camera.shutter = "1/500".to_owned();
        shot.camera.body.first_row = first_row;
        let plan = plan(&shot);
        let title =
            findings::judge(&plan, &outlook(&plan)).into_iter().find(|finding| finding.id == "rows-cut").unwrap().title;
        (forecast(&plan).key().rows.clone(), title)
    };
    let (bottom, low) = rows(FirstRow::Bottom);
    let (top, high) = rows(FirstRow::Top);
    assert_eq!(bottom, top);
    assert!(low.to_lowercase().contains("bottom") && high.to_lowercase().contains("top"), "{low} / {high}");
}
