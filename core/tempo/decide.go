package tempo

import (
	"fmt"
	"math"
	"slices"
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
	Step    Step   `json:"step"`
	At      Rung   `json:"at"`      // that was played
	Next    Rung   `json:"next"`    // to play
	Reason  string `json:"reason"`  // one sentence for the student
	Reached bool   `json:"reached"` // the target has been passed
	Counts  bool   `json:"counts"`  // the take says something about the rung
	Gate    Gate   `json:"gate"`    // by which it was judged
}

// WithPain is the decision for somebody who has reported pain: no ladder climbs until
// their instructor says so.
func (d Decision) WithPain() Decision {
	if d.Step == Up {
		d.Step, d.Next = Hold, d.At
		d.Reason = "Clean, but you have reported pain: no ladder climbs until your instructor says so."
	}
	return d
}

// Passed reports whether the rung of the take was passed.
func (d Decision) Passed() bool { return d.Step == Up || d.Reached }

// A Result is what a take showed about its tempo.
type Result struct {
	HeldBPM float64       `json:"heldBpm"` // tempo really played
	Foreign bool          `json:"foreign"` // the take was of something else
	Passes  []PassFigures `json:"passes"`  // played through

	Transposed int `json:"transposed,omitempty"` // semitones by which it was played on other frets
}

// tempoTolerance is how far the tempo held may be from the one asked for.
// Slower playing that is even proves nothing about the tempo asked for.
const tempoTolerance = 0.04

// Counts reports whether a take played at r says something about that rung: it is
// of the drill, at its tempo, and a pass of it was played through.
func (r Rung) Counts(result Result) bool {
	return !result.Foreign && result.Transposed == 0 && !r.offTempo(result) && len(result.Passes) > 0
}

func (r Rung) offTempo(result Result) bool { return Off(result.HeldBPM, r.BPM) }

// Off reports whether a tempo that was held is another than the one asked for, both in bpm.
func Off(held, asked float64) bool { return math.Abs(held-asked) > tempoTolerance*asked }

// LooksBack is the most takes that count that [Ladder.Decide] looks at, the one it
// answers included: each has at least one pass, and no gate asks for more in a row.
const LooksBack = MaxPassesInARow + 1

// Decide answers the last of takes, all at one rung and in order, of a drill with
// so many notes per beat. Enough clean passes in a row, over takes, go up. Two
// takes in a row without any clean pass go down. All else holds. Takes of
// something else, off tempo or left before the end of a pass count for nothing.
func (l Ladder) Decide(at Rung, notesPerBeat int, takes []Result) Decision {
	rungs := l.Rungs(notesPerBeat)
	d := Decision{Step: Hold, At: at, Next: at, Gate: l.Gate}
	name := rungs.name(at)
	if len(takes) == 0 {
		d.Reason = fmt.Sprintf("Nothing has been played at %s yet.", name)
		return d
	}
	last := takes[len(takes)-1]
	switch {
	case last.Foreign:
		d.Reason = fmt.Sprintf("This take does not match the drill and counts for nothing: stay at %s.", name)
		return d
	case last.Transposed != 0:
		d.Reason = fmt.Sprintf("It was played on other frets than written, which counts for nothing: stay at %s.", name)
		return d
	case at.offTempo(last):
		d.Reason = fmt.Sprintf("You played at %.0f bpm instead of %g, which counts for nothing: stay with the click.", last.HeldBPM, at.BPM)
		return d
	case len(last.Passes) == 0:
		d.Reason = fmt.Sprintf("No pass was played to its end, so this take counts for nothing: once more at %s.", name)
		return d
	}
	d.Counts = true
	l.decide(&d, rungs, counting(at, takes))
	return d
}

// decide answers the last of takes that count, of which there is one at least.
func (l Ladder) decide(d *Decision, rungs Rungs, takes []Result) {
	name := rungs.name(d.At)
	run, fault := l.cleanRun(takes)
	need := l.Gate.PassesInARow
	switch {
	case run >= need && rungs.last(d.At):
		d.Reached = true
		d.Reason = fmt.Sprintf("Target reached: %s in a row at %s.", passes(run), name)
	case run >= need:
		d.Step, d.Next = Up, rungs.above(d.At)
		d.Reason = fmt.Sprintf("%s in a row at %s: go up to %s.", passes(run), name, rungs.name(d.Next))
	case run > 0:
		d.Reason = fmt.Sprintf("%s in a row at %s, the gate asks for %d: once more.", passes(run), name, need)
	case !l.failed(takes[len(takes)-1]) || len(takes) < 2 || !l.failed(takes[len(takes)-2]):
		d.Reason = fmt.Sprintf("Stay at %s: in the last pass %s.", name, fault)
	case rungs.below(d.At) == d.At:
		d.Reason = fmt.Sprintf("Stay at the start, %s: in the last pass %s.", name, fault)
	default:
		d.Step, d.Next = Down, rungs.below(d.At)
		d.Reason = fmt.Sprintf("Two takes without a clean pass at %s: go down to %s. In the last pass %s.", name, rungs.name(d.Next), fault)
	}
}

// counting are those of takes that count.
func counting(at Rung, takes []Result) (counts []Result) {
	for _, t := range takes {
		if at.Counts(t) {
			counts = append(counts, t)
		}
	}
	return counts
}

func passes(n int) string {
	if n == 1 {
		return "1 clean pass"
	}
	return fmt.Sprintf("%d clean passes", n)
}

// failed reports a take without any clean pass, for more than that the player stopped or
// left something out: that says nothing of the tempo.
func (l Ladder) failed(r Result) bool {
	failed := false
	for _, p := range r.Passes {
		if l.Gate.Clean(p) {
			return false
		}
		failed = failed || !p.Interrupted
	}
	return failed
}

// cleanRun counts the clean passes in a row at the end of takes. When the last
// pass was not clean it says why.
func (l Ladder) cleanRun(takes []Result) (run int, fault string) {
	for t := len(takes) - 1; t >= 0; t-- {
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

// Clean reports whether every pass of a take passed the gate by which it was judged,
// and it counts.
func (d Decision) Clean(take Result) bool {
	return d.Counts && !slices.ContainsFunc(take.Passes, func(p PassFigures) bool { return !d.Gate.Clean(p) })
}
