-- Takes that count for nothing by what they are: tried out by the simulated player, or
-- played at a tempo of one's own choice.

-- +goose Up
ALTER TABLE takes ADD COLUMN aside text NOT NULL DEFAULT '';
UPDATE takes SET aside = 'tryOut' WHERE try_out;
ALTER TABLE takes DROP COLUMN try_out;
ALTER TABLE takes DROP CONSTRAINT takes_source_check,
    ADD CONSTRAINT takes_source_check CHECK (source IN ('microphone', 'file', 'simulated', 'midi', 'key'));

-- +goose Down
UPDATE takes SET source = 'file' WHERE source IN ('midi', 'key');
ALTER TABLE takes DROP CONSTRAINT takes_source_check,
    ADD CONSTRAINT takes_source_check CHECK (source IN ('microphone', 'file', 'simulated'));
ALTER TABLE takes ADD COLUMN try_out boolean NOT NULL DEFAULT false;
UPDATE takes SET try_out = true WHERE aside <> '';
ALTER TABLE takes DROP COLUMN aside;
