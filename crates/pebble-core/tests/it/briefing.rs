//! From a few words to a shot: every activity opens out of trouble with the demo kit, what is left out is said to be a
//! guess, and how much a guess moves is what the forecast itself says.

use pebble_core::activities::{ALL, Activity, SPOKEN, typical};
use pebble_core::briefing::{AnsweredPart, Answers, Briefed, Guessed, LitBy, NoShot, briefed};
use pebble_core::file::movement::Chances;
use pebble_core::file::stage::Place;
use pebble_core::gear::Kit;
use pebble_core::matching::{Going, Stock};
use pebble_core::shot::{Intent, Reading, Shot};
use pebble_core::speeds::{InFrame, SaidWhere, speed};
use pebble_core::{Plan, findings, guesses, outlook};
use std::collections::HashSet;
use std::sync::LazyLock;

static KIT: LazyLock<Kit> =
    LazyLock::new(|| serde_json::from_str(include_str!("../../../../docs/examples/kit.json")).expect("a kit"));
static STOCK: LazyLock<Stock> = LazyLock::new(|| Stock::of_kit(&KIT).expect("a stock"));
static BASIS: LazyLock<Shot> = LazyLock::new(|| {
    serde_json::from_str(include_str!("../../../../docs/examples/card-on-a-wall.json")).expect("a shot")
});

fn of(activity: &str) -> Answers {
    serde_json::from_value(serde_json::json!({ "activity": activity })).expect("answers")
}

fn with_kit(answers: &Answers, kit: &Kit) -> Result<Briefed, NoShot> {
    let stock = Stock::of_kit(kit).expect("a stock");
    briefed(answers, (kit, &stock), &BASIS, &Going::default()).map(|found| found.expect("nobody stopped it"))
}

fn brief(answers: &Answers) -> Briefed {
    briefed(answers, (&KIT, &STOCK), &BASIS, &Going::default()).expect("answers that can be").expect("not stopped")
}

#[test]
fn every_activity_opens_out_of_trouble_with_the_demo_kit() {
    for activity in ALL {
        let found = brief(&of(activity.id));
        let plan = Plan::try_from(&found.shot).expect("a shot that can be");
        let (troubles, _) = findings::count(&plan, &outlook(&plan));
        assert_eq!((troubles, found.troubles), (0, 0), "{}", activity.id);
        assert!(matches!(found.lit.by, LitBy::Flash | LitBy::Daylight), "{}: {:?}", activity.id, found.lit);
        assert!(
            (-0.5..=0.5).contains(&outlook(&plan).subject.read_by(plan.targets.reads).as_stops()),
            "{}",
            activity.id
        );
        assert_eq!(found.shot.activity.as_deref(), Some(activity.id));
        // What streaks is seen to, and what is still is; no answer was given, so all of them are guesses.
        assert!(found.answers.iter().all(|answer| answer.guess), "{}", activity.id);
        assert!(found.answers.iter().filter(|answer| answer.most).count() <= 1);
    }
}

#[test]
fn the_table_of_activities_has_a_range_and_a_basis_for_every_part() {
    let ids: HashSet<&str> = ALL.iter().map(|activity| activity.id).collect();
    assert!(ids.len() == ALL.len() && ALL.len() >= 40);
    for activity in ALL {
        assert!((2..=4).contains(&activity.parts.len()), "{}", activity.id);
        let names: HashSet<&str> = activity.parts.iter().map(|part| part.name).collect();
        assert_eq!(names.len(), activity.parts.len(), "{}", activity.id);
        for part in activity.parts {
            let (slow, fast) = part.speed_m_s;
            assert!(slow >= 0.0 && slow < fast && fast <= 60.0, "{} {}", activity.id, part.name);
            assert!(part.basis.len() > 6 && part.basis.len() < 120, "{} {}", activity.id, part.name);
        }
        // The parts stand in the frame: every one that the stage knows has rows of its own.
        let found = brief(&of(activity.id));
        let plan = Plan::try_from(&found.shot).expect("a shot");
        let first = plan.part_rows.first().expect("a part");
        assert!(first.0 >= 0.0 && first.1 <= 1.0 && first.0 < first.1, "{}: {first:?}", activity.id);
    }
    for spoken in SPOKEN {
        assert!(spoken.speed_m_s.0 < spoken.speed_m_s.1, "{}", spoken.word);
        let found = speed(spoken.word, SaidWhere::default()).expect("its own words are understood");
        assert_eq!((found.slowest_m_s, found.fastest_m_s), spoken.speed_m_s);
    }
}

#[test]
fn what_is_said_is_taken_and_is_no_guess_any_more() {
    let answers = Answers {
        place: Some(Place::BrightHall),
        meter: Some("f/2.8 1/125 ISO 800".to_owned()),
        usage: Some(pebble_core::motion::Usage::Web),
        camera: Some("grebe-8".to_owned()),
        units: vec!["brix-400".to_owned()],
        chances: Some(Chances::One),
        parts: vec![
            AnsweredPart { name: "Face".to_owned(), intent: None, speed: Some("jump 40 cm".to_owned()) },
            AnsweredPart { name: "Rope".to_owned(), intent: Some(Intent::Skim), speed: None },
        ],
        ..of("rope_jump")
    };
    let found = brief(&answers);
    let guessed: Vec<Guessed> = found.answers.iter().filter(|one| one.guess).map(|one| one.of).collect();
    assert_eq!(guessed, [Guessed::Speeds], "the shoes and the rope were not said");
    assert_eq!(found.shot.camera.body.id, "grebe-8");
    assert_eq!(found.shot.lights[0].unit.id, "brix-400");
    assert!(found.shot.ambient.typical.is_none());
    assert!(matches!(found.shot.ambient.subject, Reading::Exposure { aperture_f: 2.8, .. }));
    // √(2·9.80665·0.4), computed by hand.
    assert!((found.shot.parts[0].speed_m_s - 2.801).abs() < 1e-3, "{}", found.shot.parts[0].speed_m_s);
    assert_eq!(found.shot.parts[2].intent, Intent::Skim);
    assert!(found.shot.burst.is_some(), "one chance is not left to one frame");
}

#[test]
fn a_guess_moves_what_the_forecast_says_it_moves() {
    for id in ["rope_jump", "double_ropes", "ribbon", "first_dance", "running"] {
        let found = brief(&of(id));
        let plan = Plan::try_from(&found.shot).expect("a shot");
        let Some(moved) = guesses::of_light(&plan) else { panic!("{id}: the light was not read") };
        let (least, ev, most) = typical(found.place).ev100;
        // By finite differences: a small step of the reading itself, in the file, and from there to the whole range.
        let at = |ev: f64| {
            let mut shot = found.shot.clone();
            (shot.ambient.subject, shot.ambient.background) = (Reading::Ev100 { ev }, Reading::Ev100 { ev });
            let plan = Plan::try_from(&shot).expect("a shot");
            outlook(&plan)
        };
        let small = 0.01;
        let part = plan.parts.iter().position(|part| moved.what.ends_with(&part.name.to_lowercase()));
        let Some(part) = part.filter(|_| moved.what.contains("streak") || moved.what.contains("trail")) else {
            continue;
        };
        // A part that shines by itself is not moved by the room; of the rest the trail follows the reading.
        let placed = |ev: f64| at(ev).parts[part].tones.part_ambient.placement().as_stops();
        let slope = (placed(ev + small) - placed(ev - small)) / (2.0 * small);
        assert!((moved.stops - slope * (most - least)).abs() < 0.02, "{id}: {moved:?} against {slope} a stop");
    }
}

#[test]
fn a_reading_ends_the_guess_and_the_finding_with_it() {
    let found = brief(&of("rope_jump"));
    let titles = |shot: &Shot| {
        let plan = Plan::try_from(shot).expect("a shot");
        findings::judge(&plan, &outlook(&plan)).into_iter().map(|finding| finding.id).collect::<Vec<_>>()
    };
    assert!(titles(&found.shot).contains(&"light-guessed".to_owned()));
    let mut read = found.shot.clone();
    read.ambient.subject = Reading::Exposure { aperture_f: 2.8, shutter: "1/60".to_owned(), iso: 1600.0 };
    assert!(!titles(&read).contains(&"light-guessed".to_owned()));
}

#[test]
fn what_the_kit_lacks_is_said() {
    // No unit at all, and one that is far too small for a crowd in a bright tent at noon.
    let empty = Kit::of([], Vec::new());
    let nothing = with_kit(&of("kick"), &empty).expect("answers that can be");
    assert!(nothing.lit.by == LitBy::Nothing && nothing.lit.gives[0].contains("no flash unit"), "{:?}", nothing.lit);
    let mut small = KIT.clone();
    small.units.retain(|unit| unit.id == "wren-24");
    small.units[0].owned = Some(1);
    // What the kit can do and is in trouble for another reason says that reason.
    for (id, ev) in [("ribbon", "EV 13"), ("lantern", "EV 12"), ("double_ropes", "EV 14")] {
        let found = brief(&Answers { meter: Some(ev.to_owned()), ..of(id) });
        assert_eq!(found.lit.by == LitBy::Nearest, found.troubles > 0, "{id}: {:?}", found.lit);
        assert_eq!(found.lit.gives.is_empty(), found.troubles == 0, "{id}: {:?}", found.lit);
    }
    let answers = Answers { meter: Some("EV 13".to_owned()), ..of("double_ropes") };
    let lacking = with_kit(&answers, &small).expect("answers that can be");
    assert!(matches!(lacking.lit.by, LitBy::Nearest | LitBy::Nothing), "{:?}", lacking.lit);
    assert!(!lacking.lit.gives.is_empty() && lacking.lit.gives.iter().all(|give| give.len() > 8), "{:?}", lacking.lit);
}

#[test]
fn answers_that_cannot_be_are_refused_in_a_sentence() {
    let refused = |answers: Answers| {
        let error = briefed(&answers, (&KIT, &STOCK), &BASIS, &Going::default()).expect_err("it cannot be");
        (error.field().to_owned(), error.to_string())
    };
    let part = |name: &str, speed: &str| Answers {
        parts: vec![AnsweredPart { name: name.to_owned(), intent: None, speed: Some(speed.to_owned()) }],
        ..of("kick")
    };
    let cases = [
        (of("moonball"), "activity", "no activity that this version knows"),
        (part("Tail", "8 m/s"), "parts", "has no part “Tail”: it has face, hands, foot"),
        (part("Foot", "fast"), "parts", "“fast” says no speed"),
        (part("Foot", "400 m/s"), "parts", "nothing that people do is faster than 100 m/s"),
        (Answers { meter: Some("dark".to_owned()), ..of("kick") }, "meter", "“dark” is no reading"),
        (Answers { meter: Some("5.6".to_owned()), ..of("kick") }, "meter", "is no reading"),
        // A sixtieth, or a minute?
        (Answers { meter: Some("f/2.8 60 ISO 100".to_owned()), ..of("kick") }, "meter", "is no reading"),
        (Answers { meter: Some("f/2.8 f/4 1/60 ISO 100".to_owned()), ..of("kick") }, "meter", "is no reading"),
    ];
    for (answers, field, words) in cases {
        let (of, said) = refused(answers);
        assert_eq!(of, field, "{said}");
        assert!(said.contains(words), "{said}");
    }
    let (field, said) = refused(Answers { meter: Some("EV 99".to_owned()), ..of("kick") });
    assert!(field == "meter" && said.contains("not between -16 and 22 EV"), "{field:?} {said}");
    // In whichever order it is said it is the same light.
    let light = |meter: &str| brief(&Answers { meter: Some(meter.to_owned()), ..of("kick") }).shot.ambient.subject;
    for meter in ["1/60 f/2.8 ISO 1600", "ISO 1600 1/60 f/2.8", "f2.8 · 1/60s · 1600"] {
        assert_eq!(light(meter), light("f/2.8 1/60 ISO 1600"), "{meter}");
    }
    assert_eq!(light("7 EV"), light("EV 7"));
    let (_, said) = refused(Answers { camera: Some("nothing".to_owned()), ..of("kick") });
    assert!(said.contains("camera"), "{said}");
}

/// How fast, from what people know; metres a second by hand.
#[test]
fn speeds_are_said_in_many_ways() {
    let frame = InFrame {
        pixel: pebble_core::quantity::Metres::from_metres(0.0005),
        width: pebble_core::quantity::Metres::from_metres(3.0),
    };
    let at = SaidWhere { frame: Some(frame), in_m_s: false };
    let cases = [
        ("4 m/s", (4.0, 4.0)),
        ("8–10 m/s", (8.0, 10.0)),
        ("36 to 72 km/h", (10.0, 20.0)),
        ("5:00 /km", (1000.0 / 300.0, 1000.0 / 300.0)),
        ("walk", (1.2, 1.6)),
        ("a sprint", (8.0, 10.0)),
        ("Rope tip", (9.0, 15.0)),
        // √(2·9.80665·h)
        ("jump 50 cm", (3.1316, 3.1316)),
        ("jump of 0.3-0.5 m", (2.4257, 3.1316)),
        ("fall from 2 m", (6.2631, 6.2631)),
        ("drop 1 m", (4.4287, 4.4287)),
        // 2π·r·n
        ("320 rpm @ 0.3 m", (10.0531, 10.0531)),
        ("3 turns a second at 50 cm", (9.4248, 9.4248)),
        ("3-4 turns/s @ 0.5 m", (9.4248, 12.5664)),
        ("100 m in 10 s", (10.0, 10.0)),
        ("1.2 m in 0.3 s", (4.0, 4.0)),
        // From the first to the last of 3 frames two intervals pass, give or take half of one.
        ("1 m in 3 frames at 50 fps", (20.0, 33.3333)),
        // 120 px of 0.5 mm in a sixtieth, which a camera keeps at 2^(−36/6) s.
        ("120 px at 1/60", (3.84, 3.84)),
        ("10 % of the frame at 1/60", (19.2, 19.2)),
        ("30 cm in 1/60", (19.2, 19.2)),
    ];
    for (text, (low, high)) in cases {
        let found = speed(text, at).unwrap_or_else(|why| panic!("{text}: {why}"));
        let near = |a: f64, b: f64| (a - b).abs() < 2e-3 * b;
        assert!(near(found.slowest_m_s, low) && near(found.fastest_m_s, high), "{text}: {found:?}");
        assert!(!found.basis.is_empty());
    }
    for (text, words) in [
        ("fast", "says no speed"),
        ("quite quick", "says no speed"),
        ("120 m/s", "faster than 100 m/s"),
        ("1 m in 1 frame at 50 fps", "in 1 frame no time passes"),
        ("1 m in 0 frames at 50 fps", "no time passes"),
        ("2 turns", "is no figure"),
        ("3 turns at 1 m", "is no figure"),
        ("jump -1 m", "not a distance that can be"),
        ("8 kg", "is a weight"),
        ("", "Nothing stands there"),
        // In the brief no unit stands behind it, and nobody has said of what.
        ("12", "could be 12 m/s or 12 km/h"),
        ("8-10", "could be 8-10 m/s or 8-10 km/h"),
        ("jump 40", "could be 40 cm or 40 m"),
        ("fall from 3", "could be 3 cm or 3 m"),
        ("2 turns a second", "says no radius"),
        ("-2 turns/s @ 0.5 m", "not a rate that can be"),
        ("-120 px at 1/60", "not a distance that can be"),
        ("361 km/h", "is 100.3 m/s"),
    ] {
        let why = speed(text, at).expect_err(text).to_string();
        assert!(why.contains(words), "{text}: {why}");
    }
    // Where the unit stands in the field it is of that.
    let in_m_s = SaidWhere { in_m_s: true, ..at };
    for (text, ends) in [("12", (12.0, 12.0)), ("8–10", (8.0, 10.0)), ("7,5", (7.5, 7.5)), ("0", (0.0, 0.0))] {
        let found = speed(text, in_m_s).unwrap_or_else(|why| panic!("{text}: {why}"));
        assert_eq!((found.slowest_m_s, found.fastest_m_s), ends, "{text}");
    }
    for (text, words) in
        [("-5", "not a speed that can be"), ("200", "faster than 100 m/s"), ("jump 40", "40 cm or 40 m")]
    {
        let why = speed(text, in_m_s).expect_err(text).to_string();
        assert!(why.contains(words), "{text}: {why}");
    }
    let why = speed("120 px at 1/60", SaidWhere::default()).expect_err("no frame").to_string();
    assert!(why.contains("a length in a frame"), "{why}");
    assert!(Activity::by_id("walk").is_some() && Activity::by_id("").is_none());
}

/// Whatever is answered, what is opened is a shot that can be, and says of itself what the forecast says.
#[test]
fn any_answers_make_a_shot_that_says_what_the_forecast_says() {
    for (activity, place, chances) in [
        ("kick", Place::FieldDay, Chances::One),
        ("running", Place::Beach, Chances::Few),
        ("turn", Place::PaperLight, Chances::Many),
        ("group", Place::PaperBlack, Chances::One),
        ("swimming", Place::Track, Chances::Many),
        ("speaker", Place::Tent, Chances::Few),
        ("drops", Place::StreetNight, Chances::Many),
        ("parade", Place::PrintedWall, Chances::One),
    ] {
        for camera in KIT.cameras.iter().map(|camera| camera.id.clone()) {
            let answers =
                Answers { place: Some(place), chances: Some(chances), camera: Some(camera.clone()), ..of(activity) };
            let found = brief(&answers);
            let plan = Plan::try_from(&found.shot).unwrap_or_else(|why| panic!("{activity} {camera}: {why}"));
            let seen = outlook(&plan);
            assert_eq!(findings::count(&plan, &seen), (found.troubles, found.watches), "{activity} {camera}");
            for (told, part) in found.parts.iter().zip(&seen.parts) {
                assert!((told.blur_px - plan.pixels(part.blur)).abs() < 1e-9, "{activity} {camera} {}", told.name);
                assert!(told.slowest_m_s <= told.fastest_m_s);
            }
            // In trouble it says what has to give.
            assert_eq!(found.troubles > 0, !found.lit.gives.is_empty(), "{activity} {camera}: {:?}", found.lit);
            assert_eq!(found.place, place);
            // Nobody stands in the wall or in the lens.
            let behind = found.shot.background.behind_m;
            let stage = found.shot.stage.as_ref().expect("somebody stands there");
            assert!(stage.people.iter().all(|person| person.away_m < behind), "{activity}");
        }
    }
}

#[test]
fn daylight_that_does_it_alone_is_not_fought() {
    let found = brief(&Answers { place: Some(Place::FieldDay), ..of("sprint") });
    assert_eq!(found.lit.by, LitBy::Daylight, "{:?}", found.lit);
    assert!(found.shot.lights.iter().all(|light| !light.on));
    let plan = Plan::try_from(&found.shot).expect("a shot");
    // As short as the fastest part asks for, and rightly exposed by what is there.
    let seen = outlook(&plan);
    assert!(seen.run.time.as_secs() < 1.0 / 1000.0, "{:?}", seen.run.time);
    assert!(seen.ambient.placement.as_stops().abs() < 0.4, "{:?}", seen.ambient.placement);
    // What shall streak in the sun is drawn by flash and grey, not by a short shutter.
    let streaks = brief(&Answers {
        place: Some(Place::FieldDay),
        parts: vec![AnsweredPart { name: "Feet".to_owned(), intent: Some(Intent::Dash), speed: None }],
        ..of("sprint")
    });
    assert_ne!(streaks.lit.by, LitBy::Daylight, "{:?}", streaks.lit);
}
