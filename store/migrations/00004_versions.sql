-- +goose Up
-- version counts the changes of a box. page is the window that made one, so
-- that only what one hand types on runs together for undo.
ALTER TABLE boxes ADD COLUMN version INTEGER NOT NULL DEFAULT 1;
ALTER TABLE changes ADD COLUMN page TEXT NOT NULL DEFAULT '';

-- The latest states of a box, so that a page that shows an older one can be
-- told from what others changed since.
CREATE TABLE versions (
    box_id  INTEGER NOT NULL REFERENCES boxes (id) ON DELETE CASCADE,
    version INTEGER NOT NULL,
    inputs  TEXT    NOT NULL,
    PRIMARY KEY (box_id, version)
) WITHOUT ROWID;

-- What was undone, newest last, until another change is made.
CREATE TABLE undone (
    id      INTEGER PRIMARY KEY AUTOINCREMENT,
    box_id  INTEGER NOT NULL REFERENCES boxes (id) ON DELETE CASCADE,
    what    TEXT    NOT NULL,
    inputs  TEXT    NOT NULL,
    at      INTEGER NOT NULL
);
CREATE INDEX undone_by_box ON undone (box_id, id);

-- Deleted jobs and things lie in the bin, like boxes.
ALTER TABLE jobs ADD COLUMN deleted_at INTEGER;
ALTER TABLE things ADD COLUMN deleted_at INTEGER;

-- +goose Down
ALTER TABLE things DROP COLUMN deleted_at;
ALTER TABLE jobs DROP COLUMN deleted_at;
DROP TABLE undone;
DROP TABLE versions;
ALTER TABLE changes DROP COLUMN page;
ALTER TABLE boxes DROP COLUMN version;
