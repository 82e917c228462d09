package tempo

import (
	"encoding/json"
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

	// How the notes join: how often each may happen of the times it could, in %; 0 does not ask.
	GapsPercent    float64 `json:"gapsPercent"`    // notes that end before the next begins
	RingingPercent float64 `json:"ringingPercent"` // strings left behind that ring on
	BentPercent    float64 `json:"bentPercent"`    // pull-offs before which the string is dragged aside
}

// aThird is how often a note may break off, or a string ring on, where a gate does not say.
const aThird = 33

// UnmarshalJSON asks of gates that were written before notes had to join what a new one asks.
func (g *Gate) UnmarshalJSON(data []byte) error {
	type plain Gate
	read := plain{GapsPercent: aThird, RingingPercent: aThird}
	if err := json.Unmarshal(data, &read); err != nil {
		return err
	}
	*g = Gate(read)
	return nil
}

// PassFigures are the measured figures of one pass that a gate looks at.
type PassFigures struct {
	RightPercent  float64 `json:"rightPercent"`
	SpreadPercent float64 `json:"spreadPercent"`
	LevelSpreadDB float64 `json:"levelSpreadDb"`
	Interrupted   bool    `json:"interrupted,omitempty"` // the player stopped in it, went back or left notes out

	// Shares of the times that can be told; 0 where these are too few.
	GapsPercent    float64 `json:"gapsPercent,omitempty"`
	RingingPercent float64 `json:"ringingPercent,omitempty"`
	BentPercent    float64 `json:"bentPercent,omitempty"`
}

// Fault says which figure keeps a pass from being clean, in the order of
// importance: played through, clean, then even in time, then in level, then joined. It is empty
// for a clean pass.
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
	return g.joinFault(f)
}

// joinFault says how the notes did not join, or nothing.
func (g Gate) joinFault(f PassFigures) string {
	tooOften := func(percent, most float64) bool { return most > 0 && math.Round(percent) > most }
	switch {
	case tooOften(f.GapsPercent, g.GapsPercent):
		return fmt.Sprintf("%.0f %% of the notes broke off before the next, the gate allows %g %%", f.GapsPercent, g.GapsPercent)
	case tooOften(f.RingingPercent, g.RingingPercent):
		return fmt.Sprintf("after %.0f %% of the string changes the string left behind rang on, the gate allows %g %%", f.RingingPercent, g.RingingPercent)
	case tooOften(f.BentPercent, g.BentPercent):
		return fmt.Sprintf("before %.0f %% of the pull-offs the string was dragged aside, the gate allows %g %%", f.BentPercent, g.BentPercent)
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
	for _, often := range []struct {
		field, what string
		percent     float64
	}{
		{"gapsPercent", "notes broken off", g.GapsPercent}, {"ringingPercent", "strings that ring on", g.RingingPercent},
		{"bentPercent", "dragged strings", g.BentPercent},
	} {
		if !(often.percent >= 0 && often.percent <= 100) {
			faults.Add("ladder.gate."+often.field, "The gate allows %g %% %s; set it from 1 to 100, or 0 not to ask.", often.percent, often.what)
		}
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
