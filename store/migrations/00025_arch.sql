-- +goose Up
-- An arched box stands on a plain strip from now on; those that were kept stay as they were made,
-- their backs glued inside the cover by tabs.
UPDATE boxes SET inputs = json_patch(inputs, '{"options":{"base":"sides"}}')
 WHERE json_extract(inputs, '$.style') = 'arched-box' AND json_extract(inputs, '$.options.base') IS NULL;
UPDATE changes SET inputs = json_patch(inputs, '{"options":{"base":"sides"}}')
 WHERE json_extract(inputs, '$.style') = 'arched-box' AND json_extract(inputs, '$.options.base') IS NULL;
UPDATE undone SET inputs = json_patch(inputs, '{"options":{"base":"sides"}}')
 WHERE json_valid(inputs) AND json_extract(inputs, '$.style') = 'arched-box' AND json_extract(inputs, '$.options.base') IS NULL;
UPDATE versions SET state = json_patch(state, '{"options":{"base":"sides"}}')
 WHERE json_valid(state) AND json_extract(state, '$.style') = 'arched-box' AND json_extract(state, '$.options.base') IS NULL;
UPDATE notes SET design = json_patch(design, '{"options":{"base":"sides"}}')
 WHERE json_extract(design, '$.style') = 'arched-box' AND json_extract(design, '$.options.base') IS NULL;

-- +goose Down
SELECT 1;
