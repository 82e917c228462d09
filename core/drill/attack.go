package drill

// An Attack is how a note starts.
type Attack string

// The attacks a chart may hold.
const (
	Pick   Attack = "pick"
	Hammer Attack = "hammer"
	Pull   Attack = "pull"
	Tap    Attack = "tap"
	Slide  Attack = "slide"
	Bend   Attack = "bend"
)

// Known reports whether a is one of the attacks.
func (a Attack) Known() bool {
	switch a {
	case Pick, Hammer, Pull, Tap, Slide, Bend:
		return true
	}
	return false
}

// Slurred reports whether a note with this attack sounds without a stroke or a
// tap: the fretting hand alone makes it.
func (a Attack) Slurred() bool { return a == Hammer || a == Pull || a == Slide }

// A Hand says which hand stops the string.
type Hand string

// The fretting hand and the tapping hand.
const (
	FrettingHand Hand = "fret"
	TappingHand  Hand = "tap"
)

// A Stroke is the direction of a picked note; slurred notes have none.
type Stroke string

// Down and up strokes of the pick.
const (
	Down Stroke = "down"
	Up   Stroke = "up"
)
