-- +goose Up
-- Keys that a device signs in with in place of a password; key is what it is checked
-- against, as JSON.
CREATE TABLE passkeys (
    id     BLOB    PRIMARY KEY,
    person INTEGER NOT NULL REFERENCES people (id) ON DELETE CASCADE,
    key    TEXT    NOT NULL CHECK (json_valid(key)),
    since  INTEGER NOT NULL
) WITHOUT ROWID;

-- +goose Down
DROP TABLE passkeys;
