package demo

import (
	"context"
	"errors"
	"fmt"
	"sync"
	"time"

	"github.com/google/uuid"

	"manudrill/server"
	"manudrill/store"
)

// Weeks is how far back the demo's takes go.
const Weeks = 6

// practiceDays are the days of a week with a take, and how late in the day.
var practiceDays = []time.Duration{0*24 + 18, 2*24 + 20, 5*24 + 11}

// fact is where the studio keeps how far its demo has been made: when its making
// was begun, or that it is complete.
const (
	fact     = "demo"
	complete = "complete"
)

// Studio is the demo's.
var Studio = id("studio")

const studioName = "Fernwick Guitar"

// Load makes a studio with the invented people, their drills and the takes of so
// many weeks before now. A house that has studios of its own is left as it is; a
// demo whose making was cut off is made to its end. progress is told how many takes
// are done.
func Load(ctx context.Context, s *store.Store, weeks int, now time.Time, progress func(done, all int)) error {
	begun, err := begin(ctx, s, now)
	if err != nil || begun.IsZero() {
		return err
	}
	if err := s.AddStudio(ctx, Studio, studioName); err != nil {
		return err
	}
	ctx = store.Within(ctx, store.Scope{Studio: Studio})
	if err := s.AddPerson(ctx, store.Person{ID: id("instructor"), Name: instructor, Role: store.Owner, Demo: true}); err != nil {
		return err
	}
	for _, d := range drills {
		if err := s.AddDrill(ctx, id(d.Drill.Name), d.File, d.shelf); err != nil {
			return err
		}
	}
	l := loader{store: s, weeks: weeks, from: begun.Truncate(24*time.Hour).AddDate(0, 0, -7*weeks), progress: progress}
	for _, st := range students {
		l.all += len(st.drills) * weeks * len(practiceDays)
	}
	if err := l.students(ctx); err != nil {
		return err
	}
	if err := house(ctx, s); err != nil {
		return err
	}
	return s.SetFact(ctx, fact, complete)
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

type loader struct {
	store    *store.Store
	weeks    int
	from     time.Time
	progress func(done, all int)

	mu        sync.Mutex
	done, all int
}

// students lets all students practise at once: listening takes the time.
func (l *loader) students(ctx context.Context) error {
	faults := make([]error, len(students))
	var wg sync.WaitGroup
	for i, st := range students {
		wg.Go(func() { faults[i] = l.student(ctx, st) })
	}
	wg.Wait()
	return errors.Join(faults...)
}

func (l *loader) student(ctx context.Context, st student) error {
	s := l.store
	if err := s.AddPerson(ctx, store.Person{ID: id(st.name), Name: st.name, Role: store.Student, Demo: true}); err != nil {
		return err
	}
	for _, g := range st.drills {
		assignment, err := s.Assign(ctx, id(g.drill), id(st.name))
		if err != nil {
			return err
		}
		for take := range l.weeks * len(practiceDays) {
			if err := l.take(ctx, st, g, assignment, take); err != nil {
				return fmt.Errorf("demo take %d of %s by %s: %w", take, g.drill, st.name, err)
			}
		}
	}
	return nil
}

// take plays one take at the tempo the takes before it have reached.
func (l *loader) take(ctx context.Context, st student, g given, assignment uuid.UUID, n int) error {
	a, err := l.store.Stand(ctx, assignment)
	if err != nil {
		return err
	}
	week, day := n/len(practiceDays), n%len(practiceDays)
	speed := a.Rung.NotesPerSecond()
	takeID := id(fmt.Sprint(st.name, a.DrillName, n))
	seed := uint64(takeID[0])<<8 | uint64(takeID[1])
	err = server.SimulatedTake{
		ID: takeID, Assignment: assignment, Player: st.player(g, week, speed, seed),
		RecordedAt: l.from.AddDate(0, 0, 7*week).Add(practiceDays[day] * time.Hour),
	}.Make(ctx, l.store)
	l.mu.Lock()
	defer l.mu.Unlock()
	l.done++
	l.progress(l.done, l.all)
	return err
}
