use pebble_core::matching::*;
use std::time::Instant;
fn main() {
    let kit: pebble_core::gear::Kit = serde_json::from_str(include_str!("../../../docs/examples/kit.json")).unwrap();
    let stock = Stock::of_kit(&kit).unwrap();
    for name in ["double-ropes", "lantern-slalom", "slipway-spin", "sabre-reach", "finishers-wall", "silks", "roller-hall", "card-on-a-wall"] {
        let text = std::fs::read_to_string(format!("docs/examples/{name}.json")).unwrap();
        for any in [false, true] {
            let mut shot: pebble_core::Shot = serde_json::from_str(&text).unwrap();
            shot.wish = Some(Wish { any_modifier: Some(any), high_speed: Some(any), ..Wish::default() });
            let plan = pebble_core::Plan::try_from(&shot).unwrap();
            let mut problem = Problem::new(&shot, &plan).unwrap();
            let now = Instant::now();
            let found = find(&problem, &stock, Priority::Balanced, &Going::default()).unwrap();
            println!("{name} any={any}: {} classes, {} ways, {:?}", found.len(), found.iter().map(|f| f.ways).sum::<u64>(), now.elapsed());
            for one in found.iter().take(3) {
                let c = one.candidate(&problem, &stock);
                println!("   {} x{} {} 1/{:.1} {:.1} m f{:.1} {:.4} iso {:.0} nd {:?} glow {} cost {:.3} ways {}", c.unit.wire.name, c.heads, c.modifier.name, 1.0 / c.power, c.distance.as_metres(), c.aperture.number(), c.shutter.time().as_secs(), c.iso.number(), c.filter, c.glow, one.cost, one.ways);
            }
            if found.is_empty() {
                let now = Instant::now();
                let near = nearest(&mut problem, &stock, &Going::default()).unwrap();
                println!("   nearest {} in {:?}", near.len(), now.elapsed());
                for one in near.iter().take(6) {
                    let c = one.found.candidate(&problem, &stock);
                    println!("   {:.2} {:?} {} x{} {} 1/{:.1} {:.1} m f{:.1} {:.4} iso {:.0}", one.price(), one.gives, c.unit.wire.name, c.heads, c.modifier.name, 1.0 / c.power, c.distance.as_metres(), c.aperture.number(), c.shutter.time().as_secs(), c.iso.number());
                }
            }
        }
    }
}
