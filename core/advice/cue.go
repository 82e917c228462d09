package advice

import (
	"slices"

	"manudrill/core/drill/chart"
	"manudrill/core/setup"
)

// mostCues is how many are given at once: a hand can mind no more.
const mostCues = 2

// A cue is what a teacher says while watching (common practice): of a movement that the
// drill has, by a school, for a fault that was heard.
type cue struct {
	text   string
	moves  func(chart.Chart) bool
	choice string   // of the school that it belongs to; empty for all
	way    string   // that it chooses
	faults []string // what findings are about for which it is said first
}

// cues are all, the movements that a drill is about first.
var cues = []cue{
	{text: "Tap with the tip of the index finger, and pluck the string as it leaves.", moves: attacks(chart.Tap), choice: "tap", way: setup.TapIndex},
	{text: "Tap with the tip of the middle finger, and pluck the string as it leaves.", moves: attacks(chart.Tap), choice: "tap", way: setup.TapMiddle},
	{text: "Pull down into the next string rather than away from the neck.", moves: attacks(chart.Pull), choice: "pullOff", way: setup.PullIntoNext, faults: []string{"slurs", "soft", "bend"}},
	{text: "Pull clear of the next string, so that it can ring.", moves: attacks(chart.Pull), choice: "pullOff", way: setup.PullClear, faults: []string{"slurs", "soft"}},
	{text: "Lift lightly; do not drag the string aside.", moves: attacks(chart.Pull), choice: "pullOff", way: setup.PullLift, faults: []string{"bend"}},
	{text: "The finger you pull off to is down already.", moves: attacks(chart.Pull), faults: []string{"gaps", "late", "uneven"}},
	{text: "Do not drag the string aside before it sounds.", moves: attacks(chart.Pull), faults: []string{"bend"}},
	{text: "Hammer from close by, fingertip right behind the fret.", moves: attacks(chart.Hammer, chart.Nowhere), choice: "hammer", way: setup.HammerClose, faults: []string{"slurs", "soft", "late", "uneven"}},
	{text: "Hammer from the large knuckle, fingertip right behind the fret.", moves: attacks(chart.Hammer, chart.Nowhere), choice: "hammer", way: setup.HammerKnuckle, faults: []string{"slurs", "soft", "late", "uneven"}},
	{text: "Press no harder than the note needs once it sounds.", moves: attacks(chart.Hammer, chart.Nowhere), faults: []string{"tires"}},
	{text: "Going up, leave each finger down; coming down, let one leave at a time.", moves: ascends, choice: "ascending", way: setup.AscendStay, faults: []string{"gaps"}},
	{text: "Going up, each finger leaves as the next one lands, not before.", moves: ascends, choice: "ascending", way: setup.AscendLift, faults: []string{"gaps"}},
	{text: "Palm on the thicker strings, the underside of the first finger on the thinner ones.", moves: crosses, faults: []string{"ringing"}},
	{text: "New finger down, old finger up and the pick through the string, at one moment.", moves: attacks(chart.Pick), faults: []string{"gaps", "late", "uneven"}},
	{text: "The pick waits above the string, not on it.", moves: attacks(chart.Pick), faults: []string{"gaps", "crossing"}},
	{text: "Keep the picking hand anchored while strings are skipped.", moves: skips, faults: []string{"crossing"}},
	{text: "The hand moves as one, thumb and all.", moves: shifts, faults: []string{"shift"}},
	{text: "Thumb behind the middle finger and low, so that the hand can open.", moves: stretches, faults: []string{"late", "uneven", "tires"}},
	{text: "Let the little finger stay near the strings.", moves: fourth, faults: []string{"late", "uneven"}},
	{text: "Slow down until it is even; do not hurry the easy places.", moves: anything, faults: []string{"hurried", "drift", "click"}},
}

// Cues are at most two sentences on how to move in a chart, by a school: those for what
// was found in the last take first, the most important finding before the others, then
// those that belong to the movements of the drill. Of mistakes and of another drill no
// cue is given a cause.
func Cues(c chart.Chart, school setup.School, found []Finding) []string {
	var fit []cue
	for _, q := range cues {
		if q.moves(c) && (q.choice == "" || school.Says(q.choice) == q.way) {
			fit = append(fit, q)
		}
	}
	said := []string{}
	say := func(q cue) {
		if len(said) < mostCues && !slices.Contains(said, q.text) {
			said = append(said, q.text)
		}
	}
	for _, f := range found {
		for _, q := range fit {
			if slices.Contains(q.faults, f.About) {
				say(q)
			}
		}
	}
	if len(said) > 0 {
		return said
	}
	for _, q := range fit {
		say(q)
	}
	return said
}

func anything(chart.Chart) bool { return true }

func attacks(some ...chart.Attack) func(chart.Chart) bool {
	return func(c chart.Chart) bool {
		return slices.ContainsFunc(c.Notes, func(n chart.Note) bool { return slices.Contains(some, n.Attack) })
	}
}

// steps reports whether a note and the one after it are so.
func steps(c chart.Chart, is func(a, b chart.Note) bool) bool {
	for i := 1; i < len(c.Notes); i++ {
		if is(c.Notes[i-1], c.Notes[i]) {
			return true
		}
	}
	return false
}

func ascends(c chart.Chart) bool {
	return steps(c, func(a, b chart.Note) bool {
		return a.String == b.String && b.Fret > a.Fret && a.Finger > 0 && b.Hand == chart.FrettingHand
	})
}

func crosses(c chart.Chart) bool {
	return steps(c, func(a, b chart.Note) bool { return a.String != b.String })
}

func skips(c chart.Chart) bool {
	return steps(c, func(a, b chart.Note) bool { return max(a.String-b.String, b.String-a.String) > 1 })
}

// shifts reports whether the hand moves along the neck.
func shifts(c chart.Chart) bool {
	return steps(c, func(a, b chart.Note) bool {
		return a.Finger > 0 && b.Finger > 0 && a.Hand == b.Hand && a.Fret-a.Finger != b.Fret-b.Finger
	})
}

// stretched is how many frets the hand is open at the least to be called so, low on the
// neck.
const stretched, lowFret = 4, 5

func stretches(c chart.Chart) bool {
	return steps(c, func(a, b chart.Note) bool {
		wide := max(a.Fret-b.Fret, b.Fret-a.Fret)
		return a.Hand == b.Hand && a.Finger > 0 && b.Finger > 0 && (wide >= stretched || wide == stretched-1 && min(a.Fret, b.Fret) < lowFret)
	})
}

func fourth(c chart.Chart) bool {
	return slices.ContainsFunc(c.Notes, func(n chart.Note) bool { return n.Finger == 4 && n.Hand == chart.FrettingHand })
}
