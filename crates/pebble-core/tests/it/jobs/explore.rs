use super::*;
fn show(shot: &Shot) {
    let plan = plan(shot);
    println!("\n##### {}", shot.title);
    let f = forecast(&plan);
    for rung in &f.ladder.rungs {
        print!("{} {:?} | ", rung.label, rung.stops);
    }
    println!();
    for p in &f.parts {
        println!(
            "   part {} blur {:.1} px {:?} streak {:.3} state {:?} dL {:.1}",
            p.name, p.blur_px, p.drawn_by, p.streak_share, p.state, p.delta_lightness
        );
    }
    for one in findings::judge(&plan, &outlook(&plan)) {
        println!("  {:?} [{}] {} — {} ", one.severity, one.id, one.title, one.cause);
        for r in &one.remedies {
            println!(
                "       → {} ({}) {:?}",
                r.label,
                r.effect,
                r.changes.iter().map(|c| format!("{} {:?}", c.pointer, c.value)).collect::<Vec<_>>()
            );
        }
        if let Some(u) = &one.unanswered {
            println!("       ✗ {u}");
        }
    }
}
fn key(unit: &str, through: &str, power: f64, d: f64) -> Flash {
    light(Role::Key, (unit, through), (-40.0, 35.0, d), power)
}
#[test]
fn look() {
    // 1 boxer, analogue head
    let mut s = job("boxer, mains head at a sixteenth");
    s.lights.push(key("mallow-600", "octa-90", 1.0 / 16.0, 2.0));
    s.parts.push(part("Glove", Intent::Pebble, 8.0));
    s.parts.push(part("Face", Intent::Pebble, 0.8));
    show(&s);
    // 2 dancer scarf
    let mut s = job("scarf that streaks under house light");
    steady(&mut s, 60.0, 20.0);
    s.camera.shutter = "1/8".into();
    s.lights.push(key("brix-400", "octa-90", 1.0 / 8.0, 2.2));
    let mut scarf = part("Scarf", Intent::Dash, 3.0);
    scarf.streak_share = Some(0.15);
    scarf.reflectance = 0.6;
    scarf.drawn_as = pebble_core::shot::DrawnAs::Scarf;
    s.parts.push(scarf);
    s.parts.push(part("Face", Intent::Pebble, 0.4));
    show(&s);
    // 3 hall lit from two far corners
    let mut s = job("ball under a hall from two corners");
    steady(&mut s, 500.0, 400.0);
    s.camera.iso = 1600.0;
    s.camera.aperture_f = 4.0;
    s.camera.shutter = "1/250".into();
    s.lights.push(light(Role::Key, ("brix-400", "reflector"), (-55.0, 25.0, 9.0), 0.5));
    s.lights.push(light(Role::Key, ("brix-400", "reflector"), (55.0, 25.0, 9.0), 0.5));
    s.targets.ambient_stops = Some(-2.0);
    s.parts.push(part("Ball", Intent::Pebble, 9.0));
    s.parts.push(part("Player", Intent::Skim, 4.0));
    show(&s);
    // 4 fencer at 1/1000 without hss
    let mut s = job("fencer at a thousandth");
    s.camera.shutter = "1/1000".into();
    s.lights.push(key("brix-400", "octa-90", 1.0 / 8.0, 2.2));
    s.parts.push(part("Blade", Intent::Pebble, 12.0));
    show(&s);
    // 5 modelling lamp
    let mut s = job("tumbler with the modelling lamp left on");
    s.camera.shutter = "1/30".into();
    s.camera.iso = 800.0;
    s.camera.aperture_f = 5.6;
    let mut k = key("mallow-600", "octa-90", 1.0 / 32.0, 2.2);
    k.modelling = Some(
        serde_json::from_value(
            serde_json::json!({"lamp": of_the_kit::<serde_json::Value>("lamps","mallow-model"), "mode": "full"}),
        )
        .unwrap_or_else(|e| panic!("{e}")),
    );
    s.lights.push(k);
    s.parts.push(part("Tumbler", Intent::Pebble, 4.0));
    show(&s);
}
