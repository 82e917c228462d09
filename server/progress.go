package server

import (
	"cmp"
	"context"
	"slices"
	"strings"
	"time"

	"github.com/google/uuid"

	"manudrill/api"
	"manudrill/core/plan"
	"manudrill/core/progress"
	"manudrill/store"
)

// GetGlance tells of students who needs help first, and why.
func (s *Server) GetGlance(ctx context.Context, r api.GetGlanceRequestObject) (api.GetGlanceResponseObject, error) {
	asked := store.GlanceAsked{Group: r.Params.GroupId, Order: store.GlanceOrder(valueOr(r.Params.Order, "need")), After: valueOr(r.Params.After, 0),
		Words: strings.Fields(strings.ToLower(valueOr(r.Params.Words, "")))}
	if r.Params.Why != nil {
		why := strings.TrimPrefix(string(*r.Params.Why), "well") // of whom nothing is said
		asked.Why = &why
	}
	g, err := s.store.Glance(ctx, asked)
	if err != nil {
		return nil, err
	}
	out := api.Glance{Today: g.Today, Counts: []api.GlanceCount{}, Students: each(g.Students, func(one store.Glanced) api.GlanceStudent { return glanced(one, g.Today) })}
	for _, why := range append(progress.PressingWhys(), "") {
		if n := g.Counts[why]; n > 0 {
			out.Counts = append(out.Counts, api.GlanceCount{Why: api.GlanceWhy(cmp.Or(why, "well")), N: n})
		}
	}
	return api.GetGlance200JSONResponse(out), nil
}

// stateOf is a stored state; nil for none, and for one that cannot be read: the next
// take makes it anew.
func stateOf(stored *store.Lenient[progress.State]) *progress.State {
	if stored == nil || stored.Odd != nil {
		return nil
	}
	return &stored.Value
}

// isBeyond reports whether a student has passed a goal since the plan was laid out: they
// stand on a faster rung, or have reached the target.
func isBeyond(g store.Glanced, goal plan.Said) bool {
	return slices.ContainsFunc(g.Drills, func(d store.GlancedDrill) bool {
		state := stateOf(d.State)
		reached := state != nil && state.Finding.Kind == progress.Reached
		return d.Name == goal.Name && (reached || d.Rung.NotesPerSecond() > goal.Rung.NotesPerSecond())
	})
}

func glanced(g store.Glanced, today time.Time) api.GlanceStudent {
	drills := each(g.Drills, func(d store.GlancedDrill) progress.Drill {
		return progress.Drill{Name: d.Name, State: stateOf(d.State)}
	})
	out := api.GlanceStudent{
		Person: personOf(g.Person), Needs: progress.NeedsOf(g.Hurt, drills, today), Days: notNil(g.Dates), Due: []string{},
		Drills: each(g.Drills, func(d store.GlancedDrill) api.GlanceDrill {
			out := api.GlanceDrill{AssignmentId: d.Assignment, Name: d.Name, Rung: d.Rung, ShowsTake: d.ShowsTake, Waits: d.Waits}
			if state := stateOf(d.State); state != nil {
				out.State = &api.GlanceState{Finding: state.Finding.On(today), OfGate: state.OfGate, Weakest: state.Weakest}
			}
			return out
		}),
	}
	// Of who is in pain nothing is asked, whatever was planned before.
	if g.Due != nil && g.Due.Odd == nil && !g.Hurt {
		out.Due = g.Due.Value.Without(func(goal plan.Said) bool { return isBeyond(g, goal) }).On(today, g.Dates)
	}
	return out
}

// overviewWeeks is how many weeks are looked over where nobody says: half a year.
const overviewWeeks = 26

// GetOverview tells how it went with a student over weeks.
func (s *Server) GetOverview(ctx context.Context, r api.GetOverviewRequestObject) (api.GetOverviewResponseObject, error) {
	if _, err := s.store.Person(ctx, r.StudentId); err != nil {
		return nil, err // who may not see the student
	}
	today, err := s.store.Today(ctx)
	if err != nil {
		return nil, err
	}
	weeks := valueOr(r.Params.Weeks, overviewWeeks)
	played, err := s.playedDrills(ctx, r.StudentId, today, weeks)
	if err != nil {
		return nil, err
	}
	hurt, err := s.store.Hurts(ctx, r.StudentId)
	return api.GetOverview200JSONResponse(progress.OverviewOf(hurt, played, today, weeks)), err
}

// playedDrills are those that a student has, or had in so many weeks up to today, with
// what was played of them.
func (s *Server) playedDrills(ctx context.Context, student uuid.UUID, today time.Time, weeks int) ([]progress.PlayedDrill, error) {
	had, err := s.store.HadDrills(ctx, student, today, weeks)
	if err != nil {
		return nil, err
	}
	rows, err := s.store.StudentWeeks(ctx, student, today, weeks)
	if err != nil {
		return nil, err
	}
	of := map[uuid.UUID][]progress.PlayedWeek{}
	for _, w := range rows {
		of[w.Assignment] = append(of[w.Assignment], progress.PlayedWeek{Begins: w.Begins, Days: w.Days.Value, Sums: w.Sums.Value})
	}
	return each(had, func(d store.HadDrill) progress.PlayedDrill {
		state := stateOf(d.State)
		if state != nil {
			state.Finding = state.Finding.On(today)
		}
		return progress.PlayedDrill{ID: d.Assignment.String(), Name: d.Name, Rungs: d.Ladder.Value.Rungs(d.Division), Gate: d.GateNow(), State: state, Weeks: of[d.Assignment]}
	}), nil
}

// GetEverybody looks over the takes of all who have a drill.
func (s *Server) GetEverybody(ctx context.Context, r api.GetEverybodyRequestObject) (api.GetEverybodyResponseObject, error) {
	if _, err := s.store.Drill(ctx, r.DrillId); err != nil {
		return nil, err
	}
	seen, err := s.store.TakesOfEverybody(ctx, r.DrillId)
	return api.GetEverybody200JSONResponse(progress.EverybodyOf(each(seen, func(t store.SeenTake) progress.Seen { return progress.Seen(t) }))), err
}
