-- Drills get versions, a shelf to stand on, and the form of the second engine;
-- people get an instrument and a hand; sets of drills become blocks.

-- +goose Up
CREATE TABLE drill_versions (
    drill_id uuid NOT NULL REFERENCES drills,
    version  integer NOT NULL,
    file     jsonb NOT NULL,           -- the drill document, see docs/formats.md
    saved_at timestamptz NOT NULL DEFAULT now(),
    PRIMARY KEY (drill_id, version)
);

-- The drills of the first engine, in the words of the second.
INSERT INTO drill_versions (drill_id, version, saved_at, file)
SELECT id, 1, changed_at, jsonb_build_object(
    'ladder', file->'ladder',
    'drill', jsonb_build_object(
        'name', file#>'{drill,name}',
        'pattern', CASE file#>>'{drill,pattern,kind}'
            WHEN 'fingerPerFret' THEN jsonb_build_object('kind', 'fingerPerFret',
                'orders', jsonb_build_array(file#>'{drill,pattern,order}'))
            ELSE file#>'{drill,pattern}' END,
        'path', jsonb_build_object(
            'position', file#>'{drill,position}',
            'strings', file#>'{drill,strings}',
            'spread', 'neighbours',
            'back', CASE WHEN (file#>>'{drill,thereAndBack}')::boolean THEN 'return' ELSE 'none' END,
            'stay', jsonb_build_object('count', file#>'{drill,repeats}', 'unit', 'times'),
            'shift', '{"by": 0, "each": "round", "count": 0, "home": false, "slide": false}'::jsonb,
            'together', false),
        'attacks', jsonb_build_object('rule',
            CASE file#>>'{drill,pattern,kind}' WHEN 'fingerPerFret' THEN 'picked' ELSE 'slurred' END),
        'rhythm', jsonb_build_object('notesPerBeat', file#>'{drill,notesPerBeat}', 'beatsPerBar', 4,
            'passes', file#>'{drill,passes}', 'close', 0, 'free', false),
        'strokes', '{"rule": "alternate", "fromUp": false}'::jsonb,
        'fingering', '{"stretch": "middle", "tapFinger": 2, "keepDown": false}'::jsonb,
        'mirror', false,
        'reverse', false))
FROM drills;

ALTER TABLE drills
    DROP COLUMN file,
    ADD COLUMN version   integer NOT NULL DEFAULT 1,     -- the newest
    ADD COLUMN folder    text NOT NULL DEFAULT '',
    ADD COLUMN tags      text[] NOT NULL DEFAULT '{}',
    ADD COLUMN favourite boolean NOT NULL DEFAULT false;

ALTER TABLE assignments
    ADD COLUMN version integer NOT NULL DEFAULT 1,       -- the one that lies on the stand
    ADD FOREIGN KEY (drill_id, version) REFERENCES drill_versions DEFERRABLE INITIALLY DEFERRED;
ALTER TABLE takes ADD COLUMN version integer NOT NULL DEFAULT 1; -- the one that was played

ALTER TABLE people ADD COLUMN setup jsonb;               -- guitar, hand and weights; null for the usual ones

CREATE TABLE blocks (
    id         uuid PRIMARY KEY,
    block      jsonb NOT NULL,         -- the block document, see docs/formats.md
    made_at    timestamptz NOT NULL DEFAULT now(),
    deleted_at timestamptz
);

-- +goose Down
DROP TABLE blocks;
ALTER TABLE people DROP COLUMN setup;
ALTER TABLE takes DROP COLUMN version;
ALTER TABLE assignments DROP COLUMN version;
ALTER TABLE drills ADD COLUMN file jsonb;
UPDATE drills d SET file = v.file FROM drill_versions v WHERE v.drill_id = d.id AND v.version = d.version;
ALTER TABLE drills ALTER COLUMN file SET NOT NULL,
    DROP COLUMN version, DROP COLUMN folder, DROP COLUMN tags, DROP COLUMN favourite;
DROP TABLE drill_versions;
