//! Chance from a seed: small, fast, and the same on every machine.

/// A generator of random numbers (SplitMix64; Steele, Lea & Flood, OOPSLA 2014).
#[derive(Clone, Debug)]
pub(crate) struct Chance(u64);

impl Chance {
    pub(crate) const fn new(seed: u64) -> Self {
        Self(seed)
    }

    fn next(&mut self) -> u64 {
        self.0 = self.0.wrapping_add(0x9E37_79B9_7F4A_7C15);
        let mut mixed = self.0;
        mixed = (mixed ^ (mixed >> 30)).wrapping_mul(0xBF58_476D_1CE4_E5B9);
        mixed = (mixed ^ (mixed >> 27)).wrapping_mul(0x94D0_49BB_1331_11EB);
        mixed ^ (mixed >> 31)
    }

    /// Even between 0 (out) and 1 (in).
    pub(crate) fn even(&mut self) -> f64 {
        ((self.next() >> 11) + 1) as f64 / (1_u64 << 53) as f64
    }

    /// Normal, mean 0 and deviation 1 (Box & Muller 1958).
    pub(crate) fn normal(&mut self) -> f64 {
        let (radius, turn) = ((-2.0 * self.even().ln()).sqrt(), std::f64::consts::TAU * self.even());
        radius * turn.cos()
    }
}
