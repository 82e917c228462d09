package follow

import (
	"cmp"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/core/drill/chart"
	"manudrill/core/listen"
)

// repeating is a chart of pairs of one pitch each, one note a beat at 120, and what is
// heard of it with the last of them hidden in the note before.
func repeating(again float64) (chart.Chart, []listen.Note) {
	c := chart.Chart{BPM: 120, NotesPerBeat: 1, BeatsPerBar: 4, Tuning: []int{64, 59, 55, 50, 45, 40}, Passes: 1}
	var heard []listen.Note
	for i, midi := range []int{60, 60, 62, 62, 64, 64, 65, 65} {
		c.Notes = append(c.Notes, chart.Note{Beat: float64(i), String: 2, Fret: midi - 59, MIDI: midi, Attack: chart.Pick})
		heard = append(heard, listen.Note{Onset: 2 + float64(i)/2, End: 2.5 + float64(i)/2, Pitch: float64(midi), LevelDB: -20})
	}
	hidden := &heard[6]
	hidden.End, hidden.Again = 6, listen.Again{T: again, LevelDB: -23}
	return c, heard[:7]
}

func TestARepeatedNoteThatHardlyShowsIsBelieved(t *testing.T) {
	take := Follow(repeating(5.52))
	require.Equal(t, 8, take.Count(Played))
	last := take.Matches[7].Heard
	assert.InDelta(t, 5.52, last.Onset, 1e-9)
	assert.InDelta(t, -23, last.LevelDB, 1e-9)
	assert.InDelta(t, 5.52, take.Matches[6].Heard.End, 1e-9, "the one before ends there")
}

func TestARepeatedNoteIsMissedWhereNothingShowsIt(t *testing.T) {
	for name, again := range map[string]float64{"nowhere": 0, "too early": 5.2, "too late": 5.8} {
		take := Follow(repeating(again))
		assert.Equal(t, Missed, take.Matches[7].Status, name)
	}
}

// A wrong note may have the pitch that is asked for next.
func TestANoteThatRepeatsAWrongOneIsBelieved(t *testing.T) {
	c, heard := repeating(5.5)
	c.Notes[2].MIDI, c.Notes[2].Fret = 67, 8
	heard[2].Again = listen.Again{T: 3.51, LevelDB: -23}
	heard = slices.Delete(heard, 3, 4)
	take := Follow(c, heard)
	assert.Equal(t, Wrong, take.Matches[2].Status)
	assert.Equal(t, Played, take.Matches[3].Status)
	assert.InDelta(t, 3.51, take.Matches[3].Heard.Onset, 1e-9)
	heard[2].Pitch = 69
	assert.Equal(t, Missed, Follow(c, heard).Matches[3].Status, "of another pitch it repeats nothing")
}

func TestAnotherNoteIsNotBelieved(t *testing.T) {
	c, heard := repeating(5.5)
	c.Notes[7].MIDI, c.Notes[7].Fret = 67, 8
	assert.Equal(t, Missed, Follow(c, heard).Matches[7].Status)
}

// After a count-in what comes on the beat over the last note is the metronome; between
// beats, or without one, it is an extra note.
func TestAMetronomeOverTheLastNoteIsNoExtra(t *testing.T) {
	written, heard := repeating(5.5)
	for _, c := range []struct {
		at     float64
		ticks  []float64
		extras int
	}{
		{6.5, []float64{0.5, 1, 1.5}, 0},
		{6.5, nil, 1},
		{6.5, []float64{1}, 1},
		{6.75, []float64{0.5, 1, 1.5}, 1},
	} {
		more := append(heard[:7:7], listen.Note{Onset: c.at, End: c.at + 0.3, Pitch: 83, LevelDB: -25})
		take := Follow(written, more, c.ticks...)
		assert.Len(t, take.Extras, c.extras, "%v", c)
		assert.Len(t, take.Ticks, len(c.ticks)+1-c.extras, "%v", c)
	}
}

// Within the drill only what has the pitch that rings is the metronome's: another pitch
// was played.
func TestAMetronomeWithinTheDrillIsKnownByThePitchThatRings(t *testing.T) {
	c, heard := repeating(5.5)
	for i := 4; i < 8; i++ { // a rest of two beats in the middle
		c.Notes[i].Beat += 2
	}
	for i := 4; i < len(heard); i++ {
		heard[i].Onset, heard[i].End = heard[i].Onset+1, heard[i].End+1
	}
	heard[6].Again.T++
	for pitch, extras := range map[float64]int{62: 0, 55: 1} {
		more := append(heard[:7:7], listen.Note{Onset: 4, End: 4.4, Pitch: pitch, LevelDB: -21})
		slices.SortFunc(more, func(a, b listen.Note) int { return cmp.Compare(a.Onset, b.Onset) })
		assert.Len(t, Follow(c, more, 0.5, 1, 1.5).Extras, extras, "%g", pitch)
	}
}

// A pitch that no string has is what several make together: at its time it is the note
// that was asked for, whatever the pitch; far from it, it is not.
func TestAPitchBelowAllStringsIsTheNoteThatWasAskedFor(t *testing.T) {
	for _, pitch := range []float64{35, 36, 37.3} {
		c, heard := repeating(5.5)
		heard[2].Pitch = pitch
		take := Follow(c, heard)
		assert.Equal(t, 8, take.Count(Played), "%g", pitch)
		assert.InDelta(t, 62, take.Matches[2].Heard.Pitch, 0.1, "%g", pitch)
	}
	c, heard := repeating(5.5)
	heard[2].Pitch = 41
	assert.Equal(t, Wrong, Follow(c, heard).Matches[2].Status, "a string has it")
}

// What is over as soon as a click is believed only where it was asked for.
func TestABriefSoundIsBelievedOnlyWhereItWasAskedFor(t *testing.T) {
	c, heard := repeating(5.5)
	heard[3].Brief = true
	more := append(heard[:4:4], append([]listen.Note{{Onset: 3.75, End: 3.79, Pitch: 57, LevelDB: -20, Brief: true}}, heard[4:]...)...)
	take := Follow(c, more)
	assert.Equal(t, 8, take.Count(Played))
	assert.Empty(t, take.Extras)
	more[4].Brief = false
	assert.Len(t, Follow(c, more).Extras, 1)
}
