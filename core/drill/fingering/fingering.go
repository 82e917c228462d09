package fingering

import (
	"math"
	"slices"

	"manudrill/core/guitar"
)

// A Note is what fingering sees of one.
type Note struct {
	String   int
	Fret     int  // 0 is the open string
	Other    bool // the other hand plays it
	Given    int  // the finger that is said; 0 leaves it open
	Usual    int  // the finger this place mostly has, where that is known
	Place    int  // counts the places the path carries the hand to
	Slide    bool // it is reached by a slide on the finger before
	Hammered bool // its finger comes down by itself: no stroke makes it sound
}

// fretted reports whether a finger of the fretting hand is needed.
func (n Note) fretted() bool { return !n.Other && n.Fret > 0 }

// A Player is whose fingers are looked for.
type Player struct {
	Guitar guitar.Guitar
	Hand   guitar.Hand // comfortable reach; pairs it does not name reach everywhere
	Ring   bool        // of two whole steps the ring finger takes the inner note, not the middle

}

// A player is a Player with what is asked again and again worked out.
type player struct {
	ring  bool
	spans [5][5]float64 // comfortable reach, mm; 0 where the hand has none
	mm    []float64     // from the nut to each fret there is in the notes
	ways  map[way][]float64
}

// A way is one note after another, as far as it matters to what that costs: a drill has few
// of them, each many times.
type way struct {
	a, b       Note
	same, free bool // one place of the hand; an open string or the other hand between
}

// between are the costs of going from each hold of a note to each of the next, those of one
// hold of the next after another.
func (p *player) between(a, b Note, free bool) []float64 {
	key := way{a, b, a.Place == b.Place, free}
	key.a.Place, key.b.Place = 0, 0
	if costs, known := p.ways[key]; known {
		return costs
	}
	var costs []float64
	for _, to := range holdsOf(b) {
		for _, at := range holdsOf(a) {
			costs = append(costs, p.from(a, b, at, to, free))
		}
	}
	p.ways[key] = costs
	return costs
}

func (p Player) prepared(notes []Note) *player {
	out := player{ring: p.Ring, ways: map[way][]float64{}}
	for f := 1; f <= 4; f++ {
		for g := 1; g <= 4; g++ {
			out.spans[f][g], _ = p.Hand.Span(f, g)
		}
	}
	for _, n := range notes {
		for len(out.mm) <= n.Fret {
			out.mm = append(out.mm, p.Guitar.Reach(0, len(out.mm)))
		}
	}
	return &out
}

// lead is how many notes at the beginning keep what they got the first time: a pass is
// repeated, and the last fingers lead to them.
const lead = 6

// Choose returns a finger for each note: 1 to 4, or 0 where no finger of the fretting hand
// is needed. Given fingers are kept. It looks twice: what a place mostly got the first time
// is what it should have all through, for a hand learns places.
func Choose(notes []Note, who Player) []int {
	p := who.prepared(notes)
	fingers := make([]int, len(notes))
	at := frettedOf(notes)
	if len(at) == 0 {
		return fingers
	}
	holds, _ := p.cheapest(notes, at)
	holds, _ = p.cheapest(settled(notes, at, holds), again(at))
	for i, n := range at {
		fingers[n] = holds[i].finger
	}
	return fingers
}

// settled are the notes with the finger that each place mostly has, of two as frequent the
// lower; the first ones keep theirs.
func settled(notes []Note, at []int, holds []hold) []Note {
	type spot struct{ place, str, fret int }
	times := map[spot][5]int{}
	where := func(n Note) spot { return spot{n.Place, n.String, n.Fret} }
	for i, n := range at {
		counts := times[where(notes[n])]
		counts[holds[i].finger]++
		times[where(notes[n])] = counts
	}
	out := slices.Clone(notes)
	for i, n := range at {
		if i < lead {
			out[n].Given = holds[i].finger
		}
		counts := times[where(notes[n])]
		for f := 1; f <= 4; f++ {
			if counts[f] > counts[out[n].Usual] {
				out[n].Usual = f
			}
		}
	}
	return out
}

// Cost is what some fingers cost on notes played once, with the best places of the hand for
// them. There must be a finger of 1 to 4 for each note that needs one.
func Cost(notes []Note, fingers []int, who Player) float64 {
	p := who.prepared(notes)
	at := frettedOf(notes)
	said := slices.Clone(notes)
	for _, n := range at {
		said[n].Given = fingers[n]
	}
	_, cost := p.cheapest(said, at)
	return cost
}

// frettedOf are the indices of the notes that need a finger.
func frettedOf(notes []Note) (at []int) {
	for i, n := range notes {
		if n.fretted() {
			at = append(at, i)
		}
	}
	return at
}

// again are indices of notes with the first few once more at the end: a pass is repeated.
func again(at []int) []int {
	out := slices.Clone(at)
	for i := range min(lead, len(at)) {
		out = append(out, at[i])
	}
	return out
}

// A step is the cheapest way to a hold.
type step struct {
	hold
	cost float64
	from int // the hold of the note before, by its index
}

// cheapest finds the holds of least cost for the notes with indices at, and what they cost.
func (p *player) cheapest(notes []Note, at []int) ([]hold, float64) {
	table, lows := make([][]step, len(at)), lowest(notes, at)
	for i, n := range at {
		var between []float64
		if i > 0 {
			between = p.between(notes[at[i-1]], notes[n], n != at[i-1]+1)
		}
		for j, h := range holdsOf(notes[n]) {
			s := step{hold: h, cost: within(notes[n], h, lows[i])}
			if i > 0 {
				least, before := math.Inf(1), table[i-1]
				for k, b := range before {
					if c := b.cost + between[j*len(before)+k]; c < least {
						least, s.from = c, k
					}
				}
				s.cost += least
			}
			table[i] = append(table[i], s)
		}
	}
	last := len(table) - 1
	best := 0
	for k := range table[last] {
		if table[last][k].cost < table[last][best].cost {
			best = k
		}
	}
	cost := table[last][best].cost
	out := make([]hold, len(at))
	for i := last; i >= 0; i-- {
		out[i] = table[i][best].hold
		best = table[i][best].from
	}
	return out, cost
}

// lowest are the lowest frets near by each note: of it and the two before and after it that
// the hand has in the same place.
func lowest(notes []Note, at []int) []int {
	out := make([]int, len(at))
	for i, n := range at {
		out[i] = notes[n].Fret
		for _, near := range at[max(0, i-2):min(len(at), i+3)] {
			if notes[near].Place == notes[n].Place {
				out[i] = min(out[i], notes[near].Fret)
			}
		}
	}
	return out
}

// holdsOf are the ways of playing a note.
func holdsOf(n Note) (holds []hold) {
	for f := 1; f <= 4; f++ {
		if n.Given != 0 && n.Given != f {
			continue
		}
		for _, offset := range offsets[f] {
			holds = append(holds, hold{f, n.Fret - offset})
		}
	}
	return holds
}
