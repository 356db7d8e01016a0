-- +goose Up
-- Supplies in stock, and what each job that was begun has set aside of them.
CREATE TABLE goods (
    kind   TEXT NOT NULL,
    name   TEXT NOT NULL COLLATE NOCASE,
    amount REAL NOT NULL CHECK (amount >= 0),
    price  REAL NOT NULL CHECK (price >= 0),
    spare  REAL NOT NULL CHECK (spare >= 0),
    PRIMARY KEY (kind, name)
) WITHOUT ROWID;
ALTER TABLE jobs ADD COLUMN goods TEXT NOT NULL DEFAULT '[]' CHECK (json_valid(goods));

-- +goose Down
ALTER TABLE jobs DROP COLUMN goods;
DROP TABLE goods;
