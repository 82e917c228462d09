package drill

import (
	"fmt"
	"slices"
)

// Tapping is a cell of one tapped and two fretted notes on one string.
type Tapping struct {
	Low    int      `json:"low"`    // fretting finger of the lower note; 0 is the open string
	Middle int      `json:"middle"` // fretting finger of the higher one
	TapAt  int      `json:"tapAt"`  // frets above the position that are tapped
	Order  TapOrder `json:"order"`
	Measured
}

// TapOrder is the order of a tapped cell.
type TapOrder string

// Tap, low, middle; tap, middle, low; or the two in turn.
const (
	TapLowMiddle TapOrder = "tapLowMiddle"
	TapMiddleLow TapOrder = "tapMiddleLow"
	TapInTurn    TapOrder = "inTurn"
)

// Kind returns "tapping".
func (Tapping) Kind() string { return "tapping" }

// Cells returns the cell; the two orders in turn make one cell of six notes.
func (p Tapping) Cells(path Path) ([]Cell, error) {
	if err := checkFingers([]int{p.Low, p.Middle}, true, "the tapped cell"); err != nil {
		return nil, err
	}
	tap, low, middle := p.tapped(0, p.TapAt), finger(0, p.Low), finger(0, p.Middle)
	if least := p.from(path, middle.At.Steps) + 1; p.TapAt < least || p.TapAt > p.from(path, 24) {
		return nil, fmt.Errorf("tap above the fretted notes: %s, not %d", p.between(least, p.from(path, 24)), p.TapAt)
	}
	switch p.Order {
	case TapLowMiddle:
		return []Cell{{tap, low, middle}}, nil
	case TapMiddleLow:
		return []Cell{{tap, middle, low}}, nil
	case TapInTurn:
		return []Cell{{tap, low, middle, tap, middle, low}}, nil
	}
	return nil, fmt.Errorf("the order is %q; choose tapLowMiddle, tapMiddleLow or inTurn", p.Order)
}

// TapHigher is the same cell tapped so many frets higher.
func (p Tapping) TapHigher(frets int) Pattern {
	p.TapAt += frets
	return p
}

// TwoHands lays a chord between the hands: on each string one fretted and one
// tapped note. Each move shifts the two hands against each other.
type TwoHands struct {
	Fretted []int     `json:"fretted"` // frets above the position, one a string
	Tapped  []int     `json:"tapped"`  // likewise of the tapping hand
	Moves   []TwoMove `json:"moves"`
	Measured
}

// A TwoMove is by how many frets each hand has moved.
type TwoMove struct {
	Fretting int `json:"fretting"`
	Tapping  int `json:"tapping"`
}

// Kind returns "twoHands".
func (TwoHands) Kind() string { return "twoHands" }

// Cells returns one cell for each move.
func (p TwoHands) Cells(Path) ([]Cell, error) {
	if n := len(p.Fretted); n < 1 || n > 6 || n != len(p.Tapped) {
		return nil, fmt.Errorf("give one fretted and one tapped note for each of 1 to 6 strings, not %d and %d", n, len(p.Tapped))
	}
	moves := p.Moves
	if len(moves) == 0 {
		moves = []TwoMove{{}}
	}
	var cells []Cell
	for _, m := range moves {
		var cell Cell
		for s := range p.Fretted {
			cell = append(cell,
				Touch{String: s, At: p.at(p.Fretted[s] + m.Fretting)},
				p.tapped(s, p.Tapped[s]+m.Tapping))
		}
		cells = append(cells, cell)
	}
	return cells, nil
}

// TapHigher is the same chord tapped so many frets higher.
func (p TwoHands) TapHigher(frets int) Pattern {
	higher := make([]int, len(p.Tapped))
	for i, f := range p.Tapped {
		higher[i] = f + frets
	}
	p.Tapped = higher
	return p
}

// TwoStringShape is a shape over two strings, played in one of four orders.
type TwoStringShape struct {
	Lower  []int `json:"lower"`  // frets above the position on the first string, rising
	Higher []int `json:"higher"` // on the second
	Order  Order `json:"order"`
	Measured
}

// Kind returns "twoStringShape".
func (TwoStringShape) Kind() string { return "twoStringShape" }

// Cells returns the shape in its order.
func (p TwoStringShape) Cells(path Path) ([]Cell, error) {
	var cell Cell
	for s, frets := range [][]int{p.Lower, p.Higher} {
		if len(frets) < 1 || len(frets) > 4 || !slices.IsSorted(frets) {
			return nil, fmt.Errorf("give one to four rising frets on each of the two strings, not %v", frets)
		}
		for _, f := range frets {
			cell = append(cell, Touch{String: s, At: p.at(f)})
		}
	}
	if p.Order == OneByOne {
		return p.oneByOne(path.Turn)
	}
	return p.Order.arrange(cell, Sequence{}, len(p.Lower), path.Turn)
}

// oneByOne lets one note after another, the lowest first, go down from the second string to
// the first, and comes back up; after each step the whole shape sounds from its lowest note.
func (p TwoStringShape) oneByOne(turn Turn) ([]Cell, error) {
	if len(p.Lower) != len(p.Higher) {
		return nil, fmt.Errorf("for one note after another to change strings, both need as many; there are %d and %d", len(p.Lower), len(p.Higher))
	}
	var steps []Cell
	for gone := range len(p.Higher) + 1 {
		var step Cell
		for i := range p.Higher {
			if i < gone {
				step = append(step, Touch{String: 0, At: p.at(p.Lower[i])})
			} else {
				step = append(step, Touch{String: 1, At: p.at(p.Higher[i])})
			}
		}
		steps = append(steps, step)
	}
	return []Cell{thereAndBack(steps, turn)}, nil
}

// ChordShape is one note a string of a chord shape, held while one of its
// fingers leaps to other places.
type ChordShape struct {
	Shape  []Held  `json:"shape"` // one a string
	Leaper int     `json:"leaper"`
	Leaps  []Leapt `json:"leaps"` // where the leaping finger goes, one after the other; it returns before each
	Measured
}

// Held is a finger of a chord shape.
type Held struct {
	Finger int `json:"finger"` // 0 is the open string
	Fret   int `json:"fret"`   // above the position
}

// Leapt is a place the leaping finger goes to.
type Leapt struct {
	String int `json:"string"` // of the shape, 0 the first
	Fret   int `json:"fret"`
}

// Kind returns "chordShape".
func (ChordShape) Kind() string { return "chordShape" }

// Cells returns the shape as it is held, then once for each leap.
func (p ChordShape) Cells(Path) ([]Cell, error) {
	if len(p.Shape) < 2 || len(p.Shape) > 6 {
		return nil, fmt.Errorf("a chord shape has 2 to 6 notes, one a string, not %d", len(p.Shape))
	}
	var shape Cell
	for s, h := range p.Shape {
		if h.Finger < 0 || h.Finger > 4 {
			return nil, fmt.Errorf("the shape asks for finger %d; the fretting fingers are 1 to 4, 0 for the open string", h.Finger)
		}
		t := Touch{String: s, At: p.at(h.Fret), Finger: h.Finger, Held: true}
		if h.Finger == 0 {
			t = Touch{String: s}
		}
		shape = append(shape, t)
	}
	at := slices.IndexFunc(p.Shape, func(h Held) bool { return h.Finger == p.Leaper && h.Finger > 0 })
	if at < 0 {
		return nil, fmt.Errorf("finger %d does not belong to the shape, so it cannot leap", p.Leaper)
	}
	cells := []Cell{shape}
	for _, leap := range p.Leaps {
		if leap.String < 0 || leap.String >= len(p.Shape) {
			return nil, fmt.Errorf("a leap goes to string %d of the shape, which has strings 1 to %d", leap.String+1, len(p.Shape))
		}
		cell := slices.Clone(shape)
		cell[at] = Touch{String: leap.String, At: p.at(leap.Fret), Finger: p.Leaper, Held: true}
		cells = append(cells, cell)
	}
	return cells, nil
}
