//! How long a frame takes at 960 × 640 and at the size of the Bench, with all hands. `taskset -c 0` in front of it measures one core.

use criterion::{Criterion, criterion_group, criterion_main};
use pebble_core::{Plan, Shot, outlook};
use pebble_picture::{Crop, Layers, Request, render};
use std::hint::black_box;

fn measure(criterion: &mut Criterion) {
    let shots = [
        ("double ropes", include_str!("../../../docs/examples/double-ropes.json")),
        ("lantern slalom", include_str!("../../../docs/examples/lantern-slalom.json")),
        ("slipway spin", include_str!("../../../docs/examples/slipway-spin.json")),
        ("card on a wall", include_str!("../../../docs/examples/card-on-a-wall.json")),
        ("sabre reach, 4 lights", include_str!("../../../docs/examples/sabre-reach.json")),
        ("roller hall, 6 lights", include_str!("../../../docs/examples/roller-hall.json")),
    ];
    for (name, json) in shots {
        let shot: Shot = serde_json::from_str(json).expect("the example is a shot");
        let plan = Plan::try_from(&shot).expect("the shot is a plan");
        let seen = outlook(&plan);
        for width in [960, 592] {
            let request = Request { width, layers: Layers::Both, crop: Crop::WHOLE };
            criterion.bench_function(&format!("frame {width}, {name}"), |bench| {
                bench.iter(|| render(black_box(&plan), black_box(&seen), black_box(&request)));
            });
        }
    }
}

criterion_group! {
    name = benches;
    config = Criterion::default().without_plots();
    targets = measure
}
criterion_main!(benches);
