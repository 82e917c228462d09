package server_test

import (
	"net/http"
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/api"
	"manudrill/core/drill"
	"manudrill/core/setup"
	"manudrill/core/simulate"
	"manudrill/core/tempo"
	"manudrill/store"
	"manudrill/storetest"
)

func rungOf(bpm float64, notes int) map[string]any {
	return map[string]any{"bpm": bpm, "notesPerBeat": notes}
}

// A drill by doublings is played, measured and climbed at either division.
func TestClimbingByDoubling(t *testing.T) {
	h := newHouse(t)
	file := someDrill()
	file.Ladder.Rule, file.Ladder.Doublings, file.Ladder.StartBPM = tempo.ByDoubling, 1, 60
	a := h.assigned(t, file, ann)
	assert.Equal(t, api.Climb{First: tempo.Rung{BPM: 60, NotesPerBeat: 2}, Last: tempo.Rung{BPM: 60, NotesPerBeat: 4}, Rungs: 2, Mixed: true}, a.Climb)
	c := h.as(t, ann)
	var take api.Take
	c.ok(http.MethodPut, takePath(a, uuid.New(), 60), played(t, file, 60, steady).EncodeWAV(), &take)
	assert.Equal(t, tempo.Rung{BPM: 60, NotesPerBeat: 4}, take.Summary.Measured.Decision.Next, take.Summary.Measured.Decision.Reason)
	var stand api.Stand
	c.ok(http.MethodGet, "/assignments/"+a.Id.String(), nil, &stand)
	assert.Equal(t, 4, stand.Chart.NotesPerBeat)
	assert.Equal(t, 1, stand.Assignment.Climb.Below)

	twice := file
	twice.Drill = file.Drill.Divided(4)
	c.ok(http.MethodPut, takePath(a, uuid.New(), 60)+"&notesPerBeat=4", played(t, twice, 60, simulate.Player{Seed: 9, MotorMs: 2, NoiseDB: -70}).EncodeWAV(), &take)
	assert.Equal(t, 4, take.Chart.NotesPerBeat)
	assert.True(t, take.Summary.Measured.Decision.Reached, take.Summary.Measured.Decision.Reason)
	var page api.TrendPage
	c.ok(http.MethodGet, "/assignments/"+a.Id.String()+"/progress", nil, &page)
	assert.True(t, page.Trend.Mixed)
	assert.Equal(t, &tempo.Rung{BPM: 60, NotesPerBeat: 4}, page.Trend.Points[1].Passed)
}

// An instructor sets rung, gate and reason; the student sees who, why, and every
// move.
func TestARungIsSetByHand(t *testing.T) {
	h := newHouse(t)
	a := h.assigned(t, someDrill(), ann)
	path := "/assignments/" + a.Id.String() + "/rung"
	c := h.as(t, teacher)
	c.on(1).fails(http.StatusBadRequest, http.MethodPut, path, map[string]any{"rung": rungOf(80, 2), "reason": "  "})
	c.on(1).fails(http.StatusUnprocessableEntity, http.MethodPut, path, map[string]any{"rung": rungOf(800, 2), "reason": "fast"})
	c.on(1).fails(http.StatusUnprocessableEntity, http.MethodPut, path, map[string]any{"rung": rungOf(80, 5), "reason": "in five"})
	gate := a.Gate
	gate.SpreadPercent = 0
	c.on(1).fails(http.StatusUnprocessableEntity, http.MethodPut, path, map[string]any{"rung": rungOf(80, 2), "reason": "even", "gate": gate})
	gate.SpreadPercent = 5
	var set api.Assignment
	c.on(1).ok(http.MethodPut, path, map[string]any{"rung": rungOf(80, 2), "reason": "The wrist first.", "gate": gate}, &set)
	assert.True(t, set.OwnGate)
	c.on(1).fails(http.StatusPreconditionFailed, http.MethodPut, path, map[string]any{"rung": rungOf(90, 2), "reason": "in another window"})

	var stand api.Stand
	h.as(t, ann).ok(http.MethodGet, "/assignments/"+a.Id.String(), nil, &stand)
	assert.InDelta(t, 80, stand.Chart.BPM, 0)
	assert.Equal(t, []string{"Tess", "The wrist first."}, []string{stand.Assignment.Set.Author, stand.Assignment.Set.Reason})
	assert.InDelta(t, 5, stand.Assignment.Gate.SpreadPercent, 0)
	h.taken(t, a, ann, steady)
	var moves api.MovePage
	h.as(t, ann).ok(http.MethodGet, "/assignments/"+a.Id.String()+"/moves", nil, &moves)
	require.Len(t, moves.Items, 2)
	assert.NotNil(t, moves.Items[0].TakeId)
	assert.Equal(t, api.MoveStep("set"), moves.Items[1].Step)
	assert.Equal(t, "Tess", *moves.Items[1].Author)
	var lines api.AuditPage
	c.ok(http.MethodGet, "/audit?studentId="+ann.ID.String(), nil, &lines)
	assert.Equal(t, "set the rung of", lines.Items[0].Did)
}

// A student starts from the rung that was found on the stand: the fastest that is not
// above its range. A gate that was set stays; who has reported pain does not climb by it.
func TestAStudentStartsFromTheRungThatWasFound(t *testing.T) {
	h := newHouse(t)
	file := someDrill()
	file.Ladder = tempo.Usual()
	a := h.assigned(t, file, ben)
	path := "/assignments/" + a.Id.String()
	gate := a.Gate
	gate.SpreadPercent = 5
	h.as(t, teacher).on(1).ok(http.MethodPut, path+"/rung", map[string]any{"rung": rungOf(60, 2), "reason": "evenly", "gate": gate}, nil)
	found := map[string]any{"bpm": 90, "low": 87, "high": 96, "takes": 12, "notesPerBeat": 2}
	c := h.as(t, ben)
	var now api.Assignment
	c.on(2).ok(http.MethodPut, path+"/found", found, &now)
	assert.Equal(t, tempo.Rung{BPM: 84, NotesPerBeat: 2}, now.Rung)
	assert.True(t, now.OwnGate)
	assert.Equal(t, "Found on the stand. Clean at about 90 bpm (87 to 96), by 12 short takes.", now.Set.Reason)
	assert.Equal(t, ben.Name, now.Set.Author)
	c.on(2).fails(http.StatusPreconditionFailed, http.MethodPut, path+"/found", found)
	h.as(t, ann).on(3).fails(http.StatusNotFound, http.MethodPut, path+"/found", found)

	report := uuid.NewString()
	c.ok(http.MethodPut, "/students/"+ben.ID.String()+"/hand/"+report, map[string]any{"kind": "hurts"}, nil)
	defer h.as(t, teacher).ok(http.MethodPost, "/students/"+ben.ID.String()+"/hand/clear", nil, nil)
	found["bpm"], found["low"], found["high"] = 120, 116, 130
	p := c.on(3).fails(http.StatusConflict, http.MethodPut, path+"/found", found)
	assert.Contains(t, p.Detail, "until your instructor says so")
	found["bpm"], found["low"], found["high"] = 70, 66, 74
	c.on(3).ok(http.MethodPut, path+"/found", found, &now)
	assert.Equal(t, tempo.Rung{BPM: 64, NotesPerBeat: 2}, now.Rung, "down one may")
}

// What is played at a tempo of one's own is measured and kept, and moves nobody.
func TestATakeAtATempoOfOnesOwnCountsForNothing(t *testing.T) {
	h := newHouse(t)
	a := h.assigned(t, someDrill(), ben)
	var take api.Take
	h.as(t, ben).ok(http.MethodPut, takePath(a, uuid.New(), 50)+"&aside=ownTempo", played(t, someDrill(), 50, simulate.Player{Seed: 4, MotorMs: 2, NoiseDB: -70}).EncodeWAV(), &take)
	assert.Equal(t, tempo.OwnTempo, *take.Summary.Aside)
	d := take.Summary.Measured.Decision
	assert.False(t, d.Counts)
	assert.Equal(t, "At a tempo of your own choice: it counts for nothing.", d.Reason)
	assert.InDelta(t, 50, take.Chart.BPM, 0)
	var stand api.Stand
	h.as(t, ben).ok(http.MethodGet, "/assignments/"+a.Id.String(), nil, &stand)
	assert.Equal(t, a.Rung, stand.Assignment.Rung)
	assert.Empty(t, stand.Climbing.Results)
	var rising api.Take
	h.as(t, ben).ok(http.MethodPut, takePath(a, uuid.New(), 100)+"&rise=10", played(t, someDrill(), 100, simulate.Player{Seed: 5, MotorMs: 2, NoiseDB: -70}).EncodeWAV(), &rising)
	assert.Equal(t, tempo.OwnTempo, *rising.Summary.Aside, "a take that rises counts for nothing either")
	assert.InDelta(t, 10, rising.Chart.RiseBPM, 0)
	h.as(t, ben).fails(http.StatusBadRequest, http.MethodPut, takePath(a, uuid.New(), 50)+"&aside=tapped", []byte("x"))
}

// Some drills are assigned to some students at once. What cannot be played on whose
// guitar is not, and says from where it could; what a hand does not reach is told.
func TestAssigningManyAtOnce(t *testing.T) {
	h := newHouse(t)
	c := h.as(t, teacher)
	ids := map[string]uuid.UUID{}
	for name, position := range map[string]int{"low": 1, "high": 15} {
		file := someDrill()
		file.Drill.Pattern = drill.FingerPerFret{Orders: [][]int{{1, 2, 3, 4}}}
		file.Drill.Name, file.Drill.Path.Position = name, position
		var d api.SavedDrill
		c.ok(http.MethodPost, newly("/drills"), file, &d)
		ids[name] = d.Id
	}
	small := store.Person{ID: uuid.New(), Name: "Small", Role: store.Student, Demo: true}
	require.NoError(t, h.kept.AddPerson(storetest.In(t.Context()), small))
	setup := setup.Usual()
	setup.Guitar.Frets, setup.Hand = 14, map[string]float64{"12": 30, "23": 30, "34": 30, "13": 55, "24": 55, "14": 80}
	require.NoError(t, h.kept.ChangeSetup(storetest.In(t.Context()), small.ID, 1, setup))

	body := map[string]any{"drillIds": []uuid.UUID{ids["low"], ids["high"]}, "studentIds": []uuid.UUID{ben.ID, small.ID}}
	var misfits []api.Misfit
	c.ok(http.MethodPost, "/assignments/fit", body, &misfits)
	found := map[uuid.UUID]api.Misfit{}
	for _, m := range misfits {
		assert.Equal(t, small.ID, m.StudentId)
		found[m.DrillId] = m
	}
	require.Len(t, found, 2)
	assert.False(t, found[ids["low"]].Stops)
	assert.Contains(t, found[ids["low"]].Text, "It fits from position")
	assert.True(t, found[ids["high"]].Stops)
	assert.Contains(t, found[ids["high"]].Text, "Use position 11")

	var many api.ManyAssigned
	for range 2 { // twice is once
		many = api.ManyAssigned{}
		c.ok(http.MethodPost, "/assignments/many", body, &many)
	}
	assert.Equal(t, 3, many.Assigned)
	require.Len(t, many.Misfits, 1)
	var of api.AssignmentPage
	c.ok(http.MethodGet, "/assignments?studentId="+small.ID.String(), nil, &of)
	require.Len(t, of.Items, 1)
	assert.Equal(t, ids["low"], of.Items[0].DrillId)
}
