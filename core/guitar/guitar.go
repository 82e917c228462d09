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
	Tuning  []int   `json:"tuning"`  // open strings as MIDI notes, string 1 (thinnest) first
	Frets   int     `json:"frets"`   // the highest fret
	ScaleMM float64 `json:"scaleMm"` // nut to saddle, mm
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
		if m < 0 || m > 127 {
			return fmt.Errorf("string %d is tuned to MIDI note %d; give a note from 0 to 127", i+1, m)
		}
	}
	if g.Frets < 1 || g.Frets > MaxFrets {
		return fmt.Errorf("a neck has 1 to %d frets, this one has %d", MaxFrets, g.Frets)
	}
	if g.ScaleMM <= 0 {
		return errors.New("the scale length must be more than 0 mm")
	}
	return nil
}

// HasString reports whether the guitar has string s, counted from 1, the thinnest.
func (g Guitar) HasString(s int) bool { return s >= 1 && s <= len(g.Tuning) }

// Pitch returns the MIDI note that sounds at a fret of a string; fret 0 is the
// open string. It fails for a place that is not on the neck.
func (g Guitar) Pitch(str, fret int) (int, error) {
	if !g.HasString(str) {
		return 0, fmt.Errorf("there is no string %d on a guitar with %d strings", str, len(g.Tuning))
	}
	if fret < 0 || fret > g.Frets {
		return 0, fmt.Errorf("fret %d is off the neck, which ends at fret %d", fret, g.Frets)
	}
	return g.Tuning[str-1] + fret, nil
}
