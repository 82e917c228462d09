package review

import (
	"strings"

	"manudrill/core/drill"
	"manudrill/core/drill/chart"
	"manudrill/core/setup"
	"manudrill/core/words"
)

// A Misfit tells why a drill does not fit somebody's guitar or hand.
type Misfit struct {
	Text  string // what is wrong, and from which position it would fit
	Stops bool   // it cannot be played at all: notes are off the neck, strings are missing
}

// MisfitOf looks at a drill with somebody's guitar and hand, at a tempo, and reports
// whether it does not fit.
func MisfitOf(d drill.Drill, s setup.Setup, bpm float64) (Misfit, bool) {
	faults := d.Check(s.Guitar)
	if len(faults) == 0 {
		faults = d.CheckAt(s.Guitar, bpm)
	}
	if len(faults) > 0 {
		texts := make([]string, len(faults))
		for i, f := range faults {
			texts[i] = f.Text
		}
		return Misfit{strings.Join(texts, " "), true}, true
	}
	written, err := d.ChartFor(s.Guitar, s.Hand, bpm)
	if err != nil {
		return Misfit{words.Sentence(err.Error()) + ".", true}, true
	}
	reach, wide := reviewParts(d, written, func(d drill.Drill, c chart.Chart) (Remark, bool) { return reviewReach(d, c, s.Guitar, s.Hand) })
	return Misfit{Text: reach.Text}, wide
}
