package progress

import "time"

// An Outlook is why a drill wants to be looked at as long as nothing more is played of it,
// kept beside it so that many students are put in order without reading their states.
type Outlook struct {
	Why   Why       // empty for nothing
	From  time.Time // the day from which it is Then in its place; zero for never
	Then  Why
	Last  time.Time // the last day on which it was played
	Gate  float64   // timing spread, % of what the gate allows; 0 where that is not known
	Late  float64   // how late the weakest pair comes, ms; 0 for none
	Dates []time.Time
}

// Outlook is that of a state.
func (s State) Outlook() Outlook {
	d := Drill{State: &s}
	o := Outlook{Gate: ofGate(s), Late: lateMs(s), Dates: s.Days}
	f := s.Finding
	if f.Last != nil {
		o.Last = *f.Last
	}
	switch {
	case f.Kind == Reached && f.Since != nil:
		o.From = f.Since.Add(readyAfter)
	case f.Kind != Reached && f.Last != nil:
		o.From = f.Last.Add(awayAfter)
	}
	now, _ := d.need(o.From.Add(-24 * time.Hour))
	then, _ := d.need(o.From)
	o.Why, o.Then = now.Why, then.Why
	return o
}

// AwayDays is after how many days without any take somebody counts as away.
const AwayDays = int(awayAfter / (24 * time.Hour))

// PressingWhys are all reasons to look at a student, the most pressing first.
func PressingWhys() []string {
	all := make([]string, len(pressing))
	for i, w := range pressing {
		all[i] = string(w)
	}
	return all
}
