package drill

import "fmt"

// BentTaps is a fretted note whose string is held bent while one fret after another is
// tapped above it. How far it is bent is a setting of the fingers.
type BentTaps struct {
	Finger  int   `json:"finger"`  // that holds the bend
	Taps    []int `json:"taps"`    // frets above the position, in the order tapped
	Between bool  `json:"between"` // the bent note sounds again between the taps
	Measured
}

// Kind returns "bentTaps".
func (BentTaps) Kind() string { return "bentTaps" }

// Cells returns the one cell: the bent note, then the taps.
func (p BentTaps) Cells(path Path) ([]Cell, error) {
	if p.Finger < 1 || p.Finger > 4 {
		return nil, fmt.Errorf("finger %d cannot hold a bend; the fretting fingers are 1 to 4", p.Finger)
	}
	if len(p.Taps) < 1 || len(p.Taps) > 16 {
		return nil, fmt.Errorf("give 1 to 16 frets to tap, not %d", len(p.Taps))
	}
	held := finger(0, p.Finger)
	cell := Cell{held}
	for i, at := range p.Taps {
		if least := p.from(path, held.At.Steps) + 1; at < least || at > p.from(path, 24) {
			return nil, fmt.Errorf("tap above the bent note: %s, not %d", p.between(least, p.from(path, 24)), at)
		}
		if i > 0 && p.Between {
			cell = append(cell, held)
		}
		cell = append(cell, p.tapped(0, at))
	}
	return []Cell{cell}, nil
}
