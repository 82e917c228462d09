package chart

import (
	"errors"
	"fmt"
	"math"
	"slices"

	"manudrill/core/bounds"
	"manudrill/core/guitar"
)

// A Chart is a drill written out for one instrument at one tempo.
type Chart struct {
	Name         string   `json:"name"`
	BPM          float64  `json:"bpm"`
	NotesPerBeat int      `json:"notesPerBeat"`
	BeatsPerBar  int      `json:"beatsPerBar,omitempty"` // 4 where missing
	Tuning       []int    `json:"tuning"`                // open strings as MIDI notes, with the capo, string 1 first
	Passes       int      `json:"passes,omitempty"`
	Free         bool     `json:"free,omitempty"`    // the click only counts in
	Parts        []string `json:"parts,omitempty"`   // what its parts are called, where there are several
	RiseBPM      float64  `json:"riseBpm,omitempty"` // each pass is so many bpm faster than the one before
	ClickAt      *float64 `json:"clickAt,omitempty"` // of a take: when its first beat is clicked in the recording, s, where that is known
	Swing        float64  `json:"swing,omitempty"`   // share of the first of two divisions in the time of both; straight where 0
	Fifths       int      `json:"fifths,omitempty"`  // the signature it is written with: so many sharps, flats where negative
	Notes        []Note   `json:"notes"`
}

// Bounds on what a chart may hold.
const (
	MaxNotes = 4000 // of a take, all passes together
	MaxParts = 64
)

// MaxRise is by how many bpm a pass may be faster than the one before.
const MaxRise = 40

// MostSwing is the largest share of the first of two swung notes in the time of both: three
// quarters are a dotted rhythm (common practice).
const MostSwing = 0.75

// A Note is one note of a chart.
type Note struct {
	Beat    float64 `json:"beat"` // from the first note
	String  int     `json:"string"`
	Fret    int     `json:"fret"`
	MIDI    int     `json:"midi"`
	Attack  Attack  `json:"attack"`
	Finger  int     `json:"finger"`        // 0 is the open string
	Own     bool    `json:"own,omitempty"` // the finger is set by the instructor
	Hand    Hand    `json:"hand"`
	Stroke  Stroke  `json:"stroke,omitempty"`
	Bend    int     `json:"bend,omitempty"`    // semitones the string is held bent by
	Keep    bool    `json:"keep,omitempty"`    // the finger stays down under the next note
	Written string  `json:"written,omitempty"` // the fretted pitch as the key spells it: "F#4"
	Cell    int     `json:"cell,omitempty"`    // counts the places the cell is carried to, from 0
	Part    int     `json:"part,omitempty"`    // index of its part
	Back    bool    `json:"back,omitempty"`    // on the way back of the path
}

// OfPart are the notes of a part, which lie together; they are the chart's own.
func (c Chart) OfPart(i int) []Note {
	from := slices.IndexFunc(c.Notes, func(n Note) bool { return n.Part == i })
	if from < 0 {
		return nil
	}
	to := from
	for to < len(c.Notes) && c.Notes[to].Part == i {
		to++
	}
	return c.Notes[from:to]
}

// Alone is the chart of one part, from its first beat.
func (c Chart) Alone(part int) Chart {
	c.Notes = slices.Clone(c.OfPart(part))
	c.Parts = nil
	for i := len(c.Notes) - 1; i >= 0; i-- {
		c.Notes[i].Beat -= c.Notes[0].Beat
		c.Notes[i].Part = 0
	}
	return c
}

// Opening is the beginning of the chart: whole beats for about so many seconds and so many
// notes at the least. Where a pass is shorter, it is as many passes as that takes.
func (c Chart) Opening(seconds float64, notes int) Chart {
	beats := max(math.Ceil(seconds*c.BPM/60), math.Ceil(float64(notes)/float64(c.NotesPerBeat)))
	end := slices.IndexFunc(c.Notes, func(n Note) bool { return n.Beat >= beats })
	if end < 0 {
		c.Passes = int(math.Ceil(beats / c.Beats()))
		return c
	}
	c.Passes, c.Notes = 1, c.Notes[:end:end]
	c.Parts = c.Parts[:min(len(c.Parts), c.Notes[end-1].Part+1)]
	return c
}

// BarBeats returns the beats in a bar.
func (c Chart) BarBeats() int {
	if c.BeatsPerBar == 0 {
		return 4
	}
	return c.BeatsPerBar
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

// TakeSeconds returns the length of a whole take, all passes, at the chart's tempo.
func (c Chart) TakeSeconds() float64 { return c.passStart(max(1, c.Passes)) * 60 / c.BPM }

// passStart is when a pass, from 0, begins, in beats of the first: those of later passes are
// shorter where the tempo rises.
func (c Chart) passStart(pass int) float64 {
	if c.RiseBPM == 0 {
		return float64(pass) * c.Beats()
	}
	start := 0.0
	for p := range pass {
		start += c.Beats() / c.risen(p)
	}
	return start
}

// risen is how many times faster a pass is than the first.
func (c Chart) risen(pass int) float64 { return 1 + float64(pass)*c.RiseBPM/c.BPM }

// Place tells in which of so many passes, from 0, a beat of a take lies, and at which of
// its beats; what is before the first, or after the last, belongs to these.
func (c Chart) Place(beat float64, passes int) (pass int, within float64) {
	for pass+1 < passes && beat >= c.passStart(pass+1) {
		pass++
	}
	return pass, (beat - c.passStart(pass)) * c.risen(pass)
}

// NotesPerSecond returns bpm × notes per beat / 60.
func (c Chart) NotesPerSecond() float64 { return c.BPM * float64(c.NotesPerBeat) / 60 }

// Swings reports whether the notes are to be swung.
func (c Chart) Swings() bool { return c.Swing > 0.5 && c.NotesPerBeat%2 == 0 }

// SoundBeat is the beat of the chart at which a note is to sound: later than it is written
// where it is the second of two divisions and the chart swings.
func (c Chart) SoundBeat(n Note) float64 {
	if c.Swings() && c.OffDivision(n.Beat) {
		return n.Beat + (2*c.Swing-1)/float64(c.NotesPerBeat)
	}
	return n.Beat
}

// OffDivision reports whether a beat is that of the second of two divisions.
func (c Chart) OffDivision(beat float64) bool {
	at := beat * float64(c.NotesPerBeat)
	return c.NotesPerBeat%2 == 0 && math.Abs(at-math.Round(at)) < 1e-6 && int(math.Round(at))%2 == 1
}

// Unroll returns the notes of a whole take, when they are to sound: all passes one after
// another, in beats of the first.
func (c Chart) Unroll() []Note {
	passes := max(1, c.Passes)
	out := make([]Note, 0, passes*len(c.Notes))
	for p := range passes {
		for _, n := range c.Notes {
			n.Beat = c.passStart(p) + c.SoundBeat(n)/c.risen(p)
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
	case !(c.BPM > 0 && c.BPM <= 1000):
		return fmt.Errorf("the chart's tempo is %g bpm; give more than 0 and at most 1000", c.BPM)
	case c.NotesPerBeat < 1:
		return fmt.Errorf("the chart has %d notes per beat; give at least 1", c.NotesPerBeat)
	case c.BeatsPerBar < 0 || c.BeatsPerBar > 64:
		return fmt.Errorf("the chart has %d beats in a bar; give 1 to 64", c.BeatsPerBar)
	case c.ClickAt != nil && !(math.Abs(*c.ClickAt) <= bounds.TakeSeconds):
		return fmt.Errorf("the first click of the chart is at %g s; give a time within the recording", *c.ClickAt)
	case !(c.RiseBPM >= 0 && c.RiseBPM <= MaxRise):
		return fmt.Errorf("the chart's tempo rises by %g bpm a pass; give 0 to %d", c.RiseBPM, MaxRise)
	case c.Swing != 0 && !(c.Swing >= 0.5 && c.Swing <= MostSwing):
		return fmt.Errorf("the chart swings by %g; give 0.5, which is straight, to %g", c.Swing, MostSwing)
	case c.Fifths < -7 || c.Fifths > 7:
		return fmt.Errorf("the chart has a signature of %d fifths; give -7 to 7", c.Fifths)
	case len(c.Parts) > MaxParts:
		return fmt.Errorf("the chart has %d parts; %d is the most", len(c.Parts), MaxParts)
	case c.Passes < 0 || c.Passes*len(c.Notes) > MaxNotes:
		return fmt.Errorf("the chart asks for %d passes of %d notes; %d notes is the most", c.Passes, len(c.Notes), MaxNotes)
	}
	for i, n := range c.Notes {
		switch {
		case !n.Attack.Known():
			return fmt.Errorf("note %d has the attack %q, which is not known", i, n.Attack)
		case n.String < 1 || n.String > guitar.MaxStrings:
			return fmt.Errorf("note %d is on string %d; give 1 to %d", i, n.String, guitar.MaxStrings)
		case n.Fret < 0 || n.Fret > guitar.MaxFrets:
			return fmt.Errorf("note %d is at fret %d; give 0 to %d", i, n.Fret, guitar.MaxFrets)
		case n.MIDI < 0 || n.MIDI > 127:
			return fmt.Errorf("note %d has the MIDI note %d; give 0 to 127", i, n.MIDI)
		case n.Part < 0 || n.Part >= max(1, len(c.Parts)) || i > 0 && n.Part < c.Notes[i-1].Part:
			return fmt.Errorf("note %d is of part %d; give the parts' names, and the parts in order", i, n.Part)
		case i > 0 && n.Beat < c.Notes[i-1].Beat:
			return fmt.Errorf("note %d starts before note %d; write the notes in order", i, i-1)
		}
	}
	// Only now: how long it lasts is told by the last beat, which must be the greatest.
	if s := c.TakeSeconds(); !(s <= bounds.TakeSeconds) {
		return fmt.Errorf("a take of the chart would last %.0f s; %w", s, bounds.ErrTakeTooLong)
	}
	return nil
}
