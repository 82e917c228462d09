package progress

import (
	"fmt"
	"math"
	"time"

	"manudrill/core/stats"
	"manudrill/core/tempo"
)

// A Forecast is when a rung will be passed, as a range of dates, or why that cannot be
// told.
type Forecast struct {
	Known    bool       `json:"known"`
	Earliest *time.Time `json:"earliest,omitempty"`
	Latest   *time.Time `json:"latest,omitempty"`
	Text     string     `json:"text"`
}

// What a forecast rests on. The numbers were chosen on simulated learners who grow in
// different ways (linear, power law, towards a limit), so that the range holds for each
// of them; the tests of the back-tests notice them move.
const (
	forecastWeeks = 5   // with takes that count, at the least
	forecastFresh = 2   // weeks since the last take, at the most
	quickest      = 0.6 // of the time that is asked for at the better pace of two
	luckWeeks     = 4   // that bad luck may add, however near the rung
	slowing       = 8   // weeks in which the pace falls to 1/e, at the worst
	leftOver      = 0.3 // of all that such a pace can ever win, what must be left beyond the goal
)

// Forecast tells when a rung will be passed at the pace of the last weeks. It is silent
// where the record does not surely go up, or the rung is farther than a slowing pace can
// be trusted to reach.
func (r Record) Forecast(goal tempo.Rung, today time.Time) Forecast {
	if r.passed(goal) != nil {
		return Forecast{Text: "Passed already."}
	}
	p, silent := r.paceAt(today)
	if silent != "" {
		return Forecast{Text: silent}
	}
	return r.forecastAt(p, goal, today)
}

// paceAt is that of the last weeks, or why nothing can be told of it.
func (r Record) paceAt(today time.Time) (p pace, silent string) {
	recent, _ := r.sincePause()
	weeks := recent.Weeks()
	weeks = weeks[max(0, len(weeks)-lookBack):]
	if len(weeks) < forecastWeeks {
		return p, fmt.Sprintf("It cannot be said yet: that takes %d weeks with takes that count, and there are %d.", forecastWeeks, len(weeks))
	}
	if today.Sub(r.last()) > forecastFresh*week {
		return p, "It cannot be said: nothing was played lately."
	}
	p, rises := paceOf(weeks)
	switch {
	case !rises:
		return p, "It cannot be said: the tempo does not surely go up."
	case p.worst <= 0:
		return p, "It cannot be said: nothing was won in the last weeks."
	}
	return p, ""
}

// forecastAt tells when a rung that was not passed yet will be, at a pace.
func (r Record) forecastAt(p pace, goal tempo.Rung, today time.Time) Forecast {
	at := r.speed(goal)
	soon := quickest * max(0, at-p.now) / p.best
	left := 1 - (max(at-p.now, at-p.fitted)+p.noise+r.step())/(p.worst*slowing)
	if left < leftOver {
		return Forecast{Text: "It cannot be said: for the pace of the last weeks that is too far ahead to be sure."}
	}
	late := luckWeeks - slowing*math.Log(left)
	earliest, latest := after(today, soon), after(today, late)
	return Forecast{
		Known: true, Earliest: &earliest, Latest: &latest,
		Text: fmt.Sprintf("In %s, at the pace of the last %s.", weeksBetween(soon, late), several(p.weeks, "week")),
	}
}

// A pace is how the last weeks went, in the unit of their speeds.
type pace struct {
	weeks       int     // that it is of
	now         float64 // the last week's
	fitted      float64 // the same by the line through all
	noise       float64 // median distance from the line
	best, worst float64 // a week: of all weeks, and of the later half alone
}

// paceOf is that of weeks that surely go up; false of others.
func paceOf(weeks []Week) (pace, bool) {
	t, y := series(weeks)
	all, told := TheilSen(t, y)
	late, _ := TheilSen(t[len(t)/2-1:], y[len(y)/2-1:])
	if !told || !MannKendall(y).Rises(byChance) || all.Value <= 0 {
		return pace{}, false
	}
	starts := make([]float64, len(t))
	for i := range t {
		starts[i] = y[i] - all.Value*t[i]
	}
	start := stats.Median(starts)
	for i, s := range starts {
		starts[i] = math.Abs(s - start)
	}
	return pace{
		weeks: len(weeks),
		now:   y[len(y)-1], fitted: start + all.Value*t[len(t)-1], noise: stats.Median(starts),
		best: max(all.Value, late.Value), worst: min(all.Value, late.Value),
	}, true
}

// step is that of the ladder from one rung to the next, where it begins.
func (r Record) step() float64 {
	if len(r.Rungs) < 2 {
		return 0
	}
	return r.speed(r.Rungs[1]) - r.speed(r.Rungs[0])
}

func after(today time.Time, weeks float64) time.Time {
	return today.AddDate(0, 0, int(math.Round(7*weeks)))
}

func weeksBetween(low, high float64) string {
	from, to := int(math.Round(low)), int(math.Ceil(high))
	if from == 0 {
		return "up to " + several(to, "week")
	}
	return fmt.Sprintf("%d to %s", from, several(to, "week"))
}

// passed is the day on which a rung, or a faster one, was passed first; nil for none.
func (r Record) passed(goal tempo.Rung) *time.Time {
	for i := range r.Days {
		if by := r.Days[i].Passed; by != nil && by.NotesPerSecond() >= goal.NotesPerSecond()-1e-9 {
			return &r.Days[i].Date
		}
	}
	return nil
}
