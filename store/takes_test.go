package store_test

import (
	"bytes"
	"io"
	"strings"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/core/evenness"
	"manudrill/core/follow"
	"manudrill/core/guitar"
	"manudrill/core/tempo"
	"manudrill/store"
)

// clean is what is found in a take of so many clean passes at a tempo.
func clean(bpm float64, passes int) evenness.Analysis {
	a := evenness.Analysis{Tempo: evenness.Tempo{BPM: bpm}}
	for range passes {
		a.Passes = append(a.Passes, evenness.Pass{PassFigures: tempo.PassFigures{RightPercent: 100, SpreadPercent: 3, LevelSpreadDB: 1}})
	}
	return a
}

func assignedTo(t *testing.T, s *store.Store, student store.Person) uuid.UUID {
	t.Helper()
	id, err := s.Assign(in(t), added(t, s, store.Shelf{}), student.ID)
	require.NoError(t, err)
	return id
}

func bpm(t *testing.T, s *store.Store, assignment uuid.UUID) float64 {
	t.Helper()
	a, err := s.Stand(in(t), assignment)
	require.NoError(t, err)
	return a.Rung.BPM
}

var noon = time.Date(2026, 5, 4, 12, 0, 0, 0, time.UTC)

// Takes are decided in the order in which they were recorded, whatever order they
// are handed in and measured in.
func TestTheLadderGoesByWhenTakesWereRecorded(t *testing.T) {
	s := own(t)
	a := assignedTo(t, s, ann)
	late := playedAs(t, s, a, 60, noon.Add(time.Minute), clean(60, 1))
	assert.Equal(t, tempo.Hold, late.Decision.Step, "one pass is not enough")
	early := playedAs(t, s, a, 60, noon, clean(60, 1))
	assert.Equal(t, tempo.Hold, early.Decision.Step)
	again, err := s.TakeSummary(in(t), late.ID)
	require.NoError(t, err)
	assert.Equal(t, tempo.Up, again.Decision.Step, "the take before it was handed in late")
	assert.InDelta(t, 64, bpm(t, s, a), 0)

	// Found to be of something else when it is measured again, it no longer counts.
	require.NoError(t, s.Measured(in(t), early.ID, store.Measurement{Analysis: evenness.Analysis{Foreign: true}, Seconds: 3, Listener: 2}))
	again, err = s.TakeSummary(in(t), late.ID)
	require.NoError(t, err)
	assert.Equal(t, tempo.Hold, again.Decision.Step)
	assert.InDelta(t, 60, bpm(t, s, a), 0)
	first, err := s.TakeSummary(in(t), early.ID)
	require.NoError(t, err)
	assert.Equal(t, 2, *first.Listener)
}

func TestHandingInTwiceMakesOneTake(t *testing.T) {
	s := own(t)
	id := assignedTo(t, s, ann)
	a, err := s.Stand(in(t), id)
	require.NoError(t, err)
	chart, err := a.File.Value.Drill.Chart(guitar.Standard(), 60)
	require.NoError(t, err)
	h := store.HandIn{ID: uuid.New(), AssignmentID: id, Version: 1, Rung: tempo.Rung{BPM: 60, NotesPerBeat: 2}, Source: store.File, RecordedAt: noon, Chart: chart, Hash: []byte(id.String())}
	jobs := 0
	hand := func(h store.HandIn) error {
		h.Sound = strings.NewReader("a sound")
		return s.HandIn(in(t), h, func(pgx.Tx) error { jobs++; return nil })
	}
	require.NoError(t, hand(h))
	assert.True(t, store.IsKept(hand(h)), "the same take")
	other := h
	other.ID = uuid.New()
	var same store.ErrSameSound
	require.ErrorAs(t, hand(other), &same, "the same file")
	assert.Equal(t, h.ID, same.TakeID)
	a, err = s.Stand(in(t), id)
	require.NoError(t, err)
	assert.Equal(t, []int{1, 1}, []int{a.Takes, jobs})
}

// A take whose job cannot be queued is not kept: there is both or neither.
func TestATakeIsKeptWithItsJobOrNotAtAll(t *testing.T) {
	s := own(t)
	id := assignedTo(t, s, ann)
	a, err := s.Stand(in(t), id)
	require.NoError(t, err)
	chart, err := a.File.Value.Drill.Chart(guitar.Standard(), 60)
	require.NoError(t, err)
	take := uuid.New()
	err = s.HandIn(in(t), store.HandIn{ID: take, AssignmentID: id, Version: 1, Rung: tempo.Rung{BPM: 60, NotesPerBeat: 2}, Source: store.File, RecordedAt: noon, Chart: chart, Sound: strings.NewReader("x"), Hash: take[:]},
		func(pgx.Tx) error { return io.ErrClosedPipe })
	require.ErrorIs(t, err, io.ErrClosedPipe)
	_, err = s.Take(in(t), take)
	assert.ErrorIs(t, err, store.ErrNotFound)
	a, err = s.Stand(in(t), id)
	require.NoError(t, err)
	assert.Zero(t, a.Takes)
}

func TestAFailedTakeSaysWhyAndMayBeMeasuredAgain(t *testing.T) {
	s := own(t)
	id := handedIn(t, s, assignedTo(t, s, ann), 60, noon)
	require.NoError(t, s.Failed(in(t), id, "No notes."))
	take, err := s.Take(in(t), id)
	require.NoError(t, err)
	assert.Equal(t, []any{store.Failed, "No notes."}, []any{take.State, *take.Failure})
	assert.Nil(t, take.Analysis)
	require.NoError(t, s.MeasureAgain(in(t), id, nothing))
	state, err := s.TakeState(in(t), id)
	require.NoError(t, err)
	assert.Equal(t, store.Waiting, state)
	require.NoError(t, s.Measured(in(t), id, store.Measurement{Analysis: clean(60, 1), Listener: 1}))
	require.NoError(t, s.Failed(in(t), id, "Not again."))
	take, err = s.Take(in(t), id)
	require.NoError(t, err)
	assert.Equal(t, store.Measured, take.State, "what was measured before stays")
	assert.NotNil(t, take.Analysis)
	assert.Equal(t, "Not again.", *take.Failure)
}

// A sound is given back byte for byte, also in parts, and replaced as a whole.
func TestSoundsLieInParts(t *testing.T) {
	s := own(t)
	id := assignedTo(t, s, ann)
	a, err := s.Stand(in(t), id)
	require.NoError(t, err)
	chart, err := a.File.Value.Drill.Chart(guitar.Standard(), 60)
	require.NoError(t, err)
	raw := make([]byte, 700_001)
	for i := range raw {
		raw[i] = byte(i*i>>5 ^ i)
	}
	take := uuid.New()
	require.NoError(t, s.HandIn(in(t), store.HandIn{ID: take, AssignmentID: id, Version: 1, Rung: tempo.Rung{BPM: 60, NotesPerBeat: 2}, Source: store.File, RecordedAt: noon, Chart: chart, Sound: bytes.NewReader(raw), Hash: take[:]}, nothing))
	sound, err := s.Sound(in(t), take)
	require.NoError(t, err)
	got, err := io.ReadAll(sound)
	require.NoError(t, err)
	assert.Equal(t, raw, got)
	for _, from := range []int64{0, 262_143, 262_144, 699_999, 700_001} {
		_, err := sound.Seek(from, io.SeekStart)
		require.NoError(t, err)
		got, err := io.ReadAll(io.LimitReader(sound, 5))
		require.NoError(t, err)
		assert.Equal(t, raw[from:min(len(raw), int(from)+5)], got)
	}
	_, err = sound.Seek(-1, io.SeekStart)
	assert.Error(t, err)

	require.NoError(t, s.KeepSound(in(t), take, strings.NewReader("short")))
	assert.ErrorIs(t, s.KeepSound(in(t), uuid.New(), strings.NewReader("x")), store.ErrNotFound)
	sound, err = s.Sound(in(t), take)
	require.NoError(t, err)
	got, err = io.ReadAll(sound)
	require.NoError(t, err)
	assert.Equal(t, "short", string(got))
}

// Pages follow one another without a gap or a double, also where takes are as old
// as each other.
func TestListsComeInPages(t *testing.T) {
	s := own(t)
	a := assignedTo(t, s, ben)
	want := map[uuid.UUID]bool{}
	for i := range 7 {
		want[playedAs(t, s, a, 60, noon.Add(time.Duration(i/3)*time.Hour), clean(60, 1)).ID] = true
	}
	var got []store.TakeSummary
	for page := (store.Page{Limit: 3}); ; {
		takes, err := s.Takes(in(t), &a, nil, page)
		require.NoError(t, err)
		got = append(got, takes...)
		if len(takes) < 3 {
			break
		}
		last := takes[len(takes)-1]
		text := store.Cursor{At: last.RecordedAt, ID: last.ID}.String()
		c, err := store.ParseCursor(text)
		require.NoError(t, err)
		page.After = &c
	}
	require.Len(t, got, 7)
	for i, take := range got {
		assert.True(t, want[take.ID])
		delete(want, take.ID)
		assert.True(t, i == 0 || !take.RecordedAt.After(got[i-1].RecordedAt), "the latest first")
	}
	_, err := store.ParseCursor("elsewhere")
	assert.ErrorIs(t, err, store.ErrCursor)
	points, _, err := s.Trend(in(t), a, store.Page{Limit: 2})
	require.NoError(t, err)
	assert.Len(t, points, 2)
}

// A tempo passed long ago is still known to a page of the trend that begins later.
func TestATrendKnowsWhatWasPassedBefore(t *testing.T) {
	s := own(t)
	a := assignedTo(t, s, ben)
	playedAs(t, s, a, 72, noon, clean(72, 2))
	playedAs(t, s, a, 60, noon.Add(time.Hour), clean(60, 1))
	points, passed, err := s.Trend(in(t), a, store.Page{Limit: 1})
	require.NoError(t, err)
	require.Len(t, points, 1)
	assert.Equal(t, &tempo.Rung{BPM: 72, NotesPerBeat: 2}, passed)
}

// One drill that another version has written does not take the list down.
func TestAnOddDocumentStandsAlone(t *testing.T) {
	s := own(t)
	id := added(t, s, store.Shelf{})
	a, err := s.Assign(in(t), id, ann.ID)
	require.NoError(t, err)
	block := uuid.New()
	for _, odd := range []string{
		`UPDATE drill_versions SET file = jsonb_set(file, '{drill,pattern,kind}', '"sorcery"') WHERE drill_id = '` + id.String() + `'`,
		`INSERT INTO blocks (id, block) VALUES ('` + block.String() + `', '{"name": "odd", "items": 7}')`,
	} {
		_, err := s.Pool().Exec(in(t), odd)
		require.NoError(t, err)
	}
	drills, err := s.Drills(in(t), store.Page{})
	require.NoError(t, err)
	odd := 0
	for _, d := range drills {
		if d.File.Odd != nil {
			odd++
			assert.Equal(t, "slurs", d.Name, "its name is still known")
		}
	}
	assert.Equal(t, 1, odd)
	stand, err := s.Stand(in(t), a)
	require.NoError(t, err)
	assert.Error(t, stand.File.Odd)
	_, err = s.Pupil(in(t), ann.ID)
	require.NoError(t, err)
	blocks, err := s.Blocks(in(t), store.Page{})
	require.NoError(t, err)
	for _, b := range blocks {
		assert.Equal(t, b.ID == block, b.Block.Odd != nil)
	}
	require.NoError(t, s.DeleteDrill(in(t), id))
	require.NoError(t, s.DeleteBlock(in(t), block))
}

func TestAllTakesAreMeasuredAgainOnce(t *testing.T) {
	s := own(t)
	a := assignedTo(t, s, ann)
	for range 3 {
		played(t, s, a)
	}
	var id uuid.UUID
	begin := func(_ pgx.Tx, begun uuid.UUID) error { id = begun; return nil }
	require.NoError(t, s.Remeasure(in(t), begin))
	first := id
	require.NoError(t, s.Remeasure(in(t), begin), "a second click begins nothing")
	require.Equal(t, first, id)
	r, err := s.Remeasuring(in(t))
	require.NoError(t, err)
	done := map[uuid.UUID]bool{}
	for {
		take, err := s.NextToRemeasure(in(t), id)
		if err != nil {
			require.ErrorIs(t, err, store.ErrNotFound)
			break
		}
		require.False(t, done[take])
		done[take] = true
		for range 2 { // a worker that was cut off counts it again
			require.NoError(t, s.Remeasured(in(t), id, take, len(done) == 1))
		}
	}
	assert.Len(t, done, r.Total)
	r, err = s.Remeasuring(in(t))
	require.NoError(t, err)
	assert.Equal(t, []int{r.Total, 1}, []int{r.Done, r.Failed})
	assert.NotNil(t, r.EndedAt)
	assert.ErrorIs(t, s.CancelRemeasuring(in(t)), store.ErrNotFound)
}

// Of a take whose tempo nobody knew it is what was heard at first, however often it is
// measured; of something else the rung's.
func TestATempoThatNobodyKnewIsTheOneHeard(t *testing.T) {
	s := own(t)
	id := assignedTo(t, s, ann)
	a, err := s.Stand(in(t), id)
	require.NoError(t, err)
	chart, err := a.File.Value.Drill.Chart(guitar.Standard(), 60)
	require.NoError(t, err)
	otherTempo := clean(71.6, 1)
	otherTempo.Course.Events = []follow.Event{{Kind: follow.OtherTempo, Share: 71.6 / 60}}
	for name, c := range map[string]struct {
		asHeard bool
		found   evenness.Analysis
		bpm     float64
		counts  bool
	}{
		"heard":            {true, otherTempo, 72, true},
		"told":             {false, otherTempo, 60, false},
		"something else":   {true, evenness.Analysis{Foreign: true, Tempo: evenness.Tempo{BPM: 140}}, 60, false},
		"beyond all rungs": {true, clean(400, 1), 320, false},
	} {
		take := uuid.New()
		h := store.HandIn{ID: take, AssignmentID: id, Version: 1, Rung: tempo.Rung{BPM: 60, NotesPerBeat: 2}, AsHeard: c.asHeard, Source: store.File, RecordedAt: noon, Chart: chart, Sound: strings.NewReader(name), Hash: take[:]}
		require.NoError(t, s.HandIn(in(t), h, nothing), name)
		for i, again := range []evenness.Analysis{c.found, c.found, clean(90, 1)} {
			require.NoError(t, s.Measured(in(t), take, store.Measurement{Analysis: again, Seconds: 3, Listener: 1}), name)
			got, err := s.Take(in(t), take)
			require.NoError(t, err, name)
			assert.InDelta(t, c.bpm, got.Rung.BPM, 0, name)
			assert.InDelta(t, c.bpm, got.Chart.BPM, 0, name)
			if again.Tempo.BPM == c.found.Tempo.BPM {
				assert.Equal(t, c.counts, got.Decision.Counts, name)
			}
			if name == "heard" && i == 0 {
				assert.Empty(t, got.Analysis.Course.Events, "what is heard was asked for")
			}
		}
	}
}
