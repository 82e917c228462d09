package review

import (
	"fmt"
	"slices"
	"strings"

	"manudrill/core/drill"
	"manudrill/core/drill/chart"
	"manudrill/core/guitar"
	"manudrill/core/words"
)

// A Remark is something an instructor would say on reading the chart.
type Remark struct {
	Check string       `json:"check"` // "slur", "order", "reach", "hands", "strokes", "skips", "seam" or "cycle"
	Care  bool         `json:"care"`  // needs mending; else it is good to know
	Text  string       `json:"text"`
	Notes []int        `json:"notes,omitempty"` // of the chart, from 0
	Mends []drill.Mend `json:"mends,omitempty"`
}

// Of looks at the chart of d, which must be the one Chart writes for g,
// with the eyes of an instructor, for a hand.
func Of(d drill.Drill, c chart.Chart, g guitar.Guitar, h guitar.Hand) []Remark {
	remarks := []Remark{}
	for _, look := range []check{
		reviewSlurs,
		reviewOrder,
		func(d drill.Drill, c chart.Chart) (Remark, bool) { return reviewReach(d, c, g, h) },
		func(d drill.Drill, c chart.Chart) (Remark, bool) { return reviewHands(d, c, g) },
		reviewStrokes,
		reviewSkips(d.Rhythm.Passes > 1 && len(d.Then) == 0),
	} {
		if r, found := reviewParts(d, c, look.thatMends(g, h)); found {
			remarks = append(remarks, r)
		}
	}
	if r, found := check(reviewSeam).thatMends(g, h)(d, c); found {
		remarks = append(remarks, r)
	}
	if r, found := reviewCycle(d, c); found {
		r.Mends = slices.DeleteFunc(r.Mends, func(m drill.Mend) bool { return len(m.Drill.Check(g)) > 0 || len(m.Drill.CheckAt(g, c.BPM)) > 0 })
		remarks = append(remarks, r)
	}
	return remarks
}

// A check looks at a drill and its chart, and reports whether it has something to say.
type check func(drill.Drill, chart.Chart) (Remark, bool)

// thatMends is the check with those mends alone that take its remark away.
func (look check) thatMends(g guitar.Guitar, h guitar.Hand) check {
	return func(d drill.Drill, c chart.Chart) (Remark, bool) {
		r, found := look(d, c)
		r.Mends = slices.DeleteFunc(r.Mends, func(m drill.Mend) bool {
			mended, err := m.Drill.ChartFor(g, h, c.BPM)
			if err != nil {
				return true
			}
			_, still := look(m.Drill, mended)
			return still
		})
		return r, found
	}
}

// reviewParts looks at each part by itself. What several have is told of the first of
// them, with how many others have it.
func reviewParts(d drill.Drill, c chart.Chart, look check) (told Remark, found bool) {
	if len(d.Then) == 0 {
		return look(d, c)
	}
	first, others := 0, 0
	for i := range d.Parts() {
		r, is := look(d.Alone(i), c.Alone(i))
		for n := range r.Notes {
			r.Notes[n] += first
		}
		first += len(c.OfPart(i))
		if !is {
			continue
		}
		if found {
			others++
			told.Notes = append(told.Notes, r.Notes...)
			continue
		}
		told, found = r, true
		told.Text = fmt.Sprintf("Part %d: %s", i+1, r.Text)
		told.Mends = d.Mended(i, r.Mends)
	}
	if others > 0 {
		told.Text += fmt.Sprintf(" Something like it goes for %s.", words.Counted(others, "more part"))
	}
	return told, found
}

// reviewSlurs finds slurs no hand can make: a hammer-on goes up and a pull-off
// down, on one string, between different fingers; a slide keeps its finger.
func reviewSlurs(d drill.Drill, c chart.Chart) (Remark, bool) {
	r := Remark{Check: "slur", Care: true}
	for i, n := range c.Notes {
		var before *chart.Note
		if i > 0 {
			before = &c.Notes[i-1]
		}
		why := impossible(before, n)
		if why == "" {
			continue
		}
		if r.Text == "" {
			r.Text = fmt.Sprintf("Note %d cannot be made: %s.", i+1, why)
		}
		r.Notes = append(r.Notes, i)
	}
	if len(r.Notes) == 0 {
		return r, false
	}
	if len(r.Notes) > 1 {
		r.Text += fmt.Sprintf(" The same goes for %s.", words.Counted(len(r.Notes)-1, "more note"))
	}
	if d.Path.Shift.Slide {
		plain := d
		plain.Path.Shift.Slide = false
		r.Mends = append(r.Mends, drill.Mend{Text: "Shift without a slide", Drill: plain})
	}
	if p, ok := d.Pattern.(interface{ CloseOnFirst() drill.Pattern }); ok && d.Path.Shift.Slide {
		closed := d
		closed.Pattern = p.CloseOnFirst()
		r.Mends = append(r.Mends, drill.Mend{Text: "End each cell on the finger that begins it", Drill: closed})
	}
	if p, ok := d.Pattern.(interface{ WithoutAttacks([]int) drill.Pattern }); ok {
		freed := d
		freed.Pattern = p.WithoutAttacks(r.Notes)
		r.Mends = append(r.Mends, drill.Mend{Text: "Let the attack rule choose for these notes", Drill: freed})
	}
	return r, true
}

// impossible says why a note cannot start as it is written, or nothing.
func impossible(before *chart.Note, n chart.Note) string {
	connected := before != nil && before.String == n.String
	switch n.Attack {
	case chart.Hammer, chart.Pull, chart.Slide:
		if !connected {
			return "a new string needs a pick, a tap or a hammer-on from nowhere"
		}
	}
	switch {
	case n.Attack == chart.Hammer && n.Fret <= before.Fret:
		return "a hammer-on goes up"
	case n.Attack == chart.Pull && n.Fret >= before.Fret:
		return "a pull-off goes down"
	case (n.Attack == chart.Hammer || n.Attack == chart.Pull) && n.Finger == before.Finger && n.Hand == before.Hand:
		return "a slur needs two different fingers"
	case n.Attack == chart.Slide && (n.Finger != before.Finger || n.Hand != before.Hand):
		return "a slide keeps its finger"
	case n.Attack == chart.Slide && n.Fret == before.Fret:
		return "a slide leads to another fret"
	case n.Attack == chart.Nowhere && n.Fret == 0:
		return "the open string cannot be hammered"
	}
	return ""
}

// reviewOrder finds fingers that cross: in one position on one string, the
// higher fret takes the higher finger.
func reviewOrder(d drill.Drill, c chart.Chart) (Remark, bool) {
	r := Remark{Check: "order", Care: true}
	for i := 1; i < len(c.Notes); i++ {
		a, b := c.Notes[i-1], c.Notes[i]
		if !sameGrip(a, b) || a.String != b.String || a.Fret == b.Fret && a.Finger == b.Finger {
			continue
		}
		if (b.Fret-a.Fret)*(b.Finger-a.Finger) > 0 || b.Attack == chart.Slide {
			continue
		}
		if r.Text == "" {
			r.Text = fmt.Sprintf("Fingers %d and %d cross at note %d: the higher fret takes the higher finger.", a.Finger, b.Finger, i+1)
		}
		r.Notes = append(r.Notes, i)
	}
	if len(r.Notes) == 0 {
		return r, false
	}
	suggested := d
	suggested.Fingering.Own = nil
	if p, ok := d.Pattern.(interface{ WithoutFingers() drill.Pattern }); ok {
		suggested.Pattern = p.WithoutFingers()
	}
	r.Mends = []drill.Mend{{Text: "Use the suggested fingers", Drill: suggested}}
	return r, true
}

// sameGrip reports whether two notes are held by the fretting hand at one place.
func sameGrip(a, b chart.Note) bool {
	return a.Cell == b.Cell && a.Hand == chart.FrettingHand && b.Hand == chart.FrettingHand && a.Finger > 0 && b.Finger > 0
}

// A stretch is what a pair of fingers must span at once.
type stretch struct {
	low, high  int // fingers
	a, b, note int // frets and the later note
	mm, span   float64
}

// stretches returns the widest stretch of each finger pair that a hand has a reach for, over
// the fingers that are down at once: a note's and those before it that are still down.
func stretches(notes []chart.Note, g guitar.Guitar, h guitar.Hand) map[string]stretch {
	widest := map[string]stretch{}
	for i := range notes {
		for j := i - 1; j >= 0 && stillDown(notes, j, i); j-- {
			a, b := notes[j], notes[i]
			span, known := h.Span(a.Finger, b.Finger)
			if !sameGrip(a, b) || !known {
				continue
			}
			s := stretch{min(a.Finger, b.Finger), max(a.Finger, b.Finger), min(a.Fret, b.Fret), max(a.Fret, b.Fret), i, g.Reach(a.Fret, b.Fret), span}
			pair := fmt.Sprint(s.low, s.high)
			if s.mm > widest[pair].mm {
				widest[pair] = s
			}
		}
	}
	return widest
}

// stillDown reports whether the finger of an earlier note is down as a later one is begun:
// of two on one string the first is left only as the second sounds; before that, what is
// kept down is.
func stillDown(notes []chart.Note, earlier, later int) bool {
	a, b := notes[earlier], notes[later]
	if a.Cell != b.Cell || notes[earlier+1].Attack == chart.Slide {
		return false
	}
	return a.Keep || earlier == later-1 && a.String == b.String
}

// reviewReach finds pairs of fingers that must span more than the hand reaches
// in comfort, and the lowest position at which they need not.
func reviewReach(d drill.Drill, c chart.Chart, g guitar.Guitar, h guitar.Hand) (Remark, bool) {
	r := Remark{Check: "reach", Care: true}
	var texts []string
	widest := stretches(c.Notes, g, h)
	for low := 1; low <= 4; low++ {
		for high := low + 1; high <= 4; high++ {
			s, found := widest[fmt.Sprint(low, high)]
			if !found || s.mm <= s.span {
				continue
			}
			texts = append(texts, fmt.Sprintf("Fingers %d and %d must span %.0f mm at frets %d and %d; %.0f mm is comfortable for this hand.", low, high, s.mm, s.a, s.b, s.span))
			r.Notes = append(r.Notes, s.note)
		}
	}
	if len(texts) == 0 {
		return r, false
	}
	if fitting, ok := lowestInReach(d, g, h); ok {
		texts = append(texts, fmt.Sprintf("It fits from position %d.", fitting.Path.Position))
		r.Mends = append(r.Mends, drill.Mend{Text: fmt.Sprintf("Move to position %d", fitting.Path.Position), Drill: fitting})
	} else {
		texts = append(texts, "It fits nowhere on this neck; leave out the widest notes or warm up well.")
	}
	r.Text = strings.Join(texts, " ")
	return r, true
}

// lowestInReach finds the lowest position at which no stretch is too wide.
func lowestInReach(d drill.Drill, g guitar.Guitar, h guitar.Hand) (drill.Drill, bool) {
	for position := 1; position <= g.TopFret(); position++ {
		moved := d.InPosition(position)
		if !moved.Fits(g) {
			continue
		}
		c, err := moved.ChartFor(g, h, 60)
		if err == nil && inReach(stretches(c.Notes, g, h)) {
			return moved, true
		}
	}
	return d, false
}

func inReach(widest map[string]stretch) bool {
	for _, s := range widest {
		if s.mm > s.span {
			return false
		}
	}
	return true
}
