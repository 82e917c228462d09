package score

import (
	"cmp"
	"fmt"
	"slices"

	"manudrill/core/drill"
)

// AnyLine lets a reader choose which line of a file it reads.
const AnyLine = -1

// A Line is what of a file can be read by itself: a staff of a part, a track, or a channel.
type Line struct {
	Name  string `json:"name"`
	Notes int    `json:"notes"`
}

// A Tempo holds from a beat on.
type Tempo struct{ Beat, BPM float64 }

// Meter says, of a time with so many beats of a kind (4 a quarter, 8 an eighth), how many
// beats a bar has, and how many quarters one lasts: of six, nine or twelve eighths three are
// one beat (common practice). Kind is positive.
func Meter(beats, kind int) (perBar int, quarters float64) {
	quarters = 4 / float64(kind)
	if kind >= 8 && beats > 3 && beats%3 == 0 {
		return beats / 3, 3 * quarters
	}
	return beats, quarters
}

// LineIn checks which of the lines of a file is asked for; usual is the one that is read
// unasked.
func LineIn(lines []Line, asked, usual int) (int, error) {
	switch {
	case asked == AnyLine:
		return usual, nil
	case asked < 0 || asked >= len(lines):
		return 0, fmt.Errorf("there is no line %d in the file; choose one of its %d", asked+1, len(lines))
	}
	return asked, nil
}

// Begin lets the first note begin on beat 0 and takes the tempo that holds there.
func (s *Score) Begin() {
	if len(s.Notes) == 0 {
		return
	}
	first := s.Notes[0].Beat
	for i := range s.Notes {
		s.Notes[i].Beat -= first
	}
	slices.SortStableFunc(s.Tempi, func(a, b Tempo) int { return cmp.Compare(a.Beat, b.Beat) })
	for i := range s.Tempi {
		s.Tempi[i].Beat -= first
		if i == 0 || s.Tempi[i].Beat <= 0 && s.Tempi[i].Beat > s.Tempi[i-1].Beat {
			s.BPM = s.Tempi[i].BPM
		}
	}
}

// Within keeps the notes of bars, counted from 1, both among them.
func (s *Score) Within(first, last int) error {
	all, bars := len(s.Notes), s.Bars()
	if first > bars {
		return fmt.Errorf("there is no bar %d; the file has %d bars", first, bars)
	}
	if first > last {
		return fmt.Errorf("bar %d comes after bar %d; begin with the earlier one", first, last)
	}
	s.Notes = slices.DeleteFunc(s.Notes, func(n Note) bool { return n.Bar+1 < first || n.Bar+1 > last })
	if len(s.Notes) == 0 {
		return fmt.Errorf("bars %d to %d hold no notes; choose others", first, last)
	}
	if len(s.Notes) < all {
		s.Passes = 1
	}
	s.Begin()
	return nil
}

// Fitting is the last bar up to which the notes fit into a cell of one's own; 0 where the
// first bar does not.
func (s *Score) Fitting() int {
	if len(s.Notes) <= drill.MaxFreeNotes {
		return s.Bars()
	}
	return s.Notes[drill.MaxFreeNotes].Bar // the bar before the one of the first note too many
}

// Bars is how many bars there are up to the last note.
func (s *Score) Bars() int {
	if len(s.Notes) == 0 {
		return 0
	}
	return s.Notes[len(s.Notes)-1].Bar + 1
}

// Range is the slowest tempo under the notes and the quickest, in bpm; both 0 where the
// file does not say.
func (s *Score) Range() (slowest, quickest float64) {
	slowest, quickest = s.BPM, s.BPM
	for _, t := range s.Tempi {
		if t.Beat > 0 && t.Beat < s.Notes[len(s.Notes)-1].Beat {
			slowest, quickest = min(slowest, t.BPM), max(quickest, t.BPM)
		}
	}
	return slowest, quickest
}
