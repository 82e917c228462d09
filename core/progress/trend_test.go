package progress_test

import (
	"testing"
	"time"

	"github.com/stretchr/testify/assert"

	"manudrill/core/progress"
	"manudrill/core/tempo"
)

func TestTrendCountsATempoWhenItWasPassed(t *testing.T) {
	day := time.Date(2026, 3, 2, 18, 0, 0, 0, time.UTC)
	takes := []progress.Played{
		{TakeID: "a", At: day, BPM: 60, SpreadPercent: 6, Decision: tempo.Decision{Step: tempo.Hold}},
		{TakeID: "b", At: day.AddDate(0, 0, 1), BPM: 60, SpreadPercent: 5, Decision: tempo.Decision{Step: tempo.Up}},
		{TakeID: "c", At: day.AddDate(0, 0, 2), BPM: 64, SpreadPercent: 9, Decision: tempo.Decision{Step: tempo.Down}},
		{TakeID: "d", At: day.AddDate(0, 0, 3), BPM: 64, SpreadPercent: 5, Decision: tempo.Decision{Step: tempo.Hold, Reached: true}},
	}
	trend := progress.TrendOf(64, 0, takes)
	var passed []float64
	for _, p := range trend.Points {
		passed = append(passed, p.PassedBPM)
	}
	assert.Equal(t, []float64{0, 60, 60, 64}, passed)
	assert.Equal(t, 64.0, trend.TargetBPM)
	assert.Equal(t, 72.0, progress.TrendOf(64, 72, takes).Points[0].PassedBPM, "what was passed before stays passed")
	assert.NotNil(t, progress.TrendOf(64, 0, nil).Points, "an empty trend is an empty list")
}
