package tempo

import (
	"fmt"
	"math"
)

// A Step is where the ladder goes after a take.
type Step string

// The steps of a ladder.
const (
	Up   Step = "up"
	Hold Step = "hold"
	Down Step = "down"
)

// A Decision is the ladder's answer to a take.
type Decision struct {
	Step    Step    `json:"step"`
	NextBPM float64 `json:"nextBpm"`
	Reason  string  `json:"reason"`  // one sentence for the student
	Reached bool    `json:"reached"` // the target has been passed
}

// A Result is what a take showed about its tempo.
type Result struct {
	HeldBPM float64 // tempo really played
	Foreign bool    // the take was of something else
	Passes  []PassFigures
}

// tempoTolerance is how far the tempo held may be from the one asked for.
// Slower playing that is even proves nothing about the tempo asked for.
const tempoTolerance = 0.04

// LooksBack is the most takes that [Ladder.Decide] looks at, the one it answers
// included: each has at least one pass, and no gate asks for more in a row.
const LooksBack = MaxPassesInARow + 1

// Passed reports whether the tempo of the take was passed.
func (d Decision) Passed() bool { return d.Step == Up || d.Reached }

// Decide answers the last of takes, all at bpm and in order. Enough clean
// passes in a row, over takes, go up. Two takes in a row without any clean
// pass go down. All else holds.
func (l Ladder) Decide(bpm float64, takes []Result) Decision {
	if len(takes) == 0 {
		return Decision{Hold, bpm, fmt.Sprintf("Nothing has been played at %g bpm yet.", bpm), false}
	}
	last := takes[len(takes)-1]
	switch {
	case last.Foreign:
		return hold(bpm, "This take does not match the drill, so the tempo stays at %g bpm.", bpm)
	case offTempo(bpm, last):
		return hold(bpm, "You played at %.0f bpm instead of %g: stay with the click, the tempo does not change.", last.HeldBPM, bpm)
	}
	run, fault := l.cleanRun(bpm, takes)
	need := l.Gate.PassesInARow
	switch {
	case run >= need && bpm >= l.TargetBPM:
		d := hold(bpm, "Target reached: %s in a row at %g bpm.", passes(run), bpm)
		d.Reached = true
		return d
	case run >= need:
		up := l.above(bpm)
		return Decision{Up, up, fmt.Sprintf("%s in a row at %g bpm: go up to %g.", passes(run), bpm, up), false}
	case run > 0:
		return hold(bpm, "%s in a row at %g bpm, the gate asks for %d: once more.", passes(run), bpm, need)
	case !l.failed(last) || len(takes) < 2 || !l.failed(takes[len(takes)-2]):
		return hold(bpm, "Stay at %g bpm: in the last pass %s.", bpm, fault)
	case bpm <= l.StartBPM:
		return hold(bpm, "Stay at the start tempo, %g bpm: in the last pass %s.", bpm, fault)
	}
	down := l.below(bpm)
	return Decision{Down, down, fmt.Sprintf("Two takes without a clean pass at %g bpm: go down to %g, because %s.", bpm, down, fault), false}
}

func hold(bpm float64, format string, args ...any) Decision {
	return Decision{Hold, bpm, fmt.Sprintf(format, args...), false}
}

func passes(n int) string {
	if n == 1 {
		return "1 clean pass"
	}
	return fmt.Sprintf("%d clean passes", n)
}

func offTempo(bpm float64, r Result) bool {
	return math.Abs(r.HeldBPM-bpm) > tempoTolerance*bpm
}

// failed reports a take without any clean pass.
func (l Ladder) failed(r Result) bool {
	for _, p := range r.Passes {
		if l.Gate.Clean(p) {
			return false
		}
	}
	return true
}

// cleanRun counts the clean passes in a row at the end of takes. When the last
// pass was not clean it says why.
func (l Ladder) cleanRun(bpm float64, takes []Result) (run int, fault string) {
	for t := len(takes) - 1; t >= 0; t-- {
		if takes[t].Foreign || offTempo(bpm, takes[t]) {
			return run, fault
		}
		for p := len(takes[t].Passes) - 1; p >= 0; p-- {
			if why := l.Gate.Fault(takes[t].Passes[p]); why != "" {
				if run == 0 {
					fault = why
				}
				return run, fault
			}
			run++
		}
	}
	return run, fault
}
