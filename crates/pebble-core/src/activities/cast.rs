//! Who stands in the frame of an activity.

use crate::file::stage::{Build, Composition, Finish, Hair, Outfit, Person, Place, Pose, Prop, Thing};

/// People and things, the subject first.
#[derive(Clone, Copy, Debug)]
pub struct Cast {
    /// People.
    pub people: &'static [Who],
    /// Things that nobody holds: what, to the right, away, up.
    pub things: &'static [(Prop, f64, f64, f64)],
}

/// A person of it.
#[derive(Clone, Copy, Debug)]
pub struct Who {
    pose: Pose,
    outfit: Outfit,
    hair: Option<Hair>,
    build: Build,
    finish: Finish,
    with: &'static [Prop],
    at_m: (f64, f64),
    mirrored: bool,
    stands_by: bool,
}

/// Somebody in a pose, dressed for sport, on the mark.
pub const fn who(pose: Pose) -> Who {
    Who {
        pose,
        outfit: Outfit::Sport,
        hair: None,
        build: Build::Usual,
        finish: Finish::Matt,
        with: &[],
        at_m: (0.0, 0.0),
        mirrored: false,
        stands_by: false,
    }
}

impl Who {
    pub(super) const fn wears(self, outfit: Outfit) -> Self {
        Self { outfit, ..self }
    }

    pub(super) const fn hair(self, hair: Hair) -> Self {
        Self { hair: Some(hair), ..self }
    }

    pub(super) const fn built(self, build: Build) -> Self {
        Self { build, ..self }
    }

    pub(super) const fn shines(self, finish: Finish) -> Self {
        Self { finish, ..self }
    }

    pub(super) const fn with(self, with: &'static [Prop]) -> Self {
        Self { with, ..self }
    }

    pub(super) const fn at(self, right_m: f64, away_m: f64) -> Self {
        Self { at_m: (right_m, away_m), ..self }
    }

    pub(super) const fn mirrored(self) -> Self {
        Self { mirrored: true, ..self }
    }

    pub(super) const fn stands_by(self) -> Self {
        Self { stands_by: true, ..self }
    }
}

/// Skins over the whole human range, as reflectance.
const SKINS: [f64; 6] = [0.3, 0.12, 0.36, 0.2, 0.08, 0.26];
const HAIRS: [Hair; 5] = [Hair::Tied, Hair::Short, Hair::Curls, Hair::Short, Hair::Long];

impl Cast {
    /// In a place, before a lens; `id` varies what people look like, the same each time.
    pub(super) fn composition(&self, id: &str, place: Place, (aim_m, camera_m): (f64, f64)) -> Composition {
        let seed = id.bytes().fold(7_usize, |sum, byte| (sum * 31 + usize::from(byte)) % 9973);
        let person = |(index, of): (usize, &Who)| {
            let own = seed / 7 + index * 5;
            let child = of.build == Build::Child;
            Person {
                build: of.build,
                height_m: if child { 1.25 } else { 1.64 + (own % 7) as f64 * 0.03 },
                skin: SKINS[own % SKINS.len()],
                hair: of.hair.unwrap_or(HAIRS[own / 3 % HAIRS.len()]),
                outfit: of.outfit,
                cloth_hue_deg: match of.outfit {
                    Outfit::Whites | Outfit::Fencing => None,
                    _ => Some((own * 47 % 360) as f64),
                },
                cloth: match of.outfit {
                    Outfit::Whites | Outfit::Fencing => 0.7,
                    Outfit::Suit => 0.06,
                    _ => 0.24 + (own % 5) as f64 * 0.03,
                },
                finish: of.finish,
                with: of.with.to_vec(),
                right_m: of.at_m.0,
                away_m: of.at_m.1,
                mirrored: of.mirrored,
                stands_by: of.stands_by,
                ..Person::new(of.pose)
            }
        };
        let thing = |&(what, right_m, away_m, up_m)| Thing { what, right_m, away_m, up_m, size: 1.0, turned_deg: 0.0 };
        Composition {
            place,
            camera_height_m: camera_m,
            aim_height_m: aim_m,
            upright: None,
            people: self.people.iter().enumerate().map(person).collect(),
            things: self.things.iter().map(thing).collect(),
            picture: None,
        }
    }
}
