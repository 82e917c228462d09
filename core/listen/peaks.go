package listen

// A peak is a place where the flux is highest.
type peak struct {
	frame    int
	strength float64
}

// peakReach is how many frames on either side a peak must top: 15 ms.
const peakReach = 5

// What makes a peak a candidate: it must rise above part of the flux's mean
// over the 100 ms before it.
const (
	threshold     = 5.5
	meanFrames    = 35
	meanShare     = 0.5
	historyFrames = meanFrames + peakReach
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
	mean := 0.0
	for d := peakReach; d < historyFrames; d++ {
		mean += p.at(mid-d) / meanFrames
	}
	return peak{mid, top}, top > threshold+meanShare*mean
}
