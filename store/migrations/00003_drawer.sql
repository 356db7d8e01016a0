-- +goose Up
-- Paper in stock: piles of equal sheets, and kept offcuts. Lengths are whole
-- nanometres. An offcut that a job left has that job's number in job_id.
CREATE TABLE lots (
    id        INTEGER PRIMARY KEY AUTOINCREMENT,
    card      TEXT    NOT NULL,
    gsm       REAL    NOT NULL,
    thickness INTEGER NOT NULL,
    direction TEXT    NOT NULL,
    sheet     TEXT    NOT NULL,
    width     INTEGER NOT NULL CHECK (width > 0),
    height    INTEGER NOT NULL CHECK (height > 0),
    count     INTEGER NOT NULL CHECK (count >= 0),
    price     REAL    NOT NULL CHECK (price >= 0),
    offcut    INTEGER NOT NULL,
    origin    TEXT    NOT NULL,
    job_id    INTEGER REFERENCES jobs (id) ON DELETE SET NULL
);

-- A job makes some boxes. items is [{"box":1,"copies":2}]; layouts holds the
-- best layout found by card while it is planned, stocks all that is cut once
-- it is begun.
CREATE TABLE jobs (
    id         INTEGER PRIMARY KEY AUTOINCREMENT,
    name       TEXT    NOT NULL,
    state      TEXT    NOT NULL CHECK (state IN ('planned', 'begun', 'finished')),
    items      TEXT    NOT NULL CHECK (json_valid(items)),
    choices    TEXT    NOT NULL CHECK (json_valid(choices)),
    layouts    TEXT    NOT NULL DEFAULT '{}' CHECK (json_valid(layouts)),
    stocks     TEXT    CHECK (json_valid(stocks)),
    changed_at INTEGER NOT NULL
);

-- What a begun job has reserved, and a finished one has used.
CREATE TABLE job_lots (
    job_id INTEGER NOT NULL REFERENCES jobs (id) ON DELETE CASCADE,
    lot_id INTEGER NOT NULL REFERENCES lots (id),
    count  INTEGER NOT NULL CHECK (count > 0),
    PRIMARY KEY (job_id, lot_id)
) WITHOUT ROWID;

-- +goose Down
DROP TABLE job_lots;
DROP TABLE jobs;
DROP TABLE lots;
