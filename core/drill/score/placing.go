package score

import (
	"fmt"
	"math"

	"manudrill/core/guitar"
)

// What a place costs, in frets of hand movement.
const (
	placeHeight   = 0.03 // a fret further up the neck
	placeCrossing = 0.8  // another string
	placeSkip     = 0.6  // each string skipped besides
)

// places finds a string and a fret for each MIDI note such that the hand moves
// little and stays on few strings. Notes that have a string already (not 0) keep
// their place. It fails for a note the guitar does not have.
func places(notes []Note, g guitar.Guitar) error {
	type state struct {
		str, fret, from int
		cost            float64
	}
	table := make([][]state, len(notes))
	for i, n := range notes {
		for str := range g.Tuning {
			fret := n.MIDI - g.Sound(str+1, 0)
			if n.String > 0 && (n.String != str+1 || n.Fret != fret) || fret < 0 || fret > g.TopFret() {
				continue
			}
			s := state{str: str + 1, fret: fret, from: -1, cost: placeHeight * float64(fret)}
			if i > 0 {
				best := math.Inf(1)
				for k, before := range table[i-1] {
					if c := before.cost + reachOver(before.str, before.fret, s.str, fret); c < best {
						best, s.from = c, k
					}
				}
				s.cost += best
			}
			table[i] = append(table[i], s)
		}
		if len(table[i]) == 0 {
			return fmt.Errorf("note %d, %s, lies nowhere on this guitar; transpose it, or choose another tuning", i+1, guitar.NoteName(n.MIDI))
		}
	}
	at := 0
	for i := len(notes) - 1; i >= 0; i-- {
		if i == len(notes)-1 {
			for k := range table[i] {
				if table[i][k].cost < table[i][at].cost {
					at = k
				}
			}
		}
		notes[i].String, notes[i].Fret = table[i][at].str, table[i][at].fret
		at = table[i][at].from
	}
	return nil
}

// reachOver is what going from one place to the next costs; the open string
// leaves the hand where it is.
func reachOver(str, fret, toStr, toFret int) float64 {
	cost := 0.0
	if away := max(str-toStr, toStr-str); away > 0 {
		cost = placeCrossing + placeSkip*float64(away-1)
	}
	if fret > 0 && toFret > 0 {
		moved := math.Abs(float64(toFret - fret))
		cost += 0.15*moved + max(0, moved-4)
	}
	return cost
}
