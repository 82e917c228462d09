package server_test

import (
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"net/http"
	"net/http/httptest"
	"net/url"
	"sync"
	"testing"
	"testing/iotest"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/api"
	"manudrill/core/listen"
	"manudrill/core/simulate"
	"manudrill/formats/sound"
	"manudrill/server"
	"manudrill/server/jobs"
	"manudrill/store"
	"manudrill/storetest"
)

// settled asks for a take until it is measured or could not be.
func settled(t *testing.T, c client, id uuid.UUID) (take api.Take) {
	t.Helper()
	require.Eventually(t, func() bool {
		take = api.Take{}
		c.ok(http.MethodGet, "/takes/"+id.String(), nil, &take)
		return take.Summary.State != api.Waiting
	}, 30*time.Second, 20*time.Millisecond)
	return take
}

// A take in which nothing is heard is kept, says so, and can be measured again.
func TestATakeThatCannotBeMeasuredKeepsItsSound(t *testing.T) {
	h := newHouse(t)
	a := h.assigned(t, someDrill(), ann)
	c := h.as(t, ann)
	for says, file := range map[string][]byte{
		"no notes were heard": sound.FromMono(44100, make([]float64, 3*44100)).EncodeWAV(),
		"cut off":             played(t, someDrill(), 100, steady).EncodeWAV()[:200_000],
	} {
		id := uuid.New()
		var take api.Take
		c.ok(http.MethodPut, takePath(a, id, 100), file, &take)
		take = settled(t, c, id)
		require.Equal(t, api.Failed, take.Summary.State)
		assert.Regexp(t, "(?i)"+says, *take.Summary.Failure)
		assert.Nil(t, take.Analysis)
		assert.Nil(t, take.Summary.Measured)
		status, kept := c.do(http.MethodGet, "/takes/"+id.String()+"/sound", nil)
		assert.Equal(t, http.StatusOK, status)
		assert.Equal(t, file, kept, "byte for byte, as it was handed in")
		c.fails(http.StatusConflict, http.MethodPost, "/takes/"+id.String()+"/remedies/0", nil)

		var again api.TakeSummary
		c.ok(http.MethodPost, "/takes/"+id.String()+"/measure", nil, &again)
		assert.Equal(t, api.Failed, settled(t, c, id).Summary.State)
		h.as(t, ben).fails(http.StatusNotFound, http.MethodPost, "/takes/"+id.String()+"/measure", nil)
	}
	var stand api.Stand
	c.ok(http.MethodGet, "/assignments/"+a.Id.String(), nil, &stand)
	assert.InDelta(t, 100, stand.Assignment.Rung.BPM, 0, "they count for nothing")
}

func TestTheSameFileTwiceSaysSo(t *testing.T) {
	h := newHouse(t)
	a, other := h.assigned(t, someDrill(), ann), h.assigned(t, someDrill(), ann)
	c := h.as(t, ann)
	file := played(t, someDrill(), 100, steady).EncodeWAV()
	c.ok(http.MethodPut, takePath(a, uuid.New(), 100), file, nil)
	p := c.fails(http.StatusConflict, http.MethodPut, takePath(a, uuid.New(), 100), file)
	assert.Equal(t, "urn:manudrill:problem:same-recording", p.Type)
	c.ok(http.MethodPut, takePath(other, uuid.New(), 100), file, nil)
}

// The time of a take is that of the device, where it can be.
func TestTheDeviceTellsWhenATakeWasRecorded(t *testing.T) {
	h := newHouse(t)
	a := h.assigned(t, someDrill(), ann)
	c := h.as(t, ann)
	at := time.Now().Add(-3 * time.Hour).Truncate(time.Microsecond).UTC()
	var take api.Take
	c.ok(http.MethodPut, recordedAt(a, at), played(t, someDrill(), 100, steady).EncodeWAV(), &take)
	assert.True(t, at.Equal(take.Summary.RecordedAt), take.Summary.RecordedAt)
	assert.True(t, take.Summary.HandedInAt.After(at))
	p := c.fails(http.StatusBadRequest, http.MethodPut, recordedAt(a, at.AddDate(2, 0, 0)), []byte("RIFF"))
	assert.Contains(t, p.Detail, "clock")
}

func recordedAt(a api.Assignment, at time.Time) string {
	return takePath(a, uuid.New(), 100) + "&recordedAt=" + url.QueryEscape(at.Format(time.RFC3339Nano))
}

// What was recorded before the drill was taken back is accepted after it, and what
// was recorded since is not.
func TestATakeRecordedBeforeTheDrillWasTakenBackIsAccepted(t *testing.T) {
	h := newHouse(t)
	a := h.assigned(t, someDrill(), ann)
	before := time.Now()
	h.as(t, teacher).ok(http.MethodDelete, "/drills/"+a.DrillId.String(), nil, nil)
	c := h.as(t, ann)
	file := played(t, someDrill(), 100, steady).EncodeWAV()
	c.ok(http.MethodPut, recordedAt(a, before), file, nil)
	c.fails(http.StatusGone, http.MethodPut, recordedAt(a, time.Now()), file)

	// Sent again, it is found before anything else is looked at.
	id := uuid.New()
	path := fmt.Sprintf("/assignments/%s/takes/%s?source=file&bpm=100&recordedAt=%s", a.Id, id, url.QueryEscape(before.Format(time.RFC3339Nano)))
	other := played(t, someDrill(), 100, simulate.Player{Seed: 77, MotorMs: 3}).EncodeWAV()
	c.ok(http.MethodPut, path, other, nil)
	c.ok(http.MethodPut, takePath(a, id, 100), []byte("whatever"), nil)
}

// A body that breaks off leaves nothing behind, and the same take can be sent
// again.
func TestAnUploadThatBreaksOff(t *testing.T) {
	h := newHouse(t)
	a := h.assigned(t, someDrill(), ann)
	c := h.as(t, ann)
	file := played(t, someDrill(), 100, steady).EncodeWAV()
	id := uuid.New()
	broken := io.MultiReader(&limited{file, 100_000}, iotest.ErrReader(errors.New("the line is gone")))
	req, err := http.NewRequestWithContext(t.Context(), http.MethodPut, h.base+"/api"+takePath(a, id, 100), broken)
	require.NoError(t, err)
	req.Header.Set("Content-Type", "application/octet-stream")
	_, err = c.http.Do(req)
	require.Error(t, err)
	c.fails(http.StatusNotFound, http.MethodGet, "/takes/"+id.String(), nil)
	c.ok(http.MethodPut, takePath(a, id, 100), file, nil)
	assert.Equal(t, api.Measured, settled(t, c, id).Summary.State)
}

// limited gives the first bytes of something.
type limited struct {
	b    []byte
	left int
}

func (l *limited) Read(p []byte) (int, error) {
	n := copy(p, l.b[:min(l.left, len(l.b))])
	if n == 0 {
		return 0, io.EOF
	}
	l.b, l.left = l.b[n:], l.left-n
	return n, nil
}

// Takes that were measured before their course was kept have one without events.
func TestATakeFromBeforeItsCourseWasKept(t *testing.T) {
	h := newHouse(t)
	take := h.taken(t, h.assigned(t, someDrill(), ann), ann, steady)
	_, err := h.kept.Pool().Exec(storetest.In(t.Context()), `UPDATE takes SET analysis = analysis - 'course' WHERE id = $1`, take.Summary.Id)
	require.NoError(t, err)
	var raw struct {
		Analysis struct {
			Course struct {
				Events json.RawMessage `json:"events"`
			} `json:"course"`
		} `json:"analysis"`
	}
	h.as(t, ann).ok(http.MethodGet, "/takes/"+take.Summary.Id.String(), nil, &raw)
	assert.JSONEq(t, "[]", string(raw.Analysis.Course.Events))
}

func TestAllAreMeasuredAgain(t *testing.T) {
	h := newHouse(t)
	c := h.as(t, teacher)
	take := h.taken(t, h.assigned(t, someDrill(), ann), ann, steady)
	_, err := h.kept.Pool().Exec(storetest.In(t.Context()), `UPDATE takes SET listener = 0 WHERE id = $1`, take.Summary.Id)
	require.NoError(t, err)
	var before api.Take
	c.ok(http.MethodGet, "/takes/"+take.Summary.Id.String(), nil, &before)
	assert.Equal(t, listen.Version, *before.Summary.NewestListener, "a listener that is newer is told")
	var r api.Remeasuring
	c.ok(http.MethodPost, "/remeasuring", nil, &r)
	require.Eventually(t, func() bool {
		c.ok(http.MethodGet, "/remeasuring", nil, &r)
		return r.EndedAt != nil
	}, 60*time.Second, 50*time.Millisecond)
	assert.Equal(t, r.Total, r.Done)
	after := settled(t, c, take.Summary.Id)
	assert.Equal(t, listen.Version, *after.Summary.Listener)
	assert.Nil(t, after.Summary.NewestListener)
	assert.Equal(t, take.Analysis, after.Analysis)
	c.fails(http.StatusNotFound, http.MethodDelete, "/remeasuring", nil)
	h.as(t, ann).fails(http.StatusForbidden, http.MethodPost, "/remeasuring", nil)
}

// Without its sound a take cannot be measured again: that is not offered, and refused, and what
// was measured stays as it is.
func TestATakeWithoutItsSoundIsNotMeasuredAgain(t *testing.T) {
	h := newHouse(t)
	c := h.as(t, teacher)
	take := h.taken(t, h.assigned(t, someDrill(), ann), ann, steady)
	path := "/takes/" + take.Summary.Id.String()
	_, err := h.kept.Pool().Exec(storetest.In(t.Context()), `UPDATE takes SET listener = 0, sound_dropped_at = now() WHERE id = $1`, take.Summary.Id)
	require.NoError(t, err)
	var before, after api.Take
	c.ok(http.MethodGet, path, nil, &before)
	assert.Nil(t, before.Summary.NewestListener)
	c.fails(http.StatusGone, http.MethodPost, path+"/measure", nil)
	c.ok(http.MethodGet, path, nil, &after)
	assert.Equal(t, before, after)
}

// Two servers and two workers on one database serve one studio: what is handed in
// at either is measured once and seen at both.
func TestTwoServersAndTwoWorkers(t *testing.T) {
	h := newHouse(t)
	second, err := store.Open(t.Context(), h.kept.Pool().Config().ConnString())
	require.NoError(t, err)
	t.Cleanup(second.Close)
	handler, err := server.New(second, somePages, plenty)
	require.NoError(t, err)
	other := httptest.NewServer(handler)
	t.Cleanup(other.Close)
	workers, err := jobs.Start(t.Context(), second, nil)
	require.NoError(t, err)
	t.Cleanup(func() { assert.NoError(t, workers.Stop(t.Context())) })

	a := h.assigned(t, someDrill(), ann)
	here := h.as(t, ann)
	there := here
	there.at = other.URL
	const takes = 12
	ids := make([]uuid.UUID, takes)
	var wg sync.WaitGroup
	for i := range ids {
		ids[i] = uuid.New()
		file := played(t, someDrill(), 100, simulate.Player{Seed: uint64(1000 + i), ClockMs: 3, MotorMs: 2, NoiseDB: -70}).EncodeWAV()
		for _, c := range []client{here, there} { // both are sent the same take
			wg.Go(func() { c.ok(http.MethodPut, takePath(a, ids[i], 100), file, nil) })
		}
	}
	wg.Wait()
	for _, id := range ids {
		assert.Equal(t, api.Measured, settled(t, there, id).Summary.State)
	}
	var stand api.Stand
	there.ok(http.MethodGet, "/assignments/"+a.Id.String(), nil, &stand)
	assert.Equal(t, takes, stand.Assignment.Takes)
	var page api.TakePage
	here.ok(http.MethodGet, "/takes?assignmentId="+a.Id.String(), nil, &page)
	assert.Len(t, page.Items, takes)
	var done int
	require.NoError(t, h.kept.Pool().QueryRow(t.Context(), `SELECT count(*) FROM river_job WHERE kind = 'measure' AND args->>'takeId' = ANY($1)`, texts(ids)).Scan(&done))
	assert.Equal(t, takes, done, "one job for each")
}

func texts(ids []uuid.UUID) (out []string) {
	for _, id := range ids {
		out = append(out, id.String())
	}
	return out
}
