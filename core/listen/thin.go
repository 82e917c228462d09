package listen

import (
	"math"
	"slices"
)

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
	t.held = append(t.held, samples...)
	n := (len(t.held)-1)/t.by - 2*tapsAside + 1
	if n <= 0 {
		return nil
	}
	t.kept = slices.Grow(t.kept[:0], n)[:n]
	t.weigh(t.kept, t.held)
	t.held = append(t.held[:0], t.held[n*t.by:]...)
	return t.kept
}

// weigh writes the filtered samples. Tap by tap, their sums need not wait.
func (t *thinner) weigh(kept, held []float64) {
	first := tapsAside * t.by
	for i := range kept {
		kept[i] = t.middle * held[first+i*t.by]
	}
	for _, tap := range t.aside {
		before, after := held[first-tap.away:], held[first+tap.away:]
		at := 0
		for i := range kept {
			kept[i] += tap.weight * (before[at] + after[at])
			at += t.by
		}
	}
}
