package listen

import (
	"math"
	"math/cmplx"
)

// Where the partials of a string that may have been struck again are compared: the
// strongest up to so many Hz, which one stroke leaves in phase for as long as they
// last.
const (
	strongPartials = 6
	highestStrong  = 1200
)

// A stroke shows where the phases agree so little though the partials are still so
// strong, in power against what they were, or where they are so much stronger.
const (
	outOfPhase  = 0.35
	stillStrong = 0.7
	newStrength = 1.4
)

// struckAgain reports whether the string is struck again at a peak, at the pitch it
// has: a string that is let alone only dies away, each of its partials in the phase it
// had; a stroke gives it new strength, or other phases.
func (l *Listener) struckAgain(p peak) bool {
	before, after := l.aboutPeak(p)
	if before == nil {
		return false
	}
	together, grown := l.goesOn(before, after, stepAfter-stepBeforeTo)
	l.zz(p.frame*l.hop+len(l.spectrum.window)/2, "again? together %.2f grown %.2f", together, grown)
	return together < outOfPhase && grown > stillStrong || grown > newStrength
}

// goesOn compares the strongest partials of a sound with those of a later one, so many
// seconds from the end of one to the start of the other: how well the phases agree
// that are foretold and found, 1 to −1, and by how much their power has grown.
func (l *Listener) goesOn(before, after []float64, between float64) (together, grown float64) {
	n := min(len(before), len(after), int(longestPursuit*l.slow.rate))
	before, after = before[len(before)-n:], after[:n]
	gap := int(between*l.slow.rate) + n // from the first sample of one to that of the other
	window := l.pursuit.window(n)
	var agree, both, was, is float64
	taken := 0
	for _, part := range l.pursuit.partials(before, 0) {
		if taken == strongPartials {
			break
		}
		if part.step > 2*math.Pi*highestStrong/l.slow.rate {
			continue
		}
		taken++
		// Seen under the window, each is about half its amplitude times the window's sum.
		foretold := complex(part.cosine, -part.sine) * cmplx.Rect(1, part.step*float64(gap))
		found := seen(after, window, part.step)
		agree += real(cmplx.Conj(foretold) * found)
		both += cmplx.Abs(foretold) * cmplx.Abs(found)
		was, is = was+power(foretold), is+power(found)
	}
	if both == 0 {
		return 0, 0
	}
	return agree / both, is / was
}

// seen is the amplitude under a window of the sinusoid of an angle per sample, its
// phase that of the first sample.
func seen(x, window []float64, step float64) complex128 {
	s, c := math.Sincos(step)
	turn, z := complex(c, -s), complex(1, 0)
	var sum complex128
	weight := 0.0
	for i, w := range window {
		sum += complex(w*x[i], 0) * z
		weight += w
		z *= turn
	}
	return 2 * sum / complex(weight, 0)
}
