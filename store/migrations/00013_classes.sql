-- +goose Up
-- A box that a class makes together, each following on a phone without a name here. code
-- leads to it; it shows the steps of this one box and no more.
CREATE TABLE classes (
    id     INTEGER PRIMARY KEY AUTOINCREMENT,
    box_id INTEGER NOT NULL UNIQUE REFERENCES boxes (id) ON DELETE CASCADE,
    code   TEXT    NOT NULL UNIQUE,
    until  INTEGER NOT NULL
);

-- Who sits in a class, by a name or a colour of their own choosing, and how far they are.
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
DROP TABLE seats;
DROP TABLE classes;
