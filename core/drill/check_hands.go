package drill

import (
	"fmt"

	"manudrill/core/guitar"
)

// reviewHands finds places where the two hands are in each other's way: the
// tapping hand at or below a fretted note of the string, or at the same fret on
// a neighbouring string with nothing between, unless the finger leaves at once.
func (d Drill) reviewHands(c Chart, g guitar.Guitar) (Remark, bool) {
	r := Remark{Check: "hands", Care: true, Notes: collisions(c.Notes)}
	if len(r.Notes) == 0 {
		return r, false
	}
	n := c.Notes[r.Notes[0]]
	r.Text = fmt.Sprintf("The hands meet at string %d fret %d (note %d).", n.String, n.Fret, r.Notes[0]+1)
	p, ok := d.Pattern.(interface{ tapHigher(frets int) Pattern })
	if !ok {
		return r, true
	}
	for frets := 1; frets <= 12; frets++ {
		higher := d
		higher.Pattern = p.tapHigher(frets)
		if len(higher.Check(g)) > 0 {
			break
		}
		if chart, err := higher.write(g, c.BPM); err == nil && len(collisions(chart.Notes)) == 0 {
			r.Mends = []Mend{{fmt.Sprintf("Tap %s higher", counted(frets, "fret")), higher}}
			break
		}
	}
	return r, true
}

// collisions returns the notes at which the hands meet.
func collisions(notes []Note) []int {
	var at []int
	for i, n := range notes {
		for j := max(0, i-2); j < i; j++ {
			if meet(notes[j], n) {
				at = append(at, i)
				break
			}
		}
	}
	return at
}

// meet reports whether one note is tapped and the other fretted where there is
// no room for two hands.
func meet(a, b Note) bool {
	if a.Hand == b.Hand || a.Fret == 0 || b.Fret == 0 {
		return false
	}
	tap, fretted := a, b
	if b.Hand == TappingHand {
		tap, fretted = b, a
	}
	switch max(a.String, b.String) - min(a.String, b.String) {
	case 0:
		return tap.Fret <= fretted.Fret
	case 1:
		return tap.Fret == fretted.Fret
	}
	return false
}

func (p Tapping) tapHigher(frets int) Pattern {
	p.TapAt += frets
	return p
}

func (p TwoHands) tapHigher(frets int) Pattern {
	higher := make([]int, len(p.Tapped))
	for i, f := range p.Tapped {
		higher[i] = f + frets
	}
	p.Tapped = higher
	return p
}

// ChordsOf names the chord of each place the cell is carried to, where both
// hands sound together; places without one it knows are left out.
func ChordsOf(c Chart) []PlacedChord {
	out := []PlacedChord{}
	if !usesTaps(c.Notes) {
		return out
	}
	for from := 0; from < len(c.Notes); {
		to := from
		var sounding []int
		for to < len(c.Notes) && c.Notes[to].Cell == c.Notes[from].Cell {
			sounding = append(sounding, c.Notes[to].MIDI)
			to++
		}
		if chord, known := guitar.ChordOf(sounding); known {
			out = append(out, PlacedChord{From: from, To: to - 1, Chord: chord})
		}
		from = to
	}
	return out
}

// PlacedChord is the chord that some notes form together.
type PlacedChord struct {
	From  int          `json:"from"` // note of the chart
	To    int          `json:"to"`   // the last one
	Chord guitar.Chord `json:"chord"`
}

func usesTaps(notes []Note) bool {
	for _, n := range notes {
		if n.Hand == TappingHand {
			return true
		}
	}
	return false
}
