package listen

import "math"

// The end of a note in which a string that is dragged sideways shows, in seconds
// before the next note, and how long a note must be for it.
const (
	dragFrom, dragTo = 0.050, 0.005
	shortestDragged  = 0.090
)

// widestBend is the most that is taken for a bend, in semitones; more is another
// pitch.
const widestBend = 1.5

// bend returns by how many cents a note's pitch has moved towards its end.
func (l *Listener) bend(body []float64, midi float64) float64 {
	n := len(body)
	if n < int(shortestDragged*l.rate) {
		return 0
	}
	late := l.slow.pitchOf(thinned(body[n-int(dragFrom*l.rate):n-int(dragTo*l.rate)], fadeStep(l.rate)))
	if late == 0 || math.Abs(late-midi) > widestBend {
		return 0
	}
	return 100 * (late - midi)
}
