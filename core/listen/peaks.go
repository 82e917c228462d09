package listen

import "slices"

// A peak is a place where the flux is highest.
type peak struct {
	frame int
	plain bool // it stands out from the unrest of the recording

	lasting  float64 // how much of what has grown there stays: see [flux.lasting]
	together float64 // how much of what sounds after it went on from before, 1 to −1: see [Listener.tracedBack]
}

// peakReach is how many frames on either side a peak must top: 17 ms.
const peakReach = 2

// doubtful is the least flux of a peak that may be a note though it does not stand
// out: a slur whose partials hardly leave their bands.
const doubtful = 1.2

// What makes a peak plain: it must rise above the flux's median over the
// 100 ms before it, which is the unrest of the recording. A median, unlike a
// mean, is not lifted by one strong attack.
const (
	threshold     = 5.5
	medianFrames  = 11
	medianShare   = 0.5
	historyFrames = medianFrames + peakReach
)

// picker finds peaks in a stream of flux values.
type picker struct {
	history [historyFrames + peakReach + 1]float64
	n       int
}

func (p *picker) at(frame int) float64 {
	if frame < 0 {
		return 0
	}
	return p.history[frame%len(p.history)]
}

// next takes the flux of one more frame. It returns the peak that lies
// peakReach frames back, if there is one.
func (p *picker) next(v float64) (peak, bool) {
	p.history[p.n%len(p.history)] = v
	p.n++
	mid := p.n - 1 - peakReach
	if mid < 1 {
		return peak{}, false
	}
	top := p.at(mid)
	for d := 1; d <= peakReach; d++ {
		if p.at(mid-d) >= top || p.at(mid+d) > top {
			return peak{}, false
		}
	}
	return peak{frame: mid, plain: top > threshold+medianShare*p.median(mid)}, top > doubtful
}

// median returns the median of the flux before a frame.
func (p *picker) median(frame int) float64 {
	var before [medianFrames]float64
	for i := range before {
		before[i] = p.at(frame - peakReach - i)
	}
	slices.Sort(before[:])
	return before[medianFrames/2]
}
