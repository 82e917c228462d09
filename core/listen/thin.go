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
	by       int
	middle   float64  // the low-pass filter's weight of the sample in its middle
	branches []branch // and of those around it, by how far they are behind a multiple of by
	held     []float64
	phase    []float64 // the samples of one branch
	kept     []float64
}

// A branch of the filter weighs each sample of by, from tapsAside before the middle on
// (polyphase: Crochiere & Rabiner, Proc. IEEE 69, 1981).
type branch [2 * tapsAside]float64

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
	t.branches = make([]branch, t.by-1)
	sum := 1.0
	for p := range t.branches {
		for i := range t.branches[p] {
			x := math.Pi * (float64(i-tapsAside) + float64(p+1)/float64(t.by))
			t.branches[p][i] = math.Sin(x) / x * (0.5 + 0.5*math.Cos(x/tapsAside))
			sum += t.branches[p][i]
		}
	}
	t.middle = 1 / sum
	for p := range t.branches {
		for i := range t.branches[p] {
			t.branches[p][i] /= sum
		}
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

// weigh writes the filtered samples.
func (t *thinner) weigh(kept, held []float64) {
	for i := range kept {
		kept[i] = t.middle * held[(tapsAside+i)*t.by]
	}
	t.phase = slices.Grow(t.phase[:0], len(kept)+len(branch{}))[:len(kept)+len(branch{})-1]
	for p := range t.branches {
		for i := range t.phase {
			t.phase[i] = held[i*t.by+p+1]
		}
		t.branches[p].add(kept, t.phase)
	}
}

// add adds the sums of weighed samples, written out: a loop takes three times as long.
func (b *branch) add(kept, phase []float64) {
	for i := range kept {
		s := (*branch)(phase[i:])
		kept[i] += (b[0]*s[0] + b[1]*s[1] + b[2]*s[2] + b[3]*s[3] + b[4]*s[4]) +
			(b[5]*s[5] + b[6]*s[6] + b[7]*s[7] + b[8]*s[8] + b[9]*s[9])
	}
}
