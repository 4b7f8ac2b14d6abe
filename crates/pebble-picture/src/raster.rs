//! Triangles on a grid: which cells of each row they cover, and how near they are there.

/// A triangle by its corners: column, row, and one over the distance, which is even across it in perspective.
#[derive(Clone, Copy)]
pub(crate) struct Triangle {
    pub corners: [[f32; 3]; 3],
}

/// Calls back with each row's run of cells whose middles the triangle covers: row, first, one past the last, nearness at the
/// first and its step. `bounds` are the first column and row, and one past the last.
#[inline]
pub(crate) fn fill(triangle: &Triangle, bounds: [i32; 4], mut run: impl FnMut(usize, usize, usize, f32, f32)) {
    let [a, b, c] = triangle.corners;
    let (bx, by, cx, cy) = (b[0] - a[0], b[1] - a[1], c[0] - a[0], c[1] - a[1]);
    let area = bx * cy - by * cx;
    if area.abs() < 1e-9 {
        return;
    }
    let top = a[1].min(b[1]).min(c[1]);
    let bottom = a[1].max(b[1]).max(c[1]);
    let first = ((top - 0.5).ceil() as i32).max(bounds[1]);
    let last = ((bottom - 0.5).floor() as i32).min(bounds[3] - 1);
    if first > last {
        return;
    }
    let step_x = ((b[2] - a[2]) * cy - (c[2] - a[2]) * by) / area;
    let step_y = ((c[2] - a[2]) * bx - (b[2] - a[2]) * cx) / area;
    for row in first..=last {
        let y = row as f32 + 0.5;
        let (mut left, mut right) = (f32::INFINITY, f32::NEG_INFINITY);
        for (p, q) in [(a, b), (b, c), (c, a)] {
            let (low, high) = if p[1] <= q[1] { (p, q) } else { (q, p) };
            if y < low[1] || y > high[1] || high[1] - low[1] < 1e-12 {
                continue;
            }
            let x = low[0] + (y - low[1]) / (high[1] - low[1]) * (high[0] - low[0]);
            left = left.min(x);
            right = right.max(x);
        }
        let from = ((left - 0.5).ceil() as i32).max(bounds[0]);
        let to = ((right - 0.5).ceil() as i32).min(bounds[2]);
        if from < to {
            let z = a[2] + (from as f32 + 0.5 - a[0]) * step_x + (y - a[1]) * step_y;
            run(row as usize, from as usize, to as usize, z, step_x);
        }
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn two_triangles_that_share_an_edge_cover_each_cell_once() {
        let mut cells = [[0; 40]; 40];
        let corners = [[3.2, 4.1, 1.0], [33.7, 7.9, 0.5], [30.1, 36.6, 0.4], [5.5, 30.3, 0.9]];
        for three in [[0, 1, 2], [0, 2, 3]] {
            let triangle = Triangle { corners: three.map(|k: usize| corners[k]) };
            fill(&triangle, [0, 0, 40, 40], |row, from, to, _, _| {
                cells[row][from..to].iter_mut().for_each(|cell| *cell += 1)
            });
        }
        let covered: i32 = cells.iter().flatten().sum();
        // Area by the corners' coordinates.
        let area = |of: &[[f32; 3]; 4]| {
            let sum: f32 = (0..4).map(|k| of[k][0] * of[(k + 1) % 4][1] - of[(k + 1) % 4][0] * of[k][1]).sum();
            0.5 * sum.abs()
        };
        assert!(cells.iter().flatten().all(|count| *count <= 1), "no cell twice");
        assert!((covered as f32 / area(&corners) - 1.0).abs() < 0.02, "{covered} of {}", area(&corners));
    }

    #[test]
    fn nearness_is_that_of_the_plane() {
        let plane = |x: f32, y: f32| 0.2 + 0.01 * x + 0.02 * y;
        let corner = |x: f32, y: f32| [x, y, plane(x, y)];
        let triangle = Triangle { corners: [corner(2.0, 1.0), corner(20.0, 6.0), corner(7.0, 18.0)] };
        let mut rows = 0;
        fill(&triangle, [0, 0, 30, 30], |row, from, to, z, step| {
            rows += 1;
            let at = |column: usize| plane(column as f32 + 0.5, row as f32 + 0.5);
            assert!((z - at(from)).abs() < 1e-4 && (z + step * (to - from) as f32 - at(to)).abs() < 1e-3);
        });
        assert!(rows > 12);
    }
}
