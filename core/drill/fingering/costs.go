package fingering

import "math"

// What it costs, from note to note. One is a small discomfort: a hand that moves by one fret
// while it goes to another string. Whatever no hand should be asked to do costs more than any
// way around it.
const (
	// One fret beyond one finger a fret, once; it grows with the square, since the hand opens
	// from the palm only so far.
	openFret = 0.4
	// One fret fewer than one finger a fret: fingers stand on each other's place.
	crowdedFret = 0.6
	// The first finger has nothing to do: the lowest fret near by lies above it, by fret.
	idle = 0.3
	// A finger is used whose hand would lie behind the nut, by fret.
	behindNut = 2.5

	// The hand moves while it goes to another string or after an open one, and each fret of it.
	shiftFree, shiftFreeFret = 0.8, 0.3
	// The hand moves between two notes of one string: heard, unless it is meant to slide.
	shiftBound, shiftFret = 5, 0.4
	// The path itself moves the hand: only how far counts.
	shiftCarried = 0.1

	// Two fingers of one string more than this share of their comfortable reach apart …
	tight = 0.85
	// … cost this for each tenth; beyond the comfortable reach it is worse to stretch than to
	// move the hand, and better than to slide where no slide is asked for.
	tightTenth = 0.7
	beyond     = 6

	// One finger plays two frets of one string in a row, without a slide that is asked for.
	leapString, leapFret = 8, 0.3
	// One finger plays two frets of two strings in a row: it must let go to get there, and the
	// hand goes with it by each fret.
	leapAcross, leapAcrossFret = 4.5, 2
	// The same note changes its finger.
	changed = 9
	// The lower fret takes the higher finger of two, in one place.
	crossed = 25
	// One finger lies flat over two strings, and each string skipped besides …
	flat, flatSkip = 0.6, 1.5
	// … or would have to be hammered down twice.
	flatHammered = 6
	// Two fingers share a fret: the lower one belongs on the thicker string.
	shared, sharedWrong = 0.3, 6

	// A place has another finger than it mostly has while the hand is there.
	unlike = 1.2

	// The whole step of two lies where the school does not have it.
	otherSchool = 1.2
)

// offsets are how many frets from the first finger's place each finger may play: one finger a
// fret, and what opening and crowding add.
var offsets = [5][]int{1: {0}, 2: {0, 1, 2}, 3: {1, 2, 3}, 4: {2, 3, 4, 5}}

// A hold is a finger and the fret of the first finger while it plays.
type hold struct{ finger, place int }

// within is what it costs to play a note with a hold, by itself, where low is the lowest
// fret near by.
func within(n Note, h hold, low int) float64 {
	extra := float64(n.Fret - h.place - (h.finger - 1))
	cost := openFret * extra * extra
	if extra < 0 {
		cost = -crowdedFret * extra
	}
	if n.Usual != 0 && n.Usual != h.finger {
		cost += unlike
	}
	return cost + idle*float64(max(0, low-h.place)) + behindNut*float64(max(0, 1-h.place))
}

// from is what it costs to play note b with hold to after note a with hold at, both of the
// fretting hand and fretted, with only open strings or the other hand between.
func (p *player) from(a, b Note, at, to hold, free bool) float64 {
	if b.Slide && a.String == b.String && a.Fret != b.Fret {
		if at.finger != to.finger {
			return crossed // a slide keeps its finger
		}
		return 0
	}
	cost := p.moved(a, b, at, to, free)
	switch {
	case a.Place != b.Place:
		return cost
	case a.String == b.String:
		return cost + p.along(a, b, at.finger, to.finger)
	}
	return cost + across(a, b, at.finger, to.finger)
}

// moved is what it costs that the hand has another place.
func (p *player) moved(a, b Note, at, to hold, free bool) float64 {
	frets := math.Abs(float64(to.place - at.place))
	switch {
	case frets == 0, a.Place == b.Place && a.String == b.String && at.finger == to.finger:
		return 0 // what one finger leaps says it all
	case a.Place != b.Place:
		return shiftCarried * frets
	case free || a.String != b.String:
		return shiftFree + shiftFreeFret*frets
	}
	return shiftBound + shiftFret*frets
}

// along is what it costs to go from one note to the next on a string.
func (p *player) along(a, b Note, f, g int) float64 {
	frets, fingers := b.Fret-a.Fret, g-f
	switch {
	case frets == 0:
		return changed * math.Abs(float64(fingers))
	case fingers == 0:
		return leapString + leapFret*math.Abs(float64(frets))
	case frets*fingers < 0:
		return crossed
	}
	cost := 0.0
	if span := p.spans[f][g]; span > 0 {
		share := math.Abs(p.mm[b.Fret]-p.mm[a.Fret]) / span
		cost += tightTenth * 10 * max(0, share-tight)
		if share > 1 {
			cost += beyond
		}
	}
	if other := p.otherStep(min(f, g), max(f, g)); other && max(frets, -frets) == 2 {
		cost += otherSchool
	}
	return cost
}

// otherStep reports whether two fingers are those between which the school does not put a
// whole step.
func (p *player) otherStep(low, high int) bool {
	if p.ring {
		return low == 1 && high == 2
	}
	return low == 3 && high == 4
}

// across is what it costs to go from one note to the next on another string, in one place.
func across(a, b Note, f, g int) float64 {
	frets := b.Fret - a.Fret
	switch {
	case f == g && frets == 0 && b.Hammered:
		return flatHammered
	case f == g && frets == 0:
		return flat + flatSkip*float64(max(a.String-b.String, b.String-a.String)-1)
	case f == g:
		return leapAcross + leapAcrossFret*math.Abs(float64(frets))
	case frets == 0 && (b.String < a.String) == (g > f):
		return shared
	case frets == 0:
		return sharedWrong
	case frets*(g-f) < 0:
		return crossed
	}
	return 0
}
