//! Fitting a way of making less light through pulses that were recorded.
//!
//! With one or two powers recorded only the scale of all times is free: `exp(mean ln(measured / model))`, exact because
//! all ways here scale with their time constants. From three powers on all constants of the way are fitted, by the
//! downhill simplex (Nelder & Mead, *Computer Journal* 7, 1965) on the squared logarithms of the ratios.

use super::{ChargeVoltage, Control, DEFAULT_FALL, DEFAULT_RISE, Quenched, SwitchedBanks};
use crate::quantity::Seconds;
use crate::quantity::bounds::GAMMA;

/// One recorded pulse.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Sample {
    /// Power fraction.
    pub power: f64,
    /// t0.5.
    pub t05: Seconds,
    /// t0.1.
    pub t01: Seconds,
}

/// A way that can be fitted.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Way {
    /// A switch cuts the discharge.
    Quenched,
    /// Less charge.
    ChargeVoltage,
    /// Fewer banks, then less charge.
    SwitchedBanks(u32),
}

/// A fitted way.
#[derive(Clone, Debug, PartialEq)]
pub struct Fitted {
    /// With its constants.
    pub control: Control,
    /// Root mean square of `ln(measured / model)` over both durations of all samples: 0.05 is five per cent.
    pub misfit: f64,
}

/// Powers that differ by less count as one.
const SAME_POWER: f64 = 1e-3;
/// How strongly a rise or a fall that the samples say nothing of is drawn to its usual value.
const PULL: f64 = 1e-4;
/// Steps of the simplex; it settles in a third of them.
const STEPS: usize = 600;
/// The greatest lengthening exponent that is fitted: as far as one may be entered.
const GAMMA_MAX: f64 = GAMMA.max;
/// Numbers of banks that units are built with.
const BANKS: [u32; 5] = [2, 3, 4, 6, 8];

/// How many different powers there are among samples.
pub fn powers(samples: &[Sample]) -> usize {
    let mut logs: Vec<f64> = samples.iter().map(|sample| sample.power.ln()).collect();
    logs.sort_by(f64::total_cmp);
    logs.dedup_by(|a, b| (*a - *b).abs() < SAME_POWER);
    logs.len()
}

/// Root mean square of `ln(measured / model)`.
pub fn misfit(control: &Control, samples: &[Sample]) -> f64 {
    let squares = samples.iter().flat_map(|sample| ratios(control, sample)).map(|ratio| ratio * ratio);
    (squares.sum::<f64>() / (2 * samples.len()).max(1) as f64).sqrt()
}

fn ratios(control: &Control, sample: &Sample) -> [f64; 2] {
    let (t05, t01) = control.times(sample.power);
    [(sample.t05 / t05).ln(), (sample.t01 / t01).ln()]
}

/// The way with all its times multiplied so that it lies in the middle of the samples.
pub fn scaled(control: &Control, samples: &[Sample]) -> Control {
    let logs: f64 = samples.iter().flat_map(|sample| ratios(control, sample)).sum();
    Control::Stretched(Box::new(control.clone()), (logs / (2 * samples.len()).max(1) as f64).exp())
}

/// The constants of a way that fit the samples best. At least one sample.
pub fn fit(way: Way, samples: &[Sample]) -> Fitted {
    let middle = samples.iter().map(|sample| sample.t01.as_secs().ln()).fold(f64::MIN, f64::max);
    // The longest pulse is near a full discharge, whose t0.1 is τd·ln 10.
    let decay = middle - std::f64::consts::LN_10.ln();
    let start =
        [decay, DEFAULT_RISE.as_secs().ln(), if way == Way::Quenched { DEFAULT_FALL.as_secs().ln() } else { 0.1 }];
    let cost = |at: &[f64; 3]| {
        let control = control_of(way, at);
        let usual_rise = (at[1] - DEFAULT_RISE.as_secs().ln()).powi(2);
        let usual_fall = if way == Way::Quenched { (at[2] - DEFAULT_FALL.as_secs().ln()).powi(2) } else { 0.0 };
        // Constants beyond what a discharge can have are brought back by `control_of`; the cost keeps them near.
        misfit(&control, samples).powi(2) + PULL * (usual_rise + usual_fall) + beyond(way, at)
    };
    let control = control_of(way, &downhill(start, cost));
    Fitted { misfit: misfit(&control, samples), control }
}

/// The way that fits the samples best, of all there are.
pub fn fit_best(samples: &[Sample]) -> (Way, Fitted) {
    let first = (Way::Quenched, fit(Way::Quenched, samples));
    let others = std::iter::once(Way::ChargeVoltage).chain(BANKS.map(Way::SwitchedBanks));
    others.map(|way| (way, fit(way, samples))).fold(
        first,
        |best, other| {
            if other.1.misfit < best.1.misfit { other } else { best }
        },
    )
}

fn beyond(way: Way, at: &[f64; 3]) -> f64 {
    let over = |value: f64, limit: f64| (value - limit).max(0.0).powi(2);
    let third = match way {
        Way::Quenched => over(at[2], at[0] - 0.7),
        _ => over(at[2], GAMMA_MAX) + over(-at[2], 0.0),
    };
    over(at[1], at[0] - 0.7) + third
}

fn control_of(way: Way, at: &[f64; 3]) -> Control {
    let decay = at[0].clamp(-16.0, 2.0).exp();
    let short = |log: f64, whole: f64| Seconds::from_secs(log.exp().min(whole * 0.5).max(whole * 1e-4));
    let gamma = at[2].clamp(0.0, GAMMA_MAX);
    match way {
        Way::Quenched => Control::Quenched(Quenched {
            rise: short(at[1], decay),
            decay: Seconds::from_secs(decay),
            fall: short(at[2], decay),
        }),
        Way::ChargeVoltage => {
            Control::ChargeVoltage(ChargeVoltage { rise: short(at[1], decay), decay: Seconds::from_secs(decay), gamma })
        }
        Way::SwitchedBanks(banks) => Control::SwitchedBanks(SwitchedBanks {
            rise: short(at[1], decay / f64::from(banks)),
            decay: Seconds::from_secs(decay),
            gamma,
            banks,
        }),
    }
}

/// The lowest place near a start, in three dimensions.
fn downhill(start: [f64; 3], cost: impl Fn(&[f64; 3]) -> f64) -> [f64; 3] {
    let mut corners: Vec<([f64; 3], f64)> = (0..4)
        .map(|corner| {
            let mut at = start;
            if corner > 0 {
                at[corner - 1] += if corner == 3 { 0.2 } else { 0.4 };
            }
            (at, cost(&at))
        })
        .collect();
    for _ in 0..STEPS {
        corners.sort_by(|a, b| a.1.total_cmp(&b.1));
        let (best, worst) = (corners[0], corners[3]);
        if worst.1 - best.1 <= 1e-6 * best.1 + 1e-12 {
            break;
        }
        let mut centre = [0.0; 3];
        for (corner, _) in &corners[..3] {
            for (sum, value) in centre.iter_mut().zip(corner) {
                *sum += value / 3.0;
            }
        }
        let along = |factor: f64| {
            let at: [f64; 3] = std::array::from_fn(|k| centre[k] + factor * (worst.0[k] - centre[k]));
            (at, cost(&at))
        };
        let mirrored = along(-1.0);
        let next = if mirrored.1 < best.1 {
            let further = along(-2.0);
            if further.1 < mirrored.1 { further } else { mirrored }
        } else if mirrored.1 < corners[2].1 {
            mirrored
        } else {
            let nearer = along(if mirrored.1 < worst.1 { -0.5 } else { 0.5 });
            if nearer.1 < worst.1.min(mirrored.1) {
                nearer
            } else {
                for corner in &mut corners[1..] {
                    let at: [f64; 3] = std::array::from_fn(|k| 0.5 * (corner.0[k] + best.0[k]));
                    *corner = (at, cost(&at));
                }
                continue;
            }
        };
        corners[3] = next;
    }
    corners.into_iter().min_by(|a, b| a.1.total_cmp(&b.1)).map_or(start, |corner| corner.0)
}
