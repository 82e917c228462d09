package listen

import "math"

// recent holds the last samples of a stream, addressed by their place in it.
type recent struct {
	keep  int // how many samples to hold at the least
	buf   []float64
	start int // place of buf[0] in the stream
	end   int
}

// newRecent holds at least keep samples; pieces may be added of up to as many.
func newRecent(keep int) recent { return recent{keep: keep, buf: make([]float64, 0, 2*keep)} }

func (r *recent) add(samples []float64) {
	if len(r.buf)+len(samples) > 2*r.keep {
		drop := len(r.buf) - r.keep
		r.buf = append(r.buf[:0], r.buf[drop:]...)
		r.start += drop
	}
	r.buf = append(r.buf, samples...)
	r.end += len(samples)
	held := r.buf[len(r.buf)-len(samples):]
	for i, v := range held {
		if !(math.Abs(v) <= absurd) { // nor a number either
			held[i] = 0
		}
	}
}

// absurd is how many times full scale no sample can be: what is more, or no
// number, a broken file has.
const absurd = 1e4

// slice returns the samples of [from, to) as far as they are still held.
func (r *recent) slice(from, to int) []float64 {
	from, to = max(from, r.start), min(to, r.end)
	if from >= to {
		return nil
	}
	return r.buf[from-r.start : to-r.start]
}
