-- +goose Up
-- Who made a change, in a workshop; 0 where one maker works alone.
ALTER TABLE changes ADD COLUMN maker INTEGER NOT NULL DEFAULT 0;
ALTER TABLE undone  ADD COLUMN maker INTEGER NOT NULL DEFAULT 0;

-- +goose Down
ALTER TABLE undone  DROP COLUMN maker;
ALTER TABLE changes DROP COLUMN maker;
