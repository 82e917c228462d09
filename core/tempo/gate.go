package tempo

import "fmt"

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
}

// Fault says which figure keeps a pass from being clean, in the order of
// importance: clean, then even in time, then in level. It is empty for a clean
// pass.
func (g Gate) Fault(f PassFigures) string {
	switch {
	case f.RightPercent < g.RightPercent:
		return fmt.Sprintf("%.0f %% of the notes were right, the gate asks for %g %%", f.RightPercent, g.RightPercent)
	case f.SpreadPercent > g.SpreadPercent:
		return fmt.Sprintf("the timing spread was %.1f %% of the interval, the gate allows %g %%", f.SpreadPercent, g.SpreadPercent)
	case f.LevelSpreadDB > g.LevelSpreadDB:
		return fmt.Sprintf("the level spread was %.1f dB, the gate allows %g dB", f.LevelSpreadDB, g.LevelSpreadDB)
	}
	return ""
}

// Clean reports whether a pass passes the gate.
func (g Gate) Clean(f PassFigures) bool { return g.Fault(f) == "" }
