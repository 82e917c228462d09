package evenness

import (
	"cmp"
	"math"
	"slices"

	"manudrill/core/stats"
)

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

// softHeard is how much softer than the others a finger pair must be to be named, in dB: twice
// the step that the ear notices, for no two fingers are alike.
const softHeard = 2 * AudibleDB

// holdCauses marks the causes of unevenness that are heard and no chance: finger pairs,
// crossings and shifts, the way back, the tempo over the take, and the click.
func (a *Analysis) holdCauses() {
	var family []claim
	for _, t := range a.Pairs() {
		t.Sure, t.Stands, t.Soft = false, false, false
		if !a.isCrossing(*t) {
			family = append(family, claim{chanceOf(t.MeanMs, t.PlusMinusMs, t.Count), func() {
				t.Sure = true
				t.Stands = !t.MadeUp && math.Abs(t.MeanMs) > a.Timing.AudibleMs
			}})
		}
		if t.SofterDB != nil {
			family = append(family, claim{t.SofterDB.chance(), func() { t.Soft = t.SofterDB.Value > softHeard }})
		}
		t.Varies = t.LeastSure && !t.MadeUp && t.SpreadMs > varies*a.Timing.AudibleMs
	}
	family = append(family, a.ways()...)
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
	for i := range a.Groups {
		if g := &a.Groups[i]; g.Kind == ByCrossing && g.Number > 0 && g.Stands {
			a.settle(g)
		}
	}
	a.Weakest = a.weakest()
}

// isCrossing reports whether a finger pair is all there is of a string change: it is asked as
// that.
func (a *Analysis) isCrossing(t Transition) bool {
	return t.Strings > 0 && slices.ContainsFunc(a.Groups, func(g Group) bool {
		return g.Kind == ByCrossing && g.Number == t.Strings && g.Count == t.Count
	})
}

// settle leaves one of a string change that comes late and the finger pairs that make it: the
// change, where the others come late beside the latest pair too; else that pair.
func (a *Analysis) settle(change *Group) {
	var pairs []*Transition // latest first, as far as they are late
	for i := range a.Across {
		if t := &a.Across[i]; t.Strings == change.Number && t.Stands && t.MeanMs > 0 {
			pairs = append(pairs, t)
		}
	}
	if len(pairs) == 0 {
		return
	}
	latest := slices.MaxFunc(pairs, func(a, b *Transition) int { return cmp.Compare(a.MeanMs, b.MeanMs) })
	others := float64(change.Count - latest.Count)
	if rest := float64(change.Count)*change.MeanMs.Value - float64(latest.Count)*latest.MeanMs; rest < others*a.Timing.AudibleMs {
		change.Stands = false
		return
	}
	for _, t := range pairs {
		t.Stands = false
	}
}

// weakest is the pair that surely comes late, or is least sure, so that it is heard: the
// weakest of them, or nil.
func (a *Analysis) weakest() *FingerPair {
	for _, t := range a.Pairs() {
		if t.Stands && t.MeanMs > 0 || t.Varies {
			return &t.FingerPair
		}
	}
	return nil
}

// ways asks whether the path is less even one way than the other, by the ratio of two
// variances (F distribution). Intervals hang together: one that is long makes the next one
// short, by which so many count as 0.6 of them (Bartlett, J. R. Stat. Soc. 98, 1935, for a
// correlation of −½).
func (a *Analysis) ways() []claim {
	var ways []*Group
	for i := range a.Groups {
		if g := &a.Groups[i]; g.Kind == ByWay && g.SpreadMs != nil {
			g.Varies = false
			ways = append(ways, g)
		}
	}
	if len(ways) != 2 {
		return nil
	}
	slices.SortFunc(ways, func(a, b *Group) int { return cmp.Compare(a.SpreadMs.Value, b.SpreadMs.Value) })
	even, uneven := ways[0], ways[1]
	const counts = 0.6
	ratio := uneven.SpreadMs.Value / max(even.SpreadMs.Value, 1e-9)
	chance := 2 * stats.FSurvival(ratio*ratio, counts*float64(uneven.Count-1), counts*float64(even.Count-1))
	return []claim{{chance, func() { uneven.Varies = ratio > lessEven && uneven.SpreadMs.Value > varies*a.Timing.AudibleMs }}}
}

// lessEven is how many times as much as the other one a way must vary to be named.
const lessEven = 1.3

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
