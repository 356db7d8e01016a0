-- +goose Up
-- What was made and how it felt; design is the box as it was then.
CREATE TABLE notes (
    id       INTEGER PRIMARY KEY AUTOINCREMENT,
    box_id   INTEGER REFERENCES boxes (id) ON DELETE SET NULL,
    made     INTEGER NOT NULL,
    name     TEXT    NOT NULL,
    style    TEXT    NOT NULL,
    card     TEXT    NOT NULL,
    felt     TEXT    NOT NULL CHECK (json_valid(felt)),
    remember TEXT    NOT NULL,
    design   TEXT    NOT NULL CHECK (json_valid(design))
);

-- +goose Down
DROP TABLE notes;
