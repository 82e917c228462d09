package listen

import (
	"math"
	"slices"
)

// A flux keeps the last spectral frames and measures what has grown in them.
type flux struct {
	frames [fluxFrames][]float64 // frame n is at n % fluxFrames
	n      int                   // frames so far
	gain   gain
}

// How frames are compared, counted in frames of [frameHop].
const (
	fluxLag    = 2 // 17 ms: long enough for a soft attack, short enough for the fastest trill
	beforePeak = 2 // from a peak back to before the attack
	fluxFrames = 16
)

// lastingAfter are the frames after a peak, 26 to 35 ms, in which a note still
// sounds but a click or a squeak has gone.
var lastingAfter = [...]int{3, 4}

func newFlux(bands int) *flux {
	f := &flux{gain: newGain()}
	for i := range f.frames {
		f.frames[i] = make([]float64, bands)
	}
	return f
}

func (f *flux) frame(n int) []float64 { return f.frames[n%fluxFrames] }

// next takes one more frame of samples and returns the flux over the frame
// fluxLag before it.
func (f *flux) next(s *spectrum, samples []float64) float64 {
	now := f.frame(f.n)
	if f.gain.next(samples) > silent {
		s.of(now, samples)
	} else {
		clear(now)
	}
	f.n++
	if f.n <= fluxLag {
		return 0
	}
	return f.grown(f.frame(f.n-1-fluxLag), now)
}

// grown returns by how many powers of ten the bands have grown from one frame to
// another, together. Magnitudes far below those of the loudest sound are all
// alike.
func (f *flux) grown(before, now []float64) float64 {
	c := compression * f.gain.factor
	sum, ratio := 0.0, 1.0
	for k, v := range now {
		if was := around(before, k); v > was {
			ratio *= (1 + c*v) / (1 + c*was)
			if ratio > 1e200 { // one logarithm does for many bands
				sum, ratio = sum+math.Log10(ratio), 1
			}
		}
	}
	return sum + math.Log10(ratio)
}

// compression sets where growth begins to count: it is the inverse of the
// magnitude below which bands are alike.
const compression = 10.0

// around returns the loudest of a band and its neighbours. What has grown is
// counted beyond it, so that a partial that merely wavers counts nothing.
func around(frame []float64, k int) float64 {
	was := frame[k]
	if k > 0 {
		was = max(was, frame[k-1])
	}
	if k+1 < len(frame) {
		was = max(was, frame[k+1])
	}
	return was
}

// lasting returns how much of what has grown at a peak is still there some
// frames later. The frames up to peak+lastingFrames must have been taken.
func (f *flux) lasting(peak int) float64 {
	least := slices.Clone(f.frame(peak + lastingAfter[0]))
	for _, d := range lastingAfter[1:] {
		for k, v := range f.frame(peak + d) {
			least[k] = min(least[k], v)
		}
	}
	return f.grown(f.frame(max(0, peak-beforePeak)), least)
}

// lastingFrames is how long after a peak [flux.lasting] can tell.
const lastingFrames = 4
