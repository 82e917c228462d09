// Package tempo decides how fast a drill is practised next.
package tempo

import (
	"math"
	"slices"

	"manudrill/core/drill"
)

// A Rule says how the rungs of a ladder follow from one another.
type Rule string

// The rules. [BySteps] is meant where none is given.
const (
	BySteps    Rule = "steps"    // the click goes up by so many bpm, from the start to the target
	ByPercent  Rule = "percent"  // by so many percent, to whole bpm
	ByDoubling Rule = "doubling" // the click stays; the notes per beat are doubled, so many times
	ByBoth     Rule = "both"     // the click goes up to the target, then twice the notes from the start on
	ByList     Rule = "list"     // a list of one's own
)

// A Ladder climbs from a start to a target by a rule; the gate must be passed for
// each rung.
type Ladder struct {
	StartBPM    float64 `json:"startBpm"`
	StepBPM     float64 `json:"stepBpm"`
	TargetBPM   float64 `json:"targetBpm"`
	Rule        Rule    `json:"rule,omitempty"`
	StepPercent float64 `json:"stepPercent,omitempty"` // of [ByPercent]
	Doublings   int     `json:"doublings,omitempty"`   // of [ByDoubling] and [ByBoth]
	List        Rungs   `json:"list,omitempty"`        // of [ByList]
	Gate        Gate    `json:"gate"`
}

// Bounds of a metronome.
const (
	MinBPM = 20
	MaxBPM = 320
)

// MaxPassesInARow is the most clean passes in a row that a gate may ask for.
const MaxPassesInARow = 20

// MaxRungs is the most rungs a ladder may have: those of single bpm from the
// slowest click to the fastest.
const MaxRungs = MaxBPM - MinBPM + 1

// maxDoublings lead from one note a beat to eight, the finest division.
const maxDoublings = 3

// Nearest is the tempo of a rung, in whole bpm, that is nearest to one that was heard.
func Nearest(bpm float64) float64 { return max(MinBPM, min(MaxBPM, math.Round(bpm))) }

// Usual returns the ladder a new drill starts with: 60 to 120 bpm by 4, and a
// gate of two clean passes.
func Usual() Ladder {
	return Ladder{StartBPM: 60, StepBPM: 4, TargetBPM: 120, Gate: Gate{RightPercent: 95, SpreadPercent: 7, LevelSpreadDB: 4, PassesInARow: 2, GapsPercent: aThird, RingingPercent: aThird}}
}

// From returns the ladder from another start to twice its tempo; a tempo that no
// metronome has leaves it as it is.
func (l Ladder) From(bpm float64) Ladder {
	if bpm >= MinBPM && bpm <= MaxBPM {
		l.StartBPM, l.TargetBPM = bpm, min(2*bpm, MaxBPM)
	}
	return l
}

// rule is the ladder's, or the usual one.
func (l Ladder) rule() Rule {
	if l.Rule == "" {
		return BySteps
	}
	return l.Rule
}

// Check returns what is wrong with the ladder of a drill with so many notes per
// beat, empty when nothing is.
func (l Ladder) Check(notesPerBeat int) drill.Faults {
	faults := l.checkTempi()
	switch l.rule() {
	case BySteps:
	case ByPercent:
		if !(l.StepPercent >= 1 && l.StepPercent <= 100) {
			faults.Add("ladder.stepPercent", "A step of %g %% is not offered; set it from 1 to 100.", l.StepPercent)
		}
	case ByDoubling, ByBoth:
		l.checkDoublings(notesPerBeat, &faults)
	case ByList:
		l.checkList(&faults)
	default:
		faults.Add("ladder.rule", "There is no rule %q; choose steps, percent, doubling, both or list.", l.Rule)
	}
	l.Gate.check(&faults)
	if len(faults) == 0 && len(l.rungs(notesPerBeat)) > MaxRungs {
		faults.Add("ladder.stepBpm", "This makes more than %d rungs; take larger steps.", MaxRungs)
	}
	return faults
}

// checkTempi looks at start, step and target, as far as the rule goes by them.
func (l Ladder) checkTempi() (faults drill.Faults) {
	rule := l.rule()
	if rule == ByList {
		return faults
	}
	if !(l.StartBPM >= MinBPM && l.StartBPM <= MaxBPM) {
		faults.Add("ladder.startBpm", "The start tempo is %g bpm; set it from %d to %d.", l.StartBPM, MinBPM, MaxBPM)
	}
	if rule != ByDoubling && !(l.TargetBPM >= l.StartBPM && l.TargetBPM <= MaxBPM) {
		faults.Add("ladder.targetBpm", "The target tempo is %g bpm; set it from the start, %g, to %d.", l.TargetBPM, l.StartBPM, MaxBPM)
	}
	if (rule == BySteps || rule == ByBoth) && !(l.StepBPM >= 1 && l.StepBPM <= 60) {
		faults.Add("ladder.stepBpm", "A step of %g bpm is not offered; set it from 1 to 60.", l.StepBPM)
	}
	return faults
}

func (l Ladder) checkDoublings(notesPerBeat int, faults *drill.Faults) {
	if l.Doublings < 1 || l.Doublings > maxDoublings {
		faults.Add("ladder.doublings", "Notes per beat are doubled 1 to %d times, not %d.", maxDoublings, l.Doublings)
		return
	}
	if finest := notesPerBeat << l.Doublings; !slices.Contains(drill.Divisions, finest) {
		faults.Add("ladder.doublings", "%s a beat doubled %d times makes %d, which no click is divided into; double less often, or begin with fewer notes a beat.",
			notes(notesPerBeat), l.Doublings, finest)
	}
}

func (l Ladder) checkList(faults *drill.Faults) {
	if len(l.List) == 0 || len(l.List) > MaxRungs {
		faults.Add("ladder.list", "A list has 1 to %d rungs, not %d.", MaxRungs, len(l.List))
	}
	for i, r := range l.List {
		switch {
		case !(r.BPM >= MinBPM && r.BPM <= MaxBPM):
			faults.Add("ladder.list", "Rung %d is at %g bpm; set it from %d to %d.", i+1, r.BPM, MinBPM, MaxBPM)
		case !slices.Contains(drill.Divisions, r.NotesPerBeat):
			faults.Add("ladder.list", "Rung %d has %d notes a beat; choose 1, 2, 3, 4, 6 or 8.", i+1, r.NotesPerBeat)
		case i > 0 && r.NotesPerSecond() < l.List[i-1].NotesPerSecond():
			faults.Add("ladder.list", "Rung %d has fewer notes a second than the one before; put the list in order.", i+1)
		default:
			continue
		}
		return
	}
}

// Rungs returns the rungs of a drill with so many notes per beat, from the start to
// the target; nil for a ladder with faults.
func (l Ladder) Rungs(notesPerBeat int) Rungs {
	if len(l.Check(notesPerBeat)) > 0 {
		return nil
	}
	return l.rungs(notesPerBeat)
}

// rungs makes the rungs, one more than there may be at the most.
func (l Ladder) rungs(notesPerBeat int) Rungs {
	switch l.rule() {
	case ByPercent:
		return climb(l.StartBPM, l.TargetBPM, notesPerBeat, func(bpm float64) float64 {
			return max(bpm+1, math.Round(bpm*(1+l.StepPercent/100)))
		})
	case ByDoubling:
		rungs := Rungs{}
		for n := range l.Doublings + 1 {
			rungs = append(rungs, Rung{l.StartBPM, notesPerBeat << n})
		}
		return rungs
	case ByBoth:
		return l.both(notesPerBeat)
	case ByList:
		return slices.Clone(l.List)
	}
	return climb(l.StartBPM, l.TargetBPM, notesPerBeat, l.step)
}

func (l Ladder) step(bpm float64) float64 { return bpm + l.StepBPM }

// both climbs to the target, and again with twice the notes from where that is not
// slower: 60 to 120 with two notes a beat, then 60 to 120 with four.
func (l Ladder) both(notesPerBeat int) Rungs {
	var rungs Rungs
	for n := range l.Doublings + 1 {
		for _, r := range climb(l.StartBPM, l.TargetBPM, notesPerBeat<<n, l.step) {
			if len(rungs) == 0 || r.NotesPerSecond() >= rungs[len(rungs)-1].NotesPerSecond() {
				rungs = append(rungs, r)
			}
		}
	}
	return rungs
}

// climb goes from a tempo to another, which is always the last.
func climb(from, to float64, notesPerBeat int, next func(float64) float64) Rungs {
	var rungs Rungs
	for bpm := from; bpm < to && len(rungs) < MaxRungs; bpm = next(bpm) {
		rungs = append(rungs, Rung{bpm, notesPerBeat})
	}
	return append(rungs, Rung{to, notesPerBeat})
}
