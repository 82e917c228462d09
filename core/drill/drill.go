package drill

import (
	"bytes"
	"encoding/json"
	"fmt"
	"strings"
	"unicode"

	"manudrill/core/bounds"
	"manudrill/core/guitar"
)

// MaxName is the most characters a drill's name may have.
const MaxName = 120

// MaxNotes is the most notes a take may have, all passes together.
const MaxNotes = 4000

// A Drill is a pattern with its path, attacks, rhythm and strokes, independent
// of one student.
type Drill struct {
	Name      string      `json:"name"`
	Pattern   Pattern     `json:"pattern"`
	Key       *guitar.Key `json:"key,omitempty"` // for patterns that lie in one
	Path      Path        `json:"path"`
	Attacks   Attacks     `json:"attacks"`
	Rhythm    Rhythm      `json:"rhythm"`
	Strokes   Strokes     `json:"strokes"`
	Fingering Fingering   `json:"fingering"`
	Mirror    bool        `json:"mirror"`  // cells turned over in the hand
	Reverse   bool        `json:"reverse"` // the whole pass from its end
}

// New returns a drill of a pattern with plain settings: position 5, all six
// strings from the thickest, one stroke a cell, two notes a beat.
func New(name string, p Pattern) Drill {
	return Drill{
		Name: name, Pattern: p,
		Path: Path{
			Position: 5, Strings: []int{6, 5, 4, 3, 2, 1}, Spread: Neighbours, Back: OneWay,
			Stay: Stay{1, Times}, Shift: Shift{Each: EachRound},
		},
		Attacks: Attacks{Rule: Slurred}, Rhythm: Rhythm{NotesPerBeat: 2, BeatsPerBar: 4, Passes: 2},
		Strokes: Strokes{Rule: Alternate}, Fingering: Fingering{Stretch: ByMiddle, TapFinger: 2},
	}
}

// Divided returns the drill with another number of notes per beat.
func (d Drill) Divided(notesPerBeat int) Drill {
	d.Rhythm.NotesPerBeat = notesPerBeat
	return d
}

// plain is a Drill without its methods, for encoding/json.
type plain Drill

// MarshalJSON writes the drill with its pattern's kind among the pattern's fields.
func (d Drill) MarshalJSON() ([]byte, error) {
	if d.Pattern == nil {
		return nil, fmt.Errorf("the drill has no pattern")
	}
	p, err := writePattern(d.Pattern)
	if err != nil {
		return nil, err
	}
	return json.Marshal(struct {
		plain
		Pattern json.RawMessage `json:"pattern"`
	}{plain(d), p})
}

// UnmarshalJSON reads a drill and picks its pattern by kind. Unknown fields are
// refused, so that a misspelt one is not lost silently.
func (d *Drill) UnmarshalJSON(b []byte) error {
	var j struct {
		plain
		Pattern json.RawMessage `json:"pattern"`
	}
	if err := strict(b, &j); err != nil {
		return err
	}
	if len(j.Pattern) == 0 {
		return fmt.Errorf("the drill has no pattern")
	}
	p, err := readPattern(j.Pattern)
	if err != nil {
		return err
	}
	*d = Drill(j.plain)
	d.Pattern = p
	return nil
}

func strict(b []byte, into any) error {
	dec := json.NewDecoder(bytes.NewReader(b))
	dec.DisallowUnknownFields()
	return dec.Decode(into)
}

// Check returns what keeps d from being written out, empty when nothing does.
// Whether hands can play it is the matter of [Drill.Review].
func (d Drill) Check(g guitar.Guitar) Faults {
	var faults Faults
	if strings.TrimSpace(d.Name) == "" {
		faults.Add("name", "Give the drill a name.")
	}
	if strings.ContainsFunc(d.Name, unicode.IsControl) {
		faults.Add("name", "The name holds a line break or another character that is not seen; type it anew.")
	}
	d.Path.check(g, &faults)
	d.Attacks.check(&faults)
	d.Rhythm.check(&faults)
	d.Strokes.check(&faults)
	d.Fingering.check(&faults)
	d.checkCells(&faults)
	if len(faults) > 0 {
		return faults
	}
	d.checkLine(g, usualBPM, &faults)
	return faults
}

// usualBPM is a tempo at which a drill is looked at whose own is not known.
const usualBPM = 60

// CheckAt returns what keeps a drill that has no other faults from being played at
// a tempo on g: a stay of so many seconds has more notes the faster it is, and a
// take lasts the longer the slower it is.
func (d Drill) CheckAt(g guitar.Guitar, bpm float64) (faults Faults) {
	l := d.checkLine(g, bpm, &faults)
	if len(faults) > 0 {
		return faults
	}
	seconds := float64(len(l)*d.Rhythm.Passes) / float64(d.Rhythm.NotesPerBeat) * 60 / bpm
	if seconds > bounds.TakeSeconds {
		return tooLong(seconds, bpm)
	}
	return nil
}

func (d Drill) checkCells(faults *Faults) {
	if d.Pattern == nil {
		faults.Add("pattern", "Choose a pattern.")
		return
	}
	cells, err := d.Pattern.Cells(len(d.Path.Strings))
	if err != nil {
		faults.Add("pattern", "%s.", sentence(err.Error()))
		return
	}
	if usesKey(cells) {
		if d.Key == nil {
			faults.Add("key", "Choose a key: this pattern follows a scale.")
		} else if err := d.Key.Validate(); err != nil {
			faults.Add("key", "%s.", sentence(err.Error()))
		}
	}
	width := stringsOf(cells)
	groups := d.Path.groups(width)
	if len(groups) == 0 && len(d.Path.Strings) > 0 {
		faults.Add("path.strings", "This pattern lies on %d strings; choose %d or more.", width, width)
	}
	for _, group := range groups {
		if len(group) < width {
			faults.Add("path.groups", "This pattern lies on %d strings; the group %v has %d.", width, group, len(group))
			return
		}
	}
}

// checkLine looks at the notes laid out at a tempo: there must be some, not too
// many, all on the neck.
func (d Drill) checkLine(g guitar.Guitar, bpm float64, faults *Faults) line {
	l, err := d.lay(g, bpm)
	switch {
	case err != nil:
		faults.Add("pattern", "%s.", sentence(err.Error()))
	case len(l) == 0:
		faults.Add("pattern", "This makes no notes; choose at least one cell.")
	case len(l)*d.Rhythm.Passes > MaxNotes:
		faults.Add("rhythm.passes", "This makes more than %d notes in a take. Use fewer passes, strings, cells or shifts, or a shorter stay.", MaxNotes)
	default:
		if text := l.offNeck(g); text != "" {
			*faults = append(*faults, d.neckFault(g, text))
		}
	}
	return l
}

// sentence gives a message a capital letter.
func sentence(s string) string { return strings.ToUpper(s[:1]) + s[1:] }
