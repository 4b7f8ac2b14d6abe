//! What the lens sees of the set, worked out once for all settings that leave everything where it stands: dials are turned
//! by the hundred while remedies are tried, and none of them moves a stand.

use crate::answers::standing;
use crate::plan::Plan;
use crate::quantity::Metres;
use crate::stage::lens::{Lens, Shown};
use crate::stage::sheet::Sheet;

/// What it sees of a plan.
pub(crate) struct InView {
    lens: Lens,
    lights: Vec<(Metres, InLens)>,
    /// How uneven the key is over the area from its distance, where that was asked.
    uneven: Option<(Metres, f64)>,
    /// What a sheet of a known size lacks on the worse side, in metres.
    pub(super) sheet_lacks: Option<f64>,
    /// The lamps that are seen and shall not be, and how far inside the frame's edge the deepest of each is, in metres.
    pub(super) lamps_inside: Vec<(usize, f64)>,
}

/// What it sees of one light.
#[derive(Clone, Copy)]
pub(super) struct InLens {
    pub shown: Shown,
    pub flares: bool,
}

impl InLens {
    fn of(plan: &Plan, lens: &Lens, light: usize) -> Self {
        Self { shown: standing::shown(plan, lens, light), flares: standing::flares(plan, lens, light) }
    }
}

impl InView {
    pub(crate) fn of(plan: &Plan) -> Self {
        let lens = plan.lens();
        let light = |light: usize| (plan.settings.lights[light].distance, InLens::of(plan, &lens, light));
        let lacks = |(wide, high)| {
            let lacks = Sheet { behind: lens.behind, wide, high }.lacks(&lens);
            lacks.width.max(lacks.height)
        };
        let key = plan.settings.key().distance;
        let uneven = plan.even.and(plan.area).and_then(|area| standing::uneven(plan.key_light(), key, area));
        let uneven = uneven.map(|uneven| (key, uneven));
        let lamps = (0..plan.lamps.len()).map(|lamp| (lamp, standing::lamp_shown(plan, &lens, lamp)));
        let lamps_inside = lamps.filter(|(_, shown)| shown.any()).map(|(lamp, shown)| (lamp, shown.inside)).collect();
        Self {
            uneven,
            lamps_inside,
            lights: (0..plan.lights.len()).map(light).collect(),
            sheet_lacks: plan.sheet.map(lacks),
            lens,
        }
    }

    /// How uneven the key is over the area, in stops, where it was asked that it be even.
    pub(super) fn uneven(&self, plan: &Plan) -> Option<f64> {
        let (distance, known) = self.uneven?;
        let now = plan.settings.key().distance;
        if now == distance { Some(known) } else { standing::uneven(plan.key_light(), now, plan.area?) }
    }

    /// Of a light of the same set; a light that comes nearer or goes back on its line is looked at anew.
    pub(super) fn of_light(&self, plan: &Plan, light: usize) -> InLens {
        let (distance, known) = self.lights[light];
        if plan.settings.lights[light].distance == distance { known } else { InLens::of(plan, &self.lens, light) }
    }
}
