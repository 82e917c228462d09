-- Takes are reviewed, lessons are noted, and students have a level.

-- +goose Up
CREATE TABLE reviews (
    take_id   uuid PRIMARY KEY REFERENCES takes ON DELETE CASCADE,
    at        timestamptz NOT NULL DEFAULT now(),
    author_id uuid REFERENCES people ON DELETE SET NULL,
    author    text NOT NULL,                    -- their name then
    accepted  boolean NOT NULL,
    note      text NOT NULL DEFAULT '',
    read_at   timestamptz                       -- by the student
);
CREATE INDEX reviews_unread ON reviews (at) WHERE read_at IS NULL;
ALTER TABLE reviews ENABLE ROW LEVEL SECURITY;
CREATE POLICY with_its_row ON reviews USING (EXISTS (SELECT FROM takes WHERE takes.id = take_id));
ALTER TABLE assignments ADD COLUMN reviewed_until timestamptz; -- when the take was recorded that was reviewed last
-- What was there before waits for nobody.
UPDATE assignments SET reviewed_until = last_take_at;

CREATE TABLE lessons (
    id         uuid PRIMARY KEY,
    studio_id  uuid NOT NULL DEFAULT current_studio() REFERENCES studios,
    student_id uuid NOT NULL REFERENCES people ON DELETE CASCADE,
    at         timestamptz NOT NULL DEFAULT now(),
    author     text NOT NULL,                   -- their name then
    text       text NOT NULL,
    revision   integer NOT NULL DEFAULT 1,
    deleted_at timestamptz                      -- comes back as it was when it is put again
);
CREATE INDEX lessons_of_student ON lessons (student_id, at DESC, id DESC);
CREATE INDEX lessons_of_studio ON lessons (studio_id);
ALTER TABLE lessons ENABLE ROW LEVEL SECURITY;
CREATE POLICY all_of_studio ON lessons TO manudrill_member USING (studio_id = current_studio());

ALTER TABLE people ADD COLUMN level text NOT NULL DEFAULT '' CHECK (level IN ('', 'beginner', 'intermediate', 'advanced'));

-- Addresses under which calendars ask for a plan: whoever knows one may read it, until it
-- is revoked. Only the house looks there.
CREATE TABLE calendars (
    student_id uuid PRIMARY KEY REFERENCES people ON DELETE CASCADE,
    token      bytea NOT NULL UNIQUE,           -- its SHA-256
    made_at    timestamptz NOT NULL DEFAULT now()
);
ALTER TABLE calendars ENABLE ROW LEVEL SECURITY;

-- +goose Down
DROP TABLE calendars;
ALTER TABLE people DROP COLUMN level;
DROP TABLE lessons;
ALTER TABLE assignments DROP COLUMN reviewed_until;
DROP TABLE reviews;
