package server_test

import (
	"bytes"
	"encoding/binary"
	"net/http"
	"strings"
	"sync"
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/api"
	"manudrill/core/drill"
	"manudrill/core/guitar"
	"manudrill/core/simulate"
	"manudrill/formats/drillfile"
	"manudrill/formats/sound"
)

func TestTheDoor(t *testing.T) {
	h := newHouse(t)
	c := h.visitor(t)
	var people api.PersonPage
	c.ok(http.MethodGet, "/demo/people", nil, &people)
	require.GreaterOrEqual(t, len(people.Items), 3)
	assert.NotEqual(t, api.PersonRoleStudent, people.Items[0].Role, "instructors first")
	c.fails(http.StatusUnauthorized, http.MethodGet, "/session", nil)
	c.fails(http.StatusUnauthorized, http.MethodGet, "/drills", nil)
	c.fails(http.StatusNotFound, http.MethodPut, "/session", map[string]any{"personId": uuid.New()})

	c.ok(http.MethodPut, "/session", map[string]any{"personId": ann.ID}, nil)
	var who api.Here
	c.ok(http.MethodGet, "/session", nil, &who)
	assert.Equal(t, "Ann", who.Person.Name)
	c.ok(http.MethodDelete, "/session", nil, nil)
	c.fails(http.StatusUnauthorized, http.MethodGet, "/session", nil)
}

func TestADrillFromMakingToDeleting(t *testing.T) {
	h := newHouse(t)
	c := h.as(t, teacher)
	var made, got, copied api.SavedDrill
	c.ok(http.MethodPost, newly("/drills"), someDrill(), &made)
	path := "/drills/" + made.Id.String()
	changed := someDrill()
	changed.Drill.Path.Position = 5
	c.on(made.Revision).ok(http.MethodPut, path, changed, nil)
	c.ok(http.MethodGet, path, nil, &got)
	assert.Equal(t, 5, got.File.Drill.Path.Position)
	c.ok(http.MethodPost, newly(path+"/copy"), nil, &copied)
	assert.Equal(t, "pairs (copy)", copied.File.Drill.Name)
	c.ok(http.MethodDelete, path, nil, nil)
	c.fails(http.StatusNotFound, http.MethodGet, path, nil)
	c.fails(http.StatusNotFound, http.MethodDelete, path, nil)
	var all api.DrillPage
	c.ok(http.MethodGet, "/drills", nil, &all)
	ids := map[uuid.UUID]bool{}
	for _, d := range all.Items {
		ids[d.Id] = true
	}
	assert.True(t, ids[copied.Id])
	assert.False(t, ids[made.Id])
}

func TestAPreviewIsTheChart(t *testing.T) {
	h := newHouse(t)
	c := h.as(t, teacher)
	file := someDrill()
	var p api.Preview
	c.ok(http.MethodPost, "/preview", file, &p)
	want, err := file.Drill.Chart(guitar.Standard(), 100)
	require.NoError(t, err)
	assert.Equal(t, want, *p.Chart)
	assert.Empty(t, p.Faults)
	assert.Equal(t, []float64{100, 110, 120}, []float64{(*p.Steps)[0].Rung.BPM, (*p.Steps)[1].Rung.BPM, (*p.Steps)[2].Rung.BPM})
	assert.InDelta(t, 324, p.Neck.FretMm[12], 1e-9, "the twelfth fret halves a 648 mm string")

	file.Drill.Path.Position = 21
	file.Ladder.StepBPM = 0
	p = api.Preview{}
	c.ok(http.MethodPost, "/preview", file, &p)
	assert.Nil(t, p.Chart)
	assert.Len(t, p.Faults, 2)
}

func TestADrillThatCannotBePlayedIsNotSaved(t *testing.T) {
	h := newHouse(t)
	c := h.as(t, teacher)
	file := someDrill()
	file.Drill.Path.Position = 21
	p := c.fails(http.StatusUnprocessableEntity, http.MethodPost, newly("/drills"), file)
	require.NotNil(t, p.Errors)
	assert.Equal(t, "path.position", (*p.Errors)[0].Field)
	assert.Contains(t, p.Detail, "Use position 20")

	for name, body := range map[string]any{
		"no body at all":   map[string]any{},
		"unknown field":    map[string]any{"drill": map[string]any{"speed": 3}, "ladder": nil},
		"unknown pattern":  map[string]any{"drill": map[string]any{"pattern": map[string]any{"kind": "sorcery"}}},
		"text for numbers": strings.Repeat("x", 10),
	} {
		p := c.fails(http.StatusBadRequest, http.MethodPost, newly("/drills"), body)
		assert.Equal(t, "urn:manudrill:problem:bad-request", p.Type, name)
	}
}

func TestStudentsSeeOnlyTheirOwn(t *testing.T) {
	h := newHouse(t)
	a := h.assigned(t, someDrill(), ann)
	var take api.Take
	h.as(t, ann).ok(http.MethodPut, "/assignments/"+a.Id.String()+"/simulated/"+uuid.NewString(), steady, &take)
	other := h.as(t, ben)
	for _, path := range []string{
		"/assignments/" + a.Id.String(), "/assignments/" + a.Id.String() + "/progress",
		"/takes/" + take.Summary.Id.String(), "/takes/" + take.Summary.Id.String() + "/sound",
	} {
		other.fails(http.StatusNotFound, http.MethodGet, path, nil)
	}
	other.fails(http.StatusNotFound, http.MethodPut, "/assignments/"+a.Id.String()+"/simulated/"+uuid.NewString(), steady)
	other.fails(http.StatusForbidden, http.MethodPost, newly("/drills"), someDrill())
	other.fails(http.StatusForbidden, http.MethodDelete, "/assignments/"+a.Id.String(), nil)
	var mine api.AssignmentPage
	other.ok(http.MethodGet, "/assignments?studentId="+ann.ID.String(), nil, &mine)
	assert.Empty(t, mine.Items, "another's list is empty")
	h.as(t, teacher).ok(http.MethodGet, "/takes/"+take.Summary.Id.String(), nil, nil)
}

// played is the sound of the assignment's chart at a tempo.
func played(t *testing.T, file drillfile.File, bpm float64, p simulate.Player) sound.Sound {
	t.Helper()
	chart, err := file.Drill.Chart(guitar.Standard(), bpm)
	require.NoError(t, err)
	_, x, err := p.Take(chart)
	require.NoError(t, err)
	return sound.FromMono(simulate.Rate, x)
}

func TestATakeIsMeasuredDecidedAndKeptWhole(t *testing.T) {
	h := newHouse(t)
	a := h.assigned(t, someDrill(), ann)
	c := h.as(t, ann)
	recording := played(t, someDrill(), 100, steady)
	id := uuid.New()
	var first, again, later api.Take
	c.ok(http.MethodPut, takePath(a, id, 100), recording.EncodeWAV(), &first)
	assert.Equal(t, 16, first.Analysis.Counts.Played)
	assert.InDelta(t, 100, first.Analysis.Tempo.BPM, 0.5)
	assert.Equal(t, "up", string(first.Summary.Measured.Decision.Step))
	assert.InDelta(t, 110, first.Summary.Measured.Decision.Next.BPM, 1e-9)

	c.ok(http.MethodPut, takePath(a, id, 100), recording.EncodeWAV(), &again)
	assert.Equal(t, first, again)
	var takes api.TakePage
	c.ok(http.MethodGet, "/takes?assignmentId="+a.Id.String(), nil, &takes)
	assert.Len(t, takes.Items, 1, "a repeated upload makes no second take")

	status, flac := c.do(http.MethodGet, "/takes/"+id.String()+"/sound", nil)
	require.Equal(t, http.StatusOK, status)
	back, err := sound.Decode(flac)
	require.NoError(t, err)
	assert.Equal(t, recording, back)
	part, err := http.NewRequestWithContext(t.Context(), http.MethodGet, h.base+"/api/takes/"+id.String()+"/sound", nil)
	require.NoError(t, err)
	part.Header.Set("Range", "bytes=100-149")
	status, some := c.send(part)
	assert.Equal(t, http.StatusPartialContent, status, "a browser seeks only in what it may have in parts")
	assert.Equal(t, flac[100:150], some)

	var stand api.Stand
	c.ok(http.MethodGet, "/assignments/"+a.Id.String(), nil, &stand)
	assert.InDelta(t, 110, stand.Chart.BPM, 1e-9, "the next tempo lies on the stand")
	c.ok(http.MethodGet, "/takes/"+id.String(), nil, &later)
	assert.Equal(t, first.Analysis, later.Analysis)
	var page api.TrendPage
	c.ok(http.MethodGet, "/assignments/"+a.Id.String()+"/progress", nil, &page)
	require.Len(t, page.Trend.Points, 1)
	assert.InDelta(t, 100, page.Trend.Points[0].Passed.BPM, 1e-9)
}

func TestStereo48kHz24BitWorks(t *testing.T) {
	h := newHouse(t)
	a := h.assigned(t, someDrill(), ann)
	mono := played(t, someDrill(), 100, steady)
	wide := sound.Sound{Rate: 48000, Bits: 24, Channels: make([][]int32, 2)}
	for i := range mono.Frames() * 480 / 441 {
		x := float64(i) * 441 / 480
		k := min(int(x), mono.Frames()-2)
		v := (1-(x-float64(k)))*float64(mono.Channels[0][k]) + (x-float64(k))*float64(mono.Channels[0][k+1])
		wide.Channels[0] = append(wide.Channels[0], int32(v*256))
		wide.Channels[1] = append(wide.Channels[1], int32(v*200))
	}
	c := h.as(t, ann)
	id := uuid.New()
	var take api.Take
	c.ok(http.MethodPut, takePath(a, id, 100), wide.EncodeWAV(), &take)
	assert.Equal(t, 16, take.Analysis.Counts.Played)
	_, flac := c.do(http.MethodGet, "/takes/"+id.String()+"/sound", nil)
	back, err := sound.Decode(flac)
	require.NoError(t, err)
	assert.Equal(t, wide, back, "both channels and all 24 bits are kept")
}

func TestBadRecordingsAreRefusedInPlainWords(t *testing.T) {
	h := newHouse(t)
	a := h.assigned(t, someDrill(), ann)
	c := h.as(t, ann)
	whole := played(t, someDrill(), 100, steady).EncodeWAV()
	long := bytes.Clone(whole)
	binary.LittleEndian.PutUint32(long[40:], 21*60*44100*2) // what the data chunk says of its size
	for name, b := range map[string]struct {
		file   []byte
		detail string
	}{
		"no sound": {[]byte("a letter"), "neither a WAV nor a FLAC"},
		"empty":    {[]byte{}, "holds no sound"},
		"too long": {long, "20 minutes at the most"},
	} {
		p := c.fails(http.StatusUnprocessableEntity, http.MethodPut, takePath(a, uuid.New(), 100), b.file)
		assert.Contains(t, p.Detail, b.detail, name)
	}
	c.fails(http.StatusBadRequest, http.MethodPut, takePath(a, uuid.New(), 7), whole)
	var takes api.TakePage
	c.ok(http.MethodGet, "/takes?assignmentId="+a.Id.String(), nil, &takes)
	assert.Empty(t, takes.Items)
}

func TestATakeOfAnotherDrillIsKeptAndSaidToBe(t *testing.T) {
	h := newHouse(t)
	a := h.assigned(t, someDrill(), ann)
	other := someDrill()
	other.Drill.Pattern = drill.FingerPerFret{Orders: [][]int{{4, 2, 3, 1}}}
	other.Drill.Path.Position = 2
	other.Drill.Path.Strings = []int{1, 2, 3, 4, 5, 6}
	var take api.Take
	h.as(t, ann).ok(http.MethodPut, takePath(a, uuid.New(), 100), played(t, other, 90, steady).EncodeWAV(), &take)
	assert.True(t, take.Analysis.Foreign)
	assert.Equal(t, "hold", string(take.Summary.Measured.Decision.Step))
	assert.Contains(t, take.Summary.Measured.Decision.Reason, "does not match")
}

func TestATakeIdBelongsToOneDrill(t *testing.T) {
	h := newHouse(t)
	first, second := h.assigned(t, someDrill(), ann), h.assigned(t, someDrill(), ann)
	c := h.as(t, ann)
	id := uuid.New()
	c.ok(http.MethodPut, takePath(first, id, 100), played(t, someDrill(), 100, steady).EncodeWAV(), nil)
	c.fails(http.StatusConflict, http.MethodPut, takePath(second, id, 100), played(t, someDrill(), 100, steady).EncodeWAV())
}

func TestUploadsAtOnceMakeOneTake(t *testing.T) {
	h := newHouse(t)
	a := h.assigned(t, someDrill(), ben)
	c := h.as(t, ben)
	recording, id := played(t, someDrill(), 100, steady).EncodeWAV(), uuid.New()
	var wg sync.WaitGroup
	for range 4 {
		wg.Go(func() {
			status, body := c.do(http.MethodPut, takePath(a, id, 100), recording)
			assert.Contains(t, []int{http.StatusOK, http.StatusAccepted}, status, "%s", body) // measured by then, or not yet
		})
	}
	wg.Wait()
	assert.Equal(t, api.Measured, settled(t, c, id).Summary.State)
	var takes api.TakePage
	c.ok(http.MethodGet, "/takes?assignmentId="+a.Id.String(), nil, &takes)
	assert.Len(t, takes.Items, 1)
}

func TestTwoUnevenTakesGoDown(t *testing.T) {
	h := newHouse(t)
	a := h.assigned(t, someDrill(), ben)
	c := h.as(t, ben)
	uneven := steady
	uneven.MotorMs = 45
	reach := func(p simulate.Player) api.Take {
		var take api.Take
		c.ok(http.MethodPut, "/assignments/"+a.Id.String()+"/simulated/"+uuid.NewString(), p, &take)
		return take
	}
	require.Equal(t, "up", string(reach(steady).Summary.Measured.Decision.Step))
	require.Equal(t, "hold", string(reach(uneven).Summary.Measured.Decision.Step))
	last := reach(uneven)
	assert.Equal(t, "down", string(last.Summary.Measured.Decision.Step))
	assert.InDelta(t, 110, last.Summary.Rung.BPM, 1e-9)
	assert.InDelta(t, 100, last.Summary.Measured.Decision.Next.BPM, 1e-9)
}

func TestTakesStayWhenTheDrillGoes(t *testing.T) {
	h := newHouse(t)
	a := h.assigned(t, someDrill(), ben)
	student, instructor := h.as(t, ben), h.as(t, teacher)
	var take api.Take
	student.ok(http.MethodPut, "/assignments/"+a.Id.String()+"/simulated/"+uuid.NewString(), steady, &take)
	changed := someDrill()
	changed.Drill.Path.Position = 2
	instructor.on(1).ok(http.MethodPut, "/drills/"+a.DrillId.String(), changed, nil)
	instructor.ok(http.MethodDelete, "/drills/"+a.DrillId.String(), nil, nil)
	var kept api.Take
	student.ok(http.MethodGet, "/takes/"+take.Summary.Id.String(), nil, &kept)
	assert.Equal(t, take.Chart, kept.Chart, "the chart as it was played")
	p := student.fails(http.StatusGone, http.MethodPut, "/assignments/"+a.Id.String()+"/simulated/"+uuid.NewString(), steady)
	assert.Contains(t, p.Detail, "withdrawn this drill")
	var mine api.AssignmentPage
	student.ok(http.MethodGet, "/assignments", nil, &mine)
	for _, one := range mine.Items {
		assert.NotEqual(t, a.Id, one.Id)
	}
}

func TestAssigningTwiceIsOnce(t *testing.T) {
	h := newHouse(t)
	a := h.assigned(t, someDrill(), ann)
	c := h.as(t, teacher)
	var again api.Assignment
	c.ok(http.MethodPost, "/assignments", map[string]any{"drillId": a.DrillId, "studentId": ann.ID}, &again)
	assert.Equal(t, a.Id, again.Id)
	c.fails(http.StatusNotFound, http.MethodPost, "/assignments", map[string]any{"drillId": a.DrillId, "studentId": teacher.ID})
	c.ok(http.MethodDelete, "/assignments/"+a.Id.String(), nil, nil)
	c.fails(http.StatusNotFound, http.MethodDelete, "/assignments/"+a.Id.String(), nil)
}

func TestTheInterfaceIsServedEverywhereElse(t *testing.T) {
	h := newHouse(t)
	for path, want := range map[string]int{"/": 200, "/drills": 200, "/stand/abc": 200, "/assets/a.js": 200, "/api/nothing": 404} {
		resp, err := http.Get(h.base + path)
		require.NoError(t, err)
		resp.Body.Close()
		assert.Equal(t, want, resp.StatusCode, path)
	}
}
