package plan

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"time"
)

// A load is how much may be slurred in a week: as much on each of its days.
type load struct {
	most  float64 // seconds
	used  float64
	days  int // of practice in the week
	begun int // of these
}

// leastSlurring is what a week may have of slurring in any case, seconds: four minutes on
// five days hurt no hand that is well (common practice).
const leastSlurring = 1200

// load is that of a week: what the fullest of the last weeks had, growing by so much a
// week. A plan by a student who has not slurred yet begins with the least.
func (m *maker) load(week int) *load {
	l := &load{days: 1, most: math.Inf(1)}
	percent, on := m.rule(Growth)
	if !on {
		return l
	}
	l.days = 0
	for day := 1; day <= 7; day++ {
		if m.practises(day) && !m.monday.AddDate(0, 0, 7*week+day-1).Before(m.Begins) {
			l.days++
		}
	}
	base := max(leastSlurring, m.facts.SlurSeconds)
	l.most = base * math.Pow(1+percent/100, float64(1+max(0, m.weeksFromNow(week))))
	return l
}

// takes reports whether there is room for a line up to the day that was begun last, and
// takes it in.
func (l *load) takes(seconds, share float64) bool {
	if l.used+seconds*share > l.most*float64(l.begun)/float64(max(1, l.days))+1e-9 {
		return false
	}
	l.used += seconds * share
	return true
}

// day lays out a day.
func (m *maker) day(date time.Time, w Week, queue []candidate, l *load) Day {
	d := Day{Date: date, Lines: []Line{}}
	_, painful := m.rule(Pain)
	switch {
	case date.Before(m.Begins):
		return d
	case !m.practises(dayOfWeek(date)):
		d.Reason = "A day of rest."
		return d
	case m.facts.Hurt && painful && !date.Before(m.facts.Today):
		d.Reason = "Pain is reported: rest."
		return d
	}
	if day, on := m.rule(CleanTone); on && int(day) == dayOfWeek(date) {
		d.Clean = true
	}
	l.begun++
	budget := 60 * m.MinutesADay
	if warm, is := m.warmUp(queue, budget, w); is && l.takes(float64(warm.Seconds), m.shareOf(warm.Drill)) {
		d.Lines = append(d.Lines, warm)
		budget -= warm.Seconds
	}
	m.fill(&d, budget, w, queue, l)
	if len(d.Lines) > 0 && m.counts(date) {
		m.session++
	}
	return d
}

// counts reports whether a day moves on what comes next: a day that is to come does, and
// one that is past where it was played, or where what was skipped is dropped.
func (m *maker) counts(date time.Time) bool {
	if _, carries := m.rule(CarryOn); !carries || !date.Before(m.facts.Today) {
		return true
	}
	return slices.ContainsFunc(m.facts.Played, date.Equal)
}

func (m *maker) shareOf(drill string) float64 {
	for _, e := range m.facts.Exercises {
		if e.Drill == drill {
			return e.SlurShare
		}
	}
	return 0
}

// unplayed is 1 for what is new: nobody warms up on that.
func unplayed(c candidate) int {
	if c.State == nil {
		return 1
	}
	return 0
}

// warmUp is the easiest of the week's drills, slow and high on the neck; a third of the
// day at the most.
func (m *maker) warmUp(queue []candidate, budget int, w Week) (Line, bool) {
	minutes, on := m.rule(WarmUp)
	if !on || len(queue) == 0 {
		return Line{}, false
	}
	easiest := slices.MinFunc(queue, func(a, b candidate) int {
		return cmp.Or(cmp.Compare(unplayed(a), unplayed(b)), cmp.Compare(a.Rank, b.Rank))
	})
	highest := easiest.Position
	if len(w.Positions) > 0 {
		top, _ := m.rule(Highest)
		highest = easiest.at(int(top))
	}
	return Line{
		Kind: Warming, Drill: easiest.Drill, Name: easiest.Name, Position: highest, Seconds: min(int(60*minutes), budget/3), Rule: WarmUp,
		Reason: "Slow, and no louder than it wants to be.",
	}, true
}

// returnSeconds is how long a drill that was mastered is played once in a week.
const returnSeconds = 60

// fill fills a day with drills and rests between them, beginning where the day before
// has left.
func (m *maker) fill(d *Day, budget int, w Week, queue []candidate, l *load) {
	minutes, _ := m.rule(Minutes)
	rest := 0
	if seconds, on := m.rule(Rests); on {
		rest = int(seconds)
	}
	each := int(60 * minutes)
	regular := slices.DeleteFunc(slices.Clone(queue), func(c candidate) bool { return c.returns })
	wanted := slices.DeleteFunc(slices.Clone(queue), func(c candidate) bool { return !c.returns || !m.firstOfWeek(d.Date) })
	perDay := max(1, (budget+rest)/(each+rest))
	for k := range len(regular) {
		wanted = append(wanted, regular[(m.session*min(perDay, len(regular))+k)%len(regular)])
	}
	limited := false
	for k, c := range wanted {
		seconds := each
		if c.returns {
			seconds = returnSeconds
		}
		pause := 0
		if len(d.Lines) > 0 {
			pause = rest
		}
		if pause+seconds > budget {
			break
		}
		if !l.takes(float64(seconds), c.SlurShare) {
			m.remark(fmt.Sprintf("Some days are shorter than %d minutes, so that slurring grows no faster than the rule allows.", m.MinutesADay))
			limited = true
			continue
		}
		if pause > 0 {
			d.Lines = append(d.Lines, Line{Kind: Resting, Seconds: pause, Rule: Rests, Reason: "Let both arms hang."})
		}
		d.Lines = append(d.Lines, m.line(c, seconds, w, k))
		budget -= pause + seconds
	}
	if !limited && budget >= 2*(each+rest) && len(regular) > 0 && len(regular) == len(m.Drills) {
		m.remark(fmt.Sprintf("There is time for more: of %d minutes a day %d are left. Put another drill in, or play each longer.", m.MinutesADay, budget/60))
	}
}

// firstOfWeek reports whether a date is the first day of practice of its week.
func (m *maker) firstOfWeek(date time.Time) bool {
	for day := 1; day < dayOfWeek(date); day++ {
		if m.practises(day) && !date.AddDate(0, 0, day-dayOfWeek(date)).Before(m.Begins) {
			return false
		}
	}
	return true
}

// line is a drill for so long, in one of the week's positions.
func (m *maker) line(c candidate, seconds int, w Week, k int) Line {
	n := Line{Kind: Playing, Drill: c.Drill, Name: c.Name, Position: c.Position, Seconds: seconds, Rule: c.rule, Reason: c.reason}
	if len(w.Positions) > 0 {
		wanted := w.Positions[(m.session+k)%len(w.Positions)]
		if n.Position = c.at(wanted); n.Position > wanted {
			n.Reason += fmt.Sprintf(" Position %d is the lowest for this hand.", n.Position)
		}
	}
	return n
}
