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
	BPM           float64
	SpreadPercent float64
	Decision      tempo.Decision
}

// A Trend is how tempo and evenness went from take to take.
type Trend struct {
	TargetBPM float64 `json:"targetBpm"`
	Points    []Point `json:"points"`
}

// A Point is one take of a trend.
type Point struct {
	TakeID        string    `json:"takeId"`
	At            time.Time `json:"at"`
	BPM           float64   `json:"bpm"`       // practised
	PassedBPM     float64   `json:"passedBpm"` // the fastest passed so far, 0 for none
	SpreadPercent float64   `json:"spreadPercent"`
}

// TrendOf draws the trend of takes in order of time. A tempo counts as passed
// when the ladder went up from it or its target was reached; passedBefore is the
// fastest of the takes before these, 0 for none.
func TrendOf(targetBPM, passedBefore float64, takes []Played) Trend {
	t := Trend{TargetBPM: targetBPM, Points: make([]Point, 0, len(takes))}
	passed := passedBefore
	for _, one := range takes {
		if one.Decision.Passed() {
			passed = max(passed, one.BPM)
		}
		t.Points = append(t.Points, Point{one.TakeID, one.At, one.BPM, passed, one.SpreadPercent})
	}
	return t
}
