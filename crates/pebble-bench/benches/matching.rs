//! How long matching takes, with brute force over the same grid beside it.
//!
//! Brute force puts every set-up of the grid into the plan and asks the forecast; over the whole demo kit that is hundreds of
//! billions of them, so it is timed on an even walk through the grid and counted up. On small kits the tests run both in full.

use criterion::{BatchSize, Criterion, criterion_group, criterion_main};
use pebble_core::gear::{FlashUnit, Kit, Modifier};
use pebble_core::matching::{
    Brief, Candidate, Going, Priority, Stock, Wish, find, marks, nearest, whole_job, whole_shot,
};
use pebble_core::{Plan, Shot, strips};
use std::hint::black_box;
use std::time::{Duration, Instant};

/// Set-ups that brute force is timed on.
const SAMPLE: usize = 20_000;

fn kit() -> Kit {
    serde_json::from_str(include_str!("../../../docs/examples/kit.json")).expect("the kit is a kit")
}

fn shot(text: &str, wish: Wish) -> Shot {
    let shot: Shot = serde_json::from_str(text).expect("the example is a shot");
    Shot { wish: Some(wish), ..shot }
}

fn any() -> Wish {
    Wish { any_modifier: Some(true), high_speed: Some(true), ..Wish::default() }
}

const SABRE: &str = include_str!("../../../docs/examples/sabre-reach.json");
const ROPES: &str = include_str!("../../../docs/examples/double-ropes.json");
const SLALOM: &str = include_str!("../../../docs/examples/lantern-slalom.json");
const SLIPWAY: &str = include_str!("../../../docs/examples/slipway-spin.json");

fn day() -> Vec<Shot> {
    let texts = [
        ROPES,
        SLALOM,
        SLIPWAY,
        SABRE,
        include_str!("../../../docs/examples/silks.json"),
        include_str!("../../../docs/examples/finishers-wall.json"),
        include_str!("../../../docs/examples/roller-hall.json"),
        include_str!("../../../docs/examples/card-on-a-wall.json"),
        SABRE,
        ROPES,
    ];
    texts.map(|text| serde_json::from_str(text).expect("the example is a shot")).into()
}

fn grown(units: usize) -> Stock {
    let own = kit();
    let many: Vec<FlashUnit> = (0..units)
        .map(|number| {
            let from = own.units[number % own.units.len()].clone();
            FlashUnit { id: format!("{}-{number}", from.id), ..from }
        })
        .collect();
    Stock::of(&many, &own.modifiers, &own.filters).expect("a grown kit")
}

fn one_light(criterion: &mut Criterion) {
    let stock = Stock::of_kit(&kit()).expect("the kit can be");
    for (name, text) in
        [("sabre reach", SABRE), ("double ropes", ROPES), ("lantern slalom", SLALOM), ("slipway", SLIPWAY)]
    {
        let shot = shot(text, any());
        let plan = Plan::try_from(&shot).expect("the shot is a plan");
        let brief = Brief::new(&shot, &plan).expect("the wish can be");
        criterion.bench_function(&format!("match one light, {name}, demo kit"), |bench| {
            // Pulses are worked out with the first question: every question here is a first one.
            let fresh = || Stock::of_kit(&kit()).expect("the kit can be");
            let ask = |stock: Stock| find(black_box(&brief), &stock, Priority::Balanced, &Going::default());
            bench.iter_batched(fresh, ask, BatchSize::PerIteration);
        });
        criterion.bench_function(&format!("match one light, {name}, asked again"), |bench| {
            bench.iter(|| find(black_box(&brief), &stock, Priority::Balanced, &Going::default()));
        });
        against_brute_force(name, &brief, &stock);
    }
    let slipway = shot(SLIPWAY, Wish::default());
    let plan = Plan::try_from(&slipway).expect("the shot is a plan");
    let mut brief = Brief::new(&slipway, &plan).expect("the wish can be");
    criterion.bench_function("nearest, slipway, demo kit", |bench| {
        bench.iter(|| nearest(black_box(&mut brief), &stock, &Going::default()));
    });
    criterion.bench_function("map of all units, slipway", |bench| bench.iter(|| marks(black_box(&brief), &stock)));
}

/// Says how many times faster the search is than going through the grid, both on one core.
fn against_brute_force(name: &str, brief: &Brief, stock: &Stock) {
    let body = &brief.plan.body;
    let farthest = brief.bounds.farthest.as_metres() + 1e-9;
    let places: Vec<_> = strips::distances(pebble_core::preferences::Lengths::Metric)
        .filter(|place| place.as_metres() <= farthest)
        .collect();
    let apertures: Vec<_> = strips::apertures(body).collect();
    let isos: Vec<_> = strips::isos(body).collect();
    let times: Vec<_> = strips::shutters(body).collect();
    let fronts: Vec<&Modifier> = stock.modifiers.iter().collect();
    let cameras = apertures.len() * isos.len() * times.len() * stock.filters.len();
    let powers: Vec<Vec<f64>> = stock.units.iter().map(|unit| unit.unit.powers().collect()).collect();
    let all: f64 =
        powers.iter().map(|powers| (powers.len() * fronts.len() * 3 * 2 * places.len()) as f64 * cameras as f64).sum();
    // An even walk through the grid: every index steps by its own prime.
    let started = Instant::now();
    let mut fits = 0_usize;
    for number in 0..SAMPLE {
        let unit = number * 7 % stock.units.len();
        let candidate = Candidate {
            unit: &stock.units[unit],
            modifier: fronts[number * 11 % fronts.len()],
            heads: 1 + (number % 3) as u32,
            power: powers[unit][number * 13 % powers[unit].len()],
            distance: places[number * 17 % places.len()],
            glow: false,
            aperture: apertures[number * 19 % apertures.len()],
            shutter: times[number * 23 % times.len()],
            iso: isos[number * 29 % isos.len()],
            filter: stock.filters[number * 31 % stock.filters.len()],
        };
        let fares = brief.judge(&candidate).expect("it can be judged");
        fits += usize::from(fares.iter().all(|one| one.room >= -1e-9));
    }
    let each = started.elapsed().as_secs_f64() / SAMPLE as f64;
    let alone = rayon::ThreadPoolBuilder::new().num_threads(1).build().expect("a thread");
    let started = Instant::now();
    let runs = 5;
    for _ in 0..runs {
        black_box(alone.install(|| find(brief, stock, Priority::Balanced, &Going::default())));
    }
    let search = started.elapsed().as_secs_f64() / f64::from(runs);
    println!(
        "brute force, {name}: {all:.2e} set-ups at {:.1} µs each are {:.1e} s on one core ({fits} of {SAMPLE} sampled fit); \
         the search takes {:.1} ms on one core: {:.1e} times faster",
        each * 1e6,
        all * each,
        search * 1e3,
        all * each / search
    );
}

fn larger(criterion: &mut Criterion) {
    let sabre = shot(SABRE, any());
    let plan = Plan::try_from(&sabre).expect("the shot is a plan");
    let brief = Brief::new(&sabre, &plan).expect("the wish can be");
    for units in [125, 250, 500] {
        criterion.bench_function(&format!("match one light, {units} units"), |bench| {
            let ask = |stock: Stock| find(black_box(&brief), &stock, Priority::Balanced, &Going::default());
            bench.iter_batched(|| grown(units), ask, BatchSize::PerIteration);
        });
    }
    criterion.bench_function("whole shot, four lights", |bench| {
        let fresh = || Stock::of_kit(&kit()).expect("the kit can be");
        let ask = |stock: Stock| whole_shot(black_box(&brief), &stock, Priority::Balanced, &Going::default());
        bench.iter_batched(fresh, ask, BatchSize::PerIteration);
    });
    let shots = day();
    criterion.bench_function("whole job, ten shots", |bench| {
        let fresh = || Stock::of_kit(&kit()).expect("the kit can be");
        bench.iter_batched(
            fresh,
            |stock: Stock| whole_job(black_box(&shots), &stock, &Going::default()),
            BatchSize::PerIteration,
        );
    });
}

criterion_group! {
    name = benches;
    config = Criterion::default().without_plots().sample_size(10).measurement_time(Duration::from_secs(3));
    targets = one_light, larger
}
criterion_main!(benches);
