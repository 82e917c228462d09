package guitar_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/core/guitar"
)

// Frequencies of the MIDI 1.0 note number table, equal temperament, A4 = 440 Hz.
func TestFrequenciesOfTheMIDINoteTable(t *testing.T) {
	for midi, hz := range map[int]float64{
		21: 27.500, 28: 41.203, 40: 82.407, 45: 110.000, 50: 146.832, 55: 195.998,
		59: 246.942, 60: 261.626, 64: 329.628, 69: 440.000, 76: 659.255, 88: 1318.510, 108: 4186.009,
	} {
		assert.InDelta(t, hz, guitar.Frequency(float64(midi)), 0.0006, "note %d", midi)
		assert.InDelta(t, float64(midi), guitar.MIDI(hz), 0.0004, "%v Hz", hz)
	}
}

func TestNoteNames(t *testing.T) {
	for midi, name := range map[int]string{0: "C-1", 40: "E2", 60: "C4", 61: "C♯4", 69: "A4", 127: "G9"} {
		assert.Equal(t, name, guitar.NoteName(midi))
		assert.Equal(t, midi, guitar.NoteNumber(name))
	}
}

func TestNamesThatAreNoNotes(t *testing.T) {
	assert.Equal(t, 58, guitar.NoteNumber("Bb3"))
	for _, name := range []string{"", "E", "H2", "-2", "E#", "E2x"} {
		assert.Equal(t, -1, guitar.NoteNumber(name), name)
	}
}

// The twelfth fret halves the string, the fifth leaves three quarters and the
// seventh two thirds of it, within what equal temperament bends them (just
// intonation ratios 2:1, 4:3, 3:2).
func TestFretDistanceAgainstIntervalRatios(t *testing.T) {
	const scale = 648.0
	assert.InDelta(t, scale/2, guitar.FretDistance(scale, 12), 1e-9)
	assert.InDelta(t, scale*3/4, guitar.FretDistance(scale, 24), 1e-9)
	assert.InDelta(t, scale/4, guitar.FretDistance(scale, 5), 1.0)
	assert.InDelta(t, scale/3, guitar.FretDistance(scale, 7), 1.0)
	assert.Zero(t, guitar.FretDistance(scale, 0))
}

// The luthier's rule of eighteen (common practice: divide what is left of the
// string by 17.817) places each fret from the one before it.
func TestFretDistanceAgainstTheRuleOfEighteen(t *testing.T) {
	left, at := 648.0, 0.0
	for n := 1; n <= 24; n++ {
		step := left / 17.817154
		at, left = at+step, left-step
		assert.InDelta(t, at, guitar.FretDistance(648, n), 0.001, "fret %d", n)
	}
}

func TestReachShrinksUpTheNeck(t *testing.T) {
	g := guitar.Standard()
	// Widths of a four-fret hand on a 648 mm scale, as the product's rules state them.
	assert.InDelta(t, 97, g.Reach(1, 4), 0.5)
	assert.InDelta(t, 77, g.Reach(8, 5), 0.5)
	assert.InDelta(t, 52, g.Reach(12, 15), 0.5)
}

func TestPitchOfEveryPlace(t *testing.T) {
	g := guitar.Standard()
	for _, c := range []struct{ str, fret, midi int }{{6, 0, 40}, {1, 0, 64}, {2, 5, 64}, {3, 4, 59}, {6, 22, 62}} {
		got, err := g.Pitch(c.str, c.fret)
		require.NoError(t, err)
		assert.Equal(t, c.midi, got)
	}
	for _, c := range []struct{ str, fret int }{{0, 1}, {7, 1}, {1, -1}, {1, 23}} {
		_, err := g.Pitch(c.str, c.fret)
		assert.Error(t, err, "string %d fret %d", c.str, c.fret)
	}
}

func TestValidate(t *testing.T) {
	assert.NoError(t, guitar.Standard().Validate())
	for name, g := range map[string]guitar.Guitar{
		"three strings": {Tuning: []int{60, 55, 50}, Frets: 22, ScaleMM: 648},
		"no frets":      {Tuning: []int{64, 59, 55, 50}, ScaleMM: 648},
		"no scale":      {Tuning: []int{64, 59, 55, 50}, Frets: 22},
		"silly tuning":  {Tuning: []int{640, 59, 55, 50}, Frets: 22, ScaleMM: 648},
	} {
		assert.Error(t, g.Validate(), name)
	}
}
