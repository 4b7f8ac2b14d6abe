//! How long a frame takes at the size of the Bench and at 960 × 640: twelve compositions with four lights, each as the first
//! of its kind, as a first look at it, and as the next one while a control is turned. `taskset -c 0` in front of it measures
//! one core.

use criterion::{Criterion, criterion_group, criterion_main};
use pebble_core::file::stage::Composition;
use pebble_core::{Plan, Shot, outlook};
use pebble_picture::{Crop, Kept, Layers, Request, first_look, render, render_while};
use std::collections::BTreeMap;
use std::hint::black_box;
use std::sync::atomic::AtomicBool;
use std::time::Duration;

fn measure(criterion: &mut Criterion) {
    let lights: Shot =
        serde_json::from_str(include_str!("../../../docs/examples/sabre-reach.json")).expect("the example is a shot");
    let compositions: BTreeMap<String, Composition> =
        serde_json::from_str(include_str!("../../../docs/examples/compositions.json")).expect("they are compositions");
    for (name, stage) in compositions {
        let shot = Shot { stage: Some(stage), ..lights.clone() };
        let plan = Plan::try_from(&shot).expect("the shot is a plan");
        let seen = outlook(&plan);
        for long in [960, 592, 296] {
            // Held upright a frame has as many pixels as lying.
            let width = if plan.stage.upright().is_some() { long * 2 / 3 } else { long };
            let request = Request { width, layers: Layers::Both, crop: Crop::WHOLE };
            criterion.bench_function(&format!("frame {long}, first, {name}"), |bench| {
                bench.iter(|| render(black_box(&plan), black_box(&seen), black_box(&request)));
            });
            criterion.bench_function(&format!("frame {long}, first look, {name}"), |bench| {
                let wanted = AtomicBool::new(true);
                bench.iter(|| {
                    first_look((black_box(&plan), &seen), black_box(&request), (None, &Kept::default()), &wanted)
                });
            });
            let (kept, wanted) = (Kept::default(), AtomicBool::new(true));
            criterion.bench_function(&format!("frame {long}, next, {name}"), |bench| {
                bench.iter(|| render_while((black_box(&plan), &seen), black_box(&request), (None, &kept), &wanted));
            });
        }
    }
}

criterion_group! {
    name = benches;
    config = Criterion::default()
        .without_plots()
        .sample_size(20)
        .warm_up_time(Duration::from_millis(300))
        .measurement_time(Duration::from_secs(1));
    targets = measure
}
criterion_main!(benches);
