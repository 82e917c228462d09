package server_test

import (
	"net/http"
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/api"
	"manudrill/core/practice"
	"manudrill/store"
	"manudrill/storetest"
)

func (h *house) newStudent(t *testing.T, name string) store.Person {
	t.Helper()
	p := store.Person{ID: uuid.New(), Name: name, Role: store.Student, Demo: true}
	require.NoError(t, h.kept.AddPerson(storetest.In(t.Context()), p))
	return p
}

// An instructor composes, the student has the drills and all that is needed to play
// them; what is taken back meanwhile is left out.
func TestARoutineFromMakingToPlaying(t *testing.T) {
	h := newHouse(t)
	mira := h.newStudent(t, "Mira")
	a := h.assigned(t, someDrill(), ben) // of Ben's, which Mira does not have yet
	routine := practice.Routine{Name: "Monday", Note: "Slowly.", Items: []practice.Item{
		{Kind: practice.Play, Drill: a.DrillId.String(), Enough: &practice.Enough{By: practice.ByTakes, Count: 2}}, {Kind: practice.Rest, Seconds: 30},
	}}
	id := uuid.New()
	path := "/students/" + mira.ID.String() + "/routines/" + id.String()
	var saved api.SavedRoutine
	h.as(t, teacher).on(0).ok(http.MethodPut, path, routine, &saved)
	assert.Equal(t, routine, saved.Routine)
	assert.Equal(t, teacher.Name, saved.Author)
	require.Len(t, saved.Drills, 1)
	assert.Equal(t, a.DrillName, saved.Drills[0].Name)

	c := h.as(t, mira)
	var stands []api.Stand
	c.ok(http.MethodGet, "/routines/"+id.String()+"/stands", nil, &stands)
	require.Len(t, stands, 1)
	assert.Equal(t, mira.ID, stands[0].Assignment.Student.Id)
	chart, err := stands[0].Drill.Divided(stands[0].Assignment.Rung.NotesPerBeat).Chart(stands[0].Guitar, stands[0].Assignment.Rung.BPM)
	require.NoError(t, err)
	assert.Equal(t, stands[0].Chart, chart, "the device can write the next rung out by itself")
	// Two takes, four clicks before each, a second around and four to read; and the rest.
	perTake := chart.TakeSeconds() + 4*60/chart.BPM + 1
	assert.InDelta(t, 2*(perTake+4)+30, saved.Seconds, 1e-9)

	h.as(t, teacher).ok(http.MethodDelete, "/assignments/"+saved.Drills[0].AssignmentId.String(), nil, nil)
	c.ok(http.MethodGet, "/routines/"+id.String()+"/stands", nil, &stands)
	assert.Empty(t, stands)
	var all []api.SavedRoutine
	c.ok(http.MethodGet, "/students/"+mira.ID.String()+"/routines", nil, &all)
	require.Len(t, all, 1)
	assert.Empty(t, all[0].Drills)
}

func TestRoutinesThatAreRefused(t *testing.T) {
	h := newHouse(t)
	mira := h.newStudent(t, "Mira")
	a := h.assigned(t, someDrill(), mira)
	item := func(drill string, count int) practice.Item {
		return practice.Item{Kind: practice.Play, Drill: drill, Enough: &practice.Enough{By: practice.ByTakes, Count: count}}
	}
	path := "/students/" + mira.ID.String() + "/routines/" + uuid.NewString()
	c := h.as(t, teacher).on(0)
	for name, r := range map[string]practice.Routine{
		"nothing to play": {Name: "x", Items: []practice.Item{{Kind: practice.Rest, Seconds: 30}}},
		"no takes":        {Name: "x", Items: []practice.Item{item(a.DrillId.String(), 0)}},
		"no id":           {Name: "x", Items: []practice.Item{item("the first", 1)}},
	} {
		p := c.fails(http.StatusUnprocessableEntity, http.MethodPut, path, r)
		assert.NotEmpty(t, p.Errors, name)
	}
	c.fails(http.StatusNotFound, http.MethodPut, path, practice.Routine{Name: "x", Items: []practice.Item{item(uuid.NewString(), 1)}})
	h.as(t, teacher).fails(http.StatusNotFound, http.MethodPost, path+"/ready/fame", nil)
}

// What ships is given with its drills; given to two, the drills are there once, and one
// that an instructor has changed stays changed.
func TestReadyRoutinesAreGiven(t *testing.T) {
	h := newHouse(t)
	c := h.as(t, teacher)
	for _, ready := range practice.ReadyRoutines() {
		drills := map[uuid.UUID]bool{}
		for _, p := range []store.Person{h.newStudent(t, "Mira"), h.newStudent(t, "Otto")} {
			path := "/students/" + p.ID.String() + "/routines/" + uuid.NewString() + "/ready/" + ready.ID
			var saved, again api.SavedRoutine
			c.ok(http.MethodPost, path, nil, &saved)
			require.Len(t, saved.Drills, len(ready.Drills), ready.ID)
			for _, d := range saved.Drills {
				drills[d.DrillId] = true
			}
			c.ok(http.MethodPost, path, nil, &again)
			assert.Equal(t, saved, again, "a click that comes twice makes one")
			var stands []api.Stand
			h.as(t, p).ok(http.MethodGet, "/routines/"+saved.Id.String()+"/stands", nil, &stands)
			assert.Len(t, stands, len(ready.Drills))
		}
		assert.Len(t, drills, len(ready.Drills), ready.ID)
	}
}
