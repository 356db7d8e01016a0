-- +goose Up
-- Which way the fibres of a pile's sheets run, and what their core is; '' is not known, and solid.
ALTER TABLE lots ADD COLUMN grain TEXT NOT NULL DEFAULT '';
ALTER TABLE lots ADD COLUMN finish TEXT NOT NULL DEFAULT '';
-- A dispenser's tab is as wide as tape wants it from now on; those that were kept stay as they were.
UPDATE boxes SET inputs = json_patch(inputs, iif(json_extract(inputs, '$.units') = 'in', '{"size":{"tab":7.9375}}', '{"size":{"tab":8}}'))
 WHERE json_extract(inputs, '$.style') = 'dispenser' AND json_extract(inputs, '$.size.tab') IS NULL;
UPDATE changes SET inputs = json_patch(inputs, iif(json_extract(inputs, '$.units') = 'in', '{"size":{"tab":7.9375}}', '{"size":{"tab":8}}'))
 WHERE json_extract(inputs, '$.style') = 'dispenser' AND json_extract(inputs, '$.size.tab') IS NULL;
UPDATE undone SET inputs = json_patch(inputs, iif(json_extract(inputs, '$.units') = 'in', '{"size":{"tab":7.9375}}', '{"size":{"tab":8}}'))
 WHERE json_valid(inputs) AND json_extract(inputs, '$.style') = 'dispenser' AND json_extract(inputs, '$.size.tab') IS NULL;
UPDATE versions SET state = json_patch(state, iif(json_extract(state, '$.units') = 'in', '{"size":{"tab":7.9375}}', '{"size":{"tab":8}}'))
 WHERE json_valid(state) AND json_extract(state, '$.style') = 'dispenser' AND json_extract(state, '$.size.tab') IS NULL;
UPDATE notes SET design = json_patch(design, iif(json_extract(design, '$.units') = 'in', '{"size":{"tab":7.9375}}', '{"size":{"tab":8}}'))
 WHERE json_extract(design, '$.style') = 'dispenser' AND json_extract(design, '$.size.tab') IS NULL;

-- +goose Down
ALTER TABLE lots DROP COLUMN grain;
ALTER TABLE lots DROP COLUMN finish;
