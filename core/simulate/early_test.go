package simulate_test

import (
	"math"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/core/drill"
	"manudrill/core/guitar"
	"manudrill/core/listen"
	"manudrill/core/simulate"
)

// The early word of a note comes soon, is of nearly every note, of hardly anything else,
// and is near its last word; with it or without, the last words are the same.
func TestTheEarlyWord(t *testing.T) {
	var delays []float64
	notes, said, right := 0, 0, 0
	for seed := range uint64(6) {
		d := drill.New("x", drill.SlurCombinations{Combinations: [][]int{{1, 3, 4}}, Slur: drill.BothSlurs})
		d.Path.Strings, d.Rhythm.NotesPerBeat, d.Rhythm.Passes = []int{5, 4, 3, 2}, 4, 2
		chart, err := d.Chart(guitar.Standard(), 90)
		require.NoError(t, err)
		p := simulate.Player{Seed: seed, ClockMs: 5, MotorMs: 4, LevelSDDB: 1.5, SlurDropDB: 4, NoiseDB: -60}
		_, x, err := p.Take(chart)
		require.NoError(t, err)
		plain := listen.Listen(simulate.Rate, x)

		l := listen.New(simulate.Rate)
		l.SayEarly()
		const block = 256
		var early []float64
		var last []listen.Note
		for at := 0; at < len(x); at += block {
			end := min(len(x), at+block)
			last = append(last, l.Write(x[at:end])...)
			for _, e := range l.Early() {
				early = append(early, e)
				delays = append(delays, float64(end)/simulate.Rate-e)
			}
		}
		last = append(last, l.Close()...)
		assert.Equal(t, plain, last)
		notes += len(last)
		said += len(early)
		for _, n := range last {
			if slices.ContainsFunc(early, func(e float64) bool { return math.Abs(e-n.Onset) < 0.015 }) {
				right++
			}
		}
	}
	slices.Sort(delays)
	t.Logf("%d notes, %d early words, %d of them right; median %.0f ms, 95th percentile %.0f ms, at most %.0f ms", notes, said, right,
		1000*delays[len(delays)/2], 1000*delays[len(delays)*95/100], 1000*delays[len(delays)-1])
	assert.GreaterOrEqual(t, right, notes*95/100, "of nearly every note")
	assert.LessOrEqual(t, said-right, notes*3/100, "of hardly anything else")
	assert.Less(t, delays[len(delays)*95/100], 0.060, "soon")
}
