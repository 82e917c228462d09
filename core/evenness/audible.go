package evenness

import "math"

// surely is how many times its 95 % interval a mean must be off to be named: of half a
// dozen pairs asked at once, one would too often stand out by chance. It is then some 99 %
// for each (Student's t of 12 notes, 3.05 against 2.18).
const surely = 1.4

// varies is how many times what the ear notices the spread of a finger pair must be to be
// named.
const varies = 2

// MarkAudible marks what of notes, finger pairs and groups is heard, and is not by chance: what
// tables show as a fault is what advice speaks of. It is done to what was judged before, too.
func (a *Analysis) MarkAudible() {
	for i := range a.Notes {
		n := &a.Notes[i]
		n.Uneven = n.DeviationMs != nil && math.Abs(*n.DeviationMs) > a.Timing.AudibleMs
		n.Stands = n.RelativeLevel != nil && math.Abs(*n.RelativeLevel) > a.Level.AudibleDB
	}
	for i := range a.Transitions {
		t := &a.Transitions[i]
		off := math.Abs(t.MeanMs)
		t.Stands = t.Sure && !t.MadeUp && off > a.Timing.AudibleMs && off > surely*t.PlusMinusMs
		t.Varies = t.LeastSure && !t.MadeUp && t.SpreadMs > varies*a.Timing.AudibleMs
	}
	for i := range a.Groups {
		g := &a.Groups[i]
		g.Stands = g.MeanMs.Exceeds(a.Timing.AudibleMs) || g.MeanMs.Below(a.Timing.AudibleMs)
	}
}
