-- A shot has several lights and lamps. What version 1 wrote has one flash, in revisions that are kept.
DROP VIEW carried;

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
        standing.body ->> '$.camera.body.id', standing.body ->> '$.camera.lens.id'
    ) ELSE json_array(standing.body ->> '$.item.battery.id') END
) AS part
WHERE part.value IS NOT NULL
UNION ALL
SELECT standing.id, standing.is_shot, standing.body ->> '$.title', standing.place_in_list, CAST(inside.value AS TEXT)
FROM standing
JOIN json_each('["$.lights", "$.flash", "$.lamps"]') AS place
JOIN json_tree(standing.body, place.value) AS inside
-- A unit's battery is carried by the unit, and the modifier it was metered with is part of its figures.
WHERE standing.is_shot AND inside.key = 'id' AND inside.fullkey NOT LIKE '%.battery.id' AND inside.fullkey NOT LIKE '%.output.%';
