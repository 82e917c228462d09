package drill

import (
	"fmt"

	"manudrill/core/guitar"
)

// offNeck says where the line leaves the neck, or comes beyond the fret the
// hand can reach on this guitar; empty when it does not.
func (l line) offNeck(g guitar.Guitar) string {
	if len(l) == 0 {
		return ""
	}
	low, high := l.frets()
	switch {
	case low.fret < 0:
		return fmt.Sprintf("A note on string %d would lie %d below the open string.", low.str, -low.fret)
	case high.fret > g.Frets-g.Capo:
		return fmt.Sprintf("A note on string %d needs fret %d, but this neck ends at fret %d.", high.str, high.fret, g.Frets-g.Capo)
	case high.fret > g.TopFret():
		return fmt.Sprintf("A note on string %d needs fret %d, but the hand reaches only to fret %d on this guitar.", high.str, high.fret, g.TopFret())
	}
	for _, s := range l {
		if s.At.On != OpenString && s.fret < 1 {
			return fmt.Sprintf("A fretted note on string %d comes to lie on the open string.", s.str)
		}
	}
	return ""
}

// frets returns the spots with the lowest and the highest fret.
func (l line) frets() (low, high spot) {
	low, high = l[0], l[0]
	for _, s := range l {
		if s.fret < low.fret {
			low = s
		}
		if s.fret > high.fret {
			high = s
		}
	}
	return low, high
}

// neckFault is the fault of a line that leaves the neck, with the nearest
// position at which it stays on it.
func (d Drill) neckFault(g guitar.Guitar, text string) Fault {
	fault := Fault{Field: "path.position", Text: text}
	for away := 1; away <= g.Frets; away++ {
		for _, position := range []int{d.Path.Position - away, d.Path.Position + away} {
			moved := d
			moved.Path.Position = position
			if position >= 1 && moved.Fits(g) {
				fault.Text += fmt.Sprintf(" Use position %d.", position)
				fault.Mends = []Mend{{fmt.Sprintf("Move to position %d", position), moved}}
				return fault
			}
		}
	}
	fault.Text += " Use fewer strings, notes or shifts."
	return fault
}

// Fits reports whether a drill that is whole otherwise stays on the neck.
func (d Drill) Fits(g guitar.Guitar) bool {
	l, err := d.places(d.layoutFor(g, guitar.UsualHand(), usualBPM))
	return err == nil && len(l) > 0 && l.offNeck(g) == ""
}
