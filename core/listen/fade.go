package listen

import "math"

// Times around the place where a soft slur has become plain, in seconds. What
// the string sang before and what it sings after are learnt clear of the change.
const (
	fadeOldFrom, fadeOldTo = -0.060, -0.016
	fadeNewFrom, fadeNewTo = 0.006, 0.040
	fadeFrom, fadeTo       = -0.016, 0.010
	fadeGrain              = 0.00025
	oldStops               = 0.003 // a finger stops the old note within this
	fadeRate               = 11025 // samples a second are enough for the lower partials
)

// fadeRises are the times a new note may take to reach its level, in seconds;
// the first two are those of a plain attack.
var fadeRises = []float64{0.0005, 0.002, 0.004, 0.006, 0.008, 0.010, 0.012}

const plainRises = 2

// What a fade must show to be believed: it explains so much of the sound, so
// many times better than a plain attack where the change is plain, and starts so
// much earlier, in seconds.
const (
	fadeUnexplained = 0.3
	fadeBetter      = 2.0
	fadeEarlier     = 0.0025
)

// audibleBefore is how loud the old note must be against the new one, in power,
// to be faded from: what comes out of silence has an attack of its own.
const audibleBefore = 1e-3

// fadeIn finds where a note starts that fades in, as soft slurs do, given the
// sample at which it has become plain in the waveform. Old and new note are
// taken apart into sinusoids and sung on into the change; the start is where
// fading from one to the other explains it with the least error. A plain attack
// is left where it was.
func (l *Listener) fadeIn(at int) int {
	by := max(1, int(l.rate/fadeRate))
	rate := l.rate / float64(by)
	steps := func(seconds float64) int { return int(math.Round(seconds * rate)) }
	part := func(from, to float64) []float64 {
		x := l.sound.slice(at+by*steps(from), at+by*steps(to))
		if len(x) < by*(steps(to)-steps(from)) {
			return nil
		}
		return thinned(x, by)
	}
	old, now, x := part(fadeOldFrom, fadeOldTo), part(fadeNewFrom, fadeNewTo), part(fadeFrom, fadeTo)
	if old == nil || now == nil || x == nil || meanSquare(old) < audibleBefore*meanSquare(now) {
		return at
	}
	from, to := steps(fadeFrom), steps(fadeTo)
	before := sing(partialsOf(old, -steps(fadeOldFrom), rate), from, to)
	after := sing(partialsOf(now, -steps(fadeNewFrom), rate), from, to)
	start, left, plain := bestFade(x, before, after, -from, rate)
	if left > fadeUnexplained*sumSquares(x) || plain < fadeBetter*left || -from-start < steps(fadeEarlier) {
		return at
	}
	return at + by*(from+start)
}

// thinned is x with each group of so many samples as their mean.
func thinned(x []float64, by int) []float64 {
	out := make([]float64, len(x)/by)
	for i := range out {
		for _, v := range x[i*by : (i+1)*by] {
			out[i] += v / float64(by)
		}
	}
	return out
}

// bestFade tries every start and rise. It returns the start that leaves the
// least of x unexplained, what it leaves, and what a plain attack about the
// place at leaves.
func bestFade(x, before, after []float64, at int, rate float64) (start int, left, plain float64) {
	grain := max(1, int(fadeGrain*rate))
	stop := rise(oldStops*rate, len(x))
	left, plain = math.Inf(1), math.Inf(1)
	for r, seconds := range fadeRises {
		up := rise(seconds*rate, len(x))
		for begin := 0; begin < at+int(0.004*rate); begin += grain {
			e := unexplained(x, before, after, begin, stop, up)
			if e < left {
				start, left = begin, e
			}
			if away := float64(begin-at) / rate; r < plainRises && away > -0.0015 && away < 0.001 {
				plain = min(plain, e)
			}
		}
	}
	return start, left, plain
}

// rise is a raised cosine from 0 to 1 within some samples.
func rise(length float64, n int) []float64 {
	out := make([]float64, n)
	for i := range out {
		out[i] = 0.5 - 0.5*math.Cos(math.Pi*min(1, float64(i)/length))
	}
	return out
}

// unexplained is what is left of x when the note before stops and the one after
// rises from a sample on.
func unexplained(x, before, after []float64, begin int, stop, up []float64) float64 {
	sum := 0.0
	for i, v := range x[:begin] {
		d := v - before[i]
		sum += d * d
	}
	for i := begin; i < len(x); i++ {
		d := x[i] - (1-stop[i-begin])*before[i] - up[i-begin]*after[i]
		sum += d * d
	}
	return sum
}

func sumSquares(x []float64) float64 { return meanSquare(x) * float64(len(x)) }
