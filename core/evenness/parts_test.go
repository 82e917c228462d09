package evenness_test

import (
	"math/rand/v2"
	"slices"
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

// pickedThenSlurred is a chart of the same notes picked, then hammered.
func pickedThenSlurred(t *testing.T, passes int) chart.Chart {
	t.Helper()
	d := drill.New("test", drill.SlurCombinations{Combinations: [][]int{{1, 2, 4}}, Slur: drill.HammerOns})
	d.Path.Strings, d.Path.Stay.Count = []int{3, 2, 1}, 4
	d.Rhythm.NotesPerBeat, d.Rhythm.Passes = 3, passes
	c, err := d.PickedFirst().Chart(guitar.Standard(), 60)
	require.NoError(t, err)
	return c
}

// What is measured of a part is what is measured of the same notes recorded alone.
func TestAPartIsMeasuredAsIfItWereRecordedAlone(t *testing.T) {
	c := pickedThenSlurred(t, 1)
	rng := rand.New(rand.NewPCG(7, 1))
	off := func(_ int, n chart.Note) float64 { return float64(6+8*n.Part) * rng.NormFloat64() }
	whole := played(c, off, off)
	a := evenness.Judge(whole)
	require.Len(t, a.Parts, 2)
	for part := range a.Parts {
		var heard []listen.Note
		for _, m := range whole.Matches {
			if m.Chart.Part == part {
				heard = append(heard, m.Heard)
			}
		}
		alone := evenness.Judge(follow.Follow(c.Alone(part), heard))
		assert.InDelta(t, alone.Timing.SpreadMs, a.Parts[part].SpreadMs, 1e-6)
		assert.InDelta(t, alone.Timing.SpreadPercent, a.Parts[part].SpreadPercent, 1e-6)
		assert.InDelta(t, alone.Level.SpreadDB, a.Parts[part].LevelSpreadDB, 1e-6)
		assert.InDelta(t, alone.Tempo.BPM, a.Parts[part].BPM, 1e-6)
		assert.Equal(t, alone.Counts, a.Parts[part].Counts)
	}
	assert.Nil(t, evenness.Judge(played(chartOf(t, 1), none, none)).Parts, "a drill of one part has none")
}

func TestMistakesBelongToTheirPart(t *testing.T) {
	c := pickedThenSlurred(t, 2)
	var heard []listen.Note
	for i, m := range played(c, none, none).Matches {
		switch {
		case m.Chart.Part == 1 && i%len(c.Notes) == 50: // missed in either pass
		case m.Chart.Part == 0 && i == 4: // and once touched besides
			extra := m.Heard
			extra.Onset, extra.Pitch = extra.Onset+0.15, extra.Pitch+5
			heard = append(heard, m.Heard, extra)
		default:
			heard = append(heard, m.Heard)
		}
	}
	a := evenness.Judge(follow.Follow(c, heard))
	require.Len(t, a.Parts, 2)
	n := len(c.Notes) / 2
	assert.Equal(t, evenness.Counts{Expected: 2 * n, Played: 2 * n, Extra: 1}, a.Parts[0].Counts)
	assert.Equal(t, evenness.Counts{Expected: 2 * n, Played: 2*n - 2, Missed: 2}, a.Parts[1].Counts)
}

func TestAPartThatWasNotGotToIsNotPlayed(t *testing.T) {
	c := pickedThenSlurred(t, 1)
	whole := played(c, none, none)
	var heard []listen.Note
	for _, m := range whole.Matches[:len(whole.Matches)/2] {
		heard = append(heard, m.Heard)
	}
	a := evenness.Judge(follow.Follow(c, heard))
	require.Len(t, a.Parts, 2)
	assert.True(t, a.Parts[0].Played)
	assert.False(t, a.Parts[1].Played)

	// Left in the second pass, half through its second part: nothing was missed.
	c = pickedThenSlurred(t, 2)
	heard = nil
	for _, m := range played(c, none, none).Matches[:len(c.Notes)*7/4] {
		heard = append(heard, m.Heard)
	}
	a = evenness.Judge(follow.Follow(c, heard))
	require.Len(t, a.Parts, 2)
	for _, p := range a.Parts {
		assert.True(t, p.Played)
		assert.Zero(t, p.Counts.Missed)
		assert.InDelta(t, 100, p.RightPercent, 1e-9)
	}
}

// The slurred part is set against the picked one; the F distribution's 97.5 % point at 35
// and 35 degrees of freedom is 1.96 (handbook tables, between 30 and 40), a ratio of 1.40
// of the spreads.
func TestTheSlurredPartIsSetAgainstThePickedOne(t *testing.T) {
	written := pickedThenSlurred(t, 1)
	for _, c := range []struct {
		ratio float64
		sure  bool
	}{{1.3, false}, {1.6, true}} {
		off := func(i int, n chart.Note) float64 {
			ms := 10 * float64(1-2*(i%2))
			if n.Part == 1 {
				ms *= c.ratio
			}
			return ms
		}
		a := evenness.Judge(played(written, off, none))
		require.NotNil(t, a.Parts[1].Against)
		assert.Nil(t, a.Parts[0].Against)
		assert.Zero(t, a.Parts[1].Against.Part)
		at := slices.IndexFunc(a.Parts[1].Against.Differences, func(d evenness.Difference) bool { return d.About == "spreadMs" })
		d := a.Parts[1].Against.Differences[at]
		assert.InDelta(t, 10, d.Before, 0.1)
		assert.InDelta(t, 10*c.ratio, d.After, 0.1)
		assert.Equal(t, c.sure, d.Sure, "%g", c.ratio)
		assert.False(t, d.Better)
	}
}
