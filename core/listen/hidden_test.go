package listen_test

import (
	"math"
	"math/rand/v2"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/core/listen"
)

// A pitch that glides to the next fret over 40 ms shows no peak anywhere: two notes all
// the same, parted about the middle of the glide.
func TestASlurThatNoPeakShowsIsFoundByItsPitch(t *testing.T) {
	for _, c := range []struct{ from, to float64 }{{42, 41}, {45, 47}, {52, 51}, {57, 59}} {
		x := stepping(1.6, func(t float64) float64 { return c.from + (c.to-c.from)*min(1, max(0, t-0.9)/0.04) })
		notes := listen.Listen(testRate, x)
		require.Len(t, notes, 2, "%v", c)
		assert.InDelta(t, c.from, notes[0].Pitch, 0.2, "%v", c)
		assert.InDelta(t, c.to, notes[1].Pitch, 0.2, "%v", c)
		assert.InDelta(t, 0.92, notes[1].Onset, 0.03, "%v", c)
	}
}

// rung is a string struck at a time and stopped at another, within 4 ms.
type rung struct{ midi, from, to float64 }

func strings(seconds float64, seed uint64, of ...rung) []float64 {
	x := make([]float64, int(seconds*testRate))
	rng := rand.New(rand.NewPCG(seed, 7))
	for _, s := range of {
		y := make([]float64, len(x))
		struck(y, rng, s.midi, s.from, s.to+0.004, 0.1)
		for i := range x {
			x[i] += y[i] * min(1, max(0, (s.to+0.004-float64(i)/testRate)/0.004))
		}
	}
	return x
}

// sounds reports whether a note has a pitch, or may have.
func sounds(n listen.Note, midi float64) bool {
	return math.Abs(n.Pitch-midi) < 0.3 || math.Abs(n.Or-midi) < 0.3
}

// A string an octave above one that rings on has no partial of its own.
func TestAnOctaveAboveAStringThatRingsOnIsANote(t *testing.T) {
	for seed := range uint64(8) {
		x := strings(1.8, seed, rung{46, 0.5, 0.83}, rung{58, 0.8, 1.13}, rung{47, 1.1, 1.6})
		notes := listen.Listen(testRate, x)
		if assert.Len(t, notes, 3, "seed %d", seed) {
			for i, midi := range []float64{46, 58, 47} {
				assert.True(t, sounds(notes[i], midi), "seed %d: %.0f heard as %v", seed, midi, notes[i])
			}
		}
	}
}

// What rings on under a note and is then stopped is no step of that note.
func TestAStringThatIsStoppedUnderANoteIsNoStep(t *testing.T) {
	for seed := range uint64(8) {
		for _, ring := range []float64{0.03, 0.09} {
			x := strings(1.6, seed, rung{50, 0.5, 0.8 + ring}, rung{54, 0.8, 1.4})
			notes := listen.Listen(testRate, x)
			if assert.Len(t, notes, 2, "seed %d, %g s", seed, ring) {
				assert.True(t, sounds(notes[1], 54), "seed %d, %g s: %v", seed, ring, notes[1])
			}
		}
	}
}

// Of three strings that ring into one another each is told by what has grown.
func TestANoteAmongRingingStringsIsToldByWhatHasGrown(t *testing.T) {
	for seed := range uint64(8) {
		x := strings(1.6, seed, rung{50, 0.5, 0.76}, rung{56, 0.64, 0.90}, rung{62, 0.78, 1.04}, rung{67, 0.92, 1.3})
		notes := listen.Listen(testRate, x)
		if assert.Len(t, notes, 4, "seed %d", seed) {
			for i, midi := range []float64{50, 56, 62, 67} {
				assert.True(t, sounds(notes[i], midi), "seed %d: %.0f heard as %v", seed, midi, notes[i])
			}
		}
	}
}

// A knock so near a note that both cannot be notes moves it nowhere: before a slur, or
// after a stroke.
func TestOfTwoStartsTooCloseTheNotesIsKept(t *testing.T) {
	slur := stepping(1.6, func(t float64) float64 { return 57 + 2*min(1, max(0, t-0.9)/0.002) })
	stroke := strings(1.6, 3, rung{52, 0.5, 0.93}, rung{57, 0.9, 1.4})
	for seed := range uint64(8) {
		for knock, x := range map[float64][]float64{0.876: slices.Clone(slur), 0.926: slices.Clone(stroke)} {
			rng := rand.New(rand.NewPCG(seed, 9))
			for i := range int(0.02 * testRate) {
				x[int(knock*testRate)+i] += 0.05 * rng.NormFloat64() * math.Exp(-float64(i)/(0.006*testRate))
			}
			notes := listen.Listen(testRate, x)
			if assert.Len(t, notes, 2, "knock at %g, seed %d", knock, seed) {
				assert.InDelta(t, 0.9, notes[1].Onset, 0.006, "knock at %g, seed %d", knock, seed)
			}
		}
	}
}

func TestANoteAtItsOtherPitchIsBentFromThere(t *testing.T) {
	n := listen.Note{Pitch: 48.7, Or: 47.6, Bend: -100}
	assert.InDelta(t, 47.6, n.AtOther().Pitch, 1e-9)
	assert.InDelta(t, 10, n.AtOther().Bend, 1e-9)
	assert.Zero(t, listen.Note{Pitch: 60, Or: 50, Bend: 20}.AtOther().Bend, "more is no bend")
}
