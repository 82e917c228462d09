package drill

import (
	"encoding/json"
	"fmt"
	"strings"
	"unicode"

	"manudrill/core/bounds"
	"manudrill/core/drill/chart"
	"manudrill/core/guitar"
	"manudrill/core/words"
)

// MaxName is the most characters a drill's name may have.
const MaxName = 120

// A Drill is one or more parts played without a stop, independent of one student. Its
// first part's settings are its own.
type Drill struct {
	Name string `json:"name"`
	Part
	Then   []Part `json:"then,omitempty"` // the parts after the first; each begins on the beat
	Rhythm Rhythm `json:"rhythm"`
}

// New returns a drill of a pattern with plain settings: position 5, all six
// strings from the thickest, one stroke a cell, two notes a beat.
func New(name string, p Pattern) Drill {
	return Drill{
		Name: name, Rhythm: Rhythm{NotesPerBeat: 2, BeatsPerBar: 4, Passes: 2},
		Part: Part{
			Pattern: p,
			Path: Path{
				Position: 5, Strings: []int{6, 5, 4, 3, 2, 1}, Spread: Neighbours, Back: OneWay,
				Stay: Stay{1, Times}, Shift: Shift{Each: EachRound},
			},
			Attacks: Attacks{Rule: Slurred}, Strokes: Strokes{Rule: Alternate},
			Fingering: Fingering{Stretch: ByMiddle, TapFinger: 2},
		},
	}
}

// Divided returns the drill with another number of notes per beat; where they do not share the
// beat by twos they are straight.
func (d Drill) Divided(notesPerBeat int) Drill {
	d.Rhythm.NotesPerBeat = notesPerBeat
	if notesPerBeat%2 != 0 {
		d.Rhythm.Swing = 0
	}
	return d
}

// drillJSON is a drill as it is written: the first part's settings among its own.
type drillJSON struct {
	Name string `json:"name"`
	partJSON
	Then   []Part `json:"then,omitempty"`
	Rhythm Rhythm `json:"rhythm"`
}

// MarshalJSON writes the drill with its pattern's kind among the pattern's fields.
func (d Drill) MarshalJSON() ([]byte, error) {
	first, err := d.written()
	if err != nil {
		return nil, err
	}
	return json.Marshal(drillJSON{d.Name, first, d.Then, d.Rhythm})
}

// UnmarshalJSON reads a drill and picks its pattern by kind. Unknown fields are
// refused, so that a misspelt one is not lost silently.
func (d *Drill) UnmarshalJSON(b []byte) error {
	var j drillJSON
	if err := strict(b, &j); err != nil {
		return err
	}
	first, err := j.read()
	if err == nil {
		*d = Drill{Name: j.Name, Part: first, Then: j.Then, Rhythm: j.Rhythm}
	}
	return err
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
	if len(d.Then) >= chart.MaxParts {
		faults.Add("then", "A drill has 1 to %d parts, not %d.", chart.MaxParts, len(d.Then)+1)
		return faults
	}
	d.Rhythm.check(&faults)
	for i, p := range d.Parts() {
		var own Faults
		p.check(g, &own)
		faults = append(faults, d.inPart(i, own)...)
	}
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

// checkLine looks at the notes laid out at a tempo: there must be some, not too
// many, all on the neck.
func (d Drill) checkLine(g guitar.Guitar, bpm float64, faults *Faults) line {
	var whole line
	by := d.layoutFor(g, guitar.UsualHand(), bpm)
	for i, p := range d.Parts() {
		var own Faults
		l, err := p.lay(by)
		switch text := l.offNeck(g); {
		case err != nil:
			own.Add("pattern", "%s.", words.Sentence(err.Error()))
		case len(l) == 0:
			own.Add("pattern", "This makes no notes; choose at least one cell.")
		case len(l) <= chart.MaxNotes && text != "":
			own = append(own, d.Alone(i).neckFault(g, text))
		}
		*faults = append(*faults, d.inPart(i, own)...)
		whole = append(whole, l...)
		if len(whole) > chart.MaxNotes {
			break
		}
	}
	if len(*faults) == 0 {
		whole = d.Rhythm.close(whole)
	}
	if len(*faults) == 0 && len(whole)*d.Rhythm.Passes > chart.MaxNotes {
		*faults = append(*faults, d.tooMany(bpm))
	}
	return whole
}

// tooMany is the fault of a drill that makes too many notes at a tempo.
func (d Drill) tooMany(bpm float64) Fault {
	f := Fault{Field: "rhythm.passes", Text: fmt.Sprintf("This makes more than %d notes in a take. Use fewer passes, parts, strings, cells or shifts, or a shorter stay.", chart.MaxNotes)}
	if d.HangsOnTempo() {
		f.Text = fmt.Sprintf("At %g bpm this makes more than %d notes in a take, for something lasts so many seconds. Let it last a shorter time, use fewer parts or passes, or lower the target.", bpm, chart.MaxNotes)
	}
	return f
}
