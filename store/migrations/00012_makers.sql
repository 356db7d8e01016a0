-- +goose Up
-- Whose something is, in a workshop: a person's id, 0 where it was made by one maker
-- alone. What is shared is everybody's to work on.
ALTER TABLE boxes ADD COLUMN maker  INTEGER NOT NULL DEFAULT 0;
ALTER TABLE boxes ADD COLUMN shared INTEGER NOT NULL DEFAULT 0;
ALTER TABLE jobs  ADD COLUMN maker  INTEGER NOT NULL DEFAULT 0;
ALTER TABLE jobs  ADD COLUMN shared INTEGER NOT NULL DEFAULT 0;
ALTER TABLE notes ADD COLUMN maker  INTEGER NOT NULL DEFAULT 0;

-- Two makers may keep the same thing.
CREATE TABLE things_of (
    id         INTEGER PRIMARY KEY AUTOINCREMENT,
    maker      INTEGER NOT NULL DEFAULT 0,
    thing      TEXT    NOT NULL CHECK (json_valid(thing)),
    deleted_at INTEGER,
    UNIQUE (maker, thing)
);
INSERT INTO things_of (id, thing, deleted_at) SELECT id, thing, deleted_at FROM things;
DROP TABLE things;
ALTER TABLE things_of RENAME TO things;

-- +goose Down
CREATE TABLE things_all (
    id         INTEGER PRIMARY KEY AUTOINCREMENT,
    thing      TEXT    NOT NULL UNIQUE CHECK (json_valid(thing)),
    deleted_at INTEGER
);
INSERT OR IGNORE INTO things_all (id, thing, deleted_at) SELECT id, thing, deleted_at FROM things;
DROP TABLE things;
ALTER TABLE things_all RENAME TO things;
ALTER TABLE notes DROP COLUMN maker;
ALTER TABLE jobs  DROP COLUMN shared;
ALTER TABLE jobs  DROP COLUMN maker;
ALTER TABLE boxes DROP COLUMN shared;
ALTER TABLE boxes DROP COLUMN maker;
