-- +goose Up
CREATE TABLE boxes (
    id         INTEGER PRIMARY KEY AUTOINCREMENT,
    name       TEXT    NOT NULL,
    inputs     TEXT    NOT NULL CHECK (json_valid(inputs)),
    created_at INTEGER NOT NULL,
    changed_at INTEGER NOT NULL,
    deleted_at INTEGER
);

-- The inputs as they were before each change, newest last; what is undone is
-- taken off the end.
CREATE TABLE changes (
    id      INTEGER PRIMARY KEY AUTOINCREMENT,
    box_id  INTEGER NOT NULL REFERENCES boxes (id) ON DELETE CASCADE,
    what    TEXT    NOT NULL,
    inputs  TEXT    NOT NULL CHECK (json_valid(inputs)),
    at      INTEGER NOT NULL
);
CREATE INDEX changes_by_box ON changes (box_id, id);

-- Steps ticked off. mark is what the step said when it was ticked.
CREATE TABLE ticks (
    box_id INTEGER NOT NULL REFERENCES boxes (id) ON DELETE CASCADE,
    step   TEXT    NOT NULL,
    mark   TEXT    NOT NULL,
    at     INTEGER NOT NULL,
    PRIMARY KEY (box_id, step)
) WITHOUT ROWID;

-- +goose Down
DROP TABLE ticks;
DROP TABLE changes;
DROP TABLE boxes;
