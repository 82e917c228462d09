-- Instructors pin comments to the notes of a take.

-- +goose Up
CREATE TABLE take_comments (
    id         uuid PRIMARY KEY,
    take_id    uuid NOT NULL REFERENCES takes,
    note       integer NOT NULL,        -- index over all passes
    text       text NOT NULL,
    author_id  uuid NOT NULL REFERENCES people,
    written_at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX ON take_comments (take_id);
