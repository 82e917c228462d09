package evenness

import (
	"manudrill/core/follow"
	"manudrill/core/stats"
	"manudrill/core/tempo"
)

// passesOf works out the figures of each pass against the take's own line. An
// extra note makes the share of right notes smaller, like a missed one.
func passesOf(t follow.Take, l line, steps []step) []Pass {
	size := len(t.Chart.Notes)
	passes := make([]Pass, len(t.Matches)/size)
	extras, interrupted := extrasIn(t, l, len(passes)), interruptedOf(t.Events, size, intervalMs(t, l), len(passes))
	joins := connectionsOf(steps, size, len(passes))
	for p := range passes {
		matches := t.Matches[p*size : (p+1)*size]
		passes[p] = Pass{p, tempo.PassFigures{
			RightPercent:  100 * float64(len(levelsOf(matches))) / float64(size+extras[p]),
			SpreadPercent: 100 * stats.PopStdDev(deviations(matches, l)) / intervalMs(t, l),
			LevelSpreadDB: stats.PopStdDev(levelsOf(matches)),
			Interrupted:   interrupted[p],
		}}
		joins[p].into(&passes[p].PassFigures)
	}
	return passes
}

// longWait is how much of an interval a player may wait within a pass that is clean.
const longWait = 0.5

// interruptedOf reports which passes, each of so many notes, were not played through: there is
// a longer wait in them, or the player went back or left notes out. Between passes one may wait.
func interruptedOf(events []follow.Event, size int, intervalMs float64, passes int) []bool {
	out := make([]bool, passes)
	within := func(index int) {
		if pass := index / size; pass < passes && index%size > 0 {
			out[pass] = true
		}
	}
	for _, e := range events {
		switch e.Kind {
		case follow.Stop, follow.Hesitation:
			if 1000*e.Seconds > longWait*intervalMs {
				within(e.Before)
			}
		case follow.Replay, follow.Skip:
			within(e.Before)
			within(*e.To)
		}
	}
	return out
}

// PlayedThrough are the passes but for one in which the drill was left, and those after:
// what the recording cut off, or the player did not get to, says nothing of the tempo.
func (a Analysis) PlayedThrough() []Pass {
	if a.Course.StoppedAfter == nil || len(a.Passes) == 0 {
		return a.Passes
	}
	size := len(a.Notes) / len(a.Passes)
	return a.Passes[:min(len(a.Passes), (*a.Course.StoppedAfter+1)/size)]
}

// Result is what an analysis tells the ladder.
func (a Analysis) Result() tempo.Result {
	r := tempo.Result{HeldBPM: a.Tempo.BPM, Foreign: a.Foreign, Transposed: a.Course.transposed(), Passes: []tempo.PassFigures{}}
	for _, p := range a.PlayedThrough() {
		r.Passes = append(r.Passes, p.PassFigures)
	}
	return r
}

// extrasIn counts the extra notes that fall into each pass by the line; those
// before the first or after the last pass belong to these.
func extrasIn(t follow.Take, l line, passes int) []int {
	n := make([]int, passes)
	for _, e := range t.Extras {
		pass, _ := t.Chart.Place(l.beatAt(e.Onset), passes)
		n[pass]++
	}
	return n
}
