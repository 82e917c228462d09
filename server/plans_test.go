package server_test

import (
	"context"
	"encoding/csv"
	"net/http"
	"slices"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/api"
	"manudrill/core/evenness"
	"manudrill/core/guitar"
	"manudrill/core/plan"
	"manudrill/core/practice"
	"manudrill/core/progress"
	"manudrill/core/tempo"
	"manudrill/store"
	"manudrill/storetest"
)

// today is the day it is by the clock of the tests' studio.
func (h *house) today(t *testing.T) time.Time {
	t.Helper()
	day, err := h.kept.Today(storetest.In(t.Context()))
	require.NoError(t, err)
	return day
}

// everyDay are settings with practice on all days from one on, so that today has some.
func everyDay(begins time.Time, drills ...uuid.UUID) plan.Settings {
	s := plan.Usual(begins)
	s.Days = []int{1, 2, 3, 4, 5, 6, 7}
	s.Rules = map[plan.RuleID]plan.Setting{plan.RestDays: {Off: true}}
	for _, d := range drills {
		s.Drills = append(s.Drills, d.String())
	}
	return s
}

func planPath(p store.Person) string { return "/students/" + p.ID.String() + "/plan" }

// playedOn lets a student have played a take at a rung on a day, by its figures alone.
func (h *house) playedOn(t *testing.T, a api.Assignment, at time.Time, bpm, spread float64) uuid.UUID {
	t.Helper()
	ctx := storetest.In(t.Context())
	stand, err := h.kept.Stand(ctx, a.Id)
	require.NoError(t, err)
	rung := tempo.Rung{BPM: bpm, NotesPerBeat: 2}
	chart, err := stand.File.Value.At(rung).Chart(guitar.Standard(), bpm)
	require.NoError(t, err)
	id := uuid.New()
	require.NoError(t, h.kept.HandIn(ctx, store.HandIn{ID: id, AssignmentID: a.Id, Version: stand.Version, Rung: rung, Source: store.File, RecordedAt: at, Chart: chart},
		func(pgx.Tx) error { return nil }))
	found := evenness.Analysis{Tempo: evenness.Tempo{BPM: bpm}, Counts: evenness.Counts{Expected: 4, Played: 4}, Timing: evenness.Timing{SpreadPercent: spread},
		Passes: []evenness.Pass{{PassFigures: tempo.PassFigures{RightPercent: 100, SpreadPercent: spread}}, {Pass: 1, PassFigures: tempo.PassFigures{RightPercent: 100, SpreadPercent: spread}}}}
	require.NoError(t, h.kept.Measured(ctx, id, store.Measurement{Analysis: found, Seconds: 60, Listener: 1}))
	return id
}

// A plan is drafted, kept, seen by the student and run by the stand, in the positions it
// says; a drill that the student did not have is given with it.
func TestAPlanFromDraftToStand(t *testing.T) {
	h := newHouse(t)
	mira := h.newStudent(t, "Mira")
	a, other := h.assigned(t, someDrill(), mira), h.assigned(t, longer(), ben)
	c := h.as(t, teacher)
	var draft api.SavedPlan
	c.ok(http.MethodGet, planPath(mira), nil, &draft)
	assert.Zero(t, draft.Revision)
	assert.Equal(t, []string{a.DrillId.String()}, draft.Settings.Drills, "what the student has is there to begin with")
	var nothing api.SavedPlan
	h.as(t, mira).ok(http.MethodGet, planPath(mira), nil, &nothing)
	assert.Empty(t, nothing.Plan.Weeks, "the student does not see a draft")

	day := h.today(t)
	body := api.PlanChange{Settings: everyDay(day, a.DrillId, other.DrillId)}
	var made plan.Plan
	c.ok(http.MethodPost, planPath(mira)+"/made", body, &made)
	assert.Len(t, made.Weeks, 4)
	var saved api.SavedPlan
	c.on(0).ok(http.MethodPut, planPath(mira), body, &saved)
	assert.Equal(t, made, saved.Plan)
	assert.Equal(t, []any{1, teacher.Name}, []any{saved.Revision, saved.Author})

	student := h.as(t, mira)
	var mine api.SavedPlan
	student.ok(http.MethodGet, planPath(mira), nil, &mine)
	assert.Equal(t, saved.Plan, mine.Plan)
	assert.Len(t, mine.Exercises, 2, "both are the student's now")
	var run api.PlanDayStands
	student.ok(http.MethodGet, planPath(mira)+"/days/"+day.Format(time.DateOnly), nil, &run)
	assert.Empty(t, run.Routine.Routine.Check())
	planned, _ := saved.Plan.Day(day)
	for _, line := range planned.Lines {
		if line.Kind == plan.Resting {
			continue
		}
		i := slices.IndexFunc(run.Stands, func(s api.Stand) bool {
			own := s.Position == nil && s.Drill.Path.Position == line.Position
			return s.Assignment.DrillId.String() == line.Drill && (own || s.Position != nil && *s.Position == line.Position)
		})
		require.GreaterOrEqual(t, i, 0, "%+v lies on no stand", line)
		assert.Equal(t, line.Position, run.Stands[i].Drill.Path.Position)
	}

	// A take in another position is one of the same drill, and is kept as it was played.
	moved := run.Stands[slices.IndexFunc(run.Stands, func(s api.Stand) bool { return s.Position != nil })]
	var direct api.Stand
	student.ok(http.MethodGet, "/assignments/"+moved.Assignment.Id.String()+"?position=9", nil, &direct)
	assert.Equal(t, 9, *direct.Position)
	var far api.Stand
	student.ok(http.MethodGet, "/assignments/"+a.Id.String()+"?position=24", nil, &far)
	assert.Nil(t, far.Position, "where it does not fit it lies where it always does")

	student.ok(http.MethodGet, planPath(mira)+"/days/2001-01-01", nil, &run)
	assert.Empty(t, run.Routine.Routine.Items)
	student.fails(http.StatusNotFound, http.MethodGet, planPath(mira)+"/days/2026-02-31", nil)
}

// A take that was played in another position is measured against what was played.
func TestATakeInAnotherPosition(t *testing.T) {
	h := newHouse(t)
	a := h.assigned(t, someDrill(), ann)
	file := someDrill()
	file.Drill = file.Drill.InPosition(9)
	var take api.Take
	h.as(t, ann).ok(http.MethodPut, takePath(a, uuid.New(), 100)+"&position=9", played(t, file, 100, steady).EncodeWAV(), &take)
	chart, err := file.Drill.Chart(guitar.Standard(), 100)
	require.NoError(t, err)
	require.NotNil(t, take.Analysis)
	assert.False(t, take.Analysis.Foreign)
	assert.Equal(t, chart.Notes[0].Fret, take.Chart.Notes[0].Fret)
	assert.Equal(t, len(take.Analysis.Notes), take.Analysis.Counts.Played)
}

// Two instructors change one plan: the second is told, whichever comes second.
func TestTwoInstructorsEditOnePlan(t *testing.T) {
	h := newHouse(t)
	mira := h.newStudent(t, "Mira")
	a := h.assigned(t, someDrill(), mira)
	body := api.PlanChange{Settings: everyDay(h.today(t), a.DrillId)}
	h.as(t, teacher).on(0).ok(http.MethodPut, planPath(mira), body, nil)
	statuses := make([]int, 4)
	var wg sync.WaitGroup
	for i := range statuses {
		c := h.as(t, teacher).on(1)
		own := body
		own.Settings.MinutesADay = 20 + i
		wg.Go(func() { statuses[i], _ = c.do(http.MethodPut, planPath(mira), own) })
	}
	wg.Wait()
	slices.Sort(statuses)
	assert.Equal(t, []int{200, 412, 412, 412}, statuses)
}

// A drill that is deleted meanwhile is left out of what is given and of what is played;
// the plan stays, and can be kept again.
func TestADrillDeletedFromAPlanThatUsesIt(t *testing.T) {
	h := newHouse(t)
	mira := h.newStudent(t, "Mira")
	a, gone := h.assigned(t, someDrill(), mira), h.assigned(t, longer(), mira)
	c := h.as(t, teacher)
	body := api.PlanChange{Settings: everyDay(h.today(t), a.DrillId, gone.DrillId)}
	var saved api.SavedPlan
	c.on(0).ok(http.MethodPut, planPath(mira), body, &saved)
	c.ok(http.MethodDelete, "/drills/"+gone.DrillId.String(), nil, nil)
	var run api.PlanDayStands
	h.as(t, mira).ok(http.MethodGet, planPath(mira)+"/days/"+h.today(t).Format(time.DateOnly), nil, &run)
	for _, s := range run.Stands {
		assert.Equal(t, a.DrillId, s.Assignment.DrillId)
	}
	body.Plan = &saved.Plan
	c.on(1).ok(http.MethodPut, planPath(mira), body, &saved)
	assert.NotContains(t, saved.Plan.Drills(), gone.DrillId.String())
}

// Assigned, played and deleted at once: whatever comes first, the plan can be read.
func TestAPlanKeptWhileItsDrillIsDeleted(t *testing.T) {
	h := newHouse(t)
	for range 5 {
		mira := h.newStudent(t, "Mira")
		a := h.assigned(t, someDrill(), ben)
		body := api.PlanChange{Settings: everyDay(h.today(t), a.DrillId)}
		c, d := h.as(t, teacher).on(0), h.as(t, teacher)
		var wg sync.WaitGroup
		var put int
		wg.Go(func() { put, _ = c.do(http.MethodPut, planPath(mira), body) })
		wg.Go(func() { d.do(http.MethodDelete, "/drills/"+a.DrillId.String(), nil) })
		wg.Wait()
		assert.Contains(t, []int{200, 404}, put)
		var saved api.SavedPlan
		d.ok(http.MethodGet, planPath(mira), nil, &saved)
	}
}

// Pain empties what is to come at once, whatever was kept, and the plan is full again
// when an instructor says so.
func TestPainEmptiesTodaysRoutine(t *testing.T) {
	h := newHouse(t)
	mira := h.newStudent(t, "Mira")
	a := h.assigned(t, someDrill(), mira)
	c, student := h.as(t, teacher), h.as(t, mira)
	c.on(0).ok(http.MethodPut, planPath(mira), api.PlanChange{Settings: everyDay(h.today(t), a.DrillId)}, nil)
	day := planPath(mira) + "/days/" + h.today(t).Format(time.DateOnly)
	var run api.PlanDayStands
	student.ok(http.MethodGet, day, nil, &run)
	assert.NotEmpty(t, run.Routine.Routine.Items)
	student.ok(http.MethodPut, "/students/"+mira.ID.String()+"/hand/"+uuid.NewString(), practice.HandReport{Kind: practice.IsHurt}, nil)
	student.ok(http.MethodGet, day, nil, &run)
	assert.Empty(t, run.Routine.Routine.Items)
	var made plan.Plan
	c.ok(http.MethodPost, planPath(mira)+"/made", api.PlanChange{Settings: everyDay(h.today(t), a.DrillId)}, &made)
	assert.Empty(t, made.Drills())
	c.ok(http.MethodPost, "/students/"+mira.ID.String()+"/hand/clear", nil, nil)
	student.ok(http.MethodGet, day, nil, &run)
	assert.NotEmpty(t, run.Routine.Routine.Items)
}

// Each week the plan is made anew from what happened: read by the student, who may not
// write, just as well. Past days, and those changed by hand, stay.
func TestAPlanIsMadeAnewEachWeek(t *testing.T) {
	h := newHouse(t)
	mira := h.newStudent(t, "Mira")
	a := h.assigned(t, someDrill(), mira)
	ctx := storetest.In(t.Context())
	begins := progress.Monday(h.today(t)).AddDate(0, 0, -14)
	settings := everyDay(begins, a.DrillId)
	old := plan.Make(settings, plan.Facts{Today: begins})
	past := plan.Line{Kind: plan.Playing, Drill: a.DrillId.String(), Name: "as it was", Seconds: 300}
	old.Weeks[0].Days[1].Lines = []plan.Line{past}
	old.Weeks[3].Days[6] = plan.Day{Date: old.Weeks[3].Days[6].Date, Lines: []plan.Line{past}, ByHand: true}
	require.NoError(t, h.kept.PutPlan(ctx, mira.ID, 0, settings, old, begins, nil))

	var saved api.SavedPlan
	h.as(t, mira).ok(http.MethodGet, planPath(mira), nil, &saved)
	assert.Equal(t, 2, saved.Revision)
	assert.Equal(t, []plan.Line{past}, saved.Plan.Weeks[0].Days[1].Lines)
	assert.Equal(t, []plan.Line{past}, saved.Plan.Weeks[3].Days[6].Lines)
	day, _ := saved.Plan.Day(h.today(t))
	assert.NotEmpty(t, day.Lines, "what is to come is laid out")
	h.as(t, mira).ok(http.MethodGet, planPath(mira), nil, &saved)
	assert.Equal(t, 2, saved.Revision, "once a week is enough")
}

func TestAPlanIsTakenAwayAndBroughtBack(t *testing.T) {
	h := newHouse(t)
	mira := h.newStudent(t, "Mira")
	a := h.assigned(t, someDrill(), mira)
	c := h.as(t, teacher)
	var saved, back api.SavedPlan
	c.on(0).ok(http.MethodPut, planPath(mira), api.PlanChange{Settings: everyDay(h.today(t), a.DrillId)}, &saved)
	c.ok(http.MethodDelete, planPath(mira), nil, nil)
	c.fails(http.StatusNotFound, http.MethodDelete, planPath(mira), nil)
	c.ok(http.MethodPost, planPath(mira)+"/restore", nil, nil)
	c.ok(http.MethodGet, planPath(mira), nil, &back)
	assert.Equal(t, saved.Plan, back.Plan)
	c.ok(http.MethodDelete, planPath(mira), nil, nil)
	c.on(0).ok(http.MethodPut, planPath(mira), api.PlanChange{Settings: everyDay(h.today(t), a.DrillId)}, nil)
}

// Given to others, a plan is laid out for each: who hurts has an empty one, who cannot be
// found is told.
func TestAPlanIsGivenToOthers(t *testing.T) {
	h := newHouse(t)
	mira, otto, hurt := h.newStudent(t, "Mira"), h.newStudent(t, "Otto"), h.newStudent(t, "Hurt")
	a := h.assigned(t, someDrill(), mira)
	c := h.as(t, teacher)
	require.NoError(t, h.kept.AddHandReport(storetest.In(t.Context()), uuid.New(), hurt.ID, time.Now().Add(-time.Hour), practice.HandReport{Kind: practice.IsHurt}))
	settings := everyDay(h.today(t), a.DrillId)
	settings.Goals = []plan.Goal{{Drill: a.DrillId.String(), Rung: tempo.Rung{BPM: 120, NotesPerBeat: 2}, By: h.today(t).AddDate(0, 0, 60)}}
	c.on(0).ok(http.MethodPut, planPath(mira), api.PlanChange{Settings: settings}, nil)
	stranger := uuid.New()
	var out api.SpreadPlan200JSONResponse
	c.ok(http.MethodPost, "/plans/spread", map[string]any{"from": mira.ID, "to": []uuid.UUID{mira.ID, otto.ID, hurt.ID, stranger}}, &out)
	assert.ElementsMatch(t, []uuid.UUID{otto.ID, hurt.ID}, out.Given)
	require.Len(t, out.Failed, 1)
	assert.Equal(t, stranger, out.Failed[0].StudentId)
	var got api.SavedPlan
	c.ok(http.MethodGet, planPath(otto), nil, &got)
	assert.Equal(t, []string{a.DrillId.String()}, got.Plan.Drills())
	assert.Empty(t, got.Settings.Goals, "goals are each one's own")
	c.ok(http.MethodGet, planPath(hurt), nil, &got)
	assert.Empty(t, got.Plan.Drills())
}

// After a gap the ladder restarts lower, once, with its reason.
func TestAPlanRestartsTheLadderLower(t *testing.T) {
	h := newHouse(t)
	mira := h.newStudent(t, "Mira")
	a := h.assigned(t, someDrill(), mira)
	long := time.Now().AddDate(0, 0, -40)
	h.playedOn(t, a, long, 100, 2)
	h.playedOn(t, a, long.Add(time.Hour), 110, 2)
	c := h.as(t, teacher)
	var stand api.Stand
	c.ok(http.MethodGet, "/assignments/"+a.Id.String(), nil, &stand)
	require.Equal(t, 120.0, stand.Assignment.Rung.BPM)
	body := api.PlanChange{Settings: everyDay(h.today(t), a.DrillId)}
	var saved api.SavedPlan
	c.on(0).ok(http.MethodPut, planPath(mira), body, &saved)
	c.on(1).ok(http.MethodPut, planPath(mira), body, &saved)
	c.ok(http.MethodGet, "/assignments/"+a.Id.String(), nil, &stand)
	assert.Equal(t, 100.0, stand.Assignment.Rung.BPM, "two rungs, however often it is kept")
	assert.Contains(t, stand.Assignment.Set.Reason, "After 5 weeks away")
}

func TestPlansThatAreRefused(t *testing.T) {
	h := newHouse(t)
	mira := h.newStudent(t, "Mira")
	a := h.assigned(t, someDrill(), mira)
	c := h.as(t, teacher).on(0)
	for name, change := range map[string]func(*plan.Settings){
		"zero minutes": func(s *plan.Settings) { s.MinutesADay = 0 },
		"dates that cross": func(s *plan.Settings) {
			s.Goals = []plan.Goal{{Drill: a.DrillId.String(), Rung: tempo.Rung{BPM: 100, NotesPerBeat: 2}, By: s.Begins.AddDate(0, 0, -1)}}
		},
		"no such rule": func(s *plan.Settings) { s.Rules = map[plan.RuleID]plan.Setting{"luck": {}} },
	} {
		s := everyDay(h.today(t), a.DrillId)
		change(&s)
		p := c.fails(http.StatusUnprocessableEntity, http.MethodPut, planPath(mira), api.PlanChange{Settings: s})
		assert.NotEmpty(t, p.Errors, name)
	}
	odd := plan.Make(everyDay(h.today(t), a.DrillId), plan.Facts{Today: h.today(t)})
	odd.Weeks[0].Days[3].Lines = []plan.Line{{Kind: plan.Playing, Drill: a.DrillId.String(), Seconds: 1}}
	c.fails(http.StatusUnprocessableEntity, http.MethodPut, planPath(mira), api.PlanChange{Settings: everyDay(h.today(t), a.DrillId), Plan: &odd})
	h.as(t, mira).fails(http.StatusForbidden, http.MethodPut, planPath(mira), api.PlanChange{Settings: everyDay(h.today(t), a.DrillId)})
}

// A day is one by the studio's clock: what is played at half past eleven in the evening in
// Auckland is of that day, though it is another one in UTC. Days do not double or go
// missing when the clocks change.
func TestDaysAreTheStudios(t *testing.T) {
	h := newHouse(t)
	studio := uuid.New()
	require.NoError(t, h.kept.AddStudio(t.Context(), studio, "Far away"))
	boss := store.Person{ID: uuid.New(), Name: "Orla", Role: store.Owner, Demo: true}
	pupil := store.Person{ID: uuid.New(), Name: "Piri", Role: store.Student, Demo: true}
	ctx := store.Within(context.Background(), store.Scope{Studio: studio, Actor: boss})
	require.NoError(t, h.kept.AddPerson(ctx, boss))
	require.NoError(t, h.kept.AddPerson(ctx, pupil))
	c := h.as(t, boss)
	c.on(1).fails(http.StatusUnprocessableEntity, http.MethodPut, "/studio", map[string]any{"name": "Far away", "timeZone": "Middle/Earth"})
	var st api.Studio
	c.on(1).ok(http.MethodPut, "/studio", map[string]any{"name": "Far away", "timeZone": "Pacific/Auckland"}, &st)
	assert.Equal(t, "Pacific/Auckland", st.TimeZone)

	drill := uuid.New()
	require.NoError(t, h.kept.AddDrill(ctx, drill, someDrill(), store.Shelf{}))
	id, err := h.kept.Assign(ctx, drill, pupil.ID)
	require.NoError(t, err)
	zone, err := time.LoadLocation("Pacific/Auckland")
	require.NoError(t, err)
	// The clocks went back there on 5 April 2026, a Sunday of 25 hours.
	for _, at := range []time.Time{
		time.Date(2026, 4, 4, 23, 30, 0, 0, zone), time.Date(2026, 4, 5, 0, 30, 0, 0, zone), time.Date(2026, 4, 5, 23, 30, 0, 0, zone), time.Date(2026, 4, 6, 0, 30, 0, 0, zone),
	} {
		stand, err := h.kept.Stand(ctx, id)
		require.NoError(t, err)
		chart, err := stand.File.Value.At(stand.Rung).Chart(guitar.Standard(), stand.Rung.BPM)
		require.NoError(t, err)
		take := uuid.New()
		require.NoError(t, h.kept.HandIn(ctx, store.HandIn{ID: take, AssignmentID: id, Version: 1, Rung: stand.Rung, Source: store.File, RecordedAt: at, Chart: chart}, func(pgx.Tx) error { return nil }))
		require.NoError(t, h.kept.Measured(ctx, take, store.Measurement{Seconds: 30}))
	}
	stand, err := h.kept.Stand(ctx, id)
	require.NoError(t, err)
	record, _, err := h.kept.Record(ctx, stand.Assignment)
	require.NoError(t, err)
	var days []string
	for _, d := range record.Days {
		for range d.Takes {
			days = append(days, d.Date.Format(time.DateOnly))
		}
	}
	assert.Equal(t, []string{"2026-04-04", "2026-04-05", "2026-04-05", "2026-04-06"}, days)
	assert.Len(t, record.Weeks(), 0, "takes without a pass do not count")
}

// The glance puts first who needs help first, and leads to the take that shows it.
func TestTheGlance(t *testing.T) {
	h := newHouse(t)
	group := uuid.New()
	steadyOne, hurt, none := h.newStudent(t, "Steady"), h.newStudent(t, "Hurt"), h.newStudent(t, "Nothing")
	ctx := storetest.In(t.Context())
	require.NoError(t, h.kept.PutGroup(ctx, store.Group{ID: group, Name: "Glanced " + group.String(), Students: []uuid.UUID{steadyOne.ID, hurt.ID, none.ID}}))
	a := h.assigned(t, someDrill(), steadyOne)
	sinceMidnight := time.Since(h.today(t))
	worst := h.playedOn(t, a, h.today(t).Add(sinceMidnight/3), 100, 9)
	h.playedOn(t, a, h.today(t).Add(sinceMidnight/2), 100, 3)
	h.assigned(t, someDrill(), hurt)
	require.NoError(t, h.kept.AddHandReport(ctx, uuid.New(), hurt.ID, time.Now().Add(-time.Hour), practice.HandReport{Kind: practice.IsHurt}))
	var g api.Glance
	h.as(t, teacher).ok(http.MethodGet, "/glance?groupId="+group.String(), nil, &g)
	require.Len(t, g.Students, 3)
	assert.Equal(t, []string{"Hurt", "Steady", "Nothing"}, []string{g.Students[0].Person.Name, g.Students[1].Person.Name, g.Students[2].Person.Name})
	assert.Equal(t, progress.InPain, g.Students[0].Needs[0].Why)
	drill := g.Students[1].Drills[0]
	assert.Equal(t, &worst, drill.ShowsTake)
	assert.Equal(t, progress.Few, drill.State.Finding.Kind)
	assert.Equal(t, []time.Time{h.today(t)}, g.Students[1].Days)
	assert.Equal(t, []api.GlanceCount{{Why: "pain", N: 1}, {Why: "well", N: 2}}, g.Counts)
	var well api.Glance
	h.as(t, teacher).ok(http.MethodGet, "/glance?why=well&order=name&words=STEA&groupId="+group.String(), nil, &well)
	require.Len(t, well.Students, 1)
	assert.Equal(t, "Steady", well.Students[0].Person.Name)
	h.as(t, ben).fails(http.StatusForbidden, http.MethodGet, "/glance", nil)

	var o progress.Overview
	h.as(t, steadyOne).ok(http.MethodGet, "/students/"+steadyOne.ID.String()+"/overview?weeks=4", nil, &o)
	assert.Len(t, o.Weeks, 4)
	assert.Equal(t, 2, o.Weeks[3].Days[0].Takes)
	h.as(t, ben).fails(http.StatusNotFound, http.MethodGet, "/students/"+steadyOne.ID.String()+"/overview", nil)
}

// A take waits until it is reviewed; with it those before it do; the student is told and
// has read it once the take was open. Taken back, it waits again.
func TestReviews(t *testing.T) {
	h := newHouse(t)
	mira := h.newStudent(t, "Mira")
	a := h.assigned(t, someDrill(), mira)
	h.playedOn(t, a, time.Now().Add(-3*time.Hour), 100, 9)
	latest := h.playedOn(t, a, time.Now().Add(-2*time.Hour), 100, 3)
	c, student := h.as(t, teacher), h.as(t, mira)
	waits := func() *api.WaitingTake {
		var all []api.WaitingTake
		c.ok(http.MethodGet, "/reviews", nil, &all)
		for _, w := range all {
			if w.Student.Id == mira.ID {
				return &w
			}
		}
		return nil
	}
	w := waits()
	require.NotNil(t, w)
	assert.Equal(t, []any{latest, 2}, []any{w.TakeId, w.Takes})
	c.ok(http.MethodPut, "/takes/"+latest.String()+"/review", map[string]any{"accepted": true, "note": "Even."}, nil)
	assert.Nil(t, waits())
	var unread []api.UnreadReview
	student.ok(http.MethodGet, "/reviews/unread", nil, &unread)
	require.Len(t, unread, 1)
	assert.Equal(t, []any{"Even.", true, teacher.Name}, []any{unread[0].Review.Note, unread[0].Review.Accepted, unread[0].Review.Author})
	student.ok(http.MethodPost, "/takes/"+latest.String()+"/read", nil, nil)
	student.ok(http.MethodGet, "/reviews/unread", nil, &unread)
	assert.Empty(t, unread)

	next := h.playedOn(t, a, time.Now().Add(-time.Hour), 110, 3)
	assert.Equal(t, next, waits().TakeId)
	assert.Equal(t, 1, waits().Takes)
	c.ok(http.MethodDelete, "/takes/"+latest.String()+"/review", nil, nil)
	assert.Equal(t, 3, waits().Takes)
	c.fails(http.StatusNotFound, http.MethodDelete, "/takes/"+latest.String()+"/review", nil)
	student.fails(http.StatusForbidden, http.MethodPut, "/takes/"+latest.String()+"/review", map[string]any{"accepted": true})
}

// Two reviews of one take at once leave one; a take handed in meanwhile waits.
func TestTwoReviewOneTake(t *testing.T) {
	h := newHouse(t)
	mira := h.newStudent(t, "Mira")
	a := h.assigned(t, someDrill(), mira)
	take := h.playedOn(t, a, time.Now().Add(-time.Hour), 100, 3)
	var wg sync.WaitGroup
	for i := range 4 {
		c := h.as(t, teacher)
		wg.Go(func() { c.do(http.MethodPut, "/takes/"+take.String()+"/review", map[string]any{"accepted": i%2 == 0}) })
	}
	later := make(chan uuid.UUID, 1)
	wg.Go(func() { later <- h.playedOn(t, a, time.Now(), 110, 3) })
	wg.Wait()
	var all []api.WaitingTake
	h.as(t, teacher).ok(http.MethodGet, "/reviews", nil, &all)
	i := slices.IndexFunc(all, func(w api.WaitingTake) bool { return w.Student.Id == mira.ID })
	require.GreaterOrEqual(t, i, 0)
	assert.Equal(t, <-later, all[i].TakeId)
}

func TestLessons(t *testing.T) {
	h := newHouse(t)
	mira := h.newStudent(t, "Mira")
	a := h.assigned(t, someDrill(), mira)
	best := h.playedOn(t, a, time.Now().Add(-30*time.Hour), 100, 2)
	worst := h.playedOn(t, a, time.Now().Add(-2*time.Hour), 110, 14)
	c := h.as(t, teacher)
	path := "/students/" + mira.ID.String() + "/lesson"
	var l api.Lesson
	c.ok(http.MethodGet, path, nil, &l)
	assert.Equal(t, h.today(t).AddDate(0, 0, -7), l.Since)
	assert.Len(t, l.Said, 3)
	require.Len(t, l.Hear, 2)
	assert.Equal(t, []uuid.UUID{best, worst}, []uuid.UUID{l.Hear[0].Id, l.Hear[1].Id})
	assert.Empty(t, l.Notes)

	note := path + "s/" + uuid.NewString()
	c.on(0).ok(http.MethodPut, note, map[string]any{"text": "Slower."}, nil)
	c.on(0).ok(http.MethodPut, note, map[string]any{"text": "Slower."}, nil) // sent twice
	c.on(1).ok(http.MethodPut, note, map[string]any{"text": "Slower, and closer."}, nil)
	c.on(1).fails(http.StatusPreconditionFailed, http.MethodPut, note, map[string]any{"text": "Faster."})
	c.ok(http.MethodGet, path, nil, &l)
	require.Len(t, l.Notes, 1)
	assert.Equal(t, []any{"Slower, and closer.", teacher.Name}, []any{l.Notes[0].Text, l.Notes[0].Author})
	assert.Equal(t, h.today(t).AddDate(0, 0, -7), l.Since, "today's note is of today's lesson")
	before := l.Notes[0]
	c.ok(http.MethodDelete, note, nil, nil)
	c.fails(http.StatusNotFound, http.MethodDelete, note, nil)
	c.on(2).ok(http.MethodPut, note, map[string]any{"text": before.Text}, nil)
	c.ok(http.MethodGet, path, nil, &l)
	require.Len(t, l.Notes, 1)
	assert.Equal(t, []any{before.At, before.Author}, []any{l.Notes[0].At, l.Notes[0].Author}, "had back, it is of the lesson it was of")
	h.as(t, mira).fails(http.StatusForbidden, http.MethodGet, path, nil)
	empty := h.newStudent(t, "New")
	c.ok(http.MethodGet, "/students/"+empty.ID.String()+"/lesson", nil, &l)
	assert.Equal(t, "Nothing was played in 7 days.", l.Said[0])
	assert.Empty(t, l.Hear)
}

// A plan leaves as iCalendar, and under an address that whoever knows it may read, until
// it is revoked or another is made.
func TestAPlanInCalendars(t *testing.T) {
	h := newHouse(t)
	mira := h.newStudent(t, "Mira")
	a := h.assigned(t, someDrill(), mira)
	h.as(t, teacher).on(0).ok(http.MethodPut, planPath(mira), api.PlanChange{Settings: everyDay(h.today(t), a.DrillId)}, nil)
	student, nobody := h.as(t, mira), h.visitor(t)
	status, file := student.do(http.MethodGet, planPath(mira)+".ics", nil)
	assert.Equal(t, http.StatusOK, status)
	assert.Contains(t, string(file), "DTSTART;VALUE=DATE:"+h.today(t).Format("20060102"))
	var address struct{ Path string }
	student.ok(http.MethodPost, planPath(mira)+"/address", nil, &address)
	path := strings.TrimPrefix(address.Path, "/api")
	status, same := nobody.do(http.MethodGet, path, nil)
	assert.Equal(t, []any{http.StatusOK, string(file)}, []any{status, string(same)})
	first := path
	student.ok(http.MethodPost, planPath(mira)+"/address", nil, &address)
	nobody.fails(http.StatusNotFound, http.MethodGet, first, nil)
	student.ok(http.MethodDelete, planPath(mira)+"/address", nil, nil)
	nobody.fails(http.StatusNotFound, http.MethodGet, strings.TrimPrefix(address.Path, "/api"), nil)
	h.as(t, ben).fails(http.StatusNotFound, http.MethodPost, planPath(mira)+"/address", nil)
}

func TestThePracticeLog(t *testing.T) {
	h := newHouse(t)
	mira := h.newStudent(t, "Mira")
	a := h.assigned(t, someDrill(), mira)
	h.playedOn(t, a, time.Now().Add(-time.Hour), 100, 3)
	status, file := h.as(t, mira).do(http.MethodGet, "/students/"+mira.ID.String()+"/practice.csv", nil)
	assert.Equal(t, http.StatusOK, status)
	rows, err := csv.NewReader(strings.NewReader(strings.TrimPrefix(string(file), "\ufeff"))).ReadAll()
	require.NoError(t, err)
	require.Len(t, rows, 2)
	assert.Equal(t, []string{h.today(t).Format(time.DateOnly), "pairs", "1", "1", "1", "60", "0", "110", "2", "3"}, rows[1])
	h.as(t, ben).fails(http.StatusNotFound, http.MethodGet, "/students/"+mira.ID.String()+"/practice.csv", nil)
}

// All takes are in the table, more than a page of them, the latest first; of one that is
// not measured nothing is said.
func TestTakesAsATable(t *testing.T) {
	h := newHouse(t)
	mira := h.newStudent(t, "Mira")
	a := h.assigned(t, someDrill(), mira)
	for i := range 3 {
		h.playedOn(t, a, time.Now().Add(-time.Duration(i+2)*time.Hour), 100+float64(i), 3)
	}
	waiting := uuid.New()
	chart, err := someDrill().Drill.Chart(guitar.Standard(), 100)
	require.NoError(t, err)
	require.NoError(t, h.kept.HandIn(storetest.In(t.Context()), store.HandIn{ID: waiting, AssignmentID: a.Id, Version: 1, Rung: tempo.Rung{BPM: 90, NotesPerBeat: 2}, Source: store.File,
		RecordedAt: time.Now().Add(-time.Hour), Chart: chart, Sound: strings.NewReader("fLaC, nearly"), Hash: waiting[:]}, func(pgx.Tx) error { return nil }))
	status, file := h.as(t, mira).do(http.MethodGet, "/students/"+mira.ID.String()+"/takes.csv", nil)
	assert.Equal(t, http.StatusOK, status)
	rows, err := csv.NewReader(strings.NewReader(strings.TrimPrefix(string(file), "\ufeff"))).ReadAll()
	require.NoError(t, err)
	require.Len(t, rows, 5)
	assert.Equal(t, []string{"pairs", "90", "2", "file", "waiting", "", "", "", "", "no", ""}, rows[1][1:])
	assert.Equal(t, []string{"pairs", "100", "2"}, rows[2][1:4])
	assert.Equal(t, []string{"pairs", "102", "2"}, rows[4][1:4])
	assert.Equal(t, "yes", rows[2][10])
	h.as(t, ben).fails(http.StatusNotFound, http.MethodGet, "/students/"+mira.ID.String()+"/takes.csv", nil)
}

// A student's level is the instructors' word; left out, there is none.
func TestALevel(t *testing.T) {
	h := newHouse(t)
	mira := h.newStudent(t, "Mira")
	change := map[string]any{"name": "Mira", "email": "", "note": "", "consent": false, "consentBy": "", "groups": []any{}, "level": "advanced"}
	path := "/people/" + mira.ID.String()
	var m, none api.Member
	h.as(t, teacher).on(1).ok(http.MethodPut, path, change, &m)
	assert.Equal(t, api.Advanced, *m.Level)
	change["level"] = "genius"
	h.as(t, teacher).on(2).fails(http.StatusBadRequest, http.MethodPut, path, change)
	delete(change, "level")
	h.as(t, teacher).on(2).ok(http.MethodPut, path, change, &none)
	assert.Nil(t, none.Level)
}
