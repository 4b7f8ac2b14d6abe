//! Colour of light: in mired, `10⁶/T`, in which what only warms or cools adds up; and what dyes leave of red, green and
//! blue, which multiplies.

/// What is left of red, green and blue behind a dye.
pub type Dye = [f64; 3];

/// Behind nothing.
pub const CLEAR: Dye = [1.0; 3];

/// The least that a dye leaves of a channel: none is perfect.
const LEAK: f64 = 0.01;

/// A dye by its hue, in degrees round the wheel of red (0), green (120) and blue (240), and by how much of everything else
/// it takes out, 0 to 1 (the hexagon of hues, in linear light).
pub fn dye(hue_deg: f64, saturation: f64) -> Dye {
    let sixth = hue_deg.rem_euclid(360.0) / 60.0;
    // Full within a sixth of the channel's own hue, none from two sixths on.
    [0.0, 2.0, 4.0].map(|own| {
        let away = (sixth - own).abs();
        let pure = (2.0 - away.min(6.0 - away)).clamp(0.0, 1.0);
        (1.0 - saturation * (1.0 - pure)).max(LEAK)
    })
}

/// One dye behind another.
pub fn stacked(one: Dye, other: Dye) -> Dye {
    std::array::from_fn(|channel| one[channel] * other[channel])
}

/// A light behind a dye, again of luminance 1: what it loses is counted where light is.
pub fn dyed(light: [f64; 3], dye: Dye) -> [f64; 3] {
    if dye == CLEAR { light } else { of_luminance_one(stacked(light, dye)) }
}

/// What people call a colour, where it is strong enough to be called anything.
pub fn hue_word(light: [f64; 3]) -> Option<&'static str> {
    let [red, green, blue] = light;
    let (most, least) = (red.max(green).max(blue), red.min(green).min(blue));
    let span = most - least;
    if most <= 0.0 || span < 0.5 * most {
        return None;
    }
    let sixth = if most == red {
        (green - blue) / span
    } else if most == green {
        2.0 + (blue - red) / span
    } else {
        4.0 + (red - green) / span
    };
    /// Names up to a hue, in degrees.
    const NAMES: [(f64, &str); 9] = [
        (15.0, "red"),
        (42.0, "amber"),
        (75.0, "yellow"),
        (150.0, "green"),
        (200.0, "teal"),
        (255.0, "blue"),
        (285.0, "violet"),
        (340.0, "magenta"),
        (360.0, "red"),
    ];
    let hue = (sixth * 60.0).rem_euclid(360.0);
    NAMES.iter().find(|(to, _)| hue <= *to).map(|(_, name)| *name)
}

/// A colour temperature behind a shift in mired; positive is warmer. A shift that would take it past infinity gives the
/// bluest there is, 10⁶ K.
pub fn shifted(kelvin: f64, mired: f64) -> f64 {
    1e6 / (1e6 / kelvin + mired).max(1.0)
}

/// The shift from one colour temperature to another.
pub fn shift_between(from_kelvin: f64, to_kelvin: f64) -> f64 {
    1e6 / to_kelvin - 1e6 / from_kelvin
}

/// A light of a colour temperature as a camera balanced for another shows it: linear red, green, blue (ITU-R BT.709
/// primaries) of luminance 1. A Planckian radiator's chromaticity by Kim et al. 2002 (US patent 7024034; 1667 to 25 000 K,
/// ends held), each channel scaled by the balance, as cameras do.
pub fn seen_as(kelvin: f64, white_balance: f64) -> [f64; 3] {
    let (light, white) = (radiator(kelvin), radiator(white_balance));
    let balanced: [f64; 3] = std::array::from_fn(|channel| light[channel] / white[channel]);
    of_luminance_one(balanced)
}

/// Several lights of luminance 1 together, each with its share.
pub fn mixed(lights: impl IntoIterator<Item = ([f64; 3], f64)>) -> [f64; 3] {
    let sum = lights.into_iter().fold([0.0; 3], |sum: [f64; 3], (colour, share)| {
        std::array::from_fn(|channel| sum[channel] + colour[channel] * share)
    });
    if sum.iter().sum::<f64>() > 0.0 { of_luminance_one(sum) } else { [1.0; 3] }
}

/// Luminance of linear BT.709 primaries.
const LUMINANCE: [f64; 3] = [0.2126, 0.7152, 0.0722];

fn of_luminance_one(colour: [f64; 3]) -> [f64; 3] {
    let luminance: f64 = colour.iter().zip(LUMINANCE).map(|(channel, weight)| channel * weight).sum();
    colour.map(|channel| channel / luminance)
}

fn radiator(kelvin: f64) -> [f64; 3] {
    let t = 1e3 / kelvin.clamp(1667.0, 25_000.0);
    let cubic = |[a, b, c, d]: [f64; 4], x: f64| ((a * x + b) * x + c) * x + d;
    let x = if t > 0.25 {
        cubic([-0.266_123_9, -0.234_358_9, 0.877_695_6, 0.179_910], t)
    } else {
        cubic([-3.025_846_9, 2.107_037_9, 0.222_634_7, 0.240_390], t)
    };
    let y = if t > 1e3 / 2222.0 {
        cubic([-1.106_381_4, -1.348_110_20, 2.185_558_32, -0.202_196_83], x)
    } else if t > 0.25 {
        cubic([-0.954_947_6, -1.374_185_93, 2.091_370_15, -0.167_488_67], x)
    } else {
        cubic([3.081_758_0, -5.873_386_7, 3.751_129_97, -0.370_014_83], x)
    };
    let (big_x, big_z) = (x / y, (1.0 - x - y) / y);
    // XYZ to linear BT.709 (IEC 61966-2-1); the reddest lights lie outside its triangle.
    [
        3.240_6 * big_x - 1.537_2 - 0.498_6 * big_z,
        -0.968_9 * big_x + 1.875_8 + 0.041_5 * big_z,
        0.055_7 * big_x - 0.204_0 + 1.057_0 * big_z,
    ]
    .map(|channel| channel.max(1e-3))
}
