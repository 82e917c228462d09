package drill

import "fmt"

// ScaleRun runs through the key over all strings of the path, from the first
// degree at or above the position on the thickest of them.
type ScaleRun struct {
	PerString []int    `json:"perString"` // notes on each string in turn
	Order     Order    `json:"order"`
	Sequence  Sequence `json:"sequence"`
	TopTapped bool     `json:"topTapped"` // the highest note of each string is tapped
}

// Kind returns "scaleRun".
func (ScaleRun) Kind() string { return "scaleRun" }

// Cells returns the run as one cell over all strings.
func (p ScaleRun) Cells(strings int) ([]Cell, error) {
	c, err := run(strings, p.PerString, 0)
	if err != nil {
		return nil, err
	}
	if p.TopTapped {
		for i := range c {
			if i == len(c)-1 || c[i+1].String != c[i].String {
				c[i].Hand = TappingHand
			}
		}
	}
	return arranged(p.Order, c, p.Sequence, p.PerString[0])
}

// MixedRun is a run with so many slurred notes on one string and so many picked
// ones on the next.
type MixedRun struct {
	Slurred  int      `json:"slurred"`
	Picked   int      `json:"picked"`
	Order    Order    `json:"order"`
	Sequence Sequence `json:"sequence"`
}

// Kind returns "mixedRun".
func (MixedRun) Kind() string { return "mixedRun" }

// Cells returns the run as one cell over all strings.
func (p MixedRun) Cells(strings int) ([]Cell, error) {
	c, err := run(strings, []int{p.Slurred, p.Picked}, 0)
	if err != nil {
		return nil, err
	}
	for i := range c {
		if c[i].String%2 == 1 {
			c[i].Attack = Pick
		}
	}
	return arranged(p.Order, c, p.Sequence, p.Slurred)
}

// SkipArpeggio runs through a chord over strings that are not neighbours. An
// extra note on the last string makes the way up and down close on the beat.
type SkipArpeggio struct {
	PerString int   `json:"perString"`
	Extra     int   `json:"extra"`
	Order     Order `json:"order"`
}

// Kind returns "skipArpeggio".
func (SkipArpeggio) Kind() string { return "skipArpeggio" }

// Cells returns the arpeggio as one cell over all strings.
func (p SkipArpeggio) Cells(strings int) ([]Cell, error) {
	if p.Extra < 0 || p.Extra > 3 {
		return nil, fmt.Errorf("add 0 to 3 notes on the last string, not %d", p.Extra)
	}
	c, err := run(strings, []int{p.PerString}, p.Extra)
	if err != nil {
		return nil, err
	}
	return arranged(p.Order, c, Sequence{}, p.PerString)
}

func arranged(o Order, c Cell, seq Sequence, window int) ([]Cell, error) {
	c, err := o.arrange(c, seq, window)
	return []Cell{c}, err
}

// run takes the degrees of the key one after another, so many on each string.
func run(strings int, perString []int, extra int) (Cell, error) {
	if len(perString) == 0 {
		return nil, fmt.Errorf("say how many notes lie on a string, 1 to 4")
	}
	var c Cell
	for s := range strings {
		n := perString[s%len(perString)]
		if n < 1 || n > 4 {
			return nil, fmt.Errorf("a run has 1 to 4 notes on a string, not %d", n)
		}
		if s == strings-1 {
			n += extra
		}
		for range n {
			c = append(c, degree(s, len(c)))
		}
	}
	return c, nil
}

// OneString is a cell on one string that the path moves through the degrees of
// the key.
type OneString struct {
	Steps []int `json:"steps"` // degrees above where the cell stands, in the order played; -1 is the open string
}

// Kind returns "oneString".
func (OneString) Kind() string { return "oneString" }

// Cells returns the one cell.
func (p OneString) Cells(int) ([]Cell, error) {
	if len(p.Steps) < 2 || len(p.Steps) > 16 {
		return nil, fmt.Errorf("a cell on one string has 2 to 16 notes, not %d", len(p.Steps))
	}
	cell := make(Cell, len(p.Steps))
	for i, s := range p.Steps {
		switch {
		case s < -1 || s > 11:
			return nil, fmt.Errorf("the cell names step %d; give 0 to 11, or -1 for the open string", s)
		case s >= 0:
			cell[i] = degree(0, s)
		}
	}
	return []Cell{cell}, nil
}

// Triad is a small chord, one note a string, built in thirds on a degree of the
// key; the path moves it through the degrees.
type Triad struct {
	Voices []int `json:"voices"` // which chord notes, one a string: 0 root, 1 third, 2 fifth, 3 root above …
	Order  Order `json:"order"`
}

// Kind returns "triad".
func (Triad) Kind() string { return "triad" }

// Cells returns the chord as one cell, each voice on the next string.
func (p Triad) Cells(int) ([]Cell, error) {
	if len(p.Voices) < 3 || len(p.Voices) > 4 {
		return nil, fmt.Errorf("a small chord has 3 or 4 notes, one a string, not %d", len(p.Voices))
	}
	cell := make(Cell, len(p.Voices))
	for i, v := range p.Voices {
		if v < 0 || v > 8 {
			return nil, fmt.Errorf("the chord names voice %d; give 0 (root), 1 (third), 2 (fifth), 3 (root above) to 8", v)
		}
		cell[i] = degree(i, thirds[v%3]+7*(v/3))
	}
	return arranged(p.Order, cell, Sequence{}, len(cell))
}

// thirds are the degrees of a triad in a seven-note key.
var thirds = [3]int{0, 2, 4}
