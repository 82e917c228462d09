package drill

import (
	"errors"
	"fmt"

	"manudrill/core/guitar"
)

// A Chart is a drill written out note by note for one instrument at one tempo.
type Chart struct {
	Name         string  `json:"name"`
	BPM          float64 `json:"bpm"`
	NotesPerBeat int     `json:"notesPerBeat"`
	Tuning       []int   `json:"tuning"` // open strings as MIDI notes, string 1 first
	Passes       int     `json:"passes,omitempty"`
	Notes        []Note  `json:"notes"`
}

// A Note is one note of a chart.
type Note struct {
	Beat   float64 `json:"beat"` // from the first note
	String int     `json:"string"`
	Fret   int     `json:"fret"`
	MIDI   int     `json:"midi"`
	Attack Attack  `json:"attack"`
	Finger int     `json:"finger"` // 0 is the open string
	Hand   Hand    `json:"hand"`
	Stroke Stroke  `json:"stroke,omitempty"`
}

// Chart writes the drill out for g at a tempo in beats per minute. The error is
// of type [Faults] when the drill cannot be played on g.
func (d Drill) Chart(g guitar.Guitar, bpm float64) (Chart, error) {
	if faults := d.Check(g); len(faults) > 0 {
		return Chart{}, faults
	}
	cells, err := d.Pattern.Cells()
	if err != nil {
		return Chart{}, err
	}
	c := Chart{Name: d.Name, BPM: bpm, NotesPerBeat: d.NotesPerBeat, Tuning: g.Tuning, Passes: d.Passes}
	for _, cell := range cells {
		for _, str := range d.path() {
			for range d.Repeats {
				for _, t := range cell {
					c.add(g, str, d.Position, t)
				}
			}
		}
	}
	alternate(c.Notes)
	return c, c.Validate()
}

// add puts one touch of a cell on a string at the end of the chart.
func (c *Chart) add(g guitar.Guitar, str, position int, t Touch) {
	fret := position + t.Finger - 1
	c.Notes = append(c.Notes, Note{
		Beat:   float64(len(c.Notes)) / float64(c.NotesPerBeat),
		String: str, Fret: fret, MIDI: g.Tuning[str-1] + fret,
		Attack: t.Attack, Finger: t.Finger, Hand: FrettingHand,
	})
}

// alternate flips the stroke at each picked note, from a down stroke; slurred
// notes take none.
func alternate(notes []Note) {
	next := Down
	for i := range notes {
		if notes[i].Attack != Pick {
			continue
		}
		notes[i].Stroke = next
		if next == Down {
			next = Up
		} else {
			next = Down
		}
	}
}

// Beats returns the length of one pass. The last note lasts one division, so
// that the next pass goes on without a break.
func (c Chart) Beats() float64 {
	if len(c.Notes) == 0 {
		return 0
	}
	return c.Notes[len(c.Notes)-1].Beat + 1/float64(c.NotesPerBeat)
}

// Seconds returns the length of one pass at the chart's tempo.
func (c Chart) Seconds() float64 { return c.Beats() * 60 / c.BPM }

// NotesPerSecond returns bpm × notes per beat / 60.
func (c Chart) NotesPerSecond() float64 { return c.BPM * float64(c.NotesPerBeat) / 60 }

// Unroll returns the notes of a whole take: all passes one after another.
func (c Chart) Unroll() []Note {
	passes := max(1, c.Passes)
	out := make([]Note, 0, passes*len(c.Notes))
	for p := range passes {
		for _, n := range c.Notes {
			n.Beat += float64(p) * c.Beats()
			out = append(out, n)
		}
	}
	return out
}

// Validate says what makes a chart unusable, or nil. Charts come from files too.
func (c Chart) Validate() error {
	switch {
	case len(c.Notes) == 0:
		return errors.New("the chart has no notes")
	case c.BPM <= 0 || c.BPM > 1000:
		return fmt.Errorf("the chart's tempo is %g bpm; give more than 0 and at most 1000", c.BPM)
	case c.NotesPerBeat < 1:
		return fmt.Errorf("the chart has %d notes per beat; give at least 1", c.NotesPerBeat)
	case c.Passes < 0 || c.Passes*len(c.Notes) > MaxNotes:
		return fmt.Errorf("the chart asks for %d passes of %d notes; %d notes is the most", c.Passes, len(c.Notes), MaxNotes)
	}
	for i, n := range c.Notes {
		switch {
		case !n.Attack.Known():
			return fmt.Errorf("note %d has the attack %q, which is not known", i, n.Attack)
		case n.MIDI < 0 || n.MIDI > 127:
			return fmt.Errorf("note %d has the MIDI note %d; give 0 to 127", i, n.MIDI)
		case i > 0 && n.Beat < c.Notes[i-1].Beat:
			return fmt.Errorf("note %d starts before note %d; write the notes in order", i, i-1)
		}
	}
	return nil
}
