package listen

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"

	"manudrill/core/listen/dsp"
)

// asked is what is made of a start that was taken so many milliseconds off the true one, in
// milliseconds off it. sing writes the sound; the true start is at a sample.
func asked(at int, offMs float64, sing func(x []float64, at int)) float64 {
	rng := rand.New(rand.NewPCG(1, 2))
	l, x := New(breakRate), make([]float64, 12000)
	sing(x, at)
	for i := range x {
		x[i] += 1e-4 * rng.NormFloat64()
	}
	l.sound.add(x)
	start := l.lead + at + int(offMs/1000*breakRate)
	return 1000 * float64(l.foretold(start, l.lead+len(x))-l.lead-at) / breakRate
}

// A thick sound goes on at another pitch, as loud as it was. A start that was taken up to
// 35 ms too late is moved to the change, and one that was taken too early, as at a click; to
// the grain of a millisecond, and by no less than six.
func TestTheTurnFromOnePitchToAnother(t *testing.T) {
	slur := func(semitones float64) func(x []float64, at int) {
		return func(x []float64, at int) {
			reed(x[:at], 147, 0.1, 0.3)
			reed(x[at:], 147*math.Exp2(semitones/12), 0.1, 1.9)
		}
	}
	for _, semitones := range []float64{-4, -2, -1, 1, 2, 3} {
		for _, off := range []float64{-14, -8, 8, 15, 25, 35} {
			assert.InDelta(t, 0, asked(6000, off, slur(semitones)), 2, "%+.0f semitones, %+.0f ms", semitones, off)
		}
		for _, off := range []float64{-5, 0, 5} {
			assert.InDelta(t, off, asked(6000, off, slur(semitones)), 0.1, "%+.0f semitones, %+.0f ms: so near it is left", semitones, off)
		}
	}
}

// So is one taken for a string that is struck again at its pitch, no louder, and for a note
// that comes out of nothing.
func TestTheTurnToWhatIsStruck(t *testing.T) {
	again := func(x []float64, at int) { reed(x[:at], 147, 0.1, 0.3); reed(x[at:], 147, 0.1, 1.9) }
	alone := func(x []float64, at int) { reed(x[at:], 147, 0.1, 0.3) }
	for _, off := range []float64{-8, 12} {
		assert.InDelta(t, 0, asked(6000, off, again), 2)
	}
	assert.InDelta(t, 0, asked(6000, 12, alone), 2)
}

// Where past and future tell nothing, a start stays: in noise, and in a tone that goes on.
func TestWhatNothingForetellsStays(t *testing.T) {
	for name, sing := range map[string]func(x []float64, at int){
		"noise":    func([]float64, int) {},
		"one tone": func(x []float64, _ int) { reed(x, 147, 0.1, 0.3) },
	} {
		for _, off := range []float64{-8, 0, 12} {
			assert.InDelta(t, off, asked(6000, off, sing), 0.1, "%s, %+.0f ms", name, off)
		}
	}
}

// Of two strings that sound one is stopped 20 ms before the other is struck again, louder:
// the note begins there, though its pitch is all that sounds from the stop on.
func TestAStringThatStopsBesideAnother(t *testing.T) {
	off := asked(6000, 0, func(x []float64, at int) {
		reed(x[:at-441], 98, 0.1, 0.7)
		reed(x, 220, 0.065, 0.3)
		again := make([]float64, len(x))
		reed(again, 220, 0.035, 0.3)
		for i := at; i < len(x); i++ {
			x[i] += again[i]
		}
	})
	assert.InDelta(t, 0, off, 0.1)
}

// roughFor is 14 ms, in samples at breakRate.
const roughFor = 309

// rough is a tone, with hiss in it, that gives way to an attack of noise, this loud beside it, and then to
// another tone: what neither tone foretells.
func rough(loud, hiss float64) func(x []float64, at int) {
	return func(x []float64, at int) {
		rng := rand.New(rand.NewPCG(3, 4))
		reed(x[:at], 147, 0.1, 0.3)
		tone := math.Sqrt(dsp.MeanSquare(x[:at]))
		for i := range at {
			x[i] += hiss * tone * rng.NormFloat64()
		}
		for i := at; i < at+roughFor; i++ {
			x[i] = loud * tone * rng.NormFloat64()
		}
		reed(x[at+roughFor:], 220, 0.1, 1.9)
	}
}

// A start that was taken where a rough attack is over is moved to where it begins: what the
// past foretells ends there. A string that is stopped before the note ends, too, but leaves
// less.
func TestARoughAttackBelongsToItsNote(t *testing.T) {
	for _, off := range []float64{12, 14, 16} {
		assert.InDelta(t, 0, asked(6000, off, rough(1, 0)), 1.5, "%+.0f ms", off)
	}
	assert.InDelta(t, 14, asked(6000, 14, rough(0.5, 0)), 0.1, "too quiet")
	assert.InDelta(t, 0, asked(6000, 14, rough(1, 0.20)), 1.5)
	assert.InDelta(t, 14, asked(6000, 14, rough(1, 0.25)), 0.1, "its past is foretold too badly")
	assert.InDelta(t, 6, asked(6000, 6, rough(1, 0)), 0.1, "so near it is left")
}

// A metronome's click is no attack of the note behind it.
func TestAClickIsNoRoughAttack(t *testing.T) {
	l, x := New(breakRate), make([]float64, 12000)
	rough(1, 0)(x, 6000)
	l.sound.add(x)
	start := l.lead + 6000 + roughFor
	assert.Less(t, l.foretold(start, l.lead+len(x)), start-200)
	l.beat, l.beatAt = 11025, l.lead+6000
	assert.Equal(t, start, l.foretold(start, l.lead+len(x)))
}

// The change is looked for up to 42 ms before a start: nearer the end of what is asked about it
// may be one of what comes before.
func TestHowFarBeforeAStartItIsLookedFor(t *testing.T) {
	slur := func(x []float64, at int) { reed(x[:at], 147, 0.1, 0.3); reed(x[at:], 165, 0.1, 1.9) }
	assert.InDelta(t, 0, asked(6000, 42, slur), 1)
	assert.InDelta(t, 44, asked(6000, 44, slur), 0.1)
}
