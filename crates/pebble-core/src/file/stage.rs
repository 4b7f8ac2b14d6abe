//! What stands in the frame, as a file says it: a place, the people in it and what they hold, and where the camera is.
//!
//! Metres on the floor: `right` as the camera sees it, `away` from it, from the subject's mark.

use crate::wire::{wire, word};

wire! {
    /// What stands in the frame.
    pub struct Composition {
        /// Where.
        pub place: Place,
        /// Height of the lens over the floor.
        pub camera_height_m: f64,
        /// Height over the floor of what stands in the middle of the frame, at the subject.
        pub aim_height_m: f64,
        /// Upright, with the grip at this side; level without.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub upright: Option<Grip>,
        /// The people, the subject first.
        #[serde(default, skip_serializing_if = "Vec::is_empty")]
        pub people: Vec<Person>,
        /// What stands, hangs, turns or flies there besides.
        #[serde(default, skip_serializing_if = "Vec::is_empty")]
        pub things: Vec<Thing>,
        /// A picture of the real place, instead of the drawn one.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub picture: Option<OwnPicture>,
    }
}

wire! {
    /// A picture of the place.
    pub struct OwnPicture {
        /// Its identity: the SHA-256 of its bytes.
        pub id: String,
        /// Height of its horizon, as a share of its height from the top.
        pub horizon_share: f64,
        /// The picture itself, a JPEG in Base64: in files that are handed over, so that nothing is missing where they arrive.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub jpeg_base64: Option<String>,
    }
}

word! {
    /// Which side the camera's grip is on when it is held upright.
    pub enum Grip {
        /// Up: row 0 is the right edge.
        Up,
        /// Down: row 0 is the left edge.
        Down,
    }
}

word! {
    /// Drawn places.
    pub enum Place {
        /// A pale paper sweep.
        PaperLight,
        /// A grey paper sweep.
        PaperGrey,
        /// A black one, or black cloth.
        PaperBlack,
        /// A sports hall with few lamps.
        DimHall,
        /// A sports hall with rows of lamps.
        BrightHall,
        /// A pitch by day.
        FieldDay,
        /// A pitch at dusk.
        FieldDusk,
        /// A pitch under floodlights.
        FieldFloodlit,
        /// A street at night.
        StreetNight,
        /// The deck of a pool.
        PoolDeck,
        /// A tent with daylight through its cloth.
        Tent,
        /// A stage.
        Stage,
        /// A dance floor with coloured lamps.
        DanceFloor,
        /// A running track.
        Track,
        /// A beach, or a slipway by the sea.
        Beach,
        /// A quay at dusk, with lanterns.
        Quay,
        /// A printed wall.
        PrintedWall,
        /// An even wall and nothing else, for measuring.
        EvenWall,
    }
}

word! {
    /// How a body is held.
    pub enum Pose {
        /// Stands.
        Stand,
        /// Walks.
        Walk,
        /// Runs.
        Run,
        /// Sprints.
        Sprint,
        /// In the blocks.
        SprintStart,
        /// Leaps with legs apart.
        Leap,
        /// Jumps up.
        Jump,
        /// Jumps over a rope.
        RopeJump,
        /// Tucked in the air.
        Tuck,
        /// Kicks to the front.
        Kick,
        /// Kicks high to the side.
        HighKick,
        /// Punches.
        Punch,
        /// On guard with both fists.
        Guard,
        /// Throws.
        Throw,
        /// Serves overhead.
        Serve,
        /// Swings with both hands.
        Swing,
        /// Hits with a racket.
        Forehand,
        /// Holds a bar overhead.
        Lift,
        /// Pulls a bar from the floor.
        Pull,
        /// Squats.
        Squat,
        /// Holds a plank.
        Plank,
        /// In a split.
        Split,
        /// On the hands.
        Handstand,
        /// Turns on one leg.
        Spin,
        /// One leg behind, one arm ahead.
        Arabesque,
        /// Bends back.
        Bend,
        /// Lunges with a blade.
        Fence,
        /// Climbs.
        Climb,
        /// Dives.
        Dive,
        /// Swims.
        Swim,
        /// Rows.
        Row,
        /// Rides a bicycle.
        Ride,
        /// Stands on the pedals of a small bicycle.
        RideStanding,
        /// Skates on a line of wheels or a blade.
        Skate,
        /// On a board.
        Board,
        /// Turns on roller skates.
        Roll,
        /// Pushes a wheelchair.
        PushWheels,
        /// Speaks.
        Speak,
        /// Leads a dance.
        DanceLead,
        /// Follows in a dance.
        DanceFollow,
        /// Sits.
        Sit,
        /// Stands for a portrait.
        Portrait,
        /// Lies.
        Lie,
        /// Hangs by a hand.
        Hang,
        /// Catches.
        Catch,
        /// Hair or cloth thrown.
        HeadToss,
        /// Turns a rope for others.
        TurnRope,
    }
}

word! {
    /// How a person is built.
    #[derive(Default)]
    pub enum Build {
        /// As most.
        #[default]
        Usual,
        /// Slim.
        Slim,
        /// Broad.
        Broad,
        /// A child.
        Child,
    }
}

word! {
    /// What a person wears.
    #[derive(Default)]
    pub enum Outfit {
        /// Singlet and shorts.
        #[default]
        Sport,
        /// Shirt and long trousers.
        Casual,
        /// A leotard.
        Leotard,
        /// A track suit.
        TrackSuit,
        /// A suit.
        Suit,
        /// A dress.
        Dress,
        /// White cloth of a martial art.
        Whites,
        /// A fencer's jacket and mask.
        Fencing,
        /// For swimming.
        Swim,
        /// Jacket, trousers and helmet.
        Rider,
    }
}

word! {
    /// Hair.
    #[derive(Default)]
    pub enum Hair {
        /// Short.
        #[default]
        Short,
        /// Tied behind.
        Tied,
        /// Long and open.
        Long,
        /// Close curls.
        Curls,
        /// None.
        Bald,
        /// Under a scarf.
        Scarf,
    }
}

word! {
    /// How cloth and skin shine.
    #[derive(Default)]
    pub enum Finish {
        /// Not at all.
        #[default]
        Matt,
        /// Softly.
        Satin,
        /// Wet.
        Wet,
        /// Sequins.
        Sequins,
    }
}

word! {
    /// What is held, worn, ridden, or stands about.
    pub enum Prop {
        /// A ball as big as a head.
        Ball,
        /// A ball that fits a hand.
        SmallBall,
        /// A racket.
        Racket,
        /// A bat.
        Bat,
        /// A blade.
        Blade,
        /// A bar with weights.
        Bar,
        /// A rope in each hand, turned over the own head.
        Rope,
        /// Two long ropes between two who turn them.
        LongRopes,
        /// A hoop.
        Hoop,
        /// A ribbon on a stick.
        Ribbon,
        /// A board with wheels.
        Board,
        /// Inline skates.
        Inlines,
        /// Roller skates.
        Rollers,
        /// A bicycle.
        Bicycle,
        /// A small bicycle for tricks.
        SmallBicycle,
        /// A racing wheelchair.
        Wheelchair,
        /// A lantern.
        Lantern,
        /// An umbrella.
        Umbrella,
        /// A microphone.
        Microphone,
        /// A medal on a ribbon.
        Medal,
        /// A scarf that flies.
        Scarf,
        /// Two hanging silks.
        Silks,
        /// A chair.
        Chair,
        /// Oars.
        Oars,
        /// A wall to climb.
        Holds,
        /// Boxing gloves.
        Gloves,
        /// A splash of water.
        Water,
        /// Drops in the air.
        Drops,
        /// A cloud of powder.
        Powder,
        /// Scraps of paper.
        Confetti,
        /// A net.
        Net,
        /// A lectern.
        Lectern,
        /// A grey card, upright, turned to the camera.
        Card,
        /// A grey ball that shows where light comes from.
        Sphere,
    }
}

wire! {
    /// A person.
    pub struct Person {
        /// How the body is held.
        pub pose: Pose,
        /// How it is built.
        #[serde(default, skip_serializing_if = "is_usual")]
        pub build: Build,
        /// Height of the person, standing.
        #[serde(default = "usual_height")]
        pub height_m: f64,
        /// Reflectance of the skin.
        #[serde(default = "usual_skin")]
        pub skin: f64,
        /// Hair.
        #[serde(default, skip_serializing_if = "is_usual")]
        pub hair: Hair,
        /// Its reflectance.
        #[serde(default = "usual_hair")]
        pub hair_tone: f64,
        /// What is worn.
        #[serde(default, skip_serializing_if = "is_usual")]
        pub outfit: Outfit,
        /// Colour of the cloth, as an angle on the colour wheel; grey without.
        #[serde(default, skip_serializing_if = "Option::is_none")]
        pub cloth_hue_deg: Option<f64>,
        /// Reflectance of the cloth.
        #[serde(default = "usual_cloth")]
        pub cloth: f64,
        /// How cloth and skin shine.
        #[serde(default, skip_serializing_if = "is_usual")]
        pub finish: Finish,
        /// What is held, worn or ridden.
        #[serde(default, skip_serializing_if = "Vec::is_empty")]
        pub with: Vec<Prop>,
        /// To the right of the mark.
        #[serde(default)]
        pub right_m: f64,
        /// Away from the camera, from the mark.
        #[serde(default)]
        pub away_m: f64,
        /// Over where the pose stands by itself.
        #[serde(default)]
        pub up_m: f64,
        /// Turned against the way the pose stands by itself, to the camera's right.
        #[serde(default)]
        pub turned_deg: f64,
        /// Left for right.
        #[serde(default, skip_serializing_if = "std::ops::Not::not")]
        pub mirrored: bool,
        /// Stands by, and is none of the parts.
        #[serde(default, skip_serializing_if = "std::ops::Not::not")]
        pub stands_by: bool,
    }
}

wire! {
    /// A thing that nobody holds.
    pub struct Thing {
        /// What.
        pub what: Prop,
        /// To the right of the mark.
        pub right_m: f64,
        /// Away from the camera, from the mark.
        pub away_m: f64,
        /// Over the floor.
        pub up_m: f64,
        /// Size against its usual one.
        #[serde(default = "whole")]
        pub size: f64,
        /// Turned, as seen from above.
        #[serde(default)]
        pub turned_deg: f64,
    }
}

fn is_usual<T: Default + PartialEq>(value: &T) -> bool {
    *value == T::default()
}

fn usual_height() -> f64 {
    1.74
}

fn usual_skin() -> f64 {
    0.3
}

fn usual_hair() -> f64 {
    0.06
}

fn usual_cloth() -> f64 {
    0.3
}

fn whole() -> f64 {
    1.0
}

impl Person {
    /// A person in a pose, as most are, at the mark.
    pub fn new(pose: Pose) -> Self {
        Self {
            pose,
            build: Build::Usual,
            height_m: usual_height(),
            skin: usual_skin(),
            hair: Hair::Short,
            hair_tone: usual_hair(),
            outfit: Outfit::Sport,
            cloth_hue_deg: None,
            cloth: usual_cloth(),
            finish: Finish::Matt,
            with: Vec::new(),
            right_m: 0.0,
            away_m: 0.0,
            up_m: 0.0,
            turned_deg: 0.0,
            mirrored: false,
            stands_by: false,
        }
    }
}

impl Place {
    /// Whether it has the sky over it.
    pub const fn is_outdoors(self) -> bool {
        matches!(
            self,
            Self::FieldDay
                | Self::FieldDusk
                | Self::FieldFloodlit
                | Self::StreetNight
                | Self::PoolDeck
                | Self::Track
                | Self::Beach
                | Self::Quay
        )
    }
}
