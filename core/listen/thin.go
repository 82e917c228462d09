package listen

import "math"

// workingRate is about how many samples a second are enough to hear with: a
// string's partials above 10 kHz tell nothing that those below do not.
const workingRate = 22050

// tapsAside is how many of the thinned samples the low-pass filter reaches to
// either side.
const tapsAside = 5

// A thinner keeps one sample of so many, after taking out what is too high for
// the lower rate. Kept sample i is at the place of the stream's sample i·by.
type thinner struct {
	by   int
	taps []float64 // a low-pass filter, symmetric about its middle
	held []float64 // samples not yet passed over
	kept []float64
}

// newThinner brings a rate near the working rate. Lower rates stay as they are.
func newThinner(rate float64) *thinner {
	t := &thinner{by: max(1, int(math.Round(rate/workingRate-0.2)))}
	if t.by > 1 {
		t.taps = lowPass(t.by)
		t.held = make([]float64, tapsAside*t.by) // before the first sample there is silence
	}
	return t
}

// lowPass is a windowed sinc that passes up to 0.9 of half the thinned rate.
func lowPass(by int) []float64 {
	n := 2*tapsAside*by + 1
	taps := hann(n + 2)[1 : n+1]
	sum := 0.0
	for i := range taps {
		if x := 0.9 * math.Pi * float64(i-n/2) / float64(by); x != 0 {
			taps[i] *= math.Sin(x) / x
		}
		sum += taps[i]
	}
	for i := range taps {
		taps[i] /= sum
	}
	return taps
}

// thin takes more of the stream and returns what is kept of it. A kept sample
// comes out when all that its filter reaches is there. What is returned stays
// until the next call.
func (t *thinner) thin(samples []float64) []float64 {
	if t.by == 1 {
		return samples
	}
	t.held = append(t.held, samples...)
	t.kept = t.kept[:0]
	at := 0
	for ; at+len(t.taps) <= len(t.held); at += t.by {
		t.kept = append(t.kept, t.filtered(t.held[at:at+len(t.taps)]))
	}
	t.held = append(t.held[:0], t.held[at:]...)
	return t.kept
}

// filtered is the filter's sum over as many samples as it has taps.
func (t *thinner) filtered(x []float64) float64 {
	middle := len(t.taps) / 2
	taps, left, right := t.taps[:middle], x[:middle], x[middle+1:]
	sum := t.taps[middle] * x[middle]
	for i, w := range taps {
		sum += w * (left[i] + right[middle-1-i])
	}
	return sum
}
