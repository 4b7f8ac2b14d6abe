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

-- A shot as it stands: its head, and which way it can be stepped.
CREATE VIEW standing_shot AS
SELECT
    shot.id,
    shot.version,
    shot.place_in_list,
    shot.changed_at,
    revision.body,
    revision.parent IS NOT NULL AS can_undo,
    EXISTS (SELECT 1 FROM revision AS later WHERE later.parent = shot.head) AS can_redo
FROM shot
JOIN revision ON revision.id = shot.head
WHERE shot.removed_at IS NULL;
