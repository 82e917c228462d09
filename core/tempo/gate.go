package tempo

import (
	"fmt"
	"math"
	"strconv"

	"manudrill/core/drill"
)

// A Gate is what a pass must reach to count as clean, and how many clean passes
// in a row let the student climb.
type Gate struct {
	RightPercent  float64 `json:"rightPercent"`  // share of right notes, at the least
	SpreadPercent float64 `json:"spreadPercent"` // timing spread in % of the interval, at the most
	LevelSpreadDB float64 `json:"levelSpreadDb"` // spread of the levels, at the most
	PassesInARow  int     `json:"passesInARow"`
}

// PassFigures are the measured figures of one pass that a gate looks at.
type PassFigures struct {
	RightPercent  float64 `json:"rightPercent"`
	SpreadPercent float64 `json:"spreadPercent"`
	LevelSpreadDB float64 `json:"levelSpreadDb"`
	Interrupted   bool    `json:"interrupted,omitempty"` // the player stopped in it, went back or left notes out
}

// Fault says which figure keeps a pass from being clean, in the order of
// importance: played through, clean, then even in time, then in level. It is empty for a clean
// pass.
func (g Gate) Fault(f PassFigures) string {
	right, timing, level := tenth(f.RightPercent), tenth(f.SpreadPercent), tenth(f.LevelSpreadDB)
	switch {
	case f.Interrupted:
		return "you stopped, went back or left something out"
	case right < g.RightPercent:
		return fmt.Sprintf("%.1f %% of the notes were right, the gate asks for %g %%", right, g.RightPercent)
	case timing > g.SpreadPercent:
		return fmt.Sprintf("the timing spread was %.1f %% of the interval, the gate allows %g %%", timing, g.SpreadPercent)
	case level > g.LevelSpreadDB:
		return fmt.Sprintf("the level spread was %.1f dB, the gate allows %g dB", level, g.LevelSpreadDB)
	}
	return ""
}

// Check returns what is wrong with the gate, empty when nothing is.
func (g Gate) Check() (faults drill.Faults) {
	g.check(&faults)
	return faults
}

func (g Gate) check(faults *drill.Faults) {
	if !(g.RightPercent >= 50 && g.RightPercent <= 100) {
		faults.Add("ladder.gate.rightPercent", "The gate asks for %g %% right notes; set it from 50 to 100.", g.RightPercent)
	}
	if !(g.SpreadPercent > 0 && g.SpreadPercent <= 50) {
		faults.Add("ladder.gate.spreadPercent", "The gate allows a timing spread of %g %% of the interval; set it above 0 and up to 50.", g.SpreadPercent)
	}
	if !(g.LevelSpreadDB > 0 && g.LevelSpreadDB <= 20) {
		faults.Add("ladder.gate.levelSpreadDb", "The gate allows a level spread of %g dB; set it above 0 and up to 20.", g.LevelSpreadDB)
	}
	if g.PassesInARow < 1 || g.PassesInARow > MaxPassesInARow {
		faults.Add("ladder.gate.passesInARow", "The gate asks for %d clean passes in a row; set it from 1 to %d.", g.PassesInARow, MaxPassesInARow)
	}
}

// tenth rounds a figure as it is shown, so that no figure fails a gate by what
// nobody sees: to the nearest tenth of the value that the float has, which is not
// always that of ten times the float, and up where two are as near (ECMA-262,
// Number.prototype.toFixed).
func tenth(v float64) float64 {
	if quarters := v * 4; quarters == math.Trunc(quarters) { // the only values that lie between two tenths
		return math.Floor(v*10+0.5) / 10
	}
	shown, err := strconv.ParseFloat(strconv.FormatFloat(v, 'f', 1, 64), 64)
	if err != nil {
		return v // no number is shown
	}
	return shown
}

// Clean reports whether a pass passes the gate.
func (g Gate) Clean(f PassFigures) bool { return g.Fault(f) == "" }
