package progress

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"

	"manudrill/core/tempo"
)

var start = time.Date(2026, 3, 2, 0, 0, 0, 0, time.UTC) // a Monday

// ladderOf climbs by 4 bpm with four notes a beat.
func ladderOf(from, to float64) (rungs tempo.Rungs) {
	for bpm := from; bpm <= to; bpm += 4 {
		rungs = append(rungs, tempo.Rung{BPM: bpm, NotesPerBeat: 4})
	}
	return rungs
}

// weekly is two days a week of two takes that count, at tempos that stand at the end of
// each; 0 is a week without.
func weekly(bpm ...float64) Record {
	r := Record{Rungs: ladderOf(60, 120)}
	for i, v := range bpm {
		if v == 0 {
			continue
		}
		for _, day := range []int{1, 4} {
			at := tempo.Rung{BPM: v, NotesPerBeat: 4}
			passed := tempo.Rung{BPM: v - 4, NotesPerBeat: 4}
			r.Days = append(r.Days, Day{Date: start.AddDate(0, 0, 7*i+day), Takes: 2, Counting: 2, Stands: at, Passed: &passed})
		}
	}
	return r
}

func TestFindings(t *testing.T) {
	for name, c := range map[string]struct {
		record Record
		weeks  int // today, from the start
		kind   Kind
		text   string
	}{
		"nothing":          {weekly(), 1, Untouched, "Nothing has been played yet."},
		"one week":         {weekly(60), 1, Few, "Too early to tell: 4 takes that count in 1 week."},
		"away":             {weekly(60, 64, 68, 72), 10, Away, "Not played for 6 weeks."},
		"steady":           {weekly(60, 64, 64, 68, 72, 72, 76, 80), 8, Rising, "Steady: 2.7 bpm a week over 8 weeks."},
		"slipping":         {weekly(84, 80, 80, 76, 72, 72, 68), 7, Slipping, "Slipping: from 84 bpm to 68 bpm in 7 weeks."},
		"stuck":            {weekly(64, 72, 80, 80, 76, 80, 80, 80), 8, Stuck, "Stuck at 80 bpm for 5 weeks, over 22 takes."},
		"up then stuck":    {weekly(60, 64, 68, 72, 76, 76, 76, 76, 76), 9, Stuck, "Stuck at 76 bpm for 4 weeks, over 18 takes."},
		"set down, rising": {weekly(100, 72, 76, 80, 84, 88), 6, Rising, "Steady: 4 bpm a week over 5 weeks."},
		"back":             {weekly(80, 84, 88, 0, 0, 0, 0, 0, 72), 9, Back, "Back after 5 weeks away: at 72 bpm, before it at 88 bpm."},
		"neither":          {weekly(68, 64, 72, 64, 72, 76), 6, Unclear, "Neither surely up nor stuck: between 64 and 76 bpm in 6 weeks."},
	} {
		t.Run(name, func(t *testing.T) {
			f := c.record.Finding().On(start.AddDate(0, 0, 7*c.weeks))
			assert.Equal(t, c.kind, f.Kind, f.Text)
			assert.Equal(t, c.text, f.Text)
			assert.Equal(t, "bpm", f.Unit)
		})
	}
}

// Rungs that an instructor has set, one higher each week, and of which none was passed, are
// no progress.
func TestWhoIsSetUpByHandDoesNotRise(t *testing.T) {
	r := weekly(60, 64, 68, 72, 76, 80)
	for i := range r.Days {
		r.Days[i].Passed = nil
	}
	assert.NotEqual(t, Rising, r.Finding().Kind)
}

func TestReachedIsSaidBeforeAllElse(t *testing.T) {
	r := weekly(112, 116, 120)
	r.Days[5].Passed = &tempo.Rung{BPM: 120, NotesPerBeat: 4}
	f := r.Finding().On(start.AddDate(0, 0, 7*20))
	assert.Equal(t, Reached, f.Kind)
	assert.Equal(t, "Target reached.", f.Text)
}

// Takes that count for nothing say nothing: neither off tempo, nor tried out.
func TestTakesThatDoNotCount(t *testing.T) {
	r := weekly(60, 64, 68, 72, 76, 80)
	for i := range r.Days {
		r.Days[i].Counting = 0
	}
	f := r.Finding()
	assert.Equal(t, Few, f.Kind)
	assert.Equal(t, "Too early to tell: no take that counts.", f.Text)
}

// Where the click is divided differently, speeds are told in notes a second.
func TestMixedRungs(t *testing.T) {
	r := Record{Rungs: tempo.Rungs{{BPM: 60, NotesPerBeat: 2}, {BPM: 60, NotesPerBeat: 4}, {BPM: 120, NotesPerBeat: 4}}}
	for i, rung := range []tempo.Rung{{BPM: 60, NotesPerBeat: 2}, {BPM: 120, NotesPerBeat: 2}, {BPM: 75, NotesPerBeat: 4}, {BPM: 90, NotesPerBeat: 4}} {
		r.Days = append(r.Days, Day{Date: start.AddDate(0, 0, 7*i), Takes: 2, Counting: 2, Stands: rung, Passed: &tempo.Rung{BPM: 60, NotesPerBeat: 2}})
	}
	f := r.Finding()
	assert.Equal(t, Rising, f.Kind)
	assert.Equal(t, "Steady: 1.2 notes a second a week over 4 weeks.", f.Text)
	assert.Equal(t, "notes a second", f.Unit)
}

func TestForecastsThatCannotBe(t *testing.T) {
	goal := tempo.Rung{BPM: 92, NotesPerBeat: 4}
	today := start.AddDate(0, 0, 56)
	steady := weekly(60, 64, 68, 72, 76, 80, 84, 88)
	assert.True(t, steady.Forecast(goal, today).Known)
	assert.Equal(t, "In 1 to 7 weeks, at the pace of the last 8 weeks.", steady.Forecast(goal, today).Text)
	for name, c := range map[string]struct {
		record Record
		goal   float64
		today  time.Time
		text   string
	}{
		"passed":  {steady, 80, today, "Passed already."},
		"young":   {weekly(60, 64, 68), 92, start.AddDate(0, 0, 21), "It cannot be said yet: that takes 5 weeks with takes that count, and there are 3."},
		"away":    {steady, 92, today.AddDate(0, 0, 20), "It cannot be said: nothing was played lately."},
		"flat":    {weekly(80, 80, 80, 80, 80, 80, 80), 92, start.AddDate(0, 0, 49), "It cannot be said: the tempo does not surely go up."},
		"far off": {steady, 120, today, "It cannot be said: for the pace of the last weeks that is too far ahead to be sure."},
		"nothing": {weekly(), 92, today, "It cannot be said yet: that takes 5 weeks with takes that count, and there are 0."},
	} {
		t.Run(name, func(t *testing.T) {
			f := c.record.Forecast(tempo.Rung{BPM: c.goal, NotesPerBeat: 4}, c.today)
			assert.False(t, f.Known)
			assert.Equal(t, c.text, f.Text)
			assert.Nil(t, f.Earliest)
		})
	}
}

// A year's gap tells nothing of the pace before it.
func TestAYearsGap(t *testing.T) {
	r := weekly(60, 64, 68, 72, 76, 80)
	for _, d := range weekly(60, 64, 64, 68, 72, 76).Days {
		d.Date = d.Date.AddDate(1, 0, 0)
		r.Days = append(r.Days, d)
	}
	today := start.AddDate(1, 0, 44)
	f := r.Finding().On(today)
	assert.Equal(t, Rising, f.Kind, f.Text)
	assert.Contains(t, f.Text, "over 6 weeks")
	assert.True(t, r.Forecast(tempo.Rung{BPM: 80, NotesPerBeat: 4}, today).Known)
}

func TestBacktestOfNothing(t *testing.T) {
	assert.Equal(t, Backtest{}, Record{}.Backtest())
	assert.Equal(t, Backtest{}, weekly(60, 64).Backtest())
}

func TestMonday(t *testing.T) {
	assert.Equal(t, start, Monday(start))
	assert.Equal(t, start, Monday(start.AddDate(0, 0, 6)))
	assert.Equal(t, start.AddDate(0, 0, 7), Monday(start.AddDate(0, 0, 7)))
}
