package evenness_test

import (
	"encoding/json"
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/core/drill"
	"manudrill/core/drill/chart"
	"manudrill/core/evenness"
	"manudrill/core/follow"
	"manudrill/core/guitar"
	"manudrill/core/listen"
)

func chartOf(t *testing.T, passes int) chart.Chart {
	t.Helper()
	d := drill.New("test", drill.SlurCombinations{Combinations: [][]int{{1, 2, 4}}, Slur: drill.HammerOns})
	d.Path.Strings, d.Path.Stay.Count = []int{3, 2, 1}, 2
	d.Rhythm.NotesPerBeat, d.Rhythm.Passes = 3, passes
	c, err := d.Chart(guitar.Standard(), 60)
	require.NoError(t, err)
	return c
}

// played moves every note of the chart from its place by what off says, in ms,
// and from −20 dB by what loud says.
func played(c chart.Chart, off, loud func(i int, n chart.Note) float64) follow.Take {
	var heard []listen.Note
	for i, n := range c.Unroll() {
		at := 2 + n.Beat*60/c.BPM + off(i, n)/1000
		heard = append(heard, listen.Note{
			Onset: at, End: at + 1/c.NotesPerSecond(), Pitch: float64(n.MIDI), LevelDB: -20 + loud(i, n),
		})
	}
	return follow.Follow(c, heard)
}

func none(int, chart.Note) float64 { return 0 }

func TestAnExactTakeHasNoSpread(t *testing.T) {
	a := evenness.Judge(played(chartOf(t, 2), none, none))
	assert.InDelta(t, 60, a.Tempo.BPM, 1e-6)
	assert.InDelta(t, 3, a.Tempo.NotesPerSecond, 1e-6)
	assert.InDelta(t, 0, a.Timing.SpreadMs, 1e-6)
	assert.InDelta(t, 0, a.Timing.CVPercent, 1e-6)
	assert.InDelta(t, 0, a.Level.SpreadDB, 1e-6)
	assert.Equal(t, evenness.Counts{Expected: 36, Played: 36}, a.Counts)
	require.Len(t, a.Passes, 2)
	assert.InDelta(t, 100, a.Passes[1].RightPercent, 1e-9)
}

// Notes 10 ms late and early in turn: the standard deviation about the line is
// 10 ms but for the line's slight tilt, and the intervals of 333.3 ms swing by
// 20 ms, so their coefficient of variation is 6 %.
func TestSpreadAndVariationWorkedOutByHand(t *testing.T) {
	zigzag := func(i int, _ chart.Note) float64 { return 10 * float64(1-2*(i%2)) }
	a := evenness.Judge(played(chartOf(t, 4), zigzag, none))
	assert.InDelta(t, 10, a.Timing.SpreadMs, 0.01)
	assert.InDelta(t, 3, a.Timing.SpreadPercent, 0.01)
	assert.InDelta(t, 6, a.Timing.CVPercent, 0.01)
	assert.InDelta(t, 10, math.Abs(*a.Notes[5].DeviationMs), 0.5)
}

// The line of onset on beat is ordinary least squares: an example worked in
// closed form, slope Sxy/Sxx.
func TestTempoIsTheLeastSquaresLine(t *testing.T) {
	c := chartOf(t, 1)
	drift := func(i int, _ chart.Note) float64 { return float64(i*i) / 10 }
	a := evenness.Judge(played(c, drift, none))
	var sx, sy, sxx, sxy, n float64
	for i, note := range c.Notes {
		x, y := note.Beat, note.Beat+drift(i, note)/1000
		sx, sy, sxx, sxy, n = sx+x, sy+y, sxx+x*x, sxy+x*y, n+1
	}
	assert.InDelta(t, 60/((n*sxy-sx*sy)/(n*sxx-sx*sx)), a.Tempo.BPM, 1e-9)
}

func TestTheLateFingerPairIsTheWeakest(t *testing.T) {
	late := func(_ int, n chart.Note) float64 {
		if n.Finger == 4 {
			return 22
		}
		return 0
	}
	soft := func(_ int, n chart.Note) float64 {
		if n.Finger == 4 {
			return -5
		}
		return 0
	}
	a := evenness.Judge(played(chartOf(t, 3), late, soft))
	require.NotNil(t, a.Weakest)
	assert.Equal(t, evenness.FingerPair{From: 2, To: 4, Attack: chart.Hammer}, *a.Weakest)
	worst := a.Transitions[0]
	assert.Equal(t, 18, worst.Count, "three strings, twice, three passes")
	assert.InDelta(t, 22, worst.MeanMs, 0.2)
	assert.InDelta(t, -5, worst.LevelDB, 1e-9)
	assert.InDelta(t, 0, worst.SpreadMs, 0.5)
	for _, other := range a.Transitions[1:] {
		assert.NotEqual(t, [2]int{2, 4}, [2]int{other.From, other.To})
	}
}

func TestPassesAreJudgedEachOnItsOwn(t *testing.T) {
	c := chartOf(t, 2)
	size := len(c.Notes)
	second := func(i int, _ chart.Note) float64 {
		if i >= size {
			return 30 * float64(1-2*(i%2))
		}
		return 0
	}
	a := evenness.Judge(played(c, second, none))
	assert.Less(t, a.Passes[0].SpreadPercent, 2.0)
	assert.InDelta(t, 9, a.Passes[1].SpreadPercent, 0.5, "30 ms of 333 ms")
}

func TestMissedAndExtraNotesCount(t *testing.T) {
	c := chartOf(t, 1)
	take := played(c, none, none)
	take.Matches[4].Status, take.Matches[4].Heard = follow.Missed, listen.Note{}
	take.Extras = []listen.Note{{Onset: 3.1, Pitch: 40}}
	a := evenness.Judge(take)
	assert.Equal(t, evenness.Counts{Expected: 18, Played: 17, Missed: 1, Extra: 1}, a.Counts)
	assert.InDelta(t, 100*17.0/19, a.Passes[0].RightPercent, 1e-9)
	assert.Nil(t, a.Notes[4].T)
	assert.Equal(t, 40, a.Extras[0].MIDI)
}

func TestATakeWithoutARightNoteCanBeJudged(t *testing.T) {
	a := evenness.Judge(follow.Follow(chartOf(t, 1), []listen.Note{{Onset: 1, Pitch: 31.4}}))
	assert.True(t, a.Foreign)
	_, err := json.Marshal(a)
	assert.NoError(t, err, "no figure may be infinite or no number")
}

// Friberg & Sundberg, J. Acoust. Soc. Am. 98, 1995: about 6 ms below 240 ms and
// 2.5 % above (from memory).
func TestWhatTheEarNotices(t *testing.T) {
	for interval, ms := range map[float64]float64{80: 6, 200: 6, 240: 6, 400: 10, 1000: 25} {
		assert.InDelta(t, ms, evenness.AudibleMs(interval), 1e-9)
	}
}

// Where the device has told when its click comes in the recording, ahead and behind are
// known without one being heard.
func TestAheadOfAClickWhoseTimeIsKnown(t *testing.T) {
	c := chartOf(t, 2)
	at := 2 - 0.030 // notes come 30 ms after
	c.ClickAt = &at
	a := evenness.Judge(played(c, none, none))
	require.NotNil(t, a.Pulse.ClickMs)
	assert.InDelta(t, 30, a.Pulse.ClickMs.Value, 0.01)
	c.Free = true
	assert.Nil(t, evenness.Judge(played(c, none, none)).Pulse.ClickMs, "a free drill has no click to be beside")
	nowhere := 1e9
	c.ClickAt = &nowhere
	assert.Error(t, c.Validate())
}

// Three passes at 60, 70 and 80 bpm last 12, 12·60/70 and 12·60/80 s, worked out by hand; who
// plays them exactly has no spread, and each extra note belongs to its pass.
func TestATakeThatRisesFromPassToPass(t *testing.T) {
	c := chartOf(t, 3) // 18 notes at three a beat: six beats a pass
	c.RiseBPM = 10
	require.NoError(t, c.Validate())
	assert.InDelta(t, 6+6*60.0/70+6*60.0/80, c.TakeSeconds(), 1e-9)
	take := played(c, none, none)
	a := evenness.Judge(take)
	assert.InDelta(t, 60, a.Tempo.BPM, 1e-6, "of the first pass")
	assert.InDelta(t, 0, a.Timing.SpreadMs, 1e-6)
	assert.Equal(t, 54, a.Counts.Played)
	assert.Nil(t, a.Pulse.ClickMs)

	var heard []listen.Note
	for i, m := range take.Matches {
		heard = append(heard, m.Heard)
		if i == 40 { // in the third pass
			extra := m.Heard
			extra.Onset, extra.Pitch = extra.Onset+0.11, extra.Pitch+5
			heard = append(heard, extra)
		}
	}
	a = evenness.Judge(follow.Follow(c, heard))
	require.Len(t, a.Passes, 3)
	assert.InDelta(t, 100, a.Passes[1].RightPercent, 1e-9)
	assert.Less(t, a.Passes[2].RightPercent, 100.0)

	flat := evenness.Judge(played(chartOf(t, 3), func(_ int, n chart.Note) float64 { return -1000 * 0.02 * n.Beat * n.Beat }, none))
	assert.Greater(t, flat.Timing.SpreadMs, 20.0, "where no rise was asked for, rushing is no evenness")
	c.RiseBPM = -3
	assert.Error(t, c.Validate())
}
