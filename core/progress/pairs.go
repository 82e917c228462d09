package progress

import (
	"fmt"
	"math"
	"slices"
	"time"

	"manudrill/core/evenness"
)

// A PairCourse is how a finger pair went, from the first weeks to the last.
type PairCourse struct {
	evenness.SumOf
	LateMs      float64  `json:"lateMs"`           // now: by how much the note comes too late
	PlusMinusMs float64  `json:"plusMinusMs"`      // half of its 95 % interval
	ThenMs      *float64 `json:"thenMs,omitempty"` // in the first weeks; none where they have too few notes
	Count       int      `json:"count"`            // notes, now
	Text        string   `json:"text"`
}

// What a pair's course rests on.
const (
	nowWeeks   = 4  // the last ones
	thenWeeks  = 4  // the first ones of those looked at
	pairNotes  = 20 // in each, at the least
	lateHeard  = 6  // ms: less is not heard (Friberg & Sundberg, J. Acoust. Soc. Am. 98, 1995; from memory)
	pairChange = 2  // ms: less is no change, however sure
	pairSame   = 5  // ms: an interval as narrow can say that nothing has changed; a wider one says nothing
)

// A Dated is what the notes of a week add up to.
type Dated struct {
	Date time.Time // its Monday
	Sums []evenness.Sum
}

// Weakest is the finger pair that comes latest in the last weeks, surely and so that it
// can be heard, with how it was in the first weeks; false where there is none.
func Weakest(weeks []Dated) (PairCourse, bool) {
	then, now := thenAndNow(weeks)
	var weakest PairCourse
	found := false
	for _, s := range now {
		late := s.Late()
		if s.Kind != evenness.ByPair || s.Count < pairNotes || !late.Exceeds(lateHeard) || found && late.Value <= weakest.LateMs {
			continue
		}
		found = true
		weakest = PairCourse{SumOf: s.SumOf, LateMs: late.Value, PlusMinusMs: late.PlusMinus, Count: s.Count}
		weakest.compare(s, then, "at first")
	}
	return weakest, found
}

// thenAndNow adds up the first weeks and the last; then is empty where they would
// overlap.
func thenAndNow(weeks []Dated) (then, now []evenness.Sum) {
	if len(weeks) == 0 {
		return nil, nil
	}
	from := weeks[len(weeks)-1].Date.AddDate(0, 0, 7-7*nowWeeks)
	until := weeks[0].Date.AddDate(0, 0, 7*thenWeeks)
	var first, last [][]evenness.Sum
	for _, w := range weeks {
		switch {
		case !w.Date.Before(from):
			last = append(last, w.Sums)
		case w.Date.Before(until):
			first = append(first, w.Sums)
		}
	}
	return evenness.AddUp(first...), evenness.AddUp(last...)
}

// compare puts the pair's course in words; when says what then is.
func (p *PairCourse) compare(now evenness.Sum, then []evenness.Sum, when string) {
	name := fmt.Sprintf("%d→%d", p.From, p.To)
	i := slices.IndexFunc(then, func(s evenness.Sum) bool { return s.SumOf == p.SumOf })
	if i < 0 || then[i].Count < pairNotes {
		p.Text = fmt.Sprintf("The pair %s comes %.0f ms late.", name, p.LateMs)
		return
	}
	before := then[i].Late().Value
	p.ThenMs = &before
	change := now.Less(then[i])
	switch {
	case math.Abs(change.Value) <= max(pairChange, change.PlusMinus) && change.PlusMinus > pairSame:
		p.Text = fmt.Sprintf("The pair %s comes %.0f ms late.", name, p.LateMs)
	case math.Abs(change.Value) <= max(pairChange, change.PlusMinus):
		p.Text = fmt.Sprintf("The pair %s has not changed: %.0f ms late.", name, p.LateMs)
	case change.Value < 0:
		p.Text = fmt.Sprintf("The pair %s comes %.0f ms late; %s it was %.0f.", name, p.LateMs, when, before)
	default:
		p.Text = fmt.Sprintf("The pair %s has got later: %.0f ms; %s it was %.0f.", name, p.LateMs, when, before)
	}
}
