//! How bodies are held: one line of angles a limb, in degrees.
//!
//! Limbs hang down at 0, point ahead at 90 and up at 180; the second angle is how far they are spread to their own side.
//! Angles are the body's own, so that a knee may bend while the thigh stays.

use crate::file::stage::Pose;

/// An arm or a leg.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Limb {
    /// Upper bone: swung ahead, spread out.
    pub first: [f64; 2],
    /// Lower bone: the same.
    pub second: [f64; 2],
    /// Toes: 90 level ahead, 0 pointing down.
    pub tip: f64,
}

/// How a hand is held.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Hand {
    /// Open.
    Open,
    /// A fist, or around something.
    Fist,
}

/// A posture.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Posture {
    /// Which way it is turned from the camera, to the camera's right.
    pub turned: f64,
    /// How high its lowest place is over the floor, at the usual height.
    pub lift: f64,
    /// The whole body: pitched ahead, rolled to its own left.
    pub whole: [f64; 2],
    /// The chest: leaning ahead, to its own left, twisted to its own left.
    pub trunk: [f64; 3],
    /// The face: nodding, tilted to its own left, turned to its own left.
    pub head: [f64; 3],
    /// Arms, its own left first.
    pub arms: [Limb; 2],
    /// Legs.
    pub legs: [Limb; 2],
    /// Hands.
    pub hands: [Hand; 2],
}

const fn arm(upper: [f64; 2], fore: [f64; 2]) -> Limb {
    Limb { first: upper, second: fore, tip: 0.0 }
}

const fn leg(thigh: [f64; 2], shin: [f64; 2], toes: f64) -> Limb {
    Limb { first: thigh, second: shin, tip: toes }
}

const OPEN: [Hand; 2] = [Hand::Open; 2];
const FISTS: [Hand; 2] = [Hand::Fist; 2];

/// Stands, arms down.
const STAND: Posture = Posture {
    turned: 20.0,
    lift: 0.0,
    whole: [0.0, 0.0],
    trunk: [0.0, 0.0, 0.0],
    head: [4.0, 0.0, -8.0],
    arms: [arm([4.0, 9.0], [14.0, 4.0]), arm([-2.0, 10.0], [10.0, 5.0])],
    legs: [leg([3.0, 5.0], [-2.0, 4.0], 90.0), leg([-1.0, 6.0], [-4.0, 5.0], 90.0)],
    hands: OPEN,
};

/// The posture of a pose.
pub const fn posture(pose: Pose) -> Posture {
    match pose {
        Pose::Stand => STAND,
        Pose::Walk => Posture {
            turned: 62.0,
            trunk: [3.0, 0.0, 8.0],
            head: [3.0, 0.0, -12.0],
            arms: [arm([-24.0, 6.0], [-2.0, 4.0]), arm([24.0, 6.0], [44.0, 2.0])],
            legs: [leg([26.0, 2.0], [14.0, 2.0], 108.0), leg([-16.0, 2.0], [-46.0, 2.0], 44.0)],
            ..STAND
        },
        Pose::Run => Posture {
            turned: 68.0,
            lift: 0.05,
            trunk: [10.0, 0.0, -12.0],
            head: [2.0, 0.0, -6.0],
            arms: [arm([42.0, 8.0], [128.0, -8.0]), arm([-58.0, 12.0], [18.0, 2.0])],
            legs: [leg([-22.0, 2.0], [-92.0, 2.0], 2.0), leg([58.0, 3.0], [-6.0, 2.0], 92.0)],
            hands: FISTS,
            ..STAND
        },
        Pose::Sprint => Posture {
            turned: 74.0,
            lift: 0.03,
            trunk: [17.0, 0.0, 14.0],
            head: [4.0, 0.0, -4.0],
            arms: [arm([-66.0, 12.0], [6.0, 4.0]), arm([62.0, 6.0], [150.0, -10.0])],
            legs: [leg([86.0, 3.0], [4.0, 2.0], 96.0), leg([-26.0, 3.0], [-46.0, 3.0], 40.0)],
            hands: OPEN,
            ..STAND
        },
        Pose::SprintStart => Posture {
            turned: 76.0,
            trunk: [92.0, 0.0, 0.0],
            head: [52.0, 0.0, -6.0],
            arms: [arm([6.0, 16.0], [2.0, 4.0]), arm([2.0, 18.0], [-4.0, 6.0])],
            legs: [leg([74.0, 6.0], [-26.0, 3.0], 52.0), leg([34.0, 6.0], [-40.0, 4.0], 40.0)],
            ..STAND
        },
        Pose::Leap => Posture {
            turned: 84.0,
            lift: 0.62,
            trunk: [4.0, 0.0, 10.0],
            head: [-4.0, 0.0, -14.0],
            arms: [arm([104.0, 26.0], [112.0, 14.0]), arm([-62.0, 34.0], [-78.0, 30.0])],
            legs: [leg([-70.0, 4.0], [-92.0, 4.0], -70.0), leg([80.0, 4.0], [84.0, 3.0], 60.0)],
            ..STAND
        },
        Pose::Jump => Posture {
            turned: 18.0,
            lift: 0.42,
            trunk: [-6.0, 0.0, 0.0],
            head: [-6.0, 4.0, 0.0],
            arms: [arm([160.0, 40.0], [168.0, 22.0]), arm([156.0, 44.0], [170.0, 26.0])],
            legs: [leg([6.0, 14.0], [-74.0, 10.0], 10.0), leg([-4.0, 18.0], [-62.0, 14.0], 6.0)],
            ..STAND
        },
        Pose::RopeJump => Posture {
            turned: 12.0,
            lift: 0.34,
            trunk: [2.0, 3.0, 0.0],
            head: [2.0, -4.0, 2.0],
            arms: [arm([12.0, 46.0], [96.0, 58.0]), arm([8.0, 50.0], [112.0, 50.0])],
            legs: [leg([46.0, 8.0], [-40.0, 5.0], 62.0), leg([34.0, 10.0], [-56.0, 6.0], 44.0)],
            hands: FISTS,
            ..STAND
        },
        Pose::Tuck => Posture {
            turned: 72.0,
            lift: 1.1,
            whole: [38.0, 0.0],
            trunk: [38.0, 0.0, 0.0],
            head: [52.0, 0.0, 0.0],
            arms: [arm([58.0, 14.0], [74.0, -22.0]), arm([56.0, 14.0], [72.0, -22.0])],
            legs: [leg([142.0, 8.0], [2.0, 4.0], 30.0), leg([140.0, 8.0], [-2.0, 4.0], 28.0)],
            ..STAND
        },
        Pose::Kick => Posture {
            turned: 78.0,
            trunk: [-16.0, 0.0, -14.0],
            head: [4.0, 0.0, -8.0],
            arms: [arm([-22.0, 34.0], [58.0, 22.0]), arm([44.0, 22.0], [126.0, -8.0])],
            legs: [leg([2.0, 4.0], [-10.0, 3.0], 92.0), leg([98.0, 6.0], [92.0, 5.0], 158.0)],
            hands: FISTS,
            ..STAND
        },
        Pose::HighKick => Posture {
            turned: -8.0,
            trunk: [6.0, 42.0, 0.0],
            head: [2.0, 14.0, 26.0],
            arms: [arm([18.0, 32.0], [90.0, 8.0]), arm([30.0, 36.0], [112.0, -14.0])],
            legs: [leg([0.0, -8.0], [-4.0, -6.0], 90.0), leg([14.0, 118.0], [16.0, 114.0], 96.0)],
            hands: FISTS,
            ..STAND
        },
        Pose::Punch => Posture {
            turned: 64.0,
            trunk: [10.0, 0.0, 34.0],
            head: [8.0, 0.0, 0.0],
            arms: [arm([38.0, 14.0], [146.0, -16.0]), arm([88.0, 4.0], [90.0, -2.0])],
            legs: [leg([32.0, 8.0], [-6.0, 4.0], 92.0), leg([-26.0, 8.0], [-44.0, 6.0], 58.0)],
            hands: FISTS,
            ..STAND
        },
        Pose::Guard => Posture {
            turned: 42.0,
            trunk: [10.0, 0.0, -18.0],
            head: [12.0, 0.0, 6.0],
            arms: [arm([52.0, 16.0], [140.0, -18.0]), arm([30.0, 20.0], [150.0, -22.0])],
            legs: [leg([24.0, 10.0], [-12.0, 6.0], 92.0), leg([-16.0, 12.0], [-38.0, 10.0], 66.0)],
            hands: FISTS,
            ..STAND
        },
        Pose::Throw => Posture {
            turned: 78.0,
            trunk: [-10.0, 8.0, -40.0],
            head: [0.0, 0.0, -6.0],
            arms: [arm([82.0, 26.0], [86.0, 10.0]), arm([-62.0, 74.0], [172.0, 42.0])],
            legs: [leg([48.0, 6.0], [22.0, 5.0], 112.0), leg([-20.0, 8.0], [-40.0, 6.0], 58.0)],
            hands: [Hand::Open, Hand::Fist],
            ..STAND
        },
        Pose::Serve => Posture {
            turned: 58.0,
            lift: 0.12,
            trunk: [-8.0, 14.0, -12.0],
            head: [-26.0, 4.0, 4.0],
            arms: [arm([30.0, 20.0], [70.0, 4.0]), arm([168.0, 14.0], [176.0, 6.0])],
            legs: [leg([4.0, 6.0], [-24.0, 4.0], 32.0), leg([-14.0, 6.0], [-58.0, 4.0], 12.0)],
            hands: FISTS,
            ..STAND
        },
        Pose::Swing => Posture {
            turned: 4.0,
            trunk: [16.0, 4.0, 46.0],
            head: [10.0, 0.0, -34.0],
            arms: [arm([62.0, 46.0], [92.0, 48.0]), arm([78.0, -46.0], [104.0, -58.0])],
            legs: [leg([12.0, 20.0], [-12.0, 12.0], 90.0), leg([16.0, 16.0], [-18.0, 14.0], 84.0)],
            hands: FISTS,
            ..STAND
        },
        Pose::Forehand => Posture {
            turned: 66.0,
            trunk: [12.0, -6.0, 20.0],
            head: [8.0, 0.0, -14.0],
            arms: [arm([54.0, 40.0], [96.0, 12.0]), arm([62.0, 26.0], [84.0, 14.0])],
            legs: [leg([46.0, 12.0], [-6.0, 6.0], 92.0), leg([-18.0, 14.0], [-44.0, 10.0], 58.0)],
            hands: [Hand::Open, Hand::Fist],
            ..STAND
        },
        Pose::Lift => Posture {
            turned: 14.0,
            trunk: [-2.0, 0.0, 0.0],
            head: [-4.0, 0.0, 0.0],
            arms: [arm([168.0, 30.0], [176.0, 14.0]), arm([168.0, 30.0], [176.0, 14.0])],
            legs: [leg([14.0, 12.0], [-12.0, 8.0], 90.0), leg([14.0, 12.0], [-12.0, 8.0], 90.0)],
            hands: FISTS,
            ..STAND
        },
        Pose::Pull => Posture {
            turned: 52.0,
            trunk: [58.0, 0.0, 0.0],
            head: [20.0, 0.0, -8.0],
            arms: [arm([8.0, 8.0], [4.0, 6.0]), arm([8.0, 8.0], [4.0, 6.0])],
            legs: [leg([68.0, 14.0], [-16.0, 8.0], 90.0), leg([68.0, 14.0], [-16.0, 8.0], 90.0)],
            hands: FISTS,
            ..STAND
        },
        Pose::Squat => Posture {
            turned: 44.0,
            trunk: [38.0, 0.0, 0.0],
            head: [6.0, 0.0, -6.0],
            arms: [arm([88.0, 10.0], [88.0, -4.0]), arm([88.0, 10.0], [88.0, -4.0])],
            legs: [leg([96.0, 22.0], [-32.0, 8.0], 90.0), leg([96.0, 22.0], [-32.0, 8.0], 90.0)],
            ..STAND
        },
        Pose::Plank => Posture {
            turned: 76.0,
            whole: [76.0, 0.0],
            trunk: [2.0, 0.0, 0.0],
            head: [-8.0, 0.0, -10.0],
            arms: [arm([92.0, 4.0], [96.0, 2.0]), arm([92.0, 4.0], [96.0, 2.0])],
            legs: [leg([-2.0, 3.0], [-2.0, 3.0], 74.0), leg([-2.0, 3.0], [-2.0, 3.0], 74.0)],
            ..STAND
        },
        Pose::Split => Posture {
            turned: 70.0,
            trunk: [2.0, 0.0, 0.0],
            head: [-2.0, 0.0, -16.0],
            arms: [arm([70.0, 62.0], [84.0, 56.0]), arm([40.0, 74.0], [60.0, 70.0])],
            legs: [leg([-80.0, 6.0], [-94.0, 5.0], -86.0), leg([80.0, 6.0], [86.0, 5.0], 92.0)],
            ..STAND
        },
        Pose::Handstand => Posture {
            turned: 66.0,
            whole: [178.0, 0.0],
            trunk: [-6.0, 0.0, 0.0],
            head: [-24.0, 0.0, 0.0],
            arms: [arm([174.0, 16.0], [178.0, 10.0]), arm([174.0, 16.0], [178.0, 10.0])],
            legs: [leg([-28.0, 4.0], [-44.0, 3.0], -50.0), leg([42.0, 4.0], [38.0, 3.0], 40.0)],
            ..STAND
        },
        Pose::Spin => Posture {
            turned: 26.0,
            trunk: [0.0, 0.0, -10.0],
            head: [0.0, 0.0, 24.0],
            arms: [arm([72.0, 46.0], [106.0, -38.0]), arm([72.0, 46.0], [106.0, -38.0])],
            legs: [leg([0.0, 3.0], [-2.0, 2.0], 34.0), leg([44.0, 46.0], [-26.0, -34.0], 4.0)],
            ..STAND
        },
        Pose::Arabesque => Posture {
            turned: 80.0,
            trunk: [14.0, 0.0, -6.0],
            head: [-10.0, 0.0, -12.0],
            arms: [arm([112.0, 16.0], [110.0, 8.0]), arm([34.0, 72.0], [20.0, 78.0])],
            legs: [leg([-82.0, 6.0], [-94.0, 5.0], -96.0), leg([2.0, 3.0], [-2.0, 2.0], 40.0)],
            ..STAND
        },
        Pose::Bend => Posture {
            turned: 78.0,
            trunk: [-72.0, 0.0, 0.0],
            head: [-104.0, 0.0, 0.0],
            arms: [arm([196.0, 20.0], [222.0, 10.0]), arm([204.0, 20.0], [230.0, 10.0])],
            legs: [leg([20.0, 8.0], [-22.0, 5.0], 90.0), leg([26.0, 8.0], [-14.0, 5.0], 90.0)],
            ..STAND
        },
        Pose::Fence => Posture {
            turned: 82.0,
            trunk: [22.0, 0.0, 28.0],
            head: [10.0, 0.0, -8.0],
            arms: [arm([-76.0, 26.0], [-96.0, 18.0]), arm([84.0, 4.0], [88.0, 2.0])],
            legs: [leg([-46.0, 10.0], [-56.0, 8.0], 62.0), leg([82.0, 4.0], [2.0, 2.0], 90.0)],
            hands: [Hand::Open, Hand::Fist],
            ..STAND
        },
        Pose::Climb => Posture {
            turned: 158.0,
            lift: 0.5,
            trunk: [6.0, 10.0, 8.0],
            head: [-16.0, 0.0, 34.0],
            arms: [arm([160.0, 30.0], [172.0, 10.0]), arm([92.0, 44.0], [150.0, 20.0])],
            legs: [leg([74.0, 44.0], [-12.0, 20.0], 84.0), leg([12.0, 22.0], [-14.0, 12.0], 70.0)],
            hands: FISTS,
            ..STAND
        },
        Pose::Dive => Posture {
            turned: 80.0,
            lift: 0.6,
            whole: [112.0, 0.0],
            trunk: [6.0, 0.0, 0.0],
            head: [16.0, 0.0, 0.0],
            arms: [arm([178.0, 6.0], [180.0, -4.0]), arm([178.0, 6.0], [180.0, -4.0])],
            legs: [leg([-2.0, 2.0], [-4.0, 1.0], -8.0), leg([-2.0, 2.0], [-4.0, 1.0], -8.0)],
            ..STAND
        },
        Pose::Swim => Posture {
            turned: 74.0,
            lift: 0.0,
            whole: [86.0, 16.0],
            trunk: [-4.0, 0.0, 14.0],
            head: [-6.0, 0.0, -46.0],
            arms: [arm([176.0, 8.0], [178.0, 2.0]), arm([-66.0, 58.0], [52.0, 46.0])],
            legs: [leg([6.0, 3.0], [-6.0, 2.0], -10.0), leg([-12.0, 3.0], [-22.0, 2.0], -14.0)],
            ..STAND
        },
        Pose::Row => Posture {
            turned: 72.0,
            lift: 0.12,
            trunk: [26.0, 0.0, 0.0],
            head: [4.0, 0.0, -10.0],
            arms: [arm([82.0, 10.0], [88.0, -4.0]), arm([82.0, 10.0], [88.0, -4.0])],
            legs: [leg([104.0, 8.0], [34.0, 3.0], 118.0), leg([104.0, 8.0], [34.0, 3.0], 118.0)],
            hands: FISTS,
            ..STAND
        },
        Pose::Ride => Posture {
            turned: 72.0,
            lift: 0.16,
            trunk: [50.0, 0.0, 0.0],
            head: [16.0, 0.0, -8.0],
            arms: [arm([64.0, 10.0], [48.0, 2.0]), arm([64.0, 10.0], [48.0, 2.0])],
            legs: [leg([86.0, 5.0], [0.0, 2.0], 84.0), leg([36.0, 5.0], [-18.0, 2.0], 70.0)],
            hands: FISTS,
            ..STAND
        },
        Pose::RideStanding => Posture {
            turned: 56.0,
            lift: 0.34,
            trunk: [30.0, -10.0, 10.0],
            head: [10.0, -4.0, -14.0],
            arms: [arm([62.0, 22.0], [44.0, 8.0]), arm([50.0, 34.0], [56.0, 4.0])],
            legs: [leg([44.0, 12.0], [-18.0, 5.0], 88.0), leg([26.0, 16.0], [-34.0, 8.0], 82.0)],
            hands: FISTS,
            ..STAND
        },
        Pose::Skate => Posture {
            turned: 72.0,
            trunk: [44.0, 0.0, 14.0],
            head: [10.0, 0.0, -16.0],
            arms: [arm([44.0, 40.0], [70.0, 20.0]), arm([-58.0, 24.0], [-70.0, 18.0])],
            legs: [leg([66.0, 6.0], [-22.0, 3.0], 92.0), leg([-8.0, 46.0], [-46.0, 40.0], 66.0)],
            ..STAND
        },
        Pose::Board => Posture {
            turned: 8.0,
            lift: 0.12,
            trunk: [34.0, 14.0, 26.0],
            head: [8.0, 6.0, 54.0],
            arms: [arm([38.0, 62.0], [52.0, 54.0]), arm([26.0, 66.0], [40.0, 74.0])],
            legs: [leg([62.0, 36.0], [-26.0, 18.0], 88.0), leg([62.0, 34.0], [-28.0, 16.0], 88.0)],
            ..STAND
        },
        Pose::Roll => Posture {
            turned: 34.0,
            trunk: [16.0, -14.0, 18.0],
            head: [4.0, -2.0, -24.0],
            arms: [arm([46.0, 74.0], [60.0, 66.0]), arm([20.0, 72.0], [36.0, 82.0])],
            legs: [leg([30.0, 4.0], [-18.0, 3.0], 90.0), leg([-44.0, 22.0], [-78.0, 12.0], 6.0)],
            ..STAND
        },
        Pose::PushWheels => Posture {
            turned: 66.0,
            lift: 0.14,
            trunk: [54.0, 0.0, 0.0],
            head: [12.0, 0.0, -8.0],
            arms: [arm([10.0, 24.0], [30.0, 8.0]), arm([2.0, 24.0], [24.0, 8.0])],
            legs: [leg([112.0, 3.0], [-62.0, 2.0], 10.0), leg([112.0, 3.0], [-62.0, 2.0], 10.0)],
            hands: FISTS,
            ..STAND
        },
        Pose::Speak => Posture {
            turned: 34.0,
            trunk: [4.0, 0.0, 6.0],
            head: [2.0, 4.0, -12.0],
            arms: [arm([34.0, 30.0], [104.0, 40.0]), arm([24.0, 16.0], [132.0, -26.0])],
            hands: [Hand::Open, Hand::Fist],
            ..STAND
        },
        Pose::DanceLead => Posture {
            turned: 66.0,
            trunk: [2.0, 4.0, 6.0],
            head: [4.0, 0.0, -6.0],
            arms: [arm([60.0, 66.0], [96.0, 46.0]), arm([56.0, 24.0], [84.0, -34.0])],
            legs: [leg([18.0, 4.0], [2.0, 3.0], 94.0), leg([-12.0, 4.0], [-26.0, 3.0], 62.0)],
            ..STAND
        },
        Pose::DanceFollow => Posture {
            turned: -64.0,
            trunk: [-14.0, -6.0, 8.0],
            head: [-14.0, -10.0, 16.0],
            arms: [arm([78.0, 24.0], [92.0, -30.0]), arm([62.0, 66.0], [96.0, 44.0])],
            legs: [leg([-14.0, 3.0], [-34.0, 2.0], 40.0), leg([14.0, 3.0], [-4.0, 2.0], 84.0)],
            ..STAND
        },
        Pose::Sit => Posture {
            turned: 48.0,
            lift: 0.0,
            trunk: [6.0, 0.0, 0.0],
            head: [2.0, 0.0, -14.0],
            arms: [arm([24.0, 12.0], [62.0, -14.0]), arm([22.0, 14.0], [66.0, -16.0])],
            legs: [leg([88.0, 8.0], [4.0, 4.0], 90.0), leg([86.0, 10.0], [-10.0, 4.0], 88.0)],
            ..STAND
        },
        Pose::Portrait => Posture {
            turned: 26.0,
            trunk: [2.0, 2.0, -6.0],
            head: [2.0, -4.0, -18.0],
            arms: [arm([14.0, 18.0], [70.0, -38.0]), arm([12.0, 18.0], [74.0, -42.0])],
            ..STAND
        },
        Pose::Lie => Posture {
            turned: 84.0,
            whole: [-88.0, 0.0],
            head: [6.0, 0.0, -24.0],
            arms: [arm([2.0, 18.0], [10.0, 14.0]), arm([120.0, 40.0], [160.0, 20.0])],
            legs: [leg([4.0, 6.0], [0.0, 4.0], 60.0), leg([48.0, 8.0], [-30.0, 4.0], 70.0)],
            ..STAND
        },
        Pose::Hang => Posture {
            turned: -56.0,
            lift: 0.85,
            trunk: [-8.0, -14.0, 6.0],
            head: [-4.0, -4.0, -10.0],
            arms: [arm([40.0, 84.0], [50.0, 92.0]), arm([172.0, 14.0], [178.0, -10.0])],
            legs: [leg([-62.0, 14.0], [-72.0, 10.0], -64.0), leg([6.0, 3.0], [-6.0, 3.0], 8.0)],
            hands: [Hand::Open, Hand::Fist],
            ..STAND
        },
        Pose::Catch => Posture {
            turned: 50.0,
            lift: 0.28,
            trunk: [-4.0, 10.0, 0.0],
            head: [-22.0, 4.0, 8.0],
            arms: [arm([148.0, 26.0], [160.0, 4.0]), arm([144.0, 30.0], [156.0, 6.0])],
            legs: [leg([30.0, 8.0], [-44.0, 4.0], 30.0), leg([-12.0, 8.0], [-50.0, 6.0], 16.0)],
            ..STAND
        },
        Pose::HeadToss => Posture {
            turned: 62.0,
            trunk: [-22.0, 0.0, 0.0],
            head: [-48.0, 0.0, -10.0],
            arms: [arm([-16.0, 34.0], [-4.0, 30.0]), arm([-10.0, 36.0], [4.0, 30.0])],
            legs: [leg([18.0, 6.0], [-18.0, 4.0], 90.0), leg([4.0, 8.0], [-24.0, 5.0], 86.0)],
            ..STAND
        },
        Pose::TurnRope => Posture {
            turned: 78.0,
            trunk: [-4.0, 0.0, 6.0],
            head: [4.0, 0.0, 0.0],
            arms: [arm([34.0, 10.0], [78.0, 6.0]), arm([44.0, 10.0], [92.0, 6.0])],
            legs: [leg([14.0, 6.0], [4.0, 4.0], 92.0), leg([-12.0, 6.0], [-18.0, 5.0], 84.0)],
            hands: FISTS,
            ..STAND
        },
    }
}
