-- +goose Up
-- What a maker reckons with in all boxes and jobs: rates, evenings, hands.
CREATE TABLE settings (
    name  TEXT PRIMARY KEY,
    value TEXT NOT NULL CHECK (json_valid(value))
) WITHOUT ROWID;

-- How many sheets were measured together for a card's thickness; 0 is by its weight.
ALTER TABLE lots ADD COLUMN measured INTEGER NOT NULL DEFAULT 0;

-- Who makes a job and when, as typed, and how many copies of each of its tasks are done.
ALTER TABLE jobs ADD COLUMN evenings TEXT NOT NULL DEFAULT 'null' CHECK (json_valid(evenings));
ALTER TABLE jobs ADD COLUMN done TEXT NOT NULL DEFAULT '{}' CHECK (json_valid(done));

-- +goose Down
ALTER TABLE jobs DROP COLUMN done;
ALTER TABLE jobs DROP COLUMN evenings;
ALTER TABLE lots DROP COLUMN measured;
DROP TABLE settings;
