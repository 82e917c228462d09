package evenness

import (
	"slices"

	"manudrill/core/follow"
	"manudrill/core/listen"
)

// An ExtraKind says what an extra note most likely is.
type ExtraKind string

// Kinds of extra notes.
const (
	Repeated ExtraKind = "repeated" // the note before or after once more
	Touched  ExtraKind = "touched"  // an open string
	Other    ExtraKind = "other"
)

// An Extra is a note that the chart does not have.
type Extra struct {
	T       float64   `json:"t"`
	MIDI    int       `json:"midi"`
	LevelDB float64   `json:"levelDb"`
	Kind    ExtraKind `json:"kind,omitempty"`
}

func extrasOf(t follow.Take) []Extra {
	heard := t.Timeline()
	out := make([]Extra, 0, len(t.Extras))
	for _, e := range t.Extras {
		out = append(out, Extra{e.Onset, t.MIDI(e), e.LevelDB, extraKind(t, heard, e)})
	}
	return out
}

func extraKind(t follow.Take, heard follow.Timeline, e listen.Note) ExtraKind {
	midi := t.MIDI(e)
	before, after := heard.Around(e.Onset)
	for _, i := range []int{before, after} {
		if i >= 0 && (t.MIDI(t.Matches[i].Heard)-midi)%12 == 0 { // an octave is the listener's doing
			return Repeated
		}
	}
	if slices.Contains(t.Chart.Tuning, midi) {
		return Touched
	}
	return Other
}
