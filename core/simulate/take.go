package simulate

import (
	"math"

	"manudrill/core/bounds"
	"manudrill/core/drill/chart"
)

// Rate is the number of samples a second of a simulated take.
const Rate = 44100

// CountIn is the time before the first note, in seconds.
const CountIn = 2.0

// Take plays the chart and returns the strokes and their sound, mono at [Rate]. It
// fails with [bounds.ErrTakeTooLong] before any sound is made.
func (p Player) Take(c chart.Chart) (strokes []Stroke, samples []float64, err error) {
	strokes = p.Perform(c, CountIn)
	end := CountIn + 1
	if len(strokes) > 0 {
		end = strokes[len(strokes)-1].T + 1
	}
	if !(end <= bounds.TakeSeconds) {
		return nil, nil, bounds.ErrTakeTooLong
	}
	samples = p.Render(strokes, Rate, end)
	if p.ClickDB < 0 {
		beat := 60 / c.BPM
		for k := -math.Floor(CountIn / beat); CountIn+k*beat < end; k++ {
			addClick(samples, int((CountIn+k*beat)*Rate), math.Mod(k, float64(c.BarBeats())) == 0, decibels(p.ClickDB))
		}
	}
	return strokes, samples, nil
}
