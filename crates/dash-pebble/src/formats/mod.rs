//! Open formats beside the JSON that serde writes.

pub mod match_csv;
pub mod units_csv;
