package listen

import (
	"math"

	"manudrill/core/listen/dsp"

	"manudrill/core/guitar"
)

// A note among strings that ring on is known by the partials that have grown, as many
// times in power. Its harmonics are so much of what has grown, and one of the first few
// among them; a partial lies no further off its harmonic than so many semitones.
const (
	newcomerGrown = 2.5
	newcomerShare = 0.7
	firstFew      = 3
	offHarmonic   = 0.35
	mostHarmonics = 12
)

// clearlyMore is how much more another pitch must explain to be taken instead: the
// octave below explains as much.
const clearlyMore = 1.05

// newcomer returns the pitch of the partials that have grown where a note starts; 0 where
// they are of none. Of 13,000 notes of the corpus for which it told one, 1 in 100 was
// another.
func (l *Listener) newcomer(at, end int) float64 {
	grown, all := l.grown(at, end)
	best, most := 0.0, newcomerShare*all/clearlyMore
	for _, p := range grown {
		for of := 1; of <= firstFew; of++ {
			step := p.Step / float64(of)
			hz := step * l.slow.Rate / (2 * math.Pi)
			if hz < dsp.LowestPitch || hz > dsp.HighestPitch {
				continue
			}
			if sum := harmonicsOf(step, grown); sum > clearlyMore*most {
				best, most = guitar.MIDI(hz), sum
			}
		}
	}
	return best
}

// grown returns the partials that have grown about a sample, and the sum of their
// amplitudes.
func (l *Listener) grown(at, end int) (partials []dsp.Partial, all float64) {
	before, after := l.slowly(at, end, stepBefore, stepBeforeTo), l.slowly(at, end, stepAfter, stepAfterTo)
	n := min(len(before), len(after))
	if n < int(leastStepped*l.slow.Rate) {
		return nil, 0
	}
	before, after = before[len(before)-n:], after[:n]
	window := l.pursuit.Window(n)
	for _, p := range l.pursuit.Partials(after, 0) {
		if a := p.Amplitude(); a*a > newcomerGrown*dsp.Power(dsp.Seen(before, window, p.Step)) {
			partials, all = append(partials, p), all+a
		}
	}
	return partials, all
}

// harmonicsOf is the sum of the amplitudes of partials at harmonics of an angle per
// sample.
func harmonicsOf(step float64, partials []dsp.Partial) float64 {
	sum := 0.0
	for _, p := range partials {
		h := math.Round(p.Step / step)
		if h >= 1 && h <= mostHarmonics && math.Abs(12*math.Log2(p.Step/step/h)) < offHarmonic {
			sum += p.Amplitude()
		}
	}
	return sum
}
