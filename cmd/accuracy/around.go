package main

import (
	"fmt"
	"math"
	"math/cmplx"
	"math/rand/v2"
	"os"
	"path/filepath"

	"manudrill/formats/sound"
)

// room adds early reflections and a tail that has fallen by 60 dB after so many
// seconds, this loud against the guitar.
func room(rng *rand.Rand, x []float64, seconds, db float64) {
	tail := make([]float64, int(seconds*rate))
	for i := range tail {
		tail[i] = rng.NormFloat64() * math.Pow(10, -3*float64(i)/float64(len(tail)))
	}
	scale := amplitude(db) / (rms(tail) * math.Sqrt(float64(len(tail))))
	dry := append([]float64{}, x...)
	// A tail of a few hundred taps at random places sounds as one of all of them.
	for range 600 {
		at := 200 + rng.IntN(len(tail)-200)
		weight := tail[at] * scale * math.Sqrt(float64(len(tail))/600)
		for i := at; i < len(x); i++ {
			x[i] += weight * dry[i-at]
		}
	}
}

// banded keeps what lies between two frequencies, as a telephone does, by two
// sections of second order on either side (Bristow-Johnson's formulae, from memory).
func banded(x []float64, low, high float64) {
	for range 2 {
		biquad(x, low, true)
		biquad(x, high, false)
	}
}

func biquad(x []float64, hz float64, highPass bool) {
	w := 2 * math.Pi * hz / rate
	alpha, c := math.Sin(w)/math.Sqrt2, math.Cos(w)
	b0, b1 := (1-c)/2, 1-c
	if highPass {
		b0, b1 = (1+c)/2, -(1 + c)
	}
	a0, a1, a2 := 1+alpha, -2*c, 1-alpha
	var x1, x2, y1, y2 float64
	for i, v := range x {
		y := (b0*v + b1*x1 + b0*x2 - a1*y1 - a2*y2) / a0
		x1, x2, y1, y2 = v, x1, y, y1
		x[i] = y
	}
}

// hum adds the mains and its harmonics.
func hum(x []float64, hz, db float64) {
	gain := amplitude(db)
	for i := range x {
		t := 2 * math.Pi * hz * float64(i) / rate
		x[i] += gain * (math.Sin(t) + 0.5*math.Sin(2*t) + 0.6*math.Sin(3*t) + 0.3*math.Sin(5*t))
	}
}

// clipped cuts off what is louder than the quieter part of the peaks.
func clipped(x []float64, share float64) {
	peak := 0.0
	for _, v := range x {
		peak = max(peak, math.Abs(v))
	}
	for i, v := range x {
		x[i] = max(-1, min(1, v/(share*peak)))
	}
}

// overdriven sends the guitar through a soft limiter.
func overdriven(x []float64, gain float64) {
	for i, v := range x {
		x[i] = 0.3 * math.Tanh(gain*v)
	}
}

func noise(rng *rand.Rand, x []float64, db float64) {
	gain := amplitude(db)
	for i := range x {
		x[i] += gain * rng.NormFloat64()
	}
}

// coded sends the recording through Opus at so many kbit/s, as phones do, and lays
// it where it was: a codec may delay by some samples.
func coded(x []float64, kbit int) error {
	return inFolder(func(folder string) error {
		wav, opus, back := filepath.Join(folder, "x.wav"), filepath.Join(folder, "x.opus"), filepath.Join(folder, "back.wav")
		if err := os.WriteFile(wav, sound.FromMono(rate, x).EncodeWAV(), 0o600); err != nil {
			return err
		}
		if err := command("opusenc", "--quiet", "--serial", "1", "--bitrate", fmt.Sprint(kbit), wav, opus); err != nil {
			return err
		}
		if err := command("opusdec", "--quiet", "--rate", fmt.Sprint(rate), opus, back); err != nil {
			return err
		}
		y, err := readMono(back)
		if err != nil {
			return err
		}
		by := lag(x, y, 400)
		for i := range x {
			x[i] = 0
			if i+by >= 0 && i+by < len(y) {
				x[i] = y[i+by]
			}
		}
		return nil
	})
}

// lag is by how many samples y comes after x, at most so many either way.
func lag(x, y []float64, most int) int {
	best, at := 0.0, 0
	for by := -most; by <= most; by++ {
		sum := 0.0
		for i := most; i < min(len(x), len(y))-most; i += 7 {
			sum += x[i] * y[i+by]
		}
		if sum > best {
			best, at = sum, by
		}
	}
	return at
}

// said are sentences for a voice in the background.
var said = []string{
	"And now the weather for the coast. Rain in the morning, then slowly clearing from the west, with a light wind in the afternoon.",
	"Did you put the kettle on? I thought we had some biscuits left in the tin above the sink, but there are none.",
	"The second half has begun and the visitors have made two changes. The ball goes out to the left, and it is a throw in.",
	"Chop the onions finely, let them soften in the butter for ten minutes, then add the flour and stir until it smells of nuts.",
}

// speech is a voice that goes on for as long as x, silent until so many seconds.
func speech(rng *rand.Rand, samples int) ([]float64, error) {
	voices := []string{"en", "en+f3", "en+m4", "en+f2"}
	var y []float64
	for len(y) < samples {
		var one []float64
		err := inFolder(func(folder string) error {
			wav := filepath.Join(folder, "said.wav")
			if err := command("espeak-ng", "-v", voices[rng.IntN(len(voices))], "-w", wav, said[rng.IntN(len(said))]); err != nil {
				return err
			}
			var err error
			one, err = readMono(wav)
			return err
		})
		if err != nil {
			return nil, err
		}
		y = append(y, one...)
	}
	return y[:samples], nil
}

// music is a band in the background: piano, bass, strings and drums over chords.
func music(rng *rand.Rand, samples int) ([]float64, error) {
	score := midi{{0, []byte{0xC0, 0}}, {0, []byte{0xC1, 48}}, {0, []byte{0xC2, 33}}}
	beat := 400 + rng.IntN(300)
	roots := []int{0, 9, 5, 7, 2, 4}
	for at := 50; at < samples*1000/rate; at += 4 * beat {
		root := 48 + roots[rng.IntN(len(roots))]
		for q := range 4 {
			t := at + q*beat
			score = append(score, event{t, []byte{0x90, byte(root + 12 + []int{0, 4, 7, 12}[rng.IntN(4)]), byte(60 + rng.IntN(50))}})
			if q%2 == 0 {
				score = append(score, event{t, []byte{0x91, byte(root + []int{0, 7}[q/2]), 70}}, event{t, []byte{0x92, byte(root - 12), 95}}, event{t, []byte{0x99, 36, 100}})
			} else {
				score = append(score, event{t, []byte{0x99, 38, 100}})
			}
			score = append(score, event{t + beat/2, []byte{0x99, 42, 80}})
		}
		score = append(score, event{at + 4*beat - 1, []byte{0xB0, 123, 0}}, event{at + 4*beat - 1, []byte{0xB1, 123, 0}}, event{at + 4*beat - 1, []byte{0xB2, 123, 0}})
	}
	y, err := score.rendered()
	for len(y) < samples {
		y = append(y, 0)
	}
	return y[:samples], err
}

// under adds y below x: its level is so many dB below that of x.
func under(x, y []float64, db float64) {
	gain := rms(x) / rms(y) * amplitude(db)
	for i := range x {
		x[i] += gain * y[i]
	}
}

// A clickKind is one way a metronome sounds.
type clickKind int

const (
	beeps clickKind = iota
	woodblocks
	ticks
)

// woodHz is about how high a wood block sounds.
const woodHz = 800

// clicks adds a metronome's clicks on all beats, before the first note and after the
// last too; every fourth is accented.
func clicks(rng *rand.Rand, x []float64, kind clickKind, first, beat, peakDB float64) error {
	sounds := [2][]float64{}
	switch kind {
	case woodblocks:
		blocks, err := midi{
			{0, []byte{0x99, 76, 110}}, {500, []byte{0x99, 77, 90}}, {1000, []byte{0x99, 77, 0}},
		}.rendered()
		if err != nil {
			return err
		}
		sounds = [2][]float64{cut(blocks[:rate*4/10], woodHz), cut(blocks[rate/2:rate*9/10], woodHz)}
	default:
		for accent := range sounds {
			y := make([]float64, rate*4/100)
			for i := range y {
				t := float64(i) / rate
				if kind == beeps {
					y[i] = math.Sin(2*math.Pi*[]float64{1000, 1500}[1-accent]*t) * risen(t, 0.001) * (1 - risen(t-0.025, 0.004))
				} else {
					y[i] = rng.NormFloat64() * math.Exp(-900*t)
				}
			}
			sounds[accent] = y
		}
	}
	start := int(math.Ceil(-first / beat))
	for k := start; first+float64(k)*beat < float64(len(x))/rate; k++ {
		y := sounds[min(1, (k-start)%4)]
		peak := 0.0
		for _, v := range y {
			peak = max(peak, math.Abs(v))
		}
		add(x, y, first+float64(k)*beat, amplitude(peakDB)/peak)
	}
	return nil
}

// add mixes y into x from some seconds on.
func add(x, y []float64, at, gain float64) {
	from := int(at * rate)
	for i, v := range y {
		if from+i >= 0 && from+i < len(x) {
			x[from+i] += gain * v
		}
	}
}

// resampled brings x from one rate to another by a windowed sinc.
func resampled(x []float64, from, to float64) []float64 {
	if from == to {
		return x
	}
	const reach = 16
	cutoff := min(1, to/from)
	half := reach / cutoff
	y := make([]float64, int(float64(len(x))*to/from))
	// From one sample to the next both the sine and the window turn by the same angle.
	lobe, hann := cmplx.Rect(1, math.Pi*cutoff), cmplx.Rect(1, math.Pi*cutoff/reach)
	for i := range y {
		centre := float64(i) * from / to
		first := max(0, int(math.Ceil(centre-half)))
		d := (float64(first) - centre) * cutoff
		s, w := cmplx.Rect(1, math.Pi*d), cmplx.Rect(1, math.Pi*d/reach)
		for _, v := range x[first:min(len(x), int(centre+half)+1)] {
			sinc := 1.0
			if math.Abs(d) > 1e-9 {
				sinc = imag(s) / (math.Pi * d)
			}
			y[i] += v * sinc * (0.5 + 0.5*real(w)) * cutoff
			d, s, w = d+cutoff, s*lobe, w*hann
		}
	}
	return y
}
