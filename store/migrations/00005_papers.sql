-- +goose Up
-- How a card looks, as in a design's file; '' is taken from its name.
ALTER TABLE lots ADD COLUMN look TEXT NOT NULL DEFAULT '';

-- Photographs of papers, all made here. A sent one waits to be straightened.
CREATE TABLE photos (
    id   TEXT    PRIMARY KEY,
    jpeg BLOB    NOT NULL,
    wide INTEGER NOT NULL,
    high INTEGER NOT NULL,
    sent INTEGER NOT NULL,
    at   INTEGER NOT NULL
);

-- +goose Down
DROP TABLE photos;
ALTER TABLE lots DROP COLUMN look;
