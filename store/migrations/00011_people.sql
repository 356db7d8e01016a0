-- +goose Up
-- Who is let in to a workshop; nobody where one maker works alone.
CREATE TABLE people (
    id     INTEGER PRIMARY KEY AUTOINCREMENT,
    name   TEXT    NOT NULL COLLATE NOCASE UNIQUE,
    role   TEXT    NOT NULL CHECK (role IN ('steward', 'maker', 'guest')),
    hash   TEXT    NOT NULL, -- argon2id; '' until a password is set
    epoch  INTEGER NOT NULL DEFAULT 1, -- sessions of an earlier one have ended
    since  INTEGER NOT NULL,
    seen   INTEGER NOT NULL DEFAULT 0,
    struck INTEGER NOT NULL DEFAULT 0
);

-- One-time codes: to set the workshop up, to join it, to choose a new password. What is
-- kept is only what a code is known by.
CREATE TABLE codes (
    mark   BLOB    PRIMARY KEY,
    what   TEXT    NOT NULL CHECK (what IN ('set-up', 'join', 'recover')),
    role   TEXT    NOT NULL DEFAULT '',
    person INTEGER REFERENCES people (id) ON DELETE CASCADE, -- who it is for
    maker  INTEGER REFERENCES people (id) ON DELETE CASCADE, -- who made it
    until  INTEGER NOT NULL
) WITHOUT ROWID;

CREATE TABLE sessions (
    token TEXT    PRIMARY KEY, -- its hash
    data  BLOB    NOT NULL,
    until INTEGER NOT NULL
) WITHOUT ROWID;

-- What happened to who is let in, for the steward.
CREATE TABLE events (
    id      INTEGER PRIMARY KEY AUTOINCREMENT,
    at      INTEGER NOT NULL,
    what    TEXT    NOT NULL,
    person  TEXT    NOT NULL, -- by name: it stays when the person goes
    address TEXT    NOT NULL,
    request TEXT    NOT NULL,
    detail  TEXT    NOT NULL DEFAULT ''
);
CREATE INDEX events_at ON events (at);

-- +goose Down
DROP TABLE events;
DROP TABLE sessions;
DROP TABLE codes;
DROP TABLE people;
