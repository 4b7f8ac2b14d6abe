//! Open formats beside the JSON that serde writes.

pub mod match_csv;
pub mod units_csv;

/// Signs that a spreadsheet takes for the beginning of something to compute.
const COMPUTES: [char; 4] = ['=', '+', '-', '@'];

/// A cell as text: what a spreadsheet would compute and is no number is quoted.
fn as_text(cell: &str) -> String {
    if cell.starts_with(COMPUTES) && cell.parse::<f64>().is_err() { format!("'{cell}") } else { cell.to_owned() }
}

/// The same read back.
fn from_text(cell: &str) -> &str {
    cell.strip_prefix('\'').filter(|rest| rest.starts_with(COMPUTES)).unwrap_or(cell)
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_a_spreadsheet_would_compute_is_text_and_comes_back() {
        for (cell, written) in [
            ("Brix 400", "Brix 400"),
            ("=cmd()", "'=cmd()"),
            ("+1 stop", "'+1 stop"),
            ("-0.5", "-0.5"),
            ("@home", "'@home"),
            ("'quoted", "'quoted"),
        ] {
            assert_eq!((as_text(cell).as_str(), from_text(&as_text(cell))), (written, cell));
        }
    }
}
