-- +goose Up
-- How long the steps of a box really took at the bench, beside what is usual.
CREATE TABLE times (
    box_id  INTEGER NOT NULL REFERENCES boxes (id) ON DELETE CASCADE,
    step    TEXT    NOT NULL,
    kind    TEXT    NOT NULL,
    seconds REAL    NOT NULL CHECK (seconds >= 0),
    usual   REAL    NOT NULL CHECK (usual > 0),
    at      INTEGER NOT NULL,
    PRIMARY KEY (box_id, step)
) WITHOUT ROWID;
CREATE INDEX times_at ON times (at);

-- How long a made box took, in minutes (0 is not known), and its photograph.
ALTER TABLE notes ADD COLUMN minutes REAL NOT NULL DEFAULT 0;
ALTER TABLE notes ADD COLUMN photo TEXT NOT NULL DEFAULT '';

-- +goose Down
ALTER TABLE notes DROP COLUMN photo;
ALTER TABLE notes DROP COLUMN minutes;
DROP TABLE times;
