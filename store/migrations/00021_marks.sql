-- +goose Up
-- Of the codes of classes and of links to boxes only marks are kept, by which they are known
-- again, and what the machine makes them of with a secret that is not here. Classes that are
-- open end; links stay (the next migration, in store/codes.go, marks them).
DROP TABLE seats;
DROP TABLE classes;
CREATE TABLE classes (
    id     INTEGER PRIMARY KEY AUTOINCREMENT,
    box_id INTEGER UNIQUE REFERENCES boxes (id) ON DELETE CASCADE,
    job_id INTEGER UNIQUE REFERENCES jobs (id) ON DELETE CASCADE,
    seed   TEXT    NOT NULL,
    mark   BLOB    NOT NULL UNIQUE,
    until  INTEGER NOT NULL,
    CHECK ((box_id IS NULL) <> (job_id IS NULL))
);
-- A seat's device is the first seat that was taken on it, so that one device has few.
CREATE TABLE seats (
    id       INTEGER PRIMARY KEY AUTOINCREMENT,
    class_id INTEGER NOT NULL REFERENCES classes (id) ON DELETE CASCADE,
    name     TEXT    NOT NULL COLLATE NOCASE,
    token    BLOB    NOT NULL UNIQUE,
    device   BLOB    NOT NULL,
    at       INTEGER NOT NULL DEFAULT 0,
    help     INTEGER NOT NULL DEFAULT 0,
    seen     INTEGER NOT NULL,
    UNIQUE (class_id, name)
);
DROP INDEX boxes_by_link;
ALTER TABLE boxes ADD COLUMN link_mark BLOB;
CREATE UNIQUE INDEX boxes_by_link ON boxes (link_mark) WHERE link_mark IS NOT NULL;

-- +goose Down
DROP INDEX boxes_by_link;
UPDATE boxes SET link = '';
ALTER TABLE boxes DROP COLUMN link_mark;
CREATE UNIQUE INDEX boxes_by_link ON boxes (link) WHERE link <> '';
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
