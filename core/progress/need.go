package progress

import (
	"cmp"
	"fmt"
	"slices"
	"time"
)

// A Need is why a student wants to be looked at.
type Need struct {
	Why   Why    `json:"why"`
	Text  string `json:"text"`
	Drill int    `json:"drill"` // index of the drill it is about; -1 for none
}

// A Why is a reason to look at a student.
type Why string

// Reasons, the most pressing first. The order is common practice: the hand before the
// music, who loses ground before who stands still, and both before who only plays
// unevenly.
const (
	InPain      Why = "pain"
	LosesGround Why = "slipping"
	StandsStill Why = "stuck"
	StaysAway   Why = "away"
	Uneven      Why = "uneven"
	TooEasy     Why = "ready" // for something new
	NothingYet  Why = "untouched"
)

var pressing = []Why{InPain, LosesGround, StandsStill, StaysAway, Uneven, TooEasy, NothingYet}

// unevenFrom is how much of what the gate allows the spread must be to be told. A ladder
// that works keeps everybody about 100 %: at the rung that is just not won.
const unevenFrom = 130

// readyAfter is how long a target may be reached before something new is due: one week,
// so that it is seen before the next lesson.
const readyAfter = week

// A Drill is one that a student has, as far as a look over many students sees it.
type Drill struct {
	Name  string
	State *State // nil until something was played
}

// NeedsOf tells why a student wants to be looked at, the most pressing first; empty for
// nobody to worry about. Hurt says since when pain is reported.
func NeedsOf(hurt bool, drills []Drill, today time.Time) []Need {
	needs := []Need{}
	if hurt {
		needs = append(needs, Need{InPain, "Reported pain: no ladder climbs.", -1})
	}
	if away, is := awayFromAll(drills, today); is {
		needs = append(needs, away)
	} else {
		for i, d := range drills {
			if n, is := d.need(today); is {
				n.Drill = i
				needs = append(needs, n)
			}
		}
	}
	slices.SortStableFunc(needs, func(a, b Need) int {
		return cmp.Compare(slices.Index(pressing, a.Why), slices.Index(pressing, b.Why))
	})
	return needs
}

// awayFromAll reports whether nothing at all was played lately.
func awayFromAll(drills []Drill, today time.Time) (Need, bool) {
	var last time.Time
	for _, d := range drills {
		if d.State != nil && d.State.Finding.Last != nil && d.State.Finding.Last.After(last) {
			last = *d.State.Finding.Last
		}
	}
	if last.IsZero() || today.Sub(last) < awayAfter {
		return Need{}, false
	}
	return Need{StaysAway, fmt.Sprintf("Has not played for %s.", span(today.Sub(last))), -1}, true
}

func (d Drill) need(today time.Time) (Need, bool) {
	if d.State == nil {
		return Need{Why: NothingYet, Text: "Nothing has been played yet."}, true
	}
	f := d.State.Finding.On(today)
	say := func(why Why, text string) (Need, bool) { return Need{Why: why, Text: text}, true }
	switch {
	case f.Kind == Slipping:
		return say(LosesGround, d.with(f.Text))
	case f.Kind == Stuck:
		return say(StandsStill, d.with(f.Text))
	case f.Kind == Away:
		return say(StaysAway, f.Text)
	case f.Kind == Reached && f.Since != nil && today.Sub(*f.Since) >= readyAfter:
		return say(TooEasy, fmt.Sprintf("Target reached %s ago: time for something new.", span(today.Sub(*f.Since))))
	case d.State.OfGate != nil && *d.State.OfGate > unevenFrom && d.State.Of >= stateDays:
		return say(Uneven, d.with(fmt.Sprintf("Spread at %.0f %% of what the gate allows.", *d.State.OfGate)))
	}
	return Need{}, false
}

// with adds the course of the weakest pair to a sentence.
func (d Drill) with(text string) string {
	if w := d.State.Weakest; w != nil {
		return text + " " + w.Text
	}
	return text
}

// Pressing orders students by what they need: by their first reason, then by how uneven
// they are against the gate, then by how late their weakest pair comes.
func Pressing(a, b []Need, drillsA, drillsB []Drill) int {
	return cmp.Or(
		cmp.Compare(rank(a), rank(b)),
		cmp.Compare(worst(drillsB, ofGate), worst(drillsA, ofGate)),
		cmp.Compare(worst(drillsB, lateMs), worst(drillsA, lateMs)),
	)
}

func rank(needs []Need) int {
	if len(needs) == 0 {
		return len(pressing)
	}
	return slices.Index(pressing, needs[0].Why)
}

func worst(drills []Drill, of func(State) float64) (most float64) {
	for _, d := range drills {
		if d.State != nil {
			most = max(most, of(*d.State))
		}
	}
	return most
}

func ofGate(s State) float64 {
	if s.OfGate == nil {
		return 0
	}
	return *s.OfGate
}

func lateMs(s State) float64 {
	if s.Weakest == nil {
		return 0
	}
	return s.Weakest.LateMs
}
