package drill

import (
	"fmt"

	"manudrill/core/drill/chart"
	"manudrill/core/guitar"
)

// Free is a cell of notes of one's own, clicked on the neck or read from a
// file. It is carried about like any other.
type Free struct {
	Notes []FreeNote `json:"notes"`
}

// A FreeNote lies where it was put; what is left empty is found by the engine.
type FreeNote struct {
	String int          `json:"string"`
	Fret   int          `json:"fret"`
	Finger int          `json:"finger,omitempty"`
	Hand   chart.Hand   `json:"hand,omitempty"`
	Attack chart.Attack `json:"attack,omitempty"`
}

// MaxFreeNotes is the longest cell of one's own.
const MaxFreeNotes = 512

// Kind returns "free".
func (Free) Kind() string { return "free" }

// Cells returns the notes as one cell, from the lowest fret that is used and
// the thickest string, so that the path can put it elsewhere.
func (p Free) Cells(Path) ([]Cell, error) {
	if len(p.Notes) == 0 {
		return nil, fmt.Errorf("put at least one note on the neck: click a place, or type tab")
	}
	if len(p.Notes) > MaxFreeNotes {
		return nil, fmt.Errorf("a cell of one's own has up to %d notes, not %d", MaxFreeNotes, len(p.Notes))
	}
	position, strings := p.Home()
	cell := make(Cell, len(p.Notes))
	for i, n := range p.Notes {
		t, err := n.touch(position, strings[0])
		if err != nil {
			return nil, err
		}
		cell[i] = t
	}
	return []Cell{cell}, nil
}

func (n FreeNote) touch(position, thickest int) (Touch, error) {
	switch {
	case n.String < 1 || n.String > guitar.MaxStrings || n.Fret < 0 || n.Fret > guitar.MaxFrets:
		return Touch{}, fmt.Errorf("string %d fret %d is no place on a neck; strings are 1 to %d, frets 0 to %d", n.String, n.Fret, guitar.MaxStrings, guitar.MaxFrets)
	case n.Finger < 0 || n.Finger > 4:
		return Touch{}, fmt.Errorf("string %d fret %d asks for finger %d; the fingers are 1 to 4", n.String, n.Fret, n.Finger)
	case n.Hand != "" && n.Hand != chart.FrettingHand && n.Hand != chart.TappingHand:
		return Touch{}, fmt.Errorf("string %d fret %d asks for the hand %q; choose fret or tap", n.String, n.Fret, n.Hand)
	case n.Attack != "" && !n.Attack.Known():
		return Touch{}, fmt.Errorf("string %d fret %d asks for the attack %q, which is not known", n.String, n.Fret, n.Attack)
	}
	t := Touch{String: thickest - n.String, Finger: n.Finger, Hand: n.Hand, Attack: n.Attack}
	if n.Fret > 0 {
		t.At = Place{ByHand, n.Fret - position}
	}
	return t, nil
}

// Home returns the position and the strings at which the cell lies where it was
// put.
func (p Free) Home() (position int, strings []int) {
	thickest, thinnest := 1, guitar.MaxStrings
	for _, n := range p.Notes {
		thickest, thinnest = max(thickest, n.String), min(thinnest, n.String)
		if n.Fret > 0 && (position == 0 || n.Fret < position) {
			position = n.Fret
		}
	}
	for s := thickest; s >= thinnest; s-- {
		strings = append(strings, s)
	}
	return max(1, position), strings
}

// WithoutAttacks takes away the attacks set by hand at some notes.
func (p Free) WithoutAttacks(at []int) Pattern {
	p.Notes = append([]FreeNote{}, p.Notes...)
	for _, i := range at {
		p.Notes[i%len(p.Notes)].Attack = ""
	}
	return p
}

// WithoutFingers leaves all fingers to the fingering.
func (p Free) WithoutFingers() Pattern {
	p.Notes = append([]FreeNote{}, p.Notes...)
	for i := range p.Notes {
		p.Notes[i].Finger = 0
	}
	return p
}
