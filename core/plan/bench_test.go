package plan

import (
	"fmt"
	"math"
	"testing"

	"manudrill/core/evenness"
)

func sumOf(from, to int) evenness.SumOf {
	return evenness.SumOf{Kind: evenness.ByPair, From: from, To: to}
}

func pow(x, y float64) float64 { return math.Pow(x, y) }

// A plan of twelve weeks on six days, forty drills to choose from.
func BenchmarkTwelveWeeks(b *testing.B) {
	s := settings(12)
	s.Days, s.MinutesADay = []int{1, 2, 3, 4, 5, 6}, 60
	var all []Exercise
	for i := range 40 {
		all = append(all, exercise(fmt.Sprint("d", i), Slurring, i%8, "12", "34"))
		s.Drills = append(s.Drills, fmt.Sprint("d", i))
	}
	for b.Loop() {
		Make(s, facts(all...))
	}
}
