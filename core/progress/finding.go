package progress

import (
	"fmt"
	"math"
	"strconv"
	"time"
)

// A Kind says how it goes with a drill.
type Kind string

// How it goes.
const (
	Untouched Kind = "untouched" // nothing was played yet
	Away      Kind = "away"      // nothing lately
	Reached   Kind = "reached"   // the target is passed
	Few       Kind = "few"       // too few takes to tell
	Back      Kind = "back"      // after a pause
	Rising    Kind = "rising"
	Slipping  Kind = "slipping"
	Stuck     Kind = "stuck"
	Unclear   Kind = "unclear" // neither surely up nor stuck
)

// A Finding is what a record says, in one sentence, with what it rests on.
type Finding struct {
	Kind    Kind       `json:"kind"`
	Text    string     `json:"text"`
	Since   *time.Time `json:"since,omitempty"`   // day from which it holds
	Last    *time.Time `json:"last,omitempty"`    // day played last
	PerWeek *Slope     `json:"perWeek,omitempty"` // of what rises or slips, in unit
	Unit    string     `json:"unit"`
	Takes   int        `json:"takes"` // that count, on which it rests
}

// What a finding rests on. The numbers are chosen so that one bad evening changes
// nothing, and are common practice where they are a teacher's: three weeks without a
// step is when another exercise is looked for.
const (
	awayAfter   = 3 * week // without a take
	pauseOf     = 3 * week // between two days: what was before says little of after
	backFor     = 3 * week // so long somebody is told to be back
	stuckAfter  = 3 * week // with the same rung
	stuckWeeks  = 3        // of these, with takes that count
	lookBack    = 8        // weeks of a trend
	fewestWeeks = 4        // with takes that count, for a trend: the fewest that can go one way beyond chance
	fewestTakes = 6        // that count, to say anything
	byChance    = 0.10     // chance of a trend where there is none
)

// Finding tells how it went until the last day of the record. [Finding.On] tells it of a
// day after that.
func (r Record) Finding() Finding {
	f := r.find()
	f.Unit = r.Unit()
	if len(r.Days) > 0 {
		last := r.last()
		f.Last = &last
	}
	return f
}

// On is the finding on a day on which nothing more has been played: somebody who stays
// away long enough is neither steady nor stuck.
func (f Finding) On(today time.Time) Finding {
	if f.Last == nil || f.Kind == Reached {
		return f
	}
	if away := today.Sub(*f.Last); away >= awayAfter {
		return Finding{Kind: Away, Since: f.Last, Last: f.Last, Unit: f.Unit, Text: fmt.Sprintf("Not played for %s.", span(away))}
	}
	return f
}

// last is the last day of a record that has one.
func (r Record) last() time.Time { return r.Days[len(r.Days)-1].Date }

func (r Record) find() Finding {
	if len(r.Days) == 0 {
		return Finding{Kind: Untouched, Text: "Nothing has been played yet."}
	}
	if reached := r.reached(); reached != nil {
		return Finding{Kind: Reached, Since: reached, Text: "Target reached."}
	}
	since, pause := r.sincePause()
	if pause > 0 && r.last().Sub(since.Days[0].Date) < backFor {
		return r.back(since, pause)
	}
	return since.trend()
}

// reached is the day on which the target was passed first; nil where it was not.
func (r Record) reached() *time.Time {
	if len(r.Rungs) == 0 {
		return nil
	}
	return r.passed(r.Rungs[len(r.Rungs)-1])
}

// sincePause is the record since its last pause, and how long that was; all of it
// where there was none.
func (r Record) sincePause() (Record, time.Duration) {
	for i := len(r.Days) - 1; i > 0; i-- {
		if pause := r.Days[i].Date.Sub(r.Days[i-1].Date); pause >= pauseOf {
			return Record{r.Rungs, r.Days[i:]}, pause
		}
	}
	return r, 0
}

// back tells of somebody who plays again after a pause.
func (r Record) back(since Record, pause time.Duration) Finding {
	before := r.Days[len(r.Days)-len(since.Days)-1]
	first := since.Days[0].Date
	now := r.speed(since.Days[len(since.Days)-1].Stands)
	text := fmt.Sprintf("Back after %s away: at %s, before it at %s.", span(pause), r.say(now), r.say(r.speed(before.Stands)))
	return Finding{Kind: Back, Since: &first, Text: text, Takes: counting(since.Days)}
}

// trend tells of the last weeks whether they go up, down or nowhere.
func (r Record) trend() Finding {
	weeks := r.Weeks()
	weeks = weeks[max(0, len(weeks)-lookBack):]
	takes := 0
	for _, w := range weeks {
		takes += w.Counting
	}
	if takes == 0 {
		return Finding{Kind: Few, Text: "Too early to tell: no take that counts."}
	}
	if len(weeks) < fewestWeeks || takes < fewestTakes {
		return Finding{Kind: Few, Takes: takes, Text: fmt.Sprintf("Too early to tell: %s in %s.", counted(takes), several(len(weeks), "week"))}
	}
	if since := r.bestSince(weeks[0].Begins); r.last().Sub(since) >= stuckAfter {
		return r.sinceBest(since)
	}
	return r.direction(weeks)
}

// direction tells whether weeks go up, down or neither.
func (r Record) direction(weeks []Week) Finding {
	if len(weeks) == 0 {
		return Finding{Kind: Unclear}
	}
	t, y := series(weeks)
	slope, told := TheilSen(t, y)
	monotone := MannKendall(y)
	f := Finding{PerWeek: &slope, Since: &weeks[0].Begins}
	passed := false // who is set up by hand alone does not rise
	for _, w := range weeks {
		f.Takes += w.Counting
		passed = passed || w.Passed
	}
	switch {
	case told && passed && monotone.Rises(byChance) && slope.Value > 0:
		f.Kind, f.Text = Rising, fmt.Sprintf("Steady: %s a week over %s.", r.say(slope.Value), several(len(weeks), "week"))
	case told && monotone.Falls(byChance) && slope.Value < 0:
		f.Kind, f.Text = Slipping, fmt.Sprintf("Slipping: from %s to %s in %s.", r.say(y[0]), r.say(y[len(y)-1]), several(len(weeks), "week"))
	default:
		f.Kind, f.PerWeek = Unclear, nil
		f.Text = fmt.Sprintf("Neither surely up nor stuck: between %s in %s.", r.between(y), several(len(weeks), "week"))
	}
	return f
}

// bestSince is the first day from a date on on which the fastest rung since then was
// stood on.
func (r Record) bestSince(from time.Time) time.Time {
	best, since := 0.0, from
	for _, d := range r.Days {
		if !d.Date.Before(from) && d.Counting > 0 && d.Stands.NotesPerSecond() > best+1e-9 {
			best, since = d.Stands.NotesPerSecond(), d.Date
		}
	}
	return since
}

// sinceBest tells of the time since the fastest rung was stood on first: it goes up again
// from lower down, goes down, or stays where it is with takes enough to win a rung.
func (r Record) sinceBest(since time.Time) Finding {
	last := len(r.Days) - 1
	best := r.speedOn(since)
	for r.speed(r.Days[last].Stands) < best {
		last--
	}
	below, from := Record{r.Rungs, r.Days[last+1:]}.Weeks(), Record{r.Rungs, r.Days[last:]}.Weeks()
	if f := r.direction(below); len(below) >= fewestWeeks && f.Kind == Rising {
		return f
	}
	if f := r.direction(from); len(from) >= fewestWeeks && f.Kind == Slipping {
		return f
	}
	return r.stay(since)
}

// speedOn is that of the rung stood on at the end of a day of the record.
func (r Record) speedOn(date time.Time) float64 {
	until := r.until(date).Days
	return r.speed(until[len(until)-1].Stands)
}

// stay tells of a rung that is not left since a day.
func (r Record) stay(since time.Time) Finding {
	after := Record{Rungs: r.Rungs}
	for _, d := range r.Days {
		if d.Date.After(since) {
			after.Days = append(after.Days, d)
		}
	}
	weeks := after.Weeks()
	takes := counting(after.Days)
	now := r.speedOn(r.last())
	if takes < fewestTakes || len(weeks) < stuckWeeks {
		return Finding{
			Kind: Unclear, Since: &since, Takes: takes,
			Text: fmt.Sprintf("At %s for %s, over %s only.", r.say(now), span(r.last().Sub(since)), several(takes, "take")),
		}
	}
	return Finding{
		Kind: Stuck, Since: &since, Takes: takes,
		Text: fmt.Sprintf("Stuck at %s for %s, over %s.", r.say(now), span(r.last().Sub(since)), several(takes, "take")),
	}
}

func counting(days []Day) (n int) {
	for _, d := range days {
		n += d.Counting
	}
	return n
}

// series are the speeds of weeks over their time in weeks.
func series(weeks []Week) (t, y []float64) {
	for _, w := range weeks {
		t = append(t, w.Begins.Sub(weeks[0].Begins).Hours()/week.Hours())
		y = append(y, w.Speed)
	}
	return t, y
}

// say tells a speed in the record's unit.
func (r Record) say(speed float64) string { return shortly(speed) + " " + r.Unit() }

func (r Record) between(y []float64) string {
	low, high := y[0], y[0]
	for _, v := range y {
		low, high = min(low, v), max(high, v)
	}
	return fmt.Sprintf("%s and %s", shortly(low), r.say(high))
}

// shortly writes a number to the tenth, without one that is nought.
func shortly(v float64) string { return strconv.FormatFloat(math.Round(v*10)/10, 'f', -1, 64) }

// span tells a time in days below two weeks, else in weeks.
func span(d time.Duration) string {
	days := int(d.Hours() / 24)
	if days < 14 {
		return several(days, "day")
	}
	return several(days/7, "week")
}

// counted tells how many takes count.
func counted(n int) string {
	if n == 1 {
		return "1 take that counts"
	}
	return several(n, "take") + " that count"
}

func several(n int, of string) string {
	if n == 1 {
		return "1 " + of
	}
	return strconv.Itoa(n) + " " + of + "s"
}
