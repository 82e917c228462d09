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
	by     int
	middle float64 // the low-pass filter's weight of the sample in its middle
	aside  []tap   // and of those on either side
	held   []float64
	kept   []float64
}

// A tap weighs the two samples so far from the middle.
type tap struct {
	away   int
	weight float64
}

// newThinner brings a rate near the working rate. Lower rates stay as they are.
func newThinner(rate float64) *thinner {
	t := &thinner{by: max(1, int(math.Round(rate/workingRate-0.2)))}
	if t.by > 1 {
		t.lowPass()
		t.held = make([]float64, tapsAside*t.by) // before the first sample there is silence
	}
	return t
}

// lowPass makes the filter a windowed sinc that is down by half at half the
// thinned rate. It is zero at whole multiples of by, which are left out.
func (t *thinner) lowPass() {
	reach := tapsAside * t.by
	sum := 1.0
	for away := 1; away < reach; away++ {
		if away%t.by == 0 {
			continue
		}
		x := math.Pi * float64(away) / float64(t.by)
		weight := math.Sin(x) / x * (0.5 + 0.5*math.Cos(math.Pi*float64(away)/float64(reach)))
		t.aside = append(t.aside, tap{away, weight})
		sum += 2 * weight
	}
	t.middle = 1 / sum
	for i := range t.aside {
		t.aside[i].weight /= sum
	}
}

// thin takes more of the stream and returns what is kept of it. A kept sample
// comes out when all that its filter reaches is there. What is returned stays
// until the next call.
func (t *thinner) thin(samples []float64) []float64 {
	if t.by == 1 {
		return samples
	}
	held, kept := append(t.held, samples...), t.kept[:0]
	middle := tapsAside * t.by
	for ; middle+tapsAside*t.by < len(held); middle += t.by {
		sum := t.middle * held[middle]
		for _, tap := range t.aside {
			sum += tap.weight * (held[middle-tap.away] + held[middle+tap.away])
		}
		kept = append(kept, sum)
	}
	t.held, t.kept = append(held[:0], held[middle-tapsAside*t.by:]...), kept
	return kept
}
