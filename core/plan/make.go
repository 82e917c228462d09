package plan

import (
	"cmp"
	"fmt"
	"slices"
	"time"

	"manudrill/core/progress"
)

// Make lays out the weeks of a plan by its rules. The settings must be checked.
func Make(s Settings, f Facts) Plan {
	m := maker{Settings: s, facts: f, monday: progress.Monday(s.Begins), chosen: map[string]Exercise{}}
	for _, e := range f.Exercises {
		if slices.Contains(s.Drills, e.Drill) {
			m.chosen[e.Drill] = e
		}
	}
	m.inBlocks = m.canBlock()
	p := Plan{Weeks: []Week{}, Lower: m.lower(), Said: m.say(), Goals: []Said{}, Hurt: f.Hurt}
	for i := range s.Weeks {
		p.Weeks = append(p.Weeks, m.week(i))
	}
	p.Said = append(p.Said, m.remarks...)
	for _, g := range s.Goals {
		p.Goals = append(p.Goals, m.saidOf(g, p))
	}
	return p
}

// A maker makes a plan.
type maker struct {
	Settings
	facts    Facts
	monday   time.Time
	chosen   map[string]Exercise // by drill
	inBlocks bool
	session  int      // of the plan, of those that were played or are to come
	remarks  []string // that came up on the way
}

// remark adds something to say, once.
func (m *maker) remark(text string) {
	if !slices.Contains(m.remarks, text) {
		m.remarks = append(m.remarks, text)
	}
}

// say is what there is to say before anything is laid out.
func (m *maker) say() []string {
	said := []string{}
	if _, on := m.rule(Pain); on && m.facts.Hurt {
		said = append(said, "Pain is reported: nothing is planned until you let the ladders climb again.")
	}
	if len(m.chosen) == 0 {
		said = append(said, "Choose what is practised: there is no drill in the plan yet.")
	}
	if _, on := m.rule(Blocks); on && !m.inBlocks && m.slurs() {
		said = append(said, "Hammer-ons and pull-offs mix from the start: blocks take a drill of each alone.")
	}
	return said
}

func (m *maker) slurs() bool {
	for _, e := range m.chosen {
		if e.SlurShare > 0 {
			return true
		}
	}
	return false
}

// lower are the ladders that restart lower after a gap.
func (m *maker) lower() []Lower {
	all := []Lower{}
	rungs, on := m.rule(Gap)
	last := m.facts.LastPlayed
	if !on || last == nil || m.facts.Today.Sub(*last) < gap {
		return all
	}
	for _, id := range m.Drills {
		e, is := m.chosen[id]
		if is && e.State != nil && e.Mastered == nil {
			weeks := int(m.facts.Today.Sub(*last).Hours() / (7 * 24))
			all = append(all, Lower{id, e.Name, int(rungs), fmt.Sprintf("After %d weeks away: %s lower to begin with.", weeks, several(int(rungs), "rung"))})
		}
	}
	return all
}

// gap is how long without a take what was reached is no more sure: three weeks.
const gap = 3 * 7 * 24 * time.Hour

func (m *maker) week(i int) Week {
	w := Week{Begins: m.monday.AddDate(0, 0, 7*i), Positions: m.positions(i), Theme: m.theme(i), Days: []Day{}}
	load := m.load(i)
	queue := m.queue(i)
	for day := 1; day <= 7; day++ {
		date := w.Begins.AddDate(0, 0, day-1)
		w.Days = append(w.Days, m.day(date, w, queue, load))
	}
	return w
}

// positions are those of a week: from where the frets are close down towards the nut,
// and up again from there.
func (m *maker) positions(week int) []int {
	each, on := m.rule(Positions)
	if !on {
		return []int{}
	}
	highest := 9.0
	if value, on := m.rule(Highest); on {
		highest = value
	}
	all := []int{}
	for k := range int(each) {
		all = append(all, bounce(int(highest), week+k))
	}
	return all
}

// step is how many frets lie between a position and the next.
const step = 2

// bounce goes down from the highest position in steps and up again.
func bounce(highest, k int) int {
	down := (highest - 1) / step // steps to the lowest
	if down == 0 {
		return highest
	}
	k %= 2 * down
	if k > down {
		k = 2*down - k
	}
	return highest - step*k
}

// canBlock reports whether there are drills of hammer-ons and of pull-offs alone, so that
// they can have weeks of their own.
func (m *maker) canBlock() bool {
	alone := map[Technique]bool{}
	for _, e := range m.chosen {
		alone[e.Technique] = true
	}
	return alone[Hammering] && alone[Pulling]
}

// block is the technique of a week; "" for all.
func (m *maker) block(week int) Technique {
	each, on := m.rule(Blocks)
	switch {
	case !on || !m.inBlocks || week >= 2*int(each):
		return ""
	case week < int(each):
		return Hammering
	}
	return Pulling
}

func (m *maker) theme(week int) string {
	switch b := m.block(week); {
	case b != "":
		return fmt.Sprintf("%s alone", upperFirst(string(b)))
	case m.inBlocks:
		return "Hammer-ons and pull-offs mixed"
	}
	return ""
}

func upperFirst(s string) string { return string(s[0]-'a'+'A') + s[1:] }

// A candidate is what may be practised in a week, and why.
type candidate struct {
	Exercise
	rule    RuleID
	reason  string
	returns bool // mastered: one minute of it, once in the week
}

// queue is what is practised in a week, in order.
func (m *maker) queue(week int) []candidate {
	var all []candidate
	for _, c := range m.candidates(week) {
		if m.fitsBlock(c, week) {
			all = append(all, c)
		}
	}
	slices.SortStableFunc(all, func(a, b candidate) int {
		return cmp.Or(cmp.Compare(m.goalRank(a), m.goalRank(b)), cmp.Compare(a.Rank, b.Rank))
	})
	return all
}

func (m *maker) fitsBlock(c candidate, week int) bool {
	b := m.block(week)
	slurs := c.Technique == Hammering || c.Technique == Pulling || c.Technique == Slurring
	return b == "" || !slurs || c.Technique == b || c.returns
}

// goalRank orders what is a goal by its day, and before what is none.
func (m *maker) goalRank(c candidate) int64 {
	for _, g := range m.Goals {
		if g.Drill == c.Drill {
			return g.By.Unix()
		}
	}
	return latest.Unix()
}

func (m *maker) candidates(week int) []candidate {
	var all []candidate
	fresh := m.fresh()
	for _, id := range m.Drills {
		e, is := m.chosen[id]
		if !is {
			continue
		}
		if c, is := m.candidate(e, week, slices.Index(fresh, id)); is {
			all = append(all, c)
		}
	}
	return all
}

// fresh are the drills that were never played, in graded order.
func (m *maker) fresh() []string {
	var unplayed []Exercise
	for _, id := range m.Drills {
		if e, is := m.chosen[id]; is && e.State == nil {
			unplayed = append(unplayed, e)
		}
	}
	slices.SortStableFunc(unplayed, func(a, b Exercise) int { return cmp.Compare(a.Rank, b.Rank) })
	ids := make([]string, len(unplayed))
	for i, e := range unplayed {
		ids[i] = e.Drill
	}
	return ids
}

// candidate is a drill in a week, given its place among those never played, −1 for one
// that was.
func (m *maker) candidate(e Exercise, week, place int) (candidate, bool) {
	if e.Mastered != nil {
		return m.returning(e, week)
	}
	if aWeek, on := m.rule(Graded); on && place >= 0 {
		if begins := place / int(aWeek); week < begins {
			return candidate{}, false
		}
		return candidate{Exercise: e, rule: Graded, reason: fmt.Sprintf("New: %s, in graded order.", m.works(e))}, true
	}
	if r, is := m.instead(e, week); is {
		return r, true
	}
	if slices.ContainsFunc(m.Goals, func(g Goal) bool { return g.Drill == e.Drill }) {
		return candidate{Exercise: e, rule: ByGoal, reason: "A goal."}, true
	}
	return candidate{Exercise: e, rule: Minutes, reason: "Goes on."}, true
}

func (m *maker) works(e Exercise) string {
	if len(e.Pairs) == 0 {
		return "no pair of fingers"
	}
	text := ""
	for i, p := range e.Pairs {
		if i > 0 {
			text += ", "
		}
		text += p[:1] + "-" + p[1:]
	}
	return text
}

// insteadFor is how many weeks a relative stands in for what is stale.
const insteadFor = 2

// instead is the relative of a drill that is stale.
func (m *maker) instead(e Exercise, week int) (candidate, bool) {
	after, on := m.rule(Stale)
	stuck := e.stuckFor(m.facts.Today)
	if !on || stuck < after || m.weeksFromNow(week) >= insteadFor {
		return candidate{}, false
	}
	r, is := relative(e, m.facts.Exercises, func(r Exercise) bool { _, in := m.chosen[r.Drill]; return in })
	if !is {
		m.remark(fmt.Sprintf("%s has gained nothing for %s, and no other drill of the studio works its pair: make one.", e.Name, several(int(stuck), "week")))
		return candidate{}, false
	}
	return candidate{Exercise: r, rule: Stale, reason: fmt.Sprintf("%s has gained nothing for %s: this works the same pair.", e.Name, several(int(stuck), "week"))}, true
}

// weeksFromNow is how many weeks a week of the plan lies after the present one.
func (m *maker) weeksFromNow(week int) int {
	now := int(progress.Monday(m.facts.Today).Sub(m.monday).Hours() / (7 * 24))
	return week - max(0, now)
}

// returning is a drill that was mastered, in the weeks in which it comes back: after so
// many weeks, then after twice as many each time.
func (m *maker) returning(e Exercise, week int) (candidate, bool) {
	first, on := m.rule(Returns)
	if !on {
		return candidate{}, false
	}
	begins := m.monday.AddDate(0, 0, 7*week)
	since := int(begins.Sub(progress.Monday(*e.Mastered)).Hours() / (7 * 24))
	for due, after := int(first), int(first); due <= since; {
		if due == since {
			return candidate{Exercise: e, rule: Returns, returns: true, reason: fmt.Sprintf("Mastered %s ago: once, so that it is not lost.", several(since, "week"))}, true
		}
		after *= 2
		due += after
	}
	return candidate{}, false
}

func several(n int, of string) string {
	if n == 1 {
		return "1 " + of
	}
	return fmt.Sprintf("%d %ss", n, of)
}
