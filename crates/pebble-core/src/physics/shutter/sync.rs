//! When the flash ignites, and the fastest shutter time that leaves no row dark.

use super::Run;
use super::rows::{TOUCHED_SHARE, row_share};
use crate::physics::pulse::Pulse;
use crate::quantity::Seconds;
use crate::quantity::scale::{Grid, ShutterTime};
use serde::{Deserialize, Serialize};

/// `guard`: what a camera leaves before the second curtain in rear sync, unless measured.
pub const DEFAULT_GUARD: Seconds = Seconds::from_millis(0.5);
/// The share of its light by which a pulse counts as over, for rear sync.
pub const OVER_SHARE: f64 = 0.99;

/// How the flash is tied to the shutter.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash, Default, Serialize, Deserialize)]
#[cfg_attr(feature = "schema", derive(utoipa::ToSchema))]
#[serde(rename_all = "snake_case")]
pub enum SyncMode {
    /// As soon as all rows are open.
    #[default]
    Front,
    /// Just before the first row closes.
    Rear,
    /// A long even glow while the slit passes.
    HighSpeed,
}

/// What decides the ignition besides the shutter.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Timing {
    /// Delay of trigger and unit. The camera does not know it.
    pub lag: Seconds,
    /// `guard` of the camera.
    pub guard: Seconds,
    /// `L`, ignition to [`OVER_SHARE`] of the light.
    pub length: Seconds,
}

/// When the flash ignites.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Ignition {
    /// `t_f`, since the first row opened.
    pub at: Seconds,
    /// Rear sync was asked for, but the exposure is too short for it: it acts as front.
    pub rear_acts_as_front: bool,
}

/// `t_f = Tx + lag` for front; `max(Tx, t − guard − L) + lag` for rear.
pub fn ignition(run: Run, mode: SyncMode, timing: Timing) -> Ignition {
    match mode {
        SyncMode::Rear => {
            let latest = run.time - timing.guard - timing.length;
            Ignition { at: run.travel.max(latest) + timing.lag, rear_acts_as_front: latest < run.travel }
        }
        SyncMode::Front | SyncMode::HighSpeed => Ignition { at: run.travel + timing.lag, rear_acts_as_front: false },
    }
}

/// Whether a time leaves every row its light. The light in a window of fixed length is largest around the pulse and
/// falls to both sides, so the worst row is always the first or the last.
pub fn leaves_no_row_dark(run: Run, mode: SyncMode, timing: Timing, pulse: &Pulse) -> bool {
    let at = ignition(run, mode, timing).at;
    [0.0, 1.0].into_iter().all(|y| row_share(run, pulse, at, y) >= TOUCHED_SHARE)
}

/// The fastest time on the camera's grid, between its own fastest and slowest, that leaves every row its light. Not
/// capped by the rating. `None` when there is none.
pub fn usable_sync(
    travel: Seconds,
    mode: SyncMode,
    timing: Timing,
    pulse: &Pulse,
    grid: Grid,
    range: (ShutterTime, ShutterTime),
) -> Option<ShutterTime> {
    let (slowest, fastest) = range;
    let step = grid.step();
    let first = fastest.nearest_sixth().div_euclid(step);
    let last = slowest.nearest_sixth().div_euclid(step);
    let fits = |click: i32| {
        let run = Run { travel, time: ShutterTime::from_tv6(click * step).time() };
        leaves_no_row_dark(run, mode, timing, pulse)
    };
    if mode == SyncMode::Rear {
        // With rear sync a lag beyond the guard loses the end of the pulse at every time: only trying tells.
        return (last..=first).rev().find(|click| fits(*click)).map(|click| ShutterTime::from_tv6(click * step));
    }
    // With front sync the first row is the one that closes too early, and it needs the pulse up to where no tenth of a stop
    // is missing: t = Tx + lag + Φ⁻¹(2^−0.1), and the next slower time on the grid.
    let least = travel + timing.lag + pulse.time_of_share(TOUCHED_SHARE);
    let guess = (ShutterTime::near(least).nearest_sixth()).div_euclid(step) + 1;
    (last..=guess.min(first)).rev().find(|click| fits(*click)).map(|click| ShutterTime::from_tv6(click * step))
}
