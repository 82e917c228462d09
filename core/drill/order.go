package drill

import (
	"fmt"
	"slices"
)

// An Order is the way a shape or a run is played through.
type Order string

// Up from the lowest note, down from the highest, up and down again without
// doubling the turning notes, or the cascade: one note after another gives way
// to the next lower one, down to the bottom and back.
const (
	Up      Order = "up"
	Down    Order = "down"
	Both    Order = "both"
	Cascade Order = "cascade"
)

// Orders are all four.
var Orders = []Order{Up, Down, Both, Cascade}

// A Sequence breaks a run into overlapping groups: of three by one is
// 1-2-3, 2-3-4 …; of four by two is up three and back one.
type Sequence struct {
	Length  int `json:"length"`  // notes in a group; 0 leaves the run whole
	Advance int `json:"advance"` // by how many notes the next group starts later
}

func (s Sequence) check() error {
	if s.Length == 0 {
		return nil
	}
	if s.Length < 2 || s.Length > 12 || s.Advance < 1 || s.Advance > s.Length {
		return fmt.Errorf("a sequence goes by groups of 2 to 12 notes that start 1 note to a whole group apart, not %d by %d", s.Length, s.Advance)
	}
	return nil
}

// over returns the notes in sequence; a run shorter than a group stays whole.
func (s Sequence) over(c Cell) Cell {
	if s.Length == 0 || len(c) < s.Length {
		return c
	}
	var out Cell
	for at := 0; at+s.Length <= len(c); at += s.Advance {
		out = append(out, c[at:at+s.Length]...)
	}
	return out
}

// arrange plays a shape, given from its lowest note to its highest, in an
// order. A cascade takes as many notes at a time as window says.
func (o Order) arrange(c Cell, seq Sequence, window int) (Cell, error) {
	if err := seq.check(); err != nil {
		return nil, err
	}
	down := slices.Clone(c)
	slices.Reverse(down)
	switch o {
	case Up:
		return seq.over(c), nil
	case Down:
		return seq.over(down), nil
	case Both:
		return closed(seq.over(c), seq.over(down)), nil
	case Cascade:
		return cascade(down, window), nil
	}
	return nil, fmt.Errorf("the order is %q; choose up, down, both or cascade", o)
}

// closed joins the way up and the way down without doubling the two turning
// notes: in the middle, and at the end, where it starts again.
func closed(up, down Cell) Cell {
	out := slices.Clone(up)
	if len(down) > 0 && out[len(out)-1] == down[0] {
		down = down[1:]
	}
	out = append(out, down...)
	if len(out) > 2 && out[len(out)-1] == out[0] {
		out = out[:len(out)-1]
	}
	return out
}

// cascade moves a window of notes down the shape, one note at a time, and back
// up without doubling the turning windows.
func cascade(down Cell, window int) Cell {
	last := max(0, len(down)-window)
	var out Cell
	for at := range last + 1 {
		out = append(out, down[at:min(len(down), at+window)]...)
	}
	for at := last - 1; at > 0; at-- {
		out = append(out, down[at:at+window]...)
	}
	return out
}
