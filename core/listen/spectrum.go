package listen

import (
	"math"
	"math/bits"

	"gonum.org/v1/gonum/dsp/window"
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
	window []float64
	fft    *realFFT
	frame  []float64
	mag    []float64 // of the bins up to the highest band
	bands  []band
}

// A band weighs neighbouring FFT bins with a triangle.
type band struct {
	first  int
	weight []float64
}

func newSpectrum(rate float64) *spectrum {
	span := int(math.Round(frameSpan * rate))
	n := 1 << bits.Len(uint(float64(span)*0.9))
	span = min(span, n)
	s := &spectrum{window: hann(span), fft: newRealFFT(n), frame: make([]float64, span), bands: triangles(rate, n)}
	top := s.bands[len(s.bands)-1]
	s.mag = make([]float64, top.first+len(top.weight))
	return s
}

// hann is the window of Hann over n samples.
func hann(n int) []float64 {
	w := make([]float64, n)
	for i := range w {
		w[i] = 1
	}
	return window.Hann(w)
}

// triangles lays bands from 60 Hz to 12 kHz, or to half the sampling rate. Low
// bands that would fall into one bin become one.
func triangles(rate float64, n int) []band {
	top := min(12000, 0.95*rate/2)
	var centres []int
	for k := 0; ; k++ {
		hz := 60 * math.Exp2(float64(k)/bandsPerOctave)
		if hz > top {
			break
		}
		bin := int(math.Round(hz * float64(n) / rate))
		if len(centres) == 0 || bin > centres[len(centres)-1] {
			centres = append(centres, bin)
		}
	}
	var out []band
	for i := 1; i+1 < len(centres); i++ {
		lo, mid, hi := centres[i-1], centres[i], centres[i+1]
		b := band{first: lo}
		for bin := lo; bin < hi; bin++ {
			if bin < mid {
				b.weight = append(b.weight, float64(bin-lo)/float64(mid-lo))
			} else {
				b.weight = append(b.weight, float64(hi-bin)/float64(hi-mid))
			}
		}
		out = append(out, b)
	}
	return out
}

// of writes the magnitudes of one frame into dst, which has a place for each
// band.
func (s *spectrum) of(dst, samples []float64) {
	for i, v := range samples {
		s.frame[i] = v * s.window[i]
	}
	s.fft.power(s.mag, s.frame)
	for i, p := range s.mag {
		s.mag[i] = math.Sqrt(p)
	}
	for k, b := range s.bands {
		sum := 0.0
		for i, w := range b.weight {
			sum += w * s.mag[b.first+i]
		}
		dst[k] = sum
	}
}
