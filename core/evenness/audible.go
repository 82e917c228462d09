package evenness

import "math"

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
	var others []claim // what tables show besides
	for i := range a.Groups {
		g := &a.Groups[i]
		if g.Stands = false; !g.cause() {
			others = append(others, g.claim(a.Timing.AudibleMs))
		}
	}
	holdFamily(others)
	a.holdCauses()
}

// holdCauses marks the causes of unevenness that are heard and no chance: finger pairs,
// crossings and shifts, the tempo over the take, and the click.
func (a *Analysis) holdCauses() {
	var family []claim
	for i := range a.Transitions {
		t := &a.Transitions[i]
		t.Sure, t.Stands = false, false
		family = append(family, claim{chanceOf(t.MeanMs, t.PlusMinusMs, t.Count), func() {
			t.Sure = true
			t.Stands = !t.MadeUp && math.Abs(t.MeanMs) > a.Timing.AudibleMs
		}})
		t.Varies = t.LeastSure && !t.MadeUp && t.SpreadMs > varies*a.Timing.AudibleMs
	}
	for i := range a.Groups {
		if g := &a.Groups[i]; g.cause() {
			family = append(family, g.claim(a.Timing.AudibleMs))
		}
	}
	p := &a.Pulse
	p.Drifts, p.OffClick = false, false
	family = append(family,
		claim{p.DriftPercent.chance(), func() { p.Drifts = math.Abs(p.DriftPercent.Value) > driftHeard }},
		claim{p.ClickMs.chance(), func() { p.OffClick = math.Abs(p.ClickMs.Value) > clickHeard }})
	holdFamily(family)
}

// driftHeard is how much the tempo must change over a take to be heard, in %: a
// little above the smallest change of tempo that listeners notice (common
// practice).
const driftHeard = 3

// clickHeard is how far from the click playing is heard as beside it, in ms.
const clickHeard = 15

// cause reports whether advice names a group as a cause: what costs time on the way to a
// note.
func (g *Group) cause() bool { return (g.Kind == ByCrossing || g.Kind == ByShift) && g.Number > 0 }

func (g *Group) claim(audibleMs float64) claim {
	return claim{g.MeanMs.chance(), func() { g.Stands = math.Abs(g.MeanMs.Value) > audibleMs }}
}
