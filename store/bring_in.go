package store

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"maps"
	"slices"
	"strings"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
	"github.com/jackc/pgx/v5/pgconn"

	"manudrill/core/drill/chart"
	"manudrill/core/evenness"
	"manudrill/core/setup"
)

// Whole is what was taken out, to be brought in.
type Whole interface {
	// Rows hands over the rows of a table.
	Rows(table string, row func([]byte) error) error

	// Sound and Video open what came with a take; nil where nothing did.
	Sound(take uuid.UUID) (io.ReadCloser, error)
	Video(take uuid.UUID) (io.ReadCloser, error)
}

// BroughtIn tells what was.
type BroughtIn struct {
	Students, Drills, Takes, Sounds int // that were not there before
}

// Errors of what cannot be brought in. Nothing of it is, then.
var (
	// ErrHere is returned for a student who is here already.
	ErrHere = errors.New("the student is here already")

	// ErrNotEmpty is returned for a studio into which another has been put already.
	ErrNotEmpty = errors.New("there are students here already")
)

// An ErrTaken says what stands in this house already as something else.
type ErrTaken struct{ Table string }

func (e ErrTaken) Error() string {
	return "what came as " + e.Table + " is kept here as something else"
}

// An ErrOddRow says why a row cannot be kept.
type ErrOddRow struct {
	Table string
	Row   int // from 1
	Why   error
}

func (e ErrOddRow) Error() string { return fmt.Sprintf("%s, row %d: %v", e.Table, e.Row, e.Why) }

func (e ErrOddRow) Unwrap() error { return e.Why }

// BringIn brings in what was taken out about a student or, for nil, about a whole
// studio, whose name and days it gets; all of it or nothing. What was there stays as it
// is. For takes that wait to be measured it does what is given.
func (s *Store) BringIn(ctx context.Context, student *uuid.UUID, w Whole, waits func(tx pgx.Tx, take uuid.UUID) error) (BroughtIn, error) {
	b := bringer{store: s, student: student, whole: w, fresh: map[string]bool{}, seen: map[string]bool{}}
	err := s.in(ctx, func(tx pgx.Tx) error {
		// Of two who bring in at once the second waits, and finds what the first brought.
		if err := touch(ctx, tx, `SELECT 1 FROM studios WHERE id = current_studio() FOR NO KEY UPDATE`); err != nil {
			return err
		}
		if err := b.mayCome(ctx, tx); err != nil {
			return err
		}
		for _, p := range parts {
			if err := b.rows(ctx, tx, p); err != nil {
				return err
			}
		}
		for _, take := range b.takes {
			if err := b.files(ctx, tx, take); err != nil {
				return err
			}
			if take.State != Waiting {
				continue
			}
			if err := waits(tx, take.ID); err != nil {
				return err
			}
		}
		switch {
		case student == nil:
			b.name = "a whole studio"
		case b.brought.Students == 0:
			return ErrOddRow{"people", 1, errElsewhere}
		}
		return write(ctx, tx, Line{Did: "brought in", Student: student, About: b.name})
	})
	return b.brought, err
}

// A bringer brings rows in.
type bringer struct {
	store   *Store
	student *uuid.UUID
	whole   Whole
	name    string // of the student who came last
	takes   []broughtTake
	fresh   map[string]bool // drills that were not here
	seen    map[string]bool // rows that are pointed to, whether they are here
	brought BroughtIn
}

// A broughtTake is as much of a take as decides what comes with it.
type broughtTake struct {
	ID        uuid.UUID `json:"id"`
	State     string    `json:"state"`
	DroppedAt *string   `json:"sound_dropped_at"`
}

// mayCome reports what stands in the way of a student, or of a whole studio.
func (b *bringer) mayCome(ctx context.Context, tx pgx.Tx) error {
	if b.student != nil {
		here, err := value[bool](tx.Query(ctx, `SELECT EXISTS (SELECT FROM people WHERE id = $1)`, *b.student))
		if err == nil && here {
			err = ErrHere
		}
		return err
	}
	some, err := value[bool](tx.Query(ctx, `SELECT EXISTS (SELECT FROM people WHERE role = 'student')`))
	if err == nil && some {
		err = ErrNotEmpty
	}
	return err
}

// A row is one that comes, by column.
type row map[string]json.RawMessage

// id is what a column points to; nil for nothing.
func (r row) id(column string) (id *uuid.UUID, err error) {
	if raw, has := r[column]; has {
		err = json.Unmarshal(raw, &id)
	}
	return id, err
}

// rows brings those of a table in, one by one.
func (b *bringer) rows(ctx context.Context, tx pgx.Tx, p part) error {
	rows, err := tx.Query(ctx, `
		SELECT column_name::text FROM information_schema.columns WHERE table_schema = 'public' AND table_name = $1 AND is_generated = 'NEVER'`, p.table)
	names, err := every(rows, err, pgx.RowTo[string])
	if err != nil {
		return err
	}
	n := 0
	return b.whole.Rows(p.table, func(raw []byte) error {
		n++
		r := row{}
		err := json.Unmarshal(raw, &r)
		if err == nil {
			maps.DeleteFunc(r, func(name string, _ json.RawMessage) bool { return !slices.Contains(names, name) })
			if slices.Contains(names, "studio_id") {
				r["studio_id"] = json.RawMessage(`"` + scopeOf(ctx).Studio.String() + `"`)
			}
			err = b.row(ctx, tx, p, r)
		}
		return p.odd(n, err)
	})
}

// odd tells which row cannot be kept; a fault of the database stays what it is.
func (p part) odd(n int, err error) error {
	var refused *pgconn.PgError
	switch {
	case err == nil || errors.As(err, new(ErrTaken)) || errors.Is(err, context.Canceled) || errors.Is(err, context.DeadlineExceeded):
		return err
	case !errors.As(err, &refused):
		return ErrOddRow{p.table, n, err}
	// Class 22 is what cannot be read, 23 what breaks a rule of the table (PostgreSQL, appendix A).
	case strings.HasPrefix(refused.Code, "22"), strings.HasPrefix(refused.Code, "23"):
		return ErrOddRow{p.table, n, errors.New(refused.Message)}
	}
	return err
}

func (b *bringer) row(ctx context.Context, tx pgx.Tx, p part, r row) error {
	if p.table == "studios" {
		return becomes(ctx, tx, r)
	}
	if err := readable(p, r); err != nil {
		return err
	}
	if err := b.point(ctx, tx, p, r); err != nil {
		return err
	}
	if err := b.admit(p, r); err != nil {
		return err
	}
	var columns []string
	for _, name := range slices.Sorted(maps.Keys(r)) { // the same statement for the same columns
		columns = append(columns, pgx.Identifier{name}.Sanitize())
	}
	list := strings.Join(columns, ", ")
	tag, err := tx.Exec(ctx, `INSERT INTO `+p.table+` (`+list+`) SELECT `+list+` FROM jsonb_populate_record(NULL::`+p.table+`, $1) ON CONFLICT DO NOTHING`, r)
	if err != nil {
		return err
	}
	if tag.RowsAffected() == 0 {
		return b.isSame(ctx, tx, p, r)
	}
	return b.came(p, r)
}

// becomes gives the studio the name and the days of the one that comes; it goes on being
// asked for at the door as it was.
func becomes(ctx context.Context, tx pgx.Tx, r row) error {
	_, err := tx.Exec(ctx, `
		UPDATE studios s SET name = n.name, sound_days = n.sound_days, time_zone = n.time_zone, revision = s.revision + 1
		FROM jsonb_populate_record(NULL::studios, $1) n WHERE s.id = current_studio() AND now() AT TIME ZONE n.time_zone IS NOT NULL`, r)
	return err
}

// readable reports what of a row could not be read later, by which a page would be lost.
func readable(p part, r row) error {
	switch p.table {
	case "takes":
		var c chart.Chart
		var analysis *evenness.Analysis
		if err := errors.Join(read(r["chart"], &c), read(r["analysis"], &analysis)); err != nil {
			return err
		}
		return c.Validate()
	case "corrections":
		var what evenness.Correction
		return read(r["what"], &what)
	case "people":
		var setup *setup.Setup
		if err := read(r["setup"], &setup); err != nil || setup == nil {
			return err
		}
		return setup.Validate()
	}
	return nil
}

func read(raw json.RawMessage, to any) error {
	if raw == nil {
		return nil
	}
	return json.Unmarshal(raw, to)
}

// pointers are the columns that point to rows, and of which table.
var pointers = []struct{ column, table string }{
	{"student_id", "people"}, {"person_id", "people"}, {"author_id", "people"}, {"actor_id", "people"},
	{"group_id", "groups"}, {"drill_id", "drills"}, {"assignment_id", "assignments"}, {"other_id", "assignments"}, {"take_id", "takes"}, {"log_id", "paper_logs"},
}

// errElsewhere is returned for a row that points to what does not come with it.
var errElsewhere = errors.New("it belongs to what is not in the file")

// point reports a row that points to what is no part of the studio, which the database
// alone would let pass, or to another student than the one who is brought in. Who has only
// left their name on it, and is not here, is no more pointed to.
func (b *bringer) point(ctx context.Context, tx pgx.Tx, p part, r row) error {
	for _, to := range pointers {
		id, err := r.id(to.column)
		if err != nil {
			return err
		}
		if id == nil {
			continue
		}
		here, err := b.isHere(ctx, tx, to.table, *id)
		signs := (to.column == "author_id" || to.column == "actor_id") && p.table != "take_comments"
		mine := b.student == nil || to.column != "student_id" && to.column != "person_id" || *id == *b.student
		switch {
		case err != nil:
			return err
		case !here && signs:
			delete(r, to.column)
		case !here || !mine:
			return errElsewhere
		}
	}
	return nil
}

// isHere reports whether a row is in the studio.
func (b *bringer) isHere(ctx context.Context, tx pgx.Tx, table string, id uuid.UUID) (bool, error) {
	key := table + id.String()
	if b.seen[key] {
		return true, nil
	}
	here, err := value[bool](tx.Query(ctx, `SELECT EXISTS (SELECT FROM `+table+` WHERE id = $1)`, id))
	b.seen[key] = here
	return here, err
}

// errNobody is returned for a person who may not come with a student.
var errNobody = errors.New("with a student come those alone who teach")

// admit lets people come as what they may be: with a student those who have commented on
// their takes, as archived instructors; and nobody as the owner. How they sign in does not
// come with them.
func (b *bringer) admit(p part, r row) error {
	if p.table != "people" {
		return nil
	}
	for _, secret := range []string{"sign_in", "invited_at", "joined_at"} {
		delete(r, secret)
	}
	id, err := r.id("id")
	if err != nil {
		return err
	}
	var role string
	if err := read(r["role"], &role); err != nil {
		return err
	}
	isStudent := b.student != nil && id != nil && *id == *b.student
	if b.student != nil && isStudent != (role == Student) {
		return errNobody
	}
	if role != Student {
		r["role"] = json.RawMessage(`"instructor"`)
	}
	if b.student != nil && !isStudent && r["archived_at"] == nil {
		return errNobody
	}
	return nil
}

// isSame reports a row that is kept here as something else.
func (b *bringer) isSame(ctx context.Context, tx pgx.Tx, p part, r row) error {
	if !p.shared {
		return ErrTaken{p.table}
	}
	var same bool
	var err error
	switch p.table {
	case "group_members": // which are nothing but what they join
		return nil
	case "drill_versions":
		same, err = value[bool](tx.Query(ctx, `SELECT EXISTS (SELECT FROM drill_versions WHERE drill_id = ($1::jsonb->>'drill_id')::uuid AND version = ($1::jsonb->>'version')::integer AND file = $1::jsonb->'file')`, r))
	default:
		same, err = value[bool](tx.Query(ctx, `SELECT EXISTS (SELECT FROM `+p.table+` WHERE id = ($1::jsonb->>'id')::uuid)`, r))
	}
	if err == nil && !same {
		err = ErrTaken{p.table}
	}
	return err
}

// came counts what was not there before. A drill that was is not given versions that
// nobody here has made: whoever saved it next would make the same.
func (b *bringer) came(p part, r row) error {
	switch p.table {
	case "people":
		if string(r["role"]) == `"`+Student+`"` {
			b.brought.Students++
			return read(r["name"], &b.name)
		}
	case "drills":
		b.brought.Drills++
		b.fresh[string(r["id"])] = true
	case "drill_versions":
		if !b.fresh[string(r["drill_id"])] {
			return ErrTaken{p.table}
		}
	case "takes":
		b.brought.Takes++
		var t broughtTake
		b.takes = append(b.takes, t)
		to := &b.takes[len(b.takes)-1]
		return errors.Join(read(r["id"], &to.ID), read(r["state"], &to.State), read(r["sound_dropped_at"], &to.DroppedAt))
	}
	return nil
}

// files keeps the sound and the video of a take, where they are there; a sound that is
// not counts as dropped.
func (b *bringer) files(ctx context.Context, tx pgx.Tx, t broughtTake) error {
	sound, err := b.whole.Sound(t.ID)
	if err != nil {
		return err
	}
	if sound != nil {
		err = errors.Join(b.store.putSound(ctx, tx, t.ID, sound), sound.Close())
		b.brought.Sounds++
	} else if t.DroppedAt == nil {
		_, err = tx.Exec(ctx, `UPDATE takes SET sound_dropped_at = now() WHERE id = $1`, t.ID)
	}
	if err != nil {
		return err
	}
	return b.video(ctx, tx, t.ID)
}

func (b *bringer) video(ctx context.Context, tx pgx.Tx, take uuid.UUID) error {
	video, err := b.whole.Video(take)
	if err != nil {
		return err
	}
	if video == nil {
		_, err = tx.Exec(ctx, `DELETE FROM take_videos WHERE take_id = $1`, take)
		return err
	}
	defer video.Close()
	some, err := value[bool](tx.Query(ctx, `SELECT EXISTS (SELECT FROM take_videos WHERE take_id = $1)`, take))
	if err != nil || !some {
		return err
	}
	size, err := putParts(ctx, tx, insertVideoPart, take, video)
	if err == nil {
		_, err = tx.Exec(ctx, `UPDATE take_videos SET size = $2 WHERE take_id = $1`, take, size)
	}
	return err
}
