-- How figures are written and read; one row, as JSON.
CREATE TABLE preference (
    one INTEGER PRIMARY KEY CHECK (one = 1),
    body TEXT NOT NULL
) STRICT;
