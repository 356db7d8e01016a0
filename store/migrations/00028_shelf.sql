-- +goose Up
-- What a maker sorts boxes by: tags, a JSON list of words; favourites; what is put away.
ALTER TABLE boxes ADD COLUMN tags TEXT NOT NULL DEFAULT '[]';
ALTER TABLE boxes ADD COLUMN favourite INTEGER NOT NULL DEFAULT 0;
ALTER TABLE boxes ADD COLUMN archived INTEGER NOT NULL DEFAULT 0;

-- +goose Down
ALTER TABLE boxes DROP COLUMN tags;
ALTER TABLE boxes DROP COLUMN favourite;
ALTER TABLE boxes DROP COLUMN archived;
