//! All lights together on the subject, in the frame.

use super::light::Falls;
use super::{Incident, LightOutlook};
use crate::file::shot::{Lead, Reads, Role};
use crate::physics::subject::{Arriving, lit_side, on_cheeks, on_dome, on_surface};
use crate::plan::{MAX_LIGHTS, Plan, Target};
use crate::quantity::{LuxSeconds, Stops};

/// What all lights make of the subject.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct SubjectOutlook {
    /// Flash on the lit side: of keys and fills, on the surface that they light most.
    pub flash: Incident,
    /// The lit side with the steady light.
    pub lit_side: Stops,
    /// A dome turned to the camera: all lights, rims and lights in the set among them.
    pub dome: Stops,
    /// The cheek on the camera's left, and on its right.
    pub cheeks: (Stops, Stops),
    /// Share of the steady light in what the dome gets.
    pub steady_share: f64,
    /// Where the lit side faces: right, to the camera, up.
    pub facing: [f64; 3],
}

/// The flashes that arrive somewhere, in the frame.
pub(super) struct Arrivals {
    list: [Arriving; MAX_LIGHTS],
    count: usize,
}

impl Arrivals {
    /// Of the lights that `gets` has anything of; each by its place in the plan.
    pub fn of(plan: &Plan, lights: &[LightOutlook], gets: impl Fn(usize) -> Option<LuxSeconds>) -> Self {
        let mut arrivals = Self { list: [Arriving::default(); MAX_LIGHTS], count: 0 };
        for (index, (light, seen)) in plan.lights.iter().zip(lights).enumerate() {
            let Some(exposure) = gets(index).map(LuxSeconds::as_lux_seconds) else { continue };
            if exposure > 0.0 && light.role != Role::Backdrop {
                arrivals.list[arrivals.count] = Arriving { from: seen.from, exposure };
                arrivals.count += 1;
            }
        }
        arrivals
    }

    pub fn all(&self) -> &[Arriving] {
        &self.list[..self.count]
    }
}

impl super::Outlook {
    /// What a dome at the subject gets of all flashes together, turned to the camera, with no shutter in between.
    pub fn dome_on_set(&self, plan: &Plan) -> LuxSeconds {
        let all = self.firing().filter(|(index, _)| plan.lights[*index].role != Role::Backdrop);
        let each =
            all.map(|(_, light)| Arriving { from: light.from, exposure: light.on_set.exposure.as_lux_seconds() });
        LuxSeconds::from_lux_seconds(each.map(|one| on_dome(&[one])).sum())
    }
}

/// Whether a light counts on the lit side: rims and lights in the set have ratios of their own.
pub(super) const fn shapes(role: Role) -> bool {
    matches!(role, Role::Key | Role::Fill)
}

impl SubjectOutlook {
    pub(super) fn of(plan: &Plan, lights: &[LightOutlook], ambient: LuxSeconds, reference: LuxSeconds) -> Self {
        let steady = ambient.as_lux_seconds();
        let whole = |light: usize| Some(lights[light].in_frame.exposure);
        let shaping = Arrivals::of(plan, lights, |light| whole(light).filter(|_| shapes(plan.lights[light].role)));
        let everything = Arrivals::of(plan, lights, whole);
        let (flash, facing) = lit_side(shaping.all());
        let placed = |flash: f64| Stops::placement(LuxSeconds::from_lux_seconds(flash + steady), reference);
        let dome = on_dome(everything.all());
        let (left, right) = on_cheeks(everything.all());
        let total = dome + steady;
        Self {
            flash: Incident::of(LuxSeconds::from_lux_seconds(flash), reference),
            lit_side: placed(flash),
            dome: placed(dome),
            cheeks: (placed(left), placed(right)),
            steady_share: if total > 0.0 { steady / total } else { 1.0 },
            facing,
        }
    }

    /// The figure that the photographer reads by.
    pub fn read_by(&self, reads: Reads) -> Stops {
        match reads {
            Reads::LitSide => self.lit_side,
            Reads::Dome => self.dome,
        }
    }

    /// The same flashes with other steady light.
    pub(crate) fn with_steady(self, was: Stops, then: Stops) -> Self {
        let change = then.as_ratio() - was.as_ratio();
        let other = |placed: Stops| Stops::from_ratio((placed.as_ratio() + change).max(0.0));
        Self {
            lit_side: other(self.lit_side),
            dome: other(self.dome),
            cheeks: (other(self.cheeks.0), other(self.cheeks.1)),
            ..self
        }
    }

    /// The lighting ratio: the brighter cheek over the darker, in stops; infinite where one is dark.
    pub fn ratio(&self) -> Stops {
        let (left, right) = self.cheeks;
        Stops::from_stops((left - right).as_stops().abs())
    }
}

/// What each light that reaches a part puts on it in the rows that it stands in.
pub(super) type OnPart = [Option<Falls>; MAX_LIGHTS];

/// Flash on the lit side of one part, on the surface that its key and fill light most; lights in the set, which stand at it,
/// add to it whole.
pub(super) fn flash_on_part(plan: &Plan, lights: &[LightOutlook], arrives: &OnPart) -> (LuxSeconds, [f64; 3]) {
    let reaching = |role: fn(Role) -> bool| {
        let takes = move |light: usize| arrives[light].filter(|_| role(plan.lights[light].role));
        Arrivals::of(plan, lights, move |light| Some(takes(light)?.exposure))
    };
    let (shaping, standing) = (reaching(shapes), reaching(|role| role == Role::InSet));
    let (lit, facing) = lit_side(shaping.all());
    // From nothing: the sum of no lights is less than it by a sign.
    let near = standing.all().iter().fold(0.0, |sum, light| sum + light.exposure);
    debug_assert!(on_surface(shaping.all(), facing) <= lit * (1.0 + 1e-9));
    (LuxSeconds::from_lux_seconds(lit + near), facing)
}

/// What flash has to give at least where steady light alone would do: three stops under the target.
const SOME_FLASH: Stops = Stops::from_stops(-3.0);

/// Where the key has to fall so that the subject is exposed as wanted, the other lights staying to it as they are: a place of
/// its own where it has one, else what all flashes lack, turned alike. Where daylight leads it is the ratio to that, or what
/// it is now.
pub(crate) fn key_wanted(plan: &Plan, seen: &super::Outlook) -> Stops {
    let (targets, key) = (&plan.targets, seen.key().in_frame.placement);
    match (plan.lights[plan.key].target, targets.lead) {
        (Some(Target::Alone(stops)), _) => return stops,
        (Some(Target::Ratio(ratio)), Lead::Daylight) => return targets.subject + ratio,
        (None, Lead::Daylight) => return if key > Stops::DARK { key } else { targets.subject },
        (_, Lead::Flash) => {}
    }
    let (wanted, steady) = (targets.subject.as_ratio(), seen.ambient.placement.as_ratio());
    let lacking = (wanted - steady).max((targets.subject + SOME_FLASH).as_ratio());
    let flash = seen.subject.read_by(targets.reads).as_ratio() - steady;
    if flash > 0.0 && key > Stops::DARK { key + Stops::from_ratio(lacking / flash) } else { targets.subject }
}
