package listen

import (
	"manudrill/core/listen/dsp"
)

// The part of a note over which its level is taken, in seconds after the onset.
const (
	levelFrom = 0.005
	levelTo   = 0.105
)

// level returns the RMS of a note's first part in dB of full scale.
func level(body []float64, rate float64) float64 {
	from := min(int(levelFrom*rate), len(body)/2)
	return dsp.Decibels(dsp.MeanSquare(body[from:min(len(body), int(levelTo*rate))]))
}

// silentDB is how far a note must fall below its start to count as ended.
const silentDB = 24

// sounding returns how many samples of body sound before it falls silent.
func sounding(body []float64, rate float64) int {
	step := max(1, int(0.010*rate))
	loud := level(body, rate)
	for at := len(body) / step * step; at > 0; at -= step {
		if dsp.Decibels(dsp.MeanSquare(body[at-step:at])) > loud-silentDB {
			return min(len(body), at)
		}
	}
	return len(body)
}

// A click is over before a note would be: what it has fallen to between these
// times is the room, in seconds.
const (
	clickBody    = 0.012
	afterClickAt = 0.040
	afterClickTo = 0.060
)

// isClick reports whether a sound has fallen silent as soon as a click does,
// however loud the room goes on.
func isClick(body []float64, rate float64) bool { return fallsOff(body, rate, silentDB) }

// roomDB is how far a click at least falls that a room lets ring on.
const roomDB = 10

// fallsOff reports whether a sound falls by so many dB as soon as a click is over.
func fallsOff(body []float64, rate, db float64) bool {
	if len(body) < int(afterClickTo*rate) {
		return false
	}
	loud := dsp.Decibels(dsp.MeanSquare(body[:int(clickBody*rate)]))
	return dsp.Decibels(dsp.MeanSquare(body[int(afterClickAt*rate):int(afterClickTo*rate)])) < loud-db
}
