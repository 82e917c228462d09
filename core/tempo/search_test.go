package tempo_test

import (
	"math"
	"math/rand/v2"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"

	"manudrill/core/tempo"
)

// seconds is how long a short take lasts with its count-in of a bar, its end and the look
// at what was said.
func seconds(bpm float64) float64 { return 4*60/bpm + 7 + 2.5 }

// searched lets somebody search who plays a take clean with a chance that falls with the
// tempo: at limit it is the 70.7 % that Levitt's rule settles on.
func searched(seed uint64, from, limit, width float64) tempo.Search {
	rng := rand.New(rand.NewPCG(seed, 70))
	slope := math.Log(9) / math.Log(1+width) // from 50 % to 90 % within the width
	half := limit * math.Exp(math.Log(0.707/0.293)/slope)
	s := tempo.SearchFrom(from)
	for !s.Over(seconds(s.BPM)) {
		chance := 1 / (1 + math.Exp(slope*math.Log(s.BPM/half)))
		s = s.After(rng.Float64() < chance, seconds(s.BPM))
	}
	return s
}

// Players of known limits, from a start that is much too slow, right, and too fast: what
// is found is their limit, within three minutes.
func TestASearchFindsThe707PercentPoint(t *testing.T) {
	l := tempo.Ladder{StartBPM: 40, StepBPM: 4, TargetBPM: 200, Gate: tempo.Usual().Gate}
	for _, limit := range []float64{60, 90, 140, 180} {
		var off []float64
		for seed := range uint64(300) {
			for _, from := range []float64{0.6 * limit, limit, 1.3 * limit} {
				s := searched(seed, from, limit, 0.1)
				assert.LessOrEqual(t, s.Seconds, float64(tempo.SearchSeconds))
				f, found := s.Found(l, 2)
				if !found {
					off = append(off, 1)
					continue
				}
				off = append(off, math.Abs(f.BPM/limit-1))
				assert.LessOrEqual(t, f.Low, f.BPM)
				assert.GreaterOrEqual(t, f.High, f.BPM)
				assert.LessOrEqual(t, f.Start.BPM, max(f.Low, l.StartBPM))
				assert.Contains(t, l.Rungs(2), f.Start)
			}
		}
		slices.Sort(off)
		assert.Less(t, off[len(off)/2], 0.05, "half of them, at %g", limit)
		assert.Less(t, off[len(off)*9/10], 0.12, "nine of ten, at %g", limit)
	}
}

func TestASearchThatFindsNothingSaysWhy(t *testing.T) {
	l := tempo.Usual()
	text := func(play func(tempo.Search) tempo.Search) string {
		s := tempo.SearchFrom(60)
		for !s.Over(seconds(s.BPM)) {
			s = play(s)
		}
		f, found := s.Found(l, 2)
		assert.False(t, found)
		return f.Text
	}
	assert.Contains(t, text(func(s tempo.Search) tempo.Search { return s.Unheard(10) }), "Nothing of the drill was heard")
	assert.Contains(t, text(func(s tempo.Search) tempo.Search { return s.After(false, 3) }), "No take was clean, down to 20 bpm")
	assert.Contains(t, text(func(s tempo.Search) tempo.Search { return s.After(true, 3) }), "up to 320 bpm")
	_, found := tempo.Search{}.Found(l, 2)
	assert.False(t, found)
}

// Worked out by hand: clean at 60, 72 and 86, not at 103; then by small steps of 6 %, two
// clean up, one not down.
func TestTheStepsOfASearch(t *testing.T) {
	s := tempo.SearchFrom(60)
	play := func(clean bool) float64 {
		s = s.After(clean, 8)
		return s.BPM
	}
	assert.Equal(t, 72.0, play(true))
	assert.Equal(t, 86.0, play(true))
	assert.Equal(t, 103.0, play(true))
	assert.Equal(t, 97.0, play(false))
	assert.Equal(t, 97.0, play(true), "one clean take is no step")
	assert.Equal(t, 103.0, play(true), "two are")
	assert.Equal(t, 97.0, play(false))
	assert.Equal(t, []float64{97, 103}, s.Turns)
	f, found := s.Found(tempo.Usual(), 2)
	assert.True(t, found)
	assert.Equal(t, 100.0, f.BPM)
	assert.Equal(t, tempo.Rung{BPM: 92, NotesPerBeat: 2}, f.Start, "the highest rung of 60, 64 … that is not above 94")
	assert.Equal(t, "Clean at about 100 bpm (94 to 106), by 7 short takes.", f.Text)
}
