package guitar

import (
	"fmt"
	"strconv"
)

// Pairs are the pairs of fretting fingers, as a Hand names them.
var Pairs = []string{"12", "23", "34", "13", "24", "14"}

// A Hand is how far each pair of fretting fingers reaches in comfort: mm
// between fingertips, by pair ("12", "14" …).
type Hand map[string]float64

// UsualHand returns the reach of a grown hand without special training. The
// spans let one finger a fret be played all over a 648 mm neck, and two whole
// steps from about the fifth fret (common practice; the values are meant to be
// replaced by the student's own).
func UsualHand() Hand {
	return Hand{"12": 60, "23": 50, "34": 50, "13": 80, "24": 75, "14": 105}
}

// Span returns the comfortable reach between two fingers in mm, and whether the
// hand has one; a finger with itself has none.
func (h Hand) Span(a, b int) (float64, bool) {
	mm, ok := h[strconv.Itoa(min(a, b)*10+max(a, b))]
	return mm, ok
}

// Validate says what cannot be a hand, or nil.
func (h Hand) Validate() error {
	for _, pair := range Pairs {
		if mm, ok := h[pair]; ok && !(mm >= 15 && mm <= 220) {
			return fmt.Errorf("the reach of fingers %s is %g mm; give 15 to 220", pair, mm)
		}
	}
	for pair := range h {
		if _, _, ok := fingersOf(pair); !ok {
			return fmt.Errorf("%q is no pair of fretting fingers; name it 12, 23, 34, 13, 24 or 14", pair)
		}
	}
	return nil
}

func fingersOf(pair string) (int, int, bool) {
	for _, p := range Pairs {
		if p == pair {
			return int(p[0] - '0'), int(p[1] - '0'), true
		}
	}
	return 0, 0, false
}
