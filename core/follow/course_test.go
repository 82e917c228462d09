package follow_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"manudrill/core/follow"
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
		take := follow.Follow(chart, append(append([]listen.Note{}, once...), later(once, pause)...))
		assert.Equal(t, 2, take.Passes, name)
		assert.Equal(t, 44, take.Count(follow.Played), name)
		assert.Empty(t, take.Extras, name)
	}
}

// A few notes after the end are no pass.
func TestAFewNotesMoreAreExtras(t *testing.T) {
	chart := pairs(t)
	heard := exact(chart, 2, 90)
	heard = append(heard, later(heard[:4], chart.Seconds())...)
	take := follow.Follow(chart, heard)
	assert.Equal(t, 1, take.Passes)
	assert.Len(t, take.Extras, 4)
	assert.False(t, take.Foreign())
}

func TestABrokenOffBeginningIsAFalseStart(t *testing.T) {
	chart := pairs(t)
	chart.Passes = 2
	whole := exact(chart, 9, 90)
	take := follow.Follow(chart, append(later(whole[:9], -7), whole...))
	assert.Len(t, take.Aside, 9)
	assert.Empty(t, take.Extras)
	assert.Equal(t, 44, take.Count(follow.Played))
}

// A metronome that a room lets ring on like notes is none of the player's mistakes;
// a string touched before the start is.
func TestAMetronomeThatRingsIsNoNote(t *testing.T) {
	chart := pairs(t)
	beat := 60 / chart.BPM
	whole := exact(chart, 3, 90)
	strong, weak, touched := whole[0], whole[0], whole[0]
	strong.Pitch, weak.Pitch, touched.Pitch = 93.2, 88.1, 64
	heard := []listen.Note{}
	for i, n := range []listen.Note{strong, weak, weak, weak} {
		n.Onset = 3.012 - float64(4-i)*beat
		heard = append(heard, n)
	}
	touched.Onset = 3.012 - 0.4*beat
	weak.Onset = 3.012 + (math.Ceil(chart.Beats())+2)*beat
	heard = append(append(append(heard, touched), whole...), weak)
	take := follow.Follow(chart, heard)
	assert.Len(t, take.Ticks, 5)
	require.Len(t, take.Extras, 1)
	assert.InDelta(t, 64, take.Extras[0].Pitch, 1e-9)
	assert.Equal(t, 22, take.Count(follow.Played))
}

func TestStoppingEarlyIsNoOtherDrill(t *testing.T) {
	chart := pairs(t)
	chart.Passes = 3
	take := follow.Follow(chart, exact(chart, 2, 90)[:12])
	assert.Equal(t, 12, take.Count(follow.Played))
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
		take := follow.Follow(chart, heard)
		require.Equal(t, 22, take.Count(follow.Played))
		assert.InDelta(t, cents, take.TuningCents, 6)
	})
}

// Where two strings sound, either pitch may be the one that was asked for.
func TestTheChartTellsWhichOfTwoPitches(t *testing.T) {
	chart := pairs(t)
	heard := exact(chart, 2, 90)
	heard[6].Pitch, heard[6].Or = heard[6].Pitch-12.4-7, heard[6].Pitch
	take := follow.Follow(chart, heard)
	assert.Equal(t, 22, take.Count(follow.Played))
	assert.Equal(t, take.Matches[6].Chart.MIDI, take.MIDI(take.Matches[6].Heard), "and it is told as that")
}

// A long take is laid out in a moment and as exactly as a short one.
func TestALongTake(t *testing.T) {
	chart := pairs(t)
	chart.Passes = 150
	heard := exact(chart, 2, 90)
	heard = without(without(heard, 2500), 700)
	take := follow.Follow(chart, heard)
	assert.Equal(t, 3298, take.Count(follow.Played))
	assert.Equal(t, 2, take.Count(follow.Missed))
}
