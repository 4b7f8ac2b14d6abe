-- What is before the lens is carried by a shot as gels are.
DROP VIEW carried;

CREATE VIEW carried AS
WITH sound AS (
    SELECT id, is_shot, place_in_list, CASE WHEN json_valid(body) THEN body ELSE '{}' END AS body FROM standing
)
SELECT
    sound.id AS by_id,
    sound.is_shot AS by_shot,
    coalesce(sound.body ->> '$.title', sound.body ->> '$.item.name') AS by_name,
    sound.place_in_list,
    CAST(part.value AS TEXT) AS item_id
FROM sound
JOIN json_each(
    CASE WHEN sound.is_shot THEN json_array(
        sound.body ->> '$.camera.body.id', sound.body ->> '$.camera.lens.id'
    ) ELSE json_array(sound.body ->> '$.item.battery.id') END
) AS part
WHERE part.value IS NOT NULL
UNION ALL
SELECT sound.id, sound.is_shot, sound.body ->> '$.title', sound.place_in_list, CAST(inside.value AS TEXT)
FROM sound
JOIN json_each('["$.lights", "$.flash", "$.lamps", "$.camera.filters"]') AS place
JOIN json_tree(sound.body, place.value) AS inside
-- A unit's battery is carried by the unit, and the modifier it was metered with is part of its figures.
WHERE sound.is_shot AND inside.key = 'id' AND inside.fullkey NOT LIKE '%.battery.id' AND inside.fullkey NOT LIKE '%.output.%';
