-- What students say of their hands, and how much they have slurred.

-- +goose Up
CREATE TABLE hand_reports (
    id           uuid PRIMARY KEY,
    studio_id    uuid NOT NULL DEFAULT current_studio() REFERENCES studios,
    student_id   uuid NOT NULL REFERENCES people ON DELETE CASCADE,
    at           timestamptz NOT NULL,          -- by the clock of the device
    kind         text NOT NULL,                 -- tired, hurts, after
    report       jsonb NOT NULL,
    withdrawn_at timestamptz,                   -- it was pressed by mistake
    cleared_at   timestamptz,                   -- of pain: when an instructor said that ladders climb again
    cleared_by   text NOT NULL DEFAULT ''       -- their name then
);
CREATE INDEX hand_reports_of_student ON hand_reports (student_id, at DESC, id DESC);
CREATE INDEX hand_reports_of_pain ON hand_reports (student_id, at) WHERE kind = 'hurts' AND withdrawn_at IS NULL;
CREATE INDEX hand_reports_of_studio ON hand_reports (studio_id);
ALTER TABLE hand_reports ENABLE ROW LEVEL SECURITY;
CREATE POLICY all_of_studio ON hand_reports TO manudrill_member USING (studio_id = current_studio());
CREATE POLICY their_own     ON hand_reports TO manudrill_student USING (studio_id = current_studio() AND student_id IS NOT DISTINCT FROM current_student());

-- Seconds of a take that the fretting hand made sound by itself.
ALTER TABLE takes ADD COLUMN slur_seconds double precision NOT NULL DEFAULT 0;
UPDATE takes SET slur_seconds = seconds * (
    SELECT coalesce(avg((n->>'attack' IN ('hammer', 'pull', 'slide', 'nowhere'))::integer), 0) FROM jsonb_array_elements(chart->'notes') n)
WHERE state = 'measured' AND jsonb_typeof(chart->'notes') = 'array';

-- +goose Down
ALTER TABLE takes DROP COLUMN slur_seconds;
DROP TABLE hand_reports;
