-- +goose Up
-- A tall box is joined at its back from now on; those that were kept stay as they were made,
-- joined at the front.
UPDATE boxes SET inputs = json_patch(inputs, '{"options":{"seam":"front"}}')
 WHERE json_extract(inputs, '$.style') = 'tall-box' AND json_extract(inputs, '$.options.seam') IS NULL;
UPDATE changes SET inputs = json_patch(inputs, '{"options":{"seam":"front"}}')
 WHERE json_extract(inputs, '$.style') = 'tall-box' AND json_extract(inputs, '$.options.seam') IS NULL;
UPDATE undone SET inputs = json_patch(inputs, '{"options":{"seam":"front"}}')
 WHERE json_valid(inputs) AND json_extract(inputs, '$.style') = 'tall-box' AND json_extract(inputs, '$.options.seam') IS NULL;
UPDATE versions SET state = json_patch(state, '{"options":{"seam":"front"}}')
 WHERE json_valid(state) AND json_extract(state, '$.style') = 'tall-box' AND json_extract(state, '$.options.seam') IS NULL;
UPDATE notes SET design = json_patch(design, '{"options":{"seam":"front"}}')
 WHERE json_extract(design, '$.style') = 'tall-box' AND json_extract(design, '$.options.seam') IS NULL;

-- +goose Down
SELECT 1;
