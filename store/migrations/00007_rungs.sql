-- Each student stands on a rung of their own, moved by takes that count and by
-- instructors, each with its cause; comments are answered and marked as read.

-- +goose Up
ALTER TABLE takes
    ADD COLUMN notes_per_beat integer NOT NULL DEFAULT 1,   -- with its bpm, the rung that was played
    ADD COLUMN try_out        boolean NOT NULL DEFAULT false, -- by the simulated player, for somebody who is not invented
    ADD COLUMN counts         boolean NOT NULL DEFAULT false; -- for the ladder: not of something else, off tempo or a try-out
UPDATE takes t SET try_out = source = 'simulated' AND NOT (SELECT demo FROM people p WHERE p.id = t.student_id);
UPDATE takes t SET
    notes_per_beat = greatest(1, coalesce((chart->>'notesPerBeat')::integer, 1)),
    counts         = state = 'measured' AND NOT is_foreign AND abs(held_bpm - bpm) <= 0.04 * bpm
                     AND NOT try_out;
ALTER TABLE takes ALTER COLUMN notes_per_beat DROP DEFAULT;
UPDATE takes t SET decision = (decision - 'nextBpm') || jsonb_build_object(
    'at', jsonb_build_object('bpm', bpm, 'notesPerBeat', notes_per_beat),
    'next', jsonb_build_object('bpm', coalesce(decision->'nextBpm', to_jsonb(bpm)), 'notesPerBeat', notes_per_beat),
    'counts', counts,
    'gate', (SELECT v.file#>'{ladder,gate}' FROM assignments a JOIN drill_versions v ON v.drill_id = a.drill_id AND v.version = t.version WHERE a.id = t.assignment_id))
WHERE decision IS NOT NULL;

-- What instructors set, and, before all else, where a student began. The rest of the moves are the
-- decisions on takes that count.
CREATE TABLE rung_sets (
    id             uuid PRIMARY KEY DEFAULT gen_random_uuid(),
    assignment_id  uuid NOT NULL REFERENCES assignments ON DELETE CASCADE,
    at             timestamptz NOT NULL DEFAULT now(),
    author_id      uuid REFERENCES people ON DELETE SET NULL,
    author         text NOT NULL DEFAULT '',   -- their name then; empty for nobody
    bpm            double precision NOT NULL,
    notes_per_beat integer NOT NULL,
    gate           jsonb,                      -- in place of the drill's; null for that
    reason         text NOT NULL
);
CREATE INDEX rung_sets_of_assignment ON rung_sets (assignment_id, at DESC, id DESC);
ALTER TABLE rung_sets ENABLE ROW LEVEL SECURITY;
CREATE POLICY with_its_row ON rung_sets USING (EXISTS (SELECT FROM assignments WHERE assignments.id = assignment_id));

-- The rung on which a student stands, and the gate that holds, are beside the
-- assignment.
ALTER TABLE assignments
    ADD COLUMN rung_bpm       double precision,
    ADD COLUMN notes_per_beat integer,
    ADD COLUMN gate           jsonb,
    ADD COLUMN revision       integer NOT NULL DEFAULT 1;     -- counts what instructors set
UPDATE assignments a SET
    rung_bpm = CASE WHEN last IS NULL THEN coalesce((v.file#>>'{ladder,startBpm}')::float8, 60)
               ELSE greatest(coalesce((v.file#>>'{ladder,startBpm}')::float8, 60), least(coalesce((v.file#>>'{ladder,targetBpm}')::float8, 320), (last->>'nextBpm')::float8)) END,
    notes_per_beat = greatest(1, coalesce((v.file#>>'{drill,rhythm,notesPerBeat}')::integer, 1))
FROM drill_versions v WHERE v.drill_id = a.drill_id AND v.version = a.version;
ALTER TABLE assignments ALTER COLUMN rung_bpm SET NOT NULL, ALTER COLUMN notes_per_beat SET NOT NULL;
UPDATE assignments a SET
    takes        = (SELECT count(*) FROM takes t WHERE t.assignment_id = a.id AND NOT try_out),
    last         = (SELECT decision FROM takes t WHERE t.assignment_id = a.id AND state = 'measured' AND NOT try_out ORDER BY recorded_at DESC, id DESC LIMIT 1),
    last_take_at = (SELECT max(recorded_at) FROM takes t WHERE t.assignment_id = a.id AND state = 'measured' AND NOT try_out)
WHERE last IS NOT NULL;
INSERT INTO rung_sets (assignment_id, at, bpm, notes_per_beat, reason)
SELECT a.id, 'epoch', coalesce((v.file#>>'{ladder,startBpm}')::float8, 60), a.notes_per_beat, ''
FROM assignments a JOIN drill_versions v ON v.drill_id = a.drill_id AND v.version = a.version;
-- Nobody is moved by the change of rules.
INSERT INTO rung_sets (assignment_id, at, bpm, notes_per_beat, reason)
SELECT a.id, now(), a.rung_bpm, a.notes_per_beat, 'Where they stood before takes that do not count were left out'
FROM assignments a CROSS JOIN LATERAL (
    SELECT bpm, notes FROM (
        SELECT (decision#>>'{next,bpm}')::float8 AS bpm, notes_per_beat AS notes, recorded_at AS at FROM takes WHERE assignment_id = a.id AND counts
        UNION ALL SELECT bpm, notes_per_beat, at FROM rung_sets WHERE assignment_id = a.id
    ) moves ORDER BY at DESC LIMIT 1) led
WHERE (a.rung_bpm, a.notes_per_beat) IS DISTINCT FROM (led.bpm, led.notes);

DROP INDEX takes_passed;
CREATE INDEX takes_passed ON takes (assignment_id, (bpm * notes_per_beat) DESC, recorded_at) WHERE passed;
CREATE INDEX takes_that_count ON takes (assignment_id, recorded_at DESC, id DESC) WHERE counts;

-- Comments: the other side has read them, or not yet.
ALTER TABLE take_comments ADD COLUMN read_at timestamptz;
UPDATE take_comments SET read_at = written_at;
CREATE INDEX take_comments_unread ON take_comments (written_at) WHERE read_at IS NULL;

-- +goose Down
DROP INDEX take_comments_unread, takes_passed, takes_that_count;
ALTER TABLE take_comments DROP COLUMN read_at;
UPDATE takes SET decision = (decision - 'at' - 'next' - 'counts' - 'gate') || jsonb_build_object('nextBpm', decision#>'{next,bpm}') WHERE decision IS NOT NULL;
UPDATE assignments SET last = CASE WHEN last IS NULL THEN NULL ELSE (last - 'at' - 'next' - 'counts' - 'gate') || jsonb_build_object('nextBpm', rung_bpm) END;
DROP TABLE rung_sets;
ALTER TABLE assignments DROP COLUMN rung_bpm, DROP COLUMN notes_per_beat, DROP COLUMN gate, DROP COLUMN revision;
ALTER TABLE takes DROP COLUMN notes_per_beat, DROP COLUMN counts, DROP COLUMN try_out;
CREATE INDEX takes_passed ON takes (assignment_id, bpm DESC, recorded_at) WHERE passed;
