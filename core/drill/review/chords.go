package review

import (
	"manudrill/core/drill/chart"
	"manudrill/core/guitar"
)

// ChordsOf names the chord of each place the cell is carried to, where both
// hands sound together; places without one it knows are left out.
func ChordsOf(c chart.Chart) []PlacedChord {
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

func usesTaps(notes []chart.Note) bool {
	for _, n := range notes {
		if n.Hand == chart.TappingHand {
			return true
		}
	}
	return false
}
