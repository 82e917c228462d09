-- Plans over weeks, one a student, made by rules and changed by hand.

-- +goose Up
CREATE TABLE plans (
    student_id uuid PRIMARY KEY REFERENCES people ON DELETE CASCADE,
    studio_id  uuid NOT NULL DEFAULT current_studio() REFERENCES studios,
    settings   jsonb NOT NULL,
    plan       jsonb NOT NULL,
    revision   integer NOT NULL DEFAULT 1,
    author     text NOT NULL DEFAULT '',      -- who has changed it last: their name then
    made_on    date NOT NULL,                 -- by the studio's clock; each week it is made anew
    changed_at timestamptz NOT NULL DEFAULT now(),
    deleted_at timestamptz                    -- can be brought back
);
CREATE INDEX plans_of_studio ON plans (studio_id);
ALTER TABLE plans ENABLE ROW LEVEL SECURITY;
CREATE POLICY all_of_studio ON plans TO manudrill_member USING (studio_id = current_studio());
CREATE POLICY their_own     ON plans FOR SELECT TO manudrill_student USING (studio_id = current_studio() AND student_id IS NOT DISTINCT FROM current_student() AND deleted_at IS NULL);

-- +goose Down
DROP TABLE plans;
