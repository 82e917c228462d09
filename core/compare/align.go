package compare

import (
	"math"
	"slices"

	"manudrill/core/drill"
	"manudrill/core/listen"
)

// A pair lays a heard note on a chart note, both by index.
type pair struct{ chart, heard int }

// What a difference between chart and take costs. A wrong note must be cheaper
// than one missed and one too many, and dearer than either.
const (
	costMissed = 1.0
	costExtra  = 1.0
	costWrong  = 1.3
	costLate   = 1.2 // at most, for an interval of the wrong length
)

// lateScale is the error of an interval, as a share of one chart step, that
// costs half of costLate.
const lateScale = 0.35

// reach is how many missed notes, or extra ones, in a row the alignment steps
// over at one go; band is how far the two lists may run apart altogether.
const (
	reach = 8
	band  = 250
)

// A cell is the best alignment that ends by laying one heard note on one chart
// note.
type cell struct {
	cost float64
	from pair // the pair before; heard −1 at the start
}

// align finds the cheapest way to lay heard notes on chart notes in order, by
// dynamic programming over pairs. The cost of a pair is its pitch; of a step
// from pair to pair, what is skipped and how far the interval is off.
func align(notes []drill.Note, heard []listen.Note, secondsPerBeat float64) []pair {
	table := make([]map[int]cell, len(heard)) // by chart index, within the band
	for h := range heard {
		table[h] = make(map[int]cell)
		for c := max(0, h-band); c < min(len(notes), h+band); c++ {
			best := cell{cost: float64(h)*costExtra + float64(c)*costMissed, from: pair{-1, -1}}
			for dh := 1; dh <= min(h, reach); dh++ {
				for dc := 1; dc <= min(c, reach); dc++ {
					before, ok := table[h-dh][c-dc]
					if !ok {
						continue
					}
					cost := before.cost + float64(dh-1)*costExtra + float64(dc-1)*costMissed
					if cost >= best.cost {
						continue
					}
					cost += intervalCost(notes, heard, pair{c - dc, h - dh}, pair{c, h}, secondsPerBeat)
					if cost < best.cost {
						best = cell{cost, pair{c - dc, h - dh}}
					}
				}
			}
			if !samePitch(notes[c].MIDI, heard[h]) {
				best.cost += costWrong
			}
			table[h][c] = best
		}
	}
	return trace(table, len(notes))
}

// intervalCost prices the time between two pairs against the chart's.
func intervalCost(notes []drill.Note, heard []listen.Note, a, b pair, secondsPerBeat float64) float64 {
	asked := (notes[b.chart].Beat - notes[a.chart].Beat) * secondsPerBeat
	off := math.Abs(heard[b.heard].Onset-heard[a.heard].Onset-asked) / (asked / float64(b.chart-a.chart))
	r := off * off / (lateScale * lateScale)
	return costLate * r / (1 + r)
}

// trace follows the cheapest alignment back from its end.
func trace(table []map[int]cell, charted int) []pair {
	best, at := math.Inf(1), pair{-1, -1}
	for h, row := range table {
		for c, one := range row {
			cost := one.cost + float64(len(table)-1-h)*costExtra + float64(charted-1-c)*costMissed
			if cost < best || cost == best && c < at.chart {
				best, at = cost, pair{c, h}
			}
		}
	}
	var pairs []pair
	for at.heard >= 0 {
		pairs = append(pairs, at)
		at = table[at.heard][at.chart].from
	}
	slices.Reverse(pairs)
	return pairs
}

// heldTempo returns the seconds per beat at which the pairs of right pitch were
// played: the median of their intervals over the beats between.
func heldTempo(notes []drill.Note, heard []listen.Note, pairs []pair) (float64, bool) {
	var each []float64
	for i := 1; i < len(pairs); i++ {
		a, b := pairs[i-1], pairs[i]
		beats := notes[b.chart].Beat - notes[a.chart].Beat
		if beats > 0 && samePitch(notes[a.chart].MIDI, heard[a.heard]) && samePitch(notes[b.chart].MIDI, heard[b.heard]) {
			each = append(each, (heard[b.heard].Onset-heard[a.heard].Onset)/beats)
		}
	}
	if len(each) < 3 {
		return 0, false
	}
	slices.Sort(each)
	return each[len(each)/2], true
}
