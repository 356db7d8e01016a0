-- +goose Up
-- Papers are cut as rectangles on walls and flaps from now on; those that were kept stay as they were cut,
-- in the shape of their faces.
UPDATE boxes SET inputs = json_set(inputs, '$.mats', json((SELECT json_group_array(json(
    CASE WHEN json_extract(m.value, '$.shape') IS NULL THEN json_set(m.value, '$.shape', 'face') ELSE m.value END)) FROM json_each(inputs, '$.mats') AS m)))
 WHERE json_array_length(inputs, '$.mats') > 0;
UPDATE changes SET inputs = json_set(inputs, '$.mats', json((SELECT json_group_array(json(
    CASE WHEN json_extract(m.value, '$.shape') IS NULL THEN json_set(m.value, '$.shape', 'face') ELSE m.value END)) FROM json_each(inputs, '$.mats') AS m)))
 WHERE json_array_length(inputs, '$.mats') > 0;
UPDATE undone SET inputs = json_set(inputs, '$.mats', json((SELECT json_group_array(json(
    CASE WHEN json_extract(m.value, '$.shape') IS NULL THEN json_set(m.value, '$.shape', 'face') ELSE m.value END)) FROM json_each(inputs, '$.mats') AS m)))
 WHERE json_valid(inputs) AND json_array_length(inputs, '$.mats') > 0;
UPDATE versions SET state = json_set(state, '$.mats', json((SELECT json_group_array(json(
    CASE WHEN json_extract(m.value, '$.shape') IS NULL THEN json_set(m.value, '$.shape', 'face') ELSE m.value END)) FROM json_each(state, '$.mats') AS m)))
 WHERE json_valid(state) AND json_array_length(state, '$.mats') > 0;
UPDATE notes SET design = json_set(design, '$.mats', json((SELECT json_group_array(json(
    CASE WHEN json_extract(m.value, '$.shape') IS NULL THEN json_set(m.value, '$.shape', 'face') ELSE m.value END)) FROM json_each(design, '$.mats') AS m)))
 WHERE json_array_length(design, '$.mats') > 0;

-- +goose Down
SELECT 1;
