-- What was kept on paper before: it is told beside what was measured, never as such.

-- +goose Up
CREATE TABLE paper_logs (
    id        uuid PRIMARY KEY,
    studio_id uuid NOT NULL DEFAULT current_studio() REFERENCES studios,
    at        timestamptz NOT NULL DEFAULT now(),
    author    text NOT NULL,                     -- their name then
    deleted_at timestamptz                       -- can be brought back until another is brought in
);
CREATE INDEX paper_logs_of_studio ON paper_logs (studio_id, at DESC);
ALTER TABLE paper_logs ENABLE ROW LEVEL SECURITY;
CREATE POLICY all_of_studio ON paper_logs TO manudrill_member USING (studio_id = current_studio());
CREATE POLICY their_studio  ON paper_logs FOR SELECT TO manudrill_student USING (studio_id = current_studio());

CREATE TABLE paper_entries (
    student_id     uuid NOT NULL REFERENCES people ON DELETE CASCADE,
    hash           bytea NOT NULL,               -- of all that is said: the same line is kept once
    log_id         uuid NOT NULL REFERENCES paper_logs ON DELETE CASCADE,
    studio_id      uuid NOT NULL DEFAULT current_studio() REFERENCES studios,
    day            date NOT NULL,
    drill          text NOT NULL,
    bpm            double precision,
    notes_per_beat integer,
    minutes        double precision,
    note           text NOT NULL DEFAULT '',
    PRIMARY KEY (student_id, hash)
);
CREATE INDEX paper_entries_in_order ON paper_entries (student_id, day);
CREATE INDEX paper_entries_of_log ON paper_entries (log_id);
CREATE INDEX paper_entries_of_studio ON paper_entries (studio_id);
ALTER TABLE paper_entries ENABLE ROW LEVEL SECURITY;
CREATE POLICY all_of_studio ON paper_entries TO manudrill_member USING (studio_id = current_studio());
CREATE POLICY their_own     ON paper_entries FOR SELECT TO manudrill_student USING (studio_id = current_studio() AND student_id IS NOT DISTINCT FROM current_student());

-- +goose Down
DROP TABLE paper_entries, paper_logs;
