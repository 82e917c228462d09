package listen

import "math"

// The end of a note, in seconds before the next one: there a string that is dragged
// sideways shows, and the string before has stopped ringing. A shorter note has
// none.
const (
	lateFrom, lateTo = 0.050, 0.005
	shortestLate     = 0.090
)

// widestBend is the most that is taken for a bend, in semitones; more is another
// pitch.
const widestBend = 1.5

// latePitch returns the pitch towards the end of a note that sounds from one sample to
// another, 0 where it has none.
func (l *Listener) latePitch(at, end int) float64 {
	end = at + sounding(l.sound.slice(at, end), l.rate)
	if end-at < int(shortestLate*l.rate) {
		return 0
	}
	return l.brief.Pitch(l.slowly(end, end, -lateFrom, -lateTo))
}

// bend returns by how many cents a pitch has moved to a late one.
func bend(midi, late float64) float64 {
	if late == 0 || math.Abs(late-midi) > widestBend {
		return 0
	}
	return 100 * (late - midi)
}

// AtOther is the note at its other pitch: see [Note.Or].
func (n Note) AtOther() Note {
	if n.Bend != 0 {
		n.Bend = bend(n.Or, n.Pitch+n.Bend/100)
	}
	n.Pitch = n.Or
	return n
}
