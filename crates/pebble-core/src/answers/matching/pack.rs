//! What goes into the cases for a job, besides the units: everything that stands in some shot of it, as many as the shot
//! with the most of it needs.

use super::stock::Stock;
use crate::file::gear::Battery;
use crate::file::shot::Shot;
use crate::wire::{report, report_word};

report_word! {
    /// What is packed.
    pub enum PackedAs {
        /// A flash unit.
        Unit,
        /// What goes in front of one.
        Modifier,
        /// A gel.
        Gel,
        /// What feeds a unit.
        Battery,
        /// A trigger.
        Trigger,
        /// A lamp.
        Lamp,
        /// Something to stand on.
        Stand,
        /// A camera.
        Camera,
        /// A lens.
        Lens,
        /// What goes before a lens.
        Filter,
    }
}

report! {
    /// A unit that is taken along, or hired.
    pub struct Taken {
        /// Its identity.
        pub unit: String,
        /// Maker and model.
        pub name: String,
        /// How many.
        pub count: u32,
        /// All of them, where weighed.
        pub mass_kg: Option<f64>,
    }

    /// A line of the list.
    pub struct Packed {
        /// What it is.
        pub kind: PackedAs,
        /// Maker and model.
        pub name: String,
        /// How many.
        pub count: u32,
        /// All of them, where weighed.
        pub mass_kg: Option<f64>,
    }
}

/// Lines by identity, in the order in which they came.
#[derive(Default)]
struct Lines(Vec<(String, Packed)>);

impl Lines {
    /// So many of a thing at once, somewhere.
    fn need(&mut self, kind: PackedAs, (id, name): (&str, &str), count: u32, one_kg: Option<f64>) {
        if count == 0 {
            return;
        }
        match self.0.iter_mut().find(|(known, line)| known == id && line.kind == kind) {
            Some((_, line)) if line.count >= count => {}
            Some((_, line)) => (line.count, line.mass_kg) = (count, one_kg.map(|kg| kg * f64::from(count))),
            None => {
                let mass_kg = one_kg.map(|kg| kg * f64::from(count));
                self.0.push((id.to_owned(), Packed { kind, name: name.to_owned(), count, mass_kg }));
            }
        }
    }
}

/// How many of each there are among some things of one shot: identity, name, weight of one.
type Things<'a> = Vec<((&'a str, &'a str), u32, Option<f64>)>;

fn counted<'a>(things: impl Iterator<Item = ((&'a str, &'a str), u32, Option<f64>)>) -> Things<'a> {
    let mut all: Things = Vec::new();
    for (called, count, kg) in things {
        match all.iter_mut().find(|(known, ..)| known.0 == called.0) {
            Some((_, sum, _)) => *sum += count,
            None => all.push((called, count, kg)),
        }
    }
    all
}

/// The list for some shots with the units that are taken.
pub(super) fn pack(shots: &[Shot], take: &[Taken], stock: &Stock) -> Vec<Packed> {
    let mut lines = Lines::default();
    let mut feed: Vec<(&Battery, u32)> = Vec::new();
    for unit in take {
        let line = Packed { kind: PackedAs::Unit, name: unit.name.clone(), count: unit.count, mass_kg: unit.mass_kg };
        lines.0.push((unit.unit.clone(), line));
        let wire = stock.units.iter().map(|offered| &offered.wire).find(|wire| wire.id == unit.unit);
        if let Some(battery) = wire.and_then(|wire| wire.battery.as_ref()) {
            match feed.iter_mut().find(|(known, _)| known.id == battery.id) {
                Some((_, count)) => *count += unit.count,
                None => feed.push((battery, unit.count)),
            }
        }
    }
    for (battery, count) in feed {
        lines.need(PackedAs::Battery, (&battery.id, &battery.name), count, battery.mass_kg);
    }
    for shot in shots {
        let lights = || shot.lights.iter().filter(|light| light.on);
        let lamps = || shot.lamps.iter().filter(|lamp| lamp.on);
        // Nothing in front of a flash is nothing to pack.
        let fronts = lights().filter(|light| light.modifier.id != "none").map(|light| {
            ((light.modifier.id.as_str(), light.modifier.name.as_str()), light.heads, light.modifier.mass_kg)
        });
        let gels = lights().filter_map(|light| Some((light.gel.as_ref()?, light.heads)));
        let gels = gels.chain(lamps().filter_map(|lamp| Some((lamp.gel.as_ref()?, 1))));
        let gels = gels.map(|(gel, count)| ((gel.id.as_str(), gel.name.as_str()), count, None));
        let triggers =
            lights().map(|light| ((light.trigger.id.as_str(), light.trigger.name.as_str()), light.heads, None));
        let burning = lamps().map(|lamp| ((lamp.lamp.id.as_str(), lamp.lamp.name.as_str()), 1, None));
        let filters = shot.camera.filters.iter().map(|filter| ((filter.id.as_str(), filter.name.as_str()), 1, None));
        for (kind, things) in [
            (PackedAs::Modifier, counted(fronts)),
            (PackedAs::Gel, counted(gels)),
            (PackedAs::Trigger, counted(triggers)),
            (PackedAs::Lamp, counted(burning)),
            (PackedAs::Filter, counted(filters)),
        ] {
            for (called, count, kg) in things {
                lines.need(kind, called, count, kg);
            }
        }
        let stands = lights().map(|light| light.heads).sum::<u32>() + lamps().count() as u32;
        lines.need(PackedAs::Stand, ("", "Stands"), stands, None);
        let (body, lens) = (&shot.camera.body, &shot.camera.lens);
        lines.need(PackedAs::Camera, (&body.id, &body.name), 1, body.mass_kg);
        lines.need(PackedAs::Lens, (&lens.id, &lens.name), 1, lens.mass_kg);
    }
    let mut packed: Vec<Packed> = lines.0.into_iter().map(|(_, line)| line).collect();
    packed.sort_by_key(|line| line.kind as u8);
    packed
}
