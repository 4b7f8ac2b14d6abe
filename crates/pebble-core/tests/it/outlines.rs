//! Areas of any shape on the floor.

use crate::common::shot;
use pebble_core::file::floor::Area;
use pebble_core::floor::{FloorAnswer, FloorAsk, floor};
use pebble_core::output::{Beam, Face};
use pebble_core::quantity::Angle;
use pebble_core::stage::field::Lamp;
use pebble_core::stage::outline::{Corner, NoOutline, Outline};
use pebble_core::stage::region::Region;
use pebble_core::stage::space::{Spot, spot};
use proptest::prelude::*;

const SQUARE: [Corner; 4] = [(-1.0, -1.0), (1.0, -1.0), (1.0, 1.0), (-1.0, 1.0)];
/// The square without its far right quarter.
const ANGLE: [Corner; 6] = [(-1.0, -1.0), (1.0, -1.0), (1.0, 0.0), (0.0, 0.0), (0.0, 1.0), (-1.0, 1.0)];

fn lamp(at: Spot) -> Lamp {
    Lamp {
        strength: 900.0,
        face: Face::default(),
        beam: Beam::new(Some(Angle::from_degrees(70.0)), None),
        at,
        turned: None,
    }
}

#[test]
fn what_holds_no_floor_is_no_outline() {
    let none = |corners: &[Corner]| Outline::of(corners).expect_err("no outline");
    assert_eq!(none(&SQUARE[..2]), NoOutline::Count);
    assert_eq!(none(&[(0.0, 0.0); 13]), NoOutline::Count);
    // A bow tie; an edge that runs back over another; a corner that is there twice; all on one line.
    assert_eq!(none(&[(-1.0, -1.0), (1.0, 1.0), (1.0, -1.0), (-1.0, 1.0)]), NoOutline::Crosses(1, 3));
    assert_eq!(none(&[(-1.0, 0.0), (1.0, 0.0), (1.0, 1.0), (0.0, 0.0), (-1.0, 1.0)]), NoOutline::Crosses(1, 3));
    assert!(matches!(none(&[(0.0, 0.0), (1.0, 0.0), (0.0, 0.0), (0.0, 1.0)]), NoOutline::Crosses(..)));
    assert_eq!(none(&[(-1.0, 0.0), (0.0, 0.0), (1.0, 0.0)]), NoOutline::Empty);
}

#[test]
fn an_angle_holds_three_quarters() {
    let outline = Outline::of(&ANGLE).expect("an outline");
    assert_eq!(outline.floor(), 3.0);
    assert_eq!(outline.ends(), ((-1.0, 1.0), (-1.0, 1.0)));
    for (place, held) in [((-0.5, 0.5), true), ((0.5, -0.5), true), ((0.5, 0.5), false), ((-1.5, 0.0), false)] {
        assert_eq!(outline.holds(place.0, place.1), held, "{place:?}");
    }
    assert_eq!((outline.across_at(-0.5), outline.across_at(0.5)), ((-1.0, 1.0), (-1.0, 0.0)));
    assert_eq!((outline.away_at(-0.5), outline.away_at(0.5)), ((-1.0, 1.0), (-1.0, 0.0)));
    // A stretch across the far half is cut where the angle ends; one across the missing quarter is not drawn.
    let parts = |stretch| {
        let mut parts = Vec::new();
        outline.within(stretch, |part| parts.push(part));
        parts
    };
    assert_eq!(parts([-0.5, 0.5, 0.5, 0.5]), [[-0.5, 0.5, 0.0, 0.5]]);
    assert_eq!(parts([0.2, 0.5, 0.8, 0.5]), [[0.0; 4]; 0]);
    assert_eq!(parts([-0.5, -0.5, 0.5, -0.5]), [[-0.5, -0.5, 0.5, -0.5]]);
}

/// From a point two metres to the right at the height of the chest, nearest and farthest corner say the spread: squares of
/// distances 1 and 9 where the triangle's base is turned to it, 1 and 5 where its tip is.
#[test]
fn the_spread_over_a_triangle_is_that_of_its_corners() {
    let light = |place: Spot| 1.0 / ((place.x - 2.0).powi(2) + place.y.powi(2));
    let over =
        |corners: &[Corner]| Region::inside(Outline::of(corners).expect("an outline"), (1.3, 1.3)).evenness(light);
    let base = over(&[(1.0, 0.0), (-1.0, 0.5), (-1.0, -0.5)]);
    assert!((base.spread - 9.25_f64.log2()).abs() < 1e-9, "{}", base.spread);
    let tip = over(&[(0.0, 0.0), (1.0, 0.0), (0.0, 1.0)]);
    assert!((tip.spread - 5.0_f64.log2()).abs() < 1e-9, "{}", tip.spread);
    assert!((tip.ends.0 - (4.0_f64 / 5.0).log2()).abs() < 1e-9 && (tip.ends.1 - 2.0).abs() < 1e-9);
}

fn set(corners: &[[f64; 2]]) -> FloorAnswer {
    let mut shot = shot();
    shot.area = Some(Area {
        left_m: -2.0,
        right_m: 2.0,
        near_m: -1.0,
        far_m: 1.0,
        low_m: 1.0,
        high_m: 1.6,
        corners: corners.to_vec(),
    });
    floor(&shot, None, FloorAsk::default()).expect("a set")
}

/// Where nobody stands no light is asked for; its corners go with the rectangle they are shares of.
#[test]
fn an_area_cut_to_a_wedge_is_told_as_one() {
    let whole = set(&[]);
    assert_eq!(whole.area_corners, [[-2.0, -1.0], [2.0, -1.0], [2.0, 1.0], [-2.0, 1.0]]);
    let wedge = set(&[[0.5, 0.0], [1.0, 1.0], [0.0, 1.0]]);
    assert_eq!(wedge.area_corners, [[0.0, -1.0], [2.0, 1.0], [-2.0, 1.0]]);
    let spread = |set: &FloorAnswer| set.even.as_ref().expect("lit").spread_stops;
    assert!(spread(&wedge) < spread(&whole) - 0.1, "{} of {}", spread(&wedge), spread(&whole));
    for [x0, y0, x1, y1] in wedge.contours.iter().flat_map(|one| &one.stretches) {
        for (x, y) in [(x0, y0), (x1, y1)] {
            assert!(x.abs() <= (y + 1.0) + 1e-9, "a line at {x}, {y}");
        }
    }
    assert!(!wedge.contours.iter().all(|one| one.stretches.is_empty()));
}

#[test]
fn corners_that_cannot_be_are_refused_at_their_field() {
    let refused = |corners: &[[f64; 2]]| {
        let mut shot = shot();
        let mut area = set(&[]).area;
        area.corners = corners.to_vec();
        shot.area = Some(area);
        floor(&shot, None, FloorAsk::default()).expect_err("it is no area").to_string()
    };
    for corners in [
        &[[0.0, 0.0], [1.0, 1.0]][..],
        &[[0.0, 0.0], [1.0, 1.0], [1.0, 0.0], [0.0, 1.0]],
        &[[0.0, 0.0], [1.1, 0.0], [1.0, 1.0]],
        &[[0.0, 0.0], [f64::NAN, 0.0], [1.0, 1.0]],
        &[[0.5, 0.5]; 3],
    ] {
        let says = refused(corners);
        assert!(says.contains("area.corners"), "{says}");
    }
}

proptest! {
    #![proptest_config(ProptestConfig::with_cases(64))]

    /// A rectangle that is said by its corners is the same area; what is cut off it takes no light away from what stays.
    #[test]
    fn an_outline_is_part_of_its_rectangle(
        wide in 0.4..3.0f64,
        deep in 0.4..3.0f64,
        cut in 0.1..0.9f64,
        (right, away) in (-4.0..4.0f64, -7.0..-4.0f64),
    ) {
        let (x, y, z) = ((-wide, wide), (-deep, deep), (0.6, 1.9));
        let lamp = lamp(spot(right, away, 2.4));
        let light = |place: Spot| lamp.on(place);
        let rectangle = Region::between(x, y, z);
        let corners = [(-wide, -deep), (wide, -deep), (wide, deep), (-wide, deep)];
        let same = Region::inside(Outline::of(&corners).expect("an outline"), z);
        prop_assert!((same.spread(light) - rectangle.spread(light)).abs() < 1e-9);
        prop_assert!((same.evenness(light).within_half - rectangle.evenness(light).within_half).abs() < 0.09);
        let less = [(-wide, -deep), (wide, -deep), (wide, deep - 2.0 * deep * cut), (wide - 2.0 * wide * cut, deep), (-wide, deep)];
        let less = Region::inside(Outline::of(&less).expect("an outline"), z);
        prop_assert!(less.spread(light) <= rectangle.spread(light) + 0.02);
        prop_assert!(less.spread_at_least(light) <= less.spread(light));
    }
}
