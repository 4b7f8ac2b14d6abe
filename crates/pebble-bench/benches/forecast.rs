//! How long a forecast takes: it is asked for at every step of a control.

use criterion::{Criterion, criterion_group, criterion_main};
use pebble_core::file::movement::Phase;
use pebble_core::hold::{Held, Turned, equivalents, hold};
use pebble_core::outlook::Pulses;
use pebble_core::{Plan, Shot, findings, forecast, outlook};
use std::hint::black_box;

fn shot() -> Shot {
    serde_json::from_str(include_str!("../../../docs/examples/lantern-slalom.json")).expect("the example is a shot")
}

fn measure(criterion: &mut Criterion) {
    let plan = Plan::try_from(&shot()).expect("the shot is a plan");
    assert_eq!(plan.parts.len(), 4);
    criterion.bench_function("outlook, 4 parts", |bench| bench.iter(|| outlook(black_box(&plan))));
    criterion.bench_function("forecast, 4 parts", |bench| bench.iter(|| forecast(black_box(&plan))));
    // Each part with five phases: rest, faster, to and fro, slower, rest.
    let mut timed = shot();
    for part in &mut timed.parts {
        let line = |from_m_s, to_m_s| Phase::Line { from_m_s, to_m_s, seconds: Some(0.1), metres: None };
        let swing = Phase::ToAndFro { amplitude_m: 0.2, rate_hz: 3.0, seconds: 0.5 };
        let rest = Phase::Rest { seconds: 0.05 };
        part.phases = vec![rest, line(0.0, 4.0), swing, line(4.0, 0.0), rest];
    }
    let in_time = Plan::try_from(&timed).expect("the shot is a plan");
    criterion.bench_function("forecast, 4 parts of 5 phases", |bench| bench.iter(|| forecast(black_box(&in_time))));
    let (all, mut turned) = ([Held::Key, Held::Ambient, Held::Background, Held::Depth, Held::Blur], plan.clone());
    turned.settings.iso = pebble_core::quantity::scale::Iso::from_sv6(plan.settings.iso.nearest_sixth() + 6);
    criterion.bench_function("look held, all controls free", |bench| {
        bench.iter(|| hold(black_box(&plan), black_box(&turned), &all, Some(Turned { control: Held::Iso, light: 0 })));
    });
    criterion.bench_function("equivalent settings", |bench| bench.iter(|| equivalents(black_box(&plan), &all[..3])));
}

/// Everything of one step of a light that is carried over the floor, with nine lights and an area, a way and a room.
fn carried(criterion: &mut Criterion) {
    use pebble_core::file::floor::{Room, WayAlong};
    use pebble_core::floor::{CarriedTo, FloorAsk, evened, floor};
    use pebble_core::shot::Role;
    let text = include_str!("../../../docs/examples/roller-hall.json");
    let mut shot: Shot = serde_json::from_str(text).expect("the example is a shot");
    while shot.lights.len() < 9 {
        let mut more = shot.lights[0].clone();
        more.bearing_deg = -80.0 + 17.0 * shot.lights.len() as f64;
        shot.lights.push(more);
    }
    shot.way = Some(WayAlong { from_m: [-4.0, 0.0], to_m: [4.0, 0.0], speed_m_s: 5.0, camera_goes_along: false });
    shot.room = Some(Room { left_m: -8.0, right_m: 8.0, near_m: -12.0, far_m: 12.0, ceiling_m: 6.0 });
    let to = CarriedTo { light: 0, x_m: -2.0, y_m: -2.0, z_m: 2.4, power: None, flag: None, aim_m: None };
    let mut four = shot.clone();
    four.lights.truncate(4);
    for (light, bearing) in four.lights.iter_mut().zip([-40.0, 40.0, -130.0, 130.0]) {
        (light.bearing_deg, light.distance_m, light.bounce) = (bearing, 2.5, None);
        light.role = if bearing == -40.0 { Role::Key } else { Role::Fill };
    }
    criterion.bench_function("four lights evened out together", |bench| bench.iter(|| evened(black_box(&four))));
    criterion.bench_function("a light carried over the floor, 9 lights", |bench| {
        bench.iter(|| floor(black_box(&shot), Some(black_box(&to)), FloorAsk::default()));
    });
}

/// The shots as they ship, with what is open on them: once as if nobody had asked of their lights before, and once as
/// somebody does who turns a control.
fn judged(criterion: &mut Criterion) {
    let shots = [
        ("card", include_str!("../../../docs/examples/card-on-a-wall.json")),
        ("double ropes", include_str!("../../../docs/examples/double-ropes.json")),
        ("slipway spin", include_str!("../../../docs/examples/slipway-spin.json")),
        ("roller hall", include_str!("../../../docs/examples/roller-hall.json")),
    ];
    for (name, text) in shots {
        let shot: Shot = serde_json::from_str(text).expect("the example is a shot");
        judge(criterion, name, &Plan::try_from(&shot).expect("the shot is a plan"));
    }
}

fn judge(criterion: &mut Criterion, name: &str, plan: &Plan) {
    let seen = outlook(plan);
    let open = findings::count(plan, &seen);
    criterion.bench_function(&format!("findings of {name}, {} open", open.0 + open.1), |bench| {
        bench.iter(|| findings::judge(black_box(plan), black_box(&seen)));
    });
    let mut pulses = Pulses::of_plan(plan);
    criterion.bench_function(&format!("findings of {name}, its pulses known"), |bench| {
        bench.iter(|| findings::judge_with(black_box(plan), black_box(&seen), &mut pulses));
    });
}

/// Nine lights of their own powers and six parts: the largest set that one screen is for.
fn crowded_shot() -> Shot {
    let mut shot: Shot =
        serde_json::from_str(include_str!("../../../docs/examples/roller-hall.json")).expect("the example is a shot");
    for (index, power) in [0.11, 0.23, 0.37].into_iter().enumerate() {
        shot.lights.push(pebble_core::shot::Flash { power, ..shot.lights[index].clone() });
    }
    let sixth = pebble_core::shot::Part { name: "Other hand".to_owned(), ..shot.parts[3].clone() };
    shot.parts.push(sixth);
    shot
}

fn crowded(criterion: &mut Criterion) {
    let plan = Plan::try_from(&crowded_shot()).expect("the shot is a plan");
    assert_eq!((plan.lights.len(), plan.parts.len()), (9, 6));
    criterion.bench_function("outlook, 9 lights, 6 parts", |bench| bench.iter(|| outlook(black_box(&plan))));
    criterion.bench_function("forecast, 9 lights, 6 parts", |bench| bench.iter(|| forecast(black_box(&plan))));
    let (all, mut turned) = ([Held::Key, Held::Ambient, Held::Background, Held::Depth, Held::Blur], plan.clone());
    turned.settings.iso = pebble_core::quantity::scale::Iso::from_sv6(plan.settings.iso.nearest_sixth() - 6);
    criterion.bench_function("look held, 9 lights", |bench| {
        bench.iter(|| hold(black_box(&plan), black_box(&turned), &all, Some(Turned { control: Held::Iso, light: 0 })));
    });
    judge(criterion, "9 lights", &plan);
    // All of them in trouble: too long, too bright, and cut.
    let mut shot = crowded_shot();
    shot.camera.shutter = "1/500".to_owned();
    shot.lights.iter_mut().for_each(|light| light.power = 1.0);
    shot.parts.iter_mut().for_each(|part| part.speed_m_s *= 8.0);
    judge(criterion, "9 lights in trouble", &Plan::try_from(&shot).expect("the shot is a plan"));
}

criterion_group! {
    name = benches;
    config = Criterion::default().without_plots();
    targets = measure, carried, judged, crowded
}
criterion_main!(benches);
