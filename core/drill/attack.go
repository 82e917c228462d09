package drill

import "slices"

// An Attack is how a note starts.
type Attack string

// The attacks a chart may hold. A hammer-on from nowhere has no sounding note
// before it on its string.
const (
	Pick    Attack = "pick"
	Hammer  Attack = "hammer"
	Pull    Attack = "pull"
	Tap     Attack = "tap"
	Slide   Attack = "slide"
	Nowhere Attack = "nowhere"
	Bend    Attack = "bend"
)

var attacks = []Attack{Pick, Hammer, Pull, Tap, Slide, Nowhere, Bend}

// Known reports whether a is one of the attacks.
func (a Attack) Known() bool { return slices.Contains(attacks, a) }

// Slurred reports whether a note with this attack sounds without a stroke or a
// tap: the fretting hand alone makes it.
func (a Attack) Slurred() bool { return a == Hammer || a == Pull || a == Slide || a == Nowhere }

// A Hand says which hand stops the string.
type Hand string

// The fretting hand and the tapping hand.
const (
	FrettingHand Hand = "fret"
	TappingHand  Hand = "tap"
)

// An AttackRule says which notes are picked and which slurred, where the
// pattern leaves it open.
type AttackRule string

// The attack rules. A slur is always made the way the frets go: up by hammer-on,
// down by pull-off, on one finger by a slide.
const (
	AllPicked AttackRule = "picked"  // every note
	Slurred   AttackRule = "slurred" // one stroke starts each cell and each new string
	Legato    AttackRule = "legato"  // one stroke a string, cells run into one another
	Hammers   AttackRule = "hammers" // rising notes are hammered, all others picked
	Pulls     AttackRule = "pulls"   // falling notes are pulled off, all others picked
	NoPluck   AttackRule = "noPluck" // the fretting hand alone: hammer-ons from nowhere for strokes
	InTurn    AttackRule = "inTurn"  // picked and slurred by a cycle of one's own
)

// AttackRules are all of them.
var AttackRules = []AttackRule{AllPicked, Slurred, Legato, Hammers, Pulls, NoPluck, InTurn}

// Attacks is the rule of a drill.
type Attacks struct {
	Rule  AttackRule `json:"rule"`
	Cycle []bool     `json:"cycle,omitempty"` // of InTurn: true is slurred where it can be
}

func (a Attacks) check(faults *Faults) {
	if !slices.Contains(AttackRules, a.Rule) {
		faults.Add("attacks", "The attack rule is %q; choose picked, slurred, legato, hammers, pulls, noPluck or inTurn.", a.Rule)
	}
	if a.Rule == InTurn && len(a.Cycle) == 0 {
		faults.Add("attacks", "Say which notes are slurred in turn: give a cycle of at least one note.")
	}
}

// assign gives every note its attack.
func (a Attacks) assign(l line) {
	for i := range l {
		var before *spot
		if i > 0 {
			before = &l[i-1]
		}
		l[i].attack = a.of(i, before, l[i])
	}
}

// of decides one note, the i-th, from the one before it.
func (a Attacks) of(i int, before *spot, s spot) Attack {
	switch {
	case s.Attack != "":
		return s.Attack
	case s.Hand == TappingHand:
		return Tap
	case s.slides && before != nil && before.str == s.str && before.fret != s.fret:
		return Slide
	}
	connected := before != nil && before.str == s.str && before.fret != s.fret
	slurred := false
	switch a.Rule {
	case Slurred:
		slurred = !s.startsCell
	case Legato, NoPluck:
		slurred = true
	case Hammers:
		slurred = connected && !s.startsCell && s.fret > before.fret
	case Pulls:
		slurred = connected && !s.startsCell && s.fret < before.fret
	case InTurn:
		slurred = a.Cycle[i%len(a.Cycle)]
	}
	switch {
	case slurred && connected:
		return slurTo(*before, s)
	case a.Rule == NoPluck && s.fret > 0:
		return Nowhere
	}
	return Pick
}

// slurTo is the slur that leads from one note to the next on a string.
func slurTo(before, s spot) Attack {
	switch {
	case before.finger == s.finger && s.finger > 0 && before.Hand != TappingHand:
		return Slide
	case s.fret > before.fret:
		return Hammer
	}
	return Pull
}
