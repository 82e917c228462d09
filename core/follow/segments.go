package follow

import (
	"cmp"
	"math"
	"slices"

	"manudrill/core/stats"
)

// How long an interval must be, beyond its own length, for the player to have waited: more
// than unevenness explains, and more than anybody would call late.
const (
	waitSpreads = 4.5  // of the intervals; by chance one in 300,000
	waitShare   = 0.25 // of the interval
	waitSeconds = 0.05
)

// around is how many notes either side show where the line runs.
const around = 4

// A trait is what happens at every so many of the steps of a kind at the least: it is how
// this player plays them, and no event.
const (
	traitShare = 1.0 / 3
	fewestOf   = 3
)

// A gap is an interval from one note that was played to the next.
type gap struct {
	due    int     // match that was due
	to     int     // match that it leads to, another where some were missed
	asked  float64 // s, at the tempo held
	excess float64 // s
}

// findWaits begins a new line of time wherever the player waited and did not catch up, or went
// on too soon and stayed so.
func (t *Take) findWaits() {
	var at []int // matches that were played
	for i, m := range t.Matches {
		if m.Status == Played {
			at = append(at, i)
		}
	}
	gaps := t.gaps(at)
	if len(gaps) < 4 {
		return
	}
	spread, habits := spreadOf(gaps), t.habits(gaps)
	for k, g := range gaps {
		wait := math.Abs(g.excess) > max(waitSpreads*spread, waitShare*g.asked, waitSeconds)
		if !wait || !stays(gaps, k) || g.excess < g.asked && habits.trait(t.stepKind(g.to), g.excess) {
			continue
		}
		t.Breaks = append(t.Breaks, g.to)
		if g.excess > 0 {
			t.waited(g)
		}
	}
}

// gaps are the intervals between the matches played, but for those in which the player did
// something else.
func (t *Take) gaps(at []int) []gap {
	var each []float64
	var gaps []gap
	for k := 1; k < len(at); k++ {
		a, b := t.Matches[at[k-1]], t.Matches[at[k]]
		if beats := b.Chart.Beat - a.Chart.Beat; beats > 0 && !t.breaksWithin(at[k-1], at[k]) {
			each = append(each, (b.Heard.Onset-a.Heard.Onset)/beats)
			gaps = append(gaps, gap{at[k-1] + 1, at[k], beats, b.Heard.Onset - a.Heard.Onset})
		}
	}
	if len(each) == 0 {
		return nil
	}
	slices.Sort(each)
	usual := each[len(each)/2]
	for i := range gaps {
		gaps[i].asked *= usual
		gaps[i].excess -= gaps[i].asked
	}
	return gaps
}

// spreadOf is the standard deviation of the intervals, by their median deviation, which no
// wait moves; at the least what the ear hardly tells.
func spreadOf(gaps []gap) float64 {
	off := make([]float64, len(gaps))
	for i, g := range gaps {
		off[i] = g.excess
	}
	middle := stats.Median(off)
	for i := range off {
		off[i] = math.Abs(off[i] - middle)
	}
	return max(toSpread*stats.Median(off), leastSpread)
}

// toSpread makes a standard deviation of a median deviation of normal values, and leastSpread
// is s.
const (
	toSpread    = 1.4826
	leastSpread = 0.003
)

// stays reports whether what comes after an interval is as late as its first note, or as
// early: the lines either side lie apart by more than half of it. With nothing after it a
// wait must be longer than the interval itself.
func stays(gaps []gap, k int) bool {
	g := gaps[k]
	var before, after []float64
	sum := 0.0
	for i := k - 1; i >= max(0, k-around+1); i-- {
		sum -= gaps[i].excess
		before = append(before, sum)
	}
	sum = 0
	for i := k + 1; i < min(len(gaps), k+around); i++ {
		sum += gaps[i].excess
		after = append(after, sum)
	}
	if len(after) == 0 {
		return g.excess > g.asked
	}
	shift := g.excess + stats.Median(append(after, 0))
	if len(before) > 0 {
		shift -= stats.Median(append(before, 0))
	}
	return math.Abs(shift) > math.Abs(g.excess)/2 && (shift > 0) == (g.excess > 0)
}

// Habits are by how much the steps of one kind were too long, s, in order.
type habits map[stepKind][]float64

func (t *Take) habits(gaps []gap) habits {
	of := habits{}
	for _, g := range gaps {
		kind := t.stepKind(g.to)
		of[kind] = append(of[kind], g.excess)
	}
	for _, all := range of {
		slices.Sort(all)
	}
	return of
}

// trait reports whether steps of a kind are often off by more than half as far.
func (h habits) trait(kind stepKind, excess float64) bool {
	all := h[kind]
	alike, _ := slices.BinarySearch(all, excess/2)
	if excess > 0 {
		alike = len(all) - alike
	}
	return alike >= fewestOf && float64(alike) >= traitShare*float64(len(all))
}

// A stepKind is what makes one step like another for the hand.
type stepKind struct{ from, to, strings, shift int }

func (t *Take) stepKind(to int) stepKind {
	a, b := t.Matches[max(0, to-1)].Chart, t.Matches[to].Chart
	return stepKind{a.Finger, b.Finger, b.String - a.String, cmp.Compare(b.Fret-b.Finger, a.Fret-a.Finger)}
}

// stopSeconds and a beat: a wait shorter than the longer of both is a hesitation.
const stopSeconds = 1.0

func (t *Take) waited(g gap) {
	kind := Hesitation
	if g.excess >= max(stopSeconds, 60/t.Chart.BPM) {
		kind = Stop
	}
	t.happened(Event{Kind: kind, Before: g.due, T: t.Matches[g.to].Heard.Onset, Seconds: g.excess})
}
