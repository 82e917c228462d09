package evenness

import (
	"slices"

	"manudrill/core/follow"
	"manudrill/core/stats"
	"manudrill/core/tempo"
)

// passesOf works out the figures of each pass against the take's own line. An
// extra note makes the share of right notes smaller, like a missed one.
func passesOf(t follow.Take, l line) []Pass {
	size := len(t.Chart.Notes)
	passes := make([]Pass, len(t.Matches)/size)
	for p := range passes {
		matches := t.Matches[p*size : (p+1)*size]
		asked := float64(size + extrasIn(t, l, p))
		passes[p] = Pass{p, tempo.PassFigures{
			RightPercent:  100 * float64(len(levelsOf(matches))) / asked,
			SpreadPercent: 100 * stats.PopStdDev(deviations(matches, l)) / intervalMs(t, l),
			LevelSpreadDB: stats.PopStdDev(levelsOf(matches)),
			Interrupted:   interrupted(t, p, l),
		}}
	}
	return passes
}

// longWait is how much of an interval a player may wait within a pass that is clean.
const longWait = 0.5

// interrupted reports whether a pass was not played through: there is a longer wait in it,
// or the player went back or left notes out. Between passes one may wait.
func interrupted(t follow.Take, pass int, l line) bool {
	size := len(t.Chart.Notes)
	return slices.ContainsFunc(t.Events, func(e follow.Event) bool {
		switch within := e.Before - pass*size; e.Kind {
		case follow.Stop, follow.Hesitation:
			return within > 0 && within < size && 1000*e.Seconds > longWait*intervalMs(t, l)
		case follow.Replay, follow.Skip:
			return within > 0 && within < size || *e.To > pass*size && *e.To < (pass+1)*size
		}
		return false
	})
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

// extrasIn counts the extra notes that fall into pass p by the line; those
// before the first or after the last pass belong to these.
func extrasIn(t follow.Take, l line, p int) int {
	n, last := 0, len(t.Matches)/len(t.Chart.Notes)-1
	for _, e := range t.Extras {
		if at, _ := t.Chart.Place(l.beatAt(e.Onset), last+1); at == p {
			n++
		}
	}
	return n
}
