package listen

import (
	"math"
	"math/bits"

	"manudrill/core/listen/dsp"
)

// frameHop and frameSpan are the step and the length of the spectral frames in
// seconds: 384 and 2048 samples at 44.1 kHz.
const (
	frameHop  = 384.0 / 44100
	frameSpan = 2048.0 / 44100
)

// bandsPerOctave is the resolution of the log-frequency spectrum: quarter
// tones, so that a slur of one fret moves each partial by two bands.
const bandsPerOctave = 24

// A spectrum turns a frame of samples into magnitudes in bands of equal musical
// width, as Böck & Widmer (DAFx 2013) do for onsets.
type spectrum struct {
	window  []float64
	fft     *dsp.RealFFT
	bins    []complex128 // up to the highest band
	centres []int        // bins: a band rises from each to the next, and falls to the one after
}

func newSpectrum(rate float64) *spectrum {
	span := int(math.Round(frameSpan * rate))
	n := 1 << bits.Len(uint(float64(span)*0.9))
	s := &spectrum{window: dsp.Hann(min(span, n)), fft: dsp.NewRealFFT(n), centres: centres(rate, n)}
	s.bins = make([]complex128, s.centres[len(s.centres)-1])
	return s
}

// bands is how many bands there are.
func (s *spectrum) bands() int { return len(s.centres) - 2 }

// centres lays bands from 60 Hz to 12 kHz, or to half the sampling rate, over the
// bins of a transform of length n. Low bands that would fall into one bin become
// one.
func centres(rate float64, n int) []int {
	top := min(12000, 0.95*rate/2)
	var out []int
	for k := 0; ; k++ {
		hz := 60 * math.Exp2(float64(k)/bandsPerOctave)
		if hz > top {
			return out
		}
		bin := int(math.Round(hz * float64(n) / rate))
		if len(out) == 0 || bin > out[len(out)-1] {
			out = append(out, bin)
		}
	}
}

// of writes the magnitudes of one frame into dst, which has a place for each
// band. Each weighs its bins with a triangle.
func (s *spectrum) of(dst, samples []float64) {
	s.fft.Values(s.bins, samples, s.window)
	for k, from := range s.centres[:len(s.centres)-1] {
		rising, all := s.ramp(from, s.centres[k+1])
		if k > 0 {
			dst[k-1] += all - rising
		}
		if k < len(dst) {
			dst[k] = rising
		}
	}
}

// ramp returns the sum of the magnitudes of the bins [from, to), weighed by a line
// that rises from 0 at the first to 1 at to, and their plain sum. Sums of sums
// make the line.
func (s *spectrum) ramp(from, to int) (rising, all float64) {
	for k := to - 1; k > from; k-- {
		all += dsp.Magnitude(s.bins[k])
		rising += all
	}
	return rising / float64(to-from), all + dsp.Magnitude(s.bins[from])
}
