package demo

import (
	"context"
	"errors"
	"fmt"
	"sync"
	"sync/atomic"
	"time"

	"github.com/google/uuid"

	"manudrill/core/practice"
	"manudrill/core/tempo"
	"manudrill/server"
	"manudrill/store"
)

// fact is where the studio keeps how far its demo has been made: when its making
// was begun, or that it is complete.
const (
	fact     = "demo"
	complete = "complete"
)

// Studio is the demo's.
var Studio = id("studio")

const studioName = "Fernwick Guitar"

// soundDays is how long the demo's studio keeps sounds: of older takes there are the
// results alone, so that half a year is made within a minute or two.
const soundDays = 9

// A Making is a demo that is being made.
type Making struct {
	store     *store.Store
	students  []student
	weeks     int
	from, now time.Time
	done, all atomic.Int64
}

// Begin makes a studio with the invented people and what they have, in a moment, and
// returns the making of what they have played in so many weeks before now; nil where
// there is nothing to make. A house that has studios of its own is left as it is; a demo
// whose making was cut off is made to its end.
func Begin(ctx context.Context, s *store.Store, weeks int, now time.Time) (*Making, error) {
	return beginWith(ctx, s, students, weeks, now)
}

func beginWith(ctx context.Context, s *store.Store, students []student, weeks int, now time.Time) (*Making, error) {
	begun, err := begin(ctx, s, now)
	if err != nil || begun.IsZero() {
		return nil, err
	}
	if err := s.AddStudio(ctx, Studio, studioName); err != nil {
		return nil, err
	}
	if err := furnish(ctx, s, begun); err != nil {
		return nil, err
	}
	monday := begun.Truncate(24*time.Hour).AddDate(0, 0, -(int(begun.Weekday())+6)%7)
	m := &Making{store: s, students: students, weeks: weeks, from: monday.AddDate(0, 0, -7*(weeks-1)), now: begun}
	for _, st := range students {
		m.all.Add(int64(len(m.takes(st))))
	}
	return m, nil
}

// Progress tells how many takes are made, of how many. A nil making has none.
func (m *Making) Progress() (done, all int) {
	if m == nil {
		return 0, 0
	}
	return int(m.done.Load()), int(m.all.Load())
}

// Make makes the takes: those without sound first, of all students, then the latest.
func (m *Making) Make(ctx context.Context) error {
	ctx = store.Within(ctx, store.Scope{Studio: Studio, Actor: oda})
	for _, old := range []bool{true, false} {
		if err := m.each(ctx, func(st student) error { return m.play(ctx, st, old, old) }); err != nil {
			return err
		}
	}
	if err := errors.Join(said(ctx, m.store), hear(ctx, m.store)); err != nil {
		return err
	}
	return m.store.SetFact(ctx, fact, complete)
}

// Load makes the whole demo before it returns.
func Load(ctx context.Context, s *store.Store, weeks int, now time.Time) error {
	m, err := Begin(ctx, s, weeks, now)
	if err != nil || m == nil {
		return err
	}
	return m.Make(ctx)
}

// begin returns when the making was begun, which is now for an empty studio; the
// zero time where there is nothing to make.
func begin(ctx context.Context, s *store.Store, now time.Time) (time.Time, error) {
	told, err := s.Fact(ctx, fact)
	switch {
	case err == nil && told == complete:
		return time.Time{}, nil
	case err == nil:
		return time.Parse(time.RFC3339, told)
	case !errors.Is(err, store.ErrNotFound):
		return time.Time{}, err
	}
	studios, err := s.Studios(ctx)
	if err != nil || studios > 0 {
		return time.Time{}, err
	}
	now = now.UTC().Truncate(time.Second)
	return now, s.SetFact(ctx, fact, now.Format(time.RFC3339))
}

// id makes an id of the demo that is the same each time.
func id(name string) uuid.UUID {
	return uuid.NewSHA1(uuid.NameSpaceURL, []byte("manudrill demo "+name))
}

// atOnce is how many students play at once: it is their database and their listener
// that take the time.
const atOnce = 4

// each does something for all students, some at once.
func (m *Making) each(ctx context.Context, do func(student) error) error {
	faults := make([]error, len(m.students))
	var wg sync.WaitGroup
	room := make(chan struct{}, atOnce)
	for i, st := range m.students {
		wg.Go(func() {
			room <- struct{}{}
			defer func() { <-room }()
			if faults[i] = ctx.Err(); faults[i] == nil {
				faults[i] = do(st)
			}
		})
	}
	wg.Wait()
	return errors.Join(faults...)
}

// A moment is when a student plays a drill.
type moment struct {
	given given
	week  int
	at    time.Time
	old   bool // its sound is no more there
}

// takes are all that a student plays, in order.
func (m *Making) takes(st student) (all []moment) {
	for week := Weeks - m.weeks; week < Weeks; week++ {
		if !st.plays(week) {
			continue
		}
		for _, day := range st.days {
			at := m.from.AddDate(0, 0, 7*(week-Weeks+m.weeks)).Add(day * time.Hour)
			for i, g := range st.drills {
				if at := at.Add(time.Duration(i) * 10 * time.Minute); at.Before(m.now) {
					all = append(all, moment{g, week, at, m.now.Sub(at) > soundDays*24*time.Hour})
				}
			}
		}
	}
	return all
}

// play plays the takes of a student that are so long ago that they have no sound any
// more, or those that are not, and does what happens in between. Without sound they are
// all measured from what was played.
func (m *Making) play(ctx context.Context, st student, old, silent bool) error {
	last := -1
	for _, t := range m.takes(st) {
		if t.old != old {
			last = t.week
			continue
		}
		for week := last + 1; week <= t.week; week++ {
			if err := m.happen(ctx, st, week); err != nil {
				return err
			}
		}
		last = t.week
		if err := m.take(ctx, st, t, silent); err != nil {
			return fmt.Errorf("demo take of %s by %s, %s: %w", t.given.drill, st.name, t.at, err)
		}
		m.done.Add(1)
	}
	if old {
		return nil
	}
	for week := last + 1; week < Weeks; week++ {
		if err := m.happen(ctx, st, week); err != nil {
			return err
		}
	}
	return nil
}

// take plays one take at the tempo the takes before it have reached.
func (m *Making) take(ctx context.Context, st student, t moment, silent bool) error {
	assignment, err := m.store.Assign(ctx, id(t.given.drill), id(st.name))
	if err != nil {
		return err
	}
	a, err := m.store.Stand(ctx, assignment)
	if err != nil {
		return err
	}
	takeID := id(fmt.Sprint(st.name, t.given.drill, t.week, t.at.Sub(m.from)))
	seed := uint64(takeID[0])<<8 | uint64(takeID[1])
	week := float64(Weeks-m.weeks) + t.at.Sub(m.from).Hours()/(7*24)
	return server.SimulatedTake{
		ID: takeID, Assignment: assignment, Player: st.player(t.given, week, a.Rung.NotesPerSecond(), seed), RecordedAt: t.at, Silent: silent,
	}.Make(ctx, m.store)
}

// happen does what happens to a student in a week.
func (m *Making) happen(ctx context.Context, st student, week int) error {
	for _, e := range st.events {
		at := m.from.AddDate(0, 0, 7*(week-Weeks+m.weeks)).Add(time.Hour)
		if e.week != week || at.Before(m.from) {
			continue
		}
		if e.hurts != "" {
			report := practice.HandReport{Kind: practice.IsHurt, Aches: []practice.Place{"forearm"}, Text: e.hurts}
			if err := m.store.AddHandReport(ctx, id("pain "+st.name), id(st.name), at, report); err != nil {
				return err
			}
			continue
		}
		if err := m.set(ctx, st, e, at); err != nil {
			return err
		}
	}
	return nil
}

// set puts a student on a rung, once.
func (m *Making) set(ctx context.Context, st student, e event, at time.Time) error {
	a, err := m.store.Assign(ctx, id(st.drills[0].drill), id(st.name))
	if err != nil {
		return err
	}
	s, err := m.store.Stand(ctx, a)
	if err != nil {
		return err
	}
	rung := tempo.Rung{BPM: e.bpm, NotesPerBeat: s.Rung.NotesPerBeat}
	return once(m.store.SetRungThen(ctx, a, 1, at, rung, e.reason))
}
