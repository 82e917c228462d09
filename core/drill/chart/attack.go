package chart

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
