package drill

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
	Notes        []Note   `json:"notes"`
}

// MaxRise is by how many bpm a pass may be faster than the one before.
const MaxRise = 40

// A Note is one note of a chart.
type Note struct {
	Beat    float64 `json:"beat"` // from the first note
	String  int     `json:"string"`
	Fret    int     `json:"fret"`
	MIDI    int     `json:"midi"`
	Attack  Attack  `json:"attack"`
	Finger  int     `json:"finger"` // 0 is the open string
	Hand    Hand    `json:"hand"`
	Stroke  Stroke  `json:"stroke,omitempty"`
	Bend    int     `json:"bend,omitempty"`    // semitones the string is held bent by
	Keep    bool    `json:"keep,omitempty"`    // the finger stays down under the next note
	Written string  `json:"written,omitempty"` // the fretted pitch as the key spells it: "F#4"
	Cell    int     `json:"cell,omitempty"`    // counts the places the cell is carried to, from 0
	Part    int     `json:"part,omitempty"`    // index of its part
}

// Chart writes the drill out for g at a tempo in beats per minute. The error is
// of type [Faults] when the drill cannot be written out for g.
func (d Drill) Chart(g guitar.Guitar, bpm float64) (Chart, error) {
	if faults := d.Check(g); len(faults) > 0 {
		return Chart{}, faults
	}
	return d.write(g, bpm)
}

// write is Chart for a drill that has been checked.
func (d Drill) write(g guitar.Guitar, bpm float64) (Chart, error) {
	l, err := d.lay(g, bpm)
	if err != nil {
		return Chart{}, err
	}
	c := Chart{
		Name: d.Name, BPM: bpm, NotesPerBeat: d.Rhythm.NotesPerBeat, BeatsPerBar: d.Rhythm.BeatsPerBar,
		Passes: d.Rhythm.Passes, Free: d.Rhythm.Free, Parts: d.titles(),
	}
	for s := range g.Tuning {
		c.Tuning = append(c.Tuning, g.Sound(s+1, 0))
	}
	parts := d.Parts()
	for i, s := range l {
		c.Notes = append(c.Notes, parts[s.part].note(c, i, s))
	}
	for i, p := range parts {
		p.finish(c.ofPart(i))
	}
	if c.TakeSeconds() > bounds.TakeSeconds {
		return Chart{}, tooLong(c.TakeSeconds(), bpm)
	}
	return c, c.Validate()
}

// tooLong is the fault of a drill whose take would be too long at a tempo.
func tooLong(seconds, bpm float64) Faults {
	var faults Faults
	faults.Add("rhythm.passes", "At %g bpm a take of this lasts %.0f minutes; %d is the most. Use fewer passes, or start faster.",
		bpm, math.Ceil(seconds/60), bounds.TakeSeconds/60)
	return faults
}

func (p Part) note(c Chart, i int, s spot) Note {
	n := Note{
		Beat:   float64(i) / float64(c.NotesPerBeat),
		String: s.str, Fret: s.fret, Attack: s.attack, Finger: s.finger, Hand: s.Hand, Cell: s.station, Part: s.part,
	}
	if n.Hand == "" {
		n.Hand = FrettingHand
	}
	if s.fret > 0 {
		n.Bend = p.Fingering.BendHeld
	}
	n.MIDI = c.Tuning[s.str-1] + s.fret + n.Bend
	return n
}

// finish gives the notes of a part what hangs on those around them, and their spelling.
func (p Part) finish(notes []Note) {
	speller := guitar.NewSpeller(p.Key)
	for i, n := range notes {
		notes[i].Written = speller.Spell(n.MIDI - n.Bend).String()
	}
	p.Strokes.assign(notes)
	if p.Fingering.KeepDown {
		keepDown(notes)
	}
}

// ofPart are the notes of a part, which lie together.
func (c Chart) ofPart(i int) []Note {
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
	c.Notes = slices.Clone(c.ofPart(part))
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

// keepDown marks the fingers that stay where they are while a higher one is put
// down on the same string.
func keepDown(notes []Note) {
	for i := 1; i < len(notes); i++ {
		a, b := &notes[i-1], notes[i]
		a.Keep = a.String == b.String && a.Hand == b.Hand && a.Finger > 0 && b.Finger > a.Finger && b.Fret > a.Fret
	}
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

// Unroll returns the notes of a whole take: all passes one after another, in beats of the
// first.
func (c Chart) Unroll() []Note {
	passes := max(1, c.Passes)
	out := make([]Note, 0, passes*len(c.Notes))
	for p := range passes {
		for _, n := range c.Notes {
			n.Beat = c.passStart(p) + n.Beat/c.risen(p)
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
