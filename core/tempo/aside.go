package tempo

// An Aside is why a take counts for nothing, whatever is measured in it.
type Aside string

// Asides. A take that is none counts for what it is.
const (
	NoAside  Aside = ""
	TriedOut Aside = "tryOut"   // by the simulated player, for somebody who is not invented
	Tapped   Aside = "tapped"   // on a key: timing alone
	OwnTempo Aside = "ownTempo" // at a tempo of the player's own choice: to warm up, or for the pleasure of it
)

var asideReasons = map[Aside]string{
	TriedOut: "A try-out by the simulated player: it counts for nothing.",
	Tapped:   "Tapped on a key: it shows your timing, and counts for nothing.",
	OwnTempo: "At a tempo of your own choice: it counts for nothing.",
}

// Decision answers a take that counts for nothing: it shows what is measured, and moves
// nobody.
func (a Aside) Decision(at Rung, gate Gate) Decision {
	return Decision{Step: Hold, At: at, Next: at, Gate: gate, Reason: asideReasons[a]}
}
