//! The activities, one after the other. Speeds are those of healthy people from leisure to competition, as textbooks of
//! biomechanics and of each sport give them, or follow from a height, a radius or a rate that is named beside them.

use super::{Activity, Cast, Moves, moves, who};
use crate::file::around::Around::{
    AnimalsOrInfants, Competition, Height, Outdoors, SlipperyFloor, SmokeOrFire, Spectators, Water,
};
use crate::file::movement::Chances;
use crate::file::shot::DrawnAs::{
    Ball, Blade, Body, Cloth, Face, Feet, Hair as Strands, Hand, Held, Lantern, Ropes, Scarf, Spray, Wheels,
};
use crate::file::shot::Intent::{Dash, Pebble, Skim};
use crate::file::stage::{Build, Finish, Hair, Outfit, Place, Pose, Prop};

/// What most have in common: one person, level, as often as is liked.
const USUAL: Activity = Activity {
    id: "",
    name: "",
    also: "",
    place: Place::DimHall,
    frame_m: 3.6,
    heights_m: (1.05, 1.15),
    depth_m: 0.6,
    chances: Chances::Many,
    jump_m: None,
    mood: false,
    parts: &[],
    cast: Cast { people: &[], things: &[] },
    around: &[],
};

const STANDS_STILL: &str = "somebody who tries to stand still sways by a few centimetres a second";
const TWICE: &str = "a swinging foot moves up to twice as fast as the trunk";
const AT_THE_TOP: &str = "within a tenth of a second of the top of a jump: 9.8 m/s² × 0.1 s";
const BESIDE: &str = "rides along with the body";

/// Somebody's face that is nearly at rest.
const fn quiet(most: f64) -> Moves {
    moves(("Face", Face, Pebble), (0.05, most), STANDS_STILL)
}

/// All of them, in the order in which they are shown.
pub const ALL: &[Activity] = &[
    // Running and jumping.
    Activity {
        id: "running",
        name: "Running",
        also: "jog run marathon street race pace",
        place: Place::FieldDusk,
        frame_m: 4.0,
        depth_m: 1.0,
        chances: Chances::Few,
        parts: &[
            moves(("Face", Face, Pebble), (2.8, 5.5), "a pace of 6:00 to 3:00 a kilometre"),
            moves(("Hands", Hand, Skim), (3.5, 8.0), "the arm's swing adds up to half of the trunk's speed"),
            moves(("Feet", Feet, Skim), (5.6, 11.0), TWICE),
        ],
        cast: Cast { people: &[who(Pose::Run)], things: &[] },
        around: &[Outdoors],
        ..USUAL
    },
    Activity {
        id: "sprint",
        name: "Sprint",
        also: "dash run fast track race",
        place: Place::FieldFloodlit,
        frame_m: 4.4,
        depth_m: 1.0,
        chances: Chances::Few,
        parts: &[
            moves(("Face", Face, Pebble), (8.0, 10.0), "a sprinter's trunk at full speed"),
            moves(("Hands", Hand, Skim), (9.0, 14.0), "the arm's swing adds up to half of the trunk's speed"),
            moves(("Feet", Feet, Skim), (14.0, 20.0), TWICE),
        ],
        cast: Cast { people: &[who(Pose::Sprint)], things: &[] },
        around: &[Outdoors, Competition],
        ..USUAL
    },
    Activity {
        id: "sprint_start",
        name: "Sprint start",
        also: "blocks gun start race",
        place: Place::FieldFloodlit,
        frame_m: 3.4,
        heights_m: (0.7, 0.6),
        chances: Chances::Few,
        parts: &[
            moves(("Face", Face, Pebble), (2.5, 4.0), "clearing the blocks at 3 to 4 m/s"),
            moves(("Hands", Hand, Skim), (4.0, 7.0), "arms leave the ground ahead of the trunk"),
            moves(("Feet", Feet, Skim), (4.0, 8.0), TWICE),
        ],
        cast: Cast { people: &[who(Pose::SprintStart)], things: &[] },
        around: &[Outdoors, Competition],
        ..USUAL
    },
    Activity {
        id: "hurdle",
        name: "Leap at speed",
        also: "hurdle long jump stride athletics pole vault triple",
        place: Place::FieldFloodlit,
        frame_m: 4.6,
        depth_m: 1.0,
        chances: Chances::Few,
        jump_m: Some((0.3, 0.6)),
        parts: &[
            moves(("Face", Face, Pebble), (6.0, 9.0), "approach of a hurdler or a long jumper"),
            moves(("Hands", Hand, Skim), (7.0, 12.0), "the arm's swing adds up to half of the trunk's speed"),
            moves(("Feet", Feet, Skim), (9.0, 18.0), TWICE),
        ],
        cast: Cast { people: &[who(Pose::Leap)], things: &[] },
        around: &[Outdoors, Competition],
        ..USUAL
    },
    Activity {
        id: "leap",
        name: "Leap",
        also: "dance jete split jump ballet gymnastics air",
        place: Place::PaperGrey,
        frame_m: 3.8,
        heights_m: (1.25, 1.1),
        jump_m: Some((0.3, 0.6)),
        parts: &[
            moves(("Face", Face, Pebble), (1.5, 3.5), "a dancer's run-up of 1.5 to 3.5 m/s carries on at the top"),
            moves(("Hands", Hand, Pebble), (1.5, 4.0), BESIDE),
            moves(("Feet", Feet, Skim), (2.0, 6.0), "legs that open while the trunk flies"),
        ],
        cast: Cast { people: &[who(Pose::Leap).wears(Outfit::Leotard)], things: &[] },
        ..USUAL
    },
    Activity {
        id: "jump",
        name: "Jump",
        also: "up air height trampoline fitness happy",
        place: Place::PaperGrey,
        frame_m: 3.8,
        heights_m: (1.5, 1.1),
        jump_m: Some((0.25, 0.6)),
        parts: &[
            moves(("Face", Face, Pebble), (0.0, 1.0), AT_THE_TOP).to(90.0),
            moves(("Hands", Hand, Pebble), (0.3, 2.0), "arms that still rise at the top").to(90.0),
            moves(("Feet", Feet, Pebble), (0.3, 2.0), "legs that still fold at the top").to(90.0),
        ],
        cast: Cast { people: &[who(Pose::Jump)], things: &[] },
        ..USUAL
    },
    Activity {
        id: "rope_jump",
        name: "Rope jump",
        also: "skipping skip fitness boxing",
        frame_m: 4.0,
        heights_m: (1.3, 1.15),
        jump_m: Some((0.05, 0.2)),
        parts: &[
            moves(("Face", Face, Pebble), (0.0, 0.6), "a hop of 5 to 20 cm, near its top").to(90.0),
            moves(("Shoes", Feet, Pebble), (1.0, 2.0), "off the floor and back: √(2 × 9.8 × 0.05 to 0.2 m)").to(90.0),
            moves(("Rope", Ropes, Dash), (9.0, 15.0), "2 to 3 turns a second at a radius of 0.75 m")
                .to(90.0)
                .catches(2.0)
                .streaks(0.08),
        ],
        cast: Cast { people: &[who(Pose::RopeJump).with(&[Prop::Rope])], things: &[] },
        ..USUAL
    },
    Activity {
        id: "double_ropes",
        name: "Double ropes",
        also: "long rope turners skipping street",
        frame_m: 4.6,
        heights_m: (1.28, 1.15),
        jump_m: Some((0.2, 0.4)),
        parts: &[
            moves(("Face", Face, Pebble), (0.0, 1.0), AT_THE_TOP).to(90.0),
            moves(("Shoes", Feet, Pebble), (3.0, 5.2), "landing of a jump, and a leg that is pulled in").to(115.0),
            moves(("Ropes", Ropes, Dash), (9.0, 15.0), "1.5 to 2.5 turns a second at a radius of 1 m")
                .to(90.0)
                .catches(3.0)
                .streaks(0.08),
        ],
        cast: Cast {
            people: &[
                who(Pose::RopeJump).hair(Hair::Tied),
                who(Pose::TurnRope).wears(Outfit::Casual).at(-1.98, 0.25).stands_by(),
                who(Pose::TurnRope).wears(Outfit::Casual).at(1.98, 0.25).mirrored().stands_by(),
            ],
            things: &[(Prop::LongRopes, 0.0, 0.1, 0.06)],
        },
        ..USUAL
    },
    // Gymnastics and fitness.
    Activity {
        id: "tuck",
        name: "Somersault",
        also: "tuck gymnastics salto trampoline flip air cheerleading vault",
        place: Place::BrightHall,
        frame_m: 4.2,
        heights_m: (1.6, 1.2),
        chances: Chances::Few,
        jump_m: Some((0.6, 1.4)),
        parts: &[
            moves(("Face", Face, Pebble), (2.0, 4.5), "1 to 2 turns a second at a radius of 0.35 m").to(60.0),
            moves(("Hands", Hand, Skim), (2.0, 4.5), BESIDE).to(60.0),
            moves(("Feet", Feet, Skim), (3.0, 6.0), "1 to 2 turns a second at a radius of 0.5 m").to(240.0),
        ],
        cast: Cast { people: &[who(Pose::Tuck).wears(Outfit::Leotard)], things: &[] },
        around: &[Competition],
        ..USUAL
    },
    Activity {
        id: "handstand",
        name: "Handstand",
        also: "gymnastics balance yoga acrobat breakdance freeze",
        place: Place::PaperGrey,
        frame_m: 3.6,
        heights_m: (1.1, 1.1),
        parts: &[
            moves(("Face", Face, Pebble), (0.05, 0.3), "correcting the balance"),
            moves(("Hands", Hand, Pebble), (0.0, 0.1), "on the floor"),
            moves(("Feet", Feet, Pebble), (0.1, 0.6), "correcting the balance, at the far end of the body"),
        ],
        cast: Cast { people: &[who(Pose::Handstand).wears(Outfit::Leotard)], things: &[] },
        ..USUAL
    },
    Activity {
        id: "ribbon",
        name: "Ribbon",
        also: "rhythmic gymnastics stick swirl",
        place: Place::PaperBlack,
        frame_m: 4.0,
        heights_m: (1.15, 1.1),
        parts: &[
            moves(("Face", Face, Pebble), (0.1, 0.4), "balance on one leg"),
            moves(("Hands", Hand, Skim), (1.5, 4.0), "an arm of 0.6 m at half a turn to one turn a second").to(60.0),
            moves(("Ribbon", Held, Dash), (4.0, 9.0), "the stick's tip at 1.2 m, one turn a second and its whip")
                .to(40.0)
                .as_bright(0.75)
                .catches(2.0)
                .streaks(0.1),
        ],
        cast: Cast { people: &[who(Pose::Arabesque).wears(Outfit::Leotard).with(&[Prop::Ribbon])], things: &[] },
        around: &[Competition],
        ..USUAL
    },
    Activity {
        id: "hoop",
        name: "Hoop",
        also: "hula ring rhythmic gymnastics circus",
        place: Place::PaperGrey,
        frame_m: 3.2,
        parts: &[
            moves(("Face", Face, Pebble), (0.1, 0.6), "hips that circle move the head a little"),
            moves(("Hands", Hand, Pebble), (0.3, 1.5), "arms that balance"),
            moves(("Hoop", Held, Skim), (4.2, 7.0), "1.5 to 2.5 turns a second at a radius of 0.45 m"),
        ],
        cast: Cast { people: &[who(Pose::Spin).with(&[Prop::Hoop])], things: &[] },
        ..USUAL
    },
    Activity {
        id: "silks",
        name: "Aerial silks",
        also: "circus aerialist cloth hang acrobat",
        place: Place::PaperBlack,
        frame_m: 4.8,
        heights_m: (1.7, 1.4),
        parts: &[
            moves(("Face", Face, Pebble), (0.2, 1.0), "a slow swing of the whole body"),
            moves(("Hands", Hand, Pebble), (0.2, 1.5), "reaching"),
            moves(("Silks", Cloth, Skim), (1.0, 3.0), "cloth that is thrown or whipped").to(70.0),
        ],
        cast: Cast {
            people: &[who(Pose::Hang).wears(Outfit::Leotard).shines(Finish::Satin).with(&[Prop::Silks])],
            things: &[],
        },
        around: &[Height],
        ..USUAL
    },
    Activity {
        id: "stretch",
        name: "Yoga, a bend",
        also: "stretch pilates flexible split bridge calm",
        place: Place::PaperLight,
        frame_m: 3.0,
        heights_m: (0.8, 1.0),
        parts: &[
            quiet(0.2),
            moves(("Hands", Hand, Pebble), (0.05, 0.4), "reaching slowly"),
            moves(("Feet", Feet, Pebble), (0.0, 0.1), "on the floor"),
        ],
        cast: Cast { people: &[who(Pose::Bend).wears(Outfit::Leotard)], things: &[] },
        ..USUAL
    },
    Activity {
        id: "plank",
        name: "Plank",
        also: "floor exercise push up fitness core",
        frame_m: 3.0,
        heights_m: (0.45, 0.5),
        parts: &[
            moves(("Face", Face, Pebble), (0.02, 0.3), "breath and trembling, or a slow push-up"),
            moves(("Hands", Hand, Pebble), (0.0, 0.1), "on the floor"),
            moves(("Feet", Feet, Pebble), (0.0, 0.1), "on the floor"),
        ],
        cast: Cast { people: &[who(Pose::Plank)], things: &[] },
        ..USUAL
    },
    Activity {
        id: "lift",
        name: "Lift overhead",
        also: "weights bar snatch clean jerk strength gym",
        frame_m: 3.4,
        heights_m: (1.2, 0.9),
        chances: Chances::Few,
        parts: &[
            moves(("Face", Face, Pebble), (0.1, 0.6), "the trunk drops under the bar and rises").to(90.0),
            moves(("Hands", Hand, Pebble), (1.0, 2.0), "with the bar").to(90.0),
            moves(("Bar", Held, Skim), (1.5, 2.2), "the bar at its fastest in a snatch").to(90.0),
        ],
        cast: Cast { people: &[who(Pose::Lift).with(&[Prop::Bar])], things: &[] },
        around: &[Competition],
        ..USUAL
    },
    Activity {
        id: "pull",
        name: "Pull from the floor",
        also: "deadlift weights bar strength gym",
        frame_m: 3.4,
        heights_m: (0.9, 0.8),
        chances: Chances::Few,
        parts: &[
            moves(("Face", Face, Pebble), (0.1, 0.5), "with the trunk").to(90.0),
            moves(("Hands", Hand, Pebble), (0.3, 0.8), "with the bar").to(90.0),
            moves(("Bar", Held, Pebble), (0.3, 0.8), "a heavy pull takes one to two seconds over 0.5 m").to(90.0),
        ],
        cast: Cast { people: &[who(Pose::Pull).with(&[Prop::Bar])], things: &[] },
        ..USUAL
    },
    Activity {
        id: "squat",
        name: "Squat",
        also: "fitness legs gym exercise class",
        frame_m: 3.2,
        parts: &[
            moves(("Face", Face, Pebble), (0.4, 1.0), "down and up over 0.5 m in one to two seconds").to(90.0),
            moves(("Hands", Hand, Pebble), (0.4, 1.2), BESIDE).to(90.0),
            moves(("Feet", Feet, Pebble), (0.0, 0.1), "on the floor"),
        ],
        cast: Cast { people: &[who(Pose::Squat)], things: &[] },
        ..USUAL
    },
    // Fighting and throwing.
    Activity {
        id: "kick",
        name: "Kick",
        also: "martial arts karate taekwondo fight",
        frame_m: 3.6,
        parts: &[
            moves(("Face", Face, Pebble), (0.5, 1.5), "the trunk turns with the leg"),
            moves(("Hands", Hand, Pebble), (1.0, 3.0), "arms that balance"),
            moves(("Foot", Feet, Skim), (12.0, 20.0), "a trained kick at the moment it lands").to(20.0),
        ],
        cast: Cast { people: &[who(Pose::Kick).wears(Outfit::Whites)], things: &[] },
        ..USUAL
    },
    Activity {
        id: "high_kick",
        name: "High kick",
        also: "martial arts dance head karate cheer",
        place: Place::PaperGrey,
        frame_m: 3.4,
        heights_m: (1.1, 1.1),
        parts: &[
            moves(("Face", Face, Pebble), (0.3, 1.0), "the trunk leans against the leg"),
            moves(("Hands", Hand, Pebble), (1.0, 3.0), "arms that balance"),
            moves(("Foot", Feet, Skim), (9.0, 16.0), "a turning kick at the height of a head").to(70.0),
        ],
        cast: Cast { people: &[who(Pose::HighKick).wears(Outfit::Whites)], things: &[] },
        ..USUAL
    },
    Activity {
        id: "punch",
        name: "Punch",
        also: "boxing fight glove jab hit glove",
        place: Place::PaperBlack,
        frame_m: 2.8,
        heights_m: (1.25, 1.3),
        parts: &[
            moves(("Face", Face, Pebble), (0.3, 1.2), "the head comes along with the shoulder"),
            moves(("Glove", Held, Skim), (6.0, 10.0), "a trained straight punch").as_large(0.16),
            moves(("Feet", Feet, Pebble), (0.2, 1.0), "a step into the punch"),
        ],
        cast: Cast { people: &[who(Pose::Punch).with(&[Prop::Gloves]).shines(Finish::Wet)], things: &[] },
        ..USUAL
    },
    Activity {
        id: "fencing",
        name: "Fencing",
        also: "sabre foil epee blade lunge sword",
        frame_m: 4.0,
        heights_m: (1.0, 1.15),
        parts: &[
            moves(("Mask", Face, Pebble), (1.0, 3.0), "a lunge of 1 m in a third to half of a second"),
            moves(("Hand", Hand, Pebble), (3.0, 6.0), "the arm goes ahead of the lunge"),
            moves(("Blade", Blade, Skim), (8.0, 20.0), "the tip of a cut at 0.9 m from a turning wrist").to(300.0),
        ],
        cast: Cast {
            people: &[who(Pose::Fence).wears(Outfit::Fencing).with(&[Prop::Blade]).at(-0.35, 0.0)],
            things: &[],
        },
        around: &[Competition],
        ..USUAL
    },
    Activity {
        id: "throw",
        name: "Throw",
        also: "ball pitch javelin bowl athletics cricket handball",
        place: Place::FieldFloodlit,
        frame_m: 3.8,
        parts: &[
            moves(("Face", Face, Pebble), (1.0, 3.0), "the trunk turns into the throw"),
            moves(("Hand", Hand, Skim), (12.0, 22.0), "a hand at release, leisure to competition"),
            moves(("Feet", Feet, Pebble), (0.5, 3.0), "the last step"),
        ],
        cast: Cast { people: &[who(Pose::Throw).with(&[Prop::SmallBall])], things: &[] },
        around: &[Outdoors],
        ..USUAL
    },
    // Games.
    Activity {
        id: "serve",
        name: "Racket, serve",
        also: "tennis badminton overhead smash ball",
        place: Place::BrightHall,
        frame_m: 4.6,
        heights_m: (1.65, 1.1),
        jump_m: Some((0.1, 0.3)),
        parts: &[
            moves(("Face", Face, Pebble), (0.5, 1.5), "the trunk rises into the hit").to(90.0),
            moves(("Hand", Hand, Skim), (7.0, 14.0), "an arm of 0.7 m at 10 to 20 rad/s"),
            moves(("Racket", Held, Skim), (25.0, 40.0), "a racket's head at the hit, club to tour").as_large(0.25),
        ],
        cast: Cast { people: &[who(Pose::Serve).with(&[Prop::Racket])], things: &[] },
        around: &[Competition],
        ..USUAL
    },
    Activity {
        id: "racket",
        name: "Racket, forehand",
        also: "tennis squash badminton table ball hit padel pickleball",
        place: Place::BrightHall,
        frame_m: 3.8,
        parts: &[
            moves(("Face", Face, Pebble), (0.5, 2.0), "the trunk turns with the stroke"),
            moves(("Hand", Hand, Skim), (6.0, 12.0), "an arm of 0.6 m at 10 to 20 rad/s"),
            moves(("Racket", Held, Skim), (18.0, 32.0), "a racket's head at the hit, club to tour").as_large(0.25),
        ],
        cast: Cast { people: &[who(Pose::Forehand).with(&[Prop::Racket])], things: &[] },
        around: &[Competition],
        ..USUAL
    },
    Activity {
        id: "bat",
        name: "Bat",
        also: "baseball cricket swing hit stick golf hockey",
        place: Place::FieldFloodlit,
        frame_m: 3.8,
        parts: &[
            moves(("Face", Face, Pebble), (0.3, 1.5), "eyes on the ball"),
            moves(("Hands", Hand, Skim), (7.0, 11.0), "hands at the hit"),
            moves(("Bat", Held, Skim), (20.0, 32.0), "the sweet spot of a bat at the hit").as_large(0.07),
        ],
        cast: Cast { people: &[who(Pose::Swing).with(&[Prop::Bat])], things: &[] },
        around: &[Outdoors],
        ..USUAL
    },
    Activity {
        id: "ball_kick",
        name: "Ball, kicked",
        also: "football soccer rugby shot goal",
        place: Place::FieldFloodlit,
        frame_m: 4.0,
        heights_m: (0.95, 0.8),
        parts: &[
            moves(("Face", Face, Pebble), (1.5, 4.0), "the last stride before the ball"),
            moves(("Foot", Feet, Skim), (14.0, 22.0), "a foot at the ball, club to top level"),
            moves(("Ball", Ball, Skim), (15.0, 30.0), "a ball that leaves the foot"),
        ],
        cast: Cast { people: &[who(Pose::Kick).with(&[Prop::Ball])], things: &[] },
        around: &[Outdoors],
        ..USUAL
    },
    Activity {
        id: "ball_throw",
        name: "Ball, thrown or caught",
        also: "basketball handball volleyball shot dunk catch spike block netball",
        place: Place::BrightHall,
        frame_m: 3.6,
        heights_m: (1.4, 1.1),
        jump_m: Some((0.2, 0.7)),
        parts: &[
            moves(("Face", Face, Pebble), (0.0, 1.5), "a jump shot near its top").to(90.0),
            moves(("Hands", Hand, Pebble), (2.0, 6.0), "hands that follow the ball").to(70.0),
            moves(("Ball", Ball, Skim), (6.0, 12.0), "a shot from 3 to 7 m").to(60.0),
        ],
        cast: Cast { people: &[who(Pose::Catch).with(&[Prop::Ball])], things: &[] },
        around: &[Competition],
        ..USUAL
    },
    // Dance.
    Activity {
        id: "turn",
        name: "Dance turn",
        also: "pirouette spin ballet figure skating twirl skater ice",
        place: Place::Stage,
        frame_m: 3.2,
        mood: true,
        parts: &[
            moves(("Face", Face, Pebble), (0.3, 1.5), "a head that is held, then whips round at a radius of 0.1 m"),
            moves(("Hands", Hand, Skim), (3.0, 8.0), "1 to 2.5 turns a second at a radius of 0.5 m"),
            moves(("Hem", Cloth, Skim), (3.0, 8.0), "1 to 2.5 turns a second at a radius of 0.5 m"),
        ],
        cast: Cast { people: &[who(Pose::Spin).wears(Outfit::Dress)], things: &[] },
        around: &[Spectators],
        ..USUAL
    },
    Activity {
        id: "arabesque",
        name: "Dance, a held line",
        also: "ballet arabesque balance pose",
        place: Place::PaperGrey,
        frame_m: 3.4,
        parts: &[
            moves(("Face", Face, Pebble), (0.1, 0.5), "a balance that is found and lost"),
            moves(("Hands", Hand, Pebble), (0.1, 0.8), "arms that finish the line"),
            moves(("Feet", Feet, Pebble), (0.1, 0.8), "the free leg rises to the end"),
        ],
        cast: Cast { people: &[who(Pose::Arabesque).wears(Outfit::Leotard)], things: &[] },
        ..USUAL
    },
    Activity {
        id: "first_dance",
        name: "First dance",
        also: "wedding pair couple waltz party bride groom tango ballroom",
        place: Place::DanceFloor,
        frame_m: 3.4,
        heights_m: (1.1, 1.4),
        depth_m: 1.0,
        chances: Chances::One,
        mood: true,
        parts: &[
            moves(("Faces", Face, Pebble), (0.3, 1.0), "a turn in a few seconds at a radius of 0.4 m"),
            moves(("Hands", Hand, Pebble), (0.3, 1.2), BESIDE),
            moves(("Hem", Cloth, Skim), (1.0, 2.5), "half a turn a second at a radius of 0.6 m"),
        ],
        cast: Cast {
            people: &[
                who(Pose::DanceLead).wears(Outfit::Suit).at(-0.2, 0.0),
                who(Pose::DanceFollow).wears(Outfit::Dress).at(0.22, 0.0).hair(Hair::Tied),
            ],
            things: &[],
        },
        around: &[Spectators],
        ..USUAL
    },
    Activity {
        id: "party_dance",
        name: "Dance floor",
        also: "party club disco wedding night lights drag",
        place: Place::DanceFloor,
        frame_m: 3.6,
        heights_m: (1.15, 1.4),
        depth_m: 1.2,
        mood: true,
        parts: &[
            moves(("Faces", Face, Pebble), (0.3, 1.2), "a step to the side on each beat"),
            moves(("Hands", Hand, Skim), (1.0, 4.0), "arms of 0.6 m on the beat").to(60.0),
            moves(("Clothes", Body, Skim), (0.5, 1.5), "hips and shoulders on the beat"),
        ],
        cast: Cast {
            people: &[
                who(Pose::Spin).wears(Outfit::Dress),
                who(Pose::HeadToss).wears(Outfit::Casual).at(-0.9, 0.5),
                who(Pose::Jump).wears(Outfit::Casual).at(0.95, 0.6),
            ],
            things: &[],
        },
        around: &[Spectators],
        ..USUAL
    },
    // Hair, cloth, water, powder.
    Activity {
        id: "hair_toss",
        name: "Hair and water",
        also: "toss flip wet drops beauty",
        place: Place::PaperBlack,
        frame_m: 2.4,
        heights_m: (1.45, 1.4),
        parts: &[
            moves(("Face", Face, Pebble), (0.5, 2.0), "a head that is thrown back over 0.3 m in a quarter of a second")
                .to(120.0),
            moves(("Hair", Strands, Skim), (3.0, 7.0), "the ends of hair at 0.5 m from the neck").to(60.0),
            moves(("Drops", Spray, Skim), (3.0, 8.0), "drops leave with the speed of the ends").to(60.0).as_large(0.01),
        ],
        cast: Cast {
            people: &[who(Pose::HeadToss).hair(Hair::Long).shines(Finish::Wet)],
            things: &[(Prop::Drops, 0.2, 0.0, 1.5)],
        },
        around: &[Water],
        ..USUAL
    },
    Activity {
        id: "cloth",
        name: "Cloth in the air",
        also: "scarf veil dress fabric throw fashion wind",
        place: Place::PaperGrey,
        frame_m: 3.4,
        parts: &[
            moves(("Face", Face, Pebble), (0.1, 0.8), "a step or a turn"),
            moves(("Hands", Hand, Pebble), (0.5, 2.0), "the throw ends in the hand"),
            moves(("Cloth", Scarf, Skim), (1.5, 4.0), "cloth slows down within a metre of its throw").to(40.0),
        ],
        cast: Cast { people: &[who(Pose::Walk).wears(Outfit::Dress).with(&[Prop::Scarf])], things: &[] },
        ..USUAL
    },
    Activity {
        id: "splash",
        name: "Splash of water",
        also: "water thrown wet bucket sport drink",
        place: Place::PaperBlack,
        frame_m: 2.8,
        heights_m: (1.2, 1.2),
        chances: Chances::Few,
        parts: &[
            quiet(0.8),
            moves(("Hands", Hand, Pebble), (0.3, 2.0), "flinching"),
            moves(("Water", Spray, Skim), (3.0, 8.0), "a bucket's throw, and what springs off").as_large(0.03),
        ],
        cast: Cast { people: &[who(Pose::Guard).shines(Finish::Wet)], things: &[(Prop::Water, 0.35, -0.1, 1.1)] },
        around: &[Water, SlipperyFloor],
        ..USUAL
    },
    Activity {
        id: "drops",
        name: "Falling drops",
        also: "drip water rain fruit product small",
        place: Place::PaperBlack,
        frame_m: 1.2,
        heights_m: (0.9, 0.95),
        depth_m: 0.1,
        parts: &[
            moves(("Drops", Spray, Pebble), (1.4, 3.1), "√(2 × 9.8 × 0.1 to 0.5 m) of fall").to(270.0).as_large(0.006),
            moves(("Splash", Ball, Skim), (0.5, 2.0), "what springs up again is slower than what fell")
                .to(90.0)
                .as_large(0.02),
        ],
        cast: Cast { people: &[], things: &[(Prop::Drops, 0.0, 0.0, 0.9)] },
        around: &[Water],
        ..USUAL
    },
    Activity {
        id: "powder",
        name: "Powder",
        also: "chalk flour dust colour cloud throw",
        place: Place::PaperBlack,
        frame_m: 3.2,
        heights_m: (1.15, 1.1),
        chances: Chances::Few,
        parts: &[
            moves(("Face", Face, Pebble), (0.2, 1.0), "the clap or throw moves the trunk"),
            moves(("Hands", Hand, Pebble), (1.5, 4.0), "a clap or a throw"),
            moves(("Powder", Spray, Skim), (2.0, 6.0), "fine dust is slowed within half a metre")
                .to(70.0)
                .as_large(0.02),
        ],
        cast: Cast { people: &[who(Pose::HeadToss)], things: &[(Prop::Powder, 0.1, 0.1, 1.2)] },
        around: &[SmokeOrFire],
        ..USUAL
    },
    Activity {
        id: "confetti",
        name: "Confetti",
        also: "paper party wedding flutter celebrate",
        place: Place::DanceFloor,
        frame_m: 3.8,
        heights_m: (1.5, 1.4),
        depth_m: 1.0,
        chances: Chances::One,
        mood: true,
        parts: &[
            moves(("Face", Face, Pebble), (0.2, 1.0), "laughing, arms up"),
            moves(("Hands", Hand, Skim), (1.0, 4.0), "the throw").to(90.0),
            moves(("Confetti", Spray, Skim), (1.0, 2.5), "paper falls at 1 to 1.5 m/s and flutters")
                .to(270.0)
                .as_large(0.03),
        ],
        cast: Cast { people: &[who(Pose::Jump).wears(Outfit::Casual)], things: &[(Prop::Confetti, 0.0, 0.0, 1.9)] },
        around: &[Spectators, SlipperyFloor],
        ..USUAL
    },
    Activity {
        id: "sparks",
        name: "Sparks, from a distance",
        also: "fire grinder sparkler glow stage effect",
        place: Place::StreetNight,
        frame_m: 4.0,
        depth_m: 1.0,
        chances: Chances::Few,
        mood: true,
        parts: &[
            quiet(0.4),
            moves(("Hands", Hand, Pebble), (0.1, 0.8), "held away from the body"),
            moves(("Sparks", Spray, Dash), (3.0, 8.0), "glowing bits that fly and fall 0.5 to 3 m")
                .to(290.0)
                .as_large(0.004)
                .glows(9000.0)
                .streaks(0.05),
        ],
        cast: Cast { people: &[who(Pose::Walk).wears(Outfit::Rider)], things: &[(Prop::Drops, 0.5, 0.0, 1.1)] },
        around: &[Outdoors, SmokeOrFire],
        ..USUAL
    },
    // Wheels and boards.
    Activity {
        id: "cycling",
        name: "Cycling",
        also: "bicycle bike road race wheel ride riding rider",
        place: Place::FieldDusk,
        frame_m: 4.4,
        depth_m: 1.0,
        chances: Chances::Few,
        parts: &[
            moves(("Face", Face, Pebble), (5.5, 11.0), "20 to 40 km/h"),
            moves(("Hands", Hand, Pebble), (5.5, 11.0), BESIDE),
            moves(("Wheels", Wheels, Skim), (11.0, 22.0), "the top of a wheel moves twice as fast as its hub"),
        ],
        cast: Cast { people: &[who(Pose::Ride).wears(Outfit::Rider).with(&[Prop::Bicycle])], things: &[] },
        around: &[Outdoors],
        ..USUAL
    },
    Activity {
        id: "flatland",
        name: "Bicycle tricks",
        also: "flatland spin small bike bmx freestyle",
        place: Place::StreetNight,
        frame_m: 3.6,
        heights_m: (1.05, 0.9),
        parts: &[
            moves(("Face", Face, Pebble), (0.5, 1.6), "half a turn to one turn a second at a radius of 0.25 m"),
            moves(("Hands", Hand, Pebble), (1.0, 3.0), "half a turn to one turn a second at a radius of 0.5 m"),
            moves(("Wheels", Wheels, Skim), (2.0, 5.0), "half a turn to one turn a second at a radius of 0.8 m"),
        ],
        cast: Cast { people: &[who(Pose::RideStanding).wears(Outfit::Rider).with(&[Prop::SmallBicycle])], things: &[] },
        around: &[Outdoors],
        ..USUAL
    },
    Activity {
        id: "inline",
        name: "Inline skating",
        also: "skate slalom speed ice blades",
        place: Place::Quay,
        frame_m: 4.0,
        heights_m: (1.05, 0.9),
        depth_m: 1.0,
        parts: &[
            moves(("Face", Face, Pebble), (3.0, 7.0), "10 to 25 km/h"),
            moves(("Hands", Hand, Skim), (4.0, 9.0), "the arm's swing on top"),
            moves(("Skates", Wheels, Skim), (4.0, 11.0), "a pushing leg is faster than the trunk"),
        ],
        cast: Cast { people: &[who(Pose::Skate).with(&[Prop::Inlines])], things: &[] },
        around: &[Outdoors],
        ..USUAL
    },
    Activity {
        id: "lantern",
        name: "Lantern that draws",
        also: "light painting trail slalom dusk lamp streak",
        place: Place::Quay,
        frame_m: 4.4,
        heights_m: (1.15, 0.95),
        depth_m: 1.0,
        mood: true,
        parts: &[
            moves(("Face", Face, Pebble), (1.5, 4.0), "a run or an easy skate"),
            moves(("Skates", Feet, Skim), (2.0, 6.0), "a pushing leg is faster than the trunk"),
            moves(("Lantern", Lantern, Dash), (2.0, 5.0), "an arm's swing on top of the trunk")
                .glows(4000.0)
                .streaks(0.15),
        ],
        cast: Cast { people: &[who(Pose::Skate).with(&[Prop::Inlines, Prop::Lantern])], things: &[] },
        around: &[Outdoors],
        ..USUAL
    },
    Activity {
        id: "roller",
        name: "Roller skating",
        also: "roller disco quad turn dance hall",
        place: Place::BrightHall,
        frame_m: 3.6,
        parts: &[
            moves(("Face", Face, Pebble), (1.0, 3.0), "rolling at the pace of a jog"),
            moves(("Hands", Hand, Skim), (1.5, 5.0), "arms that balance a turn"),
            moves(("Wheels", Wheels, Skim), (1.5, 4.0), "feet that cross in front of each other"),
        ],
        cast: Cast { people: &[who(Pose::Roll).wears(Outfit::Dress).with(&[Prop::Rollers, Prop::Scarf])], things: &[] },
        ..USUAL
    },
    Activity {
        id: "board",
        name: "Board",
        also: "skateboard ollie jump street ramp surf snow",
        place: Place::StreetNight,
        frame_m: 3.8,
        heights_m: (1.1, 0.6),
        jump_m: Some((0.2, 0.6)),
        parts: &[
            moves(("Face", Face, Pebble), (2.0, 5.0), "rolling at 7 to 18 km/h"),
            moves(("Hands", Hand, Pebble), (2.0, 6.0), "arms that balance"),
            moves(("Board", Wheels, Skim), (2.5, 7.0), "a board that is popped and turned"),
        ],
        cast: Cast { people: &[who(Pose::Board).wears(Outfit::Casual).with(&[Prop::Board])], things: &[] },
        around: &[Outdoors],
        ..USUAL
    },
    Activity {
        id: "wheelchair",
        name: "Wheelchair racing",
        also: "push wheels para track athletics race",
        place: Place::FieldFloodlit,
        frame_m: 4.2,
        heights_m: (0.8, 0.7),
        depth_m: 1.0,
        chances: Chances::Few,
        parts: &[
            moves(("Face", Face, Pebble), (5.0, 9.0), "18 to 32 km/h"),
            moves(("Hands", Hand, Skim), (6.0, 11.0), "hands that meet the rim at its speed"),
            moves(("Wheels", Wheels, Skim), (10.0, 18.0), "the top of a wheel moves twice as fast as its hub"),
        ],
        cast: Cast { people: &[who(Pose::PushWheels).with(&[Prop::Wheelchair])], things: &[] },
        around: &[Outdoors, Competition],
        ..USUAL
    },
    // Walls and water.
    Activity {
        id: "climbing",
        name: "Climbing",
        also: "boulder wall holds rock dyno",
        place: Place::BrightHall,
        frame_m: 3.6,
        heights_m: (1.4, 1.2),
        parts: &[
            moves(("Face", Face, Pebble), (0.1, 0.6), "a body that is pulled up").to(80.0),
            moves(("Hands", Hand, Pebble), (0.8, 2.5), "reaching for a hold, or springing to it").to(80.0),
            moves(("Feet", Feet, Pebble), (0.3, 1.5), "a foot that is placed").to(80.0),
        ],
        cast: Cast { people: &[who(Pose::Climb)], things: &[(Prop::Holds, 0.0, 0.4, 0.0)] },
        around: &[Height],
        ..USUAL
    },
    Activity {
        id: "diving",
        name: "Diving",
        also: "platform springboard pool jump water",
        place: Place::PoolDeck,
        frame_m: 4.4,
        heights_m: (1.6, 1.3),
        chances: Chances::Few,
        parts: &[
            moves(("Face", Face, Pebble), (4.0, 8.0), "√(2 × 9.8 × 0.8 to 3.3 m) of fall").to(270.0),
            moves(("Hands", Hand, Pebble), (4.0, 9.0), "ahead of the body").to(270.0),
            moves(("Feet", Feet, Skim), (4.0, 11.0), "legs that turn on top of the fall").to(270.0),
        ],
        cast: Cast { people: &[who(Pose::Dive).wears(Outfit::Swim).shines(Finish::Wet)], things: &[] },
        around: &[Water, Competition, SlipperyFloor],
        ..USUAL
    },
    Activity {
        id: "swimming",
        name: "Swimming",
        also: "pool crawl water stroke",
        place: Place::PoolDeck,
        frame_m: 3.6,
        heights_m: (0.4, 0.8),
        chances: Chances::Few,
        parts: &[
            moves(("Face", Face, Pebble), (1.2, 2.2), "leisure to competition"),
            moves(("Hand", Hand, Skim), (3.0, 6.0), "an arm that is brought forward over the water"),
            moves(("Water", Spray, Skim), (2.0, 6.0), "splashes of the entering hand").to(60.0).as_large(0.02),
        ],
        cast: Cast {
            people: &[who(Pose::Swim).wears(Outfit::Swim).shines(Finish::Wet)],
            things: &[(Prop::Water, 0.9, 0.0, 0.25)],
        },
        around: &[Water, Competition, SlipperyFloor],
        ..USUAL
    },
    Activity {
        id: "rowing",
        name: "Rowing",
        also: "boat oars ergometer water scull",
        place: Place::Quay,
        frame_m: 4.4,
        heights_m: (0.8, 0.9),
        parts: &[
            moves(("Face", Face, Pebble), (0.8, 2.2), "to and fro on the slide, against a camera that goes along"),
            moves(("Hands", Hand, Skim), (1.5, 3.5), "with the handles"),
            moves(("Oars", Held, Skim), (3.0, 7.0), "the blade's end of an oar, two to three times the handle's"),
        ],
        cast: Cast { people: &[who(Pose::Row).with(&[Prop::Oars])], things: &[] },
        around: &[Outdoors, Water],
        ..USUAL
    },
    // People who hardly move.
    Activity {
        id: "portrait",
        name: "Portrait",
        also: "head bust face studio business woman man actor",
        place: Place::PaperGrey,
        frame_m: 1.8,
        heights_m: (1.42, 1.5),
        depth_m: 0.3,
        parts: &[quiet(0.3), moves(("Clothes", Body, Pebble), (0.05, 0.3), STANDS_STILL)],
        cast: Cast { people: &[who(Pose::Portrait).wears(Outfit::Casual)], things: &[] },
        ..USUAL
    },
    Activity {
        id: "finisher",
        name: "Finisher with a medal",
        also: "winner portrait race volume wall podium",
        place: Place::PrintedWall,
        frame_m: 2.0,
        heights_m: (1.3, 1.4),
        depth_m: 0.4,
        parts: &[
            quiet(0.5),
            moves(("Hands", Hand, Pebble), (0.1, 1.0), "showing the medal"),
            moves(("Medal", crate::file::shot::DrawnAs::Medal, Pebble), (0.1, 1.0), "swinging on its ribbon")
                .round(0.05),
        ],
        cast: Cast { people: &[who(Pose::Portrait).with(&[Prop::Medal])], things: &[] },
        around: &[Spectators],
        ..USUAL
    },
    Activity {
        id: "group",
        name: "Group in rows",
        also: "team class family rows people colleagues choir squad",
        place: Place::BrightHall,
        frame_m: 4.6,
        heights_m: (1.1, 1.5),
        depth_m: 1.4,
        chances: Chances::Few,
        parts: &[quiet(0.3), moves(("Clothes", Body, Pebble), (0.05, 0.3), STANDS_STILL)],
        cast: Cast {
            people: &[
                who(Pose::Portrait).wears(Outfit::TrackSuit),
                who(Pose::Portrait).wears(Outfit::TrackSuit).at(-0.75, 0.0),
                who(Pose::Portrait).wears(Outfit::TrackSuit).at(0.75, 0.0).mirrored(),
                who(Pose::Stand).wears(Outfit::TrackSuit).at(-1.15, 0.8),
                who(Pose::Stand).wears(Outfit::TrackSuit).at(-0.38, 0.8).mirrored(),
                who(Pose::Stand).wears(Outfit::TrackSuit).at(0.38, 0.8),
                who(Pose::Stand).wears(Outfit::TrackSuit).at(1.15, 0.8).mirrored(),
            ],
            things: &[],
        },
        ..USUAL
    },
    Activity {
        id: "speaker",
        name: "Speaker",
        also: "talk lectern conference stage microphone singer concert band choir",
        place: Place::Stage,
        frame_m: 2.8,
        heights_m: (1.3, 1.4),
        chances: Chances::Many,
        mood: true,
        parts: &[
            moves(("Face", Face, Pebble), (0.1, 0.4), "a head that nods and turns"),
            moves(("Hands", Hand, Pebble), (0.5, 2.0), "a gesture").to(60.0),
        ],
        cast: Cast {
            people: &[who(Pose::Speak).wears(Outfit::Suit).with(&[Prop::Microphone])],
            things: &[(Prop::Lectern, 0.5, -0.2, 0.0)],
        },
        around: &[Spectators],
        ..USUAL
    },
    Activity {
        id: "walk",
        name: "Walking",
        also: "catwalk aisle fashion entrance march bride model runway",
        place: Place::Tent,
        frame_m: 3.2,
        depth_m: 1.0,
        chances: Chances::Few,
        mood: true,
        parts: &[
            moves(("Face", Face, Pebble), (1.1, 1.7), "1.4 m/s, as most people walk"),
            moves(("Hands", Hand, Pebble), (1.2, 2.5), "an arm's swing on top"),
            moves(("Feet", Feet, Skim), (2.2, 3.4), TWICE),
        ],
        cast: Cast { people: &[who(Pose::Walk).wears(Outfit::Dress)], things: &[] },
        around: &[Spectators],
        ..USUAL
    },
    Activity {
        id: "parade",
        name: "Parade",
        also: "march procession street lantern umbrella carnival",
        place: Place::Quay,
        frame_m: 4.4,
        depth_m: 1.6,
        chances: Chances::One,
        mood: true,
        parts: &[
            moves(("Faces", Face, Pebble), (1.1, 1.6), "1.4 m/s, as most people walk"),
            moves(("Hands", Hand, Pebble), (1.2, 2.5), "an arm's swing on top"),
            moves(("Feet", Feet, Skim), (2.2, 3.2), TWICE),
        ],
        cast: Cast {
            people: &[
                who(Pose::Walk).wears(Outfit::Casual).with(&[Prop::Scarf]),
                who(Pose::Walk).wears(Outfit::Dress).at(-1.3, 0.5).with(&[Prop::Umbrella]),
                who(Pose::Walk).wears(Outfit::Casual).at(1.2, 0.6).with(&[Prop::Lantern]),
            ],
            things: &[],
        },
        around: &[Outdoors, Spectators],
        ..USUAL
    },
    Activity {
        id: "child",
        name: "Child at play",
        also: "kid run jump family playground kids children toddler baby",
        place: Place::BrightHall,
        frame_m: 2.8,
        heights_m: (0.75, 0.8),
        parts: &[
            moves(("Face", Face, Pebble), (1.0, 3.0), "a child's run"),
            moves(("Hands", Hand, Skim), (1.5, 4.5), "arms that fly along"),
            moves(("Feet", Feet, Skim), (2.0, 6.0), TWICE),
        ],
        cast: Cast { people: &[who(Pose::Run).built(Build::Child)], things: &[] },
        around: &[AnimalsOrInfants],
        ..USUAL
    },
];
