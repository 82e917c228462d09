package drill

import "strings"

// A Misfit tells why a drill does not fit somebody's guitar or hand.
type Misfit struct {
	Text  string // what is wrong, and from which position it would fit
	Stops bool   // it cannot be played at all: notes are off the neck, strings are missing
}

// Misfit looks at a drill with somebody's guitar and hand, at a tempo, and reports
// whether it does not fit.
func (d Drill) Misfit(s Setup, bpm float64) (Misfit, bool) {
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
	chart, err := d.write(s.Guitar, bpm)
	if err != nil {
		return Misfit{sentence(err.Error()) + ".", true}, true
	}
	reach, wide := d.reviewParts(chart, func(d Drill, c Chart) (Remark, bool) { return d.reviewReach(c, s.Guitar, s.Hand) })
	return Misfit{Text: reach.Text}, wide
}
