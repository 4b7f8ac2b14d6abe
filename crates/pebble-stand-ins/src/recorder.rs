//! A photodiode on a digital recorder: pulses in, CSV out.

use crate::chance::Chance;
use pebble_core::pulse::Pulse;
use pebble_core::quantity::Seconds;
use std::io::{self, Write};

/// How a recorder writes its numbers.
#[derive(Clone, Copy, Debug, PartialEq, Eq)]
pub enum Dialect {
    /// Commas between, points within, seconds and volts.
    Plain,
    /// Semicolons between, commas within, milliseconds and millivolts.
    DecimalComma,
    /// Tabs between, microseconds, names and units on lines of their own.
    Tabbed,
}

/// A recorder with its habits.
#[derive(Clone, Debug)]
pub struct Recorder {
    /// Time between samples.
    pub step: Seconds,
    /// Samples.
    pub samples: usize,
    /// Time recorded before the pulse.
    pub pre_trigger: Seconds,
    /// Level without light, in volts.
    pub offset_v: f64,
    /// Level of the peak above that, in volts; negative for one that counts downwards.
    pub peak_v: f64,
    /// Standard deviation of its noise as a share of the peak.
    pub noise_share: f64,
    /// Bits of its converter over a range of 1.25 times the peak; 0 for none.
    pub bits: u32,
    /// Where its input saturates, as a share of the peak.
    pub saturates_at: Option<f64>,
    /// Later pulses: how long after the first, and how high against it.
    pub echoes: Vec<(Seconds, f64)>,
    /// How it writes.
    pub dialect: Dialect,
    /// Where its chance begins.
    pub seed: u64,
}

impl Default for Recorder {
    fn default() -> Self {
        Self {
            step: Seconds::from_secs(1e-6),
            samples: 10_000,
            pre_trigger: Seconds::from_secs(5e-4),
            offset_v: 0.021,
            peak_v: 1.6,
            noise_share: 0.01,
            bits: 0,
            saturates_at: None,
            echoes: Vec::new(),
            dialect: Dialect::Plain,
            seed: 1,
        }
    }
}

impl Recorder {
    /// A recorder set up for a pulse: it lasts for twice the time from ignition to the last per cent of the light.
    pub fn set_for(pulse: &Pulse, samples: usize) -> Self {
        let whole = pulse.interval_above(0.005).1 * 1.6;
        let pre_trigger = whole * 0.15;
        Self { step: (whole + pre_trigger) / samples as f64, samples, pre_trigger, ..Self::default() }
    }

    /// What it reads, sample by sample: time and level in volts.
    pub fn read(&self, pulse: &Pulse) -> impl Iterator<Item = (f64, f64)> {
        let mut chance = Chance::new(self.seed);
        let digit = if self.bits == 0 { 0.0 } else { 1.25 * self.peak_v.abs() / f64::from(1_u32 << self.bits) };
        (0..self.samples).map(move |k| {
            let time = self.step * k as f64 - self.pre_trigger;
            let light: f64 = pulse.relative_intensity(time)
                + self
                    .echoes
                    .iter()
                    .map(|(later, height)| height * pulse.relative_intensity(time - *later))
                    .sum::<f64>();
            let noisy = light + self.noise_share * chance.normal();
            let held = self.saturates_at.map_or(noisy, |limit| noisy.min(limit));
            let volts = self.offset_v + self.peak_v * held;
            (time.as_secs(), if digit > 0.0 { (volts / digit).round() * digit } else { volts })
        })
    }

    /// Writes a recording of a pulse.
    ///
    /// # Errors
    /// Those of the writer.
    pub fn record(&self, pulse: &Pulse, out: &mut impl Write) -> io::Result<()> {
        match self.dialect {
            Dialect::Plain => writeln!(out, "Recorder,channel 1\nTime (s),Level (V)")?,
            Dialect::DecimalComma => writeln!(out, "Zeit;Kanal A\n(ms);(mV)\n")?,
            Dialect::Tabbed => writeln!(out, "time\tphotodiode\nµs\tV")?,
        }
        for (time, volts) in self.read(pulse) {
            match self.dialect {
                Dialect::Plain => writeln!(out, "{time:.9},{volts:.5}")?,
                Dialect::DecimalComma => {
                    let comma = |value: f64, digits: usize| format!("{value:.digits$}").replace('.', ",");
                    writeln!(out, "{};{}", comma(time * 1e3, 6), comma(volts * 1e3, 2))?;
                }
                Dialect::Tabbed => writeln!(out, "{:.3}\t{volts:.5}", time * 1e6)?,
            }
        }
        Ok(())
    }
}
