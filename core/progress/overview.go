package progress

import (
	"slices"
	"time"

	"manudrill/core/drill/chart"
	"manudrill/core/evenness"
	"manudrill/core/tempo"
)

// A PlayedDrill is one of a student's drills with what was played of it, week by week.
type PlayedDrill struct {
	ID    string
	Name  string
	Rungs tempo.Rungs
	Gate  tempo.Gate
	State *State       // nil until something was played
	Weeks []PlayedWeek // in order, of those with takes
}

// A PlayedWeek is what was played of a drill in a week.
type PlayedWeek struct {
	Begins time.Time
	Days   []Day
	Sums   []evenness.Sum
}

// An Overview is how it went with a student over weeks.
type Overview struct {
	Weeks  []OverviewWeek  `json:"weeks"` // all, also those without takes
	Drills []OverviewDrill `json:"drills"`
	Groups []OverviewGroup `json:"groups"` // what notes have in common
	Said   []string        `json:"said"`   // in words, what matters first
}

// An OverviewWeek is a week over all drills.
type OverviewWeek struct {
	Begins         time.Time     `json:"begins"`
	Days           []OverviewDay `json:"days"` // with takes
	Attacks        []AttackTime  `json:"attacks"`
	NotesPerSecond *float64      `json:"notesPerSecond,omitempty"` // fastest passed in it
}

// An OverviewDay is a day over all drills.
type OverviewDay struct {
	Date        time.Time `json:"date"`
	Takes       int       `json:"takes"`
	Seconds     float64   `json:"seconds"`
	SlurSeconds float64   `json:"slurSeconds"`
}

// AttackTime is how long notes of an attack were played, by their share of all.
type AttackTime struct {
	Attack  chart.Attack `json:"attack"`
	Seconds float64      `json:"seconds"`
}

// An OverviewDrill is a drill week by week.
type OverviewDrill struct {
	ID     string      `json:"id"`
	Name   string      `json:"name"`
	Unit   string      `json:"unit"`
	Target float64     `json:"target"` // speed, in unit
	Gate   tempo.Gate  `json:"gate"`
	Points []WeekPoint `json:"points"`
	State  *State      `json:"state,omitempty"`
}

// A WeekPoint is a drill's week.
type WeekPoint struct {
	Begins        time.Time `json:"begins"`
	Speed         float64   `json:"speed"`            // on which the student stood at its end, in the drill's unit
	Passed        *float64  `json:"passed,omitempty"` // fastest passed in it, in the drill's unit
	SpreadPercent float64   `json:"spreadPercent"`
	Counting      int       `json:"counting"`
	Clean         int       `json:"clean"`
}

// An OverviewGroup is what notes that have something in common were like, then, now and
// week by week.
type OverviewGroup struct {
	evenness.SumOf
	Then  *GroupFigures `json:"then,omitempty"` // in the first weeks; none for too few notes
	Now   *GroupFigures `json:"now,omitempty"`
	Weeks []GroupWeek   `json:"weeks"`
	Late  bool          `json:"late"`           // now, surely and so that it is heard
	Text  string        `json:"text,omitempty"` // of the pair that comes latest
}

// GroupFigures are those of a group of notes.
type GroupFigures struct {
	LateMs        float64 `json:"lateMs"`
	PlusMinusMs   float64 `json:"plusMinusMs"`
	SpreadPercent float64 `json:"spreadPercent"`
	Count         int     `json:"count"`
}

// A GroupWeek are a group's figures in a week.
type GroupWeek struct {
	Begins time.Time `json:"begins"`
	GroupFigures
}

// OverviewOf looks over what a student, who has reported pain or not, has played in so
// many weeks up to today.
func OverviewOf(hurt bool, drills []PlayedDrill, today time.Time, weeks int) Overview {
	o := Overview{Drills: []OverviewDrill{}, Said: []string{}}
	first := Monday(today).AddDate(0, 0, -7*(weeks-1))
	totals := make([]Dated, weeks)
	for i := range weeks {
		begins := first.AddDate(0, 0, 7*i)
		week, sums := weekOver(drills, begins)
		o.Weeks = append(o.Weeks, week)
		totals[i] = Dated{begins, sums}
	}
	for _, d := range drills {
		o.Drills = append(o.Drills, d.overview())
	}
	o.Groups = groupsOver(totals)
	o.say(hurt, drills, today)
	return o
}

// weekOver adds a week of all drills up.
func weekOver(drills []PlayedDrill, begins time.Time) (OverviewWeek, []evenness.Sum) {
	w := OverviewWeek{Begins: begins, Days: []OverviewDay{}, Attacks: []AttackTime{}}
	var sums [][]evenness.Sum
	for _, d := range drills {
		for _, played := range d.Weeks {
			if !played.Begins.Equal(begins) {
				continue
			}
			seconds := 0.0
			for _, day := range played.Days {
				w.add(day)
				seconds += day.Seconds
			}
			w.addAttacks(played.Sums, seconds)
			sums = append(sums, played.Sums)
		}
	}
	slices.SortFunc(w.Days, func(a, b OverviewDay) int { return a.Date.Compare(b.Date) })
	return w, evenness.AddUp(sums...)
}

func (w *OverviewWeek) add(d Day) {
	if d.Passed != nil && (w.NotesPerSecond == nil || d.Passed.NotesPerSecond() > *w.NotesPerSecond) {
		speed := d.Passed.NotesPerSecond()
		w.NotesPerSecond = &speed
	}
	i := slices.IndexFunc(w.Days, func(o OverviewDay) bool { return o.Date.Equal(d.Date) })
	if i < 0 {
		i = len(w.Days)
		w.Days = append(w.Days, OverviewDay{Date: d.Date})
	}
	w.Days[i].Takes += d.Takes
	w.Days[i].Seconds += d.Seconds
	w.Days[i].SlurSeconds += d.SlurSeconds
}

// addAttacks parts the seconds of a week by the attacks of its notes.
func (w *OverviewWeek) addAttacks(sums []evenness.Sum, seconds float64) {
	notes := 0
	for _, s := range sums {
		if s.Kind == evenness.ByAttack {
			notes += s.Count
		}
	}
	for _, s := range sums {
		if s.Kind != evenness.ByAttack {
			continue
		}
		i := slices.IndexFunc(w.Attacks, func(a AttackTime) bool { return a.Attack == s.Attack })
		if i < 0 {
			i = len(w.Attacks)
			w.Attacks = append(w.Attacks, AttackTime{Attack: s.Attack})
		}
		w.Attacks[i].Seconds += seconds * float64(s.Count) / float64(notes)
	}
}

func (d PlayedDrill) overview() OverviewDrill {
	r := d.record()
	o := OverviewDrill{ID: d.ID, Name: d.Name, Unit: r.Unit(), Gate: d.Gate, Points: []WeekPoint{}, State: d.State}
	if len(d.Rungs) > 0 {
		o.Target = r.speed(d.Rungs[len(d.Rungs)-1])
	}
	for _, w := range d.Weeks {
		if p, counts := r.point(w); counts {
			o.Points = append(o.Points, p)
		}
	}
	return o
}

// point is a week of the record; false for one without a take that counts.
func (r Record) point(w PlayedWeek) (WeekPoint, bool) {
	p := WeekPoint{Begins: w.Begins}
	for _, d := range w.Days {
		if d.Counting == 0 {
			continue
		}
		p.Speed = r.speed(d.Stands)
		p.Counting += d.Counting
		p.Clean += d.Clean
		p.SpreadPercent += d.SpreadPercent * float64(d.Counting)
		if d.Passed != nil && (p.Passed == nil || r.speed(*d.Passed) > *p.Passed) {
			passed := r.speed(*d.Passed)
			p.Passed = &passed
		}
	}
	p.SpreadPercent /= float64(max(1, p.Counting))
	return p, p.Counting > 0
}

// groupsOver tells of each group how it was then, now and week by week.
func groupsOver(weeks []Dated) []OverviewGroup {
	played := slices.DeleteFunc(slices.Clone(weeks), func(w Dated) bool { return len(w.Sums) == 0 })
	then, now := thenAndNow(played)
	of := map[evenness.SumOf]*OverviewGroup{}
	groups := []OverviewGroup{}
	for _, s := range evenness.AddUp(then, now) {
		groups = append(groups, OverviewGroup{SumOf: s.SumOf, Late: isLate(now, s.SumOf), Then: figuresOf(then, s.SumOf), Now: figuresOf(now, s.SumOf), Weeks: []GroupWeek{}})
	}
	for i := range groups {
		of[groups[i].SumOf] = &groups[i]
	}
	for _, w := range played {
		for _, s := range w.Sums {
			if f := figures(s); f != nil && of[s.SumOf] != nil {
				of[s.SumOf].Weeks = append(of[s.SumOf].Weeks, GroupWeek{w.Date, *f})
			}
		}
	}
	if weakest, found := Weakest(played); found && of[weakest.SumOf] != nil {
		of[weakest.SumOf].Text = weakest.Text
	}
	return groups
}

// isLate reports whether a group comes late, surely and so that it is heard.
func isLate(sums []evenness.Sum, of evenness.SumOf) bool {
	i := slices.IndexFunc(sums, func(s evenness.Sum) bool { return s.SumOf == of })
	return i >= 0 && sums[i].Count >= pairNotes && sums[i].Late().Exceeds(lateHeard)
}

func figuresOf(sums []evenness.Sum, of evenness.SumOf) *GroupFigures {
	i := slices.IndexFunc(sums, func(s evenness.Sum) bool { return s.SumOf == of })
	if i < 0 {
		return nil
	}
	return figures(sums[i])
}

// figures are those of a sum of enough notes; nil for fewer.
func figures(s evenness.Sum) *GroupFigures {
	if s.Count < pairNotes {
		return nil
	}
	late := s.Late()
	return &GroupFigures{late.Value, late.PlusMinus, s.SpreadPercent(), s.Count}
}

// say puts in words what matters first: what each drill does, the most pressing first.
func (o *Overview) say(hurt bool, drills []PlayedDrill, today time.Time) {
	looked := make([]Drill, len(drills))
	for i, d := range drills {
		looked[i] = Drill{d.Name, d.State}
	}
	said := map[int]bool{}
	for _, n := range NeedsOf(hurt, looked, today) {
		text := n.Text
		if n.Drill >= 0 {
			text = drills[n.Drill].Name + ": " + text
		}
		o.Said = append(o.Said, text)
		said[n.Drill] = n.Why != InPain
	}
	for i, d := range looked {
		if !said[i] && !said[-1] && d.State != nil {
			o.Said = append(o.Said, d.Name+": "+d.State.Finding.Text)
		}
	}
}
