package server

import (
	"context"
	"errors"
	"math"
	"slices"
	"time"

	"github.com/google/uuid"

	"manudrill/api"
	"manudrill/core/drill"
	"manudrill/core/drill/chart"
	"manudrill/core/drill/review"
	"manudrill/core/plan"
	"manudrill/core/practice"
	"manudrill/core/progress"
	"manudrill/core/setup"
	"manudrill/core/tempo"
	"manudrill/formats/drillfile"
	"manudrill/store"
)

// GetPlan returns a student's plan. What was made in an earlier week is made anew first,
// from what really happened. Who teaches sees a draft where there is none yet.
func (s *Server) GetPlan(ctx context.Context, r api.GetPlanRequestObject) (api.GetPlanResponseObject, error) {
	saved, err := s.savedPlan(ctx, r.StudentId)
	return api.GetPlan200JSONResponse(saved), err
}

func (s *Server) savedPlan(ctx context.Context, student uuid.UUID) (api.SavedPlan, error) {
	if _, err := s.store.Person(ctx, student); err != nil {
		return api.SavedPlan{}, err // who may not see the student
	}
	var drills []string
	if kept, err := s.store.Plan(ctx, student); err == nil {
		drills = kept.Settings.Value.Drills
	}
	k, err := s.known(ctx, student, drills)
	if err != nil {
		return api.SavedPlan{}, err
	}
	kept, err := s.keptPlan(ctx, k)
	if err != nil {
		return api.SavedPlan{}, err
	}
	if !here(ctx).Teaches() { // what is in the library is the instructors'
		k.drills = slices.DeleteFunc(k.drills, func(d knownDrill) bool { return !d.Given })
	}
	out := api.SavedPlan{
		Settings: kept.Settings.Value, Plan: kept.Plan.Value, Revision: kept.Revision, Author: kept.Author, Today: k.today, Hurts: k.hurts,
		Rules: plan.Rules(), Exercises: each(k.drills, exerciseOf), Played: k.playedSince(kept.Settings.Value.Begins),
	}
	return out, nil
}

// keptPlan is a student's plan as it is now.
func (s *Server) keptPlan(ctx context.Context, k known) (store.Plan, error) {
	kept, err := s.store.Plan(ctx, k.student)
	switch {
	case errors.Is(err, store.ErrNotFound):
		kept = store.Plan{StudentID: k.student}
		kept.Settings.Value = plan.Usual(k.today)
		kept.Plan.Value = plan.Plan{Weeks: []plan.Week{}, Lower: []plan.Lower{}, Said: []string{}, Goals: []plan.Said{}}
		if here(ctx).Teaches() {
			kept.Settings.Value.Drills = k.given()
			kept.Plan.Value, err = s.made(ctx, k, kept.Settings.Value, nil)
			return kept, err
		}
		return kept, nil
	case err != nil:
		return kept, err
	case kept.Settings.Odd != nil || kept.Plan.Odd != nil:
		return kept, errOdd
	case !kept.MadeOn.Before(progress.Monday(k.today)) && kept.Plan.Value.Hurt == k.hurts:
		return kept, nil
	}
	made, err := s.made(ctx, k, kept.Settings.Value, &kept.Plan.Value)
	if err != nil {
		return kept, err
	}
	// Whoever asks may be the student, who may not write: the week does.
	house := store.Within(ctx, store.Scope{Studio: here(ctx).StudioID})
	if err := s.store.Replan(house, k.student, kept.Revision, made, k.today); err != nil {
		return kept, err
	}
	return s.store.Plan(ctx, k.student)
}

// MakePlan lays a plan out without keeping it.
func (s *Server) MakePlan(ctx context.Context, r api.MakePlanRequestObject) (api.MakePlanResponseObject, error) {
	if err := checkedPlan(r.Body); err != nil {
		return nil, err
	}
	k, err := s.known(ctx, r.StudentId, r.Body.Settings.Drills)
	if err != nil {
		return nil, err
	}
	made, err := s.made(ctx, k, r.Body.Settings, r.Body.Plan)
	return api.MakePlan200JSONResponse(made), err
}

func checkedPlan(c *api.PlanChange) error {
	faults := c.Settings.Check()
	if c.Plan != nil {
		faults = append(faults, c.Plan.CheckDays()...)
	}
	if len(faults) > 0 {
		return faults
	}
	return nil
}

// PutPlan keeps a plan.
func (s *Server) PutPlan(ctx context.Context, r api.PutPlanRequestObject) (api.PutPlanResponseObject, error) {
	if err := checkedPlan(r.Body); err != nil {
		return nil, err
	}
	k, err := s.known(ctx, r.StudentId, r.Body.Settings.Drills)
	if err != nil {
		return nil, err
	}
	if err := s.keepPlan(ctx, k, r.Params.IfMatch, r.Body.Settings, r.Body.Plan); err != nil {
		return nil, err
	}
	saved, err := s.savedPlan(ctx, r.StudentId)
	return api.PutPlan200JSONResponse(saved), err
}

// keepPlan lays a plan out, with what is kept of the days before, and keeps it.
func (s *Server) keepPlan(ctx context.Context, k known, from int, settings plan.Settings, before *plan.Plan) error {
	made, err := s.made(ctx, k, settings, before)
	if err != nil {
		return err
	}
	drills, err := k.playable(made)
	if err != nil {
		return err
	}
	if err := s.store.PutPlan(ctx, k.student, from, settings, made, k.today, drills); err != nil {
		return err
	}
	return s.restartLower(ctx, k, made.Lower)
}

// made lays a plan out by its rules, with what is to be kept of another.
func (s *Server) made(ctx context.Context, k known, settings plan.Settings, before *plan.Plan) (plan.Plan, error) {
	facts, err := s.facts(ctx, k, settings)
	if err != nil {
		return plan.Plan{}, err
	}
	made := plan.Make(settings, facts)
	if before != nil {
		made = plan.Again(made, *before, k.today)
	}
	return made, nil
}

// restartLower sets the rungs of a student lower who was long away, unless somebody has
// set them since.
func (s *Server) restartLower(ctx context.Context, k known, lower []plan.Lower) error {
	for _, l := range lower {
		i := slices.IndexFunc(k.drills, func(d knownDrill) bool { return d.Drill == l.Drill })
		if i < 0 || k.drills[i].assignment == uuid.Nil {
			continue
		}
		a, err := s.store.Stand(ctx, k.drills[i].assignment)
		if err != nil {
			return err
		}
		rungs := a.Rungs()
		place := rungs.Place(a.Rung)
		if a.Set != nil || len(rungs) == 0 || place == 0 {
			continue
		}
		rung := rungs[max(0, min(place, len(rungs)-1)-l.Rungs)]
		if err := s.store.SetRung(ctx, a.ID, a.Revision, rung, nil, l.Reason); err != nil && !errors.Is(err, store.ErrChanged) {
			return err
		}
	}
	return nil
}

// DeletePlan takes a plan away.
func (s *Server) DeletePlan(ctx context.Context, r api.DeletePlanRequestObject) (api.DeletePlanResponseObject, error) {
	return api.DeletePlan204Response{}, s.store.DeletePlan(ctx, r.StudentId)
}

// RestorePlan brings a plan back.
func (s *Server) RestorePlan(ctx context.Context, r api.RestorePlanRequestObject) (api.RestorePlanResponseObject, error) {
	return api.RestorePlan204Response{}, s.store.RestorePlan(ctx, r.StudentId)
}

// SpreadPlan gives a student's plan to others, laid out for each of them.
func (s *Server) SpreadPlan(ctx context.Context, r api.SpreadPlanRequestObject) (api.SpreadPlanResponseObject, error) {
	from, err := s.store.Plan(ctx, r.Body.From)
	if err != nil {
		return nil, err
	}
	if from.Settings.Odd != nil || from.Plan.Odd != nil {
		return nil, errOdd
	}
	out := api.SpreadPlan200JSONResponse{Given: []uuid.UUID{}, Failed: []api.NotSpread{}}
	for _, student := range r.Body.To {
		if student == r.Body.From {
			continue
		}
		switch err := s.spreadTo(ctx, student, from); {
		case err == nil:
			out.Given = append(out.Given, student)
		case ctx.Err() != nil:
			return nil, ctx.Err()
		default:
			out.Failed = append(out.Failed, api.NotSpread{StudentId: student, Why: problemOf(err).detail})
		}
	}
	return out, nil
}

// spreadTo gives a plan to another student, in place of the one they have. Goals are each
// student's own.
func (s *Server) spreadTo(ctx context.Context, student uuid.UUID, from store.Plan) error {
	k, err := s.known(ctx, student, from.Settings.Value.Drills)
	if err != nil {
		return err
	}
	settings := from.Settings.Value
	settings.Goals = []plan.Goal{}
	revision := 0
	if has, err := s.store.Plan(ctx, student); err == nil {
		revision, settings.Goals = has.Revision, has.Settings.Value.Goals
	} else if !errors.Is(err, store.ErrNotFound) {
		return err
	}
	return s.keepPlan(ctx, k, revision, settings, &from.Plan.Value)
}

// GetPlanDay returns a day of a plan as the stand runs it.
func (s *Server) GetPlanDay(ctx context.Context, r api.GetPlanDayRequestObject) (api.GetPlanDayResponseObject, error) {
	date, err := time.Parse(time.DateOnly, r.Date)
	if err != nil {
		return nil, errMissing
	}
	student, err := s.store.Person(ctx, r.StudentId)
	if err != nil {
		return nil, err
	}
	kept, err := s.store.Plan(ctx, r.StudentId)
	if err != nil {
		return nil, err
	}
	day, is := kept.Plan.Value.Day(date)
	hurts, err := s.store.Hurts(ctx, r.StudentId)
	if err != nil {
		return nil, err
	}
	if !is || hurts {
		day = plan.Day{Date: date}
	}
	routine := store.Routine{
		ID: uuid.NewSHA1(r.StudentId, []byte(r.Date)), Student: student, Revision: kept.Revision, Author: kept.Author, ChangedAt: kept.MadeOn,
		Routine: store.Lenient[practice.Routine]{Value: day.Routine(date.Format("Monday, 2 January"))},
	}
	stands, err := s.standsOf(ctx, r.StudentId, routine)
	if err != nil {
		return nil, err
	}
	out := api.GetPlanDay200JSONResponse{Routine: routineOf(routine, stands), Stands: []api.Stand{}}
	seen := map[practice.Item]bool{}
	for _, item := range routine.Routine.Value.Items {
		key := practice.Item{Drill: item.Drill, Position: item.Position}
		at := slices.IndexFunc(stands, func(a store.Stand) bool { return a.DrillID.String() == item.Drill && a.File.Odd == nil })
		if at < 0 || seen[key] {
			continue
		}
		seen[key] = true
		laid, err := s.laid(ctx, stands[at], &item.Position)
		if _, faulty := err.(drill.Faults); faulty {
			continue
		}
		if err != nil {
			return nil, err
		}
		out.Stands = append(out.Stands, laid)
	}
	return out, nil
}

// A knownDrill is one of the studio as a plan for a student looks at it.
type knownDrill struct {
	plan.Exercise
	assignment uuid.UUID // Nil where the student never had it
	rungs      tempo.Rungs
	faults     drill.Faults // it cannot be played on the student's guitar
}

// known is what a plan for a student rests on.
type known struct {
	student uuid.UUID
	today   time.Time
	hurts   bool
	drills  []knownDrill
	weeks   []store.StudentWeek
}

// planDrills is how many drills of the studio a plan looks at, those changed last.
const planDrills = store.MaxPage

// known looks at the drills of the studio for a student: at those that they have, and those
// that are wanted, closely.
func (s *Server) known(ctx context.Context, student uuid.UUID, drills []string) (known, error) {
	k := known{student: student}
	var err error
	if k.today, err = s.store.Today(ctx); err != nil {
		return k, err
	}
	if k.hurts, err = s.store.Hurts(ctx, student); err != nil {
		return k, err
	}
	setup, err := s.setupFor(ctx, &student)
	if err != nil {
		return k, err
	}
	states, err := s.store.DrillStates(ctx, student)
	if err != nil {
		return k, err
	}
	all, err := s.store.Drills(ctx, store.Page{Limit: planDrills})
	if err != nil {
		return k, err
	}
	for _, d := range all {
		if d.File.Odd == nil {
			k.drills = append(k.drills, knownOf(d, setup, states[d.ID], slices.Contains(drills, d.ID.String()) || states[d.ID].Assignment != uuid.Nil && !states[d.ID].Ended))
		}
	}
	k.weeks, err = s.store.StudentWeeks(ctx, student, k.today, plan.MaxWeeks)
	return k, err
}

// knownOf looks at a drill; where it fits only of one that is wanted, for that takes time.
func knownOf(d store.Drill, setup setup.Setup, state store.DrillState, wanted bool) knownDrill {
	file := d.File.Value
	out := knownDrill{assignment: state.Assignment, rungs: file.Rungs()}
	first := tempo.Rung{BPM: tempo.Usual().StartBPM, NotesPerBeat: max(1, file.Drill.Rhythm.NotesPerBeat)}
	if len(out.rungs) > 0 {
		first = out.rungs[0]
	}
	out.faults = file.Check(setup.Guitar)
	written, err := file.At(first).ChartFor(setup.Guitar, setup.Hand, first.BPM)
	if err != nil {
		written = chart.Chart{}
	}
	out.Exercise = plan.ExerciseOf(d.ID.String(), d.Name, written)
	out.Given = state.Assignment != uuid.Nil && !state.Ended
	out.Position, out.State = file.Drill.Path.Position, stateOf(state.State)
	out.Lowest, out.Highest = out.Position, out.Position
	if len(out.faults) == 0 && wanted {
		out.Lowest, out.Highest = room(file, setup, first)
	}
	if st := out.State; st != nil && st.Finding.Kind == progress.Reached {
		out.Mastered = st.Finding.Since
	}
	return out
}

// highestMoved is up to where a plan moves a drill: beyond it the body of most guitars is
// in the way.
const highestMoved = 12

// room is from where to where on the neck a drill can be moved for a hand: the same shape
// is wider near the nut, so that from the lowest that fits on all others do.
func room(file drillfile.File, setup setup.Setup, at tempo.Rung) (lowest, highest int) {
	own := file.Drill.Path.Position
	fits := func(position int) bool {
		_, misfit := review.MisfitOf(file.At(at).InPosition(position), setup, at.BPM)
		return !misfit
	}
	lowest, highest = own, own
	if !fits(own) {
		return own, own
	}
	for low, high := 1, own; low < high; {
		middle := (low + high) / 2
		if fits(middle) {
			high = middle
		} else {
			low = middle + 1
		}
		lowest = high
	}
	for p := highestMoved; p > own; p-- {
		if fits(p) {
			return lowest, p
		}
	}
	return lowest, highest
}

// given are the ids of the drills that the student has.
func (k known) given() []string {
	ids := []string{}
	for _, d := range k.drills {
		if d.Given && len(ids) < plan.MaxDrills {
			ids = append(ids, d.Drill)
		}
	}
	return ids
}

// playable are the drills of a plan that can be given to the student: those that are
// deleted are left out, and one that cannot be played on the guitar is told.
func (k known) playable(p plan.Plan) ([]uuid.UUID, error) {
	var ids []uuid.UUID
	for _, text := range p.Drills() {
		i := slices.IndexFunc(k.drills, func(d knownDrill) bool { return d.Drill == text })
		if i < 0 {
			continue
		}
		if len(k.drills[i].faults) > 0 {
			return nil, drill.Faults{{Field: "drills", Text: k.drills[i].Name + ": " + k.drills[i].faults[0].Text}}
		}
		id, err := uuid.Parse(text)
		if err != nil {
			continue
		}
		ids = append(ids, id)
	}
	return ids, nil
}

// playedSince is what was played on each day since one.
func (k known) playedSince(begins time.Time) []api.PlayedDrill {
	drills := map[uuid.UUID]uuid.UUID{}
	for _, d := range k.drills {
		if id, err := uuid.Parse(d.Drill); err == nil && d.assignment != uuid.Nil {
			drills[d.assignment] = id
		}
	}
	out := []api.PlayedDrill{}
	for _, w := range k.weeks {
		id, is := drills[w.Assignment]
		for _, d := range w.Days.Value {
			if is && !d.Date.Before(begins) {
				out = append(out, api.PlayedDrill{Date: d.Date, DrillId: id, Seconds: d.Seconds, Takes: d.Takes})
			}
		}
	}
	return out
}

// facts are what the rules of a plan look at.
func (s *Server) facts(ctx context.Context, k known, settings plan.Settings) (plan.Facts, error) {
	f := plan.Facts{Today: k.today, Hurt: k.hurts}
	for _, d := range k.drills {
		f.Exercises = append(f.Exercises, d.Exercise)
	}
	slurred := map[time.Time]float64{}
	for _, w := range k.weeks {
		for _, d := range w.Days.Value {
			if f.LastPlayed == nil || d.Date.After(*f.LastPlayed) {
				f.LastPlayed = &d.Date
			}
			if !d.Date.Before(settings.Begins) && !slices.ContainsFunc(f.Played, d.Date.Equal) {
				f.Played = append(f.Played, d.Date)
			}
			if k.today.Sub(w.Begins) < 5*7*24*time.Hour {
				slurred[w.Begins] += d.SlurSeconds
			}
		}
	}
	for _, seconds := range slurred {
		f.SlurSeconds = max(f.SlurSeconds, seconds)
	}
	forecasts := map[plan.Goal]plan.Forecast{}
	for _, g := range settings.Goals {
		forecast, err := s.forecast(ctx, k, g)
		if err != nil {
			return f, err
		}
		forecasts[g] = forecast
	}
	f.Forecast = func(g plan.Goal) plan.Forecast { return forecasts[g] }
	return f, nil
}

// forecast is what the record says of a goal.
func (s *Server) forecast(ctx context.Context, k known, g plan.Goal) (plan.Forecast, error) {
	i := slices.IndexFunc(k.drills, func(d knownDrill) bool { return d.Drill == g.Drill })
	if i < 0 || k.drills[i].assignment == uuid.Nil {
		return plan.Forecast{Why: "It cannot be said yet: nothing has been played."}, nil
	}
	a, err := s.store.Stand(ctx, k.drills[i].assignment)
	if err != nil {
		return plan.Forecast{}, err
	}
	record, _, err := s.store.Record(ctx, a.Assignment)
	if err != nil {
		return plan.Forecast{}, err
	}
	f := record.Forecast(g.Rung, k.today)
	out := plan.Forecast{Known: f.Known, Why: f.Text, Met: record.HasPassed(g.Rung), MinutesAWeek: record.MinutesAWeek(k.today)}
	if f.Known {
		out.Earliest, out.Latest = *f.Earliest, *f.Latest
	}
	out.MinutesAWeek = math.Round(out.MinutesAWeek)
	return out, nil
}

func exerciseOf(d knownDrill) api.PlanExercise {
	id, _ := uuid.Parse(d.Drill)
	rungs := []tempo.Rung(d.rungs)
	return api.PlanExercise{
		DrillId: id, Name: d.Name, Technique: api.PlanExerciseTechnique(d.Technique), Pairs: names(d.Pairs), Rank: d.Rank, Given: d.Given,
		Lowest: d.Lowest, Highest: d.Highest, Rungs: &rungs,
	}
}
