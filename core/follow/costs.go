package follow

// What a difference between chart and take costs: minus the natural logarithm of how
// often it happens, a note, to a student who practises (common practice, no count). Only
// how they stand to each other decides.
const (
	costMissed = 4.0 // a note is left out, or sounds so softly that it is not heard
	costExtra  = 4.0 // a note besides: a string touched, somebody else
	costWrong  = 5.2 // cheaper than one missed and one too many, and dearer than either
	costOctave = 2.4 // the listener takes a note for its octave: see [samePitch]
	costHidden = 3.6 // at its time, of a pitch that strings which ring on hide: see [hidden]
	costLate   = 4.8 // at most, for an interval of the wrong length: anybody may wait

	costAgain   = 3.4  // a note is struck again, and what follows goes on from there
	costAtFirst = 4.5  // the first note is: dearer than an extra note before it
	costMended  = 1.2  // a wrong note is followed by the right one: who hears it plays it again
	costBegin   = 6.5  // the player begins the pass again
	costBack    = 7.5  // the player goes back to a later note of the pass than its first
	costAfar    = 0.05 // more for each note that is gone back over
	costOn      = 12.0 // the player skips ahead
	costOver    = 0.3  // more for each note but one that is left out
	costLeft    = 10.0 // the drill is left before its end
	costMoved   = 14.0 // the whole take is played on other frets
)

// lateStart makes notes missed at the start a trifle dearer than others: where a
// player stopped early, the last pass may be missing as well as the first.
const lateStart = 1.001

// lateScale is the error of an interval, as a share of one chart step, that
// costs half of costLate.
const lateScale = 0.35

// beam is how much dearer than the cheapest course up to a heard note another may be and
// still be followed.
const beam = 20

// How far a step goes over missed and extra notes at one go, and over extra notes where the
// notes after it are right.
const (
	reach     = 8
	longReach = 64
)

// sight is how far from where the player is another place is looked for, in notes; the
// beginning of the pass is looked at from everywhere.
const sight = 1000
