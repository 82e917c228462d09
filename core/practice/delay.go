package practice

import (
	"math"
	"slices"
)

// A Delay is how much later than it was clicked something is in the recordings of a device.
type Delay struct {
	Seconds  float64 `json:"seconds"`
	SpreadMs float64 `json:"spreadMs"` // standard deviation of the clicks about it
	Count    int     `json:"count"`    // clicks that it rests on
	Of       int     `json:"of"`       // clicks there were
}

const (
	// longestDelay is the longest that a device has, s: of wireless headphones.
	longestDelay = 0.6
	// delayWithin is how far from one another clicks are found that the microphone has heard,
	// and playedWithin notes that somebody has played on the click, s.
	delayWithin, playedWithin = 0.006, 0.09
	// delayShare is the share of the clicks that must be found.
	delayShare = 0.7
)

// DelayOf finds the delay from when clicks were made and when something was heard, s on one
// clock: the clicks themselves, or notes that were played on them, in which the player's own
// habit of coming before or after it is then part. It reports false where too few fit.
func DelayOf(clicks, heard []float64, played bool) (Delay, bool) {
	within := delayWithin
	if played {
		within = playedWithin
	}
	var best []float64
	for _, c := range clicks {
		for _, h := range heard {
			from := h - c
			if from < -within || from > longestDelay {
				continue
			}
			if found := laterBy(clicks, heard, from, from+within); len(found) > len(best) {
				best = found
			}
		}
	}
	d := Delay{Count: len(best), Of: len(clicks)}
	if len(best) == 0 || float64(d.Count) < delayShare*float64(d.Of) {
		return d, false
	}
	slices.Sort(best)
	d.Seconds = best[len(best)/2]
	sum := 0.0
	for _, v := range best {
		sum += (v - d.Seconds) * (v - d.Seconds)
	}
	d.SpreadMs = 1000 * math.Sqrt(sum/float64(len(best)))
	return d, true
}

// laterBy are for each click by how much the first thing heard within a range after it is
// later.
func laterBy(clicks, heard []float64, from, to float64) (found []float64) {
	for _, c := range clicks {
		for _, h := range heard {
			if h-c >= from && h-c <= to {
				found = append(found, h-c)
				break
			}
		}
	}
	return found
}
