package listen

import (
	"cmp"
	"math"
	"slices"

	"manudrill/core/listen/dsp"

	"manudrill/core/guitar"
)

// behindAClick finds where a note of a pitch really starts whose start was taken at
// a click, or a knock or another's drum.
func (l *Listener) behindAClick(at int, sure bool, pitch float64) int {
	out, beats := at, l.onBeat(at)
	if beats {
		out = l.outOfAClick(at)
	}
	if out == at && (sure && !beats || l.singsFrom(at, pitch)) {
		return at
	}
	if later := l.fadeBehindAClick(at); later != at {
		return later
	}
	return out
}

// What a note sings from its start on it sings some periods later, at least so many
// seconds, but for a share: that is looked for over so many seconds or a period.
const (
	singsAgain  = 0.022
	singsFrom   = 0.001
	singsOver   = 0.003
	singsUnlike = 0.3
)

// singsFrom reports whether a pitch sounds from a sample on already as it does later.
func (l *Listener) singsFrom(at int, pitch float64) bool {
	if pitch == 0 {
		return true
	}
	period := l.rate / guitar.Frequency(pitch)
	later := int(math.Round(math.Ceil(singsAgain*l.rate/period) * period))
	over := int(max(period, singsOver*l.rate))
	x := l.sound.slice(at+int(singsFrom*l.rate), at+int(singsFrom*l.rate)+later+over)
	return len(x) < later+over || dsp.Unlike(x, later, over) < singsUnlike
}

// Where a note is taken to begin at a click, the click's own sound is left out
// of the comparison, in seconds about it. The note is believed to begin so much
// later, where that explains all but a share of the sound and does so many times
// better than the click's place.
const (
	clickFrom, clickTo = -0.002, 0.005
	clickLater         = 0.004
	clickUnexplained   = 0.2
	clickBetter        = 3.0
)

// fadeBehindAClick finds where a note really starts whose start was taken at a
// click that sounds some 10 to 30 ms before it. A click neither stops the old
// note nor begins the new one, so the change from one to the other tells them
// apart.
func (l *Listener) fadeBehindAClick(at int) int {
	v, ok := l.around(at, behindClick)
	if !ok {
		return at
	}
	v.x = slices.Clone(v.x)
	for i := max(0, v.at+int(clickFrom*v.rate)); i < v.at+int(clickTo*v.rate); i++ {
		v.x[i], v.before[i], v.after[i] = 0, 0, 0
	}
	start, left, plain := v.bestFade(l.fades)
	if left > clickUnexplained*dsp.SumSquares(v.x) || plain < clickBetter*left || start-v.at < int(clickLater*v.rate) {
		return at
	}
	if v.overlapping(start) < left {
		return at
	}
	return at + l.by*(start-v.at)
}

// overlapping is what is left of the sound if the new note begins at the place of the change
// and the old one sounds on above it until a later sample, as on two strings it may.
func (v view) overlapping(until int) float64 {
	sum := 0.0
	for i, x := range v.x {
		if i < until {
			x -= v.before[i]
		}
		if i >= v.at {
			x -= v.after[i]
		}
		sum += x * x
	}
	return sum
}

// ringsOn reports whether what was taken for a note is only a click or a knock
// over the note before, which goes on beneath it as it was: at the same pitch, to its
// end, or an octave off where few of its partials are left. Where the start is sharp, as
// that of a voice is not, another string may sound besides.
func (l *Listener) ringsOn(at, end int, midi, late float64, sharp bool) bool {
	for _, pitch := range []float64{midi, cmp.Or(late, midi)} {
		if !l.asBefore(pitch) {
			return false
		}
	}
	was, x := l.slowly(at, end, ringFrom, ringTo), l.slowly(at, end, overFrom, overTo)
	if len(x) < l.slowSteps(overLeast) || len(was) < l.slowSteps(ringTo)-l.slowSteps(ringFrom) {
		return false
	}
	from := l.slowSteps(overFrom)
	// Struck again, the partials would begin at phases of their own.
	left := 0.0
	for i, v := range dsp.Sing(l.pursuit.Partials(was, -l.slowSteps(ringFrom)), from, from+len(x)) {
		left += (x[i] - v) * (x[i] - v)
	}
	if left >= ringsOnUnexplained*dsp.SumSquares(x) {
		return false
	}
	return !strengthened(l.tracedBack(was, x, overFrom-ringTo)) && !(sharp && l.joined(was, x))
}

// samePitch is how far a string that rings on is heard off its pitch at the most, in
// semitones.
const samePitch = 0.3

// asBefore reports whether a pitch is that of the note before, in any octave.
func (l *Listener) asBefore(pitch float64) bool { return sameName(pitch, l.last.Pitch) }

// sameName reports whether two pitches are the same, in any octave.
func sameName(a, b float64) bool { return math.Abs(math.Remainder(a-b, 12)) <= samePitch }

// Where a string that rings on is compared with what it sang before, in seconds
// after the click: once that is over, for so long at the least.
const (
	overFrom, overTo = 0.026, 0.060
	overLeast        = 0.012
)

// ringsOnUnexplained is the share of the sound that a string which goes on
// leaves unexplained at the most.
const ringsOnUnexplained = 0.5
