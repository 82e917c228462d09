package progress_test

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"

	"manudrill/core/progress"
	"manudrill/core/tempo"
)

func TestTrendCountsARungWhenItWasPassed(t *testing.T) {
	day := time.Date(2026, 3, 2, 18, 0, 0, 0, time.UTC)
	at := func(bpm float64, notes int) tempo.Rung { return tempo.Rung{BPM: bpm, NotesPerBeat: notes} }
	takes := []progress.Played{
		{TakeID: "a", At: day, Rung: at(60, 2), SpreadPercent: 6},
		{TakeID: "b", At: day.AddDate(0, 0, 1), Rung: at(60, 2), SpreadPercent: 5, Passed: true},
		{TakeID: "c", At: day.AddDate(0, 0, 2), Rung: at(64, 2), SpreadPercent: 9},
		{TakeID: "d", At: day.AddDate(0, 0, 3), Rung: at(64, 2), SpreadPercent: 5, Passed: true},
		{TakeID: "e", At: day.AddDate(0, 0, 4), Rung: at(60, 2), SpreadPercent: 5, Passed: true},
	}
	ladder := tempo.Rungs{at(60, 2), at(64, 2)}
	passed := func(before *tempo.Rung) (all []any) {
		for _, p := range progress.TrendOf(ladder, before, takes).Points {
			if p.Passed == nil {
				all = append(all, nil)
				continue
			}
			all = append(all, *p.Passed)
		}
		return all
	}
	assert.Equal(t, []any{nil, at(60, 2), at(60, 2), at(64, 2), at(64, 2)}, passed(nil))
	trend := progress.TrendOf(ladder, nil, takes)
	assert.Equal(t, at(64, 2), trend.Target)
	assert.False(t, trend.Mixed)
	// 40 bpm with four notes a beat are 2.67 notes a second, more than 64 with two: 2.13.
	before := at(40, 4)
	assert.Equal(t, []any{before, before, before, before, before}, passed(&before), "what was passed before stays passed")
	assert.True(t, progress.TrendOf(append(ladder, at(60, 4)), nil, takes).Mixed)
	assert.NotNil(t, progress.TrendOf(ladder, nil, nil).Points, "an empty trend is an empty list")
}
