//! Open formats beside the JSON that serde writes.

pub mod match_csv;
pub mod set_csv;
pub mod units_csv;

/// Signs that a spreadsheet takes for the beginning of something to compute.
const COMPUTES: [char; 4] = ['=', '+', '-', '@'];

/// A cell as text: what a spreadsheet would compute and is no number is quoted.
pub fn as_text(cell: &str) -> String {
    if cell.starts_with(COMPUTES) && cell.parse::<f64>().is_err() { format!("'{cell}") } else { cell.to_owned() }
}

/// The same read back.
pub fn from_text(cell: &str) -> &str {
    cell.strip_prefix('\'').filter(|rest| rest.starts_with(COMPUTES)).unwrap_or(cell)
}
