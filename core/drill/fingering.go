package drill

import (
	"fmt"
	"math"
	"slices"
)

// Fingering finds fingers for the notes that a pattern leaves open, and holds
// what the instructor has set by hand.
type Fingering struct {
	Stretch   string         `json:"stretch"`           // the inner finger of two whole steps: "middle" or "ring"
	TapFinger int            `json:"tapFinger"`         // of the tapping hand: 1 index, 2 middle
	KeepDown  bool           `json:"keepDown"`          // going up, fingers stay where they were put
	Own       []PlacedFinger `json:"own,omitempty"`     // at places of one's own choice
	BendHeld  int            `json:"bendHeld,omitzero"` // semitones every fretted note is held bent by
}

// PlacedFinger says which finger plays a place, wherever it comes.
type PlacedFinger struct {
	String int `json:"string"`
	Fret   int `json:"fret"`
	Finger int `json:"finger"`
}

// Where teachers differ on two whole steps: 1-2-4, or 1-3-4.
const (
	ByMiddle = "middle"
	ByRing   = "ring"
)

// MaxBend is the widest bend that may be held, in semitones.
const MaxBend = 3

func (f Fingering) check(faults *Faults) {
	if f.Stretch != ByMiddle && f.Stretch != ByRing {
		faults.Add("fingering.stretch", "The inner finger of two whole steps is middle or ring, not %q.", f.Stretch)
	}
	if f.TapFinger < 1 || f.TapFinger > 4 {
		faults.Add("fingering.tapFinger", "Tap with finger 1 (index) to 4 (little finger), not %d.", f.TapFinger)
	}
	if f.BendHeld < 0 || f.BendHeld > MaxBend {
		faults.Add("fingering.bendHeld", "Hold a bend of 0 to %d semitones, not %d.", MaxBend, f.BendHeld)
	}
	for _, own := range f.Own {
		if own.Finger < 1 || own.Finger > 4 {
			faults.Add("fingering.own", "%s.", sentence(fmt.Sprintf("string %d fret %d asks for finger %d; the fretting fingers are 1 to 4", own.String, own.Fret, own.Finger)))
			return
		}
	}
}

// assign gives every note its finger: the open string none, the tapping hand
// its own, the fretting hand what the pattern says, what is set by hand, or
// what leads to the least stretching and moving.
func (f Fingering) assign(l line) {
	var open []int // indices of fretted notes
	for i := range l {
		s := &l[i]
		switch {
		case s.Hand == TappingHand:
			s.finger = f.TapFinger
			if s.Finger > 0 {
				s.finger = s.Finger
			}
		case s.fret == 0:
			s.finger = 0
		default:
			s.finger = f.own(*s)
			open = append(open, i)
		}
	}
	f.suggest(l, open)
}

// own is the finger that is given for a note, 0 for none.
func (f Fingering) own(s spot) int {
	at := slices.IndexFunc(f.Own, func(o PlacedFinger) bool { return o.String == s.str && o.Fret == s.fret })
	if at >= 0 {
		return f.Own[at].Finger
	}
	return s.Finger
}

// suggest finds the cheapest path through the fingers of the fretted notes
// (dynamic programming over neighbouring notes: Sayegh, Computer Music Journal
// 13(3), 1989; the costs are Manudrill's own).
func (f Fingering) suggest(l line, fretted []int) {
	if !slices.ContainsFunc(fretted, func(i int) bool { return l[i].finger == 0 }) {
		return
	}
	type state struct {
		cost float64
		from int
	}
	// The pass goes on with its first notes, so the last ones are fingered to
	// lead there.
	whole := len(fretted)
	fretted = append(slices.Clone(fretted), fretted[:min(3, whole)]...)
	table := make([][5]state, len(fretted))
	for n, i := range fretted {
		for finger := 1; finger <= 4; finger++ {
			table[n][finger] = state{cost: math.Inf(1)}
			if given := l[i].finger; given != 0 && given != finger {
				continue
			}
			framed := frame(l, fretted, n, finger)
			if n == 0 {
				table[n][finger].cost = 2 * framed
				continue
			}
			for before := 1; before <= 4; before++ {
				cost := table[n-1][before].cost + framed
				if last := l[fretted[n-1]]; last.station == l[i].station || l[i].At.On == ByHand {
					cost += f.move(last, l[i], before, finger)
				}
				if cost < table[n][finger].cost {
					table[n][finger] = state{cost, before}
				}
			}
		}
	}
	finger := 1
	for n := len(fretted) - 1; n >= 0; n-- {
		if n == len(fretted)-1 {
			for other := 2; other <= 4; other++ {
				if table[n][other].cost < table[n][finger].cost {
					finger = other
				}
			}
		}
		if n < whole {
			l[fretted[n]].finger = finger
		}
		finger = table[n][finger].from
	}
}

// frame is what it costs when the hand does not lie with its first finger on
// the lowest fret near by, at the n-th fretted note.
func frame(l line, fretted []int, n, finger int) float64 {
	note := l[fretted[n]]
	low := note.fret
	for _, i := range fretted[max(0, n-2):min(len(fretted), n+3)] {
		if l[i].station == note.station {
			low = min(low, l[i].fret)
		}
	}
	return 0.2 * math.Abs(float64(note.fret-low-(finger-1)))
}

// move is what it costs to play one fretted note with a finger after another.
func (f Fingering) move(a, b spot, from, to int) float64 {
	frets, fingers := float64(b.fret-a.fret), float64(to-from)
	if a.str == b.str {
		switch {
		case frets == 0:
			return 9 * math.Abs(fingers) // the same note changes no finger
		case fingers == 0:
			return 6 + 0.2*math.Abs(frets) // one finger jumps or slides
		case frets*fingers < 0:
			return 14 + 0.5*math.Abs(frets) // fingers cross: the hand shifts
		}
		return f.stretch(from, to, math.Abs(frets)-math.Abs(fingers))
	}
	cost := 0.6 * math.Abs(frets-fingers) // the hand moves along
	switch {
	case fingers == 0 && frets == 0:
		cost += 1.5 // one finger flattens over two strings
	case fingers == 0:
		cost += 4 // one finger leaps
	}
	return cost
}

// stretch is the cost of frets beyond one a finger; the little finger and the
// index give way more easily than the two in the middle.
func (f Fingering) stretch(from, to int, extra float64) float64 {
	if extra < 0 {
		return -2.5 * extra // fingers are crowded
	}
	low, high := min(from, to), max(from, to)
	weight := 3.0 // 2-3
	switch {
	case low == 1 && high == 2:
		weight = 1.2
	case low == 3 && high == 4:
		weight = 1.6
	case low == 1:
		weight = 1.4
	case high == 4:
		weight = 1.8
	}
	if f.Stretch == ByRing {
		switch {
		case low == 1 && high == 2:
			weight = 2.6
		case low == 3 && high == 4:
			weight = 1
		}
	}
	return weight * extra * extra
}
