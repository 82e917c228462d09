package listen

import "math"

// Times within a note, in seconds: the attack's noise is left out, or the first quarter
// of a short one.
const (
	pitchFrom = 0.008
	pitchSpan = 0.075
)

// pitches returns the pitch of the note that sounds from one sample to another, and the
// one of another name that it may have instead; 0 for none.
func (l *Listener) pitches(at, end int) (pitch, other float64) {
	from := min(pitchFrom, float64(end-at)/l.rate/4)
	return l.slow.Pitches(l.slowly(at, end, from, from+pitchSpan))
}

// mostUnder is how many times lower than either the pitch may be at which two sounds
// together repeat.
const mostUnder = 7

// undertone reports whether a pitch is one that another has as one of its harmonics: the
// beginning of a note, with a string or a metronome still in it, is told as that.
func undertone(pitch, of float64) bool {
	for n := 2.0; n <= mostUnder; n++ {
		if math.Abs(of-pitch-12*math.Log2(n)) < samePitch {
			return true
		}
	}
	return false
}
