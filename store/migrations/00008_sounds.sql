-- Sounds lie in the database or in a bucket, are kept for so many days where a
-- studio says so, and whoever is removed is forgotten.

-- +goose Up
ALTER TABLE studios ADD COLUMN sound_days integer;             -- how long sounds are kept; null for ever
ALTER TABLE take_sounds ADD COLUMN in_bucket boolean NOT NULL DEFAULT false;
ALTER TABLE takes ADD COLUMN sound_dropped_at timestamptz;     -- its time was over

-- +goose Down
-- +goose StatementBegin
DO $$ BEGIN
    IF EXISTS (SELECT FROM take_sounds WHERE in_bucket) THEN
        RAISE EXCEPTION 'some sounds lie in a bucket, which the older form does not know; bring them into the database first';
    END IF;
END $$;
-- +goose StatementEnd
ALTER TABLE takes DROP COLUMN sound_dropped_at;
ALTER TABLE take_sounds DROP COLUMN in_bucket;
ALTER TABLE studios DROP COLUMN sound_days;
