package follow

import (
	"math"
	"slices"

	"manudrill/core/drill/chart"
	"manudrill/core/listen"
)

// MIDI returns the nearest fret's MIDI note for a heard one, whatever the
// strings are tuned to.
func (t Take) MIDI(n listen.Note) int { return nearest(n, t.TuningCents/100) }

func nearest(n listen.Note, off float64) int { return int(math.Round(n.Pitch - off)) }

// pitchCost is what it costs to take a heard note for the one that was asked for: 0
// at its pitch. Where two strings sound, the chart tells which of two pitches it
// must be.
func pitchCost(midi int, n listen.Note, off float64, lowest int) float64 {
	if n.Unpitched {
		return 0
	}
	cost := costOf(midi, nearest(n, off))
	if n.Or != 0 {
		cost = min(cost, costOf(midi, int(math.Round(n.Or-off))))
	}
	if hidden(n, lowest) {
		cost = min(cost, costHidden)
	}
	return cost
}

// lowestOf is the pitch of the lowest string.
func lowestOf(c chart.Chart) int {
	if len(c.Tuning) == 0 {
		return 0
	}
	return slices.Min(c.Tuning)
}

// hidden reports whether a note has a pitch below that of the lowest string, which none
// can have: it is what several strings make together, and which of them was struck is not
// known.
func hidden(n listen.Note, lowest int) bool { return n.Pitch < float64(lowest)-1 }

func costOf(asked, heard int) float64 {
	switch {
	case asked == heard:
		return 0
	case samePitch(asked, heard):
		return costOctave
	}
	return costWrong
}

// samePitch compares pitch classes. A listener takes a pitch for its octave now
// and then, while a player's wrong note is hardly ever one octave away.
func samePitch(a, b int) bool { return (a-b)%12 == 0 }

// Fits reports whether a heard note may be the one that was asked for, on strings that
// are sharp by so many semitones: at its pitch, or where what is heard does not tell.
func Fits(midi int, n listen.Note, sharp float64, lowest int) bool {
	return pitchCost(midi, n, sharp, lowest) < costWrong
}
