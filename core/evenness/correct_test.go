package evenness_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/core/drill/chart"
	"manudrill/core/evenness"
	"manudrill/core/follow"
	"manudrill/core/listen"
)

// faulty is two passes of 18 notes with one wrong note, one missed, one
// touched open string, and a wait.
func faulty(t *testing.T) (evenness.Analysis, chart.Chart) {
	t.Helper()
	c := chartOf(t, 2)
	var heard []listen.Note
	for i, n := range c.Unroll() {
		at := 2 + n.Beat*60/c.BPM
		if i >= 25 {
			at += 0.6
		}
		pitch := float64(n.MIDI)
		switch i {
		case 5:
			pitch += 2
		case 9:
			continue
		}
		heard = append(heard, listen.Note{Onset: at, End: at + 0.3, Pitch: pitch, LevelDB: -20})
		if i == 13 {
			heard = append(heard, listen.Note{Onset: at + 0.15, End: at + 0.2, Pitch: 40, LevelDB: -30})
		}
	}
	return evenness.Judge(follow.Follow(c, heard)), c
}

// What was not so is not told, and passes and counts follow: with all of it said, the take is
// clean. What was measured is kept as it was.
func TestWhatWasNotSo(t *testing.T) {
	a, _ := faulty(t)
	require.Equal(t, evenness.Counts{Expected: 36, Played: 34, Missed: 1, Wrong: 1, Extra: 1}, a.Counts)
	require.Len(t, a.Course.Events, 1)
	require.True(t, a.Passes[1].Interrupted)
	before := a.Passes[0].RightPercent
	require.InDelta(t, 100*16.0/19, before, 1e-9)

	all := []evenness.Correction{
		{Of: evenness.OfNote, Kind: "wrong", Index: 5}, {Of: evenness.OfNote, Kind: "missed", Index: 9},
		{Of: evenness.OfExtra, Kind: "extra", T: a.Extras[0].T}, {Of: evenness.OfEvent, Kind: "hesitation", Index: 25},
		{Of: evenness.OfFinding, Kind: "late"},
	}
	for _, c := range all {
		require.NoError(t, c.Check(a), "%+v", c)
	}
	is := a.Corrected(all)
	assert.Equal(t, evenness.Counts{Expected: 36, Played: 36}, is.Counts)
	for _, p := range is.Passes {
		assert.InDelta(t, 100, p.RightPercent, 1e-9)
		assert.False(t, p.Interrupted)
	}
	assert.Empty(t, is.Course.Events)
	assert.Equal(t, []string{"late"}, is.Denied)
	assert.InDelta(t, 0, *is.Notes[9].DeviationMs, 1e-9)
	assert.Equal(t, a.Timing, is.Timing)

	assert.InDelta(t, before, a.Passes[0].RightPercent, 1e-9, "what was measured stays")
	assert.Equal(t, follow.Missed, a.Notes[9].Status)
	assert.Len(t, a.Course.Events, 1)

	one := a.Corrected(all[:1])
	assert.Equal(t, evenness.Counts{Expected: 36, Played: 35, Missed: 1, Extra: 1}, one.Counts)
	assert.InDelta(t, 100*17.0/19, one.Passes[0].RightPercent, 1e-9)
	assert.True(t, one.Passes[1].Interrupted)
	assert.Equal(t, a, a.Corrected(nil))
}

// Of what was not told nothing can be said, nor of what is only measured.
func TestOnlyWhatIsToldIsCorrected(t *testing.T) {
	a, _ := faulty(t)
	for _, c := range []evenness.Correction{
		{Of: evenness.OfNote, Kind: "wrong", Index: 4}, {Of: evenness.OfNote, Kind: "missed", Index: 5}, {Of: evenness.OfNote, Kind: "wrong", Index: 99},
		{Of: evenness.OfNote, Kind: "wrong", Index: -1}, {Of: evenness.OfExtra, Kind: "extra", T: 3}, {Of: evenness.OfEvent, Kind: "stop", Index: 25},
		{Of: evenness.OfEvent, Kind: "hesitation", Index: 24}, {Of: evenness.OfFinding, Kind: "mistakes"}, {Of: evenness.OfFinding}, {Of: "tempo", Kind: "slow"},
	} {
		assert.ErrorContains(t, c.Check(a), "load the take again", "%+v", c)
	}
}

// Of a recording that was made elsewhere no tempo was asked for: the one that is heard is.
func TestATempoThatIsHeardWasAskedFor(t *testing.T) {
	c := chartOf(t, 2)
	slower := evenness.Judge(played(c, func(i int, _ chart.Note) float64 { return float64(i) * 1000 / 3 * 0.1 }, none))
	require.Len(t, slower.Course.Events, 1)
	require.Equal(t, follow.OtherTempo, slower.Course.Events[0].Kind)
	asked := slower.Asked(55)
	assert.Empty(t, asked.Course.Events)
	assert.InDelta(t, 55, asked.Tempo.AskedBPM, 1e-9)
	assert.Len(t, slower.Asked(60).Course.Events, 1)
	assert.Len(t, slower.Course.Events, 1, "what was judged stays")
	c.Free = true
	free := evenness.Judge(played(c, func(i int, _ chart.Note) float64 { return float64(i) * 1000 / 3 * 0.1 }, none))
	assert.Empty(t, free.Course.Events, "as fast as it stays even")
}
