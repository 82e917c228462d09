-- Routines: what a student practises, in order, which the stand then runs by itself.

-- +goose Up
CREATE TABLE routines (
    id         uuid PRIMARY KEY,
    studio_id  uuid NOT NULL DEFAULT current_studio() REFERENCES studios,
    student_id uuid NOT NULL REFERENCES people ON DELETE CASCADE,
    routine    jsonb NOT NULL,
    revision   integer NOT NULL DEFAULT 1,
    author     text NOT NULL DEFAULT '',      -- who has changed it last: their name then
    made_at    timestamptz NOT NULL DEFAULT now(),
    changed_at timestamptz NOT NULL DEFAULT now(),
    deleted_at timestamptz                    -- can be brought back for a while
);
CREATE INDEX routines_of_student ON routines (student_id, changed_at DESC, id DESC) WHERE deleted_at IS NULL;
CREATE INDEX routines_of_studio ON routines (studio_id);
ALTER TABLE routines ENABLE ROW LEVEL SECURITY;
CREATE POLICY all_of_studio ON routines TO manudrill_member USING (studio_id = current_studio());
CREATE POLICY their_own     ON routines FOR SELECT TO manudrill_student USING (studio_id = current_studio() AND student_id IS NOT DISTINCT FROM current_student() AND deleted_at IS NULL);

-- +goose Down
DROP TABLE routines;
