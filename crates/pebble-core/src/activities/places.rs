//! What a meter typically says in a place, and what is behind the subject there: guesses until somebody reads and measures.

use crate::file::stage::Place;

/// What is usual in a place.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Typical {
    /// Steady light on the subject: the least, the usual and the most, as exposure values at ISO 100.
    pub ev100: (f64, f64, f64),
    /// What the background gets against the subject, in stops.
    pub behind_stops: f64,
    /// Colour of the light, in kelvin.
    pub kelvin: f64,
    /// Reflectance of what is behind.
    pub reflectance: f64,
    /// How far it is behind the subject, in metres.
    pub behind_m: f64,
    /// What angle and distance take off the flash that reaches it, in stops.
    pub spill_stops: f64,
}

const fn place(ev100: (f64, f64, f64), kelvin: f64, (reflectance, behind_m, spill_stops): (f64, f64, f64)) -> Typical {
    Typical { ev100, behind_stops: 0.0, kelvin, reflectance, behind_m, spill_stops }
}

/// Of a place. The ranges are those of the usual tables of exposure values: sun and shade 12 to 15.5, floodlit sport 7 to
/// 10, halls 5 to 9, stages and streets at night 3 to 9.
pub const fn typical(of: Place) -> Typical {
    match of {
        Place::PaperLight => place((5.0, 6.5, 8.5), 4500.0, (0.75, 2.0, 0.0)),
        Place::PaperGrey => place((4.0, 6.0, 8.0), 4500.0, (0.18, 2.5, -1.0)),
        Place::PaperBlack => place((2.0, 4.5, 6.5), 4500.0, (0.04, 3.0, -2.0)),
        Place::DimHall => place((3.5, 5.0, 7.0), 4600.0, (0.2, 7.0, -3.0)),
        Place::BrightHall => place((6.5, 8.0, 9.5), 4800.0, (0.25, 9.0, -3.0)),
        Place::FieldDay | Place::Track => place((12.0, 14.5, 15.3), 5500.0, (0.15, 24.0, -3.0)),
        Place::FieldDusk => place((4.0, 7.0, 10.0), 8000.0, (0.12, 24.0, -3.0)),
        Place::FieldFloodlit => place((7.0, 8.5, 10.0), 5600.0, (0.08, 24.0, -3.0)),
        Place::StreetNight => place((2.0, 4.5, 7.0), 3200.0, (0.08, 14.0, -3.0)),
        Place::PoolDeck => place((6.5, 8.5, 11.0), 5000.0, (0.35, 10.0, -3.0)),
        Place::Tent => place((7.0, 9.0, 11.0), 5600.0, (0.5, 5.0, -2.0)),
        Place::Stage => place((4.0, 7.0, 9.5), 3200.0, (0.04, 5.0, -3.0)),
        Place::DanceFloor => place((2.0, 4.0, 6.0), 3000.0, (0.08, 6.0, -3.0)),
        Place::Beach => place((13.0, 15.0, 16.0), 5500.0, (0.3, 24.0, -3.0)),
        Place::Quay => place((3.0, 6.0, 9.0), 7500.0, (0.08, 14.0, -3.0)),
        Place::PrintedWall => place((5.5, 7.5, 10.0), 4600.0, (0.35, 1.4, 0.0)),
        Place::EvenWall => place((4.0, 6.0, 8.0), 5500.0, (0.18, 3.0, -1.0)),
    }
}
