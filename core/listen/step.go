package listen

import (
	"math"

	"manudrill/core/listen/dsp"
)

// Times in which the string is heard before and after the place of a peak, in
// seconds about it: clear of the change, and what is there when a peak is judged.
const (
	stepBefore, stepBeforeTo = -0.057, -0.012
	stepAfter, stepAfterTo   = 0.012, 0.057
	leastStepped             = 0.025 // of either
	stepSpan                 = stepAfterTo - stepAfter
)

// leastStep is by how much two steady pitches differ at the least, in semitones,
// that are two notes: frets are one apart, and a string is not dragged by more than
// half of that without a player's meaning it. widestStep is the most: what is told
// about an octave off is the same note, told wrong.
const (
	leastStep  = 0.6
	widestStep = 10.5
)

// diesTo is what the power of a sound falls to at the least where the string steps
// to another pitch: less is left of a string that is stopped.
const diesTo = 0.06

// steps reports whether the string steps to another pitch at a peak, which the flux
// may hardly show: on the thick strings the partials of a slur stay within their
// bands.
func (l *Listener) steps(p peak) bool {
	before, after := l.aboutPeak(p)
	if before == nil || dsp.Variance(after) < diesTo*dsp.Variance(before) {
		return false
	}
	if l.sung != 0 && l.brief.Repeats(after, l.sung) {
		return false
	}
	is := l.brief.Steady(after)
	if l.sung = is; is == 0 || l.brief.Repeats(before, is) {
		return false
	}
	was := l.brief.Steady(before)
	if was == 0 {
		return false
	}
	return steppedBy(was, is) && !l.ringsUnder(was) && !l.soundedBefore(before, after, was, is)
}

// steppedBy reports whether two pitches are those of two notes.
func steppedBy(was, is float64) bool {
	by := math.Abs(is - was)
	return by >= leastStep && by <= widestStep
}

// ringsUnder reports whether a pitch heard in the open note is that of the note
// before, which rings on beneath it.
func (l *Listener) ringsUnder(pitch float64) bool {
	if l.last == nil || !sameName(pitch, l.lastLate) {
		return false
	}
	before := l.slowly(l.open.at, l.sound.end, stepBefore, stepBeforeTo)
	after := l.slowly(l.open.at, l.sound.end, stepAfter, stepAfterTo)
	if len(before) < len(after) || len(after) == 0 {
		return false
	}
	return l.goneOn(before, after, stepAfter-stepBeforeTo) > ringingOn
}

// ringingOn is how alike the partials of a string that dies away within the next note
// are at the least.
const ringingOn = 0.35

// grownBy is how many times as strong, in power, the partials of a pitch are at the
// least where the string has stepped to it.
const grownBy = 4

// soundedBefore reports whether a pitch sounded already before a peak, under another
// that has died away: two strings rang, and one was stopped.
func (l *Listener) soundedBefore(before, after []float64, was, is float64) bool {
	n := min(len(before), len(after))
	window := l.pursuit.Window(n)
	before, after = before[len(before)-n:], after[len(after)-n:]
	var grown, all float64
	clear := 0
	for hz := range clearHarmonics(is, stepHarmonics, was) {
		old, now := dsp.PowersAt(before, after, window, hz/l.slow.Rate)
		if clear++; now > grownBy*old {
			grown += now
		}
		all += now
	}
	return clear >= leastClear && grown < all/2
}

// leastClear is how many harmonics at the least lie clear of the other pitch's where
// something can be told by them.
const leastClear = 3

// stepHarmonics of the new pitch are looked at.
const stepHarmonics = 12

// centre is the sample in the middle of a peak's frame.
func (l *Listener) centre(p peak) int { return p.frame*l.hop + len(l.spectrum.window)/2 }

// aboutPeak returns what sounds before and after a peak while a note is open, thinned
// for the lower partials; nil where too little does.
func (l *Listener) aboutPeak(p peak) (before, after []float64) { return l.about(p, stepAfter) }

// about is aboutPeak with what sounds after it from some seconds on.
func (l *Listener) about(p peak, from float64) (before, after []float64) {
	if l.open == nil {
		return nil, nil
	}
	at := l.centre(p)
	before, after = l.slowly(at, l.sound.end, stepBefore, stepBeforeTo), l.slowly(at, l.sound.end, from, stepAfterTo)
	if earlier := (l.open.at+int(pitchFrom*l.rate))/l.by - (at/l.by + l.slowSteps(stepBefore)); earlier > 0 {
		before = before[min(earlier, len(before)):]
	}
	if least := int(leastStepped * l.slow.Rate); len(before) < least || len(after) < least {
		return nil, nil
	}
	return before, after
}
