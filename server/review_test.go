package server_test

import (
	"net/http"
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/api"
	"manudrill/core/drill"
	"manudrill/core/drill/score"
	"manudrill/core/guitar"
	"manudrill/core/simulate"
	"manudrill/formats/drillfile"
	"manudrill/formats/midifile"
	"manudrill/store"
)

// longer is a drill with enough notes to say something of its weak pair.
func longer() drillfile.File {
	file := someDrill()
	file.Drill.Name = "longer"
	file.Drill.Path.Stay.Count, file.Drill.Rhythm.Passes = 2, 3
	return file
}

// taken lets a student's simulated player make a take.
func (h *house) taken(t *testing.T, a api.Assignment, by store.Person, p simulate.Player) api.Take {
	t.Helper()
	var take api.Take
	h.as(t, by).ok(http.MethodPut, "/assignments/"+a.Id.String()+"/simulated/"+uuid.NewString(), p, &take)
	return take
}

func TestARemedyIsOneClickFromPractice(t *testing.T) {
	h := newHouse(t)
	a := h.assigned(t, longer(), ann)
	weak := steady
	weak.Weak = &simulate.Weak{From: 1, To: 3, LateMs: 35}
	take := h.taken(t, a, ann, weak)
	require.NotEmpty(t, take.Advice.Remedies)
	assert.Contains(t, take.Advice.Findings[0].Text, "The ring finger after the index finger, hammered on, comes late")

	path := "/takes/" + take.Summary.Id.String() + "/remedies/"
	var practised, again, given api.Assignment
	h.as(t, ann).ok(http.MethodPost, path+"0", nil, &practised)
	assert.Equal(t, ann.ID, practised.Student.Id)
	assert.Equal(t, "longer: 1 to 3 alone", practised.DrillName)
	h.as(t, ann).ok(http.MethodPost, path+"0", nil, &again)
	assert.Equal(t, practised.Id, again.Id, "asked twice, made once")
	h.as(t, teacher).ok(http.MethodPost, path+"0", nil, &given)
	assert.Equal(t, practised.Id, given.Id)
	h.as(t, ben).fails(http.StatusNotFound, http.MethodPost, path+"0", nil)
	h.as(t, ann).fails(http.StatusBadRequest, http.MethodPost, path+"7", nil)

	var stand api.Stand
	h.as(t, ann).ok(http.MethodGet, "/assignments/"+practised.Id.String(), nil, &stand)
	assert.InDelta(t, 0.7*100*2/float64(stand.Chart.NotesPerBeat), stand.Chart.BPM, 1, "at 70 % of the tempo")
}

func TestCommentsArePinnedByInstructors(t *testing.T) {
	h := newHouse(t)
	take := h.taken(t, h.assigned(t, someDrill(), ann), ann, steady)
	path := "/takes/" + take.Summary.Id.String() + "/comments/"
	id := uuid.NewString()
	var comments []api.Comment
	c := h.as(t, teacher)
	c.ok(http.MethodPut, path+id, map[string]any{"note": 5, "text": "Here the string rings."}, &comments)
	c.fails(http.StatusPreconditionFailed, http.MethodPut, path+id, map[string]any{"note": 5, "text": "In an older window."})
	c.on(comments[0].Revision).ok(http.MethodPut, path+id, map[string]any{"note": 5, "text": "Here the fourth string rings."}, &comments)
	require.Len(t, comments, 1)
	assert.Equal(t, "Here the fourth string rings.", comments[0].Text)
	assert.Equal(t, teacher.ID, comments[0].Author.Id)
	c.fails(http.StatusNotFound, http.MethodPut, path+uuid.NewString(), map[string]any{"note": 900, "text": "nowhere"})
	c.fails(http.StatusBadRequest, http.MethodPut, path+uuid.NewString(), map[string]any{"note": 1, "text": ""})
	h.as(t, ben).fails(http.StatusNotFound, http.MethodPut, path+uuid.NewString(), map[string]any{"note": 1, "text": "mine"})
	h.as(t, ann).fails(http.StatusNotFound, http.MethodPut, path+id, map[string]any{"note": 5, "text": "not mine"})

	var seen api.Take
	h.as(t, ann).ok(http.MethodGet, "/takes/"+take.Summary.Id.String(), nil, &seen)
	require.Len(t, seen.Comments, 1)
	assert.Equal(t, 5, seen.Comments[0].Note)
	unread := func(p store.Person) (n int) {
		var all []api.TakeComment
		h.as(t, p).ok(http.MethodGet, "/comments/unread", nil, &all)
		for _, u := range all {
			if u.TakeId == take.Summary.Id {
				n++
			}
		}
		return n
	}
	read := "/takes/" + take.Summary.Id.String() + "/read"
	assert.Equal(t, []int{1, 0}, []int{unread(ann), unread(teacher)})
	h.as(t, ben).fails(http.StatusNotFound, http.MethodPost, read, nil)
	h.as(t, ann).ok(http.MethodPost, read, nil, nil)
	h.as(t, ann).ok(http.MethodPut, path+uuid.NewString(), map[string]any{"note": 5, "text": "How do I mend it?"}, &comments)
	assert.Len(t, comments, 2)
	assert.Equal(t, []int{0, 1}, []int{unread(ann), unread(teacher)})
	var of api.TakeCommentPage
	c.ok(http.MethodGet, "/students/"+ann.ID.String()+"/comments?limit=2", nil, &of)
	assert.Equal(t, []string{"How do I mend it?", "Here the fourth string rings."}, []string{of.Items[0].Text, of.Items[1].Text})
	assert.Equal(t, []bool{false, true}, []bool{of.Items[0].Read, of.Items[1].Read})
	c.ok(http.MethodDelete, path+id, nil, nil)
	c.fails(http.StatusNotFound, http.MethodDelete, path+id, nil)
}

func TestTwoTakesAreSetSideBySide(t *testing.T) {
	h := newHouse(t)
	uneven := steady
	uneven.MotorMs = 22
	a := h.assigned(t, longer(), ann)
	first, second := h.taken(t, a, ann, uneven), h.taken(t, a, ann, steady)
	var c, turned api.Contrast
	h.as(t, ann).ok(http.MethodGet, "/takes/"+first.Summary.Id.String()+"/contrast/"+second.Summary.Id.String(), nil, &c)
	assert.Equal(t, "spreadMs", c.Differences[0].About)
	assert.True(t, c.Differences[0].Better && c.Differences[0].Sure, "%+v", c.Differences[0])
	h.as(t, ann).ok(http.MethodGet, "/takes/"+second.Summary.Id.String()+"/contrast/"+first.Summary.Id.String(), nil, &turned)
	assert.Equal(t, c, turned, "the earlier one is first whichever is asked for")

	picked := longer()
	picked.Drill.Attacks.Rule = drill.AllPicked
	asPicked := h.taken(t, h.assigned(t, picked, ann), ann, steady)
	h.as(t, ann).ok(http.MethodGet, "/takes/"+asPicked.Summary.Id.String()+"/contrast/"+second.Summary.Id.String(), nil, &c)

	other := h.taken(t, h.assigned(t, someDrill(), ann), ann, steady)
	p := h.as(t, ann).fails(http.StatusUnprocessableEntity, http.MethodGet, "/takes/"+first.Summary.Id.String()+"/contrast/"+other.Summary.Id.String(), nil)
	assert.Contains(t, p.Detail, "choose another take")
	h.as(t, ben).fails(http.StatusNotFound, http.MethodGet, "/takes/"+first.Summary.Id.String()+"/contrast/"+second.Summary.Id.String(), nil)
}

// A MIDI file is a take without listening: exact where it was written exactly, and
// to be heard like any other.
func TestAMIDIFileIsATake(t *testing.T) {
	h := newHouse(t)
	a := h.assigned(t, someDrill(), ann)
	file := someDrill()
	chart, err := file.Drill.Chart(guitar.Standard(), 100)
	require.NoError(t, err)
	var take api.Take
	c := h.as(t, ann)
	c.ok(http.MethodPut, takePath(a, uuid.New(), 100), midifile.Write(score.Of(chart)), &take)
	assert.Equal(t, take.Analysis.Counts.Expected, take.Analysis.Counts.Played)
	assert.InDelta(t, 0, take.Analysis.Timing.SpreadMs, 0.7, "a tick is 0.6 ms")
	assert.InDelta(t, 100, take.Analysis.Tempo.BPM, 0.1)
	status, flac := c.do(http.MethodGet, "/takes/"+take.Summary.Id.String()+"/sound", nil)
	assert.Equal(t, http.StatusOK, status)
	assert.Equal(t, "fLaC", string(flac[:4]))
	c.fails(http.StatusUnprocessableEntity, http.MethodPut, takePath(a, uuid.New(), 100), []byte("MThd but no more"))
}
