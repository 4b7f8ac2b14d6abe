//! Shutters dragged on purpose, groups in rows, tones for an automatic: worked by hand and checked against their own answers.

use crate::common::{examples, plan, shot};
use pebble_core::Meter;
use pebble_core::depth::depth;
use pebble_core::drag::{DragWish, StreakReading, luminance_of_streak, roads};
use pebble_core::findings::Change;
use pebble_core::groups::{GroupShape, groups};
use pebble_core::hold::Followed;
use pebble_core::metering::biases;
use pebble_core::quantity::Metres;
use pebble_core::shot::{Reading, Shot, Tone};
use pebble_core::{Plan, conditions, outlook, strips};
use proptest::prelude::*;

/// The shot with what is said put into its file.
fn turned(shot: &Shot, changes: &[Followed]) -> Plan {
    let changes: Vec<Change> =
        changes.iter().map(|one| Change { pointer: one.pointer.clone(), value: one.value.clone() }).collect();
    plan(&crate::common::applied(shot, &changes))
}

#[test]
fn a_streak_and_a_steady_light_are_both_reached_or_it_is_said_why_not() {
    for shot in examples().into_iter().filter(|shot| shot.parts.iter().any(|part| part.speed_m_s > 1.0)) {
        let before = plan(&shot);
        let part = shot.parts.iter().position(|part| part.speed_m_s > 1.0).unwrap();
        let was = outlook(&before);
        for (share, ambient) in [(0.02, -3.0), (0.1, -2.0), (0.3, -1.0), (0.6, 1.0)] {
            let answer = roads(&before, &DragWish { part, share, ambient_stops: ambient }).unwrap();
            // t = q·width/u, by hand.
            let u = was.parts[part].motion.speed.as_metres_per_second();
            assert!((answer.streak_s - share * before.body.sensor.width.as_metres() / u).abs() < 1e-12);
            if let (Some(time), Some(change)) = (answer.ambient_s, answer.light_change_stops) {
                assert!((change - (time / answer.streak_s).log2()).abs() < 1e-9, "log2(t_ambient/t_streak)");
            }
            for road in answer.roads.iter().filter(|road| road.not.is_none()) {
                let after = outlook(&turned(&shot, &road.changes));
                assert!(
                    (after.ambient.placement.as_stops() - ambient).abs() <= 0.17 + 1e-6,
                    "{}: {road:?}",
                    shot.title
                );
                let length = after.parts[part].streak_share;
                assert!(
                    (length - road.streak_share).abs() < 1e-9 && (length / share).log2().abs() <= 0.5,
                    "{length} for {share}"
                );
                for (now, was) in after.lights.iter().zip(&was.lights).filter(|(now, _)| now.fires) {
                    assert!(
                        (now.in_frame.placement - was.in_frame.placement).as_stops().abs() <= 0.2 + 1e-6,
                        "{}: {road:?}",
                        shot.title
                    );
                }
                assert!(road.rear_s >= road.front_s);
            }
        }
    }
}

#[test]
fn wishes_that_cannot_be_are_refused_or_explained() {
    let before = plan(&shot());
    let wish = |part, share, ambient_stops| roads(&before, &DragWish { part, share, ambient_stops });
    assert!(wish(0, 1.5, -2.0).unwrap_err().to_string().contains("not between"), "longer than the frame");
    assert!(wish(9, 0.1, -2.0).unwrap_err().to_string().contains("a part of this shot"));
    let mut still = shot();
    still.parts[0].speed_m_s = 0.0;
    let error = roads(&plan(&still), &DragWish { part: 0, share: 0.1, ambient_stops: -2.0 }).unwrap_err();
    assert!(error.to_string().contains("stands still"), "{error}");
    let mut dark = shot();
    dark.ambient.subject = Reading::Lux { lux: 0.0 };
    let answer = roads(&plan(&dark), &DragWish { part: 1, share: 0.1, ambient_stops: -2.0 }).unwrap();
    assert_eq!(answer.ambient_s, None);
    assert!(answer.roads.iter().all(|road| road.not.as_ref().is_some_and(|not| not.contains("no steady light"))));
}

#[test]
fn one_streak_tells_how_bright_all_others_will_be() {
    let seen = |aperture_f, iso, filter_stops, speed_m_s, streak_stops| StreakReading {
        aperture_f,
        iso,
        filter_stops,
        filters: Vec::new(),
        speed_m_s,
        size_m: 0.08,
        streak_stops,
    };
    let luminance = |reading: &StreakReading| {
        luminance_of_streak(reading, Meter::default()).unwrap().as_candelas_per_square_metre()
    };
    let first = luminance(&seen(5.6, 400.0, 0.0, 4.0, 1.0));
    // Δ = log2[(N₀/N₁)²·(S₁/S₀)·(u₀/u₁)] + F₀ − F₁ for f/8, ISO 200, twice the speed, ND of a stop: −1 −1 −1 −1.
    assert!((luminance(&seen(8.0, 200.0, 1.0, 8.0, 1.0 - 4.0)) / first - 1.0).abs() < 1e-9);
    // Put into a shot, the streak stands where it was seen: a lamp longer than its path is wide of it.
    let mut shot = examples().remove(1);
    let lamp = shot.parts.iter().position(|part| part.luminance_cd_m2.is_some()).unwrap();
    let (part, camera) = (&shot.parts[lamp], &shot.camera);
    let reading = StreakReading {
        aperture_f: camera.aperture_f,
        iso: camera.iso,
        filter_stops: camera.filter_stops,
        filters: Vec::new(),
        speed_m_s: part.speed_m_s,
        size_m: part.size_m,
        streak_stops: 0.7,
    };
    shot.parts[lamp].luminance_cd_m2 = Some(luminance(&reading));
    (shot.parts[lamp].reflectance, shot.background.reflectance) = (0.0, 0.0);
    let ghost = outlook(&plan(&shot)).parts[lamp].ghost;
    assert!((ghost.beside.placement().as_stops() - 0.7).abs() < 0.02, "{:?}", ghost.beside.placement());
    assert!(
        luminance_of_streak(&seen(5.6, 400.0, 0.0, 0.0, 1.0), Meter::default())
            .unwrap_err()
            .to_string()
            .contains("at rest")
    );
}

/// The aperture of a group turns the shutter too: what that spoils is said before it is taken.
#[test]
fn what_a_group_costs_the_picture_is_said_with_it() {
    let alone = [GroupShape { people: 1, rows: 1, row_gap_m: 0.8, curve_m: 0.0 }];
    for shot in examples() {
        let before = plan(&shot);
        let answer = groups(&before, &alone).unwrap().remove(0);
        let after = turned(&shot, &answer.changes);
        let missed =
            |plan: &Plan| conditions::all(plan, &outlook(plan)).into_iter().filter(|one| !one.is_met()).count();
        assert!(answer.spoils.is_some() || missed(&after) <= missed(&before), "{}: {:?}", shot.title, answer.spoils);
    }
}

#[test]
fn a_group_gets_the_widest_aperture_that_holds_it_and_the_lights_pay() {
    let shot = examples().remove(6);
    let before = plan(&shot);
    let shape = |people, rows, row_gap_m, curve_m| GroupShape { people, rows, row_gap_m, curve_m };
    // Fourteen in two rows, 0.8 m apart, curved by 0.6 m: 0.3 + 0.8 + 0.6 deep, seven shoulders wide.
    let answers = groups(&before, &[shape(1, 1, 0.8, 0.0), shape(14, 2, 0.8, 0.6)]).unwrap();
    let many = &answers[1];
    assert!((many.depth_m - 1.7).abs() < 1e-9 && (many.width_m - 7.0 * 0.55).abs() < 1e-9);
    assert!(!many.fits && many.fits_from_m > 8.0 && answers[0].fits);
    // They are seen from farther back, which is said before it is taken.
    let back = many.back_m.expect("the camera steps back");
    assert!(
        many.fits_from_m <= 8.0 + back + 1e-9 && many.changes.iter().any(|one| one.pointer == "/subject/distance_m")
    );
    for (answer, half) in answers.iter().zip([0.15, 0.85]).filter(|(answer, _)| answer.not.is_none()) {
        let after = turned(&shot, &answer.changes);
        let holds = |aperture| {
            let zone = depth(after.body.focal, aperture, after.subject_distance, outlook(&after).allowed);
            let half = Metres::from_metres(half);
            zone.near <= after.subject_distance - half
                && zone.far.is_none_or(|far| far >= after.subject_distance + half)
        };
        assert!(holds(after.settings.aperture));
        let wider = strips::apertures(&after.body).take_while(|one| *one < after.settings.aperture).last();
        // No stop more than it takes, or than the lights can go down by.
        let lowest = after
            .lights
            .iter()
            .zip((0..).map(|light| after.settings.lights[light].power))
            .any(|(light, power)| (power.log2() + light.unit.lowest.as_stops()).abs() < 0.5);
        let slowest = after.settings.shutter.time() <= outlook(&after).key().usable_sync.unwrap().time() * 1.3;
        assert!(wider.is_none_or(|wider| !holds(wider)) || lowest || slowest, "{answer:?}");
        // Flash and steady light stay, and what becomes of each is said.
        let (now, was) = (outlook(&after), outlook(&before));
        assert!((now.ambient.placement - was.ambient.placement).as_stops().abs() <= 0.17 + 1e-6, "{answer:?}");
        assert_eq!(answer.becomes.len(), before.lights.len() + 1, "{:?}", answer.becomes);
        for (now, was) in outlook(&after).lights.iter().zip(&outlook(&before).lights) {
            assert!((now.in_frame.placement - was.in_frame.placement).as_stops().abs() <= 0.17 + 1e-6, "{answer:?}");
        }
    }
    let crowded = groups(&before, &[shape(2, 3, 0.8, 0.0)]).unwrap_err();
    assert!(crowded.to_string().contains("only 2 people"));
    let deep = groups(&before, &[shape(200, 20, 2.0, 0.0)]).unwrap();
    assert!(deep[0].aperture.is_none() && deep[0].not.is_some());
}

#[test]
fn white_clothes_after_dark_ones_turn_the_bias() {
    let tone = |reflectance, share| Tone { name: "tone".to_owned(), share, reflectance, relative_distance: 1.0 };
    // Clothes on half of the frame, a wall of 0.1 behind: (0.2·0.5 + 0.1·0.5) = 0.15 against (0.8·0.5 + 0.05) = 0.45.
    let answer = biases(&[tone(0.2, 0.5), tone(0.1, 0.5)], &[tone(0.8, 0.5), tone(0.1, 0.5)]).unwrap();
    assert!((answer.bias_stops - (0.15f64 / 0.18).log2()).abs() < 1e-9);
    assert!((answer.change_stops.unwrap() - 3f64.log2()).abs() < 1e-9);
    assert!(biases(&[tone(1.2, 0.5)], &[]).unwrap_err().to_string().contains("tones[0].reflectance"));
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 96, ..ProptestConfig::default() })]

    /// Whatever is wished on whatever shot: an answer with numbers in it, or a refusal that names a field.
    #[test]
    fn any_wish_is_answered_or_refused_and_never_by_nothing(
        which in 0..8usize, part in 0..7usize, share in -0.5..2.0f64, stops in -14.0..14.0f64, lux in 0.0..50_000.0f64,
        speed in 0.0..40.0f64,
    ) {
        let mut shot = examples().remove(which);
        shot.ambient.subject = Reading::Lux { lux };
        shot.parts[0].speed_m_s = speed;
        let before = plan(&shot);
        match roads(&before, &DragWish { part, share, ambient_stops: stops }) {
            Err(refusal) => {
                let field = refusal.field().to_owned();
                prop_assert!(["part", "share", "ambient_stops"].contains(&field.as_str()), "{}", refusal);
            }
            Ok(answer) => {
                let told = format!("{answer:?}");
                prop_assert!(!told.contains("NaN") && !told.contains("inf,") && !told.contains("inf)"), "{}", told);
                prop_assert!(answer.streak_s > 0.0 && answer.roads.len() == 3);
                for road in &answer.roads {
                    // Each way turns its own control, the shutter and the flash, and nothing else.
                    for change in &road.changes {
                        let own = match road.by {
                            pebble_core::hold::Held::Filter => "/camera/filter_stops",
                            pebble_core::hold::Held::Aperture => "/camera/aperture_f",
                            _ => "/camera/iso",
                        };
                        let allowed = change.pointer == own
                            || change.pointer == "/camera/shutter"
                            || change.pointer.ends_with("/power");
                        prop_assert!(allowed, "{:?} turns {}", road.by, change.pointer);
                    }
                    // What it says it does is what comes of it.
                    let after = outlook(&turned(&shot, &road.changes));
                    let told = road.ambient_stops.unwrap_or(f64::NEG_INFINITY);
                    let is = after.ambient.placement.as_stops();
                    prop_assert!(told == is || (told - is).abs() < 1e-9, "{} for {}", told, is);
                }
            }
        }
    }

    /// More people, more rows or more curve never take a wider aperture.
    #[test]
    fn a_larger_group_never_takes_a_wider_aperture(
        which in 0..8usize, people in 1..40u32, rows in 1..6u32, gap in 0.3..2.0f64, curve in 0.0..2.0f64,
    ) {
        let before = plan(&examples().remove(which));
        let rows = rows.min(people);
        let shape = |rows, curve_m| GroupShape { people, rows, row_gap_m: gap, curve_m };
        let shapes = [shape(rows, curve), shape((rows + 1).min(people), curve), shape(rows, curve + 0.5)];
        let answers = groups(&before, &shapes).unwrap();
        let number = |index: usize| -> f64 {
            answers[index].aperture.as_ref().map_or(f64::INFINITY, |label| label.parse().unwrap())
        };
        prop_assert!(number(1) >= number(0) && number(2) >= number(0), "{:?}", answers);
        prop_assert!(answers.iter().all(|one| one.aperture.is_some() || one.not.is_some()));
        prop_assert!(answers.iter().all(|one| one.fits == (one.fits_from_m <= before.subject_distance.as_metres())));
    }
}
