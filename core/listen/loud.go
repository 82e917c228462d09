package listen

import "slices"

// faintDB is how far below the player's usual level a sound is none of the player's
// notes, where no chart is known. Measured: false notes lay 15 to 33 dB below the
// median of those played, and the softest slurs some 12.
const faintDB = 16

// LeastForUsual is how many notes must be heard to know a player's usual level.
const LeastForUsual = 6

// Loud returns the notes without those too faint, or too brief, to be the player's:
// voices, a string brushed, a chair. The usual level is the upper quartile, for among what is heard
// there may be many faint sounds.
func Loud(notes []Note) []Note {
	if len(notes) < LeastForUsual {
		return notes
	}
	levels := make([]float64, len(notes))
	for i, n := range notes {
		levels[i] = n.LevelDB
	}
	slices.Sort(levels)
	usual := levels[len(levels)*3/4]
	var loud []Note
	for _, n := range notes {
		if n.LevelDB > usual-faintDB && !n.Brief {
			loud = append(loud, n)
		}
	}
	return loud
}
