package progress

import (
	"manudrill/core/stats"
	"math"
	"slices"
)

// Monotone is what the Mann–Kendall test says of a series: whether it goes one way,
// however unevenly (Mann, Econometrica 13, 1945; Kendall, Rank Correlation Methods).
type Monotone struct {
	S int     `json:"s"` // rises less falls over all pairs
	P float64 `json:"p"` // chance of one as far from zero without any trend, two-sided
}

// Rises reports whether the series goes up beyond chance.
func (m Monotone) Rises(chance float64) bool { return m.S > 0 && m.P <= chance }

// Falls reports whether the series goes down beyond chance.
func (m Monotone) Falls(chance float64) bool { return m.S < 0 && m.P <= chance }

// fewestForNormal is how many values the normal approximation wants. With fewer, and
// none alike, the exact distribution is used (Kendall: from ten on the two agree).
const fewestForNormal = 10

// MannKendall tests values in order of time. Fewer than two say nothing: P is 1.
func MannKendall(y []float64) Monotone {
	s := kendallS(y)
	ties := tiesOf(y)
	if len(y) < fewestForNormal && len(ties) == 0 {
		return Monotone{s, exactP(len(y), s)}
	}
	variance := varianceOfS(len(y), ties)
	if variance <= 0 {
		return Monotone{s, 1}
	}
	// Less one towards zero: S is whole, the normal distribution is not.
	z := max(0, math.Abs(float64(s))-1) / math.Sqrt(variance)
	return Monotone{s, 2 * stats.NormalSurvival(z)}
}

func kendallS(y []float64) int {
	s := 0
	for j := range y {
		for i := range j {
			switch {
			case y[j] > y[i]:
				s++
			case y[j] < y[i]:
				s--
			}
		}
	}
	return s
}

// tiesOf returns how many values there are of each that is there more than once.
func tiesOf(y []float64) []int {
	sorted := slices.Clone(y)
	slices.Sort(sorted)
	var ties []int
	for i := 0; i < len(sorted); {
		n := 1
		for i+n < len(sorted) && sorted[i+n] == sorted[i] {
			n++
		}
		if n > 1 {
			ties = append(ties, n)
		}
		i += n
	}
	return ties
}

// varianceOfS is that of S over all orders of n values, some of them alike.
func varianceOfS(n int, ties []int) float64 {
	term := func(n int) float64 { return float64(n * (n - 1) * (2*n + 5)) }
	v := term(n)
	for _, t := range ties {
		v -= term(t)
	}
	return v / 18
}

// exactP is the chance of an S as far from zero over all orders of n values of which
// none are alike. S is the number of pairs less twice the pairs that are the wrong way
// round, and orders are counted by these one value after another.
func exactP(n, s int) float64 {
	orders := []float64{1}
	all := 1.0
	for k := 2; k <= n; k++ {
		next := make([]float64, len(orders)+k-1)
		for wrong, count := range orders {
			for more := range k {
				next[wrong+more] += count
			}
		}
		orders = next
		all *= float64(k)
	}
	pairs := n * (n - 1) / 2
	far := 0.0
	for wrong, count := range orders {
		if abs(pairs-2*wrong) >= abs(s) {
			far += count
		}
	}
	return far / all
}

func abs(n int) int { return max(n, -n) }
