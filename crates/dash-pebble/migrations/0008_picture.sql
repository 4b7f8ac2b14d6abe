-- Pictures of places, reduced, by the SHA-256 of their bytes.
CREATE TABLE picture (
    id TEXT PRIMARY KEY NOT NULL CHECK (length(id) = 64),
    bytes BLOB NOT NULL
) STRICT;
