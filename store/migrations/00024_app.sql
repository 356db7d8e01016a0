-- +goose Up
-- "Brev": whose file this is.
PRAGMA application_id = 1114793334;

-- +goose Down
PRAGMA application_id = 0;
