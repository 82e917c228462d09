package evenness

import (
	"cmp"
	"slices"

	"manudrill/core/stats"
)

// familyChance is how seldom, of all that a take is asked at once, anything may be told of
// a player who is even.
const familyChance = 0.01

// A claim is one thing that a take is asked: how likely what was measured, or more, is where
// there is nothing, and what follows if it holds.
type claim struct {
	chance float64
	holds  func()
}

// holdFamily lets those claims hold that survive being asked together (Holm, Scand. J.
// Statist. 6, 1979).
func holdFamily(claims []claim) {
	claims = slices.DeleteFunc(claims, func(c claim) bool { return c.chance >= 1 }) // of too few notes nothing is asked
	slices.SortStableFunc(claims, func(a, b claim) int { return cmp.Compare(a.chance, b.chance) })
	for i, c := range claims {
		if c.chance > familyChance/float64(len(claims)-i) {
			return
		}
		c.holds()
	}
}

// chanceOf is how likely a mean is to lie as far from zero by chance alone, given half its 95 %
// interval and how many values it rests on (Student's t, both sides); 1 for too few.
func chanceOf(mean, plusMinus float64, count int) float64 {
	if count < Fewest {
		return 1
	}
	if plusMinus == 0 {
		if mean == 0 {
			return 1
		}
		return 0
	}
	free := float64(count - 1)
	t := mean / plusMinus * stats.StudentQuantile(0.975, free)
	return stats.FSurvival(t*t, 1, free)
}

func (f *Figure) chance() float64 {
	if f == nil {
		return 1
	}
	return chanceOf(f.Value, f.PlusMinus, f.Count)
}
