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

// foretold moves a start of a note that sounds until a sample to where what the sound's
// past foretells, period by period, gives way to what its future does, if the two tell so
// plainly. Thick sounds, as of a guitar overdriven, hardly grow where a slur begins: their
// periods change.
func (l *Listener) foretold(at, end int) int {
	grain, span := int(foretoldGrain*l.rate), int(foretoldSpan*l.rate)
	from, to := at+int(foretoldFrom*l.rate), min(at+int(foretoldTo*l.rate), end-span)
	x := l.sound.slice(from-span, to+span)
	if to <= at || len(x) < to-from+2*span {
		return at
	}
	past, future := l.leftBy(x, span, grain, -1), l.leftBy(x, span, grain, +1)
	was, turns := (at-from)/grain, turn(past, future)
	start := from + turns*grain
	plain := false
	switch early, late := min(was, turns), max(was, turns); {
	case late-early <= foretoldApart || turns < foretoldEdge || turns > len(past)-foretoldEdge:
	case turns > was:
		plain = foretells(past, future, early, late, laterLeaves)
	default:
		here, next := x[span+early*grain:span+late*grain], x[span+late*grain:]
		plain = foretells(future, past, early, late, earlierLeaves) &&
			dsp.MeanSquare(here) >= foretoldLoud*dsp.MeanSquare(next[:min(len(next), span)])
	}
	if !plain || l.last != nil && l.seconds(start) <= l.last.Onset+minInterval {
		return at
	}
	return start
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
