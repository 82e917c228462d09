package listen

import (
	"math"

	"manudrill/core/listen/dsp"
)

// Times around the place where a note has become plain, in seconds. What the
// string sang before and what it sings after are learnt clear of the change.
const (
	fadeGrain  = 0.00025
	fadeCoarse = 5     // grains of the first search
	oldStops   = 0.003 // a finger stops the old note within this
	fadeRate   = 11025 // samples a second are enough for the lower partials
)

// A change is where to look for the start of a note, in seconds about the place
// it was first taken for: in from to, with the old note learnt from oldFrom to
// oldTo and the new one from newFrom to newTo.
type change struct{ oldFrom, oldTo, from, to, newFrom, newTo float64 }

// A soft slur has begun before it becomes plain; a note that hides behind a
// click begins after it.
var (
	softSlur    = change{-0.060, -0.016, -0.016, 0.010, 0.006, 0.040}
	behindClick = change{-0.060, -0.016, -0.016, 0.036, 0.038, 0.072}
)

// fadeRises are the times a new note may take to reach its level, in seconds;
// the first two are those of a plain attack.
var fadeRises = []float64{0.0005, 0.002, 0.004, 0.006, 0.008, 0.010, 0.012}

// plainRises is how many of them are.
const plainRises = 2

// A fade is the shares of the old and the new note in each sample from the new
// one's start on, until it has reached its level.
type fade struct{ old, new []float64 }

// newFades makes the fades of all fadeRises.
func newFades(rate float64) []fade {
	fades := make([]fade, len(fadeRises))
	for i, rise := range fadeRises {
		n := int(math.Ceil(max(rise, oldStops) * rate))
		for t := range n {
			fades[i].old = append(fades[i].old, 1-risen(float64(t), oldStops*rate))
			fades[i].new = append(fades[i].new, risen(float64(t), rise*rate))
		}
	}
	return fades
}

// risen is a raised cosine from 0 at t = 0 to 1 after a length.
func risen(t, length float64) float64 {
	return 0.5 - 0.5*math.Cos(math.Pi*min(1, t/length))
}

// What a fade must show to be believed: it explains so much of the sound, so
// many times better than a plain attack where the change is plain, and starts so
// much earlier, in seconds.
const (
	fadeUnexplained = 0.3
	fadeBetter      = 2.0
	fadeEarlier     = 0.0008
)

// audibleBefore is how loud the old note must be against the new one, in power,
// to be faded from: what comes out of silence has an attack of its own.
const audibleBefore = 1e-3

// fadeIn finds where a note starts that fades in, as soft slurs do, given the
// sample at which it has become plain in the waveform. Old and new note are
// taken apart into sinusoids and sung on into the change; the start is where
// fading from one to the other explains it with the least error. A plain attack
// is left where it was.
//
// It reports sure where the sound is explained so well that nothing else comes
// between the old note and the new.
func (l *Listener) fadeIn(at int) (start int, sure bool) {
	v, ok := l.around(at, softSlur)
	if !ok {
		return at, false
	}
	begin, left, plain := v.bestFade(l.fades)
	all := dsp.SumSquares(v.x)
	if left > fadeUnexplained*all || plain < fadeBetter*left || v.at-begin < int(fadeEarlier*v.rate) {
		return at, plain < fadeSure*all
	}
	return at + l.by*(begin-v.at), left < fadeSure*all
}

// fadeSure is the share that old and new note leave of the sound at the most where
// nothing else is heard between them.
const fadeSure = 0.15

// A view is the sound around a change, thinned, with the old and the new note
// sung on into it.
type view struct {
	x, before, after []float64
	at               int // the place of the change in x
	rate             float64
}

// around makes the view of a change at a sample. It reports false where the
// sound does not reach so far, or nothing sounds before.
func (l *Listener) around(at int, c change) (view, bool) {
	v := view{rate: l.slow.Rate, at: -l.slowSteps(c.from)}
	part := func(from, to float64) []float64 {
		x := l.slowly(at, l.sound.end, from, to)
		if len(x) < l.slowSteps(to)-l.slowSteps(from) {
			return nil
		}
		return x
	}
	old, now := part(c.oldFrom, c.oldTo), part(c.newFrom, c.newTo)
	v.x = part(c.from, c.to)
	if old == nil || now == nil || v.x == nil || dsp.MeanSquare(old) < audibleBefore*dsp.MeanSquare(now) {
		return v, false
	}
	v.before = dsp.Sing(l.pursuit.Partials(old, -l.slowSteps(c.oldFrom)), -v.at, len(v.x)-v.at)
	v.after = dsp.Sing(l.pursuit.Partials(now, -l.slowSteps(c.newFrom)), -v.at, len(v.x)-v.at)
	return v, true
}

// fadeStep is how many samples at a rate become one of a view.
func fadeStep(rate float64) int { return max(1, int(rate/fadeRate)) }

// bestFade tries starts and rises, coarsely first. It returns the start that
// leaves the least of the sound unexplained, what it leaves, and what a plain
// attack about the place of the change leaves.
func (v view) bestFade(fades []fade) (start int, left, plain float64) {
	beforeLeft, afterLeft := v.leftBefore(), v.leftAfter()
	leaves := func(begin int, f fade) float64 {
		end := min(len(v.x), begin+len(f.old))
		return beforeLeft[begin] + v.unexplained(begin, end, f) + afterLeft[end]
	}
	left, plain = math.Inf(1), math.Inf(1)
	grain := max(1, int(fadeGrain*v.rate))
	last := len(v.x) - int(0.006*v.rate)
	for i, f := range fades {
		near, least := 0, math.Inf(1)
		for begin := 0; begin < last; begin += fadeCoarse * grain {
			if e := leaves(begin, f); e < least {
				near, least = begin, e
			}
		}
		for begin := max(0, near-fadeCoarse*grain); begin < min(last, near+fadeCoarse*grain); begin += grain {
			if e := leaves(begin, f); e < left {
				start, left = begin, e
			}
		}
		if i < plainRises {
			for begin := v.at - int(0.0015*v.rate); begin <= v.at+int(0.001*v.rate); begin += grain {
				plain = min(plain, leaves(begin, f))
			}
		}
	}
	return start, left, plain
}

// unexplained is what a fade that starts at begin leaves of the samples
// [begin, end).
func (v view) unexplained(begin, end int, f fade) float64 {
	x, before, after := v.x[begin:end], v.before[begin:end], v.after[begin:end]
	old, now := f.old[:len(x)], f.new[:len(x)]
	left := func(i int) float64 {
		d := x[i] - old[i]*before[i] - now[i]*after[i]
		return d * d
	}
	even, odd, last := 0.0, 0.0, len(x)-1 // two sums need not wait for one another
	for i := 0; i < last; i += 2 {
		even += left(i)
		odd += left(i + 1)
	}
	if last%2 == 0 {
		even += left(last)
	}
	return even + odd
}

// leftBefore has, at i, what the old note alone leaves of the samples before i.
func (v view) leftBefore() []float64 {
	sums := make([]float64, len(v.x)+1)
	for i, x := range v.x {
		d := x - v.before[i]
		sums[i+1] = sums[i] + d*d
	}
	return sums
}

// leftAfter has, at i, what the new note alone leaves of the samples from i on.
func (v view) leftAfter() []float64 {
	sums := make([]float64, len(v.x)+1)
	for i := len(v.x) - 1; i >= 0; i-- {
		d := v.x[i] - v.after[i]
		sums[i] = sums[i+1] + d*d
	}
	return sums
}
