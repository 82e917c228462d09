package follow_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"manudrill/core/drill/chart"
	"manudrill/core/follow"
	"manudrill/core/listen"
)

// A take of some two hundred notes, with a few mistakes in it.
func BenchmarkATake(b *testing.B) {
	c := pairs(b)
	c.Passes = 9
	heard := exact(c, 2, 90)
	heard = without(without(heard, 150), 70)
	heard[33].Pitch++
	heard = with(heard, 100, listen.Note{Onset: heard[99].Onset + 0.1, Pitch: 40})
	for b.Loop() {
		follow.Follow(c, heard)
	}
}

// Of a drill that is one pitch over and over every place looks like every other: that costs no
// more than any other drill.
func TestALongTakeOfOnePitchIsLaidOut(t *testing.T) {
	c := chart.Chart{BPM: 600, NotesPerBeat: 1, Tuning: []int{64, 59, 55, 50, 45, 40}, Passes: 1}
	for i := range chart.MaxNotes {
		c.Notes = append(c.Notes, chart.Note{Beat: float64(i), String: 1, MIDI: 64, Attack: chart.Pick})
	}
	var heard []listen.Note
	for i := range 3 * chart.MaxNotes {
		heard = append(heard, listen.Note{Onset: float64(i) / 10, End: float64(i+1) / 10, Pitch: 64})
	}
	take := follow.Follow(c, heard)
	assert.Equal(t, 3, take.Passes)
	assert.Equal(t, len(heard), take.Count(follow.Played))
}
