-- +goose Up
-- Whose a photograph is, in a workshop: of all who sent it. One picture is kept once.
CREATE TABLE photo_makers (
    photo TEXT    NOT NULL REFERENCES photos (id) ON DELETE CASCADE,
    maker INTEGER NOT NULL,
    PRIMARY KEY (photo, maker)
) WITHOUT ROWID;

-- +goose Down
DROP TABLE photo_makers;
