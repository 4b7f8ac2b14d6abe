//! What the floor says, as it goes out.

use crate::file::floor::{Area, Flag};
use crate::file::shot::{Role, Shot};
use crate::wire::{report, report_word, wire};

wire! {
    /// A light that is carried to a place.
    pub struct CarriedTo {
        /// Which.
        pub light: usize,
        /// To the right of the mark.
        pub x_m: f64,
        /// Away from the camera, from the mark.
        pub y_m: f64,
        /// Height of its head over the floor.
        pub z_m: f64,
        /// With another power, where that goes with it.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub power: Option<f64>,
        /// With a flag before it.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub flag: Option<Flag>,
        /// Aimed at a place: right, away, up. As it was against the mark without.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub aim_m: Option<[f64; 3]>,
    }
}

wire! {
    /// A steady lamp that is carried to a place.
    #[derive(Copy)]
    pub struct LampTo {
        /// Which, in the shot's list.
        pub lamp: usize,
        /// To the right of the mark.
        pub x_m: f64,
        /// Away from the camera, from the mark.
        pub y_m: f64,
        /// Height of its head over the floor.
        pub z_m: f64,
        /// Turned up so far, where that goes with it.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub level_share: Option<f64>,
    }
}

wire! {
    /// A stand as it was taped on the day, along the floor.
    #[derive(Copy)]
    pub struct TapedStand {
        /// Which light.
        pub light: usize,
        /// Its foot to the mark.
        pub to_mark_m: f64,
        /// Its foot to the camera's foot.
        pub to_camera_m: f64,
        /// Whether it is on the right as seen from the camera.
        pub right: bool,
        /// Head to the chest of who stands on the mark, where that was measured as well.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub to_chest_m: Option<f64>,
    }
}

report_word! {
    /// How bad a note is.
    pub enum NoteSeverity {
        /// The picture, or who stands there, is spoiled by it.
        Trouble,
        /// Worth knowing before the release.
        Watch,
    }
}

report! {
    /// What was taped against what is planned.
    pub struct TapedSaid {
        /// Where it stands then, its height as planned.
        pub to: Place3,
        /// How far that is from the plan, on the floor.
        pub off_m: f64,
        /// What it costs at the mark.
        pub off_stops: f64,
        /// How much longer the third tape is than the first two say.
        pub misfit_m: Option<f64>,
        /// In a sentence.
        pub says: String,
    }

    /// A place of the set.
    pub struct Place3 {
        /// To the right.
        pub x_m: f64,
        /// Away from the camera.
        pub y_m: f64,
        /// Up.
        pub z_m: f64,
    }

    /// How even something lights the area, against its value at the mark.
    pub struct EvennessSaid {
        /// The highest less the lowest, in stops.
        pub spread_stops: f64,
        /// The lowest.
        pub low_stops: f64,
        /// The highest.
        pub high_stops: f64,
        /// Share of the area within a third of a stop.
        pub within_third: f64,
        /// Within a half.
        pub within_half: f64,
    }

    /// Lines of equal light.
    pub struct Contour {
        /// Against the mark.
        pub stops: f64,
        /// Stretches: from and to, right and away.
        pub stretches: Vec<[f64; 4]>,
    }

    /// A move that clears the picture, the light at the mark kept as it is.
    pub struct Clearing {
        /// In words: `0.4 m left, 1/8`.
        pub says: String,
        /// Where it then is.
        pub to: Place3,
        /// Its power there, where another one is as bright at the mark; of a lamp, how far it is turned up.
        pub power: Option<f64>,
        /// A flag that goes before it.
        pub flag: Option<Flag>,
        /// What else of the picture it makes worse, in words; nothing when it harms nothing.
        pub spoils: Option<String>,
    }

    /// A place and a power from which a light is as bright at the mark and more even over the area.
    pub struct Evened {
        /// In words: `0.9 m back, 1/4`.
        pub says: String,
        /// Where it then is.
        pub to: Place3,
        /// Its power there.
        pub power: f64,
        /// The spread now, in stops.
        pub from_stops: f64,
        /// The spread then.
        pub to_stops: f64,
    }

    /// A shot with the lights of another.
    pub struct ArrangedAnswer {
        /// The shot.
        pub shot: Shot,
        /// What of them could not stay as it was there, a sentence each.
        pub says: Vec<String>,
    }

    /// Ways to light the area, side by side.
    pub struct EvenAnswer {
        /// As it stands, and what else can be done.
        pub ways: Vec<EvenWay>,
        /// Why there is nothing else, or not all of it.
        pub says: Option<String>,
    }

    /// A way to light the area by all lights together.
    pub struct EvenWay {
        /// What it is: `In the corners`.
        pub name: String,
        /// What each light that moves then does; empty as it stands.
        pub says: String,
        /// The spread over the area, in stops.
        pub spread_stops: f64,
        /// Share of the area within a third of the light at the mark.
        pub within_third: f64,
        /// All together at the mark, in words against now, and the lighting ratio where that changes.
        pub at_mark_says: String,
        /// What of the picture it makes worse, in words; nothing when it harms nothing.
        pub spoils: Option<String>,
        /// The shot set so; nothing as it stands.
        pub shot: Option<Shot>,
    }

    /// A light on the floor.
    pub struct FloorLight {
        /// Group and role.
        pub label: String,
        /// What it is there for.
        pub role: Role,
        /// Unit and what is in front of it.
        pub unit: String,
        /// Whether it is on.
        pub on: bool,
        /// Where its face is.
        pub at: Place3,
        /// Whether it sits on the camera, and so has no place of its own.
        pub on_camera: bool,
        /// The top of its stand: at the face, or where its boom begins.
        pub stand: Place3,
        /// What balances its boom, as an estimate in words; nothing without one.
        pub boom_says: Option<String>,
        /// Radius of the face.
        pub radius_m: f64,
        /// Half-angle at which it has lost a stop.
        pub half_deg: f64,
        /// Radius around its aim within which it loses less than a stop.
        pub circle_m: f64,
        /// To the chest on the mark.
        pub distance_m: f64,
        /// Foot to the mark, on the floor.
        pub to_mark_m: f64,
        /// Foot to the camera's foot.
        pub to_camera_m: f64,
        /// Which side it is on, from the camera.
        pub right: bool,
        /// Around the subject.
        pub bearing_deg: f64,
        /// The same as a clock: `7:44`.
        pub clock: String,
        /// How far it looks down.
        pub tilt_down_deg: f64,
        /// What is on its axis: at the height of a chest, or as far off as the mark.
        pub aim: Place3,
        /// Whether it can be aimed: not by way of a surface, not at the backdrop, not on the camera.
        pub can_be_aimed: bool,
        /// How it is turned away from the mark, and what that costs there.
        pub turned_says: Option<String>,
        /// Where it looks on the floor, as it is set up: beside the mark by so much, to the light's own side; at it without.
        pub looks_says: Option<String>,
        /// Who it is aimed at, by place in the list of people; nobody where it is aimed elsewhere.
        pub aimed_at: Option<usize>,
        /// What a meter at the mark reads of it.
        pub reads: Option<String>,
        /// Its power, as on its own dial.
        pub power_says: String,
        /// The letter of its group, and its channel.
        pub group_says: String,
        /// What is in front of it, in words.
        pub front_says: String,
        /// Over the area.
        pub evenness: Option<EvennessSaid>,
        /// What would even it out, where anything would.
        pub evens: Option<Evened>,
        /// What of it the lens sees: `face`, `stand`.
        pub in_picture: Vec<String>,
        /// Moves that clear it, the smallest first.
        pub clears: Vec<Clearing>,
        /// Whether it shines into the lens.
        pub flares: bool,
        /// As near as it comes on its own line to the chest before the lens sees it, as bright at the mark.
        pub brings_in: Option<Clearing>,
        /// The shadow of who stands there, by this light.
        pub shadow: Option<String>,
        /// The flag before it.
        pub flag: Option<Flag>,
        /// What its stand is taken to weigh, with all that is on it.
        pub stand_kg: f64,
        /// How far its feet are taken to stand from the column.
        pub feet_m: f64,
        /// Ballast in the gust that was entered.
        pub ballast_kg: Option<f64>,
        /// Whether it is to be taken down instead.
        pub take_down: bool,
    }

    /// A steady lamp of the shot.
    pub struct FloorLamp {
        /// What it is.
        pub name: String,
        /// Whether it burns.
        pub on: bool,
        /// What is in front of it, in words; nothing where nothing is.
        pub front_says: Option<String>,
        /// How far it is turned up, in words.
        pub turned_up_says: String,
        /// What of the subject's light it gives, in words.
        pub gives_says: Option<String>,
        /// To the chest.
        pub distance_m: f64,
        /// Where it stands; nothing of one of which nobody said so.
        pub stands: Option<LampOnFloor>,
    }

    /// Where a lamp stands.
    pub struct LampOnFloor {
        /// Its head.
        pub at: Place3,
        /// Foot to the mark, on the floor.
        pub to_mark_m: f64,
        /// Foot to the camera's foot.
        pub to_camera_m: f64,
        /// Which side it is on, from the camera.
        pub right: bool,
        /// Around the subject.
        pub bearing_deg: f64,
        /// The same as a clock.
        pub clock: String,
        /// How far it looks down.
        pub tilt_down_deg: f64,
        /// Whether it belongs to the picture, and may be seen in it.
        pub in_set: bool,
        /// What of it the lens sees that it shall not.
        pub in_picture: Vec<String>,
        /// Moves that clear it, the smallest first.
        pub clears: Vec<Clearing>,
    }

    /// The sheet behind.
    pub struct SheetSaid {
        /// Whether it fills the frame.
        pub covers: bool,
        /// How much wider it would have to be.
        pub missing_width_m: f64,
        /// How much higher.
        pub missing_height_m: f64,
        /// Whether the floor shows below it.
        pub floor_shows: bool,
        /// In a sentence.
        pub says: String,
    }

    /// What the lights put on the background where the lens sees it.
    pub struct BehindSaid {
        /// The darkest of it, in stops against mid-grey; nothing where there is no light.
        pub dark_stops: Option<f64>,
        /// The brightest.
        pub bright_stops: Option<f64>,
        /// The same as L*.
        pub dark_lightness: f64,
        /// The brightest as L*.
        pub bright_lightness: f64,
        /// In a sentence.
        pub says: String,
    }

    /// Somebody on the floor.
    pub struct PersonOnFloor {
        /// `Subject`, `Second`, and so on.
        pub name: String,
        /// Their chest: to the right of the mark, away from the camera, up.
        pub chest_m: [f64; 3],
        /// All light there on a dome to the camera, as the subject's is read, in stops; nothing where there is none.
        pub stops: Option<f64>,
        /// What each light gives there, turned to it, and all together, in words.
        pub says: String,
        /// The light that is aimed there, at the power with which all is as bright there as at the mark.
        pub matches: Option<Clearing>,
        /// Which light that is.
        pub light: Option<usize>,
    }

    /// The light along a way.
    pub struct AlongSaid {
        /// Its length.
        pub length_m: f64,
        /// How long it takes.
        pub lasts_s: f64,
        /// Where it begins, on the floor.
        pub from_m: [f64; 2],
        /// Where it ends.
        pub to_m: [f64; 2],
        /// Evenly along it, in stops against the mark.
        pub stops: Vec<f64>,
        /// The highest less the lowest.
        pub change_stops: f64,
        /// From where to where the light is as at the mark within a third of a stop, in metres along it.
        pub press_m: Option<[f64; 2]>,
        /// For how long.
        pub press_s: Option<f64>,
        /// In sentences: when to press by hand, and what an automatic would have to do.
        pub says: String,
    }

    /// The sun on the floor.
    pub struct SunSaid {
        /// Around the subject, as a light's.
        pub bearing_deg: f64,
        /// The same as a clock.
        pub clock: String,
        /// Where north is, around the subject as well.
        pub north_deg: f64,
        /// Over the horizon as it is seen.
        pub height_deg: f64,
        /// Whether the lens looks into it.
        pub in_lens: bool,
        /// Places of the day, an hour apart while it is up: the hour, and its bearing.
        pub hours: Vec<SunHour>,
        /// In sentences: where it stands, when it stands behind the subject, which side the flash comes from.
        pub says: Vec<String>,
    }

    /// The sun at an hour.
    pub struct SunHour {
        /// As written, `18:00`.
        pub time: String,
        /// Around the subject.
        pub bearing_deg: f64,
    }

    /// Something to see to.
    pub struct FloorNote {
        /// In a few words.
        pub title: String,
        /// What and why.
        pub says: String,
        /// Whether somebody would take the picture again for it, as the Bench has it.
        pub severity: NoteSeverity,
        /// Which light it is about.
        pub light: Option<usize>,
        /// Which steady lamp.
        pub lamp: Option<usize>,
        /// What clears it.
        pub clears: Vec<Clearing>,
    }

    /// The set.
    pub struct FloorAnswer {
        /// The shot, with what was carried where it now is.
        pub shot: Shot,
        /// The lens.
        pub camera: Place3,
        /// What stands in the middle of the frame.
        pub aim: Place3,
        /// The chest on the mark, at which lights are aimed: right, away, up.
        pub chest_m: [f64; 3],
        /// Where the left and right edges of the frame are on the floor's plan at the back of the set: two places each.
        pub field: [[f64; 2]; 2],
        /// The upper and lower edges from the side: away and up at the back of the set.
        pub field_side: [[f64; 2]; 2],
        /// Focal length, height and distance, in words.
        pub camera_says: String,
        /// Behind the subject.
        pub behind_m: f64,
        /// The area.
        pub area: Area,
        /// Its corners on the floor, in order around it: to the right, away from the camera.
        pub area_corners: Vec<[f64; 2]>,
        /// Whether somebody said where it is.
        pub area_own: bool,
        /// The lights.
        pub lights: Vec<FloorLight>,
        /// The steady lamps, in the shot's order.
        pub lamps: Vec<FloorLamp>,
        /// The people, the subject first.
        pub people: Vec<PersonOnFloor>,
        /// Lines of equal light of what was asked for.
        pub contours: Vec<Contour>,
        /// How even that is over the area; nothing where there is none of it, or it is taken as even.
        pub even: Option<EvennessSaid>,
        /// The same in a sentence.
        pub even_says: String,
        /// Front and back, left and right, head and foot of the area against the mark, in that light.
        pub ends: Option<String>,
        /// The sheet, where one is said.
        pub sheet: Option<SheetSaid>,
        /// What is behind, in the light of the set.
        pub behind: Option<BehindSaid>,
        /// The light along the way, where one is said.
        pub along: Option<AlongSaid>,
        /// The sun, where place, time and the camera's heading are known.
        pub sun: Option<SunSaid>,
        /// What was taped, where anything was.
        pub taped: Option<TapedSaid>,
        /// What was measured between two places.
        pub measured: Option<String>,
        /// All together at the mark, as a meter reads it.
        pub reads: Option<String>,
        /// Aperture, time and ISO.
        pub settings_says: String,
        /// What to see to.
        pub notes: Vec<FloorNote>,
    }
}
