package guitar

import (
	"errors"
	"fmt"
)

// Limits of the instruments Manudrill knows.
const (
	MinStrings = 4
	MaxStrings = 9
	MaxFrets   = 36
)

// A Guitar is one instrument as it is strung and tuned.
type Guitar struct {
	Tuning    []int   `json:"tuning"`              // open strings as MIDI notes without the capo, string 1 (thinnest) first
	Frets     int     `json:"frets"`               // the highest fret
	ScaleMM   float64 `json:"scaleMm"`             // nut to saddle, mm
	Capo      int     `json:"capo,omitempty"`      // the fret it lies on, 0 without; frets are counted from it
	Reachable int     `json:"reachable,omitempty"` // the highest fret the body lets the hand come to; 0 is all of them
}

// Standard returns a six-string guitar in E standard tuning with 22 frets and a
// 648 mm scale (common practice).
func Standard() Guitar {
	return Guitar{Tuning: []int{64, 59, 55, 50, 45, 40}, Frets: 22, ScaleMM: 648}
}

// Validate says what makes g unusable, or nil.
func (g Guitar) Validate() error {
	if n := len(g.Tuning); n < MinStrings || n > MaxStrings {
		return fmt.Errorf("a guitar has %d to %d strings, this one has %d", MinStrings, MaxStrings, n)
	}
	for i, m := range g.Tuning {
		if m < 0 || m > 127-MaxFrets {
			return fmt.Errorf("string %d is tuned to MIDI note %d; give a note from 0 to %d", i+1, m, 127-MaxFrets)
		}
	}
	switch {
	case g.Frets < 1 || g.Frets > MaxFrets:
		return fmt.Errorf("a neck has 1 to %d frets, this one has %d", MaxFrets, g.Frets)
	case !(g.ScaleMM >= 300 && g.ScaleMM <= 1000): // NaN is refused as well
		return errors.New("the scale length must be from 300 to 1000 mm")
	case g.Capo < 0 || g.Capo >= g.Frets:
		return fmt.Errorf("the capo lies on fret %d; put it on fret 0 (none) to %d", g.Capo, g.Frets-1)
	case g.Reachable < 0 || g.Reachable > g.Frets:
		return fmt.Errorf("the highest fret in reach is %d; give 0 (all) to %d", g.Reachable, g.Frets)
	}
	return nil
}

// HasString reports whether the guitar has string s, counted from 1, the thinnest.
func (g Guitar) HasString(s int) bool { return s >= 1 && s <= len(g.Tuning) }

// TopFret returns the highest fret that can be played, counted from the capo.
func (g Guitar) TopFret() int {
	if g.Reachable > 0 {
		return g.Reachable - g.Capo
	}
	return g.Frets - g.Capo
}

// Sound returns the MIDI note of a fret of a string, without asking whether the
// neck goes so far. The string must exist.
func (g Guitar) Sound(str, fret int) int { return g.Tuning[str-1] + g.Capo + fret }

// Pitch returns the MIDI note that sounds at a fret of a string; fret 0 is the
// open string, or the capo. It fails for a place that is not on the neck.
func (g Guitar) Pitch(str, fret int) (int, error) {
	if !g.HasString(str) {
		return 0, fmt.Errorf("there is no string %d on a guitar with %d strings", str, len(g.Tuning))
	}
	if fret < 0 || fret > g.Frets-g.Capo {
		return 0, fmt.Errorf("fret %d is off the neck, which ends at fret %d", fret, g.Frets-g.Capo)
	}
	return g.Sound(str, fret), nil
}
