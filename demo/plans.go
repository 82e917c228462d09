package demo

import (
	"context"
	"errors"
	"slices"
	"time"

	"github.com/google/uuid"

	"manudrill/core/guitar"
	"manudrill/core/plan"
	"manudrill/core/progress"
	"manudrill/core/tempo"
	"manudrill/store"
)

// A planned student has a plan, which was begun two weeks ago.
type planned struct {
	name    string
	minutes int
	days    []int
	more    []string // drills of the plan that the student has not played yet
	goalBPM float64  // of the first drill, four notes a beat
}

var plans = []planned{
	{"Lena Quarrow", 20, []int{1, 3, 4, 6}, []string{"Diagonal up to the ninth fret", "Pull-off pairs 2-1, 4-2"}, 156},
	{"Finn Wexley", 15, []int{2, 5, 6}, []string{"Trill 1-2, doubled at one click"}, 0},
	{"Ishi Corvane", 15, []int{1, 2, 4, 5, 6}, nil, 135},
}

// lay gives the students their plans as they were made two weeks ago: the next look at
// one makes the rest of it anew from what has happened since.
func lay(ctx context.Context, s *store.Store, now time.Time) error {
	begun := progress.Monday(now.UTC().Truncate(24*time.Hour)).AddDate(0, 0, -14)
	var faults []error
	for _, p := range plans {
		settings := plan.Usual(begun)
		settings.Weeks, settings.MinutesADay, settings.Days = 6, p.minutes, p.days
		facts := plan.Facts{Today: begun}
		ids := []uuid.UUID{}
		for _, name := range append(drillsOf(p.name), p.more...) {
			e, err := exercise(name)
			if err != nil {
				return err
			}
			if !slices.Contains(p.more, name) {
				e.State = &progress.State{}
			}
			facts.Exercises = append(facts.Exercises, e)
			settings.Drills = append(settings.Drills, e.Drill)
			ids = append(ids, id(name))
		}
		if p.goalBPM > 0 {
			settings.Goals = []plan.Goal{{Drill: settings.Drills[0], Rung: tempo.Rung{BPM: p.goalBPM, NotesPerBeat: 4}, By: begun.AddDate(0, 0, 11*7)}}
		}
		faults = append(faults, once(s.PutPlan(ctx, id(p.name), 0, settings, plan.Make(settings, facts), begun, ids)))
	}
	return errors.Join(faults...)
}

func drillsOf(name string) (names []string) {
	for _, st := range students {
		if st.name == name {
			for _, g := range st.drills {
				names = append(names, g.drill)
			}
		}
	}
	return names
}

// exercise is a drill of the demo as a plan looks at it.
func exercise(name string) (plan.Exercise, error) {
	for _, d := range append(drills, doubling) {
		if d.Drill.Name != name {
			continue
		}
		chart, err := d.Drill.Chart(guitar.Standard(), d.Rungs()[0].BPM)
		e := plan.ExerciseOf(id(name).String(), name, chart)
		e.Position, e.Lowest, e.Highest, e.Given = d.Drill.Path.Position, 1, 12, true
		return e, err
	}
	return plan.Exercise{}, errors.New("there is no drill " + name)
}
