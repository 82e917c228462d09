-- Hands on video, where an assignment asks for them.

-- +goose Up
ALTER TABLE assignments ADD COLUMN video boolean NOT NULL DEFAULT false;
CREATE TABLE take_videos (
    take_id   uuid PRIMARY KEY REFERENCES takes ON DELETE CASCADE,
    media     text NOT NULL,
    size      bigint NOT NULL,
    starts_at double precision NOT NULL,        -- s from the start of the sound
    made_at   timestamptz NOT NULL DEFAULT now()
);
CREATE TABLE video_parts (
    take_id uuid NOT NULL REFERENCES take_videos ON DELETE CASCADE,
    part    integer NOT NULL,
    bytes   bytea NOT NULL,
    PRIMARY KEY (take_id, part)
);
ALTER TABLE video_parts ALTER COLUMN bytes SET STORAGE EXTERNAL; -- compressed already
ALTER TABLE take_videos ENABLE ROW LEVEL SECURITY;
ALTER TABLE video_parts ENABLE ROW LEVEL SECURITY;
CREATE POLICY with_its_row ON take_videos USING (EXISTS (SELECT FROM takes WHERE takes.id = take_id));
CREATE POLICY with_its_row ON video_parts USING (EXISTS (SELECT FROM takes WHERE takes.id = take_id));

-- +goose Down
DROP TABLE video_parts;
DROP TABLE take_videos;
ALTER TABLE assignments DROP COLUMN video;
