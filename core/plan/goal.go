package plan

import (
	"fmt"
	"math"
	"time"
)

// saidOf says whether a goal can be met, by the record and the plan's minutes.
func (m *maker) saidOf(g Goal, p Plan) Said {
	e := m.chosen[g.Drill]
	s := Said{Drill: g.Drill, Name: e.Name, Rung: g.Rung, By: g.By, Likely: NotKnown}
	if _, is := m.chosen[g.Drill]; !is {
		s.Text = "The drill of this goal is not in the plan: put it in."
		return s
	}
	f := Forecast{Why: "It cannot be said yet: nothing has been played."}
	if m.facts.Forecast != nil {
		f = m.facts.Forecast(g)
	}
	switch {
	case f.Met:
		s.Likely, s.Text = IsMet, "Met already."
	case !f.Known:
		s.Text = f.Why
	default:
		s.Likely = likely(f, g.By)
		s.Text = m.needs(f) + " " + map[Likely]string{
			InTime: "By then it is met.", May: "By then it may be met, or may not.", TooLate: "By then it is too early: take a later day or a lower tempo.",
		}[s.Likely] + pacing(f, p.minutesAWeek(g.Drill))
	}
	return s
}

func likely(f Forecast, by time.Time) Likely {
	switch {
	case !f.Latest.After(by):
		return InTime
	case f.Earliest.After(by):
		return TooLate
	}
	return May
}

// needs says how long a goal needs.
func (m *maker) needs(f Forecast) string {
	weeks := func(t time.Time) float64 { return t.Sub(m.facts.Today).Hours() / (7 * 24) }
	low, high := math.Round(weeks(f.Earliest)), math.Ceil(weeks(f.Latest))
	return fmt.Sprintf("At %d minutes a day this needs about %s (%.0f to %.0f).", m.MinutesADay, several(int(math.Round((low+high)/2)), "week"), low, high)
}

// pacing says where the plan has much less of a drill than the forecast rests on.
func pacing(f Forecast, planned float64) string {
	if f.MinutesAWeek > 0 && planned < muchLess*f.MinutesAWeek {
		return fmt.Sprintf(" That was with %.0f minutes of it a week; the plan has %.0f.", f.MinutesAWeek, planned)
	}
	return ""
}

// muchLess is the share of the minutes played so far below which a forecast that rests on
// them is told to.
const muchLess = 0.7

// minutesAWeek is how much the plan has of a drill in a week, on average.
func (p Plan) minutesAWeek(drill string) float64 {
	seconds := 0
	for _, w := range p.Weeks {
		for _, d := range w.Days {
			for _, l := range d.Lines {
				if l.Drill == drill && l.Kind == Playing {
					seconds += l.Seconds
				}
			}
		}
	}
	return float64(seconds) / 60 / float64(max(1, len(p.Weeks)))
}
