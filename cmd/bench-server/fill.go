package main

import (
	"bytes"
	"context"
	"fmt"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"

	"manudrill/core/drill"
	"manudrill/core/guitar"
	"manudrill/core/simulate"
	"manudrill/core/tempo"
	"manudrill/formats/drillfile"
	"manudrill/formats/sound"
	"manudrill/server"
	"manudrill/store"
)

// sizes are how many takes the students have on whom growth is measured.
var sizes = []int{100, 1_000, 10_000}

// others is how many students there are besides, with some drills and takes each.
const (
	others      = 197
	drillsEach  = 4
	takesOfEach = 10
)

// A filled studio.
type filled struct {
	instructor uuid.UUID
	ten        uuid.UUID // a group of ten students
	students   []pupil   // one for each size
	drills     []uuid.UUID
}

// A pupil has takes of one assignment.
type pupil struct{ person, assignment, take uuid.UUID }

func someDrill(name string) drillfile.File {
	d := drill.New(name, drill.SlurCombinations{Combinations: [][]int{{1, 2}, {3, 4}}, Slur: drill.BothSlurs})
	d.Rhythm.NotesPerBeat, d.Rhythm.Passes = 4, 2
	return drillfile.File{Drill: d, Ladder: tempo.Usual()}
}

// fill makes a studio of 200 students. Takes but the first of each are copies of
// one that was really measured, under ids and times of their own.
func fill(ctx context.Context, s *store.Store) (filled, error) {
	f := filled{instructor: uuid.New()}
	if err := s.AddPerson(ctx, store.Person{ID: f.instructor, Name: "Instructor", Role: store.Instructor, Demo: true}); err != nil {
		return f, err
	}
	for i := range 60 {
		id := uuid.New()
		if err := s.AddDrill(ctx, id, someDrill(fmt.Sprintf("Drill %d", i)), store.Shelf{Folder: "Slurs"}); err != nil {
			return f, err
		}
		f.drills = append(f.drills, id)
	}
	for i, n := range sizes {
		p, err := pupilWith(ctx, s, fmt.Sprintf("Student with %d", n), f.drills[i:i+1], n)
		if err != nil {
			return f, err
		}
		f.students = append(f.students, p)
	}
	for i := range others {
		from := i % (len(f.drills) - drillsEach)
		if _, err := pupilWith(ctx, s, fmt.Sprintf("Student %d", i), f.drills[from:from+drillsEach], takesOfEach); err != nil {
			return f, err
		}
	}
	people, err := s.People(ctx, nil)
	if err != nil {
		return f, err
	}
	ten := store.Group{ID: uuid.New(), Name: "Ten"}
	for _, p := range people[len(people)-10:] {
		ten.Students = append(ten.Students, p.ID)
	}
	f.ten = ten.ID
	if err := s.PutGroup(ctx, ten); err != nil {
		return f, err
	}
	_, err = s.Pool().Exec(store.AsHouse(ctx), `VACUUM ANALYZE`)
	return f, err
}

// pupilWith adds a student who has some drills and so many takes of each.
func pupilWith(ctx context.Context, s *store.Store, name string, drills []uuid.UUID, takes int) (pupil, error) {
	p := pupil{person: uuid.New()}
	if err := s.AddPerson(ctx, store.Person{ID: p.person, Name: name, Role: store.Student, Demo: true}); err != nil {
		return p, err
	}
	for _, d := range drills {
		assignment, err := s.Assign(ctx, d, p.person)
		if err != nil {
			return p, err
		}
		p.assignment, p.take = assignment, uuid.New()
		if err := firstTake(ctx, s, p); err != nil {
			return p, err
		}
		if err := copies(ctx, s, p, takes-1); err != nil {
			return p, err
		}
	}
	return p, nil
}

// model is the take that all are copies of.
var model uuid.UUID

func firstTake(ctx context.Context, s *store.Store, p pupil) error {
	if model != uuid.Nil {
		return copyOne(ctx, s, p)
	}
	model = p.take
	player := simulate.Player{Seed: 1, ClockMs: 8, MotorMs: 6, SlurDropDB: 2, NoiseDB: -66}
	return server.SimulatedTake{ID: p.take, Assignment: p.assignment, Player: player, RecordedAt: time.Now().Add(-span)}.Make(ctx, s)
}

const columns = `drill_name, version, bpm, notes_per_beat, counts, source, seconds, chart, analysis, decision, state, listener, held_bpm,
	notes_per_second, spread_ms, spread_percent, right_percent, is_foreign, passes, passed, sums, clean, slur_seconds`

// copyOne copies the model as the student's first take.
func copyOne(ctx context.Context, s *store.Store, p pupil) error {
	_, err := s.Pool().Exec(ctx, `INSERT INTO takes (id, assignment_id, student_id, recorded_at, `+columns+`)
		SELECT $2, $3, $4, recorded_at, `+columns+` FROM takes WHERE id = $1`, model, p.take, p.assignment, p.person)
	return err
}

// span is over how long the takes of each are spread.
const span = 25 * 7 * 24 * time.Hour

// copies adds so many more, over half a year, and adds them up.
func copies(ctx context.Context, s *store.Store, p pupil, n int) error {
	err := pgx.BeginFunc(ctx, s.Pool(), func(tx pgx.Tx) error {
		if _, err := tx.Exec(ctx, `INSERT INTO takes (id, assignment_id, student_id, recorded_at, `+columns+`)
			SELECT gen_random_uuid(), $2, $3, recorded_at + n * $5::interval, `+columns+`
			FROM takes, generate_series(1, $4::integer) n WHERE id = $1`, model, p.assignment, p.person, n, span/time.Duration(n)); err != nil {
			return err
		}
		_, err := tx.Exec(ctx, `UPDATE assignments SET takes = $2, last_take_at = now(),
			last = (SELECT decision FROM takes WHERE id = $3) WHERE id = $1`, p.assignment, n+1, model)
		return err
	})
	if err != nil {
		return err
	}
	return s.AddUpAnew(ctx, p.assignment)
}

// recording is one of the drill by a player of its own.
func recording(seed uint64) ([]byte, error) {
	chart, err := someDrill("any").Drill.Chart(guitar.Standard(), 60)
	if err != nil {
		return nil, err
	}
	_, samples, err := simulate.Player{Seed: seed, MotorMs: 4, NoiseDB: -66}.Take(chart)
	if err != nil {
		return nil, err
	}
	return bytes.Clone(sound.FromMono(simulate.Rate, samples).EncodeWAV()), nil
}
