package simulate

import (
	"math"

	"manudrill/core/bounds"
	"manudrill/core/drill/chart"
)

// ringOut is how long the last note rings, in seconds.
const ringOut = 1.0

// Rendition plays a chart exactly as it is written: mono samples of full scale
// ±1 at Rate, all passes, with a metronome's click on each beat where wanted. It
// fails with [bounds.ErrRenditionTooLong] before any sound is made.
func Rendition(c chart.Chart, click bool) ([]float64, error) {
	if !(c.TakeSeconds() <= bounds.RenditionSeconds) {
		return nil, bounds.ErrRenditionTooLong
	}
	p := Player{Seed: 1, SlurDropDB: 2}
	x := p.Render(p.Perform(c, 0), Rate, c.TakeSeconds()+ringOut)
	if !click {
		return x, nil
	}
	beats := int(math.Ceil(float64(max(1, c.Passes))*c.Beats() - 1e-9))
	for beat := range beats {
		addClick(x, int(float64(beat)*60/c.BPM*Rate), beat%c.BarBeats() == 0, renditionClick)
	}
	return x, nil
}

// renditionClick is the peak of the click in a rendition.
const renditionClick = 0.25

// addClick mixes in a short decaying tone, higher on the first beat of a bar.
func addClick(x []float64, at int, strong bool, peak float64) {
	hz := 1320.0
	if strong {
		hz = 1980
	}
	for i := range int(0.03 * Rate) {
		if at+i >= len(x) {
			return
		}
		t := float64(i) / Rate
		x[at+i] += peak * math.Sin(2*math.Pi*hz*t) * math.Exp(-180*t)
	}
}
