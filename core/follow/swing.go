package follow

import (
	"math"

	"manudrill/core/stats"
)

// From which share of the time of two notes on the first of them is swung, and up to which:
// one of three quarters is a dotted rhythm (common practice). Below the least it is a finger
// that comes late.
const (
	leastSwing = 0.56
	mostSwing  = 0.76
)

// What shows that a player swings, and is not late with one finger: enough pairs of notes, in
// each third of the take, and of each kind of step; of one kind of step alone, clearly more.
const (
	enoughPairs = 9
	swingOfEach = 0.54
	swingOfOne  = 0.63
)

// A swung pair is two notes that share the time to the next but one.
type swungPair struct {
	second int     // match
	share  float64 // of the first
}

// findSwing moves the second of each two notes to where a player who swings expects it, so
// that nothing else is told of that.
func (t *Take) findSwing() {
	pairs := t.pairs()
	if len(pairs) < enoughPairs {
		return
	}
	share := shareOf(pairs)
	if share < leastSwing || share > mostSwing || !t.swingsThroughout(pairs, share) {
		return
	}
	for i := range t.Matches {
		if t.offBeat(i) {
			t.Matches[i].Chart.Beat += (2*share - 1) / float64(t.Chart.NotesPerBeat)
		}
	}
	t.happened(Event{Kind: Swing, T: t.Start(), Share: share})
}

// swingsThroughout reports whether it is so in each third, and for each kind of step.
func (t *Take) swingsThroughout(pairs []swungPair, share float64) bool {
	third := len(pairs) / 3
	for i := range 3 {
		if shareOf(pairs[i*third:(i+1)*third]) < swingOfEach {
			return false
		}
	}
	of := map[stepKind][]swungPair{}
	for _, p := range pairs {
		kind := t.stepKind(p.second)
		of[kind] = append(of[kind], p)
	}
	for _, some := range of {
		if len(some) >= fewestOf && shareOf(some) < swingOfEach {
			return false
		}
	}
	return len(of) > 1 || share >= swingOfOne
}

// pairs are two notes each, on a division of the beat and off it, with the next one played.
func (t *Take) pairs() (pairs []swungPair) {
	if t.Chart.RiseBPM > 0 || t.Chart.NotesPerBeat%2 != 0 {
		return nil
	}
	for i := 1; i+1 < len(t.Matches); i++ {
		a, b, c := t.Matches[i-1], t.Matches[i], t.Matches[i+1]
		whole := c.Chart.Beat - a.Chart.Beat
		even := math.Abs(2*(b.Chart.Beat-a.Chart.Beat)-whole) < 1e-6 && math.Abs(whole-2/float64(t.Chart.NotesPerBeat)) < 1e-6
		if !even || !t.offBeat(i) || a.Status != Played || b.Status != Played || c.Status != Played || t.breaksWithin(i-1, i+1) {
			continue
		}
		pairs = append(pairs, swungPair{i, (b.Heard.Onset - a.Heard.Onset) / (c.Heard.Onset - a.Heard.Onset)})
	}
	return pairs
}

// offBeat reports whether a match is the second of two divisions of the beat.
func (t *Take) offBeat(match int) bool {
	at := t.Matches[match].Chart.Beat * float64(t.Chart.NotesPerBeat)
	return t.Chart.NotesPerBeat%2 == 0 && math.Abs(at-math.Round(at)) < 1e-6 && int(math.Round(at))%2 == 1
}

func shareOf(pairs []swungPair) float64 {
	shares := make([]float64, len(pairs))
	for i, p := range pairs {
		shares[i] = p.share
	}
	return stats.Median(shares)
}
