package evenness

import (
	"cmp"
	"maps"
	"math"
	"slices"

	"manudrill/core/drill/chart"
	"manudrill/core/follow"
	"manudrill/core/stats"
)

// Further kinds, by which takes are added up over days and weeks.
const (
	ByPair     Kind = "pair"     // one finger to the next, on one string
	ByPosition Kind = "position" // of the hand on the neck
)

// A Sum adds up the notes of takes that have something in common. Sums of several takes
// add up to one, from which means and spreads are told as if all had been one take.
type Sum struct {
	SumOf
	Count       int     `json:"count"`
	ExcessMs    float64 `json:"excessMs"`    // by how much the intervals into them are longer, added up
	ExcessMs2   float64 `json:"excessMs2"`   // the squares of the same
	LatePercent float64 `json:"latePercent"` // by how much they come after their beat, % of the interval
	LatePct2    float64 `json:"latePct2"`    // the squares of the same
}

// SumOf is what notes have in common.
type SumOf struct {
	Kind   Kind         `json:"kind"`
	From   int          `json:"from,omitempty"`   // finger, of a pair
	To     int          `json:"to,omitempty"`     // finger, of a pair
	Number int          `json:"number,omitempty"` // string, or position
	Attack chart.Attack `json:"attack,omitempty"` // of a pair, and of what is grouped by it
}

// SumsOf adds up a take: by finger pair, attack, string and position.
func SumsOf(t follow.Take) []Sum {
	l := lineOf(t)
	interval := intervalMs(t, l)
	sums := map[SumOf]Sum{}
	for _, s := range stepsOf(t, l) {
		for _, of := range s.sharing() {
			sum := sums[of]
			sum.SumOf = of
			sum.add(s.excessMs, 100*s.lateMs/interval)
			sums[of] = sum
		}
	}
	return inOrder(sums)
}

// sharing is all that the second note of a step has in common with others.
func (s step) sharing() []SumOf {
	n := s.to.Chart
	of := []SumOf{{Kind: ByAttack, Attack: n.Attack}, {Kind: ByString, Number: n.String}}
	if s.fingers() && s.strings() == 0 {
		of = append(of, SumOf{Kind: ByPair, From: s.from.Chart.Finger, To: n.Finger, Attack: n.Attack})
	}
	if n.Hand == chart.FrettingHand && n.Finger > 0 && n.Fret >= n.Finger {
		of = append(of, SumOf{Kind: ByPosition, Number: n.Fret - n.Finger + 1})
	}
	return of
}

func (s *Sum) add(excessMs, latePercent float64) {
	s.Count++
	s.ExcessMs += excessMs
	s.ExcessMs2 += excessMs * excessMs
	s.LatePercent += latePercent
	s.LatePct2 += latePercent * latePercent
}

// AddUp adds up sums of several takes.
func AddUp(takes ...[]Sum) []Sum {
	all := map[SumOf]Sum{}
	for _, sums := range takes {
		for _, s := range sums {
			sum := all[s.SumOf]
			sum.SumOf = s.SumOf
			sum.Count += s.Count
			sum.ExcessMs += s.ExcessMs
			sum.ExcessMs2 += s.ExcessMs2
			sum.LatePercent += s.LatePercent
			sum.LatePct2 += s.LatePct2
			all[s.SumOf] = sum
		}
	}
	return inOrder(all)
}

func inOrder(sums map[SumOf]Sum) []Sum {
	all := slices.AppendSeq(make([]Sum, 0, len(sums)), maps.Values(sums))
	slices.SortFunc(all, func(a, b Sum) int {
		return cmp.Or(cmp.Compare(a.Kind, b.Kind), cmp.Compare(a.From, b.From), cmp.Compare(a.To, b.To),
			cmp.Compare(a.Number, b.Number), cmp.Compare(a.Attack, b.Attack))
	})
	return all
}

// Late is by how much the intervals into the notes are longer (+) than their share, in
// ms, with Student's interval; nil for too few.
func (s Sum) Late() *Figure {
	if s.Count < Fewest {
		return nil
	}
	n := float64(s.Count)
	t := stats.StudentQuantile(0.975, n-1)
	return &Figure{s.ExcessMs / n, t * math.Sqrt(s.variance()/n), s.Count}
}

func (s Sum) variance() float64 { return varianceOf(float64(s.Count), s.ExcessMs, s.ExcessMs2) }

// SpreadPercent is the standard deviation of how late the notes come, % of the interval:
// what a gate looks at. It is 0 for fewer than two.
func (s Sum) SpreadPercent() float64 {
	return math.Sqrt(varianceOf(float64(s.Count), s.LatePercent, s.LatePct2))
}

func varianceOf(n, sum, squares float64) float64 {
	if n < 2 {
		return 0
	}
	return max(0, (squares-sum*sum/n)/(n-1))
}

// Less is by how much the notes are later than those of another sum, in ms, with Welch's
// interval; nil where either has too few.
func (s Sum) Less(other Sum) *Figure {
	if s.Count < Fewest || other.Count < Fewest {
		return nil
	}
	n, m := float64(s.Count), float64(other.Count)
	return welch(s.ExcessMs/n-other.ExcessMs/m, s.variance()/n, n, other.variance()/m, m)
}
