//! The demo scenes as compositions, and what a shot that says nothing of its stage gets.

use crate::file::shot::Scene;
use crate::file::stage::{Build, Composition, Finish, Hair, Outfit, Person, Place, Pose, Prop, Thing};

fn composed(
    place: Place,
    camera_height_m: f64,
    aim_height_m: f64,
    people: Vec<Person>,
    things: Vec<Thing>,
) -> Composition {
    Composition { place, camera_height_m, aim_height_m, upright: None, people, things, picture: None }
}

const fn thing(what: Prop, right_m: f64, away_m: f64, up_m: f64) -> Thing {
    Thing { what, right_m, away_m, up_m, size: 1.0, turned_deg: 0.0 }
}

/// The composition that stands for a scene.
pub(super) fn of(scene: Scene) -> Composition {
    match scene {
        Scene::DoubleRopes => double_ropes(),
        Scene::LanternSlalom => {
            let skater = Person {
                outfit: Outfit::TrackSuit,
                hair: Hair::Tied,
                skin: 0.22,
                cloth_hue_deg: Some(18.0),
                cloth: 0.32,
                with: vec![Prop::Inlines, Prop::Lantern],
                ..Person::new(Pose::Skate)
            };
            composed(Place::Quay, 0.95, 1.15, vec![skater], Vec::new())
        }
        Scene::SlipwaySpin => {
            let rider = Person {
                outfit: Outfit::Rider,
                cloth_hue_deg: Some(205.0),
                cloth: 0.3,
                with: vec![Prop::SmallBicycle],
                ..Person::new(Pose::RideStanding)
            };
            composed(Place::Beach, 0.9, 1.05, vec![rider], Vec::new())
        }
        Scene::SabreReach => {
            let fencer = Person {
                outfit: Outfit::Fencing,
                cloth: 0.7,
                with: vec![Prop::Blade],
                right_m: -0.35,
                ..Person::new(Pose::Fence)
            };
            composed(Place::DimHall, 1.15, 1.0, vec![fencer], Vec::new())
        }
        Scene::Silks => {
            let aerialist = Person {
                outfit: Outfit::Leotard,
                hair: Hair::Tied,
                cloth_hue_deg: Some(212.0),
                cloth: 0.2,
                finish: Finish::Satin,
                with: vec![Prop::Silks],
                ..Person::new(Pose::Hang)
            };
            composed(Place::PaperBlack, 1.4, 1.62, vec![aerialist], Vec::new())
        }
        Scene::FinishersWall => finishers(),
        Scene::RollerHall => {
            let roller = Person {
                outfit: Outfit::Dress,
                hair: Hair::Curls,
                skin: 0.14,
                cloth_hue_deg: Some(48.0),
                cloth: 0.4,
                finish: Finish::Satin,
                with: vec![Prop::Rollers, Prop::Scarf],
                ..Person::new(Pose::Roll)
            };
            composed(Place::BrightHall, 1.2, 1.2, vec![roller], Vec::new())
        }
        Scene::PlainStage => composed(Place::EvenWall, 1.3, 1.3, Vec::new(), Vec::new()),
    }
}

fn double_ropes() -> Composition {
    let jumper = Person {
        hair: Hair::Tied,
        cloth_hue_deg: Some(14.0),
        cloth: 0.34,
        height_m: 1.66,
        build: Build::Slim,
        ..Person::new(Pose::RopeJump)
    };
    let turner = Person {
        outfit: Outfit::Casual,
        cloth_hue_deg: Some(228.0),
        cloth: 0.16,
        skin: 0.12,
        stands_by: true,
        right_m: -1.98,
        away_m: 0.25,
        ..Person::new(Pose::TurnRope)
    };
    let other = Person { mirrored: true, right_m: 1.98, skin: 0.34, hair: Hair::Curls, cloth: 0.12, ..turner.clone() };
    composed(Place::DimHall, 1.15, 1.28, vec![jumper, turner, other], vec![thing(Prop::LongRopes, 0.0, 0.1, 0.06)])
}

fn finishers() -> Composition {
    let runner = |right_m: f64, away_m: f64| Person {
        with: vec![Prop::Medal],
        right_m,
        away_m,
        cloth_hue_deg: Some(172.0),
        cloth: 0.3,
        ..Person::new(Pose::Portrait)
    };
    let people = vec![
        Person { hair: Hair::Tied, skin: 0.36, ..runner(0.0, 0.0) },
        Person {
            skin: 0.1,
            height_m: 1.82,
            build: Build::Broad,
            hair: Hair::Curls,
            turned_deg: -14.0,
            ..runner(-0.72, 0.12)
        },
        Person { skin: 0.24, height_m: 1.7, mirrored: true, hair: Hair::Short, turned_deg: 10.0, ..runner(0.74, 0.1) },
    ];
    composed(Place::PrintedWall, 1.4, 1.22, people, Vec::new())
}
