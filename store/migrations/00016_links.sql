-- +goose Up
-- A code by which anybody may look at a box; '' for none.
ALTER TABLE boxes ADD COLUMN link TEXT NOT NULL DEFAULT '';
CREATE UNIQUE INDEX boxes_by_link ON boxes (link) WHERE link <> '';

-- +goose Down
DROP INDEX boxes_by_link;
ALTER TABLE boxes DROP COLUMN link;
