//! Matching for whole shots and whole jobs: units handed out once, the smallest set; and questions that cannot be answered.

use crate::common::{examples, plan, shot};
use pebble_core::gear::{FlashUnit, Kit};
use pebble_core::matching::{
    Brief, Going, Priority, Stock, Wish, applied, chain, find, marks, nearest, rows, whole_job, whole_shot, why_not,
};
use pebble_core::quantity::Seconds;
use pebble_core::shot::Shot;
use pebble_core::{Invalid, Plan, outlook};

fn kit() -> Kit {
    serde_json::from_str(include_str!("../../../../docs/examples/kit.json")).expect("the kit is a kit")
}

fn of(ids: &[(&str, u32)]) -> Stock {
    let mut kit = kit();
    kit.units.retain(|unit| ids.iter().any(|(id, _)| unit.id == *id));
    for unit in &mut kit.units {
        unit.owned = ids.iter().find(|(id, _)| unit.id == *id).map(|(_, count)| *count);
    }
    Stock::of_kit(&kit).expect("the kit can be")
}

fn crews(shot: &Shot, stock: &Stock) -> Vec<pebble_core::matching::Crew> {
    let plan = plan(shot);
    let brief = Brief::new(shot, &plan).expect("the wish can be");
    whole_shot(&brief, stock, Priority::Balanced, &Going::default()).expect("nobody stopped it")
}

#[test]
fn no_unit_is_handed_out_twice_and_every_light_falls_where_it_did() {
    let stock = Stock::of_kit(&kit()).unwrap();
    let mut several = 0;
    for shot in examples() {
        let plan_now = plan(&shot);
        let before = outlook(&plan_now);
        let key_wanted = Brief::new(&shot, &plan_now).unwrap().key_wanted;
        for crew in crews(&shot, &stock).iter().take(8) {
            for (unit, offered) in stock.units.iter().enumerate() {
                let used: u32 = crew.units.iter().filter(|(taken, _)| *taken == unit).map(|(_, heads)| heads).sum();
                assert!(used <= offered.owned, "{}: {used} of {}", shot.title, offered.wire.name);
            }
            let there = applied(&shot, &stock, &crew.setup).expect("a crew can be set");
            let plan_then = plan(&there);
            let seen = outlook(&plan_then);
            let key = before.key().in_frame.placement;
            for (index, light) in seen.firing() {
                let wanted = key_wanted + (before.lights[index].in_frame.placement - key);
                let off = (light.in_frame.placement - wanted).as_stops();
                assert!(off.abs() < 1.0 / 6.0 + 1e-6, "{}: light {index} is off by {off}", shot.title);
                assert_eq!(light.rows.touched, 0.0, "{}: light {index} is cut", shot.title);
            }
            for (index, light) in there.lights.iter().enumerate() {
                let was = &shot.lights[index];
                assert_eq!((&light.group, light.channel, light.role), (&was.group, was.channel, was.role));
            }
            several += usize::from(crew.units.len() > 1);
        }
    }
    assert!(several >= 10, "only {several} crews of several lights were looked at");
}

#[test]
fn the_light_that_must_freeze_gets_the_short_pulse() {
    let stock = Stock::of_kit(&kit()).unwrap();
    let sabre = examples().into_iter().find(|shot| shot.title.contains("Sabre")).unwrap();
    let best = &crews(&sabre, &stock)[0];
    let there = plan(&applied(&sabre, &stock, &best.setup).unwrap());
    let seen = outlook(&there);
    // Lights that draw none of what moves may be slower; none that freezes it is left to be the slowest of them all.
    let slowest = seen.lights.iter().filter_map(|light| light.freeze).fold(Seconds::ZERO, Seconds::max);
    assert!(seen.key().freeze.expect("it fires") < slowest, "{best:?}");
}

#[test]
fn stands_and_weight_bound_the_whole_set() {
    let stock = Stock::of_kit(&kit()).unwrap();
    let sabre = examples().into_iter().find(|shot| shot.title.contains("Sabre")).unwrap();
    let asked = |wish: Wish| crews(&Shot { wish: Some(wish), ..sabre.clone() }, &stock);
    assert!(asked(Wish { stands: Some(3), ..Wish::default() }).is_empty(), "four lights on three stands");
    let light = asked(Wish { weight_kg: Some(7.5), ..Wish::default() });
    let heavy = asked(Wish { weight_kg: Some(30.0), ..Wish::default() });
    assert!(!light.is_empty() && light.len() < heavy.len());
    let kilos = |crew: &pebble_core::matching::Crew| -> f64 {
        let one = |(set, (unit, heads)): (&pebble_core::matching::SetLight, &(usize, u32))| {
            let modifier = sabre.lights[set.light].modifier.mass_kg.unwrap_or(0.0);
            f64::from(*heads) * (stock.units[*unit].wire.mass_kg.unwrap() + modifier)
        };
        crew.setup.lights.iter().zip(&crew.units).map(one).sum()
    };
    assert!(light.iter().all(|crew| kilos(crew) <= 7.5 + 1e-9));
}

#[test]
fn the_best_crew_of_a_kit_is_the_best_of_all_pairs_in_it() {
    let ids = ["brix-400", "tern-76", "sedge-250", "siskin-200", "mallow-600", "dunlin-500"];
    let silks = examples().into_iter().find(|shot| shot.title.contains("Silks")).unwrap();
    assert_eq!(silks.lights.len(), 2);
    let alone = |ids: &[(&str, u32)]| {
        let shot = Shot { wish: Some(Wish { heads: Some(1), ..Wish::default() }), ..silks.clone() };
        crews(&shot, &of(ids)).first().map(|crew| crew.cost)
    };
    let whole = alone(&ids.map(|id| (id, 2))).expect("the kit can");
    let mut best = f64::INFINITY;
    for (index, one) in ids.iter().enumerate() {
        best = best.min(alone(&[(*one, 2)]).unwrap_or(f64::INFINITY));
        for other in &ids[index + 1..] {
            best = best.min(alone(&[(*one, 1), (*other, 1)]).unwrap_or(f64::INFINITY));
        }
    }
    assert!((whole - best).abs() < 1e-9, "{whole} of the kit, {best} of its pairs");
}

#[test]
fn more_shots_take_no_fewer_units_and_borrowed_ones_count() {
    let stock = Stock::of_kit(&kit()).unwrap();
    let shots = examples();
    let units = |shots: &[Shot]| whole_job(shots, &stock, &Going::default()).unwrap().unwrap();
    let mut before = 0;
    for count in 1..=shots.len() {
        let job = units(&shots[..count]);
        assert!(job.units >= before && job.shots.len() == count);
        before = job.units;
        // What is taken is enough for every shot that can be done, and is owned.
        for one in &job.take {
            let owned = stock.units[stock.unit(&one.unit).unwrap()].owned;
            assert!(one.count <= owned, "{} of {owned} {}", one.count, one.name);
        }
        for shot in job.shots.iter().filter(|shot| shot.can) {
            for one in &shot.with {
                assert!(job.take.iter().any(|taken| taken.unit == one.unit && taken.count >= one.count));
            }
            // And it is told how they do it: the shot so set has them and no others, and its forecast that many troubles.
            let set = shot.set.as_ref().expect("what can be done is shown");
            let place = job.shots.iter().position(|other| std::ptr::eq(other, shot)).unwrap();
            let there = pebble_core::matching::applied(&shots[place], &stock, &set.setup).unwrap();
            for light in &set.setup.lights {
                assert!(shot.with.iter().any(|one| one.unit == there.lights[light.light].unit.id), "{}", shot.title);
            }
            let plan = crate::common::plan(&there);
            assert_eq!(set.troubles, pebble_core::findings::count(&plan, &pebble_core::outlook(&plan)).0);
        }
    }
    // As if two more were borrowed.
    let few = of(&[("brix-400", 1)]);
    let borrowed = pebble_core::matching::Borrowed { unit: "brix-400".to_owned(), count: 2 };
    let with = Shot { wish: Some(Wish { borrowed: vec![borrowed], ..Wish::default() }), ..shot() };
    assert!(crews(&shot(), &few).is_empty() && !crews(&with, &few).is_empty());
}

#[test]
fn no_smaller_set_of_units_does_the_job() {
    let ids = ["brix-400", "tern-76", "sedge-250", "siskin-200"];
    let shots: Vec<Shot> = examples().into_iter().filter(|shot| shot.lights.len() <= 4).collect();
    let stock = of(&ids.map(|id| (id, 2)));
    let job = whole_job(&shots, &stock, &Going::default()).unwrap().expect("nobody stopped it");
    assert!(job.proven && job.shots.iter().filter(|shot| shot.can).count() >= 3);
    let can: Vec<&Shot> = shots.iter().zip(&job.shots).filter(|(_, done)| done.can).map(|(shot, _)| shot).collect();
    // Every set with fewer units leaves some shot undone; the set itself none.
    for counts in (0..81_u32).map(|code| [code % 3, code / 3 % 3, code / 9 % 3, code / 27]) {
        let taken: Vec<(&str, u32)> = ids.into_iter().zip(counts).filter(|(_, count)| *count > 0).collect();
        let own = counts == ids.map(|id| job.take.iter().find(|one| one.unit == id).map_or(0, |one| one.count));
        if counts.iter().sum::<u32>() >= job.units && !own {
            continue;
        }
        let all = !taken.is_empty() && can.iter().all(|shot| !crews(shot, &of(&taken)).is_empty());
        assert_eq!(all, own, "{taken:?}");
    }
}

#[test]
fn what_is_missing_is_named_for_hire() {
    // One head where the ropes ask for two: one more of the same would do.
    let job = |stock: &Stock| whole_job(&[shot()], stock, &Going::default()).unwrap().unwrap();
    let short = job(&of(&[("brix-400", 1)]));
    assert!(!short.shots[0].can && short.hire[0].unit == "brix-400" && short.hire[0].count == 1, "{short:?}");
    assert!(why_not(&short.shots[0]).unwrap().contains("Brix 400"));
    // With the hired ones it can.
    assert!(job(&of(&[("brix-400", 2)])).shots[0].can);
    // No number of these does: what would is said in the figures of a leaflet.
    let none = job(&of(&[("lark-1200", 1)]));
    let note = none.shots[0].note.clone().unwrap();
    assert!(none.hire.is_empty() && note.contains("guide number") && note.contains("t0.1"), "{note}");
}

// --- questions that cannot be answered --------------------------------------------------------------------------

fn refused(wish: Wish) -> Invalid {
    let shot = Shot { wish: Some(wish), ..shot() };
    pebble_core::Plan::try_from(&shot).expect_err("it is refused")
}

#[test]
fn bounds_that_contradict_each_other_are_named() {
    let no = Wish::default;
    let between = |low, high| Some(pebble_core::matching::Between { low_stops: Some(low), high_stops: Some(high) });
    let cases = [
        (Wish { iso_min: Some(800.0), iso_max: Some(100.0), ..no() }, "wish.iso_min", "no ISO between"),
        (
            Wish { slowest: Some("1/500".into()), fastest: Some("1/60".into()), ..no() },
            "wish.slowest",
            "no time between",
        ),
        (Wish { nearest_m: Some(4.0), farthest_m: Some(2.0), ..no() }, "wish.nearest_m", "no place between"),
        (Wish { ambient: between(1.0, -1.0), ..no() }, "wish.ambient.low_stops", "nothing between"),
        (Wish { nearest_m: Some(0.0), ..no() }, "wish.nearest_m", "0.05"),
        (Wish { frames: Some(0), ..no() }, "wish.frames", "between 1"),
        (Wish { frames_per_second: Some(f64::NAN), ..no() }, "wish.frames_per_second", "NaN"),
        (Wish { heads: Some(0), ..no() }, "wish.heads", "between 1"),
        (Wish { weight_kg: Some(-1.0), ..no() }, "wish.weight_kg", "between 0"),
        (Wish { fastest: Some("soon".into()), ..no() }, "wish.fastest", "soon"),
    ];
    for (wish, field, words) in cases {
        let refusal = refused(wish);
        assert_eq!(refusal.field(), field);
        assert!(refusal.to_string().contains(words), "{refusal}");
    }
}

#[test]
fn an_empty_kit_gets_a_plain_answer() {
    let empty = [Stock::default(), {
        let mut kit = kit();
        kit.retired = kit.units.iter().map(|unit| unit.id.clone()).collect();
        Stock::of_kit(&kit).unwrap()
    }];
    for stock in empty {
        let shot = shot();
        let plan = plan(&shot);
        let mut brief = Brief::new(&shot, &plan).unwrap();
        assert_eq!(find(&brief, &stock, Priority::Balanced, &Going::default()), Some(Vec::new()));
        assert_eq!(nearest(&mut brief, &stock, &Going::default()), Some(Vec::new()));
        assert!(marks(&brief, &stock).trails.is_empty());
        assert!(crews(&shot, &stock).is_empty());
        let job = whole_job(std::slice::from_ref(&shot), &stock, &Going::default()).unwrap().unwrap();
        assert!(!job.shots[0].can && job.take.is_empty());
    }
}

#[test]
fn a_search_that_is_stopped_ends_without_an_answer() {
    let many: Vec<FlashUnit> = (0..10_000)
        .map(|number| FlashUnit { id: format!("unit-{number}"), ..kit().units[number % 3].clone() })
        .collect();
    let stock = Stock::of(&many, &kit().modifiers, &[]).unwrap();
    let shot = Shot { wish: Some(Wish { any_modifier: Some(true), ..Wish::default() }), ..examples()[1].clone() };
    let plan = plan(&shot);
    let brief = Brief::new(&shot, &plan).unwrap();
    let going = Going::default();
    std::thread::scope(|scope| {
        let search = scope.spawn(|| find(&brief, &stock, Priority::Balanced, &going));
        while going.progress().0 == 0 && !search.is_finished() {
            std::thread::yield_now();
        }
        going.stop();
        let answer = search.join().unwrap();
        let (done, of) = going.progress();
        assert!(answer.is_none() && of == 10_000, "{done} of {of}");
    });
}

// --- the map and the chain --------------------------------------------------------------------------------------

#[test]
fn a_mark_works_where_its_power_is_among_the_set_ups_and_says_why_where_it_is_not() {
    let stock = Stock::of_kit(&kit()).unwrap();
    for shot in examples() {
        let shot = Shot { wish: Some(Wish { heads: Some(1), ..Wish::default() }), ..shot };
        let plan = plan(&shot);
        let brief = Brief::new(&shot, &plan).unwrap();
        let map = marks(&brief, &stock);
        for (trail, offered) in map.trails.iter().zip(&stock.units) {
            assert_eq!(trail.marks.len(), offered.unit.powers().count());
            assert!(trail.marks.iter().all(|mark| mark.works == mark.fails.is_none()));
            let alone = FlashUnit { owned: Some(offered.owned), ..offered.wire.clone() };
            let alone = Stock::of(&[alone], &[], &[]).unwrap();
            let found = find(&brief, &alone, Priority::Balanced, &Going::default()).unwrap();
            let works = |power: f64| trail.marks.iter().any(|mark| mark.power == power && mark.works);
            let pulsing = found.iter().filter(|one| !one.glow);
            assert!(pulsing.clone().all(|one| works(one.power)), "{}: {}", shot.title, trail.name);
            let any = trail.marks.iter().any(|mark| mark.works);
            assert_eq!(any, pulsing.count() > 0, "{}: {}", shot.title, trail.name);
            if let Some(limit) = map.freeze_limit_s {
                assert!(trail.marks.iter().all(|mark| !mark.works || mark.freeze_s <= limit * (1.0 + 1e-9)));
            }
        }
    }
}

#[test]
fn the_chain_ends_where_the_forecast_does() {
    let shot = shot();
    let seen = outlook(&Plan::try_from(&shot).unwrap());
    let chains = chain(&shot, &[0]).unwrap();
    let step = |title: &str| &chains[0].steps.iter().find(|step| step.title == title).unwrap().result;
    assert_eq!(chains.len(), 1);
    let falls = format!("{:+.2} stops", seen.key().in_frame.placement.as_stops()).replace('-', "−");
    assert_eq!(*step("Where it falls"), falls);
    let blur = seen.parts[1].flash_blur / plan(&shot).body.sensor.pitch();
    assert!(step("How far it moves meanwhile").starts_with(&format!("{blur:.1} px")));
    for step in &chains[0].steps {
        let page = format!("{}/../../docs/model/{}.md", env!("CARGO_MANIFEST_DIR"), step.page);
        assert!(std::path::Path::new(&page).exists(), "{page}");
    }
}

#[test]
fn the_cases_hold_everything_that_stands_in_some_shot() {
    let stock = Stock::of_kit(&kit()).unwrap();
    let shots = examples();
    let job = whole_job(&shots, &stock, &Going::default()).unwrap().unwrap();
    let done: Vec<&Shot> = shots.iter().zip(&job.shots).filter(|(_, of)| of.can).map(|(shot, _)| shot).collect();
    assert!(done.len() > 3);
    let packed = |name: &str| job.pack.iter().filter(|line| line.name == name).map(|line| line.count).sum::<u32>();
    for shot in &done {
        for light in shot.lights.iter().filter(|light| light.on && light.modifier.id != "none") {
            let here = shot.lights.iter().filter(|one| one.on && one.modifier.id == light.modifier.id);
            assert!(packed(&light.modifier.name) >= here.map(|one| one.heads).sum(), "{}", light.modifier.name);
        }
        assert!(packed(&shot.camera.body.name) >= 1 && packed(&shot.camera.lens.name) >= 1);
        let standing = shot.lights.iter().filter(|light| light.on).map(|light| light.heads).sum::<u32>();
        assert!(packed("Stands") >= standing);
        assert!(shot.lamps.iter().filter(|lamp| lamp.on).all(|lamp| packed(&lamp.lamp.name) >= 1));
    }
    for unit in &job.take {
        assert_eq!(packed(&unit.name), unit.count);
        let battery = stock.units.iter().find(|one| one.wire.id == unit.unit).unwrap().wire.battery.as_ref();
        assert!(battery.is_none_or(|battery| packed(&battery.name) >= unit.count));
    }
    let weighed: f64 = job.pack.iter().filter_map(|line| line.mass_kg).sum();
    assert!((weighed - job.pack_kg).abs() < 1e-9 && job.pack_kg > job.mass_kg.unwrap_or(0.0));
    assert_eq!(
        job.unweighed,
        job.pack.iter().filter(|line| line.mass_kg.is_none()).map(|line| line.count).sum::<u32>()
    );
}

#[test]
fn the_key_gets_what_the_other_lights_leave_and_the_whole_shot_is_looked_at() {
    let mut looked = 0;
    for shot in examples().into_iter().filter(|shot| shot.lights.len() > 1) {
        let plan_now = plan(&shot);
        let others: Vec<&str> = shot
            .lights
            .iter()
            .enumerate()
            .filter(|(index, light)| *index != plan_now.key && light.on)
            .map(|(_, light)| light.unit.id.as_str())
            .collect();
        let mut kit = kit();
        for unit in &mut kit.units {
            let elsewhere = others.iter().filter(|id| **id == unit.id).count() as u32;
            unit.owned = Some(elsewhere + u32::from(unit.id == "brix-400"));
        }
        kit.units.retain(|unit| unit.owned != Some(0));
        let stock = Stock::of_kit(&kit).unwrap();
        let brief = Brief::new(&shot, &plan_now).unwrap();
        let found = find(&brief, &stock, Priority::Balanced, &Going::default()).unwrap();
        for row in rows(&brief, &stock, &found) {
            assert!(
                row.setup.lights.iter().all(|set| set.unit == "brix-400"),
                "{}: {} is all in use",
                shot.title,
                row.title
            );
            let there = plan(&applied(&shot, &stock, &row.setup).unwrap());
            let counted = pebble_core::findings::count(&there, &outlook(&there));
            assert_eq!((row.troubles, row.watches), counted, "{}", shot.title);
            looked += 1;
        }
    }
    assert!(looked > 3, "{looked} set-ups were looked at");
}
