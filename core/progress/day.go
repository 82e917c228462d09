package progress

import (
	"time"

	"manudrill/core/evenness"
	"manudrill/core/tempo"
)

// A DayTake is a take as far as its day looks at it.
type DayTake struct {
	Date          time.Time // midnight, UTC, of its day by the studio's clock
	Rung          tempo.Rung
	Decision      *tempo.Decision
	Counts        bool // for the ladder
	Clean         bool // and every pass passed the gate
	SpreadPercent float64
	Seconds       float64
	SlurSeconds   float64
	Sums          []evenness.Sum
}

// DaysOf adds takes, in order of time, up by their days.
func DaysOf(takes []DayTake) []Day {
	days := []Day{}
	for _, t := range takes {
		if n := len(days); n == 0 || !days[n-1].Date.Equal(t.Date) {
			days = append(days, Day{Date: t.Date})
		}
		days[len(days)-1].add(t)
	}
	for i := range days {
		days[i].SpreadPercent /= float64(max(1, days[i].Counting))
	}
	return days
}

// add adds a take up; the spread is a sum until the day is over.
func (d *Day) add(t DayTake) {
	d.Takes++
	d.Seconds += t.Seconds
	d.SlurSeconds += t.SlurSeconds
	if d.Counting == 0 {
		d.Stands = t.Rung
	}
	if !t.Counts || t.Decision == nil {
		return
	}
	d.Counting++
	d.Stands = t.Decision.Next
	d.SpreadPercent += t.SpreadPercent
	if t.Clean {
		d.Clean++
	}
	if t.Decision.Passed() && (d.Passed == nil || t.Rung.NotesPerSecond() > d.Passed.NotesPerSecond()) {
		d.Passed = &t.Rung
	}
}
