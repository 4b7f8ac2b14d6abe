//! Which moments of flash and steady light each row of the frame records.

use pebble_core::gear::FirstRow;
use pebble_core::pulse::Pulse;
use pebble_core::quantity::Seconds;
use pebble_core::shutter::Run;
use pebble_core::{Outlook, Plan};

/// Slices of the pulse. A smear is drawn as this many even pieces; more are not told apart in a picture.
pub(crate) const SLICES: usize = 10;
/// The light of the pulse that the slices hold; the rest is a tail that nobody sees, and is added to the last.
const SLICED_SHARE: f64 = 0.98;

/// The times of one frame, relative to the instant at which figures stand where the scene draws them.
pub(crate) struct Exposure {
    run: Run,
    first_row: FirstRow,
    instant_s: f64,
    glow: bool,
    fires: bool,
    ignition_s: f64,
    pulse: Pulse,
    /// Bounds of the slices, relative to the instant.
    pub slice_bounds_s: [f32; SLICES + 1],
    bounds: [Seconds; SLICES + 1],
    /// Ignition to the end of all light that could be told from none in eight bits.
    over: Seconds,
    whole: [f32; SLICES],
}

/// What one row records.
#[derive(Clone, Copy)]
pub(crate) struct RowExposure {
    /// When the row opens and closes, relative to the instant.
    pub open_s: f32,
    pub close_s: f32,
    /// Light of each slice of the pulse that the row gets, as a share of the whole pulse.
    pub slices: [f32; SLICES],
    /// Their sum.
    pub flash: f32,
    /// Whether the row gets the whole pulse, as nearly all rows do.
    pub whole: bool,
}

/// When figures stand where the scene draws them: in the middle of the key's pulse, of the first other one that fires, or
/// of the exposure.
pub(crate) fn instant(outlook: &Outlook) -> f64 {
    let pulses = || outlook.firing().map(|(_, light)| light).filter(|light| light.high_speed.is_none());
    let key = Some(outlook.key()).filter(|key| key.fires && key.high_speed.is_none());
    key.or_else(|| pulses().next()).map_or_else(
        || (outlook.run.open(0.5) + outlook.run.time * 0.5).as_secs(),
        |light| light.ignition.at.as_secs() + light.pulse.pulse.time_of_share(0.5).as_secs(),
    )
}

/// Even slices of one pulse. The pulses of a train draw apart: each of up to five gets a slice of its own, with a slice of
/// nothing between two; of a longer train they run together.
fn slice_bounds(pulse: &Pulse) -> [Seconds; SLICES + 1] {
    let (one, starts) = pulse.parts();
    let end = pulse.time_of_share(SLICED_SHARE);
    if !(2..=SLICES / 2).contains(&(pulse.peaks() as usize)) {
        return std::array::from_fn(|k| end * (k as f64 / SLICES as f64));
    }
    let lasts = one.time_of_share(SLICED_SHARE);
    let edges: Vec<Seconds> = starts.flat_map(|start| [start, start + lasts]).collect();
    // What is left over is the tail of the last.
    std::array::from_fn(|k| {
        let beyond = (k + 1).saturating_sub(edges.len());
        edges[k.min(edges.len() - 1)] + lasts * beyond as f64
    })
}

impl Exposure {
    /// The exposure by one flash; without one, by steady light alone.
    pub fn new(plan: &Plan, outlook: &Outlook, flash: Option<usize>, instant_s: f64) -> Self {
        let light = flash.map_or(outlook.key(), |light| &outlook.lights[light]);
        let pulse = light.pulse.pulse;
        let glow = flash.is_some() && light.high_speed.is_some();
        let ignition_s = light.ignition.at.as_secs();
        let bounds = slice_bounds(&pulse);
        let mut exposure = Self {
            run: outlook.run,
            first_row: plan.body.first_row,
            instant_s,
            glow,
            fires: flash.is_some(),
            ignition_s,
            pulse,
            slice_bounds_s: bounds.map(|bound| (ignition_s + bound.as_secs() - instant_s) as f32),
            bounds,
            over: pulse.time_of_share(0.999),
            whole: [0.0; SLICES],
        };
        exposure.whole = exposure.slices_between(Seconds::ZERO, Seconds::from_secs(f64::MAX));
        exposure
    }

    /// Whether nobody could tell it from another in a picture where nothing moves by more than `speed` pixels a second: the
    /// whole of its light falls on every row, and within half a pixel.
    pub fn is_instant(&self, rows: &[RowExposure], speed: f32) -> bool {
        let reach = self.slice_bounds_s.iter().map(|at| at.abs()).fold(0.0, f32::max);
        !self.glow && rows.iter().all(|row| row.whole) && reach * speed < 0.25
    }

    /// Whether it draws the same as another.
    pub fn same_as(&self, other: &Self) -> bool {
        self.glow == other.glow && self.ignition_s == other.ignition_s && self.pulse == other.pulse
    }

    /// Whether the flash glows while the slit passes.
    pub fn glows(&self) -> bool {
        self.glow
    }

    /// The row at a share of the frame's height from the top.
    pub fn row(&self, from_top: f64) -> RowExposure {
        let y = match self.first_row {
            FirstRow::Top => from_top,
            FirstRow::Bottom => 1.0 - from_top,
        };
        let (open, close) = (self.run.open(y), self.run.close(y));
        let at = Seconds::from_secs(self.ignition_s);
        let whole = self.glow || (open <= at && close >= at + self.over);
        let slices = match (self.glow || !self.fires, whole) {
            (true, _) => [0.0; SLICES],
            (false, true) => self.whole,
            (false, false) => self.slices_between(open - at, close - at),
        };
        RowExposure {
            open_s: (open.as_secs() - self.instant_s) as f32,
            close_s: (close.as_secs() - self.instant_s) as f32,
            slices,
            flash: if self.glow && self.fires { 1.0 } else { slices.iter().sum() },
            whole,
        }
    }

    /// A row that gets all of the pulse.
    pub fn whole_slices(&self) -> [f32; SLICES] {
        self.whole
    }

    fn slices_between(&self, from: Seconds, to: Seconds) -> [f32; SLICES] {
        std::array::from_fn(|k| {
            let last = k + 1 == SLICES;
            let end = if last { to } else { self.bounds[k + 1].min(to) };
            let start = self.bounds[k].max(from);
            if end > start { (self.pulse.share(end) - self.pulse.share(start)) as f32 } else { 0.0 }
        })
    }
}
