package store

import (
	"context"
	"fmt"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
)

// Everything about a student, or about the whole studio, is its rows as the database has
// them: what is brought in again is what was taken out, whatever a later version adds.

// A part is a table of which rows are taken out.
type part struct {
	table  string
	of     string // which rows t are a student's, who is $1; empty for none of them
	shared bool   // what is here already under the same id is the same
}

// parts are in the order in which rows refer to one another. What is not among them is
// secret (passwords, codes, sessions, addresses of calendars), passes by itself (letters,
// jobs), or comes as files (sounds, videos).
var parts = []part{
	{"studios", ``, true},
	{"people", `t.id = $1 OR t.id IN (SELECT c.author_id FROM take_comments c JOIN takes k ON k.id = c.take_id WHERE k.student_id = $1)`, true},
	{"groups", `t.id IN (SELECT group_id FROM group_members WHERE person_id = $1)`, true},
	{"group_members", `t.person_id = $1`, true},
	{"drills", `t.id IN (SELECT drill_id FROM assignments WHERE student_id = $1)`, true},
	{"drill_versions", `t.drill_id IN (SELECT drill_id FROM assignments WHERE student_id = $1)`, true},
	{"blocks", ``, false},
	{"assignments", `t.student_id = $1`, false},
	{"rung_sets", `t.assignment_id IN (SELECT id FROM assignments WHERE student_id = $1)`, false},
	{"takes", `t.student_id = $1`, false},
	{"take_videos", `t.take_id IN (SELECT id FROM takes WHERE student_id = $1)`, false},
	{"take_comments", `t.take_id IN (SELECT id FROM takes WHERE student_id = $1)`, false},
	{"corrections", `t.take_id IN (SELECT id FROM takes WHERE student_id = $1)`, false},
	{"reviews", `t.take_id IN (SELECT id FROM takes WHERE student_id = $1)`, false},
	{"routines", `t.student_id = $1`, false},
	{"hand_reports", `t.student_id = $1`, false},
	{"practice_weeks", `t.student_id = $1`, false},
	{"plans", `t.student_id = $1`, false},
	{"lessons", `t.student_id = $1`, false},
	{"paper_logs", `t.id IN (SELECT log_id FROM paper_entries WHERE student_id = $1)`, true},
	{"paper_entries", `t.student_id = $1`, false},
	{"audit", `t.student_id = $1`, false},
}

// Tables are the names of those of which rows are taken out, in the order in which they
// are brought in.
func Tables() []string {
	names := make([]string, len(parts))
	for i, p := range parts {
		names[i] = p.table
	}
	return names
}

// Rows hands over, as JSON, each row about a student, or nil for all of the studio, as
// they stood at one moment. Nobody's password or way of signing in is among them, and to
// a student not what instructors noted for themselves; of who commented on a student's
// takes there is the name alone.
func (s *Store) Rows(ctx context.Context, student *uuid.UUID, row func(table string, row []byte) error) error {
	return pgx.BeginTxFunc(ctx, s.pool, pgx.TxOptions{IsoLevel: pgx.RepeatableRead, AccessMode: pgx.ReadOnly}, func(tx pgx.Tx) error {
		if _, err := tx.Exec(ctx, `SET LOCAL statement_timeout = '10min'`); err != nil {
			return err
		}
		for _, p := range parts {
			if err := p.rows(ctx, tx, student, row); err != nil {
				return fmt.Errorf("%s: %w", p.table, err)
			}
		}
		return nil
	})
}

func (p part) rows(ctx context.Context, tx pgx.Tx, student *uuid.UUID, row func(table string, row []byte) error) error {
	query, args := `SELECT `+p.document(ctx, student)+` FROM `+p.table+` t`, []any{}
	if student != nil {
		if p.of == "" {
			return nil
		}
		query, args = query+` WHERE `+p.of, []any{*student}
	}
	rows, err := tx.Query(ctx, query, args...)
	if err != nil {
		return err
	}
	defer rows.Close()
	for rows.Next() {
		if err := row(p.table, rows.RawValues()[0]); err != nil {
			return err
		}
	}
	return rows.Err()
}

// document is what is taken out of a row.
func (p part) document(ctx context.Context, student *uuid.UUID) string {
	if p.table != "people" {
		return `to_jsonb(t)::text`
	}
	person := `to_jsonb(t) - 'sign_in' - 'invited_at' - 'joined_at'`
	if scopeOf(ctx).Student != uuid.Nil {
		person += ` - 'note'`
	}
	if student == nil {
		return `(` + person + `)::text`
	}
	return `(CASE WHEN t.id = $1 THEN ` + person + ` ELSE jsonb_build_object('id', t.id, 'name', t.name, 'role', t.role, 'demo', t.demo, 'archived_at', coalesce(t.archived_at, now())) END)::text`
}
