-- A shot is a chain of revisions; its head is the one shown. Undo and redo move the head along the chain, and every move
-- raises the version, so that nobody writes over what they have not seen.
CREATE TABLE shot (
    id TEXT PRIMARY KEY NOT NULL,
    version INTEGER NOT NULL DEFAULT 1 CHECK (version > 0),
    head INTEGER NOT NULL REFERENCES revision (id) DEFERRABLE INITIALLY DEFERRED,
    place_in_list INTEGER NOT NULL,
    removed_at TEXT,
    changed_at TEXT NOT NULL
) STRICT;

CREATE TABLE revision (
    id INTEGER PRIMARY KEY NOT NULL,
    shot_id TEXT NOT NULL REFERENCES shot (id) ON DELETE CASCADE DEFERRABLE INITIALLY DEFERRED,
    parent INTEGER REFERENCES revision (id),
    body TEXT NOT NULL CHECK (json_valid(body)),
    made_at TEXT NOT NULL
) STRICT;

CREATE INDEX revision_by_parent ON revision (parent);
CREATE INDEX revision_by_shot ON revision (shot_id);
