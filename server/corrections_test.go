package server_test

import (
	"net/http"
	"sync"
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/api"
	"manudrill/core/drill"
	"manudrill/core/evenness"
	"manudrill/core/follow"
	"manudrill/core/simulate"
	"manudrill/core/tempo"
)

// What was told of a take and was not so is said by student or teacher: verdict, figures and
// ladder follow, and come back where it is taken back. How often it happens is told without
// names.
func TestItWasNotSo(t *testing.T) {
	h := newHouse(t)
	a := h.assigned(t, longer(), ann)
	flawed := steady
	flawed.Course = []simulate.Act{{Kind: follow.Stop, Before: 20, Seconds: 2}}
	flawed.Miss = 4
	take := h.taken(t, a, ann, flawed)
	missed := -1
	for _, n := range take.Analysis.Notes {
		if n.Status == follow.Missed {
			missed = n.Index
		}
	}
	require.GreaterOrEqual(t, missed, 0)
	require.NotEmpty(t, take.Analysis.Course.Events)
	event := take.Analysis.Course.Events[0]
	path := "/takes/" + take.Summary.Id.String() + "/corrections/"
	wasPlayed := evenness.Correction{Of: evenness.OfNote, Kind: "missed", Index: missed}
	noStop := evenness.Correction{Of: evenness.OfEvent, Kind: string(event.Kind), Index: event.Before}

	var is api.Take
	first, second := uuid.NewString(), uuid.NewString()
	h.as(t, ann).ok(http.MethodPut, path+first, wasPlayed, &is)
	assert.Equal(t, take.Analysis.Counts.Missed-1, is.Analysis.Counts.Missed)
	assert.Greater(t, is.Summary.Measured.RightPercent, take.Summary.Measured.RightPercent)
	require.Len(t, is.Corrections, 1)
	assert.Equal(t, ann.Name, *is.Corrections[0].Author)
	h.as(t, teacher).ok(http.MethodPut, path+second, noStop, &is)
	assert.Len(t, is.Analysis.Course.Events, len(take.Analysis.Course.Events)-1)
	h.as(t, teacher).ok(http.MethodPut, path+uuid.NewString(), noStop, &is)
	assert.Len(t, is.Corrections, 2, "said twice, kept once")

	h.as(t, ann).fails(http.StatusConflict, http.MethodPut, path+uuid.NewString(), evenness.Correction{Of: evenness.OfNote, Kind: "wrong", Index: missed})
	h.as(t, ann).fails(http.StatusConflict, http.MethodPut, path+uuid.NewString(), evenness.Correction{Of: evenness.OfFinding, Kind: "tires"})
	h.as(t, ben).fails(http.StatusNotFound, http.MethodPut, path+uuid.NewString(), wasPlayed)
	h.as(t, ben).fails(http.StatusNotFound, http.MethodDelete, path+first, nil)

	var said api.Contradictions
	h.as(t, teacher).ok(http.MethodGet, "/studio/contradictions", nil, &said)
	assert.Equal(t, 1, said.Takes)
	assert.ElementsMatch(t, []api.Contradicted{
		{Of: "note", Kind: "missed", Said: 1, Takes: 1}, {Of: "event", Kind: string(event.Kind), Said: 1, Takes: 1},
	}, said.Kinds)
	h.as(t, ann).fails(http.StatusForbidden, http.MethodGet, "/studio/contradictions", nil)

	var again api.Take
	h.as(t, ann).ok(http.MethodDelete, path+first, nil, nil)
	h.as(t, ann).ok(http.MethodDelete, path+second, nil, &again)
	assert.Equal(t, take.Analysis, again.Analysis)
	assert.Equal(t, take.Summary.Measured, again.Summary.Measured)
	assert.Empty(t, again.Corrections)
}

// The ladder follows: a take that stopped within its passes is no clean one, until it is said
// that nobody stopped.
func TestTheLadderFollowsWhatWasNotSo(t *testing.T) {
	h := newHouse(t)
	file := longer()
	file.Ladder.Gate = tempo.Gate{RightPercent: 90, SpreadPercent: 20, LevelSpreadDB: 10, PassesInARow: 3}
	a := h.assigned(t, file, ann)
	stops := steady
	stops.Course = []simulate.Act{{Kind: follow.Stop, Before: 20, Seconds: 2}}
	take := h.taken(t, a, ann, stops)
	require.Equal(t, tempo.Hold, take.Summary.Measured.Decision.Step, take.Summary.Measured.Decision.Reason)
	var is api.Take
	noStop := evenness.Correction{Of: evenness.OfEvent, Kind: string(follow.Stop), Index: 20}
	path := "/takes/" + take.Summary.Id.String() + "/corrections/" + uuid.NewString()
	h.as(t, ann).ok(http.MethodPut, path, noStop, &is)
	assert.Equal(t, tempo.Up, is.Summary.Measured.Decision.Step, is.Summary.Measured.Decision.Reason)
	var stand api.Stand
	h.as(t, ann).ok(http.MethodGet, "/assignments/"+a.Id.String(), nil, &stand)
	assert.Equal(t, is.Summary.Measured.Decision.Next, stand.Assignment.Rung)
	h.as(t, teacher).ok(http.MethodDelete, path, nil, &is)
	assert.Equal(t, take.Summary.Measured.Decision, is.Summary.Measured.Decision)
	h.as(t, ann).ok(http.MethodGet, "/assignments/"+a.Id.String(), nil, &stand)
	assert.Equal(t, a.Rung, stand.Assignment.Rung)
}

// Who say something of one take at once are all heard.
func TestTwoSayAtOnceWhatWasNotSo(t *testing.T) {
	h := newHouse(t)
	a := h.assigned(t, longer(), ann)
	flawed := steady
	flawed.Miss = 6
	take := h.taken(t, a, ann, flawed)
	var all []evenness.Correction
	for _, n := range take.Analysis.Notes {
		if n.Status == follow.Missed {
			all = append(all, evenness.Correction{Of: evenness.OfNote, Kind: "missed", Index: n.Index})
		}
	}
	require.Greater(t, len(all), 2)
	var at sync.WaitGroup
	for i, c := range all {
		caller := h.as(t, teacher)
		if i%2 == 0 {
			caller = h.as(t, ann)
		}
		at.Go(func() {
			caller.ok(http.MethodPut, "/takes/"+take.Summary.Id.String()+"/corrections/"+uuid.NewString(), c, nil)
		})
	}
	at.Wait()
	var is api.Take
	h.as(t, ann).ok(http.MethodGet, "/takes/"+take.Summary.Id.String(), nil, &is)
	assert.Len(t, is.Corrections, len(all))
	assert.Zero(t, is.Analysis.Counts.Missed)
	assert.InDelta(t, 100, is.Summary.Measured.RightPercent, 1e-9)
}

// A take that was played on other frets than written sends nobody up, in the studio as on the
// device, and says why.
func TestOnOtherFretsNobodyClimbs(t *testing.T) {
	h := newHouse(t)
	a := h.assigned(t, longer(), ann)
	moved := steady
	moved.Transpose = 1
	take := h.taken(t, a, ann, moved)
	require.Equal(t, follow.Transposed, take.Analysis.Course.Events[0].Kind)
	d := take.Summary.Measured.Decision
	assert.Equal(t, tempo.Hold, d.Step)
	assert.False(t, d.Counts)
	assert.Contains(t, d.Reason, "other frets")
}

// Who has played another drill that they have hears which, and hands it in there by a press, once:
// it counts there at the tempo that is heard, and stays here.
func TestAnotherDrillIsHandedInThere(t *testing.T) {
	h := newHouse(t)
	here := h.assigned(t, longer(), ann)
	other := longer()
	other.Drill.Name = "the other"
	other.Drill.Pattern = drill.FingerPerFret{Orders: [][]int{{1, 4, 2, 3}}}
	other.Drill.Path.Position = 9
	there := h.assigned(t, other, ann)
	sound := played(t, other, 100, steady).EncodeWAV()
	var take api.Take
	h.as(t, ann).ok(http.MethodPut, "/assignments/"+here.Id.String()+"/takes/"+uuid.NewString()+"?source=file&bpm=100", sound, &take)
	require.True(t, take.Analysis.Foreign)
	require.NotNil(t, take.Other)
	assert.Equal(t, api.OtherDrill{AssignmentId: there.Id, DrillName: "the other"}, *take.Other)
	path := "/takes/" + take.Summary.Id.String() + "/there"
	var summary, again api.TakeSummary
	h.as(t, ann).ok(http.MethodPost, path, nil, &summary)
	h.as(t, ann).ok(http.MethodPost, path, nil, &again)
	assert.Equal(t, summary.Id, again.Id, "pressed twice, handed in once")
	h.as(t, ben).fails(http.StatusNotFound, http.MethodPost, path, nil)
	also := settled(t, h.as(t, ann), summary.Id)
	require.NotNil(t, also.Analysis)
	assert.Equal(t, there.Id, also.Summary.AssignmentId)
	assert.False(t, also.Analysis.Foreign)
	assert.InDelta(t, 100, also.Summary.Rung.BPM, 1)
	h.as(t, ann).fails(http.StatusConflict, http.MethodPost, "/takes/"+summary.Id.String()+"/there", nil)
	var stays api.Take
	h.as(t, ann).ok(http.MethodGet, "/takes/"+take.Summary.Id.String(), nil, &stays)
	assert.True(t, stays.Analysis.Foreign)
}
