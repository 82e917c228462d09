-- A take is kept before it is measured, what lists and ladders read of it are
-- columns, its sound lies in parts, and edits say on what they rest.

-- +goose Up
ALTER TABLE takes
    ADD COLUMN student_id       uuid REFERENCES people,
    ADD COLUMN drill_name       text NOT NULL DEFAULT '',
    ADD COLUMN state            text NOT NULL DEFAULT 'measured' CHECK (state IN ('waiting', 'measured', 'failed')),
    ADD COLUMN failure          text,              -- why it could not be measured
    ADD COLUMN listener         integer,           -- version of the listener that judged it; null for the first ones
    ADD COLUMN handed_in_at     timestamptz NOT NULL DEFAULT now(),
    ADD COLUMN content_hash     bytea,             -- SHA-256 of the file that was handed in
    ADD COLUMN held_bpm         double precision NOT NULL DEFAULT 0,
    ADD COLUMN notes_per_second double precision NOT NULL DEFAULT 0,
    ADD COLUMN spread_ms        double precision NOT NULL DEFAULT 0,
    ADD COLUMN spread_percent   double precision NOT NULL DEFAULT 0,
    ADD COLUMN right_percent    double precision NOT NULL DEFAULT 0,
    ADD COLUMN is_foreign       boolean NOT NULL DEFAULT false,
    ADD COLUMN passes           jsonb NOT NULL DEFAULT '[]', -- the figures a gate looks at
    ADD COLUMN passed           boolean NOT NULL DEFAULT false, -- its tempo
    ALTER COLUMN analysis DROP NOT NULL,
    ALTER COLUMN decision DROP NOT NULL;

UPDATE takes t SET
    student_id       = a.student_id,
    drill_name       = coalesce(chart->>'name', ''),
    handed_in_at     = recorded_at,
    held_bpm         = coalesce((analysis#>>'{tempo,bpm}')::float8, 0),
    notes_per_second = coalesce((analysis#>>'{tempo,notesPerSecond}')::float8, 0),
    spread_ms        = coalesce((analysis#>>'{timing,spreadMs}')::float8, 0),
    spread_percent   = coalesce((analysis#>>'{timing,spreadPercent}')::float8, 0),
    right_percent    = 100 * coalesce((analysis#>>'{counts,played}')::float8, 0) /
                       greatest(1, coalesce((analysis#>>'{counts,expected}')::float8, 0) + coalesce((analysis#>>'{counts,extra}')::float8, 0)),
    is_foreign       = coalesce((analysis->>'foreign')::boolean, false),
    passes           = coalesce(nullif(analysis->'passes', 'null'), '[]'),
    passed           = coalesce(decision->>'step' = 'up' OR (decision->>'reached')::boolean, false)
FROM assignments a WHERE a.id = t.assignment_id;

ALTER TABLE takes
    ALTER COLUMN student_id SET NOT NULL,
    SET (toast_tuple_target = 128); -- charts and analyses lie apart from what lists read

DROP INDEX takes_of_assignment;
CREATE INDEX takes_of_assignment ON takes (assignment_id, recorded_at DESC, id DESC);
CREATE INDEX takes_of_student ON takes (student_id, recorded_at DESC, id DESC);
CREATE INDEX takes_in_order ON takes (recorded_at DESC, id DESC);
CREATE INDEX takes_passed ON takes (assignment_id, bpm DESC, recorded_at) WHERE passed;
CREATE INDEX takes_not_measured ON takes (id) WHERE state <> 'measured';
CREATE UNIQUE INDEX takes_once ON takes (assignment_id, content_hash);
CREATE INDEX takes_of_version ON takes (version, assignment_id);

-- What the latest take has decided stands beside the assignment.
ALTER TABLE assignments
    ADD COLUMN takes          integer NOT NULL DEFAULT 0,
    ADD COLUMN last           jsonb,       -- decision of the latest take measured
    ADD COLUMN last_take_at   timestamptz,
    ADD COLUMN ended_by_drill boolean NOT NULL DEFAULT false; -- it was deleted; brought back with it
UPDATE assignments a SET
    takes        = (SELECT count(*) FROM takes t WHERE t.assignment_id = a.id),
    last         = (SELECT decision FROM takes t WHERE t.assignment_id = a.id ORDER BY recorded_at DESC, id DESC LIMIT 1),
    last_take_at = (SELECT max(recorded_at) FROM takes t WHERE t.assignment_id = a.id);
CREATE INDEX assignments_of_drill ON assignments (drill_id);
CREATE INDEX assignments_in_order ON assignments (assigned_at DESC, id DESC) WHERE ended_at IS NULL;

-- Sounds in parts, so that none is ever held whole.
CREATE TABLE sound_parts (
    take_id uuid NOT NULL REFERENCES takes,
    part    integer NOT NULL,
    bytes   bytea NOT NULL,
    PRIMARY KEY (take_id, part)
);
ALTER TABLE sound_parts ALTER COLUMN bytes SET STORAGE EXTERNAL; -- FLAC does not compress further
INSERT INTO sound_parts (take_id, part, bytes)
SELECT take_id, n, substring(flac FROM n * 262144 + 1 FOR 262144)
FROM take_sounds, generate_series(0, greatest(0, length(flac) - 1) / 262144) AS n;
ALTER TABLE take_sounds ADD COLUMN size bigint;
UPDATE take_sounds SET size = length(flac);
ALTER TABLE take_sounds ALTER COLUMN size SET NOT NULL, DROP COLUMN flac;

-- Edits rest on a revision.
ALTER TABLE drills
    ADD COLUMN revision       integer NOT NULL DEFAULT 1, -- of the drill's settings
    ADD COLUMN shelf_revision integer NOT NULL DEFAULT 1;
ALTER TABLE people ADD COLUMN setup_revision integer NOT NULL DEFAULT 1;
ALTER TABLE take_comments ADD COLUMN revision integer NOT NULL DEFAULT 1;
CREATE INDEX drills_deleted ON drills (deleted_at) WHERE deleted_at IS NOT NULL;

-- Takes measured again, one after the other.
CREATE TABLE remeasurings (
    id         uuid PRIMARY KEY,
    started_at timestamptz NOT NULL DEFAULT now(),
    ended_at   timestamptz,
    cancelled  boolean NOT NULL DEFAULT false,
    total      integer NOT NULL,
    done       integer NOT NULL DEFAULT 0,
    failed     integer NOT NULL DEFAULT 0,
    after      uuid                        -- the take done last: they go by their ids
);
CREATE UNIQUE INDEX remeasurings_once ON remeasurings ((true)) WHERE ended_at IS NULL;

-- What the studio knows of itself, such as how far its demo has been made.
CREATE TABLE facts (
    name  text PRIMARY KEY,
    value jsonb NOT NULL
);

-- +goose Down
DROP TABLE facts, remeasurings;
ALTER TABLE take_comments DROP COLUMN revision;
ALTER TABLE people DROP COLUMN setup_revision;
DROP INDEX drills_deleted;
ALTER TABLE drills DROP COLUMN revision, DROP COLUMN shelf_revision;
ALTER TABLE take_sounds ADD COLUMN flac bytea;
UPDATE take_sounds s SET flac = (SELECT string_agg(bytes, ''::bytea ORDER BY part) FROM sound_parts p WHERE p.take_id = s.take_id);
ALTER TABLE take_sounds ALTER COLUMN flac SET NOT NULL, DROP COLUMN size;
DROP TABLE sound_parts;
DROP INDEX assignments_of_drill, assignments_in_order;
ALTER TABLE assignments DROP COLUMN takes, DROP COLUMN last, DROP COLUMN last_take_at, DROP COLUMN ended_by_drill;
-- A take that was never measured has no place in the old form; its sound would be
-- lost. Measure all before going back.
-- +goose StatementBegin
DO $$ BEGIN
    IF EXISTS (SELECT FROM takes WHERE analysis IS NULL) THEN
        RAISE EXCEPTION 'some takes are not measured yet: measure or discard them, then go back';
    END IF;
END $$;
-- +goose StatementEnd
DROP INDEX takes_of_assignment, takes_of_student, takes_in_order, takes_passed, takes_not_measured, takes_once, takes_of_version;
ALTER TABLE takes
    DROP COLUMN student_id, DROP COLUMN drill_name, DROP COLUMN state, DROP COLUMN failure, DROP COLUMN listener,
    DROP COLUMN handed_in_at, DROP COLUMN content_hash, DROP COLUMN held_bpm, DROP COLUMN notes_per_second,
    DROP COLUMN spread_ms, DROP COLUMN spread_percent, DROP COLUMN right_percent, DROP COLUMN is_foreign,
    DROP COLUMN passes, DROP COLUMN passed,
    ALTER COLUMN analysis SET NOT NULL,
    ALTER COLUMN decision SET NOT NULL,
    RESET (toast_tuple_target);
CREATE INDEX takes_of_assignment ON takes (assignment_id, recorded_at);
