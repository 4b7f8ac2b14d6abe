//! What the findings say of shots with one thing wrong, and what a shot must not contain.

use crate::common::{self, examples, plan, through_a_longer_lens};
use pebble_core::conditions::{self, Matter};
use pebble_core::findings::{self, Finding, Severity};
use pebble_core::gear::{self, TableRow};
use pebble_core::outlook::DrawnBy;
use pebble_core::shot::{self, Intent, Reading, Shot};
use pebble_core::shutter::SyncMode;
use pebble_core::{Plan, forecast, outlook};

/// A shot with nothing wrong: dark room, short pulse, generous shutter, one slow part.
fn calm() -> Shot {
    let mut shot = common::shot();
    shot.ambient.subject = Reading::Lux { lux: 0.0 };
    shot.ambient.background = Reading::Lux { lux: 0.0 };
    shot.camera.shutter = "1/60".to_owned();
    shot.parts.truncate(1);
    shot.parts[0].speed_m_s = 0.5;
    shot
}

fn judged(shot: &Shot) -> Vec<Finding> {
    let plan = plan(shot);
    findings::judge(&plan, &outlook(&plan))
}

fn finding(shot: &Shot, id: &str) -> Finding {
    let all = judged(shot);
    let titles: Vec<_> = all.iter().map(|finding| format!("{} {}", finding.id, finding.title)).collect();
    all.into_iter().find(|finding| finding.id == id).unwrap_or_else(|| panic!("no {id} among {titles:?}"))
}

#[test]
fn a_calm_shot_is_quiet_and_says_what_was_checked() {
    let all = judged(&calm());
    assert!(all.iter().all(|finding| finding.severity == Severity::Fine), "{all:#?}");
    assert!(all.iter().any(|finding| finding.id == "sync-clear") && all.iter().any(|finding| finding.id == "frozen"));
}

#[test]
fn one_thing_wrong_is_found_and_named() {
    let with = |change: fn(&mut Shot)| {
        let mut shot = calm();
        change(&mut shot);
        shot
    };
    let cases: [(&str, Shot, Severity, &str); 11] = [
        ("rows-cut", with(|s| s.camera.shutter = "1/1000".to_owned()), Severity::Trouble, "Bottom"),
        (
            "rows-cut",
            with(|s| {
                s.camera.shutter = "1/500".to_owned();
                s.camera.body.first_row = gear::FirstRow::Top
            }),
            Severity::Trouble,
            "Top",
        ),
        (
            "rows-cut",
            with(|s| {
                s.camera.shutter = "1/250".to_owned();
                s.lights[0].trigger.lag_ms = 12.0
            }),
            Severity::Trouble,
            "No flash in the frame",
        ),
        (
            "rear-as-front",
            with(|s| {
                s.lights[0].sync = SyncMode::Rear;
                s.camera.shutter = "1/250".to_owned()
            }),
            Severity::Watch,
            "1/250",
        ),
        ("blur-Face", with(|s| s.parts[0].speed_m_s = 9.0), Severity::Trouble, "limit 1.5 px"),
        (
            "ghost-Face",
            with(|s| {
                s.ambient.subject = Reading::Lux { lux: 3000.0 };
                s.parts[0].speed_m_s = 3.0
            }),
            Severity::Trouble,
            "strong trail",
        ),
        ("exposure", with(|s| s.lights[0].distance_m = 6.0), Severity::Trouble, "below where it is wanted"),
        ("exposure", with(|s| s.lights[0].power *= 1.5), Severity::Watch, "0.6 stops above"),
        ("depth", with(|s| s.subject.depth_m = 6.0), Severity::Trouble, "6.0 m"),
        (
            "clips-Face",
            with(|s| {
                s.parts[0].reflectance = 0.95;
                s.targets.subject_stops = 1.0;
                s.lights[0].power *= 2.0
            }),
            Severity::Watch,
            "beyond white",
        ),
        ("dash-dim-Face", with(|s| s.parts[0].intent = Intent::Dash), Severity::Trouble, "hardly a streak"),
    ];
    for (id, shot, severity, words) in cases {
        let found = finding(&shot, id);
        assert_eq!(found.severity, severity, "{id}: {}", found.title);
        assert!(found.title.contains(words), "{id}: {:?} does not say {words:?}", found.title);
        assert!(!found.cause.is_empty());
    }
}

/// A card says as many troubles as the Bench then shows: lights that share a fault are one on both.
#[test]
fn a_list_counts_what_the_bench_shows() {
    let mut shared = 0;
    for shot in examples() {
        for stops in [-2.0, 0.0, 3.0] {
            let mut shot = shot.clone();
            shot.lights.iter_mut().for_each(|light| light.distance_m *= f64::exp2(stops / 2.0));
            let plan = plan(&shot);
            let seen = outlook(&plan);
            let all = findings::judge(&plan, &seen);
            let of = |severity| all.iter().filter(|one| one.severity == severity).count();
            assert_eq!(findings::count(&plan, &seen), (of(Severity::Trouble), of(Severity::Watch)), "{}", shot.title);
            shared += all.iter().filter(|one| one.title.contains(" and ")).count();
        }
    }
    assert!(shared > 2, "no lights share a fault: {shared}");
}

#[test]
fn remedies_are_what_a_photographer_would_turn() {
    // Too fast for the sync: the usable time, worked out apart: 3.2 ms travel + 0.3 ms lag + the pulse's 93 % at this power.
    let mut fast = calm();
    fast.camera.shutter = "1/1000".to_owned();
    let remedy = &finding(&fast, "rows-cut").remedies[0];
    assert_eq!(remedy.label, forecast(&plan(&fast)).key().rows.usable_sync_label.clone().unwrap());
    // A charge-voltage unit is shortest at full power: the remedy for blur is *more* power, farther away.
    let mut analogue = through_a_longer_lens(calm(), 3.0);
    analogue.usage = pebble_core::motion::Usage::Print;
    analogue.lights[0].unit.control =
        gear::Control::ChargeVoltage { decay_ms: Some(0.3), t05_ms: None, t01_ms: None, rise_ms: None, gamma: 0.3 };
    analogue.lights[0].power = 0.0625;
    analogue.lights[0].distance_m = 1.4;
    // Behind a grid it may be carried past the lens without shining into it.
    analogue.lights[0].modifier.grid_deg = Some(40.0);
    analogue.parts[0].speed_m_s = 1.4;
    let blurred = finding(&analogue, "blur-Face");
    let power = blurred.remedies[0].changes.iter().find(|change| change.pointer == "/lights/0/power").unwrap();
    let more = serde_json::to_value(&power.value).unwrap().as_f64().unwrap();
    assert!(more > analogue.lights[0].power, "{blurred:#?}");
    assert!(blurred.remedies[0].label.contains("farther"), "{}", blurred.remedies[0].label);
}

#[test]
fn a_remedy_never_pays_with_a_cut_frame() {
    for shot in crate::common::examples() {
        let before = forecast(&plan(&shot)).key().rows.touched_share;
        for remedy in judged(&shot).iter().flat_map(|finding| &finding.remedies) {
            let after = forecast(&plan(&crate::common::applied(&shot, &remedy.changes))).key().rows.touched_share;
            assert!(after <= before, "{}: {} cuts rows", shot.title, remedy.label);
        }
    }
}

#[test]
fn schools_are_told_apart_where_they_matter() {
    let mut shot = calm();
    shot.lights[0].power = 1.0;
    shot.lights[0].distance_m = 7.0;
    shot.school = pebble_core::pulse::School::T05;
    let at_full = forecast(&plan(&shot));
    // Between what t0.5 allows and what t0.1 allows.
    let middle = (at_full.key().pulse.t01_s * at_full.key().pulse.t05_s).sqrt();
    let per_speed = at_full.parts[0].image_speed_px_s / 0.5;
    shot.parts[0].speed_m_s = at_full.optics.allowed_px / middle / per_speed;
    assert!(finding(&shot, "school-Face").title.contains("t0.5 flatters"));
    shot.school = pebble_core::pulse::School::T01;
    assert!(finding(&shot, "blur-Face").title.contains("limit"));
}

#[test]
fn figures_that_are_guesses_say_so() {
    let mut shot = calm();
    let row = |power, t05_ms, t01_ms| TableRow { power, t05_ms, t01_ms };
    let mut doubt = |rows: Vec<TableRow>| {
        shot.lights[0].unit.control = gear::Control::Table { rows, discharge: None };
        judged(&shot).into_iter().find(|finding| finding.id == "duration-doubtful").map(|finding| finding.cause)
    };
    let whole = vec![row(1.0, Some(0.3), Some(0.9)), row(0.01, Some(0.03), Some(0.05))];
    assert_eq!(doubt(whole), None);
    assert!(doubt(vec![row(1.0, Some(0.3), Some(0.9))]).unwrap().contains("outside"));
    assert!(doubt(vec![row(1.0, None, Some(0.9)), row(0.01, None, Some(0.05))]).unwrap().contains("fitted"));
    assert!(doubt(vec![row(1.0, Some(0.1), Some(0.9)), row(0.01, Some(0.01), Some(0.09))]).unwrap().contains("3.35"));
}

#[test]
fn what_cannot_be_is_refused_with_field_value_and_range() {
    let refused = |change: &dyn Fn(&mut Shot)| {
        let mut shot = common::shot();
        change(&mut shot);
        Plan::try_from(&shot).expect_err("it cannot be")
    };
    type Wrong<'a> = (&'a str, &'a dyn Fn(&mut Shot));
    let cases: [Wrong; 29] = [
        ("format", &|s| s.format = "other".to_owned()),
        ("version", &|s| s.version = 9),
        ("title", &|s| s.title = "  ".to_owned()),
        ("title", &|s| s.title = "x".repeat(201)),
        ("camera.aperture_f", &|s| s.camera.aperture_f = 0.0),
        ("camera.aperture_f", &|s| s.camera.aperture_f = -8.0),
        ("camera.aperture_f", &|s| s.camera.aperture_f = f64::NAN),
        ("camera.aperture_f", &|s| s.camera.aperture_f = 1.4),
        ("camera.shutter", &|s| s.camera.shutter = "1/0".to_owned()),
        ("camera.shutter", &|s| s.camera.shutter = "1/16000".to_owned()),
        ("camera.shutter", &|s| s.camera.shutter = "soon".to_owned()),
        ("camera.iso", &|s| s.camera.iso = 50.0),
        ("camera.filter_stops", &|s| s.camera.filter_stops = -1.0),
        ("camera.focal_mm", &|s| s.camera.focal_mm = 10.0),
        ("subject.distance_m", &|s| s.subject.distance_m = 0.0),
        ("subject.distance_m", &|s| {
            s.subject.distance_m = 0.06;
            s.camera.focal_mm = 70.0
        }),
        ("lights[0].power", &|s| s.lights[0].power = 0.0),
        ("lights[0].power", &|s| s.lights[0].power = 1.2),
        ("lights[0].power", &|s| s.lights[0].power = 1.0 / 1024.0),
        ("lights[0].distance_m", &|s| s.lights[0].distance_m = 0.0),
        ("lights[0].sync", &|s| {
            s.lights[0].sync = SyncMode::HighSpeed;
            s.camera.body.high_speed_sync = false
        }),
        ("lights[0].unit.control.rows", &|s| {
            s.lights[0].unit.control = gear::Control::Table { rows: Vec::new(), discharge: None }
        }),
        ("lights[0].unit.control.rows[0].t01_ms", &|s| {
            s.lights[0].unit.control = gear::Control::Table {
                rows: vec![TableRow { power: 1.0, t05_ms: Some(2.0), t01_ms: Some(1.0) }],
                discharge: None,
            }
        }),
        ("lights[0].unit.control.rise_ms", &|s| {
            s.lights[0].unit.control = gear::Control::Quenched {
                decay_ms: Some(0.5),
                t05_ms: None,
                t01_ms: None,
                rise_ms: Some(0.6),
                fall_ms: None,
            }
        }),
        ("ambient.subject.lux", &|s| s.ambient.subject = Reading::Lux { lux: -1.0 }),
        ("ambient.background.ev", &|s| s.ambient.background = Reading::Ev100 { ev: f64::INFINITY }),
        ("parts[1].speed_m_s", &|s| s.parts[1].speed_m_s = -2.0),
        ("parts[2].name", &|s| s.parts[2].name = s.parts[0].name.clone()),
        ("parts[0].reflectance", &|s| s.parts[0].reflectance = 1.5),
    ];
    for (field, change) in cases {
        let error = refused(change);
        assert_eq!(error.field(), field, "{error}");
        assert!(!error.allowed().is_empty() && error.to_string().contains(field), "{error}");
    }
    let range = refused(&|s| s.lights[0].distance_m = 900.0);
    assert_eq!((range.given().as_str(), range.allowed().as_str()), ("900", "0.05 to 200 m"));
}

#[test]
fn darkness_stillness_and_nothing_to_judge_have_plain_answers() {
    let mut empty = calm();
    empty.parts.clear();
    empty.lights[0].on = false;
    let seen = forecast(&plan(&empty));
    assert_eq!((seen.flash.placement_stops, seen.parts.len()), (None, 0));
    assert!(judged(&empty).iter().all(|finding| finding.remedies.is_empty()));
    // A part that moves straight at the camera has no blur across, only growth.
    let mut toward = calm();
    toward.parts[0].out_of_plane_deg = 90.0;
    toward.parts[0].speed_m_s = 9.0;
    let part = &forecast(&plan(&toward)).parts[0];
    assert!(part.flash_blur_px.unwrap() < 1e-9 && part.growth > 0.02, "{part:?}");
    // A part without width draws nothing.
    let mut thin = calm();
    thin.ambient.subject = Reading::Lux { lux: 500.0 };
    thin.parts[0].size_m = 0.0;
    assert_eq!(forecast(&plan(&thin)).parts[0].dwell, 0.0);
}

#[test]
fn strips_hold_what_camera_lens_and_unit_have() {
    let plan = plan(&common::shot());
    let strips = pebble_core::strips::strips(&plan);
    let strip = |id: &str| strips.iter().find(|strip| strip.id == id).unwrap();
    let ends = |id: &str| {
        let labels: Vec<_> = strip(id).notches.iter().map(|notch| notch.label.clone()).collect();
        (labels[0].clone(), labels[labels.len() - 1].clone(), strip(id).notches[strip(id).index].label.clone())
    };
    let text = |(a, b, c): (&str, &str, &str)| (a.to_owned(), b.to_owned(), c.to_owned());
    assert_eq!(ends("aperture"), text(("2.8", "22", "8")));
    assert_eq!(ends("shutter"), text(("30\"", "1/8000", "1/60")));
    assert_eq!(ends("iso"), text(("100", "25600", "200")));
    assert_eq!(ends("power"), text(("1/256", "1/1", "1/8 +0.7")));
    assert_eq!(ends("focal"), text(("24", "70", "35")));
    let mut film = common::shot();
    film.camera.body.grid = pebble_core::quantity::scale::Grid::Halves;
    film.lights[0].unit.high_speed_sync = false;
    let plan = crate::common::plan(&film);
    let strips = pebble_core::strips::strips(&plan);
    assert!(strips.iter().any(|strip| strip.notches.iter().any(|notch| notch.label == "1/45")));
    assert!(strips.iter().find(|strip| strip.id == "sync").unwrap().notches.len() == 2);
}

/// The examples in many lights and times: as they are, with the room lit, with daylight leading, cut, and in high-speed sync.
fn in_many_lights() -> Vec<Shot> {
    let mut all = Vec::new();
    for shot in examples() {
        for lux in [0.0, 30.0, 600.0, 20_000.0] {
            for shutter in ["1/4", "1/30", "1/200", "1/1000"] {
                for lead in [shot::Lead::Flash, shot::Lead::Daylight] {
                    for sync in [SyncMode::Front, SyncMode::HighSpeed] {
                        let mut shot = shot.clone();
                        shot.ambient.subject = Reading::Lux { lux };
                        shot.ambient.background = Reading::Lux { lux: lux / 2.0 };
                        (shot.camera.shutter, shot.targets.lead) = (shutter.to_owned(), lead);
                        shot.lights
                            .iter_mut()
                            .filter(|light| light.automatic.is_none())
                            .for_each(|light| light.sync = sync);
                        if Plan::try_from(&shot).is_ok() {
                            all.push(shot);
                        }
                    }
                }
            }
        }
    }
    all
}

/// What is called good is good, also where another finding says what is not.
#[test]
fn nothing_is_called_good_that_is_not() {
    let (mut said, shots) = (0, in_many_lights());
    assert!(shots.len() > 200, "{} shots", shots.len());
    for shot in &shots {
        let plan = plan(shot);
        let seen = outlook(&plan);
        let missed: Vec<Matter> =
            conditions::all(&plan, &seen).into_iter().filter(|one| !one.is_met()).map(|one| one.matter).collect();
        for fine in findings::judge(&plan, &seen).into_iter().filter(|one| one.severity == Severity::Fine) {
            let about = match fine.id.as_str() {
                "sync-clear" => Matter::Rows,
                "frozen" => Matter::Still,
                "no-ghost" => Matter::NoTrail,
                "depth-holds" => Matter::Depth,
                other => panic!("{other} is called good"),
            };
            assert!(!missed.contains(&about), "{}: {} beside {missed:?}", shot.title, fine.title);
            said += 1;
        }
    }
    assert!(said > 200, "{said}");
}

/// What is drawn of a part while the shutter is open is told once: as its blur or as its trail.
#[test]
fn what_the_steady_light_draws_of_a_part_is_one_finding() {
    let (mut blurs, mut trails) = (0, 0);
    for shot in in_many_lights() {
        let plan = plan(&shot);
        let seen = outlook(&plan);
        let all = findings::judge(&plan, &seen);
        let missed = conditions::all(&plan, &seen);
        for (index, (part, of_part)) in plan.parts.iter().zip(&seen.parts).enumerate() {
            let says = |id: &str| all.iter().find(|one| one.id == format!("{id}-{}", part.name));
            let misses =
                |matter| missed.iter().any(|one| (one.matter, one.part) == (matter, Some(index)) && !one.is_met());
            let (blur, trail) = (says("blur"), says("ghost"));
            let glows = of_part.slowest.is_some_and(|light| seen.lights[light].high_speed.is_some());
            if misses(Matter::Still) && misses(Matter::NoTrail) && (glows || of_part.drawn_by == DrawnBy::Steady) {
                assert!(blur.is_some() != trail.is_some(), "{}: {} is told twice or not at all", shot.title, part.name);
                blurs += usize::from(blur.is_some());
                trails += usize::from(trail.is_some());
            } else {
                // Two faults are two findings: a pulse that is too long beside a trail.
                assert_eq!(
                    (blur.is_some(), trail.is_some()),
                    (misses(Matter::Still), misses(Matter::NoTrail)),
                    "{}",
                    part.name
                );
            }
        }
    }
    assert!(blurs > 20 && trails > 5, "{blurs} blurs, {trails} trails");
}
