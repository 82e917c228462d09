-- What puts many students in order stands beside their drills, so that few rows are read
-- of those who are looked at; and beside a plan, what is due.

-- +goose Up
ALTER TABLE assignments
    ADD COLUMN need      text NOT NULL DEFAULT 'untouched', -- why it wants to be looked at; empty for nothing
    ADD COLUMN need_from date,                              -- the day from which, without a take, it is need_then
    ADD COLUMN need_then text NOT NULL DEFAULT '',
    ADD COLUMN last_day  date,                              -- played on, by the studio's clock
    ADD COLUMN of_gate   double precision NOT NULL DEFAULT 0,
    ADD COLUMN late_ms   double precision NOT NULL DEFAULT 0,
    ADD COLUMN dates     date[] NOT NULL DEFAULT '{}';      -- the last it was played on
UPDATE assignments SET
    last_day  = (state#>>'{finding,last}')::timestamptz::date,
    of_gate   = coalesce((state->>'ofGate')::float8, 0),
    late_ms   = coalesce((state#>>'{weakest,lateMs}')::float8, 0),
    dates     = array(SELECT d::timestamptz::date FROM jsonb_array_elements_text(state->'days') d),
    need      = CASE WHEN state#>>'{finding,kind}' IN ('slipping', 'stuck') THEN state#>>'{finding,kind}'
                     WHEN (state->>'ofGate')::float8 > 130 AND (state->>'of')::integer >= 4 THEN 'uneven' ELSE '' END,
    need_then = CASE WHEN state#>>'{finding,kind}' = 'reached' THEN 'ready' ELSE 'away' END,
    need_from = CASE WHEN state#>>'{finding,kind}' = 'reached' THEN (state#>>'{finding,since}')::timestamptz::date + 7 ELSE (state#>>'{finding,last}')::timestamptz::date + 21 END
WHERE state IS NOT NULL;
CREATE INDEX assignments_at_a_glance ON assignments (student_id) INCLUDE (need, need_from, need_then, last_day, of_gate, late_ms) WHERE ended_at IS NULL;
ALTER TABLE plans ADD COLUMN due jsonb; -- null until it is laid out anew

-- +goose Down
ALTER TABLE plans DROP COLUMN due;
DROP INDEX assignments_at_a_glance;
ALTER TABLE assignments DROP COLUMN need, DROP COLUMN need_from, DROP COLUMN need_then, DROP COLUMN last_day, DROP COLUMN of_gate, DROP COLUMN late_ms, DROP COLUMN dates;
