package simulate_test

import (
	"math"
	"math/rand/v2"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"

	"manudrill/core/progress"
	"manudrill/core/simulate"
	"manudrill/core/tempo"
)

// halfYear is half a year of somebody who practises about so many days a week.
func halfYear(l simulate.Learner, daysAWeek, takesADay int) progress.Record {
	random := rand.New(rand.NewPCG(l.Seed, 2))
	var days []float64
	for day := range 26 * 7 {
		if random.Float64() < float64(daysAWeek)/7 {
			days = append(days, float64(day)/7)
		}
	}
	ladder := tempo.Ladder{StartBPM: 60, StepBPM: 4, TargetBPM: 200, Gate: tempo.Gate{RightPercent: 95, SpreadPercent: 7, LevelSpreadDB: 5, PassesInARow: 2}}
	return l.Practise(time.Date(2026, 1, 5, 0, 0, 0, 0, time.UTC), ladder, 4, days, takesADay)
}

// learners are some of a shape, each their own.
func learners(shape simulate.Shape, n int) []simulate.Learner {
	random := rand.New(rand.NewPCG(7, 7))
	all := make([]simulate.Learner, n)
	for i := range all {
		l := simulate.Learner{Seed: uint64(i), Shape: shape, Comfort: 4.2 + 0.6*random.Float64(), Gain: 0.08 + 0.25*random.Float64(), DaySD: 0.02 + 0.05*random.Float64()}
		switch shape {
		case simulate.Power:
			l.Gain *= 3 // as it falls off
		case simulate.Plateau:
			l.Limit = l.Comfort * (1.3 + 0.7*random.Float64())
		}
		all[i] = l
	}
	return all
}

// The range of a forecast holds the truth in 75 to 95 of 100 cases, however a learner
// grows, and something is foretold at all.
func TestForecastsHold(t *testing.T) {
	for _, shape := range []simulate.Shape{simulate.Linear, simulate.Power, simulate.Plateau} {
		t.Run(string(shape), func(t *testing.T) {
			t.Parallel()
			var all progress.Backtest
			for i, l := range learners(shape, 120) {
				all = all.Add(halfYear(l, 2+i%4, 1+i%3).Backtest())
			}
			t.Logf("held %d of %d", all.Held, all.Of)
			share := float64(all.Held) / float64(all.Of)
			assert.Greater(t, all.Of, 500)
			assert.GreaterOrEqual(t, share, 0.75)
			assert.LessOrEqual(t, share, 0.95)
		})
	}
}

// Learners grow by the formulas that name them.
func TestLearnersGrow(t *testing.T) {
	linear := simulate.Learner{Shape: simulate.Linear, Comfort: 4, Gain: 0.5}
	assert.InDelta(t, 9, linear.ComfortAt(10), 1e-9)
	power := simulate.Learner{Shape: simulate.Power, Comfort: 4, Gain: 0.5}
	assert.InDelta(t, 4.5, power.ComfortAt(1), 1e-9)
	assert.InDelta(t, 4.5*4.5/4, power.ComfortAt(3), 1e-9, "a power law gains as much, as a share, with each doubling")
	plateau := simulate.Learner{Shape: simulate.Plateau, Comfort: 4, Gain: 0.5, Limit: 6}
	assert.InDelta(t, 6-2/math.E, plateau.ComfortAt(4), 1e-9)
	assert.Less(t, plateau.ComfortAt(1000), 6+1e-9)
}

// Who does not grow is never said to, but by chance; who grows is never said to be stuck
// for long.
func TestFindingsOfLearners(t *testing.T) {
	told := func(l simulate.Learner) map[progress.Kind]int {
		kinds := map[progress.Kind]int{}
		record := halfYear(l, 3, 2)
		for i := 30; i < len(record.Days); i++ {
			until := progress.Record{Rungs: record.Rungs, Days: record.Days[:i]}
			kinds[until.Finding().Kind]++
		}
		return kinds
	}
	flat, grows, all := map[progress.Kind]int{}, map[progress.Kind]int{}, 0
	for seed := range uint64(40) {
		for kind, n := range told(simulate.Learner{Seed: seed, Shape: simulate.Linear, Comfort: 5.2, DaySD: 0.03}) {
			flat[kind] += n
			all += n
		}
		for kind, n := range told(simulate.Learner{Seed: seed, Shape: simulate.Linear, Comfort: 4.4, Gain: 0.2, DaySD: 0.03}) {
			grows[kind] += n
		}
	}
	t.Logf("flat %v, growing %v", flat, grows)
	assert.Less(t, float64(flat[progress.Rising]), 0.10*float64(all))
	assert.Greater(t, float64(flat[progress.Stuck]), 0.5*float64(all))
	assert.Greater(t, float64(grows[progress.Rising]), 0.9*float64(all))
}
