-- Of what was told of a take somebody may say that it was not so; a take on other frets is told
-- from one of another drill, and of that it is known which it is.

-- +goose Up
ALTER TABLE takes ADD COLUMN transposed smallint NOT NULL DEFAULT 0; -- semitones
ALTER TABLE takes ADD COLUMN other_id uuid REFERENCES assignments ON DELETE SET NULL; -- what was played instead
CREATE INDEX ON takes (other_id) WHERE other_id IS NOT NULL;
CREATE TABLE corrections (
    id        uuid PRIMARY KEY,
    take_id   uuid NOT NULL REFERENCES takes ON DELETE CASCADE,
    what      jsonb NOT NULL,                                   -- evenness.Correction
    author_id uuid REFERENCES people ON DELETE SET NULL,
    at        timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX ON corrections (take_id);
CREATE INDEX ON corrections (author_id);
ALTER TABLE corrections ENABLE ROW LEVEL SECURITY;
CREATE POLICY with_its_row ON corrections USING (EXISTS (SELECT FROM takes WHERE takes.id = take_id));

-- +goose Down
DROP TABLE corrections;
ALTER TABLE takes DROP COLUMN transposed, DROP COLUMN other_id;
