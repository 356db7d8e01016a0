-- +goose Up
-- In a workshop the drawer and the cupboard are a table's, which one maker has or several
-- share: place is its name, '' the workshop's own. A begun job has taken its paper and
-- supplies from one.
ALTER TABLE people ADD COLUMN place TEXT NOT NULL DEFAULT '' COLLATE NOCASE;
ALTER TABLE lots   ADD COLUMN place TEXT NOT NULL DEFAULT '' COLLATE NOCASE;
ALTER TABLE jobs   ADD COLUMN place TEXT NOT NULL DEFAULT '' COLLATE NOCASE;
CREATE TABLE goods_of (
    place  TEXT NOT NULL DEFAULT '' COLLATE NOCASE,
    kind   TEXT NOT NULL,
    name   TEXT NOT NULL COLLATE NOCASE,
    amount REAL NOT NULL CHECK (amount >= 0),
    price  REAL NOT NULL CHECK (price >= 0),
    spare  REAL NOT NULL CHECK (spare >= 0),
    PRIMARY KEY (place, kind, name)
) WITHOUT ROWID;
INSERT INTO goods_of (kind, name, amount, price, spare) SELECT kind, name, amount, price, spare FROM goods;
DROP TABLE goods;
ALTER TABLE goods_of RENAME TO goods;

-- +goose Down
CREATE TABLE goods_all (
    kind   TEXT NOT NULL,
    name   TEXT NOT NULL COLLATE NOCASE,
    amount REAL NOT NULL CHECK (amount >= 0),
    price  REAL NOT NULL CHECK (price >= 0),
    spare  REAL NOT NULL CHECK (spare >= 0),
    PRIMARY KEY (kind, name)
) WITHOUT ROWID;
INSERT INTO goods_all (kind, name, amount, price, spare)
    SELECT kind, name, sum(amount), max(price), max(spare) FROM goods GROUP BY kind, name;
DROP TABLE goods;
ALTER TABLE goods_all RENAME TO goods;
ALTER TABLE jobs   DROP COLUMN place;
ALTER TABLE lots   DROP COLUMN place;
ALTER TABLE people DROP COLUMN place;
