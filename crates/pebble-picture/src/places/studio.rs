//! Paper, cloth and a printed wall.

use super::paint::{band, lines, mix, scaled, smooth};
use super::{Paint, Row};

/// A paper sweep: the same tone everywhere, a breath darker towards its edges.
pub(super) fn paper(row: &Row, out: &mut [Paint]) {
    row.each(out, |x| {
        let edge = 1.0 - 0.1 * smooth(0.8, 4.0, x.abs()) - 0.06 * smooth(1.0, 3.6, row.at);
        Paint::alike([edge; 3])
    });
}

/// Black cloth, with the seams that a light always finds.
pub(super) fn cloth(row: &Row, out: &mut [Paint]) {
    let high = 0.8 + 0.25 * smooth(0.6, 4.0, row.at);
    row.each(out, |x| {
        let fold = 0.88 + 0.12 * (x * 5.1).sin() + 0.07 * (x * 13.7 + 1.0).sin();
        let seam = 1.0 + 0.8 * lines(x + 0.3, 1.4, 0.012, row.step);
        let tone = scaled([0.95, 0.97, 1.1], seam * fold);
        Paint::lit(tone, high, [0.0; 3])
    });
}

/// A dark floor with a mat on it.
pub(super) fn mat(row: &Row, out: &mut [[f32; 3]]) {
    let inside = band(row.at, 0.1, 1.1, 0.02 + row.deep);
    row.each(out, |x| mix([0.045, 0.044, 0.048], [0.075, 0.085, 0.12], inside * band(x, 0.0, 1.7, 0.02 + row.step)))
}

/// Carpet.
pub(super) fn carpet(row: &Row, out: &mut [[f32; 3]]) {
    row.each(out, |x| {
        let weave = 0.93 + 0.07 * ((x * 41.0).sin() * (row.at * 37.0).sin());
        scaled([0.21, 0.06, 0.065], weave)
    });
}

/// A wall printed with the same sign again and again: three streaks that end in a pebble.
pub(super) fn printed(row: &Row, out: &mut [Paint]) {
    const ACROSS: f32 = 0.78;
    const UP: f32 = 0.46;
    let inside = band(row.at, 1.22, 1.2, 0.01 + row.deep);
    let line = (row.at / UP).floor();
    let y = row.at - (line + 0.5) * UP;
    let moved = if line as i32 % 2 == 0 { 0.0 } else { 0.5 * ACROSS };
    row.each(out, |x| {
        let there = inside * band(x, 0.0, 2.6, 0.01 + row.step);
        let at = x + moved;
        let place = at - ((at / ACROSS).floor() + 0.5) * ACROSS;
        let soft = row.step.max(0.004);
        let pebble = 1.0 - smooth(0.062 - soft, 0.062 + soft, ((place - 0.1) * (place - 0.1) + 1.6 * y * y).sqrt());
        let streaks: f32 = [(0.035, -0.17), (0.0, -0.21), (-0.035, -0.14)]
            .iter()
            .map(|(up, from)| band(y, *up, 0.009, soft) * band(place, 0.5 * (from + 0.03), 0.5 * (0.03 - from), soft))
            .sum();
        let sign = mix([1.12, 1.1, 1.06], [0.26, 0.36, 0.62], streaks.min(1.0));
        let sign = mix(sign, [1.1, 0.46, 0.2], pebble);
        let outside = [0.22, 0.22, 0.26];
        Paint::lit(mix(outside, sign, there), 0.7 + 0.3 * there, [0.0; 3])
    });
}
