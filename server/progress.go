package server

import (
	"context"
	"slices"
	"time"

	"github.com/google/uuid"

	"manudrill/api"
	"manudrill/core/progress"
	"manudrill/store"
)

// GetGlance tells of all students who needs help first, and why.
func (s *Server) GetGlance(ctx context.Context, r api.GetGlanceRequestObject) (api.GetGlanceResponseObject, error) {
	today, err := s.store.Today(ctx)
	if err != nil {
		return nil, err
	}
	students, err := s.store.Glance(ctx, r.Params.GroupId)
	if err != nil {
		return nil, err
	}
	type looked struct {
		student api.GlanceStudent
		drills  []progress.Drill
	}
	all := each(students, func(g store.Glanced) looked {
		drills := each(g.Drills, func(d store.GlancedDrill) progress.Drill {
			return progress.Drill{Name: d.Name, State: stateOf(d.State)}
		})
		return looked{glanced(g, progress.NeedsOf(g.HurtSince != nil, drills, today), today), drills}
	})
	slices.SortStableFunc(all, func(a, b looked) int { return progress.Pressing(a.student.Needs, b.student.Needs, a.drills, b.drills) })
	return api.GetGlance200JSONResponse{
		Today: today, More: len(all) == store.MaxGlanced, Students: each(all, func(l looked) api.GlanceStudent { return l.student }),
	}, nil
}

// stateOf is a stored state; nil for none, and for one that cannot be read: the next
// take makes it anew.
func stateOf(stored *store.Lenient[progress.State]) *progress.State {
	if stored == nil || stored.Odd != nil {
		return nil
	}
	return &stored.Value
}

// glanceDays is how many days back a look tells on which was played.
const glanceDays = 14

func glanced(g store.Glanced, needs []progress.Need, today time.Time) api.GlanceStudent {
	return api.GlanceStudent{
		Person: personOf(g.Person), Groups: notNil(g.Groups), HurtSince: g.HurtSince, Needs: needs, Days: daysOf(g.Drills, today),
		Drills: each(g.Drills, func(d store.GlancedDrill) api.GlanceDrill {
			out := api.GlanceDrill{AssignmentId: d.Assignment, Name: d.Name, Rung: d.Rung, ShowsTake: d.ShowsTake, Waits: d.Waits}
			if state := stateOf(d.State); state != nil {
				state.Finding = state.Finding.On(today)
				out.State = state
			}
			return out
		}),
	}
}

// daysOf are the last days on which any of some drills was played.
func daysOf(drills []store.GlancedDrill, today time.Time) []time.Time {
	days := []time.Time{}
	for _, d := range drills {
		if state := stateOf(d.State); state != nil {
			for _, day := range state.Days {
				if today.Sub(day) < glanceDays*24*time.Hour && !slices.ContainsFunc(days, day.Equal) {
					days = append(days, day)
				}
			}
		}
	}
	slices.SortFunc(days, time.Time.Compare)
	return days
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
