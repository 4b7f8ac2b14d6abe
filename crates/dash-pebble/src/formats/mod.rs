//! Open formats beside the JSON that serde writes.

pub mod units_csv;
