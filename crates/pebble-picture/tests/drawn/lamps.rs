//! Steady lamps that stand somewhere: light from where they are, at the level of the forecast.

use crate::staged::empty;
use pebble_core::conditions::{Matter, all};
use pebble_core::file::stage::{Person, Place, Pose, Prop, Thing};
use pebble_core::shot::{BouncedOff, LampStands, Modelling, ModellingMode, Reading, Role, SetLamp, Shot};
use pebble_core::{Outlook, Plan, outlook};
use pebble_picture::{Crop, Layers, Picture, Request, render};

const WIDTH: u32 = 480;

struct Seen {
    plan: Plan,
    outlook: Outlook,
    picture: Picture,
}

fn seen(shot: &Shot) -> Seen {
    let plan = Plan::try_from(shot).expect("the shot is a plan");
    let outlook = outlook(&plan);
    let picture = render(&plan, &outlook, &Request { width: WIDTH, layers: Layers::Ambient, crop: Crop::WHOLE });
    Seen { plan, outlook, picture }
}

impl Seen {
    /// Linear light (IEC 61966-2-1) at a place of the picture, from its middle, in metres at the subject: red, green, blue.
    fn linear(&self, right: f64, up: f64) -> [f64; 3] {
        let scale = f64::from(self.picture.width) / self.outlook.field(&self.plan).0.as_metres();
        let x = (f64::from(self.picture.width - 1) / 2.0 + right * scale).round() as u32;
        let y = (f64::from(self.picture.height - 1) / 2.0 - up * scale).round() as u32;
        let at = ((y * self.picture.width + x) * 4) as usize;
        std::array::from_fn(|k| {
            let code = f64::from(self.picture.rgba[at + k]) / 255.0;
            if code <= 0.040_45 { code / 12.92 } else { ((code + 0.055) / 1.055).powf(2.4) }
        })
    }
}

fn from(bearing_deg: f64, height_deg: f64) -> Option<LampStands> {
    Some(LampStands { bearing_deg, height_deg, in_set: false })
}

/// A room of so many lux, and one lamp.
fn lit(place: Place, lux: f64, stands: Option<LampStands>) -> Shot {
    let text = include_str!("../../../../docs/examples/card-on-a-wall.json");
    let mut shot: Shot = serde_json::from_str(text).expect("the example is a shot");
    (shot.ambient.subject, shot.ambient.background) = (Reading::Lux { lux }, Reading::Lux { lux });
    shot.parts[0].speed_m_s = 0.0;
    shot.background.behind_m = 3.0;
    shot.camera.shutter = "1/8".to_owned();
    (shot.camera.white_balance_k, shot.ambient.kelvin) = (5500.0, 5500.0);
    shot.stage = Some(empty(place));
    let lamp = serde_json::json!({"id": "rod", "name": "Rod lamp", "lux_at_1m": 20000.0, "colour_k": 5500.0, "flicker": "none"});
    shot.lamps = vec![SetLamp {
        on: true,
        lamp: serde_json::from_value(lamp).expect("a lamp"),
        gel: None,
        level_share: 1.0,
        distance_m: 2.5,
        stands,
        lights_background: true,
        misses: Vec::new(),
    }];
    shot
}

fn with_a_ball(mut shot: Shot) -> Shot {
    shot.parts.clear();
    let ball = Thing { what: Prop::Sphere, right_m: 0.0, away_m: 0.0, up_m: 1.0, size: 2.0, turned_deg: 0.0 };
    shot.stage.as_mut().expect("staged").things.push(ball);
    shot
}

/// The forecast has one level of a card in steady light; from wherever a lamp stands the picture has it too.
#[test]
fn a_card_has_the_forecast_level_from_wherever_the_lamp_stands() {
    for (lux, stands) in [(0.0, from(0.0, 0.0)), (800.0, from(60.0, 20.0)), (800.0, from(-120.0, 10.0)), (800.0, None)]
    {
        let mut shot = lit(Place::EvenWall, lux, stands);
        shot.lamps[0].level_share = 0.3;
        let seen = seen(&shot);
        let want = seen.outlook.parts[0].tones.part_ambient.value() * 0.18;
        let got = seen.linear(0.0, 0.0)[1];
        assert!((got / want - 1.0).abs() < 0.03, "{lux} lux, {stands:?}: {got:.4} for {want:.4}");
        let wall = seen.outlook.parts[0].tones.background_ambient.value() * 0.18;
        let beside = seen.linear(-0.9, 0.4)[1];
        assert!((beside / wall - 1.0).abs() < 0.04, "{lux} lux, {stands:?}: wall {beside:.4} for {wall:.4}");
    }
}

#[test]
fn a_ball_is_lit_from_the_side_on_which_the_lamp_stands() {
    let sides = |stands| {
        let seen = seen(&with_a_ball(lit(Place::PaperBlack, 50.0, stands)));
        [-0.2, 0.2].map(|right| seen.linear(right, 0.0)[1])
    };
    let ([left, right], [mirrored_left, mirrored_right]) = (sides(from(75.0, 10.0)), sides(from(-75.0, 10.0)));
    assert!(right > 3.0 * left, "{left:.4} left, {right:.4} right");
    assert!((right / mirrored_left - 1.0).abs() < 0.05 && (left / mirrored_right - 1.0).abs() < 0.05);
    let [left, right] = sides(None);
    assert!((left / right - 1.0).abs() < 0.1, "from nowhere in particular it is as bright on both sides");
}

/// Three times as far from a lamp the floor has less of it.
#[test]
fn the_floor_is_brighter_on_the_side_of_the_lamp_and_darker_where_somebody_stands_before_it() {
    let mut shot = lit(Place::PaperLight, 20.0, from(80.0, 25.0));
    shot.parts.clear();
    (shot.camera.lens.focal_min_mm, shot.camera.focal_mm) = (24.0, 30.0);
    shot.lamps[0].level_share = 0.1;
    let bare = seen(&shot);
    let [near, far] = [0.7, -0.7].map(|right| bare.linear(right, -1.2)[1]);
    assert!(near > 1.3 * far, "{near:.4} on its side, {far:.4} on the other");
    shot.stage.as_mut().expect("staged").people.push(Person::new(Pose::Stand));
    let shaded = seen(&shot);
    let darkest = (0..60)
        .map(|step| -0.25 - f64::from(step) * 0.01)
        .map(|right| shaded.linear(right, -1.27)[1] / bare.linear(right, -1.27)[1]);
    assert!(darkest.fold(f64::INFINITY, f64::min) < 0.6, "a shadow lies on the floor away from the lamp");
}

#[test]
fn a_lamp_from_behind_draws_the_edges_alone() {
    let edge = seen(&with_a_ball(lit(Place::PaperBlack, 0.0, from(150.0, 15.0))));
    let (middle, side) = (edge.linear(0.0, 0.0)[1], edge.linear(0.285, 0.05)[1]);
    assert!(middle < 0.01 && side > 10.0 * middle.max(0.002), "{middle:.4} in the middle, {side:.4} at the edge");
}

#[test]
fn the_light_of_a_lamp_has_the_colour_of_its_gel_on_its_side_alone() {
    let mut shot = with_a_ball(lit(Place::PaperBlack, 300.0, from(80.0, 0.0)));
    shot.lamps[0].lamp.colour_k = 2700.0;
    let seen = seen(&shot);
    let warm = |right: f64| {
        let [red, _, blue] = seen.linear(right, 0.0);
        red / blue
    };
    assert!(warm(0.2) > 1.5 * warm(-0.25), "{:.2} and {:.2}", warm(0.2), warm(-0.25));
}

#[test]
fn a_lamp_in_the_frame_is_drawn_where_the_core_finds_it() {
    let found = |shot: &Shot| {
        let plan = Plan::try_from(shot).expect("a plan");
        all(&plan, &outlook(&plan)).iter().any(|condition| condition.matter == Matter::LampOutOfFrame)
    };
    let mut inside = lit(Place::PaperGrey, 2000.0, from(150.0, 0.0));
    inside.parts.clear();
    let mut outside = inside.clone();
    outside.lamps[0].stands = from(80.0, 0.0);
    assert!(found(&inside) && !found(&outside));
    let mut none = inside.clone();
    none.lamps[0].stands = None;
    let drawn = |shot: &Shot| seen(shot).picture.rgba;
    let (with, without) = (drawn(&inside), drawn(&none));
    // Two and a half metres off at 150 degrees: right of the middle, behind the mark.
    let differs = |columns: std::ops::Range<usize>| {
        let wide = WIDTH as usize;
        let rows = with.len() / 4 / wide;
        (rows / 2 - 6..rows / 2 + 6)
            .flat_map(|row| columns.clone().map(move |column| (row * wide + column) * 4 + 1))
            .filter(|at| with[*at].abs_diff(without[*at]) > 40)
            .count()
    };
    assert!(differs(240..480) > 20, "a bulb stands right of the middle");
}

/// The shot with its lamp as the modelling lamp of its flash, which stands somewhere.
fn modelled(mut shot: Shot, role: Role, bearing_deg: f64) -> Shot {
    let lamp = shot.lamps.remove(0).lamp;
    let flash = &mut shot.lights[0];
    (flash.role, flash.distance_m) = (role, 2.0);
    (flash.bearing_deg, flash.height_deg) = (bearing_deg, 15.0);
    flash.modelling = Some(Modelling { lamp, mode: ModellingMode::Full });
    shot.camera.shutter = "1/30".to_owned();
    shot
}

#[test]
fn a_modelling_lamp_shines_from_its_flash_at_the_level_of_the_forecast() {
    for (role, bearing) in [(Role::Key, 0.0), (Role::Key, 60.0), (Role::Fill, -70.0), (Role::Rim, 150.0)] {
        let seen = seen(&modelled(lit(Place::EvenWall, 400.0, None), role, bearing));
        let want = seen.outlook.parts[0].tones.part_ambient.value() * 0.18;
        let got = seen.linear(0.0, 0.0)[1];
        assert!((got / want - 1.0).abs() < 0.03, "{role:?} at {bearing}°: {got:.4} for {want:.4}");
    }
    let sides = |bearing| {
        let seen = seen(&with_a_ball(modelled(lit(Place::PaperBlack, 50.0, None), Role::Key, bearing)));
        [-0.2, 0.2].map(|right| seen.linear(right, 0.0)[1])
    };
    let ([left, right], [mirrored_left, mirrored_right]) = (sides(70.0), sides(-70.0));
    assert!(right > 3.0 * left, "{left:.4} left, {right:.4} right");
    assert!((right / mirrored_left - 1.0).abs() < 0.05 && (left / mirrored_right - 1.0).abs() < 0.05);
    // By way of the ceiling it comes from all over that, and is as bright on both sides.
    let mut bounced = with_a_ball(modelled(lit(Place::PaperBlack, 50.0, None), Role::Key, 70.0));
    bounced.lights[0].bounce = Some(BouncedOff { surface_m: 2.0, tilt_deg: 90.0, reflectance: 0.8, coloured: false });
    let seen = self::seen(&bounced);
    let [left, right] = [-0.2, 0.2].map(|at| seen.linear(at, 0.0)[1]);
    assert!((left / right - 1.0).abs() < 0.1, "{left:.4} left, {right:.4} right");
}
