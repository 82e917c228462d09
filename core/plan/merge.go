package plan

import (
	"slices"
	"time"

	"manudrill/core/drill"
	"manudrill/core/practice"
)

// Again is a plan that was made anew, with what is to be kept of the one before: days
// before today, and days that somebody has changed by hand.
func Again(made, before Plan, today time.Time) Plan {
	kept := map[time.Time]Day{}
	for _, w := range before.Weeks {
		for _, d := range w.Days {
			if d.ByHand || d.Date.Before(today) {
				kept[d.Date] = d
			}
		}
	}
	for i, w := range made.Weeks {
		for j, d := range w.Days {
			if was, is := kept[d.Date]; is {
				made.Weeks[i].Days[j] = was
			}
		}
	}
	return made
}

// Day returns that of a date; false for none.
func (p Plan) Day(date time.Time) (Day, bool) {
	for _, w := range p.Weeks {
		if i := slices.IndexFunc(w.Days, func(d Day) bool { return d.Date.Equal(date) }); i >= 0 {
			return w.Days[i], true
		}
	}
	return Day{}, false
}

// Drills are the ids of all that are played, each once.
func (p Plan) Drills() []string {
	var ids []string
	for _, w := range p.Weeks {
		for _, d := range w.Days {
			for _, l := range d.Lines {
				if l.Drill != "" && !slices.Contains(ids, l.Drill) {
					ids = append(ids, l.Drill)
				}
			}
		}
	}
	return ids
}

// Routine is a day as the stand runs it.
func (d Day) Routine(name string) practice.Routine {
	r := practice.Routine{Name: name, Items: []practice.Item{}}
	if d.Clean {
		r.Note = "Clean tone today: nothing hides."
	}
	for _, l := range d.Lines {
		if l.Kind == Resting {
			r.Items = append(r.Items, practice.Item{Kind: practice.Rest, Seconds: l.Seconds, Text: l.Reason})
			continue
		}
		text := l.Reason
		if l.Kind == Warming {
			text = "Warm-up. " + text
		}
		r.Items = append(r.Items, practice.Item{
			Kind: practice.Play, Drill: l.Drill, Position: l.Position, Enough: &practice.Enough{By: practice.BySeconds, Count: l.Seconds}, Text: text,
		})
	}
	return r
}

// MaxLines is the most lines a day has, as a routine has items.
const MaxLines = practice.MaxItems

// CheckDays returns what is wrong with days that come by hand.
func (p Plan) CheckDays() drill.Faults {
	var faults drill.Faults
	if len(p.Weeks) > MaxWeeks {
		faults.Add("weeks", "A plan has at most %d weeks.", MaxWeeks)
		return faults
	}
	for _, w := range p.Weeks {
		if len(w.Days) > 7 {
			faults.Add("weeks", "A week has seven days.")
			return faults
		}
		for _, d := range w.Days {
			d.check(&faults)
		}
	}
	return faults
}

func (d Day) check(faults *drill.Faults) {
	name := d.Date.Format("2 January")
	if len(d.Lines) > MaxLines {
		faults.Add("weeks", "The %s has %d lines; %d are the most.", name, len(d.Lines), MaxLines)
	}
	for _, l := range d.Lines {
		switch {
		case l.Kind != Warming && l.Kind != Playing && l.Kind != Resting:
			faults.Add("weeks", "On the %s a line is a %q; choose warmUp, drill or rest.", name, l.Kind)
		case l.Kind != Resting && l.Drill == "":
			faults.Add("weeks", "On the %s a line has no drill.", name)
		case l.Seconds < minSeconds || l.Seconds > maxSeconds:
			faults.Add("weeks", "On the %s a line lasts %d seconds; set %d to %d.", name, l.Seconds, minSeconds, maxSeconds)
		case l.Position < 0 || l.Position > 24:
			faults.Add("weeks", "On the %s a drill is in position %d, which no neck has.", name, l.Position)
		}
	}
}

const minSeconds, maxSeconds = 5, 3600
