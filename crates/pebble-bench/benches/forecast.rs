//! How long a forecast takes: it is asked for at every step of a control.

use criterion::{Criterion, criterion_group, criterion_main};
use pebble_core::hold::{Held, Turned, equivalents, hold};
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
    let (all, mut turned) = ([Held::Key, Held::Ambient, Held::Background, Held::Depth, Held::Blur], plan.clone());
    turned.settings.iso = pebble_core::quantity::scale::Iso::from_sv6(plan.settings.iso.nearest_sixth() + 6);
    criterion.bench_function("look held, all controls free", |bench| {
        bench.iter(|| hold(black_box(&plan), black_box(&turned), &all, Some(Turned { control: Held::Iso, light: 0 })));
    });
    criterion.bench_function("equivalent settings", |bench| bench.iter(|| equivalents(black_box(&plan), &all[..3])));
    let seen = outlook(&plan);
    criterion.bench_function("findings with remedies tried", |bench| {
        bench.iter(|| findings::judge(black_box(&plan), black_box(&seen)));
    });
}

/// Nine lights of their own powers and six parts: the largest set that one screen is for.
fn crowd() -> Plan {
    let mut shot: Shot =
        serde_json::from_str(include_str!("../../../docs/examples/roller-hall.json")).expect("the example is a shot");
    for (index, power) in [0.11, 0.23, 0.37].into_iter().enumerate() {
        shot.lights.push(pebble_core::shot::Flash { power, ..shot.lights[index].clone() });
    }
    let sixth = pebble_core::shot::Part { name: "Other hand".to_owned(), ..shot.parts[3].clone() };
    shot.parts.push(sixth);
    Plan::try_from(&shot).expect("the shot is a plan")
}

fn crowded(criterion: &mut Criterion) {
    let plan = crowd();
    assert_eq!((plan.lights.len(), plan.parts.len()), (9, 6));
    criterion.bench_function("outlook, 9 lights, 6 parts", |bench| bench.iter(|| outlook(black_box(&plan))));
    criterion.bench_function("forecast, 9 lights, 6 parts", |bench| bench.iter(|| forecast(black_box(&plan))));
    let (all, mut turned) = ([Held::Key, Held::Ambient, Held::Background, Held::Depth, Held::Blur], plan.clone());
    turned.settings.iso = pebble_core::quantity::scale::Iso::from_sv6(plan.settings.iso.nearest_sixth() - 6);
    criterion.bench_function("look held, 9 lights", |bench| {
        bench.iter(|| hold(black_box(&plan), black_box(&turned), &all, Some(Turned { control: Held::Iso, light: 0 })));
    });
    let seen = outlook(&plan);
    criterion.bench_function("findings, 9 lights, remedies tried", |bench| {
        bench.iter(|| findings::judge(black_box(&plan), black_box(&seen)));
    });
}

criterion_group! {
    name = benches;
    config = Criterion::default().without_plots();
    targets = measure, crowded
}
criterion_main!(benches);
