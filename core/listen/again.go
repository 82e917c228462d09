package listen

import (
	"math"
	"math/cmplx"

	"manudrill/core/listen/dsp"
)

// What a peak shows by the strongest partials of what sounds after it, traced back
// to before: a string that is let alone only dies away, each of its partials in the
// phase it had; a stroke gives it new strength or other phases, whatever scrapes,
// knocks or echoes meanwhile. Two strings that beat, or one in a room, gain a little
// by themselves, and more only where nearly nothing else has changed.
const (
	outOfPhase  = 0.42 // below, they are other partials
	inPhase     = 0.82 // above, they are the same
	alsoInPhase = 0.65 // above, they are where the pitch is, too
	allInPhase  = 0.955
	asStrong    = 0.55 // of the power partials have that are struck again
	newStrength = 1.4  // as many times the power is no dying away
	muchNew     = 2.6  // nor beating
	stillStrong = 0.2  // of the power is left where a note follows: less is a string stopped
)

// strengthened reports whether partials have grown beyond what they do by themselves.
func strengthened(together, grown float64) bool {
	if together > allInPhase {
		return grown > muchNew
	}
	return grown > newStrength
}

// A metronome's click, whose peak lies so near its beat, is over so long after it; in
// seconds.
const (
	peakOffBeat = 0.012
	clickOver   = 0.030
)

// nothingNew reports whether all that sounds after a peak went on from before.
func (l *Listener) nothingNew(p *peak) bool {
	from := stepAfter
	if l.beat != 0 && l.offBeat(l.centre(*p)) < peakOffBeat {
		from = clickOver
	}
	before, after := l.about(*p, from)
	if before == nil {
		return false
	}
	together, grown := l.tracedBack(before, after, from-stepBeforeTo)
	p.together = together
	if together < alsoInPhase || strengthened(together, grown) {
		return false
	}
	return (together > inPhase || grown < 1 && l.samePitch(before, after)) && !l.joined(before, after)
}

// An Again is where a string may have been struck again within a note, at the pitch that
// the note has: too little shows it to be told, but who knows that it was to be may
// believe it.
type Again struct {
	T       float64 `json:"t"` // s; 0 for nowhere
	LevelDB float64 `json:"levelDb"`
}

// mayBeAgain is how much of a sound that is struck again may seem to have gone on at the
// most: what noises alone pass over goes on nearly whole.
const mayBeAgain = 0.9

// again returns where the note from one sample to another may have been struck again.
func (l *Listener) again(at, end int, doubts []peak) Again {
	var found Again
	least := mayBeAgain
	apart := int(minInterval * l.rate)
	for _, p := range doubts {
		if !p.plain || p.together >= least || l.centre(p) < at+apart || l.centre(p) > end-apart {
			continue
		}
		where := l.refine(p).at
		found, least = Again{l.seconds(where), level(l.sound.slice(where, end), l.rate)}, p.together
	}
	return found
}

// cameOut reports whether what sounds after a peak did so before, under the note before,
// which has been stopped.
func (l *Listener) cameOut(before, after []float64) bool {
	return l.ringing() && !l.samePitch(before, after) && l.soundedBefore(before, after, l.lastLate, l.brief.Pitch(after))
}

// samePitch reports whether two sounds have one pitch, and the same.
func (l *Listener) samePitch(x, y []float64) bool {
	is := l.brief.Pitch(y)
	return is != 0 && math.Abs(l.brief.Pitch(x)-is) < samePitch
}

// struckAgain reports whether the string is struck again at a peak, at the pitch it
// has or one that its partials hid.
func (l *Listener) struckAgain(p *peak) bool {
	before, after := l.aboutPeak(*p)
	if before == nil || dsp.Variance(after) < stillStrong*dsp.Variance(before) {
		return false
	}
	together, grown := l.tracedBack(before, after, stepAfter-stepBeforeTo)
	p.together = together
	if strengthened(together, grown) {
		return true
	}
	return together < outOfPhase && grown > asStrong && !l.cameOut(before, after)
}

// tracedBack takes the strongest partials of a sound and looks for them in an earlier
// one that ended so many seconds before it: how alike they are, 1 to −1, and by
// how much their power has grown since.
func (l *Listener) tracedBack(before, after []float64, between float64) (together, grown float64) {
	n := min(len(before), len(after), int(dsp.LongestPursuit*l.slow.Rate))
	before, after = before[len(before)-n:], after[:n]
	together, left := l.agree(after, before, -int(between*l.slow.Rate)-n)
	return together, 1 / max(left, dsp.LeastPower)
}

// goneOn takes the strongest partials of a sound and looks for them in one that begins
// so many seconds after its end: how alike they are, 1 to −1.
func (l *Listener) goneOn(before, after []float64, between float64) float64 {
	n := min(len(before), len(after), int(dsp.LongestPursuit*l.slow.Rate))
	together, _ := l.agree(before[len(before)-n:], after[:n], int(between*l.slow.Rate)+n)
	return together
}

// Where partials are compared: the strongest up to so many Hz, which one stroke
// leaves in phase for as long as they last.
const (
	strongPartials = 8
	highestStrong  = 1500
)

// agree compares the strongest partials of a sound with what another has of them, as
// long and so many samples later: how well the phases agree that are foretold and
// found, 1 to −1, and how much of their power is there.
func (l *Listener) agree(of, in []float64, later int) (together, left float64) {
	window := l.pursuit.Window(len(of))
	var agree, was, is float64
	for _, p := range l.pursuit.Strongest(of, 0, strongPartials, highestStrong) {
		foretold := complex(p.Cosine, -p.Sine) * cmplx.Rect(1, p.Step*float64(later))
		found := dsp.Seen(in, window, p.Step)
		agree += real(cmplx.Conj(foretold) * found)
		was, is = was+dsp.Power(foretold), is+dsp.Power(found)
	}
	return agree / (math.Sqrt(was*is) + dsp.LeastPower), is / (was + dsp.LeastPower)
}
