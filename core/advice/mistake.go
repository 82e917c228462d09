package advice

import (
	"fmt"
	"slices"
	"strings"

	"manudrill/core/drill/chart"
	"manudrill/core/evenness"
	"manudrill/core/follow"
	"manudrill/core/words"
)

// A Mistake is one note that was missed, wrong or besides, where it was, and in words.
type Mistake struct {
	Status follow.Status `json:"status,omitempty"` // missed or wrong; empty of a note besides
	Index  int           `json:"index"`            // of the chart note over all passes, or of the one before a note besides; −1 before the first
	T      float64       `json:"t"`                // when it came or should have, s
	Text   string        `json:"text"`
}

// mistakes are all of a take, in order of time.
func (t take) mistakes() []Mistake {
	out := []Mistake{}
	until := len(t.Notes)
	if t.Course.StoppedAfter != nil {
		until = *t.Course.StoppedAfter + 1 // what was left is told as that
	}
	skipped := t.skipped()
	for _, n := range t.Notes[:until] {
		switch {
		case n.Status == follow.Missed && !skipped[n.Index]:
			out = append(out, Mistake{n.Status, n.Index, n.ExpectedT, t.place(n.Index) + ", missed"})
		case n.Status == follow.Wrong:
			out = append(out, Mistake{n.Status, n.Index, *n.T, t.place(n.Index) + ", " + t.instead(n)})
		}
	}
	before, next := -1, 0 // notes
	for _, e := range t.Extras {
		for ; next < len(t.Notes) && (t.Notes[next].T == nil || *t.Notes[next].T <= e.T); next++ {
			if t.Notes[next].T != nil {
				before = next
			}
		}
		if t.toldApart(e.T) {
			continue
		}
		out = append(out, Mistake{"", before, e.T, t.besides(e, before)})
	}
	slices.SortStableFunc(out, func(a, b Mistake) int {
		switch {
		case a.T < b.T:
			return -1
		case a.T > b.T:
			return 1
		}
		return 0
	})
	return out
}

// place says where a chart note is: "pass 2, note 9: string 3 fret 7, ring finger".
func (t take) place(index int) string {
	n := t.note(index)
	where := fmt.Sprintf("%s: string %d fret %d", t.number(index), n.String, n.Fret)
	if n.Fret == 0 {
		return fmt.Sprintf("%s: string %d open", t.number(index), n.String)
	}
	if n.Hand == chart.TappingHand {
		return where + ", tapped"
	}
	return where + ", " + fingers[max(0, min(n.Finger, len(fingers)-1))]
}

func (t take) note(index int) chart.Note { return t.chart.Notes[index%len(t.chart.Notes)] }

// number names a note as the screens do: by pass where there are several.
func (t take) number(index int) string {
	size := len(t.chart.Notes)
	if len(t.Notes) <= size {
		return fmt.Sprintf("note %d", index+1)
	}
	return fmt.Sprintf("pass %d, note %d", index/size+1, index%size+1)
}

// instead says what was heard in a note's place: the fret of the same string where it
// is one, which a player sees.
func (t take) instead(n evenness.Note) string {
	asked := t.note(n.Index)
	switch fret := asked.Fret + *n.MIDI - asked.MIDI; {
	case fret == 0:
		return "the open string heard instead"
	case fret > 0 && fret <= highestFret:
		return fmt.Sprintf("fret %d heard instead", fret)
	}
	return "another pitch heard instead"
}

// highestFret is the highest fret that is named.
const highestFret = 24

// besides says what an extra note most likely is.
func (t take) besides(e evenness.Extra, before int) string {
	where := "before the first note"
	if before >= 0 {
		where = "after " + t.number(before)
	}
	switch e.Kind {
	case evenness.Repeated:
		return where + ": a note struck twice"
	case evenness.Touched:
		return where + ": an open string touched"
	}
	return where + ": a note too many"
}

// mostNamed is how many mistakes are named in a sentence; the list has all.
const mostNamed = 3

func findMistakes(t take) (string, int) {
	all := t.mistakes()
	if len(all) == 0 {
		return "", 0
	}
	named := make([]string, 0, mostNamed)
	for _, m := range all[:min(mostNamed, len(all))] {
		named = append(named, m.Text)
	}
	text := fmt.Sprintf("%s. %s", t.tally(), words.Sentence(strings.Join(named, "; ")))
	if more := len(all) - len(named); more > 0 {
		text += fmt.Sprintf("; and %d more", more)
	}
	return text + ".", len(all)
}

// tally counts what went wrong: "43 of 48 notes right, 1 extra".
func (t take) tally() string {
	text := fmt.Sprintf("%d of %d notes right", t.Counts.Played, t.Counts.Expected)
	if t.Counts.Extra > 0 {
		text += fmt.Sprintf(", %d extra", t.Counts.Extra)
	}
	return text
}
