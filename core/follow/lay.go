package follow

import (
	"cmp"
	"maps"
	"math"
	"slices"

	"manudrill/core/drill/chart"
	"manudrill/core/listen"
)

// A shift is by how much all strings are out of tune, and on which other frets all was
// played.
type shift struct {
	sharp      float64 // semitones, less than one
	transposed int     // semitones
}

// lay lays what was heard against a chart, at the tuning at which most of it fits.
func lay(written chart.Chart, asked int, heard []listen.Note) (best *decoder, course []laid, at shift) {
	notes := unrolled(written, max(asked, passesIn(written, heard))+1) // who goes on begins another pass
	least := math.Inf(1)
	try := func(s shift, cost float64) {
		d := newDecoder(written, notes, heard, asked, s)
		c := d.decode()
		if s.transposed != 0 && d.rightShare(c) < movedShare {
			return
		}
		if best == nil || d.lowest+cost < least {
			best, course, at, least = d, c, s, d.lowest+cost
		}
	}
	for _, sharp := range detuned(heard) {
		try(shift{sharp: sharp}, 0)
	}
	if best.misfit(course) > costMoved { // what else could it be?
		for _, by := range likelyMoves(notes, heard, at.sharp) {
			try(shift{at.sharp, by}, costMoved)
		}
	}
	// Once more at the tempo that was really held, where it was another.
	if held, ok := best.heldTempo(course); ok && held > 0 && math.Abs(held/best.spb-1) > 0.01 {
		best.spb = held
		course = best.decode()
	}
	return best, course, at
}

// movedShare is how many of the notes heard must be right for all to have been played on other
// frets: by one of many distances half of them fit another drill, too.
const movedShare = 0.8

// rightShare is the share of the notes heard that are right on a course.
func (d *decoder) rightShare(course []laid) float64 {
	right := 0
	for _, p := range course {
		if d.right(p.chart, p.heard) {
			right++
		}
	}
	return float64(right) / float64(max(1, len(d.heard)))
}

// misfit is what the pitches of all that was heard cost on a course.
func (d *decoder) misfit(course []laid) float64 {
	cost := float64(len(d.heard)-len(course)) * costExtra
	for _, p := range course {
		cost += d.pitch(p.chart, p.heard)
	}
	return cost
}

func newDecoder(written chart.Chart, notes []chart.Note, heard []listen.Note, asked int, s shift) *decoder {
	lowest := lowestOf(written) + s.transposed
	d := &decoder{
		at: s, notes: notes, size: len(written.Notes), asked: asked * len(written.Notes), heard: heard, spb: 60 / written.BPM,
		jumps: !slices.ContainsFunc(heard, func(n listen.Note) bool { return n.Unpitched }),
		pitch: func(c, h int) float64 { return pitchCost(notes[c].MIDI+s.transposed, heard[h], s.sharp, lowest) },
	}
	for c, n := range notes {
		d.places[n.MIDI%12] = append(d.places[n.MIDI%12], c)
	}
	return d
}

// mostMoves is how many ways of moving the hand are tried, and nearby how far apart, in
// notes, a heard note and a chart note may lie to say something of it.
const (
	mostMoves = 3
	nearby    = 4
)

// likelyMoves are the distances, in semitones, by which most heard notes lie from the
// chart's about them.
func likelyMoves(notes []chart.Note, heard []listen.Note, sharp float64) []int {
	votes := map[int]int{}
	for h, n := range heard {
		for c := max(0, h-nearby); c < min(len(notes), h+nearby+1); c++ {
			if by := nearest(n, sharp) - notes[c].MIDI; by != 0 {
				votes[by]++
			}
		}
	}
	likely := slices.SortedFunc(maps.Keys(votes), func(a, b int) int {
		return cmp.Or(cmp.Compare(votes[b], votes[a]), cmp.Compare(a, b))
	})
	return likely[:min(mostMoves, len(likely))]
}

// passesIn is how many passes the heard notes are enough for.
func passesIn(c chart.Chart, heard []listen.Note) int {
	return (len(heard) + len(c.Notes)/2) / len(c.Notes)
}

// unrolled is the chart written out over so many passes.
func unrolled(c chart.Chart, passes int) []chart.Note {
	c.Passes = passes
	return c.Unroll()
}
