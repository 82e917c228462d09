-- +goose Up
CREATE TABLE people (
    id   uuid PRIMARY KEY,
    name text NOT NULL,
    role text NOT NULL CHECK (role IN ('instructor', 'student')),
    demo boolean NOT NULL DEFAULT false
);

CREATE TABLE drills (
    id         uuid PRIMARY KEY,
    file       jsonb NOT NULL,          -- the drill document, see docs/formats.md
    changed_at timestamptz NOT NULL DEFAULT now(),
    deleted_at timestamptz              -- off the list; takes still point here
);

CREATE TABLE assignments (
    id          uuid PRIMARY KEY,
    drill_id    uuid NOT NULL REFERENCES drills,
    student_id  uuid NOT NULL REFERENCES people,
    assigned_at timestamptz NOT NULL DEFAULT now(),
    ended_at    timestamptz              -- taken back; takes still point here
);
CREATE UNIQUE INDEX assignments_once ON assignments (drill_id, student_id) WHERE ended_at IS NULL;
CREATE INDEX assignments_of_student ON assignments (student_id);

CREATE TABLE takes (
    id            uuid PRIMARY KEY,      -- made by the client
    assignment_id uuid NOT NULL REFERENCES assignments,
    bpm           double precision NOT NULL,
    source        text NOT NULL CHECK (source IN ('microphone', 'file', 'simulated')),
    recorded_at   timestamptz NOT NULL,
    seconds       double precision NOT NULL,
    chart         jsonb NOT NULL,        -- as it was played, whatever becomes of the drill
    analysis      jsonb NOT NULL,
    decision      jsonb NOT NULL
);
CREATE INDEX takes_of_assignment ON takes (assignment_id, recorded_at);

CREATE TABLE take_sounds (
    take_id uuid PRIMARY KEY REFERENCES takes,
    flac    bytea NOT NULL
);
ALTER TABLE take_sounds ALTER COLUMN flac SET STORAGE EXTERNAL; -- FLAC does not compress further

CREATE TABLE sessions (
    token  text PRIMARY KEY,
    data   bytea NOT NULL,
    expiry timestamptz NOT NULL
);
CREATE INDEX sessions_expiry ON sessions (expiry);

-- +goose Down
DROP TABLE sessions, take_sounds, takes, assignments, drills, people;
