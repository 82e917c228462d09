package plan

import (
	"fmt"
	"slices"
	"time"
)

// Due is what a plan asks for and by when, in short: what a look over many students tells.
type Due struct {
	Days  []time.Time `json:"days"` // on which something is to be practised
	Goals []Said      `json:"goals"`
}

// Due is that of a plan.
func (p Plan) Due() Due {
	d := Due{Days: []time.Time{}, Goals: p.Goals}
	if p.Hurt {
		return d // nothing is asked for
	}
	for _, w := range p.Weeks {
		for _, day := range w.Days {
			if slices.ContainsFunc(day.Lines, func(l Line) bool { return l.Kind != Resting }) {
				d.Days = append(d.Days, day.Date)
			}
		}
	}
	return d
}

// Without leaves goals out that were met since.
func (d Due) Without(met func(Said) bool) Due {
	d.Goals = slices.DeleteFunc(slices.Clone(d.Goals), met)
	return d
}

// goalSoon is how long before its day a goal is told: two lessons.
const goalSoon = 14 * 24 * time.Hour

// On puts in words what is due on a day: how many of the days of practice that were asked
// for in the week before it were played on, and goals that are near or over.
func (d Due) On(today time.Time, played []time.Time) []string {
	said := []string{}
	asked, kept := 0, 0
	for _, day := range d.Days {
		if day.Before(today) && today.Sub(day) <= 7*24*time.Hour {
			asked++
			if slices.ContainsFunc(played, day.Equal) {
				kept++
			}
		}
	}
	if asked > 0 {
		said = append(said, fmt.Sprintf("Played on %d of the %s planned in the last week.", kept, several(asked, "day")))
	}
	for _, g := range d.Goals {
		if g.Likely == IsMet || g.By.Sub(today) > goalSoon {
			continue
		}
		when := "due on " + g.By.Format("2 January")
		if g.By.Before(today) {
			when = "was due on " + g.By.Format("2 January")
		}
		said = append(said, fmt.Sprintf("%s at %g bpm %s.", g.Name, g.Rung.BPM, when))
	}
	return said
}
