package store_test

import (
	"context"
	"fmt"
	"strings"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/core/evenness"
	"manudrill/core/plan"
	"manudrill/core/practice"
	"manudrill/core/setup"
	"manudrill/formats/drillfile"
	"manudrill/store"
	"manudrill/storetest"
)

// open are the tables in which nothing is anybody's: those of the job queue, and
// the list of migrations.
var open = map[string]bool{"goose_db_version": true, "river_job": true, "river_leader": true, "river_queue": true, "river_migration": true,
	"river_client": true, "river_client_queue": true, "river_notification": true}

// closed are the tables that only the house reads.
var closed = map[string]bool{"passwords": true, "codes": true, "resets": true, "openings": true, "calendars": true, "sessions": true, "facts": true}

// A house is a studio of its own, with something in every table.
type house struct {
	id                      uuid.UUID
	ctx                     context.Context // in which its instructor asks
	teacher, student, other store.Person
	take                    uuid.UUID // the student's
}

func newHouse(t *testing.T, s *store.Store) house {
	t.Helper()
	h := house{
		id:      uuid.New(),
		teacher: store.Person{ID: uuid.New(), Name: "Olga", Role: store.Instructor},
		student: store.Person{ID: uuid.New(), Name: "Oskar", Role: store.Student},
		other:   store.Person{ID: uuid.New(), Name: "Ottilie", Role: store.Student},
	}
	require.NoError(t, s.AddStudio(t.Context(), h.id, "Other studio"))
	h.ctx = store.Within(t.Context(), store.Scope{Studio: h.id, Actor: h.teacher})
	for _, p := range []store.Person{h.teacher, h.student, h.other} {
		require.NoError(t, s.AddPerson(h.ctx, p))
	}
	h.take = fill(t, s, h.ctx, h.teacher, h.student)
	return h
}

// as is the context in which a student asks.
func (h house) as(t *testing.T, student store.Person) context.Context {
	return store.Within(t.Context(), store.Scope{Studio: h.id, Student: student.ID})
}

// fill puts something into every table for a student.
func fill(t *testing.T, s *store.Store, ctx context.Context, teacher, student store.Person) (take uuid.UUID) {
	t.Helper()
	id := uuid.New()
	require.NoError(t, s.AddDrill(ctx, id, fileAt(5), store.Shelf{}))
	require.NoError(t, s.AddBlock(ctx, uuid.New(), drillfile.Block{Name: "two"}))
	assignment, err := s.Assign(ctx, id, student.ID)
	require.NoError(t, err)
	take = handedInBy(t, s, ctx, assignment, 60, time.Now())
	require.NoError(t, s.Measured(ctx, take, store.Measurement{Analysis: evenness.Analysis{}, Seconds: 3, Listener: 1}))
	require.NoError(t, s.PutVideo(ctx, take, store.Video{Media: "video/webm"}, strings.NewReader("hands")))
	require.NoError(t, s.PutComment(ctx, store.Comment{ID: uuid.New(), TakeID: take, Text: "late", Author: teacher}))
	require.NoError(t, s.Correct(ctx, take, uuid.New(), evenness.Correction{Of: evenness.OfFinding, Kind: "late"}))
	require.NoError(t, s.PutGroup(ctx, store.Group{ID: uuid.New(), Name: "Mondays", Students: []uuid.UUID{student.ID}}))
	require.NoError(t, s.PutRoutine(ctx, uuid.New(), student.ID, 0, of(id, "Mondays"), []uuid.UUID{id}))
	studio, err := s.Studio(ctx)
	require.NoError(t, err)
	require.NoError(t, s.PutReview(store.Within(ctx, store.Scope{Studio: studio.ID, Actor: teacher}), take, true, "even"))
	require.NoError(t, s.PutCalendar(ctx, student.ID, []byte(uuid.NewString())))
	require.NoError(t, s.PutLesson(ctx, uuid.New(), student.ID, 0, "slower"))
	require.NoError(t, s.PutPlan(ctx, student.ID, 0, plan.Usual(time.Now()), plan.Plan{}, time.Now(), nil))
	kept, err := s.PutPaper(ctx, uuid.New(), []store.PaperEntry{{Student: student.ID, Day: time.Now(), Drill: "slurs", Note: "slow"}})
	require.NoError(t, err)
	require.Equal(t, 1, kept)
	require.NoError(t, s.AddHandReport(ctx, uuid.New(), student.ID, time.Now(), practice.HandReport{Kind: practice.IsTired}))
	require.NoError(t, s.PutCode(ctx, student.ID, store.Code{Finder: uuid.NewString(), Rest: "hash"}))
	require.NoError(t, s.SetPassword(ctx, student.ID, student.Name+uuid.NewString(), "hash"))
	require.NoError(t, s.PutCode(ctx, teacher.ID, store.Code{Finder: uuid.NewString(), Rest: "hash"}))
	require.NoError(t, s.PutSession(ctx, uuid.NewString(), student.ID, []byte("{}"), time.Now().Add(time.Hour)))
	require.NoError(t, s.AddOpening(ctx, []byte(uuid.NewString())))
	require.NoError(t, s.SetFact(ctx, "fact", "is"))
	account, err := s.Account(ctx, student.ID)
	require.NoError(t, err)
	require.NoError(t, s.AddReset(ctx, account, []byte(uuid.NewString()), store.Mail{ID: uuid.New(), Recipient: "o@example.org"}, nothing))
	require.NoError(t, s.Remeasure(ctx, func(pgx.Tx, uuid.UUID) error { return nil }))
	return take
}

// tables are all there are.
func tables(t *testing.T, s *store.Store) []string {
	t.Helper()
	rows, err := s.Pool().Query(t.Context(), `SELECT tablename::text FROM pg_tables WHERE schemaname = 'public' ORDER BY 1`)
	require.NoError(t, err)
	names, err := pgx.CollectRows(rows, pgx.RowTo[string])
	require.NoError(t, err)
	require.Greater(t, len(names), 20)
	return names
}

// count asks for everything in a table, as a query would that forgot whose rows it
// wants.
func count(t *testing.T, s *store.Store, ctx context.Context, table string) (n int) {
	t.Helper()
	require.NoError(t, s.Pool().QueryRow(ctx, `SELECT count(*) FROM `+pgx.Identifier{table}.Sanitize()).Scan(&n))
	return n
}

// A query that asks for all there is gets what belongs to the studio that asks; the
// sum over the studios is all there is, so that none sees what another sees.
func TestAQueryWithoutABoundLeaksNothing(t *testing.T) {
	s := own(t)
	one, two := newHouse(t, s), newHouse(t, s)
	here, other, asStudent := one.ctx, two.ctx, two.as(t, two.student)
	empty := uuid.New()
	require.NoError(t, s.AddStudio(t.Context(), empty, "Nobody's"))
	for _, table := range tables(t, s) {
		if open[table] {
			continue
		}
		all := count(t, s, store.AsHouse(t.Context()), table)
		require.Positive(t, all, "%s has something in it, or this would prove nothing", table)
		assert.Zero(t, count(t, s, t.Context(), table), "%s, by who does not say for whom they ask", table)
		if closed[table] {
			assert.Zero(t, count(t, s, here, table), table)
			continue
		}
		mine, theirs := count(t, s, here, table), count(t, s, other, table)
		assert.Positive(t, mine, table)
		assert.Positive(t, theirs, table)
		sum := 0
		for _, studio := range studios(t, s) {
			sum += count(t, s, store.Within(t.Context(), store.Scope{Studio: studio}), table)
		}
		assert.Equal(t, all, sum, "%s: each row is seen by one studio", table)
		assert.LessOrEqual(t, count(t, s, asStudent, table), theirs, table)
		if empty := count(t, s, store.Within(t.Context(), store.Scope{Studio: empty}), table); table != "studios" {
			assert.Zero(t, empty, "%s, by a studio with nothing in it", table)
		}
	}
}

// A student who asks for everything gets, of what students have, their own.
func TestAStudentSeesNoOther(t *testing.T) {
	s := own(t)
	h := newHouse(t, s)
	asOther := h.as(t, h.other)
	for _, table := range []string{"assignments", "takes", "audit"} {
		var others int
		require.NoError(t, s.Pool().QueryRow(asOther, `SELECT count(*) FROM `+table+` WHERE student_id IS DISTINCT FROM $1`, h.other.ID).Scan(&others))
		assert.Zero(t, others, table)
	}
	for _, table := range []string{"take_sounds", "sound_parts", "take_comments", "take_videos", "video_parts"} {
		var others int
		require.NoError(t, s.Pool().QueryRow(asOther, `SELECT count(*) FROM `+table+` WHERE take_id = $1`, h.take).Scan(&others))
		assert.Zero(t, others, table)
	}
	for _, table := range []string{"groups", "group_members", "remeasurings", "mails"} {
		assert.Zero(t, count(t, s, asOther, table), table)
	}
	var students int
	require.NoError(t, s.Pool().QueryRow(asOther, `SELECT count(*) FROM people WHERE role = 'student'`).Scan(&students))
	assert.Equal(t, 1, students, "themselves")
}

// What belongs to another studio can neither be changed nor be tied to one's own,
// even by who knows its id.
func TestNothingIsDoneAcrossStudios(t *testing.T) {
	s := own(t)
	h := newHouse(t, s)
	other, oskar := h.ctx, h.student
	mine := added(t, s, store.Shelf{})
	for name, try := range map[string]func() error{
		"assign my drill to them": func() error { _, err := s.Assign(in(t), mine, oskar.ID); return err },
		"assign their student":    func() error { _, err := s.Assign(other, mine, oskar.ID); return err },
		"change my drill":         func() error { return s.ChangeDrill(other, mine, 1, fileAt(7)) },
		"delete it":               func() error { return s.DeleteDrill(other, mine) },
		"set ann's guitar":        func() error { return s.ChangeSetup(other, ann.ID, 1, setup.Usual()) },
		"archive ann":             func() error { return s.Archive(other, ann.ID) },
		"give ann a code":         func() error { return s.PutCode(other, ann.ID, store.Code{Finder: uuid.NewString(), Rest: "x"}) },
		"put ann into their group": func() error {
			return s.PutGroup(other, store.Group{ID: uuid.New(), Name: "x", Students: []uuid.UUID{ann.ID}})
		},
	} {
		assert.ErrorIs(t, try(), store.ErrNotFound, name)
	}
	_, err := s.Pool().Exec(other, `INSERT INTO people (id, studio_id, name, role) VALUES ($1, $2, 'x', 'student')`, uuid.New(), storetest.Studio)
	require.Error(t, err, "nobody is put into another's studio")
	assert.Contains(t, err.Error(), "row-level security")
}

// Connections are used for one studio after the other: none keeps what it was told
// for the one before.
func TestAConnectionForgetsForWhomItAskedLast(t *testing.T) {
	s := own(t)
	other := newHouse(t, s).ctx
	contexts := []context.Context{in(t), other, t.Context(), store.AsHouse(t.Context())}
	want := make([]int, len(contexts))
	for i, ctx := range contexts {
		want[i] = count(t, s, ctx, "people")
	}
	done := make(chan error)
	for worker := range 8 {
		go func() {
			for i := range 200 {
				which := (i*7 + worker) % len(contexts)
				var n int
				err := s.Pool().QueryRow(contexts[which], `SELECT count(*) FROM people`).Scan(&n)
				if err != nil || n != want[which] {
					done <- fmt.Errorf("asker %d sees %d people instead of %d: %w", which, n, want[which], err)
					return
				}
			}
			done <- nil
		}()
	}
	for range 8 {
		assert.NoError(t, <-done)
	}
}

func studios(t *testing.T, s *store.Store) []uuid.UUID {
	t.Helper()
	rows, err := s.Pool().Query(store.AsHouse(t.Context()), `SELECT id FROM studios`)
	require.NoError(t, err)
	ids, err := pgx.CollectRows(rows, pgx.RowTo[uuid.UUID])
	require.NoError(t, err)
	return ids
}
