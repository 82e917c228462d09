package evenness_test

import (
	"math/rand/v2"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/core/drill"
	"manudrill/core/drill/chart"
	"manudrill/core/evenness"
	"manudrill/core/guitar"
)

// diagonal has pairs on no string but across them: one finger per fret, one note a string,
// with a second note on the last string, there and back.
func diagonal(t *testing.T) chart.Chart {
	t.Helper()
	p := drill.Free{Notes: []drill.FreeNote{
		{String: 4, Fret: 5, Finger: 1, Attack: chart.Pick}, {String: 3, Fret: 6, Finger: 2, Attack: chart.Pick},
		{String: 2, Fret: 7, Finger: 3, Attack: chart.Pick}, {String: 1, Fret: 8, Finger: 4, Attack: chart.Pick},
		{String: 1, Fret: 5, Finger: 1, Attack: chart.Pick}, {String: 2, Fret: 6, Finger: 2, Attack: chart.Pick},
		{String: 3, Fret: 5, Finger: 1, Attack: chart.Pick}, {String: 3, Fret: 8, Finger: 4, Attack: chart.Pick},
	}}
	d := drill.New("diagonal", p)
	d.Path.Position, d.Path.Strings = p.Home()
	d.Rhythm.NotesPerBeat, d.Rhythm.Passes = 2, 12
	c, err := d.Chart(guitar.Standard(), 90)
	require.NoError(t, err)
	return c
}

// lostTime is by how much each of so many notes is off where some of the intervals are longer,
// in ms, and all others shorter so that the tempo is kept.
func lostTime(notes int, longer func(i int) bool, ms float64) []float64 {
	count := 0
	for i := range notes {
		if longer(i) {
			count++
		}
	}
	lost := make([]float64, notes)
	for i := 1; i < notes; i++ {
		lost[i] = lost[i-1] - ms*float64(count)/float64(notes-count)
		if longer(i) {
			lost[i] = lost[i-1] + ms
		}
	}
	return lost
}

func strays(rng *rand.Rand, ms float64) func(int, chart.Note) float64 {
	return func(int, chart.Note) float64 { return ms * rng.NormFloat64() }
}

// A finger that comes late across strings is named with the one before it; where all come late
// that cross, it is the crossing.
func TestWhoIsLateAcrossStrings(t *testing.T) {
	c := diagonal(t)
	notes := c.Unroll()
	across := func(i int) bool { return i > 0 && notes[i-1].String != notes[i].String }
	lateTo4 := func(i int) bool { return across(i) && notes[i].Finger == 4 && notes[i-1].Finger == 3 }
	for name, of := range map[string]struct {
		late     func(i int) bool
		pair     *evenness.FingerPair
		crossing bool
	}{
		"the little finger": {lateTo4, &evenness.FingerPair{From: 3, To: 4, Attack: chart.Pick, Strings: 1}, false},
		"all":               {across, nil, true},
	} {
		t.Run(name, func(t *testing.T) {
			rng := rand.New(rand.NewPCG(1, 1))
			lost := lostTime(len(notes), of.late, 45)
			a := evenness.Judge(played(c, func(i int, _ chart.Note) float64 { return lost[i] + 6*rng.NormFloat64() }, none))
			late := slices.IndexFunc(a.Pairs(), func(t *evenness.Transition) bool { return t.Stands && t.MeanMs > 0 })
			if of.pair == nil {
				assert.Equal(t, -1, late, "%+v", a.Transitions)
			} else if assert.GreaterOrEqual(t, late, 0) {
				assert.Equal(t, *of.pair, a.Pairs()[late].FingerPair)
				assert.Equal(t, of.pair, a.Weakest)
			}
			assert.Equal(t, of.crossing, slices.ContainsFunc(a.Groups, func(g evenness.Group) bool {
				return g.Kind == evenness.ByCrossing && g.Number > 0 && g.Stands
			}), "%+v", a.Groups)
		})
	}
}

// Of a take without a fault no pair is the weakest.
func TestNoPairIsTheWeakestOfAnEvenTake(t *testing.T) {
	a := evenness.Judge(played(chartOf(t, 4), strays(rand.New(rand.NewPCG(2, 2)), 8), none))
	assert.NotEmpty(t, a.Transitions)
	assert.Nil(t, a.Weakest)
}

// A pair 3 dB softer than the others is found 95 times of 100 where the level varies by 1.5 dB,
// and of a hand that is alike hardly ever, whatever the first note of the beat is stressed by.
// The bounds are what chance allows (binomial, one in a thousand).
func TestASoftPair(t *testing.T) {
	c := chartOf(t, 4)
	rng := rand.New(rand.NewPCG(3, 3))
	soft := func(drop float64) (found int) {
		for range 100 {
			a := evenness.Judge(played(c, strays(rng, 6), func(i int, n chart.Note) float64 {
				level := 1.5 * rng.NormFloat64()
				if i%3 == 0 {
					level += 5
				}
				if n.Finger == 4 {
					level -= drop
				}
				return level
			}))
			if i := slices.IndexFunc(a.Pairs(), func(t *evenness.Transition) bool { return t.Soft }); i >= 0 {
				found++
				assert.Equal(t, 4, a.Pairs()[i].To)
			}
		}
		return found
	}
	assert.GreaterOrEqual(t, soft(3), 88)
	assert.LessOrEqual(t, soft(0), 4)
}

// thereAndBack is one finger per fret over three strings and back.
func thereAndBack(t *testing.T, passes int) chart.Chart {
	t.Helper()
	d := drill.New("there and back", drill.FingerPerFret{Orders: [][]int{{1, 2, 3, 4}}})
	d.Path.Strings, d.Path.Back = []int{4, 3, 2, 1}, drill.Mirrored
	d.Rhythm.NotesPerBeat, d.Rhythm.Passes = 4, passes
	c, err := d.Chart(guitar.Standard(), 80)
	require.NoError(t, err)
	return c
}

// What is unsure on the way back alone is told of the way back, and not of a hand that tires;
// where the hand tires in each pass alike, that is told.
func TestTheWayBackIsNoTiredHand(t *testing.T) {
	judge := func(passes int, ms func(i, of int, n chart.Note) float64) (wayBack, tires int) {
		c := thereAndBack(t, passes)
		rng := rand.New(rand.NewPCG(4, 4))
		all := len(c.Unroll())
		for range 50 {
			a := evenness.Judge(played(c, func(i int, n chart.Note) float64 { return ms(i, all, n) * rng.NormFloat64() }, none))
			if slices.ContainsFunc(a.Groups, func(g evenness.Group) bool { return g.Kind == evenness.ByWay && g.Number == 1 && g.Varies }) {
				wayBack++
			}
			if a.Endurance != nil && a.Endurance.Tires {
				tires++
			}
		}
		return wayBack, tires
	}
	unsure := func(_, _ int, n chart.Note) float64 {
		if n.Back {
			return 24
		}
		return 8
	}
	for _, passes := range []int{1, 2, 3} {
		back, tires := judge(passes, unsure)
		if passes > 2 { // of fewer notes it cannot always be told
			assert.GreaterOrEqual(t, back, 45, "%d passes", passes)
		}
		assert.LessOrEqual(t, tires, 1, "%d passes", passes)
	}
	back, tires := judge(4, func(i, of int, _ chart.Note) float64 { return 6 + 24*float64(i)/float64(of) })
	assert.GreaterOrEqual(t, tires, 40)
	assert.LessOrEqual(t, back, 2)
}
