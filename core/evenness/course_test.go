package evenness_test

import (
	"encoding/json"
	"math/rand/v2"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"manudrill/core/drill/chart"
	"manudrill/core/evenness"
	"manudrill/core/follow"
	"manudrill/core/listen"
)

// uneven is a take of a player who strays by so many ms, each note for itself.
func uneven(c chart.Chart, seed uint64, ms float64) []listen.Note {
	rng := rand.New(rand.NewPCG(seed, 3))
	var heard []listen.Note
	for _, n := range c.Unroll() {
		at := 2 + n.Beat*60/c.BPM + ms*rng.NormFloat64()/1000
		heard = append(heard, listen.Note{Onset: at, End: at + 0.3, Pitch: float64(n.MIDI), LevelDB: -20 + rng.NormFloat64()})
	}
	return heard
}

func later(notes []listen.Note, seconds float64) []listen.Note {
	out := slices.Clone(notes)
	for i := range out {
		out[i].Onset += seconds
		out[i].End += seconds
	}
	return out
}

// A wait in a take changes none of its other figures: a segment more has one degree of
// freedom more, and no more comes of it.
func TestAWaitChangesNoOtherFigure(t *testing.T) {
	c := chartOf(t, 3)
	rapid.Check(t, func(t *rapid.T) {
		heard := uneven(c, rapid.Uint64().Draw(t, "seed"), rapid.Float64Range(2, 12).Draw(t, "ms"))
		before := rapid.IntRange(6, 48).Draw(t, "before")
		wait := rapid.Float64Range(0.3, 5).Draw(t, "seconds")
		plain := evenness.Judge(follow.Follow(c, heard))
		waited := evenness.Judge(follow.Follow(c, append(slices.Clone(heard[:before]), later(heard[before:], wait)...)))
		require.Len(t, waited.Course.Events, 1)
		assert.InDelta(t, wait, waited.Course.Events[0].Seconds, 0.03)
		assert.InEpsilon(t, plain.Timing.SpreadMs, waited.Timing.SpreadMs, 0.2)
		assert.InEpsilon(t, plain.Tempo.BPM, waited.Tempo.BPM, 0.01)
		assert.Equal(t, plain.Counts, waited.Counts)
		assert.InDelta(t, plain.Level.SpreadDB, waited.Level.SpreadDB, 1e-9)
	})
}

// Nothing that was played before the drill was begun again changes what is told of it.
func TestWhatCameBeforeARestartIsNotJudged(t *testing.T) {
	c := chartOf(t, 2)
	rapid.Check(t, func(t *rapid.T) {
		heard := uneven(c, rapid.Uint64().Draw(t, "seed"), 8)
		part := rapid.IntRange(5, 14).Draw(t, "notes") // three, played badly, may be anything
		first := uneven(c, rapid.Uint64().Draw(t, "before"), 40)[:part]
		pause := rapid.Float64Range(0.4, 3).Draw(t, "pause")
		again := later(heard, first[part-1].Onset+pause-heard[0].Onset)
		plain := evenness.Judge(follow.Follow(c, again))
		begun := evenness.Judge(follow.Follow(c, append(first, again...)))
		require.NotEmpty(t, begun.Course.Events)
		assert.Equal(t, plain.Timing, begun.Timing)
		assert.Equal(t, plain.Tempo, begun.Tempo)
		assert.Equal(t, plain.Counts, begun.Counts)
		assert.Equal(t, plain.Level, begun.Level)
		assert.Equal(t, plain.Passes, begun.Passes)
		assert.Equal(t, plain.Transitions, begun.Transitions)
	})
}

// A pass in which the player waited long, went back or left notes out was not played
// through; a short wait, or one between passes, spoils none.
func TestAPassThatWasNotPlayedThrough(t *testing.T) {
	c := chartOf(t, 2)
	heard := uneven(c, 1, 4)
	size := len(c.Notes)
	interrupted := func(heard []listen.Note) (all []bool) {
		for _, p := range evenness.Judge(follow.Follow(c, heard)).Passes {
			all = append(all, p.Interrupted)
		}
		return all
	}
	wait := func(before int, seconds float64) []listen.Note {
		return append(slices.Clone(heard[:before]), later(heard[before:], seconds)...)
	}
	back := append(slices.Clone(heard[:size+9]), later(heard[size+6:], 1.6)...)
	ahead := append(slices.Clone(heard[:4]), later(heard[8:], -4.0/3)...)
	assert.Equal(t, []bool{false, false}, interrupted(heard))
	assert.Equal(t, []bool{false, false}, interrupted(wait(size+5, 0.12)), "less than half an interval")
	assert.Equal(t, []bool{false, true}, interrupted(wait(size+5, 0.3)))
	assert.Equal(t, []bool{false, false}, interrupted(wait(size, 3)), "between the passes")
	assert.Equal(t, []bool{false, true}, interrupted(back))
	assert.Equal(t, []bool{true, false}, interrupted(ahead))
}

// Takes that were judged before events had a kind say what they said.
func TestCoursesFromBeforeAreRead(t *testing.T) {
	var c evenness.Course
	require.NoError(t, json.Unmarshal([]byte(`{"askedPasses": 2, "passes": 2, "stoppedAfter": 20, "falseStart": 7, "stops": [{"before": 9, "seconds": 1.5}], "tuningCents": 3}`), &c))
	require.Len(t, c.Events, 3)
	assert.Equal(t, follow.Restart, c.Events[0].Kind)
	assert.Equal(t, 7, c.Events[0].Notes)
	assert.Equal(t, follow.Event{Kind: follow.Stop, Before: 9, Seconds: 1.5}, c.Events[1])
	assert.Equal(t, follow.Event{Kind: follow.Left, Before: 21}, c.Events[2])
	again, err := json.Marshal(c)
	require.NoError(t, err)
	var same evenness.Course
	require.NoError(t, json.Unmarshal(again, &same))
	assert.Equal(t, c, same)
}

// All that a take is asked is one family: players who are even, at spreads of 5 to 40 ms,
// are told a cause one time in a hundred at the most, and a pair 15 ms late at a spread of
// 10 is found 95 times. Bounds are what chance allows over so many takes (binomial, one in
// a thousand).
func TestCausesAreOneFamily(t *testing.T) {
	c, back := chartOf(t, 4), thereAndBack(t, 3)
	rng := rand.New(rand.NewPCG(7, 7))
	told, tires, sure := 0, 0, 0
	const takes = 600
	for range takes {
		ms := 5 + 35*rng.Float64()
		of := c
		if rng.IntN(2) == 0 {
			of = back
		}
		a := evenness.Judge(played(of, func(int, chart.Note) float64 { return ms * rng.NormFloat64() }, func(int, chart.Note) float64 { return 2 * rng.NormFloat64() }))
		if stands(a) {
			told++
		}
		if a.Endurance != nil && a.Endurance.Tires {
			tires++
		}
		if slices.ContainsFunc(a.Pairs(), func(t *evenness.Transition) bool { return t.Sure }) {
			sure++
		}
	}
	assert.LessOrEqual(t, told, 14, "causes")
	assert.LessOrEqual(t, tires, 9, "tiring")
	assert.LessOrEqual(t, sure, 14, "sure pairs")
	found := 0
	for range 100 {
		a := evenness.Judge(played(c, func(_ int, n chart.Note) float64 {
			off := 10 * rng.NormFloat64()
			if n.Finger == 4 {
				off += 15
			}
			return off
		}, none))
		if slices.ContainsFunc(a.Transitions, func(t evenness.Transition) bool { return t.Stands && t.To == 4 && t.MeanMs > 0 }) {
			found++
		}
	}
	assert.GreaterOrEqual(t, found, 90)
	t.Logf("told %d, tires %d, sure %d of %d; found %d of 100", told, tires, sure, takes, found)
}

func stands(a evenness.Analysis) bool {
	return a.Pulse.Drifts || a.Pulse.OffClick ||
		slices.ContainsFunc(a.Pairs(), func(t *evenness.Transition) bool { return t.Stands || t.Varies || t.Soft }) ||
		slices.ContainsFunc(a.Groups, func(g evenness.Group) bool {
			return g.Varies || g.Stands && g.Number > 0 && (g.Kind == evenness.ByCrossing || g.Kind == evenness.ByShift)
		})
}
