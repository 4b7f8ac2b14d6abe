//! Finding the pulse in a recording, its durations, and how far they can be trusted.
//!
//! Baseline: median before the trigger. Levels: 5-sample running median. Peak: its maximum. First rise and last fall
//! through 50 % and 10 % of the peak (ISO 2827). Where there are many samples on an edge they all have a say
//! ([`super::edges`]).

use super::Trace;
use super::edges::Curve;
use crate::file::gear::{RecordedCurve, Recording};
use serde::Serialize;
use std::ops::Range;

/// A mean lower than this share of the highest mean stands at an edge, not at the top.
const EDGE_OF_THE_TOP: f64 = 0.98;
/// Samples of the running median.
const MEDIAN: usize = 5;
/// What it leaves of white noise.
const MEDIAN_LEAVES: f64 = 0.54;
/// Recordings with more samples than this above half the peak are averaged down to about as many.
const SAMPLES_WITHIN: usize = 150;
/// Standard deviation of a normal distribution over its median absolute deviation.
const MAD_TO_SIGMA: f64 = 1.4826;
/// A record that ends above this share of the peak gives no t0.1.
const ENDS_TOO_SOON: f64 = 0.1;
/// A record that ends above this share of the peak gives no t90.
const ENDS_SOON: f64 = 0.01;
/// A peak lower than this many times the noise is no pulse.
const LOWEST_PEAK: f64 = 8.0;
/// Noise beyond this share of the peak makes the crossing of 10 % a matter of luck.
const TOO_NOISY: f64 = 0.04;
/// Noise from here on is worth a word.
const NOISY: f64 = 0.015;
/// Fewer samples within t0.5 than this say nothing of it.
const TOO_COARSE: usize = 6;
/// Fewer than this are worth a word.
const COARSE: usize = 20;
/// Share of the samples above half that may stand at the very maximum before the top counts as cut off.
const CLIPPED_SHARE: f64 = 0.1;
/// Fewest samples in such a plateau.
const CLIPPED_RUN: usize = 4;
/// Between two pulses the level falls below this share of the higher.
const GAP: f64 = 0.05;
/// Another pulse counts from this share of the highest on.
const OTHER_PULSE: f64 = 0.2;
/// No flash is shorter, in seconds.
const SHORTEST: f64 = 1e-6;
/// No flash is longer.
const LONGEST: f64 = 1.0;
/// Points of the curve that is sent along.
const POINTS: usize = 480;

/// Points of the curve that is filed.
const FILED_POINTS: usize = 160;

/// What a recording says.
#[derive(Clone, Debug, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[cfg_attr(feature = "schema", schema(as = TraceReading))]
pub struct Reading {
    /// How good it is.
    pub quality: Quality,
    /// What is wrong with it or worth knowing.
    pub remarks: Vec<Remark>,
    /// Samples read.
    pub samples: usize,
    /// Time from one sample to the next, on average.
    pub step_s: f64,
    /// Baseline, in the recorder's unit.
    pub baseline: f64,
    /// Peak above the baseline, in the recorder's unit; negative for a recorder that counts downwards.
    pub peak: f64,
    /// Noise as a share of the peak.
    pub noise_share: f64,
    /// t0.5.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub t05_s: Option<f64>,
    /// t0.1.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub t01_s: Option<f64>,
    /// t90.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub t90_s: Option<f64>,
    /// From first rise to last fall through 50 %.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub t05_span_s: Option<[f64; 2]>,
    /// From first rise to last fall through 10 %.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub t01_span_s: Option<[f64; 2]>,
    /// The shortest interval that holds 90 % of the light.
    #[serde(skip_serializing_if = "Option::is_none")]
    pub t90_span_s: Option<[f64; 2]>,
    /// Area of the pulse, in the recorder's unit times seconds: its light, on the recorder's own scale.
    pub area: f64,
    /// Times of the drawn curve.
    pub curve_s: Vec<f64>,
    /// Its lower edge against the peak: noise is as wide as it was.
    pub curve_low: Vec<f64>,
    /// Its upper edge against the peak.
    pub curve_high: Vec<f64>,
    /// What was noticed while reading.
    pub notes: super::ReadingNotes,
}

impl Reading {
    /// What can be filed of it under a power, with the curve in short; `None` when it is not good enough to be filed.
    pub fn recording(&self, power: f64) -> Option<Recording> {
        let ([from, _], t05, t01) = (self.t01_span_s?, self.t05_s?, self.t01_s?);
        if self.quality == Quality::Unusable {
            return None;
        }
        let millis = |seconds: f64| (seconds * 1e8).round() / 1e5;
        let (first, last) = (*self.curve_s.first()?, *self.curve_s.last()?);
        let start = (from - 0.1 * t01).max(first);
        let step = (last - start) / (FILED_POINTS - 1) as f64;
        let level = (0..FILED_POINTS).map(|k| self.middle_at(start + step * k as f64)).collect();
        Some(Recording {
            power,
            t05_ms: millis(t05),
            t01_ms: millis(t01),
            t90_ms: self.t90_s.map(millis),
            on: None,
            with: None,
            curve: Some(RecordedCurve { step_us: (step * 1e9).round() / 1e3, level }),
        })
    }

    /// The middle of the drawn curve at a time.
    fn middle_at(&self, time: f64) -> f64 {
        let k = self.curve_s.partition_point(|t| *t <= time).saturating_sub(1);
        let middle = f64::midpoint(self.curve_low[k], self.curve_high[k]);
        (middle.clamp(-1.0, 2.0) * 1000.0).round() / 1000.0
    }
}

/// How good a recording is.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum Quality {
    /// Durations to about two per cent.
    Good,
    /// Usable; see the remarks.
    Fair,
    /// Not to be filed.
    Unusable,
}

/// A remark on a recording.
#[derive(Clone, Debug, PartialEq, Serialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
pub struct Remark {
    /// Whether it keeps the recording from being filed.
    pub forbids: bool,
    /// In a sentence.
    pub sentence: String,
}

/// Finds the pulse of a recording. Always gives a reading: what cannot be found in it is `None`, and why is a remark.
pub fn analyse(trace: Trace) -> Reading {
    let Trace { time_s: time, mut level, notes } = trace;
    let mut remarks = Vec::new();
    let mut say = |forbids: bool, sentence: String| remarks.push(Remark { forbids, sentence });
    for sentence in of_reading(&notes) {
        say(false, sentence);
    }

    let before = before_the_pulse(&time, &level);
    let (baseline, mut noise) = middle_and_spread(&level[before.clone()]);
    let (lowest, highest) = level.iter().fold((f64::MAX, f64::MIN), |(low, high), v| (low.min(*v), high.max(*v)));
    let downwards = baseline - lowest > highest - baseline;
    let (ceiling, sign) = if downwards { (baseline - lowest, -1.0) } else { (highest - baseline, 1.0) };
    if downwards {
        say(false, "The recorder counts downwards; the curve was turned over.".to_owned());
    }
    for value in &mut level {
        *value = sign * (*value - baseline);
    }
    let plateau = plateau(&level, ceiling);
    let smooth = running_median(&level);
    let rough = smooth.iter().copied().fold(0.0, f64::max);
    // A record that starts in the pulse has nothing before it to tell the noise by.
    let pre_trigger = before.len() >= 16;
    if !pre_trigger {
        noise = noise_between_neighbours(&level);
    }
    let step_s = (time[time.len() - 1] - time[0]) / (time.len() - 1) as f64;
    let mut reading = Reading {
        quality: Quality::Good,
        remarks: Vec::new(),
        samples: time.len(),
        step_s,
        baseline,
        peak: sign * rough,
        noise_share: if rough > 0.0 { noise / rough } else { 0.0 },
        t05_s: None,
        t01_s: None,
        t90_s: None,
        t05_span_s: None,
        t01_span_s: None,
        t90_span_s: None,
        area: 0.0,
        curve_s: Vec::new(),
        curve_low: Vec::new(),
        curve_high: Vec::new(),
        notes,
    };
    if rough <= 0.0 || rough < LOWEST_PEAK * noise {
        say(true, "No pulse stands out of the noise of this recording.".to_owned());
        let all = 0..time.len();
        draw(&mut reading, &time, &level, all, ceiling.max(f64::MIN_POSITIVE));
        return judged(reading, remarks);
    }
    if !pre_trigger {
        say(
            false,
            "There is nothing before the pulse; its start and the baseline are taken from what there is.".to_owned(),
        );
    }

    let (count, window) = strongest_pulse(&smooth, rough);
    if count > 1 {
        say(false, format!("There are {count} pulses; the strongest is used."));
    }
    let before_smoothing = window.clone().max_by(|a, b| smooth[*a].total_cmp(&smooth[*b])).unwrap_or(0);
    let upper = smooth[window.clone()].iter().filter(|value| **value > 0.5 * rough).count();
    let width = (upper / SAMPLES_WITHIN).max(1);
    let scaled = averaged(smooth, width, rough);
    // The highest sample, unless the smoothing took it away: of a rise without length the mean at its edge is half of the
    // top, and the top is behind it.
    let after = window.clone().max_by(|a, b| scaled[*a].total_cmp(&scaled[*b])).unwrap_or(0);
    let summit = if scaled[before_smoothing] < EDGE_OF_THE_TOP * scaled[after] { after } else { before_smoothing };
    // A running median of five leaves 0.54 of white noise, and over five samples neighbours share it.
    let left = (5.0 / width as f64).sqrt().min(1.0) * MEDIAN_LEAVES;
    let curve = Curve { time: &time, level: &scaled, noise: left * noise / rough };
    let peak = curve.top(summit, window.clone());
    reading.peak = sign * rough * peak;
    reading.noise_share = noise / (rough * peak);

    let end_of_record = tail(&scaled) / peak;
    let cut_short = window.end == time.len() && end_of_record > ENDS_TOO_SOON;
    let span = |fraction: f64| span_above(&curve, fraction * peak, summit, &window);
    reading.t05_span_s = span(0.5);
    reading.t01_span_s = if cut_short { None } else { span(0.1) };
    let length = |span: Option<[f64; 2]>| span.map(|[from, to]| to - from);
    reading.t05_s = length(reading.t05_span_s);
    reading.t01_s = length(reading.t01_span_s);
    if cut_short {
        say(
            true,
            format!("The record ends at {:.0} % of the peak, before the pulse does: no t0.1.", end_of_record * 100.0),
        );
    }
    let ends_soon = window.end == time.len() && end_of_record > ENDS_SOON + 2.0 * reading.noise_share / 5.0;
    let (area, ninety) = light(&time, &level, &window, rough);
    reading.area = area;
    if ends_soon && !cut_short {
        say(false, "The record ends before the last of the light: no t90.".to_owned());
    } else if !cut_short {
        reading.t90_span_s = ninety;
        reading.t90_s = length(ninety);
    }

    if let Some(lasts) = reading.t05_s.filter(|t05| *t05 < SHORTEST || *t05 > LONGEST) {
        say(
            true,
            format!(
                "The pulse would last {lasts:.2e} s at half its height, and no flash does: its times are of another unit."
            ),
        );
    }
    let within = reading.t05_s.map_or(0, |t05| (t05 / step_s) as usize);
    if let Some(lasting) = plateau {
        say(
            true,
            format!(
                "The top is cut off over {lasting} samples: the true peak is higher and both durations are shorter \
                 than they look. Turn the recorder's range up or move it away."
            ),
        );
    }
    if within < TOO_COARSE {
        say(true, format!("Only {within} samples lie within t0.5; record faster."));
    } else if within < COARSE {
        say(false, format!("Only {within} samples lie within t0.5; the durations are coarse."));
    }
    let noise_share = reading.noise_share;
    if noise_share > TOO_NOISY {
        say(true, format!("Noise is {:.0} % of the peak; too much to find its 10 %.", noise_share * 100.0));
    } else if noise_share > NOISY {
        say(false, format!("Noise is {:.1} % of the peak.", noise_share * 100.0));
    }
    let shown = shown(&time, &window, &reading);
    draw(&mut reading, &time, &level, shown, rough * peak);
    judged(reading, remarks)
}

fn judged(mut reading: Reading, remarks: Vec<Remark>) -> Reading {
    reading.quality = if remarks.iter().any(|remark| remark.forbids) {
        Quality::Unusable
    } else if reading.noise_share > NOISY
        || reading.t90_s.is_none()
        || remarks.iter().any(|one| one.sentence.contains("coarse"))
    {
        Quality::Fair
    } else {
        Quality::Good
    };
    reading.remarks = remarks;
    reading
}

fn of_reading(notes: &super::ReadingNotes) -> Vec<String> {
    let mut said = Vec::new();
    if !notes.time_unit_given {
        said.push("The file does not name its unit of time; seconds are assumed.".to_owned());
    }
    if notes.channels.len() > 1 {
        let name = &notes.channels[notes.channel - 1];
        said.push(format!("Of {} channels “{name}” is read.", notes.channels.len()));
    }
    if notes.left_out > 0 {
        said.push(format!("{} samples have no number and were left out.", notes.left_out));
    }
    if notes.respaced {
        said.push("Times are rounded and repeat; the samples were spread evenly.".to_owned());
    }
    if notes.irregular {
        said.push("The steps of time are uneven; they are used as they stand.".to_owned());
    }
    said
}

/// The samples before the pulse: those before time zero where there are, else those before the first clear rise.
fn before_the_pulse(time: &[f64], level: &[f64]) -> Range<usize> {
    let negative = time.partition_point(|t| *t < 0.0);
    let (first, _) = middle_and_spread(&level[..(level.len() / 50).clamp(4, 2000)]);
    let far = level.iter().map(|value| (value - first).abs()).fold(0.0, f64::max);
    // Three in a row, so that a spike is not taken for the rise.
    let rise = level.windows(3).position(|three| three.iter().all(|value| (value - first).abs() > 0.08 * far));
    let quiet = rise.unwrap_or(0);
    // A trigger that sits in the pulse has part of the rise before it.
    let end = if negative > 0 { negative.min(quiet.max(1)) } else { quiet };
    0..(end - end / 10).max(1)
}

/// Median, and standard deviation told from the median absolute deviation.
fn middle_and_spread(values: &[f64]) -> (f64, f64) {
    // A hundred thousand samples tell a median to a third of a per cent of the noise.
    let skip = (values.len() / 100_000).max(1);
    let mut held: Vec<f64> = values.iter().copied().step_by(skip).collect();
    let middle = median(&mut held);
    for value in &mut held {
        *value = (*value - middle).abs();
    }
    (middle, MAD_TO_SIGMA * median(&mut held))
}

fn median(values: &mut [f64]) -> f64 {
    let half = values.len() / 2;
    if values.is_empty() {
        return 0.0;
    }
    *values.select_nth_unstable_by(half, f64::total_cmp).1
}

/// Noise told from third differences, which a smooth curve hardly has: their deviation is `√20` of a sample's.
fn noise_between_neighbours(level: &[f64]) -> f64 {
    let skip = (level.len() / 50_000).max(1);
    let mut held: Vec<f64> =
        level.windows(4).step_by(skip).map(|four| (four[3] - 3.0 * four[2] + 3.0 * four[1] - four[0]).abs()).collect();
    MAD_TO_SIGMA * median(&mut held) / 20f64.sqrt()
}

fn running_median(level: &[f64]) -> Vec<f64> {
    let reach = MEDIAN / 2;
    let mut smooth = level.to_vec();
    for (k, five) in level.windows(MEDIAN).enumerate() {
        smooth[k + reach] = median_of_five([five[0], five[1], five[2], five[3], five[4]]);
    }
    smooth
}

/// Mean of `width` samples around each, over `scale`. A width of one only scales.
fn averaged(mut smooth: Vec<f64>, width: usize, scale: f64) -> Vec<f64> {
    if width <= 1 {
        for value in &mut smooth {
            *value /= scale;
        }
        return smooth;
    }
    let reach = width / 2;
    // Running sums in place: the mean of a stretch is the difference of its ends.
    let mut sum = 0.0;
    for value in &mut smooth {
        sum += *value;
        *value = sum;
    }
    let whole = 1.0 / ((2 * reach + 1) as f64 * scale);
    let until = |k: usize| if k == 0 { 0.0 } else { smooth[k - 1] };
    let count = smooth.len();
    (0..count)
        .map(|k| {
            let (from, to) = (k.saturating_sub(reach), (k + reach + 1).min(count));
            let over = if to - from == 2 * reach + 1 { whole } else { 1.0 / ((to - from) as f64 * scale) };
            (until(to) - until(from)) * over
        })
        .collect()
}

/// Six comparisons.
fn median_of_five([a, b, c, d, e]: [f64; 5]) -> f64 {
    let (a, b) = (a.min(b), a.max(b));
    let (c, d) = (c.min(d), c.max(d));
    // The lowest of four and the highest of four cannot be in the middle of five.
    let (low, high) = (a.max(c), b.min(d));
    let (low, high) = (low.min(high), low.max(high));
    low.max(e.min(high))
}

/// Samples in a row at the very ceiling, when there are too many for a curve that turns.
fn plateau(level: &[f64], ceiling: f64) -> Option<usize> {
    let at_top = |value: f64| value >= ceiling * (1.0 - 1e-9);
    let upper = level.iter().filter(|value| **value > 0.5 * ceiling).count();
    let (mut longest, mut run) = (0, 0);
    for value in level {
        run = if at_top(*value) { run + 1 } else { 0 };
        longest = longest.max(run);
    }
    (longest >= CLIPPED_RUN && longest as f64 > CLIPPED_SHARE * upper as f64).then_some(longest)
}

/// How many pulses there are, and the samples that belong to the strongest.
fn strongest_pulse(smooth: &[f64], rough: f64) -> (usize, Range<usize>) {
    let mut count = 0;
    let mut inside = false;
    let mut best = (0.0, 0);
    for (k, value) in smooth.iter().enumerate() {
        if *value > OTHER_PULSE * rough && !inside {
            inside = true;
            count += 1;
        } else if *value < GAP * rough {
            inside = false;
        }
        if *value > best.0 {
            best = (*value, k);
        }
    }
    // From the gap before it to where the next one begins to rise.
    let summit = best.1;
    let start = smooth[..summit].iter().rposition(|value| *value < GAP * rough).unwrap_or(0);
    let fallen = smooth[summit..].iter().position(|value| *value < GAP * rough).map(|k| summit + k);
    let next = fallen.and_then(|from| {
        smooth[from..].iter().position(|value| *value > OTHER_PULSE * rough).map(|k| {
            let risen = from + k;
            smooth[from..risen].iter().rposition(|value| *value < GAP * rough).map_or(from, |k| from + k)
        })
    });
    // A little of the quiet before belongs to it, for its first rise.
    let lead = start.saturating_sub((summit - start).max(8));
    let before = smooth[..start].iter().rposition(|value| *value > OTHER_PULSE * rough).map_or(0, |k| k + 1);
    (count, lead.max(before)..next.unwrap_or(smooth.len()))
}

/// First rise and last fall through a level around the summit.
fn span_above(curve: &Curve, level: f64, summit: usize, window: &Range<usize>) -> Option<[f64; 2]> {
    let above = |k: &usize| curve.level[*k] >= level;
    let first = (window.start..=summit).find(above)?;
    let last = (summit..window.end).rfind(above)?;
    if last + 1 >= curve.time.len() {
        return None;
    }
    let rise = if first == 0 { curve.time[0] } else { curve.passage(level, first - 1, window.start..summit + 1) };
    Some([rise, curve.passage(level, last, summit..window.end)])
}

/// The level at which the record ends.
fn tail(level: &[f64]) -> f64 {
    let last = &level[level.len() - (level.len() / 200).clamp(3, 2000)..];
    last.iter().sum::<f64>() / last.len() as f64
}

/// Area of the pulse, and the shortest interval that holds 90 % of it.
fn light(time: &[f64], level: &[f64], window: &Range<usize>, rough: f64) -> (f64, Option<[f64; 2]>) {
    // Beyond the last sample above a three-hundredth there is little light and much noise.
    let last = window.clone().rfind(|k| level[*k] > rough / 300.0).unwrap_or(window.start);
    let end = (last + 2).min(window.end);
    let mut sum = 0.0;
    let mut running = Vec::with_capacity(end.saturating_sub(window.start));
    running.push(0.0);
    for k in window.start + 1..end {
        sum += 0.5 * (level[k - 1] + level[k]) * (time[k] - time[k - 1]);
        running.push(sum);
    }
    if sum <= 0.0 {
        return (0.0, None);
    }
    // Noise makes the running sum rise and fall a little; its running maximum never falls.
    let mut highest = 0.0_f64;
    for value in &mut running {
        highest = highest.max(*value);
        *value = highest;
    }
    let (wanted, mut to) = (0.9 * sum, 0);
    let mut best: Option<[f64; 2]> = None;
    for from in 0..running.len() {
        while to < running.len() && running[to] - running[from] < wanted {
            to += 1;
        }
        if to == running.len() {
            break;
        }
        let (low, high) = (running[to - 1] - running[from], running[to] - running[from]);
        let along = if high > low { (wanted - low) / (high - low) } else { 1.0 };
        let (start, k) = (time[window.start + from], window.start + to);
        let stop = time[k - 1] + along * (time[k] - time[k - 1]);
        if best.is_none_or(|[from, to]| stop - start < to - from) {
            best = Some([start, stop]);
        }
    }
    (sum, best)
}

/// The part of the record worth drawing: the pulse and a little around it.
fn shown(time: &[f64], window: &Range<usize>, reading: &Reading) -> Range<usize> {
    let Some([from, to]) = reading.t01_span_s.or(reading.t05_span_s) else { return window.clone() };
    let around = (to - from) * 0.35;
    let start = time.partition_point(|t| *t < from - around);
    let end = time.partition_point(|t| *t <= to + around * 2.0);
    start..end.max(start + 2).min(time.len())
}

/// The curve in few points: lowest and highest level of each stretch, so that noise and spikes stay visible.
fn draw(reading: &mut Reading, time: &[f64], level: &[f64], range: Range<usize>, peak: f64) {
    let count = range.len().min(POINTS);
    for k in 0..count {
        let from = range.start + range.len() * k / count;
        let to = (range.start + range.len() * (k + 1) / count).max(from + 1);
        let (low, high) =
            level[from..to].iter().fold((f64::MAX, f64::MIN), |(low, high), v| (low.min(*v), high.max(*v)));
        let digits = |share: f64| (share * 1e4).round() / 1e4;
        reading.curve_s.push(time[from]);
        reading.curve_low.push(digits(low / peak));
        reading.curve_high.push(digits(high / peak));
    }
}
