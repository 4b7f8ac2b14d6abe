//! The stage in the picture: light has a direction, shadows fall where geometry says, and parts stand where the core says.

use pebble_core::file::stage::{Composition, Grip, Hair, Outfit, Person, Place, Pose, Prop, Thing};
use pebble_core::shot::{DrawnAs, Reading, Role, Shot};
use pebble_core::stage::space::spot;
use pebble_core::staging::staging;
use pebble_core::{Outlook, Plan, outlook};
use pebble_picture::{Crop, Kept, Layers, Photo, Picture, Request, first_look, reduced, render, render_while};
use std::sync::atomic::AtomicBool;

const WIDTH: u32 = 480;

fn example(name: &str) -> Shot {
    let path = format!("{}/../../docs/examples/{name}.json", env!("CARGO_MANIFEST_DIR"));
    serde_json::from_str(&std::fs::read_to_string(path).expect("the example is there")).expect("the example is a shot")
}

/// One light on a stage, nothing moves, and the room is dark.
fn lit(stage: Composition, bearing_deg: f64, height_deg: f64) -> Shot {
    let mut shot = example("card-on-a-wall");
    shot.parts.clear();
    (shot.ambient.subject, shot.ambient.background) = (Reading::Lux { lux: 0.0 }, Reading::Lux { lux: 0.0 });
    shot.lights.truncate(1);
    let light = &mut shot.lights[0];
    (light.bearing_deg, light.height_deg, light.distance_m) = (bearing_deg, height_deg, 3.0);
    // The smallest light there is.
    light.modifier.face_radius_m = 0.0;
    light.power = 0.5;
    shot.stage = Some(stage);
    shot
}

/// Nobody and nothing in a place, the lens at the height of the chest.
pub fn empty(place: Place) -> Composition {
    Composition {
        place,
        camera_height_m: 1.3,
        aim_height_m: 1.3,
        upright: None,
        people: Vec::new(),
        things: Vec::new(),
        picture: None,
    }
}

fn with(place: Place, pose: Pose) -> Composition {
    Composition { people: vec![Person::new(pose)], ..empty(place) }
}

struct Seen {
    plan: Plan,
    outlook: Outlook,
    picture: Picture,
}

fn seen(shot: &Shot, layers: Layers) -> Seen {
    let plan = Plan::try_from(shot).expect("the shot is a plan");
    let outlook = outlook(&plan);
    let picture = render(&plan, &outlook, &Request { width: WIDTH, layers, crop: Crop::WHOLE });
    Seen { plan, outlook, picture }
}

impl Seen {
    /// Linear light (IEC 61966-2-1) of a pixel, green.
    fn linear(&self, column: f64, row: f64) -> f64 {
        let (x, y) = (column.round() as u32, row.round() as u32);
        let code = f64::from(self.picture.rgba[((y * self.picture.width + x) * 4 + 1) as usize]) / 255.0;
        if code <= 0.040_45 { code / 12.92 } else { ((code + 0.055) / 1.055).powf(2.4) }
    }

    /// Pixels per metre at the subject.
    fn scale(&self) -> f64 {
        let field = self.outlook.field(&self.plan).0.as_metres();
        f64::from(self.picture.width) / field
    }

    fn middle(&self) -> (f64, f64) {
        (f64::from(self.picture.width - 1) / 2.0, f64::from(self.picture.height - 1) / 2.0)
    }
}

#[test]
fn a_ball_shows_the_cosine_of_the_light_in_every_direction() {
    const RADIUS: f64 = 0.3;
    for (bearing, height) in [(0.0, 0.0), (40.0, 20.0), (-70.0, 10.0), (25.0, 60.0)] {
        let mut stage = empty(Place::EvenWall);
        let ball = Thing { what: Prop::Sphere, right_m: 0.0, away_m: 0.0, up_m: 1.0, size: 2.0, turned_deg: 0.0 };
        stage.things.push(ball);
        let shot = lit(stage, bearing, height);
        let seen = seen(&shot, Layers::Flash);
        // A grey ball of the mark's own light: level of a card of 18 % that faces it.
        let faced = 0.18 * seen.outlook.lights[0].in_a_whole_row().as_ratio();
        let light = seen.outlook.lights[0].from;
        let (cx, cy) = seen.middle();
        let mut compared = 0;
        for (right, up) in [(0.0, 0.0), (0.12, 0.0), (-0.15, 0.1), (0.05, 0.18), (0.0, -0.16), (0.2, 0.05)] {
            // Where the ray through that place meets the ball, seen from the lens.
            let distance = seen.plan.subject_distance.as_metres();
            let way: [f64; 3] = [right, distance, up];
            let long = way.iter().map(|part| part * part).sum::<f64>();
            let ahead = distance * distance / long;
            let near = ahead - ((ahead * ahead) - (distance * distance - RADIUS * RADIUS) / long).sqrt();
            let normal = [way[0] * near, way[1] * near - distance, way[2] * near].map(|part| part / RADIUS);
            let cosine = normal[0] * light[0] - normal[1] * light[1] + normal[2] * light[2];
            // Near where the light sets its apparent size counts.
            if cosine < 0.15 {
                continue;
            }
            let got = seen.linear(cx + right * seen.scale(), cy - up * seen.scale());
            // Walls throw a little back into the shade.
            let bounced = seen.plan.stage.surroundings().bounces;
            let want = faced * (bounced + (1.0 - bounced) * cosine);
            assert!((got / want - 1.0).abs() < 0.04, "{bearing}°, {height}°, at {right}, {up}: {got:.4} for {want:.4}");
            compared += 1;
        }
        assert!(compared >= 3, "{bearing}°: {compared}");
    }
}

#[test]
fn a_grey_card_at_the_mark_has_the_level_of_each_light_and_of_all_together() {
    let mut stage = empty(Place::PaperBlack);
    let card = Thing { what: Prop::Card, right_m: 0.0, away_m: 0.0, up_m: 1.15, size: 1.0, turned_deg: 0.0 };
    stage.things.push(card);
    let mut shot = lit(stage, 20.0, 10.0);
    let mut other = shot.lights[0].clone();
    (other.role, other.bearing_deg, other.height_deg) = (Role::Fill, -35.0, 25.0);
    shot.lights.push(other);
    let level = |shot: &Shot| {
        let seen = seen(shot, Layers::Flash);
        let (x, y) = seen.middle();
        // What a flat receiver that faces the camera gets of each: the cosine law.
        let want: f64 =
            seen.outlook.firing().map(|(_, light)| 0.18 * light.in_a_whole_row().as_ratio() * light.from[1]).sum();
        let bounced = seen.plan.stage.surroundings().bounces;
        let all: f64 = seen.outlook.firing().map(|(_, light)| 0.18 * light.in_a_whole_row().as_ratio()).sum();
        (seen.linear(x, y), want + bounced * (all - want))
    };
    for muted in [None, Some(0), Some(1)] {
        let mut shot = shot.clone();
        if let Some(muted) = muted {
            shot.lights[muted].on = false;
        }
        let (got, want) = level(&shot);
        assert!((got / want - 1.0).abs() < 0.02, "without {muted:?}: {got:.4} for {want:.4}");
    }
}

/// A card beside the mark gets what the beam leaves there, and all of it when the light is turned to it.
#[test]
fn who_stands_elsewhere_is_lit_by_the_beam_that_is_turned_to_them() {
    const BESIDE_M: f64 = 0.7;
    let mut stage = empty(Place::PaperBlack);
    let card = Thing { what: Prop::Card, right_m: BESIDE_M, away_m: 0.0, up_m: 1.15, size: 1.0, turned_deg: 0.0 };
    stage.things.push(card);
    let mut shot = lit(stage, 0.0, 0.0);
    shot.lights[0].modifier.half_angle_deg = Some(20.0);
    let chest = spot(BESIDE_M, 0.0, 1.3);
    let level = |shot: &Shot| {
        let seen = seen(shot, Layers::Flash);
        let (x, y) = seen.middle();
        let falls = seen.outlook.lamp(&seen.plan, 0).on(chest);
        (seen.linear(x + BESIDE_M * seen.scale(), y), falls)
    };
    let straight = level(&shot);
    let by = BESIDE_M.atan2(shot.lights[0].distance_m).to_degrees();
    (shot.lights[0].off_axis_deg, shot.lights[0].off_axis_towards_deg) = (by, Some(0.0));
    let turned = level(&shot);
    let (got, want) = (turned.0 / straight.0, turned.1 / straight.1);
    assert!(want > 1.2, "the beam matters: {want:.2}");
    assert!((got / want - 1.0).abs() < 0.03, "{got:.3} in the picture for {want:.3}");
    // To the other side it is turned away from them.
    shot.lights[0].off_axis_towards_deg = Some(180.0);
    assert!(level(&shot).0 < 0.8 * straight.0);
}

#[test]
fn a_shadow_falls_on_the_wall_where_the_light_says() {
    let mut stage = empty(Place::PaperLight);
    let ball = Thing { what: Prop::Sphere, right_m: 0.0, away_m: 0.0, up_m: 1.0, size: 2.0, turned_deg: 0.0 };
    stage.things.push(ball);
    let mut shot = lit(stage, -30.0, 0.0);
    shot.background.behind_m = 1.0;
    shot.background.reflectance = 0.5;
    let with = seen(&shot, Layers::Flash);
    shot.stage.as_mut().unwrap().things.clear();
    let without = seen(&shot, Layers::Flash);
    // From the light, 3 m away at 30° to the camera's left, past the ball at the mark's chest, to the wall a metre behind.
    let (sin, cos) = 30.0_f64.to_radians().sin_cos();
    let right = 1.0 * sin / cos;
    let distance = with.plan.subject_distance.as_metres();
    let scale = with.scale() * distance / (distance + 1.0);
    let (cx, cy) = with.middle();
    let share = |right: f64| with.linear(cx + right * scale, cy) / without.linear(cx + right * scale, cy);
    assert!(share(right) < 0.1, "in the middle of the shadow: {}", share(right));
    assert!(share(right + 0.75) > 0.9 && share(-right) > 0.9, "{} and {}", share(right + 0.75), share(-right));
}

#[test]
fn a_rim_is_brightest_at_the_edge_and_a_front_light_is_not() {
    let ball = Thing { what: Prop::Sphere, right_m: 0.0, away_m: 0.0, up_m: 1.0, size: 2.0, turned_deg: 0.0 };
    let stage = Composition { things: vec![ball], ..empty(Place::PaperBlack) };
    let at = |bearing: f64, role: Role| {
        let mut shot = lit(stage.clone(), bearing, 0.0);
        shot.lights[0].role = role;
        let seen = seen(&shot, Layers::Flash);
        let (cx, cy) = seen.middle();
        [0.0, 0.2, 0.285].map(|right| seen.linear(cx + right * seen.scale(), cy))
    };
    let [middle, _, edge] = at(140.0, Role::Rim);
    assert!(edge > 10.0 * middle.max(1e-4), "{edge} at the edge, {middle} in the middle");
    let [middle, beside, edge] = at(0.0, Role::Key);
    assert!(middle > beside && beside > edge, "{middle}, {beside}, {edge}");
}

#[test]
fn a_large_light_has_a_soft_shade_and_a_small_one_a_hard_one() {
    let width = |radius: f64| {
        let ball = Thing { what: Prop::Sphere, right_m: 0.0, away_m: 0.0, up_m: 1.0, size: 2.0, turned_deg: 0.0 };
        let mut shot = lit(Composition { things: vec![ball], ..empty(Place::PaperLight) }, -30.0, 0.0);
        (shot.background.behind_m, shot.background.reflectance) = (1.0, 0.5);
        shot.lights[0].modifier.face_radius_m = radius;
        let with = seen(&shot, Layers::Flash);
        shot.stage.as_mut().unwrap().things.clear();
        let without = seen(&shot, Layers::Flash);
        let (middle, row) = with.middle();
        // From beside the ball to the edge of the frame.
        let columns = (middle as u32 + (0.32 * with.scale()) as u32)..WIDTH;
        let share = |column: u32| with.linear(f64::from(column), row) / without.linear(f64::from(column), row);
        columns.filter(|column| (0.2..0.8).contains(&share(*column))).count()
    };
    assert!(width(0.7) > 3 * width(0.02), "{} and {} pixels of half shade", width(0.7), width(0.02));
}

#[test]
fn parts_stand_in_the_picture_where_the_core_says() {
    for pose in [Pose::Stand, Pose::Leap, Pose::Fence, Pose::Kick] {
        let mut shot = lit(with(Place::PaperBlack, pose), -20.0, 20.0);
        shot.subject.distance_m = 9.0;
        shot.stage.as_mut().unwrap().aim_height_m = 1.0;
        // Shoes of white that nothing else is: it is found by its tone.
        let mut part = example("card-on-a-wall").parts[0].clone();
        (part.drawn_as, part.speed_m_s, part.reflectance) = (DrawnAs::Feet, 0.0, 0.9);
        shot.parts.push(part.clone());
        let bright = seen(&shot, Layers::Flash);
        shot.parts[0].reflectance = 0.02;
        let dark = seen(&shot, Layers::Flash);
        let staged = staging(&bright.plan, true);
        let at = &staged.parts[0].at;
        let (wide, high) = (bright.picture.width as usize, bright.picture.height as usize);
        let differs = |x: usize, y: usize| {
            let at = (y * wide + x) * 4;
            bright.picture.rgba[at].abs_diff(dark.picture.rgba[at]) > 24
        };
        let (mut inside, mut outside) = (0, 0);
        for y in 0..high {
            for x in 0..wide {
                if differs(x, y) {
                    let (across, down) = (x as f64 / wide as f64, y as f64 / high as f64);
                    let within = (at.left..at.right).contains(&across) && (at.top..at.bottom).contains(&down);
                    *if within { &mut inside } else { &mut outside } += 1;
                }
            }
        }
        assert!(inside > 40 && outside * 8 < inside, "{pose:?}: {inside} inside, {outside} outside");
    }
}

#[test]
fn a_mirrored_pose_is_a_mirrored_picture() {
    for pose in [Pose::Run, Pose::Punch, Pose::Serve] {
        let draw = |mirrored: bool| {
            let mut stage = with(Place::EvenWall, pose);
            stage.people[0].mirrored = mirrored;
            seen(&lit(stage, 0.0, 30.0), Layers::Flash).picture
        };
        let (own, other) = (draw(false), draw(true));
        let wide = own.width as usize;
        let mut off = 0;
        for (a, b) in own.rgba.chunks_exact(wide * 4).zip(other.rgba.chunks_exact(wide * 4)) {
            for column in 0..wide {
                let there = (wide - 1 - column) * 4;
                off += usize::from(a[column * 4].abs_diff(b[there]) > 30);
            }
        }
        // Edges fall on other halves of pixels.
        assert!(off * 200 < own.rgba.len() / 4, "{pose:?}: {off} pixels differ");
    }
}

#[test]
fn every_pose_place_outfit_and_thing_is_drawn() {
    let spread = |stage: Composition| {
        let mut shot = lit(Composition { aim_height_m: 0.9, ..stage }, -30.0, 30.0);
        (shot.lights[0].power, shot.subject.distance_m) = (1.0, 8.0);
        shot.ambient.subject = Reading::Lux { lux: 300.0 };
        shot.ambient.background = Reading::Lux { lux: 300.0 };
        let plan = Plan::try_from(&shot).expect("a plan");
        let request = Request { width: 150, layers: Layers::Both, crop: Crop::WHOLE };
        let picture = render(&plan, &outlook(&plan), &request);
        let mut codes: Vec<u8> = picture.rgba.chunks_exact(4).map(|pixel| pixel[1]).collect();
        codes.sort_unstable();
        codes.dedup();
        codes.len()
    };
    for pose in Pose::ALL {
        assert!(spread(with(Place::PaperGrey, *pose)) > 10, "{pose:?}");
    }
    for place in Place::ALL.iter().filter(|place| **place != Place::EvenWall) {
        assert!(spread(empty(*place)) > 8, "{place:?}");
    }
    for outfit in Outfit::ALL {
        let person = Person { outfit: *outfit, ..Person::new(Pose::Walk) };
        assert!(spread(Composition { people: vec![person], ..empty(Place::PaperGrey) }) > 20, "{outfit:?}");
    }
    for hair in Hair::ALL {
        let person = Person { hair: *hair, ..Person::new(Pose::HeadToss) };
        assert!(spread(Composition { people: vec![person], ..empty(Place::PaperGrey) }) > 20, "{hair:?}");
    }
    for prop in Prop::ALL {
        let held = Person { with: vec![*prop], ..Person::new(Pose::Stand) };
        let thing = Thing { what: *prop, right_m: 0.3, away_m: -0.2, up_m: 0.2, size: 1.0, turned_deg: 20.0 };
        let stage = Composition { people: vec![held], things: vec![thing], ..empty(Place::PaperGrey) };
        assert!(spread(stage) > 20, "{prop:?}");
    }
}

#[test]
fn odd_sets_are_drawn_without_a_slip() {
    let people = |count: usize| -> Vec<Person> {
        (0..count).map(|k| Person { right_m: k as f64 * 0.05, ..Person::new(Pose::ALL[k % Pose::ALL.len()]) }).collect()
    };
    type Compose = Box<dyn Fn(&mut Shot)>;
    let cases: Vec<(&str, Compose)> = vec![
        (
            "twelve in a frame that is a metre wide",
            Box::new(move |shot| {
                shot.subject.distance_m = 1.2;
                shot.stage.as_mut().unwrap().people = people(12);
            }),
        ),
        (
            "a camera in the subject",
            Box::new(|shot| {
                let stage = shot.stage.as_mut().unwrap();
                stage.people[0].away_m = 0.3 - shot.subject.distance_m;
            }),
        ),
        (
            "a camera on the floor that looks up",
            Box::new(|shot| {
                let stage = shot.stage.as_mut().unwrap();
                (stage.camera_height_m, stage.aim_height_m) = (0.02, 20.0);
            }),
        ),
        (
            "a camera that looks straight down",
            Box::new(|shot| {
                let stage = shot.stage.as_mut().unwrap();
                (stage.camera_height_m, stage.aim_height_m) = (30.0, 0.0);
            }),
        ),
        ("a light inside a body", Box::new(|shot| shot.lights[0].distance_m = 0.2)),
        ("a person as flat as can be", Box::new(|shot| shot.stage.as_mut().unwrap().people[0].height_m = 0.5)),
    ];
    for (name, compose) in cases {
        for place in [Place::BrightHall, Place::Beach, Place::PaperBlack] {
            let mut shot = lit(with(place, Pose::Stand), 10.0, 20.0);
            compose(&mut shot);
            let picture = seen(&shot, Layers::Both).picture;
            assert_eq!(picture.rgba.len() as u32, picture.width * picture.height * 4, "{name}");
        }
    }
}

#[test]
fn upright_the_picture_stands_and_its_curtains_run_across() {
    let mut shot = lit(with(Place::PaperLight, Pose::Stand), -30.0, 20.0);
    shot.background.reflectance = 0.4;
    shot.background.spill_stops = 4.0;
    // Too short for the curtains: a band at one edge gets no flash.
    shot.camera.shutter = "1/500".to_owned();
    let held = |upright: Option<Grip>| {
        let mut shot = shot.clone();
        shot.stage.as_mut().unwrap().upright = upright;
        seen(&shot, Layers::Flash)
    };
    let level = held(None);
    assert!(level.picture.width > level.picture.height);
    let edges = |seen: &Seen| {
        let (wide, high) = (f64::from(seen.picture.width), f64::from(seen.picture.height));
        [(wide / 2.0, 2.0), (wide / 2.0, high - 3.0), (2.0, high / 3.0), (wide - 3.0, high / 3.0)]
            .map(|(x, y)| seen.linear(x, y))
    };
    let [top, bottom, ..] = edges(&level);
    let dark_below = bottom < top;
    for grip in [Grip::Up, Grip::Down] {
        let upright = held(Some(grip));
        assert!(upright.picture.height > upright.picture.width);
        let [_, _, left, right] = edges(&upright);
        // The sensor's lower edge is the right one with the grip up, the left one with the grip down.
        let dark_right = right < left;
        assert_eq!(dark_right, dark_below == (grip == Grip::Up), "{grip:?}: {left} left, {right} right");
        // And a crop is of what is seen.
        let request = Request { width: 200, layers: Layers::Flash, crop: Crop { left: 0.25, top: 0.25, size: 0.5 } };
        let crop = render(&upright.plan, &upright.outlook, &request);
        assert!(crop.height > crop.width);
        let (x, y) = (crop.width / 2, crop.height / 2);
        let (a, b) = (crop.rgba[((y * crop.width + x) * 4) as usize], {
            let (x, y) = (upright.picture.width / 2, upright.picture.height / 2);
            upright.picture.rgba[((y * upright.picture.width + x) * 4) as usize]
        });
        assert!(a.abs_diff(b) < 40, "{grip:?}: {a} and {b} in the middle");
    }
}

#[test]
fn an_own_picture_stands_behind_the_subject_with_its_horizon_where_it_was_put() {
    // Blue above its middle, green below.
    let mut bytes = Vec::new();
    {
        let mut encoder = png_of(&mut bytes);
        let rows: Vec<u8> = (0..200)
            .flat_map(|y| (0..300).flat_map(move |_| if y < 100 { [20, 40, 200] } else { [30, 160, 30] }))
            .collect();
        encoder.write_image_data(&rows).expect("written to memory");
    }
    let photo = Photo::read(&reduced(&bytes).expect("it is a picture")).expect("it is read");
    // From the side: a light before the lens would stand in the picture.
    let mut shot = lit(empty(Place::FieldDay), 90.0, 20.0);
    shot.ambient.background = Reading::Lux { lux: 20_000.0 };
    let horizon = |share: f64| {
        let mut shot = shot.clone();
        let stage = shot.stage.as_mut().unwrap();
        stage.picture =
            Some(pebble_core::file::stage::OwnPicture { id: "0".repeat(64), horizon_share: share, jpeg_base64: None });
        let plan = Plan::try_from(&shot).expect("a plan");
        let request = Request { width: 300, layers: Layers::Ambient, crop: Crop::WHOLE };
        let picture =
            render_while((&plan, &outlook(&plan)), &request, (Some(&photo), &Kept::default()), &AtomicBool::new(true))
                .expect("drawn");
        // The first row that is greener than blue.
        let rows = picture.rgba.chunks_exact(picture.width as usize * 4);
        rows.map(|row| &row[600..604]).position(|pixel| pixel[1] > pixel[2]).unwrap_or(picture.height as usize) as f64
            / f64::from(picture.height)
    };
    // The lens is level: the horizon is in the middle of the frame, and the picture's own middle with it.
    assert!((horizon(0.5) - 0.5).abs() < 0.02, "{}", horizon(0.5));
    assert!(horizon(0.3) > 0.65, "put higher in the picture, what is under it comes up later: {}", horizon(0.3));
}

fn png_of(bytes: &mut Vec<u8>) -> png::Writer<&mut Vec<u8>> {
    let mut encoder = png::Encoder::new(bytes, 300, 200);
    encoder.set_color(png::ColorType::Rgb);
    encoder.set_depth(png::BitDepth::Eight);
    encoder.write_header().expect("written to memory")
}

/// What one picture leaves for the next never shows: each is the picture that would be drawn with nothing kept.
#[test]
fn a_picture_is_the_same_whatever_was_drawn_before_it() {
    let kept = Kept::default();
    for name in ["double-ropes", "lantern-slalom", "roller-hall", "silks"] {
        let base = example(name);
        let mut shots = vec![base.clone(); 8];
        shots[1].lights[0].power /= 2.0;
        shots[2].camera.shutter = "1/30".to_owned();
        shots[3].lights[0].distance_m *= 1.2;
        shots[4].subject.distance_m *= 1.1;
        shots[5].parts[0].reflectance *= 0.5;
        shots[6].lights[0].on = false;
        shots[7].lights[0].bearing_deg += 20.0;
        shots.push(base);
        for (step, shot) in shots.iter().enumerate() {
            let plan = Plan::try_from(shot).expect("a plan");
            let outlook = outlook(&plan);
            let request = Request { width: 240, layers: Layers::Both, crop: Crop::WHOLE };
            let wanted = AtomicBool::new(true);
            let after = render_while((&plan, &outlook), &request, (None, &kept), &wanted).expect("it is wanted");
            assert!(after == render(&plan, &outlook, &request), "{name}, step {step}");
        }
    }
}

#[test]
fn a_light_that_stands_in_the_frame_is_drawn_where_it_stands() {
    let stage = Composition { camera_height_m: 1.3, ..with(Place::PaperBlack, Pose::Stand) };
    let mut shot = lit(stage, -10.0, 20.0);
    (shot.lights[0].role, shot.background.behind_m) = (Role::Key, 6.0);
    let mut behind = shot.lights[0].clone();
    // Three metres behind the mark and a metre to the right, at the height of the lens.
    (behind.role, behind.group) = (Role::InSet, "B".to_owned());
    (behind.distance_m, behind.height_deg) = (10.0_f64.sqrt(), 0.0);
    behind.bearing_deg = (1.0_f64).atan2(-3.0).to_degrees();
    shot.lights.push(behind);
    let seen = seen(&shot, Layers::Flash);
    let distance = seen.plan.subject_distance.as_metres();
    let (cx, cy) = seen.middle();
    let right = seen.scale() * distance / (distance + 3.0);
    assert!(seen.linear(cx + right, cy) > 0.95, "its face is white: {}", seen.linear(cx + right, cy));
    assert!(seen.linear(cx + 2.0 * right.min(cx / 2.0), cy) < 0.5, "and beside it it is not");
}

/// A head over the frame with its stand in it: the stand is drawn, as it is found; on a boom nothing is.
#[test]
fn a_stand_is_drawn_where_it_is_found_and_a_boom_takes_it_out() {
    let with_boom = |boom: Option<f64>| {
        let stage = Composition { camera_height_m: 1.3, ..with(Place::PaperGrey, Pose::Stand) };
        let mut shot = lit(stage, -8.0, 40.0);
        (shot.lights[0].role, shot.lights[0].distance_m, shot.lights[0].boom_m) = (Role::Key, 2.4, boom);
        shot.ambient.subject = Reading::Lux { lux: 30_000.0 };
        shot.ambient.background = Reading::Lux { lux: 30_000.0 };
        let plan = Plan::try_from(&shot).expect("a plan");
        let found = pebble_core::conditions::all(&plan, &outlook(&plan));
        let found = found.iter().any(|one| one.matter == pebble_core::conditions::Matter::OutOfFrame);
        let request = Request { width: 300, layers: Layers::Ambient, crop: Crop::WHOLE };
        let nobody_waits = AtomicBool::new(true);
        let picture = render_while((&plan, &outlook(&plan)), &request, (None, &Kept::default()), &nobody_waits);
        (found, picture.expect("drawn").rgba)
    };
    let (stands, hangs) = (with_boom(None), with_boom(Some(4.0)));
    assert!(stands.0 && !hangs.0, "the stand is found, the boom is not: {} {}", stands.0, hangs.0);
    let other = stands.1.chunks_exact(4).zip(hangs.1.chunks_exact(4)).filter(|(a, b)| a[1].abs_diff(b[1]) > 12).count();
    assert!(other > 40, "only {other} pixels differ");
}

/// While the hand goes on a picture of somebody who was not drawn before is half as wide, in nobody's shade, and of the same
/// levels; of somebody who was it is the picture that is asked for, and so it is once that was drawn.
#[test]
fn a_first_look_is_soon_and_then_the_picture_itself() {
    let (kept, wanted) = (Kept::default(), AtomicBool::new(true));
    let request = Request { width: 296, layers: Layers::Both, crop: Crop::WHOLE };
    let mut shot = example("sabre-reach");
    for turned in [0.0, 35.0] {
        // Somebody new, and then a light from elsewhere.
        shot.lights[0].bearing_deg += turned;
        let plan = Plan::try_from(&shot).expect("a plan");
        let seen = outlook(&plan);
        let look = || first_look((&plan, &seen), &request, (None, &kept), &wanted).expect("it is wanted");
        let (first, whole) = (look(), render(&plan, &seen, &request));
        assert_eq!((first.width, first.height), (148, whole.height.div_ceil(2)));
        let mean = |picture: &Picture| {
            picture.rgba.iter().map(|code| f64::from(*code)).sum::<f64>() / picture.rgba.len() as f64
        };
        assert!((mean(&first) / mean(&whole) - 1.0).abs() < 0.12, "{} for {}", mean(&first), mean(&whole));
        assert!(look() == first, "a first look alone makes nobody known");
        let better = render_while((&plan, &seen), &request, (None, &kept), &wanted).expect("it is wanted");
        assert!(better == whole && look() == whole);
        // What changes no shade keeps them known: power is turned, the aperture closed.
        let mut darker = shot.clone();
        (darker.lights[0].power, darker.camera.aperture_f) = (0.25, 8.0);
        let plan = Plan::try_from(&darker).expect("a plan");
        let seen = outlook(&plan);
        let turned = first_look((&plan, &seen), &request, (None, &kept), &wanted).expect("it is wanted");
        assert_eq!(turned.width, 296);
        assert!(turned == render(&plan, &seen, &request));
    }
}

/// Places of a colour in a picture, as columns and rows.
fn places(picture: &Picture, is: impl Fn([u8; 3]) -> bool) -> Vec<(f64, f64)> {
    let pixels = picture.rgba.chunks_exact(4).enumerate();
    pixels
        .filter(|(_, pixel)| is([pixel[0], pixel[1], pixel[2]]))
        .map(|(index, _)| {
            let wide = picture.width as usize;
            ((index % wide) as f64, (index / wide) as f64)
        })
        .collect()
}

/// Cloth lags behind who runs and leaps, to the other side in the mirror, and flies out around who turns.
#[test]
fn a_skirt_lags_behind_who_runs_and_flies_out_around_who_turns() {
    let dressed = |pose: Pose, mirrored: bool| {
        let mut stage = empty(Place::PaperBlack);
        let mut person = Person::new(pose);
        (person.outfit, person.cloth_hue_deg, person.mirrored) = (Outfit::Dress, Some(280.0), mirrored);
        stage.people.push(person);
        let shot = lit(stage, 10.0, 15.0);
        let plan = Plan::try_from(&shot).expect("a plan");
        let request = Request { width: WIDTH, layers: Layers::Flash, crop: Crop::WHOLE };
        // Violet: more red and blue than green.
        let cloth = places(&render(&plan, &outlook(&plan), &request), |[red, green, blue]| {
            u32::from(red) + u32::from(blue) > 3 * u32::from(green).max(12)
        });
        assert!(cloth.len() > 100, "{pose:?}: {} places", cloth.len());
        cloth
    };
    // Of the upper half of the dress, and of its hem: the middle, and how wide.
    let measured = |mut cloth: Vec<(f64, f64)>| {
        cloth.sort_by(|a, b| a.1.total_cmp(&b.1));
        let of = |part: &[(f64, f64)]| {
            let (low, high) = part.iter().fold((f64::MAX, f64::MIN), |(low, high), (x, _)| (low.min(*x), high.max(*x)));
            (part.iter().map(|(x, _)| x).sum::<f64>() / part.len() as f64, high - low)
        };
        let (upper, hem) = (of(&cloth[..cloth.len() / 3]), of(&cloth[cloth.len() * 2 / 3..]));
        (hem.0 - upper.0, hem.1)
    };
    let (stands, narrow) = measured(dressed(Pose::Stand, false));
    let (runs, _) = measured(dressed(Pose::Run, false));
    let (mirrored, _) = measured(dressed(Pose::Run, true));
    assert!(runs.abs() > stands.abs() + 4.0, "{runs:.1} against {stands:.1} columns");
    assert!((runs + mirrored).abs() < 0.2 * runs.abs() + 1.0, "{runs:.1} and {mirrored:.1}");
    let (_, turning) = measured(dressed(Pose::Spin, false));
    assert!(turning > 1.3 * narrow, "{turning} wide, {narrow} standing");
}
