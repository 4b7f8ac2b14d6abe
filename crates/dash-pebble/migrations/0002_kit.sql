-- Shots and the things of the kit are edited alike: each is a chain of revisions with a head.
DROP VIEW standing_shot;
ALTER TABLE shot RENAME TO document;
ALTER TABLE document ADD COLUMN kind TEXT NOT NULL DEFAULT 'shot'
    CHECK (kind IN ('shot', 'unit', 'camera', 'lens', 'modifier', 'filter', 'trigger', 'battery', 'lamp'));
-- Retired things of the kit are no longer offered; what refers to them goes on.
ALTER TABLE document ADD COLUMN retired_at TEXT;
ALTER TABLE revision RENAME COLUMN shot_id TO document_id;
CREATE INDEX document_by_kind ON document (kind, place_in_list);

-- A document as it stands: its head, and which way it can be stepped.
CREATE VIEW standing AS
SELECT
    document.id,
    document.kind,
    document.kind = 'shot' AS is_shot,
    document.version,
    document.place_in_list,
    document.changed_at,
    document.retired_at IS NOT NULL AS retired,
    revision.body,
    revision.parent IS NOT NULL AS can_undo,
    EXISTS (SELECT 1 FROM revision AS later WHERE later.parent = document.head) AS can_redo
FROM document
JOIN revision ON revision.id = document.head
WHERE document.removed_at IS NULL;

-- Which shot carries which thing of the kit, and which unit which battery.
CREATE VIEW carried AS
SELECT
    standing.id AS by_id,
    standing.is_shot AS by_shot,
    coalesce(standing.body ->> '$.title', standing.body ->> '$.item.name') AS by_name,
    standing.place_in_list,
    CAST(part.value AS TEXT) AS item_id
FROM standing
JOIN json_each(
    CASE WHEN standing.is_shot THEN json_array(
        standing.body ->> '$.camera.body.id', standing.body ->> '$.camera.lens.id',
        standing.body ->> '$.flash.unit.id', standing.body ->> '$.flash.modifier.id',
        standing.body ->> '$.flash.trigger.id', standing.body ->> '$.flash.gel.id'
    ) ELSE json_array(standing.body ->> '$.item.battery.id') END
) AS part
WHERE part.value IS NOT NULL;
