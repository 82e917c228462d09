package listen

// An early word is said of a note while it has hardly begun, for who watches while it is
// played. It may be wrong: what is told once the note is complete is the last word.
type early struct {
	said []float64 // since it was asked for last, s
	last int       // sample of the one said last
}

// SayEarly makes the listener say an early word of each note, from now on.
func (l *Listener) SayEarly() { l.early = &early{last: -int(minInterval * l.rate)} }

// Early returns the times, in seconds, at which notes seem to have begun since it was
// asked for last: some 45 ms after each.
func (l *Listener) Early() []float64 {
	if l.early == nil {
		return nil
	}
	said := l.early.said
	l.early.said = nil
	return said
}

// sayEarly says its word of a peak that stands out, and of which enough is there still
// as far as it can be seen by then.
func (l *Listener) sayEarly(p peak) {
	if l.early == nil || !p.plain {
		return
	}
	stays := l.flux.grown(l.flux.frame(max(0, p.frame-beforePeak)), l.flux.frame(p.frame+peakReach))
	if stays < minLasting {
		return
	}
	s := l.refine(p)
	if s.same || s.at-l.early.last < int(minInterval*l.rate) {
		return
	}
	l.early.last = s.at
	l.early.said = append(l.early.said, l.seconds(s.at))
}
