-- +goose Up
-- The latest states of each box and job, so that a page that shows an older
-- one can be told from what others changed since. Numbers are never used
-- again. page is the window that made a state: what one hand types runs
-- together for undo.
CREATE TABLE versions (
    id     INTEGER PRIMARY KEY AUTOINCREMENT,
    box_id INTEGER REFERENCES boxes (id) ON DELETE CASCADE,
    job_id INTEGER REFERENCES jobs (id) ON DELETE CASCADE,
    page   TEXT    NOT NULL DEFAULT '',
    state  TEXT    NOT NULL
);
CREATE INDEX versions_by_box ON versions (box_id, id) WHERE box_id IS NOT NULL;
CREATE INDEX versions_by_job ON versions (job_id, id) WHERE job_id IS NOT NULL;
ALTER TABLE boxes ADD COLUMN version INTEGER NOT NULL DEFAULT 0;
ALTER TABLE jobs ADD COLUMN version INTEGER NOT NULL DEFAULT 0;
ALTER TABLE changes ADD COLUMN page TEXT NOT NULL DEFAULT '';
INSERT INTO versions (box_id, state) SELECT id, inputs FROM boxes;
UPDATE boxes SET version = (SELECT v.id FROM versions v WHERE v.box_id = boxes.id);

CREATE INDEX boxes_by_date ON boxes (deleted_at, changed_at DESC, id DESC);

-- What was undone, newest last, until another change is made.
CREATE TABLE undone (
    id      INTEGER PRIMARY KEY AUTOINCREMENT,
    box_id  INTEGER NOT NULL REFERENCES boxes (id) ON DELETE CASCADE,
    what    TEXT    NOT NULL,
    inputs  TEXT    NOT NULL,
    at      INTEGER NOT NULL
);
CREATE INDEX undone_by_box ON undone (box_id, id);

-- Deleted jobs, things and paper lie in the bin, like boxes. Of paper that was
-- taken out, binned is how many sheets there were.
ALTER TABLE jobs ADD COLUMN deleted_at INTEGER;
ALTER TABLE things ADD COLUMN deleted_at INTEGER;
ALTER TABLE lots ADD COLUMN deleted_at INTEGER;
ALTER TABLE lots ADD COLUMN binned INTEGER NOT NULL DEFAULT 0;

-- +goose Down
ALTER TABLE lots DROP COLUMN binned;
ALTER TABLE lots DROP COLUMN deleted_at;
ALTER TABLE things DROP COLUMN deleted_at;
ALTER TABLE jobs DROP COLUMN deleted_at;
DROP TABLE undone;
DROP INDEX boxes_by_date;
ALTER TABLE changes DROP COLUMN page;
ALTER TABLE jobs DROP COLUMN version;
ALTER TABLE boxes DROP COLUMN version;
DROP TABLE versions;
