package evenness

import (
	"cmp"
	"slices"

	"manudrill/core/compare"
	"manudrill/core/drill"
)

// A FingerPair is one finger following another on a string, and how.
type FingerPair struct {
	From   int          `json:"from"`
	To     int          `json:"to"`
	Attack drill.Attack `json:"attack"`
}

// A Transition holds the figures of a finger pair.
type Transition struct {
	FingerPair
	Count    int     `json:"count"`
	MeanMs   float64 `json:"meanMs"`   // by how much the interval into the note is longer (+) than its share
	SpreadMs float64 `json:"spreadMs"` // standard deviation of the same
	LevelDB  float64 `json:"levelDb"`  // mean level of the note against the one before
}

// weakness orders transitions: a finger that comes late is weak, and so is one
// that comes unevenly, in units of what can be heard.
func (t Transition) weakness(audibleMs float64) float64 {
	return (t.MeanMs + 0.5*t.SpreadMs) / audibleMs
}

// transitionsOf groups the notes of a take by the finger before and the finger
// that plays, on one string, weakest first.
func transitionsOf(t compare.Take, l line) []Transition {
	excess := map[FingerPair][]float64{}
	drop := map[FingerPair][]float64{}
	for i := 1; i < len(t.Matches); i++ {
		a, b := t.Matches[i-1], t.Matches[i]
		if a.Status != compare.Played || b.Status != compare.Played ||
			a.Chart.String != b.Chart.String || a.Chart.Finger == b.Chart.Finger && a.Chart.Hand == b.Chart.Hand {
			continue
		}
		pair := FingerPair{a.Chart.Finger, b.Chart.Finger, b.Chart.Attack}
		excess[pair] = append(excess[pair], l.off(b.Chart.Beat, b.Heard.Onset)-l.off(a.Chart.Beat, a.Heard.Onset))
		drop[pair] = append(drop[pair], b.Heard.LevelDB-a.Heard.LevelDB)
	}
	out := make([]Transition, 0, len(excess))
	for pair, ms := range excess {
		out = append(out, Transition{pair, len(ms), mean(ms), spread(ms), mean(drop[pair])})
	}
	audible := AudibleMs(intervalMs(t, l))
	slices.SortFunc(out, func(a, b Transition) int {
		return cmp.Or(
			cmp.Compare(b.weakness(audible), a.weakness(audible)),
			cmp.Compare(a.From, b.From), cmp.Compare(a.To, b.To), cmp.Compare(a.Attack, b.Attack),
		)
	})
	return out
}
