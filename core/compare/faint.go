package compare

import (
	"math"
	"slices"

	"manudrill/core/listen"
)

// How far below the player's usual level, in dB, what was heard is none of the
// player's notes: a voice, a string brushed, a chair. A note of the drill at its
// pitch and in its place may be softer than one of which nothing is known. Measured:
// false notes lay 15 to 33 dB below the median, extra ones really played within 4.
const (
	faintDB      = 14
	faintRightDB = 24
)

// withoutFaint returns what was heard without the sounds too faint to be notes of
// this player, whose usual level is the median of the right notes, and without those too
// brief that are none of the drill's.
func withoutFaint(a *aligner, pairs []pair) []listen.Note {
	var levels []float64
	right := map[int]bool{}
	for _, p := range pairs {
		if a.right(p.chart, p.heard) {
			right[p.heard] = true
			levels = append(levels, a.heard[p.heard].LevelDB)
		}
	}
	usual := math.Inf(-1) // where too little is known nothing is too faint
	if len(levels) >= listen.LeastForUsual {
		slices.Sort(levels)
		usual = levels[len(levels)/2]
	}
	var out []listen.Note
	for i, n := range a.heard {
		below := usual - n.LevelDB
		if !n.Brief && below < faintDB || right[i] && below < faintRightDB {
			out = append(out, n)
		}
	}
	return out
}
