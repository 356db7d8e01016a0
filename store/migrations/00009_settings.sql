-- +goose Up
-- What a maker reckons with in all boxes and jobs: rates, evenings, hands.
CREATE TABLE settings (
    name  TEXT PRIMARY KEY,
    value TEXT NOT NULL CHECK (json_valid(value))
) WITHOUT ROWID;

-- +goose Down
DROP TABLE settings;
