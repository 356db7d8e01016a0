-- +goose Up
-- A class follows a box, or a job of which each makes one of every box out of a kit. One is
-- open for an evening: those that are open end here.
DROP TABLE seats;
DROP TABLE classes;
CREATE TABLE classes (
    id     INTEGER PRIMARY KEY AUTOINCREMENT,
    box_id INTEGER UNIQUE REFERENCES boxes (id) ON DELETE CASCADE,
    job_id INTEGER UNIQUE REFERENCES jobs (id) ON DELETE CASCADE,
    code   TEXT    NOT NULL UNIQUE,
    until  INTEGER NOT NULL,
    CHECK ((box_id IS NULL) <> (job_id IS NULL))
);
CREATE TABLE seats (
    id       INTEGER PRIMARY KEY AUTOINCREMENT,
    class_id INTEGER NOT NULL REFERENCES classes (id) ON DELETE CASCADE,
    name     TEXT    NOT NULL COLLATE NOCASE,
    token    BLOB    NOT NULL UNIQUE,
    at       INTEGER NOT NULL DEFAULT 0,
    help     INTEGER NOT NULL DEFAULT 0,
    seen     INTEGER NOT NULL,
    UNIQUE (class_id, name)
);

-- +goose Down
DELETE FROM classes WHERE box_id IS NULL;
