package drill

import "manudrill/core/drill/chart"

// A Ground is what a touch measures its place from.
type Ground int

// The open string, the hand's position on the neck, a degree of the key, or the nut.
const (
	OpenString Ground = iota
	ByHand
	InKey
	AtFret
)

// A Place is where on its string a touch lies.
type Place struct {
	On    Ground
	Steps int // frets above the position or the nut, or degrees above where the key starts
}

// A Touch is one note of a cell, before the cell has a place on the neck.
type Touch struct {
	String int // which string of the station, 0 the first
	Extra  int // a string of the guitar instead, where it is not 0
	At     Place
	Finger int          // 1 to 4; 0 leaves it to the fingering
	Hand   chart.Hand   // the fretting hand where empty
	Attack chart.Attack // empty leaves it to the attack rule
	Held   bool         // the finger stays down under what follows in the cell
}

// A Cell is a few notes that belong together; the path carries it about.
type Cell []Touch

// finger returns the touch of a fretting finger in position; finger 0 is the
// open string.
func finger(str, f int) Touch {
	if f == 0 {
		return Touch{String: str}
	}
	return Touch{String: str, At: Place{ByHand, f - 1}, Finger: f}
}

// degree returns the touch of a degree of the key.
func degree(str, steps int) Touch { return Touch{String: str, At: Place{InKey, steps}} }

// onOneString makes a cell of fingers on the station's first string.
func onOneString(fingers []int) Cell {
	cell := make(Cell, len(fingers))
	for i, f := range fingers {
		cell[i] = finger(0, f)
	}
	return cell
}

// strings returns how many strings of a station the cells need.
func stringsOf(cells []Cell) int {
	n := 1
	for _, c := range cells {
		for _, t := range c {
			n = max(n, t.String+1)
		}
	}
	return n
}

// usesKey reports whether any touch is placed by the key.
func usesKey(cells []Cell) bool {
	for _, c := range cells {
		for _, t := range c {
			if t.At.On == InKey {
				return true
			}
		}
	}
	return false
}

// mirrored turns the cells over in the hand: the first finger becomes the last,
// the lowest step the highest.
func mirrored(cells []Cell) []Cell {
	low, high := span(cells)
	out := make([]Cell, len(cells))
	for i, c := range cells {
		out[i] = make(Cell, len(c))
		for j, t := range c {
			if t.At.On != OpenString {
				t.At.Steps = low[t.At.On] + high[t.At.On] - t.At.Steps
			}
			if t.Finger > 0 && t.Hand != chart.TappingHand {
				t.Finger = 5 - t.Finger
			}
			out[i][j] = t
		}
	}
	return out
}

// span returns the lowest and the highest step on each ground. What the hand
// holds spans at least its four fingers, so that finger 1 and 4 change places.
func span(cells []Cell) (low, high map[Ground]int) {
	low, high = map[Ground]int{ByHand: 0, InKey: 0}, map[Ground]int{ByHand: 3, InKey: 0}
	for _, c := range cells {
		for _, t := range c {
			if _, known := low[t.At.On]; !known {
				low[t.At.On], high[t.At.On] = t.At.Steps, t.At.Steps
			}
			low[t.At.On] = min(low[t.At.On], t.At.Steps)
			high[t.At.On] = max(high[t.At.On], t.At.Steps)
		}
	}
	return low, high
}
