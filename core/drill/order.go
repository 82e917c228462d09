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
	// OneByOne is of a shape on two strings alone: one note after another changes strings.
	OneByOne Order = "oneByOne"
)

// Orders are those that every run and shape can have.
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

// groups are the notes in sequence; a run shorter than a group stays whole, as one note
// after another.
func (s Sequence) groups(c Cell) []Cell {
	length, advance := s.Length, s.Advance
	if length == 0 || len(c) < length {
		length, advance = 1, 1
	}
	var out []Cell
	for at := 0; at+length <= len(c); at += advance {
		out = append(out, c[at:at+length])
	}
	return out
}

// arrange plays a shape, given from its lowest note to its highest, in an order, as one
// cell. A cascade takes as many notes at a time as window says.
func (o Order) arrange(c Cell, seq Sequence, window int, turn Turn) ([]Cell, error) {
	if err := seq.check(); err != nil {
		return nil, err
	}
	down := slices.Clone(c)
	slices.Reverse(down)
	switch o {
	case Up:
		return []Cell{slices.Concat(seq.groups(c)...)}, nil
	case Down:
		return []Cell{slices.Concat(seq.groups(down)...)}, nil
	case Both:
		return []Cell{turned(seq.groups(c), seq.groups(down), turn)}, nil
	case Cascade:
		return []Cell{thereAndBack(windows(down, window), turn)}, nil
	}
	return nil, fmt.Errorf("the order is %q; choose up, down, both or cascade", o)
}

// turned joins groups there and back. Unless the turning notes are played again, no note
// sounds twice in a row, in the middle or where it starts anew: a group that would begin on
// the note before is left out whole, so that the others stand where they stood on the beat.
func turned(there, back []Cell, turn Turn) Cell {
	if turn != TurnAgain && len(there) > 0 && len(back) > 0 {
		last := there[len(there)-1]
		if last[len(last)-1] == back[0][0] {
			back = back[1:]
		}
		if n := len(back); n > 0 && back[n-1][len(back[n-1])-1] == there[0][0] && len(there)+n > 2 {
			back = back[:n-1]
		}
	}
	return slices.Concat(slices.Concat(there...), slices.Concat(back...))
}

// windows moves a window of notes down the shape, one note at a time.
func windows(down Cell, window int) (out []Cell) {
	for at := range max(0, len(down)-window) + 1 {
		out = append(out, down[at:min(len(down), at+window)])
	}
	return out
}

// thereAndBack plays steps and the same backwards; the turning ones once, unless they are to
// be played again.
func thereAndBack(steps []Cell, turn Turn) Cell {
	back := slices.Clone(steps)
	slices.Reverse(back)
	if turn != TurnAgain {
		back = back[1:max(1, len(back)-1)]
	}
	return slices.Concat(slices.Concat(steps...), slices.Concat(back...))
}
