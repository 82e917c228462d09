package evenness_test

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"gonum.org/v1/gonum/stat"

	"manudrill/core/drill/chart"
	"manudrill/core/evenness"
	"manudrill/core/follow"
	"manudrill/core/listen"
)

// nPVI by its definition (Grabe & Low 2002): 100 · mean of |a−b| / ((a+b)/2).
// Notes 10 ms late and early in turn make intervals of 313.3 and 353.3 ms in
// turn: 100 · 40/333.3 = 12.
func TestNPVIOfAlternatingIntervals(t *testing.T) {
	zigzag := func(i int, _ chart.Note) float64 { return 10 * float64(1-2*(i%2)) }
	a := evenness.Judge(played(chartOf(t, 4), zigzag, none))
	require.NotNil(t, a.Pulse.NPVI)
	assert.InDelta(t, 12, a.Pulse.NPVI.Value, 0.05)
	assert.Equal(t, 70, a.Pulse.NPVI.Count, "72 notes make 71 intervals and 70 pairs of them")
}

// Wing & Kristofferson's own model: intervals of a clock of variance C² and
// responses each late by a motor delay of variance D² have γ(0) = C² + 2D² and
// γ(1) = −D². Data drawn from it give both back.
func TestClockAndMotorOfTheModel(t *testing.T) {
	rng := rand.New(rand.NewPCG(5, 5))
	clock := 0.0
	off := func(int, chart.Note) float64 {
		clock += 6 * rng.NormFloat64()
		return clock + 4*rng.NormFloat64()
	}
	a := evenness.Judge(played(chartOf(t, 60), off, none))
	require.NotNil(t, a.Pulse.ClockMs)
	assert.InDelta(t, 6, a.Pulse.ClockMs.Value, 1)
	assert.InDelta(t, 4, a.Pulse.MotorMs.Value, 1)
	assert.Less(t, a.Pulse.ClockMs.PlusMinus, 1.5)
}

// An interval of 95 % for a mean of a normal sample: Student's t at 9 degrees of
// freedom is 2.262 (any table), so ± 2.262·s/√10.
func TestTheIntervalOfAMean(t *testing.T) {
	late := []float64{0, 7, -3, 4, 12, -6, 1, 9, 2, -1}
	k := 0
	off := func(i int, n chart.Note) float64 {
		if n.Finger == 2 && k < len(late) {
			k++
			return late[k-1]
		}
		return 0
	}
	c := chartOf(t, 2)
	c.Notes = c.Notes[:15] // ten notes of finger 2
	a := evenness.Judge(played(c, off, none))
	for _, tr := range a.Transitions {
		if tr.From == 1 && tr.To == 2 {
			assert.Equal(t, 10, tr.Count)
			assert.InDelta(t, 2.262*tr.SpreadMs*math.Sqrt(10.0/9)/math.Sqrt(10), tr.PlusMinusMs, 0.01)
		}
	}
}

// Few notes carry no claim.
func TestTooFewNotesSayNothing(t *testing.T) {
	c := chartOf(t, 1)
	c.Notes = c.Notes[:4]
	a := evenness.Judge(played(c, none, none))
	assert.Nil(t, a.Pulse.NPVI)
	assert.Nil(t, a.Pulse.ClockMs)
	assert.Nil(t, a.Pulse.DriftPercent)
	assert.Nil(t, a.Slurs.LevelDB)
	assert.Nil(t, a.Endurance)
	assert.Empty(t, a.Groups)
	for _, tr := range a.Transitions {
		assert.False(t, tr.Sure)
	}
}

// A tempo that rises steadily by 10 %: the drift is told, in a closed form that
// bends the line exactly.
func TestDriftOfASteadilyRisingTempo(t *testing.T) {
	c := chartOf(t, 6)
	n := float64(len(c.Unroll()))
	step := 1000 * 60 / c.BPM / float64(c.NotesPerBeat)
	rise := func(i int, _ chart.Note) float64 {
		x := float64(i) / n
		return 0.10 * step * n * (x - x*x) / 2
	}
	a := evenness.Judge(played(c, rise, none))
	require.NotNil(t, a.Pulse.DriftPercent)
	assert.InDelta(t, 10, a.Pulse.DriftPercent.Value, 0.2)
}

// A pause moves all that comes after it and is no unevenness.
func TestAPauseIsNoUnevenness(t *testing.T) {
	pause := func(i int, _ chart.Note) float64 {
		if i >= 20 {
			return 3000
		}
		return 0
	}
	a := evenness.Judge(played(chartOf(t, 3), pause, none))
	require.Len(t, a.Course.Events, 1)
	assert.Equal(t, follow.Stop, a.Course.Events[0].Kind)
	assert.Equal(t, 20, a.Course.Events[0].Before)
	assert.InDelta(t, 3, a.Course.Events[0].Seconds, 1e-6)
	assert.InDelta(t, 0, a.Timing.SpreadMs, 1e-6)
	assert.InDelta(t, 60, a.Tempo.BPM, 1e-6)
	assert.InDelta(t, 0, *a.Notes[40].DeviationMs, 1e-6)
}

// One late note is no pause: those after it are on time again.
func TestOneVeryLateNoteIsNoPause(t *testing.T) {
	late := func(i int, _ chart.Note) float64 {
		if i == 20 {
			return 900
		}
		return 0
	}
	a := evenness.Judge(played(chartOf(t, 3), late, none))
	assert.Empty(t, a.Course.Events)
}

// Two takes side by side: a spread that halves over seventy notes is surely
// better (F(71,71) at 97.5 % is about 1.6), another draw of the same is not.
func TestTwoTakesSideBySide(t *testing.T) {
	written := chartOf(t, 4)
	take := func(seed uint64, sd float64) evenness.Analysis {
		rng := rand.New(rand.NewPCG(seed, 9))
		return evenness.Judge(played(written, func(int, chart.Note) float64 { return sd * rng.NormFloat64() }, none))
	}
	find := func(c evenness.Contrast, about string) evenness.Difference {
		for _, d := range c.Differences {
			if d.About == about {
				return d
			}
		}
		t.Fatalf("no %s", about)
		return evenness.Difference{}
	}
	c, err := evenness.Compare(take(1, 16), take(2, 8), written, written)
	require.NoError(t, err)
	d := find(c, "spreadMs")
	assert.True(t, d.Sure && d.Better, "%+v", d)
	c, err = evenness.Compare(take(3, 8), take(4, 8), written, written)
	require.NoError(t, err)
	assert.False(t, find(c, "spreadMs").Sure)
	other := written
	other.Notes = other.Notes[1:]
	_, err = evenness.Compare(take(1, 8), take(2, 8), written, other)
	assert.ErrorIs(t, err, evenness.ErrOtherNotes)
}

// What comes in every pass stays in the mean of a note over the passes; a note that
// is never right has none.
func TestTheHabitOfEachNoteInBothTakes(t *testing.T) {
	written := chartOf(t, 4)
	late := func(ms float64) evenness.Analysis {
		rng := rand.New(rand.NewPCG(5, 5))
		return evenness.Judge(played(written, func(i int, _ chart.Note) float64 {
			if i%len(written.Notes) == 3 {
				return ms
			}
			return 2 * rng.NormFloat64()
		}, none))
	}
	before, after := late(30), late(0)
	for i := range after.Notes {
		if i%len(written.Notes) == 5 {
			after.Notes[i].Status = follow.Wrong
		}
	}
	c, err := evenness.Compare(before, after, written, written)
	require.NoError(t, err)
	require.Len(t, c.Places, len(written.Notes))
	third := c.Places[3]
	assert.Equal(t, 4, third.Before.Count)
	assert.InDelta(t, 30, third.Before.DeviationMs-third.After.DeviationMs, 3)
	assert.True(t, third.Before.Uneven)
	assert.False(t, third.After.Uneven)
	assert.Equal(t, 4, c.Places[5].Before.Count)
	assert.Zero(t, c.Places[5].After)
}

// Gaps, ringing and dragging are counted where they are, and only where they can
// be told.
func TestConnectionIsCounted(t *testing.T) {
	c := chartOf(t, 2)
	notes := c.Unroll()
	heard := make([]listen.Note, len(notes))
	for i, n := range notes {
		at := 2 + n.Beat
		heard[i] = listen.Note{Onset: at, End: at + 1.0/3, Pitch: float64(n.MIDI), LevelDB: -20}
		if i%4 == 0 {
			heard[i].End = at + 0.2
		}
		heard[i].Carry = listen.Carry{Known: true, DB: -3}
	}
	a := evenness.Judge(follow.Follow(c, heard))
	assert.Equal(t, 9, a.Connection.Gaps)
	assert.Equal(t, 35, a.Connection.GapsOf)
	assert.Equal(t, a.Connection.RingingOf, a.Connection.Ringing, "every change of string that is known")
	assert.Greater(t, a.Connection.RingingOf, 3)
	assert.InDelta(t, 1000*(1.0/3-0.2), *a.Notes[4].GapMs, 1)
	assert.Nil(t, a.Notes[5].GapMs)
	mean := stat.Mean([]float64{60, 100, 100, 100}, nil)
	assert.InDelta(t, mean, a.Connection.SoundingPercent.Value, 1)
}
