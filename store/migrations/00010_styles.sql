-- +goose Up
-- A maker's own styles, each version as its file; a version never changes, since boxes
-- are made of it. One that is struck is not offered any more.
CREATE TABLE styles (
    id      TEXT    NOT NULL,
    version INTEGER NOT NULL CHECK (version >= 1),
    file    TEXT    NOT NULL CHECK (json_valid(file)),
    struck  INTEGER NOT NULL DEFAULT 0,
    at      INTEGER NOT NULL,
    PRIMARY KEY (id, version)
) WITHOUT ROWID;

-- +goose Down
DROP TABLE styles;
