package stand

import (
	"encoding/json"
	"fmt"

	"manudrill/core/listen"
	"manudrill/core/practice"
)

// Clicked is what was clicked while a device was recorded to find its delay.
type Clicked struct {
	Rate   float64   `json:"rate"`   // samples a second
	Clicks []float64 `json:"clicks"` // s from the first sample
	Played bool      `json:"played"` // somebody played on them; else the microphone has heard them
}

// A Delayed is the delay that was found, or why none was.
type Delayed struct {
	practice.Delay
	Sure bool   `json:"sure"`
	Text string `json:"text"`
}

// longestClicked is the longest recording in which a delay is looked for, s.
const longestClicked = 60

// FindDelay finds the delay of a device in a recording of samples of 24 bits; question is
// [Clicked] in JSON.
func FindDelay(question []byte, samples []int32) (Delayed, error) {
	var q Clicked
	if err := json.Unmarshal(question, &q); err != nil {
		return Delayed{}, fmt.Errorf("what was clicked cannot be read: %w", err)
	}
	if q.Rate < listen.LowestRate || q.Rate > listen.HighestRate || float64(len(samples)) > longestClicked*q.Rate {
		return Delayed{}, fmt.Errorf("%d samples at %g a second cannot be looked through; give a minute at the most", len(samples), q.Rate)
	}
	x := make([]float64, len(samples))
	for i, v := range samples {
		x[i] = float64(v) / (1 << 23)
	}
	d, sure := practice.DelayOf(q.Clicks, listen.Knocks(x, q.Rate), q.Played)
	return Delayed{d, sure, sayDelay(d, sure, q.Played)}, nil
}

func sayDelay(d practice.Delay, sure, played bool) string {
	switch {
	case sure && played:
		return fmt.Sprintf("%.0f ms, by %d of %d notes. How you come before or after a click yourself is part of it.", 1000*d.Seconds, d.Count, d.Of)
	case sure:
		return fmt.Sprintf("%.0f ms, by %d of %d clicks.", 1000*d.Seconds, d.Count, d.Of)
	case played:
		return "Too few notes came with the click. Play one on each, short and plain."
	}
	return "The microphone did not hear the clicks. Take headphones off and turn the sound up, or play on the click instead."
}
