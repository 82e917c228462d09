-- A block is edited; each edit says on what it rests.

-- +goose Up
ALTER TABLE blocks ADD COLUMN revision integer NOT NULL DEFAULT 1;

-- +goose Down
ALTER TABLE blocks DROP COLUMN revision;
