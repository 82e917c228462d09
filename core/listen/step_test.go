package listen_test

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/core/guitar"
	"manudrill/core/listen"
)

const testRate = 44100.0

// stepping is a string of ten partials that sounds on without a stop while its pitch
// changes within two milliseconds, as a slur that makes no attack does: its phases go
// on, and all that tells the new note is the pitch.
func stepping(seconds float64, pitchAt func(t float64) float64) []float64 {
	x := make([]float64, int(seconds*testRate))
	phase := 0.0
	for i := range x {
		t := float64(i) / testRate
		hz := guitar.Frequency(pitchAt(t))
		phase += 2 * math.Pi * hz / testRate
		if t < 0.5 {
			continue
		}
		for k := 1; k <= 10; k++ {
			x[i] += 0.08 / float64(k) * math.Exp(-(t-0.5)/2) * min(1, (t-0.5)/0.001) * math.Sin(float64(k)*phase)
		}
	}
	return x
}

func TestAPitchThatStepsIsANoteOfItsOwn(t *testing.T) {
	for _, c := range []struct{ from, to float64 }{{42, 43}, {45, 43}, {40, 42}, {47, 50}, {57, 58}, {64, 61}, {50, 49}} {
		x := stepping(1.6, func(t float64) float64 { return c.from + (c.to-c.from)*min(1, max(0, t-0.9)/0.002) })
		notes := listen.Listen(testRate, x)
		require.Len(t, notes, 2, "%v", c)
		assert.InDelta(t, c.from, notes[0].Pitch, 0.15, "%v", c)
		assert.InDelta(t, c.to, notes[1].Pitch, 0.15, "%v", c)
		assert.InDelta(t, 0.9, notes[1].Onset, 0.006, "%v", c)
	}
}

// A string dragged by less than a fret, however fast, and one that slowly slides out of
// tune, are one note each.
func TestABentStringIsOneNote(t *testing.T) {
	for name, pitch := range map[string]func(t float64) float64{
		"dragged": func(t float64) float64 { return 52 + 0.45*min(1, max(0, t-0.9)/0.03) },
		"vibrato": func(t float64) float64 { return 57 + 0.25*math.Sin(2*math.Pi*5.5*t) },
		"sagging": func(t float64) float64 { return 45 - 0.3*t },
	} {
		assert.Len(t, listen.Listen(testRate, stepping(1.6, pitch)), 1, name)
	}
}

// struck adds a stroke of the string to x, with partials at phases of their own.
func struck(x []float64, rng *rand.Rand, midi, at, until, loud float64) {
	for k := 1; k <= 8; k++ {
		phase := 2 * math.Pi * rng.Float64()
		for i := int(at * testRate); i < min(len(x), int(until*testRate)); i++ {
			t := float64(i)/testRate - at
			x[i] += loud / float64(k) * math.Exp(-t*(1+0.3*float64(k))) * math.Sin(2*math.Pi*guitar.Frequency(midi)*float64(k)*t+phase)
		}
	}
}

// A string struck again at the pitch it has is two notes, though the spectrum hardly
// changes; one that a noise passes over is one.
func TestAStringStruckAgainIsTwoNotesAndOneScrapedIsOne(t *testing.T) {
	for seed := range uint64(8) {
		rng := rand.New(rand.NewPCG(seed, 1))
		x := make([]float64, int(1.8*testRate))
		struck(x, rng, 52, 0.5, 1.0, 0.1)
		struck(x, rng, 52, 1.0, 1.8, 0.1)
		notes := listen.Listen(testRate, x)
		if assert.Len(t, notes, 2, "seed %d", seed) {
			assert.InDelta(t, 1.0, notes[1].Onset, 0.004)
		}

		x = make([]float64, int(1.8*testRate))
		struck(x, rng, 52, 0.5, 1.8, 0.1)
		last := 0.0
		for i := range int(0.04 * testRate) { // a finger along the string
			v := rng.NormFloat64()
			swell := float64(i) / (0.04 * testRate)
			x[int(1.0*testRate)+i] += 0.05 * (v - last) * swell * (1 - swell) * 4
			last = v
		}
		assert.Len(t, listen.Listen(testRate, x), 1, "scraped, seed %d", seed)
	}
}

func TestANoteAtTheVeryStartIsHeard(t *testing.T) {
	for _, rate := range []float64{11025, 44100, 96000} {
		x := make([]float64, int(1.5*rate))
		tone(x, rate, 0, 0.6, 52, 0.2)
		tone(x, rate, 0.6, 0.6, 57, 0.2)
		notes := listen.Listen(rate, x)
		require.Len(t, notes, 2, "%g", rate)
		assert.InDelta(t, 0, notes[0].Onset, 0.002)
		assert.InDelta(t, 52, notes[0].Pitch, 0.1)
	}
}

func TestARateAtWhichNothingCanBeHeardIsRefused(t *testing.T) {
	for _, rate := range []float64{0, -44100, 4000, 1e7, math.NaN()} {
		assert.Panics(t, func() { listen.New(rate) }, "%g", rate)
	}
}

func TestFaintSoundsAreNoneOfThePlayers(t *testing.T) {
	var notes []listen.Note
	for i := range 12 {
		notes = append(notes, listen.Note{Onset: float64(i), LevelDB: -20 - float64(i%4)*3})
	}
	assert.Equal(t, notes, listen.Loud(notes), "soft slurs are")
	assert.Equal(t, notes, listen.Loud(append(notes[:12:12], listen.Note{Onset: 13, LevelDB: -42})))
	few := []listen.Note{{LevelDB: -20}, {LevelDB: -60}}
	assert.Equal(t, few, listen.Loud(few), "of two notes neither is usual")
	assert.Empty(t, listen.Loud(nil))
}
