package progress

import (
	"manudrill/core/stats"
	"math"
	"slices"
)

// A Slope is how much a series gains in a unit of time, with its interval.
type Slope struct {
	Value float64 `json:"value"`
	Low   float64 `json:"low"`
	High  float64 `json:"high"`
}

// sureOf is the share of cases in which the interval of a slope holds the true one.
const sureOf = 0.90

// TheilSen is the median of the slopes of all pairs of points (Theil, Proc. KNAW 53,
// 1950), with the interval of Sen (J. Am. Stat. Assoc. 63, 1968), which one odd value
// in four does not move. The times must differ; false for fewer than three points.
func TheilSen(t, y []float64) (Slope, bool) {
	if len(t) < 3 {
		return Slope{}, false
	}
	slopes := slopesOf(t, y)
	n := float64(len(slopes))
	// Ranks as far from the middle as S goes by chance.
	far := stats.NormalQuantile(0.5+sureOf/2) * math.Sqrt(varianceOfS(len(y), tiesOf(y)))
	low := int(math.Round((n-far)/2)) - 1
	high := int(math.Round((n + far) / 2))
	return Slope{middle(slopes), slopes[max(0, low)], slopes[min(len(slopes)-1, high)]}, true
}

// slopesOf are those of all pairs of points, in order.
func slopesOf(t, y []float64) []float64 {
	var slopes []float64
	for j := range t {
		for i := range j {
			slopes = append(slopes, (y[j]-y[i])/(t[j]-t[i]))
		}
	}
	slices.Sort(slopes)
	return slopes
}

// middle is the median of values in order, of which there is one at least.
func middle(sorted []float64) float64 {
	half := len(sorted) / 2
	if len(sorted)%2 == 1 {
		return sorted[half]
	}
	return (sorted[half-1] + sorted[half]) / 2
}
