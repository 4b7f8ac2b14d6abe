//! A contact sheet: `contact FILE.json OUT.png WIDTH COLUMNS [what]`, with `what` one of poses, places, or nothing for the shot.

use pebble_core::file::stage::{Composition, Person, Place, Pose};
use pebble_core::stage::Stage;
use pebble_core::{Plan, Shot, outlook};
use pebble_picture::{Crop, Kept, Layers, Picture, Request, render, render_while};
use std::sync::atomic::AtomicBool;

fn main() {
    let args: Vec<String> = std::env::args().collect();
    let width: u32 = args[3].parse().expect("a width");
    let columns: usize = args[4].parse().expect("columns");
    let mut shots: Vec<Shot> = Vec::new();
    for file in args[1].split(',') {
        let shot: Shot = serde_json::from_str(&std::fs::read_to_string(file).expect("a file")).expect("a shot");
        let base = shot.stage.clone().unwrap_or_else(|| Stage::of_scene(shot.scene));
        match args.get(5).map(String::as_str) {
            Some("poses") => shots.extend(Pose::ALL.iter().map(|pose| {
                let person = Person { ..Person { pose: *pose, right_m: 0.0, ..base.people[0].clone() } };
                let people = vec![Person { with: Vec::new(), ..person }];
                Shot { stage: Some(Composition { people, things: Vec::new(), ..base.clone() }), ..shot.clone() }
            })),
            Some("places") => shots.extend(
                Place::ALL
                    .iter()
                    .map(|place| Shot { stage: Some(Composition { place: *place, ..base.clone() }), ..shot.clone() }),
            ),
            _ => shots.push(shot),
        }
    }
    let mut pictures = Vec::new();
    for shot in &shots {
        let plan = Plan::try_from(shot).expect("a plan");
        let seen = outlook(&plan);
        let request = Request { width, layers: Layers::Both, crop: Crop::WHOLE };
        let began = std::time::Instant::now();
        let mut picture = render(&plan, &seen, &request);
        let first = began.elapsed();
        let mut best = first;
        let kept = Kept::default();
        if std::env::var("TIMES").is_ok() {
            for _ in 0..12 {
                let began = std::time::Instant::now();
                picture = render_while((&plan, &seen), &request, (None, &kept), &AtomicBool::new(true)).expect("drawn");
                best = best.min(began.elapsed());
            }
        }
        println!(
            "{:>8.2?} {:>8.2?} {} {:?}",
            first,
            best,
            shot.title,
            shot.stage.as_ref().map(|s| (s.place, s.people.first().map(|p| p.pose)))
        );
        pictures.push(picture);
    }
    let (w, h) = (pictures[0].width as usize, pictures[0].height as usize);
    let rows = pictures.len().div_ceil(columns);
    let mut sheet =
        Picture { width: (w * columns) as u32, height: (h * rows) as u32, rgba: vec![40; w * columns * h * rows * 4] };
    for (index, picture) in pictures.iter().enumerate() {
        let (x, y) = (index % columns * w, index / columns * h);
        for row in 0..h.min(picture.height as usize) {
            let wide = w.min(picture.width as usize);
            let from = row * picture.width as usize * 4;
            let to = ((y + row) * w * columns + x) * 4;
            sheet.rgba[to..to + wide * 4].copy_from_slice(&picture.rgba[from..from + wide * 4]);
        }
    }
    std::fs::write(&args[2], sheet.to_png().expect("png")).expect("written");
}
