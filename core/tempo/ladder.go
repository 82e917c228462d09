// Package tempo decides how fast a drill is practised next.
package tempo

import "manudrill/core/drill"

// A Ladder climbs from a start to a target tempo by fixed steps; the gate must
// be passed for each.
type Ladder struct {
	StartBPM  float64 `json:"startBpm"`
	StepBPM   float64 `json:"stepBpm"`
	TargetBPM float64 `json:"targetBpm"`
	Gate      Gate    `json:"gate"`
}

// Bounds of a metronome.
const (
	MinBPM = 20
	MaxBPM = 320
)

// MaxPassesInARow is the most clean passes in a row that a gate may ask for.
const MaxPassesInARow = 20

// Usual returns the ladder a new drill starts with: 60 to 120 bpm by 4, and a
// gate of two clean passes.
func Usual() Ladder {
	return Ladder{StartBPM: 60, StepBPM: 4, TargetBPM: 120, Gate: Gate{RightPercent: 95, SpreadPercent: 7, LevelSpreadDB: 4, PassesInARow: 2}}
}

// From returns the ladder from another start to twice its tempo; a tempo that no
// metronome has leaves it as it is.
func (l Ladder) From(bpm float64) Ladder {
	if bpm >= MinBPM && bpm <= MaxBPM {
		l.StartBPM, l.TargetBPM = bpm, min(2*bpm, MaxBPM)
	}
	return l
}

// Check returns what is wrong with the ladder, empty when nothing is.
func (l Ladder) Check() drill.Faults {
	var faults drill.Faults
	add := faults.Add
	if l.StartBPM < MinBPM || l.StartBPM > MaxBPM {
		add("ladder.startBpm", "The start tempo is %g bpm; set it from %d to %d.", l.StartBPM, MinBPM, MaxBPM)
	}
	if l.TargetBPM < l.StartBPM || l.TargetBPM > MaxBPM {
		add("ladder.targetBpm", "The target tempo is %g bpm; set it from the start, %g, to %d.", l.TargetBPM, l.StartBPM, MaxBPM)
	}
	if l.StepBPM < 1 || l.StepBPM > 60 {
		add("ladder.stepBpm", "A step of %g bpm is not offered; set it from 1 to 60.", l.StepBPM)
	}
	g := l.Gate
	if g.RightPercent < 50 || g.RightPercent > 100 {
		add("ladder.gate.rightPercent", "The gate asks for %g %% right notes; set it from 50 to 100.", g.RightPercent)
	}
	if g.SpreadPercent <= 0 || g.SpreadPercent > 50 {
		add("ladder.gate.spreadPercent", "The gate allows a timing spread of %g %% of the interval; set it above 0 and up to 50.", g.SpreadPercent)
	}
	if g.LevelSpreadDB <= 0 || g.LevelSpreadDB > 20 {
		add("ladder.gate.levelSpreadDb", "The gate allows a level spread of %g dB; set it above 0 and up to 20.", g.LevelSpreadDB)
	}
	if g.PassesInARow < 1 || g.PassesInARow > MaxPassesInARow {
		add("ladder.gate.passesInARow", "The gate asks for %d clean passes in a row; set it from 1 to %d.", g.PassesInARow, MaxPassesInARow)
	}
	return faults
}

// Steps returns every tempo of the ladder, from start to target, in bpm.
func (l Ladder) Steps() []float64 {
	if len(l.Check()) > 0 {
		return nil
	}
	var steps []float64
	for bpm := l.StartBPM; bpm < l.TargetBPM; bpm += l.StepBPM {
		steps = append(steps, bpm)
	}
	return append(steps, l.TargetBPM)
}

// above returns the next tempo up from bpm, the target at the most.
func (l Ladder) above(bpm float64) float64 { return min(l.TargetBPM, bpm+l.StepBPM) }

// below returns the next tempo down from bpm, the start at the least.
func (l Ladder) below(bpm float64) float64 { return max(l.StartBPM, bpm-l.StepBPM) }
