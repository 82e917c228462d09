package evenness_test

import (
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"gonum.org/v1/gonum/stat"

	"manudrill/core/drill/chart"
	"manudrill/core/evenness"
)

func sumOf(t *testing.T, sums []evenness.Sum, of evenness.SumOf) evenness.Sum {
	t.Helper()
	for _, s := range sums {
		if s.SumOf == of {
			return s
		}
	}
	require.Fail(t, "there is no such sum", "%v", of)
	return evenness.Sum{}
}

// A sum tells of its take what the analysis tells.
func TestSumsSayWhatTheAnalysisSays(t *testing.T) {
	random := rand.New(rand.NewPCG(1, 2))
	unsteady := func(int, chart.Note) float64 { return 12 * random.NormFloat64() }
	take := played(chartOf(t, 4), unsteady, none)
	a, sums := evenness.Judge(take), evenness.SumsOf(take)
	for _, tr := range a.Transitions {
		s := sumOf(t, sums, evenness.SumOf{Kind: evenness.ByPair, From: tr.From, To: tr.To, Attack: tr.Attack})
		assert.Equal(t, tr.Count, s.Count)
		assert.InDelta(t, tr.MeanMs, s.Late().Value, 1e-9)
		assert.InDelta(t, tr.PlusMinusMs, s.Late().PlusMinus, 1e-9)
	}
	all := evenness.Sum{}
	for _, s := range sums {
		if s.Kind == evenness.ByAttack {
			all.Count += s.Count
			all.LatePercent += s.LatePercent
			all.LatePct2 += s.LatePct2
		}
	}
	assert.InDelta(t, a.Timing.SpreadPercent, all.SpreadPercent(), 0.2, "all notes but the first have a step into them")
}

// Takes add up to what one take of all their notes would say, by gonum's own sums.
func TestTakesAddUp(t *testing.T) {
	random := rand.New(rand.NewPCG(3, 4))
	var values [2][]float64
	var sums [2][]evenness.Sum
	pair := evenness.SumOf{Kind: evenness.ByPair, From: 2, To: 4, Attack: chart.Hammer}
	for i := range sums {
		late := func(_ int, n chart.Note) float64 {
			if n.Finger == 4 {
				return float64(10+8*i) + 5*random.NormFloat64()
			}
			return 0
		}
		take := played(chartOf(t, 3), late, none)
		sums[i] = evenness.SumsOf(take)
		notes := evenness.Judge(take).Notes
		for j := 1; j < len(notes); j++ {
			a, b := take.Matches[j-1].Chart, take.Matches[j].Chart
			if a.String == b.String && a.Finger == 2 && b.Finger == 4 {
				values[i] = append(values[i], *notes[j].DeviationMs-*notes[j-1].DeviationMs)
			}
		}
	}
	both := sumOf(t, evenness.AddUp(sums[0], sums[1]), pair)
	mean, sd := stat.MeanStdDev(append(append([]float64{}, values[0]...), values[1]...), nil)
	assert.Equal(t, len(values[0])+len(values[1]), both.Count)
	assert.InDelta(t, mean, both.Late().Value, 1e-9)
	assert.InDelta(t, sd, both.Late().PlusMinus*6/2.0301, 0.01, "Student's t of 35 degrees is 2.030 (handbook table), and 36 notes")
	less := sumOf(t, sums[1], pair).Less(sumOf(t, sums[0], pair))
	assert.InDelta(t, 8, less.Value, 4)
	assert.True(t, less.Exceeds(0))
	assert.Equal(t, sums[0], evenness.AddUp(sums[0]))
	assert.Empty(t, evenness.AddUp())
}

func TestSumsOfTooFewSayNothing(t *testing.T) {
	assert.Nil(t, evenness.Sum{Count: 4}.Late())
	assert.Nil(t, evenness.Sum{Count: 4}.Less(evenness.Sum{Count: 50}))
	assert.Zero(t, evenness.Sum{Count: 1, LatePct2: 9}.SpreadPercent())
}
