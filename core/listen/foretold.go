package listen

import (
	"math"
	"slices"

	"manudrill/core/listen/dsp"
)

// Where it is asked what foretells the sound about a start, in seconds before it and
// after; the past is learnt before that and the future after it, over foretoldSpan. It is
// asked of one grain after the other.
const (
	foretoldFrom  = -0.045
	foretoldTo    = 0.020
	foretoldSpan  = 0.030
	foretoldGrain = 0.001
)

// A start is moved by more than so many grains, and to no nearer the ends of what was asked
// about. In most grains between, what foretells them leaves no more than a share of the sound,
// so many times less than what does not: a share that is the smaller for moving later, since
// what an attack makes of a sound neither its past nor its future foretells. To be moved
// earlier, they are so much of the power of what comes: where a string that sounded besides is
// stopped, what is left foretells the future, too.
const (
	foretoldApart = 6
	foretoldEdge  = 3
	earlierLeaves = 0.9
	laterLeaves   = 0.2
	foretoldTimes = 3.0
	foretoldLoud  = 0.5
)

// The past alone tells of a start too loud and too rough for its future to foretell it: it
// leaves no more than a share of most grains before, at least another of those after, which
// are so much of the power of what comes; but not at a metronome's click.
const (
	failsBefore = 0.1
	failsAfter  = 0.7
	failsLoud   = 0.7
)

// foretold moves a start of a note that sounds until a sample to where what the sound's
// past foretells, period by period, gives way to what its future does, if the two tell so
// plainly; or else earlier, to where what its past foretells ends. Thick sounds, as of a guitar
// overdriven, hardly grow where a slur begins: their periods change.
func (l *Listener) foretold(at, end int) int {
	v, from, ok := l.foretelling(at, end)
	if !ok {
		return at
	}
	grains, plain := v.givesWay()
	if !plain {
		grains, plain = v.fails()
		plain = plain && !l.onBeat(from+grains*v.grain)
	}
	start := from + grains*v.grain
	if !plain || l.last != nil && l.seconds(start) <= l.last.Onset+minInterval {
		return at
	}
	return start
}

// A foretelling is what the past and the future of a sound leave of the grains between them.
type foretelling struct {
	x            []float64 // past, grains, future
	span, grain  int       // samples of past or future, and of a grain
	past, future []float64 // the share that either leaves of each grain
	was          int       // grains before the start that is asked about
}

// foretelling asks about the start of a note that sounds until a sample; its grains begin at
// another. It reports false where too little sounds.
func (l *Listener) foretelling(at, end int) (v foretelling, from int, ok bool) {
	grain, span := int(foretoldGrain*l.rate), int(foretoldSpan*l.rate)
	from, to := at+int(foretoldFrom*l.rate), min(at+int(foretoldTo*l.rate), end-span)
	x := l.sound.slice(from-span, to+span)
	if to <= at || len(x) < to-from+2*span {
		return v, from, false
	}
	past, future := l.leftBy(x, span, grain, -1), l.leftBy(x, span, grain, +1)
	return foretelling{x, span, grain, past, future, (at - from) / grain}, from, true
}

// givesWay is how many grains the past foretells before the future does, and whether that
// is plainly another start.
func (v foretelling) givesWay() (grains int, plain bool) {
	grains = turn(v.past, v.future)
	early, late := min(v.was, grains), max(v.was, grains)
	switch {
	case late-early <= foretoldApart || grains < foretoldEdge || grains > len(v.past)-foretoldEdge:
		return grains, false
	case grains > v.was:
		return grains, foretells(v.past, v.future, early, late, laterLeaves)
	}
	return grains, foretells(v.future, v.past, early, late, earlierLeaves) && v.loudness(grains) >= foretoldLoud
}

// fails is how many grains the past foretells well, and whether all others before the start
// are plainly of another sound: where two means of the logarithms of what it leaves differ
// the most beside their spread.
func (v foretelling) fails() (grains int, plain bool) {
	past := v.past[:v.was]
	early, late, most := 0.0, 0.0, 0.0
	for _, share := range past {
		late += math.Log(share)
	}
	for g := 1; g < v.was; g++ {
		share := math.Log(past[g-1])
		early, late = early+share, late-share
		before, after := float64(g), float64(v.was-g)
		if apart := late/after - early/before; apart > 0 && before*after*apart*apart > most {
			grains, most = g, before*after*apart*apart
		}
	}
	plain = grains >= foretoldEdge && v.was-grains > foretoldApart &&
		middle(past[:grains]) <= failsBefore && middle(past[grains:]) >= failsAfter && v.loudness(grains) >= failsLoud
	return grains, plain
}

// loudness is the power from so many grains to the start, beside that of what comes.
func (v foretelling) loudness(grains int) float64 {
	start := v.span + v.was*v.grain
	next := v.x[start:]
	return dsp.MeanSquare(v.x[v.span+grains*v.grain:start]) / (dsp.LeastPower + dsp.MeanSquare(next[:min(len(next), v.span)]))
}

// foretells reports whether one side leaves little of most grains from one to another, and the
// other side plainly more.
func foretells(by, other []float64, from, to int, leaves float64) bool {
	left := middle(by[from:to])
	return left <= leaves && middle(other[from:to]) >= foretoldTimes*left
}

// leftBy is the share that a sound's past, its first span, leaves of each grain between its
// spans when it goes on period by period; or its future, the last span, for which side is 1.
func (l *Listener) leftBy(x []float64, span, grain, side int) []float64 {
	known := x[:span]
	if side > 0 {
		known = x[len(x)-span:]
	}
	lag, alike := dsp.Period(known, int(shortestLag*l.rate), int(longestLag*l.rate))
	floor := float64(grain) * (dsp.LeastPower + foretoldFloor*dsp.MeanSquare(x))
	shares := make([]float64, (len(x)-2*span)/grain)
	for g := range shares {
		left, all := floor, floor
		for i := span + g*grain; i < span+(g+1)*grain; i++ {
			d := x[i] - alike*x[i+side*lag]
			left, all = left+d*d, all+x[i]*x[i]
		}
		shares[g] = left / all
	}
	return shares
}

// foretoldFloor is the power, beside that of the whole sound, below which nothing counts.
const foretoldFloor = 1e-4

// turn is how many grains the past foretells best, all after them by the future: where the
// product of what they leave is least.
func turn(past, future []float64) int {
	turns, gain, most := 0, 0.0, 0.0
	for g := range past {
		if gain += math.Log(future[g] / past[g]); gain > most {
			turns, most = g+1, gain
		}
	}
	return turns
}

// middle is the upper median.
func middle(x []float64) float64 {
	return slices.Sorted(slices.Values(x))[len(x)/2]
}
