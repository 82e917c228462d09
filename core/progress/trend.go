// Package progress follows takes over weeks.
package progress

import (
	"time"

	"manudrill/core/tempo"
)

// A Played is one take of an assignment, as far as progress looks at it.
type Played struct {
	TakeID        string
	At            time.Time
	Rung          tempo.Rung
	SpreadPercent float64
	Passed        bool // the rung
}

// A Trend is how speed and evenness went from take to take.
type Trend struct {
	Target tempo.Rung `json:"target"`
	Mixed  bool       `json:"mixed"` // the click is not divided alike on all rungs: they are compared by notes a second
	Points []Point    `json:"points"`
}

// A Point is one take of a trend.
type Point struct {
	TakeID        string      `json:"takeId"`
	At            time.Time   `json:"at"`
	Rung          tempo.Rung  `json:"rung"`             // practised
	Passed        *tempo.Rung `json:"passed,omitempty"` // the fastest passed so far; none where missing
	SpreadPercent float64     `json:"spreadPercent"`
}

// TrendOf draws the trend of takes, in order of time, on a ladder. A rung counts as
// passed when the ladder went up from it or its target was reached; passedBefore is
// the fastest of the takes before these, nil for none. Rungs are compared by their
// notes a second.
func TrendOf(rungs tempo.Rungs, passedBefore *tempo.Rung, takes []Played) Trend {
	t := Trend{Mixed: len(rungs) > 0 && rungs.Mixed(), Points: make([]Point, 0, len(takes))}
	if len(rungs) > 0 {
		t.Target = rungs[len(rungs)-1]
	}
	passed := passedBefore
	for i, one := range takes {
		if one.Passed && (passed == nil || one.Rung.NotesPerSecond() > passed.NotesPerSecond()) {
			passed = &takes[i].Rung
		}
		t.Mixed = t.Mixed || one.Rung.NotesPerBeat != takes[0].Rung.NotesPerBeat
		t.Points = append(t.Points, Point{one.TakeID, one.At, one.Rung, passed, one.SpreadPercent})
	}
	return t
}
