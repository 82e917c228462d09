-- What was played in each week, added up, so that months are told without reading takes;
-- and how a student stands with a drill, beside the assignment.

-- +goose Up
ALTER TABLE studios ADD COLUMN time_zone text NOT NULL DEFAULT 'UTC'; -- by which its days begin (IANA)
ALTER TABLE drill_versions ADD COLUMN name text GENERATED ALWAYS AS (coalesce(file#>>'{drill,name}', '')) STORED;
ALTER TABLE takes
    ADD COLUMN sums  jsonb NOT NULL DEFAULT '[]',      -- what its notes add up to, by pair, string, attack and position
    ADD COLUMN clean boolean NOT NULL DEFAULT false;   -- every pass passed the gate, and it counts
UPDATE takes t SET clean = NOT EXISTS (
    SELECT FROM jsonb_array_elements(passes) p
    WHERE round((p->>'rightPercent')::numeric, 1) < (decision#>>'{gate,rightPercent}')::numeric
       OR round((p->>'spreadPercent')::numeric, 1) > (decision#>>'{gate,spreadPercent}')::numeric
       OR round((p->>'levelSpreadDb')::numeric, 1) > (decision#>>'{gate,levelSpreadDb}')::numeric)
WHERE counts;

CREATE TABLE practice_weeks (
    assignment_id uuid NOT NULL REFERENCES assignments ON DELETE CASCADE,
    studio_id     uuid NOT NULL DEFAULT current_studio() REFERENCES studios,
    student_id    uuid NOT NULL REFERENCES people ON DELETE CASCADE,
    begins        date NOT NULL,                 -- its Monday, by the studio's clock when it was added up
    days          jsonb NOT NULL,                -- those on which something was played
    sums          jsonb NOT NULL DEFAULT '[]',   -- what the notes add up to
    PRIMARY KEY (assignment_id, begins)
);
CREATE INDEX practice_weeks_of_student ON practice_weeks (student_id, begins DESC);
CREATE INDEX practice_weeks_of_studio ON practice_weeks (studio_id);
INSERT INTO practice_weeks (assignment_id, studio_id, student_id, begins, days)
SELECT assignment_id, (array_agg(studio_id))[1], (array_agg(student_id))[1], date_trunc('week', day)::date, jsonb_agg(jsonb_strip_nulls(jsonb_build_object(
    'date', to_char(day, 'YYYY-MM-DD"T00:00:00Z"'), 'takes', takes, 'counting', counting, 'clean', clean, 'stands', stands, 'passed', passed,
    'spreadPercent', spread, 'seconds', seconds, 'slurSeconds', slurred)) ORDER BY day)
FROM (
    SELECT assignment_id, (array_agg(studio_id))[1] AS studio_id, (array_agg(student_id))[1] AS student_id, (recorded_at AT TIME ZONE 'UTC')::date AS day,
           count(*) AS takes, count(*) FILTER (WHERE counts) AS counting, count(*) FILTER (WHERE clean) AS clean,
           coalesce((array_agg(decision->'next' ORDER BY recorded_at DESC, id DESC) FILTER (WHERE counts))[1], (array_agg(jsonb_build_object('bpm', bpm, 'notesPerBeat', notes_per_beat) ORDER BY recorded_at DESC, id DESC))[1]) AS stands,
           (array_agg(jsonb_build_object('bpm', bpm, 'notesPerBeat', notes_per_beat) ORDER BY bpm * notes_per_beat DESC) FILTER (WHERE passed))[1] AS passed,
           coalesce(avg(spread_percent) FILTER (WHERE counts), 0) AS spread, sum(seconds) AS seconds, sum(slur_seconds) AS slurred
    FROM takes WHERE state = 'measured' AND aside <> 'tryOut' GROUP BY assignment_id, day) days
GROUP BY assignment_id, date_trunc('week', day);
ALTER TABLE practice_weeks ENABLE ROW LEVEL SECURITY;
CREATE POLICY all_of_studio ON practice_weeks TO manudrill_member USING (studio_id = current_studio());
CREATE POLICY their_own     ON practice_weeks TO manudrill_student USING (studio_id = current_studio() AND student_id IS NOT DISTINCT FROM current_student());

ALTER TABLE assignments
    ADD COLUMN state      jsonb,                 -- null until a take is measured
    ADD COLUMN shows_take uuid;                  -- that shows it best: the most uneven of the latest

-- +goose Down
ALTER TABLE assignments DROP COLUMN state, DROP COLUMN shows_take;
DROP TABLE practice_weeks;
ALTER TABLE takes DROP COLUMN sums, DROP COLUMN clean;
ALTER TABLE drill_versions DROP COLUMN name;
ALTER TABLE studios DROP COLUMN time_zone;
