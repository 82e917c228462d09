-- Many studios in one database, each seeing its own; people who sign in; groups;
-- what instructors do to others' things is written down.

-- +goose Up
CREATE TABLE studios (
    id       uuid PRIMARY KEY,
    name     text NOT NULL,
    handle   text NOT NULL UNIQUE,          -- by which it is asked for where there are several
    made_at  timestamptz NOT NULL DEFAULT now(),
    revision integer NOT NULL DEFAULT 1
);

-- Who asks: the studio, and the student where a student asks. A connection says so
-- before anything is asked on it; one that has not sees nothing.
CREATE FUNCTION current_studio() RETURNS uuid LANGUAGE sql STABLE PARALLEL SAFE
    RETURN nullif(current_setting('manudrill.studio', true), '')::uuid;
CREATE FUNCTION current_student() RETURNS uuid LANGUAGE sql STABLE PARALLEL SAFE
    RETURN nullif(current_setting('manudrill.student', true), '')::uuid;

-- What was there before is one studio's; that of the demo has always the same id.
INSERT INTO studios (id, name, handle)
SELECT CASE WHEN bool_or(demo) THEN '7e9e9d3e-35ce-50a8-972c-9a6e574f3946' ELSE gen_random_uuid() END,
       CASE WHEN bool_or(demo) THEN 'Fernwick Guitar' ELSE 'Studio' END, CASE WHEN bool_or(demo) THEN 'fernwick-guitar' ELSE 'studio' END
FROM people HAVING count(*) > 0 OR EXISTS (SELECT FROM drills) OR EXISTS (SELECT FROM blocks);

ALTER TABLE people       ADD COLUMN studio_id uuid REFERENCES studios;
ALTER TABLE drills       ADD COLUMN studio_id uuid REFERENCES studios;
ALTER TABLE blocks       ADD COLUMN studio_id uuid REFERENCES studios;
ALTER TABLE assignments  ADD COLUMN studio_id uuid REFERENCES studios;
ALTER TABLE takes        ADD COLUMN studio_id uuid REFERENCES studios;
ALTER TABLE remeasurings ADD COLUMN studio_id uuid REFERENCES studios;
UPDATE people       SET studio_id = (SELECT id FROM studios);
UPDATE drills       SET studio_id = (SELECT id FROM studios);
UPDATE blocks       SET studio_id = (SELECT id FROM studios);
UPDATE assignments  SET studio_id = (SELECT id FROM studios);
UPDATE takes        SET studio_id = (SELECT id FROM studios);
DELETE FROM remeasurings WHERE NOT EXISTS (SELECT FROM studios);
UPDATE remeasurings SET studio_id = (SELECT id FROM studios);
ALTER TABLE people       ALTER COLUMN studio_id SET NOT NULL, ALTER COLUMN studio_id SET DEFAULT current_studio();
ALTER TABLE drills       ALTER COLUMN studio_id SET NOT NULL, ALTER COLUMN studio_id SET DEFAULT current_studio();
ALTER TABLE blocks       ALTER COLUMN studio_id SET NOT NULL, ALTER COLUMN studio_id SET DEFAULT current_studio();
ALTER TABLE assignments  ALTER COLUMN studio_id SET NOT NULL, ALTER COLUMN studio_id SET DEFAULT current_studio();
ALTER TABLE takes        ALTER COLUMN studio_id SET NOT NULL, ALTER COLUMN studio_id SET DEFAULT current_studio();
ALTER TABLE remeasurings ALTER COLUMN studio_id SET NOT NULL, ALTER COLUMN studio_id SET DEFAULT current_studio();

-- People.
ALTER TABLE people
    DROP CONSTRAINT people_role_check,
    ADD CONSTRAINT people_role_check CHECK (role IN ('owner', 'instructor', 'student')),
    ADD COLUMN email       text,
    ADD COLUMN sign_in     text,            -- the name they sign in with, once they have chosen one
    ADD COLUMN invited_at  timestamptz,     -- when they were given a code last
    ADD COLUMN joined_at   timestamptz,     -- when they first came in by themselves
    ADD COLUMN revision    integer NOT NULL DEFAULT 1,
    ADD COLUMN archived_at timestamptz,     -- off the lists and out of the house, until brought back
    ADD COLUMN remove_at   timestamptz,     -- when everything about them is deleted
    ADD COLUMN note        text NOT NULL DEFAULT '', -- of the instructors, about a student
    ADD COLUMN consent_at  timestamptz,     -- when it was noted that the student, or a parent, agreed
    ADD COLUMN consent_by  text NOT NULL DEFAULT '';
CREATE INDEX people_in_order ON people (studio_id, role, name, id);
CREATE INDEX people_to_remove ON people (remove_at) WHERE remove_at IS NOT NULL;
CREATE UNIQUE INDEX people_by_sign_in ON people (studio_id, lower(sign_in));

CREATE TABLE groups (
    id        uuid PRIMARY KEY,
    studio_id uuid NOT NULL DEFAULT current_studio() REFERENCES studios,
    name      text NOT NULL,
    revision  integer NOT NULL DEFAULT 1
);
CREATE TABLE group_members (
    group_id  uuid NOT NULL REFERENCES groups ON DELETE CASCADE,
    person_id uuid NOT NULL REFERENCES people ON DELETE CASCADE,
    PRIMARY KEY (group_id, person_id)
);
CREATE INDEX group_members_of_person ON group_members (person_id);

-- How people sign in. Only the house looks here.
CREATE TABLE passwords (
    person_id uuid PRIMARY KEY REFERENCES people ON DELETE CASCADE,
    hash      text NOT NULL,                -- argon2id
    set_at    timestamptz NOT NULL DEFAULT now()
);
CREATE TABLE codes (
    person_id  uuid PRIMARY KEY REFERENCES people ON DELETE CASCADE,
    finder     text NOT NULL UNIQUE,        -- first part of the code
    rest       text NOT NULL,               -- argon2id of the second
    made_at    timestamptz NOT NULL DEFAULT now(),
    expires_at timestamptz                  -- null once it has been used
);
CREATE TABLE resets (
    token      bytea PRIMARY KEY,           -- SHA-256
    person_id  uuid NOT NULL REFERENCES people ON DELETE CASCADE,
    expires_at timestamptz NOT NULL
);
CREATE TABLE openings (
    token   bytea PRIMARY KEY,              -- SHA-256
    made_at timestamptz NOT NULL DEFAULT now()
);
CREATE TABLE mails (
    id        uuid PRIMARY KEY,
    studio_id uuid NOT NULL REFERENCES studios,
    recipient text NOT NULL,
    subject   text NOT NULL,
    text      text NOT NULL,
    made_at   timestamptz NOT NULL DEFAULT now(),
    sent_at   timestamptz,
    failure   text                          -- why it could not be sent
);
CREATE INDEX mails_in_order ON mails (studio_id, made_at DESC, id DESC);

-- Sessions end with their person, or when the person says so.
ALTER TABLE sessions ADD COLUMN person_id uuid REFERENCES people ON DELETE CASCADE;
CREATE INDEX sessions_of_person ON sessions (person_id);
DELETE FROM sessions;                       -- nobody had signed in

CREATE TABLE audit (
    id         uuid PRIMARY KEY DEFAULT gen_random_uuid(),
    studio_id  uuid NOT NULL DEFAULT current_studio() REFERENCES studios,
    at         timestamptz NOT NULL DEFAULT now(),
    actor_id   uuid REFERENCES people ON DELETE SET NULL,
    actor      text NOT NULL,               -- their name then
    did        text NOT NULL,
    student_id uuid REFERENCES people ON DELETE CASCADE,
    about      text NOT NULL DEFAULT ''     -- name of the drill, group or person
);
CREATE INDEX audit_in_order ON audit (studio_id, at DESC, id DESC);
CREATE INDEX audit_of_student ON audit (student_id, at DESC, id DESC);

-- Lists go by the studio first.
DROP INDEX takes_in_order, assignments_in_order, remeasurings_once;
CREATE INDEX takes_in_order ON takes (studio_id, recorded_at DESC, id DESC);
CREATE INDEX assignments_in_order ON assignments (studio_id, assigned_at DESC, id DESC) WHERE ended_at IS NULL;
CREATE UNIQUE INDEX remeasurings_once ON remeasurings (studio_id) WHERE ended_at IS NULL;
CREATE INDEX drills_of_studio ON drills (studio_id);
CREATE INDEX blocks_in_order ON blocks (studio_id, made_at DESC, id DESC);

-- What a query may see. Students see of students themselves alone. What hangs on a
-- row is seen with it.
ALTER TABLE studios        ENABLE ROW LEVEL SECURITY;
ALTER TABLE people         ENABLE ROW LEVEL SECURITY;
ALTER TABLE groups         ENABLE ROW LEVEL SECURITY;
ALTER TABLE group_members  ENABLE ROW LEVEL SECURITY;
ALTER TABLE drills         ENABLE ROW LEVEL SECURITY;
ALTER TABLE drill_versions ENABLE ROW LEVEL SECURITY;
ALTER TABLE blocks         ENABLE ROW LEVEL SECURITY;
ALTER TABLE assignments    ENABLE ROW LEVEL SECURITY;
ALTER TABLE takes          ENABLE ROW LEVEL SECURITY;
ALTER TABLE take_sounds    ENABLE ROW LEVEL SECURITY;
ALTER TABLE sound_parts    ENABLE ROW LEVEL SECURITY;
ALTER TABLE take_comments  ENABLE ROW LEVEL SECURITY;
ALTER TABLE remeasurings   ENABLE ROW LEVEL SECURITY;
ALTER TABLE audit          ENABLE ROW LEVEL SECURITY;
ALTER TABLE mails          ENABLE ROW LEVEL SECURITY;
ALTER TABLE passwords      ENABLE ROW LEVEL SECURITY; -- no policy: closed
ALTER TABLE codes          ENABLE ROW LEVEL SECURITY;
ALTER TABLE resets         ENABLE ROW LEVEL SECURITY;
ALTER TABLE openings       ENABLE ROW LEVEL SECURITY;
ALTER TABLE sessions       ENABLE ROW LEVEL SECURITY;
ALTER TABLE facts          ENABLE ROW LEVEL SECURITY;
-- The roles are there already: the program makes them before it migrates. Those of a
-- policy are named and not asked for in it, so that the planner reckons with plain
-- comparisons.
CREATE POLICY all_of_studio ON studios      TO manudrill_member USING (id = current_studio());
CREATE POLICY all_of_studio ON people       TO manudrill_member USING (studio_id = current_studio());
CREATE POLICY all_of_studio ON groups       TO manudrill_member USING (studio_id = current_studio());
CREATE POLICY all_of_studio ON drills       TO manudrill_member USING (studio_id = current_studio());
CREATE POLICY all_of_studio ON blocks       TO manudrill_member USING (studio_id = current_studio());
CREATE POLICY all_of_studio ON assignments  TO manudrill_member USING (studio_id = current_studio());
CREATE POLICY all_of_studio ON takes        TO manudrill_member USING (studio_id = current_studio());
CREATE POLICY all_of_studio ON remeasurings TO manudrill_member USING (studio_id = current_studio());
CREATE POLICY all_of_studio ON audit        TO manudrill_member USING (studio_id = current_studio());
CREATE POLICY all_of_studio ON mails        TO manudrill_member USING (studio_id = current_studio());
CREATE POLICY their_studio  ON studios      TO manudrill_student USING (id = current_studio());
CREATE POLICY themselves    ON people       TO manudrill_student USING (studio_id = current_studio() AND id = current_student());
CREATE POLICY who_teaches   ON people       FOR SELECT TO manudrill_student USING (studio_id = current_studio() AND role <> 'student');
CREATE POLICY their_studio  ON drills       TO manudrill_student USING (studio_id = current_studio());
-- (IS NOT DISTINCT FROM, for which no index is used: where a drill and its student are
-- both asked for, the planner takes their takes for rarer than they are, and sorts all
-- of them rather than read the latest from the index that has them in order.)
CREATE POLICY their_own     ON assignments  TO manudrill_student USING (studio_id = current_studio() AND student_id IS NOT DISTINCT FROM current_student());
CREATE POLICY their_own     ON takes        TO manudrill_student USING (studio_id = current_studio() AND student_id IS NOT DISTINCT FROM current_student());
CREATE POLICY about_them    ON audit        FOR SELECT TO manudrill_student USING (studio_id = current_studio() AND student_id = current_student());
CREATE POLICY with_its_row  ON group_members  USING (EXISTS (SELECT FROM groups WHERE groups.id = group_id) AND EXISTS (SELECT FROM people WHERE people.id = person_id));
CREATE POLICY with_its_row  ON drill_versions USING (EXISTS (SELECT FROM drills WHERE drills.id = drill_id));
CREATE POLICY with_its_row  ON take_sounds    USING (EXISTS (SELECT FROM takes WHERE takes.id = take_id));
CREATE POLICY with_its_row  ON sound_parts    USING (EXISTS (SELECT FROM takes WHERE takes.id = take_id));
CREATE POLICY with_its_row  ON take_comments  USING (EXISTS (SELECT FROM takes WHERE takes.id = take_id));

-- +goose Down
-- +goose StatementBegin
DO $$ BEGIN
    IF (SELECT count(*) FROM studios) > 1 THEN
        RAISE EXCEPTION 'there are several studios: the older form would mix them; take the others out first';
    END IF;
END $$;
-- +goose StatementEnd
DROP POLICY all_of_studio ON studios;
DROP POLICY all_of_studio ON people;
DROP POLICY all_of_studio ON drills;
DROP POLICY all_of_studio ON blocks;
DROP POLICY all_of_studio ON remeasurings;
DROP POLICY their_studio ON studios;
DROP POLICY themselves ON people;
DROP POLICY who_teaches ON people;
DROP POLICY their_studio ON drills;
DROP POLICY with_its_row ON group_members;
DROP POLICY with_its_row ON drill_versions;
DROP POLICY with_its_row ON take_sounds;
DROP POLICY with_its_row ON sound_parts;
DROP POLICY with_its_row ON take_comments;
DROP POLICY all_of_studio ON assignments;
DROP POLICY their_own ON assignments;
DROP POLICY all_of_studio ON takes;
DROP POLICY their_own ON takes;
ALTER TABLE people         DISABLE ROW LEVEL SECURITY;
ALTER TABLE drills         DISABLE ROW LEVEL SECURITY;
ALTER TABLE drill_versions DISABLE ROW LEVEL SECURITY;
ALTER TABLE blocks         DISABLE ROW LEVEL SECURITY;
ALTER TABLE assignments    DISABLE ROW LEVEL SECURITY;
ALTER TABLE takes          DISABLE ROW LEVEL SECURITY;
ALTER TABLE take_sounds    DISABLE ROW LEVEL SECURITY;
ALTER TABLE sound_parts    DISABLE ROW LEVEL SECURITY;
ALTER TABLE take_comments  DISABLE ROW LEVEL SECURITY;
ALTER TABLE remeasurings   DISABLE ROW LEVEL SECURITY;
ALTER TABLE sessions       DISABLE ROW LEVEL SECURITY;
ALTER TABLE facts          DISABLE ROW LEVEL SECURITY;
DROP TABLE audit, mails, openings, resets, codes, passwords, group_members, groups;
DROP INDEX takes_in_order, assignments_in_order, remeasurings_once, people_in_order;
ALTER TABLE sessions DROP COLUMN person_id;
UPDATE people SET role = 'instructor' WHERE role = 'owner';
ALTER TABLE people
    DROP CONSTRAINT people_role_check,
    ADD CONSTRAINT people_role_check CHECK (role IN ('instructor', 'student')),
    DROP COLUMN email, DROP COLUMN sign_in, DROP COLUMN invited_at, DROP COLUMN joined_at, DROP COLUMN revision, DROP COLUMN archived_at, DROP COLUMN remove_at, DROP COLUMN note,
    DROP COLUMN consent_at, DROP COLUMN consent_by, DROP COLUMN studio_id;
ALTER TABLE drills       DROP COLUMN studio_id;
ALTER TABLE blocks       DROP COLUMN studio_id;
ALTER TABLE assignments  DROP COLUMN studio_id;
ALTER TABLE takes        DROP COLUMN studio_id;
ALTER TABLE remeasurings DROP COLUMN studio_id;
DROP TABLE studios;
DROP FUNCTION current_studio, current_student;
CREATE INDEX takes_in_order ON takes (recorded_at DESC, id DESC);
CREATE INDEX assignments_in_order ON assignments (assigned_at DESC, id DESC) WHERE ended_at IS NULL;
CREATE UNIQUE INDEX remeasurings_once ON remeasurings ((true)) WHERE ended_at IS NULL;
