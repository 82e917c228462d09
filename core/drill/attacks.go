package drill

import (
	"slices"

	"manudrill/core/drill/chart"
)

// An AttackRule says which notes are picked and which slurred, where the
// pattern leaves it open.
type AttackRule string

// The attack rules. A slur is always made the way the frets go: up by hammer-on,
// down by pull-off, on one finger by a slide.
const (
	AllPicked AttackRule = "picked"   // every note
	Slurred   AttackRule = "slurred"  // one stroke starts each cell and each new string
	Legato    AttackRule = "legato"   // one stroke a string, cells run into one another
	Hammers   AttackRule = "hammers"  // rising notes are hammered, all others picked
	Pulls     AttackRule = "pulls"    // falling notes are pulled off, all others picked
	NoPluck   AttackRule = "noPluck"  // the fretting hand alone: hammer-ons from nowhere for strokes
	PickOnce  AttackRule = "pickOnce" // one stroke a cell; a new string begins with a hammer-on from nowhere
	InTurn    AttackRule = "inTurn"   // picked and slurred by a cycle of one's own
)

// AttackRules are all of them.
var AttackRules = []AttackRule{AllPicked, Slurred, Legato, Hammers, Pulls, NoPluck, PickOnce, InTurn}

// Attacks is the rule of a drill.
type Attacks struct {
	Rule  AttackRule `json:"rule"`
	Cycle []bool     `json:"cycle,omitempty"` // of InTurn: true is slurred, as soon as it can be
	Each  Anew       `json:"each,omitempty"`  // of InTurn: where the cycle begins anew
}

// Anew says where a cycle of attacks begins anew.
type Anew string

// Nowhere but at its end; with each cell, each string, each bar.
const (
	RunsOn     Anew = ""
	AnewCell   Anew = "cell"
	AnewString Anew = "string"
	AnewBar    Anew = "bar"
)

func (a Attacks) check(faults *Faults) {
	if !slices.Contains(AttackRules, a.Rule) {
		faults.Add("attacks", "The attack rule is %q; choose picked, slurred, legato, hammers, pulls, noPluck, pickOnce or inTurn.", a.Rule)
	}
	if a.Rule == InTurn && len(a.Cycle) == 0 {
		faults.Add("attacks", "Say which notes are slurred in turn: give a cycle of at least one note.")
	}
	if !slices.Contains([]Anew{RunsOn, AnewCell, AnewString, AnewBar}, a.Each) {
		faults.Add("attacks", "A cycle of attacks begins anew with each cell, string or bar, not %q.", a.Each)
	}
}

// assign gives every note of a part its attack; bar is how many notes a bar has.
func (a Attacks) assign(l line, bar int) {
	turn := 0 // in the cycle
	for i := range l {
		var before *spot
		if i > 0 {
			before = &l[i-1]
		}
		if a.Rule == InTurn && a.anew(i, bar, before, l[i]) {
			turn = 0
		}
		wants := a.Rule == InTurn && a.Cycle[turn%len(a.Cycle)]
		l[i].attack = a.of(before, l[i], wants)
		if !wants || l[i].attack != chart.Pick {
			turn++ // a slur that cannot be made here waits for the next note
		}
	}
}

// anew reports whether a cycle begins anew at the i-th note.
func (a Attacks) anew(i, bar int, before *spot, s spot) bool {
	switch a.Each {
	case AnewCell:
		return s.startsCell
	case AnewString:
		return before == nil || before.str != s.str
	case AnewBar:
		return i%bar == 0
	}
	return false
}

// of decides one note from the one before it, and from whether a cycle wants it slurred.
func (a Attacks) of(before *spot, s spot, wants bool) chart.Attack {
	connected := before != nil && before.str == s.str && before.fret != s.fret
	switch {
	case s.Attack != "":
		return s.Attack
	case s.Hand == chart.TappingHand:
		return chart.Tap
	case s.slides && connected:
		return chart.Slide
	}
	slurred := wants
	switch a.Rule {
	case Legato, NoPluck:
		slurred = true
	case Slurred, PickOnce:
		slurred = !s.startsCell
	case Hammers:
		slurred = connected && !s.startsCell && s.fret > before.fret
	case Pulls:
		slurred = connected && !s.startsCell && s.fret < before.fret
	}
	switch {
	case slurred && connected:
		return slurTo(*before, s)
	case s.fret > 0 && (a.Rule == NoPluck || a.Rule == PickOnce && slurred):
		return chart.Nowhere
	}
	return chart.Pick
}

// slurTo is the slur that leads from one note to the next on a string.
func slurTo(before, s spot) chart.Attack {
	switch {
	case before.finger == s.finger && s.finger > 0 && before.Hand != chart.TappingHand:
		return chart.Slide
	case s.fret > before.fret:
		return chart.Hammer
	}
	return chart.Pull
}
