//! Whatever is sent: no panic, no number that is none, no answer that takes long. A seeded mutator spoils good bodies, as
//! values and as bytes, and sends them through the whole interface.
//!
//! `FUZZ_INPUTS` says how many; `make fuzz` sends a million.

use axum::body::Body;
use axum::http::{Request, header};
use dash_pebble::api::{App, router};
use dash_pebble::{demo, store};
use http_body_util::BodyExt;
use serde_json::{Value, json};
use std::sync::Arc;
use std::sync::atomic::{AtomicUsize, Ordering};
use std::time::{Duration, Instant};
use tempfile::TempDir;
use tower::ServiceExt;

/// Numbers that look random and are the same every time (xorshift64*).
struct Dice(u64);

impl Dice {
    fn roll(&mut self) -> u64 {
        self.0 ^= self.0 >> 12;
        self.0 ^= self.0 << 25;
        self.0 ^= self.0 >> 27;
        self.0.wrapping_mul(0x2545_F491_4F6C_DD1D) >> 16
    }

    fn below(&mut self, limit: usize) -> usize {
        (self.roll() % limit.max(1) as u64) as usize
    }

    fn one_of<'a, T>(&mut self, all: &'a [T]) -> &'a T {
        &all[self.below(all.len())]
    }
}

fn pointers(value: &Value, here: &str, all: &mut Vec<String>) {
    let mut inside = |key: &str, value: &Value| {
        let pointer = format!("{here}/{}", key.replace('~', "~0").replace('/', "~1"));
        all.push(pointer.clone());
        pointers(value, &pointer, all);
    };
    match value {
        Value::Object(fields) => fields.iter().for_each(|(key, value)| inside(key, value)),
        Value::Array(items) => items.iter().enumerate().for_each(|(index, value)| inside(&index.to_string(), value)),
        _ => {}
    }
}

/// Longer than any name.
const LONG: &str = "a very long name that nobody would ever give to anything, and that goes on and on and on, for as long as it takes to be \
    longer than what is allowed, which it is by now";

fn odd(dice: &mut Dice) -> Value {
    match dice.below(16) {
        0 => Value::Null,
        1 => json!([]),
        2 => json!({}),
        3 => json!(true),
        4 => json!(f64::from_bits(dice.roll() << 16 | dice.roll() & 0xffff)),
        5 => json!(dice.roll() as i64 % 1000 - 500),
        6 => json!(10f64.powi(dice.below(40) as i32 - 20)),
        7 => json!(-(10f64.powi(dice.below(12) as i32 - 6))),
        8 => json!(*dice.one_of::<&str>(&["1/250", "front", "", "\u{202e}x", "０", "1e400", "NaN", LONG])),
        9 => json!(f64::MAX),
        10 => json!(5e-324),
        11 => json!(0.0),
        12 => json!(1.0),
        13 => json!(u64::MAX),
        14 => json!((dice.below(2000) as f64 - 1000.0) / 100.0),
        _ => json!(dice.below(100) as f64 / 100.0),
    }
}

/// A good value with one to three places changed, taken away, doubled or exchanged.
fn spoiled(good: &Value, dice: &mut Dice) -> Value {
    let mut value = good.clone();
    for _ in 0..=dice.below(3) * dice.below(2) {
        let mut all = Vec::new();
        pointers(&value, "", &mut all);
        if all.is_empty() {
            return odd(dice);
        }
        // Gently, most of the time: what is refused at the door finds nothing behind it.
        let gently = dice.below(10) < 7;
        let numbers: Vec<&String> = all.iter().filter(|one| value.pointer(one).is_some_and(Value::is_f64)).collect();
        let pointer =
            if gently && !numbers.is_empty() { (*dice.one_of(&numbers)).clone() } else { dice.one_of(&all).clone() };
        let (parent, key) = pointer.rsplit_once('/').expect("a pointer has a slash");
        let taken = value.pointer(dice.one_of(&all).as_str()).cloned().unwrap_or_default();
        let was = value.pointer(&pointer).and_then(Value::as_f64);
        let new = match (if gently { 3 } else { dice.below(10) }, was) {
            (0 | 1, _) => {
                match value.pointer_mut(parent) {
                    Some(Value::Object(fields)) => drop(fields.remove(key)),
                    Some(Value::Array(items)) if dice.below(2) == 0 => {
                        drop(items.remove(key.parse().expect("an index")))
                    }
                    Some(Value::Array(items)) => items.extend(items.clone()),
                    _ => {}
                }
                continue;
            }
            (2, _) => taken,
            // A number near the one that was there finds more than one far away.
            (3..=5, Some(was)) => json!(was * dice.one_of(&[0.0, 0.01, 0.5, 0.8, 0.99, 1.01, 1.3, 2.0, 100.0, -1.0])),
            _ => odd(dice),
        };
        *value.pointer_mut(&pointer).expect("it is there") = new;
    }
    value
}

/// Bytes with some of them changed, cut or repeated.
fn mangled(good: &[u8], dice: &mut Dice) -> Vec<u8> {
    let mut bytes = good.to_vec();
    for _ in 0..=dice.below(4) {
        let at = dice.below(bytes.len());
        match dice.below(4) {
            0 => bytes.truncate(at),
            1 => bytes.splice(at..at, good[..dice.below(good.len().min(200))].iter().copied()).for_each(drop),
            _ if !bytes.is_empty() => bytes[at] = dice.roll() as u8,
            _ => bytes.push(b'{'),
        }
    }
    bytes
}

/// Inputs before a new file is begun: what is added makes every search of the kit longer.
const ON_ONE_FILE: usize = 2000;

/// What is sent where: the address, a good body, and how often against the others.
fn questions() -> Vec<(&'static str, Value, usize)> {
    let shots =
        ["double-ropes", "lantern-slalom", "slipway-spin", "sabre-reach", "silks", "finishers-wall", "roller-hall"];
    let mut all = Vec::new();
    for shot in shots.map(crate::common::example) {
        let hold = json!({ "base": shot, "shot": shot, "turned": "aperture" });
        let drag = json!({ "shot": shot, "wish": { "part": 0, "share": 0.2, "ambient_stops": -1.0 } });
        all.extend([
            ("/api/forecast", shot.clone(), 40),
            ("/api/bench", shot.clone(), 20),
            ("/api/daylight", shot.clone(), 8),
            ("/api/equivalents", shot.clone(), 4),
            ("/api/groups", shot.clone(), 8),
            ("/api/fit", shot.clone(), 6),
            ("/api/picture?width=64", shot.clone(), 6),
            ("/api/hold", hold, 4),
            ("/api/drag", drag, 8),
            ("/api/match", json!({ "shot": shot }), 1),
            ("/api/shots", shot, 2),
        ]);
    }
    let kit = crate::common::example("kit");
    for unit in kit["units"].as_array().expect("units") {
        all.push(("/api/units/sheet", unit.clone(), 4));
        all.push(("/api/stand-ins/recording?power=0.25", unit.clone(), 1));
        all.push(("/api/kit/items", json!({ "what": "unit", "item": unit }), 2));
    }
    let few = json!({ "format": kit["format"], "version": kit["version"], "units": [kit["units"][0]], "lamps": kit["lamps"] });
    let sky = json!({ "latitude_deg": 54.2, "longitude_deg": -4.5, "date": "2026-07-18", "time": "12:00",
                      "utc_offset_min": 60, "cloud_stops": 1.0 });
    let streak = json!({ "aperture_f": 5.6, "iso": 400.0, "filter_stops": 0.0, "speed_m_s": 4.0, "size_m": 0.05,
                         "streak_stops": 1.0 });
    let tones = json!({ "tones": [{ "name": "wall", "share": 0.6, "reflectance": 0.04, "relative_distance": 2.0 }],
                        "next": [] });
    all.extend([
        ("/api/kit/import", few, 20),
        ("/api/sky", sky, 30),
        ("/api/streak", streak, 20),
        ("/api/metering", tones, 20),
        ("/api/match/job", json!({ "shots": ["double-ropes"] }), 2),
    ]);
    all
}

/// What was wrong with an answer, if anything.
fn fault(status: u16, kind: &str, text: &str, sent: &str) -> Option<String> {
    if status >= 500 && status != 503 {
        return Some(format!("{status}"));
    }
    if !kind.ends_with("json") && !kind.ends_with("text/csv; charset=utf-8") {
        return None;
    }
    // A title or a word of the sender comes back as it was; a number that is none stands by itself.
    let alone = |word: &&str| {
        !sent.contains(*word)
            && text.match_indices(*word).any(|(at, _)| {
                let before = text[..at].chars().next_back().unwrap_or(' ');
                let after = text[at + word.len()..].chars().next().unwrap_or(' ');
                !before.is_alphanumeric() && !after.is_alphanumeric() && status < 400
            })
    };
    ["NaN", "inf", "-inf"].into_iter().find(alone).map(|word| {
        let at = text.find(word).unwrap_or(0);
        let around: String = text.chars().skip(at.saturating_sub(200)).take(300).collect();
        format!("{word} in an answer: {around}")
    })
}

#[tokio::test(flavor = "multi_thread", worker_threads = 2)]
async fn whatever_is_sent_is_answered_or_refused() {
    let inputs: usize = std::env::var("FUZZ_INPUTS").ok().and_then(|text| text.parse().ok()).unwrap_or(2_000);
    let (mut answered, mut slowest) = (0, 0);
    for (round, first) in (0..inputs).step_by(ON_ONE_FILE).enumerate() {
        let (here, longest) = sent(ON_ONE_FILE.min(inputs - first), round as u64).await;
        (answered, slowest) = (answered + here, longest.max(slowest));
    }
    println!("{inputs} inputs: {answered} answered, the others refused; the slowest took {slowest} ms");
    assert!(answered * 5 > inputs, "only {answered} of {inputs} inputs got through");
}

/// Sends some inputs to a file of their own; how many were answered, and how long the slowest took, in milliseconds.
async fn sent(inputs: usize, round: u64) -> (usize, usize) {
    let folder = TempDir::new().unwrap();
    let store = store::open_filled(&folder.path().join("season.sqlite"), demo::fill).await.unwrap();
    let app = App::new(store.clone());
    let questions = Arc::new(questions());
    let weights: usize = questions.iter().map(|(_, _, weight)| weight).sum();
    let (answered, slowest) = (Arc::new(AtomicUsize::new(0)), Arc::new(AtomicUsize::new(0)));
    let hands = 2;
    let work = |hand: usize| {
        let (router, questions) = (router(app.clone()), Arc::clone(&questions));
        let (answered, slowest) = (Arc::clone(&answered), Arc::clone(&slowest));
        async move {
            let mut dice = Dice(0x00DA_58EB_B1E5 + hand as u64 * 7919 + round * 104_729);
            for number in 0..inputs / hands {
                let mut at = dice.below(weights);
                let (path, good, _) = questions
                    .iter()
                    .find(|(_, _, weight)| {
                        let here = at < *weight;
                        at = at.saturating_sub(*weight);
                        here
                    })
                    .unwrap_or(&questions[0]);
                let body = match dice.below(12) {
                    0 => mangled(good.to_string().as_bytes(), &mut dice),
                    _ => spoiled(good, &mut dice).to_string().into_bytes(),
                };
                let request = Request::post(*path).header(header::HOST, "localhost").body(Body::from(body.clone()));
                let begun = Instant::now();
                let said = || format!("input {number} of hand {hand} to {path}: {}", String::from_utf8_lossy(&body));
                let answer = tokio::spawn(router.clone().oneshot(request.expect("a request"))).await;
                let answer = answer.unwrap_or_else(|panic| panic!("{panic}: {}", said())).expect("never fails");
                let status = answer.status().as_u16();
                let kind = answer.headers().get("content-type").map_or("", |kind| kind.to_str().unwrap()).to_owned();
                let bytes = answer.into_body().collect().await.expect("a body").to_bytes();
                let took = begun.elapsed();
                slowest.fetch_max(took.as_millis() as usize, Ordering::Relaxed);
                answered.fetch_add(usize::from(status < 300), Ordering::Relaxed);
                if let Some(fault) =
                    fault(status, &kind, &String::from_utf8_lossy(&bytes), &String::from_utf8_lossy(&body))
                {
                    panic!("{fault}\n{}", said());
                }
                assert!(took < Duration::from_secs(if cfg!(debug_assertions) { 5 } else { 1 }), "{took:?}: {}", said());
            }
        }
    };
    let all: Vec<_> = (0..hands).map(|hand| tokio::spawn(work(hand))).collect();
    for one in all {
        one.await.unwrap();
    }
    store.close().await;
    (answered.load(Ordering::Relaxed), slowest.load(Ordering::Relaxed))
}
