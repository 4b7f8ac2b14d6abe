//! What is known of a unit and what follows from it: signatures of the ways, output in every form, recordings, refusals.

use pebble_core::gear::{
    Battery, Control, Discharge, FlashUnit, Heat, Item, Kit, Lamp, Lens, Modifier, Origin, Output, Recording, Source,
    TableRow, WhenEarly, WhenHot,
};
use pebble_core::sheet::{Doubt, Sheet, WayWord, line, output, pulse, sheet};
use proptest::prelude::*;
use serde_json::{Value, json};

/// A plain unit of 400 J with a dial of thirds down to 1/128.
fn unit(control: Value) -> FlashUnit {
    serde_json::from_value(json!({
        "id": "plain", "name": "Plain 400",
        "output": { "as": "guide_number", "metres": 60.0 },
        "control": control, "durations_from": "published",
        "step_stops": 1.0 / 3.0, "lowest_stops": 7.0, "lag_ms": 0.0, "high_speed_sync": false,
        "energy_j": 400.0, "recycle_s": 1.0
    }))
    .expect("a unit")
}

fn quenched(decay_ms: f64) -> Value {
    json!({ "way": "quenched", "decay_ms": decay_ms })
}

fn charge_voltage(decay_ms: f64, gamma: f64) -> Value {
    json!({ "way": "charge_voltage", "decay_ms": decay_ms, "gamma": gamma })
}

fn switched(decay_ms: f64, gamma: f64, banks: u32) -> Value {
    json!({ "way": "switched_banks", "decay_ms": decay_ms, "gamma": gamma, "banks": banks })
}

#[test]
fn turned_down_a_train_leaves_pulses_out_and_each_stays_what_it_is() {
    let train = json!({ "way": "train", "decay_ms": 0.05, "period_ms": 2.0, "pulses": 8 });
    let powers = seen(&unit(train.clone())).powers;
    let at = |power: f64| powers.iter().find(|one| (one.power / power - 1.0).abs() < 0.01).expect("on the dial");
    // Eight pulses span seven times their distance, four three times; one is a pulse.
    let one = at(0.125).t01_s;
    assert!(one < 0.2e-3, "{one}");
    for (power, gaps) in [(1.0, 7.0), (0.5, 3.0), (0.25, 1.0)] {
        assert!((at(power).t01_s - gaps * 2e-3 - one).abs() < 1e-6, "at {power}: {}", at(power).t01_s);
        assert!((at(power).t05_s - gaps * 2e-3).abs() < one);
    }
    for (wrong, field) in [
        (json!({ "way": "train", "decay_ms": 1.0, "period_ms": 2.0, "pulses": 8 }), "control.period_ms"),
        (json!({ "way": "train", "decay_ms": 0.05, "period_ms": 2.0, "pulses": 1 }), "control.pulses"),
        (
            json!({ "way": "train", "decay_ms": 0.05, "rise_ms": 0.06, "period_ms": 2.0, "pulses": 4 }),
            "control.rise_ms",
        ),
    ] {
        let refusal = sheet(&unit(wrong), 1.0).expect_err("it is refused");
        assert_eq!(refusal.field(), field, "{refusal}");
    }
}

fn seen(unit: &FlashUnit) -> Sheet {
    sheet(unit, 1.0).unwrap_or_else(|error| panic!("{}: {error}", unit.name))
}

fn recording(power: f64, unit: &FlashUnit, pace: f64) -> Recording {
    let durations = pulse(unit, power).unwrap().durations();
    Recording {
        power,
        t05_ms: durations.t05.as_millis() * pace,
        t01_ms: durations.t01.as_millis() * pace,
        t90_ms: None,
        on: Some("2026-10-11".to_owned()),
        with: None,
        curve: None,
    }
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 64, ..ProptestConfig::default() })]

    #[test]
    fn turned_down_a_quenched_unit_gets_shorter(decay in 0.3..4.0f64) {
        let sheet = seen(&unit(quenched(decay)));
        prop_assert_eq!(sheet.shortest, sheet.powers.len() - 1);
        prop_assert!(sheet.powers.windows(2).all(|pair| pair[1].t01_s <= pair[0].t01_s * (1.0 + 1e-9)));
    }

    #[test]
    fn turned_down_a_charge_voltage_unit_gets_longer(decay in 0.3..4.0f64, gamma in 0.05..0.3f64) {
        let sheet = seen(&unit(charge_voltage(decay, gamma)));
        prop_assert_eq!(sheet.shortest, 0);
        prop_assert!(sheet.powers.windows(2).all(|pair| pair[1].t01_s > pair[0].t01_s));
        prop_assert!(sheet.remarks.iter().any(|said| said.contains("Shortest at full power")));
    }

    #[test]
    fn a_unit_with_banks_is_shortest_in_the_middle(decay in 0.3..4.0f64, gamma in 0.1..0.3f64, banks in 3u32..8) {
        let sheet = seen(&unit(switched(decay, gamma, banks)));
        let shortest = &sheet.powers[sheet.shortest];
        prop_assert!(sheet.shortest > 0 && sheet.shortest < sheet.powers.len() - 1, "at {}", shortest.power_label);
        // One bank alone, full: the step of the dial next below its share.
        prop_assert!(shortest.power <= 1.0 / f64::from(banks) * 1.01);
    }

    #[test]
    fn an_output_says_the_same_however_it_was_entered(metres in 5.0..200.0f64, distance in 0.5..8.0f64) {
        let entered = |to: Output| {
            let mut unit = unit(quenched(1.0));
            unit.output = to;
            output(&unit).unwrap()
        };
        let by_number = entered(Output::GuideNumber { metres });
        let exposure_lxs = by_number.lxs_m2 / (distance * distance);
        let by_exposure = entered(Output::Exposure { exposure_lxs, distance_m: distance });
        let by_joules = entered(Output::Energy { joules: by_number.usual_joules, half_angle_deg: None });
        for forms in [&by_exposure, &by_joules] {
            prop_assert!((forms.guide_number_m / metres - 1.0).abs() < 1e-9, "{} of {metres}", forms.guide_number_m);
        }
        // f-number times distance is the guide number, at every distance it is said for.
        prop_assert!(by_number.apertures.iter().all(|at| (at.aperture_f * at.distance_m / metres - 1.0).abs() < 1e-12));
        prop_assert!(by_joules.estimated && by_joules.span_stops.is_some() && !by_exposure.estimated);
        let [low, high] = by_joules.guide_number_span_m.unwrap();
        prop_assert!((2.0 * (low / metres).log2() + 1.4).abs() < 1e-9 && (2.0 * (high / metres).log2() - 2.0).abs() < 1e-9);
    }

    #[test]
    fn what_was_recorded_is_what_is_said_at_its_power(
        decay in 0.5..3.0f64, pace in 0.7..1.6f64, powers in prop::collection::btree_set(0u32..7, 1..6)
    ) {
        let entered = unit(quenched(decay));
        let mut own = entered.clone();
        own.recordings = powers.iter().map(|stops| recording((-f64::from(*stops)).exp2(), &entered, pace)).collect();
        let seen = seen(&own);
        for one in &own.recordings {
            let at = seen.powers.iter().find(|at| (at.power / one.power - 1.0).abs() < 1e-6).unwrap();
            prop_assert!((at.t01_s * 1e3 / one.t01_ms - 1.0).abs() < 1e-6 && (at.t05_s * 1e3 / one.t05_ms - 1.0).abs() < 1e-6);
            prop_assert_eq!(at.origin, Origin::Measured);
        }
        // Beyond the last of them the way goes on from there, called an estimate, without a step.
        let last = own.recordings.last().unwrap().power;
        let beyond = seen.powers.iter().find(|at| at.power < last * 0.99).unwrap();
        prop_assert_eq!((beyond.origin, beyond.doubt), (Origin::Estimated, Some(Doubt::BeyondRecordings)));
        let true_one = pulse(&entered, beyond.power).unwrap().durations().t01.as_secs() * pace;
        prop_assert!((beyond.t01_s / true_one - 1.0).abs() < 0.03, "{} for {true_one}", beyond.t01_s);
        let verdict = seen.recordings.unwrap();
        prop_assert!((verdict.against_entered - (pace.ln().abs().exp() - 1.0)).abs() < 0.02);
    }
}

#[test]
fn three_recordings_tell_the_way_and_what_they_say_of_the_figures() {
    let truths = [
        (quenched(1.3), WayWord::Quenched),
        (charge_voltage(1.1, 0.18), WayWord::ChargeVoltage),
        (switched(1.2, 0.2, 4), WayWord::SwitchedBanks),
    ];
    for (truth, way) in truths {
        let truth = unit(truth);
        // Its leaflet says it is quenched, whatever it is.
        let mut own = unit(quenched(0.9));
        own.recordings = [1.0, 0.5, 0.3, 0.25, 0.0625].map(|power| recording(power, &truth, 1.0)).into();
        let verdict = seen(&own).recordings.unwrap();
        assert_eq!(verdict.behaves_as, Some(way), "{:?}", truth.control);
        assert!(verdict.best_misfit.unwrap() < 0.02, "{:?} fits to {:?}", way, verdict.best_misfit);
        assert_eq!(verdict.misfit.unwrap() < 0.1, way == WayWord::Quenched, "{way:?}: {:?}", verdict.misfit);
        assert!(verdict.used && verdict.powers == 5);
        // Carried on beyond the recordings the true way is followed, not the leaflet's.
        if way == WayWord::ChargeVoltage {
            let at = pulse(&own, 1.0 / 64.0).unwrap().durations().t01.as_secs();
            let true_one = pulse(&truth, 1.0 / 64.0).unwrap().durations().t01.as_secs();
            assert!((at / true_one - 1.0).abs() < 0.03, "{at} for {true_one}");
            // Between them, the tail that two durations leave open comes from the fitted way too.
            let (own, truth) = (pulse(&own, 0.4).unwrap().durations(), pulse(&truth, 0.4).unwrap().durations());
            assert!((own.t90 / truth.t90 - 1.0).abs() < 0.03, "t90 {:?} for {:?}", own.t90, truth.t90);
        }
        own.ignore_recordings = true;
        let ignored = seen(&own);
        assert!(!ignored.recordings.unwrap().used && ignored.powers.iter().all(|at| at.origin == Origin::Published));
    }
}

#[test]
fn two_recordings_scale_the_way_and_ask_for_a_third() {
    let entered = unit(quenched(1.0));
    let mut own = entered.clone();
    own.recordings = [1.0, 0.125].map(|power| recording(power, &entered, 1.25)).into();
    let verdict = seen(&own).recordings.unwrap();
    assert_eq!((verdict.powers, verdict.misfit, verdict.behaves_as), (2, None, None));
    let at = pulse(&own, 1.0 / 64.0).unwrap().durations().t01;
    let scaled = pulse(&entered, 1.0 / 64.0).unwrap().durations().t01 * 1.25;
    assert!((at / scaled - 1.0).abs() < 0.01, "{at:?} for {scaled:?}");
}

#[test]
fn the_line_of_a_unit_names_the_shortest_pulse_of_its_sheet() {
    let kit: Kit = serde_json::from_str(include_str!("../../../../docs/examples/kit.json")).unwrap();
    let more = [unit(switched(1.3, 0.25, 6)), unit(charge_voltage(0.9, 0.2)), unit(quenched(2.0))];
    for unit in kit.units.into_iter().chain(more) {
        let sheet = seen(&unit);
        let line = line(&Item::Unit(Box::new(unit.clone()))).unwrap();
        let recorded = |at: &&pebble_core::sheet::AtPower| unit.recordings.is_empty() || at.origin == Origin::Measured;
        let shortest = sheet.powers.iter().filter(recorded).min_by(|a, b| a.t01_s.total_cmp(&b.t01_s)).unwrap();
        assert!(line.ends_with(&format!("t0.1 to {}", shortest.t01_label)), "{line}: {}", shortest.t01_label);
    }
}

#[test]
fn two_heads_share_the_light_and_say_what_was_not_measured() {
    let one = unit(switched(1.2, 0.2, 4));
    let pair = FlashUnit { heads: Some(2), ..one.clone() };
    let measured = FlashUnit { two_heads_time: Some(0.7), ..pair.clone() };
    let stops = 2.0 * (output(&one).unwrap().guide_number_m / output(&pair).unwrap().guide_number_m).log2();
    assert!((stops - 1.0).abs() < 1e-9, "{stops} stops less for each of two heads");
    assert!((seen(&measured).powers[0].t01_s / seen(&one).powers[0].t01_s - 0.7).abs() < 1e-9);
    assert_eq!(seen(&measured).powers[0].origin, Origin::Published);
    assert_eq!(seen(&pair).powers[0].origin, Origin::Estimated);
    assert!(seen(&pair).remarks.iter().any(|said| said.contains("not measured")));
}

#[test]
fn energy_recycling_heat_battery_and_colour_follow_the_power() {
    let plain = FlashUnit {
        min_interval_ms: Some(100.0),
        when_early: Some(WhenEarly::Missing),
        heat: Some(Heat { capacity_j: 8000.0, drain_w: 50.0, then: WhenHot::Waits }),
        battery: Some(Battery {
            id: "cell".to_owned(),
            name: "Cell".to_owned(),
            usable_wh: 50.0,
            efficiency: 0.8,
            idle_w: None,
            mass_kg: None,
        }),
        colour_k: Some(5600.0),
        lowest_power_mired: Some(-14.0),
        ..unit(quenched(1.0))
    };
    let at_two = sheet(&plain, 2.0).unwrap();
    let at = |power: f64| at_two.powers.iter().find(|at| (at.power / power - 1.0).abs() < 1e-6).unwrap();
    // By hand: a quarter of 400 J; a quarter of a second; 50 Wh · 3600 · 0.8 / 100 J.
    let quarter = at(0.25);
    assert_eq!(
        (quarter.energy_j, quarter.recycle_s, quarter.flashes_per_charge),
        (Some(100.0), Some(0.25), Some(1440))
    );
    assert!((quarter.guide_number_m - 30.0).abs() < 1e-9);
    assert_eq!(quarter.burst.as_ref().unwrap().whole, None, "200 W of 400 W: no end");
    // Full at two a second takes 800 W of 400 W: the second is short.
    assert_eq!(at(1.0).burst.as_ref().unwrap().whole, Some(1));
    // 1/2: a flash takes 200 J and regains 200 J.
    assert_eq!(at(0.5).burst.as_ref().unwrap().whole, None);
    // Heat at full: 400 J in, 25 J off between: 8000 J is passed with the 22nd (400 + 21·375 = 8275; 21: 7900).
    assert_eq!(at(1.0).until_hot.as_ref().unwrap().flashes, Some(22));
    assert_eq!(at(1.0 / 32.0).until_hot.as_ref().unwrap().flashes, None, "12.5 J a flash against 25 J off");
    // At the lowest of 7 stops the whole shift of −14 mired: 10⁶/(10⁶/5600 − 14).
    let lowest = at_two.powers.last().unwrap();
    assert!((lowest.colour_k.unwrap() - 1e6 / (1e6 / 5600.0 - 14.0)).abs() < 1.0);
    // Never sooner than a tenth of a second, whatever the power.
    assert_eq!(lowest.recycle_s, Some(0.1));
    assert_eq!(sheet(&plain, 12.0).unwrap().powers.last().unwrap().burst.as_ref().unwrap().whole, Some(1));
}

#[test]
fn remarks_say_what_one_should_know() {
    let with = |change: fn(&mut FlashUnit)| {
        let mut unit = unit(quenched(1.0));
        change(&mut unit);
        seen(&unit).remarks
    };
    let cases: [(&str, Vec<String>); 6] = [
        (
            "estimate from joules: −1.4 to +2.0",
            with(|u| u.output = Output::Energy { joules: 400.0, half_angle_deg: None }),
        ),
        ("entered as a guess", with(|u| u.output_from = Source::plain(Origin::Estimated))),
        (
            "1.0 stop under its leaflet",
            with(|u| {
                u.output_from = Source::plain(Origin::Measured);
                u.leaflet_output = Some(Output::GuideNumber { metres: 60.0 * 2f64.sqrt() });
            }),
        ),
        ("one of the two figures may be wrong", with(|u| u.energy_j = Some(20.0))),
        (
            "most shutters cut such a pulse",
            with(|u| {
                u.control =
                    Control::Quenched { decay_ms: Some(6.0), t05_ms: None, t01_ms: None, rise_ms: None, fall_ms: None }
            }),
        ),
        ("residual-current", with(|u| u.kind = pebble_core::gear::UnitKind::MainsHead)),
    ];
    for (want, said) in cases {
        assert!(said.iter().any(|sentence| sentence.contains(want)), "{want}: {said:?}");
    }
    assert_eq!(with(|_| ()), Vec::<String>::new(), "nothing to say of a plain unit");
}

#[test]
fn what_cannot_be_is_refused_by_its_place() {
    let row = |power: f64, t05_ms: f64, t01_ms: f64| TableRow { power, t05_ms: Some(t05_ms), t01_ms: Some(t01_ms) };
    let table = |rows: Vec<TableRow>| Control::Table { rows, discharge: None };
    let own = |change: &dyn Fn(&mut FlashUnit)| {
        let mut unit = unit(quenched(1.0));
        change(&mut unit);
        unit
    };
    let recorded = |power: f64, t05_ms: f64, t01_ms: f64| Recording {
        power,
        t05_ms,
        t01_ms,
        t90_ms: None,
        on: None,
        with: None,
        curve: None,
    };
    let cases: Vec<(&str, FlashUnit)> = vec![
        ("control.rows", own(&|u| u.control = table(vec![]))),
        ("control.rows[1].power", own(&|u| u.control = table(vec![row(1.0, 0.5, 1.0), row(1.0, 0.4, 0.8)]))),
        (
            "control.rows[2].power",
            own(&|u| u.control = table(vec![row(1.0, 0.5, 1.0), row(0.25, 0.2, 0.4), row(0.5, 0.4, 0.8)])),
        ),
        ("control.rows[0].t01_ms", own(&|u| u.control = table(vec![row(1.0, 1.0, 0.5)]))),
        (
            "control.rows[0].t01_ms",
            own(&|u| u.control = table(vec![TableRow { power: 1.0, t05_ms: None, t01_ms: None }])),
        ),
        ("control.rows[1].power", own(&|u| u.control = table(vec![row(1.0, 0.5, 1.0), row(1.0 / 512.0, 0.1, 0.2)]))),
        ("control.rows[0].power", own(&|u| u.control = table(vec![row(1.5, 0.5, 1.0)]))),
        ("control.decay_ms", own(&|u| u.control = serde_json::from_value(quenched(0.0)).unwrap())),
        ("control.gamma", own(&|u| u.control = serde_json::from_value(charge_voltage(1.0, 0.9)).unwrap())),
        ("control.banks", own(&|u| u.control = serde_json::from_value(switched(1.0, 0.1, 0)).unwrap())),
        (
            "control.rise_ms",
            own(&|u| {
                u.control = Control::Quenched {
                    decay_ms: Some(1.0),
                    t05_ms: None,
                    t01_ms: None,
                    rise_ms: Some(1.5),
                    fall_ms: None,
                }
            }),
        ),
        ("recordings[0].t01_ms", own(&|u| u.recordings = vec![recorded(0.5, 1.0, 0.4)])),
        (
            "recordings[1].power",
            own(&|u| u.recordings = vec![recorded(0.5, 0.4, 1.0), recorded(1.0 / 1024.0, 0.1, 0.2)]),
        ),
        ("output.metres", own(&|u| u.output = Output::GuideNumber { metres: f64::NAN })),
        ("output.joules", own(&|u| u.output = Output::Energy { joules: -3.0, half_angle_deg: None })),
        ("heads", own(&|u| u.heads = Some(3))),
        ("energy_j", own(&|u| u.energy_j = Some(-1.0))),
        ("name", own(&|u| u.name = "  ".to_owned())),
        (
            "durations_from.on",
            own(&|u| {
                u.durations_from = Source { origin: Origin::Measured, on: Some("last week".to_owned()), with: None }
            }),
        ),
        ("id", own(&|u| u.id = "Not An Id".to_owned())),
    ];
    for (field, unit) in cases {
        let refused = Item::Unit(Box::new(unit)).check().expect_err(field);
        assert_eq!(refused.field(), field, "{refused}");
    }
}

#[test]
fn a_table_with_one_of_the_two_times_is_completed_by_the_way_its_pulse_ends() {
    let table = |discharge: Option<Discharge>| {
        let rows = vec![TableRow { power: 0.125, t05_ms: Some(2.0), t01_ms: None }];
        let mut unit = unit(quenched(1.0));
        unit.control = Control::Table { rows, discharge };
        let sheet = seen(&unit);
        let at = sheet.powers.into_iter().find(|at| (at.power - 0.125).abs() < 1e-9).unwrap();
        assert_eq!(at.doubt, Some(Doubt::Fitted));
        at.t01_s / at.t05_s
    };
    // A cut pulse is nearly square; an uncut one has the ratio of an exponential, ln 10 / ln 2.
    assert!(table(None) < 1.6 && table(Some(Discharge::Cut)) < 1.6, "{}", table(None));
    assert!((table(Some(Discharge::Whole)) - 3.1).abs() < 0.25, "{}", table(Some(Discharge::Whole)));
}

/// Some of everything, with figures and gaps at random.
fn any_kit() -> impl Strategy<Value = Kit> {
    let maybe = |range: std::ops::Range<f64>| prop::option::of(range);
    let control = prop_oneof![
        (0.3..4.0f64).prop_map(quenched),
        (0.3..4.0f64, 0.0..0.3f64).prop_map(|(decay, gamma)| charge_voltage(decay, gamma)),
        (0.3..4.0f64, 0.0..0.3f64, 2u32..8).prop_map(|(decay, gamma, banks)| switched(decay, gamma, banks)),
        prop::collection::vec(0.05..3.0f64, 1..6).prop_map(|times| {
            let rows: Vec<Value> = times
                .iter()
                .enumerate()
                .map(|(k, t05)| json!({ "power": (-(k as f64)).exp2(), "t05_ms": t05, "t01_ms": t05 * 1.5 }))
                .collect();
            json!({ "way": "table", "rows": rows })
        }),
    ];
    let one = (control, maybe(20.0..3000.0), maybe(0.1..9.0), maybe(3000.0..8000.0), "[a-zü ]{0,12}[a-z]");
    let units = prop::collection::vec(one, 0..5).prop_map(|all| {
        all.into_iter().enumerate().map(|(k, (control, energy_j, recycle_s, colour_k, name))| {
            let id = format!("unit-{k}");
            FlashUnit { id, name, energy_j, recycle_s, colour_k, ..unit(control) }
        })
    });
    let lens = (10.0..200.0f64, 1.0..3.0f64, any::<bool>());
    let modifier = (-3.0..1.0f64, 0.02..1.0f64, maybe(5.0..85.0), maybe(5.0..60.0));
    (units, prop::option::of(lens), prop::option::of(modifier), maybe(1.0..9000.0)).prop_map(
        |(units, lens, modifier, lux)| {
            let lens = lens.map(|(focal, times, leaf)| {
                Item::Lens(Lens {
                    id: "lens".to_owned(),
                    name: "Lens".to_owned(),
                    focal_min_mm: focal,
                    focal_max_mm: focal * times,
                    widest_f: 2.8,
                    narrowest_f: 22.0,
                    leaf_fastest: leaf.then(|| "1/500".to_owned()),
                    mass_kg: None,
                })
            });
            let modifier = modifier.map(|(stops, radius, beam, grid)| {
                Item::Modifier(Modifier {
                    id: "modifier".to_owned(),
                    name: "Modifier".to_owned(),
                    stops,
                    face_radius_m: radius,
                    source_offset_m: 0.1,
                    half_angle_deg: beam,
                    grid_deg: grid,
                    diffusion_layers: None,
                    layer_stops: None,
                    mass_kg: Some(radius),
                })
            });
            let lamp = lux.map(|lux_at_1m| {
                Item::Lamp(Lamp {
                    id: "lamp".to_owned(),
                    name: "Lamp".to_owned(),
                    lux_at_1m,
                    colour_k: 3200.0,
                    hue: None,
                    half_angle_deg: None,
                    modelling: true,
                    flicker: pebble_core::gear::Flicker::Some,
                    watts: None,
                })
            });
            let units = units.map(|unit| Item::Unit(Box::new(unit)));
            let retired = lens.iter().map(|lens| lens.id().to_owned()).collect();
            Kit::of(units.chain(lens).chain(modifier).chain(lamp), retired)
        },
    )
}

proptest! {
    #![proptest_config(ProptestConfig { cases: 64, ..ProptestConfig::default() })]

    #[test]
    fn a_kit_comes_back_from_its_file_as_it_was(kit in any_kit()) {
        let text = serde_json::to_string_pretty(&kit).unwrap();
        let again: Kit = serde_json::from_str(&text).unwrap();
        prop_assert_eq!(&again, &kit);
        let items = again.into_items().unwrap();
        let retired = items.iter().filter(|(_, away)| *away).map(|(item, _)| item.id().to_owned()).collect();
        prop_assert_eq!(Kit::of(items.into_iter().map(|(item, _)| item), retired), kit);
    }
}

#[test]
fn a_kit_file_that_cannot_be_is_refused_by_its_place() {
    let whole: Value = serde_json::from_str(include_str!("../../../../docs/examples/kit.json")).unwrap();
    let cases: [(&str, &str, Value); 7] = [
        ("format", "/format", json!("dash-pebble/shot")),
        ("version", "/version", json!(2)),
        ("units[2].control.decay_ms", "/units/2/control/decay_ms", json!(-1)),
        ("cameras[1].sync", "/cameras/1/sync", json!("often")),
        ("lenses[0].widest_f", "/lenses/0/widest_f", json!(32)),
        ("modifiers[3].id", "/modifiers/3/id", json!("octa-90")),
        ("lamps[0].colour_k", "/lamps/0/colour_k", json!(0)),
    ];
    for (field, pointer, value) in cases {
        let mut file = whole.clone();
        *file.pointer_mut(pointer).unwrap() = value;
        let kit: Kit = serde_json::from_value(file).unwrap();
        assert_eq!(kit.into_items().expect_err(pointer).field(), field);
    }
    let mut stray = whole.clone();
    stray["retired"] = json!(["nothing-of-that-name"]);
    assert_eq!(serde_json::from_value::<Kit>(stray).unwrap().into_items().unwrap_err().field(), "retired");
    let mut unknown = whole;
    unknown["units"][0]["colour"] = json!("red");
    assert!(serde_json::from_value::<Kit>(unknown).is_err(), "a field nobody knows is not passed over");
}
