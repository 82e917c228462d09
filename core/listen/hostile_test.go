package listen_test

import (
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/core/listen"
)

func hiss(rate, seconds, level float64) []float64 {
	rng := rand.New(rand.NewPCG(8, 8))
	x := make([]float64, int(rate*seconds))
	for i := range x {
		x[i] = level * rng.NormFloat64()
	}
	return x
}

func TestSilenceAndNoiseHoldNoNotes(t *testing.T) {
	for name, x := range map[string][]float64{
		"nothing": nil, "one sample": {0.5}, "silence": make([]float64, 5*44100),
		"faint noise": hiss(44100, 8, 0.001), "noise": hiss(44100, 8, 0.05), "loud noise": hiss(44100, 8, 0.4),
		"a steady hum": hum(44100, 6), "a constant": constant(3*44100, 0.7),
	} {
		assert.Empty(t, listen.Listen(44100, x), name)
	}
}

// hum is what a bad cable gives: mains and its harmonics, from before the
// recording begins.
func hum(rate, seconds float64) []float64 {
	x := make([]float64, int(rate*seconds))
	for i := range x {
		for h := 1.0; h < 8; h++ {
			x[i] += 0.02 / h * math.Sin(2*math.Pi*50*h*float64(i)/rate+h)
		}
	}
	return x
}

func constant(n int, v float64) []float64 {
	x := make([]float64, n)
	for i := range x {
		x[i] = v
	}
	return x
}

// What telephones and cables do to a recording leaves its notes where they are.
func TestSpoiltRecordingsKeepTheirNotes(t *testing.T) {
	const rate = 44100
	for name, spoil := range map[string]func([]float64){
		"an offset":       func(x []float64) { each(x, func(v float64) float64 { return v + 0.3 }) },
		"clipped":         func(x []float64) { each(x, func(v float64) float64 { return max(-0.12, min(0.12, v)) }) },
		"far too loud":    func(x []float64) { each(x, func(v float64) float64 { return 40 * v }) },
		"turned over":     func(x []float64) { each(x, func(v float64) float64 { return -v }) },
		"eight bits":      func(x []float64) { each(x, func(v float64) float64 { return math.Round(v*127) / 127 }) },
		"numbers missing": func(x []float64) { x[3000], x[60000], x[61000] = math.NaN(), math.NaN(), math.Inf(1) },
	} {
		x, onsets, pitches := scale(rate, 0.2)
		spoil(x)
		t.Run(name, func(t *testing.T) { check(t, listen.Listen(rate, x), onsets, pitches) })
	}
}

func each(x []float64, f func(float64) float64) {
	for i, v := range x {
		x[i] = f(v)
	}
}

func TestTheHighestRate(t *testing.T) {
	x, onsets, pitches := scale(192000, 0.2)
	check(t, listen.Listen(192000, x), onsets, pitches)
}

// A stream of half an hour is heard with what a second of it needs: the notes are
// there to its end, and the listener holds seconds, not minutes.
func TestHalfAnHour(t *testing.T) {
	if testing.Short() {
		t.Skip("takes some seconds")
	}
	const rate = 8000
	x, _, pitches := scale(rate, 0.2)
	l := listen.New(rate)
	notes := 0
	const rounds = 450
	for range rounds {
		notes += len(l.Write(x))
	}
	notes += len(l.Close())
	assert.Equal(t, rounds*len(pitches), notes)
	assert.LessOrEqual(t, testing.AllocsPerRun(5, func() { l.Write(x[:rate/10]) }), 50.0)
}

// Whatever samples come at whatever rate, in whatever pieces, the notes are in
// order, within the recording, and numbers.
func FuzzListen(f *testing.F) {
	f.Add(uint64(1), uint16(44100), uint8(3), []byte("\x00\x40\xff\x10"))
	f.Add(uint64(2), uint16(8000), uint8(0), []byte{})
	f.Add(uint64(3), uint16(48000), uint8(255), []byte("pluck"))
	f.Fuzz(func(t *testing.T, seed uint64, rate uint16, kind uint8, raw []byte) {
		if rate < 8000 {
			return
		}
		x := odd(seed, float64(rate), kind, raw)
		l := listen.New(float64(rate))
		rng := rand.New(rand.NewPCG(seed, 1))
		var notes []listen.Note
		for rest := x; len(rest) > 0; {
			n := min(len(rest), 1+rng.IntN(8000))
			notes = append(notes, l.Write(rest[:n])...)
			rest = rest[n:]
		}
		notes = append(notes, l.Close()...)
		for i, n := range notes {
			for _, v := range []float64{n.Onset, n.End, n.Pitch, n.LevelDB, n.Bend, n.Carry.DB, n.Or} {
				require.False(t, math.IsNaN(v) || math.IsInf(v, 0), "%+v", n)
			}
			require.GreaterOrEqual(t, n.End, n.Onset)
			require.LessOrEqual(t, n.Onset, float64(len(x))/float64(rate)+0.05)
			require.True(t, i == 0 || n.Onset > notes[i-1].Onset, "in order")
		}
	})
}

// odd makes half a second of a sound that the raw bytes shape: bursts, tones,
// steps and numbers that are none.
func odd(seed uint64, rate float64, kind uint8, raw []byte) []float64 {
	rng := rand.New(rand.NewPCG(seed, 2))
	x := make([]float64, int(rate/2))
	for i, b := range raw {
		at := int(float64(b) / 256 * float64(len(x)))
		switch (int(kind) + i) % 5 {
		case 0:
			tone(x, rate, float64(at)/rate, 0.2, float64(30+b%60), math.Exp2(float64(i%8)-6))
		case 1:
			for k := at; k < min(len(x), at+200); k++ {
				x[k] += rng.NormFloat64()
			}
		case 2:
			for k := at; k < len(x); k++ {
				x[k] += float64(int8(b)) / 16
			}
		case 3:
			if at < len(x) {
				x[at] = []float64{math.NaN(), math.Inf(1), math.Inf(-1), math.MaxFloat64}[b%4]
			}
		case 4:
			for k := at; k < min(len(x), at+50); k++ {
				x[k] = 0
			}
		}
	}
	return x
}
