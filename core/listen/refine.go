package listen

import (
	"math"

	"manudrill/core/listen/dsp"
)

// Times around a flux peak, in seconds. The flux tops while the attack is still
// in the later half of the frame.
const (
	refineLater  = 0.003
	refineBefore = 0.016
	refineAfter  = 0.014
	modelSpan    = 0.035
	modelOrder   = 24
)

// refine finds the sample where a note starts, near a peak of the flux. Until
// then the string rings on as its past foretells; a linear prediction learnt
// from that past begins to fail at the attack. The onset is the change point
// of the prediction error's variance, by maximum likelihood (Hinkley,
// Biometrika 57, 1970, for the principle).
//
// What repeats itself is also asked where it ceases to; the likelier of both counts.
func (l *Listener) refine(p peak) start {
	centre := p.frame*l.hop + len(l.spectrum.window)/2 + int(refineLater*l.rate)
	from, to := centre-int(refineBefore*l.rate), centre+int(refineAfter*l.rate)
	past := l.sound.slice(from-int(modelSpan*l.rate), from)
	region := l.sound.slice(from-modelOrder, to)
	if len(past) < 4*modelOrder || len(region) < 4*modelOrder {
		return start{at: max(0, centre)}
	}
	change, gain := l.attackIn(dsp.Innovation(dsp.Burg(past, modelOrder), region))
	if gain > plainGain {
		return start{at: from + change, plain: true}
	}
	broken, more, same := l.breaksOff(from, to)
	begins := gain > 0 && broken >= from+change && broken-from-change < int(softAttack*l.rate)
	switch {
	case more > gain && !begins:
		return start{at: broken, same: same}
	case gain > 0:
		return start{at: from + change, same: same}
	}
	return start{at: centre, same: same}
}

// A start is the sample where a note may begin. It is plain where the attack is so sharp
// that it cannot have begun before as a fade; the same where the sound before goes on
// period by period as if nothing had happened.
type start struct {
	at          int
	plain, same bool
}

// Where a sound is compared with itself: the least and the most time by which, in seconds,
// and how much of its power goes on where it breaks off for another, for so long. Where it
// falls silent a string is stopped.
const (
	softAttack  = 0.008
	shortestLag = 0.0009
	longestLag  = 0.021
	goesOn      = 0.1
	goesOnFor   = 0.005
)

// What repeats itself so well, and breaks off with so little likelihood at the most, goes
// on: of 8,000 notes one was as little seen to begin, and one in four of the starts that
// are none.
const (
	repeats    = 0.9
	leastBreak = 0.12
)

// breaksOff finds the sample where a sound that repeats itself ceases to, by how much
// likelier that is, as attackIn does, and whether it goes on the same. A string's partials
// are many more than a prediction of low order can hold, but each period foretells the
// next: so a note is seen to begin that is no louder and no brighter than the one before.
func (l *Listener) breaksOff(from, to int) (at int, gain float64, same bool) {
	span := int(modelSpan * l.rate)
	x := l.sound.slice(from-span, to)
	if len(x) < span+to-from {
		return 0, 0, false
	}
	lag, alike := dsp.Lag(x[:span], int(shortestLag*l.rate), int(longestLag*l.rate))
	e := make([]float64, to-from)
	for i := range e {
		e[i] = x[span+i] - alike*x[span+i-lag]
	}
	change, total := dsp.ChangePoint(e)
	gain = total / float64(len(e))
	same = alike > repeats && gain < leastBreak
	after := x[span+change:]
	after = after[:min(len(after), int(goesOnFor*l.rate))]
	if total < leastGain || dsp.MeanSquare(after) < goesOn*dsp.MeanSquare(x[span-lag:span]) {
		return 0, 0, same
	}
	return from + change, gain, same
}

// attackIn finds the attack in the innovation around it. It returns by how much
// likelier, in twice the logarithm for each sample, an attack is than none; 0 where
// none is likely.
func (l *Listener) attackIn(e []float64) (at int, gain float64) {
	change, gain := dsp.ChangePoint(e)
	if gain < leastGain {
		return 0, 0
	}
	return attack(e, change, int(riseStep*l.rate)), gain / float64(len(e))
}

// riseStep is the grain, in seconds, at which the innovation is followed.
const riseStep = 0.0005

// minorShare is the share of the loudest innovation below which a change is
// not the attack but the old note being stopped.
const minorShare = 0.05

// attack finds the sample of a note's attack in the innovation around it: the
// change point of the variance, unless what follows it is far below the
// loudest; then it is where the innovation first comes near that.
func attack(e []float64, change, step int) int {
	loudest := 0.0
	for at := 0; at+3*step <= len(e); at += step {
		loudest = max(loudest, dsp.MeanSquare(e[at:at+3*step]))
	}
	if dsp.MeanSquare(e[change:min(len(e), change+3*step)]) >= minorShare*loudest {
		return riseBefore(e, change, step, loudest)
	}
	for i := change; i < len(e); i++ {
		if e[i]*e[i] > minorShare*loudest {
			return i
		}
	}
	return change
}

// By how much likelier, in twice the natural logarithm, two variances must be
// than one: some 7 are reached by chance somewhere in steady noise. With so much
// for each sample the attack is a plain one; soft slurs have less than half.
const (
	leastGain = 30
	plainGain = 3.2
)

// riseShare is the share of the loudest innovation that counts as the start of
// a soft attack where there is no noise to rise from.
const riseShare = 0.01

// riseBefore follows a soft attack back from the change point to the first
// step at which the innovation is louder than before the attack.
func riseBefore(e []float64, change, step int, loudest float64) int {
	quiet := math.Inf(1)
	for at := 0; at+4*step <= change; at += step {
		quiet = min(quiet, dsp.MeanSquare(e[at:at+4*step]))
	}
	risen := max(4*quiet, riseShare*loudest)
	for change-step >= 0 && dsp.MeanSquare(e[change-step:change]) > risen {
		change -= step
	}
	return change
}
