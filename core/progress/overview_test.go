package progress

import (
	"math"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"manudrill/core/drill/chart"
	"manudrill/core/evenness"
	"manudrill/core/tempo"
)

// latePair is what fifty notes of a pair add up to that come so late, give or take 3 ms.
func latePair(from, to int, lateMs float64) evenness.Sum {
	s := evenness.Sum{SumOf: evenness.SumOf{Kind: evenness.ByPair, From: from, To: to, Attack: chart.Hammer}}
	for i := range 50 {
		ms := lateMs + 3*math.Pow(-1, float64(i))
		s.Count++
		s.ExcessMs += ms
		s.ExcessMs2 += ms * ms
		s.LatePercent += ms / 3
		s.LatePct2 += ms * ms / 9
	}
	return s
}

func attackOf(a chart.Attack, n int) evenness.Sum {
	return evenness.Sum{SumOf: evenness.SumOf{Kind: evenness.ByAttack, Attack: a}, Count: n}
}

// playedOver is a drill played twice a week at tempos, with the pair 3→4 so late in each.
func playedOver(name string, bpm, late []float64) PlayedDrill {
	r := weekly(bpm...)
	d := PlayedDrill{ID: name, Name: name, Rungs: r.Rungs, Gate: tempo.Usual().Gate}
	for i := range bpm {
		w := PlayedWeek{Begins: start.AddDate(0, 0, 7*i), Sums: []evenness.Sum{latePair(3, 4, late[i]), attackOf(chart.Hammer, 60), attackOf(chart.Pick, 30)}}
		for _, day := range r.Days {
			if Monday(day.Date).Equal(w.Begins) {
				day.Seconds = 90
				w.Days = append(w.Days, day)
			}
		}
		d.Weeks = append(d.Weeks, w)
	}
	var sums []Dated
	for _, w := range d.Weeks {
		sums = append(sums, Dated{w.Begins, w.Sums})
	}
	state := r.StateOf(d.Gate, sums)
	d.State = &state
	return d
}

func same(v float64, n int) []float64 {
	all := make([]float64, n)
	for i := range all {
		all[i] = v
	}
	return all
}

func TestOverview(t *testing.T) {
	stuck := playedOver("Stuck", []float64{60, 68, 76, 80, 80, 80, 80, 80, 80, 80}, same(18, 10))
	today := start.AddDate(0, 0, 69)
	o := OverviewOf(false, []PlayedDrill{stuck}, today, 12)
	require.Len(t, o.Weeks, 12, "weeks without a take are there too")
	assert.Equal(t, today.AddDate(0, 0, -6-77), o.Weeks[0].Begins)
	assert.Empty(t, o.Weeks[0].Days)
	assert.Equal(t, []string{"Stuck: Stuck at 80 bpm for 6 weeks, over 26 takes. The pair 3→4 has not changed: 18 ms late."}, o.Said)

	// 180 s in the week are parted by 60 hammer-ons and 30 picked notes.
	last := o.Weeks[11]
	assert.Len(t, last.Days, 2)
	assert.Equal(t, []AttackTime{{chart.Hammer, 120}, {chart.Pick, 60}}, last.Attacks)
	assert.InDelta(t, 76*4/60.0, *last.NotesPerSecond, 1e-9)

	require.Len(t, o.Drills, 1)
	assert.Len(t, o.Drills[0].Points, 10)
	assert.Equal(t, 120.0, o.Drills[0].Target)
	pair := o.Groups[0]
	for _, g := range o.Groups {
		if g.Kind == evenness.ByPair {
			pair = g
		}
	}
	assert.InDelta(t, 18, pair.Now.LateMs, 1e-9)
	assert.InDelta(t, 18, pair.Then.LateMs, 1e-9)
	assert.Len(t, pair.Weeks, 10)
	assert.Equal(t, "The pair 3→4 has not changed: 18 ms late.", pair.Text)

	pain := OverviewOf(true, []PlayedDrill{stuck}, today, 4)
	assert.Equal(t, "Reported pain: no ladder climbs.", pain.Said[0], "the hand before the music")
	assert.Contains(t, pain.Said[1], "Stuck at 80 bpm")
}

func TestAnOverviewOfNothing(t *testing.T) {
	o := OverviewOf(false, nil, start, 4)
	assert.Len(t, o.Weeks, 4)
	assert.Empty(t, o.Said)
	assert.NotNil(t, o.Groups)
	never := OverviewOf(false, []PlayedDrill{{ID: "x", Name: "New", Rungs: ladderOf(60, 80)}}, start, 4)
	assert.Equal(t, []string{"New: Nothing has been played yet."}, never.Said)
	one := OverviewOf(false, []PlayedDrill{playedOver("Once", []float64{60}, []float64{20})}, start.AddDate(0, 0, 5), 4)
	assert.Equal(t, "Once: Too early to tell: 4 takes that count in 1 week.", one.Said[0])
}

func TestPairsThenAndNow(t *testing.T) {
	for name, c := range map[string]struct {
		late []float64
		text string
	}{
		"healed":   {[]float64{30, 30, 30, 30, 22, 20, 12, 12, 12, 12}, "The pair 3→4 comes 12 ms late; at first it was 30."},
		"worse":    {[]float64{10, 10, 10, 10, 12, 14, 21, 21, 21, 21}, "The pair 3→4 has got later: 21 ms; at first it was 10."},
		"the same": {same(15, 10), "The pair 3→4 has not changed: 15 ms late."},
		"new":      {same(15, 3), "The pair 3→4 comes 15 ms late."},
	} {
		t.Run(name, func(t *testing.T) {
			var weeks []Dated
			for i, ms := range c.late {
				weeks = append(weeks, Dated{start.AddDate(0, 0, 7*i), []evenness.Sum{latePair(3, 4, ms), latePair(1, 2, 1)}})
			}
			weakest, found := Weakest(weeks)
			require.True(t, found)
			assert.Equal(t, c.text, weakest.Text)
		})
	}
	_, found := Weakest([]Dated{{start, []evenness.Sum{latePair(3, 4, 4)}}})
	assert.False(t, found, "4 ms are not heard, however sure")
	_, found = Weakest(nil)
	assert.False(t, found)
}

// The hand before the music, who loses ground before who stands still; and within the
// same, the more uneven first.
func TestWhoIsMostPressing(t *testing.T) {
	today := start.AddDate(0, 0, 70)
	of := func(kind Kind, gate float64) []Drill {
		last, since := today.AddDate(0, 0, -2), today.AddDate(0, 0, -30)
		return []Drill{{"x", &State{Finding: Finding{Kind: kind, Text: "said", Last: &last, Since: &since}, OfGate: &gate, Of: 8}}}
	}
	gone := today.AddDate(0, 0, -40)
	for _, c := range []struct {
		hurt   bool
		drills []Drill
		why    Why
	}{
		{true, of(Rising, 80), InPain}, {false, of(Slipping, 80), LosesGround}, {false, of(Stuck, 80), StandsStill},
		{false, []Drill{{"x", &State{Finding: Finding{Kind: Rising, Last: &gone}}}}, StaysAway},
		{false, of(Unclear, 140), Uneven}, {false, of(Reached, 50), TooEasy}, {false, []Drill{{"x", nil}}, NothingYet},
	} {
		needs := NeedsOf(c.hurt, c.drills, today)
		require.NotEmpty(t, needs)
		assert.Equal(t, c.why, needs[0].Why)
	}
	assert.Empty(t, NeedsOf(false, of(Rising, 90), today))
	assert.Empty(t, NeedsOf(false, nil, today), "somebody without a drill is nobody's worry here")
	slips, stands := NeedsOf(false, of(Slipping, 80), today), NeedsOf(false, of(Stuck, 200), today)
	assert.Negative(t, Pressing(slips, stands, of(Slipping, 80), of(Stuck, 200)))
	assert.Positive(t, Pressing(stands, stands, of(Stuck, 110), of(Stuck, 120)))
	assert.Negative(t, Pressing(stands, nil, nil, nil))
}

func TestDaysOfTakes(t *testing.T) {
	rung := func(bpm float64) tempo.Rung { return tempo.Rung{BPM: bpm, NotesPerBeat: 4} }
	decided := func(step tempo.Step, at, next float64) *tempo.Decision {
		return &tempo.Decision{Step: step, At: rung(at), Next: rung(next)}
	}
	days := DaysOf([]DayTake{
		{Date: start, Rung: rung(60), Seconds: 20}, // at a tempo of one's own: it counts for nothing
		{Date: start, Rung: rung(64), Decision: decided(tempo.Up, 64, 68), Counts: true, Clean: true, SpreadPercent: 4, Seconds: 30, SlurSeconds: 10},
		{Date: start, Rung: rung(68), Decision: decided(tempo.Hold, 68, 68), Counts: true, SpreadPercent: 8, Seconds: 30},
		{Date: start.AddDate(0, 0, 1), Rung: rung(90), Seconds: 5},
	})
	passed := rung(64)
	assert.Equal(t, []Day{
		{Date: start, Takes: 3, Counting: 2, Clean: 1, Stands: rung(68), Passed: &passed, SpreadPercent: 6, Seconds: 80, SlurSeconds: 10},
		{Date: start.AddDate(0, 0, 1), Takes: 1, Stands: rung(90), Seconds: 5},
	}, days)
	assert.Equal(t, []Day{}, DaysOf(nil))
}

func TestWhatHasChangedSinceTheLastLesson(t *testing.T) {
	d := playedOver("Pairs", []float64{60, 64, 68, 72, 76, 80}, []float64{30, 30, 30, 30, 30, 14})
	lesson := start.AddDate(0, 0, 35)
	today := lesson.AddDate(0, 0, 7)
	assert.Equal(t, []string{
		"Played on 2 days of 7 days: 4 takes, 3 min of sound.",
		"Pairs: from 76 to 80 bpm.",
		"The pair 3→4 comes 14 ms late; in the weeks before it was 30.",
	}, Since([]PlayedDrill{d}, lesson, today))
	later := today.AddDate(0, 0, 21)
	assert.Equal(t, []string{
		"Nothing was played in 3 weeks.", "No rung was won, and none lost.", "No pair of fingers comes late, surely and so that it is heard.",
	}, Since([]PlayedDrill{d}, today, later))
	assert.Len(t, Since(nil, lesson, today), 3)
}

// A finding stands until somebody stays away; a target that was reached stays reached.
func TestFindingsGoStale(t *testing.T) {
	f := weekly(60, 64, 68, 72, 76).Finding()
	assert.Equal(t, Rising, f.On(f.Last.AddDate(0, 0, 20)).Kind)
	assert.Equal(t, Away, f.On(f.Last.Add(21*24*time.Hour)).Kind)
	assert.Equal(t, Untouched, Record{}.Finding().On(start).Kind)
}
