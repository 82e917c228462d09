package listen

import "math"

// What a knock is: within a frame the sound rises by so much above what was just before,
// and above the quietest of the recording; so long after one there is no other.
const (
	knockFrame  = 0.001 // s
	knockBefore = 8     // frames
	knockRiseDB = 6.0
	knockFloor  = 8.0  // dB
	knockApart  = 0.08 // s
)

// Knocks returns when something sharp begins in a short recording, a click or a note, in
// seconds from its first sample at a rate: coarser than the listener, but of any sound. High
// parts count most, so that hum does not hide it.
func Knocks(x []float64, rate float64) []float64 {
	size := int(math.Round(knockFrame * rate))
	if size < 1 || len(x) < size*(knockBefore+3) {
		return nil
	}
	level := make([]float64, 0, len(x)/size)
	for at := 1; at+size <= len(x); at += size {
		sum := 0.0
		for i := at; i < at+size; i++ {
			d := x[i] - x[i-1]
			sum += d * d
		}
		level = append(level, 10*math.Log10(sum/float64(size)+1e-14))
	}
	quiet := math.Inf(1)
	for _, v := range smoothed(level, knockBefore) {
		quiet = min(quiet, v)
	}
	var knocks []float64
	for i := knockBefore + 1; i < len(level); i++ {
		before := math.Inf(-1)
		for _, v := range level[i-1-knockBefore : i-1] { // it may begin within the frame between
			before = max(before, v)
		}
		t := float64(i*size+1) / rate
		again := len(knocks) > 0 && t-knocks[len(knocks)-1] < knockApart
		if !again && level[i]-before > knockRiseDB && level[i]-quiet > knockFloor {
			knocks = append(knocks, t)
		}
	}
	return knocks
}

// smoothed is the running mean over so many values.
func smoothed(of []float64, over int) []float64 {
	var out []float64
	sum := 0.0
	for i, v := range of {
		if sum += v; i >= over {
			sum -= of[i-over]
		}
		if i >= over-1 {
			out = append(out, sum/float64(over))
		}
	}
	return out
}
