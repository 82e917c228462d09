package follow

import (
	"math"
	"slices"

	"manudrill/core/listen"
)

// How far below the player's usual level, in dB, what was heard is none of the
// player's notes: a voice, a string brushed, a chair. A note of the drill at its
// pitch and in its place may be softer than one of which nothing is known. Measured:
// false notes lay 10 to 33 dB below the median, and above 14 only before the first note of
// the drill or after the last; extra ones really played within 12, most within 8.
const (
	faintDB      = 14
	faintAsideDB = 10 // before the drill or after it
	faintRightDB = 24
)

// withoutFaint returns what was heard without the sounds too faint to be notes of
// this player, whose usual level is the median of the right notes, and without those too
// brief that are none of the drill's.
func withoutFaint(d *decoder, course []laid) []listen.Note {
	var levels []float64
	right := map[int]bool{}
	first, last := len(d.heard), -1
	end := d.passes(course) * d.size
	for _, p := range course {
		if p.chart >= end || p.chart == end-1 && p.move == again {
			break // the drill was over
		}
		if d.right(p.chart, p.heard) {
			right[p.heard] = true
			levels = append(levels, d.heard[p.heard].LevelDB)
		}
		if d.pitch(p.chart, p.heard) == 0 { // an octave off, or another, it may be none of the drill's
			first, last = min(first, p.heard), max(last, p.heard)
		}
	}
	usual := math.Inf(-1) // where too little is known nothing is too faint
	if len(levels) >= listen.LeastForUsual {
		slices.Sort(levels)
		usual = levels[len(levels)/2]
	}
	var out []listen.Note
	for i, n := range d.heard {
		below, faint, aside := usual-n.LevelDB, float64(faintDB), i < first || i > last
		if aside {
			faint = faintAsideDB
		}
		if !n.Brief && below < faint || right[i] && !aside && below < faintRightDB {
			out = append(out, n)
		}
	}
	return out
}
