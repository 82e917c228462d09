package listen

import (
	"math"

	"manudrill/core/listen/dsp"
)

// ringsInto is how far into the next note a string may hide its pitch, in seconds.
const ringsInto = 0.090

// hiddenStep returns where the open note, which lasts until a sample, steps to the
// pitch that it has towards its end; 0 where it has one pitch. No peak showed it: what
// sounds about it has no clear pitch, or hardly changes.
func (l *Listener) hiddenStep(end int, late float64) int {
	if late == 0 {
		return 0
	}
	from, early := l.earlyPitch(end, late)
	if early == 0 {
		return 0
	}
	begins, ends := l.slowly(from, end, 0, stepSpan), l.slowly(end, end, -stepSpan-lateTo, -lateTo)
	if len(begins) == 0 || len(ends) == 0 || !l.changes(begins, ends, early, late) {
		return 0
	}
	slurred := math.Abs(late-early) <= widestSlur
	if l.ringing() && math.Abs(late-l.lastLate) < otherPitch && l.soundedBefore(begins, ends, early, late) {
		return 0 // the string before comes through
	}
	if !slurred && (l.soundedBefore(begins, ends, early, late) || l.ringing() && l.soundedBefore(begins, ends, l.lastLate, late)) {
		return 0
	}
	at := l.stepAt(l.passes(from, end, early, late), early, slurred)
	before, after := l.slowly(at, end, stepBefore, stepBeforeTo), l.slowly(at, end, stepAfter, stepAfterTo)
	if len(before) == 0 || len(after) == 0 || dsp.Variance(after) < diesTo*dsp.Variance(before) ||
		!slurred && l.soundedBefore(before, after, early, late) {
		return 0
	}
	at, _ = l.fadeIn(at)
	if least := int(minInterval * l.rate); at-l.open.at < least || end-at < least {
		return 0
	}
	if l.toldAs(late, at) {
		return 0
	}
	return at
}

// toldAs reports whether the open note, if it lasts until a sample, is told at a pitch all
// the same, or at an undertone of it where so little is left: the two are one note.
func (l *Listener) toldAs(pitch float64, end int) bool {
	told, _ := l.pitches(l.open.at, end)
	return math.Abs(told-pitch) < samePitch || end-l.open.at < int(minSounding*l.rate) && undertone(told, pitch)
}

// earlyPitch returns the pitch with which the open note begins, once the string before
// has stopped, and from where on; 0 where that is the late one.
func (l *Listener) earlyPitch(end int, late float64) (from int, early float64) {
	from = l.open.at + int(pitchFrom*l.rate)
	if to := from + int(stepSpan*l.rate); to <= end && l.brief.Repeats(l.low.slice(from/l.by, to/l.by), late) {
		return 0, 0
	}
	if l.ringing() {
		stops := l.open.at + int(ringsInto*l.rate)
		grown := l.newcomer(l.open.at, end)
		if math.Abs(grown-late) < otherPitch {
			return 0, 0
		}
		if grown != 0 && !sameName(grown, late) {
			if stops+int(stepSpan*l.rate) > end {
				stops = from
			}
			return stops, grown
		}
		from = stops
	}
	to := from + int(stepSpan*l.rate)
	if to > end {
		return 0, 0
	}
	x := l.low.slice(from/l.by, to/l.by)
	if l.brief.Repeats(x, late) {
		return 0, 0
	}
	early = l.brief.Pitch(x)
	if early == 0 || l.ringing() && l.ringsUnder(early) {
		return 0, 0
	}
	return from, early
}

// ringing reports whether the note before may sound on within the open one.
func (l *Listener) ringing() bool { return l.ringsAt(l.open.at) }

// ringsAt reports whether the note before may still sound at a sample.
func (l *Listener) ringsAt(at int) bool {
	return l.last != nil && l.last.End > l.seconds(at)-soundedUntil
}

// changes reports whether two pitches, at the beginning and towards the end of a note,
// are those of two notes. What is told an octave or more off may be one note, told wrong:
// then the partials are the same.
func (l *Listener) changes(before, after []float64, early, late float64) bool {
	if math.Abs(late-early) < leastStep || math.Abs(math.Remainder(late-early, 1)) > fretted {
		return false
	}
	if math.Abs(late-early) <= widestStep {
		return true
	}
	n := min(len(before), len(after))
	before, after = before[:n], after[:n]
	low, high := before, after // where the lower pitch sounds
	if late < early {
		low, high = after, before
	}
	but := []float64{max(early, late)}
	if l.ringing() { // what the two make together is neither's
		but = append(but, l.lastLate)
	}
	with, without := l.partialsOf(min(early, late), but, low, high)
	all, _ := l.partialsOf(min(early, late), nil, low, high)
	return with > telling*all && without < stopped*with
}

// widestSlur is how far apart the pitches are, in semitones, that one string most often
// steps between: nothing else need have sounded.
const widestSlur = 3.5

// fretted is how far from whole frets a step is heard at the most, in semitones.
const fretted = 0.25

// stopped is the share of a string's partials that is left at the most once it is.
const stopped = 0.1

// telling is the share of its power that a lower pitch has at harmonics of its own at the
// least.
const telling = 0.05

// partialsOf is the power that two sounds, as long as one another, have at the harmonics
// of a pitch which are none of others'.
func (l *Listener) partialsOf(pitch float64, but []float64, x, y []float64) (ofX, ofY float64) {
	window := l.pursuit.Window(len(x))
	for hz := range clearHarmonics(pitch, stepHarmonics, but...) {
		a, b := dsp.PowersAt(x, y, window, hz/l.slow.Rate)
		ofX, ofY = ofX+a, ofY+b
	}
	return ofX, ofY
}

// passes returns about where the pitch of the open note is no longer the early one.
func (l *Listener) passes(from, end int, early, late float64) int {
	from, to := from+int(stepSpan*l.rate/2), end-int((stepSpan/2+lateTo)*l.rate)
	for to-from > l.hop {
		at := (from + to) / 2
		if is := l.brief.Pitch(l.slowly(at, end, -stepSpan/2, stepSpan/2)); math.Abs(is-early) < math.Abs(is-late) {
			from = at
		} else {
			to = at
		}
	}
	return to
}

// A new pitch is clear so long after a slur at the most, so long after another string
// was struck, which the peak shows by how much stays, and so long before at the least; in
// seconds.
const (
	clearAfterSlur = 0.030
	clearAfter     = ringsInto
	clearBefore    = 0.020
	stringChanges  = 3.5
)

// stepAt returns where the step from an early pitch is that has become clear at a sample:
// at the peak in doubt whose partials went on the least.
func (l *Listener) stepAt(clear int, early float64, slurred bool) int {
	at, least := clear, 1.0
	for _, p := range l.doubts {
		from := clear - int(clearAfter*l.rate)
		if slurred && p.lasting < stringChanges {
			from = clear - int(clearAfterSlur*l.rate)
		}
		before, after := l.aboutPeak(p)
		if c := l.centre(p); before == nil || c < from || c > clear+int(clearBefore*l.rate) {
			continue
		}
		if l.brief.Repeats(before, early) && l.brief.Repeats(after, early) {
			continue
		}
		if together, _ := l.tracedBack(before, after, stepAfter-stepBeforeTo); together < least {
			at = l.refine(p).at
			least = together
		}
	}
	return at
}
