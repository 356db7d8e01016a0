-- +goose Up
-- The outline of an offcut that is no rectangle: corners in mm, "0,0 120,0 120,60"; '' is one.
ALTER TABLE lots ADD COLUMN shape TEXT NOT NULL DEFAULT '';

-- +goose Down
ALTER TABLE lots DROP COLUMN shape;
