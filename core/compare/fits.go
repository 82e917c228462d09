package compare

import "manudrill/core/listen"

// Fits reports whether a heard note may be the one that was asked for, on strings that
// are sharp by so many semitones: at its pitch, or where what is heard does not tell.
func Fits(midi int, n listen.Note, sharp float64, lowest int) bool {
	return pitchCost(midi, n, sharp, lowest) < costWrong
}
