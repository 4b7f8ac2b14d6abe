//! Every unit as a trail of marks, one a step of its power, on axes of freeze and reach; and the region that works.

use super::aim::{Aim, Priority};
use super::brief::{Brief, EDGE};
use super::seek::{Exposing, Reach, Seek};
use super::stock::{AtPower, Offered, Stock};
use super::tables::Tables;
use crate::answers::strips::distance_label;
use crate::physics::exposure::INCIDENT_C;
use crate::quantity::Seconds;
use crate::quantity::scale::duration_label;
use crate::wire::report;
use rayon::prelude::*;

/// Trails that can be told apart in one figure, with patience.
const MOST_TRAILS: usize = 100;

report! {
    /// One power of a unit.
    pub struct Mark {
        /// Power fraction.
        pub power: f64,
        /// As written.
        pub label: String,
        /// Freezing time.
        pub freeze_s: f64,
        /// As written.
        pub freeze: String,
        /// Blur of the strictest part, in pixels of the camera; `null` where no part has a limit.
        pub blur_px: Option<f64>,
        /// f-number at ISO 100 that its light is right for, at the distance of the map.
        pub reach_f: f64,
        /// There is a set-up at this power.
        pub works: bool,
        /// What fails first, with its figures.
        #[serde(skip_serializing_if = "Option::is_none")]
        pub fails: Option<String>,
    }

    /// A unit.
    pub struct Trail {
        /// Its identity.
        pub unit: String,
        /// Maker and model.
        pub name: String,
        /// Dim to bright.
        pub marks: Vec<Mark>,
    }

    /// Where all units stand.
    pub struct MarkMap {
        /// Units, in the order of the kit.
        pub trails: Vec<Trail>,
        /// Units beyond those that can be told apart in one figure; they are searched all the same.
        pub left_out: usize,
        /// What the marks are reached at and through: `3.0 m, Octa 90`.
        pub at: String,
        /// Freezing time by the school of the shot: `t0.1`.
        pub school: String,
        /// Longest freezing time that holds every part; `null` where no part has a limit.
        pub freeze_limit_s: Option<f64>,
        /// The part that sets it.
        pub strictest: Option<String>,
        /// f-numbers at ISO 100 between which some camera setting and place are right; `null` where there are none.
        pub reach_f: Option<(f64, f64)>,
    }
}

/// Every unit of a stock against a brief, one of it, pulsing, behind what the key has in front of it now.
pub fn marks(brief: &Brief, stock: &Stock) -> MarkMap {
    let aim = Aim::best(Priority::Balanced);
    let tables = Tables::of(brief, stock, &aim);
    let plan = brief.plan;
    let key = plan.key_light();
    let reach = Reach::of(brief, &aim, plan.key, key);
    let seek = Seek::bare(brief, stock, &aim, &tables);
    let here = plan.settings.key().distance;
    let of_one = {
        let mut one = key.clone();
        one.throw.output = crate::quantity::FlashOutput::from_lux_seconds_square_metres(1.0);
        one.exposure(1.0, 1, here).as_lux_seconds().log2()
    };
    let strictest = (0..brief.needs.len())
        .filter_map(|part| Some((part, brief.needs[part].limit? / brief.needs[part].speed)))
        .map(|(part, time)| (part, time.as_secs()))
        .filter(|(_, time)| time.is_finite())
        .min_by(|a, b| a.1.total_cmp(&b.1));
    let board = Board {
        brief,
        seek: &seek,
        tables: &tables,
        reach: &reach,
        strictest: strictest.map(|(part, _)| part),
        of_one,
    };
    let drawn = &stock.units[..stock.units.len().min(MOST_TRAILS)];
    let rows: Vec<Vec<Exposing>> = drawn.par_iter().map(|offered| board.rows(offered)).collect();
    let trails = drawn.par_iter().zip(&rows).map(|(offered, rows)| Trail {
        unit: offered.wire.id.clone(),
        name: offered.wire.name.clone(),
        marks: board.trail(offered, rows),
    });
    MarkMap {
        trails: trails.collect(),
        left_out: stock.units.len() - drawn.len(),
        at: format!("{}, {}", distance_label(brief.plan.lengths, here), brief.present_modifier().name),
        school: plan.school.label().to_owned(),
        freeze_limit_s: strictest.map(|(_, time)| time),
        strictest: strictest.map(|(part, _)| plan.parts[part].name.clone()),
        reach_f: board.region(&rows),
    }
}

struct Board<'s, 'a> {
    brief: &'s Brief<'a>,
    seek: &'s Seek<'a>,
    tables: &'s Tables,
    reach: &'s Reach,
    strictest: Option<usize>,
    /// log2 of the light of an output of one at the map's distance.
    of_one: f64,
}

impl Board<'_, '_> {
    /// Powers whose pulse, burst and charge hold.
    fn rows(&self, offered: &Offered) -> Vec<Exposing> {
        let plan = self.brief.plan;
        self.seek.rows_for(offered, (plan.key, plan.key_light()), self.brief.pulsed(), None)
    }

    fn trail(&self, offered: &Offered, rows: &[Exposing]) -> Vec<Mark> {
        let pitch = self.brief.plan.body.sensor.pitch();
        let output = self
            .brief
            .output(self.brief.plan.key, offered, self.brief.present_modifier())
            .as_lux_seconds_square_metres()
            .log2();
        let mark = |at: &AtPower| {
            let (power, freeze) = (at.power, at.durations.by(self.brief.plan.school));
            let log = output + power.log2();
            let fails = self.fails(offered, power, freeze, log, rows.iter().find(|row| row.power == power));
            Mark {
                power,
                label: offered.unit.dial.label(power),
                freeze_s: freeze.as_secs(),
                freeze: duration_label(freeze),
                blur_px: self.strictest.map(|part| self.brief.needs[part].speed * freeze / pitch),
                reach_f: f_number(log + self.of_one),
                works: fails.is_none(),
                fails,
            }
        };
        offered.pulses().iter().map(mark).collect()
    }

    /// f-numbers between which light at the map's distance can be used, at times in which some unit lights all rows.
    fn region(&self, rows: &[Vec<Exposing>]) -> Option<(f64, f64)> {
        let (near, far) = self.reach.log_light.first().zip(self.reach.log_light.last())?;
        let synced =
            rows.iter().flatten().fold(0_u128, |times, row| times | row.these.unwrap_or((1 << row.slow_enough) - 1));
        let open = |level: &usize| {
            let cells = self.tables.row(*level).iter().enumerate();
            cells.into_iter().any(|(time, cell)| cell.is_open() && synced & (1 << time) != 0)
        };
        let open: Vec<usize> = (0..self.tables.levels.len()).filter(open).collect();
        let (low, high) = open.first().zip(open.last())?;
        let level = |at: usize| self.tables.levels[at].log_reference;
        let target = self.brief.key_wanted.as_stops();
        let within = self.brief.bounds.key_within.as_stops();
        let low = level(*low) + target - within - near + self.of_one;
        let high = level(*high) + target + within - far + self.of_one;
        Some((f_number(low), f_number(high)))
    }

    /// What fails first at a power; nothing where a set-up works. The row is there when what the power itself must hold does.
    fn fails(
        &self,
        offered: &Offered,
        power: f64,
        freeze: Seconds,
        log: f64,
        row: Option<&Exposing>,
    ) -> Option<String> {
        let brief = self.brief;
        let (plan, bounds) = (brief.plan, &brief.bounds);
        if brief.left_for_key(offered) == 0 {
            return Some("all of them stand at the other lights".to_owned());
        }
        if !brief.power_open(plan.key, power) {
            return Some("the power is locked on the Bench".to_owned());
        }
        let pitch = plan.body.sensor.pitch();
        for (index, need) in brief.needs.iter().enumerate() {
            let Some(limit) = need.limit else { continue };
            let blur = need.speed * freeze;
            if blur > limit * (1.0 + EDGE) {
                let name = &plan.parts[index].name;
                return Some(format!("{name} blurs {:.1} px, limit {:.1}", blur / pitch, limit / pitch));
            }
        }
        let frames = offered.unit.readiness.in_a_row(power, bounds.rate).room(bounds.frames);
        if frames < -EDGE {
            let whole = f64::from(bounds.frames) * frames.exp2();
            return Some(format!("holds {whole:.0} frames at {} a second, {} wanted", bounds.rate, bounds.frames));
        }
        let charge = offered.unit.readiness.on_one_charge(power).room(bounds.flashes);
        if charge < -EDGE {
            let flashes = f64::from(bounds.flashes) * charge.exp2();
            return Some(format!("{flashes:.0} flashes on a charge, {} wanted", bounds.flashes));
        }
        let weight = super::brief::weight(offered, brief.present_modifier(), 1);
        if super::brief::weight_room(bounds.weight_kg, weight) < -EDGE {
            return Some(format!("heavier than {:.1} kg", bounds.weight_kg));
        }
        let Some((low, high)) = self.tables.levels.first().zip(self.tables.levels.last()) else {
            return Some("no camera setting holds steady light, depth and trails, whatever the flash".to_owned());
        };
        let Some((near, far)) = self.reach.log_light.first().zip(self.reach.log_light.last()) else {
            return Some("no place outside the frame is near enough".to_owned());
        };
        let target = self.brief.key_wanted.as_stops();
        let within = bounds.key_within.as_stops() + EDGE;
        let place = |at: usize| distance_label(self.brief.plan.lengths, self.reach.places[at]);
        let short = low.log_reference + target - within - (log + near);
        if short > 0.0 {
            return Some(format!("{short:.1} stops too weak even at {}", place(0)));
        }
        let over = log + far - (high.log_reference + target + within);
        if over > 0.0 {
            return Some(format!("{over:.1} stops too strong even at {}", place(self.reach.places.len() - 1)));
        }
        let Some(row) = row else {
            return Some(format!("no allowed time leaves all rows lit at {}", offered.unit.dial.label(power)));
        };
        if self.seek.works(row, log, self.reach) {
            return None;
        }
        Some(match brief.pulsed() {
            crate::physics::shutter::SyncMode::Rear => {
                "no time lights all rows and holds steady light at this strength".to_owned()
            }
            _ => format!(
                "lights all rows up to {}: no such time holds the steady light at this strength",
                self.tables.times[row.slow_enough - 1].label(plan.body.grid)
            ),
        })
    }
}

/// f-number at ISO 100 for which an exposure, as log2 of lx·s, is right.
fn f_number(log: f64) -> f64 {
    (log.exp2() * 100.0 / INCIDENT_C).sqrt()
}
