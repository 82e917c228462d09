package listen_test

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/core/listen"
)

// tick adds a metronome's click: a tone that dies away within some ten
// milliseconds, higher on the first beat of a bar.
func tick(x []float64, rate, at float64, strong bool) {
	hz := 1500.0
	if strong {
		hz = 2200
	}
	for i := range int(0.03 * rate) {
		t := float64(i) / rate
		x[int(at*rate)+i] += 0.12 * math.Sin(2*math.Pi*hz*t) * math.Exp(-t/0.006)
	}
}

// A metronome bleeds into the recording. Notes that come up to 30 ms after a click
// begin where they begin, not at the click, out of silence and over a string.
func TestNotesBehindClicks(t *testing.T) {
	for _, late := range []float64{0.001, 0.004, 0.006, 0.009, 0.012, 0.018, 0.025, 0.029} {
		aboutClicks(t, tick, 0.2, 2.2, late, 0.004, []float64{57, 60, 62, 65})
	}
}

// aboutClicks plays notes that rise for some seconds, each so late against a click, half a second
// apart, and sees that they are heard where they begin and nothing else is. The first click and the
// click of the first note are told, in seconds; every fourth click is strong.
func aboutClicks(t *testing.T, click func(x []float64, rate, at float64, strong bool), first, note, late, rise float64, pitches []float64) {
	t.Helper()
	const rate = 44100.0
	rng := rand.New(rand.NewPCG(7, 8))
	x := make([]float64, int(4.6*rate))
	for beat := range 8 {
		click(x, rate, first+0.5*float64(beat), beat%4 == 0)
	}
	start := func(i int) float64 { return note + 0.5*float64(i) + late }
	for i, midi := range pitches {
		end := 4.3
		if i+1 < len(pitches) {
			end = start(i + 1)
		}
		sung(x, rate, midi, start(i), rise, end)
	}
	for i := range x {
		x[i] += 0.0006 * rng.NormFloat64()
	}
	notes := listen.Listen(rate, x)
	require.Len(t, notes, len(pitches), "%g s after the click; the count-in is not played", late)
	for i, n := range notes {
		assert.InDelta(t, start(i), n.Onset, 0.003, "%g s after the click", late)
	}
}

// The clicks that the stand makes, of every pitch it can be set to, divided or not, are no
// notes, however loud they come.
func TestClicksOfTheStandAreNoNotes(t *testing.T) {
	const rate = 44100.0
	for _, hz := range []float64{1980, 1320, 990, 3300, 2640, 2200, 1100, 825, 660} {
		for _, level := range []float64{0.9, 0.1} {
			x := make([]float64, int(6*rate))
			rng := rand.New(rand.NewPCG(uint64(hz), 2))
			for click := range 20 {
				at := int((0.3 + 0.25*float64(click)) * rate)
				for i := range int(0.03 * rate) {
					s := float64(i) / rate
					x[at+i] += level * math.Sin(2*math.Pi*hz*s) * math.Exp(-180*s)
				}
			}
			for i := range x {
				x[i] += 0.0005 * rng.NormFloat64()
			}
			assert.Empty(t, listen.Listen(rate, x), "%g Hz at %g", hz, level)
		}
	}
}

// wood adds a click that is a burst of noise, always the same, and another where it is
// accented.
func wood(x []float64, rate, at float64, strong bool) {
	rng := rand.New(rand.NewPCG(11, map[bool]uint64{true: 1, false: 2}[strong]))
	for i := range int(0.03 * rate) {
		x[int(at*rate)+i] += 0.12 * rng.NormFloat64() * math.Exp(-float64(i)/(0.004*rate))
	}
}

// Of a count-in only its last two clicks were recorded, one of them accented: that is enough to
// know the beat, and a picked note that begins up to 25 ms before a click or 25 ms after it.
func TestNotesAboutClicksThatWereHeardOnce(t *testing.T) {
	for _, late := range []float64{-0.025, -0.018, -0.012, 0.008, 0.012, 0.025} {
		aboutClicks(t, wood, 0.5, 1.5, late, 0.001, []float64{57, 60, 62, 65, 60})
	}
}
