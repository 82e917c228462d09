package listen_test

import (
	"fmt"
	"math"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/core/guitar"
	"manudrill/core/listen"
)

// tone adds a decaying tone of eight partials, its first sample at a time.
func tone(x []float64, rate, at, seconds, midi, amplitude float64) {
	hz := guitar.Frequency(midi)
	start := int(math.Round(at * rate))
	for i := range int(seconds * rate) {
		if start+i >= len(x) {
			return
		}
		t := float64(i) / rate
		v := 0.0
		for h := 1; h <= 8 && hz*float64(h) < rate/2; h++ {
			v += math.Sin(2*math.Pi*hz*float64(h)*t+0.7*float64(h)) / float64(h) * math.Exp(-t*(1.5+0.6*float64(h)))
		}
		x[start+i] += amplitude * v * min(1, (seconds-t)/0.004)
	}
}

// scale is a run of tones a third of a second apart, the first at 0.5 s.
func scale(rate, amplitude float64) (x, onsets []float64, pitches []int) {
	x = make([]float64, int(4*rate))
	pitches = []int{45, 47, 48, 52, 60, 64, 67, 76}
	for i, midi := range pitches {
		at := 0.5 + float64(i)/3
		onsets = append(onsets, math.Round(at*rate)/rate)
		tone(x, rate, at, 0.336, float64(midi), amplitude) // stopped by the next, as on one string
	}
	return x, onsets, pitches
}

func check(t *testing.T, notes []listen.Note, onsets []float64, pitches []int) {
	t.Helper()
	require.Len(t, notes, len(onsets))
	for i, n := range notes {
		assert.InDelta(t, onsets[i], n.Onset, 0.002, "note %d", i)
		assert.InDelta(t, float64(pitches[i]), n.Pitch, 0.2, "note %d", i)
	}
}

func TestOnsetsAndPitchesAtAnyCommonRate(t *testing.T) {
	for _, rate := range []float64{8000, 16000, 22050, 44100, 48000, 96000} {
		x, onsets, pitches := scale(rate, 0.2)
		t.Run(fmt.Sprint(rate), func(t *testing.T) { check(t, listen.Listen(rate, x), onsets, pitches) })
	}
}

func TestQuietAndLoudRecordings(t *testing.T) {
	for _, amplitude := range []float64{0.006, 0.05, 0.5} {
		x, onsets, pitches := scale(44100, amplitude)
		check(t, listen.Listen(44100, x), onsets, pitches)
	}
}

// A stream in pieces of any size gives the notes of the whole.
func TestAStreamIsHeardLikeAFile(t *testing.T) {
	x, _, _ := scale(44100, 0.2)
	whole := listen.Listen(44100, x)
	rng := rand.New(rand.NewPCG(1, 2))
	l := listen.New(44100)
	var pieces []listen.Note
	for rest := x; len(rest) > 0; {
		n := min(len(rest), 1+rng.IntN(9000))
		pieces = append(pieces, l.Write(rest[:n])...)
		rest = rest[n:]
	}
	pieces = append(pieces, l.Close()...)
	assert.Equal(t, whole, pieces)
}

// A slur has no attack: the tone goes on and only its pitch changes.
func TestASlurIsHeardByItsPitch(t *testing.T) {
	const rate = 44100.0
	x := make([]float64, int(2*rate))
	phase := 0.0
	for i := int(0.5 * rate); i < len(x); i++ {
		midi := 57.0
		if float64(i)/rate >= 1.2 {
			midi = 58
		}
		phase += 2 * math.Pi * guitar.Frequency(midi) / rate
		for h := 1.0; h <= 8; h++ {
			x[i] += 0.1 / h * math.Sin(h*phase)
		}
	}
	notes := listen.Listen(rate, x)
	require.Len(t, notes, 2)
	assert.InDelta(t, 0.5, notes[0].Onset, 0.002)
	assert.InDelta(t, 1.2, notes[1].Onset, 0.010)
	assert.Equal(t, []int{57, 58}, []int{notes[0].MIDI(), notes[1].MIDI()})
}

func TestLevelIsTheRMSOfTheFirstTenthOfASecond(t *testing.T) {
	const rate = 44100.0
	x := make([]float64, int(2*rate))
	for i := int(0.5 * rate); i < int(1.5*rate); i++ {
		x[i] = 0.25 * math.Sin(2*math.Pi*220*float64(i)/rate)
	}
	notes := listen.Listen(rate, x)
	require.Len(t, notes, 1)
	assert.InDelta(t, 20*math.Log10(0.25/math.Sqrt2), notes[0].LevelDB, 0.1, "a sine's RMS is its amplitude over √2")
	assert.InDelta(t, 1.5, notes[0].End, 0.03)
}

// A last note is told, however long the silence after it.
func TestALongSilenceAfterTheLastNote(t *testing.T) {
	x, onsets, pitches := scale(44100, 0.2)
	check(t, listen.Listen(44100, append(x, make([]float64, 12*44100)...)), onsets, pitches)
}

func TestWhatIsNoNoteIsNotHeard(t *testing.T) {
	const rate = 44100.0
	rng := rand.New(rand.NewPCG(3, 4))
	noise, clicks, silence, offset := make([]float64, 3*rate), make([]float64, 3*rate), make([]float64, 3*rate), make([]float64, 3*rate)
	for i := range noise {
		noise[i] = 0.05 * rng.NormFloat64()
		offset[i] = 0.3
	}
	for beat := 0; beat < 6; beat++ {
		for i := range int(0.03 * rate) {
			s := float64(i) / rate
			clicks[int(float64(beat)*rate/2)+i] = 0.3 * math.Sin(2*math.Pi*1320*s) * math.Exp(-s*180)
		}
	}
	for name, x := range map[string][]float64{"silence": silence, "noise": noise, "a metronome": clicks, "a constant": offset, "nothing": nil} {
		assert.Empty(t, listen.Listen(rate, x), name)
	}
}

// A string left behind rings on for 50 ms, as loud as the next note: there is a note,
// and one of its two pitches is the right one. These intervals, whose partials meet,
// are the hardest.
func TestANoteOverAStringThatRings(t *testing.T) {
	const rate = 44100.0
	rng := rand.New(rand.NewPCG(4, 4))
	for _, pair := range [][2]float64{{45, 52}, {52, 57}, {55, 61}, {61, 65}} {
		x := make([]float64, int(1.6*rate))
		sung(x, rate, pair[0], 0.5, 0.001, 0.85)
		sung(x, rate, pair[1], 0.8, 0.001, 1.1)
		for i := range x {
			x[i] += 0.0006 * rng.NormFloat64()
		}
		notes := listen.Listen(rate, x)
		require.Len(t, notes, 2, "%v", pair)
		assert.InDelta(t, 0.8, notes[1].Onset, 0.003, "%v", pair)
		nearest := min(math.Abs(notes[1].Pitch-pair[1]), math.Abs(notes[1].Or-pair[1]))
		assert.Less(t, nearest, 0.3, "%v: told %.2f or %.2f", pair, notes[1].Pitch, notes[1].Or)
	}
}

func BenchmarkListen(b *testing.B) {
	x, _, _ := scale(44100, 0.2)
	b.SetBytes(int64(len(x) * 8))
	for b.Loop() {
		listen.Listen(44100, x)
	}
	b.ReportMetric(4*float64(b.N)/b.Elapsed().Seconds(), "×realtime")
}

// A note whose third partial outsounds the rest is still heard at its pitch.
func TestAStrongPartialIsNotTheNote(t *testing.T) {
	const rate = 44100.0
	x := make([]float64, int(1.5*rate))
	hz := guitar.Frequency(66)
	for i := int(0.4 * rate); i < int(1.2*rate); i++ {
		s := float64(i)/rate - 0.4
		for k, strength := range []float64{0.25, 0.12, 1, 0.1, 0, 0.5} {
			x[i] += 0.1 * strength * math.Sin(2*math.Pi*hz*float64(k+1)*s) * math.Exp(-s/0.7)
		}
	}
	notes := listen.Listen(rate, x)
	require.Len(t, notes, 1)
	assert.InDelta(t, 66, notes[0].Pitch, 0.2)
}
