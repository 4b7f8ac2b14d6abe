//! What every number from outside may be: one table, one check, one wording.

use thiserror::Error;

/// One row of the table: the human word, the unit and the closed range of a figure.
#[derive(Clone, Copy, Debug)]
pub struct Limits {
    /// What the figure is, as a photographer calls it.
    pub what: &'static str,
    /// Unit as written after the number; empty for pure numbers.
    pub unit: &'static str,
    /// Smallest allowed value.
    pub min: f64,
    /// Largest allowed value.
    pub max: f64,
}

/// A figure that cannot be. Each variant names the field (a path in the shot), the value given and what is allowed.
#[derive(Clone, Debug, PartialEq, Error)]
pub enum Invalid {
    /// Outside its range, or not a number at all.
    #[error("{what} ({field}) is {given}, which is not between {} and {}{}", end(*min), end(*max), spaced(unit))]
    OutOfRange {
        /// Path in the shot, such as `flash.distance_m`.
        field: String,
        /// The human word.
        what: String,
        /// The value as given.
        given: f64,
        /// Smallest allowed value.
        min: f64,
        /// Largest allowed value.
        max: f64,
        /// Unit of the three numbers.
        unit: String,
    },
    /// Not one of the words or forms allowed there.
    #[error("{field} is \"{given}\", which is not {allowed}")]
    NotAllowed {
        /// Path in the shot.
        field: String,
        /// The text as given.
        given: String,
        /// What would be allowed.
        allowed: String,
    },
    /// Two figures that contradict each other.
    #[error("{field} is {given}, but {reason}")]
    Contradiction {
        /// Path in the shot.
        field: String,
        /// The value as given.
        given: String,
        /// What it contradicts.
        reason: String,
    },
}

/// The end of a range as one says it: an aperture of 2.828 is written f/2.83.
fn end(of: f64) -> f64 {
    if of == 0.0 || !of.is_finite() || of.fract() == 0.0 {
        return of;
    }
    let digit = 10_f64.powi(2 - of.abs().log10().floor() as i32);
    (of * digit).round() / digit
}

fn spaced(unit: &str) -> String {
    if unit.is_empty() { String::new() } else { format!(" {unit}") }
}

impl Invalid {
    /// Path of the field in the shot.
    pub fn field(&self) -> &str {
        match self {
            Self::OutOfRange { field, .. } | Self::NotAllowed { field, .. } | Self::Contradiction { field, .. } => {
                field
            }
        }
    }

    /// The value as given.
    pub fn given(&self) -> String {
        match self {
            Self::OutOfRange { given, .. } => given.to_string(),
            Self::NotAllowed { given, .. } | Self::Contradiction { given, .. } => given.clone(),
        }
    }

    /// What would have been allowed.
    pub fn allowed(&self) -> String {
        match self {
            Self::OutOfRange { min, max, unit, .. } => format!("{} to {}{}", end(*min), end(*max), spaced(unit)),
            Self::NotAllowed { allowed, .. } => allowed.clone(),
            Self::Contradiction { reason, .. } => reason.clone(),
        }
    }
}

impl Limits {
    /// Lets a value through that lies in the range.
    ///
    /// # Errors
    /// [`Invalid::OutOfRange`] when `value < min`, `value > max` or `value` is not a number.
    pub fn check(&self, field: &str, value: f64) -> Result<f64, Invalid> {
        self.held(value).ok_or_else(|| self.refuse(field, value))
    }

    /// A value that is within them.
    pub fn held(&self, value: f64) -> Option<f64> {
        // Written so that NaN, which compares false with everything, is refused too.
        // A minus zero becomes a zero: nobody wants to read −0.0 px.
        (value >= self.min && value <= self.max).then_some(value + 0.0)
    }

    /// The refusal itself, for limits that were narrowed by a camera or a unit.
    pub fn refuse(&self, field: &str, given: f64) -> Invalid {
        Invalid::OutOfRange {
            field: field.to_owned(),
            what: self.what.to_owned(),
            given,
            min: self.min,
            max: self.max,
            unit: self.unit.to_owned(),
        }
    }

    /// The same figure held to a narrower range.
    pub const fn within(&self, min: f64, max: f64) -> Self {
        Self { min, max, ..*self }
    }
}

macro_rules! limits {
    ($($(#[$doc:meta])* $name:ident = $what:literal, $unit:literal, $min:expr, $max:expr;)*) => {
        $($(#[$doc])* pub const $name: Limits = Limits { what: $what, unit: $unit, min: $min, max: $max };)*

        /// Every row, for tests and documentation.
        pub const ALL: &[Limits] = &[$($name),*];
    };
}

limits! {
    /// f-number.
    APERTURE = "aperture", "", 0.5, 128.0;
    /// Exposure time.
    SHUTTER = "shutter time", "s", 1e-6, 3600.0;
    /// Sensitivity.
    ISO = "ISO", "", 1.0, 6_553_600.0;
    /// Loss of a filter.
    FILTER = "filter loss", "stops", 0.0, 20.0;
    /// Focal length.
    FOCAL = "focal length", "mm", 4.0, 2000.0;
    /// Camera to subject.
    SUBJECT_DISTANCE = "subject distance", "m", 0.05, 500.0;
    /// Flash to subject.
    FLASH_DISTANCE = "flash distance", "m", 0.05, 200.0;
    /// Depth of the group or the movement.
    SUBJECT_DEPTH = "depth of the subject", "m", 0.0, 100.0;
    /// The most that shall be sharp.
    DEPTH_AT_MOST = "greatest depth", "m", 0.001, 1000.0;
    /// An action that a burst shall cover.
    ACTION = "length of the action", "s", 0.01, 3600.0;
    /// Subject to background.
    BEHIND = "distance to the background", "m", 0.0, 10_000.0;
    /// Power fraction; the unit narrows it.
    POWER = "flash power", "of full", 1.0 / 4096.0, 1.0;
    /// Loss or gain of a modifier.
    MODIFIER = "modifier change", "stops", -12.0, 6.0;
    /// Radius of the lit face.
    FACE = "face radius", "m", 0.0, 10.0;
    /// Virtual source behind the face.
    SOURCE_OFFSET = "virtual source offset", "m", 0.0, 10.0;
    /// Speed of a part.
    SPEED = "speed", "m/s", 0.0, 100.0;
    /// Direction in the frame.
    DIRECTION = "direction", "°", -360.0, 360.0;
    /// Angle out of the sensor plane.
    OUT_OF_PLANE = "angle out of the picture plane", "°", -90.0, 90.0;
    /// Size of a part along its movement.
    PART_SIZE = "size along the movement", "m", 0.0, 100.0;
    /// Length of a round or to-and-fro path.
    PATH = "path length", "m", 0.001, 1000.0;
    /// A sheet behind the subject.
    SHEET = "size of the sheet", "m", 0.2, 60.0;
    /// By the compass.
    COMPASS = "compass bearing", "°", 0.0, 360.0;
    /// Height of a ceiling.
    CEILING = "height of the ceiling", "m", 1.5, 60.0;
    /// Along a way.
    ALONG = "speed along it", "m/s", 0.1, 100.0;
    /// How much light may differ over an area.
    EVEN = "difference over the area", "stops", 0.05, 10.0;
    /// What a tape measures.
    TAPE = "distance by tape", "m", 0.0, 100.0;
    /// Arm of a boom.
    BOOM = "arm of the boom", "m", 0.3, 6.0;
    /// Kilograms of a stand with all that is on it.
    STAND = "weight of the stand", "kg", 0.5, 200.0;
    /// Metres from a stand's column to its feet.
    FEET = "feet from the column", "m", 0.1, 2.5;
    /// Sides of a flag.
    FLAG = "size of the flag", "m", 0.05, 6.0;
    /// Wind.
    GUST = "gust", "m/s", 0.0, 50.0;
    /// Speed of a phase along its direction, or against it.
    PHASE_SPEED = "speed", "m/s", -100.0, 100.0;
    /// How long a phase lasts.
    PHASE_TIME = "time of a phase", "s", 0.001, 120.0;
    /// How far a phase goes.
    PHASE_WAY = "way of a phase", "m", 0.001, 1000.0;
    /// Radius of an arc.
    ARC_RADIUS = "radius of an arc", "m", 0.01, 100.0;
    /// Angles of an arc.
    ARC_ANGLE = "angle of an arc", "°", -7200.0, 7200.0;
    /// Height of a fall or a jump.
    RISE = "height", "m", 0.01, 50.0;
    /// To each side.
    AMPLITUDE = "way to each side", "m", 0.001, 20.0;
    /// To and fro.
    TO_AND_FRO = "rate to and fro", "a second", 0.02, 60.0;
    /// When the shutter opens.
    OPENS_AT = "opening", "s", -60.0, 120.0;
    /// How far off who presses is.
    SPREAD = "spread of the press", "s", 0.001, 2.0;
    /// How long who presses takes.
    REACTION = "reaction", "s", 0.05, 3.0;
    /// Tries of a jump.
    TRIES = "number of tries", "", 1.0, 500.0;
    /// Length of a streak in the scene.
    STREAK_LENGTH = "streak length", "m", 0.001, 100.0;
    /// Share of the frame's width that a streak shall cover.
    STREAK = "streak length", "of the frame", 0.001, 5.0;
    /// Reflectance.
    REFLECTANCE = "reflectance", "", 0.0, 1.0;
    /// Luminance of a lamp in the picture.
    LUMINANCE = "luminance", "cd/m²", 0.0, 1e8;
    /// Illuminance.
    ILLUMINANCE = "illuminance", "lx", 0.0, 1e6;
    /// Exposure value at ISO 100.
    EV = "EV at ISO 100", "EV", -16.0, 22.0;
    /// A target or an offset in stops.
    OFFSET = "offset", "stops", -12.0, 12.0;
    /// Guide number in metres at ISO 100.
    GUIDE_NUMBER = "guide number", "m", 0.1, 2000.0;
    /// Stored energy.
    ENERGY = "stored energy", "J", 0.1, 100_000.0;
    /// Flash output as an exposure.
    FLASH_EXPOSURE = "flash exposure", "lx·s", 1e-4, 1e8;
    /// Half-power half-angle of a beam.
    BEAM = "half beam angle", "°", 1.0, 89.0;
    /// Pulse times.
    PULSE_TIME = "pulse time", "ms", 1e-4, 1000.0;
    /// Exponent of a charge-voltage unit.
    GAMMA = "lengthening exponent", "", 0.0, 0.3;
    /// Number of capacitor banks.
    BANKS = "number of banks", "", 1.0, 64.0;
    /// Delay of trigger or unit.
    LAG = "lag", "ms", 0.0, 1000.0;
    /// Curtain travel or readout.
    TRAVEL = "curtain travel", "ms", 0.0, 1000.0;
    /// Margin a camera keeps before the second curtain.
    GUARD = "rear sync guard", "ms", 0.0, 100.0;
    /// Sensor side.
    SENSOR = "sensor side", "mm", 1.0, 300.0;
    /// Pixels along the width.
    PIXELS = "pixels", "", 16.0, 200_000.0;
    /// Efficiency of high-speed sync.
    EFFICIENCY = "efficiency", "", 0.01, 1.0;
    /// Frames a second.
    FRAME_RATE = "frame rate", "a second", 0.05, 240.0;
    /// Weight of a thing that is carried.
    MASS = "weight", "kg", 0.0, 500.0;
    /// Further layers of diffusion.
    LAYERS = "number of layers", "", 0.0, 10.0;
    /// Change of light by one layer of diffusion.
    LAYER = "change by a layer", "stops", -4.0, 0.0;
    /// Shift of colour.
    MIRED = "colour shift", "mired", -500.0, 500.0;
    /// Constant of an incident meter (ISO 2720: 240 to 540 for flat receptors and domes).
    METER_C = "constant of the meter", "", 200.0, 600.0;
    /// Hue round the wheel.
    HUE = "hue", "°", 0.0, 360.0;
    /// Height of the lens over the floor.
    LENS_HEIGHT = "height of the lens", "m", 0.02, 30.0;
    /// Height over the floor of what stands in the middle of the frame.
    AIM_HEIGHT = "height of the middle of the frame", "m", 0.0, 20.0;
    /// Where somebody or something stands from the mark.
    STANDS = "place from the mark", "m", -60.0, 60.0;
    /// How high something is put.
    LIFTED = "height over the floor", "m", -1.0, 20.0;
    /// How far somebody is turned.
    TURNED = "turn", "°", -360.0, 360.0;
    /// Height of a person.
    PERSON_HEIGHT = "height of a person", "m", 0.5, 2.4;
    /// Size of a thing against its usual one.
    THING_SIZE = "size", "times the usual", 0.2, 5.0;
    /// Where a picture's horizon lies, from its top.
    HORIZON = "horizon", "of the picture's height", 0.0, 1.0;
    /// How pure a hue is.
    SATURATION = "saturation", "", 0.0, 1.0;
    /// Colour temperature.
    KELVIN = "colour temperature", "K", 1000.0, 40_000.0;
    /// Reach of a trigger.
    RANGE = "range", "m", 0.1, 10_000.0;
    /// Channels or groups.
    CHANNELS = "number of channels or groups", "", 1.0, 1000.0;
    /// Energy of a battery.
    BATTERY = "usable energy", "Wh", 0.1, 100_000.0;
    /// Draw of a waiting unit.
    IDLE = "idle draw", "W", 0.0, 10_000.0;
    /// Draw of a lamp.
    WATTS = "power", "W", 0.1, 100_000.0;
    /// Time to fill an empty store.
    RECYCLE = "recycle time", "s", 0.001, 120.0;
    /// Shortest time between two flashes.
    INTERVAL = "minimum interval", "ms", 0.0, 60_000.0;
    /// Heat a unit can hold.
    HEAT = "heat capacity", "J", 1.0, 1e8;
    /// Heat a unit gives off.
    DRAIN = "heat drain", "W", 0.0, 100_000.0;
    /// Heads on one unit.
    HEADS = "number of heads", "", 1.0, 2.0;
    /// Change of all pulse times.
    STRETCH = "change of times", "", 0.2, 5.0;
    /// A reading against what is computed.
    METERED = "correction by a meter", "stops", -6.0, 6.0;
    /// Change of all times of a unit by a cable, its age, or a second head.
    CORRECTION = "correction of times", "%", -80.0, 400.0;
    /// One step of a power dial.
    POWER_STEP = "power step", "stops", 0.05, 2.0;
    /// North of the equator.
    LATITUDE = "latitude", "°", -90.0, 90.0;
    /// East of Greenwich.
    LONGITUDE = "longitude", "°", -180.0, 180.0;
    /// Clock ahead of universal time.
    UTC_OFFSET = "offset of the clock", "min", -840.0, 840.0;
    /// What clouds take.
    CLOUD = "loss by clouds", "stops", 0.0, 8.0;
    /// Equal heads set side by side.
    ABREAST = "number of heads", "", 1.0, 16.0;
    /// Channel of a radio.
    CHANNEL = "channel", "", 1.0, 1000.0;
    /// Where a light stands around the subject.
    BEARING = "bearing", "°", -180.0, 180.0;
    /// How high a light stands.
    HEIGHT = "height angle", "°", -90.0, 90.0;
    /// How far a light is turned away.
    OFF_AXIS = "angle off the axis", "°", 0.0, 180.0;
    /// How a head is turned towards a surface.
    TILT = "tilt", "°", 20.0, 90.0;
    /// Flash to the surface it is bounced off.
    SURFACE = "distance to the surface", "m", 0.2, 50.0;
    /// How far a lamp is turned up.
    LEVEL = "level", "of full", 0.0, 1.0;
    /// How much brighter a rim looks than metered.
    GRAZING = "grazing allowance", "stops", 0.0, 4.0;
    /// A share of the frame.
    SHARE = "share of the frame", "", 0.0, 1.0;
    /// Distance of a tone against the subject's.
    RELATIVE_DISTANCE = "distance against the subject's", "", 0.1, 100.0;
    /// Panning of the camera.
    PAN = "speed of the aim", "m/s", 0.0, 300.0;
    /// Unsteadiness of the hand.
    SHAKE = "shake", "°/s", 0.0, 50.0;
    /// Zooming during the exposure.
    ZOOM = "growth by zooming", "of the picture", -0.9, 4.0;
    /// Turning of the camera on purpose.
    SWING = "swing", "°/s", 0.0, 720.0;
    /// Place in the frame.
    FROM_MIDDLE = "distance from the middle", "of the frame's width", 0.0, 0.6;
    /// People in a group.
    PEOPLE = "number of people", "", 1.0, 500.0;
    /// Rows they stand in.
    ROWS = "number of rows", "", 1.0, 30.0;
    /// From row to row.
    ROW_GAP = "distance of rows", "m", 0.2, 5.0;
    /// How far the ends of a row come forward.
    CURVE = "curve of a row", "m", 0.0, 20.0;
    /// How many of a thing are owned.
    OWNED = "number owned", "", 1.0, 100.0;
    /// Frames of a burst.
    FRAMES = "frames in a row", "", 1.0, 10_000.0;
    /// Flashes on one charge.
    FLASHES = "flashes on one charge", "", 0.0, 1_000_000.0;
    /// How far the key may be from its target.
    WITHIN = "allowed miss of the key", "stops", 0.02, 6.0;
    /// How visible a trail may be.
    TRAIL = "visible trail", "of L*", 0.1, 100.0;
    /// Blur in pixels.
    BLUR = "blur", "px", 0.05, 10_000.0;
    /// How far a dial goes down.
    LOWEST_POWER = "lowest power", "stops below full", 0.0, 12.0;
}
