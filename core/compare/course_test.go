package compare_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"manudrill/core/compare"
	"manudrill/core/listen"
)

// later moves notes in time.
func later(notes []listen.Note, seconds float64) []listen.Note {
	out := append([]listen.Note{}, notes...)
	for i := range out {
		out[i].Onset += seconds
	}
	return out
}

func TestTheDrillPlayedTwiceIsTwoPasses(t *testing.T) {
	chart := pairs(t)
	once := exact(chart, 2, 90)
	for name, pause := range map[string]float64{"straight on": chart.Seconds(), "after a breath": chart.Seconds() + 2.5} {
		take := compare.Compare(chart, append(append([]listen.Note{}, once...), later(once, pause)...))
		assert.Equal(t, 2, take.Passes, name)
		assert.Equal(t, 44, take.Count(compare.Played), name)
		assert.Empty(t, take.Extras, name)
	}
}

// A few notes after the end are no pass.
func TestAFewNotesMoreAreExtras(t *testing.T) {
	chart := pairs(t)
	heard := exact(chart, 2, 90)
	heard = append(heard, later(heard[:4], chart.Seconds())...)
	take := compare.Compare(chart, heard)
	assert.Equal(t, 1, take.Passes)
	assert.Len(t, take.Extras, 4)
	assert.False(t, take.Foreign())
}

func TestABrokenOffBeginningIsAFalseStart(t *testing.T) {
	chart := pairs(t)
	chart.Passes = 2
	whole := exact(chart, 9, 90)
	take := compare.Compare(chart, append(later(whole[:9], -7), whole...))
	assert.Len(t, take.FalseStart, 9)
	assert.Empty(t, take.Extras)
	assert.Equal(t, 44, take.Count(compare.Played))
}

func TestStoppingEarlyIsNoOtherDrill(t *testing.T) {
	chart := pairs(t)
	chart.Passes = 3
	take := compare.Compare(chart, exact(chart, 2, 90)[:12])
	assert.Equal(t, 12, take.Count(compare.Played))
	assert.Equal(t, 11, take.Last(), "the first pass was played, not the last")
	assert.False(t, take.Foreign())
}

// Strings up to a quarter tone out, in tune with each other, change nothing.
func TestDetunedStringsAreUnderstood(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		cents := rapid.Float64Range(-50, 50).Draw(t, "cents")
		chart := pairs(t)
		heard := exact(chart, 2, 90)
		for i := range heard {
			heard[i].Pitch += cents/100 + rapid.Float64Range(-0.08, 0.08).Draw(t, "measured")
		}
		take := compare.Compare(chart, heard)
		require.Equal(t, 22, take.Count(compare.Played))
		assert.InDelta(t, cents, take.TuningCents, 6)
	})
}

// Where two strings sound, either pitch may be the one that was asked for.
func TestTheChartTellsWhichOfTwoPitches(t *testing.T) {
	chart := pairs(t)
	heard := exact(chart, 2, 90)
	heard[6].Pitch, heard[6].Or = heard[6].Pitch-12.4-7, heard[6].Pitch
	take := compare.Compare(chart, heard)
	assert.Equal(t, 22, take.Count(compare.Played))
	assert.Equal(t, take.Matches[6].Chart.MIDI, take.MIDI(take.Matches[6].Heard), "and it is told as that")
}

// A long take is laid out in a moment and as exactly as a short one.
func TestALongTake(t *testing.T) {
	chart := pairs(t)
	chart.Passes = 150
	heard := exact(chart, 2, 90)
	heard = without(without(heard, 2500), 700)
	take := compare.Compare(chart, heard)
	assert.Equal(t, 3298, take.Count(compare.Played))
	assert.Equal(t, 2, take.Count(compare.Missed))
}
