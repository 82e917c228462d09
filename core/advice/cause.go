package advice

import (
	"cmp"
	"math"
	"slices"

	"manudrill/core/evenness"
)

// A cause is what a finding of unevenness in time rests on, and how much it explains.
type cause struct {
	Finding
	share   float64             // of the variance of the intervals, 0 to 1
	pair    evenness.FingerPair // of a finger pair
	strings int                 // gone over, of a crossing
}

// worthSaying is the share of the unevenness a cause must explain to be named beside
// one that explains most.
const worthSaying = 0.08

// causes returns what explains the unevenness in time, most of it first. Those that
// explain little beside the first are left out: one thing at a time.
func (t take) causes() []cause {
	var all []cause
	for _, find := range []func(take) (cause, bool){lateCause, unevenCause, hurriedCause, crossingCause, shiftCause, wayCause, driftCause, clickCause} {
		if c, ok := find(t); ok && !slices.Contains(t.Denied, c.About) {
			all = append(all, c)
		}
	}
	slices.SortStableFunc(all, func(a, b cause) int { return cmp.Compare(b.share, a.share) })
	for i := range all {
		if i > 0 && all[i].share < worthSaying {
			return all[:i]
		}
	}
	return all
}

// shareOf is how much of the variance of all intervals so many of them explain that
// are off by a mean, in ms.
func (t take) shareOf(count int, ms float64) float64 {
	interval := 1000 / max(t.Tempo.NotesPerSecond, 1e-9)
	sd := t.Timing.CVPercent / 100 * interval
	whole := sd * sd * float64(max(1, t.Counts.Played-1))
	return min(1, float64(count)*ms*ms/max(whole, 1e-9))
}

func lateCause(t take) (cause, bool) {
	text, count := findLate(t)
	if text == "" {
		return cause{}, false
	}
	late := t.late()
	return cause{Finding: Finding{"late", text, count}, share: t.shareOf(count, late.MeanMs), pair: late.FingerPair}, true
}

func unevenCause(t take) (cause, bool) {
	text, count := findUneven(t)
	if text == "" || t.Endurance != nil && t.Endurance.Tires { // a tired hand is unsure everywhere
		return cause{}, false
	}
	uneven := t.uneven()
	return cause{Finding: Finding{"uneven", text, count}, share: t.shareOf(count, uneven.SpreadMs), pair: uneven.FingerPair}, true
}

func hurriedCause(t take) (cause, bool) {
	text, count := findHurried(t)
	if text == "" {
		return cause{}, false
	}
	return cause{Finding: Finding{"hurried", text, count}, share: t.shareOf(count, t.hurried().MeanMs)}, true
}

func crossingCause(t take) (cause, bool) {
	text, count := findCrossing(t)
	if text == "" {
		return cause{}, false
	}
	g := t.lateGroup(evenness.ByCrossing)
	return cause{Finding: Finding{"crossing", text, count}, share: t.shareOf(count, g.MeanMs.Value), strings: g.Number}, true
}

func shiftCause(t take) (cause, bool) {
	text, count := findShift(t)
	if text == "" {
		return cause{}, false
	}
	return cause{Finding: Finding{"shift", text, count}, share: t.shareOf(count, t.lateGroup(evenness.ByShift).MeanMs.Value)}, true
}

// wayCause explains what the one way varies more than the other.
func wayCause(t take) (cause, bool) {
	text, count := findWay(t)
	if text == "" {
		return cause{}, false
	}
	g, other := t.unevenWay()
	more := math.Sqrt(g.SpreadMs.Value*g.SpreadMs.Value - other.SpreadMs.Value*other.SpreadMs.Value)
	return cause{Finding: Finding{"way", text, count}, share: t.shareOf(count, more)}, true
}

// driftCause is told with what a steady change of tempo leaves of the notes about their
// line: from a rise of p over n notes, the farthest is n·p/8 off, the standard deviation
// n·p/(8·√(15/8)) of an interval (the parabola's about its mean line).
func driftCause(t take) (cause, bool) {
	text, count := findDrift(t)
	if text == "" {
		return cause{}, false
	}
	interval := 1000 / max(t.Tempo.NotesPerSecond, 1e-9)
	bow := math.Abs(t.Pulse.DriftPercent.Value) / 100 * float64(t.Counts.Played) / 8 / math.Sqrt(15.0/8) * interval
	spread := max(t.Timing.SpreadMs, 1e-9)
	return cause{Finding: Finding{"drift", text, count}, share: min(1, bow*bow/(spread*spread))}, true
}

// clickCause makes nothing uneven: it is said last of what is heard in time.
func clickCause(t take) (cause, bool) {
	text, count := findClick(t)
	return cause{Finding: Finding{"click", text, count}, share: worthSaying}, text != ""
}
