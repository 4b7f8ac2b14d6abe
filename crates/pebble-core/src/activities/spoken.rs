//! Words that people have for a speed, with what they mean.

/// A word, from how slow to how fast in m/s, and where that comes from.
pub struct Spoken {
    /// The word, as it is typed.
    pub word: &'static str,
    /// From the slowest to the fastest.
    pub speed_m_s: (f64, f64),
    /// Where these figures come from.
    pub basis: &'static str,
}

const fn word(word: &'static str, slow: f64, fast: f64, basis: &'static str) -> Spoken {
    Spoken { word, speed_m_s: (slow, fast), basis }
}

/// All of them. A word that could mean several parts names the one whose speed it is.
pub const SPOKEN: &[Spoken] = &[
    word("still", 0.05, 0.3, "somebody who tries to stand still"),
    word("walk", 1.2, 1.6, "1.4 m/s, as most people walk"),
    word("jog", 2.2, 3.3, "a pace of 7:30 to 5:00 a kilometre"),
    word("run", 2.8, 5.5, "a pace of 6:00 to 3:00 a kilometre"),
    word("sprint", 8.0, 10.0, "a sprinter's trunk at full speed"),
    word("sprint foot", 14.0, 20.0, "a swinging foot moves up to twice as fast as the trunk"),
    word("running foot", 5.6, 11.0, "a swinging foot moves up to twice as fast as the trunk"),
    word("punch", 6.0, 10.0, "a trained straight punch"),
    word("kick", 12.0, 20.0, "a trained kick at the moment it lands"),
    word("throw", 12.0, 22.0, "a hand at release, leisure to competition"),
    word("racket head", 18.0, 40.0, "a racket's head at the hit, club to tour"),
    word("bat", 20.0, 32.0, "the sweet spot of a bat at the hit"),
    word("blade", 8.0, 20.0, "the tip of a cut at 0.9 m from a turning wrist"),
    word("rope tip", 9.0, 15.0, "2 to 3 turns a second at a radius of 0.75 m"),
    word("ball", 6.0, 30.0, "a pass to a kicked shot"),
    word("hair", 3.0, 7.0, "the ends of hair that is thrown, 0.5 m from the neck"),
    word("hem", 3.0, 8.0, "1 to 2.5 turns a second at a radius of 0.5 m"),
    word("drops", 1.4, 3.1, "√(2 × 9.8 × 0.1 to 0.5 m) of fall"),
    word("splash", 3.0, 8.0, "a bucket's throw, and what springs off"),
    word("powder", 2.0, 6.0, "fine dust is slowed within half a metre"),
    word("confetti", 1.0, 2.5, "paper falls at 1 to 1.5 m/s and flutters"),
    word("cycling", 5.5, 11.0, "20 to 40 km/h"),
    word("top of a wheel", 11.0, 22.0, "twice the hub's speed, at 20 to 40 km/h"),
    word("skating", 3.0, 7.0, "10 to 25 km/h"),
    word("dance", 0.5, 2.0, "steps and hips on the beat"),
    word("gesture", 0.5, 2.0, "a speaker's hands"),
];
