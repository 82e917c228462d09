package drill

import (
	"math"

	"manudrill/core/bounds"
	"manudrill/core/drill/chart"
	"manudrill/core/guitar"
)

// Chart writes the drill out for g at a tempo in beats per minute, with fingers that suit
// the usual hand. The error is of type [Faults] when the drill cannot be written out for g.
func (d Drill) Chart(g guitar.Guitar, bpm float64) (chart.Chart, error) {
	return d.ChartFor(g, guitar.UsualHand(), bpm)
}

// ChartFor is Chart with fingers that suit somebody's hand.
func (d Drill) ChartFor(g guitar.Guitar, h guitar.Hand, bpm float64) (chart.Chart, error) {
	if faults := d.Check(g); len(faults) > 0 {
		return chart.Chart{}, faults
	}
	l, err := d.lay(d.layoutFor(g, h, bpm))
	if err != nil {
		return chart.Chart{}, err
	}
	c := chart.Chart{
		Name: d.Name, BPM: bpm, NotesPerBeat: d.Rhythm.NotesPerBeat, BeatsPerBar: d.Rhythm.BeatsPerBar,
		Passes: d.Rhythm.Passes, Free: d.Rhythm.Free, Swing: d.Rhythm.Swing, Parts: d.titles(),
	}
	for s := range g.Tuning {
		c.Tuning = append(c.Tuning, g.Sound(s+1, 0))
	}
	parts := d.Parts()
	if k := parts[0].Key; k != nil {
		c.Fifths = k.Fifths()
	}
	for i, s := range l {
		c.Notes = append(c.Notes, parts[s.part].note(c, i, s))
	}
	for i, p := range parts {
		p.finish(c.OfPart(i))
	}
	if c.TakeSeconds() > bounds.TakeSeconds {
		return chart.Chart{}, tooLong(c.TakeSeconds(), bpm)
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

func (p Part) note(c chart.Chart, i int, s spot) chart.Note {
	n := chart.Note{
		Beat:   float64(i) / float64(c.NotesPerBeat),
		String: s.str, Fret: s.fret, Attack: s.attack, Finger: s.finger, Hand: s.Hand, Cell: s.station, Back: s.back, Part: s.part, Own: s.own > 0, Keep: s.Held && s.fret > 0,
	}
	if n.Hand == "" {
		n.Hand = chart.FrettingHand
	}
	if s.fret > 0 {
		n.Bend = p.Fingering.BendHeld
	}
	n.MIDI = c.Tuning[s.str-1] + s.fret + n.Bend
	return n
}

// finish gives the notes of a part what hangs on those around them, and their spelling.
func (p Part) finish(notes []chart.Note) {
	speller := guitar.NewSpeller(p.Key)
	for i, n := range notes {
		notes[i].Written = speller.Spell(n.MIDI - n.Bend).String()
	}
	p.Strokes.assign(notes)
	if p.Fingering.KeepDown {
		keepDown(notes)
	}
}

// keepDown marks the fingers that stay where they are while a higher one is put
// down on the same string.
func keepDown(notes []chart.Note) {
	for i := 1; i < len(notes); i++ {
		a, b := &notes[i-1], notes[i]
		a.Keep = a.Keep || a.String == b.String && a.Hand == b.Hand && a.Finger > 0 && b.Finger > a.Finger && b.Fret > a.Fret
	}
}
