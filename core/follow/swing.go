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

// straight is the share of each of two notes that are not swung, and aboutStraight how far off
// it the notes of a player may be who does not swing.
const (
	straight      = 0.5
	aboutStraight = 0.03
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

// findSwing moves the second of each two notes to where a player who swings otherwise than
// asked expects it, so that nothing else is told of that.
func (t *Take) findSwing() {
	pairs := t.pairs()
	if len(pairs) < enoughPairs {
		return
	}
	asked := straight
	if t.Chart.Swings() {
		asked = t.Chart.Swing
	}
	share := shareOf(pairs)
	if share < straight-aboutStraight || share > mostSwing || !t.swingsThroughout(pairs, share, asked) {
		return
	}
	for i := range t.Matches {
		if t.offBeat(i) {
			t.Matches[i].Chart.Beat += 2 * (share - asked) / float64(t.Chart.NotesPerBeat)
		}
	}
	t.happened(Event{Kind: Swing, T: t.Start(), Share: share})
}

// swingsThroughout reports whether a share is another than the one asked for in each third, and
// for each kind of step.
func (t *Take) swingsThroughout(pairs []swungPair, share, asked float64) bool {
	way := 1.0
	if share < asked {
		way = -1
	}
	off := func(share float64) float64 { return way * (share - asked) }
	if off(share) < leastSwing-straight || way < 0 && !t.Chart.Swings() {
		return false
	}
	third := len(pairs) / 3
	for i := range 3 {
		if off(shareOf(pairs[i*third:(i+1)*third])) < swingOfEach-straight {
			return false
		}
	}
	of := map[stepKind][]swungPair{}
	for _, p := range pairs {
		kind := t.stepKind(p.second)
		of[kind] = append(of[kind], p)
	}
	for _, some := range of {
		if len(some) >= fewestOf && off(shareOf(some)) < swingOfEach-straight {
			return false
		}
	}
	return len(of) > 1 || off(share) >= swingOfOne-straight
}

// pairs are two notes each, on a division of the beat and off it, with the next one played.
func (t *Take) pairs() (pairs []swungPair) {
	if t.Chart.RiseBPM > 0 || t.Chart.NotesPerBeat%2 != 0 {
		return nil
	}
	for i := 1; i+1 < len(t.Matches); i++ {
		a, b, c := t.Matches[i-1], t.Matches[i], t.Matches[i+1]
		whole := c.Chart.Beat - a.Chart.Beat
		if math.Abs(whole-2/float64(t.Chart.NotesPerBeat)) > 1e-6 || !t.offBeat(i) || a.Status != Played || b.Status != Played || c.Status != Played || t.breaksWithin(i-1, i+1) {
			continue
		}
		pairs = append(pairs, swungPair{i, (b.Heard.Onset - a.Heard.Onset) / (c.Heard.Onset - a.Heard.Onset)})
	}
	return pairs
}

// offBeat reports whether a match is the second of two divisions of the beat, as it is written.
func (t *Take) offBeat(match int) bool {
	size := len(t.Chart.Notes)
	return t.Chart.OffDivision(float64(match/size)*t.Chart.Beats() + t.Chart.Notes[match%size].Beat)
}

func shareOf(pairs []swungPair) float64 {
	shares := make([]float64, len(pairs))
	for i, p := range pairs {
		shares[i] = p.share
	}
	return stats.Median(shares)
}
