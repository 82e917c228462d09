package drill

import (
	"encoding/json"
	"fmt"
	"slices"
	"strings"

	"manudrill/core/guitar"
)

// Bounds on what one drill may ask for.
const (
	MaxRepeats = 16
	MaxPasses  = 64
	MaxNotes   = 4000 // in a take, all passes together
)

// Divisions are the notes per beat a drill may have.
var Divisions = []int{1, 2, 3, 4, 6, 8}

// A Drill is a pattern with its path and rhythm, independent of one student.
type Drill struct {
	Name         string
	Pattern      Pattern
	Position     int   // the fret under the first finger
	Strings      []int // in the order they are visited
	ThereAndBack bool  // visit the strings back to the first, the turning one once
	Repeats      int   // times each cell is played on a string before the next
	NotesPerBeat int
	Passes       int // times through the chart in one take
}

// drillJSON is how a Drill is written; see docs/formats.md.
type drillJSON struct {
	Name         string          `json:"name"`
	Pattern      json.RawMessage `json:"pattern"`
	Position     int             `json:"position"`
	Strings      []int           `json:"strings"`
	ThereAndBack bool            `json:"thereAndBack"`
	Repeats      int             `json:"repeats"`
	NotesPerBeat int             `json:"notesPerBeat"`
	Passes       int             `json:"passes"`
}

// MarshalJSON writes the drill with its pattern's kind among the pattern's fields.
func (d Drill) MarshalJSON() ([]byte, error) {
	if d.Pattern == nil {
		return nil, fmt.Errorf("the drill has no pattern")
	}
	p, err := writePattern(d.Pattern)
	if err != nil {
		return nil, err
	}
	return json.Marshal(drillJSON{d.Name, p, d.Position, d.Strings, d.ThereAndBack, d.Repeats, d.NotesPerBeat, d.Passes})
}

// UnmarshalJSON reads a drill and picks its pattern by kind.
func (d *Drill) UnmarshalJSON(b []byte) error {
	var j drillJSON
	if err := json.Unmarshal(b, &j); err != nil {
		return err
	}
	if len(j.Pattern) == 0 {
		return fmt.Errorf("the drill has no pattern")
	}
	p, err := readPattern(j.Pattern)
	if err != nil {
		return err
	}
	*d = Drill{j.Name, p, j.Position, j.Strings, j.ThereAndBack, j.Repeats, j.NotesPerBeat, j.Passes}
	return nil
}

// Check returns what keeps d from being played on g, empty when nothing does.
func (d Drill) Check(g guitar.Guitar) Faults {
	var faults Faults
	add := faults.Add
	if strings.TrimSpace(d.Name) == "" {
		add("name", "Give the drill a name.")
	}
	var cells []Cell
	if d.Pattern == nil {
		add("pattern", "Choose a pattern.")
	} else {
		var err error
		if cells, err = d.Pattern.Cells(); err != nil {
			add("pattern", "%s.", sentence(err.Error()))
		}
	}
	if len(d.Strings) == 0 {
		add("strings", "Choose at least one string.")
	}
	for _, s := range d.Strings {
		if !g.HasString(s) {
			add("strings", "There is no string %d on this guitar; it has strings 1 to %d.", s, len(g.Tuning))
			break
		}
	}
	if span := topFinger(cells) - 1; d.Position < 1 {
		add("position", "The position is %d; the first finger can play fret 1 at the lowest.", d.Position)
	} else if d.Position+span > g.Frets {
		add("position", "At position %d finger %d would need fret %d, but this neck ends at fret %d. Use position %d or lower.",
			d.Position, span+1, d.Position+span, g.Frets, g.Frets-span)
	}
	if d.Repeats < 1 || d.Repeats > MaxRepeats {
		add("repeats", "Play each combination 1 to %d times on a string, not %d.", MaxRepeats, d.Repeats)
	}
	if !slices.Contains(Divisions, d.NotesPerBeat) {
		add("notesPerBeat", "%d notes per beat is not offered; choose 1, 2, 3, 4, 6 or 8.", d.NotesPerBeat)
	}
	if d.Passes < 1 || d.Passes > MaxPasses {
		add("passes", "A take has 1 to %d passes, not %d.", MaxPasses, d.Passes)
	}
	if n := d.countNotes(cells) * d.Passes; len(faults) == 0 && n > MaxNotes {
		add("passes", "This makes %d notes in a take; %d is the most. Use fewer passes, strings or combinations.", n, MaxNotes)
	}
	return faults
}

func (d Drill) countNotes(cells []Cell) int {
	n := 0
	for _, c := range cells {
		n += len(c)
	}
	return n * d.Repeats * len(d.path())
}

func topFinger(cells []Cell) int {
	top := 1
	for _, c := range cells {
		for _, t := range c {
			top = max(top, t.Finger)
		}
	}
	return top
}

// sentence gives a message a capital letter.
func sentence(s string) string { return strings.ToUpper(s[:1]) + s[1:] }

// path returns the strings in the order they are visited.
func (d Drill) path() []int {
	out := slices.Clone(d.Strings)
	if d.ThereAndBack {
		for i := len(d.Strings) - 2; i >= 0; i-- {
			out = append(out, d.Strings[i])
		}
	}
	return out
}
