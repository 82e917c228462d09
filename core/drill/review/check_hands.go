package review

import (
	"fmt"

	"manudrill/core/drill"
	"manudrill/core/drill/chart"
	"manudrill/core/guitar"
	"manudrill/core/words"
)

// reviewHands finds places where the two hands are in each other's way: the
// tapping hand at or below a fretted note of the string, or at the same fret on
// a neighbouring string with nothing between, unless the finger leaves at once.
func reviewHands(d drill.Drill, c chart.Chart, g guitar.Guitar) (Remark, bool) {
	r := Remark{Check: "hands", Care: true, Notes: collisions(c.Notes)}
	if len(r.Notes) == 0 {
		return r, false
	}
	n := c.Notes[r.Notes[0]]
	r.Text = fmt.Sprintf("The hands meet at string %d fret %d (note %d).", n.String, n.Fret, r.Notes[0]+1)
	p, ok := d.Pattern.(interface{ TapHigher(frets int) drill.Pattern })
	if !ok {
		return r, true
	}
	for frets := 1; frets <= 12; frets++ {
		higher := d
		higher.Pattern = p.TapHigher(frets)
		if len(higher.Check(g)) > 0 {
			break
		}
		if written, err := higher.Chart(g, c.BPM); err == nil && len(collisions(written.Notes)) == 0 {
			r.Mends = []drill.Mend{{Text: fmt.Sprintf("Tap %s higher", words.Counted(frets, "fret")), Drill: higher}}
			break
		}
	}
	return r, true
}

// collisions returns the notes at which the hands meet.
func collisions(notes []chart.Note) []int {
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
func meet(a, b chart.Note) bool {
	if a.Hand == b.Hand || a.Fret == 0 || b.Fret == 0 {
		return false
	}
	tap, fretted := a, b
	if b.Hand == chart.TappingHand {
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
