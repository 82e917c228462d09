package drill

import (
	"fmt"
	"slices"

	"manudrill/core/drill/chart"
	"manudrill/core/drill/fingering"
	"manudrill/core/words"
)

// Fingering says how fingers are found for the notes that a pattern leaves open, and holds
// what the instructor has set by hand.
type Fingering struct {
	Stretch   string         `json:"stretch"`           // the inner finger of two whole steps: "middle" or "ring"
	TapFinger int            `json:"tapFinger"`         // of the tapping hand: 1 index, 2 middle
	KeepDown  bool           `json:"keepDown"`          // going up, fingers stay where they were put
	Own       []PlacedFinger `json:"own,omitempty"`     // at places of one's own choice
	BendHeld  int            `json:"bendHeld,omitzero"` // semitones every fretted note is held bent by
}

// PlacedFinger says which finger plays a place, wherever it comes.
type PlacedFinger struct {
	String int `json:"string"`
	Fret   int `json:"fret"`
	Finger int `json:"finger"`
}

// Where teachers differ on two whole steps: 1-2-4, or 1-3-4.
const (
	ByMiddle = "middle"
	ByRing   = "ring"
)

// MaxBend is the widest bend that may be held, in semitones.
const MaxBend = 3

func (f Fingering) check(faults *Faults) {
	if f.Stretch != ByMiddle && f.Stretch != ByRing {
		faults.Add("fingering.stretch", "The inner finger of two whole steps is middle or ring, not %q.", f.Stretch)
	}
	if f.TapFinger < 1 || f.TapFinger > 4 {
		faults.Add("fingering.tapFinger", "Tap with finger 1 (index) to 4 (little finger), not %d.", f.TapFinger)
	}
	if f.BendHeld < 0 || f.BendHeld > MaxBend {
		faults.Add("fingering.bendHeld", "Hold a bend of 0 to %d semitones, not %d.", MaxBend, f.BendHeld)
	}
	for _, own := range f.Own {
		if own.Finger < 1 || own.Finger > 4 {
			faults.Add("fingering.own", "%s.", words.Sentence(fmt.Sprintf("string %d fret %d asks for finger %d; the fretting fingers are 1 to 4", own.String, own.Fret, own.Finger)))
			return
		}
	}
}

// assign gives every note its finger: the open string none, the tapping hand its own, the
// fretting hand what the pattern says, what is set by hand, or what is easiest.
func (f Fingering) assign(l line, by layout, rule AttackRule) {
	notes := make([]fingering.Note, len(l))
	for i, s := range l {
		l[i].own = f.set(s)
		given := s.Finger
		if l[i].own > 0 {
			given = l[i].own
		}
		notes[i] = fingering.Note{
			String: s.str, Fret: s.fret, Other: s.Hand == chart.TappingHand, Given: given, Place: s.grip,
			Slide: s.slides, Hammered: s.Attack == chart.Nowhere || s.Attack == "" && (rule == NoPluck || rule == PickOnce),
		}
	}
	chosen := fingering.Choose(notes, fingering.Player{Guitar: by.guitar, Hand: by.hand, Ring: f.Stretch == ByRing})
	for i := range l {
		l[i].finger = chosen[i]
		if l[i].Hand == chart.TappingHand {
			l[i].finger = f.TapFinger
			if l[i].Finger > 0 {
				l[i].finger = l[i].Finger
			}
		}
	}
}

// set is the finger that the instructor has set for a place, 0 for none.
func (f Fingering) set(s spot) int {
	at := slices.IndexFunc(f.Own, func(o PlacedFinger) bool { return o.String == s.str && o.Fret == s.fret })
	if at < 0 || s.Hand == chart.TappingHand || s.fret == 0 {
		return 0
	}
	return f.Own[at].Finger
}
