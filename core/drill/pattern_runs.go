package drill

import (
	"fmt"
	"slices"

	"manudrill/core/drill/chart"
	"manudrill/core/guitar"
)

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
func (p ScaleRun) Cells(path Path) ([]Cell, error) {
	c, err := run(len(path.first()), p.PerString, 0)
	if err != nil {
		return nil, err
	}
	if p.TopTapped {
		for i := range c {
			if i == len(c)-1 || c[i+1].String != c[i].String {
				c[i].Hand = chart.TappingHand
			}
		}
	}
	return p.Order.arrange(c, p.Sequence, p.PerString[0], path.Turn)
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
func (p MixedRun) Cells(path Path) ([]Cell, error) {
	c, err := run(len(path.first()), []int{p.Slurred, p.Picked}, 0)
	if err != nil {
		return nil, err
	}
	for i := range c {
		if c[i].String%2 == 1 {
			c[i].Attack = chart.Pick
		}
	}
	return p.Order.arrange(c, p.Sequence, p.Slurred, path.Turn)
}

// SkipArpeggio runs through a chord over strings that are not neighbours. An extra note, on
// the last string or anywhere, makes the way up and down close on the beat.
type SkipArpeggio struct {
	PerString int    `json:"perString"`
	Extra     int    `json:"extra"`             // notes more on the last string
	ExtraAt   *Fixed `json:"extraAt,omitempty"` // and one more, at a place of its own
	Order     Order  `json:"order"`
}

// Fixed is a place on the neck by string and fret.
type Fixed struct {
	String int `json:"string"`
	Fret   int `json:"fret"`
}

// Kind returns "skipArpeggio".
func (SkipArpeggio) Kind() string { return "skipArpeggio" }

// Cells returns the arpeggio as one cell over all strings.
func (p SkipArpeggio) Cells(path Path) ([]Cell, error) {
	if p.Extra < 0 || p.Extra > 3 {
		return nil, fmt.Errorf("add 0 to 3 notes on the last string, not %d", p.Extra)
	}
	c, err := run(len(path.first()), []int{p.PerString}, p.Extra)
	if err != nil {
		return nil, err
	}
	if p.ExtraAt != nil {
		if c, err = p.withExtra(c, path); err != nil {
			return nil, err
		}
	}
	return p.Order.arrange(c, Sequence{}, p.PerString, path.Turn)
}

// withExtra puts the note at its own place among those of the run: before the first that
// the path comes to later.
func (p SkipArpeggio) withExtra(c Cell, path Path) (Cell, error) {
	e, strings := *p.ExtraAt, path.first()
	if e.String < 1 || e.String > guitar.MaxStrings || e.Fret < 1 || e.Fret > guitar.MaxFrets {
		return nil, fmt.Errorf("the extra note is on string %d at fret %d; strings are 1 to %d, frets 1 to %d", e.String, e.Fret, guitar.MaxStrings, guitar.MaxFrets)
	}
	extra := Touch{Extra: e.String, At: Place{AtFret, e.Fret}}
	if own := slices.Index(strings, e.String); own >= 0 {
		extra.Extra, extra.String = 0, own
		at := slices.IndexFunc(c, func(t Touch) bool { return t.String > own })
		if at < 0 {
			at = len(c)
		}
		return slices.Insert(slices.Clone(c), at, extra), nil
	}
	downwards := len(strings) > 1 && strings[0] < strings[1] // from thin to thick
	at := slices.IndexFunc(c, func(t Touch) bool { return (strings[t.String] < e.String) != downwards })
	if at < 0 {
		at = len(c)
	}
	return slices.Insert(slices.Clone(c), at, extra), nil
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
func (p OneString) Cells(Path) ([]Cell, error) {
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

// CloseOnFirst ends the cell on the note it began with.
func (p OneString) CloseOnFirst() Pattern {
	p.Steps = append(append([]int{}, p.Steps...), p.Steps[0])
	return p
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
func (p Triad) Cells(path Path) ([]Cell, error) {
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
	return p.Order.arrange(cell, Sequence{}, len(cell), path.Turn)
}

// checkKey says of a key in which there are no thirds one over the other.
func (Triad) checkKey(k guitar.Key) error {
	if k.Size() != 7 {
		return fmt.Errorf("small chords are built in thirds on a scale of seven notes; %s has %d, so choose another, or a run through a chord", k.Name(), k.Size())
	}
	return nil
}

// thirds are the degrees of a triad in a seven-note key.
var thirds = [3]int{0, 2, 4}
