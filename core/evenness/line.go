package evenness

import "gonum.org/v1/gonum/stat"

// A line gives the time of a beat: start + secondsPerBeat × beat.
type line struct{ start, secondsPerBeat float64 }

// fit draws the least-squares line of onset on beat. With fewer than two
// different beats it keeps the tempo given.
func fit(beats, onsets []float64, secondsPerBeat float64) line {
	if len(beats) < 2 || beats[0] == beats[len(beats)-1] {
		start := 0.0
		if len(beats) > 0 {
			start = onsets[0] - beats[0]*secondsPerBeat
		}
		return line{start, secondsPerBeat}
	}
	alpha, beta := stat.LinearRegression(beats, onsets, nil, false)
	return line{alpha, beta}
}

// off returns by how much, in ms, an onset comes after its beat on the line.
func (l line) off(beat, onset float64) float64 {
	return 1000 * (onset - l.start - l.secondsPerBeat*beat)
}

// spread is the standard deviation of x over all of it, 0 for fewer than two.
func spread(x []float64) float64 {
	if len(x) < 2 {
		return 0
	}
	return stat.PopStdDev(x, nil)
}

// mean is the arithmetic mean, 0 for none.
func mean(x []float64) float64 {
	if len(x) == 0 {
		return 0
	}
	return stat.Mean(x, nil)
}
