-- Whoever wants to gets a letter when something was said of a take.

-- +goose Up
ALTER TABLE people
    ADD COLUMN wants_letters boolean NOT NULL DEFAULT false,
    ADD COLUMN told_at       timestamptz;                     -- by a letter, last

-- +goose Down
ALTER TABLE people DROP COLUMN wants_letters, DROP COLUMN told_at;
