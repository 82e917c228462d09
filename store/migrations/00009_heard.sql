-- Of a file nobody may know at which tempo it was played.

-- +goose Up
ALTER TABLE takes ADD COLUMN tempo_as_heard boolean NOT NULL DEFAULT false; -- its tempo is what was heard when it was measured first

-- +goose Down
ALTER TABLE takes DROP COLUMN tempo_as_heard;
