package listen

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
